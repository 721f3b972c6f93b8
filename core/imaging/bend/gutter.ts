import { greyOf } from '../raster';
import { SheetPlane } from './findBend';
import { Row } from './rows';

/** Where the gutter of an open book may be, as a share of its width from the middle, and how far from upright, as a share of its height. */
const GUTTER = { reach: 0.14, slant: 0.06 };
/** Its darkness or step, as a share of the paper's light, from which on it is seen. */
const LEAST_CREASE = 0.025;

/** A line from the top to the bottom of an open book: where it is in the plane at a height. */
export type Gutter = (y: number) => number;

/**
 * Finds the gutter of an open book: the line that is dark or steps in the light, that no row of print goes across, and that keeps the
 * same distance to the print on both sides.
 */
export function findGutter({ seen, sheet }: SheetPlane, rows: Row[]): Gutter | undefined {
  const [[left, top], [right], [, bottom]] = sheet;
  const [wide, tall] = [right - left, bottom - top];
  const light = greyOf(seen);
  const at = (x: number, y: number) => light.data[Math.round(y) * light.width + Math.round(x)];
  const across = 0.004 * wide;
  const samples = Array.from({ length: 60 }, (_, index) => top + (0.06 + (0.88 * index) / 59) * tall);
  let best: { score: number; from: number; to: number } | undefined;
  const step = Math.max(2, wide / 500);
  for (let from = -GUTTER.reach * wide; from <= GUTTER.reach * wide; from += step) {
    for (let slant = -GUTTER.slant; slant <= GUTTER.slant; slant += 0.01) {
      const [upper, lower] = [
        (left + right) / 2 + from - (slant * tall) / 2,
        (left + right) / 2 + from + (slant * tall) / 2,
      ];
      const line = (y: number) => upper + ((y - top) / tall) * (lower - upper);
      let [dark, jump] = [0, 0];
      for (const y of samples) {
        const x = line(y);
        const [near, far] = [
          [at(x - 2 * across, y), at(x + 2 * across, y)],
          [at(x - 5 * across, y), at(x + 5 * across, y)],
        ];
        const beside = (near[0] + near[1] + far[0] + far[1]) / 4 + 1;
        dark += Math.max(-0.2, Math.min(0.5, (beside - at(x, y)) / beside));
        jump += Math.max(-0.5, Math.min(0.5, (near[1] - near[0]) / beside));
      }
      const crease = (dark + 0.6 * Math.abs(jump)) / samples.length;
      const score =
        crease - 0.5 * againstPrint(rows, line) - 0.1 * Math.abs(from / (GUTTER.reach * wide)) ** 2 * LEAST_CREASE;
      if (!best || score > best.score) best = { score, from: upper, to: lower };
    }
  }
  if (!best || best.score < LEAST_CREASE) return undefined;
  const { from, to } = best;
  return (y) => from + ((y - top) / tall) * (to - from);
}

/** The share of the rows that a line goes through, and how unlike the distances are that it keeps to those on both sides. */
function againstPrint(rows: Row[], line: (y: number) => number): number {
  let crossed = 0;
  const [before, after]: [number[], number[]] = [[], []];
  for (const { feet, height } of rows) {
    const [first, last] = [feet[0], feet[feet.length - 1]];
    const x = line((first[1] + last[1]) / 2);
    if (last[0] + 0.5 * height < x) before.push(x - last[0]);
    else if (first[0] - 0.5 * height > x) after.push(first[0] - x);
    else crossed++;
  }
  const [left, right] = [before, after].map((each) => each.sort((a, b) => a - b)[each.length >> 3] ?? 0);
  const apart = before.length > 4 && after.length > 4 ? Math.abs(left - right) / (left + right) : 0;
  return crossed / Math.max(8, rows.length) + 0.1 * LEAST_CREASE * apart;
}
