import { crossing, Line } from '../outline/lines';
import { distance, Point } from '../quad';
import { Pieces } from './folds';

/** Pieces beside folds as the sides of a sheet in a picture speak for them. */
export interface Folding {
  pieces: Pieces;
  /** On how much of the sides an edge was seen. */
  held: number;
  /** Whether the outline that was found is the whole sheet's; else it is some pieces'. */
  isWhole: boolean;
}

/** Folds are the same when they are no further apart than this share of the sheet; so many are tried. */
export const SAME_FOLD = 0.05;
export const MOST_TRIED = 6;

/** On so much of a broken side there is an edge. */
export const LEAST_HELD = 0.62;
/** Crossings of its sides further off than this, in sizes of the sheet, are none. */
export const MOST_OFF = 0.12;

/** The first few of a list, leaving out those whose points are all near those of one before. */
export function unlike<Each>(list: Each[], points: (each: Each) => Point[], near: number): Each[] {
  const kept: Each[] = [];
  for (const each of list) {
    if (kept.length === MOST_TRIED) break;
    const own = points(each);
    if (kept.every((other) => points(other).some((point, at) => distance(point, own[at]) > near))) kept.push(each);
  }
  return kept;
}

/** Where lines cross, unless that is far from where they are expected to. */
export function crossingNear(a: Line, b: Line, near: Point, most: number): Point {
  const point = crossing(a, b);
  return point && distance(point, near) < most ? point : near;
}
