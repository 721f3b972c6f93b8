import { around, Box } from '@crow/core/geometry';
import { Raster } from '@crow/core/imaging/raster';
import { Dictionary, settleByDictionary, wantsDictionary } from '@crow/core/reading/layout/dictionary';
import { isUnreadHandwriting } from '@crow/core/reading/layout/handwriting';
import { layOut } from '@crow/core/reading/layout/pageLayout';
import {
  doubtfulFigures,
  DoubtfulPart,
  doubtfulParts,
  movedBy,
  pageWords,
  settle,
  takeSurer,
  takeSurerFigures,
} from '@crow/core/reading/layout/spelling';
import { cutStrips, PART_MARGIN, partOf, Strip } from '@crow/core/reading/layout/strips';
import { Segment } from '@crow/core/reading/layout/segments';
import { SpelledWord } from '@crow/core/reading/spelled';
import { guessLanguage, TOLD_APART } from '@crow/core/reading/language';
import { PageText } from '@crow/core/reading/words';
import { dictionaryOf } from './dictionary';
import { installedLanguages } from './languageData';
import { readLines } from './lineReader';

/** Heights of a capital, in pixels, in which strips are read, and doubtful ones again. */
const [CAPITAL, AGAIN] = [30, 23];
/** So much of a page's text is read first to tell its language, in pixels of the strips' widths. */
const ENOUGH_TO_TELL = 3200;

/**
 * Recognises the text of an upright page. The recogniser gets it as strips, one for each line or cell that was found: its own
 * search for lines loses what stands in tables and boxes.
 * @param picture grey or colour
 * @param languages ISO 639-2; the first is tried first, another one when the text turns out to be in it: forcing several on
 *   the engine at once costs accents and time
 * @throws Problem 'page-not-read', 'took-too-long'
 */
export async function recognise(picture: Raster, languages: string[]): Promise<PageText> {
  const { width, height } = picture;
  const layout = layOut(picture);
  const strips = cutStrips(layout.page, layout.pieces, layout.segments, CAPITAL);
  const { words: read, language } = await readInItsLanguage(strips, languages);
  const settled = settle(read, strips, CAPITAL);
  const doubtful = doubtfulParts(settled);
  if (doubtful.length > 0) {
    const numbers = doubtful.map(({ strip }) => strip);
    const again = cutStrips(layout.page, layout.pieces, at(layout.segments, numbers), AGAIN);
    const scales = numbers.map((strip, number) => again[number].scale / strips[strip].scale);
    const parts = doubtful.map(({ strip, from, until }, number) => ({
      strip,
      from: Math.floor(from * scales[number]),
      until: Math.ceil(until * scales[number]),
    }));
    const second = await readParts(again, parts, language, AGAIN);
    numbers.forEach((strip, number) => takeSurer(settled[strip], second[number], 1 / scales[number]));
  }
  const figures = doubtfulFigures(settled);
  const other = figures.length > 0 ? await otherModel(language) : undefined;
  if (other) {
    const own = at(
      strips,
      figures.map(({ strip }) => strip),
    );
    const third = await readParts(own, figures, other, CAPITAL);
    figures.forEach(({ strip }, number) => takeSurerFigures(settled[strip], third[number]));
  }
  // Legal forms are settled without a dictionary as well.
  const dictionary = wantsDictionary(settled) ? await dictionaryOf(language) : NO_WORDS;
  settleByDictionary(settled, dictionary, COMPOUNDING.includes(language));
  const unread = layout.segments.map((segment, number) =>
    isUnreadHandwriting(segment, layout.pieces.components, settled[number]),
  );
  unread.forEach((is, number) => is && (settled[number] = []));
  const handwriting = together(layout.segments.filter((_, number) => unread[number]));
  return { width, height, words: pageWords(settled, strips, layout), language, handwriting };
}

/** The places of lines, those below each other as one. */
function together(lines: Segment[]): Box[] {
  const places: Box[] = [];
  for (const { left, top, right, bottom } of lines) {
    const box: Box = [left, top, right - left + 1, bottom - top + 1];
    const last = places.findIndex(
      ([x, y, width, height]) => top - (y + height) < box[3] && left < x + width && x <= right,
    );
    if (last >= 0) places[last] = around([places[last], box]);
    else places.push(box);
  }
  return places;
}

