import { Point, Quad } from '../../quad';
import { Raster } from '../../raster';
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

/** How light the table is, and paper in the light and in the shade. */
export const [TABLE, IN_LIGHT, IN_SHADE] = [70, 225, 180];

/** Pieces of paper on a table, each in its own light. */
export function photo(pieces: Quad[], lights = [IN_LIGHT, IN_SHADE, IN_LIGHT - 10]): Raster {
  const [width, height] = SIZE;
  const data = new Uint8Array(width * height).fill(TABLE);
  pieces.forEach((quad, index) => {
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) if (isIn(quad, [x, y])) data[y * width + x] = lights[index];
  });
  return { width, height, channels: 1, data };
}

const isIn = (quad: Quad, [x, y]: Point) =>
  quad.every(([ax, ay], at) => {
    const [bx, by] = quad[(at + 1) % 4];
    return (bx - ax) * (y - ay) - (by - ay) * (x - ax) >= 0;
  });
