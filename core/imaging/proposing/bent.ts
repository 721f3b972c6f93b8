import { Bends, BendSearch, SeenRegion } from '../bend/bendSearch';
import { bowedSheet } from '../bend/bowedSheet';
import { BentSheet } from '../bend/findBend';
import { besideFold, FoldedSheet, foldedSheet, Pieces } from '../bend/folds';
import { offLevel, Row } from '../bend/rows';
import { lettersOnly } from '../components';
import { roughInk } from '../ink';
import { common } from '../outline/wholes';
import { area, overlap, Point, Quad } from '../quad';
import { Raster } from '../raster';
import { paperFor, trueAspect } from '../straighten';
import { textDirection } from '../textLines';
import { bentRecipe, Proposal, rowsOn, SURE_OF_DIRECTION, uprightRows } from './proposal';

/** An outline that was found, and how a page is made of it. */
export interface Sheet {
  corners: Quad;
  confidence: number;
  proposal: Proposal;
  /** How far its rows of print are off level on that page, as `offLevel` tells; 0 where that isn't known, or it is bent by its rows. */
  off: number;
}

/** So much is common to an outline and a piece of a folded sheet that it is the outline of (intersection over union). */
const SAME_PIECE = 0.5;

/** Makes a page of an outline as if that were flat. */
type Propose = (corners: Quad, confidence: number) => Sheet;

/**
 * Puts sheets that are folded, or whose sides are bowed, in the place of the outlines that were found of them: of one piece, of several, or of the whole with
 * straight sides.
 * @param sheets as they were found, each with how a page would be made of it
 */
export function withBends(picture: Raster, sheets: Sheet[], propose: Propose): Sheet[] {
  const search = new BendSearch(picture);
  const looked = sheets.map((sheet): Looked => {
    const isLevel = sheet.off > 0 && sheet.off < SURELY_FLAT;
    const isKnownBent = Boolean(sheet.proposal.recipe.bend) || sheet.off >= SURELY_BENT;
    const seemsFlat = !isKnownBent && search.seemsFlat(sheet.corners, isLevel);
    const regions = seemsFlat ? [] : search.regionsAround(sheet.corners);
    const others = sheets.filter((each) => each !== sheet);
    const whole = regions.find((region) =>
      isWholeOf(region, sheet, others, search.marksOn(region.corners) / search.marksOn(sheet.corners)),
    );
    return { sheet: whole ? propose(whole.corners, sheet.confidence) : sheet, regions, seemsFlat };
  });
  let left = looked;
  const bent: Sheet[] = [];
  // The part with most of the print tells best of all of the sheet.
  const singles = looked
    .map((each) => ({ each, marks: search.marksOn(each.sheet.corners) }))
    .sort((a, b) => b.marks - a.marks)
    .map(({ each }) => [each]);
  for (const members of [...pairsOf(looked), ...singles]) {
    if (!members.every((each) => left.includes(each)) || (members.length === 1 && members[0].seemsFlat)) continue;
    const found = bentSheetOf(picture, search, members);
    if (!found) continue;
    bent.push(found.sheet);
    // Other outlines of the same pieces go with them; what else lies on the sheet is another paper.
    const isPiece = ({ sheet: { corners } }: Looked) =>
      found.pieces.some((piece) => overlap(corners, piece) > SAME_PIECE) ||
      (common(corners, found.sheet.corners) > ON_WHOLE &&
        members.some(({ sheet }) => besideFold(sheet.corners, corners)));
    left = left.filter((each) => !members.includes(each) && !isPiece(each));
  }
  return [...left.map(({ sheet }) => sheet), ...bent];
}

/** A sheet as it was looked at: whether it clearly seems flat, and else the regions in which its print stands. */
interface Looked {
  sheet: Sheet;
  seemsFlat: boolean;
  regions: SeenRegion[];
}

