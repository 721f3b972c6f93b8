import { lineThrough } from '../outline/lines';
import { distance, isConvex, Point, Quad } from '../quad';
import { Light, litFolds, placesOfFold } from './brokenSides';
import { crossingNear, Folding, LEAST_HELD, MOST_OFF } from './folding';
import { Pieces } from './folds';
import { COLUMNS, Fit, hitsOn, SeenSide, STEPS, STRAIGHT, Strip } from './sideStrip';

/** Columns and steps in which two folds of a side are sought at first. */
const [COLUMN_STEP, STEP] = [3, 3];
/** Both are then moved by so much, as long as that makes it better. */
const ROUNDS = 6;
/** On so much more of a side that is broken twice there is an edge than when it is straight. */
const LEAST_GAIN = 0.15;
/** How far off its place a fold may be seen where the side turns by one radian, in pixels: of three lines each is short. */
const UNSURE = 9;

interface TwiceFit extends Fit {
  /** Where it is broken, from the beginning: columns and steps. */
  folds: [Break, Break];
}
type Break = [column: number, step: number];

/**
 * Two folds from one side to the opposite one, both broken there, as a letter has that was folded for its envelope.
 * @param quad about where the sheet is
 * @param seen its sides
 * @param light tells where the folds are between places that the sides don't tell apart
 */
export function twiceBroken(quad: Quad, seen: readonly SeenSide[], light: Light): Folding[] {
  return [0, 1].flatMap((first): Folding[] => {
    const own = [first, first + 2].map((side) => seen[side]);
    if (own.every(({ straight }) => straight.held > STRAIGHT)) return [];
    const fits = own.map(({ strip }) => twiceFit(strip));
    const gains = fits.map(({ held }, at) => held - own[at].straight.held);
    if (Math.max(...gains) < LEAST_GAIN || fits.some(({ held }) => held < LEAST_HELD)) return [];
    const [top, bottom] = fits.map((fit, at) => placesOn(own[at].strip, fit));
    // A side that looks straight tells nothing: its folds are as far along it as those of the other.
    const places = [
      gains[0] < LEAST_GAIN ? likeOther(top, bottom) : top,
      gains[1] < LEAST_GAIN ? likeOther(bottom, top) : bottom,
    ];
    const [[a, t1, t2, b], [c, u2, u1, d]] = lit(light, places);
    const sideLine = ({ strip, straight }: SeenSide) =>
      lineThrough(strip.at(0, straight.from), strip.at(COLUMNS, straight.to));
    const [right, left] = [sideLine(seen[first + 1]), sideLine(seen[(first + 3) % 4])];
    const most = MOST_OFF * distance(quad[0], quad[2]);
    const pieces: Pieces = [
      [crossingNear(left, lineThrough(a, t1), a, most), t1, u1, crossingNear(left, lineThrough(d, u1), d, most)],
      [t1, t2, u2, u1],
      [t2, crossingNear(right, lineThrough(t2, b), b, most), crossingNear(right, lineThrough(u2, c), c, most), u2],
    ];
    if (!pieces.every(isConvex)) return [];
    const others = [seen[first + 1], seen[(first + 3) % 4]].map(({ straight }) => straight.held);
    const held = (fits[0].held + fits[1].held + others[0] + others[1]) / 4;
    return [{ pieces, held: Math.min(1, held), isWhole: true }];
  });
}

/** The places of both sides, with folds where the light steps, if it does near them. */
function lit(light: Light, [[a, t1, t2, b], [c, u2, u1, d]]: Point[][]): Point[][] {
  const fold = (top: [Point, Point, Point], bottom: [Point, Point, Point]): [Point, Point] => {
    const near = ([from, own, to]: [Point, Point, Point]) => placesOfFold(from, to, own, UNSURE);
    const [best] = litFolds(light, near(top), near(bottom));
    return best ? [best.top, best.bottom] : [top[1], bottom[1]];
  };
  const [top1, bottom1] = fold([a, t1, t2], [d, u1, u2]);
  const [top2, bottom2] = fold([t1, t2, b], [u1, u2, c]);
  return [
    [a, top1, top2, b],
    [c, bottom2, bottom1, d],
  ];
}

/** The ends of a side and where it is broken, in order. */
const placesOn = (strip: Strip, { from, to, folds: [[c1, s1], [c2, s2]] }: TwiceFit): Point[] => [
  strip.at(0, from),
  strip.at(c1, s1),
  strip.at(c2, s2),
  strip.at(COLUMNS, to),
];

/** The ends of a side with folds as far along it as those of the opposite one, which runs the other way. */
function likeOther([from, , , to]: Point[], other: Point[]): Point[] {
  const whole = distance(other[0], other[3]) || 1;
  const at = (share: number): Point => [from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1])];
  return [from, at(distance(other[3], other[2]) / whole), at(distance(other[3], other[1]) / whole), to];
}

/** The three lines after each other with the most edge along them: by dynamic programming on a grid, then moved as long as that makes it better. */
function twiceFit(strip: Strip): TwiceFit {
  const steps = Array.from({ length: Math.floor((2 * STEPS) / STEP) + 1 }, (_, at) => at * STEP - STEPS);
  const columns: number[] = [];
  for (let column = COLUMN_STEP; column < COLUMNS; column += COLUMN_STEP) columns.push(column);
  const bestEnd = (column: number, step: number, isStart: boolean) =>
    steps.reduce(
      (best, end) => {
        const sum = isStart ? hitsOn(strip, 0, end, column, step) : hitsOn(strip, column, step, COLUMNS, end);
        return sum > best.sum ? { sum, end } : best;
      },
      { sum: -1, end: 0 },
    );
  const starts = columns.map((column) => steps.map((step) => bestEnd(column, step, true)));
  const ends = columns.map((column) => steps.map((step) => bestEnd(column, step, false)));
  let best = { sum: -1, numbers: [0, COLUMN_STEP, 0, COLUMN_STEP + 1, 0, 0] };
  columns.forEach((c1, i) =>
    columns.slice(i + 1).forEach((c2, j) =>
      steps.forEach((s1, k) =>
        steps.forEach((s2, l) => {
          const [start, end] = [starts[i][k], ends[i + 1 + j][l]];
          if (start.sum + end.sum + c2 - c1 <= best.sum) return;
          const sum = start.sum + hitsOn(strip, c1, s1, c2, s2) + end.sum;
          if (sum > best.sum) best = { sum, numbers: [start.end, c1, s1, c2, s2, end.end] };
        }),
      ),
    ),
  );
  for (let round = 0, better = true; round < ROUNDS && better; round++) {
    better = false;
    for (let each = 0; each < 6; each++) {
      for (const by of [-2, -1, 1, 2]) {
        const numbers = best.numbers.with(each, best.numbers[each] + by);
        if (!isOnStrip(numbers)) continue;
        const [from, c1, s1, c2, s2, to] = numbers;
        const sum = hitsOn(strip, 0, from, c1, s1) + hitsOn(strip, c1, s1, c2, s2) + hitsOn(strip, c2, s2, COLUMNS, to);
        if (sum > best.sum) [best, better] = [{ sum, numbers }, true];
      }
    }
  }
  const [from, c1, s1, c2, s2, to] = best.numbers;
  return { held: best.sum / strip.seen, from, to, folds: [[c1, s1], [c2, s2]] }; // prettier-ignore
}

function isOnStrip([from, c1, s1, c2, s2, to]: number[]): boolean {
  return 1 < c1 && c1 < c2 - 1 && c2 < COLUMNS - 1 && [from, s1, s2, to].every((step) => Math.abs(step) <= STEPS);
}
