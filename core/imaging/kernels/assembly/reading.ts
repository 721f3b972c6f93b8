/**
 * What a page is made ready for reading with: the same arithmetic, to the bit, as in `ink.ts`, `raster.ts` and
 * `resample.ts`, which say what it is for.
 */

/** Each of `count` bytes through a table of 256. */
export function curve(source: usize, count: i32, table: usize, out: usize): void {
  for (let at = 0; at < count; at++) store<u8>(out + at, load<u8>(table + load<u8>(source + at)));
}

/** 1 for each of `count` bytes that is less than a level, 0 for the others. Behind the last one up to 15 more are read and written. */
export function below(source: usize, count: i32, level: i32, out: usize): void {
  const limit = i8x16.splat(<i8>level);
  const one = i8x16.splat(1);
  for (let at = 0; at < count; at += 16)
    v128.store(out + at, v128.and(i8x16.lt_u(v128.load(source + at), limit), one));
}

/**
 * The grey levels of a picture in red, green and blue, if it is grey.
 * @returns whether all of its `count` pixels are
 */
export function onlyGrey(source: usize, count: i32, out: usize): boolean {
  for (let at = 0; at < count; at++, source += 3) {
    const red = load<u8>(source);
    if (red !== load<u8>(source, 1) || red !== load<u8>(source, 2)) return false;
    store<u8>(out + at, red);
  }
  return true;
}

/**
 * A grey picture in another size: along its rows, then down its columns. For each pixel of a row or column that is made, `first` says where
 * those begin that it is made of, and `shares` how much of each of the `taps` of them.
 * @param between room for 32-bit floats, a row as long as those that are made for each row of the picture
 * @param sums room for a row of 32-bit floats
 */
export function resample(
  source: usize,
  width: i32,
  height: i32,
  across: usize,
  acrossShares: usize,
  acrossTaps: i32,
  down: usize,
  downShares: usize,
  downTaps: i32,
  outWidth: i32,
  outHeight: i32,
  between: usize,
  sums: usize,
  out: usize,
): void {
  for (let y = 0; y < height; y++) {
    const row = source + y * width;
    const into = between + ((y * outWidth) << 2);
    let share = acrossShares;
    for (let x = 0; x < outWidth; x++) {
      const from = row + load<i32>(across + (x << 2));
      let sum: f64 = 0;
      for (let tap = 0; tap < acrossTaps; tap++, share += 4) sum += <f64>load<f32>(share) * <f64>load<u8>(from + tap);
      store<f32>(into + (x << 2), <f32>sum);
    }
  }
  for (let y = 0; y < outHeight; y++) {
    for (let x = 0; x < outWidth; x++) store<f32>(sums + (x << 2), 0.5);
    for (let tap = 0; tap < downTaps; tap++) {
      const share = <f64>load<f32>(downShares + ((y * downTaps + tap) << 2));
      if (share === 0) continue;
      const row = between + (((load<i32>(down + (y << 2)) + tap) * outWidth) << 2);
      const shares = f64x2.splat(share);
      // Two at a time; what is added to one more behind the last is not used.
      for (let x = 0; x < outWidth; x += 2) {
        const sum = f64x2.promote_low_f32x4(v128.load64_zero(sums + (x << 2)));
        const value = f64x2.promote_low_f32x4(v128.load64_zero(row + (x << 2)));
        const made = f32x4.demote_f64x2_zero(f64x2.add(sum, f64x2.mul(shares, value)));
        v128.store64_lane(sums + (x << 2), made, 0);
      }
    }
    for (let x = 0; x < outWidth; x++) {
      const sum = load<f32>(sums + (x << 2));
      store<u8>(out + y * outWidth + x, sum < 0 ? 0 : sum > 255 ? 255 : <u8>sum);
    }
  }
}

/**
 * Where ink begins and ends along the rows of a picture, 0 for paper: of each run its first and last pixel, counted over all rows, as two
 * 32-bit numbers.
 * @returns how many runs there are
 */
export function runs(source: usize, width: i32, height: i32, out: usize): i32 {
  let count = 0;
  for (let y = 0; y < height; y++) {
    const end = (y + 1) * width;
    let at = y * width;
    while (at < end) {
      // What stands behind the row's end may stop it there, but is not looked at.
      while (at + 16 <= end && !v128.any_true(v128.load(source + at))) at += 16;
      while (at < end && load<u8>(source + at) === 0) at++;
      if (at >= end) break;
      store<i32>(out, at);
      while (at < end && load<u8>(source + at) !== 0) at++;
      store<i32>(out, at - 1, 4);
      out += 8;
      count++;
    }
  }
  return count;
}

const TURNED: i32 = 32;

/** Rows become columns: what stands at x of row y comes to y of row x. */
export function transpose(source: usize, width: i32, height: i32, out: usize): void {
  for (let top = 0; top < height; top += TURNED) {
    const bottom = min(height, top + TURNED);
    for (let left = 0; left < width; left += TURNED) {
      const right = min(width, left + TURNED);
      for (let x = left; x < right; x++)
        for (let y = top; y < bottom; y++) store<u8>(out + x * height + y, load<u8>(source + y * width + x));
    }
  }
}
