import { Component, connectedComponents, letterHeight } from '../../imaging/components';
import { Ink } from '../../imaging/ink';
import { Rule } from './ruledLines';

/** Letters in a row without a gap wider than those between words: a line of prose, or a cell of a table's row. */
export interface Segment {
  /** Edges in pixels, both inclusive. */
  left: number;
  top: number;
  right: number;
  bottom: number;
  /** Height of its smaller and of its taller letters, in pixels. */
  letter: number;
  tall: number;
  /** How much its line falls towards the right, in pixels a pixel. */
  slope: number;
  /** Where most of its letters begin and end, at its left edge. */
  upper: number;
  lower: number;
  /** Its pieces of ink, by their numbers in the labels, from 1. */
  members: number[];
}

/** What is on a page: its segments, and the pieces of ink that they consist of. */
export interface PageSegments {
  segments: Segment[];
  components: Component[];
  /** For each pixel the number of its piece from 1, 0 for paper. */
  labels: Int32Array;
  /** The usual height of small letters, in pixels. */
  letter: number;
}

/** Pieces smaller than these shares of a letter's height are dots and commas; larger than those, pictures. */
const LETTER_FROM = 0.45;
const LETTER_TO = 7;
const LEAST_PIXELS = 3;
/** How wide a gap within a segment may be, in heights of its larger letters. */
const WIDEST_GAP = 1.35;
/** A group of so few pieces may be the dots or the comma of a larger one that is so much taller. */
const MOST_CRUMBS = 3;
/** How far above and below its segment a piece may stand, in heights of a letter. */
const [ABOVE, BELOW] = [0.75, 0.25];
const MUCH_SMALLER = 0.55;
/** Letters that a line needs before its own slope is believed, and as far as it may be from the page's. */
const ENOUGH_LETTERS = 14;
const MOST_CURVED = 0.02;

/**
 * Finds the segments of text on a page that is level or nearly so, from the pieces of ink and who stands beside whom (nearest
 * neighbours, as in O'Gorman's docstrum, 1993): letters of lines and cells whatever their size, with their dots and accents.
 * @param ink without ruled lines
 * @param rules that were taken out of it: what stands on both sides of one that runs down is two cells
 */
export function findSegments(ink: Ink, rules: readonly Rule[] = []): PageSegments {
  const { components, labels } = connectedComponents(ink);
  const letter = letterHeight(components) || 16;
  const letters: number[] = [];
  const smalls: number[] = [];
  components.forEach(({ left, right, top, bottom, pixels }, number) => {
    const [w, h] = [right - left + 1, bottom - top + 1];
    if (h > LETTER_TO * letter || w > 30 * letter || pixels < LEAST_PIXELS) return;
    if (h >= LETTER_FROM * letter) letters.push(number);
    else if (w < 12 * letter) smalls.push(number);
  });
  const groups = chain(components, withoutBraces(components, letters, letter)).map((members) =>
    segmentOf(components, members),
  );
  const slope = slant(groups, components);
  const lines = groups.filter(({ members }) => members.length > MOST_CRUMBS);
  // A large heading's dots are as tall as small letters: what stands alone may belong to something larger beside it.
  for (const crumb of groups.filter(({ members }) => members.length <= MOST_CRUMBS).sort(byHeight)) {
    const home = nearest(crumb, lines, ({ tall }) => crumb.bottom - crumb.top + 1 < MUCH_SMALLER * tall);
    if (home) swallow(home, crumb);
    else lines.push(crumb);
  }
  for (const number of smalls) {
    const piece = { ...components[number], members: [number + 1] };
    const home = nearest(piece, lines);
    if (home) swallow(home, piece);
  }
  const segments = reunited(lines, components, slope)
    .flatMap((segment) => linesApart(segment, { components, labels, width: ink.width }))
    .flatMap((segment) => cells(segment, rules, components))
    .filter((segment) => isText(segment, components, letter));
  slant(segments, components);
  return { segments, components, labels, letter };
}

/** What stands beside two lines is so much taller than a small letter, and than the letters of each of the lines. */
const [BRACE, NARROW] = [1.6, 0.35];
const OF_BRACE = [0.25, 0.62];

