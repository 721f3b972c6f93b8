import { Point, Quad } from '../quad';
import { Edges } from './edges';
import { Line, lineThrough } from './lines';

const STEPS = 64;
const SAMPLES = 40;
/** How much further one end of a side may be along than the other, in steps. */
const MOST_SLOPE = 4;
const KEPT = 3;
/** The least share of a side, from one neighbour to the other, on which there is an edge. */
const LEAST_EDGE = 0.5;
const TURNED = 0.93;

/**
 * Other places where each side of a quad may be, between the same neighbours: the straight edges that reach all the way from
 * one neighbouring side to the other. Print leaves a margin, so its lines and rules don't; a faint edge of paper does, even
 * where a busy table has many stronger ones.
 * @param stride how many steps are taken at once: with 2 it is quicker and less thorough
 */
export function otherSides(edges: Edges, quad: Quad, stride = 1): Line[] {
  return [0, 1, 2, 3].flatMap((side) => {
    // Along the two neighbours, from the opposite side over this one and on to the end of the picture.
    const [from, to] = [quad[(side + 3) % 4], quad[(side + 2) % 4]];
    const [left, right] = [quad[side], quad[(side + 1) % 4]];
    const far = farthest(edges, from, left, to, right);
    const at = (a: Point, b: Point, step: number): Point => {
      const share = (far * step) / STEPS;
      return [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])];
    };
    const found: { step: number; share: number; line: Line }[] = [];
    for (let step = 6; step <= STEPS; step += stride) {
      for (let slope = -MOST_SLOPE; slope <= MOST_SLOPE; slope += stride) {
        const [a, b] = [at(from, left, step + slope / 2), at(to, right, step - slope / 2)];
        const share = edgeBetween(edges, a, b, LEAST_EDGE);
        if (share < LEAST_EDGE) continue;
        const near = found.find((other) => Math.abs(other.step - step) < 2);
        if (!near) found.push({ step, share, line: lineThrough(a, b) });
        else if (share > near.share) Object.assign(near, { step, share, line: lineThrough(a, b) });
      }
    }
    return found
      .sort((a, b) => b.share - a.share)
      .slice(0, KEPT)
      .map(({ line }) => line);
  });
}

/** How far, beside the length of the neighbours, one may go before leaving the picture. */
function farthest({ width, height }: Edges, from: Point, left: Point, to: Point, right: Point): number {
  let far = 3;
  for (const [a, b] of [
    [from, left],
    [to, right],
  ]) {
    for (const [start, end, size] of [
      [a[0], b[0], width],
      [a[1], b[1], height],
    ]) {
      if (Math.abs(end - start) < 1) continue;
      const limit = end > start ? (size * 1.05 - start) / (end - start) : (start + size * 0.05) / (start - end);
      if (limit > 0) far = Math.min(far, limit);
    }
  }
  return Math.max(1, far);
}

/**
 * The share of places between two points at which there is an edge in that direction; 0 where too little is to be seen, or where it is
 * less than what is wanted at the least.
 */
export function edgeBetween(
  { width, height, strength, normalX, normalY }: Edges,
  [ax, ay]: Point,
  [bx, by]: Point,
  least = 0,
): number {
  const length = Math.sqrt((bx - ax) * (bx - ax) + (by - ay) * (by - ay));
  if (length < 5) return 0;
  const nx = (ay - by) / length;
  const ny = (bx - ax) / length;
  const [right, bottom] = [width - 3, height - 3];
  const mostMissed = (1 - least) * SAMPLES;
  let [hits, seen] = [0, 0];
  for (let sample = 0; sample < SAMPLES; sample++) {
    const share = (sample + 0.5) / SAMPLES;
    const x = ax + share * (bx - ax);
    const y = ay + share * (by - ay);
    if (x < 2 || y < 2 || x > right || y > bottom) continue;
    seen++;
    let off = -1;
    for (; off <= 1; off++) {
      const at = ((y + off * ny + 0.5) | 0) * width + ((x + off * nx + 0.5) | 0);
      if (strength[at] > 0 && Math.abs(normalX[at] * nx + normalY[at] * ny) > TURNED) break;
    }
    if (off <= 1) hits++;
    else if (seen - hits > mostMissed) return 0;
  }
  return seen > SAMPLES / 2 ? hits / seen : 0;
}
