import { largestAround } from './greyMorphology';
import { blocksOf, blurred, noiseOf, quantile } from './noise';
import { bytesIn, withPixels } from './kernels/pixels';
import { bytesOf, plane, Raster, throughCurve } from './raster';

/** How far a page is smoothed to see what stands on it apart from its grain, and what it stands on (standard deviations, in pixels). */
const FINE = 2;
const WIDE = 6;
/** Pixels across and down between those at which grain is measured. */
const STRIDE = 3;
/** Of the blocks of a page sorted by their grain, where those without much print are, and of those sorted by their paper, where the dark ones are. */
const BARE = 0.25;
const DARK = 0.1;
/** The strength that noise has at least (as `noiseOf` tells it) in a page with grain; others are not looked at any further. */
const LEAST_NOISE = 0.009;
/** From so much grain on (standard deviation as a share of the brightness of dark paper) it shows on a page whose paper is made white. */
const GRAINY = 0.03;
/** How much of grain is left at most when it is smoothed; of print and of a paper's structure more is. */
const LEFT = 0.4;
/** Tones that are distributed normally, as grain's are, have a tail of 1.645 / 0.6745 = 2.44; print and screens of dots have others. */
const [LEAST_TAIL, MOST_TAIL] = [2.2, 2.8];
/** What stands out by so many times the deviation of smoothed grain may be print, and surely is by twice as much. */
const CLEARLY = 4;
/** How far around print a page keeps its details, in pixels. */
const AROUND = 3;
/** How unlike the surroundings of two pixels are for the one to hardly count for the other, beside grain; and how far off that is looked for. */
const LIKE = 1.2;
const REACH = 3;
/** Weights by how unlike they are: so many, and so many of them for one unit. */
const STEPS = 1024;
const PER = 128;
/** The median of a normal distribution's absolute deviations, beside its standard deviation. */
const MIDDLE = 0.6745;

/**
 * A page with the grain of a picture taken in little light smoothed away wherever nothing stands on its paper; print keeps its edges.
 * What stands out in a smoothed copy by no more than grain does is smooth paper (coring: Simoncelli & Adelson 1996). A page without grain
 * that would show is given back as it is.
 * @param picture upright or not, in grey or colour
 * @returns of the same size; brighter throughout, by a whole number, where it was dark
 */
export function withoutGrain(picture: Raster): Raster {
  if (noiseOf(picture) < LEAST_NOISE) return picture;
  const lit = brightened(picture);
  const fine = blurred(lit, FINE);
  const layers = { page: greenOf(lit), fine: greenOf(fine), wide: blurred(greenOf(lit), WIDE) };
  const { grain, left, paper, tail } = measured(layers);
  const isGrain = left <= LEFT * grain && tail > LEAST_TAIL && tail < MOST_TAIL;
  if (grain < GRAINY * paper || !isGrain) return picture;
  // Tones are whole numbers: half of one is no grain.
  const kept = standingOut(layers, CLEARLY * Math.max(left, 0.5));
  const { channels } = lit;
  const [pages, smooth] = [likeMeans(lit, kept, grain), bytesOf(fine)];
  const data = new Uint8Array(pages.length);
  for (let at = 0; at < pages.length; at++) {
    const share = kept[Math.floor(at / channels)];
    data[at] = share === 0 ? smooth[at] : smooth[at] + share * (pages[at] - smooth[at]);
  }
  return { ...lit, data };
}

/** A page in one channel: as it is, and smoothed by `FINE` and by `WIDE`. */
interface Layers {
  page: Raster;
  fine: Raster;
  wide: Raster;
}

/**
 * The grain of a page's paper, what is left of it in the smoothed page (standard deviations), how bright its dark parts are, and how far the
 * outermost tenth of its tones is off, beside the middle of them.
 */
function measured({ page, fine, wide }: Layers): Record<'grain' | 'left' | 'paper' | 'tail', number> {
  const [pages, smooth, around] = [page, fine, wide].map(bytesOf);
  const blocks = blocksOf(page).map(([left, top, right, bottom]) => {
    const [grains, lefts, tones] = Array.from({ length: 3 }, () => new Uint32Array(256));
    let count = 0;
    for (let y = top; y < bottom; y += STRIDE) {
      for (let at = y * page.width + left; at < y * page.width + right; at += STRIDE, count++) {
        grains[Math.abs(pages[at] - smooth[at])]++;
        lefts[Math.abs(smooth[at] - around[at])]++;
        tones[pages[at]]++;
      }
    }
    const middle = quantile(grains, count / 2);
    const tail = quantile(grains, 0.9 * count) / Math.max(0.5, middle);
    return [middle / MIDDLE, quantile(lefts, count / 2) / MIDDLE, quantile(tones, 0.7 * count), tail];
  });
  const at = (which: number, share: number) =>
    blocks.map((block) => block[which]).sort((a, b) => a - b)[Math.floor(share * blocks.length)];
  return { grain: at(0, BARE), left: at(1, BARE), paper: at(2, DARK), tail: at(3, BARE) };
}

