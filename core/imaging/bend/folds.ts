import { distance, isSheet, Point, Quad } from '../quad';
import { Bend, bendOver, isBend } from './bend';
import { minimise } from './linear';
import { aspectOf, Fold, FOCAL, OFF_FOCAL, seenBy, SHAPE, Start, startOf } from './sheetModel';

/** A sheet with straight folds beside each other, along which it stands up or lies lowest: flat pieces, each with a side in common with the next. */
export interface FoldedSheet {
  /** Clockwise, the first piece on the left. */
  corners: Quad;
  bend: Bend;
  /** Width over height. */
  aspect: number;
  /** How far across each fold is at the top and at the bottom, as shares of the width. */
  folds: [top: number, bottom: number][];
  /** How sharp the sharpest fold is, in radians; 0 is flat. */
  sharpness: number;
  /** How far its corners are off where they were found, on average, as a share of the picture's longer side. */
  off: number;
}

/** The pieces of a sheet, one beside the other: the side from the second to the third corner of each is that from the fourth to the first of the next. */
export type Pieces = Quad[];

/** Corners are the same when they are no further apart than this share of the side. */
const SAME_CORNER = 0.06;
/** Fine enough for a fold that runs aslant. */
const MESH = { across: 32, down: 16 };

/** Two outlines as pieces beside a fold, when they have a side in common. */
export function besideFold(one: Quad, other: Quad): Pieces | undefined {
  for (let i = 0; i < 4; i++) {
    for (let j = 0; j < 4; j++) {
      const left = turned(one, i);
      const right = turned(other, j);
      const near = SAME_CORNER * distance(left[1], left[2]);
      if (distance(left[1], right[0]) > near || distance(left[2], right[3]) > near) continue;
      const [top, bottom] = [between(left[1], right[0]), between(left[2], right[3])];
      return [
        [left[0], top, bottom, left[3]],
        [top, right[1], right[2], bottom],
      ];
    }
  }
  return undefined;
}

/** The same pieces, seen the other way up: the last one first. */
export const reversed = (pieces: Pieces): Pieces => pieces.map((quad) => turned(quad, 2)).reverse();

const turned = (quad: Quad, by: number) => quad.map((_, at) => quad[(at + by) % 4]) as Quad;
export const between = ([ax, ay]: Point, [bx, by]: Point): Point => [(ax + bx) / 2, (ay + by) / 2];

/** How far corners are usually off their places, and how far at most on average, as shares of the picture's longer side. */
const OFF = 0.001;
const MOST_OFF = 0.006;
/** How far along its side the end of a fold is usually off (share of the picture): less, the more the side turns there (radians). */
const OFF_ALONG = { least: 0.004, most: 0.15, turned: 0.0008 };
/** No fold stands up more steeply than this, in radians. */
const MOST_SHARP = 1.5;
/** How far beyond a corner a fold may end, as a share of the side: it cuts the corner off then. */
const BEYOND_CORNER = 0.3;
const STARTS = [0.25, -0.25];
const ROUNDS = 60;

/** The folds, as shares of the width: three numbers each. */
function foldsIn(numbers: Float64Array, count: number): Fold[] {
  return Array.from({ length: count }, (_, at) => [...numbers.subarray(SHAPE + 3 * at, SHAPE + 3 * at + 3)] as Fold);
}

function modelOf(numbers: Float64Array, count: number, start: Start) {
  const aspect = aspectOf(numbers, start);
  const folds = foldsIn(numbers, count);
  const placed = folds.map(([top, bottom, angle]): Fold => [top * aspect, bottom * aspect, angle]);
  return { aspect, folds, seen: seenBy(numbers, placed, start) };
}

/**
 * The sheet that pieces beside folds are seen of: how it lies before the camera, where the folds run and how sharp they are is sought together, so that
 * its corners and broken sides are seen where they were found (Levenberg and Marquardt's method). A side that looks straight says little of
 * where a fold meets it; the other corners say that then.
 * @param size of the picture, in pixels, in which the pieces are, clockwise
 * @returns nothing when no such sheet explains them
 */
