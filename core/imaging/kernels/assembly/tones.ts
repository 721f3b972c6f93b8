/**
 * Grey, ink, smoothing and even light of a page, pixel by pixel: the same arithmetic, to the bit, as in `raster.ts`, `ink.ts`, `noise.ts`
 * and `looks.ts`, which say what it is for.
 */

/** The brightness of two pixels: each the sum of two of four 32-bit numbers. */
// @ts-ignore: decorator
@inline
function weighedPair(bytes: v128, places: v128): v128 {
  return i32x4.dot_i16x8_s(v128.swizzle(bytes, places), i16x8(77, 150, 29, 0, 77, 150, 29, 0));
}

/** The brightness of each pixel. @param channels 3 or 4 */
export function grey(source: usize, channels: i32, count: i32, out: usize): void {
  const second = <u8>channels;
  const third = <u8>(2 * channels);
  const fourth = <u8>(3 * channels);
  const first2 = i8x16(0, -128, 1, -128, 2, -128, -128, -128, second, -128, second + 1, -128, second + 2, -128, -128, -128);
  const last2 = i8x16(third, -128, third + 1, -128, third + 2, -128, -128, -128, fourth, -128, fourth + 1, -128, fourth + 2, -128, -128, -128);
  const half = i32x4.splat(128);
  let at = 0;
  for (; at + 4 <= count; at += 4, source += channels << 2) {
    const bytes = v128.load(source);
    const one = weighedPair(bytes, first2);
    const two = weighedPair(bytes, last2);
    const sum = i32x4.add(
      v128.shuffle<i32>(one, two, 0, 2, 4, 6),
      v128.shuffle<i32>(one, two, 1, 3, 5, 7),
    );
    const level = i32x4.shr_u(i32x4.add(sum, half), 8);
    store<u32>(out + at, i32x4.extract_lane(v128.swizzle(level, i32x4.splat(0x0c080400)), 0));
  }
  for (; at < count; at++, source += channels) {
    const sum = 77 * <i32>load<u8>(source) + 150 * <i32>load<u8>(source, 1) + 29 * <i32>load<u8>(source, 2) + 128;
    store<u8>(out + at, <u8>(sum >> 8));
  }
}

/** Adds a row to sums of its columns, or takes it away. */
// @ts-ignore: decorator
@inline
export function addRow(row: usize, width: i32, sums: usize, sign: i32): void {
  const signs = i32x4.splat(sign);
  let x = 0;
  for (; x + 16 <= width; x += 16) {
    const bytes = v128.load(row + x);
    const low = i16x8.extend_low_i8x16_u(bytes);
    const high = i16x8.extend_high_i8x16_u(bytes);
    const to = sums + (x << 2);
    v128.store(to, i32x4.add(v128.load(to), i32x4.mul(i32x4.extend_low_i16x8_u(low), signs)));
    v128.store(to, i32x4.add(v128.load(to, 16), i32x4.mul(i32x4.extend_high_i16x8_u(low), signs)), 16);
    v128.store(to, i32x4.add(v128.load(to, 32), i32x4.mul(i32x4.extend_low_i16x8_u(high), signs)), 32);
    v128.store(to, i32x4.add(v128.load(to, 48), i32x4.mul(i32x4.extend_high_i16x8_u(high), signs)), 48);
  }
  for (; x < width; x++) {
    const to = sums + (x << 2);
    store<i32>(to, load<i32>(to) + sign * <i32>load<u8>(row + x));
  }
}

/** 1 in each of four 32-bit numbers for a byte that is darker than what is around, all bits set; else 0. */
// @ts-ignore: decorator
@inline
function darkerThan(values: v128, sums: usize, shares: usize, keep: v128, least: v128): v128 {
  const value = f32x4.convert_i32x4_s(values);
  const mean = f32x4.mul(f32x4.convert_i32x4_s(v128.load(sums)), v128.load(shares));
  return v128.and(f32x4.lt(f32x4.add(value, least), mean), f32x4.lt(value, f32x4.mul(keep, mean)));
}

/**
 * What is darker than the mean of its surroundings: 1, the rest 0.
 * @param radius of the square around
 * @param keep the share of the mean that it is darker than, and `least` how many grey levels it is darker
 * @param room for three rows of 32-bit numbers
 */
