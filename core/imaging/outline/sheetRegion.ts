import { Ink } from '../ink';
import { changes, Opponent } from './edges';

/** How far across print is, in pixels: so far around a pixel the lightest counts, so that print does not part the paper. */
const ACROSS_PRINT = 2;
/** Levels of change that are told apart, so many for each level of brightness. */
const LEVELS = 512;
const PER_LEVEL = 4;
/** A sheet grows over what is unlike its paper as if it changed by so much more. */
const UNLIKE = 20;
const [UNKNOWN, SHEET, BESIDE] = [0, 1, 2];

/** A box, upright: its sides in pixels. */
interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Seeks the regions that sheets take in one picture. */
export class SheetRegions {
  private readonly paper: Opponent;
  private readonly strength: Float32Array;

  constructor(colours: Opponent) {
    this.paper = withoutPrint(colours);
    this.strength = changes(this.paper).strength;
  }

  /**
   * The region of a sheet on which there is print, with whatever outline: both what lies under the print and what lies at the border of the picture grow over
   * what changes least first, until they meet where it changes most (watershed from markers, Meyer & Beucher 1990).
   * @param print marks that stand on the sheet, in pixels
   * @returns the region, a one for each pixel, if the sheet lies wholly in the picture, and if it may run out of it, so that what looks like it at the border is of it: these may be one
   */
  around(print: readonly Box[]): Ink[] {
    const { width, height } = this.paper;
    const under = print.map((box) => pixelsIn(box, width, height));
    const unlike = unlikeness(this.paper, under.flat());
    // Some marks may be of the table: its grain, or the joints of its tiles.
    const isOnPaper = (box: Box) => {
      const about = pixelsIn(widened(box), width, height);
      return about.filter((at) => unlike[at] < 1).length > ON_PAPER * about.length;
    };
    const on = under.filter((_, each) => isOnPaper(print[each])).flat();
    const border = borderOf(width, height);
    const { beside, runsOut } = parted(border, (at) => unlike[at] === 0);
    const whole = this.grown(unlike, on, border);
    return runsOut.length === 0 ? [whole] : [whole, this.grown(unlike, [...on, ...runsOut], beside)];
  }

  /** @param on pixels that are of the sheet @param beside those that are not */
  private grown(unlike: Float32Array, on: number[], beside: number[]): Ink {
    const { width, height } = this.paper;
    const labels = new Uint8Array(width * height);
    const queue = new LevelQueue(width * height);
    const grow = (to: number, label: number, level: number) => {
      if (labels[to] !== UNKNOWN) return;
      labels[to] = label;
      queue.push(to, level);
    };
    on.forEach((at) => grow(at, SHEET, 0));
    beside.forEach((at) => grow(at, BESIDE, 0));
    const levels = [SHEET, BESIDE].map((label) =>
      Uint16Array.from(this.strength, (change, at) =>
        Math.min(LEVELS - 1, PER_LEVEL * (change + (label === SHEET ? UNLIKE * unlike[at] : 0))),
      ),
    );
    for (let at = queue.pop(); at >= 0; at = queue.pop()) {
      const x = at % width;
      const label = labels[at];
      const level = levels[label - SHEET];
      if (x > 0) grow(at - 1, label, level[at - 1]);
      if (x < width - 1) grow(at + 1, label, level[at + 1]);
      if (at >= width) grow(at - width, label, level[at - width]);
      if (at < width * (height - 1)) grow(at + width, label, level[at + width]);
    }
    const inside = labels.map((label) => (label === SHEET ? 1 : 0));
    return { width, height, data: withoutNarrow(inside, width, height) };
  }
}

/** What is narrower, in pixels either way, is no part of a sheet: the joints of tiles are as light. */
const NARROW = 4;

/** A mask without what is narrow (opening, Serra 1982): what is near to anything outside is taken off, then what is near to what is left put on again. */
function withoutNarrow(inside: Uint8Array, width: number, height: number): Uint8Array {
  const opposite = (mask: Uint8Array) => mask.map((each) => 1 - each);
  return opposite(eroded(opposite(eroded(inside, width, height)), width, height));
}

/** A mask without what is near to anything outside it, either way. */
function eroded(mask: Uint8Array, width: number, height: number): Uint8Array {
  return alongBoth(mask, width, height, (line, start, step, count, to) => {
    let since = NARROW;
    for (let at = 0; at < count + NARROW; at++) {
      since = at < count && line[start + at * step] === 0 ? 0 : since + 1;
      // Known once what comes after it is.
      const known = at - NARROW;
      if (known >= 0) to[start + known * step] = since > 2 * NARROW ? 1 : 0;
    }
  });
}

/** The pixels at the border of a picture, in order all around. */
function borderOf(width: number, height: number): number[] {
  return [
    ...range(width - 1, (x) => x),
    ...range(height - 1, (y) => (y + 1) * width - 1),
    ...range(width - 1, (x) => height * width - 1 - x),
    ...range(height - 1, (y) => (height - 1 - y) * width),
  ];
}

/** Pixels in order of their levels: those of the lowest first, and none lower than the last one was. */
class LevelQueue {
  private readonly next: Int32Array;
  private readonly first = new Int32Array(LEVELS).fill(-1);
  private readonly last = new Int32Array(LEVELS).fill(-1);
  private level = 0;

  constructor(size: number) {
    this.next = new Int32Array(size).fill(-1);
  }

