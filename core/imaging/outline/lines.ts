import { Quad } from '../quad';
import { Edges } from './edges';

/** A straight line: x cos(angle) + y sin(angle) = offset, with the angle of its normal from 0 to π. */
export interface Line {
  angle: number;
  offset: number;
  /** Whether it is the picture's own border, where a sheet that fills the picture ends. */
  border?: boolean;
}

const ANGLES = 180;
/** How far, in bins, an edge's direction may be off its line's. */
const SPREAD = 3;
const SAME_ANGLE = 4;
const SAME_OFFSET = 6;
const LEAST_VOTES = 0.09;
/** So many lines at the most from one eighth of all directions: the grain of a wooden table has hundreds. */
const MOST_IN_SECTOR = 7;
const SECTORS = 8;

/**
 * The longest straight edges: a Hough transform (Duda & Hart 1972) in which each edge votes only for lines in about its own
 * direction (O'Gorman & Clowes 1976).
 * @param most how many at the most, the strongest first
 * @param mostInSector how many at the most from one eighth of all directions
 */
export function straightLines(
  { width, height, strength, normalX, normalY }: Edges,
  most: number,
  mostInSector = MOST_IN_SECTOR,
): Line[] {
  const reach = Math.ceil(Math.hypot(width, height));
  const offsets = 2 * reach + 1;
  const votes = new Float32Array(ANGLES * offsets);
  const cosines = Float32Array.from({ length: ANGLES }, (_, bin) => Math.cos((bin * Math.PI) / ANGLES));
  const sines = Float32Array.from({ length: ANGLES }, (_, bin) => Math.sin((bin * Math.PI) / ANGLES));
  for (let y = 1, at = width + 1; y < height - 1; y++, at += 2) {
    for (let x = 1; x < width - 1; x++, at++) {
      if (strength[at] === 0) continue;
      const weight = Math.min(1, strength[at] / 12) * 0.6 + 0.4;
      const angle = Math.atan2(normalY[at], normalX[at]);
      const bin = Math.round(((angle + Math.PI) / Math.PI) * ANGLES);
      for (let by = -SPREAD; by <= SPREAD; by++) {
        let each = bin + by;
        if (each < 0) each += ANGLES;
        while (each >= ANGLES) each -= ANGLES;
        const offset = (x * cosines[each] + y * sines[each] + reach + 0.5) | 0;
        votes[each * offsets + offset] += weight;
      }
    }
  }
  const peaks: { bin: number; offset: number; sum: number }[] = [];
  const least = LEAST_VOTES * Math.min(width, height);
  for (let bin = 0; bin < ANGLES; bin++) {
    for (let offset = 1; offset < offsets - 1; offset++) {
      const at = bin * offsets + offset;
      const here = votes[at];
      if (here < least || here < votes[at - 1] || here < votes[at + 1]) continue;
      peaks.push({ bin, offset: offset - reach, sum: here + 0.5 * (votes[at - 1] + votes[at + 1]) });
    }
  }
  peaks.sort((a, b) => b.sum - a.sum);
  const chosen: typeof peaks = [];
  const inSector = new Array<number>(SECTORS).fill(0);
  for (const peak of peaks) {
    const sector = Math.floor((peak.bin * SECTORS) / ANGLES);
    if (inSector[sector] >= mostInSector || chosen.some((other) => isSame(peak, other))) continue;
    inSector[sector]++;
    chosen.push(peak);
    if (chosen.length === most) break;
  }
  return chosen.map(({ bin, offset }) => ({ angle: (bin * Math.PI) / ANGLES, offset }));
}

function isSame(a: { bin: number; offset: number }, b: { bin: number; offset: number }): boolean {
  const apart = Math.abs(a.bin - b.bin);
  // Past the end of the half circle the normal points the other way.
  if (ANGLES - apart < SAME_ANGLE) return Math.abs(a.offset + b.offset) < SAME_OFFSET;
  return apart < SAME_ANGLE && Math.abs(a.offset - b.offset) < SAME_OFFSET;
}

export function lineThrough([ax, ay]: [number, number], [bx, by]: [number, number]): Line {
  let angle = Math.atan2(bx - ax, ay - by);
  if (angle < 0) angle += Math.PI;
  if (angle >= Math.PI) angle -= Math.PI;
  return { angle, offset: ax * Math.cos(angle) + ay * Math.sin(angle) };
}

/** The four sides of a quad as lines. */
export function sidesOf(quad: Quad): Line[] {
  return quad.map((corner, index) => lineThrough(corner, quad[(index + 1) % 4]));
}

/** Where two lines cross; undefined when they are almost parallel. @param least the angle between them, in radians, from which on they are not */
export function crossing(a: Line, b: Line, least = 0.08): [number, number] | undefined {
  const determinant = Math.sin(b.angle - a.angle);
  if (Math.abs(determinant) < least) return undefined;
  return [
    (a.offset * Math.sin(b.angle) - b.offset * Math.sin(a.angle)) / determinant,
    (b.offset * Math.cos(a.angle) - a.offset * Math.cos(b.angle)) / determinant,
  ];
}
