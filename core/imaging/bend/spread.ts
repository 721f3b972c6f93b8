import { lettersOnly } from '../components';
import { applyHomography } from '../homography';
import { roughInk } from '../ink';
import { findOutlines, Outline } from '../outline/findOutlines';
import { area, isConvex, overlap, Point, Quad, wholeQuad } from '../quad';
import { Raster } from '../raster';
import { trueAspect } from '../straighten';
import { textDirection } from '../textLines';
import { Area, fitCylinder, Shape } from './fitCylinder';
import { BentSheet, bentSheet, enough, flattened, planeOver, SheetPlane } from './findBend';
import { findGutter, Gutter } from './gutter';
import { pageOutline } from './pageOutline';
import { Row, textRows } from './rows';

/** The longer side of an open book in the plane that it is looked at in, in pixels. */
const PLANE = 2200;
const MARGIN = 0.12;
/** An open book is at least so wide for its height. */
const LEAST_ASPECT = 0.95;
const SURE_OUTLINE = 0.5;
const SURE_OF_DIRECTION = 0.3;
/** How much of an open book is one page as seen. */
const PAGE_SHARE = { least: 0.2, most: 0.8 };
/** How much of a book's outline its two pages are, when they are side by side. */
const SIDE_BY_SIDE = 0.75;
/** When the outline by the pages has less than this in common with the one before, the pages are looked at again. */
const SAME_OUTLINE = 0.97;
/** The two pages of an open book, left before right. */
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
  const pages = [0, 1].flatMap((side) => pageOf(picture, plane, rows, gutter, side) ?? []);
  return pages.length === 2 && pages.every((page) => isLikelyPage(page.corners, corners)) ? pages : undefined;
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
  if (found.length < 2) return found[0];
  const both = bothPages(found[0], found[1]);
  // Another paper that lies about is no page.
  const separate = area(found[0].corners) + area(found[1].corners);
  return separate > SIDE_BY_SIDE * area(both.corners) ? both : found[0];
}

/** A sheet's corners beginning with its upper left once its print is upright, and its width over its height then. */
function uprightOf(picture: Raster, corners: Quad): { upright: Quad; aspect: number } {
  const aspect = trueAspect(corners, picture.width, picture.height);
  const { seen } = planeOver(picture, corners, aspect, PLANE / 2, 0);
  const direction = textDirection(lettersOnly(roughInk(seen)));
  const turn = direction.confidence >= SURE_OF_DIRECTION ? direction.turn : 0;
  const upright = corners.map((_, index) => corners[(index + 4 - turn / 90) % 4]) as Quad;
  return { upright, aspect: turn % 180 === 0 ? aspect : 1 / aspect };
}

/** Of an open book perhaps only one page was found: print that goes on beside it is of the other one. */
function withOtherPage(picture: Raster, found: Outline): Outline {
  const { upright, aspect } = uprightOf(picture, found.corners);
  if (aspect >= LEAST_ASPECT) return found;
  const plane = planeOver(picture, upright, aspect, PLANE / 2, aspect);
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
  const { upright, aspect } = uprightOf(picture, corners);
  return aspect >= LEAST_ASPECT ? planeOver(picture, upright, aspect, PLANE, MARGIN) : undefined;
}

/** @param side 0 for the left page, 1 for the right one */
function pageOf(picture: Raster, plane: SheetPlane, rows: Row[], gutter: Gutter, side: number): BentSheet | undefined {
  const { sheet, camera } = plane;
  const [[left, top], [right], [, bottom]] = sheet;
  const own = rows
    .map((row) => ({ ...row, feet: row.feet.filter(([x, y]) => (side === 0 ? x < gutter(y) : x > gutter(y))) }))
    .filter(({ feet }) => feet.length >= 5);
  const [upper, lower] = [gutter(top), gutter(bottom)];
  const inner = side === 0 ? Math.max(upper, lower) : Math.min(upper, lower);
  const place = {
    left: side === 0 ? left : inner,
    top,
    width: side === 0 ? inner - left : right - inner,
    height: bottom - top,
  };
  const shape = pageShape(own, place, camera);
  const beside = MARGIN * (right - left);
  const around = wholeQuad(place.width + 2 * beside, place.height + 2 * beside).map(([x, y]): Point => [
    place.left - beside + x,
    top - beside + y,
  ]) as Quad;
  const flat = flattened(picture, plane, shape, around);
  if (!flat) return undefined;
  const feet = own.flatMap((row) => row.feet).map(flat.at);
  return bentSheet(pageOutline(flat, plane, gutter, side, feet), flat);
}

/** A page with too little print to tell is taken to be flat. */
function pageShape(rows: Row[], place: Area, camera: SheetPlane['camera']): Shape {
  return enough(rows) ? fitCylinder(rows, place, camera) : fitCylinder([], place, camera, { bent: false });
}
