/**
 * The loops that decide how long a page takes, in AssemblyScript (WebAssembly with SIMD): the same arithmetic, to the bit, as in
 * `straighten.ts` and `raster.ts`, which say what it is for. Compiled by `npm run kernels`; a picture lies in the memory from `source` on,
 * with room for one pixel behind it, and what is made of it from `out` on.
 */

/** How many bytes the memory has to have. */
export function reserve(bytes: i32): void {
  const pages = (bytes + 0xffff) >> 16;
  if (pages > memory.size()) memory.grow(pages - memory.size());
}

const SPAN: i32 = 16;
/** How many rows of a page are made together. */
const TILE: i32 = 64;
const HALF: i32 = 1 << 15;
const PLACE: f64 = 65536;
/** Each of two 16-bit numbers less by half of their range, as signed ones; and what that takes from a sum whose weights are 256. */
const SIGNED: i32 = <i32>0x80008000;
const TAKEN: i32 = 256 << 15;

/** Between what two rows give, each at most 255 × 256, by how far down in 256ths it lies: in 65536ths. */
// @ts-ignore: decorator
@inline
function between(upper: v128, lower: v128, down: v128): v128 {
  const both = v128.xor(v128.or(i32x4.shl(lower, 16), upper), i32x4.splat(SIGNED));
  const shares = v128.or(i32x4.shl(down, 16), i32x4.sub(i32x4.splat(256), down));
  return i32x4.add(i32x4.dot_i16x8_s(both, shares), i32x4.splat(TAKEN + HALF));
}

/** The first of four 32-bit numbers in all four; with `NEXT` added, the second, and so on. */
const FIRST: i32 = 0x03020100;
const NEXT: i32 = 0x04040404;

/**
 * One pixel between its four neighbours, its channels in 65536ths.
 * @param pairs where the channels of two pixels beside each other are, in pairs of 16 bits: those of the left one, those of the right one
 * @param shares of the left and the right one, in each of four pairs of 16 bits
 * @param down how far down it lies, in each of four 32-bit numbers
 */
