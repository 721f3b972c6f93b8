import { area, clip, distance, isConvex, Point, Quad } from '../quad';
import { Edges } from './edges';
import { crossing, Line, lineThrough } from './lines';
import { edgeBetween } from './sideSearch';

/** How much of an edge there is, at least, along the side of a sheet that lies on another one, and at its two ends. */
const ALONG = 0.72;
const AT_ENDS = 0.4;
const END = 0.1;
/** How wide the strip of the other sheet is, as a share of the whole, where it is widest. */
const [NARROWEST, WIDEST] = [0.035, 0.5];
/** Less edge than this along an end of the strip: nothing ends there. */
const LACKING = 0.5;
const HELD = 0.55;
const MOST_STRIPS = 3;

/**
 * The topmost sheet, when a quad takes in a strip of a sheet under it: an edge goes through it from side to side, and at an
 * end of the strip beyond that edge the quad's own side has none (at a fold it has; and lines of print leave a margin).
 * @param lines where edges may be
 */
export function topmost(edges: Edges, quad: Quad, lines: Line[]): Quad {
  let result = quad;
  for (let strip = 0; strip < MOST_STRIPS; strip++) {
    const without = withoutStrip(edges, result, lines);
    if (!without) break;
    result = without;
  }
  return result;
}

function withoutStrip(edges: Edges, quad: Quad, lines: Line[]): Quad | undefined {
  let best: { quad: Quad; gain: number } | undefined;
  for (const line of lines) {
    if (line.border) continue;
    for (const side of [0, 1]) {
      const [a, b, c, d] = [0, 1, 2, 3].map((by) => quad[(side + by) % 4]);
      // The line meets the sides a–b and d–c; beyond it lies a–d or b–c.
      const [p, q] = [crossing(line, lineThrough(a, b)), crossing(line, lineThrough(d, c))];
      if (!p || !q) continue;
      const [atP, atQ] = [shareAlong(a, b, p), shareAlong(d, c, q)];
      for (const [first, stripP, stripQ] of [
        [true, atP, atQ],
        [false, 1 - atP, 1 - atQ],
      ] as const) {
        if (Math.min(stripP, stripQ) < -0.02 || Math.max(stripP, stripQ) > WIDEST) continue;
        if (Math.max(stripP, stripQ) < NARROWEST) continue;
        const along = edgeBetween(edges, p, q);
        if (along < ALONG || edgeBetween(edges, p, between(p, q, END)) < AT_ENDS) continue;
        if (edgeBetween(edges, between(p, q, 1 - END), q) < AT_ENDS) continue;
        const [outerP, outerQ, innerP, innerQ] = first ? [a, d, b, c] : [b, c, a, d];
        if (edgeBetween(edges, p, innerP) < HELD || edgeBetween(edges, q, innerQ) < HELD) continue;
        const ends = [
          stripP > NARROWEST ? edgeBetween(edges, outerP, p) : 1,
          stripQ > NARROWEST ? edgeBetween(edges, outerQ, q) : 1,
        ];
        const lacking = Math.min(...ends);
        if (lacking >= LACKING) continue;
        const corners: Point[] = first ? [p, b, c, q] : [a, p, q, d];
        const gain = along - lacking;
        if (isConvex(corners) && (!best || gain > best.gain)) best = { quad: corners as Quad, gain };
      }
    }
  }
  return best?.quad;
}

/** A side that is no further off than this share of the quad's longest side is the same. */
const SAME_SIDE = 0.03;
/** How much less convincing than the pile a sheet on top of it may be, by itself. */
const LESS = 0.16;
const SMALLEST = 0.45;
const LEAST_INNER = 0.62;
const MEAN_INNER = 0.8;

/**
 * Leaves out candidates that are a sheet together with others of which two or more sides show from under it: another
 * candidate lies in them, shares a side or two, and its other sides have an edge from end to end. That one takes their rank.
 */
export function withoutPiles<Each extends { corners: Quad; score: number }>(edges: Edges, candidates: Each[]): Each[] {
  const piles = new Set<Each>();
  const raised = candidates.map((candidate) => {
    const pile = candidates.find(
      (other) =>
        other !== candidate && other.score - candidate.score < LESS && liesOn(edges, candidate.corners, other.corners),
    );
    if (!pile) return candidate;
    piles.add(pile);
    return { ...candidate, score: Math.max(candidate.score, pile.score) };
  });
  return raised.filter((_, index) => !piles.has(candidates[index])).sort((a, b) => b.score - a.score);
}

function liesOn(edges: Edges, top: Quad, pile: Quad): boolean {
  const [own, whole] = [Math.abs(area(top)), Math.abs(area(pile))];
  if (own > 0.985 * whole || own < SMALLEST * whole) return false;
  if (Math.abs(area(clip(top, pile))) < 0.97 * own) return false;
  const inner = ownSides(top, pile);
  if (inner.length < 2 || inner.length === 4) return false;
  const held = inner.map((side) => {
    const [from, to] = [top[side], top[(side + 1) % 4]];
    const ends = [edgeNear(edges, from, between(from, to, END)), edgeNear(edges, between(from, to, 1 - END), to)];
    return Math.min(...ends) < AT_ENDS ? 0 : edgeNear(edges, from, to);
  });
  return Math.min(...held) >= LEAST_INNER && held.reduce((sum, each) => sum + each, 0) / held.length >= MEAN_INNER;
}

/** The sides of a quad that do not lie on a side of another one. */
export function ownSides(quad: Quad, other: Quad): number[] {
  const far = SAME_SIDE * Math.max(...other.map((corner, side) => distance(corner, other[(side + 1) % 4])));
  return [0, 1, 2, 3].filter((side) => {
    const [from, to] = [quad[side], quad[(side + 1) % 4]];
    return !other.some((corner, at) => {
      const line = lineThrough(corner, other[(at + 1) % 4]);
      return awayFrom(line, from) < far && awayFrom(line, to) < far;
    });
  });
}

/** The most edge between two points when each may be off by a pixel or two. */
function edgeNear(edges: Edges, [ax, ay]: Point, [bx, by]: Point): number {
  const length = Math.hypot(bx - ax, by - ay) || 1;
  const [nx, ny] = [(ay - by) / length, (bx - ax) / length];
  let most = 0;
  for (const one of [-1.5, 0, 1.5]) {
    for (const other of [-1.5, 0, 1.5]) {
      const share = edgeBetween(edges, [ax + one * nx, ay + one * ny], [bx + other * nx, by + other * ny]);
      most = Math.max(most, share);
    }
  }
  return most;
}

function awayFrom({ angle, offset }: Line, [x, y]: Point): number {
  return Math.abs(x * Math.cos(angle) + y * Math.sin(angle) - offset);
}

function between([ax, ay]: Point, [bx, by]: Point, share: number): Point {
  return [ax + share * (bx - ax), ay + share * (by - ay)];
}

/** Where a point on the line through two others lies: 0 at the first, 1 at the second. */
function shareAlong(a: Point, b: Point, point: Point): number {
  const length = distance(a, b);
  return ((point[0] - a[0]) * (b[0] - a[0]) + (point[1] - a[1]) * (b[1] - a[1])) / (length * length);
}
