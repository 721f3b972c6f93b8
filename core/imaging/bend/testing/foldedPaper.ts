import { Point, Quad } from '../../quad';
import { USUAL_FOCAL } from '../../straighten';

/** Size of the picture. */
export const SIZE: [number, number] = [1600, 1200];
const FOCAL = USUAL_FOCAL * 1600;
/** Sheet of 210 × 297, folded from `TOP` above to `BOTTOM` below, each piece standing up towards the fold; in millimetres. */
export const [WIDTH, HEIGHT, TOP, BOTTOM] = [210, 297, 90, 120];

/** Where a point of the paper is seen by a camera that leans. */
export function seen([x, y]: Point, steep = 0.35): Point {
  // How far off the fold it is, and the place on the fold that is nearest.
  const along = [BOTTOM - TOP, HEIGHT];
  const length = Math.hypot(...along);
  const [ax, ay] = [along[0] / length, along[1] / length];
  const off = (x - TOP) * ay - y * ax;
  const far = (x - TOP) * ax + y * ay;
  const flat = [TOP + far * ax + off * ay * Math.cos(steep), far * ay - off * ax * Math.cos(steep)];
  const high = -Math.abs(off) * Math.sin(steep);
  const [px, py, pz] = [flat[0] - WIDTH / 2, flat[1] - HEIGHT / 2, -high];
  const lean = 0.2;
  const depth = 420 + py * Math.sin(lean) + pz * Math.cos(lean);
  return [
    SIZE[0] / 2 + (FOCAL * px) / depth,
    SIZE[1] / 2 + (FOCAL * (py * Math.cos(lean) - pz * Math.sin(lean))) / depth,
  ];
}
/** A part of the paper as it is seen. */
export const piece = (...corners: Point[]) => corners.map((corner) => seen(corner)) as Quad;
export const LEFT = piece([0, 0], [TOP, 0], [BOTTOM, HEIGHT], [0, HEIGHT]);
export const RIGHT = piece([TOP, 0], [WIDTH, 0], [WIDTH, HEIGHT], [BOTTOM, HEIGHT]);
