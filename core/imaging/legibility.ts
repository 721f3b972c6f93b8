import { Component, inkPieces, letterHeight } from './components';
import { roughInk } from './ink';
import { bytesOf, greyOf, Raster, shrink } from './raster';

/** What keeps a page from being read well, as a plain sentence each, the worst first. */
export interface Legibility {
  /** From 0 (nothing can be read) to 1 (as good as it gets). */
  score: number;
  advice: string[];
  /** What the score is made of, each from 0 to 1. */
  parts: { letters: number; sharpness: number; contrast: number; evenness: number; glare: number; complete: number };
  /** The height of a small letter in the picture as captured, in pixels; 0 when none was found. */
  letterHeight: number;
}

/** Below this score, a good part of the words is misread: on 100 made photos of all qualities, more than a twentieth of them. */
const HARDLY_LEGIBLE = 0.45;

/** Below these, a page is warned of. */
export const LEGIBILITY_BARS = { score: HARDLY_LEGIBLE, complete: 0.62 } as const;

/** What to warn of on a page, as a sentence: text that runs off its edge, or that can hardly be read. */
export function warningOf({ score, advice, parts }: Legibility): string | undefined {
  if (parts.complete < LEGIBILITY_BARS.complete)
    return advice.includes(ADVICE_COVERED) ? ADVICE_COVERED : ADVICE.complete;
  return score < HARDLY_LEGIBLE ? advice[0] : undefined;
}

/** How much better a part must be to be worth saying. */
const CLEARLY = 0.08;
const BETTER: Record<keyof Legibility['parts'], string> = {
  letters: 'Its letters are larger in the picture.',
  sharpness: 'It is sharper.',
  contrast: 'Its print stands out more from the paper.',
  evenness: 'Its light is more even.',
  glare: 'Less light is reflected in it.',
  complete: 'Less of its text is cut off.',
};

/**
 * Which of two captures of a sheet is more legible, and in what each is better than the other, what counts most first.
 * `better` is undefined when neither is by so much that it can be told.
 */
export function compareLegibility(
  a: Legibility,
  b: Legibility,
): { better: 'a' | 'b' | undefined; reasons: { a: string[]; b: string[] } } {
  const names = Object.keys(BETTER) as (keyof Legibility['parts'])[];
  const reasons = (one: Legibility, other: Legibility) =>
    names
      .map((name) => ({ name, by: one.parts[name] - other.parts[name] }))
      .filter(({ by }) => by > CLEARLY)
      .sort((x, y) => y.by - x.by)
      .map(({ name }) =>
        name === 'letters'
          ? `Its letters are larger: ${Math.round(one.letterHeight)} pixels high against ${Math.round(other.letterHeight)}.`
          : BETTER[name],
      );
  const by = a.score - b.score;
  return {
    better: Math.abs(by) < 0.02 ? undefined : by > 0 ? 'a' : 'b',
    reasons: { a: reasons(a, b), b: reasons(b, a) },
  };
}

const ADVICE: Record<keyof Legibility['parts'], string> = {
  letters: 'The letters are small in the picture: go closer, or photograph half a page at a time.',
  sharpness: 'The picture is blurred: hold still, tap to focus, or use more light.',
  contrast: 'The print is faint beside the paper: use more light, or the look Clear colour.',
  evenness: 'A shadow lies on the page: turn so that the light comes from the side.',
  glare: 'The light is reflected in the page: tilt it, or move the lamp.',
  complete: 'Text is cut off at the edge: draw the outline further out, or photograph the whole sheet.',
};

const ADVICE_COVERED = 'Fingers lie over the print: hold the page further out, and take it again.';
/** How complete a page counts as at the most when print on it is covered. */
const COVERED = 0.5;
/** Below this, a part is worth a sentence. */
const WORTH_SAYING = LEGIBILITY_BARS.complete;
/** Pixels are looked at in a picture of this size at the most: more tell no more. */
const MEASURE = 2400;
/** Print is looked for down to so little darker than paper. */
const FAINTEST = 0.07;

/**
 * How well the text of a page can be read, judged from its flattened picture as shot.
 * @param enlarged how many times larger the page is in its picture as captured, when this is a smaller copy
 * @param covered whether fingers or holders lie over print: text is missing then as at an edge
 * Height of the letters, steepness of their edges, contrast, evenness of the light, glare, and print that runs out at the edge.
 */
export function judgeLegibility(picture: Raster, { enlarged = 1, covered = false } = {}): Legibility {
  const page = shrink(picture, MEASURE);
  const scale = (enlarged * picture.width) / page.width;
  const grey = greyOf(page);
  const ink = roughInk(grey, FAINTEST);
  const components = inkPieces(ink);
  const height = letterHeight(components) * scale;
  const { edge, dark, light } = strokeEdges(grey, ink.data);
  const { evenness, glare } = lightOn(grey);
  const parts = {
    letters: height === 0 ? 0.5 : ramp(height, 6, 17),
    // Share of the way from paper to ink that the steepest pixel of an edge makes.
    sharpness: ramp(edge, 0.1, 0.32),
    contrast: ramp(light > 0 ? (light - dark) / light : 0, 0.16, 0.5),
    evenness,
    glare,
    complete: Math.min(completeness(components, ink.width, ink.height), covered ? COVERED : 1),
  };
  const least = Math.min(parts.letters, parts.sharpness, parts.contrast);
  const product = parts.letters * parts.sharpness * parts.contrast;
  const rest = 0.5 + 0.15 * parts.evenness + 0.15 * parts.glare + 0.2 * parts.complete;
  const score = (0.5 * least + 0.5 * Math.cbrt(product)) * rest;
  const worst = (Object.keys(parts) as (keyof typeof parts)[])
    // Where there are no letters none are small.
    .filter((name) => parts[name] < WORTH_SAYING && (name !== 'letters' || height > 0))
    .sort((a, b) => parts[a] - parts[b]);
  const advice = worst.map((name) => (name === 'complete' && covered ? ADVICE_COVERED : ADVICE[name]));
  return { score, advice, parts, letterHeight: height };
}