export function darker(
  source: usize,
  width: i32,
  height: i32,
  radius: i32,
  keep: f32,
  least: f32,
  room: usize,
  out: usize,
): void {
  const sums = room + (width << 2);
  const shares = sums + (width << 2);
  memory.fill(room, 0, width << 2);
  const keep4 = f32x4.splat(keep);
  const least4 = f32x4.splat(least);
  const ones = i8x16.splat(1);
  let known = 0;
  for (let y = 0; y < min(radius, height); y++) addRow(source + y * width, width, room, 1);
  for (let y = 0; y < height; y++) {
    if (y + radius < height) addRow(source + (y + radius) * width, width, room, 1);
    if (y > radius) addRow(source + (y - radius - 1) * width, width, room, -1);
    const rows = min(height - 1, y + radius) - max(0, y - radius) + 1;
    if (rows !== known)
      for (let x = 0; x < width; x++)
        store<f32>(
          shares + (x << 2),
          <f32>(1 / <f64>(rows * (min(width - 1, x + radius) - max(0, x - radius) + 1))),
        );
    known = rows;
    let sum = 0;
    for (let x = 0; x < min(radius, width); x++) sum += load<i32>(room + (x << 2));
    for (let x = 0; x < width; x++) {
      if (x + radius < width) sum += load<i32>(room + ((x + radius) << 2));
      if (x > radius) sum -= load<i32>(room + ((x - radius - 1) << 2));
      store<i32>(sums + (x << 2), sum);
    }
    const from = source + y * width;
    const to = out + y * width;
    let x = 0;
    for (; x + 16 <= width; x += 16) {
      const bytes = v128.load(from + x);
      const low = i16x8.extend_low_i8x16_u(bytes);
      const high = i16x8.extend_high_i8x16_u(bytes);
      const at = sums + (x << 2);
      const by = shares + (x << 2);
      const first = darkerThan(i32x4.extend_low_i16x8_u(low), at, by, keep4, least4);
      const second = darkerThan(i32x4.extend_high_i16x8_u(low), at + 16, by + 16, keep4, least4);
      const third = darkerThan(i32x4.extend_low_i16x8_u(high), at + 32, by + 32, keep4, least4);
      const fourth = darkerThan(i32x4.extend_high_i16x8_u(high), at + 48, by + 48, keep4, least4);
      const found = i8x16.narrow_i16x8_s(
        i16x8.narrow_i32x4_s(first, second),
        i16x8.narrow_i32x4_s(third, fourth),
      );
      v128.store(to + x, v128.and(found, ones));
    }
    for (; x < width; x++) {
      const value = <f32>load<u8>(from + x);
      const mean = <f32>load<i32>(sums + (x << 2)) * load<f32>(shares + (x << 2));
      store<u8>(to + x, <u8>(value + least < mean && value < keep * mean));
    }
  }
}

/** A weighted sum of bytes that lie a step apart, for each of so many; `weights` are 16-bit numbers that add up to 256. */
// @ts-ignore: decorator
@inline
function weighed(from: usize, step: usize, weights: usize, taps: i32, out: usize, count: i32): void {
  let at = 0;
  for (; at + 8 <= count; at += 8) {
    let sum = i16x8.splat(128);
    for (let tap = 0; tap < taps; tap++) {
      const bytes = i16x8.extend_low_i8x16_u(v128.load64_zero(from + at + tap * step));
      sum = i16x8.add(sum, i16x8.mul(bytes, v128.load16_splat(weights + (tap << 1))));
    }
    const means = i16x8.shr_u(sum, 8);
    store<u64>(out + at, i64x2.extract_lane(i8x16.narrow_i16x8_u(means, means), 0));
  }
  for (; at < count; at++) {
    let sum = 128;
    for (let tap = 0; tap < taps; tap++)
      sum += <i32>load<u16>(weights + (tap << 1)) * <i32>load<u8>(from + at + tap * step);
    store<u8>(out + at, <u8>(sum >> 8));
  }
}

/**
 * Smoothed across and down.
 * @param channels of the picture
 * @param weights of the pixels from `reach` before to `reach` behind, 16-bit numbers that add up to 256
 * @param row room for a row and `reach` pixels on either side
 * @param between room for a picture with `reach` rows above and below
 */
export function smooth(
  source: usize,
  width: i32,
  height: i32,
  channels: i32,
  weights: usize,
  reach: i32,
  row: usize,
  between: usize,
  out: usize,
): void {
  const line = width * channels;
  const taps = 2 * reach + 1;
  for (let y = 0; y < height; y++) {
    const from = source + y * line;
    for (let x = 0; x < reach; x++) {
      memory.copy(row + x * channels, from, channels);
      memory.copy(row + (reach + width + x) * channels, from + line - channels, channels);
    }
    memory.copy(row + reach * channels, from, line);
    weighed(row, channels, weights, taps, between + (y + reach) * line, line);
  }
  for (let y = 0; y < reach; y++) {
    memory.copy(between + y * line, between + reach * line, line);
    memory.copy(between + (reach + height + y) * line, between + (reach + height - 1) * line, line);
  }
  for (let y = 0; y < height; y++) weighed(between + y * line, line, weights, taps, out + y * line, line);
}