// @ts-ignore: decorator
@inline
function colourAt(at: usize, below: i32, pairs: v128, shares: v128, down: v128): v128 {
  const upper = i32x4.dot_i16x8_s(v128.swizzle(v128.load64_zero(at), pairs), shares);
  const lower = i32x4.dot_i16x8_s(v128.swizzle(v128.load64_zero(at + below), pairs), shares);
  return between(upper, lower, down);
}

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
  const first = source + base;
  const whole = i32x4.splat(256);
  const part = i32x4.splat(255);
  const pairs =
    channels === 3
      ? i8x16(0, -128, 3, -128, 1, -128, 4, -128, 2, -128, 5, -128, -128, -128, -128, -128)
      : i8x16(0, -128, 4, -128, 1, -128, 5, -128, 2, -128, 6, -128, -128, -128, -128, -128);
  const places = i32x4(0, 1, 2, 3);
  let fx = i32x4.add(i32x4.splat(<i32>((x - Math.floor(x)) * PLACE)), i32x4.mul(i32x4.splat(stepX), places));
  let fy = i32x4.add(i32x4.splat(<i32>((y - Math.floor(y)) * PLACE)), i32x4.mul(i32x4.splat(stepY), places));
  let left = length;
  for (; left > 0; left -= 4, out += 12) {
    const right = v128.and(i32x4.shr_s(fx, 8), part);
    const down = v128.and(i32x4.shr_s(fy, 8), part);
    const shares = v128.or(i32x4.shl(right, 16), i32x4.sub(whole, right));
    const pixel = i32x4.add(i32x4.mul(i32x4.shr_s(fy, 16), i32x4.splat(width)), i32x4.shr_s(fx, 16));
    const at = i32x4.mul(pixel, i32x4.splat(channels));
    if (left < 4) {
      for (let rest = 0; rest < left; rest++, out += 3) {
        const lane = i32x4.splat(FIRST + rest * NEXT);
        const place = first + i32x4.extract_lane(v128.swizzle(at, lane), 0);
        const sum = colourAt(place, below, pairs, v128.swizzle(shares, lane), v128.swizzle(down, lane));
        const made = i32x4.extract_lane(v128.swizzle(sum, i32x4.splat(0x0e0a0602)), 0);
        store<u16>(out, <u16>made);
        store<u8>(out, <u8>(made >> 16), 2);
      }
      return;
    }
    const at0 = first + i32x4.extract_lane(at, 0);
    const at1 = first + i32x4.extract_lane(at, 1);
    const at2 = first + i32x4.extract_lane(at, 2);
    const at3 = first + i32x4.extract_lane(at, 3);
    const shares0 = v128.shuffle<i32>(shares, shares, 0, 0, 0, 0);
    const shares1 = v128.shuffle<i32>(shares, shares, 1, 1, 1, 1);
    const shares2 = v128.shuffle<i32>(shares, shares, 2, 2, 2, 2);
    const shares3 = v128.shuffle<i32>(shares, shares, 3, 3, 3, 3);
    const sum0 = colourAt(at0, below, pairs, shares0, v128.shuffle<i32>(down, down, 0, 0, 0, 0));
    const sum1 = colourAt(at1, below, pairs, shares1, v128.shuffle<i32>(down, down, 1, 1, 1, 1));
    const sum2 = colourAt(at2, below, pairs, shares2, v128.shuffle<i32>(down, down, 2, 2, 2, 2));
    const sum3 = colourAt(at3, below, pairs, shares3, v128.shuffle<i32>(down, down, 3, 3, 3, 3));
    const made = i8x16.narrow_i16x8_u(
      i16x8.narrow_i32x4_s(i32x4.shr_s(sum0, 16), i32x4.shr_s(sum1, 16)),
      i16x8.narrow_i32x4_s(i32x4.shr_s(sum2, 16), i32x4.shr_s(sum3, 16)),
    );
    const twelve = v128.swizzle(made, i8x16(0, 1, 2, 4, 5, 6, 8, 9, 10, 12, 13, 14, 15, 15, 15, 15));
    v128.store64_lane(out, twelve, 0);
    v128.store32_lane(out, twelve, 2, 8);
    fx = i32x4.add(fx, i32x4.splat(stepX << 2));
    fy = i32x4.add(fy, i32x4.splat(stepY << 2));
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
  let count = 0;
  if (length >= 4) {
    const none = i64x2.splat(0);
    const whole = i32x4.splat(256);
    const part = i32x4.splat(255);
    const first = source + base;
    let fx4 = i32x4.add(i32x4.splat(fx), i32x4.mul(i32x4.splat(stepX), i32x4(0, 1, 2, 3)));
    let fy4 = i32x4.add(i32x4.splat(fy), i32x4.mul(i32x4.splat(stepY), i32x4(0, 1, 2, 3)));
    for (; count + 4 <= length; count += 4) {
      const at = i32x4.add(i32x4.mul(i32x4.shr_s(fy4, 16), i32x4.splat(width)), i32x4.shr_s(fx4, 16));
      const at0 = first + i32x4.extract_lane(at, 0);
      const at1 = first + i32x4.extract_lane(at, 1);
      const at2 = first + i32x4.extract_lane(at, 2);
      const at3 = first + i32x4.extract_lane(at, 3);
      let upper = v128.load16_lane(at0, none, 0);
      upper = v128.load16_lane(at1, upper, 1);
      upper = v128.load16_lane(at2, upper, 2);
      upper = v128.load16_lane(at3, upper, 3);
      let lower = v128.load16_lane(at0 + width, none, 0);
      lower = v128.load16_lane(at1 + width, lower, 1);
      lower = v128.load16_lane(at2 + width, lower, 2);
      lower = v128.load16_lane(at3 + width, lower, 3);
      const right = v128.and(i32x4.shr_s(fx4, 8), part);
      const down = v128.and(i32x4.shr_s(fy4, 8), part);
      const shares = v128.or(i32x4.shl(right, 16), i32x4.sub(whole, right));
      const above = i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(upper), shares);
      const sum = between(above, i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(lower), shares), down);
      store<u32>(out + count, i32x4.extract_lane(v128.swizzle(sum, i32x4.splat(0x0e0a0602)), 0));
      fx4 = i32x4.add(fx4, i32x4.splat(stepX << 2));
      fy4 = i32x4.add(fy4, i32x4.splat(stepY << 2));
    }
    fx += stepX * count;
    fy += stepY * count;
  }
  for (; count < length; count++) {
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
function white(out: usize, channels: i32): void {
  store<u8>(out, 255);
  if (channels === 1) return;
  store<u8>(out, 255, 1);
  store<u8>(out, 255, 2);
}

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
  // By tiles: of a sheet that lies sideways, rows of the page are columns of the picture.
  for (let tile = 0; tile < down; tile += TILE) {
    const bottom = min(down, tile + TILE);
    for (let x = 0; x < across; x += SPAN) {
      const length = min(SPAN, across - x);
      for (let y = tile; y < bottom; y++) {
        const py = <f64>y + 0.5;
        const bx = <f64>x + 0.5;
        let w = h6 * bx + h7 * py + 1;
        const fromX = (h0 * bx + h1 * py + h2) / w - 0.5;
        const fromY = (h3 * bx + h4 * py + h5) / w - 0.5;
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
              white(to + by * made, made);
            else if (made === 1) greyRow(source, width, within(atX, width), within(atY, height), 0, 0, to + by, 1);
            else
              colourRow(source, width, channels, within(atX, width), within(atY, height), 0, 0, to + by * made, 1);
          }
        }
      }
    }
  }
}

