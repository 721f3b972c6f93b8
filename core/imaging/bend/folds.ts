import { applyHomography, homography } from '../homography';
import { distance, Point, Quad } from '../quad';
import { USUAL_FOCAL } from '../straighten';
import { Bend, bendOver } from './bend';

/** A sheet that is folded once and stands up along the fold: two flat pieces with a side in common. */
export interface FoldedSheet {
  /** Clockwise, the first piece on the left. */
  corners: Quad;
  bend: Bend;
  /** Width over height. */
  aspect: number;
  /** How far across the fold is at the top and at the bottom, as shares of the width. */
  fold: [top: number, bottom: number];
}

/** Corners are the same when they are no further apart than this share of the side. */
const SAME_CORNER = 0.06;
/** How far the sheet's sides may be from as long as each other, logarithm. */
const MOST_UNEQUAL = 0.25;
/** Fine enough for a fold that runs aslant. */
const MESH = { across: 32, down: 16 };

type Vector = [number, number, number];
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

/**
 * The sheet of which two outlines are the pieces beside a fold, when they have a side in common.
 * Each piece is a plane seen by a camera of a phone's usual focal length: its two sides that meet the fold are parallel and at right angles
 * to the outer one, which tells how the plane lies (vanishing points, Caprile & Torre 1990).
 * @param size of the picture, in pixels, in which the pieces are, clockwise
 */
export function foldedSheet(one: Quad, other: Quad, size: [width: number, height: number]): FoldedSheet | undefined {
  for (let i = 0; i < 4; i++) {
    for (let j = 0; j < 4; j++) {
      // The side from the second to the third corner of one piece is that from the fourth to the first of the other.
      const left = turned(one, i);
      const right = turned(other, j);
      const near = SAME_CORNER * distance(left[1], left[2]);
      if (distance(left[1], right[0]) > near || distance(left[2], right[3]) > near) continue;
      const [top, bottom] = [between(left[1], right[0]), between(left[2], right[3])];
      const pieces: [Quad, Quad] = [
        [left[0], top, bottom, left[3]],
        [top, right[1], right[2], bottom],
      ];
      return unfolded(pieces, size);
    }
  }
  return undefined;
}

const turned = (quad: Quad, by: number) => quad.map((_, at) => quad[(at + by) % 4]) as Quad;
const between = ([ax, ay]: Point, [bx, by]: Point): Point => [(ax + bx) / 2, (ay + by) / 2];

function unfolded([left, right]: [Quad, Quad], size: [number, number]): FoldedSheet | undefined {
  const rays = (quad: Quad) => quad.map((corner) => rayTo(corner, size));
  const [a, b, c, d] = rays(left);
  const [, e, f] = rays(right);
  const leftWidths = widthsOf([a, b], [d, c], [a, d]);
  const rightWidths = widthsOf([b, e], [c, f], [e, f]);
  const [above, below] = [leftWidths[0] + rightWidths[0], leftWidths[1] + rightWidths[1]];
  if (!(above > 0 && below > 0) || Math.abs(Math.log(above / below)) > MOST_UNEQUAL) return undefined;
  const aspect = (above + below) / 2;
  const fold: [number, number] = [leftWidths[0] / above, leftWidths[1] / below];
  if (fold.some((share) => !(share > 0 && share < 1))) return undefined;
  const [top, bottom] = fold;
  const ofLeft = homography([[0, 0], [top, 0], [bottom, 1], [0, 1]], left); // prettier-ignore
  const ofRight = homography([[top, 0], [1, 0], [1, 1], [bottom, 1]], right); // prettier-ignore
  const corners: Quad = [left[0], right[1], right[2], left[3]];
  const inPicture = ([u, v]: Point): Point => applyHomography(u < top + (bottom - top) * v ? ofLeft : ofRight, [u, v]);
  return { corners, aspect, fold, bend: bendOver(corners, inPicture, MESH) };
}

function rayTo([x, y]: Point, [width, height]: [number, number]): Vector {
  const focal = USUAL_FOCAL * Math.max(width, height);
  return unit([x - width / 2, y - height / 2, focal]);
}

/**
 * How wide a piece is at its top and at its bottom, as shares of the length of its outer side.
 * @param top, bottom, outer the ends of its sides, as rays from the camera: both from left to right, and from the top downwards
 */
function widthsOf(top: [Vector, Vector], bottom: [Vector, Vector], outer: [Vector, Vector]): [number, number] {
  // Sides that are parallel on the paper have the direction in which the planes through them and the camera meet.
  let across = unit(cross(cross(...top), cross(...bottom)));
  const rise: Vector = [top[1][0] - top[0][0], top[1][1] - top[0][1], top[1][2] - top[0][2]];
  if (dot(across, rise) < 0) across = [-across[0], -across[1], -across[2]];
  const down = unit(cross(cross(...outer), across));
  const normal = cross(across, down);
  const onPaper = (ray: Vector): [number, number] => {
    const far = 1 / dot(normal, ray);
    return [far * dot(ray, across), far * dot(ray, down)];
  };
  const long = Math.abs(onPaper(outer[1])[1] - onPaper(outer[0])[1]);
  const wide = ([from, to]: [Vector, Vector]) => Math.abs(onPaper(to)[0] - onPaper(from)[0]) / long;
  return [wide(top), wide(bottom)];
}
