import { area, clip, distance, ordered, Point, Quad, scaleQuad, wholeQuad } from '../quad';
import { Raster, shrink } from '../raster';
import { Candidate, quadsOf } from './candidates';
import { ownSides, topmost, withoutPiles } from './covered';
import { confidenceOf, Evidence } from './confidence';
import { Edges, findEdges, Opponent, opponentColours } from './edges';
import { Line, sidesOf, straightLines } from './lines';
import { findPrint, Print, PrintOn, printOn } from './print';
import { refineQuad } from './refine';
import { lightRegions } from './regions';
import { otherSides } from './sideSearch';
import { Support, supportOf } from './support';

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
/** How much the paper may differ from that of the sheet beside it in tint, and in brightness (logarithm): light falls off. */
const SAME_TINT = 0.045;
const SAME_LIGHT = 0.8;

interface Placed extends Candidate, Evidence {}

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
  const placing = shrink(picture, PLACE);
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
  const isDone = clearest && isClear(clearest) && shareTaken([clearest]) > ROOM_BESIDE && !goesOn(placing, clearest);
  if (!quick && !isDone) {
    print = findPrint(placing);
    seekAroundPrint(print.areas);
    candidates = place(MOST_PLACED);
  }
  const chosen: Placed[] = [];
  for (const candidate of candidates) {
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
  return chosen.map((sheet) => ({
    corners: ordered(scaleQuad(sheet.corners, picture.width / placing.width)),
    evidence: sheet,
  }));
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

/** Corners of two pieces are the same when they are no further apart than this share of the side. */
const SAME_CORNER = 0.06;

/** Takes a further sheet, or makes one of it and the one that it is a piece of. */
function take(next: Placed, chosen: Placed[]): void {
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

/** What a side at the border of the picture counts as. */
const AT_BORDER = 0.65;

function isAtBorder(quad: Quad, side: number, { width, height }: Raster): boolean {
  const near = 0.012 * Math.max(width, height);
  const [[ax, ay], [bx, by]] = [quad[side], quad[(side + 1) % 4]];
  return (
    (ax < near && bx < near) ||
    (ay < near && by < near) ||
    (ax > width - near && bx > width - near) ||
    (ay > height - near && by > height - near)
  );
}

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
  const tint = Math.hypot(...paper.map((value, channel) => value / light - other[channel] / otherLight));
  return tint < SAME_TINT && Math.abs(Math.log(light / otherLight)) < SAME_LIGHT;
}

/** How far beyond a side it is looked, as a share of the sheet; so much of a side has the paper's own colour there when it is a rule. */
const BEYOND = 0.03;
const SAME_BEYOND = 0.5;
/** How much darker or lighter, and of what other tint, paper is a little way off. */
const PAPER_LIGHT = 0.12;

/** Whether the paper seems to go on beyond a side: a rule across a sheet may have been taken for its end. */
function goesOn(picture: Raster, { corners }: Placed): boolean {
  const paper = paperColour(picture, corners);
  const light = paper[0] + paper[1] + paper[2] + 1;
  return [0, 1, 2, 3].some((side) => {
    if (isAtBorder(corners, side, picture)) return false;
    const [a, b, c, d] = [0, 1, 2, 3].map((by) => corners[(side + by) % 4]);
    const outwards = (corner: Point, inner: Point): Point => [
      corner[0] + BEYOND * (corner[0] - inner[0]),
      corner[1] + BEYOND * (corner[1] - inner[1]),
    ];
    const { colours, seen } = coloursIn(picture, [a, b, outwards(b, c), outwards(a, d)], 24);
    let same = 0;
    for (let at = 0; at < 3 * seen; at += 3) {
      const own = colours[at] + colours[at + 1] + colours[at + 2] + 1;
      const tint = Math.hypot(...paper.map((value, channel) => value / light - colours[at + channel] / own));
      if (tint < SAME_TINT / 2 && Math.abs(Math.log(own / light)) < PAPER_LIGHT) same++;
    }
    return same > SAME_BEYOND * seen;
  });
}

/** A sheet that something lies on may be so much less convincing than the part of it below a rule. */
const LEAST_WHOLE = 0.5;
const MORE_PRINT = 1.2;

/** Leaves out candidates beyond which the paper goes on, when a larger one has more of the print: that one takes their rank. */
function withoutParts(picture: Raster, candidates: Placed[]): Placed[] {
  const raised = new Map(candidates.map((each) => [each, each.score]));
  for (const part of candidates) {
    const whole = candidates.find(
      (each) =>
        each !== part &&
        each.score > LEAST_WHOLE &&
        area(each.corners) > area(part.corners) &&
        common(each.corners, part.corners) > 0.97 &&
        // The sides of a sheet go straight on beyond a rule; those of one that lies on another end there.
        ownSides(part.corners, each.corners).length === 1 &&
        printed(each) > MORE_PRINT * printed(part) &&
        each.words!.cut <= part.words!.cut,
    );
    // Two parts of one sheet are put together later.
    const isHalf = candidates.some((each) => each !== part && wholeOf(each, [part])[0] !== undefined);
    if (!whole || isHalf || !goesOn(picture, part) || goesOn(picture, whole)) continue;
    raised.set(whole, Math.max(raised.get(whole)!, part.score));
    raised.delete(part);
  }
  return candidates
    .filter((each) => raised.has(each))
    .map((each) => ({ ...each, score: raised.get(each)! }))
    .sort((a, b) => b.score - a.score);
}

function isClear({ score, held, cut }: Evidence): boolean {
  return score > CLEAR_SCORE && Math.min(...held) > CLEARLY_HELD && cut < 0.3;
}

function printed({ words }: Evidence): number {
  return words?.marks ?? 0;
}

/** The colour that most of a quad has. */
function paperColour(picture: Raster, quad: Quad): number[] {
  const { colours, seen } = coloursIn(picture, quad, 24);
  return medianColour(colours, seen);
}

/** The colours at the points of a grid over a quad, three numbers each, and how many lie in the picture. */
function coloursIn(
  { width, height, channels, data }: Raster,
  quad: Quad,
  across: number,
): { colours: Uint8Array; seen: number } {
  const colours = new Uint8Array(3 * across * across);
  let seen = 0;
  const [[ax, ay], [bx, by], [cx, cy], [dx, dy]] = quad;
  for (let i = 1; i < across; i++) {
    for (let j = 1; j < across; j++) {
      const [u, v] = [i / across, j / across];
      const x = Math.round((1 - v) * ((1 - u) * ax + u * bx) + v * ((1 - u) * dx + u * cx));
      const y = Math.round((1 - v) * ((1 - u) * ay + u * by) + v * ((1 - u) * dy + u * cy));
      if (x < 0 || y < 0 || x >= width || y >= height) continue;
      const at = (y * width + x) * channels;
      colours[3 * seen] = data[at];
      colours[3 * seen + 1] = data[channels === 1 ? at : at + 1];
      colours[3 * seen + 2] = data[channels === 1 ? at : at + 2];
      seen++;
    }
  }
  return { colours, seen };
}

function medianColour(colours: Uint8Array, seen: number): number[] {
  const values = new Uint8Array(seen);
  return [0, 1, 2].map((channel) => {
    for (let each = 0; each < seen; each++) values[each] = colours[3 * each + channel];
    return values.sort()[seen >> 1] ?? 0;
  });
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
const PAPER_TINT = 0.06;
/** How bright paper in the shadow is, beside the rest. */
const DARKEST_PAPER = 0.4;

/** The share of a quad that has the colour which most of it has. */
function plainness(picture: Raster, quad: Quad): number {
  const { colours, seen } = coloursIn(picture, quad, 14);
  if (seen === 0) return 1;
  const paper = medianColour(colours, seen);
  const light = paper[0] + paper[1] + paper[2] + 1;
  let alike = 0;
  for (let at = 0; at < 3 * seen; at += 3) {
    const own = colours[at] + colours[at + 1] + colours[at + 2] + 1;
    if (own < light * DARKEST_PAPER || own > light / DARKEST_PAPER) continue;
    const [red, green, blue] = [0, 1, 2].map((channel) => paper[channel] / light - colours[at + channel] / own);
    if (red * red + green * green + blue * blue < PAPER_TINT * PAPER_TINT) alike++;
  }
  return alike / seen;
}

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

/** How much of the smaller of two quads lies in the other. */
function common(a: Quad, b: Quad): number {
  const shared = clip(a, b);
  return shared.length < 3 ? 0 : area(shared) / Math.min(area(a), area(b));
}
