import { inkPieces, letterHeight } from '../../imaging/components';
import { bytesOf, Raster } from '../../imaging/raster';
import { takeOutDots } from './dottedLines';
import { evenPage } from './evenPage';
import { Rule, takeOutRules } from './ruledLines';
import { findSegments, PageSegments, Segment } from './segments';

/** A page laid out for reading: white paper without ruled lines, and the segments of text on it, in rows. */
export interface PageLayout {
  page: Raster;
  /** In reading order. */
  segments: Segment[];
  /** For each segment the number of the row that it stands in, from 0. */
  rows: number[];
  pieces: Pick<PageSegments, 'components' | 'labels' | 'letter'>;
  rules: Rule[];
}

/** Finds the text on a page that is upright and level, or nearly so. The picture stays as it is. */
export function layOut(picture: Raster): PageLayout {
  const { page, ink } = evenPage(picture);
  const pieces = inkPieces(ink);
  const letter = letterHeight(pieces) || USUAL_LETTER;
  const dots = takeOutDots(ink, pieces, letter);
  const { rules, taken } = takeOutRules(ink, letter);
  const data = bytesOf(page);
  for (const some of [dots, taken]) for (const at of some) data[at] = 255;
  const found = findSegments(ink, rules);
  const { segments, rows } = inReadingOrder(found.segments);
  return { page, segments, rows, pieces: found, rules };
}

const USUAL_LETTER = 16;
/** Two columns of prose stand beside each other for so many rows at least, each segment with so many letters. */
const LEAST_COLUMN_ROWS = 4;
const PROSE = 18;

/** Segments by rows from the top, each from the left; columns of prose one after the other. */
function inReadingOrder(segments: Segment[]): { segments: Segment[]; rows: number[] } {
  const slopes = segments.map(({ slope }) => slope).sort((a, b) => a - b);
  const slope = slopes[slopes.length >> 1] ?? 0;
  const middle = ({ left, upper, lower }: Segment) => (upper + lower) / 2 - slope * left;
  const rows: Segment[][] = [];
  for (const segment of segments.toSorted((a, b) => middle(a) - middle(b))) {
    const home = rows.findLast(
      (row) => row.some((other) => sharesRow(other, segment, slope)) && !row.some((other) => isOver(other, segment)),
    );
    if (home && rows.indexOf(home) >= rows.length - 4) home.push(segment);
    else rows.push([segment]);
  }
  rows.sort((a, b) => middle(a[0]) - middle(b[0]));
  for (const row of rows) row.sort((a, b) => a.left - b.left);
  const ordered = columnsApart(rows);
  return {
    segments: ordered.flat(),
    rows: ordered.flatMap((row, at) => row.map(() => at)),
  };
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

/** Rows in which two columns of prose stand beside each other become the rows of the one, then those of the other. */
function columnsApart(rows: Segment[][]): Segment[][] {
  const out: Segment[][] = [];
  for (let at = 0; at < rows.length;) {
    const block: Segment[][] = [];
    let [leftEnd, rightStart] = [0, Infinity];
    for (const row of rows.slice(at)) {
      const [one, two] = row;
      const halves = row.length === 2 && one.members.length >= PROSE && two.members.length >= PROSE;
      // The last line of a column may be short, and may stand alone.
      const rest =
        block.length >= LEAST_COLUMN_ROWS &&
        row.length <= 2 &&
        row.every(({ left, right }) => right < rightStart || left > leftEnd);
      if (!halves && !rest) break;
      const [end, start] =
        row.length === 2 ? [one.right, two.left] : one.right < rightStart ? [one.right, Infinity] : [0, one.left];
      if (Math.max(leftEnd, end) >= Math.min(rightStart, start)) break;
      [leftEnd, rightStart] = [Math.max(leftEnd, end), Math.min(rightStart, start)];
      block.push(row);
    }
    if (block.length >= LEAST_COLUMN_ROWS) {
      for (const isLeft of [true, false])
        for (const row of block) {
          const half = row.filter(({ left }) => left < rightStart === isLeft);
          if (half.length > 0) out.push(half);
        }
      at += block.length;
    } else out.push(rows[at++]);
  }
  return out;
}