/** Adds the bytes of a row to 16-bit sums. */
// @ts-ignore: decorator
@inline
function addRow(row: usize, sums: usize, count: i32): void {
  let at = 0;
  for (; at + 16 <= count; at += 16) {
    const bytes = v128.load(row + at);
    const to = sums + (at << 1);
    v128.store(to, i16x8.add(v128.load(to), i16x8.extend_low_i8x16_u(bytes)));
    v128.store(to, i16x8.add(v128.load(to, 16), i16x8.extend_high_i8x16_u(bytes)), 16);
  }
  for (; at < count; at++) {
    const to = sums + (at << 1);
    store<u16>(to, load<u16>(to) + load<u8>(row + at));
  }
}

/**
 * A picture made smaller: each pixel the mean of some of those that it covers, no more than 256 rows of them.
 * @param across, down where the cells of the smaller picture begin, and where the last one ends, as 32-bit numbers
 * @param sums room for a row of the picture and two pixels, 2 bytes a channel
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
  const line = width * channels;
  const step = (stride * channels) << 1;
  for (let y = 0; y < outHeight; y++) {
    memory.fill(sums, 0, line << 1);
    let rows = 0;
    const last = load<i32>(down + ((y + 1) << 2));
    for (let row = load<i32>(down + (y << 2)); row < last; row += stride, rows++)
      addRow(source + row * line, sums, line);
    let begin = load<i32>(across);
    let known = 0;
    let covered = 0;
    let to = out + y * outWidth * channels;
    for (let x = 0; x < outWidth; x++, to += channels) {
      const next = load<i32>(across + ((x + 1) << 2));
      const cell = next - begin;
      let at = sums + ((begin * channels) << 1);
      const end = at + ((cell * channels) << 1);
      begin = next;
      if (cell !== known) {
        known = cell;
        covered = rows * (stride === 1 ? cell : (cell + stride - 1) / stride);
      }
      if (channels === 1) {
        let sum = 0;
        for (; at < end; at += step) sum += <i32>load<u16>(at);
        store<u8>(to, <u8>(sum / covered));
      } else {
        let sum = v128.load_ext<u16>(at);
        for (at += step; at < end; at += step) sum = i32x4.add(sum, v128.load_ext<u16>(at));
        // Exact: neither number has more than 23 bits.
        if (covered > 1)
          sum = i32x4.trunc_sat_f32x4_s(f32x4.div(f32x4.convert_i32x4_s(sum), f32x4.splat(<f32>covered)));
        store<u32>(to, i32x4.extract_lane(v128.swizzle(sum, i32x4.splat(0x0c080400)), 0));
        if (channels === 4) store<u8>(to + 3, 255);
      }
    }
  }
}
