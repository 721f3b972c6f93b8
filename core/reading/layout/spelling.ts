import { around, Box } from '../../geometry';
import { SpelledWord } from '../spelled';
import { Word } from '../words';
import { PageLayout } from './pageLayout';
import { hasBarredZeros, settleBarredZeros, settleByExample, settleSeparators } from './shapes';
import { settleCapitals } from './letterForms';
import { settleNumbers } from './numberGrammar';
import { respaced } from './spacing';
import { boxOnPage, Strip } from './strips';

/** Words with a character less sure than this are read a second time, in another size. */
const READ_AGAIN_BELOW = 0.95;
/** The second reading must be so much surer, and ends where the first does within so many pixels of a strip. */
const SURER = 0.01;
const SAME_PLACE = 8;

/** Whether the zeros on a page have a bar or a dot inside. @param read its strips, as they were read at first */
export function showsBarredZeros(read: SpelledWord[][], strips: Strip[]): boolean {
  return hasBarredZeros(withPictures(read, strips));
}

const withPictures = (read: SpelledWord[][], strips: Strip[]) =>
  read.map((words, at) => ({ words, picture: strips[at].picture }));

/**
 * Puts right what the recogniser makes of strips, from the shapes on the paper: spaces, points and commas, barred zeros.
 * @param barred whether zeros have a bar or a dot on the page that the strips are from
 */
export function settle(read: SpelledWord[][], strips: Strip[], capital: number, barred: boolean): SpelledWord[][] {
  const settled = respaced(read, capital);
  if (barred) settleBarredZeros(withPictures(settled, strips));
  settled.forEach((words) => {
    words.forEach(settleStrokes);
    words.forEach(settleStops);
    for (const { characters } of words)
      for (const character of characters) if (character.text === 'ı') character.text = 'i';
    settleSeparators(words);
  });
  return settled;
}

/** Words with figures are doubted sooner: no word of the language tells that one is wrong. */
const FIGURES_BELOW = 0.985;
const hasFigure = ({ characters }: SpelledWord) => characters.some(({ text }) => /\d/.test(text));

/** A part of a strip that holds doubtful words, in pixels of the strip. */
export interface DoubtfulPart {
  strip: number;
  from: number;
  until: number;
}

/** Where words of any kind are doubtful, with a word before and after them to be read in their company. */
export function doubtfulParts(read: SpelledWord[][]): DoubtfulPart[] {
  return partsOf(read, (word) => leastSure(word) < READ_AGAIN_BELOW, 1);
}

/** Where words with figures are doubtful. */
export function doubtfulFigures(read: SpelledWord[][]): DoubtfulPart[] {
  return partsOf(read, (word) => hasFigure(word) && leastSure(word) < FIGURES_BELOW, 0);
}

/** In each strip, from the first to the last of some words and so many beside them, up to the middle of the gaps. */
function partsOf(read: SpelledWord[][], isDoubtful: (word: SpelledWord) => boolean, company: number): DoubtfulPart[] {
  return read.flatMap((words, strip) => {
    const at = words.findIndex(isDoubtful);
    if (at < 0) return [];
    const first = Math.max(0, at - company);
    const last = Math.min(words.length - 1, words.findLastIndex(isDoubtful) + company);
    const [start] = span(words[first], 1);
    const [, end] = span(words[last], 1);
    const before = words[first - 1] ? (span(words[first - 1], 1)[1] + start) / 2 : 0;
    const after = words[last + 1] ? (span(words[last + 1], 1)[0] + end) / 2 : Infinity;
    return [{ strip, from: Math.floor(Math.min(before, start)), until: Math.ceil(Math.max(after, end)) }];
  });
}

/** As `takeSurer`, for words with figures that were read by another model. */
export function takeSurerFigures(first: SpelledWord[], other: SpelledWord[]): void {
  takeSurer(first.filter(hasFigure), other, 1, FIGURES_BELOW);
}

/** Words of a part of a strip, with their places in all of it. @param from where the part begins */
export function movedBy(words: SpelledWord[], from: number): SpelledWord[] {
  return words.map((word) => ({
    ...word,
    characters: word.characters.map((each) => ({ ...each, box: [each.box[0] + from, ...each.box.slice(1)] as Box })),
  }));
}

const leastSure = ({ characters }: SpelledWord) => Math.min(...characters.map(({ confidence }) => confidence));
const textOf = ({ characters }: SpelledWord) => characters.map(({ text }) => text).join('');

/** A single upright stroke is what the letters around it allow: no word of these languages begins with “lm” or “lv”. */
function settleStrokes({ characters }: SpelledWord): void {
  const [first] = characters;
  const rest = textOf({ characters: characters.slice(1), confidence: 1 });
  if (/^[1l|i!]$/.test(first.text) && /^BAN$/.test(rest)) first.text = 'I';
  if (first.text === 'l' && /^[bcdfghjkmnpqrstvwxz]\p{Ll}/u.test(rest)) first.text = 'I';
}