/** The brightness of paper between cells of two rows of a grid of it. */
// @ts-ignore: decorator
@inline
function lightAt(upper: usize, across: i32, cell: i32, share: f64): f64 {
  const at = upper + (max(0, min(across - 1, cell)) << 2);
  return <f64>load<f32>(at) * (1 - share) + <f64>load<f32>(at + (across << 2)) * share;
}

/** Where cells begin and end at whose middles the light is known, in pixels of a row, as 64-bit numbers, from half a cell before the row on. */
// @ts-ignore: decorator
@inline
function placesOfCells(across: i32, width: i32, out: usize): void {
  for (let cell = -1; cell <= across; cell++)
    store<f64>(out + ((cell + 1) << 3), ((<f64>cell + 0.5) * <f64>width) / <f64>across);
}

/**
 * One over the light for each pixel of a row, times `scale`, as 32-bit numbers.
 * @param places of the cells
 * @param into room for four more than the row has: behind the last one it is repeated
 */
function inverseLight(
  grid: usize,
  across: i32,
  down: i32,
  y: i32,
  width: i32,
  height: i32,
  scale: f64,
  places: usize,
  into: usize,
): void {
  const fy = Math.max(0, Math.min(<f64>(down - 1), ((<f64>y + 0.5) * <f64>down) / <f64>height - 0.5));
  const top = min(down - 2, <i32>Math.floor(fy));
  const share = fy - <f64>top;
  const upper = grid + ((top * across) << 2);
  const perPixel = <f64>across / <f64>width;
  let x = 0;
  let from = scale / lightAt(upper, across, -1, share);
  for (let cell = -1; cell < across; cell++) {
    const to = scale / lightAt(upper, across, cell + 1, share);
    const slope = f64x2.splat((to - from) * perPixel);
    const from2 = f64x2.splat(from);
    const begin2 = v128.load64_splat(places + ((cell + 1) << 3));
    const limit = min(width, <i32>Math.ceil(load<f64>(places + ((cell + 2) << 3)) - 0.5));
    // What is made beyond the limit is made anew.
    for (; x < limit; x += 4) {
      const first = f64x2.add(f64x2.splat(<f64>x), f64x2(0.5, 1.5));
      const second = f64x2.add(first, f64x2.splat(2));
      const one = f64x2.add(from2, f64x2.mul(slope, f64x2.sub(first, begin2)));
      const two = f64x2.add(from2, f64x2.mul(slope, f64x2.sub(second, begin2)));
      const at = into + (x << 2);
      v128.store(at, v128.shuffle<i64>(f32x4.demote_f64x2_zero(one), f32x4.demote_f64x2_zero(two), 0, 2));
    }
    x = limit;
    from = to;
  }
  for (; x < width + 4; x++) store<f32>(into + (x << 2), load<f32>(into + ((x - 1) << 2)));
}

/**
 * A grey page beside the light on it, through a curve.
 * @param grid of the light, 32-bit numbers
 * @param curve the bytes of `steps` + 1 shares of the light
 * @param places room for two 64-bit numbers more than the grid is wide
 * @param row room for a row of 32-bit numbers and four more
 */
export function evenGrey(
  source: usize,
  width: i32,
  height: i32,
  grid: usize,
  across: i32,
  down: i32,
  curve: usize,
  steps: i32,
  perStep: f64,
  places: usize,
  row: usize,
  out: usize,
): void {
  const most = i32x4.splat(steps);
  placesOfCells(across, width, places);
  for (let y = 0; y < height; y++) {
    inverseLight(grid, across, down, y, width, height, perStep, places, row);
    const line = y * width;
    let x = 0;
    for (; x + 4 <= width; x += 4) {
      const bytes = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(source + line + x)));
      const shares = f32x4.mul(f32x4.convert_i32x4_s(bytes), v128.load(row + (x << 2)));
      const step = i32x4.min_s(i32x4.trunc_sat_f32x4_s(shares), most);
      const to = out + line + x;
      store<u8>(to, load<u8>(curve + i32x4.extract_lane(step, 0)));
      store<u8>(to, load<u8>(curve + i32x4.extract_lane(step, 1)), 1);
      store<u8>(to, load<u8>(curve + i32x4.extract_lane(step, 2)), 2);
      store<u8>(to, load<u8>(curve + i32x4.extract_lane(step, 3)), 3);
    }
    for (; x < width; x++) {
      const step = <i32>(<f32>load<u8>(source + line + x) * load<f32>(row + (x << 2)));
      store<u8>(out + line + x, load<u8>(curve + min(step, steps)));
    }
  }
}

