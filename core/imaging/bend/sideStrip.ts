import { Edges } from '../outline/edges';
import { distance, Point, Quad } from '../quad';

/** Edges along a side are seen where they run in its direction, or up to about 35 degrees aslant to it. */
const ALONG = 0.82;
/** A side is looked at in so many places, so far to either side (share of its neighbours), in so many steps each way. */
export const COLUMNS = 40;
const REACH = 0.16;
export const STEPS = 36;
const LEAST_REACH = 6;
/** A side with an edge on so much of it is straight. */
export const STRAIGHT = 0.93;

/** The hits of edges around a side: columns along it, steps across. */
export interface Strip {
  hits: Uint8Array;
  at: (column: number, step: number) => Point;
  /** How many columns lie in the picture. */
  seen: number;
  /** How far a step is, beside a column. */
  slope: number;
}

export const ACROSS = 2 * STEPS + 1;

export function isEdge(
  { width, height, strength, normalX, normalY }: Edges,
  x: number,
  y: number,
  nx: number,
  ny: number,
) {
  const [left, top] = [Math.round(x), Math.round(y)];
  if (left < 1 || top < 1 || left > width - 2 || top > height - 2) return false;
  const at = top * width + left;
  return strength[at] > 0 && Math.abs(normalX[at] * nx + normalY[at] * ny) > ALONG;
}

export function stripOf(edges: Edges, quad: Quad, side: number): Strip {
  const [before, outerFrom, outerTo, after] = [3, 0, 1, 2].map((by) => quad[(side + by) % 4]);
  // A side that runs out of the picture ends at the border; one that lies beyond it is looked for further in.
  const isBeyond = isOutside(edges, outerFrom) && isOutside(edges, outerTo);
  const from = insideOf(edges, isBeyond ? before : outerTo, outerFrom);
  const to = insideOf(edges, isBeyond ? after : outerFrom, outerTo);
  const reach = Math.max(LEAST_REACH, REACH * Math.min(distance(before, from), distance(after, to)));
  const step = reach / STEPS;
  const out = (a: Point, b: Point): Point => {
    const long = distance(a, b) || 1;
    return [((b[0] - a[0]) / long) * step, ((b[1] - a[1]) / long) * step];
  };
  const [outFrom, outTo] = [out(before, from), out(after, to)];
  const at = (column: number, steps: number): Point => {
    const t = column / COLUMNS;
    return [0, 1].map((axis) => {
      const start = from[axis] + steps * outFrom[axis];
      return start + t * (to[axis] + steps * outTo[axis] - start);
    }) as Point;
  };
  const long = distance(from, to) || 1;
  const [nx, ny] = [(from[1] - to[1]) / long, (to[0] - from[0]) / long];
  const hits = new Uint8Array(COLUMNS * ACROSS);
  let seen = 0;
  for (let column = 0; column < COLUMNS; column++) {
    let inside = false;
    for (let steps = -STEPS; steps <= STEPS; steps++) {
      const [x, y] = at(column + 0.5, steps);
      inside ||= x > 1 && y > 1 && x < edges.width - 2 && y < edges.height - 2;
      // An edge a pixel off is one, as when sides are weighed.
      for (const off of [-1, 0, 1])
        if (isEdge(edges, x + off * nx, y + off * ny, nx, ny)) hits[column * ACROSS + steps + STEPS] = 1;
    }
    if (inside) seen++;
  }
  return { hits, at, seen: Math.max(1, seen), slope: (step * COLUMNS) / long };
}

/** How many columns of a strip are hit by the line from one column and step to another. */
export function hitsOn({ hits }: Strip, from: number, low: number, to: number, high: number): number {
  const rise = (high - low) / (to - from);
  let [sum, step] = [0, low + rise / 2 + STEPS + 0.5];
  for (let at = from * ACROSS; at < to * ACROSS; at += ACROSS, step += rise) sum += hits[at + (step | 0)];
  return sum;
}

const isOutside = ({ width, height }: Edges, [x, y]: Point) => x < 1 || y < 1 || x > width - 2 || y > height - 2;

/** The end of a line, or where it leaves the picture. */
function insideOf({ width, height }: Edges, from: Point, to: Point): Point {
  const [x, y] = [0, 1].map((axis) => {
    const [start, end, last] = [from[axis], to[axis], [width, height][axis] - 2];
    // Along the border of the picture it doesn't leave it.
    if ((end >= 1 && end <= last) || Math.min(start, end) > last || Math.max(start, end) < 1) return 1;
    return Math.max(0.5, ((end < 1 ? 1 : last) - start) / (end - start || 1));
  });
  const share = Math.min(1, x, y);
  return [from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1])];
}

export interface Fit {
  /** Share of the columns hit. */
  held: number;
  from: number;
  to: number;
}

export function straightFit(strip: Strip): Fit {
  const within = (steps: number): Fit => {
    let best: Fit = { held: -1, from: 0, to: 0 };
    for (let from = -steps; from <= steps; from++) {
      for (let to = -steps; to <= steps; to++) {
        const held = hitsOn(strip, 0, from, COLUMNS, to) / strip.seen;
        if (held > best.held) best = { held, from, to };
      }
    }
    return best;
  };
  // Mostly it is where it was found.
  const near = within(4);
  return near.held > STRAIGHT ? near : within(STEPS);
}

/** A side as it was looked at, and the straight line in it with the most edge. */
export interface SeenSide {
  strip: Strip;
  straight: Fit;
}

/** The four sides of a quad, looked at. */
export const seenSides = (edges: Edges, quad: Quad): SeenSide[] =>
  [0, 1, 2, 3].map((side) => {
    const strip = stripOf(edges, quad, side);
    return { strip, straight: straightFit(strip) };
  });