/**
 * The pixels of a page where something stands, each as the mean of those around it whose own surroundings are like its (non-local means:
 * Buades, Coll & Morel 2005); the others as they are.
 * @param kept not zero where something stands, a pixel each
 * @param grain standard deviation
 * @returns the bytes of the page
 */
function likeMeans(page: Raster, kept: Float32Array, grain: number): Uint8Array {
  const { width, height, channels } = page;
  const [data, green] = [bytesOf(page), bytesOf(greenOf(page))];
  const places = new Uint8Array(kept.length);
  for (let at = 0; at < kept.length; at++) places[at] = kept[at] > 0 ? 1 : 0;
  // Nine pixels are compared; of two with nothing but grain between them the square is twice the variance.
  const spread = 2 * 9 * (LIKE * grain) ** 2;
  const weights = Uint16Array.from({ length: STEPS }, (_, step) => 4096 * Math.exp(Math.min(0, 0.5 - step / PER)));
  const per = Math.round((65_536 * PER) / spread);
  const blocks = [data, green, places, bytesIn(weights), data.length];
  return (
    withPixels(blocks, (pixels, [source, greens, where, weightsAt, out]) =>
      pixels.likeMeans(source, channels, width, height, greens, where, REACH, weightsAt, per, out),
    ) ?? plainLikeMeans(page, green, places, weights, per)
  );
}

/** The same without the kernels. */
function plainLikeMeans(
  page: Raster,
  green: Uint8Array,
  kept: Uint8Array,
  weights: Uint16Array,
  per: number,
): Uint8Array {
  const { width, height, channels } = page;
  const data = bytesOf(page);
  const out = data.slice();
  const colours = Math.min(3, channels);
  const most = Math.floor((STEPS * 65_536 - 1) / per);
  const patch = [-1, 0, 1].flatMap((dy) => [-1, 0, 1].map((dx) => dy * width + dx));
  const border = REACH + 1;
  const sums = new Float64Array(colours);
  for (let y = border; y < height - border; y++) {
    for (let x = border; x < width - border; x++) {
      const here = y * width + x;
      if (kept[here] === 0) continue;
      sums.fill(0);
      let total = 0;
      for (let dy = -REACH; dy <= REACH; dy++) {
        for (let there = here + dy * width - REACH, last = there + 2 * REACH; there <= last; there++) {
          let apart = 0;
          for (const by of patch) apart += (green[here + by] - green[there + by]) ** 2;
          if (apart > most) continue;
          const weight = weights[Math.floor((apart * per) / 65_536)];
          total += weight;
          for (let colour = 0; colour < colours; colour++) sums[colour] += weight * data[there * channels + colour];
        }
      }
      for (let colour = 0; colour < colours; colour++)
        out[here * channels + colour] = Math.floor((sums[colour] + (total >> 1)) / total);
    }
  }
  return out;
}

/** Where something stands on the paper, and around it: from 0, where there is none, to 1. @param limit from which on it may */
function standingOut({ fine, wide }: Layers, limit: number): Float32Array {
  const [smooth, around] = [bytesOf(fine), bytesOf(wide)];
  const grid = plane(fine.width, fine.height);
  for (let at = 0; at < grid.data.length; at++)
    grid.data[at] = Math.min(1, Math.max(0, Math.abs(smooth[at] - around[at]) / limit - 1));
  return largestAround(grid, AROUND).data;
}

/** Most of the brightness is in green. */
function greenOf(picture: Raster): Raster {
  const { width, height, channels } = picture;
  if (channels === 1) return picture;
  const from = bytesOf(picture);
  const data = new Uint8Array(width * height);
  for (let at = 0; at < data.length; at++) data[at] = from[at * channels + 1];
  return { width, height, channels: 1, data };
}

/** A dark page as many times brighter as its brightest tones allow: what is smoothed has as many steps then as there are. */
export function brightened(picture: Raster): Raster {
  const from = bytesOf(picture);
  const counts = new Uint32Array(256);
  let count = 0;
  for (let at = 0; at < from.length; at += 7) {
    // How opaque a pixel is says nothing of its brightness.
    if (picture.channels === 4 && at % 4 === 3) continue;
    counts[from[at]]++;
    count++;
  }
  const times = Math.floor(255 / Math.max(1, quantile(counts, 0.995 * count)));
  const curve = Uint8Array.from({ length: 256 }, (_, value) => Math.min(255, times * value));
  return times < 2 ? picture : throughCurve(picture, curve);
}
