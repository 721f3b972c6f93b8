import { Ink, inkRuns, transposedInk } from '../../imaging/ink';

/** A ruled line on a page, or the side of a box; edges in pixels, both inclusive. */
export interface Rule {
  direction: 'across' | 'down';
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Gaps that a scan tears into a line, in pixels, and how much of it must be ink. */
const TORN = 3;
const SOLID = 0.85;
/** Rules are longer than so many heights of a small letter, standing ones than so many. */
const [LEAST_ACROSS, LEAST_DOWN] = [4.5, 5];
/** What runs from one ruled line to another is the side of a cell, from so many heights on; ends may be so many pixels short. */
const [LEAST_SIDE, SHORT_OF] = [1.9, 3];
/** And no thicker than this share of that height; over so much of its length nothing crosses a line. */
const MOST_THICKNESS = 0.45;
const FREE = 0.75;
/** A rule shorter than so many heights of a small letter is in one piece over so many at least. */
const [SHORT, LEAST_PIECE] = [14, 2];

/**
 * Takes ruled lines and the sides of boxes out of a page without hurting the strokes that cross them: runs of ink longer than
 * any letter's are followed (Yu & Jain 1996), and of each only the pixels go above and below which the ink is no thicker than
 * the line is.
 * @param ink changed in place
 * @param letter the height of small letters, in pixels
 * @returns the lines, and the pixels that were part of one
 */
export function takeOutRules(ink: Ink, letter: number): { rules: Rule[]; taken: number[] } {
  const taken: number[] = [];
  // Where rules run: bit 1 across, bit 2 down. Where they cross, neither is thin, and both go.
  const courses = new Uint8Array(ink.data.length);
  const thickest = Math.max(3, Math.round(MOST_THICKNESS * letter));
  const rules: Rule[] = [];
  for (const across of [true, false]) {
    const least = Math.max(24, Math.round((across ? LEAST_ACROSS : LEAST_DOWN) * letter));
    const long = across ? longRuns(ink, least, true) : standingRuns(ink, least, Math.ceil(LEAST_SIDE * letter), rules);
    for (const { runs, ...rule } of joined(long, thickest)) {
      const length = rule.to - rule.from + 1;
      const pixels = runs.reduce((sum, run) => sum + run.to - run.from + 1, 0);
      // The mean thickness: a long slanted line covers many rows and is thin all the same.
      if (pixels > thickest * length) continue;
      // The feet of bold figures in a row are no line: each is as short as a figure.
      if (length < SHORT * letter && runs.every(({ unbroken }) => unbroken < LEAST_PIECE * letter)) continue;
      // Where letters of bold print touch, their serifs run on for long, but strokes stand on them.
      if (clear(ink, runs, thickest + 1, across, taken) < FREE * length) continue;
      for (const run of runs) mark(courses, ink.width, run, across, taken);
      const { from, to, first, last } = rule;
      rules.push(
        across
          ? { direction: 'across', left: from, right: to, top: first, bottom: last }
          : { direction: 'down', top: from, bottom: to, left: first, right: last },
      );
    }
  }
  for (const at of taken) ink.data[at] = 0;
  return { rules, taken };
}

/** A run of ink along a row or a column. */
interface Run {
  /** The row's or column's number, and where in it the run begins and ends. */
  line: number;
  from: number;
  to: number;
  /** The longest stretch of it without a gap, in pixels. */
  unbroken: number;
}

/** Runs along all rows, or along all columns, one row or column after the other, across gaps that are torn into them. */
function longRuns(ink: Ink, least: number, across: boolean): Run[] {
  const along = across ? ink : transposedInk(ink);
  const { width } = along;
  const pieces = inkRuns(along);
  const found: Run[] = [];
  for (let piece = 0; piece < pieces.length;) {
    const line = Math.floor(pieces[piece] / width);
    const from = pieces[piece];
    const end = (line + 1) * width;
    let [to, dark, unbroken] = [pieces[piece + 1], 0, 0];
    for (; piece < pieces.length && pieces[piece] < end && pieces[piece] - to <= TORN + 1; piece += 2) {
      to = pieces[piece + 1];
      const length = to - pieces[piece] + 1;
      dark += length;
      if (length > unbroken) unbroken = length;
    }
    const length = to - from + 1;
    if (length >= least && dark >= SOLID * length)
      found.push({ line, from: from - line * width, to: to - line * width, unbroken });
  }
  return found;
}

/** Runs down the page that are long, or those from a ruled line to the next. */
function standingRuns(ink: Ink, long: number, side: number, lying: readonly Rule[]): Run[] {
  const byRow: Rule[][] = [];
  for (const rule of lying)
    for (let y = Math.max(0, rule.top - SHORT_OF); y <= rule.bottom + SHORT_OF; y++) (byRow[y] ??= []).push(rule);
  const touches = (place: number, line: number) =>
    byRow[place]?.find(({ left, right }) => line >= left - SHORT_OF && line <= right + SHORT_OF);
  return longRuns(ink, Math.min(long, side), false).filter(({ line, from, to }) => {
    if (to - from + 1 >= long) return true;
    const [upper, lower] = [touches(from, line), touches(to, line)];
    return upper !== undefined && lower !== undefined && upper !== lower;
  });
}

interface Joined {
  runs: Run[];
  from: number;
  to: number;
  first: number;
  last: number;
}

/** Runs of neighbouring lines that touch, or nearly so, belong to one rule; what grows too thick is none. */
function joined(runs: Run[], thickest: number): Joined[] {
  const done: Joined[] = [];
  let open: Joined[] = [];
  let line = -1;
  for (const run of runs) {
    if (run.line !== line) {
      line = run.line;
      const still: Joined[] = [];
      for (const each of open) (each.last < line - 2 ? done : still).push(each);
      open = still;
    }
    const touched = open.filter(({ runs: theirs }) =>
      // The latest few runs tell: a rule goes on where it ended.
      theirs
        .slice(-4)
        .some(({ from, to, line: other }) => line - other <= 2 && from <= run.to + TORN && to >= run.from - TORN),
    );
    if (touched.length === 0) open.push({ runs: [run], from: run.from, to: run.to, first: line, last: line });
    else {
      const [home, ...others] = touched;
      for (const other of others) {
        home.runs.push(...other.runs);
        extend(home, other.from, other.to, other.first, other.last);
        open.splice(open.indexOf(other), 1);
      }
      home.runs.push(run);
      extend(home, run.from, run.to, line, line);
    }
  }
  // Blocks of ink have far more runs than a rule of any slant.
  return [...done, ...open].filter(({ runs: all, from, to }) => all.length < 40 * thickest + (to - from) / 8);
}

function extend(group: Joined, from: number, to: number, first: number, last: number): void {
  group.from = Math.min(group.from, from);
  group.to = Math.max(group.to, to);
  group.first = Math.min(group.first, first);
  group.last = Math.max(group.last, last);
}

function mark(courses: Uint8Array, width: number, { line, from, to }: Run, across: boolean, taken: number[]): void {
  const [start, step, bit] = across ? [line * width, 1, 1] : [line, width, 2];
  for (let place = from; place <= to; place++) {
    const at = start + place * step;
    courses[at] |= bit;
    if (courses[at] === 3) taken.push(at);
  }
}

/**
 * Marks the pixels of a rule where the ink across it is no thicker than a rule, if that is so over most of its length.
 * @returns over how many pixels of its length it is so
 */
function clear({ width, height, data }: Ink, runs: Run[], thickest: number, across: boolean, taken: number[]): number {
  const aside = across ? width : 1;
  const most = across ? height : width;
  const free: number[] = [];
  const places = new Set<number>();
  for (const run of runs) {
    const [start, step] = across ? [run.line * width, 1] : [run.line, width];
    for (let place = run.from; place <= run.to; place++) {
      const at = start + place * step;
      if (data[at] === 0) {
        places.add(place);
        continue;
      }
      let [before, after] = [0, 0];
      while (run.line - before > 0 && before <= thickest && data[at - (before + 1) * aside] !== 0) before++;
      while (run.line + after + 1 < most && after <= thickest && data[at + (after + 1) * aside] !== 0) after++;
      if (before + after + 1 > thickest) continue;
      places.add(place);
      for (let offset = -before; offset <= after; offset++) free.push(at + offset * aside);
    }
  }
  const length = Math.max(...runs.map(({ to }) => to)) - Math.min(...runs.map(({ from }) => from)) + 1;
  if (places.size >= FREE * length) for (const at of free) taken.push(at);
  return places.size;
}
