import { Turn } from '../geometry';
import { Bend, bentRow } from './bend/bend';
import { BentSheet, findBend } from './bend/findBend';
import { foldedSheet } from './bend/folds';
import { findFingers } from './bend/fingers';
import { mayBeBent, textRows } from './bend/rows';
import { findSpread } from './bend/spread';
import { trimEdges } from './edgeTrim';
import { applyHomography, homography } from './homography';
import { lettersOnly } from './components';
import { Ink, roughInk } from './ink';
import { judgeLegibility, Legibility } from './legibility';
import { isBilevel, isColourless, Look, renderLook, suitableLook } from './looks';
import { liftMarks, Mark } from './marks';
import { findOutlines, Outline } from './outline/findOutlines';
import { holdPrint, isNarrow, printApart } from './outline/slips';
import { withoutNoise } from './noise';
import { distance, Point, Quad, scaleQuad, wholeQuad } from './quad';
import { greyOf, Raster, shrink } from './raster';
import { flatSize, paperFor, trueAspect, warp, warpBy } from './straighten';
import { textDirection, textSkew } from './textLines';

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

export interface Proposal {
  recipe: Recipe;
  /** Quarter turns that bring the page upright. */
  turn: Turn;
  /** How sure the outline is, 0 to 1; 1 for a flat scan. */
  confidence: number;
}

/** Sizes (longer side, pixels) at which lines of text are looked at. */
const TEXT_SIZE = 1000;
/** Size at which fingers on a page are looked for. */
const FINGERS_SEEN = 1600;
const MOST_SKEW_OF_SCAN = 6;
const MOST_SKEW_OF_SHEET = 3;
/** Skew is only put right when it stands out so clearly, and from so many degrees on. */
const CLEAR = 1.25;
const LEAST_SKEW = 0.12;
const SURE_OF_DIRECTION = 0.5;
/** Below this the whole picture is taken instead of an outline. */
export const LEAST_CONFIDENCE = 0.5;

/**
 * Proposes how to make pages of a picture: one for each sheet found, or of the whole picture when it is a flat scan or no
 * sheet is found for sure.
 * @param scanned the size in points when the picture is known to be a scan: it is then only deskewed and turned, unless slips
 *   lie on it
 * @param apart somebody has said that several papers are on it, so that they are also told apart by the paper between them
 */
export function proposeRecipes(
  picture: Raster,
  { scanned, apart = false }: { scanned?: [number, number]; apart?: boolean } = {},
): Proposal[] {
  const whole = scanned || apart ? proposePage(picture, null, scanned, scanned ? 1 : 0.5) : undefined;
  // Looking for outlines takes long: a page with lines as long as a letter's is no page of slips.
  const skip = scanned && whole && !apart && !isNarrow(whole.letters, scanned);
  let found = skip ? [] : findOutlines(picture).filter(({ confidence }) => confidence >= LEAST_CONFIDENCE);
  if (scanned && whole && !holdPrint(found, whole.letters, picture)) found = [];
  if (apart && whole && found.length < 2) found = printApart(whole.letters, picture);
  if (found.length === 0) return [(whole ?? proposePage(picture, null, scanned, 0.5)).proposal];
  const folded = scanned || apart ? undefined : proposeFolded(picture, found);
  if (folded) found = found.filter((sheet) => !folded.pieces.includes(sheet));
  // In reading order: rows of sheets, from the left.
  const rowHeight = picture.height / 3;
  const order = ({ corners }: (typeof found)[number]) =>
    Math.round(Math.min(...corners.map(([, y]) => y)) / rowHeight) * 1e6 + Math.min(...corners.map(([x]) => x));
  return found
    .map((sheet) => ({ ...sheet, proposal: proposePage(picture, sheet.corners, scanned, sheet.confidence).proposal }))
    .concat(folded ? [{ ...folded.pieces[0], proposal: folded.proposal }] : [])
    .sort((a, b) => order(a) - order(b))
    .map(({ proposal }) => proposal);
}