/** “No..”: behind the point of a short form stands a colon. */
function settleStops({ characters }: SpelledWord): void {
  const [before, point, last] = characters.slice(-3);
  if (last?.text === '.' && point.text === '.' && /\p{L}/u.test(before.text)) last.text = ':';
}

/** How much less likely a word is that no paper has: capitals in the middle, letters among figures. */
function oddity(text: string): number {
  const bare = text.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}%€£$]+$/gu, '');
  if (/^\p{Lu}?\p{Ll}*$|^\p{Lu}+$|^[\d.,:/'’ -]+[%€£$]?$/u.test(bare)) return 0;
  if (/\p{Ll}\p{Lu}|^\p{Lu}{2,}\p{Ll}/u.test(bare)) return 0.06;
  return /\p{Ll}\d|\d\p{Ll}/u.test(bare) ? 0.03 : 0;
}

/**
 * Takes from a second reading of a strip the words that it is surer of. The first one's words are changed in place.
 * @param perSecond pixels of the first reading for one of the second
 * @param below words less sure than this are doubted
 */
export function takeSurer(
  first: SpelledWord[],
  second: SpelledWord[],
  perSecond: number,
  below = READ_AGAIN_BELOW,
): void {
  for (const word of first) {
    if (leastSure(word) >= below) continue;
    const [from, to] = span(word, 1);
    const other = second.find((each) => {
      const [left, right] = span(each, perSecond);
      return Math.abs(left - from) < SAME_PLACE && Math.abs(right - to) < SAME_PLACE;
    });
    if (!other || textOf(other) === textOf(word)) continue;
    if (leastSure(other) - oddity(textOf(other)) < leastSure(word) - oddity(textOf(word)) + SURER) continue;
    word.confidence = other.confidence;
    // The boxes of the first reading stay where there are as many: what is learnt from examples needs them in one size.
    word.characters =
      other.characters.length === word.characters.length
        ? word.characters.map((character, at) => ({ ...other.characters[at], box: character.box }))
        : other.characters.map((character) => ({
            ...character,
            box: character.box.map((value) => value * perSecond) as Box,
          }));
  }
}

function span({ characters }: SpelledWord, scale: number): [from: number, to: number] {
  const last = characters[characters.length - 1].box;
  return [characters[0].box[0] * scale, (last[0] + last[2]) * scale];
}

/** The words of a page from its strips, with their places on the page, in reading order. */
export function pageWords(read: SpelledWord[][], strips: Strip[], { rows }: Pick<PageLayout, 'rows'>): Word[] {
  const own = withPictures(read, strips);
  const barred = hasBarredZeros(own);
  settleByExample(own);
  // Small ones may have no example but eights.
  if (barred) settleBarredZeros(own);
  settleCapitals(own);
  settleNumbers(read);
  const placed = read.flatMap((words, at) =>
    words.filter(isText).map((word): Word => {
      const box = boxOnPage(strips[at], around(word.characters.map((character) => character.box)));
      return {
        text: textOf(word),
        box,
        confidence: chanceOf(word),
        line: rows[at],
        baseline: baselineOf(word, strips[at]),
      };
    }),
  );
  // Lines are numbered without gaps.
  let [line, number] = [-1, -1];
  for (const word of placed) {
    if (word.line !== line) {
      line = word.line;
      number++;
    }
    word.line = number;
  }
  return placed;
}

/** The height of the feet of most of a word's letters, in pixels of the page. */
function baselineOf({ characters }: SpelledWord, strip: Strip): number {
  const feet = characters
    .filter(({ text }) => /[\p{L}\p{N}]/u.test(text) && !/[gjpqy,;]/.test(text))
    .map(({ box }) => box[1] + box[3])
    .sort((a, b) => a - b);
  const [x, y, width, height] = around(characters.map(({ box }) => box));
  const foot = feet[feet.length >> 1] ?? y + height;
  const middle = (x + width / 2) / strip.scale;
  return strip.top + foot / strip.scale + strip.slope * middle;
}

/** Upright strokes alone are rules, or the shadow at the edge of a slip. */
function isText(word: SpelledWord): boolean {
  return !/^[|¦]+$/.test(textOf(word));
}

/** How often words whose least sure character is so sure are right (measured on made papers; isotonic regression). */
const CALIBRATION: [leastSure: number, right: number][] = [
  [0.0, 0.2],
  [0.85, 0.35],
  [0.9, 0.5],
  [0.93, 0.6],
  [0.95, 0.75],
  [0.97, 0.84],
  [0.98, 0.88],
  [0.985, 0.93],
  [0.99, 0.994],
  [1.0, 0.999],
];

function chanceOf(word: SpelledWord): number {
  const sure = leastSure(word);
  const above = CALIBRATION.findIndex(([from]) => from > sure);
  if (above < 0) return CALIBRATION[CALIBRATION.length - 1][1];
  const [[from, low], [to, high]] = [CALIBRATION[above - 1], CALIBRATION[above]];
  return low + ((sure - from) / (to - from)) * (high - low);
}