/** Letters without bars, braces and the like that stand beside two lines and would make one of them. */
function withoutBraces(components: Component[], letters: number[], letter: number): number[] {
  const high = ({ top, bottom }: Component) => bottom - top + 1;
  const isNarrow = ({ left, right, top, bottom }: Component) => right - left + 1 < NARROW * (bottom - top + 1);
  const tall = letters.filter((number) => high(components[number]) > BRACE * letter && isNarrow(components[number]));
  if (tall.length === 0) return letters;
  const order = letters.map((number) => components[number]).sort((one, other) => one.left - other.left);
  const isBeside = (one: Component, other: Component) =>
    Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top) + 1 > 0.5 * Math.min(high(one), high(other));
  /** The pieces that begin to the right of one, as near as letters of a line may be. */
  const behind = (piece: Component) => {
    const from = firstFrom(order, piece.right + 1);
    const near: Component[] = [];
    for (let at = from; at < order.length && order[at].left - piece.right <= WIDEST_GAP * high(piece); at++)
      near.push(order[at]);
    return near;
  };
  const goesOn = (piece: Component) =>
    behind(piece).some(
      (next) => isBeside(piece, next) && Math.max(high(piece), high(next)) < 1.8 * Math.min(high(piece), high(next)),
    );
  const braces = tall.filter((number) => {
    const brace = components[number];
    const lines = behind(brace).filter((piece) => {
      const share = high(piece) / high(brace);
      return share > OF_BRACE[0] && share < OF_BRACE[1] && isBeside(brace, piece) && goesOn(piece);
    });
    const [lowest, highest] = [
      Math.max(...lines.map(({ top }) => top)),
      Math.min(...lines.map(({ bottom }) => bottom)),
    ];
    return lines.length > 1 && lowest > highest;
  });
  const left = new Set(braces);
  return letters.filter((number) => !left.has(number));
}

/** Where in an order by left edges those from an edge on begin. */
function firstFrom(order: readonly Component[], left: number): number {
  let [low, high] = [0, order.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (order[middle].left < left) low = middle + 1;
    else high = middle;
  }
  return low;
}

const byHeight = (a: Segment, b: Segment) => b.bottom - b.top - (a.bottom - a.top);

/** Joins each letter with its neighbours to the right that stand on its line and near enough. */
function chain(components: Component[], letters: number[]): number[][] {
  const order = letters.toSorted((a, b) => components[a].left - components[b].left);
  const parent = new Int32Array(components.length).map((_, number) => number);
  const find = (number: number): number => {
    while (parent[number] !== number) {
      parent[number] = parent[parent[number]];
      number = parent[number];
    }
    return number;
  };
  for (let at = 0; at < order.length; at++) {
    const one = components[order[at]];
    const tall = one.bottom - one.top + 1;
    // The two nearest: an accented letter's neighbour may be hidden behind its accent.
    let [first, firstGap, second, secondGap] = [-1, Infinity, -1, Infinity];
    for (let next = at + 1; next < order.length; next++) {
      const other = components[order[next]];
      const gap = other.left - one.right - 1;
      if (gap > 2 * WIDEST_GAP * tall) break;
      const high = other.bottom - other.top + 1;
      if (gap > WIDEST_GAP * Math.max(tall, Math.min(high, 2 * tall)) || gap >= secondGap) continue;
      const [lower, taller] = tall < high ? [tall, high] : [high, tall];
      if (taller > 3.4 * lower) continue;
      const shared = Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top) + 1;
      if (shared < 0.45 * lower) continue;
      if (gap < firstGap) [second, secondGap, first, firstGap] = [first, firstGap, order[next], gap];
      else [second, secondGap] = [order[next], gap];
    }
    if (first >= 0) parent[find(first)] = find(order[at]);
    if (second >= 0) parent[find(second)] = find(order[at]);
  }
  const groups = new Map<number, number[]>();
  for (const number of order) {
    const root = find(number);
    const group = groups.get(root);
    if (group) group.push(number);
    else groups.set(root, [number]);
  }
  return [...groups.values()];
}

/** @param least pieces lower than this share of it are no letters */
function segmentOf(components: Component[], members: number[], least = 0): Segment {
  let [left, top, right, bottom] = [Infinity, Infinity, 0, 0];
  const heights: number[] = [];
  const all: number[] = [];
  for (const number of members) {
    const box = components[number];
    left = Math.min(left, box.left);
    top = Math.min(top, box.top);
    right = Math.max(right, box.right);
    bottom = Math.max(bottom, box.bottom);
    all.push(box.bottom - box.top + 1);
    if (box.bottom - box.top + 1 >= LETTER_FROM * least) heights.push(box.bottom - box.top + 1);
  }
  // What consists of points alone is measured by them.
  if (heights.length === 0) heights.push(...all);
  heights.sort((a, b) => a - b);
  return {
    left,
    top,
    right,
    bottom,
    letter: heights[Math.floor(heights.length * 0.4)],
    tall: heights[Math.floor(heights.length * 0.9)],
    slope: 0,
    upper: top,
    lower: bottom,
    members: members.map((number) => number + 1),
  };
}