/**
 * A coloured page beside the light on it, through a curve.
 * @param grids of the light in red, green and blue, one behind the other
 * @param gains what shares of the light, in steps, are multiplied by, for `steps` + 1 of them, 32-bit numbers
 * @param places room for two 64-bit numbers more than the grid is wide
 * @param rows room for three rows of 32-bit numbers, each with four more
 */
export function evenColour(
  source: usize,
  width: i32,
  height: i32,
  channels: i32,
  grids: usize,
  across: i32,
  down: i32,
  gains: usize,
  steps: i32,
  perStep: f64,
  places: usize,
  rows: usize,
  out: usize,
): void {
  placesOfCells(across, width, places);
  const grid = (across * down) << 2;
  const row = (width + 4) << 2;
  const most = i32x4.splat(steps);
  const half = f32x4.splat(0.5);
  const reds =
    channels === 3
      ? i8x16(0, -128, -128, -128, 3, -128, -128, -128, 6, -128, -128, -128, 9, -128, -128, -128)
      : i8x16(0, -128, -128, -128, 4, -128, -128, -128, 8, -128, -128, -128, 12, -128, -128, -128);
  const next = i8x16(1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0);
  const greens = i8x16.add(reds, next);
  const blues = i8x16.add(greens, next);
  for (let y = 0; y < height; y++) {
    for (let channel = 0; channel < 3; channel++)
      inverseLight(grids + channel * grid, across, down, y, width, height, perStep, places, rows + channel * row);
    let from = source + y * width * channels;
    let to = out + y * width * 3;
    for (let x = 0; x < width; x += 4, from += channels << 2, to += 12) {
      const bytes = v128.load(from);
      const light = rows + (x << 2);
      const red = f32x4.mul(f32x4.convert_i32x4_s(v128.swizzle(bytes, reds)), v128.load(light));
      const green = f32x4.mul(f32x4.convert_i32x4_s(v128.swizzle(bytes, greens)), v128.load(light + row));
      const blue = f32x4.mul(f32x4.convert_i32x4_s(v128.swizzle(bytes, blues)), v128.load(light + (row << 1)));
      const luma = f32x4.add(
        f32x4.add(f32x4.mul(f32x4.splat(0.299), red), f32x4.mul(f32x4.splat(0.587), green)),
        f32x4.mul(f32x4.splat(0.114), blue),
      );
      const step = i32x4.shl(i32x4.min_s(i32x4.trunc_sat_f32x4_s(luma), most), 2);
      let gain = v128.load32_zero(gains + i32x4.extract_lane(step, 0));
      gain = v128.load32_lane(gains + i32x4.extract_lane(step, 1), gain, 1);
      gain = v128.load32_lane(gains + i32x4.extract_lane(step, 2), gain, 2);
      gain = v128.load32_lane(gains + i32x4.extract_lane(step, 3), gain, 3);
      const redOut = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(red, gain), half));
      const greenOut = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(green, gain), half));
      const blueOut = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(blue, gain), half));
      const three = i8x16.narrow_i16x8_u(
        i16x8.narrow_i32x4_s(redOut, greenOut),
        i16x8.narrow_i32x4_s(blueOut, blueOut),
      );
      // Behind the four pixels others are overwritten, which come after, or nothing.
      v128.store(to, v128.swizzle(three, i8x16(0, 4, 8, 1, 5, 9, 2, 6, 10, 3, 7, 11, 12, 12, 12, 12)));
    }
  }
}

/**
 * How bright paper is in each cell of a grid, in each channel: so bright that few samples are brighter.
 * @param used channels looked at, 1 or 3
 * @param counts room for 256 16-bit numbers a channel: no cell has more samples
 * @param grids for the brightness in each channel, 32-bit numbers, one grid behind the other
 * @param printed for 1 where there is more than bare paper, 0 elsewhere; it lies behind the grids
 */
