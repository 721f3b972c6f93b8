import { Point } from '../quad';
import { Camera, Cylinder } from './cylinder';
import { minimise } from './linear';
import { Row } from './rows';

/** A sheet's shape as found: a cylinder, and how the plane below it is tilted from what was thought. */
export interface Shape {
  cylinder: Cylinder;
  /** From the flat sheet to itself: turned and tilted so that rows are level. */
  level: (point: Point) => Point;
  levelled: (point: Point) => Point;
  /** How far feet are from level rows, in heights of small letters: the mean of the better nine tenths. */
  off: number;
}

/** A part of a plane, in pixels. */
export interface Area {
  left?: number;
  top?: number;
  width: number;
  height: number;
}

const KNOTS = 9;
const POINTS_A_ROW = 24;
const MOST_ROWS = 140;
const STEPS = 30;
/** From here on, in heights of letters, a foot further off weighs less. */
const SLACK = 0.12;
/** Nothing hangs below a printed rule. */
const SLACK_OF_RULE = 1;
/** How unlikely it is that a sheet is bent, tilted, or the camera elsewhere, beside rows that aren't level. */
const STIFF = 0.02;
const ANCHORED = { tilt: 0.08, turn: 0.02, foot: 0.3, axis: 0.02, rise: 0.002 };

interface Sample {
  row: number;
  place: Point;
}

/**
 * Finds the cylinder on which rows of print are level and straight (after Liang, DeMenthon & Doermann 2008; Meng et al. 2012),
 * by Levenberg and Marquardt's method with numeric derivatives; feet far off their rows weigh less (Huber 1964).
 * @param area of the plane that the sheet takes, in pixels
 * @param axis where to begin; it is sought, too, unless `bent` is false, which gives the best flat sheet
 */
export function fitCylinder(
  rows: Row[],
  area: Area,
  camera: Camera,
  { axis = 0, bent = true }: { axis?: number; bent?: boolean } = {},
): Shape {
  const { width, height } = area;
  const middle: Point = [(area.left ?? 0) + width / 2, (area.top ?? 0) + height / 2];
  const long = Math.max(width, height);
  const samples = sampled(rows);
  const count = rows.length;
  // Rises in hundredths of the longer side; tilts, turn, camera and axis in numbers of about one.
  const knots = bent ? KNOTS : 0;
  const free = new Float64Array(3 + (bent ? 3 : 0) + knots);
  const reach = (Math.abs(width * Math.cos(axis)) + Math.abs(height * Math.sin(axis))) / 2;
  const shapeOf = (numbers: Float64Array) => {
    const rises = Array.from({ length: KNOTS }, (_, at) => (bent ? (numbers[6 + at] * long) / 100 : 0));
    const over: Camera = {
      foot: bent ? [camera.foot[0] + numbers[3] * 0.1 * long, camera.foot[1] + numbers[4] * 0.1 * long] : camera.foot,
      height: camera.height,
    };
    const cylinder = new Cylinder(rises, -reach, reach, axis + (bent ? numbers[5] : 0), over, middle);
    return { cylinder, ...tilts(numbers, middle, long) };
  };
  const residuals = (numbers: Float64Array): Float64Array => {
    const { cylinder, level } = shapeOf(numbers);
    const out = new Float64Array(samples.length + free.length + knots);
    const sums = new Float64Array(count);
    const counts = new Uint32Array(count);
    samples.forEach(({ row, place }, index) => {
      const y = level(cylinder.flat(place))[1];
      out[index] = y;
      sums[row] += y;
      counts[row]++;
    });
    samples.forEach(({ row }, index) => {
      const off = (out[index] - sums[row] / counts[row]) / rows[row].height;
      const slack = rows[row].isRule ? SLACK_OF_RULE : SLACK;
      out[index] = Math.abs(off) <= slack ? off : Math.sign(off) * Math.sqrt(2 * slack * Math.abs(off) - slack ** 2);
    });
    let at = samples.length;
    const share = Math.sqrt(samples.length / 400);
    out[at++] = ANCHORED.turn * share * numbers[0];
    out[at++] = ANCHORED.tilt * share * numbers[1];
    out[at++] = ANCHORED.tilt * share * numbers[2];
    if (bent) {
      out[at++] = ANCHORED.foot * share * numbers[3];
      out[at++] = ANCHORED.foot * share * numbers[4];
      out[at++] = ANCHORED.axis * share * numbers[5];
      for (let knot = 0; knot < knots; knot++) out[at++] = ANCHORED.rise * share * numbers[6 + knot];
      for (let knot = 1; knot < knots - 1; knot++)
        out[at++] = STIFF * share * (numbers[5 + knot] - 2 * numbers[6 + knot] + numbers[7 + knot]);
    }
    return out;
  };
  const best = minimise(residuals, free, STEPS);
  const shape = shapeOf(best);
  const off = offLevel(samples, rows, (place) => shape.level(shape.cylinder.flat(place))[1]);
  return { ...shape, off };
}

/** A small turn and two tilts of the plane, there and back. */
function tilts(numbers: Float64Array, middle: Point, long: number) {
  const [turn, across, down] = [numbers[0], numbers[1] / long, numbers[2] / long];
  const level = ([x, y]: Point): Point => {
    const [dx, dy] = [x - middle[0], y - middle[1]];
    const w = 1 + 0.1 * (across * dx + down * dy);
    return [middle[0] + (dx - 0.1 * turn * dy) / w, middle[1] + (dy + 0.1 * turn * dx) / w];
  };
  const levelled = ([x, y]: Point): Point => {
    // Solves the two linear equations of `level`.
    const [u, v] = [x - middle[0], y - middle[1]];
    const [g, h, r] = [0.1 * across, 0.1 * down, 0.1 * turn];
    const [a, b] = [1 - u * g, -r - u * h];
    const [c, d] = [r - v * g, 1 - v * h];
    const det = a * d - b * c;
    return [middle[0] + (u * d - b * v) / det, middle[1] + (a * v - c * u) / det];
  };
  return { level, levelled };
}

function sampled(rows: Row[]): Sample[] {
  const every = Math.max(1, Math.ceil(rows.length / MOST_ROWS));
  return rows.flatMap(({ feet }, row) => {
    if (row % every > 0) return [];
    const step = Math.max(1, feet.length / POINTS_A_ROW);
    const samples: Sample[] = [];
    for (let at = 0; at < feet.length; at += step) samples.push({ row, place: feet[Math.floor(at)] });
    return samples;
  });
}

function offLevel(samples: Sample[], rows: Row[], levelOf: (place: Point) => number): number {
  const levels = samples.map(({ place }) => levelOf(place));
  const byRow = new Map<number, number[]>();
  samples.forEach(({ row }, index) => byRow.set(row, [...(byRow.get(row) ?? []), levels[index]]));
  const medians = new Map(
    [...byRow].map(([row, values]) => [row, values.toSorted((a, b) => a - b)[values.length >> 1]]),
  );
  const offs = samples
    .map(({ row }, index) => Math.abs(levels[index] - medians.get(row)!) / rows[row].height)
    .sort((a, b) => a - b);
  const kept = offs.slice(0, Math.ceil(0.9 * offs.length));
  return kept.reduce((sum, each) => sum + each, 0) / (kept.length || 1);
}
