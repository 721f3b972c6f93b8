import { withPixels } from './kernels/pixels';
import { bytesOf, greyOf, Raster } from './raster';

/** Where a page is darker than the paper around: 1 for ink, 0 for paper. */
export interface Ink {
  width: number;
  height: number;
  data: Uint8Array;
}

/**
 * Runs of ink along the rows, from the top: of each its first and its last pixel, counted over all rows, one pair after the other. There are
 * at most half as many as pixels.
 */
export function inkRuns(ink: Ink): Int32Array {
  const { width, height, data } = ink;
  const room = 8 * height * Math.ceil(width / 2);
  const made = withPixels([data, room], (pixels, [source, out]) => 8 * pixels.runs(source, width, height, out));
  return made ? new Int32Array(made.buffer, made.byteOffset, made.length >> 2) : plainRuns(ink);
}

/** The same without the kernels. */
function plainRuns({ width, height, data }: Ink): Int32Array {
  let [runs, count] = [new Int32Array(4096), 0];
  for (let y = 0; y < height; y++) {
    const end = (y + 1) * width;
    for (let at = y * width; at < end; at++) {
      if (data[at] === 0) continue;
      if (count === runs.length) {
        const more = new Int32Array(2 * runs.length);
        more.set(runs);
        runs = more;
      }
      runs[count] = at;
      while (at < end && data[at] !== 0) at++;
      runs[count + 1] = at - 1;
      count += 2;
    }
  }
  return runs.slice(0, count);
}

/** Ink whose columns are the rows of this, from the left those from the top. */
export function transposedInk({ width, height, data }: Ink): Ink {
  const made = withPixels([data, data.length], (pixels, [source, out]) => pixels.transpose(source, width, height, out));
  return { width: height, height: width, data: made ?? plainTransposed(data, width, height) };
}

/** The same without the kernels. */
function plainTransposed(data: Uint8Array, width: number, height: number): Uint8Array {
  const out = new Uint8Array(data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0, at = y * width; x < width; x++, at++) if (data[at] !== 0) out[x * height + y] = data[at];
  return out;
}

/** What is darker than a grey level (255 at most): the ink of an evenly lit grey page. */
export function inkBelow(page: Raster, level: number): Ink {
  const { width, height } = page;
  const grey = bytesOf(page);
  const data = withPixels([grey, grey.length], (pixels, [source, out]) =>
    pixels.below(source, grey.length, level, out),
  );
  return { width, height, data: data ?? grey.map((value) => (value < level ? 1 : 0)) };
}

/** How much darker than its surroundings ink is at least, as a share and in grey levels. */
const DARKER_BY = 0.14;
const LEAST_DARKER = 9;

/**
 * A rough but quick separation of ink and paper for finding lines of text: what is clearly darker than the mean of its
 * surroundings (Bradley & Roth 2007).
 * @param darkerBy how much darker, as a share
 */
export function roughInk(picture: Raster, darkerBy = DARKER_BY): Ink {
  const grey = greyOf(picture);
  const { width, height } = grey;
  const radius = Math.max(4, Math.round(Math.max(width, height) / 60));
  const keep = 1 - darkerBy;
  const data = withPixels([bytesOf(grey), 12 * width, width * height], (pixels, [source, room, out]) =>
    pixels.darker(source, width, height, radius, keep, LEAST_DARKER, room, out),
  );
  return { width, height, data: data ?? plainDarker(grey, radius, keep, LEAST_DARKER) };
}

/**
 * What is darker than the mean of the square around it, without the kernels: 1, the rest 0.
 * @param keep the share of the mean that it is darker than, and `least` how many grey levels it is darker
 */
function plainDarker(grey: Raster, radius: number, keep: number, least: number): Uint8Array {
  const { width, height } = grey;
  const data = bytesOf(grey);
  const ink = new Uint8Array(width * height);
  const sums = new Int32Array(width);
  const addRow = (y: number, sign: 1 | -1) => {
    for (let x = 0, at = y * width; x < width; x++, at++) sums[x] += sign * data[at];
  };
  for (let y = 0; y < Math.min(radius, height); y++) addRow(y, 1);
  for (let y = 0; y < height; y++) {
    if (y + radius < height) addRow(y + radius, 1);
    if (y > radius) addRow(y - radius - 1, -1);
    const rows = Math.min(height - 1, y + radius) - Math.max(0, y - radius) + 1;
    let sum = 0;
    for (let x = 0; x < Math.min(radius, width); x++) sum += sums[x];
    for (let x = 0, at = y * width; x < width; x++, at++) {
      if (x + radius < width) sum += sums[x + radius];
      if (x > radius) sum -= sums[x - radius - 1];
      const columns = Math.min(width - 1, x + radius) - Math.max(0, x - radius) + 1;
      const mean = Math.fround(sum * Math.fround(1 / (rows * columns)));
      if (data[at] + least < mean && data[at] < Math.fround(Math.fround(keep) * mean)) ink[at] = 1;
    }
  }
  return ink;
}
