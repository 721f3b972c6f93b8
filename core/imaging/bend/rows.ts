import { Component, connectedComponents, inkPieces, letterHeight } from '../components';
import { Ink } from '../ink';
import { Point } from '../quad';
import { leastSquares } from './linear';

/** A row of print, or a part of one: where its letters stand, from the left. */
export interface Row {
  /** Feet of its letters, in pixels. */
  feet: Point[];
  /** The height that its small letters have, in pixels. */
  height: number;
  /** Whether it is a printed rule. */
  isRule?: boolean;
}

/** Sizes of letters and distances between them, in heights of small letters. */
const LETTER = { least: 0.45, most: 2.6, widest: 6 };
const NEXT = { before: -0.3, after: 2.2, lower: 0.75 };
const LEAST_LETTERS = 7;
const LEAST_LENGTH = 6;
/** A foot further from the curve of its row than this is none: a letter that hangs below the line, a comma. */
const OFF_LINE = 0.16;
const LEAST_KEPT = 0.5;

/**
 * Rows of print that need not be straight: letters are linked to what stands next to them on the right when both are nearest to
 * each other (as in the docstrum, O'Gorman 1993), whichever way the row goes on; letters that hang below the line are left out.
 * @param ink letters that stand more or less upright
 */
export function textRows(ink: Ink): Row[] {
  const pieces = inkPieces(ink);
  const height = letterHeight(pieces);
  if (height === 0) return [];
  const letters = pieces.filter(({ left, right, top, bottom }) => {
    const [w, h] = [right - left + 1, bottom - top + 1];
    return h >= LETTER.least * height && h <= LETTER.most * height && w <= LETTER.widest * height;
  });
  const rows: Row[] = [];
  for (const chain of chainsOf(letters, height)) {
    const row = rowOf(chain, height);
    if (row) rows.push(row);
  }
  return rows;
}

/** How long a printed rule is at least, how thick it and its slope are at most, in heights of small letters, and on how much of its length. */
const RULE = { least: 12, thickest: 0.5, steepest: 0.5, clear: 0.85 };
/** A rule so many pixels thick is none too thick, however small letters are. */
const THIN = 3;

/**
 * Printed rules, as rows of print: they are straight and level on a sheet, and go on where there are no letters, over folds, too.
 * @param ink of a page that stands more or less upright, rules and letters
 */
export function printedRules(ink: Ink): Row[] {
  const { components, labels } = connectedComponents(ink);
  const height = letterHeight(components);
  if (height === 0) return [];
  const thickest = Math.max(THIN, RULE.thickest * height);
  const rules: Row[] = [];
  components.forEach(({ left, right, top, bottom, pixels }, index) => {
    const length = right - left + 1;
    if (length < RULE.least * height || bottom - top > RULE.steepest * length || pixels > thickest * length) return;
    const feet: Point[] = [];
    let clear = 0;
    for (let x = left; x <= right; x++) {
      const [first, last] = reachIn(labels, ink.width, index + 1, x, [top, bottom]);
      if (last - first >= thickest) continue;
      clear++;
      if ((x - left) % Math.ceil(height) === 0) feet.push([x, (first + last) / 2]);
    }
    if (clear >= RULE.clear * length) rules.push({ feet, height, isRule: true });
  });
  return rules;
}

/** The first and the last pixel of a piece of ink in a column. */
function reachIn(
  labels: Int32Array,
  width: number,
  piece: number,
  x: number,
  [top, bottom]: [number, number],
): [number, number] {
  let [first, last] = [top, bottom];
  while (first < bottom && labels[first * width + x] !== piece) first++;
  while (last > first && labels[last * width + x] !== piece) last--;
  return [first, last];
}

function chainsOf(letters: Component[], height: number): Component[][] {
  const side = 3 * height;
  const cells = new Map<number, number[]>();
  const cellOf = (x: number, y: number) => Math.floor(y / side) * 65_536 + Math.floor(x / side);
  letters.forEach((letter, index) => {
    const key = cellOf(letter.left, letter.bottom);
    const cell = cells.get(key);
    if (cell) cell.push(index);
    else cells.set(key, [index]);
  });
  const next = new Int32Array(letters.length).fill(-1);
  const costs = new Float64Array(letters.length).fill(Infinity);
  const before = new Int32Array(letters.length).fill(-1);
  const costsBefore = new Float64Array(letters.length).fill(Infinity);
  letters.forEach((letter, index) => {
    for (let cy = -1; cy <= 1; cy++) {
      for (let cx = -1; cx <= 1; cx++) {
        for (const other of cells.get(cellOf(letter.right + cx * side, letter.bottom + cy * side)) ?? []) {
          if (other === index) continue;
          const beside = letters[other];
          const gap = (beside.left - letter.right) / height;
          if (gap < NEXT.before || gap > NEXT.after || beside.left <= letter.left) continue;
          const common = Math.min(letter.bottom, beside.bottom) - Math.max(letter.top, beside.top);
          const lower = Math.abs(beside.bottom - letter.bottom) / height;
          if (common < 0 || lower > NEXT.lower + Math.max(0, gap) * 0.4) continue;
          const cost = Math.max(0, gap) + 1.5 * lower;
          if (cost < costs[index]) [costs[index], next[index]] = [cost, other];
          if (cost < costsBefore[other]) [costsBefore[other], before[other]] = [cost, index];
        }
      }
    }
  });
  const chains: Component[][] = [];
  letters.forEach((_, index) => {
    if (before[index] >= 0 && next[before[index]] === index) return;
    const chain: Component[] = [];
    for (let at = index; ; at = next[at]) {
      chain.push(letters[at]);
      if (next[at] < 0 || before[next[at]] !== at) break;
    }
    chains.push(chain);
  });
  return chains;
}

