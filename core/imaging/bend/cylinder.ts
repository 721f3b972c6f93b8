import { Homography } from '../homography';
import { Point } from '../quad';
import { Row, solve } from './rows';

/** Where the camera is, seen from a plane: above which point of it, and how high, in the units of the plane. */
export interface Camera {
  foot: Point;
  height: number;
}

/**
 * Where the camera is that sees a plane in this way.
 * @param toPicture from the plane to pixels of the picture
 * @param middle of the picture, where the camera's axis is taken to be
 * @param focal in pixels
 */
export function cameraOver(toPicture: Homography, middle: Point, focal: number): Camera {
  const column = (at: number) => {
    const below = toPicture[at + 6];
    return [(toPicture[at] - middle[0] * below) / focal, (toPicture[at + 3] - middle[1] * below) / focal, below];
  };
  const [across, down, from] = [column(0), column(1), column(2)];
  const scale = (Math.hypot(...across) + Math.hypot(...down)) / 2;
  const r1 = across.map((each) => each / Math.hypot(...across));
  const slant = dot(down, r1);
  const upright = down.map((each, index) => each - slant * r1[index]);
  const r2 = upright.map((each) => each / Math.hypot(...upright));
  const r3 = [r1[1] * r2[2] - r1[2] * r2[1], r1[2] * r2[0] - r1[0] * r2[2], r1[0] * r2[1] - r1[1] * r2[0]];
  const t = from.map((each) => each / scale);
  return { foot: [-dot(r1, t), -dot(r2, t)], height: Math.abs(dot(r3, t)) };
}

const dot = (a: number[], b: number[]) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/**
 * A sheet bent along parallel straight lines (a general cylinder), seen by a camera: across these lines it rises and falls, along
 * them it is straight. All in pixels of a plane that it would lie in, were it flat.
 */
export class Cylinder {
  private readonly cos: number;
  private readonly sin: number;
  private readonly second: Float64Array;
  private readonly lengths: Float64Array;
  private readonly step: number;
  private readonly foot: Point;

  /**
   * @param rises how high the sheet is above the plane at equal distances across it, at least three
   * @param from, to where the first and last of these are, from the middle; outside it goes straight on
   * @param axis how far the direction across is turned from the plane's x, in radians
   */
  constructor(
    readonly rises: number[],
    private readonly from: number,
    to: number,
    readonly axis: number,
    readonly camera: Camera,
    private readonly middle: Point,
  ) {
    [this.cos, this.sin] = [Math.cos(axis), Math.sin(axis)];
    this.step = (to - from) / (rises.length - 1);
    this.second = bendings(rises, this.step);
    this.foot = this.turned(camera.foot);
    this.lengths = new Float64Array(LENGTHS * (rises.length - 1) + 1);
    const fine = this.step / LENGTHS;
    for (let at = 1; at < this.lengths.length; at++)
      this.lengths[at] = this.lengths[at - 1] + fine * Math.hypot(1, this.slope(from + (at - 0.5) * fine));
    // Counted from the middle.
    const zero = this.lengthAt(0);
    for (let at = 0; at < this.lengths.length; at++) this.lengths[at] -= zero;
  }

  /** The point of the flat sheet that is seen at a place of the plane. */
  flat(place: Point): Point {
    const [px, py] = this.turned(place);
    const { height } = this.camera;
    let x = px;
    let lift = 0;
    for (let round = 0; round < ROUNDS; round++) {
      const rise = this.rise(x);
      lift = rise / Math.max(0.2 * height, height - rise);
      const better = (px + this.foot[0] * lift) / (1 + lift);
      const done = Math.abs(better - x) < 0.02;
      x = better;
      if (done) break;
    }
    const y = (py + this.foot[1] * lift) / (1 + lift);
    const s = this.lengthAt(x);
    return [this.middle[0] + s * this.cos - y * this.sin, this.middle[1] + s * this.sin + y * this.cos];
  }

  /** Where in the plane a point of the flat sheet is seen. */
  seen(point: Point): Point {
    const [s, y] = this.turned(point);
    const x = this.placeAt(s);
    const rise = this.rise(x);
    const { height } = this.camera;
    const lift = rise / Math.max(0.2 * height, height - rise);
    const [px, py] = [x + (x - this.foot[0]) * lift, y + (y - this.foot[1]) * lift];
    return [this.middle[0] + px * this.cos - py * this.sin, this.middle[1] + px * this.sin + py * this.cos];
  }

  /** How far from its lowest to its highest place the sheet rises between two places across it, the straight slope between them left out. */
  bulge(): number {
    const { rises } = this;
    const [first, last] = [rises[0], rises[rises.length - 1]];
    const off = rises.map((rise, at) => rise - first - ((last - first) * at) / (rises.length - 1));
    return Math.max(...off) - Math.min(...off);
  }

  private turned([x, y]: Point): Point {
    const [dx, dy] = [x - this.middle[0], y - this.middle[1]];
    return [dx * this.cos + dy * this.sin, -dx * this.sin + dy * this.cos];
  }

  /** Natural cubic spline through the rises; straight outside. */
  private rise(x: number): number {
    const { rises, second, step } = this;
    const place = (x - this.from) / step;
    const last = rises.length - 1;
    if (place <= 0) return rises[0] + place * step * this.slope(this.from);
    if (place >= last) return rises[last] + (place - last) * step * this.slope(this.from + last * step);
    const at = Math.floor(place);
    const [b, a] = [place - at, 1 - (place - at)];
    return (
      a * rises[at] +
      b * rises[at + 1] +
      (((a * a * a - a) * second[at] + (b * b * b - b) * second[at + 1]) * step * step) / 6
    );
  }

