import { connectedComponents } from '../components';
import { Ink } from '../ink';
import { area, ordered, Point, Quad } from '../quad';
import { convexHull } from './regions';

/** Ways along the edges of pixels: to the right, down, to the left, up. */
const WAYS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
];

/** The outer boundary of the largest piece of a region, clockwise, from pixel corner to pixel corner. */
export function boundaryOf(region: Ink): Point[] {
  const { components, labels } = connectedComponents(region);
  if (components.length === 0) return [];
  const sizes = components.map(({ pixels }) => pixels);
  const piece = sizes.indexOf(Math.max(...sizes)) + 1;
  const { width, height } = region;
  const is = (x: number, y: number) => x >= 0 && y >= 0 && x < width && y < height && labels[y * width + x] === piece;
  const start = labels.indexOf(piece);
  const from: Point = [start % width, Math.floor(start / width)];
  const points: Point[] = [];
  let [x, y] = from;
  let way = 0;
  do {
    points.push([x, y]);
    const [dx, dy] = WAYS[way];
    [x, y] = [x + dx, y + dy];
    // The pixels ahead: the one left of the way, and the one right of it, where the region is.
    const right: Point = [x + (dx - dy - 1) / 2, y + (dy + dx - 1) / 2];
    const left: Point = [x + (dx + dy - 1) / 2, y + (dy - dx - 1) / 2];
    if (is(...left)) way = (way + 3) % 4;
    else if (!is(...right)) way = (way + 1) % 4;
  } while (x !== from[0] || y !== from[1]);
  return points;
}

/** Of the corners of a boundary's hull so many are looked at. */
const MOST_HULL = 64;

/** The largest quad whose corners lie on a boundary: those of a sheet, though its sides are bowed. */
export function largestQuad(boundary: Point[]): Quad | undefined {
  const whole = convexHull(boundary);
  const step = Math.max(1, whole.length / MOST_HULL);
  const hull = Array.from({ length: Math.floor(whole.length / step) }, (_, at) => whole[Math.floor(at * step)]);
  let best: { size: number; quad: Quad } | undefined;
  for (let a = 0; a < hull.length; a++)
    for (let c = a + 2; c < hull.length; c++) {
      const far = (from: number, to: number): [size: number, at: number] => {
        let [size, at] = [0, -1];
        for (let each = from; each < to; each++) {
          const own = Math.abs(area([hull[a], hull[each % hull.length], hull[c]]));
          if (own > size) [size, at] = [own, each % hull.length];
        }
        return [size, at];
      };
      const [[one, b], [other, d]] = [far(a + 1, c), far(c + 1, a + hull.length)];
      if (b < 0 || d < 0 || one + other <= (best?.size ?? 0)) continue;
      best = { size: one + other, quad: [hull[a], hull[b], hull[c], hull[d]] };
    }
  return best && ordered(best.quad);
}

/** A boundary may be further off in so much of it: something lies on the sheet's side. */
const LEFT_OUT = 0.05;

/** How far a boundary is off the sides of a quad, as a share of the longer side of the picture, in which it runs; where it runs out of that nothing is known. */
export function offStraight(boundary: Point[], quad: Quad, { width, height }: Pick<Ink, 'width' | 'height'>): number {
  const isIn = ([x, y]: Point) => x > 1 && y > 1 && x < width - 1 && y < height - 1;
  const offs = boundary
    .filter(isIn)
    .map((point) => Math.min(...quad.map((from, at) => offSide(point, from, quad[(at + 1) % 4]))));
  return (offs.sort((a, b) => b - a)[Math.floor(LEFT_OUT * offs.length)] ?? 0) / Math.max(width, height);
}

/** How far a point is off the line between two others. */
function offSide([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const [dx, dy] = [bx - ax, by - ay];
  const share = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(x - ax - share * dx, y - ay - share * dy);
}
