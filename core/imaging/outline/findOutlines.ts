import { area, distance, ordered, Quad, scaleQuad, wholeQuad } from '../quad';
import { Raster, shrink } from '../raster';
import { inBetterLight } from './betterLight';
import { Candidate, quadsOf } from './candidates';
import { topmost, withoutPiles } from './covered';
import { confidenceOf, Evidence } from './confidence';
import { Edges, findEdges, Opponent, opponentColours } from './edges';
import { Line, sidesOf, straightLines } from './lines';
import { areOnPage } from './onPage';
import { paperColour, plainness, SAME_TINT, tintApart } from './paper';
import { findPrint, Print, PrintOn, printOn } from './print';
import { refineQuad } from './refine';
import { lightRegions } from './regions';
import { otherSides } from './sideSearch';
import { withSideBeyond } from './sideBeyond';
import { Support, supportOf } from './support';
import { common, goesOn, isAtBorder, Placed, printed, printedFirst, take, withoutParts } from './wholes';

export interface Outline {
  /** In pixels of the picture, clockwise from the upper left; a corner may lie outside the picture. */
  corners: Quad;
  /** From 0 to 1: the chance that this is a sheet and its outline right. */
  confidence: number;
}

/** Sizes (longer side, pixels) at which sheets are sought and at which their sides are placed. */
const SEEK = 448;
const SEEK_QUICKLY = 288;
const PLACE = 1600;
const MOST_LINES = 30;
const MOST_LINES_QUICKLY = 18;
const LEAST_EDGE = 0.04;
const LEAST_EDGE_QUICKLY = 0.3;
const LEAST_EDGE_THOROUGHLY = 0.15;
/** Of so many of the best candidates, each side is sought in other places too. */
const MOST_SEARCHED = 6;
const MOST_CANDIDATES = 400;
/** Of so many it is asked how plain they are. */
const MOST_WEIGHED = 160;
/** So many of the best, each unlike those before it, are placed and weighed again. */
const MOST_PLACED = 14;
const MOST_PLACED_QUICKLY = 4;
/** Quads are alike when no corner is further off than this share of the picture. */
const ALIKE = 0.03;
/** How good a sheet must be, and how good and how large beside the best one, to count as another sheet. */
const LEAST_SCORE = 0.62;
const BESIDE_BEST = 0.72;
const BESIDE_BEST_WITH_PRINT = 0.6;
const LEAST_BESIDE = 0.2;
/** How much of a further sheet may lie on one found before. */
const MOST_COMMON = 0.12;
const MOST_SHEETS = 8;
/** On how much of each side of a further sheet a step must be found, and when there is print on it, of which nothing is cut. */
const LEAST_HELD = 0.55;
const LEAST_HELD_WITH_PRINT = 0.3;
/** When a sheet that fills the picture is so good, print isn't looked for. */
const CLEAR_SCORE = 0.85;
const CLEARLY_HELD = 0.6;
/** Around so many of the largest areas of print sides are sought. */
const MOST_AREAS = 2;
/** A sheet on which so much print was found speaks for there being no other where none was found. */
const ENOUGH_PRINT = 8;
/** How much print a further sheet has at the least, beside the best one. */
const LEAST_PRINTED = 0.06;
/** More sheets are sought as long as those found take less of the picture than this. */
const ROOM_BESIDE = 0.4;
/** How much darker or lighter the paper of the sheet beside it may be (logarithm): light falls off. */
const SAME_LIGHT = 0.8;

/** How much speaks against a sheet whose sides cut rows of print. */
const CUT_WORDS = 0.06;
const CUT_GROUP = 0.04;
const CUT_SHARE = 0.2;

/**
 * Finds the sheets of paper in a photo. Candidates come from straight edges and from light regions; each is weighed by the
 * edge along its sides, by how the colour differs across them, by lines that go on beyond its corners (a plank's do, a
 * sheet's don't) and by its size; the best are placed to fractions of a pixel in a larger picture and weighed again.
 * @param quick for a live picture: fewer candidates are looked at, and sheets under the topmost one are not told from it
 * @returns the most convincing first; empty when nothing looks like a sheet
 */
export function findOutlines(picture: Raster, options: { most?: number; quick?: boolean } = {}): Outline[] {
  return findSheets(picture, options).map(({ corners, evidence }) => ({ corners, confidence: confidenceOf(evidence) }));
}

