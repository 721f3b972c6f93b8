import { distance, isConvex, Point, Quad } from '../quad';
import { leastSquares } from './linear';
import { ACROSS, COLUMNS, SeenSide, STEPS, STRAIGHT, Strip } from './sideStrip';

/** A side of a sheet as it was seen: points along it, in order. */
export type Curve = Point[];

/** The four sides of a sheet that is bent, and where they meet. */
export interface BowedSides {
  /** Clockwise; each side runs from its corner to the next. */
  corners: Quad;
  sides: [Curve, Curve, Curve, Curve];
  /** On how much of them an edge was seen. */
  held: number;
}

/** In how wide steps curves are tried, at first and then. */
const [COARSE, FINE] = [3, 1];
/** On so much of each side there is an edge, and on so much more of a bowed one than when it is straight. */
const LEAST_HELD = 0.6;
const LEAST_GAIN = 0.07;
/** How far the middle of a bowed side is off the straight line, as a share of it. */
const LEAST_BOW = 0.012;
/** Edges so near a curve are of it, in steps of a strip. */
const NEAR = 3;
const POINTS = 33;
/** How far beyond its ends a side is followed to where it meets the next one, as a share of it. */
const BEYOND = 0.2;

/**
 * The sides of a sheet where some of them are bowed: smooth curves with an edge all along, of the third degree.
 * @param seen its sides, clockwise
 * @returns nothing when they are straight, or not seen
 */
export function bowedSides(seen: readonly SeenSide[]): BowedSides | undefined {
  const strips = seen.map(({ strip }) => strip);
  const fits = seen.map(curveOn);
  const isBowed = fits.some(({ held, ifStraight, bow }) => bow > LEAST_BOW && held > ifStraight + LEAST_GAIN);
  if (!isBowed || fits.some(({ held }) => held < LEAST_HELD)) return undefined;
  const sides = fits.map(
    ({ stepAt }, side) =>
      (share: number) =>
        strips[side].at(share * COLUMNS, stepAt(share)),
  );
  const ends = sides.map((side, at) => meeting(sides[(at + 3) % 4], side));
  const corners = ends.map(({ point }) => point) as Quad;
  if (!isConvex(corners)) return undefined;
  return {
    corners,
    sides: sides.map((side, at) => {
      const [from, to] = [ends[at].onNext, ends[(at + 1) % 4].onBefore];
      return Array.from({ length: POINTS }, (_, each) => side(from + ((to - from) * each) / (POINTS - 1)));
    }) as BowedSides['sides'],
    held: fits.reduce((sum, { held }) => sum + held, 0) / 4,
  };
}

/** The same sides in a picture so many times as large. */
export function scaledSides({ corners, sides, held }: BowedSides, by: number): BowedSides {
  const scaled = (curve: Curve) => curve.map(([x, y]): Point => [x * by, y * by]);
  return { corners: scaled(corners) as Quad, sides: sides.map(scaled) as BowedSides['sides'], held };
}

interface CurveFit {
  /** On how much of it there is an edge, and on how much of the straight line with the most. */
  held: number;
  ifStraight: number;
  /** How far off the straight line its middle is, beside its length. */
  bow: number;
  /** How many steps across the strip it is, at a share of its length. */
  stepAt: (share: number) => number;
}

/** The curve through three steps, at the ends and in the middle, with the most edge, fitted to the edges near it. */
function curveOn({ strip, straight }: SeenSide): CurveFit {
  let best = { held: -1, steps: [0, 0, 0] };
  const wide = { ...strip, hits: widened(strip.hits) };
  const tryAround = ([from, middle, to]: number[], reach: number, by: number) => {
    for (let a = Math.max(-STEPS, from - reach); a <= Math.min(STEPS, from + reach); a += by)
      for (let m = Math.max(-STEPS, middle - reach); m <= Math.min(STEPS, middle + reach); m += by)
        for (let b = Math.max(-STEPS, to - reach); b <= Math.min(STEPS, to + reach); b += by) {
          const held = hitsOnCurve(wide, a, m, b) / strip.seen;
          if (held > best.held) best = { held, steps: [a, m, b] };
        }
  };
  const asStraight = [straight.from, (straight.from + straight.to) / 2, straight.to];
  if (straight.held > STRAIGHT) best.steps = asStraight;
  else {
    tryAround([0, 0, 0], STEPS, COARSE);
    tryAround(best.steps, COARSE, FINE);
  }
  const stepAt = finely(strip, through(best.steps));
  const bow = Math.abs(stepAt(0.5) - (stepAt(0) + stepAt(1)) / 2) * (strip.slope / COLUMNS);
  return { held: heldBy(wide, stepAt), ifStraight: heldBy(wide, through(asStraight)), bow, stepAt };
}

