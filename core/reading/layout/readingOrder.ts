import { Segment } from './segments';

/** A line of prose has so many letters. */
const PROSE = 18;
/** So many lines of prose at least stand on either side of the gap between two columns. */
const LEAST_LINES = 4;
/** Lines of two columns stand beside each other when the one is no further below the other than so many heights of its letters. */
const BESIDE = 1.6;
/** Pieces of so few letters tell nothing of columns: dirt, initials, the signs of a list. */
const CRUMB = 3;
/** Of the rows beside a gap, no more may consist of cells: columns of a table are read across. */
const MOST_CELLS = 0.3;

/**
 * Segments by rows from the top, each from the left; columns of prose one after the other. Columns are told by the gaps between
 * lines of prose that stand beside each other and that nothing crosses (as in Breuel 2003, "High performance document layout analysis"),
 * from the top of the page, and each side is looked at again: there may be more than two.
 * @returns the segments, and for each the number of its row, from 0
 */
export function inReadingOrder(segments: readonly Segment[]): { segments: Segment[]; rows: number[] } {
  const slopes = segments.map(({ slope }) => slope).sort((a, b) => a - b);
  const rows = arranged(segments, slopes[slopes.length >> 1] ?? 0);
  return { segments: rows.flat(), rows: rows.flatMap((row, at) => row.map(() => at)) };
}

/** How far down a page a segment stands at the page's left edge. */
const levelOf = ({ left, upper, lower }: Segment, slope: number) => (upper + lower) / 2 - slope * left;

function arranged(segments: readonly Segment[], slope: number): Segment[][] {
  const gap = firstGap(segments, slope);
  if (!gap) return rowsOf(segments, slope);
  const level = (segment: Segment) => levelOf(segment, slope);
  const inside = segments.filter((segment) => level(segment) >= gap.top && level(segment) <= gap.bottom);
  const middle = (gap.left + gap.right) / 2;
  const isLeft = ({ left, right }: Segment) => (left + right) / 2 < middle;
  return [
    ...rowsOf(
      segments.filter((segment) => level(segment) < gap.top),
      slope,
    ),
    ...arranged(inside.filter(isLeft), slope),
    ...arranged(
      inside.filter((segment) => !isLeft(segment)),
      slope,
    ),
    ...arranged(
      segments.filter((segment) => level(segment) > gap.bottom),
      slope,
    ),
  ];
}

/** A gap between two columns: edges in pixels, above and below as levels of the lines that stand beside it. */
interface Gap {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** The uppermost gap between columns of prose, if there is one. */
function firstGap(segments: readonly Segment[], slope: number): Gap | undefined {
  const level = (segment: Segment) => levelOf(segment, slope);
  const prose = segments.filter(({ members }) => members.length >= PROSE);
  const pairs: [left: Segment, right: Segment][] = [];
  for (const one of prose) {
    const beside = prose.filter(
      (other) => other.left > one.right && Math.abs(level(other) - level(one)) <= BESIDE * one.letter,
    );
    const nearest = Math.min(...beside.map(({ left }) => left));
    pairs.push(...beside.filter(({ left }) => left === nearest).map((other): [Segment, Segment] => [one, other]));
  }
  pairs.sort(([one], [other]) => level(one) - level(other));
  for (let from = 0; from < pairs.length; from++) {
    const found = grown(pairs.slice(from), segments, level);
    if (found) return found;
  }
  return undefined;
}

/** The gap that begins with the first of some pairs of lines beside each other and goes on down as far as nothing crosses it. */
function grown(
  [first, ...others]: readonly [Segment, Segment][],
  segments: readonly Segment[],
  level: (segment: Segment) => number,
): Gap | undefined {
  let [left, right] = [first[0].right, first[1].left];
  const lines = new Set(first);
  for (const [one, other] of others) {
    const [end, start] = [Math.max(left, one.right), Math.min(right, other.left)];
    if (end >= start) continue;
    [left, right] = [end, start];
    lines.add(one).add(other);
  }
  const top = Math.min(...first.map(level));
  const below = segments.filter((segment) => level(segment) >= top).sort((a, b) => level(a) - level(b));
  const crossing = below.find(
    (segment) => segment.members.length > CRUMB && segment.left < right && segment.right > left,
  );
  const inside = crossing ? below.slice(0, below.indexOf(crossing)) : below;
  const sides = [true, false].map((isLeft) => inside.filter((segment) => segment.right <= left === isLeft));
  const isColumn = (side: readonly Segment[]) =>
    side.filter((segment) => lines.has(segment)).length >= LEAST_LINES && !isTable(side, level);
  if (!sides.every(isColumn)) return undefined;
  const ends = sides.map((side) => Math.max(...side.map(level)));
  return { left, right, top, bottom: Math.max(...ends) };
}

/** Whether many of the rows on one side of a gap consist of several cells, not all of which are prose. */
function isTable(side: readonly Segment[], level: (segment: Segment) => number): boolean {
  const words = side.filter(({ members }) => members.length > CRUMB).sort((a, b) => level(a) - level(b));
  const inCells = new Set<Segment>();
  words.forEach((one, at) => {
    for (let next = at + 1; next < words.length && level(words[next]) - level(one) <= one.letter / 2; next++) {
      const other = words[next];
      if (Math.min(one.members.length, other.members.length) < PROSE) inCells.add(one).add(other);
    }
  });
  return inCells.size > MOST_CELLS * words.length;
}

/** Segments in rows from the top, each from the left. */
function rowsOf(segments: readonly Segment[], slope: number): Segment[][] {
  const level = (segment: Segment) => levelOf(segment, slope);
  const rows: Segment[][] = [];
  for (const segment of segments.toSorted((a, b) => level(a) - level(b))) {
    const home = rows.findLast(
      (row) => row.some((other) => sharesRow(other, segment, slope)) && !row.some((other) => isOver(other, segment)),
    );
    if (home && rows.indexOf(home) >= rows.length - 4) home.push(segment);
    else rows.push([segment]);
  }
  rows.sort((a, b) => level(a[0]) - level(b[0]));
  for (const row of rows) row.sort((a, b) => a.left - b.left);
  return rows;
}

/** Segments of which more than this share of the narrower one is above the other stand in two rows, however near. */
const MOST_OVER = 0.3;

function isOver(one: Segment, other: Segment): boolean {
  const over = Math.min(one.right, other.right) - Math.max(one.left, other.left);
  return over > MOST_OVER * Math.min(one.right - one.left, other.right - other.left);
}

/** Whether two segments stand in one row: most of the lower one's height is beside the other. */
function sharesRow(one: Segment, other: Segment, slope: number): boolean {
  const fall = slope * (other.left - one.left);
  const shared = Math.min(one.lower + fall, other.lower) - Math.max(one.upper + fall, other.upper);
  return shared > 0.5 * Math.min(one.lower - one.upper, other.lower - other.upper);
}