export function paperCells(
  source: usize,
  width: i32,
  height: i32,
  channels: i32,
  used: i32,
  across: i32,
  down: i32,
  stepX: i32,
  stepY: i32,
  paperShare: f64,
  bare: f64,
  counts: usize,
  grids: usize,
): void {
  const printed = grids + ((used * across * down) << 2);
  for (let cy = 0; cy < down; cy++) {
    const top = <i32>(<i64>cy * height / down);
    const bottom = min(height, <i32>((<i64>(cy + 1) * height + down - 1) / down));
    for (let cx = 0; cx < across; cx++) {
      const left = <i32>(<i64>cx * width / across);
      const right = min(width, <i32>((<i64>(cx + 1) * width + across - 1) / across));
      memory.fill(counts, 0, used << 9);
      let seen = 0;
      for (let y = top; y < bottom; y += stepY) {
        for (let x = left; x < right; x += stepX, seen++) {
          const at = source + (y * width + x) * channels;
          const first = counts + (<i32>load<u8>(at) << 1);
          store<u16>(first, load<u16>(first) + 1);
          if (used === 1) continue;
          const second = counts + (<i32>load<u8>(at, 1) << 1);
          store<u16>(second, load<u16>(second, 512) + 1, 512);
          const third = counts + (<i32>load<u8>(at, 2) << 1);
          store<u16>(third, load<u16>(third, 1024) + 1, 1024);
        }
      }
      const cell = cy * across + cx;
      store<u8>(printed + cell, 0);
      for (let channel = 0; channel < used; channel++) {
        const from = counts + (channel << 9);
        // Of whole numbers, as many are less than this as are less than the share.
        const brighter = <i32>Math.ceil((1 - paperShare) * <f64>seen);
        const most = <i32>Math.ceil(0.6 * <f64>seen);
        let value = 255;
        if (brighter > 0) while (value > 7 && !v128.any_true(v128.load(from + ((value - 7) << 1)))) value -= 8;
        let above = <i32>load<u16>(from + (value << 1));
        while (value > 0 && above < brighter) above += <i32>load<u16>(from + (--value << 1));
        let middle = value;
        while (middle > 0 && above < most) above += <i32>load<u16>(from + (--middle << 1));
        store<f32>(grids + ((channel * across * down + cell) << 2), <f32>value);
        if (<f64>(value - middle) > bare * <f64>value) store<u8>(printed + cell, 1);
      }
    }
  }
}

/**
 * Each pixel that something stands on as the mean of those around whose own surroundings are like its: weighed by how like they are.
 * @param channels of the picture; a fourth stays as it is
 * @param green brightness, a byte a pixel
 * @param kept not zero where something stands; the others, and a border of `reach` + 1, stay as they are
 * @param weights 1,024 16-bit numbers, for differences from 0 on
 * @param per what a difference is multiplied by, in 65,536ths, to be one of them
 */
export function likeMeans(
  source: usize,
  channels: i32,
  width: i32,
  height: i32,
  green: usize,
  kept: usize,
  reach: i32,
  weights: usize,
  per: u32,
  out: usize,
): void {
  memory.copy(out, source, channels * width * height);
  const border = reach + 1;
  const most: u32 = 0x3ffffff / per;
  for (let y = border; y < height - border; y++) {
    for (let x = border; x < width - border; x++) {
      const here = y * width + x;
      if (load<u8>(kept + here) === 0) continue;
      let first: u32 = 0;
      let second: u32 = 0;
      let third: u32 = 0;
      let total: u32 = 0;
      for (let dy = -reach; dy <= reach; dy++) {
        for (let dx = -reach; dx <= reach; dx++) {
          const there = here + dy * width + dx;
          const apart =
            rowApart(green + here - width, green + there - width) +
            rowApart(green + here, green + there) +
            rowApart(green + here + width, green + there + width);
          if (apart > most) continue;
          const weight = <u32>load<u16>(weights + (((apart * per) >> 16) << 1));
          const from = source + there * channels;
          total += weight;
          first += weight * <u32>load<u8>(from);
          if (channels === 1) continue;
          second += weight * <u32>load<u8>(from + 1);
          third += weight * <u32>load<u8>(from + 2);
        }
      }
      const to = out + here * channels;
      const half = total >> 1;
      store<u8>(to, <u8>((first + half) / total));
      if (channels === 1) continue;
      store<u8>(to + 1, <u8>((second + half) / total));
      store<u8>(to + 2, <u8>((third + half) / total));
    }
  }
}

/** How far three pixels in a row are apart from three others, squared. */
// @ts-ignore: decorator
@inline
function rowApart(one: usize, other: usize): u32 {
  const before = <i32>load<u8>(one - 1) - <i32>load<u8>(other - 1);
  const at = <i32>load<u8>(one) - <i32>load<u8>(other);
  const behind = <i32>load<u8>(one + 1) - <i32>load<u8>(other + 1);
  return <u32>(before * before + at * at + behind * behind);
}
