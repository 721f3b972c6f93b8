import { around, Box, turnBox, Turn, turnSize } from '../geometry';
import { printable } from './printable';

/** A word as read from a page. */
export interface Word {
  text: string;
  /** Where it stands, in pixels of the page's picture. */
  box: Box;
  /** How sure the reading is, from 0 to 1; text that came with the page counts as 1. */
  confidence: number;
  /** The number of its line on the page, in reading order, from 0. */
  line: number;
  /** The height of its line's baseline under the word, in pixels from the top. */
  baseline: number;
}

/** What was read from one page. */
export interface PageText {
  /** The size of the picture that the boxes refer to, in pixels. */
  width: number;
  height: number;
  words: Word[];
  /** ISO 639-2 code of the language that it was read in, such as `deu`. */
  language: string;
  /** Where something is written by hand that was not read, in pixels. */
  handwriting?: Box[];
  /** Square and bar codes, with what they say, in pixels. */
  codes?: PageCode[];
}

export interface PageCode {
  text: string;
  box: Box;
}

/** The words of each line, in reading order. */
export function linesOf(words: Word[]): Word[][] {
  const lines: Word[][] = [];
  let number = NaN;
  for (const word of words) {
    if (word.line !== number) lines.push([]);
    number = word.line;
    lines[lines.length - 1].push(word);
  }
  return lines;
}

/** The text of a page as plain lines. */
export function plainText(words: Word[]): string {
  return linesOf(words)
    .map((line) => line.map((word) => word.text).join(' '))
    .join('\n');
}

export function lineBox(line: Word[]): Box {
  return around(line.map((word) => word.box));
}

/** The same reading after the page has been turned clockwise; the baseline falls back to the foot of each word's box. */
export function turnPageText(page: PageText, turn: Turn): PageText {
  if (turn === 0) return page;
  const [width, height] = turnSize(page.width, page.height, turn);
  const words = page.words.map((word) => {
    const box = turnBox(word.box, page.width, page.height, turn);
    return { ...word, box, baseline: box[1] + box[3] };
  });
  const handwriting = page.handwriting?.map((box) => turnBox(box, page.width, page.height, turn));
  const codes = page.codes?.map(({ text, box }) => ({ text, box: turnBox(box, page.width, page.height, turn) }));
  return { ...page, width, height, words, handwriting, codes };
}

/** The same reading of a picture that is so many times as large. */
export function scaledPageText(page: PageText, scale: number): PageText {
  if (scale === 1) return page;
  const words = page.words.map((word) => ({
    ...word,
    box: scaled(word.box, scale),
    baseline: word.baseline * scale,
  }));
  return {
    ...page,
    width: Math.round(page.width * scale),
    height: Math.round(page.height * scale),
    words,
    handwriting: page.handwriting?.map((box) => scaled(box, scale)),
    codes: page.codes?.map(({ text, box }) => ({ text, box: scaled(box, scale) })),
  };
}

const scaled = (box: Box, scale: number) => box.map((value) => value * scale) as Box;

/** A word as it is stored: text, x, y, width, height, confidence, line, baseline; numbers rounded. */
export type StoredWord = [string, number, number, number, number, number, number, number];

export function storeWord({ text, box, confidence, line, baseline }: Word): StoredWord {
  const [x, y, width, height] = box.map((value) => rounded(value, 10));
  return [printable(text, LONGEST_WORD), x, y, width, height, rounded(confidence, 1000), line, rounded(baseline, 10)];
}

/** A page may bring any text along; what pretends to be a word is kept this far. */
const LONGEST_WORD = 1000;
/** More words than any page of a paper has. */
const MOST_WORDS = 60_000;

function rounded(value: number, parts: number): number {
  return Number.isFinite(value) ? Math.round(value * parts) / parts : 0;
}

/** The words of a page as they are stored; what holds nothing that can be printed is left out. */
export function storeWords(words: readonly Word[]): StoredWord[] {
  return words
    .slice(0, MOST_WORDS)
    .map(storeWord)
    .filter(([text]) => text !== '');
}

/** The words of a stored reading, without those that somebody found to be no text. */
export function restoreWords(stored: readonly StoredWord[]): Word[] {
  return stored.filter(([text]) => text !== '').map(restoreWord);
}

export function restoreWord([text, x, y, width, height, confidence, line, baseline]: StoredWord): Word {
  return { text, box: [x, y, width, height], confidence, line, baseline };
}
