/**
 * The loops that decide how long a page takes, in AssemblyScript (WebAssembly with SIMD): the same arithmetic, to the bit, as in
 * `straighten.ts` and `raster.ts`, which say what it is for. Compiled by `npm run kernels`; a picture lies in the memory from `source` on,
 * with room for one pixel behind it, and what is made of it from `out` on.
 */

/** Four channels of a pixel as four numbers. @param at may be followed by one byte that is none of its own */
// @ts-ignore: decorator
@inline
function pixel(at: usize): v128 {
  return i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(at)));
}

/** The channels of two pixels beside each other, in pairs of 16 bits: those of the left one, those of the right one. */
// @ts-ignore: decorator
@inline
function beside(at: usize, channels: i32): v128 {
  const both = v128.load64_zero(at);
  const none = i64x2.splat(0);
  return channels === 3
    ? v128.shuffle<u8>(both, none, 0, 16, 3, 16, 1, 16, 4, 16, 2, 16, 5, 16, 16, 16, 16, 16)
    : v128.shuffle<u8>(both, none, 0, 16, 4, 16, 1, 16, 5, 16, 2, 16, 6, 16, 16, 16, 16, 16);
}

/** How many bytes the memory has to have. */
export function reserve(bytes: i32): void {
  const pages = (bytes + 0xffff) >> 16;
  if (pages > memory.size()) memory.grow(pages - memory.size());
}

const SPAN: i32 = 16;
const HALF: i32 = 1 << 15;
const PLACE: f64 = 65536;

function colourRow(
  source: usize,
  width: i32,
  channels: i32,
  x: f64,
  y: f64,
  stepX: i32,
  stepY: i32,
  out: usize,
  length: i32,
): void {
  const below = width * channels;
  const base = (<i32>Math.floor(y) * width + <i32>Math.floor(x)) * channels;
  let fx = <i32>((x - Math.floor(x)) * PLACE);
  let fy = <i32>((y - Math.floor(y)) * PLACE);
  const half = i32x4.splat(HALF);
  for (let count = 0; count < length; count++) {
    const at = source + base + ((fy >> 16) * width + (fx >> 16)) * channels;
    const right = (fx >> 8) & 255;
    const down = (fy >> 8) & 255;
    // Weights of both pixels of a row at once: products of the shares across and down are those of the four neighbours.
    const shares = i32x4.splat((right << 16) | (256 - right));
    const upper = i32x4.dot_i16x8_s(beside(at, channels), shares);
    const lower = i32x4.dot_i16x8_s(beside(at + below, channels), shares);
    const sum = i32x4.shr_u(
      i32x4.add(
        i32x4.add(i32x4.mul(upper, i32x4.splat(256 - down)), i32x4.mul(lower, i32x4.splat(down))),
        half,
      ),
      16,
    );
    // The fourth byte is that of the next pixel, which comes after.
    store<u32>(out, i32x4.extract_lane(v128.shuffle<u8>(sum, sum, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12), 0));
    out += 3;
    fx += stepX;
    fy += stepY;
  }
}

function greyRow(
  source: usize,
  width: i32,
  x: f64,
  y: f64,
  stepX: i32,
  stepY: i32,
  out: usize,
  length: i32,
): void {
  const base = <i32>Math.floor(y) * width + <i32>Math.floor(x);
  let fx = <i32>((x - Math.floor(x)) * PLACE);
  let fy = <i32>((y - Math.floor(y)) * PLACE);
  for (let count = 0; count < length; count++) {
    const at = source + base + (fy >> 16) * width + (fx >> 16);
    const right = (fx >> 8) & 255;
    const down = (fy >> 8) & 255;
    const lowerRight = right * down;
    const upperRight = (right << 8) - lowerRight;
    const lowerLeft = (down << 8) - lowerRight;
    const upperLeft = 65536 - upperRight - lowerLeft - lowerRight;
    const sum =
      <i32>load<u8>(at) * upperLeft +
      <i32>load<u8>(at + 1) * upperRight +
      <i32>load<u8>(at + width) * lowerLeft +
      <i32>load<u8>(at + width + 1) * lowerRight +
      HALF;
    store<u8>(out + count, <u8>(sum >> 16));
    fx += stepX;
    fy += stepY;
  }
}

/** How far outside the picture its outermost pixels still reach. */
const OVERHANG: f64 = 1;

// @ts-ignore: decorator
@inline
function within(value: f64, size: i32): f64 {
  return Math.max(0, Math.min(Math.max(0, <f64>size - 1.004), value));
}

/**
 * A quad of a picture made flat, by the homography h (of which the last number is 1).
 * @param channels of the picture: 1, 3 or 4; what is made has 1 or 3
 */