type Piece = Pick<Segment, 'left' | 'top' | 'right' | 'bottom' | 'members'>;

/** The segment that a dot, comma, hyphen or accent stands in or beside. */
function nearest(
  { left, right, top, bottom }: Piece,
  segments: readonly Segment[],
  fits: (segment: Segment) => boolean = () => true,
): Segment | undefined {
  const flat = right - left + 1 > 1.8 * (bottom - top + 1);
  let [best, least] = [undefined as Segment | undefined, Infinity];
  for (const segment of segments) {
    const fall = segment.slope * ((left + right) / 2 - segment.left);
    const [above, below] = [segment.upper + fall - bottom, top - segment.lower - fall];
    // Accents stand well above their letters; what hangs below touches the line nearly; dashes are never outside.
    if (above > (flat ? 0 : ABOVE) * segment.letter || below > (flat ? 0 : BELOW) * segment.letter) continue;
    const down = Math.max(0, above, below);
    const across = Math.max(0, segment.left - right, left - segment.right);
    if (across > 1.1 * segment.letter) continue;
    const distance = across + 2 * down;
    if (distance < least && fits(segment)) [best, least] = [segment, distance];
  }
  return best;
}

function swallow(segment: Segment, piece: Piece): void {
  segment.members.push(...piece.members);
  segment.left = Math.min(segment.left, piece.left);
  segment.right = Math.max(segment.right, piece.right);
  segment.top = Math.min(segment.top, piece.top);
  segment.bottom = Math.max(segment.bottom, piece.bottom);
}

/** Segments that come near each other now that their dots and commas are there: “12:” and “30”. */
function reunited(segments: Segment[], components: Component[], slope: number): Segment[] {
  const order = segments.toSorted((a, b) => a.left - b.left);
  const done: Segment[] = [];
  for (const next of order) {
    const home = done.find((one) => {
      const gap = next.left - one.right - 1;
      const [lower, taller] = one.tall < next.tall ? [one.tall, next.tall] : [next.tall, one.tall];
      const fall = slope * (next.left - one.left);
      const shared = Math.min(one.lower + fall, next.lower) - Math.max(one.upper + fall, next.upper) + 1;
      return gap <= WIDEST_GAP * taller && gap > -lower && taller < 1.8 * lower && shared >= 0.6 * lower;
    });
    if (!home) done.push(next);
    else {
      const members = [...home.members, ...next.members].map((number) => number - 1);
      Object.assign(home, segmentOf(components, members, home.letter));
      stretch(home, components, slope);
    }
  }
  return done;
}

/** Letters that hold two lines together are so much taller than others; each line has so many others, and they stand so far apart, in heights of a letter. */
const [HOLDING, LEAST_OF_LINE, LINES_APART] = [1.9, 4, 1.1];
/** Two lines are so high, in heights of a letter. */
const LEAST_OF_TWO = 2;
/** Of the letters of two lines, no more stand between both. */
const MOST_BETWEEN = 0.12;
/** What ends no higher above the feet of the lower line, in heights of its letters, has a letter of it in it. */
const REACHES = 0.35;

/** Tails of letters hang so far below their line, in heights of its tall letters; where a stroke is so much wider than it was, another one joins it. */
const [DESCENDS, JOINED] = [0.34, 1.6];

/** Pieces of ink, and which pixels are of which. */
interface Pieces {
  components: Component[];
  labels: Int32Array;
  width: number;
}