/** Rows so far off level are of a sheet that isn't flat, though its sides may look straight. */
const SURELY_BENT = 0.12;
/** Rows so straight and level are of one that is flat. */
const SURELY_FLAT = 0.045;
/** The boundary of a flat sheet's region is nowhere further off its straight sides. */
const STRAIGHT = 0.01;
/** Where it has much of the print that was cut off, or is much larger and seen all around, it may be bent. */
const NEARLY_STRAIGHT = 0.05;
/** On so much of the boundary of a sheet's region there is an edge. */
const CLEARLY_SEEN = 0.85;
const WHOLLY_SEEN = 0.98;
/** How much larger than a part of it a whole sheet is, and how much of the part lies on it; no more of another sheet does. */
const LARGER = 1.12;
/** Two sheets of one size, one half on the other, make less. */
const MUCH_LARGER = 1.8;
const ON_WHOLE = 0.96;
const OTHER_ON_WHOLE = 0.3;

/**
 * Whether the region of a sheet is clearly seen to go on beyond the outline that was found of it, and has print there.
 * @param more how many times as much print stands on it
 */
function isWholeOf({ corners, held, off }: SeenRegion, sheet: Sheet, others: Sheet[], more: number): boolean {
  const larger = area(corners) / area(sheet.corners);
  const isPlain = more > MUCH_MORE_PRINT || (held > WHOLLY_SEEN && larger > MUCH_LARGER);
  return (
    held > CLEARLY_SEEN &&
    more > MORE_PRINT &&
    off < (isPlain ? NEARLY_STRAIGHT : STRAIGHT) &&
    larger > LARGER &&
    common(corners, sheet.corners) > ON_WHOLE &&
    others.every((other) => common(corners, other.corners) < OTHER_ON_WHOLE)
  );
}

/** Whether so much more print stands on a sheet than on a part of it that it isn't chance. */
const hasMorePrint = (search: BendSearch, whole: Quad, part: Quad) =>
  search.marksOn(whole) > Math.max(MORE_PRINT * search.marksOn(part), search.marksOn(part) + MORE_MARKS);
const MORE_MARKS = 4;

/** How sure a sheet is of which no outline was found, but a region with bent sides. */
const OF_REGION = 0.6;

/** The bent sheet that the region with the most print is of, where no outline was found. */
export function bentRegion(picture: Raster, propose: Propose): Proposal | undefined {
  const search = new BendSearch(picture);
  const regions = search.regionsAround();
  for (const region of regions) {
    const sheet = propose(region.corners, OF_REGION);
    const found = bentSheetOf(picture, search, [{ sheet, seemsFlat: false, regions }]);
    if (found) return found.sheet.proposal;
    // It may be its rows that tell of the bend.
    if (region.held > CLEARLY_SEEN && sheet.proposal.recipe.bend) return sheet.proposal;
  }
  return undefined;
}

function pairsOf(sheets: Looked[]): Looked[][] {
  return sheets.flatMap((one, at) =>
    sheets.slice(at + 1).flatMap((other) => (besideFold(one.sheet.corners, other.sheet.corners) ? [[one, other]] : [])),
  );
}

/** A way in which a sheet may be bent. */
interface Candidate {
  sheet: BentSheet & { off: number };
  /** On how much of its sides an edge was seen, and whether these are the whole outline's that was found. */
  held: number;
  isWhole: boolean;
  pieces: Pieces;
  folds: FoldedSheet['folds'];
}

