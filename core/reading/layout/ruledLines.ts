import { Ink } from '../../imaging/ink';

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
/** And no thicker than this share of that height; over so much of its length nothing crosses a line. */
const MOST_THICKNESS = 0.45;
const FREE = 0.75;

/**
 * Takes ruled lines and the sides of boxes out of a page without hurting the strokes that cross them: runs of ink longer than
 * any letter's are followed (Yu & Jain 1996), and of each only the pixels go above and below which the ink is no thicker than
 * the line is.
 * @param ink changed in place
 * @param letter the height of small letters, in pixels
 * @returns the lines, and for each pixel whether it was part of one (1)
 */
export function takeOutRules(ink: Ink, letter: number): { rules: Rule[]; taken: Uint8Array } {
  const taken = new Uint8Array(ink.data.length);
  // Where rules run: bit 1 across, bit 2 down. Where they cross, neither is thin, and both go.
  const courses = new Uint8Array(ink.data.length);
  const thickest = Math.max(3, Math.round(MOST_THICKNESS * letter));
  const rules: Rule[] = [];
  for (const across of [true, false]) {
    const least = Math.max(24, Math.round((across ? LEAST_ACROSS : LEAST_DOWN) * letter));
    for (const { runs, ...rule } of joined(longRuns(ink, least, across), thickest)) {
      const length = rule.to - rule.from + 1;
      const pixels = runs.reduce((sum, run) => sum + run.to - run.from + 1, 0);
      // The mean thickness: a long slanted line covers many rows and is thin all the same.
      if (pixels > thickest * length) continue;
      // Where letters of bold print touch, their serifs run on for long, but strokes stand on them.
      if (clear(ink, runs, thickest + 1, across, taken) < FREE * length) continue;
      for (const run of runs) mark(courses, ink.width, run, across);
      const { from, to, first, last } = rule;
      rules.push(
        across
          ? { direction: 'across', left: from, right: to, top: first, bottom: last }
          : { direction: 'down', top: from, bottom: to, left: first, right: last },
      );
    }
  }
  for (let at = 0; at < taken.length; at++) {
    if (courses[at] === 3) taken[at] = 1;
    if (taken[at] !== 0) ink.data[at] = 0;
  }
  return { rules, taken };
}

/** A run of ink along a row or a column. */
interface Run {
  /** The row's or column's number, and where in it the run begins and ends. */
  line: number;
  from: number;
  to: number;
}

function longRuns({ width, height, data }: Ink, least: number, across: boolean): Run[] {
  const runs: Run[] = [];
  const [lines, length] = across ? [height, width] : [width, height];
  const [perLine, step] = across ? [width, 1] : [1, width];
  for (let line = 0; line < lines; line++) {
    let [from, last, dark] = [-1, -1, 0];
    for (let place = 0, at = line * perLine; place < length; place++, at += step) {
      if (data[at] === 0) continue;
      if (from < 0 || place - last > TORN + 1) {
        if (last - from + 1 >= least && from >= 0 && dark >= SOLID * (last - from + 1))
          runs.push({ line, from, to: last });
        from = place;
        dark = 0;
      }
      last = place;
      dark++;
    }
    if (from >= 0 && last - from + 1 >= least && dark >= SOLID * (last - from + 1)) runs.push({ line, from, to: last });
  }
  return runs;
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

function mark(courses: Uint8Array, width: number, { line, from, to }: Run, across: boolean): void {
  const [start, step, bit] = across ? [line * width, 1, 1] : [line, width, 2];
  for (let place = from; place <= to; place++) courses[start + place * step] |= bit;
}

/**
 * Marks the pixels of a rule where the ink across it is no thicker than a rule, if that is so over most of its length.
 * @returns over how many pixels of its length it is so
 */
function clear(
  { width, height, data }: Ink,
  runs: Run[],
  thickest: number,
  across: boolean,
  taken: Uint8Array,
): number {
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
  if (places.size >= FREE * length) for (const at of free) taken[at] = 1;
  return places.size;
}
