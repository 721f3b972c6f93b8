import { Component, piecesOf } from '../imaging/components';
import { Ink } from '../imaging/ink';
import { bytesOf, greyOf, Raster, shrink } from '../imaging/raster';

/** Longer side, in pixels, at which a page is looked at for what it is: about 100 dpi for A4. */
export const LOOKED_AT = 1170;
/** How much darker than the paper around it ink is at least, as a share: print of the other side that shows through is fainter. */
const FAINT = 0.13;
/** What can't be show-through. */
const STRONG = 0.3;
/** Smallest piece that says something, as a share of the longer side (1.1 mm of A4), and of how many pixels at the least. */
const SMALLEST = 0.0037;
const LEAST_PIXELS = 7;
/** Faint pieces count when there are so many, and their edges are sharp: pencil is, print from the other side is not. */
const LEAST_FAINT = 6;
const SHARP = 0.45;
/** So many pieces in a row are what is left of writing; gaps and unevenness in shares of the longer side. */
const LEAST_IN_ROW = 8;
/** Print from the other side is hardly so dark, even where the noise darkens it. */
const DARK_IN_ROW = 0.18;
const LONGEST_ROW = 0.8;
const ROW_GAP = 0.012;
const ROW_OFF = 0.008;
const MOST_PIECES = 3000;
const TILE = 32;
const PAPER_SHARE = 0.5;
/** What touches the border so nearly is the edge of the sheet or its shadow. */
const BORDER = 0.008;
/** Holes are punched no further from the border than this, are round and so large (shares of the longer side). */
const HOLE_FROM_BORDER = 0.07;
const [SMALLEST_HOLE, LARGEST_HOLE] = [0.012, 0.032];
const ROUND = 0.25;
/** A crease or a scanner's streak: much longer than wide and from end to end. */
const STREAK = 0.35;
const STREAK_WIDTH = 0.006;

/**
 * Whether there is nothing on a page: what shows through from its other side, punched holes, dust, creases and the shadow at
 * its edges don't count; a page number, a signature or a line in pencil does.
 * @param picture of the page, of any size
 */
export function isBlank(picture: Raster): boolean {
  const grey = greyOf(shrink(picture, LOOKED_AT));
  const { width, height } = grey;
  const shade: Shade = { width, pixels: bytesOf(grey), paper: paperOf(grey), across: Math.ceil(width / TILE) };
  const darkest: number[] = [];
  const components = piecesOf(faintInk(shade, height), (piece, from, to) => {
    for (let at = from; at <= to; at++) darkest[piece - 1] = Math.max(darkest[piece - 1] ?? 0, darknessAt(shade, at));
  });
  let faint = 0;
  for (const [index, component] of components.entries()) {
    if (!saysSomething(component, width, height)) continue;
    if (darkest[index] >= STRONG) return false;
    if (isSharp(component, shade, darkest[index])) faint++;
  }
  const written = components.filter((_, index) => darkest[index] >= DARK_IN_ROW);
  return faint < LEAST_FAINT && longestRow(written, width, height) < LEAST_IN_ROW;
}

/** A picture in grey, and how light the paper is in each square of it. */
interface Shade {
  width: number;
  pixels: Uint8Array;
  paper: Float32Array;
  /** Squares across. */
  across: number;
}

/** How much darker than the paper around it a pixel is, as a share. */
function darknessAt({ width, pixels, paper, across }: Shade, at: number): number {
  const around = paper[Math.trunc(Math.trunc(at / width) / TILE) * across + Math.trunc((at % width) / TILE)];
  return pixels[at] < around ? (around - pixels[at]) / (around + 8) : 0;
}

/** All that is darker than `FAINT`. */
function faintInk({ width, pixels, paper, across }: Shade, height: number): Ink {
  const limits = paper.map((around) => around - FAINT * (around + 8));
  const data = new Uint8Array(width * height);
  for (let y = 0, at = 0; y < height; y++) {
    const row = Math.trunc(y / TILE) * across;
    for (let x = 0; x < width; x++, at++) if (pixels[at] < limits[row + Math.trunc(x / TILE)]) data[at] = 1;
  }
  return { width, height, data };
}

