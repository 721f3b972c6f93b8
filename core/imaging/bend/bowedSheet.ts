import { distance, isSheet, Point, Quad } from '../quad';
import { bendOver, isBend } from './bend';
import { BowedSides, Curve } from './bowedSides';
import { BentSheet } from './findBend';
import { minimise } from './linear';
import { aspectOf, Fold, FOCAL, OFF_FOCAL, seenBy, SHAPE, startOf } from './sheetModel';

/** A sheet that is bent along parallel lines, and how far its sides are off where they were seen, on average, as a share of the picture's longer side. */
export interface BowedSheet extends BentSheet {
  off: number;
}

/** A bend is made of so many small folds. */
const FOLDS = 14;
/** Places in the numbers that are sought: how far the sheet turns in all, how this changes across it, and how aslant its folds run. */
const [TURNS, SLANT, SIZE] = [SHAPE, SHAPE + 3, SHAPE + 4];
const STARTS = [-0.7, 0.7].flatMap((turn) => [-0.3, 0, 0.3].map((slant) => [turn, slant]));
const ROUNDS = 40;
/** How far sides and corners are usually off (shares of the longer side), and at most on average. */
const OFF = 0.001;
const CORNER_OFF = 0.003;
const MOST_OFF = 0.005;
/** How much sheets usually turn, in radians, and how aslant. */
const USUAL_TURN = 1.5;
const USUAL_SLANT = 0.5;
const SAMPLES = 9;

/**
 * The sheet whose sides are seen as curves: one that is bent along parallel lines, as many small folds, before a camera; how it lies and how much it bends where
 * is sought together, so that its sides are seen where they were found (Levenberg and Marquardt's method). No print is needed for that.
 * @param bowed the sides found, in pixels
 * @param size of the picture
 * @returns nothing when no such sheet explains them
 */
export function bowedSheet(
  bowed: BowedSides,
  [width, height]: [width: number, height: number],
): BowedSheet | undefined {
  const { corners, sides } = mostBowedFirst(bowed);
  const long = Math.max(width, height);
  const start = startOf(corners, [width, height]);
  if (!start) return undefined;
  const model = (numbers: Float64Array) => {
    const aspect = aspectOf(numbers, start);
    return { aspect, seen: seenBy(numbers, foldsOf(numbers, aspect), start) };
  };
  const residuals = (numbers: Float64Array) => {
    const { aspect, seen } = model(numbers);
    const out: number[] = [];
    sides.forEach((curve, side) => {
      const at = (share: number) => {
        const [u, v] = pointOn(side, share);
        return seen([u * aspect, v]);
      };
      const corner = at(0);
      for (const axis of [0, 1]) out.push((corner[axis] - corners[side][axis]) / (CORNER_OFF * long));
      for (let sample = 0; sample < SAMPLES; sample++)
        out.push(offCurve(curve, at((sample + 0.5) / SAMPLES)) / (OFF * long));
    });
    return Float64Array.from([
      ...out,
      numbers[FOCAL] / OFF_FOCAL,
      ...numbers.subarray(TURNS, TURNS + 3).map((each) => each / USUAL_TURN),
      numbers[SLANT] / USUAL_SLANT,
    ]);
  };
  const cost = (numbers: Float64Array) => residuals(numbers).reduce((sum, each) => sum + each * each, 0);
  const best = STARTS.map(([turn, slant]) => {
    const numbers = new Float64Array(SIZE);
    [numbers[TURNS], numbers[SLANT]] = [turn, slant];
    return minimise(residuals, numbers, ROUNDS);
  }).reduce((one, other) => (cost(other) < cost(one) ? other : one));
  const { aspect, seen } = model(best);
  const inPicture = ([u, v]: Point): Point => seen([u * aspect, v]);
  const offs = sides.flatMap((side, at) =>
    Array.from({ length: SAMPLES }, (_, sample) => offCurve(side, inPicture(pointOn(at, (sample + 0.5) / SAMPLES)))),
  );
  const off = Math.sqrt(offs.reduce((sum, each) => sum + each * each, 0) / offs.length) / long;
  if (!(off < MOST_OFF)) return undefined;
  const quad = ([[0, 0], [1, 0], [1, 1], [0, 1]] as Quad).map(inPicture) as Quad; // prettier-ignore
  if (!isSheet(quad)) return undefined;
  const bend = bendOver(quad, inPicture);
  return isBend(bend) ? { corners: quad, aspect, off, bend } : undefined;
}

/** A point on a side of the square, clockwise from the upper left. */
const pointOn = (side: number, share: number): Point =>
  [[share, 0], [1, share], [1 - share, 1], [0, 1 - share]][side] as Point; // prettier-ignore

/** The folds of a sheet as wide as its aspect: side by side, as many as cover it though they run aslant. */
function foldsOf(numbers: Float64Array, aspect: number): Fold[] {
  const [whole, skew, bulge] = numbers.subarray(TURNS, TURNS + 3);
  const slant = numbers[SLANT];
  const [from, to] = [Math.min(0, -slant), Math.max(aspect, aspect - slant)];
  return Array.from({ length: FOLDS }, (_, at): Fold => {
    const share = (2 * (at + 0.5)) / FOLDS - 1;
    const top = from + ((at + 0.5) / FOLDS) * (to - from);
    return [top, top + slant, (whole + skew * share + bulge * (share * share - 1 / 3)) / FOLDS];
  });
}

/** How far a point is off a curve, to its right as one goes along it; beyond its ends it goes straight on. */
function offCurve(curve: Curve, [x, y]: Point): number {
  let [best, off] = [Infinity, 0];
  for (let at = 1; at < curve.length; at++) {
    const [[ax, ay], [bx, by]] = [curve[at - 1], curve[at]];
    const [dx, dy] = [bx - ax, by - ay];
    const length = Math.hypot(dx, dy) || 1;
    const share = ((x - ax) * dx + (y - ay) * dy) / (length * length);
    const held = Math.max(at === 1 ? -Infinity : 0, Math.min(at === curve.length - 1 ? Infinity : 1, share));
    const apart = Math.hypot(x - ax - held * dx, y - ay - held * dy);
    if (apart >= best) continue;
    best = apart;
    off = (dx * (y - ay) - dy * (x - ax)) / length;
  }
  return off;
}

/** The sheet turned so that its most bowed sides are the first and the third. */
function mostBowedFirst({ corners, sides }: BowedSides): Pick<BowedSides, 'corners' | 'sides'> {
  const bow = (side: Curve) => {
    const [first, middle, last] = [side[0], side[side.length >> 1], side[side.length - 1]];
    return distance(middle, [(first[0] + last[0]) / 2, (first[1] + last[1]) / 2]) / (distance(first, last) || 1);
  };
  const [a, b, c, d] = sides.map(bow);
  if (a + c >= b + d) return { corners, sides };
  const turned = <Each>(list: Each[]) => list.map((_, at) => list[(at + 1) % 4]);
  return { corners: turned(corners) as Quad, sides: turned(sides) as BowedSides['sides'] };
}
