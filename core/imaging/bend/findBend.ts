import { lettersOnly } from '../components';
import { applyHomography, Homography, homography } from '../homography';
import { roughInk } from '../ink';
import { findOutlines } from '../outline/findOutlines';
import { isSheet, overlap, Point, Quad, scaleQuad, wholeQuad } from '../quad';
import { Raster, shrink } from '../raster';
import { USUAL_FOCAL, warp, warpBy } from '../straighten';
import { Bend, bendOver, isBend } from './bend';
import { cameraOver } from './cylinder';
import { fitCylinder, Shape } from './fitCylinder';
import { printedRules, Row, textRows } from './rows';

/** A sheet that isn't flat: its corners in the picture, what lies between them, and its shape. */
export interface BentSheet {
  /** Clockwise from the corner that is the upper left when the print is upright. */
  corners: Quad;
  bend: Bend;
  /** Width over height. */
  aspect: number;
}

/** The longer side of the plane that a sheet is looked at in, in pixels, and how far beyond the sheet it reaches, as shares of it. */
const PLANE = 1600;
const MARGIN = 0.1;
/** So much print is needed to tell the shape of a sheet. */
const LEAST_ROWS = 5;
const LEAST_FEET = 60;
/** When feet are off level by less than this, in heights of small letters, a sheet is flat; it isn't when bending makes them less than so much of it. */
const LEVEL = 0.035;
const BETTER = 0.75;
/** Where the axis of a bend is sought from, in radians. */
const AXES = [0, 0.5, -0.5];
/** How much of the outline that is found in the flattened picture and of that before is common to both. */
const SAME_SHEET = 0.75;
/** How much of a bent sheet and of its outline before is common to both in the picture, at the least. */
const SAME_PLACE = 0.5;

/**
 * Finds out whether a sheet in a picture is bent, by its rows of print, and how.
 * @param corners in pixels, clockwise from what is the upper left when the print is upright
 * @param aspect width over height, about
 * @returns nothing when it is flat, or that can't be told
 */
export function findBend(picture: Raster, corners: Quad, aspect: number): BentSheet | undefined {
  const plane = planeOver(picture, corners, aspect);
  const ink = roughInk(plane.seen);
  const print = textRows(lettersOnly(ink)).filter((row) => isOn(plane.sheet, row));
  if (!enough(print)) return undefined;
  const rows = [...print, ...printedRules(ink).filter((row) => isOn(plane.sheet, row))];
  const shape = bentShape(rows, plane);
  const flat = shape && flattened(picture, plane, shape);
  if (!flat) return undefined;
  const before = plane.sheet.map((corner) => flat.at(corner)) as Quad;
  const [found] = findOutlines(flat.picture, { most: 1 });
  const upright = found && fromUpperLeft(found.corners, before);
  const outline = upright && found.confidence > 0.5 && overlap(upright, before) > SAME_SHEET ? upright : before;
  const feet = rows.flatMap((row) => row.feet.map(flat.at));
  const bent = bentSheet(isLevel(outline) ? outline : levelAround(outline, feet), flat);
  // A shape that takes the sheet somewhere else is none.
  return bent && overlap(bent.corners, corners) > SAME_PLACE ? bent : undefined;
}

/** Sides of a flat sheet are no more aslant to its rows than this (tangent). */
const ASLANT = 0.06;
/** How far print is from a sheet's edge at least, as a share of its size. */
const EDGE = 0.02;

/** Whether the sides of a sheet whose rows are level are level and upright themselves. */
function isLevel(outline: Quad): boolean {
  return outline.every(([x, y], side) => {
    const [toX, toY] = outline[(side + 1) % 4];
    const [across, down] = [Math.abs(toX - x), Math.abs(toY - y)];
    return Math.min(across, down) <= ASLANT * Math.max(across, down);
  });
}

/** The level rectangle that is about where an outline is, and holds the print. */
function levelAround([a, b, c, d]: Quad, feet: Point[]): Quad {
  const [xs, ys] = [feet.map(([x]) => x), feet.map(([, y]) => y)];
  const [wide, high] = [(b[0] + c[0] - a[0] - d[0]) / 2, (c[1] + d[1] - a[1] - b[1]) / 2];
  const left = Math.min((a[0] + d[0]) / 2, Math.min(...xs) - EDGE * wide);
  const right = Math.max((b[0] + c[0]) / 2, Math.max(...xs) + EDGE * wide);
  const top = Math.min((a[1] + b[1]) / 2, Math.min(...ys) - EDGE * high);
  const bottom = Math.max((c[1] + d[1]) / 2, Math.max(...ys) + EDGE * high);
  return wholeQuad(right - left, bottom - top).map(([x, y]): Point => [x + left, y + top]) as Quad;
}

/** Whether a row is on the sheet, not on what lies beside it. */
function isOn([[left, top], , [right, bottom]]: Quad, { feet }: Row): boolean {
  const [x, y] = feet[feet.length >> 1];
  return x > left && x < right && y > top && y < bottom;
}

export const enough = (rows: Row[]): boolean =>
  rows.length >= LEAST_ROWS && rows.reduce((sum, { feet }) => sum + feet.length, 0) >= LEAST_FEET;

/** The plane that a sheet lies in, seen from straight above, upright. */
export interface SheetPlane {
  seen: Raster;
  /** The sheet in it, as far as is known. */
  sheet: Quad;
  toPicture: Homography;
  camera: ReturnType<typeof cameraOver>;
}

