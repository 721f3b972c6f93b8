import { crossing, Line, lineThrough, sidesOf } from '../outline/lines';
import { refineSides } from '../outline/refine';
import { Point, Quad } from '../quad';
import { Raster } from '../raster';
import { Flattened, SheetPlane } from './findBend';
import { Gutter } from './gutter';

/** How far off a page's side may be before it is placed, as a share of the book's height. */
const NEAR = 0.02;

/** How far, in steps of its reach, a side is sought from where it is thought to be, and what a step counts against what is held. */
const SOUGHT = 13;
const STEPS_OUT = Array.from(
  { length: 2 * SOUGHT + 1 },
  (_, index) => (index % 2 === 0 ? 1 : -1) * Math.ceil(index / 2),
);
const STEP_AWAY = 0.02;
/** On how much of a side an edge must be seen; and how wide a margin may be, as a share of the page. */
const LEAST_HELD = 0.45;
const USUAL_MARGIN = 0.09;
/** The upper and lower side of a page run along its rows, but for so much (radians). */
const MOST_ASLANT = 0.02;

/**
 * The page in the flattened picture: its outer sides placed where their edges are, the inner one along the gutter.
 * @param feet of its print, which is all on it
 */
export function pageOutline(flat: Flattened, { sheet }: SheetPlane, gutter: Gutter, side: number, feet: Point[]): Quad {
  const [[, top], , [, bottom]] = sheet;
  const reach = Math.round(NEAR * (bottom - top));
  const [upper, lower] = side === 0 ? [sheet[0], sheet[3]] : [sheet[1], sheet[2]];
  const [outerUpper, outerLower] = [flat.at(upper), flat.at(lower)];
  // Rows are level there, so the gutter meets the upper and lower side at the heights of the outer corners.
  const inner = [0.25, 0.75].map((share) => {
    const y = top + share * (bottom - top);
    return flat.at([gutter(y), y]);
  });
  const along = (y: number): Point => [
    inner[0][0] + ((y - inner[0][1]) / (inner[1][1] - inner[0][1])) * (inner[1][0] - inner[0][0]),
    y,
  ];
  const [innerUpper, innerLower] = [along(outerUpper[1]), along(outerLower[1])];
  const rough: Quad =
    side === 0 ? [outerUpper, innerUpper, innerLower, outerLower] : [innerUpper, outerUpper, outerLower, innerLower];
  const lines = sidesOf(rough);
  for (const each of side === 0 ? [0, 2, 3] : [0, 1, 2])
    lines[each] = placedSide(flat.picture, rough, each, reach, feet);
  return rough.map((corner, index) => crossing(lines[(index + 3) % 4], lines[index]) ?? corner) as Quad;
}

/** A side moved to the edge that holds best near it, with all print inside. */
function placedSide(picture: Raster, quad: Quad, side: number, reach: number, feet: Point[]): Line {
  const [from, to] = [quad[side], quad[(side + 1) % 4]];
  const long = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const inwards: Point = [-(to[1] - from[1]) / long, (to[0] - from[0]) / long];
  let best: { line: Line; score: number } | undefined;
  for (const step of STEPS_OUT) {
    const moved = quad.map(([x, y]): Point => [x + step * reach * inwards[0], y + step * reach * inwards[1]]) as Quad;
    const { lines, held } = refineSides(picture, moved, reach, [side]);
    const [line] = lines;
    const inside = feet.filter((foot) => isInside(foot, line, inwards)).length >= 0.99 * feet.length;
    const aslant = isUpperOrLower(side) ? Math.abs(Math.cos(line.angle)) : 0;
    const score = held[0] - STEP_AWAY * Math.abs(step);
    if (inside && aslant < MOST_ASLANT && (!best || score > best.score)) best = { line, score };
  }
  return best && best.score >= LEAST_HELD ? best.line : sideByPrint(quad, side, inwards, feet);
}

/** Where no edge is seen, as where a page runs out of the picture: as far from the print as a margin may be, or further. */
function sideByPrint(quad: Quad, side: number, inwards: Point, feet: Point[]): Line {
  const [from, to] = [quad[side], quad[(side + 1) % 4]];
  const depth = ([x, y]: Point) => (x - from[0]) * inwards[0] + (y - from[1]) * inwards[1];
  const across = Math.abs(depth(quad[(side + 2) % 4]));
  const nearest = feet.reduce((least, foot) => Math.min(least, depth(foot)), Infinity);
  const out = Math.max(0, USUAL_MARGIN * across - nearest);
  const moved = ([x, y]: Point): Point => [x - out * inwards[0], y - out * inwards[1]];
  return lineThrough(moved(from), moved(to));
}

const isUpperOrLower = (side: number): boolean => side % 2 === 0;

function isInside([x, y]: Point, { angle, offset }: Line, inwards: Point): boolean {
  const [nx, ny] = [Math.cos(angle), Math.sin(angle)];
  const turn = Math.sign(nx * inwards[0] + ny * inwards[1]) || 1;
  return turn * (nx * x + ny * y - offset) > 0;
}
