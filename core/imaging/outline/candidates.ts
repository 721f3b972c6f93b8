import { ordered, Point, Quad } from '../quad';
import { crossing } from './lines';
import { Support } from './support';

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

/**
 * Quads made of four lines, with how much speaks for each being a sheet; the best ones, best first.
 * @param clearOf sheets on which the quads must not lie
 * @param leastEdge how much of an edge each side must have, at least, 0 to 1
 */
export function quadsOf(
  supports: Support[],
  width: number,
  height: number,
  most: number,
  { clearOf = [] as Quad[], leastEdge = 0 } = {},
): Candidate[] {
  const crossings = new Crossings(supports, width, height);
  const between = crossings.sidesBetween(leastEdge);
  const isPair = (i: number, j: number) => turnBetween(supports[i].line.angle, supports[j].line.angle) < MOST_TAPER;
  const count = supports.length;
  const best: Candidate[] = [];
  let worst = -Infinity;
  // Two lines c and d, and two of those that have an edge between them: a before c, so that each quad is made once.
  for (let c = 0; c < count; c++) {
    for (let d = c + 1; d < count; d++) {
      if (!isPair(c, d)) continue;
      const others = between.lines(c, d);
      for (let i = 0; i < others.length && others[i] < c; i++) {
        const a = others[i];
        if (Math.PI / 2 - turnBetween(supports[a].line.angle, supports[c].line.angle) > MOST_SLANT) continue;
        for (let j = i + 1; j < others.length; j++) {
          const b = others[j];
          if (!between.has(c, a, b) || !between.has(d, a, b) || !isPair(a, b)) continue;
          if (!crossings.makeQuad(a, c, b, d)) continue;
          if (clearOf.some((other) => crossings.liesOn(other))) continue;
          const { score, cut } = crossings.weigh();
          if (best.length >= most * 4 && score <= worst) continue;
          best.push({ corners: crossings.corners(), score, cut });
          if (best.length >= most * 8) {
            best.sort((x, y) => y.score - x.score);
            best.length = most * 4;
            worst = best[best.length - 1].score;
          }
        }
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

/**
 * Where lines cross, found once for every two of them, so that the many quads which they make are weighed without making
 * anything anew. One quad is in hand at a time.
 */
class Crossings {
  private readonly count: number;
  private readonly x: Float32Array;
  private readonly y: Float32Array;
  /** Place of the crossing along the first line of the two, in its samples. */
  private readonly place: Float32Array;
  private readonly good: Uint8Array;
  private readonly sides = new Int32Array(4);
  private readonly cornerX = new Float32Array(4);
  private readonly cornerY = new Float32Array(4);
  private readonly after = new Float32Array(4);
  private readonly before = new Float32Array(4);
  private readonly contrastAt = new Float32Array(4);
  private area = 0;

  constructor(
    private readonly supports: Support[],
    private readonly width: number,
    private readonly height: number,
  ) {
    const count = (this.count = supports.length);
    [this.x, this.y, this.place] = [0, 1, 2].map(() => new Float32Array(count * count));
    this.good = new Uint8Array(count * count);
    for (let i = 0; i < count; i++) {
      for (let j = 0; j < count; j++) {
        const point = i === j ? undefined : crossing(supports[i].line, supports[j].line);
        if (!point) continue;
        const [x, y] = point;
        if (x < -MOST_OUTSIDE * width || x > (1 + MOST_OUTSIDE) * width) continue;
        if (y < -MOST_OUTSIDE * height || y > (1 + MOST_OUTSIDE) * height) continue;
        const { foot, along, begin } = supports[i];
        const at = i * count + j;
        this.good[at] = 1;
        [this.x[at], this.y[at]] = [x, y];
        this.place[at] = (x - foot[0]) * along[0] + (y - foot[1]) * along[1] - begin;
      }
    }
  }

  /** Takes the quad of four lines in hand, each crossing the one before and the one after; false when it is no sheet's shape. */
  makeQuad(a: number, b: number, c: number, d: number): boolean {
    const { count, good, sides, cornerX, cornerY } = this;
    if (!good[d * count + a] || !good[a * count + b] || !good[b * count + c] || !good[c * count + d]) return false;
    [sides[0], sides[1], sides[2], sides[3]] = [a, b, c, d];
    const shortest = SHORTEST_SIDE * Math.max(this.width, this.height);
    for (let corner = 0; corner < 4; corner++) {
      const at = sides[(corner + 3) & 3] * count + sides[corner];
      cornerX[corner] = this.x[at];
      cornerY[corner] = this.y[at];
    }
    let [twice, turned] = [0, 0];
    for (let corner = 0; corner < 4; corner++) {
      const [next, over] = [(corner + 1) & 3, (corner + 2) & 3];
      const dx = cornerX[next] - cornerX[corner];
      const dy = cornerY[next] - cornerY[corner];
      if (dx * dx + dy * dy < shortest * shortest) return false;
      twice += cornerX[corner] * cornerY[next] - cornerX[next] * cornerY[corner];
      turned += dx * (cornerY[over] - cornerY[next]) - dy * (cornerX[over] - cornerX[next]) > 0 ? 1 : -1;
    }
    this.area = Math.abs(twice) / 2;
    // Convex: it turns the same way at every corner.
    return Math.abs(turned) === 4 && this.area >= LEAST_AREA * this.width * this.height;
  }

  /** Whether the middle of the quad in hand lies on another one, or the middle of that on it. */
  liesOn(other: Quad): boolean {
    const { cornerX, cornerY } = this;
    let [ownX, ownY, otherX, otherY] = [0, 0, 0, 0];
    for (let corner = 0; corner < 4; corner++) {
      ownX += cornerX[corner] / 4;
      ownY += cornerY[corner] / 4;
      otherX += other[corner][0] / 4;
      otherY += other[corner][1] / 4;
    }
    let [inOther, inOwn] = [0, 0];
    for (let corner = 0; corner < 4; corner++) {
      const next = (corner + 1) & 3;
      const [[ax, ay], [bx, by]] = [other[corner], other[next]];
      inOther += (bx - ax) * (ownY - ay) - (by - ay) * (ownX - ax) >= 0 ? 1 : -1;
      const [dx, dy] = [cornerX[next] - cornerX[corner], cornerY[next] - cornerY[corner]];
      inOwn += dx * (otherY - cornerY[corner]) - dy * (otherX - cornerX[corner]) >= 0 ? 1 : -1;
    }
    return Math.abs(inOther) === 4 || Math.abs(inOwn) === 4;
  }

  corners(): Quad {
    return [0, 1, 2, 3].map((corner): Point => [this.cornerX[corner], this.cornerY[corner]]) as Quad;
  }

  /** Which lines have so much of an edge, where it can be seen, between which two others that cross them. */
  sidesBetween(least: number): Between {
    const { supports, place, good, count } = this;
    const between = new Between(count);
    for (let side = 0; side < count; side++) {
      const { line, edge, inside } = supports[side];
      for (let c = 0; c < count; c++) {
        if (!good[side * count + c]) continue;
        const from = place[side * count + c];
        for (let d = c + 1; d < count; d++) {
          if (!good[side * count + d]) continue;
          const to = place[side * count + d];
          if (line.border || within(edge, from, to) >= least * within(inside, from, to)) between.add(side, c, d);
        }
      }
    }
    return between;
  }

  /** How much speaks for the quad in hand. */
  weigh(): { score: number; cut: number } {
    const { supports, sides, cornerX, cornerY, after, before, contrastAt, place, count } = this;
    const middleX = (cornerX[0] + cornerX[1] + cornerX[2] + cornerX[3]) / 4;
    const middleY = (cornerY[0] + cornerY[1] + cornerY[2] + cornerY[3]) / 4;
    let [edges, contrasts, lighters, beyond, missing, weakest, palest, weights] = [0, 0, 0, 0, 0, 1, 1, 0];
    for (let number = 0; number < 4; number++) {
      const side = supports[sides[number]];
      const next = (number + 1) & 3;
      const from = place[sides[number] * count + sides[(number + 3) & 3]];
      const to = place[sides[number] * count + sides[next]];
      const length = Math.abs(to - from);
      const weight = 0.6 + length / (this.width + this.height);
      let [edge, contrast, lighter] = [BORDER_EDGE, BORDER_CONTRAST, 0];
      after[number] = before[number] = 0;
      if (!side.line.border) {
        const inside = within(side.inside, from, to);
        const visible = length > 0 ? inside / length : 0;
        const share = inside > 0 ? visible / inside : 0;
        // What lies outside the picture counts as the border does.
        edge = share * within(side.edge, from, to) + (1 - visible) * BORDER_EDGE;
        contrast = share * within(side.contrast, from, to) + (1 - visible) * BORDER_CONTRAST;
        const { angle } = side.line;
        const inwards =
          Math.sign((middleX - cornerX[number]) * Math.cos(angle) + (middleY - cornerY[number]) * Math.sin(angle)) || 1;
        lighter = share * within(side.lighter, from, to) * inwards;
        const reach = (to - from) * BEYOND;
        after[number] = goesOn(side, to, to + reach);
        before[number] = goesOn(side, from - reach, from);
        beyond += after[number] + before[number];
        missing += lacking(side, to - reach, to) + lacking(side, from, from + reach);
      }
      contrastAt[number] = contrast;
      edges += weight * edge;
      contrasts += weight * contrast;
      lighters += weight * lighter;
      weights += weight;
      weakest = Math.min(weakest, edge);
      palest = Math.min(palest, contrast);
    }
    const share = Math.min(1, this.area / (this.width * this.height));
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
    let cut = 0;
    for (let side = 0; side < 4; side++)
      cut = Math.max(cut, Math.min(after[(side + 3) & 3], before[(side + 1) & 3]) * (1 - contrastAt[side]));
    return { score, cut };
  }
}

/** For every two lines, those that may be a side between them. */
class Between {
  private readonly known: Uint8Array;
  private readonly listed: number[][];

  constructor(private readonly count: number) {
    this.known = new Uint8Array(count * count * count);
    this.listed = Array.from({ length: count * count }, () => []);
  }

  /** @param c the lower number of the two lines, d the higher one */
  add(side: number, c: number, d: number): void {
    this.known[(side * this.count + c) * this.count + d] = 1;
    this.listed[c * this.count + d].push(side);
  }

  has(side: number, c: number, d: number): boolean {
    return this.known[(side * this.count + c) * this.count + d] === 1;
  }

  /** In the order of their numbers. */
  lines(c: number, d: number): number[] {
    return this.listed[c * this.count + d];
  }
}

/** What a running sum grows by between two places. */
function within(sums: Float32Array, from: number, to: number): number {
  const last = sums.length - 1;
  const one = from <= 0 ? 0 : from >= last ? last : (from + 0.5) | 0;
  const other = to <= 0 ? 0 : to >= last ? last : (to + 0.5) | 0;
  return one < other ? sums[other] - sums[one] : sums[one] - sums[other];
}

/** How much of an edge there is along a stretch beyond a corner; nothing is known of what lies outside the picture. */
function goesOn(side: Support, from: number, to: number): number {
  return from === to ? 0 : within(side.edge, from, to) / Math.abs(to - from);
}

/** How much of a stretch that leads to a corner has no edge. */
function lacking(side: Support, from: number, to: number): number {
  return from === to ? 0 : (within(side.inside, from, to) - within(side.edge, from, to)) / Math.abs(to - from);
}
