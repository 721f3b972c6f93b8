import { distance, Point, Quad } from './quad';
import { Raster } from './raster';

/** What a live picture shows at a moment: the sheet in it, and how sharp and bright it is there. */
export interface Sight {
  /** In shares of the frame; null when no sheet is found. */
  corners: Quad | null;
  confidence: number;
  /** How much neighbouring pixels differ at the sharpest places of the sheet, 0 to 255. */
  sharpness: number;
  /** Brightness of the paper, 0 to 255. */
  brightness: number;
  /** What is on the sheet, very small: to tell it from the one before. */
  print: Uint8Array;
}

const PRINT_SIDE = 16;

/** Looks at a frame once its sheet has been found. */
export function lookAt(frame: Raster, corners: Quad | null, confidence: number): Sight {
  const quad =
    corners ??
    ([
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ] as Quad);
  const { width, height, channels, data } = frame;
  const grey = (u: number, v: number) => {
    const weigh = (axis: 0 | 1) =>
      (1 - v) * ((1 - u) * quad[0][axis] + u * quad[1][axis]) + v * ((1 - u) * quad[3][axis] + u * quad[2][axis]);
    const x = Math.max(1, Math.min(width - 2, Math.round(weigh(0) * width)));
    const y = Math.max(1, Math.min(height - 2, Math.round(weigh(1) * height)));
    const at = (y * width + x) * channels;
    return { value: data[at + (channels === 1 ? 0 : 1)], next: data[at + channels + (channels === 1 ? 0 : 1)] };
  };
  const values: number[] = [];
  const steps: number[] = [];
  const across = 96;
  for (let j = 1; j < across; j++) {
    for (let i = 1; i < across; i++) {
      const { value, next } = grey(i / across, j / across);
      values.push(value);
      steps.push(Math.abs(value - next));
    }
  }
  const sorted = [...values].sort((a, b) => a - b);
  steps.sort((a, b) => a - b);
  const print = new Uint8Array(PRINT_SIDE * PRINT_SIDE);
  const cell = (across - 1) / PRINT_SIDE;
  for (let j = 0; j < PRINT_SIDE; j++) {
    for (let i = 0; i < PRINT_SIDE; i++) {
      let [sum, count] = [0, 0];
      for (let y = Math.floor(j * cell); y < (j + 1) * cell && y < across - 1; y++)
        for (let x = Math.floor(i * cell); x < (i + 1) * cell && x < across - 1; x++, count++)
          sum += values[y * (across - 1) + x];
      print[j * PRINT_SIDE + i] = sum / Math.max(1, count);
    }
  }
  return {
    corners,
    confidence,
    sharpness: steps[Math.floor(steps.length * 0.985)],
    brightness: sorted[Math.floor(sorted.length * 0.8)],
    print,
  };
}

/** What a person should know before taking the page, the most important thing only. */
export type Hint = 'none' | 'noSheet' | 'dark' | 'contrast' | 'small' | 'slanted' | 'blurred' | 'cut';

const DARK = 75;
const SURE = 0.8;
/** The longest side of a sheet that is large enough in the picture, as a share of the picture. */
const SMALL = 0.42;
const SLANTED = 1.45;
const BLURRED = 7;
const OUTSIDE = 0.015;

export function hintFor({ corners, confidence, brightness, sharpness }: Sight): Hint {
  if (brightness < DARK) return 'dark';
  if (!corners || confidence < 0.35) return 'noSheet';
  if (confidence < SURE) return 'contrast';
  if (corners.some(([x, y]) => x < -OUTSIDE || y < -OUTSIDE || x > 1 + OUTSIDE || y > 1 + OUTSIDE)) return 'cut';
  const [top, right, bottom, left] = corners.map((corner, index) => distance(corner, corners[(index + 1) % 4]));
  // A receipt is narrow: how long it is counts.
  if (Math.max(top, right, bottom, left) < SMALL) return 'small';
  const ratio = (a: number, b: number) => Math.max(a, b) / Math.max(0.001, Math.min(a, b));
  if (ratio(top, bottom) > SLANTED || ratio(left, right) > SLANTED) return 'slanted';
  return sharpness < BLURRED ? 'blurred' : 'none';
}

/** How far corners may wander while a page lies still, as a share of the frame. */
const STILL = 0.008;
/** How long it must lie still before the countdown begins, and how long that takes. */
const STILL_MS = 450;
export const COUNTDOWN_MS = 900;
/** How much the small pictures of two sheets differ when they are different ones, and when the sheet was being moved. */
const OTHER_SHEET = 7;

/** Whether two moments show the same: the same sheet, where it was, or no sheet at all. */
export function isSame(a: Sight, b: Sight): boolean {
  const still = a.corners && b.corners ? moved(a.corners, b.corners) < STILL : a.corners === b.corners;
  return still && difference(a.print, b.print) < OTHER_SHEET;
}

/**
 * Decides when a live picture is taken by itself: when a sheet lies still, is found for sure and is sharp, and is not the one
 * taken last. The clock is told.
 */
export class Shutter {
  private last: { sight: Sight; atMs: number } | undefined;
  private stillSince: number | undefined;
  private taken: Uint8Array | undefined;
  private cancelled = false;

  /**
   * @param turning whether what lies there is turned over, as the pages of a book are: two of them may look much alike from afar, so what
   *   has moved since the last picture counts as another one
   */
  constructor(private readonly turning = false) {}

  /**
   * How far the countdown is, from 0 (not counting) to 1 (take it now).
   * @param atMs when the picture showed this, however long looking at it took
   */
  see(sight: Sight, atMs: number): number {
    const ready = hintFor(sight) === 'none' && !this.wasTaken(sight);
    const before = this.last;
    const still = before !== undefined && isSame(before.sight, sight);
    this.last = { sight, atMs };
    if (this.turning && !this.wasTaken(sight)) this.taken = undefined;
    if (!ready || !sight.corners || !still) {
      this.stillSince = undefined;
      this.cancelled = false;
      return 0;
    }
    this.stillSince ??= before.atMs;
    if (this.cancelled) return 0;
    return Math.max(0, Math.min(1, (atMs - this.stillSince - STILL_MS) / COUNTDOWN_MS));
  }

  /** Called when the picture is taken, by itself or by hand: the same sheet is not taken again by itself. */
  took(): void {
    this.taken = this.last?.sight.print;
    this.stillSince = undefined;
  }

  /** Stops the countdown until the sheet moves. */
  cancel(): void {
    this.cancelled = true;
  }

  private wasTaken({ print }: Sight): boolean {
    return this.taken !== undefined && difference(this.taken, print) < OTHER_SHEET;
  }
}

function moved(a: Quad, b: Quad): number {
  return Math.max(...a.map((corner: Point, index) => distance(corner, b[index])));
}

/** Mean difference of two small pictures once their brightness is made the same. */
function difference(a: Uint8Array, b: Uint8Array): number {
  const mean = (values: Uint8Array) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [meanA, meanB] = [mean(a), mean(b)];
  return a.reduce((sum, value, at) => sum + Math.abs(value - meanA - (b[at] - meanB)), 0) / a.length;
}
