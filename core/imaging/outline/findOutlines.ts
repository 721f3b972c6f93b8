import { area, clip, distance, ordered, Quad, scaleQuad, wholeQuad } from '../quad';
import { Raster, shrink } from '../raster';
import { Candidate, quadsOf } from './candidates';
import { Edges, findEdges, Opponent, opponentColours } from './edges';
import { Line, sidesOf, straightLines } from './lines';
import { refineQuad } from './refine';
import { lightRegions } from './regions';
import { otherSides } from './sideSearch';
import { Support, supportOf } from './support';

export interface Outline {
  /** In pixels of the picture, clockwise from the upper left; a corner may lie outside the picture. */
  corners: Quad;
  /** From 0 to 1: the chance that this is a sheet and its outline right. */
  confidence: number;
}

/** Sizes (longer side, pixels) at which sheets are sought and at which their sides are placed. */
const SEEK = 448;
const SEEK_QUICKLY = 288;
const PLACE = 1600;
const MOST_LINES = 30;
const MOST_LINES_QUICKLY = 18;
const LEAST_EDGE = 0.04;
/** Of so many of the best candidates, each side is sought in other places too. */
const MOST_SEARCHED = 6;
const MOST_CANDIDATES = 400;
/** So many of the best, each unlike those before it, are placed and weighed again. */
const MOST_PLACED = 14;
const MOST_PLACED_QUICKLY = 4;
/** Quads are alike when no corner is further off than this share of the picture. */
const ALIKE = 0.03;
/** How good a sheet must be, and how good and how large beside the best one, to count as another sheet. */
const LEAST_SCORE = 0.62;
const BESIDE_BEST = 0.8;
const LEAST_BESIDE = 0.2;
/** How much of a further sheet may lie on one found before. */
const MOST_COMMON = 0.12;
const MOST_SHEETS = 8;
/** How much the paper may differ from that of the sheet beside it in tint, and in brightness (logarithm): light falls off. */
const SAME_TINT = 0.045;
const SAME_LIGHT = 0.8;

interface Placed extends Candidate {
  /** For each side, the share of places where a step was found on it. */
  held: number[];
}

/**
 * Finds the sheets of paper in a photo. Candidates come from straight edges and from light regions; each is weighed by the
 * edge along its sides, by how the colour differs across them, by lines that go on beyond its corners (a plank's do, a
 * sheet's don't) and by its size; the best are placed to fractions of a pixel in a larger picture and weighed again.
 * @param quick for a live picture: fewer candidates are placed
 * @returns the most convincing first; empty when nothing looks like a sheet
 */
export function findOutlines(picture: Raster, { most = MOST_SHEETS, quick = false } = {}): Outline[] {
  const placing = shrink(picture, PLACE);
  const small = shrink(placing, quick ? SEEK_QUICKLY : SEEK);
  const scale = placing.width / small.width;
  const placed: Placed[] = [];
  for (const { corners, score, cut } of unlike(seek(small, quick), quick ? MOST_PLACED_QUICKLY : MOST_PLACED)) {
    const first = refineQuad(placing, scaleQuad(corners, scale), Math.max(4, Math.ceil(2.2 * scale)));
    const second = refineQuad(placing, first.corners, Math.max(3, Math.ceil(1.1 * scale)));
    const { held } = second;
    const weakest = Math.min(...held);
    const mean = held.reduce((sum, each) => sum + each, 0) / 4;
    placed.push({ corners: second.corners, held, cut, score: score + 0.15 * (mean - 0.7) + 0.15 * (weakest - 0.5) });
  }
  placed.sort((a, b) => b.score - a.score);
  const chosen: Placed[] = [];
  for (const candidate of placed) {
    if (chosen.length === most || candidate.score < LEAST_SCORE) break;
    if (chosen.length === 0 || isAnother(candidate, chosen, placing)) chosen.push(candidate);
  }
  return chosen.map(({ corners, score, cut, held }) => ({
    corners: ordered(scaleQuad(corners, picture.width / placing.width)),
    confidence: sureness(score, Math.min(...held), cut),
  }));
}

/** The best candidates, leaving out those that are nearly the same as a better one. */
function unlike(candidates: Candidate[], most: number): Candidate[] {
  const leastApart = ALIKE * SEEK;
  const kept: Candidate[] = [];
  for (const candidate of candidates) {
    if (kept.length === most) break;
    if (kept.every((other) => apart(other.corners, candidate.corners) > leastApart)) kept.push(candidate);
  }
  return kept;
}

/** How far the corner that differs most has moved. */
function apart(a: Quad, b: Quad): number {
  return Math.max(...a.map((corner, index) => distance(corner, b[index])));
}