/** @param long the longer side of the sheet in the plane, in pixels */
export function planeOver(picture: Raster, corners: Quad, aspect: number, long = PLANE, margin = MARGIN): SheetPlane {
  const [width, height] = [aspect, 1].map((side) => Math.round((long * side) / Math.max(1, aspect)));
  const beside = Math.round(margin * Math.max(width, height));
  const sheet = wholeQuad(width, height).map(([x, y]): Point => [x + beside, y + beside]) as Quad;
  const toPicture = homography(sheet, corners);
  const [w, h] = [width + 2 * beside, height + 2 * beside];
  const quad = wholeQuad(w, h).map((point) => applyHomography(toPicture, point)) as Quad;
  const focal = USUAL_FOCAL * Math.max(picture.width, picture.height);
  // Interpolation sees four pixels; when many fall on one, their mean is taken first.
  const source = shrink(picture, 1.5 * Math.max(w, h) * (Math.max(picture.width, picture.height) / sizeOf(quad)));
  const seen = warp(source, scaleQuad(quad, source.width / picture.width), w, h);
  return { seen, sheet, toPicture, camera: cameraOver(toPicture, [picture.width / 2, picture.height / 2], focal) };
}

function sizeOf(quad: Quad): number {
  const [xs, ys] = [quad.map(([x]) => x), quad.map(([, y]) => y)];
  return Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
}

/** The shape on which the rows are level, if that isn't a flat one. */
export function bentShape(rows: Row[], { seen, camera }: SheetPlane, axes = AXES): Shape | undefined {
  const flat = fitCylinder(rows, seen, camera, { bent: false });
  if (flat.off < LEVEL) return undefined;
  const shapes = axes.map((axis) => fitCylinder(rows, seen, camera, { axis }));
  const best = shapes.reduce((a, b) => (b.off < a.off ? b : a));
  return best.off < BETTER * flat.off ? best : undefined;
}

/** A picture with a sheet of some shape made flat, and what lies around it. */
export interface Flattened {
  picture: Raster;
  /** From the plane to it, and from it to the picture that it was made of. */
  at: (point: Point) => Point;
  from: (point: Point) => Point;
}

/** @param around the part of the plane that is wanted, and what is beside it @returns nothing for a shape that has no such place */
export function flattened(
  picture: Raster,
  { seen, toPicture }: Pick<SheetPlane, 'seen' | 'toPicture'>,
  { cylinder, level, levelled }: Shape,
  around = wholeQuad(seen.width, seen.height),
): Flattened | undefined {
  const flats = [...around, ...middles(around)].map((point) => level(cylinder.flat(point)));
  const [left, top] = [0, 1].map((each) => Math.floor(Math.min(...flats.map((point) => point[each]))));
  const [right, bottom] = [0, 1].map((each) => Math.ceil(Math.max(...flats.map((point) => point[each]))));
  const [width, height] = [Math.min(2 * seen.width, right - left), Math.min(2 * seen.height, bottom - top)];
  if (!(width > 0 && height > 0)) return undefined;
  const from = ([x, y]: Point): Point => applyHomography(toPicture, cylinder.seen(levelled([x + left, y + top])));
  const at = (point: Point): Point => {
    const [x, y] = level(cylinder.flat(point));
    return [x - left, y - top];
  };
  const source = shrink(
    picture,
    1.5 *
      Math.max(width, height) *
      (Math.max(picture.width, picture.height) /
        sizeOf(around.map((point) => applyHomography(toPicture, point)) as Quad)),
  );
  const scale = source.width / picture.width;
  return {
    picture: warpBy(source, width, height, (y) => (x) => {
      const [px, py] = from([x, y]);
      return [px * scale, py * scale];
    }),
    at,
    from,
  };
}

const middles = (quad: Quad): Point[] =>
  quad.map(([x, y], index) => [(x + quad[(index + 1) % 4][0]) / 2, (y + quad[(index + 1) % 4][1]) / 2]);

/** @param outline of the sheet in the flattened picture @returns nothing when that is no sheet there or in the picture */
export function bentSheet(outline: Quad, { from }: Flattened): BentSheet | undefined {
  const corners = outline.map(from) as Quad;
  if (![outline, corners].every(isSheet)) return undefined;
  const onFlat = homography(wholeQuad(1, 1), outline);
  const bend = bendOver(corners, (point) => from(applyHomography(onFlat, point)));
  if (!isBend(bend)) return undefined;
  const [a, b, c, d] = outline;
  const long = ([ax, ay]: Point, [bx, by]: Point) => Math.hypot(bx - ax, by - ay);
  return { corners, bend, aspect: (long(a, b) + long(d, c)) / (long(a, d) + long(b, c)) };
}

/** The corners beginning with the one nearest the first of others. */
function fromUpperLeft(quad: Quad, like: Quad): Quad {
  const apart = (by: number) =>
    like.reduce(
      (sum, [x, y], index) => sum + Math.hypot(x - quad[(index + by) % 4][0], y - quad[(index + by) % 4][1]),
      0,
    );
  const by = [0, 1, 2, 3].reduce((best, each) => (apart(each) < apart(best) ? each : best));
  return [0, 1, 2, 3].map((index) => quad[(index + by) % 4]) as Quad;
}