const NO_WORDS: Dictionary = new Set();
/** Languages that put words together. */
const COMPOUNDING = ['deu', 'nld', 'swe', 'dan', 'nor'];

/** Figures look the same in all languages, but each language's model has learnt them from other examples: the best at them first. */
const FIGURE_MODELS = ['ita', 'eng', 'fra', 'spa', 'nld', 'por', 'deu'];

async function otherModel(language: string): Promise<string | undefined> {
  const installed = await installedLanguages();
  return FIGURE_MODELS.find((each) => each !== language && installed.includes(each));
}

async function readInItsLanguage(
  strips: Strip[],
  languages: string[],
): Promise<{ words: SpelledWord[][]; language: string }> {
  const [usual] = languages;
  if (languages.length === 1) return { words: await readStrips(strips, usual), language: usual };
  const order = strips.map((_, at) => at).sort((a, b) => strips[b].picture.width - strips[a].picture.width);
  let [count, seen] = [0, 0];
  while (count < order.length && seen < ENOUGH_TO_TELL) seen += strips[order[count++]].picture.width;
  const sample = order.slice(0, count);
  const tried = new Map<string, SpelledWord[][]>();
  const trial = async (language: string) => {
    const words = tried.get(language) ?? (await readStrips(at(strips, sample), language));
    tried.set(language, words);
    return words;
  };
  const language = await tellLanguage(languages, trial);
  const sampled = tried.get(language);
  const rest = sampled ? order.slice(count) : order;
  const others = await readStrips(at(strips, rest), language);
  const words: SpelledWord[][] = strips.map(() => []);
  sampled?.forEach((line, number) => (words[sample[number]] = line));
  rest.forEach((strip, number) => (words[strip] = others[number]));
  const told = languages.filter((each) => TOLD_APART.includes(each));
  if (count >= order.length || !told.includes(language)) return { words, language };
  // With all of the text there may be more to tell by.
  const better = guessLanguage(plain(words), [language, ...told.filter((each) => each !== language)]);
  return better === language ? { words, language } : { words: await readStrips(strips, better), language: better };
}

/** A language that was added is taken when the recogniser's doubt is less than this part of what it is otherwise. */
const LESS_DOUBT = 0.75;

/**
 * The language of a text: by its words as far as they are known; languages of which no words are known are tried, and the one in
 * which the recogniser is clearly surest is taken.
 */
async function tellLanguage(
  languages: string[],
  trial: (language: string) => Promise<SpelledWord[][]>,
): Promise<string> {
  const told = languages.filter((language) => TOLD_APART.includes(language));
  const added = languages.filter((language) => !told.includes(language));
  let best = told.length > 0 ? guessLanguage(plain(await trial(told[0])), told) : added.shift()!;
  if (added.length === 0) return best;
  let least = LESS_DOUBT * doubt(await trial(best));
  for (const language of added) {
    const doubtful = doubt(await trial(language));
    if (doubtful >= least) continue;
    [best, least] = [language, doubtful];
  }
  return best;
}

/** How unsure the recogniser is of what it read: the mean over all characters, from 0 to 1. */
function doubt(strips: SpelledWord[][]): number {
  const all = strips.flat().flatMap(({ characters }) => characters.map(({ confidence }) => 1 - confidence));
  return all.reduce((sum, value) => sum + value, 0) / Math.max(1, all.length);
}

function at<T>(all: T[], numbers: number[]): T[] {
  return numbers.map((number) => all[number]);
}

function plain(strips: SpelledWord[][]): string {
  return strips
    .map((words) => words.map(({ characters }) => characters.map(({ text }) => text).join('')).join(' '))
    .join('\n');
}

/** Reads a part of each of some strips; places are those in the whole strips. */
async function readParts(
  strips: Strip[],
  parts: DoubtfulPart[],
  language: string,
  capital: number,
): Promise<SpelledWord[][]> {
  const cut = strips.map((strip, number) => ({
    ...strip,
    picture: partOf(strip, parts[number].from, parts[number].until),
  }));
  const read = settle(await readStrips(cut, language), cut, capital);
  return read.map((words, number) => movedBy(words, Math.max(0, parts[number].from) - PART_MARGIN));
}

function readStrips(strips: Strip[], language: string): Promise<SpelledWord[][]> {
  return readLines(
    strips.map(({ picture }) => picture),
    language,
  );
}
