import { bytesOf, Raster } from '../../imaging/raster';
import { Character, SpelledWord } from '../spelled';

/** A strip as it was read: its words, and the picture that their boxes refer to. */
export interface ReadStrip {
  words: SpelledWord[];
  picture: Raster;
}

/** How far a comma hangs below the figures beside it, and a point at most, in heights of a figure. */
const [COMMA_HANGS, POINT_HANGS] = [0.115, 0.07];

/** Points and commas between figures as the paper has them: a comma hangs below the line, a point doesn't. */
export function settleSeparators(words: SpelledWord[]): void {
  for (const { characters } of words) {
    for (let at = 1; at < characters.length - 1; at++) {
      const [before, here, after] = [characters[at - 1], characters[at], characters[at + 1]];
      if (!/^[.,]$/.test(here.text) || !/^\d$/.test(before.text) || !/^\d$/.test(after.text)) continue;
      const hangs = (bottom(here) - Math.min(bottom(before), bottom(after))) / before.box[3];
      if (hangs > COMMA_HANGS) here.text = ',';
      else if (hangs < POINT_HANGS) here.text = '.';
    }
  }
}

const bottom = ({ box }: Character) => box[1] + box[3];

/** Characters surer than this are examples of how a page prints them; below it they are doubted a little, or much. */
const [EXAMPLE, DOUBTED] = [0.989, 0.975];
/** Glyphs are compared on a grid of so many cells, and only when their sizes differ by no more than this share. */
const [ACROSS, DOWN] = [10, 14];
const SIMILAR_SIZE = 0.16;
/**
 * A character is taken for another when it looks as much like that one as the same letters do, and so much more than like its
 * own kind, if that is on the page: the first when it is doubted, the second when it is fairly sure.
 */
const NEAR = [0.045, 0.02];
const MUCH_NEARER = [0.5, 0.25];
/** What is mistaken for each other: nothing else is exchanged. */
const ALIKE = [
  '0ODQ',
  '5S',
  '8B',
  '2Z',
  '6G',
  '1liI',
  '9S',
  '4A',
  '7T',
  '9g',
  '0123456789',
  'uü',
  'oö',
  'aäâàá',
  'eéèêë',
  'cç',
];

interface Glyph {
  cells: Float32Array;
  width: number;
  height: number;
}

/**
 * Doubted characters are looked at beside the same page's sure ones, and become what they look like: within a page all threes
 * are alike and no eight (prototypes taken from the page itself, as Nagy & Xu 1997, Hobby & Ho 1997).
 */
export function settleByExample(strips: ReadStrip[]): void {
  const examples = new Map<string, Glyph[]>();
  const doubted: { character: Character; glyph: Glyph }[] = [];
  for (const { words, picture } of strips) {
    for (const word of words) {
      for (const character of word.characters) {
        if (character.text.length !== 1) continue;
        if (character.confidence < EXAMPLE) doubted.push({ character, glyph: glyphOf(character, picture) });
        else {
          const known = examples.get(character.text) ?? [];
          if (known.length < 24) known.push(glyphOf(character, picture));
          examples.set(character.text, known);
        }
      }
    }
  }
  for (const { character, glyph } of doubted) {
    const rivals = new Set(ALIKE.filter((set) => set.includes(character.text)).join(''));
    rivals.delete(character.text);
    // One stroke is as good as another: only a figure among figures can be told from letters.
    if (/[lIi]/.test(character.text)) for (const letter of 'lIi') rivals.delete(letter);
    const own = nearest(glyph, examples.get(character.text));
    let [best, distance] = ['', Infinity];
    for (const rival of rivals) {
      const away = nearest(glyph, examples.get(rival));
      if (away < distance) [best, distance] = [rival, away];
    }
    const sure = character.confidence < DOUBTED ? 0 : 1;
    if (distance < Math.min(NEAR[sure], MUCH_NEARER[sure] * own)) {
      character.text = best;
    }
  }
}

function nearest(glyph: Glyph, examples: Glyph[] = []): number {
  let least = Infinity;
  for (const example of examples) {
    if (Math.abs(example.height - glyph.height) > Math.max(2, SIMILAR_SIZE * glyph.height)) continue;
    if (Math.abs(example.width - glyph.width) > Math.max(3, SIMILAR_SIZE * glyph.width)) continue;
    let sum = 0;
    for (let at = 0; at < glyph.cells.length; at++) sum += (glyph.cells[at] - example.cells[at]) ** 2;
    least = Math.min(least, sum / glyph.cells.length);
  }
  return least;
}

