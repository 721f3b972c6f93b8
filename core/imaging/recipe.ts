import { Bend, bentRow } from './bend/bend';
import { findFingers } from './bend/fingers';
import { trimEdges } from './edgeTrim';
import { withoutGrain } from './grain';
import { applyHomography, homography } from './homography';
import { judgeLegibility, Legibility } from './legibility';
import { isColourless, Look, renderLook, suitableLook } from './looks';
import { liftMarks, Mark } from './marks';
import { withoutNoise } from './noise';
import { distance, Point, Quad, scaleQuad, wholeQuad } from './quad';
import { greyOf, Raster, shrink } from './raster';
import { flatSize, paperFor, trueAspect, warp, warpBy } from './straighten';

/** What is done to a picture to make a page of it. The picture itself is never changed. */
export interface Recipe {
  /** Where the sheet is in the picture, as shares (0 to 1) of its width and height; null for the whole picture. */
  corners: Quad | null;
  /** How the sheet lies between its corners when it isn't flat. */
  bend?: Bend;
  /** How far the page is turned clockwise once it is flat, in degrees, to make its lines level. */
  angle: number;
  look: Look;
  /** Size of the paper before quarter turns, in points. */
  paper: [width: number, height: number];
  /** What is wiped off, in shares of the flat page. */
  marks: Mark[];
}

/** The size of the paper in points: in a scan as large as it is there, else by its shape. */
export function paperOf(
  { width, height }: Raster,
  corners: Quad | null,
  scanned: [number, number] | undefined,
): [width: number, height: number] {
  if (corners && scanned) {
    const [across, down] = [scanned[0] / width, scanned[1] / height];
    const [a, b, c, d] = corners.map(([x, y]): Point => [x * across, y * down]);
    return [(distance(a, b) + distance(d, c)) / 2, (distance(a, d) + distance(b, c)) / 2];
  }
  if (scanned) return scanned;
  const paper = paperFor(corners ? trueAspect(corners, width, height) : width / height);
  return [paper.width, paper.height];
}

