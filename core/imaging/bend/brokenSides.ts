import { Line, lineThrough } from '../outline/lines';
import { distance, isConvex, Point, Quad } from '../quad';
import { Raster } from '../raster';
import { crossingNear, Folding, LEAST_HELD, MOST_OFF, SAME_FOLD, unlike } from './folding';
import { between, Pieces, turnAt } from './folds';
import { COLUMNS, Fit, hitsOn, SeenSide, STEPS, STRAIGHT, Strip } from './sideStrip';

/** How steeply a piece of a side may run off it. */
const MOST_STEEP = 0.6;
/** A fold is no nearer to an end of a side, in columns. */
const LEAST_PIECE = 4;
/** On so much more of a broken side there is an edge than when it is straight. */
const LEAST_GAIN = 0.07;
/** How far at least the fold is off the straight side, as a share of the side. */
const LEAST_BROKEN = 0.008;
/** Where no side tells of it the fold is tried in so many places along it. */
const PLACES = 60;
/** How far off its place a fold may be seen where the side turns by one radian, in pixels: further, the less it turns. */
const UNSURE = 3;
/** How far beside the fold the light is compared (share of the picture), at how many places, and by how many levels it differs at the least. */
const BESIDE_FOLD = 0.012;
const FOLD_SAMPLES = 60;
const LEAST_STEP = 3;

interface BrokenFit extends Fit {
  column: number;
  fold: number;
}

function brokenFit(strip: Strip): BrokenFit {
  let best: BrokenFit = { held: -1, from: 0, to: 0, column: 0, fold: 0 };
  for (let column = LEAST_PIECE; column <= COLUMNS - LEAST_PIECE; column += 2) {
    const most = (columns: number) => Math.ceil((MOST_STEEP * columns) / strip.slope);
    const [mostLeft, mostRight] = [most(column), most(COLUMNS - column)];
    for (let fold = -STEPS; fold <= STEPS; fold++) {
      let [left, from] = [-1, 0];
      for (let low = Math.max(-STEPS, fold - mostLeft); low <= Math.min(STEPS, fold + mostLeft); low++) {
        const sum = hitsOn(strip, 0, low, column, fold);
        if (sum > left) [left, from] = [sum, low];
      }
      if ((left + COLUMNS - column) / strip.seen <= best.held) continue;
      let [right, to] = [-1, 0];
      for (let high = Math.max(-STEPS, fold - mostRight); high <= Math.min(STEPS, fold + mostRight); high++) {
        const sum = hitsOn(strip, column, fold, COLUMNS, high);
        if (sum > right) [right, to] = [sum, high];
      }
      const held = (left + right) / strip.seen;
      if (held > best.held) best = { held, from, to, column, fold };
    }
  }
  return best;
}

/** A sheet whose sides may be broken: where its corners are, and where the two broken sides seem to meet the fold, if they tell. */
interface Broken {
  /** Clockwise from the corner before the first of these sides. */
  corners: Quad;
  folds: [top: Point | undefined, bottom: Point | undefined];
  held: number;
}

/** Folds from one side to the opposite one, of which at least one is broken there. @param seen the sides of the quad */
export function brokenSides(quad: Quad, seen: readonly SeenSide[]): Broken[] {
  const strips = seen.map(({ strip }) => strip);
  const straight = seen.map((each) => each.straight);
  const found: Broken[] = [];
  for (const first of [0, 1]) {
    // What is straight needs no fold.
    const sides = [first, first + 2].map((side) => {
      if (straight[side].held > STRAIGHT) return undefined;
      const fit = brokenFit(strips[side]);
      const { from, to, column, fold } = fit;
      const off = (Math.abs(fold - from - (column / COLUMNS) * (to - from)) * strips[side].slope) / COLUMNS;
      return fit.held - straight[side].held >= LEAST_GAIN && fit.held >= LEAST_HELD && off >= LEAST_BROKEN
        ? fit
        : undefined;
    });
    const held = sides.map((fit, index) => fit?.held ?? straight[first + 2 * index].held);
    if (sides.every((fit) => !fit) || Math.min(...held) < LEAST_HELD) continue;
    const lineOf = (side: number) => lineThrough(strips[side].at(0, straight[side].from), strips[side].at(COLUMNS, straight[side].to)); // prettier-ignore
    const [right, left] = [lineOf(first + 1), lineOf((first + 3) % 4)];
    const ends = sides.map((fit, index) => {
      const strip = strips[first + 2 * index];
      const { from, to } = fit ?? straight[first + 2 * index];
      const [start, end] = [strip.at(0, from), strip.at(COLUMNS, to)];
      const fold = fit && strip.at(fit.column, fit.fold);
      return { start, end, fold, atStart: lineThrough(start, fold ?? end), atEnd: lineThrough(fold ?? start, end) };
    });
    const [over, under] = ends;
    const meet = (a: Line, b: Line, near: Point) => crossingNear(a, b, near, MOST_OFF * distance(quad[0], quad[2]));
    const corners: Quad = [
      meet(left, over.atStart, over.start),
      meet(right, over.atEnd, over.end),
      meet(right, under.atStart, under.start),
      meet(left, under.atEnd, under.end),
    ];
    const all = [...held, straight[first + 1].held, straight[(first + 3) % 4].held];
    if (isConvex(corners))
      found.push({ corners, folds: [over.fold, under.fold], held: all.reduce((sum, each) => sum + each) / 4 });
  }
  return found;
}