/** The mean darkness of each cell of a grid over a character, from 0 to 1. */
function glyphOf({ box: [left, top, width, height] }: Character, picture: Raster): Glyph {
  const data = bytesOf(picture);
  const cells = new Float32Array(ACROSS * DOWN);
  for (let cy = 0; cy < DOWN; cy++) {
    const [y0, y1] = span(top, height, cy, DOWN, picture.height);
    for (let cx = 0; cx < ACROSS; cx++) {
      const [x0, x1] = span(left, width, cx, ACROSS, picture.width);
      let sum = 0;
      for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) sum += 255 - data[y * picture.width + x];
      cells[cy * ACROSS + cx] = sum / (255 * Math.max(1, (x1 - x0) * (y1 - y0)));
    }
  }
  return { cells, width, height };
}

function span(start: number, length: number, cell: number, cells: number, most: number): [number, number] {
  const from = Math.min(most - 1, Math.max(0, Math.floor(start + (cell * length) / cells)));
  return [from, Math.min(most, Math.max(from + 1, Math.ceil(start + ((cell + 1) * length) / cells)))];
}

/** A dark spot in a zero, or the ends of a bar through it, lie so far apart across, in widths of the figure. */
const ASLANT = 0.12;

/** Of the figures on a page that may be zeros, so many have a bar or a dot when that is how its zeros are. */
const MOSTLY = 0.8;
const LEAST_BARRED = 2;

/**
 * Whether the zeros of a page have a bar or a dot inside, which makes them be read as eights: where the paper inside a figure falls
 * into two parts that lie aslant of each other, or encloses a spot of ink, or an eight has no waist, it is a zero; but only on a
 * page without plain zeros.
 */
export function hasBarredZeros(strips: ReadStrip[]): boolean {
  const [barred, plain] = zerosOf(strips);
  return barred.length >= LEAST_BARRED && barred.length >= MOSTLY * (barred.length + plain);
}

/** How sure a zero is whose bar is seen. */
const SEEN = 0.98;

/** Makes zeros of the eights, and of what else barred zeros are read as, on a page that has such. */
export function settleBarredZeros(strips: ReadStrip[]): void {
  const zeros = new Set(zerosOf(strips)[0]);
  // Whatever the recogniser made of it, the bar is seen.
  for (const zero of zeros) Object.assign(zero, { text: '0', confidence: Math.max(zero.confidence, SEEN) });
  for (const word of strips.flatMap(({ words }) => words)) {
    const own = word.characters.filter((character) => zeros.has(character));
    // The bar may have been read as the end of a figure by itself.
    if (own.length > 0)
      word.characters = word.characters.filter((each) => zeros.has(each) || !own.some((zero) => liesIn(each, zero)));
    // “@.50”: no price is “at” nothing.
    const [first, second] = word.characters;
    if (first?.text === '@' && /^[.,]$/.test(second?.text ?? '')) Object.assign(first, { text: '0' });
  }
}

/** So much of the width of a character lies within another one that it is a part of; an “@” is read from the bar of a nought beside it. */
const [WITHIN, AT_WITHIN] = [0.6, 0.4];

function liesIn({ text, box: [x, , width] }: Character, { box: [left, , across] }: Character): boolean {
  return Math.min(x + width, left + across) - Math.max(x, left) > (text === '@' ? AT_WITHIN : WITHIN) * width;
}

/** The barred ones, and how many zeros have no bar. */
function zerosOf(strips: ReadStrip[]): [barred: Character[], plain: number] {
  const barred: Character[] = [];
  let plain = 0;
  for (const { words, picture } of strips) {
    const data = bytesOf(picture);
    for (const { characters } of words) {
      if (!characters.some(({ text }) => /\d/.test(text))) continue;
      for (const character of characters) {
        if (!/^[8069BO@ØQ&N]$/.test(character.text)) continue;
        if (isBarred(data, picture, character.box)) barred.push(character);
        else if (character.text === '0') plain++;
      }
    }
  }
  return [barred, plain];
}

/** A connected part of a figure's box, ink or paper: its pixels, and its middle in shares of the box. */
interface Part {
  paper: boolean;
  outside: boolean;
  pixels: number[];
  x: number;
  y: number;
}

