import { Ink } from './ink';

/** Angles tried when deskewing, in degrees. */
const COARSE_STEP = 0.5;
const FINE_STEP = 0.05;
const LEAST_POINTS = 200;

/**
 * How far the lines of text are turned clockwise, in degrees: the angle at which the feet of the letters fall into the
 * fewest rows (projection profiles, Postl 1986; feet of ink as Baird 1987 has it).
 * @param most how far it may be, to either side
 * @returns the angle, and how clearly it stands out (1: not at all)
 */
export function textSkew(ink: Ink, most: number): { degrees: number; clarity: number } {
  const { xs, ys } = feet(ink);
  if (xs.length < LEAST_POINTS) return { degrees: 0, clarity: 1 };
  const bins = new Float32Array(2 * ink.width + 2 * ink.height + 4);
  const sharpness = (degrees: number) => {
    const slope = Math.tan((degrees * Math.PI) / 180);
    bins.fill(0);
    const shift = ink.width + ink.height;
    for (let each = 0; each < xs.length; each++) bins[Math.round(ys[each] - slope * xs[each]) + shift]++;
    let sum = 0;
    for (const count of bins) sum += count * count;
    return sum / xs.length;
  };
  let best = { degrees: 0, value: sharpness(0) };
  let total = 0;
  let tried = 0;
  const search = (from: number, to: number, step: number) => {
    for (let degrees = from; degrees <= to + 1e-9; degrees += step) {
      const value = sharpness(degrees);
      total += value;
      tried++;
      if (value > best.value) best = { degrees, value };
    }
  };
  search(-most, most, COARSE_STEP);
  const usual = total / tried;
  search(best.degrees - COARSE_STEP, best.degrees + COARSE_STEP, FINE_STEP);
  return { degrees: best.degrees, clarity: best.value / usual };
}

/** Ink with paper below it: the feet of letters. Long runs (rules, blots) are left out. */
function feet({ width, height, data }: Ink): { xs: number[]; ys: number[] } {
  const [xs, ys]: [number[], number[]] = [[], []];
  const longest = width / 12;
  for (let y = 1; y < height - 1; y++) {
    let run = 0;
    for (let x = 0; x <= width; x++) {
      const at = y * width + x;
      if (x < width && data[at] && !data[at + width]) {
        run++;
        continue;
      }
      if (run > 0 && run < longest) {
        xs.push(x - run / 2);
        ys.push(y);
      }
      run = 0;
    }
  }
  return { xs, ys };
}

export interface Direction {
  /** Quarter turns clockwise that bring the page upright. */
  turn: 0 | 90 | 180 | 270;
  /** From 0 to 1. */
  confidence: number;
}

/**
 * Which way up a page of Latin text is. Lines run across when rows are more uneven than columns; they stand upright when
 * more ink rises above the body of the letters (capitals, figures, ascenders) than hangs below it (Caprari 2000).
 */
export function textDirection(ink: Ink): Direction {
  const across = unevenness(ink);
  const turned = quarterTurnedInk(ink);
  const down = unevenness(turned);
  const sideways = down > across;
  const rise = risingShare(sideways ? turned : ink);
  const clearly = Math.min(1, Math.abs(Math.log((down + 1e-6) / (across + 1e-6))) * 1.5);
  const upright = rise.above >= rise.below;
  const sum = rise.above + rise.below;
  const balance = sum < 40 ? 0 : Math.abs(rise.above - rise.below) / sum;
  const turn = sideways ? (upright ? 90 : 270) : upright ? 0 : 180;
  return { turn, confidence: Math.min(clearly, Math.min(1, balance * 2.5), Math.min(1, rise.lines / 4)) };
}

/** How much neighbouring rows differ in their amount of ink, beside that amount: high where lines of text run across. */
function unevenness({ width, height, data }: Ink): number {
  let [differences, total] = [0, 0];
  const strip = Math.max(24, Math.round(width / 6));
  for (let left = 0; left + strip <= width; left += strip) {
    let before = 0;
    for (let y = 0; y < height; y++) {
      let count = 0;
      for (let x = left, at = y * width + left; x < left + strip; x++, at++) count += data[at];
      differences += (count - before) ** 2;
      total += count * count;
      before = count;
    }
  }
  return total > 0 ? differences / total : 0;
}

function quarterTurnedInk({ width, height, data }: Ink): Ink {
  const turned = new Uint8Array(data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) turned[x * height + (height - 1 - y)] = data[y * width + x];
  return { width: height, height: width, data: turned };
}

/** Ink above and below the bodies of the letters, summed over stretches of lines. */
function risingShare({ width, height, data }: Ink): { above: number; below: number; lines: number } {
  let [above, below, lines] = [0, 0, 0];
  const strip = Math.max(60, Math.round(width / 5));
  const profile = new Float32Array(height);
  for (let left = 0; left < width; left += strip) {
    const right = Math.min(width, left + strip);
    for (let y = 0; y < height; y++) {
      let changes = 0;
      // Changes between ink and paper count letters; rules and blots have hardly any.
      for (let x = left + 1, at = y * width + left + 1; x < right; x++, at++) changes += data[at] ^ data[at - 1];
      profile[y] = changes;
    }
    let y = 0;
    while (y < height) {
      while (y < height && profile[y] < 2) y++;
      const top = y;
      while (y < height && profile[y] >= 2) y++;
      const tall = y - top;
      if (tall < 7 || tall > height / 8) continue;
      let most = 0;
      for (let at = top; at < y; at++) most = Math.max(most, profile[at]);
      if (most < 12) continue;
      // The body is where at least half as many strokes are crossed as anywhere in the line.
      let [first, last] = [top, y - 1];
      while (profile[first] < most * 0.5) first++;
      while (profile[last] < most * 0.5) last--;
      if (last - first + 1 < tall * 0.3) continue;
      for (let at = top; at < first; at++) above += profile[at];
      for (let at = last + 1; at < y; at++) below += profile[at];
      lines++;
    }
  }
  return { above, below, lines };
}
