import { Component, inkPieces, letterHeight } from './components';
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
 * Which way up a page of Latin text is. Lines run along the direction in which a letter's nearest neighbours lie (the docstrum,
 * O'Gorman 1993): letters stand closer than lines, on the emptiest of pages and in tables too. They stand upright when more ink
 * rises above the body of the letters (capitals, figures, ascenders) than hangs below it (Caprari 2000).
 */
export function textDirection(ink: Ink): Direction {
  const { across, down } = neighbours(ink);
  const sideways = down > across;
  const clearly = across + down < LEAST_LETTERS ? 0 : Math.min(1, (2 * Math.abs(across - down)) / (across + down));
  const rise = risingShare(sideways ? quarterTurnedInk(ink) : ink);
  const upright = rise.above >= rise.below;
  const sum = rise.above + rise.below;
  const balance = sum < 40 ? 0 : Math.abs(rise.above - rise.below) / sum;
  const turn = sideways ? (upright ? 90 : 270) : upright ? 0 : 180;
  return { turn, confidence: Math.min(clearly, Math.min(1, balance * 2.5), Math.min(1, rise.lines / 4)) };
}

const LEAST_LETTERS = 24;
/** How far a neighbour may be, in heights of a letter. */
const NEIGHBOURHOOD = 3;

/** How many letters have their nearest neighbour beside them, and how many above or below. */
function neighbours(ink: Ink): { across: number; down: number } {
  const components = inkPieces(ink);
  const tall = letterHeight(components) || letterHeight(components.map(turnedComponent));
  if (tall === 0) return { across: 0, down: 0 };
  const letters = components.filter(({ left, right, top, bottom }) => {
    const [w, h] = [right - left + 1, bottom - top + 1];
    return Math.max(w, h) > 0.5 * tall && Math.max(w, h) < 3 * tall;
  });
  const side = NEIGHBOURHOOD * tall;
  const cells = new Map<string, Component[]>();
  const cellOf = ({ left, top }: Component) => [Math.floor(left / side), Math.floor(top / side)];
  for (const letter of letters) {
    const key = cellOf(letter).join();
    cells.set(key, [...(cells.get(key) ?? []), letter]);
  }
  let [across, down] = [0, 0];
  for (const letter of letters) {
    const [x, y] = cellOf(letter);
    let nearest: { gap: number; across: boolean } | undefined;
    for (let cy = y - 1; cy <= y + 1; cy++) {
      for (let cx = x - 1; cx <= x + 1; cx++) {
        for (const other of cells.get(`${cx},${cy}`) ?? []) {
          if (other === letter) continue;
          const dx = (other.left + other.right - letter.left - letter.right) / 2;
          const dy = (other.top + other.bottom - letter.top - letter.bottom) / 2;
          const gap = Math.hypot(dx, dy);
          if (!nearest || gap < nearest.gap) nearest = { gap, across: Math.abs(dx) > Math.abs(dy) };
        }
      }
    }
    if (!nearest || nearest.gap > side) continue;
    if (nearest.across) across++;
    else down++;
  }
  return { across, down };
}

function turnedComponent({ left, right, top, bottom, pixels }: Component): Component {
  return { left: top, right: bottom, top: left, bottom: right, pixels };
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
