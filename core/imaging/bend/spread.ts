import { lettersOnly } from '../components';
import { roughInk } from '../ink';
import { findOutlines } from '../outline/findOutlines';
import { refineQuad } from '../outline/refine';
import { Point, Quad, wholeQuad } from '../quad';
import { greyOf, Raster } from '../raster';
import { trueAspect } from '../straighten';
import { textDirection } from '../textLines';
import { Shape, fitCylinder } from './cylinder';
import { BentSheet, bentSheet, enough, flattened, planeOver, SheetPlane } from './findBend';
import { Row, textRows } from './rows';

/** The longer side of an open book in the plane that it is looked at in, in pixels. */
const PLANE = 2200;
const MARGIN = 0.06;
/** An open book is at least so wide for its height. */
const LEAST_ASPECT = 0.95;
/** Where its gutter may be, as a share of its width from the middle, and how far from upright, as a share of its height. */
const GUTTER = { reach: 0.14, slant: 0.06 };
/** Its darkness or step, as a share of the paper's light, from which on it is seen. */
const LEAST_CREASE = 0.025;
const SURE_OUTLINE = 0.5;
/** How far off a page's side may be before it is placed, as a share of the book's height. */
const NEAR = 0.02;

/** The two pages of an open book, or one when it isn't open. */
export interface Spread {
  pages: BentSheet[];
  confidence: number;
}

/**
 * Finds the pages of an open book seen from above: the whole of it by its outline, the gutter by where it is dark or steps and no
 * row of print goes across, and the shape of each page by its rows (a cylinder each; Meng et al. 2012).
 * @returns nothing when no open book is seen
 */
export function findSpread(picture: Raster): Spread | undefined {
  const whole = wholeOutline(picture);
  if (!whole) return undefined;
  const plane = uprightPlane(picture, whole.corners);
  if (!plane) return undefined;
  const letters = lettersOnly(roughInk(plane.seen));
  const rows = textRows(letters);
  const gutter = findGutter(plane, rows);
  if (!gutter) return undefined;
  const pages = [0, 1].map((side) => pageOf(picture, plane, rows, gutter, side));
  return { pages, confidence: whole.confidence };
}

/** The outline of the whole book; pages found one by one are put together. */
function wholeOutline(picture: Raster): { corners: Quad; confidence: number } | undefined {
  const found = findOutlines(picture, { most: 2 }).filter(({ confidence }) => confidence >= SURE_OUTLINE);
  if (found.length < 2) return found[0];
  const [one, other] = found.map(({ corners }) => corners);
  return { corners: together(one, other), confidence: Math.min(found[0].confidence, found[1].confidence) };
}

/** The outer corners of two quads that lie beside each other, whichever way. */
function together(one: Quad, other: Quad): Quad {
  const middle = (quad: Quad): Point => [
    quad.reduce((sum, [x]) => sum + x, 0) / 4,
    quad.reduce((sum, [, y]) => sum + y, 0) / 4,
  ];
  const [[ax, ay], [bx, by]] = [middle(one), middle(other)];
  const beside = Math.abs(bx - ax) >= Math.abs(by - ay);
  const [first, second] = (beside ? bx >= ax : by >= ay) ? [one, other] : [other, one];
  return beside ? [first[0], second[1], second[2], first[3]] : [first[0], first[1], second[2], second[3]];
}

/** The plane that the book lies in, its print upright; nothing when it is too narrow for an open one. */
function uprightPlane(picture: Raster, corners: Quad): SheetPlane | undefined {
  const aspect = trueAspect(corners, picture.width, picture.height);
  const small = planeOver(picture, corners, aspect, PLANE / 2, 0);
  const direction = textDirection(lettersOnly(roughInk(small.seen)));
  const turn = direction.confidence >= 0.3 ? direction.turn : aspect < 1 ? 90 : 0;
  const upright = corners.map((_, index) => corners[(index + 4 - turn / 90) % 4]) as Quad;
  const wide = turn % 180 === 0 ? aspect : 1 / aspect;
  return wide >= LEAST_ASPECT ? planeOver(picture, upright, wide, PLANE, MARGIN) : undefined;
}

/** A line from the top to the bottom of an open book: where it is in the plane at a height. */
type Gutter = (y: number) => number;

