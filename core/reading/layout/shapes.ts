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
 * Zeros with a bar or a dot inside are read as eights: where the paper inside a figure falls into two parts that lie aslant of
 * each other, or encloses a spot of ink, or an eight has no waist, it is a zero; but only on a page without plain zeros.
 */
export function settleBarredZeros(strips: ReadStrip[]): void {
  const barred: Character[] = [];
  let plain = 0;
  for (const { words, picture } of strips) {
    const data = bytesOf(picture);
    for (const { characters } of words) {
      if (!characters.some(({ text }) => /\d/.test(text))) continue;
      for (const character of characters) {
        if (!/^[80BO@ØQ&]$/.test(character.text)) continue;
        if (isBarred(data, picture, character.box)) barred.push(character);
        else if (character.text === '0') plain++;
      }
    }
  }
  if (barred.length < LEAST_BARRED || barred.length < MOSTLY * (barred.length + plain)) return;
  for (const character of barred) character.text = '0';
}

function isBarred(data: Uint8Array, picture: Raster, [left, top, width, height]: Character['box']): boolean {
  if (width < 8 || height < 12) return false;
  // A frame of paper around it joins everything outside.
  const [w, h] = [width + 2, height + 2];
  const kinds = new Int8Array(w * h);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [px, py] = [left + x, top + y];
      if (px >= picture.width || py >= picture.height || px < 0 || py < 0) continue;
      if (data[py * picture.width + px] < 128) kinds[(y + 1) * w + x + 1] = 1;
    }
  const parts: { paper: boolean; pixels: number; x: number; y: number; outside: boolean }[] = [];
  const seen = new Uint8Array(w * h);
  for (let start = 0; start < kinds.length; start++) {
    if (seen[start] !== 0) continue;
    const part = { paper: kinds[start] === 0, pixels: 0, x: 0, y: 0, outside: start === 0 };
    const waiting = [start];
    seen[start] = 1;
    while (waiting.length > 0) {
      const at = waiting.pop()!;
      const [x, y] = [at % w, Math.floor(at / w)];
      part.pixels++;
      part.x += x;
      part.y += y;
      for (const [nx, ny] of [
        [x - 1, y],
        [x + 1, y],
        [x, y - 1],
        [x, y + 1],
      ]) {
        if (nx < 0 || ny < 0 || nx >= w || ny >= h) continue;
        const near = ny * w + nx;
        if (seen[near] !== 0 || kinds[near] !== kinds[start]) continue;
        seen[near] = 1;
        waiting.push(near);
      }
    }
    if (part.pixels > 0.012 * width * height)
      parts.push({ ...part, x: part.x / part.pixels / w, y: part.y / part.pixels / h });
  }
  const holes = parts.filter(({ paper, outside }) => paper && !outside);
  const inks = parts.filter(({ paper }) => !paper).sort((a, b) => b.pixels - a.pixels);
  if (holes.length === 1 && inks.length === 2)
    return Math.abs(inks[1].x - 0.5) < 0.12 && Math.abs(inks[1].y - 0.5) < 0.12;
  if (holes.length !== 2) return false;
  const [upper, lower] = holes.sort((a, b) => a.y - b.y);
  if (Math.min(upper.pixels, lower.pixels) < 0.35 * Math.max(upper.pixels, lower.pixels)) return false;
  return upper.x < lower.x - ASLANT || !hasWaist(data, picture, [left, top, width, height]);
}

/** Whether a figure is narrower at the middle than above and below, as an eight is, and no zero with a spot in it. */
function hasWaist(data: Uint8Array, picture: Raster, [left, top, width, height]: Character['box']): boolean {
  const wide = (share: number) => {
    let sum = 0;
    const rows = Math.max(1, Math.round(0.1 * height));
    for (let row = 0; row < rows; row++) {
      const start = (top + Math.round(share * height) + row - (rows >> 1)) * picture.width + left;
      sum += edge(data, start, 1, width) + edge(data, start + width - 1, -1, width);
    }
    return width - sum / rows;
  };
  return wide(0.48) < Math.min(wide(0.27), wide(0.73));
}

/** How far from a place the ink begins, between pixels too. */
function edge(data: Uint8Array, start: number, step: number, most: number): number {
  for (let away = 0; away < most; away++) {
    const here = data[start + away * step];
    if (here >= 128) continue;
    const before = away === 0 ? 255 : data[start + (away - 1) * step];
    return away - (128 - here) / Math.max(1, before - here);
  }
  return most;
}