/**
 * The pieces that a sheet with broken sides may have. Where a side tells little of the fold, because it looks nearly straight from where the camera
 * is, the light on the pieces does, which differs.
 */
export function piecesOf(light: Light, { corners, folds, held }: Broken): Folding[] {
  const [a, b, c, d] = corners;
  const lit = litFolds(light, placesOfFold(a, b, folds[0]), placesOfFold(d, c, folds[1]));
  const chosen = unlike(lit, ({ top, bottom }) => [top, bottom], SAME_FOLD * distance(a, c));
  const seen = [{ top: folds[0] ?? between(a, b), bottom: folds[1] ?? between(d, c) }];
  return [...chosen, ...seen]
    .map(({ top, bottom }): Pieces => [
      [a, top, bottom, d],
      [top, b, c, bottom],
    ])
    .filter((pieces) => pieces.every(isConvex))
    .map((pieces) => ({ pieces, held, isWhole: true }));
}

/** A grey picture, so many times as large as it was when the sides were sought. */
export interface Light {
  grey: Raster;
  scale: number;
}

/** Folds between places on one side and places on the other at which the light steps, the clearest first. */
export function litFolds(light: Light, tops: Point[], bottoms: Point[]): { top: Point; bottom: Point }[] {
  const found: { step: number; top: Point; bottom: Point }[] = [];
  for (const top of tops) {
    for (const bottom of bottoms) {
      const step = lightStep(light.grey, scaledPoint(top, light.scale), scaledPoint(bottom, light.scale));
      if (step >= LEAST_STEP) found.push({ step, top, bottom });
    }
  }
  return found.sort((one, other) => other.step - one.step);
}

const scaledPoint = ([x, y]: Point, scale: number): Point => [x * scale, y * scale];

/** Where on a side the fold may meet it: about where it is broken, the nearer the more it is. */
export function placesOfFold(from: Point, to: Point, fold: Point | undefined, unsure = UNSURE): Point[] {
  const along = (a: Point, b: Point, at: number): Point => [a[0] + at * (b[0] - a[0]), a[1] + at * (b[1] - a[1])];
  if (!fold) return Array.from({ length: PLACES - 1 }, (_, at) => along(from, to, (at + 1) / PLACES));
  const near = unsure / Math.max(0.01, turnAt(from, fold, to));
  const towards = (end: Point): Point[] => {
    const far = distance(fold, end);
    const reach = Math.min(near, 0.95 * far);
    const steps = Math.ceil((reach * PLACES) / distance(from, to));
    return Array.from({ length: steps }, (_, at) => along(fold, end, ((at + 1) * reach) / steps / far));
  };
  return [...towards(from), fold, ...towards(to)];
}

/** How much lighter the paper is on one side of a line than on the other, in levels: the median along it, so that print doesn't count. */
function lightStep({ width, height, data }: Raster, [ax, ay]: Point, [bx, by]: Point): number {
  const long = Math.hypot(bx - ax, by - ay);
  const beside = BESIDE_FOLD * Math.max(width, height);
  const [nx, ny] = [((ay - by) / long) * beside, ((bx - ax) / long) * beside];
  const steps: number[] = [];
  for (let sample = 0; sample < FOLD_SAMPLES; sample++) {
    const t = (sample + 0.5) / FOLD_SAMPLES;
    const [x, y] = [ax + t * (bx - ax), ay + t * (by - ay)];
    const at = (sign: number) => {
      const [left, top] = [Math.round(x + sign * nx), Math.round(y + sign * ny)];
      return left < 0 || top < 0 || left >= width || top >= height ? NaN : data[top * width + left];
    };
    const step = at(1) - at(-1);
    if (!Number.isNaN(step)) steps.push(step);
  }
  steps.sort((p, q) => p - q);
  return Math.abs(steps[steps.length >> 1] ?? 0);
}