export function warp(
  source: usize,
  width: i32,
  height: i32,
  channels: i32,
  out: usize,
  across: i32,
  down: i32,
  h0: f64,
  h1: f64,
  h2: f64,
  h3: f64,
  h4: f64,
  h5: f64,
  h6: f64,
  h7: f64,
): void {
  const made = channels === 1 ? 1 : 3;
  const lastX = <f64>(width - 1);
  const lastY = <f64>(height - 1);
  for (let y = 0; y < down; y++) {
    const py = <f64>y + 0.5;
    let w = h6 * 0.5 + h7 * py + 1;
    let fromX = (h0 * 0.5 + h1 * py + h2) / w - 0.5;
    let fromY = (h3 * 0.5 + h4 * py + h5) / w - 0.5;
    for (let x = 0; x < across; x += SPAN) {
      const length = min(SPAN, across - x);
      const px = <f64>(x + length) + 0.5;
      w = h6 * px + h7 * py + 1;
      const toX = (h0 * px + h1 * py + h2) / w - 0.5;
      const toY = (h3 * px + h4 * py + h5) / w - 0.5;
      const to = out + (y * across + x) * made;
      const inside =
        fromX >= 0 && fromY >= 0 && fromX < lastX && fromY < lastY && toX >= 0 && toY >= 0 && toX < lastX && toY < lastY;
      if (inside) {
        const stepX = <i32>(((toX - fromX) / <f64>length) * PLACE);
        const stepY = <i32>(((toY - fromY) / <f64>length) * PLACE);
        if (made === 1) greyRow(source, width, fromX, fromY, stepX, stepY, to, length);
        else colourRow(source, width, channels, fromX, fromY, stepX, stepY, to, length);
      } else {
        for (let by = 0; by < length; by++) {
          const qx = <f64>(x + by) + 0.5;
          w = h6 * qx + h7 * py + 1;
          const atX = (h0 * qx + h1 * py + h2) / w - 0.5;
          const atY = (h3 * qx + h4 * py + h5) / w - 0.5;
          if (
            atX < -OVERHANG ||
            atY < -OVERHANG ||
            atX > <f64>width - 1 + OVERHANG ||
            atY > <f64>height - 1 + OVERHANG
          )
            memory.fill(to + by * made, 255, made);
          else if (made === 1) greyRow(source, width, within(atX, width), within(atY, height), 0, 0, to + by, 1);
          else
            colourRow(source, width, channels, within(atX, width), within(atY, height), 0, 0, to + by * made, 1);
        }
      }
      fromX = toX;
      fromY = toY;
    }
  }
}

/**
 * A picture made smaller: each pixel the mean of some of those that it covers.
 * @param across, down where the cells of the smaller picture begin, and where the last one ends, as 32-bit numbers
 * @param sums room for a row of sums, 16 bytes a pixel
 * @param stride from each pixel of a cell that counts to the next
 */
export function shrink(
  source: usize,
  width: i32,
  channels: i32,
  across: usize,
  down: usize,
  sums: usize,
  out: usize,
  outWidth: i32,
  outHeight: i32,
  stride: i32,
): void {
  for (let y = 0; y < outHeight; y++) {
    memory.fill(sums, 0, outWidth << 4);
    let rows = 0;
    const last = load<i32>(down + ((y + 1) << 2));
    for (let row = load<i32>(down + (y << 2)); row < last; row += stride, rows++) {
      const line = source + row * width * channels;
      for (let x = 0; x < outWidth; x++) {
        let at = line + load<i32>(across + (x << 2)) * channels;
        const end = line + load<i32>(across + ((x + 1) << 2)) * channels;
        const to = sums + (x << 4);
        if (channels === 1) {
          let sum = 0;
          for (; at < end; at += stride) sum += <i32>load<u8>(at);
          store<i32>(to, load<i32>(to) + sum);
        } else {
          let sum = v128.load(to);
          for (; at < end; at += stride * channels) sum = i32x4.add(sum, pixel(at));
          v128.store(to, sum);
        }
      }
    }
    for (let x = 0; x < outWidth; x++) {
      const cell = load<i32>(across + ((x + 1) << 2)) - load<i32>(across + (x << 2));
      const covered = rows * ((cell + stride - 1) / stride);
      const from = sums + (x << 4);
      const to = out + (y * outWidth + x) * channels;
      if (channels === 1) store<u8>(to, <u8>(load<i32>(from) / covered));
      else {
        store<u8>(to, <u8>(load<i32>(from) / covered));
        store<u8>(to + 1, <u8>(load<i32>(from + 4) / covered));
        store<u8>(to + 2, <u8>(load<i32>(from + 8) / covered));
        if (channels === 4) store<u8>(to + 3, 255);
      }
    }
  }
}
