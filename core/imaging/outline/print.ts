import { Component, inkPieces } from '../components';
import { roughInk } from '../ink';
import { Point, Quad } from '../quad';
import { Raster, shrink } from '../raster';
import { convexHull } from './regions';

/** Longer side, in pixels, at which print is told from other marks. */
const LETTERS_AT = 800;
const [SMALLEST, LARGEST] = [3, 30];
/** How much longer than tall a mark is at the most: letters that touch make whole words. */
const LONGEST_WORD = 9;
const LEAST_INK = 0.15;
/** Marks are next to each other when the gap between them is at most this many of their heights, and they are about as tall. */
const SPACING = 1.3;
const AS_TALL = 2;
/** A group of marks that are all of one length is the pattern of a cloth: the words of a paper differ (standard deviation by mean). */
const LEAST_VARIED = 0.15;
const LEAST_IN_ROW = 3;
/** Rows belong together when the gap is at most so many heights of a mark. */
const TOGETHER = 10;
const LEAST_MARKS = 8;

/** Where something is printed or written. */
export interface Print {
  /** Letters and words that stand in rows: their boxes, upright, in pixels of the picture. */
  marks: Component[];
  /** For each of them, the number of the nearest one in its row, or -1. */
  neighbour: number[];
  /** For each of them, the number of the group with which it stands. */
  group: number[];
  /** Rectangles around those that stand together, the most first. */
  areas: Quad[];
}

/**
 * Finds print in a photo before any page is known: small dark marks of like heights next to each other, at whatever angle
 * (nearest neighbours, as in the docstrum, O'Gorman 1993), of unlike lengths. The grain of wood has long marks only.
 */
export function findPrint(picture: Raster): Print {
  const small = shrink(picture, LETTERS_AT);
  const scale = picture.width / small.width;
  const all = inkPieces(roughInk(small)).filter(isLetter);
  all.sort((a, b) => a.top - b.top);
  const nearest = new Int32Array(all.length).fill(-1);
  const gaps = new Float32Array(all.length).fill(Infinity);
  const row = new Groups(all.length);
  eachPair(all, SPACING, (one, other, gap) => {
    const [tall, otherTall] = [tallness(all[one]), tallness(all[other])];
    if (tall > AS_TALL * otherTall || otherTall > AS_TALL * tall) return;
    row.join(one, other);
    if (gap < gaps[one]) [gaps[one], nearest[one]] = [gap, other];
    if (gap < gaps[other]) [gaps[other], nearest[other]] = [gap, one];
  });
  const kept = row
    .all()
    .filter((members) => members.length >= LEAST_IN_ROW && isVaried(members.map((index) => all[index])))
    .flat()
    .sort((a, b) => a - b);
  const numbers = new Map(kept.map((index, number) => [index, number]));
  const marks = kept.map((index) => all[index]);
  const groups = groupsOf(marks);
  const group = new Array<number>(marks.length);
  groups.forEach((members, number) => members.forEach((index) => (group[index] = number)));
  const areas = groups
    .filter((members) => members.length >= LEAST_MARKS)
    .map((members) => rectangleAround(convexHull(members.flatMap((index) => cornersOf(marks[index])))));
  return {
    marks: marks.map(({ left, top, right, bottom, pixels }) => ({
      left: left * scale,
      top: top * scale,
      right: (right + 1) * scale,
      bottom: (bottom + 1) * scale,
      pixels: pixels * scale * scale,
    })),
    neighbour: kept.map((index) => numbers.get(nearest[index]) ?? -1),
    group,
    areas: areas.map((quad) => quad.map(([x, y]) => [x * scale, y * scale]) as Quad),
  };
}

function isLetter({ left, right, top, bottom, pixels }: Component): boolean {
  const [w, h] = [right - left + 1, bottom - top + 1];
  const [short, long] = [Math.min(w, h), Math.max(w, h)];
  if (long < SMALLEST || short < 2 || short > LARGEST) return false;
  return long <= LONGEST_WORD * short && pixels > LEAST_INK * w * h;
}

function tallness({ left, right, top, bottom }: Component): number {
  return Math.min(right - left, bottom - top) + 1;
}

function isVaried(marks: Component[]): boolean {
  const lengths = marks.map(({ left, right, top, bottom }) => Math.max(right - left, bottom - top) + 1);
  const mean = lengths.reduce((sum, each) => sum + each, 0) / lengths.length;
  const variance = lengths.reduce((sum, each) => sum + (each - mean) ** 2, 0) / lengths.length;
  return Math.sqrt(variance) > LEAST_VARIED * mean;
}

