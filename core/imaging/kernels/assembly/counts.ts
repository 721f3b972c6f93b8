/** What is counted on a page: the same arithmetic, to the bit, as in `looks.ts` and `binarise.ts`, which say what it is for. */

/**
 * How many pixels there are of each tone in the blocks of a grey page that are not mostly dark.
 * @param side of a block, in pixels
 * @param dark what is less is dark
 * @param mostly a block of which more than this share is dark is left out
 * @param counts 256 32-bit numbers, zero
 */
export function tonesOfPrint(
  source: usize,
  width: i32,
  height: i32,
  side: i32,
  dark: i32,
  mostly: f64,
  counts: usize,
): void {
  for (let top = 0; top < height; top += side) {
    const bottom = min(height, top + side);
    for (let left = 0; left < width; left += side) {
      const right = min(width, left + side);
      let darker = 0;
      for (let y = top; y < bottom; y++) {
        const end = source + y * width + right;
        for (let at = source + y * width + left; at < end; at++) darker += <i32>(<i32>load<u8>(at) < dark);
      }
      if (<f64>darker > mostly * <f64>((bottom - top) * (right - left))) continue;
      for (let y = top; y < bottom; y++) {
        const end = source + y * width + right;
        for (let at = source + y * width + left; at < end; at++) {
          const to = counts + (<i32>load<u8>(at) << 2);
          store<i32>(to, load<i32>(to) + 1);
        }
      }
    }
  }
}

/** Adds a row and its squares to sums of its columns, or takes them away. */
// @ts-ignore: decorator
@inline
function addSquares(row: usize, width: i32, columns: usize, squares: usize, sign: i32): void {
  for (let x = 0; x < width; x++) {
    const value = <i32>load<u8>(row + x);
    const to = x << 2;
    store<i32>(columns + to, load<i32>(columns + to) + sign * value);
    store<i32>(squares + to, load<i32>(squares + to) + sign * value * value);
  }
}

const PERHAPS: u8 = 1;
const CERTAIN: u8 = 2;

/**
 * Black and white by a threshold that follows mean and deviation around each pixel: 0 where ink is certain, and where it may be and touches
 * such ink; 255 elsewhere.
 * @param radius of the square around, 128 at most: more don't fit in 32 bits
 * @param possible what is brighter is no ink, and `certain` what is no brighter is ink if it is below the threshold
 * @param least what the threshold is at least
 * @param columns room for two rows of 32-bit numbers, zero
 */
export function binarise(
  source: usize,
  width: i32,
  height: i32,
  radius: i32,
  possible: i32,
  certain: i32,
  least: f64,
  k: f64,
  range: f64,
  columns: usize,
  out: usize,
): void {
  const squares = columns + (width << 2);
  for (let y = 0; y < min(radius, height); y++) addSquares(source + y * width, width, columns, squares, 1);
  for (let y = 0; y < height; y++) {
    if (y + radius < height) addSquares(source + (y + radius) * width, width, columns, squares, 1);
    if (y > radius) addSquares(source + (y - radius - 1) * width, width, columns, squares, -1);
    const rows = min(height - 1, y + radius) - max(0, y - radius) + 1;
    let sum: u32 = 0;
    let squared: u32 = 0;
    for (let x = 0; x < min(radius, width); x++) {
      sum += load<u32>(columns + (x << 2));
      squared += load<u32>(squares + (x << 2));
    }
    const from = source + y * width;
    const to = out + y * width;
    for (let x = 0; x < width; x++) {
      if (x + radius < width) {
        sum += load<u32>(columns + ((x + radius) << 2));
        squared += load<u32>(squares + ((x + radius) << 2));
      }
      if (x > radius) {
        sum -= load<u32>(columns + ((x - radius - 1) << 2));
        squared -= load<u32>(squares + ((x - radius - 1) << 2));
      }
      const value = <i32>load<u8>(from + x);
      let state: u8 = 0;
      if (value <= possible) {
        const count = <f64>(rows * (min(width - 1, x + radius) - max(0, x - radius) + 1));
        const mean = <f64>sum / count;
        const deviation = Math.sqrt(Math.max(0, <f64>squared / count - mean * mean));
        const threshold = Math.max(mean * (1 + k * (deviation / range - 1)), least);
        if (<f64>value <= threshold) state = value <= certain ? CERTAIN : PERHAPS;
      }
      store<u8>(to + x, state);
    }
  }
  // Up once at least; then until a whole way up or down changes nothing.
  spreadDown(out, width, height);
  while (spreadUp(out, width, height) && spreadDown(out, width, height)) {}
  const two = i8x16.splat(CERTAIN);
  for (let at = out; at < out + width * height; at += 16)
    v128.store(at, i8x16.ne(v128.load(at), two));
}

/** What touches certain ink becomes certain, from the top row to the bottom one. @returns whether anything did */
function spreadDown(states: usize, width: i32, height: i32): bool {
  let changed = false;
  for (let y = 0; y < height; y++)
    if (spreadIn(states + y * width, width, y > 0 ? -width : 0)) changed = true;
  return changed;
}

function spreadUp(states: usize, width: i32, height: i32): bool {
  let changed = false;
  for (let y = height - 1; y >= 0; y--)
    if (spreadIn(states + y * width, width, y < height - 1 ? width : 0)) changed = true;
  return changed;
}

/** The same in one row, by itself and by the one that lies `other` bytes from it, if not 0. */
function spreadIn(row: usize, width: i32, other: i32): bool {
  const one = i8x16.splat(PERHAPS);
  let changed = false;
  let left = false;
  for (let x = 0; x < width; x++) {
    while (x + 16 <= width && !v128.any_true(i8x16.eq(v128.load(row + x), one))) x += 16;
    if (x >= width) break;
    if (load<u8>(row + x) !== PERHAPS) continue;
    if (touches(row + x, x > 0, false) || (other !== 0 && (load<u8>(row + x + other) === CERTAIN || touches(row + x + other, x > 0, x < width - 1)))) {
      store<u8>(row + x, CERTAIN);
      changed = true;
    } else left = true;
  }
  if (!left) return changed;
  for (let x = width - 2; x >= 0; x--) {
    while (x >= 15 && !v128.any_true(i8x16.eq(v128.load(row + x - 15), one))) x -= 16;
    if (x < 0) break;
    if (load<u8>(row + x) !== PERHAPS || !touches(row + x, false, true)) continue;
    store<u8>(row + x, CERTAIN);
    changed = true;
  }
  return changed;
}

/** Whether the pixel before or the one behind is certain ink, as far as they are asked for. */
// @ts-ignore: decorator
@inline
function touches(at: usize, before: bool, behind: bool): bool {
  return (before && load<u8>(at - 1) === CERTAIN) || (behind && load<u8>(at + 1) === CERTAIN);
}
