import { area, clip, distance, ordered, Point, Quad } from '../quad';
import { Raster } from '../raster';
import { Candidate } from './candidates';
import { Evidence } from './confidence';
import { ownSides } from './covered';
import { coloursIn, paperColour, SAME_TINT, tintApart } from './paper';

/** A candidate whose sides were placed to fractions of a pixel, with what speaks for it. */
export interface Placed extends Candidate, Evidence {}

/** Corners of two pieces are the same when they are no further apart than this share of the side. */
const SAME_CORNER = 0.06;

/** Takes a further sheet, or makes one of it and the one that it is a piece of. */
export function take(next: Placed, chosen: Placed[]): void {
  const [piece, whole] = wholeOf(next, chosen);
  if (piece) chosen[chosen.indexOf(piece)] = whole;
  else chosen.push(next);
}

/** When a sheet has been taken for two because of a rule across it, they have a side in common: the piece found before, and the whole. */
function wholeOf(next: Placed, chosen: Placed[]): [piece: Placed, whole: Placed] | [undefined, undefined] {
  for (const piece of chosen) {
    for (const i of [0, 1, 2, 3]) {
      const [from, to] = [next.corners[i], next.corners[(i + 1) % 4]];
      const near = SAME_CORNER * distance(from, to);
      for (const j of [0, 1, 2, 3]) {
        if (distance(from, piece.corners[(j + 1) % 4]) > near || distance(to, piece.corners[j]) > near) continue;
        const far = (quad: Quad, side: number) => [quad[(side + 2) % 4], quad[(side + 3) % 4]];
        const corners = [...far(next.corners, i), ...far(piece.corners, j)] as Quad;
        if (ownSides(next.corners, corners).length > 1 || ownSides(piece.corners, corners).length > 1) continue;
        return [piece, { ...piece, corners: ordered(corners), held: piece.held.map((share) => Math.min(share, 0.9)) }];
      }
    }
  }
  return [undefined, undefined];
}

/** Whether a side lies at the border of the picture: where the sheet runs out of it, nothing can be seen. */
export function isAtBorder(quad: Quad, side: number, { width, height }: Raster): boolean {
  const near = 0.012 * Math.max(width, height);
  const [[ax, ay], [bx, by]] = [quad[side], quad[(side + 1) % 4]];
  return (
    (ax < near && bx < near) ||
    (ay < near && by < near) ||
    (ax > width - near && bx > width - near) ||
    (ay > height - near && by > height - near)
  );
}

/** How far beyond a side it is looked, as a share of the sheet; so much of a side has the paper's own colour there when it is a rule. */
const BEYOND = 0.03;
const SAME_BEYOND = 0.5;
/** How much darker or lighter, and of what other tint, paper is a little way off. */
const PAPER_LIGHT = 0.12;
/** The same where a shadow lies on it (logarithm). */
const SHADE = 1;

/**
 * Whether the paper seems to go on beyond a side: a rule across a sheet may have been taken for its end.
 * @param inOtherLight whether what has the paper's tint is taken for paper also where it is much darker or lighter: the edge of a shadow may
 * have been taken for the end of the sheet
 */
export function goesOn(picture: Raster, { corners }: Placed, light: { inOtherLight?: boolean } = {}): boolean {
  const paper = paperColour(picture, corners);
  return [0, 1, 2, 3].some(
    (side) => !isAtBorder(corners, side, picture) && isPaperBeyond(picture, corners, side, paper, light),
  );
}

/** Whether what lies just beyond a side has the paper's own colour. @param inOtherLight as above */
export function isPaperBeyond(
  picture: Raster,
  corners: Quad,
  side: number,
  paper: number[],
  { inOtherLight = false } = {},
): boolean {
  const [a, b, c, d] = [0, 1, 2, 3].map((by) => corners[(side + by) % 4]);
  const along = (corner: Point, inner: Point, by: number): Point => [
    corner[0] + by * (corner[0] - inner[0]),
    corner[1] + by * (corner[1] - inner[1]),
  ];
  const strip = (by: number): Quad => [a, b, along(b, c, by), along(a, d, by)];
  // Light falls off over a sheet: just beyond a rule it is as just before it.
  const lit = inOtherLight ? paper : paperColour(picture, strip(-BEYOND));
  const light = lit[0] + lit[1] + lit[2] + 1;
  const other = inOtherLight ? SHADE : PAPER_LIGHT;
  const { colours, seen } = coloursIn(picture, strip(BEYOND), 24);
  let same = 0;
  for (let at = 0; at < 3 * seen; at += 3) {
    const colour = [...colours.subarray(at, at + 3)];
    const own = colour[0] + colour[1] + colour[2] + 1;
    if (tintApart(paper, colour) < SAME_TINT / 2 && Math.abs(Math.log(own / light)) < other) same++;
  }
  return same > SAME_BEYOND * seen;
}

