import { Ink } from '../ink';
import { Quad } from '../quad';
import { Raster } from '../raster';
import { Outline } from './findOutlines';
import { isInside } from './print';

/** Lines longer than this, in points, are those of a letter; no till prints so wide. */
const WIDEST_SLIP = 270;
/** What lies so near to each other in a line belongs together, in points. */
const WORD_GAP = 14;
/** A page with less ink than so many pixels, of a thousand on its longer side, tells nothing. */
const LEAST_INK = 400;
/** Sheets found in a scan hold at least this share of the print in it. */
const HELD = 0.93;
/** A single one is cut out only when it is so much smaller than the scan, and so sure. */
const SMALL = 0.7;
const SURE = 0.9;
/** Empty strips between papers are so wide at least, as a share of the longer side: standing, and lying. */
const [STANDING_STRIP, LYING_STRIP] = [0.02, 0.04];
const MARGIN = 0.013;
const LEAST_PART = 0.08;

/**
 * Whether all print on a page stands in lines as short as those of receipts and slips, so that several may lie on it.
 * @param letters the letters on the page @param size of the page in points
 */
export function isNarrow({ width, height, data }: Ink, size: [number, number]): boolean {
  const perPoint = width / size[0];
  const gap = WORD_GAP * perPoint;
  const widest = WIDEST_SLIP * perPoint;
  let ink = 0;
  const rows = Math.max(1, Math.round(4 * perPoint));
  let wide = 0;
  for (let top = 0; top + rows <= height; top += rows) {
    let [from, last] = [-1, -1];
    for (let x = 0; x < width; x++) {
      let dark = 0;
      for (let y = top; y < top + rows; y++) dark += data[y * width + x];
      if (dark === 0) continue;
      ink += dark;
      if (last < 0 || x - last > gap) from = x;
      last = x;
      if (x - from > widest) {
        wide++;
        break;
      }
    }
  }
  // One or two such lines may be a fold or a pencil stroke.
  return ink >= LEAST_INK && wide <= 2;
}

/** Whether sheets found in a scan are all that is on it: they hold nearly all its print, and each holds some. */
export function holdPrint(found: readonly Outline[], letters: Ink, { width, height }: Raster): boolean {
  if (found.length === 0) return false;
  const quads = found.map(({ corners }) =>
    corners.map(([x, y]) => [(x / width) * letters.width, (y / height) * letters.height]),
  ) as Quad[];
  const held = quads.map(() => 0);
  let all = 0;
  for (let y = 0, at = 0; y < letters.height; y++) {
    for (let x = 0; x < letters.width; x++, at++) {
      if (!letters.data[at]) continue;
      all++;
      const on = quads.findIndex((quad) => isInside(quad, x, y));
      if (on >= 0) held[on]++;
    }
  }
  const enough = held.every((ink) => ink > LEAST_INK / 8) && held.reduce((sum, ink) => sum + ink, 0) >= HELD * all;
  if (found.length > 1 || !enough) return enough;
  const [[left, top], , [right, bottom]] = quads[0];
  const share = (Math.abs(right - left) * Math.abs(bottom - top)) / (letters.width * letters.height);
  return share < SMALL && found[0].confidence >= SURE;
}

/**
 * Papers told apart by the empty strips between their print alone (recursive cuts, Nagy & Seth 1984), for when somebody says
 * that several lie there and no edges are to be seen. Corners in pixels of the picture.
 */
export function printApart(letters: Ink, { width, height }: Raster): Outline[] {
  const longer = Math.max(letters.width, letters.height);
  const parts = cutApart(letters, [0, 0, letters.width, letters.height], longer);
  if (parts.length < 2) return [];
  const [across, down] = [width / letters.width, height / letters.height];
  const margin = MARGIN * longer;
  return parts.map(([left, top, right, bottom]): Outline => {
    const [l, r] = [Math.max(0, left - margin), Math.min(letters.width, right + margin)].map((x) => x * across);
    const [t, b] = [Math.max(0, top - margin), Math.min(letters.height, bottom + margin)].map((y) => y * down);
    const corners: Quad = [
      [l, t],
      [r, t],
      [r, b],
      [l, b],
    ];
    return { corners, confidence: 0.6 };
  });
}

type Region = [left: number, top: number, right: number, bottom: number];

/** Cuts a region at its widest empty strip, and what is left again, until none is wide enough. */
function cutApart(letters: Ink, within: Region, longer: number): Region[] {
  const region = shrunk(letters, within);
  if (!region) return [];
  const [left, top, right, bottom] = region;
  const standing = widestStrip(profile(letters, region, true));
  const lying = widestStrip(profile(letters, region, false));
  const worth = [standing.width / STANDING_STRIP, lying.width / LYING_STRIP];
  if (Math.max(...worth) < longer) return isPart(region, longer) ? [region] : [];
  const [one, two]: Region[] =
    worth[0] >= worth[1]
      ? [
          [left, top, left + standing.from, bottom],
          [left + standing.from + standing.width, top, right, bottom],
        ]
      : [
          [left, top, right, top + lying.from],
          [left, top + lying.from + lying.width, right, bottom],
        ];
  const parts = [...cutApart(letters, one, longer), ...cutApart(letters, two, longer)];
  // Little pieces that fell off belong to what they fell off from.
  return parts.length > 1 ? parts : isPart(region, longer) ? [region] : [];
}

const isPart = ([left, top, right, bottom]: Region, longer: number) =>
  Math.min(right - left, bottom - top) >= LEAST_PART * longer;

/** How much ink there is in each column, or row, of a region. */
function profile({ width, data }: Ink, [left, top, right, bottom]: Region, columns: boolean): Uint32Array {
  const ink = new Uint32Array(columns ? right - left : bottom - top);
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++) ink[columns ? x - left : y - top] += data[y * width + x];
  return ink;
}

function widestStrip(ink: Uint32Array): { from: number; width: number } {
  let [best, from] = [{ from: 0, width: 0 }, 0];
  ink.forEach((dark, at) => {
    if (dark > 1) from = at + 1;
    else if (at + 1 - from > best.width) best = { from, width: at + 1 - from };
  });
  return best;
}

/** A region without its empty edges; undefined when nothing is in it. */
function shrunk(letters: Ink, [left, top, right, bottom]: Region): Region | undefined {
  const columns = profile(letters, [left, top, right, bottom], true);
  const rows = profile(letters, [left, top, right, bottom], false);
  const ends = (ink: Uint32Array) => [ink.findIndex((dark) => dark > 0), ink.findLastIndex((dark) => dark > 0)];
  const [[x0, x1], [y0, y1]] = [ends(columns), ends(rows)];
  return x0 < 0 ? undefined : [left + x0, top + y0, left + x1 + 1, top + y1 + 1];
}
