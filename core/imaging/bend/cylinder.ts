import { Homography } from '../homography';
import { Point } from '../quad';

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
