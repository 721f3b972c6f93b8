/** A point in pixels: x to the right, y downwards, whole numbers at the upper left of a pixel. */
export type Point = [x: number, y: number];

/** Four corners clockwise: upper left, upper right, lower right, lower left. */
export type Quad = [Point, Point, Point, Point];

export function wholeQuad(width: number, height: number): Quad {
  return [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ];
}

export function scaleQuad(quad: Quad, across: number, down = across): Quad {
  return quad.map(([x, y]) => [x * across, y * down]) as Quad;
}

/** Twice the signed area of a polygon is positive when its corners run clockwise as seen (y downwards). */
export function area(polygon: Point[]): number {
  let twice = 0;
  polygon.forEach(([x, y], index) => {
    const [nextX, nextY] = polygon[(index + 1) % polygon.length];
    twice += x * nextY - nextX * y;
  });
  return twice / 2;
}

/** Whether the corners turn the same way all round. */
export function isConvex(polygon: Point[]): boolean {
  let sign = 0;
  for (let index = 0; index < polygon.length; index++) {
    const [a, b, c] = [0, 1, 2].map((by) => polygon[(index + by) % polygon.length]);
    const cross = (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]);
    if (cross === 0) continue;
    if (sign !== 0 && Math.sign(cross) !== sign) return false;
    sign = Math.sign(cross);
  }
  return true;
}

/** The least of a sheet that the triangle of three of its corners is. */
const LEAST_TURN = 0.1;

/** Whether corners turn clockwise, none of them nearly on a line with two others. */
export function isSheet(corners: Quad): boolean {
  const turns = corners.map((_, out) => area(corners.filter((_each, index) => index !== out)));
  return turns.every((turn) => turn > LEAST_TURN * area(corners));
}

/** Corners put clockwise, beginning with the one nearest the upper left of the picture. */
export function ordered(quad: Quad): Quad {
  const clockwise = area(quad) >= 0 ? [...quad] : [...quad].reverse();
  const sums = clockwise.map(([x, y]) => x + y);
  const first = sums.indexOf(Math.min(...sums));
  return [0, 1, 2, 3].map((by) => clockwise[(first + by) % 4]) as Quad;
}

/** The part of a convex polygon that lies in another one (Sutherland & Hodgman 1974). Both run clockwise. */
export function clip(subject: Point[], window: Point[]): Point[] {
  let inside = subject;
  window.forEach((from, index) => {
    const to = window[(index + 1) % window.length];
    const side = ([x, y]: Point) => (to[0] - from[0]) * (y - from[1]) - (to[1] - from[1]) * (x - from[0]);
    const kept: Point[] = [];
    inside.forEach((point, at) => {
      const next = inside[(at + 1) % inside.length];
      const [here, there] = [side(point), side(next)];
      if (here >= 0) kept.push(point);
      if (here >= 0 !== there >= 0) {
        const share = here / (here - there);
        kept.push([point[0] + share * (next[0] - point[0]), point[1] + share * (next[1] - point[1])]);
      }
    });
    inside = kept;
  });
  return inside;
}

/** Intersection over union of two convex polygons, from 0 to 1. */
export function overlap(a: Point[], b: Point[]): number {
  const [first, second] = [clockwise(a), clockwise(b)];
  const common = clip(first, second);
  const shared = common.length < 3 ? 0 : area(common);
  return shared / (area(first) + area(second) - shared);
}

function clockwise(polygon: Point[]): Point[] {
  return area(polygon) >= 0 ? polygon : [...polygon].reverse();
}

export function distance([ax, ay]: Point, [bx, by]: Point): number {
  return Math.hypot(bx - ax, by - ay);
}
