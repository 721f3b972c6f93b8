import { Ink } from '../../imaging/ink';
import { blurred } from '../../imaging/noise';
import { bytesOf, Raster } from '../../imaging/raster';

/** Of an evenly lit page, what is darker than this is ink. */
const INK_BELOW = 150;
/** How far down pixels are compared, and how many columns apart those are that are looked at. */
const [DOWN, STRIDE] = [14, 2];
/** Print that hangs together is never again as much like itself further down; print of dots is, by more than this, on a page and in a row of it. */
const [LEAST_AGAIN, LEAST_IN_BAND] = [0.06, 0.02];
/** How far apart dots may stand, in pixels. */
const [NEAREST, FARTHEST, STEP] = [2.2, 7, 0.1];
/** Lines of the smallest print that can be read are further apart than this. */
const NEAR_LINES = 11;
/** So wide print is smoothed (standard deviation), as a share of that, and so much darker it is made again. */
const [WIDTH, DARKER] = [0.5, 1.7];
/** A dash is no longer, in pixels. */
const LONGEST = 26;
/** Rows with less ink say nothing. */
const LEAST_INK = 120;

/**
 * Joins the letters of print that consists of dots or dashes, as needles, receipts' heated bars and ticket machines print it: each dot is a piece by itself
 * or hangs on to its neighbour by a hair, and no search for lines finds them. Such print repeats itself down the page from dot to dot, which print that
 * hangs together never does; rows that do are smoothed, by half of what their dots are apart. Page and ink are changed in place.
 * @param page grey, evenly lit, paper white
 * @returns whether any was joined
 */
export function joinBrokenPrint(page: Raster, ink: Ink): boolean {
  const data = bytesOf(page);
  const all = unlikeness(data, ink, 0, ink.height);
  if (againAlike(all) < LEAST_AGAIN) return false;
  const smooth = new Map<number, Uint8Array>();
  let isJoined = false;
  const original = data.slice();
  for (const [top, bottom] of bandsOf(ink)) {
    const { apart, strength } = pitchOf(unlikeness(original, ink, top, bottom));
    if (strength < LEAST_IN_BAND) continue;
    const width = Math.round(4 * WIDTH * apart) / 4;
    const joined = smooth.get(width) ?? darkened(blurred({ ...page, data: original }, width));
    smooth.set(width, joined);
    const [from, to] = [top * ink.width, bottom * ink.width];
    data.set(joined.subarray(from, to), from);
    for (let at = from; at < to; at++) ink.data[at] = data[at] < INK_BELOW ? 1 : 0;
    isJoined = true;
  }
  return isJoined;
}

/** How unlike ink is to what stands so many pixels below it, for each number of pixels; all nought where there is too little of it. */
function unlikeness(data: Uint8Array, { width, height, data: ink }: Ink, top: number, bottom: number): Float64Array {
  const sums = new Float64Array(DOWN + 1);
  let count = 0;
  for (let y = top; y < Math.min(bottom, height - DOWN); y++) {
    const end = (y + 1) * width;
    for (let at = y * width; at < end; at++) {
      if (ink[at] === 0) continue;
      const from = at;
      while (at < end && ink[at] !== 0) at++;
      // Double rules are alike further down as well.
      if (at - from > LONGEST) continue;
      for (let each = from; each < at; each += STRIDE) {
        count++;
        for (let down = 1; down <= DOWN; down++) sums[down] += Math.abs(data[each + down * width] - data[each]);
      }
    }
  }
  return count < LEAST_INK ? new Float64Array(DOWN + 1) : sums;
}

/** By how much print is more like itself again further down than it was before, as a share. */
function againAlike(unlike: Float64Array): number {
  let [most, deepest] = [unlike[1], 0];
  for (let down = 2; down <= NEAR_LINES; down++) {
    const isDip = unlike[down] < unlike[down - 1] && unlike[down] <= unlike[down + 1];
    if (isDip && most > 0) deepest = Math.max(deepest, 1 - unlike[down] / most);
    most = Math.max(most, unlike[down]);
  }
  return deepest;
}

/** How far apart the dots of print stand, and how clearly: it is alike at once, twice and three times that, and unlike halfway between. */
function pitchOf(unlike: Float64Array): { apart: number; strength: number } {
  const at = (down: number) => {
    const below = Math.floor(down);
    return unlike[below] + (down - below) * ((unlike[below + 1] ?? unlike[below]) - unlike[below]);
  };
  let best = { apart: NEAREST, strength: 0 };
  for (let apart = NEAREST; apart <= FARTHEST; apart += STEP) {
    const times = [1, 2, 3].filter((each) => (each + 0.5) * apart <= DOWN);
    const sum = (shift: number) => times.reduce((all, each) => all + at((each + shift) * apart), 0);
    // Both sides of each, or what grows further down would look alike.
    const between = (sum(-0.5) + sum(0.5)) / 2;
    const strength = between > 0 ? 1 - sum(0) / between : 0;
    if (strength > best.strength) best = { apart, strength };
  }
  return best;
}

/** The rows of pixels in which there is ink, with a margin. */
function bandsOf({ width, height, data }: Ink): [top: number, bottom: number][] {
  const bands: [number, number][] = [];
  for (let y = 0; y < height; y++) {
    if (data.subarray(y * width, (y + 1) * width).every((value) => value === 0)) continue;
    const [top, bottom] = [Math.max(0, y - MARGIN), Math.min(height, y + 1 + MARGIN)];
    const last = bands.at(-1);
    if (last && top <= last[1]) last[1] = bottom;
    else bands.push([top, bottom]);
  }
  return bands;
}

/** Rows of one line are no further apart than twice this, in pixels, and dots no wider when they are smoothed. */
const MARGIN = 4;

function darkened(picture: Raster): Uint8Array {
  return bytesOf(picture).map((value) => Math.max(0, Math.round(255 - DARKER * (255 - value))));
}