/** Calls back for every two marks, sorted by their tops, with no more of a gap between them than so many of the shorter one's heights. */
function eachPair(marks: Component[], most: number, found: (one: number, other: number, gap: number) => void): void {
  for (let one = 0; one < marks.length; one++) {
    const a = marks[one];
    const far = most * tallness(a);
    for (let other = one + 1; other < marks.length; other++) {
      const b = marks[other];
      const down = b.top - a.bottom;
      if (down > far) break;
      const across = Math.max(a.left - b.right, b.left - a.right, 0);
      const gap = Math.hypot(across, Math.max(0, down));
      if (gap <= Math.min(far, most * tallness(b))) found(one, other, gap);
    }
  }
}

/** Marks that stand together, the most first. */
function groupsOf(marks: Component[]): number[][] {
  const groups = new Groups(marks.length);
  eachPair(marks, TOGETHER, (one, other) => groups.join(one, other));
  return groups.all().sort((a, b) => b.length - a.length);
}

function cornersOf({ left, right, top, bottom }: Component): Point[] {
  return [
    [left, top],
    [right + 1, top],
    [left, bottom + 1],
    [right + 1, bottom + 1],
  ];
}

/** The smallest rectangle around a convex polygon; one of its sides lies along a side of the polygon (Freeman & Shapira 1975). */
function rectangleAround(hull: Point[]): Quad {
  let best: { size: number; quad: Quad } | undefined;
  hull.forEach(([ax, ay], index) => {
    const [bx, by] = hull[(index + 1) % hull.length];
    const length = Math.hypot(bx - ax, by - ay) || 1;
    const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
    const along = hull.map(([x, y]) => x * ux + y * uy);
    const away = hull.map(([x, y]) => y * ux - x * uy);
    const [left, right] = [Math.min(...along), Math.max(...along)];
    const [top, bottom] = [Math.min(...away), Math.max(...away)];
    const size = (right - left) * (bottom - top);
    if (best && best.size <= size) return;
    const at = (u: number, v: number): Point => [u * ux - v * uy, u * uy + v * ux];
    best = { size, quad: [at(left, top), at(right, top), at(right, bottom), at(left, bottom)] };
  });
  return best!.quad;
}

/** Numbers joined into groups (union-find, Galler & Fischer 1964). */
class Groups {
  private readonly parent: Int32Array;

  constructor(count: number) {
    this.parent = Int32Array.from({ length: count }, (_, index) => index);
  }

  join(a: number, b: number): void {
    this.parent[this.root(a)] = this.root(b);
  }

  all(): number[][] {
    const groups = new Map<number, number[]>();
    this.parent.forEach((_, index) => {
      const group = groups.get(this.root(index));
      if (group) group.push(index);
      else groups.set(this.root(index), [index]);
    });
    return [...groups.values()];
  }

  private root(of: number): number {
    let at = of;
    while (this.parent[at] !== at) at = this.parent[at] = this.parent[this.parent[at]];
    return at;
  }
}

/** What the print says of a quad that may be a sheet. */
export interface PrintOn {
  /** How many letters and words stand on it. */
  marks: number;
  /** Of those next to each other, how often one stands on it and the other doesn't. */
  cut: number;
  /** How many stand beside it that belong to groups of which a good part stands on it. */
  beside: number;
}

const GOOD_PART = 0.25;

/** Whether the middle of a mark is in a convex quad, clockwise. */
export const isOn = (quad: Quad, { left, right, top, bottom }: Component) =>
  isInside(quad, (left + right) / 2, (top + bottom) / 2);

/** The groups of which a good part stands on a convex quad, clockwise. */
export function groupsOn({ marks, group }: Print, quad: Quad): Set<number> {
  const [all, on] = [new Map<number, number>(), new Map<number, number>()];
  const count = (groups: Map<number, number>, number: number) => groups.set(number, (groups.get(number) ?? 0) + 1);
  marks.forEach((mark, at) => {
    count(all, group[at]);
    if (isOn(quad, mark)) count(on, group[at]);
  });
  return new Set([...on.keys()].filter((number) => on.get(number)! >= GOOD_PART * all.get(number)!));
}

/** Counts the marks on a convex quad, given clockwise, and the rows and groups that its sides cut. */
export function printOn(print: Print, quad: Quad): PrintOn {
  const { marks, neighbour, group } = print;
  const inside = marks.map((mark) => isOn(quad, mark));
  const groups = groupsOn(print, quad);
  return {
    marks: inside.filter(Boolean).length,
    cut: inside.filter((within, each) => neighbour[each] >= 0 && within !== inside[neighbour[each]]).length,
    beside: inside.filter((within, each) => !within && groups.has(group[each])).length,
  };
}

/** Whether a place is in a convex quad, clockwise. */
export function isInside(quad: Quad, x: number, y: number): boolean {
  return quad.every(([ax, ay], side) => {
    const [bx, by] = quad[(side + 1) % 4];
    return (bx - ax) * (y - ay) - (by - ay) * (x - ax) >= 0;
  });
}