/** A sheet that something lies on may be so much less convincing than the part of it below a rule. */
const LEAST_WHOLE = 0.5;
/** How much more print the whole has than the part, as a share; in letters, where it reaches to the border; as a share, where a shadow parts it. */
const MORE_PRINT = 1.2;
const MORE_LETTERS = 8;
const MOSTLY_ELSEWHERE = 2;
const FEW = 0.25;
/** So much of the print may seem to be cut by a side that is a little off. */
const CUT_BY_CHANCE = 0.02;
/** Where a shadow parts a sheet, the whole is about as convincing as the part, or as a part without print a little less. */
const NEARLY_AS_GOOD = 0.1;
const BARE_PART = 0.2;

/** Leaves out candidates beyond which the paper goes on, when a larger one has more of the print: that one takes their rank. */
export function withoutParts(picture: Raster, candidates: Placed[]): Placed[] {
  const raised = new Map(candidates.map((each) => [each, each.score]));
  for (const part of candidates) {
    const wholes = candidates.filter(
      (each) =>
        each !== part &&
        raised.has(each) &&
        each.score > LEAST_WHOLE &&
        area(each.corners) > area(part.corners) &&
        common(each.corners, part.corners) > 0.97 &&
        // The sides of a sheet go straight on beyond a rule; those of one that lies on another end there.
        ownSides(part.corners, each.corners).length === 1 &&
        each.words!.cut <= part.words!.cut + CUT_BY_CHANCE * printed(each),
    );
    const lit = wholes.find(
      (each) =>
        printed(each) > MOSTLY_ELSEWHERE * printed(part) &&
        each.score > part.score - (printed(part) === 0 ? BARE_PART : NEARLY_AS_GOOD) &&
        goesOn(picture, part, { inOtherLight: true }),
    );
    // Two parts of one sheet are put together later, unless the whole is as good.
    const isHalf = candidates.some((each) => each !== part && wholeOf(each, [part])[0] !== undefined);
    const ruled =
      isHalf || !goesOn(picture, part) ? undefined : wholes.find((each) => hasMorePrint(each, part, picture));
    const whole = ruled ?? lit;
    if (!whole) continue;
    // On a table of the paper's own colour it always seems to go on; where most of the print is, the sheet is.
    if (goesOn(picture, whole) && printed(part) > FEW * printed(whole)) continue;
    raised.set(whole, Math.max(raised.get(whole)!, part.score));
    raised.delete(part);
  }
  return candidates
    .filter((each) => raised.has(each))
    .map((each) => ({ ...each, score: raised.get(each)! }))
    .sort((a, b) => b.score - a.score);
}

/** Whether a whole has so much more of the print that it isn't chance; less is enough where it runs out of the picture, where no edge is to be seen. */
function hasMorePrint(whole: Placed, part: Placed, picture: Raster): boolean {
  if (printed(whole) > MORE_PRINT * printed(part)) return true;
  const [own] = ownSides(whole.corners, part.corners);
  return own !== undefined && runsOut(whole.corners, own, picture) && printed(whole) >= printed(part) + MORE_LETTERS;
}

/** Whether a side lies at the border of the picture, or goes beyond it. */
function runsOut(quad: Quad, side: number, picture: Raster): boolean {
  const isBeyond = ([x, y]: Point) => x < 0 || y < 0 || x > picture.width || y > picture.height;
  return isAtBorder(quad, side, picture) || isBeyond(quad[side]) || isBeyond(quad[(side + 1) % 4]);
}

/** How much print the first has, beside the one that has most. */
const FIRST_PRINTED = 0.25;

/**
 * The candidates, the first of which has a share of the print where another that is nearly as convincing has much: where print lies, the
 * paper does, however clear the edges of a square of cloth may be. What came before it follows it.
 * @param limits `least`: the score of a sheet; `besideBest`: the same as a share of the best one's; `enough`: letters that speak for a sheet
 */
export function printedFirst(
  candidates: Placed[],
  { least, besideBest, enough }: { least: number; besideBest: number; enough: number },
): Placed[] {
  const [best] = candidates;
  const likely = candidates.filter(({ score }) => score >= least && score >= besideBest * best.score);
  const most = Math.max(0, ...likely.map(printed));
  const first = most < enough ? undefined : likely.find((each) => printed(each) >= FIRST_PRINTED * most);
  return first === undefined || first === best ? candidates : [first, ...candidates.filter((each) => each !== first)];
}

/** How many letters and words were found on a sheet. */
export function printed({ words }: Evidence): number {
  return words?.marks ?? 0;
}

/** How much of the smaller of two quads lies in the other. */
export function common(a: Quad, b: Quad): number {
  const shared = clip(a, b);
  return shared.length < 3 ? 0 : area(shared) / Math.min(area(a), area(b));
}