/** So many rows of print run over a fold; two sheets that touch have none, and make a sheet of a usual size only where they have one themselves. */
const LEAST_OVER_FOLD = 2;
/** How much of a row, as a share of the page's width, lies on either side of the fold at least. */
const EITHER_SIDE = 0.03;

/** Two of the outlines found that are the pieces of one sheet beside a fold, and how a page is made of it. */
function proposeFolded(picture: Raster, found: Outline[]): { pieces: Outline[]; proposal: Proposal } | undefined {
  const { width, height } = picture;
  for (const [at, one] of found.entries()) {
    for (const other of found.slice(at + 1)) {
      const sheet = foldedSheet(one.corners, other.corners, [width, height]);
      if (!sheet) continue;
      const { recipe } = bentProposal(picture, sheet);
      const flat = flatten(picture, recipe, { longSide: TEXT_SIZE });
      const letters = lettersOnly(roughInk(flat));
      const direction = textDirection(letters);
      const turn = direction.confidence >= SURE_OF_DIRECTION ? direction.turn : 0;
      const sideways = turn % 180 !== 0;
      const [top, bottom] = sheet.fold;
      // How far right of the fold a foot is, as a share of the page's width.
      const offFold = ([x, y]: Point) => {
        const [u, v] = sideways ? [y / flat.width, 1 - x / flat.height] : [x / flat.width, y / flat.height];
        return u - top - (bottom - top) * v;
      };
      const over = textRows(sideways ? turnedInk(letters) : letters).filter(({ feet }) => {
        const off = feet.map(offFold);
        return Math.min(...off) < -EITHER_SIDE && Math.max(...off) > EITHER_SIDE;
      });
      const isUsual = (aspect: number) => paperFor(aspect).name !== null;
      const isWhole =
        isUsual(sheet.aspect) && ![one, other].some(({ corners }) => isUsual(trueAspect(corners, width, height)));
      if (over.length < LEAST_OVER_FOLD && !isWhole) continue;
      const confidence = Math.min(one.confidence, other.confidence);
      return { pieces: [one, other], proposal: { recipe, turn, confidence } };
    }
  }
  return undefined;
}

/** @returns the proposal, and the letters seen on the page flat, its longer side `TEXT_SIZE` pixels */
function proposePage(
  picture: Raster,
  corners: Quad | null,
  scanned: [number, number] | undefined,
  confidence: number,
): { proposal: Proposal; letters: Ink } {
  const { width, height } = picture;
  const quad = corners ?? wholeQuad(width, height);
  const paper = paperOf(picture, corners, scanned);
  const small = shrink(picture, 2 * TEXT_SIZE);
  const smallQuad = scaleQuad(quad, small.width / width);
  const scale = TEXT_SIZE / Math.max(...paper);
  const flat = warp(small, smallQuad, Math.round(paper[0] * scale), Math.round(paper[1] * scale));
  const most = corners ? MOST_SKEW_OF_SHEET : MOST_SKEW_OF_SCAN;
  const letters = lettersOnly(roughInk(flat));
  const direction = textDirection(letters);
  const sure = direction.confidence >= SURE_OF_DIRECTION;
  const turn = sure ? direction.turn : 0;
  const sideways = turn % 180 !== 0;
  const across = sideways ? turnedInk(letters) : letters;
  const seen = corners && !scanned && mayBeBent(textRows(across));
  const bent = seen && findBend(picture, uprightQuad(corners, turn), uprightAspect(paper, turn));
  if (bent) return { proposal: { ...bentProposal(picture, bent), confidence }, letters };
  const skew = textSkew(across, most);
  const angle = skew.clarity > CLEAR && Math.abs(skew.degrees) >= LEAST_SKEW ? -skew.degrees : 0;
  const recipe: Recipe = {
    corners: corners && scaleQuad(corners, 1 / width, 1 / height),
    angle,
    // What is black and white already stays as it is.
    look: (scanned || !corners) && isBilevel(picture) ? 'asShot' : suitableLook(flat),
    paper,
    marks: [],
  };
  return { proposal: { recipe, turn, confidence }, letters };
}

