import { Edges, findEdges, opponentColours } from '../outline/edges';
import { crossing, Line } from '../outline/lines';
import { paperColour } from '../outline/paper';
import { refineSides } from '../outline/refine';
import { FoundRegion, RegionSearch } from '../outline/regionSearch';
import { isPaperBeyond } from '../outline/wholes';
import { distance, Point, Quad, scaleQuad } from '../quad';
import { greyOf, Raster, shrink } from '../raster';
import { BesideSearch } from './besideSearch';
import { BowedSides, bowedSides, scaledSides } from './bowedSides';
import { brokenSides, Light, piecesOf } from './brokenSides';
import { crossingNear, Folding, MOST_TRIED } from './folding';
import { Pieces } from './folds';
import { seenSides } from './sideStrip';
import { twiceBroken } from './twiceBroken';

/** Sizes (longer side, pixels) at which folds are sought and at which the sides of the pieces are placed. */
const SEEK = 640;
const PLACE = 1600;
/** A side with an edge on so much of it is straight. */
const CLEARLY_STRAIGHT = 0.85;
/** Parts of a side are in line when they are turned by less (radians); a fold is no nearer to an end of a side, as a share of it. */
const LEAST_ANGLE = 0.1;
const NEAR_END = 0.04;
/** How far off the lines found the edges are looked for, in pixels of the larger picture. */
const FINELY = 6;

/** What the sides of a sheet in a picture speak for: folds, or that it is bent all over. */
export interface Bends {
  foldings: Folding[];
  bowed?: BowedSides;
}

/** The region of a sheet, and on how much of its boundary an edge was seen. */
export interface SeenRegion extends FoundRegion {
  held: number;
}

/** Looks in one picture for what the sides of sheets speak for; its edges are found once. */
export class BendSearch {
  private readonly placing: Raster;
  private readonly regions: RegionSearch;
  private seen: { edges: Edges; light: Light; beside: BesideSearch } | undefined;

  constructor(private readonly picture: Raster) {
    this.placing = shrink(picture, PLACE);
    this.regions = new RegionSearch(this.placing);
  }

  /**
   * Whether the sides of an outline are clearly straight, and nothing tells of paper beyond them.
   * @param corners in pixels
   * @param isLevel whether its rows of print tell already that it is flat
   */
  seemsFlat(corners: Quad, isLevel = false): boolean {
    const large = scaleQuad(corners, this.placing.width / this.picture.width);
    return sidesWithPaperBeyond(this.placing, large).length === 0 && (isLevel || isStraight(this.placing, large));
  }

  /** How many letters and words stand on a part of the picture. @param corners of it, in pixels */
  marksOn(corners: Quad): number {
    return this.regions.marksOn(scaleQuad(corners, this.placing.width / this.picture.width));
  }

  /** The regions that a sheet may take, in pixels, by the print on it. @param on a part of the sheet; without it, the one with the most print */
  regionsAround(on?: Quad): SeenRegion[] {
    const scale = this.placing.width / this.picture.width;
    const { edges } = (this.seen ??= this.look());
    return this.regions.regionsAround(on && scaleQuad(on, scale)).map(({ corners, boundary, off }) => ({
      off,
      held: heldOn(edges, boundary, edges.width / this.placing.width),
      corners: scaleQuad(corners, 1 / scale),
      boundary: boundary.map(([x, y]): Point => [x / scale, y / scale]),
    }));
  }

  /**
   * How a sheet may be bent of which some was found. For folds: the outline of all of it, its sides broken where the fold meets them, or of one piece, the
   * fold taken for a side; or several pieces. Beyond the first and the last there may be one more. And its sides may be bowed.
   * @param found the outline, or pieces beside each other, clockwise, in pixels
   * @param boundary of the sheet's region, if that is known: sides are sought along it only
   * @returns what may be, in no order; nothing for a sheet with straight sides
   */
  bendsOf(found: Pieces, boundary?: Point[]): Bends {
    const { picture, placing } = this;
    const scaled = (pieces: Pieces, scale: number) => pieces.map((each) => scaleQuad(each, scale));
    const large = scaled(found, placing.width / picture.width);
    const isOne = found.length === 1;
    const { edges, light, beside } = (this.seen ??= this.look());
    const pieces = scaled(found, edges.width / picture.width);
    const sideEdges = boundary ? edgesAlong(edges, boundary, edges.width / picture.width) : edges;
    const sides = isOne ? seenSides(sideEdges, pieces[0]) : [];
    const first: Folding[] = isOne
      ? [
          ...brokenSides(pieces[0], sides).flatMap((broken) => piecesOf(light, broken)),
          ...twiceBroken(pieces[0], sides, light),
          ...sidesWithPaperBeyond(placing, large[0]).flatMap((side) => beside.beside(pieces[0], side)),
        ]
      : [{ pieces, held: 1, isWhole: false }];
    const further = [...first]
      .sort((a, b) => b.held - a.held)
      .slice(0, MOST_TRIED)
      .flatMap((folding) => beside.further(folding));
    const foldings = [...first, ...further].map((each) => ({
      ...each,
      pieces: scaled(placed(placing, scaled(each.pieces, light.scale)), picture.width / placing.width),
    }));
    const bowed = isOne ? bowedSides(sides) : undefined;
    return { foldings, bowed: bowed && scaledSides(bowed, picture.width / edges.width) };
  }

