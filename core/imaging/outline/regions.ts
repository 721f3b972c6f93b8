import { area, Point, Quad } from '../quad';
import { Opponent } from './edges';

/** How much colour counts against being paper: paper is light and has little of it. */
const COLOUR_AGAINST = 1.2;
const LEVELS = 10;
const LEAST_SHARE = 0.015;
const MOST_SHARE = 0.96;

/**
 * Quads around the light, hardly coloured regions of a picture, found with several thresholds of how light is light.
 * Each is the outline of a connected region with its convex hull reduced to four sides.
 */
export function lightRegions(colours: Opponent): Quad[] {
  const { width, height } = colours;
  const [small, w, h] = halved(paperness(colours), width, height);
  const sorted = Float32Array.from(small).sort();
  const quads: Quad[] = [];
  for (let level = 1; level < LEVELS; level++) {
    const threshold = (sorted[Math.floor((sorted.length * level) / LEVELS)] + levelBetween(sorted, level / LEVELS)) / 2;
    for (const boundary of components(small, w, h, threshold)) {
      const quad = quadAround(convexHull(boundary));
      if (quad) quads.push(quad.map(([x, y]) => [(x * width) / w, (y * height) / h]) as Quad);
    }
  }
  return quads;
}

function levelBetween(sorted: Float32Array, share: number): number {
  const [low, high] = [sorted[Math.floor(sorted.length * 0.02)], sorted[Math.floor(sorted.length * 0.98)]];
  return low + (high - low) * share;
}

function paperness({ light, redGreen, yellowBlue }: Opponent): Float32Array {
  return light.map((value, at) => value - COLOUR_AGAINST * (Math.abs(redGreen[at]) + Math.abs(yellowBlue[at])));
}

function halved(from: Float32Array, width: number, height: number): [Float32Array, number, number] {
  const [w, h] = [width >> 1, height >> 1];
  const to = new Float32Array(w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const at = 2 * y * width + 2 * x;
      // The lightest of four: print thins out, the paper between it holds together.
      to[y * w + x] = Math.max(from[at], from[at + 1], from[at + width], from[at + width + 1]);
    }
  }
  return [to, w, h];
}

/** The outermost pixels (leftmost and rightmost of each row) of each connected region lighter than a threshold. */
function components(map: Float32Array, width: number, height: number, threshold: number): Point[][] {
  const seen = new Uint8Array(map.length);
  const stack = new Int32Array(map.length);
  const found: Point[][] = [];
  const left = new Int32Array(height);
  const right = new Int32Array(height);
  for (let start = 0; start < map.length; start++) {
    if (seen[start] || map[start] < threshold) continue;
    let [top, count] = [0, 0];
    // Rows are cleared as they are reached.
    const firstRow = Math.floor(start / width);
    let lastRow = firstRow - 1;
    let upperRow = firstRow;
    stack[top++] = start;
    seen[start] = 1;
    while (top > 0) {
      const at = stack[--top];
      const y = Math.floor(at / width);
      const x = at - y * width;
      count++;
      while (lastRow < y) {
        lastRow++;
        left[lastRow] = width;
        right[lastRow] = -1;
      }
      while (upperRow > y) {
        upperRow--;
        left[upperRow] = width;
        right[upperRow] = -1;
      }
      if (x < left[y]) left[y] = x;
      if (x > right[y]) right[y] = x;
      if (x > 0 && !seen[at - 1] && map[at - 1] >= threshold) seen[(stack[top++] = at - 1)] = 1;
      if (x < width - 1 && !seen[at + 1] && map[at + 1] >= threshold) seen[(stack[top++] = at + 1)] = 1;
      if (y > 0 && !seen[at - width] && map[at - width] >= threshold) seen[(stack[top++] = at - width)] = 1;
      if (y < height - 1 && !seen[at + width] && map[at + width] >= threshold) seen[(stack[top++] = at + width)] = 1;
    }
    if (count < LEAST_SHARE * map.length || count > MOST_SHARE * map.length) continue;
    const boundary: Point[] = [];
    for (let y = upperRow; y <= lastRow; y++) {
      if (right[y] < 0) continue;
      boundary.push([left[y], y], [right[y] + 1, y], [left[y], y + 1], [right[y] + 1, y + 1]);
    }
    found.push(boundary);
  }
  return found;
}

/** The convex hull, clockwise as seen (monotone chain, Andrew 1979). */
export function convexHull(points: Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (from: Point[]) => {
    const chain: Point[] = [];
    for (const point of from) {
      while (chain.length >= 2) {
        const [a, b] = chain.slice(-2);
        if ((b[0] - a[0]) * (point[1] - a[1]) - (b[1] - a[1]) * (point[0] - a[0]) > 0) break;
        chain.pop();
      }
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

/** Takes away sides of a convex polygon, its neighbours prolonged until they meet, the one first that adds least, down to four. */
function quadAround(hull: Point[]): Quad | undefined {
  const polygon = [...hull];
  while (polygon.length > 4) {
    let best: { at: number; meet: Point; added: number } | undefined;
    for (let at = 0; at < polygon.length; at++) {
      const [a, b, c, d] = [0, 1, 2, 3].map((by) => polygon[(at + by) % polygon.length]);
      const meet = meeting(a, b, c, d);
      if (!meet) continue;
      const added = Math.abs(area([b, meet, c]));
      if (!best || added < best.added) best = { at, meet, added };
    }
    if (!best) return undefined;
    const removed = (best.at + 2) % polygon.length;
    polygon[(best.at + 1) % polygon.length] = best.meet;
    polygon.splice(removed, 1);
  }
  return polygon.length === 4 ? (polygon as Quad) : undefined;
}

/** Where the ray from a over b meets the ray from d over c, beyond the side between b and c. */
function meeting(a: Point, b: Point, c: Point, d: Point): Point | undefined {
  const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], c[0] - d[0], c[1] - d[1]];
  const determinant = ux * vy - uy * vx;
  if (Math.abs(determinant) < 1e-9) return undefined;
  const along = ((d[0] - b[0]) * vy - (d[1] - b[1]) * vx) / determinant;
  const other = ((b[0] - d[0]) * uy - (b[1] - d[1]) * ux) / -determinant;
  if (along < 0 || other < 1) return undefined;
  return [b[0] + along * ux, b[1] + along * uy];
}
