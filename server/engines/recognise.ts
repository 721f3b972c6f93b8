import { Raster } from '@crow/core/imaging/raster';
import { layOut } from '@crow/core/reading/layout/pageLayout';
import { doubtfulStrips, pageWords, settle, takeSurer } from '@crow/core/reading/layout/spelling';
import { cutStrips, Strip } from '@crow/core/reading/layout/strips';
import { SpelledWord } from '@crow/core/reading/spelled';
import { guessLanguage } from '@crow/core/reading/language';
import { PageText } from '@crow/core/reading/words';
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
  const doubtful = doubtfulStrips(settled);
  if (doubtful.length > 0) {
    const again = cutStrips(layout.page, layout.pieces, at(layout.segments, doubtful), AGAIN);
    const second = settle(await readStrips(again, language), again, AGAIN);
    doubtful.forEach((strip, number) =>
      takeSurer(settled[strip], second[number], strips[strip].scale / again[number].scale),
    );
  }
  return { width, height, words: pageWords(settled, strips, layout), language };
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
  const tried = await readStrips(at(strips, sample), usual);
  const language = guessLanguage(plain(tried), languages);
  const rest = language === usual ? order.slice(count) : order;
  const others = await readStrips(at(strips, rest), language);
  const words: SpelledWord[][] = strips.map(() => []);
  if (language === usual) sample.forEach((strip, number) => (words[strip] = tried[number]));
  rest.forEach((strip, number) => (words[strip] = others[number]));
  return { words, language };
}

function at<T>(all: T[], numbers: number[]): T[] {
  return numbers.map((number) => all[number]);
}

function plain(strips: SpelledWord[][]): string {
  return strips
    .map((words) => words.map(({ characters }) => characters.map(({ text }) => text).join('')).join(' '))
    .join('\n');
}

function readStrips(strips: Strip[], language: string): Promise<SpelledWord[][]> {
  return readLines(
    strips.map(({ picture }) => picture),
    language,
  );
}