/** The bent sheet that one outline is of, or two beside each other, and its pieces with the whole of it. */
function bentSheetOf(
  picture: Raster,
  search: BendSearch,
  members: Looked[],
): { sheet: Sheet; pieces: Quad[] } | undefined {
  const [one, other] = members.map(({ sheet }) => sheet);
  const found = other ? besideFold(one.corners, other.corners)! : [one.corners];
  const isBent = one.off > SURELY_BENT;
  const regions = members[0].regions.filter(
    ({ corners, off }) => isBent || off > STRAIGHT || overlap(corners, one.corners) < SAME_SHEET,
  );
  const candidates = [
    search.bendsOf(found),
    ...regions.map(({ corners, boundary }) => search.bendsOf([corners], boundary)),
  ]
    .flatMap((bends) => candidatesOf(picture, bends))
    .map((each) => ({ ...each, cost: costOf(each) }))
    .filter(({ cost, sheet }) => cost < MOST_COST && (isUsual(sheet.aspect) || !leavesOut(sheet, found)))
    .sort((a, b) => a.cost - b.cost)
    .slice(0, MOST_TRIED);
  let best: { candidate: Candidate; unbent: Unbent; off: number } | undefined;
  let without: Without | undefined;
  for (const candidate of candidates) {
    const unbent = unbend(picture, candidate);
    if (!candidate.isWhole && !isOneSheet(picture, candidate, unbent)) continue;
    const off = offLevel(unbent.rows);
    // What has more print because it is of two sheets, one on the other, has no level rows.
    const isMore = candidate.cost < CLEAR && off < LEVEL && hasMorePrint(search, candidate.sheet.corners, one.corners);
    // Beside two pages in place of one there is nothing to compare.
    if (!other && !isMore && !speaksFor(unbent.rows, (without ??= asFound(picture, one)), candidate.cost)) continue;
    if (!best || off < best.off) best = { candidate, unbent, off };
    if (off < LEVEL) break;
  }
  if (!best) return undefined;
  const { sheet, pieces } = best.candidate;
  const { recipe, turn } = best.unbent;
  const confidence = Math.min(...members.map(({ sheet: { confidence: own } }) => own));
  return {
    sheet: { corners: sheet.corners, confidence, proposal: { recipe, turn, confidence }, off: best.off },
    pieces: [...pieces, sheet.corners],
  };
}

/** A region and an outline with so much in common are of the same sheet. */
const SAME_SHEET = 0.9;
/** Rows that are off straight and level by less are as they should be: the likeliest of the bends with such is taken. */
const LEVEL = 0.1;
/** Rows that are off by more are not all of one sheet, or it isn't made flat. */
const UNLEVEL = 0.25;

/** Whether a sheet is clearly smaller than what was found: a rule below a letterhead may have been taken for its side. */
const leavesOut = ({ corners }: BentSheet, found: Pieces) =>
  area(corners) < MOST_LEFT_OUT * found.reduce((sum, piece) => sum + Math.abs(area(piece)), 0);
const MOST_LEFT_OUT = 0.94;

function candidatesOf(picture: Raster, { foldings, bowed }: Bends): Candidate[] {
  const size: [number, number] = [picture.width, picture.height];
  const folded = foldings.flatMap(({ pieces, held, isWhole }): Candidate[] => {
    const sheet = foldedSheet(pieces, size);
    // What is flat after all is as it was found, unless that was a part of it.
    return sheet && (sheet.sharpness > FLAT || !isWhole) ? [{ sheet, held, isWhole, pieces, folds: sheet.folds }] : [];
  });
  const sheet = bowed && bowedSheet(bowed, size);
  return sheet ? [...folded, { sheet, held: bowed.held, isWhole: true, pieces: [], folds: [] }] : folded;
}

/** Folds less sharp than this, in radians, leave a sheet flat. */
const FLAT = 0.05;
/** How unlikely a bend is: what of its sides isn't seen, how far its corners are off, an unusual size. Of those that cost less than the most, a few are tried. */
const UNSEEN = 3;
const OFF = 500;
const UNUSUAL = 0.5;
const MOST_COST = 3;
const MOST_TRIED = 3;

function costOf({ held, sheet: { off, aspect } }: Candidate): number {
  return UNSEEN * (1 - held) + OFF * off + (isUsual(aspect) ? 0 : isSlip(aspect) ? LONG : UNUSUAL);
}

/** Slips are of any length. */
const isSlip = (aspect: number) => Math.max(aspect, 1 / aspect) > LEAST_OF_SLIP;
const LEAST_OF_SLIP = 1.8;
const LONG = 0.15;

