import { bytesIn, withPixels } from './kernels/pixels';
import { bytesOf, Raster } from './raster';

/** Pixels between those at which noise is measured. */
const STRIDE = 7;
/** Blocks across and down in which it is measured, and the share of them that have less of it than what counts. */
const BLOCKS = 8;
const STRONG = 0.8;
/** From so much noise on (standard deviation as a share of the paper's brightness) it is smoothed away. */
const NOISY = 0.035;
/** How wide the smoothing is for how much noise, in pixels (standard deviation), and at the most. */
const WIDTH_PER_NOISE = 10;
const WIDEST = 2.2;

/**
 * How strong the noise of a page is, as a share of its paper's brightness, where it is strong (in the shadow it is stronger than in the
 * light): by the second differences across and down, of which flat paper has none (Immerkær 1996); the median, so that print does not count.
 */
export function noiseOf(picture: Raster): number {
  const shares = blocksOf(picture).map((block) => {
    const { deviation, tone } = noiseIn(picture, block);
    return deviation / Math.max(4, tone);
  });
  return shares.sort((a, b) => a - b)[Math.floor(STRONG * shares.length)];
}

/** A block's edges, in pixels. */
export type Block = [left: number, top: number, right: number, bottom: number];

/** The blocks of a picture in which noise is measured, row by row. */
export function blocksOf({ width, height }: Raster): Block[] {
  const edge = (size: number, block: number) => Math.floor((block * size) / BLOCKS);
  return Array.from({ length: BLOCKS * BLOCKS }, (_, at): Block => {
    const [row, column] = [Math.floor(at / BLOCKS), at % BLOCKS];
    return [edge(width, column), edge(height, row), edge(width, column + 1), edge(height, row + 1)];
  });
}

/**
 * The standard deviation of the noise in a block, and how bright it is where it is bright, both in grey levels; in green where there are
 * colours: most of the brightness is in it.
 */
export function noiseIn({ width, height, channels, data }: Raster, block: Block): { deviation: number; tone: number } {
  const [left, top] = [Math.max(1, block[0]), Math.max(1, block[1])];
  const [right, bottom] = [Math.min(width - 1, block[2]), Math.min(height - 1, block[3])];
  const [row, green] = [width * channels, channels === 1 ? 0 : 1];
  const differences = new Uint32Array(2048);
  const tones = new Uint32Array(256);
  let count = 0;
  for (let y = top; y < bottom; y += STRIDE) {
    for (let x = left; x < right; x += STRIDE) {
      const at = y * row + x * channels + green;
      const [above, below, before, after] = [at - row, at + row, at - channels, at + channels];
      const corners = data[above - channels] + data[above + channels] + data[below - channels] + data[below + channels];
      const sides = data[above] + data[below] + data[before] + data[after];
      differences[Math.min(2047, Math.abs(corners + 4 * data[at] - 2 * sides))]++;
      tones[data[at]]++;
      count++;
    }
  }
  if (count === 0) return { deviation: 0, tone: 0 };
  // The mask has the norm six; a normal distribution's median deviation is 0.6745 of its standard deviation.
  return { deviation: quantile(differences, count / 2) / 6 / 0.6745, tone: quantile(tones, 0.7 * count) };
}

/** The value that so many of those counted lie below. @param counts how often there is each value from 0 on */
export function quantile(counts: Uint32Array, rank: number): number {
  let [below, value] = [0, 0];
  while (value < counts.length - 1 && below + counts[value] < rank) below += counts[value++];
  // Within a step, by how far into it the rank falls.
  return value + (counts[value] > 0 ? (rank - below) / counts[value] - 0.5 : 0);
}

/** A page with its noise smoothed by as much as there is of it; one without much is given back as it is. */
export function withoutNoise(picture: Raster): Raster {
  const noise = noiseOf(picture);
  return noise < NOISY ? picture : blurred(picture, Math.min(WIDEST, 0.7 + WIDTH_PER_NOISE * (noise - NOISY)));
}

/** Smoothed by a Gaussian bell, across and down. @param deviation its width, in pixels */
export function blurred(picture: Raster, deviation: number): Raster {
  const { width, height, channels } = picture;
  const reach = Math.ceil(2.5 * deviation);
  const bell = Array.from({ length: 2 * reach + 1 }, (_, at) => Math.exp(-((at - reach) ** 2) / (2 * deviation ** 2)));
  const sum = bell.reduce((total, each) => total + each, 0);
  // In 256ths, adding up to one.
  const weights = Uint16Array.from(bell, (each) => Math.round((256 * each) / sum));
  weights[reach] += 256 - weights.reduce((total, each) => total + each, 0);
  const line = width * channels;
  const blocks = [
    bytesOf(picture),
    bytesIn(weights),
    line + 2 * reach * channels,
    line * (height + 2 * reach),
    line * height,
  ];
  const data = withPixels(blocks, (pixels, [source, weightsAt, row, between, out]) =>
    pixels.smooth(source, width, height, channels, weightsAt, reach, row, between, out),
  );
  return { width, height, channels, data: data ?? plainSmooth(picture, weights) };
}

/** The same without the kernels. @param weights of the pixels before, at and behind each, in 256ths */
function plainSmooth(picture: Raster, weights: Uint16Array): Uint8Array {
  const { width, height, channels } = picture;
  const reach = weights.length >> 1;
  let from = bytesOf(picture);
  for (const [step, count, stride, lines] of [
    [channels, width, width * channels, height],
    [width * channels, height, channels, width],
  ]) {
    const to = new Uint8Array(from.length);
    for (let line = 0; line < lines; line++) {
      for (let at = 0; at < count; at++) {
        const here = line * stride + at * step;
        for (let channel = 0; channel < channels; channel++) {
          let total = 128;
          for (let by = -reach; by <= reach; by++) {
            const there = at + by < 0 ? 0 : at + by >= count ? count - 1 : at + by;
            total += weights[by + reach] * from[line * stride + there * step + channel];
          }
          to[here + channel] = total >> 8;
        }
      }
    }
    from = to;
  }
  return from;
}