  private slope(x: number): number {
    const { rises, second, step } = this;
    const last = rises.length - 1;
    const place = Math.max(0, Math.min(last, (x - this.from) / step));
    const at = Math.min(last - 1, Math.floor(place));
    const [b, a] = [place - at, 1 - (place - at)];
    return (
      (rises[at + 1] - rises[at]) / step +
      (((1 - 3 * a * a) * second[at] + (3 * b * b - 1) * second[at + 1]) * step) / 6
    );
  }

  private lengthAt(x: number): number {
    const { lengths } = this;
    const fine = this.step / LENGTHS;
    const place = (x - this.from) / fine;
    const at = Math.max(0, Math.min(lengths.length - 2, Math.floor(place)));
    return lengths[at] + (place - at) * (lengths[at + 1] - lengths[at]);
  }

  private placeAt(s: number): number {
    const { lengths } = this;
    let [low, high] = [0, lengths.length - 2];
    while (low < high) {
      const half = (low + high + 1) >> 1;
      if (lengths[half] <= s) low = half;
      else high = half - 1;
    }
    const part = (s - lengths[low]) / (lengths[low + 1] - lengths[low]);
    return this.from + ((low + part) * this.step) / LENGTHS;
  }
}

/** Into so many parts each stretch of the curve is divided when its length is measured. */
const LENGTHS = 12;
const ROUNDS = 24;

/** The second derivatives of a natural cubic spline at its knots. */
function bendings(values: number[], step: number): Float64Array {
  const size = values.length;
  const [second, above] = [new Float64Array(size), new Float64Array(size)];
  const right = new Float64Array(size);
  for (let at = 1; at < size - 1; at++) {
    const below = 4 - above[at - 1];
    above[at] = 1 / below;
    right[at] = ((6 * (values[at - 1] - 2 * values[at] + values[at + 1])) / (step * step) - right[at - 1]) / below;
  }
  for (let at = size - 2; at > 0; at--) second[at] = right[at] - above[at] * second[at + 1];
  return second;
}

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
/** How unlikely it is that a sheet is bent, tilted, or the camera elsewhere, beside rows that aren't level. */
const STIFF = 0.02;
const ANCHORED = { tilt: 0.08, turn: 0.02, foot: 0.3, axis: 0.02, rise: 0.002 };

interface Sample {
  row: number;
  place: Point;
  weight: number;
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
  { axis = 0, bent = true, turns = true }: { axis?: number; bent?: boolean; turns?: boolean } = {},
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
    const cylinder = new Cylinder(rises, -reach, reach, axis + (bent && turns ? numbers[5] : 0), over, middle);
    return { cylinder, ...tilts(numbers, middle, long) };
  };
  const residuals = (numbers: Float64Array): Float64Array => {
    const { cylinder, level } = shapeOf(numbers);
    const out = new Float64Array(samples.length + free.length + knots);
    const sums = new Float64Array(count);
    const weights = new Float64Array(count);
    samples.forEach(({ row, place, weight }, index) => {
      const y = level(cylinder.flat(place))[1];
      out[index] = y;
      sums[row] += weight * y;
      weights[row] += weight;
    });
    samples.forEach(({ row, weight }, index) => {
      const off = (out[index] - sums[row] / weights[row]) / rows[row].height;
      const clipped = Math.abs(off) <= SLACK ? off : Math.sign(off) * Math.sqrt(2 * SLACK * Math.abs(off) - SLACK ** 2);
      out[index] = clipped * Math.sqrt(weight);
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
    for (let at = 0; at < feet.length; at += step) samples.push({ row, place: feet[Math.floor(at)], weight: 1 });
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

/** Levenberg and Marquardt's method. */
function minimise(residuals: (numbers: Float64Array) => Float64Array, from: Float64Array, steps: number): Float64Array {
  const size = from.length;
  let numbers = from;
  let now = residuals(numbers);
  let cost = squares(now);
  let damping = 1e-2;
  for (let step = 0; step < steps; step++) {
    const slopes = Array.from({ length: size }, (_, each) => {
      const by = 1e-3;
      const moved = Float64Array.from(numbers);
      moved[each] += by;
      const then = residuals(moved);
      for (let at = 0; at < then.length; at++) then[at] = (then[at] - now[at]) / by;
      return then;
    });
    const normal = Array.from({ length: size }, (_, a) =>
      Array.from({ length: size + 1 }, (_, b) => -product(slopes[a], b < size ? slopes[b] : now) * (b < size ? -1 : 1)),
    );
    let better = false;
    for (let attempt = 0; attempt < 6 && !better; attempt++) {
      const damped = normal.map((row, each) => row.with(each, row[each] * (1 + damping) + 1e-9));
      const change = solve(damped);
      const tried = numbers.map((value, each) => value + change[each]);
      const then = residuals(tried);
      const sum = squares(then);
      if (sum < cost) {
        const little = cost - sum < 1e-5 * cost;
        [numbers, now, cost, better] = [tried, then, sum, true];
        damping = Math.max(1e-7, damping / 5);
        if (little) return numbers;
      } else damping *= 6;
    }
    if (!better) break;
  }
  return numbers;
}

function squares(values: Float64Array): number {
  let sum = 0;
  for (const value of values) sum += value * value;
  return sum;
}

function product(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < a.length; at++) sum += a[at] * b[at];
  return sum;
}
