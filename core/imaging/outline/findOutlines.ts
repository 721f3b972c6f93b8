import { area, clip, ordered, Quad, scaleQuad, wholeQuad } from '../quad';
import { Raster, shrink } from '../raster';
import { Candidate, quadsOf } from './candidates';
import { findEdges, opponentColours } from './edges';
import { Line, sidesOf, straightLines } from './lines';
import { refineQuad } from './refine';
import { lightRegions } from './regions';
import { supportOf } from './support';

export interface Outline {
  /** In pixels of the picture, clockwise from the upper left; a corner may lie outside the picture. */
  corners: Quad;
  /** From 0 to 1: the chance that this is a sheet and its outline right. */
  confidence: number;
}

/** Sizes (longer side, pixels) at which sheets are sought and at which their sides are placed. */
const SEEK = 448;
const PLACE = 1600;
const MOST_LINES = 30;
const MOST_CANDIDATES = 60;
/** How good a candidate must be, and how good beside the best one, to count as another sheet. */
const LEAST_SCORE = 0.5;
const BESIDE_BEST = 0.82;
/** How much of a further sheet may lie on one found before. */
const MOST_COMMON = 0.12;
const MOST_SHEETS = 8;

/**
 * Finds the sheets of paper in a photo. Candidates come from straight edges and from light regions; each is weighed by the
 * edge along its sides, by how the colour differs across them, by lines that go on beyond its corners (a plank's do, a
 * sheet's don't) and by its size; the best are placed to fractions of a pixel in a larger picture.
 * @returns the most convincing first; empty when nothing looks like a sheet
 */
export function findOutlines(picture: Raster, { most = MOST_SHEETS } = {}): Outline[] {
  const small = shrink(picture, SEEK);
  const candidates = seek(small);
  const chosen: Candidate[] = [];
  for (const candidate of candidates) {
    const best = chosen[0];
    if (chosen.length === most || candidate.score < LEAST_SCORE) break;
    if (best && candidate.score < BESIDE_BEST * best.score) break;
    if (chosen.every((other) => common(other.corners, candidate.corners) < MOST_COMMON)) chosen.push(candidate);
  }
  const placing = shrink(picture, PLACE);
  const scale = placing.width / small.width;
  const outlines = chosen.map(({ corners, score }) => {
    const roughly = scaleQuad(corners, scale);
    const first = refineQuad(placing, roughly, Math.max(4, Math.ceil(2.2 * scale)));
    const second = refineQuad(placing, first.corners, Math.max(3, Math.ceil(1.1 * scale)));
    const held = second.held.reduce((sum, each) => sum + each, 0) / 4;
    return {
      corners: ordered(scaleQuad(second.corners, picture.width / placing.width)),
      confidence: sureness(score, held),
    };
  });
  return outlines;
}

function seek(small: Raster): Candidate[] {
  const { width, height } = small;
  const colours = opponentColours(small);
  const edges = findEdges(colours);
  const lines: Line[] = [...borders(width, height), ...straightLines(edges, MOST_LINES)];
  for (const side of lightRegions(colours).flatMap(sidesOf)) {
    if (!lines.some((other) => nearlySame(side, other))) lines.push(side);
  }
  const supports = lines.map((line) => supportOf(line, edges, colours));
  // A line without any edge along it is no side of anything.
  const worth = supports.filter(({ line, edge }) => line.border || edge[edge.length - 1] > 0.04 * (width + height));
  return quadsOf(worth, width, height, MOST_CANDIDATES);
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

function sureness(score: number, held: number): number {
  const weighed = 9 * (score - 0.62) + 3 * (held - 0.5);
  return 1 / (1 + Math.exp(-weighed));
}
