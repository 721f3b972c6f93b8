import { renderLook, toneOf, tonesOfPrint } from '../../imaging/looks';
import { Ink, inkBelow } from '../../imaging/ink';
import { bytesOf, greyOf, Raster, shrink, throughCurve } from '../../imaging/raster';
import { darkenFaintPrint } from './faintPrint';

/** Of an evenly lit page, what is darker than this in grey levels is ink. */
const INK_BELOW = 150;
/** The light of a scan varies by no more than this share over the page. */
const EVEN = 0.06;
/** A ground darker than this share of the paper is printed, not in shadow. */
const DARK_GROUND = 0.45;
/** What is darker than this share of the paper over a whole block is no print. */
const DARK_THING = 0.6;
/** Size (longer side, pixels) in which the light is looked at. */
const LOOKED_AT = 560;
/** What is as bright as this share of the paper is paper. */
const WHITE = 0.93;
/** Blocks of a dark ground, as shares of the page's longer side: at least so long and so high. */
const CELL = 1 / 160;
/** So much of a dark ground is dark: bold letters that touch are less. */
const GROUND = 0.7;

/** A page for reading: grey, paper white, ink dark, light print on dark ground turned dark on white. */
export interface EvenPage {
  page: Raster;
  ink: Ink;
}

/** Evens the light on a page. The picture stays as it is. */
export function evenPage(picture: Raster): EvenPage {
  const grey = greyOf(picture);
  const small = shrink(grey, LOOKED_AT, { enough: 2 });
  const { light, ink: inkLevel } = toneOf(small);
  const [cells] = light.channels;
  const usual = quantile(cells.data, 0.5);
  // Large areas of dark ground are ground, not shadow.
  for (let at = 0; at < cells.data.length; at++) if (cells.data[at] < DARK_GROUND * usual) cells.data[at] = usual;
  const [low, high] = [quantile(cells.data, 0.04), quantile(cells.data, 0.98)];
  const isEven = high - low <= EVEN * high;
  const page = isEven ? stretched(grey, usual, small) : renderLook(grey, 'grey', { light, ink: inkLevel });
  const data = bytesOf(page);
  turnDarkGrounds(page.width, page.height, data);
  darkenFaintPrint(page.width, page.height, data);
  const even = { ...page, data };
  return { page: even, ink: inkBelow(even, INK_BELOW) };
}

function quantile(values: Float32Array, share: number): number {
  return values.toSorted()[Math.floor(share * (values.length - 1))];
}

/** Paper becomes white and the darkest ink nearly black, by one curve for the whole page. */
function stretched(picture: Raster, paper: number, small: Raster): Raster {
  const counts = tonesOfPrint(small, DARK_THING * paper);
  let [dark, seen] = [0, 0];
  // Half of a hundredth of the page is as dark as its ink.
  while (seen < small.data.length / 200 && dark < 255) seen += counts[dark++];
  const black = Math.min(dark, 0.75 * paper) * 0.8;
  const white = WHITE * paper;
  const curve = new Uint8Array(256);
  for (let value = 0; value < 256; value++)
    curve[value] = Math.max(0, Math.min(255, Math.round((255 * (value - black)) / (white - black))));
  return throughCurve(picture, curve);
}

/** Bands and cells of dark ground become white ones with dark print. Pixels are changed in place. */
function turnDarkGrounds(width: number, height: number, data: Uint8Array): void {
  const cell = Math.max(8, Math.round(Math.max(width, height) * CELL));
  const [across, down] = [Math.ceil(width / cell), Math.ceil(height / cell)];
  const dark = new Uint8Array(across * down);
  const stride = Math.max(1, Math.floor(cell / 6));
  for (let cy = 0; cy < down; cy++) {
    for (let cx = 0; cx < across; cx++) {
      let [below, seen] = [0, 0];
      for (let y = cy * cell; y < Math.min(height, (cy + 1) * cell); y += stride) {
        for (let x = cx * cell; x < Math.min(width, (cx + 1) * cell); x += stride) {
          if (data[y * width + x] < INK_BELOW) below++;
          seen++;
        }
      }
      if (below > 0.55 * seen) dark[cy * across + cx] = 1;
    }
  }
  for (const [left, top, right, bottom] of blocks(dark, across, down)) {
    const [x0, y0] = [left * cell, top * cell];
    const [x1, y1] = [Math.min(width, right * cell), Math.min(height, bottom * cell)];
    // The block's edge does not fall on whole cells: it is followed outwards, row by row and column by column.
    const edges = grown(width, height, data, [x0, y0, x1, y1], cell);
    if (
      darkShare(width, data, edges) > GROUND &&
      isGround(width, data, edges, cell) &&
      holdsLightPrint(width, data, edges)
    )
      turn(width, data, edges);
  }
}

type Area = [left: number, top: number, right: number, bottom: number];

/** The surroundings of dark cells that touch, at least three cells wide and two high. */
function blocks(dark: Uint8Array, across: number, down: number): Area[] {
  const found: Area[] = [];
  const seen = new Uint8Array(dark.length);
  for (let start = 0; start < dark.length; start++) {
    if (dark[start] === 0 || seen[start] !== 0) continue;
    let [left, top, right, bottom] = [across, down, 0, 0];
    const waiting = [start];
    seen[start] = 1;
    while (waiting.length > 0) {
      const at = waiting.pop()!;
      const [x, y] = [at % across, Math.floor(at / across)];
      [left, top] = [Math.min(left, x), Math.min(top, y)];
      [right, bottom] = [Math.max(right, x + 1), Math.max(bottom, y + 1)];
      for (const [nx, ny] of [
        [x - 1, y],
        [x + 1, y],
        [x, y - 1],
        [x, y + 1],
      ]) {
        if (nx < 0 || ny < 0 || nx >= across || ny >= down) continue;
        const near = ny * across + nx;
        if (dark[near] === 0 || seen[near] !== 0) continue;
        seen[near] = 1;
        waiting.push(near);
      }
    }
    if (right - left >= 3 && bottom - top >= 2) found.push([left, top, right, bottom]);
  }
  return found;
}