/** As `findOutlines`, with what speaks for each. */
export function findSheets(
  picture: Raster,
  { most = MOST_SHEETS, quick = false } = {},
): { corners: Quad; evidence: Evidence }[] {
  const placing = inBetterLight(shrink(picture, PLACE));
  const search = new Search(shrink(placing, quick ? SEEK_QUICKLY : SEEK), quick);
  const scale = placing.width / search.small.width;
  let print: Print | undefined;
  const place = (most: number, clearOf: Quad[] = []) => {
    const placed = placedIn(placing, search.candidates(most, clearOf), scale, print);
    return print ? withoutParts(placing, placed) : placed;
  };
  const seekAroundPrint = (areas: Quad[]) =>
    areas.slice(0, MOST_AREAS).forEach((quad) => search.seekAround(scaleQuad(quad, 1 / scale)));
  const shareTaken = (sheets: Placed[]) =>
    sheets.reduce((sum, { corners }) => sum + area(corners), 0) / (placing.width * placing.height);

  let candidates = place(quick ? MOST_PLACED_QUICKLY : MOST_PLACED);
  const [clearest] = candidates;
  const isDone = (sheet: Placed) =>
    isClear(sheet) && shareTaken([sheet]) > ROOM_BESIDE && !goesOn(placing, sheet, { inOtherLight: true });
  if (!quick && !(clearest && isDone(clearest))) {
    print = findPrint(placing);
    seekAroundPrint(print.areas);
    candidates = place(MOST_PLACED);
  }
  const chosen: Placed[] = [];
  for (const candidate of printedFirst(candidates, {
    least: LEAST_SCORE,
    besideBest: BESIDE_BEST,
    enough: ENOUGH_PRINT,
  })) {
    if (chosen.length === most || candidate.score < LEAST_SCORE) break;
    if (chosen.length === 0 || isAnother(candidate, chosen, placing)) take(candidate, chosen);
  }
  // Where there is room beside them, more are sought: the best candidates may all have been of the first ones.
  while (chosen.length > 0 && chosen.length < most && shareTaken(chosen) < ROOM_BESIDE) {
    const clearOf = chosen.map(({ corners }) => scaleQuad(corners, 1 / scale));
    if (print) {
      const left = print.areas.filter((quad) => chosen.every(({ corners }) => common(corners, quad) < MOST_COMMON));
      if (left.length === 0 && printed(chosen[0]) >= ENOUGH_PRINT) break;
      seekAroundPrint(left);
    }
    const next = place(MOST_PLACED_QUICKLY, clearOf).find(
      (candidate) => candidate.score >= LEAST_SCORE && isAnother(candidate, chosen, placing),
    );
    if (!next) break;
    take(next, chosen);
  }
  const quads = chosen.map(({ corners }) => corners);
  if (print && chosen.length > 0 && shareTaken(chosen) < ROOM_BESIDE && areOnPage(quads, print, placing)) return [];
  return chosen.map((sheet) => ({
    corners: ordered(scaleQuad(wholeOutline(sheet, placing), picture.width / placing.width)),
    evidence: sheet,
  }));
}

/** The outline with what of it runs out of the picture on one side, of which no edge is seen. */
function wholeOutline({ corners, held }: Placed, picture: Raster): Quad {
  const beyond = [0, 1, 2, 3].filter((side) => isAtBorder(corners, side, picture) && held[side] <= AT_BORDER);
  return beyond.length === 1 ? withSideBeyond(corners, beyond[0], picture) : corners;
}

/** Places candidates to fractions of a pixel in a larger picture, and weighs them again; the best first. */
function placedIn(placing: Raster, candidates: Candidate[], scale: number, print?: Print): Placed[] {
  const placed = candidates.map(({ corners, score, cut }): Placed => {
    const first = refineQuad(placing, scaleQuad(corners, scale), Math.max(4, Math.ceil(2.2 * scale)));
    const { corners: found, held: seen } = refineQuad(placing, first.corners, Math.max(3, Math.ceil(1.1 * scale)));
    // Where the sheet runs out of the picture nothing can be seen.
    const held = seen.map((share, side) => (isAtBorder(found, side, placing) ? Math.max(share, AT_BORDER) : share));
    const weakest = Math.min(...held);
    const mean = held.reduce((sum, each) => sum + each, 0) / 4;
    const words = print ? printOn(print, ordered(found)) : undefined;
    return {
      corners: found,
      held,
      cut,
      words,
      score: score + 0.15 * (mean - 0.7) + 0.15 * (weakest - 0.5) - (words ? against(words) : 0),
    };
  });
  return placed.sort((a, b) => b.score - a.score);
}

/** What speaks against a sheet in the print that it cuts off. */
function against({ marks, cut, beside }: PrintOn): number {
  const share = beside / (marks + beside || 1);
  return CUT_WORDS * Math.min(1, cut / 8) + CUT_GROUP * Math.min(1, beside / 8) + CUT_SHARE * share;
}

/** What a side at the border of the picture counts as. */
const AT_BORDER = 0.65;

/** The best candidates, leaving out those that are nearly the same as a better one. */
function unlike(candidates: Candidate[], most: number): Candidate[] {
  const leastApart = ALIKE * SEEK;
  const kept: Candidate[] = [];
  for (const candidate of candidates) {
    if (kept.length === most) break;
    if (kept.every((other) => apart(other.corners, candidate.corners) > leastApart)) kept.push(candidate);
  }
  return kept;
}

/** How far the corner that differs most has moved. */
function apart(a: Quad, b: Quad): number {
  return Math.max(...a.map((corner, index) => distance(corner, b[index])));
}