/** The two lines of a segment in which a letter of the one touches one of the other, or the segment as it is. Such letters are cut where the lower line begins. */
function linesApart(segment: Segment, pieces: Pieces): Segment[] {
  const { components } = pieces;
  const { letter, slope, left } = segment;
  if (segment.bottom - segment.top < LEAST_OF_TWO * letter) return [segment];
  const fallAt = (piece: Component) => slope * ((piece.left + piece.right) / 2 - left);
  const letters = segment.members
    .map((member) => components[member - 1])
    .filter(({ top, bottom }) => bottom - top + 1 >= LETTER_FROM * letter && bottom - top + 1 < HOLDING * letter)
    .flatMap((piece) => {
      const own = { foot: piece.bottom - fallAt(piece), high: piece.bottom - piece.top + 1 };
      // Letters that touch are one piece.
      return new Array<typeof own>(Math.max(1, Math.round((piece.right - piece.left) / letter))).fill(own);
    })
    .sort((a, b) => a.foot - b.foot);
  if (letters.length < 2 * LEAST_OF_LINE) return [segment];
  const feet = letters.map(({ foot }) => foot);
  // The widest step between feet, each side with letters enough, is where the one line ends.
  let [edge, widest] = [0, 0];
  for (let at = LEAST_OF_LINE; at <= feet.length - LEAST_OF_LINE; at++)
    if (feet[at] - feet[at - 1] > widest) [edge, widest] = [(feet[at] + feet[at - 1]) / 2, feet[at] - feet[at - 1]];
  if (widest === 0) return [segment];
  const [upper, lower] = [letters.filter(({ foot }) => foot < edge), letters.filter(({ foot }) => foot >= edge)];
  const lowerFoot = lower[lower.length >> 1].foot;
  const apart = lowerFoot - upper[upper.length >> 1].foot;
  const between = feet.filter((foot) => Math.abs(foot - edge) < 0.2 * apart).length;
  const heights = lower.map(({ high }) => high).sort((a, b) => a - b);
  // A line below a heading has smaller letters than it, and may stand nearer.
  const small = Math.min(letter, heights[heights.length >> 1]);
  if (apart < LINES_APART * small || between > MOST_BETWEEN * feet.length) return [segment];
  const begins = lowerFoot - heights[Math.floor(0.8 * heights.length)] + 1;
  const tall = upper.map(({ high }) => high).sort((a, b) => a - b)[Math.floor(0.8 * upper.length)];
  const deepest = upper[upper.length >> 1].foot + DESCENDS * tall;
  const parts: [upper: number[], lower: number[]] = [[], []];
  for (const member of segment.members) {
    const piece = components[member - 1];
    const fall = fallAt(piece);
    const isAbove = piece.top - fall < edge - apart / 2;
    const reaches = piece.bottom - fall > lowerFoot - REACHES * small;
    if (isAbove && reaches && piece.top - fall < begins - small / 2) {
      parts[0].push(member);
      parts[1].push(...cutAcross(member, begins + fall, deepest + fall, pieces));
    } else {
      const isTall = piece.bottom - piece.top + 1 >= HOLDING * letter;
      parts[(isTall ? isAbove : piece.bottom - fall < edge) ? 0 : 1].push(member);
    }
  }
  return parts.map((members) => {
    const line = segmentOf(
      components,
      members.map((member) => member - 1),
      small,
    );
    stretch(line, components, slope);
    return line;
  });
}

/**
 * Cuts a piece of ink in two; a tail that goes on below the cut stays with the upper part as far as it can be followed.
 * @param cut the first row of the lower part, and `deepest` how far down a tail may go
 * @returns the number of the lower part, from 1; none where nothing is left of it
 */
function cutAcross(member: number, cut: number, deepest: number, { components, labels, width }: Pieces): number[] {
  const piece = components[member - 1];
  const number = components.length + 1;
  const first = Math.round(cut);
  for (let y = first; y <= piece.bottom; y++)
    for (let at = y * width + piece.left; at <= y * width + piece.right; at++)
      if (labels[at] === member) labels[at] = number;
  /** Where a stroke that stands above in some columns goes on in a row. */
  const below = (y: number, from: number, to: number): [from: number, to: number] | undefined => {
    const isOf = (x: number) => x >= piece.left && x <= piece.right && labels[y * width + x] === number;
    let start = from - 1;
    while (start <= to + 1 && !isOf(start)) start++;
    if (start > to + 1) return undefined;
    while (isOf(start - 1)) start--;
    let end = start;
    while (isOf(end + 1)) end++;
    return [start, end];
  };
  for (let x = piece.left; x <= piece.right; x++) {
    if (labels[(first - 1) * width + x] !== member) continue;
    let run: [number, number] | undefined = [x, x];
    while (labels[(first - 1) * width + run[1] + 1] === member && run[1] < piece.right) run[1]++;
    x = run[1];
    let wide = run[1] - run[0] + 1;
    for (let y = first; y <= deepest && (run = below(y, ...run)) !== undefined; y++) {
      if (run[1] - run[0] + 1 > JOINED * wide + 1) break;
      wide = Math.max(wide, run[1] - run[0] + 1);
      labels.fill(member, y * width + run[0], y * width + run[1] + 1);
    }
  }
  const parts = [newPiece(), newPiece()];
  for (let y = piece.top; y <= piece.bottom; y++)
    for (let x = piece.left; x <= piece.right; x++) {
      const label = labels[y * width + x];
      if (label !== member && label !== number) continue;
      const part = parts[label === member ? 0 : 1];
      part.left = Math.min(part.left, x);
      part.right = Math.max(part.right, x);
      part.top = Math.min(part.top, y);
      part.bottom = Math.max(part.bottom, y);
      part.pixels++;
    }
  Object.assign(piece, parts[0]);
  if (parts[1].pixels === 0) return [];
  components.push(parts[1]);
  return [number];
}