/** How light the paper is in each square of a picture: most of its pixels are no darker than so. */
function paperOf({ width, height, data }: Raster): Float32Array {
  const [across, down] = [Math.ceil(width / TILE), Math.ceil(height / TILE)];
  const paper = new Float32Array(across * down);
  const counts = new Uint16Array(256);
  for (let tile = 0; tile < paper.length; tile++) {
    const [left, top] = [(tile % across) * TILE, Math.floor(tile / across) * TILE];
    counts.fill(0);
    let seen = 0;
    for (let y = top; y < Math.min(height, top + TILE); y += 2) {
      for (let x = left; x < Math.min(width, left + TILE); x += 2, seen++) counts[data[y * width + x]]++;
    }
    let level = 0;
    for (let sum = 0; level < 255; level++) {
      sum += counts[level];
      if (sum > PAPER_SHARE * seen) break;
    }
    paper[tile] = level;
  }
  return paper;
}

/** How many pieces stand in a row at the most, be they ever so small: what is left of thin writing. Dust lies anywhere. */
function longestRow(components: Component[], width: number, height: number): number {
  const long = Math.max(width, height);
  const [gap, off] = [ROW_GAP * long, ROW_OFF * long];
  const border = 0.02 * long;
  const pieces = components
    .filter(
      ({ left, top, right, bottom }) =>
        left > border && top > border && right < width - border && bottom < height - border,
    )
    .sort((a, b) => a.left - b.left);
  if (pieces.length > MOST_PIECES) return pieces.length;
  const rows = pieces.map((_, index) => ({ count: 1, begin: index }));
  const whole = pieces.map(({ right }) => ({ count: 1, right }));
  for (let right = 0; right < pieces.length; right++) {
    for (let left = right - 1; left >= 0; left--) {
      const [a, b] = [pieces[left], pieces[right]];
      if (b.left - a.right > gap || Math.abs(a.bottom - b.bottom) > off) continue;
      if (rows[left].count >= rows[right].count) rows[right] = { count: rows[left].count + 1, begin: rows[left].begin };
    }
    const row = whole[rows[right].begin];
    row.count = Math.max(row.count, rows[right].count);
    row.right = Math.max(row.right, pieces[right].right);
  }
  // Along a crease there are pieces from one side to the other.
  const short = whole.filter(({ right }, begin) => right - pieces[begin].left < LONGEST_ROW * width);
  return Math.max(0, ...short.map(({ count }) => count));
}

function saysSomething({ left, right, top, bottom, pixels }: Component, width: number, height: number): boolean {
  const long = Math.max(width, height);
  const [w, h] = [right - left + 1, bottom - top + 1];
  if (Math.max(w, h) < SMALLEST * long || pixels < LEAST_PIXELS) return false;
  const border = BORDER * long;
  if (left < border || top < border || right > width - border || bottom > height - border) return false;
  if (Math.max(w, h) > STREAK * long && pixels / Math.max(w, h) < STREAK_WIDTH * long) return false;
  const [x, y] = [(left + right) / 2, (top + bottom) / 2];
  const fromBorder = Math.min(x, y, width - x, height - y);
  const round = Math.abs(w - h) < ROUND * Math.max(w, h) && w > SMALLEST_HOLE * long && w < LARGEST_HOLE * long;
  return !(round && fromBorder < HOLE_FROM_BORDER * long);
}

/** Whether its darkness falls off within a pixel or so. */
function isSharp({ left, right, top, bottom }: Component, shade: Shade, darkest: number): boolean {
  const { width } = shade;
  let steepest = 0;
  for (let y = top; y <= bottom; y++) {
    for (let x = Math.max(1, left - 1); x <= right + 1; x++) {
      const at = y * width + x;
      steepest = Math.max(
        steepest,
        Math.abs(darknessAt(shade, at + 1) - darknessAt(shade, at - 1)),
        Math.abs(darknessAt(shade, at + width) - darknessAt(shade, at - width)) || 0,
      );
    }
  }
  return steepest > SHARP * darkest;
}