function rowOf(chain: Component[], height: number): Row | undefined {
  const length = chain[chain.length - 1].right - chain[0].left;
  if (chain.length < LEAST_LETTERS || length < LEAST_LENGTH * height) return undefined;
  const feet = chain.map(({ left, right, bottom }): Point => [(left + right) / 2, bottom]);
  const line = curveOf(feet, 0.1 * height);
  const kept = feet.filter((point) => Math.abs(point[1] - line(point[0])) <= Math.max(0.8, OFF_LINE * height));
  return kept.length >= Math.max(LEAST_LETTERS - 2, LEAST_KEPT * chain.length) ? { feet: kept, height } : undefined;
}

/** The curve (of the second degree, of the third for long rows) on which most feet stand: least squares, those far off weighing ever less. */
function curveOf(feet: Point[], scale: number): (x: number) => number {
  const [first, last] = [feet[0][0], feet[feet.length - 1][0]];
  const degree = feet.length >= 24 ? 3 : feet.length >= 10 ? 2 : 1;
  const normal = (x: number) => (2 * (x - first)) / Math.max(1, last - first) - 1;
  let weights = feet.map(() => 1);
  let shares: number[] = [];
  const line = (x: number) => shares.reduceRight((sum, share) => sum * normal(x) + share, 0);
  for (let round = 0; round < 8; round++) {
    shares = leastSquares(
      feet.map(([x]) => Array.from({ length: degree + 1 }, (_, power) => normal(x) ** power)),
      feet.map(([, y]) => y),
      weights,
    );
    const width = scale * (8 - round);
    // Commas and tails hang below the line more often than anything stands above it.
    weights = feet.map(([x, y]) => 1 / (1 + ((y - line(x)) / width) ** 2) ** 2);
  }
  return line;
}

/** From so much on, in heights of letters, rows sag or run apart more than those of a flat sheet do. */
const SAGGING = 0.07;
const APART = 0.06;

/**
 * Whether rows may be on a sheet that isn't flat: whether they sag, or their slopes differ from row to row otherwise than by the view.
 * Quickly told, also where letters are few pixels high: many feet make up for how coarsely each is seen.
 */
export function mayBeBent(rows: Row[]): boolean {
  const { sagging, apart } = unevenness(rows);
  return sagging > SAGGING || apart > APART;
}

/** How much rows sag, and how far their ends are off where they would be if their slopes changed evenly over the page: in heights of their letters, on average. */
function unevenness(rows: Row[]): { sagging: number; apart: number } {
  const shapes = rows.map(shapeOf);
  const letters = shapes.reduce((sum, each) => sum + each.letters, 0) || 1;
  if (rows.length === 0) return { sagging: 0, apart: 0 };
  // Seen aslant, the slopes of a flat sheet's rows change evenly across it and down.
  const [slope, across, down] = leastSquares(
    shapes.map(({ x, y }) => [1, x / EVENLY, y / EVENLY]),
    shapes.map((each) => each.slope),
    shapes.map((each) => each.letters * each.half),
  );
  let [sagging, apart] = [0, 0];
  for (const each of shapes) {
    const expected = slope + (across * each.x) / EVENLY + (down * each.y) / EVENLY;
    sagging += (each.letters * each.sag) / letters;
    apart += (each.letters * Math.abs(each.slope - expected) * each.half) / each.height / letters;
  }
  return { sagging, apart };
}

/** Print may stand askew on its sheet by so much (radians). */
const ASKEW = 0.01;

/** How far rows are off straight and level ones on a page whose sides are level: in heights of their letters, on average. @param most by how much they may all be askew (radians) */
export function offLevel(rows: Row[], most = ASKEW): number {
  const shapes = rows.map(shapeOf);
  const sum = (of: (each: RowShape) => number) => shapes.reduce((total, each) => total + each.letters * of(each), 0);
  const long = sum(({ half }) => half) || 1;
  const mean = sum(({ slope, half }) => slope * half) / long;
  const askew = Math.max(-most, Math.min(most, mean));
  return sum(({ sag, slope, half, height }) => sag + (Math.abs(slope - askew) * half) / height) / (sum(() => 1) || 1);
}

/** Where the middle of a row is, half its length, how it rises and sags (in heights of its letters), and how many it has. */
interface RowShape {
  x: number;
  y: number;
  half: number;
  slope: number;
  sag: number;
  height: number;
  letters: number;
}

function shapeOf({ feet, height }: Row): RowShape {
  const [first, last] = [feet[0][0], feet[feet.length - 1][0]];
  const [x, half] = [(first + last) / 2, Math.max(1, (last - first) / 2)];
  const [y, rise, sag] = leastSquares(
    feet.map(([at]) => [1, (at - x) / half, ((at - x) / half) ** 2]),
    feet.map(([, at]) => at),
    feet.map(() => 1),
  );
  return { x, y, half, slope: rise / half, sag: Math.abs(sag) / height, height, letters: feet.length };
}

/** Places are counted in so many pixels, so that sums stay of one size. */
const EVENLY = 1000;