/** Whether a candidate is a sheet of its own beside those chosen: clear of them, of a like size and paper. */
function isAnother(candidate: Placed, chosen: Placed[], picture: Raster): boolean {
  const [best] = chosen;
  const clearlyPrinted = printed(candidate) >= ENOUGH_PRINT && candidate.words?.cut === 0;
  if (candidate.score < (clearlyPrinted ? BESIDE_BEST_WITH_PRINT : BESIDE_BEST) * best.score) return false;
  if (area(candidate.corners) < LEAST_BESIDE * area(best.corners)) return false;
  // A paper has print on it when the one beside it has; the squares of a tablecloth have none.
  if (printed(candidate) < LEAST_PRINTED * printed(best)) return false;
  if (Math.min(...candidate.held) < (clearlyPrinted ? LEAST_HELD_WITH_PRINT : LEAST_HELD)) return false;
  if (chosen.some((other) => common(other.corners, candidate.corners) >= MOST_COMMON)) return false;
  const [paper, other] = [paperColour(picture, best.corners), paperColour(picture, candidate.corners)];
  const [light, otherLight] = [paper, other].map((colour) => colour[0] + colour[1] + colour[2] + 1);
  return tintApart(paper, other) < SAME_TINT && Math.abs(Math.log(light / otherLight)) < SAME_LIGHT;
}

function isClear({ score, held, cut }: Evidence): boolean {
  return score > CLEAR_SCORE && Math.min(...held) > CLEARLY_HELD && cut < 0.3;
}

/** Seeks quads that may be sheets in a small picture. */
class Search {
  private readonly colours: Opponent;
  private readonly edges: Edges;
  private readonly pool: Pool;

  constructor(
    readonly small: Raster,
    private readonly quick: boolean,
  ) {
    this.colours = opponentColours(small);
    this.edges = findEdges(this.colours);
    this.pool = new Pool(this.edges, this.colours);
    borders(small.width, small.height).forEach((line) => this.pool.add(line));
    straightLines(this.edges, quick ? MOST_LINES_QUICKLY : MOST_LINES).forEach((line) => this.pool.add(line));
    lightRegions(this.colours)
      .flatMap(sidesOf)
      .forEach((line) => this.pool.add(line));
  }

  /** Takes the edges around some print for possible sides. */
  seekAround(print: Quad): void {
    otherSides(this.edges, print, 2).forEach((line) => this.pool.add(line));
  }

  /** The best candidates, each unlike those before it. @param clearOf sheets found already, on which none of them may lie */
  candidates(most: number, clearOf: Quad[] = []): Candidate[] {
    const first = this.quads(clearOf);
    const before = this.pool.all.length;
    for (const { corners } of unlike(first, this.quick ? 1 : MOST_SEARCHED))
      otherSides(this.edges, corners, this.quick ? 2 : 1).forEach((line) => this.pool.add(line));
    const found = this.pool.all.length > before ? this.quads(clearOf) : first;
    const weighed = found
      .slice(0, this.quick ? MOST_WEIGHED / 4 : MOST_WEIGHED)
      .map((each) => this.weighed(each))
      .sort((x, y) => y.score - x.score);
    if (this.quick) return unlike(weighed, most);
    const lines = this.pool.all.map(({ line }) => line);
    const uncovered = unlike(weighed, most).map((each) => ({
      ...each,
      corners: ordered(topmost(this.edges, each.corners, lines)),
    }));
    return unlike(withoutPiles(this.edges, uncovered), most);
  }

  private quads(clearOf: Quad[]): Candidate[] {
    const { width, height } = this.small;
    const most = this.quick ? MOST_CANDIDATES / 4 : MOST_CANDIDATES;
    return quadsOf(this.pool.all, width, height, most, {
      clearOf,
      leastEdge: this.quick || clearOf.length > 0 ? LEAST_EDGE_QUICKLY : LEAST_EDGE_THOROUGHLY,
    });
  }

  /** Less likely when what is on it is as much of one colour as of another. */
  private weighed(candidate: Candidate): Candidate {
    const motley = Math.max(0, PLAIN - plainness(this.small, candidate.corners));
    return { ...candidate, score: candidate.score - MOTLEY * motley };
  }
}

/** Of a sheet, this share has the paper's tint, and is not much darker. */
const PLAIN = 0.75;
const MOTLEY = 0.9;

/** The lines that may be sides, each once, with what speaks for them. */
class Pool {
  readonly all: Support[] = [];

  constructor(
    private readonly edges: Edges,
    private readonly colours: Opponent,
  ) {}

  add(line: Line): void {
    if (this.all.some((other) => nearlySame(line, other.line))) return;
    const support = supportOf(line, this.edges, this.colours);
    // A line without any edge along it is no side of anything.
    const { edge } = support;
    if (line.border || edge[edge.length - 1] > LEAST_EDGE * (this.edges.width + this.edges.height))
      this.all.push(support);
  }
}

function borders(width: number, height: number): Line[] {
  return sidesOf(wholeQuad(width - 1, height - 1)).map((line) => ({ ...line, border: true }));
}

function nearlySame(a: Line, b: Line): boolean {
  const between = Math.abs(a.angle - b.angle);
  if (Math.PI - between < 0.03) return Math.abs(a.offset + b.offset) < 3;
  return between < 0.03 && Math.abs(a.offset - b.offset) < 3;
}