function ramp(value: number, low: number, high: number): number {
  return Math.max(0, Math.min(1, (value - low) / (high - low)));
}

/** How steep the edges of strokes are beside the step that they make, and how dark ink and how light paper is (medians). */
function strokeEdges(grey: Raster, ink: Uint8Array): { edge: number; dark: number; light: number } {
  const { width, height } = grey;
  const data = bytesOf(grey);
  const steps = new Uint32Array(STEEPNESSES + 1);
  const [darks, lights] = [new Uint32Array(256), new Uint32Array(256)];
  let count = 0;
  for (let y = 2; y < height - 2; y += 2) {
    for (let x = 5, at = y * width + 5; x < width - 5; x++, at++) {
      if (ink[at] === ink[at - 1]) continue;
      let [least, most, steepest] = [255, 0, 0];
      let before = data[at - 5];
      for (let by = -4; by <= 4; by++) {
        const value = data[at + by];
        if (value < least) least = value;
        if (value > most) most = value;
        const step = value > before ? value - before : before - value;
        if (step > steepest) steepest = step;
        before = value;
      }
      if (most - least < 8) continue;
      steps[Math.min(STEEPNESSES, Math.round((STEEPNESSES * steepest) / (most - least)))]++;
      darks[least]++;
      lights[most]++;
      count++;
    }
  }
  if (count < 50) return { edge: 0.3, dark: 0, light: 255 };
  const median = (counts: Uint32Array) => quantile(counts, count / 2);
  return { edge: median(steps) / STEEPNESSES - 0.2, dark: median(darks), light: median(lights) };
}

/** In so many steps the steepness of an edge is counted. */
const STEEPNESSES = 1000;

/** The value up to which so many were counted. */
function quantile(counts: Uint32Array, rank: number): number {
  let [value, below] = [0, counts[0]];
  while (value < counts.length - 1 && below <= rank) below += counts[++value];
  return value;
}

function lightOn(grey: Raster): { evenness: number; glare: number } {
  const { width, height } = grey;
  const data = bytesOf(grey);
  const cells = 12;
  const levels: number[] = [];
  const counts = new Uint32Array(256);
  let burnt = 0;
  for (let cy = 0; cy < cells; cy++) {
    for (let cx = 0; cx < cells; cx++) {
      counts.fill(0);
      let count = 0;
      for (let y = Math.floor((cy * height) / cells); y < ((cy + 1) * height) / cells; y += 6)
        for (let x = Math.floor((cx * width) / cells); x < ((cx + 1) * width) / cells; x += 6, count++)
          counts[data[y * width + x]]++;
      levels.push(count > 0 ? quantile(counts, Math.floor(count * 0.8)) : 0);
      if (count > 0 && quantile(counts, Math.floor(count * 0.3)) >= 254) burnt++;
    }
  }
  levels.sort((a, b) => a - b);
  const [low, high] = [levels[Math.floor(levels.length * 0.08)], levels[Math.floor(levels.length * 0.92)]];
  const someBurnt = burnt / (cells * cells);
  // All white is a scan; some white among grey is a reflection.
  const glare = someBurnt > 0.02 && someBurnt < 0.7 && low < 225 ? 1 - ramp(someBurnt, 0.02, 0.25) : 1;
  return { evenness: ramp(low / Math.max(1, high), 0.3, 0.75), glare };
}

/** How near letters of the same line are, in heights of a small letter. */
const NEXT_LETTER = 1.6;

/**
 * Whether letters are cut by the edges: pieces of ink of a letter's size that touch the border of the page and have others
 * beside them as letters of a line have. A sliver of table along an edge has none.
 */
function completeness(components: Component[], width: number, height: number): number {
  const tall = letterHeight(components);
  if (tall === 0) return 1;
  const letters = components.filter(({ left, top, right, bottom }) => {
    const [w, h] = [right - left + 1, bottom - top + 1];
    return h > 0.35 * tall && h < 2.6 * tall && w < 4 * tall;
  });
  const cut = letters.filter((letter) => {
    const { left, top, right, bottom } = letter;
    if (left > 1 && top > 1 && right < width - 2 && bottom < height - 2) return false;
    const beside = letters.filter(
      (other) =>
        other !== letter &&
        Math.min(bottom, other.bottom) - Math.max(top, other.top) > 0.3 * tall &&
        Math.max(other.left - right, left - other.right) < NEXT_LETTER * tall,
    );
    return beside.length >= 2;
  });
  return 1 - ramp(cut.length, 1, 6);
}