  private look() {
    const small = shrink(this.placing, SEEK);
    const edges = findEdges(opponentColours(small));
    const light = { grey: greyOf(this.placing), scale: this.placing.width / small.width };
    return { edges, light, beside: new BesideSearch(small, edges) };
  }
}

/** So many pixels off a boundary an edge is still of it. */
const ALONG_BOUNDARY = 3;

/** The edges along a boundary. @param scale from that to the edges */
function edgesAlong(edges: Edges, boundary: Point[], scale: number): Edges {
  const { width, height } = edges;
  const strength = new Float32Array(edges.strength.length);
  for (const point of boundary) {
    const [x, y] = point.map((each) => Math.round(each * scale));
    for (let row = Math.max(0, y - ALONG_BOUNDARY); row <= Math.min(height - 1, y + ALONG_BOUNDARY); row++) {
      const [from, to] = [Math.max(0, x - ALONG_BOUNDARY), Math.min(width - 1, x + ALONG_BOUNDARY) + 1];
      strength.set(edges.strength.subarray(row * width + from, row * width + to), row * width + from);
    }
  }
  return { ...edges, strength };
}

/** The share of a boundary, as far as it lies in the picture, with an edge near. @param scale from that to the edges */
function heldOn({ width, height, strength }: Edges, boundary: Point[], scale: number): number {
  let [held, seen] = [0, 0];
  for (const point of boundary) {
    const [x, y] = point.map((each) => Math.round(each * scale));
    if (x < NEAR || y < NEAR || x >= width - NEAR || y >= height - NEAR) continue;
    seen++;
    const isNear = (row: number) =>
      strength.subarray(row * width + x - NEAR, row * width + x + NEAR + 1).some((change) => change > 0);
    if (Array.from({ length: 2 * NEAR + 1 }, (_, at) => y - NEAR + at).some(isNear)) held++;
  }
  return held / (seen || 1);
}
const NEAR = 2;

function sidesWithPaperBeyond(placing: Raster, quad: Quad): number[] {
  const paper = paperColour(placing, quad);
  return [0, 1, 2, 3].filter((side) => isPaperBeyond(placing, quad, side, paper, { inOtherLight: true }));
}

const isStraight = (placing: Raster, quad: Quad) =>
  refineSides(placing, quad, FINELY).held.every((share) => share > CLEARLY_STRAIGHT);

/** The pieces with their outer sides on the edges nearest to them in a larger picture, to fractions of a pixel. */
function placed(placing: Raster, pieces: Pieces): Pieces {
  let now = pieces;
  // Where a fold meets a side is known once both parts of that are.
  for (let round = 0; round < 2; round++) {
    const [first, last] = [now[0], now[now.length - 1]];
    const [left] = refineSides(placing, first, FINELY, [3]).lines;
    const [right] = refineSides(placing, last, FINELY, [1]).lines;
    const sides = now.map((quad) => refineSides(placing, quad, FINELY, [0, 2]).lines);
    const corner = (a: Line, b: Line, near: Point) => crossingNear(a, b, near, 6 * FINELY);
    // Along the upper sides of the pieces, then along the lower ones, from the left.
    const [above, below] = [0, 1].map((which) => {
      const [start, end] = which === 0 ? [0, 1] : [3, 2];
      const lines = sides.map((each) => each[which]);
      return [
        corner(lines[0], left, first[start]),
        ...now
          .slice(0, -1)
          .map((quad, at) => foldAt(lines[at], lines[at + 1], [quad[start], now[at + 1][end]], quad[end])),
        corner(lines[lines.length - 1], right, last[end]),
      ];
    });
    now = now.map((_, at): Quad => [above[at], above[at + 1], below[at + 1], below[at]]);
  }
  return now;
}

/** Where the two parts of a broken side meet, of which the ends are known. @param otherwise where they seem to when they are nearly in line */
function foldAt(a: Line, b: Line, [from, to]: [Point, Point], otherwise: Point): Point {
  const point = crossing(a, b, LEAST_ANGLE);
  if (!point) return otherwise;
  const along = ([x, y]: Point) =>
    ((x - from[0]) * (to[0] - from[0]) + (y - from[1]) * (to[1] - from[1])) / distance(from, to) ** 2;
  const share = along(point);
  return share > NEAR_END && share < 1 - NEAR_END ? point : otherwise;
}
