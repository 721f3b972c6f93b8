import { Turn } from '../../geometry';
import { findBend } from '../bend/findBend';
import { findFingers } from '../bend/fingers';
import { mayBeBent, offLevel, textRows } from '../bend/rows';
import { findSpread } from '../bend/spread';
import { lettersOnly } from '../components';
import { Ink, roughInk } from '../ink';
import { isBilevel, suitableLook } from '../looks';
import { findOutlines } from '../outline/findOutlines';
import { holdPrint, isNarrow, printApart } from '../outline/slips';
import { Quad, scaleQuad, wholeQuad } from '../quad';
import { Raster, shrink } from '../raster';
import { flatten, paperOf, Recipe } from '../recipe';
import { warp } from '../straighten';
import { textDirection, textSkew } from '../textLines';
import { bentRegion, Sheet, withBends } from './bent';
import { looksFlat } from './flat';
import { bentProposal, Proposal, SURE_OF_DIRECTION, TEXT_SIZE, turnedInk } from './proposal';

/** Size at which fingers on a page are looked for. */
const FINGERS_SEEN = 1600;
const MOST_SKEW_OF_SCAN = 6;
const MOST_SKEW_OF_SHEET = 3;
/** Skew is only put right when it stands out so clearly, and from so many degrees on. */
const CLEAR = 1.25;
const LEAST_SKEW = 0.12;
/** Rows so far off level tell of a bend, too: at a fold one ends and another begins. */
const FAR_OFF_LEVEL = 0.5;
/** Below this the whole picture is taken instead of an outline. */
export const LEAST_CONFIDENCE = 0.5;

/**
 * Proposes how to make pages of a picture: one for each sheet found, or of the whole picture when it is a flat scan or no
 * sheet is found for sure. A picture that looks like a flat scan, though nobody said so, is not searched for bends.
 * @param scanned the size in points when the picture is known to be a scan: it is then only deskewed and turned, unless slips
 *   lie on it
 * @param apart somebody has said that several papers are on it, so that they are also told apart by the paper between them
 */
export function proposeRecipes(
  picture: Raster,
  { scanned, apart = false }: { scanned?: [number, number]; apart?: boolean } = {},
): Proposal[] {
  const isFlat = scanned !== undefined || looksFlat(picture);
  const whole = isFlat || apart ? proposePage(picture, null, scanned, isFlat ? 1 : 0.5) : undefined;
  // Looking for outlines takes long: a page with lines as long as a letter's is no page of slips.
  const skip = scanned && whole && !apart && !isNarrow(whole.letters, scanned);
  let found = skip ? [] : findOutlines(picture).filter(({ confidence }) => confidence >= LEAST_CONFIDENCE);
  if (scanned && whole && !holdPrint(found, whole.letters, picture)) found = [];
  if (apart && whole && found.length < 2) found = printApart(whole.letters, picture);
  const propose = (corners: Quad, confidence: number): Sheet => {
    const { proposal, off } = proposePage(picture, corners, scanned, confidence);
    return { corners, confidence, proposal, off };
  };
  const isKnown = scanned !== undefined || apart;
  if (found.length === 0) {
    const bent = isKnown || isFlat ? undefined : bentRegion(picture, propose);
    return [bent ?? (whole ?? proposePage(picture, null, scanned, 0.5)).proposal];
  }
  const sheets = found.map(({ corners, confidence }) => propose(corners, confidence));
  // In reading order: rows of sheets, from the left.
  const rowHeight = picture.height / 3;
  const order = ({ corners }: (typeof sheets)[number]) =>
    Math.round(Math.min(...corners.map(([, y]) => y)) / rowHeight) * 1e6 + Math.min(...corners.map(([x]) => x));
  return (isKnown ? sheets : withBends(picture, sheets, propose))
    .sort((a, b) => order(a) - order(b))
    .map(({ proposal }) => proposal);
}

/** @returns the proposal, the letters seen on the page flat, its longer side `TEXT_SIZE` pixels, and how far their rows are off level there */
function proposePage(
  picture: Raster,
  corners: Quad | null,
  scanned: [number, number] | undefined,
  confidence: number,
): { proposal: Proposal; letters: Ink; off: number } {
  const { width, height } = picture;
  const quad = corners ?? wholeQuad(width, height);
  const paper = paperOf(picture, corners, scanned);
  const scale = TEXT_SIZE / Math.max(...paper);
  const [across, down] = paper.map((side) => Math.round(side * scale));
  const flat = corners ? quadIn(picture, quad, across, down) : wholeIn(picture, across, down);
  const most = corners ? MOST_SKEW_OF_SHEET : MOST_SKEW_OF_SCAN;
  const letters = lettersOnly(roughInk(flat));
  const direction = textDirection(letters);
  const sure = direction.confidence >= SURE_OF_DIRECTION;
  const turn = sure ? direction.turn : 0;
  const sideways = turn % 180 !== 0;
  const lying = sideways ? turnedInk(letters) : letters;
  const rows = scanned ? [] : textRows(lying);
  const off = offLevel(rows, (most * Math.PI) / 180);
  const isBent = mayBeBent(rows) || off > FAR_OFF_LEVEL;
  const bent = isBent && findBend(picture, uprightQuad(quad, turn), uprightAspect(paper, turn));
  if (bent) return { proposal: { ...bentProposal(picture, bent), confidence }, letters, off: 0 };
  const skew = textSkew(lying, most);
  const angle = skew.clarity > CLEAR && Math.abs(skew.degrees) >= LEAST_SKEW ? -skew.degrees : 0;
  const recipe: Recipe = {
    corners: corners && scaleQuad(corners, 1 / width, 1 / height),
    angle,
    // What is black and white already stays as it is.
    look: (scanned || !corners) && isBilevel(picture) ? 'asShot' : suitableLook(flat),
    paper,
    marks: [],
  };
  return { proposal: { recipe, turn, confidence }, letters, off };
}

/** The whole picture in a size; where its shape is the same, it is only made smaller. */
function wholeIn(picture: Raster, width: number, height: number): Raster {
  const small = shrink(picture, Math.max(width, height));
  if (Math.max(Math.abs(small.width - width), Math.abs(small.height - height)) <= 1) return small;
  return quadIn(picture, wholeQuad(picture.width, picture.height), width, height);
}

function quadIn(picture: Raster, quad: Quad, width: number, height: number): Raster {
  const small = shrink(picture, 2 * Math.max(width, height));
  return warp(small, scaleQuad(quad, small.width / picture.width), width, height);
}

/**
 * What a picture is known to be of: sheets that lie side by side or alone, several papers for sure, or a bound book from above; one that is bound at the right is
 * read from right to left.
 */
export type Seen = 'sheets' | 'papers' | 'book' | 'right-bound book';

/** Proposes how to make pages of a picture of something. @param scanned as in `proposeRecipes` */
export function proposePages(picture: Raster, seen: Seen, scanned?: [number, number]): Proposal[] {
  if (seen === 'book') return proposeBookPages(picture);
  if (seen === 'right-bound book') return proposeBookPages(picture).reverse();
  return proposeRecipes(picture, { scanned, apart: seen === 'papers' });
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