/** Whether a candidate is a sheet of its own beside those chosen: clear of them, of a like size and paper. */
function isAnother(candidate: Placed, chosen: Placed[], picture: Raster): boolean {
  const [best] = chosen;
  if (candidate.score < BESIDE_BEST * best.score || area(candidate.corners) < LEAST_BESIDE * area(best.corners))
    return false;
  if (Math.min(...candidate.held) < 0.55) return false;
  if (chosen.some((other) => common(other.corners, candidate.corners) >= MOST_COMMON)) return false;
  const [paper, other] = [paperColour(picture, best.corners), paperColour(picture, candidate.corners)];
  const [light, otherLight] = [paper, other].map((colour) => colour[0] + colour[1] + colour[2] + 1);
  const tint = Math.hypot(...paper.map((value, channel) => value / light - other[channel] / otherLight));
  return tint < SAME_TINT && Math.abs(Math.log(light / otherLight)) < SAME_LIGHT;
}

/** The colour that most of a quad has: the median of each channel over a grid. */
function paperColour({ width, height, channels, data }: Raster, quad: Quad): number[] {
  const values: number[][] = [[], [], []];
  const across = 24;
  for (let i = 1; i < across; i++) {
    for (let j = 1; j < across; j++) {
      const [u, v] = [i / across, j / across];
      const weigh = (axis: 0 | 1) =>
        (1 - v) * ((1 - u) * quad[0][axis] + u * quad[1][axis]) + v * ((1 - u) * quad[3][axis] + u * quad[2][axis]);
      const [x, y] = [Math.round(weigh(0)), Math.round(weigh(1))];
      if (x < 0 || y < 0 || x >= width || y >= height) continue;
      for (let channel = 0; channel < 3; channel++)
        values[channel].push(data[(y * width + x) * channels + (channels === 1 ? 0 : channel)]);
    }
  }
  return values.map((each) => each.sort((a, b) => a - b)[each.length >> 1] ?? 0);
}

function seek(small: Raster, quick: boolean): Candidate[] {
  const { width, height } = small;
  const colours = opponentColours(small);
  const edges = findEdges(colours);
  const supports = new Pool(edges, colours);
  borders(width, height).forEach((line) => supports.add(line));
  straightLines(edges, quick ? MOST_LINES_QUICKLY : MOST_LINES).forEach((line) => supports.add(line));
  lightRegions(colours)
    .flatMap(sidesOf)
    .forEach((line) => supports.add(line));
  const first = quadsOf(supports.all, width, height, quick ? MOST_CANDIDATES / 4 : MOST_CANDIDATES);
  if (first.length === 0) return [];
  const before = supports.all.length;
  for (const { corners } of unlike(first, quick ? 1 : MOST_SEARCHED)) {
    otherSides(edges, corners).forEach((line) => supports.add(line));
  }
  if (supports.all.length === before) return first;
  return quadsOf(supports.all, width, height, quick ? MOST_CANDIDATES / 4 : MOST_CANDIDATES);
}

/** The lines that may be sides, each once, with what speaks for them. */
class Pool {
  readonly all: Support[] = [];

  constructor(
    private readonly edges: Edges,
    private readonly colours: Opponent,
  ) {}

  add(line: Line): void {
    if (this.all.some((other) => nearlySame(line, other.line))) return;
    const support = supportOf(line, this.edges, this.colours);
    // A line without any edge along it is no side of anything.
    const { edge } = support;
    if (line.border || edge[edge.length - 1] > LEAST_EDGE * (this.edges.width + this.edges.height))
      this.all.push(support);
  }
}

function borders(width: number, height: number): Line[] {
  return sidesOf(wholeQuad(width - 1, height - 1)).map((line) => ({ ...line, border: true }));
}

function nearlySame(a: Line, b: Line): boolean {
  const between = Math.abs(a.angle - b.angle);
  if (Math.PI - between < 0.03) return Math.abs(a.offset + b.offset) < 3;
  return between < 0.03 && Math.abs(a.offset - b.offset) < 3;
}

/** How much of the smaller of two quads lies in the other. */
function common(a: Quad, b: Quad): number {
  const shared = clip(a, b);
  return shared.length < 3 ? 0 : area(shared) / Math.min(area(a), area(b));
}

/** How sure an outline is, 0 to 1. The weights were set by hand while looking at made photos; they are not yet calibrated. */
function sureness(score: number, weakest: number, cut: number): number {
  return 1 / (1 + Math.exp(-(14 * (score - 0.72) + 3 * (weakest - 0.5) - 8 * Math.max(0, cut - 0.25))));
}
