import { bytesIn, withPixels } from './kernels/pixels';
import { bytesOf, Raster } from './raster';

/**
 * A grey picture in another size, by the cubic interpolation of Catmull & Rom (1974); made smaller, each pixel is made of all that it covers.
 * @param width and `height` of what is made, in pixels
 */
export function resampled(picture: Raster, width: number, height: number): Raster {
  const across = weights(picture.width, width);
  const down = weights(picture.height, height);
  const blocks = [
    bytesOf(picture),
    ...[across.first, across.shares, down.first, down.shares].map(bytesIn),
    4 * width * picture.height,
    4 * width,
    width * height,
  ];
  const made = withPixels(blocks, (pixels, [source, first, shares, downFirst, downShares, between, sums, out]) =>
    pixels.resample(
      source,
      picture.width,
      picture.height,
      first,
      shares,
      across.taps,
      downFirst,
      downShares,
      down.taps,
      width,
      height,
      between,
      sums,
      out,
    ),
  );
  return { width, height, channels: 1, data: made ?? plainResampled(picture, width, height, across, down) };
}

/** The same without the kernels. */
function plainResampled(picture: Raster, width: number, height: number, across: Weights, down: Weights): Uint8Array {
  const between = new Float32Array(width * picture.height);
  const data = bytesOf(picture);
  for (let y = 0; y < picture.height; y++) alongRow(data, y * picture.width, across, between, y * width, width);
  const out = new Uint8Array(width * height);
  const sums = new Float32Array(width);
  for (let y = 0; y < height; y++) {
    sums.fill(0.5);
    for (let tap = 0; tap < down.taps; tap++) {
      const share = down.shares[y * down.taps + tap];
      if (share !== 0) addRow(sums, between, (down.first[y] + tap) * width, share);
    }
    for (let x = 0, at = y * width; x < width; x++, at++) {
      const sum = sums[x];
      out[at] = sum < 0 ? 0 : sum > 255 ? 255 : sum;
    }
  }
  return out;
}

function addRow(sums: Float32Array, rows: Float32Array, start: number, share: number): void {
  for (let x = 0; x < sums.length; x++) sums[x] += share * rows[start + x];
}

function alongRow(
  data: Uint8Array,
  start: number,
  { taps, first, shares }: Weights,
  into: Float32Array,
  at: number,
  width: number,
): void {
  for (let x = 0, share = 0; x < width; x++) {
    const from = start + first[x];
    let sum = 0;
    for (let tap = 0; tap < taps; tap++, share++) sum += shares[share] * data[from + tap];
    into[at + x] = sum;
  }
}

interface Weights {
  taps: number;
  first: Int32Array;
  shares: Float32Array;
}

/** For each pixel of a longer or shorter row, where the pixels that it is made of begin, and their shares. */
function weights(from: number, to: number): Weights {
  const step = from / to;
  const stretch = Math.max(1, step);
  const taps = Math.min(from, Math.ceil(4 * stretch) + 1);
  const first = new Int32Array(to);
  const shares = new Float32Array(to * taps);
  for (let at = 0; at < to; at++) {
    const centre = (at + 0.5) * step - 0.5;
    const begin = Math.max(0, Math.min(from - taps, Math.ceil(centre - 2 * stretch)));
    first[at] = begin;
    let sum = 0;
    for (let tap = 0; tap < taps; tap++) {
      const share = catmullRom((begin + tap - centre) / stretch);
      shares[at * taps + tap] = share;
      sum += share;
    }
    for (let tap = 0; tap < taps; tap++) shares[at * taps + tap] /= sum;
  }
  return { taps, first, shares };
}

function catmullRom(x: number): number {
  const t = Math.abs(x);
  if (t < 1) return (1.5 * t - 2.5) * t * t + 1;
  return t < 2 ? ((-0.5 * t + 2.5) * t - 4) * t + 2 : 0;
}
