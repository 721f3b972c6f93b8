import { homography } from '../homography';
import { isSheet, Point, Quad } from '../quad';
import { trueAspect, USUAL_FOCAL } from '../straighten';

type Vector = [number, number, number];

/** Places in the numbers that are sought of a sheet before a camera: the focal length, the aspect, three turns and three moves. */
export const [FOCAL, ASPECT, TURN, MOVE, SHAPE] = [0, 1, 2, 5, 8];
/** How far the focal length is usually off that of most phones (logarithm). */
export const OFF_FOCAL = 0.12;

export interface Start {
  aspect: number;
  /** The directions of the sheet's sides and of its normal, and where its first corner is, before the camera. */
  axes: [Vector, Vector, Vector];
  at: Vector;
  middle: Point;
  focal: number;
}

/** How the sheet would lie were it flat. @returns nothing where the corners are no sheet's */
export function startOf(corners: Quad, [width, height]: [number, number]): Start | undefined {
  if (!isSheet(corners)) return undefined;
  const aspect = trueAspect(corners, width, height);
  if (!(aspect > 0.05 && aspect < 20)) return undefined;
  const focal = USUAL_FOCAL * Math.max(width, height);
  const middle: Point = [width / 2, height / 2];
  const h = homography([[0, 0], [aspect, 0], [aspect, 1], [0, 1]], corners); // prettier-ignore
  const column = (at: number): Vector => [
    (h[at] - middle[0] * h[at + 6]) / focal,
    (h[at + 3] - middle[1] * h[at + 6]) / focal,
    h[at + 6],
  ];
  const [across, down, at] = [column(0), column(1), column(2)];
  const scale = (Math.hypot(...across) + Math.hypot(...down)) / 2;
  const x = unit(across);
  const y = unit(down.map((each, index) => each - dot(down, x) * x[index]) as Vector);
  return { aspect, axes: [x, y, cross(x, y)], at: at.map((each) => each / scale) as Vector, middle, focal };
}

/** A fold of a sheet whose height is one: where it meets the top and the bottom, from the left, and how far it turns what lies right of it, in radians. */
export type Fold = [top: number, bottom: number, angle: number];

/**
 * Where points of a folded sheet are seen by a camera whose axis goes through the picture's middle.
 * @param numbers see above; what is behind `SHAPE` in them is not looked at
 * @param folds from the left; the sheet's width is the aspect
 * @returns takes points of the flat sheet, x up to the aspect and y up to one
 */
export function seenBy(numbers: Float64Array, folds: readonly Fold[], start: Start): (point: Point) => Point {
  const focal = start.focal * Math.exp(numbers[FOCAL]);
  const [x, y, z] = start.axes.map((axis) => turnedBy(axis, numbers.subarray(TURN, TURN + 3)));
  const at = start.at.map((each, index) => each + numbers[MOVE + index]);
  const turns = folds.map((fold) => foldAlong(...fold));
  return ([px, py]) => {
    // What lies beyond several folds is turned about the last one first, while all else is flat.
    const [u, v, w] = turns.reduceRight((point, turn) => turn(point), [px, py, 0] as Vector);
    const [cx, cy, cz] = [0, 1, 2].map((axis) => at[axis] + u * x[axis] + v * y[axis] + w * z[axis]);
    return [start.middle[0] + (focal * cx) / cz, start.middle[1] + (focal * cy) / cz];
  };
}

export const aspectOf = (numbers: Float64Array, start: Start): number => start.aspect * Math.exp(numbers[ASPECT]);

/** Turns what lies right of a line in the flat sheet, from the top at one place to the bottom at another, about it. */
function foldAlong(top: number, bottom: number, angle: number): (point: Vector) => Vector {
  const run = bottom - top;
  const length = Math.hypot(run, 1);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return (point) => {
    const [px, py, pz] = point;
    const far = (px - top - py * run) / length;
    if (far <= 0) return point;
    const moved = far * cos - pz * sin - far;
    return [px + moved / length, py - (moved * run) / length, far * sin + pz * cos];
  };
}

/** A vector turned about an axis by as many radians as that is long (Rodrigues 1840). */
function turnedBy(vector: Vector, axis: Float64Array): Vector {
  const angle = Math.hypot(axis[0], axis[1], axis[2]);
  if (angle < 1e-12) return vector;
  const k: Vector = [axis[0] / angle, axis[1] / angle, axis[2] / angle];
  const [cos, sin, along] = [Math.cos(angle), Math.sin(angle), dot(k, vector)];
  const beside = cross(k, vector);
  return vector.map((each, at) => each * cos + beside[at] * sin + k[at] * along * (1 - cos)) as Vector;
}

const cross = ([ax, ay, az]: Vector, [bx, by, bz]: Vector): Vector => [
  ay * bz - az * by,
  az * bx - ax * bz,
  ax * by - ay * bx,
];
const dot = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const unit = (a: Vector): Vector => {
  const length = Math.hypot(...a) || 1;
  return [a[0] / length, a[1] / length, a[2] / length];
};
