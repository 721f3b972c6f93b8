import { withPixels } from './kernels/pixels';
import { bytesOf, Raster } from './raster';

/** So much of a cell must be paper before its colour is taken from it. */
const LEAST_PAPER = 0.12;

/**
 * The paper and pictures in cells: the mean of what is not covered; where too little is left, from the cells around.
 * @param covered 1 for each pixel that tells nothing of the paper, else 0
 * @param cell how many pixels a cell covers, across and down
 * @returns a pixel a cell
 */
export function paperUnder(page: Raster, covered: Uint8Array, cell: number): Raster {
  const { width, height, channels } = page;
  const used = channels === 1 ? 1 : 3;
  const [across, down] = [Math.ceil(width / cell), Math.ceil(height / cell)];
  const cells = across * down;
  const blocks = [bytesOf(page), covered, new Uint8Array(4 * cells * (1 + used))];
  const seen =
    withPixels(blocks, (pixels, [source, coveredAt, out]) =>
      pixels.bareSums(source, width, height, channels, used, coveredAt, cell, out),
    ) ?? plainBareSums(page, covered, cell);
  const all = Float64Array.from(new Uint32Array(seen.buffer, seen.byteOffset));
  const [counts, sums] = [all.subarray(0, cells), all.subarray(cells)];
  const least = LEAST_PAPER * cell * cell;
  for (let at = 0; at < counts.length; at++) {
    if (counts[at] >= least) continue;
    counts[at] = 0;
    sums.fill(0, at * used, (at + 1) * used);
  }
  fillFromAround(sums, counts, across, down, used);
  const out = new Uint8Array(across * down * used);
  for (let at = 0; at < counts.length; at++)
    for (let channel = 0; channel < used; channel++)
      out[at * used + channel] = Math.round(sums[at * used + channel] / (counts[at] || 1));
  return { width: across, height: down, channels: used, data: out };
}

/**
 * How many pixels of each cell are bare, and behind them, cell by cell, the sums of their channels, without the kernels.
 * @returns the bytes of 32-bit numbers
 */
function plainBareSums(page: Raster, covered: Uint8Array, cell: number): Uint8Array {
  const { width, height, channels } = page;
  const data = bytesOf(page);
  const used = channels === 1 ? 1 : 3;
  const [across, down] = [Math.ceil(width / cell), Math.ceil(height / cell)];
  const out = new Uint32Array(across * down * (1 + used));
  const sums = out.subarray(across * down);
  for (let y = 0; y < height; y++) {
    const row = Math.floor(y / cell) * across;
    for (let x = 0, at = y * width; x < width; x++, at++) {
      if (covered[at]) continue;
      const to = row + Math.floor(x / cell);
      out[to]++;
      for (let channel = 0; channel < used; channel++) sums[to * used + channel] += data[at * channels + channel];
    }
  }
  return new Uint8Array(out.buffer);
}

/** Gives cells without a value the mean of those around them at the smallest scale that has one (Burt 1988, pull and push). */
function fillFromAround(sums: Float64Array, counts: Float64Array, across: number, down: number, used: number): void {
  if (counts.every((count) => count > 0)) return;
  if (across === 1 && down === 1) {
    sums.fill(255);
    counts.fill(1);
    return;
  }
  const [w, h] = [Math.ceil(across / 2), Math.ceil(down / 2)];
  const coarser = new Float64Array(w * h * used);
  const weights = new Float64Array(w * h);
  for (let y = 0; y < down; y++) {
    for (let x = 0; x < across; x++) {
      const [from, to] = [y * across + x, (y >> 1) * w + (x >> 1)];
      if (counts[from] === 0) continue;
      weights[to]++;
      for (let channel = 0; channel < used; channel++)
        coarser[to * used + channel] += sums[from * used + channel] / counts[from];
    }
  }
  fillFromAround(coarser, weights, w, h, used);
  for (let y = 0; y < down; y++) {
    for (let x = 0; x < across; x++) {
      const [to, from] = [y * across + x, (y >> 1) * w + (x >> 1)];
      if (counts[to] > 0) continue;
      counts[to] = 1;
      for (let channel = 0; channel < used; channel++)
        sums[to * used + channel] = coarser[from * used + channel] / weights[from];
    }
  }
}