/** How a page is made of a sheet that isn't flat: upright, its rows level. */
function bentProposal(picture: Raster, { corners, bend, aspect }: BentSheet): Omit<Proposal, 'confidence'> {
  const { width, height } = paperFor(aspect);
  const recipe: Recipe = {
    corners: scaleQuad(corners, 1 / picture.width, 1 / picture.height),
    bend,
    angle: 0,
    look: 'asShot',
    paper: [width, height],
    marks: [],
  };
  return { recipe: { ...recipe, look: suitableLook(flatten(picture, recipe, { longSide: TEXT_SIZE })) }, turn: 0 };
}

/** What a picture is known to be of: sheets that lie side by side or alone, several papers for sure, or a bound book from above. */
export type Seen = 'sheets' | 'papers' | 'book';

/** Proposes how to make pages of a picture of something. @param scanned as in `proposeRecipes` */
export function proposePages(picture: Raster, seen: Seen, scanned?: [number, number]): Proposal[] {
  return seen === 'book' ? proposeBookPages(picture) : proposeRecipes(picture, { scanned, apart: seen === 'papers' });
}

/**
 * Proposes how to make pages of a picture of a bound book: of an open one its two pages, left before right, in one size; of a cover one.
 */
function proposeBookPages(picture: Raster): Proposal[] {
  const spread = findSpread(picture);
  if (!spread) {
    const [single] = proposeRecipes(picture);
    if (single.recipe.corners) return [single];
    // A page that fills its picture may be bent, too.
    const { proposal } = proposePage(picture, wholeQuad(picture.width, picture.height), undefined, single.confidence);
    return [proposal.recipe.bend ? proposal : single];
  }
  const aspect = spread.pages.reduce((sum, page) => sum + page.aspect, 0) / spread.pages.length;
  return spread.pages.map((page) => {
    const { recipe, turn } = bentProposal(picture, { ...page, aspect });
    const { marks } = findFingers(flatten(picture, recipe, { longSide: FINGERS_SEEN }));
    return { recipe: { ...recipe, marks }, turn, confidence: spread.confidence };
  });
}

/** The corners beginning with the one that is the upper left once the page is turned. */
function uprightQuad(corners: Quad, turn: Turn): Quad {
  return corners.map((_, index) => corners[(index + 4 - turn / 90) % 4]) as Quad;
}

const uprightAspect = ([width, height]: [number, number], turn: Turn): number =>
  turn % 180 === 0 ? width / height : height / width;

/** The size of the paper in points: in a scan as large as it is there, else by its shape. */
function paperOf(
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

function turnedInk({ width, height, data }: ReturnType<typeof roughInk>): ReturnType<typeof roughInk> {
  const turned = new Uint8Array(data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) turned[x * height + (height - 1 - y)] = data[y * width + x];
  return { width: height, height: width, data: turned };
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
  const source = scale < 0.6 ? shrink(picture, Math.max(picture.width, picture.height) * scale * 1.4) : picture;
  if (untouched) return picture;
  const quad = pageQuad(recipe, source.width, source.height);
  return recipe.bend ? unbend(source, recipe.bend, quad, ...size) : warp(source, quad, ...size);
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
  const flat = flatten(picture, recipe);
  const covered = recipe.bend !== undefined && recipe.marks.length > 0 && findFingers(flat).overPrint;
  return judgeLegibility(flat, { enlarged, covered });
}

/** Wipes the marks off a flat page, cleans its edges when it was cut out of a photo, and renders it in the look. */
export function finishPage(flat: Raster, { corners, look, marks }: Pick<Recipe, 'corners' | 'look' | 'marks'>): Raster {
  const lifted = marks.length > 0 ? liftMarks(flat, marks) : flat;
  const clean = isColourless(look) ? greyOf(lifted) : lifted;
  return renderLook(corners && look !== 'asShot' ? withoutNoise(trimEdges(clean)) : clean, look);
}