/** The same hits, a step further to either side: no curve of the third degree is quite a side's. */
function widened(hits: Uint8Array): Uint8Array {
  return hits.map((hit, at) => {
    const step = at % ACROSS;
    return hit | (step > 0 ? hits[at - 1] : 0) | (step < ACROSS - 1 ? hits[at + 1] : 0);
  });
}

/** The share of the columns seen that a curve hits. */
function heldBy({ hits, seen }: Strip, stepAt: (share: number) => number): number {
  let sum = 0;
  for (let column = 0; column < COLUMNS; column++) {
    const step = Math.round(stepAt((column + 0.5) / COLUMNS)) + STEPS;
    if (step >= 0 && step < ACROSS) sum += hits[column * ACROSS + step];
  }
  return Math.min(1, sum / seen);
}

/** The parabola through steps at the beginning, in the middle and at the end. */
const through =
  ([from, middle, to]: number[]) =>
  (share: number) =>
    from + share * (4 * middle - 3 * from - to) + share * share * (2 * from + 2 * to - 4 * middle);

function hitsOnCurve({ hits }: Strip, from: number, middle: number, to: number): number {
  const [slope, curve] = [4 * middle - 3 * from - to, 2 * from + 2 * to - 4 * middle];
  let sum = 0;
  for (let column = 0; column < COLUMNS; column++) {
    const share = (column + 0.5) / COLUMNS;
    const step = (from + share * (slope + share * curve) + STEPS + 0.5) | 0;
    if (step >= 0 && step < ACROSS) sum += hits[column * ACROSS + step];
  }
  return sum;
}

/** A curve of the third degree through the edges near another one: least squares, those far off weighing less. */
function finely({ hits }: Strip, rough: (share: number) => number): (share: number) => number {
  const found: { share: number; step: number }[] = [];
  for (let column = 0; column < COLUMNS; column++) {
    const share = (column + 0.5) / COLUMNS;
    const own: number[] = [];
    for (let step = Math.ceil(rough(share) - NEAR); step <= rough(share) + NEAR; step++)
      if (step >= -STEPS && step <= STEPS && hits[column * ACROSS + step + STEPS]) own.push(step);
    // An edge is some steps wide: its middle.
    if (own.length > 0) found.push({ share, step: own.reduce((sum, each) => sum + each, 0) / own.length });
  }
  if (found.length < COLUMNS / 2) return rough;
  let curve = rough;
  for (let round = 0; round < 3; round++) {
    const [a, b, c, d] = leastSquares(
      found.map(({ share }) => [1, share, share ** 2, share ** 3]),
      found.map(({ step }) => step),
      found.map(({ share, step }) => (round === 0 ? 1 : 1 / (1 + (step - curve(share)) ** 2))),
    );
    curve = (share) => a + share * (b + share * (c + share * d));
  }
  return curve;
}

/** Where one side ends and the next begins: their crossing, or where they come nearest. */
function meeting(before: (share: number) => Point, next: (share: number) => Point) {
  let best = { apart: Infinity, onBefore: 1, onNext: 0 };
  const tryAround = (onBefore: number, onNext: number, reach: number) => {
    for (let i = -12; i <= 12; i++)
      for (let j = -12; j <= 12; j++) {
        const [a, b] = [onBefore + (i * reach) / 12, onNext + (j * reach) / 12];
        const apart = distance(before(a), next(b));
        if (apart < best.apart) best = { apart, onBefore: a, onNext: b };
      }
  };
  for (let reach = BEYOND; reach > 0.0005; reach /= 8) tryAround(best.onBefore, best.onNext, reach);
  return { point: next(best.onNext), onBefore: best.onBefore, onNext: best.onNext };
}