  push(at: number, level: number): void {
    const to = Math.max(level, this.level);
    if (this.first[to] < 0) this.first[to] = at;
    else this.next[this.last[to]] = at;
    this.last[to] = at;
  }

  pop(): number {
    while (this.level < LEVELS - 1 && this.first[this.level] < 0) this.level++;
    const at = this.first[this.level];
    if (at >= 0) this.first[this.level] = this.next[at];
    return at;
  }
}

/** How far off the tint of a sheet's paper is, and how much darker or lighter (logarithm) it is without being unlike, and where it is so altogether. */
const TINT = 0.04;
const [LIKE, OTHER] = [0.35, 0.7];

/** How unlike that of most of some pixels the colour of each is, from 0 to 1: of another tint, or much darker or lighter. */
function unlikeness({ light, redGreen, yellowBlue }: Opponent, some: number[]): Float32Array {
  const median = (of: (at: number) => number) => Float32Array.from(some, of).sort()[some.length >> 1] ?? 0;
  const usual = median((at) => light[at]) + 1;
  const [red, yellow] = [redGreen, yellowBlue].map((plane) => median((at) => plane[at] / (light[at] + 1)));
  return light.map((own, at) => {
    const off = Math.hypot(redGreen[at] / (own + 1) - red, yellowBlue[at] / (own + 1) - yellow);
    if (off > TINT) return 1;
    return Math.max(0, Math.min(1, (Math.abs(Math.log((own + 1) / usual)) - LIKE) / (OTHER - LIKE)));
  });
}

/** A sheet that runs out of the picture takes so many pixels of its border; those so near to it aren't clearly beside it. */
const LEAST_RUN = 9;
const NEAR_RUN = 9;

/** The pixels of the border, in order all around, that lie beside the sheet, and those on it. */
function parted(border: number[], isPaper: (at: number) => boolean): { beside: number[]; runsOut: number[] } {
  const isRun = new Uint8Array(border.length);
  let run = 0;
  border.forEach((pixel, at) => {
    run = isPaper(pixel) ? run + 1 : 0;
    if (run >= LEAST_RUN) isRun.fill(1, at - run + 1, at + 1);
  });
  const isNear = (at: number) => {
    for (let by = -NEAR_RUN; by <= NEAR_RUN; by++) if (isRun[(at + by + border.length) % border.length]) return true;
    return false;
  };
  return { beside: border.filter((_, at) => !isNear(at)), runsOut: border.filter((_, at) => isRun[at]) };
}

/** So much of what is about a mark on paper, as wide as it is tall, has the paper's colour. */
const ON_PAPER = 0.9;

function widened({ left, top, right, bottom }: Box): Box {
  const by = Math.min(right - left, bottom - top);
  return { left: left - by, top: top - by, right: right + by, bottom: bottom + by };
}

const range = <Each>(count: number, of: (at: number) => Each): Each[] =>
  Array.from({ length: count }, (_, at) => of(at));

function pixelsIn({ left, top, right, bottom }: Box, width: number, height: number): number[] {
  const found: number[] = [];
  for (let y = Math.max(0, Math.floor(top)); y < Math.min(height, bottom); y++)
    for (let x = Math.max(0, Math.floor(left)); x < Math.min(width, right); x++) found.push(y * width + x);
  return found;
}

/** The colours with print taken for the paper about it: the lightest around each pixel, then the darkest of these (closing, Serra 1982). */
function withoutPrint(colours: Opponent): Opponent {
  const { width, height } = colours;
  const all = new Float32Array(colours.all.length);
  const count = width * height;
  const [light, redGreen, yellowBlue] = [0, 1, 2].map((each) => all.subarray(each * count, (each + 1) * count));
  light.set(means(extremes(extremes(colours.light, width, height, 1), width, height, -1), width, height));
  redGreen.set(means(colours.redGreen, width, height));
  yellowBlue.set(means(colours.yellowBlue, width, height));
  return { width, height, all, light, redGreen, yellowBlue };
}

/** The most around each pixel, or with -1 the least. */
function extremes(from: Float32Array, width: number, height: number, sign: 1 | -1): Float32Array {
  return alongBoth(from, width, height, (line, start, step, count, to) => {
    for (let at = 0; at < count; at++) {
      const end = Math.min(count - 1, at + ACROSS_PRINT);
      let value = line[start + at * step];
      for (let by = Math.max(0, at - ACROSS_PRINT); by <= end; by++) {
        const other = line[start + by * step];
        if (sign * (other - value) > 0) value = other;
      }
      to[start + at * step] = value;
    }
  });
}

/** The mean of the pixels around each. */
function means(from: Float32Array, width: number, height: number): Float32Array {
  return alongBoth(from, width, height, (line, start, step, count, to) => {
    for (let at = 0; at < count; at++) {
      const [before, after] = [Math.max(0, at - 1), Math.min(count - 1, at + 1)];
      to[start + at * step] = (line[start + before * step] + line[start + at * step] + line[start + after * step]) / 3;
    }
  });
}

/** Does something along all rows, then along all columns. */
function alongBoth<Plane extends Float32Array | Uint8Array>(
  from: Plane,
  width: number,
  height: number,
  along: (line: Plane, start: number, step: number, count: number, to: Plane) => void,
): Plane {
  const [across, down] = [from.slice(), from.slice()] as [Plane, Plane];
  for (let y = 0; y < height; y++) along(from, y * width, 1, width, across);
  for (let x = 0; x < width; x++) along(across, x, width, height, down);
  return down;
}
