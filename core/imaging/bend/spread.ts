import { lettersOnly } from '../components';
import { applyHomography } from '../homography';
import { roughInk } from '../ink';
import { findOutlines, Outline } from '../outline/findOutlines';
import { crossing, Line, lineThrough, sidesOf } from '../outline/lines';
import { refineSides } from '../outline/refine';
import { area, isConvex, overlap, Point, Quad, wholeQuad } from '../quad';
import { greyOf, Raster } from '../raster';
import { trueAspect } from '../straighten';
import { textDirection } from '../textLines';
import { Shape, fitCylinder } from './cylinder';
import { BentSheet, bentSheet, enough, Flattened, flattened, planeOver, SheetPlane } from './findBend';
import { Row, textRows } from './rows';

/** The longer side of an open book in the plane that it is looked at in, in pixels. */
const PLANE = 2200;
const MARGIN = 0.12;
/** An open book is at least so wide for its height. */
const LEAST_ASPECT = 0.95;
/** Where its gutter may be, as a share of its width from the middle, and how far from upright, as a share of its height. */
const GUTTER = { reach: 0.14, slant: 0.06 };
/** Its darkness or step, as a share of the paper's light, from which on it is seen. */
const LEAST_CREASE = 0.025;
const SURE_OUTLINE = 0.5;
/** How much of an open book is one page as seen. */
const PAGE_SHARE = { least: 0.2, most: 0.8 };
/** When the outline by the pages has less than this in common with the one before, the pages are looked at again. */
const SAME_OUTLINE = 0.97;
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
  for (const whole of wholeOutlines(picture)) {
    const pages = pagesWithin(picture, whole.corners);
    if (!pages) continue;
    const [left, right] = pages;
    const outer: Quad = [left.corners[0], right.corners[1], right.corners[2], left.corners[3]];
    // The pages have placed the outline better than it was.
    const again = overlap(outer, whole.corners) < SAME_OUTLINE ? pagesWithin(picture, outer) : undefined;
    return { pages: again ?? pages, confidence: whole.confidence };
  }
  return undefined;
}

function pagesWithin(picture: Raster, corners: Quad): BentSheet[] | undefined {
  const plane = uprightPlane(picture, corners);
  if (!plane) return undefined;
  const letters = lettersOnly(roughInk(plane.seen));
  const rows = textRows(letters);
  const gutter = findGutter(plane, rows);
  if (!gutter) return undefined;
  const pages = [0, 1].map((side) => pageOf(picture, plane, rows, gutter, side));
  return pages.every(({ corners: page }) => isLikelyPage(page, corners)) ? pages : undefined;
}

/** Whether a page takes as much of an open book as one can. */
function isLikelyPage(page: Quad, whole: Quad): boolean {
  const share = area(page) / area(whole);
  return isConvex(page) && share > PAGE_SHARE.least && share < PAGE_SHARE.most;
}

/** What may be the outline of the whole book, the likeliest first: pages found one by one are put together. */
function wholeOutlines(picture: Raster): Outline[] {
  const found = findOutlines(picture, { most: 2 }).filter(({ confidence }) => confidence >= SURE_OUTLINE);
  const single = found.map((each) => withOtherPage(picture, each));
  if (found.length < 2) return single;
  return [bothPages(found[0], found[1]), ...single];
}

const bothPages = (one: Outline, other: Outline): Outline => ({
  corners: together(one.corners, other.corners),
  confidence: Math.min(one.confidence, other.confidence),
});

/** The outline of a book in a live picture: of both pages where they are found one by one. */
export function liveBookOutline(frame: Raster): Outline | undefined {
  const found = findOutlines(frame, { most: 2, quick: true });
  return found.length === 2 ? bothPages(found[0], found[1]) : found[0];
}

