import { FoldedSheet, foldedSheet, besideFold, Pieces } from '../bend/folds';
import { Folding } from '../bend/folding';
import { foldingsOf } from '../bend/foldSearch';
import { Row, unevenness } from '../bend/rows';
import { lettersOnly } from '../components';
import { roughInk } from '../ink';
import { common } from '../outline/wholes';
import { Point, Quad } from '../quad';
import { Raster } from '../raster';
import { paperFor, trueAspect } from '../straighten';
import { textDirection } from '../textLines';
import { bentRecipe, Proposal, rowsOn, SURE_OF_DIRECTION, uprightRows } from './proposal';

/** An outline that was found, and how a page is made of it. */
export interface Sheet {
  corners: Quad;
  confidence: number;
  proposal: Proposal;
}

/** So much of a found outline lies on a folded sheet of which it is a part. */
const PART = 0.6;

/**
 * Puts folded sheets in the place of the outlines that were found of them: of one piece, of several, or of the whole with straight sides.
 * @param sheets as they were found, each with how a page would be made of it
 */
export function withFolds(picture: Raster, sheets: Sheet[]): Sheet[] {
  let left = sheets;
  const folded: Sheet[] = [];
  for (const members of [...pairsOf(sheets), ...sheets.map((sheet) => [sheet])]) {
    if (!members.every((sheet) => left.includes(sheet))) continue;
    const sheet = foldedOf(picture, members);
    if (!sheet) continue;
    folded.push(sheet);
    left = left.filter((each) => !members.includes(each) && common(each.corners, sheet.corners) < PART);
  }
  return [...left, ...folded];
}

function pairsOf(sheets: Sheet[]): Sheet[][] {
  return sheets.flatMap((one, at) =>
    sheets.slice(at + 1).flatMap((other) => (besideFold(one.corners, other.corners) ? [[one, other]] : [])),
  );
}

/** The folded sheet that one outline is of, or two beside each other. */
function foldedOf(picture: Raster, members: Sheet[]): Sheet | undefined {
  const size: [number, number] = [picture.width, picture.height];
  const [one, other] = members;
  const found = other ? besideFold(one.corners, other.corners)! : [one.corners];
  const folded = foldingsOf(picture, found)
    .flatMap((folding): { folding: Folding; sheet: FoldedSheet }[] => {
      const sheet = foldedSheet(folding.pieces, size);
      // What is flat after all is as it was found, unless that was a part of it.
      return sheet && (sheet.sharpness > FLAT || !folding.isWhole) ? [{ folding, sheet }] : [];
    })
    .map((each) => ({ ...each, cost: foldCost(each) }))
    .filter(({ cost }) => cost < MOST_COST)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, MOST_FOLDS);
  for (const { folding, sheet, cost } of folded) {
    const unfolded = unfold(picture, sheet);
    if (!folding.isWhole && !isOneSheet(picture, folding.pieces, sheet, unfolded)) continue;
    // Beside two pages in place of one there is nothing to compare.
    if (!other && !speaksFor(unfolded.rows, rowsOn(picture, one.proposal), cost < CLEAR_FOLD)) continue;
    const confidence = Math.min(...members.map((each) => each.confidence));
    return {
      corners: sheet.corners,
      confidence,
      proposal: { recipe: unfolded.recipe, turn: unfolded.turn, confidence },
    };
  }
  return undefined;
}

/** Folds less sharp than this, in radians, leave a sheet flat. */
const FLAT = 0.05;
/** How unlikely a fold is: what of its sides isn't seen, how far its corners are off, an unusual size. Of those that cost less than the most, a few are tried. */
const UNSEEN = 3;
const OFF = 500;
const UNUSUAL = 0.5;
const MOST_COST = 1.5;
const MOST_FOLDS = 3;

function foldCost({ folding, sheet }: { folding: Folding; sheet: FoldedSheet }): number {
  return UNSEEN * (1 - folding.held) + OFF * sheet.off + (isUsual(sheet.aspect) ? 0 : UNUSUAL);
}

const isUsual = (aspect: number) => paperFor(aspect).name !== null;

interface Unfolded extends Pick<Proposal, 'recipe' | 'turn'> {
  /** The rows of print on the page, and how far right of each fold a foot is, as a share of its width. */
  rows: Row[];
  offFolds: ((foot: Point) => number)[];
}

/** How a page is made of a folded sheet. */
function unfold(picture: Raster, sheet: FoldedSheet): Unfolded {
  const { recipe, flat } = bentRecipe(picture, sheet);
  const letters = lettersOnly(roughInk(flat));
  const direction = textDirection(letters);
  const turn = direction.confidence >= SURE_OF_DIRECTION ? direction.turn : 0;
  const offFolds = sheet.folds.map(([top, bottom]) => ([x, y]: Point) => {
    const isTurned = turn % 180 !== 0;
    const [u, v] = isTurned ? [y / flat.width, 1 - x / flat.height] : [x / flat.width, y / flat.height];
    return u - top - (bottom - top) * v;
  });
  return { recipe, turn, rows: uprightRows(letters, turn), offFolds };
}

/** So many rows of print run over a fold; two sheets that touch have none, and make a sheet of a usual size only where they have one themselves. */
const LEAST_OVER_FOLD = 2;
/** How much of a row, as a share of the page's width, lies on either side of the fold at least. */
const EITHER_SIDE = 0.03;

/** Whether pieces are of one sheet, not several that lie side by side: rows run over the folds, or it has a usual size and they don't. */
function isOneSheet(picture: Raster, pieces: Pieces, { aspect }: FoldedSheet, { rows, offFolds }: Unfolded): boolean {
  const isCrossed = (offFold: (foot: Point) => number) => {
    const over = rows.filter(({ feet }) => {
      const off = feet.map(offFold);
      return Math.min(...off) < -EITHER_SIDE && Math.max(...off) > EITHER_SIDE;
    });
    return over.length >= LEAST_OVER_FOLD;
  };
  if (offFolds.every(isCrossed)) return true;
  return isUsual(aspect) && !pieces.some((piece) => isUsual(trueAspect(piece, picture.width, picture.height)));
}

/**
 * Whether the rows on an unfolded page speak for the fold, beside those on a page made without one: they are straighter and more level, or not much less
 * where the sides tell clearly of a fold. A page that has lost print is none; one that had cut print off says nothing.
 */
function speaksFor(rows: Row[], without: Row[], isClear: boolean): boolean {
  const letters = (some: Row[]) => some.reduce((sum, { feet }) => sum + feet.length, 0);
  const off = (some: Row[]) => {
    const { sagging, apart } = unevenness(some);
    return sagging + apart;
  };
  const share = letters(rows) / (letters(without) || 1);
  if (share < (isClear ? LESS_PRINT_IF_CLEAR : LESS_PRINT)) return false;
  return isClear ? share > MORE_PRINT || off(rows) < off(without) + MORE_UNEVEN : off(rows) < EVENER * off(without);
}
/** A page of which a part had been cut off has larger letters in the same pixels, so that more rows are found. */
const LESS_PRINT_IF_CLEAR = 0.6;
const LESS_PRINT = 0.9;
const MORE_PRINT = 1.1;
/** A fold that costs less is clear: rows may be more uneven with it by so much, in heights of letters, which is chance; else they are this share of it. */
const CLEAR_FOLD = 0.65;
const MORE_UNEVEN = 0.1;
const EVENER = 0.6;
