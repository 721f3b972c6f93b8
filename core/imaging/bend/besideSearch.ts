import { Edges } from '../outline/edges';
import { Line, lineThrough, straightLines } from '../outline/lines';
import { paperColour, SAME_TINT, tintApart } from '../outline/paper';
import { isPaperBeyond } from '../outline/wholes';
import { distance, isConvex, Point, Quad } from '../quad';
import { Raster } from '../raster';
import { Folding, SAME_FOLD, unlike } from './folding';
import { reversed } from './folds';
import { COLUMNS, isEdge, straightFit, stripOf } from './sideStrip';

/** How far beyond a found piece the outer side of another is, beside the size of that, and how aslant to it the sides from the fold run. */
const FURTHEST = 1.6;
const NEAREST = 0.06;
const MOST_ASLANT = 0.9;
/** Straight edges that are looked at, and of how many in about one direction: rules in tables are some. */
const MOST_LINES = 80;
const MOST_ALIKE = 20;
/** On so much of its sides an edge is seen. */
const LEAST_BESIDE = 0.6;
/** So many are tried beyond pieces that are beside each other. */
const MOST_FURTHER = 2;

/** Looks for pieces beside others: for straight edges that may be their outer sides, and where the sides from the fold meet them. */
export class BesideSearch {
  private lines: Line[] | undefined;

  constructor(
    private readonly small: Raster,
    private readonly edges: Edges,
  ) {}

  /** A quad, and what may be the piece beyond one of its sides. */
  beside(quad: Quad, side: number): Folding[] {
    const own = [3, 0, 1, 2].map((by) => quad[(side + by) % 4]) as Quad;
    return this.beyond(own).map(({ quad: piece, held }) => ({ held, pieces: [own, piece], isWhole: false }));
  }

  /** The same pieces and one more beyond the last one or the first. */
  further({ pieces, held }: Folding): Folding[] {
    return [pieces, reversed(pieces)].flatMap((each) => {
      const last = each[each.length - 1];
      const paper = paperColour(this.small, last);
      if (!isPaperBeyond(this.small, last, 1, paper, { inOtherLight: true })) return [];
      return this.beyond(last)
        .slice(0, MOST_FURTHER)
        .map((piece) => ({ pieces: [...each, piece.quad], held: Math.min(held, piece.held), isWhole: false }));
    });
  }

  /** What may be the piece beyond the second side of a quad, the likeliest first. */
  private beyond(own: Quad): { quad: Quad; held: number }[] {
    const [before, from, to, after] = own;
    const paper = paperColour(this.small, own);
    this.lines ??= straightLines(this.edges, MOST_LINES, MOST_ALIKE);
    const unit = Math.max(distance(from, to), distance(to, after));
    const found: { quad: Quad; held: number }[] = [];
    for (const line of this.lines) {
      const off = ([x, y]: Point) => x * Math.cos(line.angle) + y * Math.sin(line.angle) - line.offset;
      const [offFrom, offTo] = [off(from), off(to)];
      // It lies beyond the whole of the piece found, nearer to the fold than to the far side.
      if (offFrom * offTo <= 0 || offFrom * off(before) <= 0 || offTo * off(after) <= 0) continue;
      if (Math.abs(off(before)) < Math.abs(offFrom) || Math.abs(off(after)) < Math.abs(offTo)) continue;
      if (Math.max(Math.abs(offFrom), Math.abs(offTo)) > FURTHEST * unit) continue;
      if (Math.abs(offFrom + offTo) < NEAREST * unit) continue;
      const piece = outerSide(this.edges, line, from, to);
      if (piece.held >= LEAST_BESIDE && isConvex(piece.quad)) found.push(piece);
    }
    found.sort((a, b) => b.held - a.held);
    return unlike(found, ({ quad: [, end, otherEnd] }) => [end, otherEnd], SAME_FOLD * unit).filter(
      ({ quad }) => tintApart(paper, paperColour(this.small, quad)) < SAME_TINT,
    );
  }
}

/** The piece beyond a fold whose outer side lies on a line or near it, and on how much of its three sides there is an edge. */
function outerSide(edges: Edges, line: Line, from: Point, to: Point): { quad: Quad; held: number } {
  const ends = (on: Line): [Point, Point] => [bestEnd(edges, on, from), bestEnd(edges, on, to)];
  const rough: Quad = [from, ...ends(line), to];
  const strip = stripOf(edges, rough, 1);
  const fit = straightFit(strip);
  const [end, otherEnd] = ends(lineThrough(strip.at(0, fit.from), strip.at(COLUMNS, fit.to)));
  const sides: [Point, Point][] = [
    [from, end],
    [end, otherEnd],
    [otherEnd, to],
  ];
  const lengths = sides.map(([a, b]) => distance(a, b));
  const held = sides.reduce((sum, [a, b], at) => sum + lengths[at] * heldBetween(edges, a, b), 0);
  return { quad: [from, end, otherEnd, to], held: held / lengths.reduce((sum, each) => sum + each, 0) };
}

/** Where on a line the side from a corner ends: with the most edge on its way. */
function bestEnd(edges: Edges, { angle, offset }: Line, corner: Point): Point {
  const [nx, ny] = [Math.cos(angle), Math.sin(angle)];
  const off = offset - corner[0] * nx - corner[1] * ny;
  const foot: Point = [corner[0] + off * nx, corner[1] + off * ny];
  let best = { held: 0, end: foot };
  for (let along = 0; along <= Math.abs(off) * MOST_ASLANT; along += 1.5) {
    for (const sign of [-1, 1]) {
      const end: Point = [foot[0] - sign * along * ny, foot[1] + sign * along * nx];
      const held = heldBetween(edges, corner, end);
      if (held > best.held) best = { held, end };
    }
  }
  return best.end;
}

/** On how much of the way between two points there is an edge in that direction. */
function heldBetween(edges: Edges, [ax, ay]: Point, [bx, by]: Point): number {
  const long = Math.hypot(bx - ax, by - ay);
  if (long < 8) return 0;
  const [nx, ny] = [(ay - by) / long, (bx - ax) / long];
  let hits = 0;
  for (let sample = 0; sample < COLUMNS; sample++) {
    const t = (sample + 0.5) / COLUMNS;
    const [x, y] = [ax + t * (bx - ax), ay + t * (by - ay)];
    if ([-1, 0, 1].some((off) => isEdge(edges, x + off * nx, y + off * ny, nx, ny))) hits++;
  }
  return hits / COLUMNS;
}