/** Of an open book perhaps only one page was found: print that goes on beside it is of the other one. */
function withOtherPage<Found extends { corners: Quad }>(picture: Raster, found: Found): Found {
  const { corners } = found;
  const aspect = trueAspect(corners, picture.width, picture.height);
  const small = planeOver(picture, corners, aspect, PLANE / 2, 0);
  const direction = textDirection(lettersOnly(roughInk(small.seen)));
  const turn = direction.confidence >= 0.3 ? direction.turn : 0;
  const upright = corners.map((_, index) => corners[(index + 4 - turn / 90) % 4]) as Quad;
  const wide = turn % 180 === 0 ? aspect : 1 / aspect;
  if (wide >= LEAST_ASPECT) return found;
  const plane = planeOver(picture, upright, wide, PLANE / 2, wide);
  const [[left, top], [right], [, bottom]] = plane.sheet;
  const rows = textRows(lettersOnly(roughInk(plane.seen))).filter(({ feet }) =>
    feet.every(([, y]) => y > top && y < bottom),
  );
  const [before, after] = [
    rows.filter(({ feet }) => feet[feet.length - 1][0] < left),
    rows.filter(({ feet }) => feet[0][0] > right),
  ];
  const side = after.length >= before.length ? 1 : 0;
  if ((side ? after : before).length < LEAST_BESIDE) return found;
  const [from, to] = side ? [left, 2 * right - left] : [2 * left - right, right];
  const both: Quad = [
    [from, top],
    [to, top],
    [to, bottom],
    [from, bottom],
  ];
  return { ...found, corners: both.map((point) => applyHomography(plane.toPicture, point)) as Quad };
}

/** So many rows beside a page are of another one. */
const LEAST_BESIDE = 6;

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
      const [upper, lower] = [
        (left + right) / 2 + from - (slant * tall) / 2,
        (left + right) / 2 + from + (slant * tall) / 2,
      ];
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
      const score =
        crease - 0.5 * againstPrint(rows, line) - 0.1 * Math.abs(from / (GUTTER.reach * wide)) ** 2 * LEAST_CREASE;
      if (!best || score > best.score) best = { score, from: upper, to: lower };
    }
  }
  if (!best || best.score < LEAST_CREASE) return undefined;
  const { from, to } = best;
  return (y) => from + ((y - top) / tall) * (to - from);
}

/** The share of the rows that a line goes through, and how unlike the distances are that it keeps to those on both sides. */
function againstPrint(rows: Row[], line: (y: number) => number): number {
  let crossed = 0;
  const [before, after]: [number[], number[]] = [[], []];
  for (const { feet, height } of rows) {
    const [first, last] = [feet[0], feet[feet.length - 1]];
    const x = line((first[1] + last[1]) / 2);
    if (last[0] + 0.5 * height < x) before.push(x - last[0]);
    else if (first[0] - 0.5 * height > x) after.push(first[0] - x);
    else crossed++;
  }
  const [left, right] = [before, after].map((each) => each.sort((a, b) => a - b)[each.length >> 3] ?? 0);
  const apart = before.length > 4 && after.length > 4 ? Math.abs(left - right) / (left + right) : 0;
  return crossed / Math.max(8, rows.length) + 0.1 * LEAST_CREASE * apart;
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
  const area = {
    left: side === 0 ? left : inner,
    top,
    width: side === 0 ? inner - left : right - inner,
    height: bottom - top,
  };
  const shape = pageShape(own, area, camera);
  const beside = MARGIN * (right - left);
  const around = wholeQuad(area.width + 2 * beside, area.height + 2 * beside).map(([x, y]): Point => [
    area.left - beside + x,
    top - beside + y,
  ]) as Quad;
  const flat = flattened(picture, plane, shape, around);
  const feet = own.flatMap((row) => row.feet).map(flat.at);
  return bentSheet(pageOutline(flat, plane, gutter, side, feet), flat);
}

function pageShape(
  rows: Row[],
  area: { left: number; top: number; width: number; height: number },
  camera: SheetPlane['camera'],
): Shape {
  if (!enough(rows)) return fitCylinder([], area, camera, { bent: false });
  return fitCylinder(rows, area, camera);
}

/**
 * The page in the flattened picture: its outer sides placed where their edges are, the inner one along the gutter.
 * @param feet of its print, which is all on it
 */
function pageOutline(flat: Flattened, { sheet }: SheetPlane, gutter: Gutter, side: number, feet: Point[]): Quad {
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