const isUsual = (aspect: number) => paperFor(aspect).name !== null;

interface Unbent extends Pick<Proposal, 'recipe' | 'turn'> {
  /** The rows of print on the page, and how far right of each fold a foot is, as a share of its width. */
  rows: Row[];
  offFolds: ((foot: Point) => number)[];
}

/** How a page is made of a sheet that is bent. */
function unbend(picture: Raster, { sheet, folds }: Candidate): Unbent {
  const { recipe, flat } = bentRecipe(picture, sheet);
  const letters = lettersOnly(roughInk(flat));
  const direction = textDirection(letters);
  const turn = direction.confidence >= SURE_OF_DIRECTION ? direction.turn : 0;
  const offFolds = folds.map(([top, bottom]) => ([x, y]: Point) => {
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
function isOneSheet(picture: Raster, { pieces, sheet }: Candidate, { rows, offFolds }: Unbent): boolean {
  const isCrossed = (offFold: (foot: Point) => number) => {
    const over = rows.filter(({ feet }) => {
      const off = feet.map(offFold);
      return Math.min(...off) < -EITHER_SIDE && Math.max(...off) > EITHER_SIDE;
    });
    return over.length >= LEAST_OVER_FOLD;
  };
  if (offFolds.every(isCrossed)) return true;
  return isUsual(sheet.aspect) && !pieces.some((piece) => isUsual(trueAspect(piece, picture.width, picture.height)));
}

/** The rows on a page made without a bend that may be, and whether it was bent by these very rows, which are level then as a matter of course. */
interface Without {
  rows: Row[];
  byRows: boolean;
}

const asFound = (picture: Raster, { proposal }: Sheet): Without => ({
  rows: rowsOn(picture, proposal),
  byRows: proposal.recipe.bend !== undefined,
});

/**
 * Whether the rows on a page speak for a bend, beside those on a page made without it: they are straighter and more level, or not much less where the sides tell
 * clearly of it. A page that has lost print is none; one that had cut print off says nothing.
 * @param cost of the bend
 */
function speaksFor(rows: Row[], without: Without, cost: number): boolean {
  const [own, others] = [lettersIn(rows), lettersIn(without.rows)];
  // Without any print there is none to be lost.
  const share = own === others ? 1 : own / others;
  const [off, offWithout] = [offLevel(rows), offLevel(without.rows)];
  // Beside level rows, those of another sheet on which this one lies are none.
  if (share > MUCH_MORE_PRINT && own - others > MORE_LETTERS) return off < Math.max(UNLEVEL, offWithout);
  const isClear = cost < CLEAR || (offWithout > UNLEVEL && off < FAR_MORE_LEVEL * offWithout);
  if (cost > DOUBTFUL || share < (isClear ? LESS_PRINT_IF_CLEAR : LESS_PRINT)) return false;
  if (cost > CLEAR) return off < MORE_LEVEL * offWithout;
  return off <= offWithout || ((share > MORE_PRINT || without.byRows) && off < LEVEL);
}
const lettersIn = (rows: Row[]) => rows.reduce((sum, { feet }) => sum + feet.length, 0);

/** A page of which a part had been cut off has larger letters in the same pixels, so that more rows are found. */
const LESS_PRINT_IF_CLEAR = 0.6;
const LESS_PRINT = 0.9;
const MORE_PRINT = 1.1;
/** So much more print, and so many letters more, are a part of the sheet that was cut off. */
const MUCH_MORE_PRINT = 1.4;
const MORE_LETTERS = 20;
/** A bend that costs less is clear; with another one rows are off level by no more than this share of what they were. */
const CLEAR = 0.65;
/** One that costs more is only taken for bringing back what had been cut off. */
const DOUBTFUL = 1.5;
const MORE_LEVEL = 0.6;
/** What makes rows that are far off level so much more level is as clear. */
const FAR_MORE_LEVEL = 0.2;