const newPiece = (): Component => ({ left: Infinity, top: Infinity, right: 0, bottom: 0, pixels: 0 });

/** Fewer pieces on a side of a ruled line are no cell: figures may be written into a comb of boxes, one into each. */
const LEAST_OF_CELL = 2;

/** The parts of a segment on either side of the ruled lines that run down through it. */
function cells(segment: Segment, rules: readonly Rule[], components: Component[]): Segment[] {
  const middle = (segment.upper + segment.lower) / 2;
  const through = rules.filter(
    ({ direction, left, right, top, bottom }) =>
      direction === 'down' && left > segment.left && right < segment.right && top < middle && bottom > middle,
  );
  if (through.length === 0) return [segment];
  const edges = through.map(({ left, right }) => (left + right) / 2).sort((a, b) => a - b);
  const parts: number[][] = [...edges, 0].map(() => []);
  for (const member of segment.members) {
    const { left, right } = components[member - 1];
    parts[edges.filter((edge) => edge < (left + right) / 2).length].push(member - 1);
  }
  const full = parts.filter(({ length }) => length > 0);
  if (full.some(({ length }) => length < LEAST_OF_CELL)) return [segment];
  return full.map((members) => {
    const cell = segmentOf(components, members, segment.letter);
    stretch(cell, components, segment.slope);
    return cell;
  });
}

/** Whether a segment can be text: a lone piece must look like a letter. */
function isText({ members, left, right, top, bottom }: Segment, components: Component[], letter: number): boolean {
  if (members.length > 1) return true;
  const { pixels } = components[members[0] - 1];
  const [w, h] = [right - left + 1, bottom - top + 1];
  return h < 4 * letter && w < 4 * letter && pixels > 0.06 * w * h;
}

/**
 * Gives each segment the slope of its line: its own when it is long enough, else that of the page.
 * @returns the page's
 */
function slant(segments: Segment[], components: Component[]): number {
  const own = segments.map((segment) => (segment.members.length < ENOUGH_LETTERS ? NaN : slopeOf(segment, components)));
  const known = own.filter((slope) => !Number.isNaN(slope)).sort((a, b) => a - b);
  const usual = known.length === 0 ? 0 : known[known.length >> 1];
  segments.forEach((segment, at) =>
    stretch(segment, components, Math.abs(own[at] - usual) < MOST_CURVED ? own[at] : usual),
  );
  return usual;
}

/** Lays a segment's line through its letters. */
function stretch(segment: Segment, components: Component[], slope: number): void {
  const tops: number[] = [];
  const bottoms: number[] = [];
  for (const number of segment.members) {
    const { left, right, top, bottom } = components[number - 1];
    if (bottom - top + 1 < LETTER_FROM * segment.letter) continue;
    const fall = slope * ((left + right) / 2 - segment.left);
    tops.push(top - fall);
    bottoms.push(bottom - fall);
  }
  tops.sort((a, b) => a - b);
  bottoms.sort((a, b) => a - b);
  segment.slope = slope;
  segment.upper = tops[Math.floor(tops.length * 0.15)] ?? segment.top;
  segment.lower = bottoms[Math.floor(bottoms.length * 0.6)] ?? segment.bottom;
}

/** The slope of the line through the feet of the letters: the median of the slopes between halves (Theil 1950, Siegel 1982). */
function slopeOf({ members, letter }: Segment, components: Component[]): number {
  const feet = members
    .map((number) => components[number - 1])
    .filter(({ top, bottom }) => bottom - top + 1 >= 0.8 * letter)
    .map(({ left, right, bottom }): [number, number] => [(left + right) / 2, bottom])
    .sort((a, b) => a[0] - b[0]);
  const half = feet.length >> 1;
  const slopes: number[] = [];
  for (let at = 0; at < half; at++) {
    for (let other = half; other < feet.length; other += 3) {
      const wide = feet[other][0] - feet[at][0];
      if (wide > 4 * letter) slopes.push((feet[other][1] - feet[at][1]) / wide);
    }
  }
  slopes.sort((a, b) => a - b);
  return slopes.length < 6 ? NaN : slopes[slopes.length >> 1];
}