export function foldedSheet(pieces: Pieces, [width, height]: [width: number, height: number]): FoldedSheet | undefined {
  const [first, last] = [pieces[0], pieces[pieces.length - 1]];
  const outer: Quad = [first[0], last[1], last[2], first[3]];
  const long = Math.max(width, height);
  const start = startOf(outer, [width, height]);
  if (!start) return undefined;
  const count = pieces.length - 1;
  const seenEnds = pieces.slice(0, -1).flatMap((quad, at) => {
    const next = pieces[at + 1];
    return [foldSeen(quad[0], quad[1], next[1]), foldSeen(quad[3], quad[2], next[2])];
  });
  const residuals = (numbers: Float64Array) => {
    const { aspect, folds, seen } = modelOf(numbers, count, start);
    const corners = [[0, 0], [aspect, 0], [aspect, 1], [0, 1]].map((point) => seen(point as Point)); // prettier-ignore
    const out = corners.flatMap(([x, y], at) => [(x - outer[at][0]) / (OFF * long), (y - outer[at][1]) / (OFF * long)]);
    seenEnds.forEach(({ offBefore, offBehind, along, sure }, at) => {
      const end = seen([folds[at >> 1][at & 1] * aspect, at & 1]);
      out.push(offBefore(end) / (OFF * long), offBehind(end) / (OFF * long), along(end) / (sure * long));
    });
    return Float64Array.from([...out, numbers[FOCAL] / OFF_FOCAL, ...folds.map(([, , angle]) => angle / 2)]);
  };
  const sum = (values: Float64Array) => values.reduce((total, each) => total + each * each, 0);
  const found = combinations(STARTS, count).map((angles) => {
    const numbers = new Float64Array(SHAPE + 3 * count);
    angles.forEach((angle, at) => {
      numbers[SHAPE + 3 * at] = shareAlong(pieces[at][1], outer[0], outer[1]);
      numbers[SHAPE + 3 * at + 1] = shareAlong(pieces[at][2], outer[3], outer[2]);
      numbers[SHAPE + 3 * at + 2] = angle;
    });
    const best = minimise(residuals, numbers, ROUNDS);
    return { best, off: sum(residuals(best)) };
  });
  const { best } = found.reduce((x, y) => (y.off < x.off ? y : x));
  const { aspect, folds, seen } = modelOf(best, count, start);
  const off = OFF * Math.sqrt(sum(residuals(best).slice(0, 8)) / 4);
  const sharpness = Math.max(...folds.map(([, , angle]) => Math.abs(angle)));
  const isOn = folds.every(([top, bottom]) =>
    [top, bottom].every((share) => share > -BEYOND_CORNER && share < 1 + BEYOND_CORNER),
  );
  if (!(off < MOST_OFF) || !(sharpness < MOST_SHARP) || !isOn) return undefined;
  const inPicture = ([u, v]: Point): Point => seen([u * aspect, v]);
  const corners = ([[0, 0], [1, 0], [1, 1], [0, 1]] as Quad).map(inPicture) as Quad; // prettier-ignore
  if (!isSheet(corners)) return undefined;
  const bend = bendOver(corners, inPicture, MESH);
  const ends = folds.map(([top, bottom]): [number, number] => [top, bottom]);
  return isBend(bend) ? { corners, aspect, folds: ends, sharpness, off, bend } : undefined;
}

/** All lists of so many of some values. */
function combinations(values: number[], count: number): number[][] {
  return count === 0 ? [[]] : combinations(values, count - 1).flatMap((list) => values.map((each) => [...list, each]));
}

/** What is known of where a fold meets a side: how far a point is off the parts of that before and behind it, and along it. */
function foldSeen(from: Point, fold: Point, to: Point) {
  const off = ([ax, ay]: Point, [bx, by]: Point) => {
    const length = Math.hypot(bx - ax, by - ay) || 1;
    return ([x, y]: Point) => ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / length;
  };
  const turn = turnAt(from, fold, to);
  const { least, most, turned } = OFF_ALONG;
  return {
    offBefore: off(from, fold),
    offBehind: off(fold, to),
    along: (end: Point) => (shareAlong(end, from, to) - shareAlong(fold, from, to)) * distance(from, to),
    sure: Math.max(least, Math.min(most, turned / (turn + 1e-6))),
  };
}

function shareAlong([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  return ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2 || 1);
}

/** How much a path turns at a point, in radians. */
export function turnAt([ax, ay]: Point, [bx, by]: Point, [cx, cy]: Point): number {
  const [ux, uy, vx, vy] = [bx - ax, by - ay, cx - bx, cy - by];
  return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));
}
