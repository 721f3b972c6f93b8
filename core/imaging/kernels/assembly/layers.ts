import { addRow } from './tones';

/** What a page is taken apart with: the same arithmetic, to the bit, as in `sharpInk.ts` and `paperUnder.ts`, which say what it is for. */

/** Each pixel further from the mean of the square around it than it is, by `sharpen` parts of `whole`; four at a time, as many as a row has. */
// @ts-ignore: decorator
@inline
function sharpenRow(row: usize, width: i32, sums: usize, counts: usize, sharpen: i32, whole: i32, out: usize): void {
  const by = f32x4.splat(<f32>sharpen);
  const parts = f32x4.splat(<f32>whole);
  for (let x = 0; x < width; x += 4) {
    const value = f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(row + x))));
    // Exact: whole numbers of few bits, and what they are divided by is small.
    const mean = f32x4.floor(f32x4.div(f32x4.convert_i32x4_s(v128.load(sums + (x << 2))), v128.load(counts + (x << 2))));
    const more = f32x4.floor(f32x4.div(f32x4.mul(by, f32x4.sub(value, mean)), parts));
    const made = i32x4.trunc_sat_f32x4_s(f32x4.add(value, more));
    const two = i16x8.narrow_i32x4_s(made, made);
    v128.store32_lane(out + x, i8x16.narrow_i16x8_u(two, two), 0);
  }
}

/** The page sharpened. @param rows room for three rows of 32-bit numbers */
function sharpened(
  source: usize,
  width: i32,
  height: i32,
  radius: i32,
  sharpen: i32,
  whole: i32,
  rows: usize,
  out: usize,
): void {
  const sums = rows + (width << 2);
  const counts = sums + (width << 2);
  memory.fill(rows, 0, width << 2);
  let known = 0;
  for (let y = 0; y < min(radius, height); y++) addRow(source + y * width, width, rows, 1);
  for (let y = 0; y < height; y++) {
    if (y + radius < height) addRow(source + (y + radius) * width, width, rows, 1);
    if (y > radius) addRow(source + (y - radius - 1) * width, width, rows, -1);
    const seen = min(height - 1, y + radius) - max(0, y - radius) + 1;
    if (seen !== known)
      for (let x = 0; x < width; x++)
        store<f32>(counts + (x << 2), <f32>(seen * (min(width - 1, x + radius) - max(0, x - radius) + 1)));
    known = seen;
    let sum = 0;
    for (let x = 0; x < min(radius, width); x++) sum += load<i32>(rows + (x << 2));
    for (let x = 0; x < width; x++) {
      if (x + radius < width) sum += load<i32>(rows + ((x + radius) << 2));
      if (x > radius) sum -= load<i32>(rows + ((x - radius - 1) << 2));
      store<i32>(sums + (x << 2), sum);
    }
    sharpenRow(source + y * width, width, sums, counts, sharpen, whole, out + y * width);
  }
}

/** The least of the bytes from `reach` before to `reach` behind, for each of `count` that are a step apart. */
// @ts-ignore: decorator
@inline
function leastAlong(from: usize, step: i32, count: i32, reach: i32, out: usize): void {
  for (let at = 0; at < count; at++) {
    let least = load<u8>(from + at * step);
    for (let near = max(0, at - reach); near <= min(count - 1, at + reach); near++)
      least = min(least, load<u8>(from + near * step));
    store<u8>(out + at * step, least);
  }
}

/**
 * Ink of a page with its edges where they are: 1 where a pixel, sharpened, is not much lighter than the darkest one near it.
 * @param source the page evenly lit, grey
 * @param bold 0 where there is ink at all
 * @param radius of the square by whose mean it is sharpened, by `sharpen` parts of `whole`
 * @param cell side of the cells in which the darkest pixels are looked for, and `reach` how many cells are near
 * @param limits 256 bytes: up to which tone a pixel is ink, by the darkest tone near it
 * @param rows room for three rows of 32-bit numbers
 * @param room for two bytes a cell
 * @param sharp room for the page sharpened
 */
export function sharpInk(
  source: usize,
  bold: usize,
  width: i32,
  height: i32,
  radius: i32,
  sharpen: i32,
  whole: i32,
  cell: i32,
  reach: i32,
  limits: usize,
  rows: usize,
  room: usize,
  sharp: usize,
  out: usize,
): void {
  sharpened(source, width, height, radius, sharpen, whole, rows, sharp);
  const across = (width + cell - 1) / cell;
  const down = (height + cell - 1) / cell;
  const between = room + across * down;
  memory.fill(room, 255, across * down);
  for (let y = 0; y < height; y++) {
    let at = sharp + y * width;
    const end = at + width;
    for (let to = room + (y / cell) * across; at < end; to++) {
      let least = load<u8>(to);
      for (const last = min(end, at + cell); at < last; at++) least = min(least, load<u8>(at));
      store<u8>(to, least);
    }
  }
  for (let y = 0; y < down; y++) leastAlong(room + y * across, 1, across, reach, between + y * across);
  for (let x = 0; x < across; x++) leastAlong(between + x, across, down, reach, room + x);
  for (let y = 0; y < height; y++) {
    let at = y * width;
    const end = at + width;
    for (let near = room + (y / cell) * across; at < end; near++) {
      const limit = load<u8>(limits + load<u8>(near));
      for (const last = min(end, at + cell); at < last; at++)
        store<u8>(out + at, <u8>(load<u8>(bold + at) === 0 && load<u8>(sharp + at) <= limit));
    }
  }
}

/**
 * How many pixels of each cell are bare, and the sums of their channels.
 * @param used channels counted, 1 or 3
 * @param covered 0 for a pixel that is bare
 * @param out for a 32-bit number a cell, and behind them one a channel of each cell; zero
 */
export function bareSums(
  source: usize,
  width: i32,
  height: i32,
  channels: i32,
  used: i32,
  covered: usize,
  cell: i32,
  out: usize,
): void {
  const across = (width + cell - 1) / cell;
  const down = (height + cell - 1) / cell;
  const sums = out + ((across * down) << 2);
  for (let y = 0; y < height; y++) {
    let x = 0;
    let from = source + y * width * channels;
    const cover = covered + y * width;
    const row = (y / cell) * across;
    for (let to = row; x < width; to++) {
      let count = 0;
      let first = 0;
      let second = 0;
      let third = 0;
      for (const last = min(width, x + cell); x < last; x++, from += channels) {
        if (load<u8>(cover + x) !== 0) continue;
        count++;
        first += <i32>load<u8>(from);
        if (used === 1) continue;
        second += <i32>load<u8>(from, 1);
        third += <i32>load<u8>(from, 2);
      }
      const counted = out + (to << 2);
      store<i32>(counted, load<i32>(counted) + count);
      const sum = sums + ((to * used) << 2);
      store<i32>(sum, load<i32>(sum) + first);
      if (used === 1) continue;
      store<i32>(sum, load<i32>(sum, 4) + second, 4);
      store<i32>(sum, load<i32>(sum, 8) + third, 8);
    }
  }
}