function grown(width: number, height: number, data: Uint8Array, area: Area, most: number): Area {
  let [left, top, right, bottom] = area;
  const mostlyDark = (x0: number, y0: number, x1: number, y1: number) => {
    let [below, seen] = [0, 0];
    for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++, seen++) if (data[y * width + x] < INK_BELOW) below++;
    return seen > 0 && below > 0.6 * seen;
  };
  for (let step = 0; step < most; step++) {
    if (top > 0 && mostlyDark(left, top - 1, right, top)) top--;
    if (bottom < height && mostlyDark(left, bottom, right, bottom + 1)) bottom++;
    if (left > 0 && mostlyDark(left - 1, top, left, bottom)) left--;
    if (right < width && mostlyDark(right, top, right + 1, bottom)) right++;
  }
  return [left, top, right, bottom];
}

/** How much of an area is dark, its ragged edges left out. */
function darkShare(width: number, data: Uint8Array, [left, top, right, bottom]: Area): number {
  const inset = Math.floor(0.15 * Math.min(right - left, bottom - top));
  let [below, seen] = [0, 0];
  for (let y = top + inset; y < bottom - inset; y++)
    for (let x = left + inset; x < right - inset; x++, seen++) if (data[y * width + x] < INK_BELOW) below++;
  return below / Math.max(1, seen);
}

/** The edges of a dark ground run straight, but for so much of the length of both; they go in no further than this share of its height elsewhere. */
const RAGGED = 0.16;
const STRAIGHT = 0.14;
/** A ground that is hardly wider than high is at least so many cells high: a black letter with a hole in it is less. */
const WIDER = 1.3;
const LEAST_HIGH = 8;

/** Whether a dark area has straight edges above and below, aslant perhaps, as a ground has. Bold letters that touch are notched where they meet. */
function isGround(width: number, data: Uint8Array, [left, top, right, bottom]: Area, cell: number): boolean {
  const [wide, high] = [right - left, bottom - top];
  if (wide < WIDER * high && high < LEAST_HIGH * cell) return false;
  const raggedAt = (from: number, step: number) => {
    const depths = Float32Array.from({ length: wide }, (_, x) => {
      let depth = 0;
      while (depth < high && data[(from + depth * step) * width + left + x] >= INK_BELOW) depth++;
      return depth;
    });
    let off = 0;
    for (let x = 0; x < wide; x++) {
      const near = depths.slice(Math.max(0, x - high), Math.min(wide, x + high + 1)).sort();
      if (depths[x] - near[near.length >> 2] > STRAIGHT * high) off++;
    }
    return off / wide;
  };
  return raggedAt(top, 1) + raggedAt(bottom - 1, -1) < RAGGED;
}

/** So much of a dark ground is light print; where there is less, it is a thing that lies there, or a picture. */
const LEAST_PRINT = 0.004;

/** Whether there is something light in a dark area that does not hang together with what is around it. */
function holdsLightPrint(width: number, data: Uint8Array, [left, top, right, bottom]: Area): boolean {
  const [wide, high] = [right - left, bottom - top];
  const isLight = (at: number) => data[(top + Math.floor(at / wide)) * width + left + (at % wide)] >= INK_BELOW;
  const around = new Uint8Array(wide * high);
  const waiting: number[] = [];
  const reach = (at: number) => {
    if (around[at] !== 0 || !isLight(at)) return;
    around[at] = 1;
    waiting.push(at);
  };
  for (let x = 0; x < wide; x++) [x, (high - 1) * wide + x].forEach(reach);
  for (let y = 0; y < high; y++) [y * wide, y * wide + wide - 1].forEach(reach);
  while (waiting.length > 0) {
    const at = waiting.pop()!;
    if (at % wide > 0) reach(at - 1);
    if (at % wide < wide - 1) reach(at + 1);
    if (at >= wide) reach(at - wide);
    if (at < (high - 1) * wide) reach(at + wide);
  }
  let print = 0;
  for (let at = 0; at < around.length; at++) if (around[at] === 0 && isLight(at)) print++;
  return print > LEAST_PRINT * around.length;
}

/** Light on dark becomes dark on white: the ground's own brightness becomes white. */
function turn(width: number, data: Uint8Array, [left, top, right, bottom]: Area): void {
  const counts = new Uint32Array(256);
  let seen = 0;
  for (let y = top; y < bottom; y += 2) for (let x = left; x < right; x += 2, seen++) counts[data[y * width + x]]++;
  const levelAt = (share: number) => {
    let [value, sum] = [0, 0];
    while (value < 255 && sum + counts[value] < share * seen) sum += counts[value++];
    return value;
  };
  const [ground, print] = [levelAt(0.6), Math.max(levelAt(0.985), levelAt(0.6) + 40)];
  for (let y = top; y < bottom; y++) {
    for (let x = left; x < right; x++) {
      const at = y * width + x;
      data[at] = Math.max(0, Math.min(255, Math.round(255 - (255 * (data[at] - ground - 12)) / (print - ground - 12))));
    }
  }
}