/** The quad of the picture that becomes the page: the corners, turned by the angle in the plane of the sheet. */
export function pageQuad(recipe: Pick<Recipe, 'corners' | 'angle' | 'paper'>, width: number, height: number): Quad {
  const quad = recipe.corners ? scaleQuad(recipe.corners, width, height) : wholeQuad(width, height);
  if (recipe.angle === 0) return quad;
  const [w, h] = recipe.paper;
  const fromPaper = homography(wholeQuad(w, h), quad);
  const radians = (-recipe.angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  return wholeQuad(w, h).map(([x, y]): Point => {
    const [dx, dy] = [x - w / 2, y - h / 2];
    return applyHomography(fromPaper, [w / 2 + dx * cos - dy * sin, h / 2 + dx * sin + dy * cos]);
  }) as Quad;
}

/**
 * Where in a picture a point of the page is that a recipe makes of it, before quarter turns.
 * @param width of the picture, in pixels
 * @returns takes points as shares (0 to 1) of the page, gives pixels of the picture
 */
export function fromPage(recipe: Pick<Recipe, 'corners' | 'angle' | 'paper' | 'bend'>, width: number, height: number) {
  const toPicture = homography(wholeQuad(1, 1), pageQuad(recipe, width, height));
  const { bend } = recipe;
  return ([u, v]: Point): Point => applyHomography(toPicture, bend ? bentRow(bend, v)(u) : [u, v]);
}

/** The size in pixels that a page has in full, before quarter turns, made from a picture of this size. */
export function pageSizeOf(recipe: Recipe, width: number, height: number): [width: number, height: number] {
  if (!recipe.corners) return [width, height];
  return flatSize(scaleQuad(recipe.corners, width, height), { width: recipe.paper[0], height: recipe.paper[1] });
}

/**
 * Makes the page that a recipe says, before quarter turns.
 * @param longSide the longer side wanted, in pixels; the full size when left out
 */
export function makePage(picture: Raster, recipe: Recipe, { longSide = Infinity } = {}): Raster {
  // Marks are told from print by their colour; else a page without colour needs none from the beginning.
  const source = isColourless(recipe.look) && recipe.marks.length === 0 ? greyOf(picture) : picture;
  return finishPage(flatten(source, recipe, { longSide }), recipe);
}

/**
 * A sheet in a picture as it will be, small and at once: flat, in the look that suits it, not straightened by its text.
 * @param corners in pixels of the picture
 */
export function glimpseOf(picture: Raster, corners: Quad, { longSide }: { longSide: number }): Raster {
  const recipe: Recipe = {
    corners: scaleQuad(corners, 1 / picture.width, 1 / picture.height),
    angle: 0,
    look: 'asShot',
    paper: paperOf(picture, corners, undefined),
    marks: [],
  };
  const flat = flatten(picture, recipe, { longSide });
  return finishPage(flat, { ...recipe, look: suitableLook(flat) });
}

/** The sheet made flat, as shot. */
export function flatten(picture: Raster, recipe: Recipe, { longSide = Infinity } = {}): Raster {
  const full = pageSizeOf(recipe, picture.width, picture.height);
  const scale = Math.min(1, longSide / Math.max(...full));
  const size = full.map((side) => Math.max(1, Math.round(side * scale))) as [number, number];
  const untouched = !recipe.corners && recipe.angle === 0 && scale === 1;
  // Interpolation sees four pixels; when many fall on one, their mean is taken first.
  const source = scale < 0.6 ? smaller(picture, Math.max(picture.width, picture.height) * scale * 1.4) : picture;
  if (untouched) return picture;
  const quad = pageQuad(recipe, source.width, source.height);
  return recipe.bend ? unbend(source, recipe.bend, quad, ...size) : warp(source, quad, ...size);
}

/** The last smaller copy of a picture, for who makes one page of it after the other: while corners are moved, the size wanted hardly changes. */
const copies = new WeakMap<Raster, { longSide: number; copy: Raster }>();
/** Sizes of copies are so many pixels apart. */
const APART = 128;

function smaller(picture: Raster, least: number): Raster {
  const longSide = APART * Math.ceil(least / APART);
  const known = copies.get(picture);
  if (known?.longSide === longSide) return known.copy;
  const copy = shrink(picture, longSide);
  copies.set(picture, { longSide, copy });
  return copy;
}

/** Makes a sheet that isn't flat flat. @param quad of it in the picture */
function unbend(picture: Raster, bend: Bend, quad: Quad, width: number, height: number): Raster {
  const h = homography(wholeQuad(1, 1), quad);
  return warpBy(picture, width, height, (y) => {
    const inSquare = bentRow(bend, y / height);
    return (x) => applyHomography(h, inSquare(x / width));
  });
}

/**
 * Judges how legible a page is when it is made so, and whether fingers that were wiped off it lay over print.
 * @param enlarged as for `judgeLegibility`
 */
export function judgeRecipe(picture: Raster, recipe: Recipe, { enlarged = 1 } = {}): Legibility {
  // Turned by a degree or two, it is read as well.
  const flat = recipe.corners || recipe.bend ? flatten(picture, recipe) : picture;
  const covered = recipe.bend !== undefined && recipe.marks.length > 0 && findFingers(flat).overPrint;
  return judgeLegibility(flat, { enlarged, covered });
}

/** Wipes the marks off a flat page, cleans its edges when it was cut out of a photo, and renders it in the look. */
export function finishPage(flat: Raster, { corners, look, marks }: Pick<Recipe, 'corners' | 'look' | 'marks'>): Raster {
  const lifted = marks.length > 0 ? liftMarks(flat, marks) : flat;
  const clean = isColourless(look) ? greyOf(lifted) : lifted;
  if (look === 'asShot') return clean;
  return renderLook(withoutGrain(corners ? withoutNoise(trimEdges(clean)) : clean), look);
}