function findGutter({ seen, sheet }: SheetPlane, rows: Row[]): Gutter | undefined {
  const [[left, top], [right], [, bottom]] = sheet;
  const [wide, tall] = [right - left, bottom - top];
  const light = greyOf(seen);
  const at = (x: number, y: number) => light.data[Math.round(y) * light.width + Math.round(x)];
  const across = 0.004 * wide;
  const samples = Array.from({ length: 60 }, (_, index) => top + (0.06 + (0.88 * index) / 59) * tall);
  let best: { score: number; from: number; to: number } | undefined;
  const step = Math.max(2, wide / 500);
  for (let from = -GUTTER.reach * wide; from <= GUTTER.reach * wide; from += step) {
    for (let slant = -GUTTER.slant; slant <= GUTTER.slant; slant += 0.01) {
      const [upper, lower] = [(left + right) / 2 + from - (slant * tall) / 2, (left + right) / 2 + from + (slant * tall) / 2];
      const line = (y: number) => upper + ((y - top) / tall) * (lower - upper);
      let [dark, jump] = [0, 0];
      for (const y of samples) {
        const x = line(y);
        const [near, far] = [
          [at(x - 2 * across, y), at(x + 2 * across, y)],
          [at(x - 5 * across, y), at(x + 5 * across, y)],
        ];
        const beside = (near[0] + near[1] + far[0] + far[1]) / 4 + 1;
        dark += Math.max(-0.2, Math.min(0.5, (beside - at(x, y)) / beside));
        jump += Math.max(-0.5, Math.min(0.5, (near[1] - near[0]) / beside));
      }
      const crease = (dark + 0.6 * Math.abs(jump)) / samples.length;
      const score = crease - 0.5 * crossing(rows, line) - 0.1 * Math.abs(from / (GUTTER.reach * wide)) ** 2 * LEAST_CREASE;
      if (!best || score > best.score) best = { score, from: upper, to: lower };
    }
  }
  if (!best || best.score < LEAST_CREASE) return undefined;
  const { from, to } = best;
  return (y) => from + ((y - top) / tall) * (to - from);
}

/** The share of the rows that a line goes through. */
function crossing(rows: Row[], line: (y: number) => number): number {
  const crossed = rows.filter(({ feet, height }) => {
    const [first, last] = [feet[0], feet[feet.length - 1]];
    const x = line(first[1]);
    return first[0] + 2 * height < x && last[0] - 2 * height > x;
  });
  return crossed.length / Math.max(8, rows.length);
}

/** @param side 0 for the left page, 1 for the right one */
function pageOf(picture: Raster, plane: SheetPlane, rows: Row[], gutter: Gutter, side: number): BentSheet {
  const { sheet, camera } = plane;
  const [[left, top], [right], [, bottom]] = sheet;
  const own = rows
    .map((row) => ({ ...row, feet: row.feet.filter(([x, y]) => (side === 0 ? x < gutter(y) : x > gutter(y))) }))
    .filter(({ feet }) => feet.length >= 5);
  const [upper, lower] = [gutter(top), gutter(bottom)];
  const inner = side === 0 ? Math.max(upper, lower) : Math.min(upper, lower);
  const area = { left: side === 0 ? left : inner, top, width: side === 0 ? inner - left : right - inner, height: bottom - top };
  const shape = pageShape(own, area, camera);
  const beside = 0.05 * area.width;
  const around = wholeQuad(area.width + 2 * beside, area.height + 2 * beside).map(([x, y]): Point => [
    area.left - beside + x,
    top - beside + y,
  ]) as Quad;
  const flat = flattened(picture, plane, shape, around);
  return bentSheet(pageOutline(flat, plane, gutter, side), flat);
}

function pageShape(rows: Row[], area: { left: number; top: number; width: number; height: number }, camera: SheetPlane['camera']): Shape {
  if (!enough(rows)) return fitCylinder([], area, camera, { bent: false });
  return fitCylinder(rows, area, camera);
}

/** The page in the flattened picture: its outer sides placed where their edges are, the inner one along the gutter. */
function pageOutline(flat: ReturnType<typeof flattened>, { sheet }: SheetPlane, gutter: Gutter, side: number): Quad {
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
  return refineQuad(flat.picture, rough, reach, side === 0 ? [0, 2, 3] : [0, 1, 2]).corners;
}
