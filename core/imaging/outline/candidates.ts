import { area, isConvex, ordered, Point, Quad } from '../quad';
import { crossing } from './lines';
import { stretch, Support } from './support';

export interface Candidate {
  corners: Quad;
  /** From 0 to about 1. */
  score: number;
  /** From 0 to 1: how much looks as if the sheet went on beyond one of the sides, as when that is a printed rule. */
  cut: number;
}

/** The least that a sheet takes of the picture, and its shortest side of the picture's longer one. */
const LEAST_AREA = 0.015;
const SHORTEST_SIDE = 0.05;
/** How far a corner may lie outside, as a share of the picture. */
const MOST_OUTSIDE = 0.3;
/** How far from parallel opposite sides may be, in radians, and from a right angle neighbouring ones. */
const MOST_TAPER = 0.7;
const MOST_SLANT = 0.75;
/** How much of a side is looked at before its corners, where there should be an edge, and beyond them, where none should go on. */
const BEYOND = 0.14;
/** What the picture's own border counts as: neither for nor against. */
const BORDER_EDGE = 0.5;
const BORDER_CONTRAST = 0.35;

/** Quads made of four lines, with how much speaks for each being a sheet; the best ones, best first. */
export function quadsOf(supports: Support[], width: number, height: number, most: number): Candidate[] {
  const pairs: [Support, Support][] = [];
  for (let i = 0; i < supports.length; i++) {
    for (let j = i + 1; j < supports.length; j++) {
      if (turnBetween(supports[i].line.angle, supports[j].line.angle) < MOST_TAPER)
        pairs.push([supports[i], supports[j]]);
    }
  }
  const best: Candidate[] = [];
  let worst = -Infinity;
  for (let i = 0; i < pairs.length; i++) {
    for (let j = i + 1; j < pairs.length; j++) {
      const [[a, b], [c, d]] = [pairs[i], pairs[j]];
      if (Math.PI / 2 - turnBetween(a.line.angle, c.line.angle) > MOST_SLANT) continue;
      const corners = cornersOf(a, c, b, d, width, height);
      if (!corners) continue;
      const { score, cut } = weigh(corners, [a, c, b, d], width, height);
      if (best.length >= most * 4 && score <= worst) continue;
      best.push({ corners, score, cut });
      if (best.length >= most * 8) {
        best.sort((x, y) => y.score - x.score);
        best.length = most * 4;
        worst = best[best.length - 1].score;
      }
    }
  }
  return best
    .sort((x, y) => y.score - x.score)
    .slice(0, most)
    .map((candidate) => ({ ...candidate, corners: ordered(candidate.corners) }));
}

/** The angle between two lines, from 0 to π/2. */
function turnBetween(a: number, b: number): number {
  const between = Math.abs(a - b) % Math.PI;
  return Math.min(between, Math.PI - between);
}

/** The corners between consecutive sides, each corner the end of the side of the same number. */
function cornersOf(a: Support, b: Support, c: Support, d: Support, width: number, height: number): Quad | undefined {
  const corners: Point[] = [];
  for (const [one, other] of [
    [d, a],
    [a, b],
    [b, c],
    [c, d],
  ]) {
    const point = crossing(one.line, other.line);
    if (!point) return undefined;
    const [x, y] = point;
    if (x < -MOST_OUTSIDE * width || x > (1 + MOST_OUTSIDE) * width) return undefined;
    if (y < -MOST_OUTSIDE * height || y > (1 + MOST_OUTSIDE) * height) return undefined;
    corners.push(point);
  }
  const shortest = SHORTEST_SIDE * Math.max(width, height);
  for (let side = 0; side < 4; side++) {
    const [p, q] = [corners[side], corners[(side + 1) % 4]];
    if (Math.hypot(q[0] - p[0], q[1] - p[1]) < shortest) return undefined;
  }
  if (!isConvex(corners) || Math.abs(area(corners)) < LEAST_AREA * width * height) return undefined;
  return corners as Quad;
}

function weigh(corners: Quad, sides: Support[], width: number, height: number): { score: number; cut: number } {
  const [after, before, contrastAt] = [new Float32Array(4), new Float32Array(4), new Float32Array(4)];
  const middleX = (corners[0][0] + corners[1][0] + corners[2][0] + corners[3][0]) / 4;
  const middleY = (corners[0][1] + corners[1][1] + corners[2][1] + corners[3][1]) / 4;
  let [edges, contrasts, lighters, beyond, missing, weakest, palest, weights] = [0, 0, 0, 0, 0, 1, 1, 0];
  for (let number = 0; number < 4; number++) {
    const side = sides[number];
    const [from, to] = [corners[number], corners[(number + 1) % 4]];
    const weight = 0.6 + Math.hypot(to[0] - from[0], to[1] - from[1]) / (width + height);
    let [edge, contrast, lighter] = [BORDER_EDGE, BORDER_CONTRAST, 0];
    if (!side.line.border) {
      const found = stretch(side, from, to);
      const visible = found.length > 0 ? found.inside / found.length : 0;
      // What lies outside the picture counts as the border does.
      edge = visible * found.edge + (1 - visible) * BORDER_EDGE;
      contrast = visible * found.contrast + (1 - visible) * BORDER_CONTRAST;
      const inwards =
        Math.sign((middleX - from[0]) * Math.cos(side.line.angle) + (middleY - from[1]) * Math.sin(side.line.angle)) ||
        1;
      lighter = visible * found.lighter * inwards;
      const [dx, dy] = [(to[0] - from[0]) * BEYOND, (to[1] - from[1]) * BEYOND];
      after[number] = goesOn(side, to, [to[0] + dx, to[1] + dy]);
      before[number] = goesOn(side, [from[0] - dx, from[1] - dy], from);
      beyond += after[number] + before[number];
      missing += lacking(side, [to[0] - dx, to[1] - dy], to) + lacking(side, from, [from[0] + dx, from[1] + dy]);
    }
    contrastAt[number] = contrast;
    edges += weight * edge;
    contrasts += weight * contrast;
    lighters += weight * lighter;
    weights += weight;
    weakest = Math.min(weakest, edge);
    palest = Math.min(palest, contrast);
  }
  const share = Math.min(1, Math.abs(area(corners)) / (width * height));
  const score =
    0.4 * (edges / weights) +
    0.2 * weakest +
    0.14 * (contrasts / weights) +
    0.12 * palest +
    0.14 * (lighters / weights) -
    0.045 * beyond -
    0.03 * missing +
    0.1 * Math.sqrt(share);
  // Both neighbours go on beyond a side across which little changes.
  const cuts = contrastAt.map(
    (contrast, side) => Math.min(after[(side + 3) % 4], before[(side + 1) % 4]) * (1 - contrast),
  );
  return { score, cut: Math.max(...cuts) };
}

/** How much of an edge there is along a stretch beyond a corner; nothing is known of what lies outside the picture. */
function goesOn(side: Support, from: Point, to: Point): number {
  const { inside, length, edge } = stretch(side, from, to);
  return length > 0 ? (edge * inside) / length : 0;
}

/** How much of a stretch that leads to a corner has no edge. */
function lacking(side: Support, from: Point, to: Point): number {
  const { inside, length, edge } = stretch(side, from, to);
  return length > 0 ? ((1 - edge) * inside) / length : 0;
}