function isBarred(data: Uint8Array, picture: Raster, box: Character['box']): boolean {
  const [left, top, width, height] = box.map(Math.round);
  if (width < 8 || height < 12) return false;
  // A frame of paper around it joins everything outside.
  const [w, h] = [width + 2, height + 2];
  const grey = new Uint8Array(w * h).fill(255);
  for (let y = Math.max(0, -top); y < Math.min(height, picture.height - top); y++)
    for (let x = Math.max(0, -left); x < Math.min(width, picture.width - left); x++)
      grey[(y + 1) * w + x + 1] = data[(top + y) * picture.width + left + x];
  const parts = partsOf(grey, w).filter(({ pixels }) => pixels.length > SPECK * width * height);
  const holes = parts.filter(({ paper, outside }) => paper && !outside);
  const inks = parts.filter(({ paper }) => !paper).sort((a, b) => b.pixels.length - a.pixels.length);
  if (holes.length === 1 && inks.length === 2)
    return Math.abs(inks[1].x - 0.5) < 0.12 && Math.abs(inks[1].y - 0.5) < 0.12;
  if (holes.length !== 2) return false;
  const [upper, lower] = holes.sort((a, b) => a.y - b.y);
  const sizes = [upper.pixels.length, lower.pixels.length];
  if (Math.min(...sizes) < 0.35 * Math.max(...sizes)) return false;
  return upper.x < lower.x - ASLANT || !hasWaist(grey, w, inks[0]);
}

/** Of a figure's box, so much is a speck. */
const SPECK = 0.012;
const INK = 128;

/** @param grey with a rim of paper, a pixel wide */
function partsOf(grey: Uint8Array, width: number): Part[] {
  const height = grey.length / width;
  const seen = new Uint8Array(grey.length);
  const beside = [-1, 1, -width, width];
  // Ink holds together at corners, and paper doesn't.
  const around = [...beside, -width - 1, 1 - width, width - 1, width + 1];
  const parts: Part[] = [];
  for (let start = 0; start < grey.length; start++) {
    if (seen[start] !== 0) continue;
    const paper = grey[start] >= INK;
    const steps = paper ? beside : around;
    const pixels = [start];
    seen[start] = 1;
    let [sumX, sumY] = [0, 0];
    // The list grows while it is gone through.
    for (let next = 0; next < pixels.length; next++) {
      const at = pixels[next];
      sumX += at % width;
      sumY += Math.floor(at / width);
      for (const step of steps) {
        const other = at + step;
        // Beyond the rim there is nothing, or more of the rim.
        if (seen[other] !== 0 || grey[other] >= INK !== paper) continue;
        seen[other] = 1;
        pixels.push(other);
      }
    }
    const mean = (sum: number, of: number) => sum / pixels.length / of;
    parts.push({ paper, outside: start === 0, pixels, x: mean(sumX, width), y: mean(sumY, height) });
  }
  return parts;
}

/** The middle of an eight has up to 0.9 of the width of its wider half, that of a zero 0.97 and more. */
const WAIST = 0.95;

/** Whether a figure is narrower at the middle than above or below, as an eight is, and no zero with a spot in it. */
function hasWaist(grey: Uint8Array, width: number, { pixels }: Part): boolean {
  const ends = new Map<number, [left: number, right: number]>();
  for (const at of pixels) {
    const [x, y] = [at % width, Math.floor(at / width)];
    const [left, right] = ends.get(y) ?? [x, x];
    ends.set(y, [Math.min(left, x), Math.max(right, x)]);
  }
  // The ink goes on into the pixel beside it, as far as that is dark.
  const beyond = (at: number) => Math.max(0, 255 - grey[at]) / 255;
  const rows = [...ends]
    .sort(([a], [b]) => a - b)
    .map(([y, [left, right]]) => right - left + 1 + beyond(y * width + left - 1) + beyond(y * width + right + 1));
  const band = Math.max(1, Math.round(0.1 * rows.length));
  const wide = (share: number) => {
    const from = Math.max(0, Math.round(share * rows.length) - (band >> 1));
    return rows.slice(from, from + band).reduce((sum, row) => sum + row, 0) / band;
  };
  return wide(0.48) < WAIST * Math.max(wide(0.27), wide(0.73));
}
