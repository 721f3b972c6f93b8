import { around, Box } from '@crow/core/geometry';
import { Raster } from '@crow/core/imaging/raster';
import { withCombsJoined } from '@crow/core/reading/layout/combs';
import { Dictionary, settleByDictionary, wantsDictionary } from '@crow/core/reading/layout/dictionary';
import { unreadHandwriting } from '@crow/core/reading/layout/handwriting';
import { withoutNoise } from '@crow/core/reading/layout/noise';
import { better, covers, lettersLeft } from '@crow/core/reading/layout/leftOver';
import { EvenPage, evenPage } from '@crow/core/reading/layout/evenPage';
import { showsDiaeresis, takeDiaereses } from '@crow/core/reading/layout/diaereses';
import { layOut, PageLayout } from '@crow/core/reading/layout/pageLayout';
import {
  doubtfulFigures,
  DoubtfulPart,
  doubtfulParts,
  movedBy,
  pageWords,
  settle,
  showsBarredZeros,
  takeSurer,
  takeSurerFigures,
} from '@crow/core/reading/layout/spelling';
import { cutStrips, PART_MARGIN, partOf, Strip } from '@crow/core/reading/layout/strips';
import { Segment } from '@crow/core/reading/layout/segments';
import { SpelledWord } from '@crow/core/reading/spelled';
import { guessLanguage, tellLanguageOf, TOLD_APART } from '@crow/core/reading/language';
import { isSmallPrint } from '@crow/core/reading/layout/smallPrint';
import { PageText, scaledPageText, Word } from '@crow/core/reading/words';
import { readCodes } from './codes';
import { dictionaryOf } from './dictionary';
import { enlarged } from './enlarged';
import { installedLanguages } from './languageData';
import { expectLines, readLines } from './lineReader';
import { readWholePage } from './pageReader';

/** Heights of a capital, in pixels, in which strips are read, and doubtful ones again. */
const [CAPITAL, AGAIN] = [30, 23];
/**
 * A page's text is read by portions of such a width, in pixels of strips, until its language is so far ahead of the others that
 * the rest has nothing to say to it, or so much is read. Where the recogniser's doubt tells, it takes as much to be trusted.
 */
const PORTION = 1000;
/** So far ahead, it is likely to be that language: the next portion is read in it. */
const [LIKELY_LEAD, CLEAR_LEAD] = [3, 6];
const MOST_TO_TELL = 7000;
const ENOUGH_TO_DOUBT = 3200;

/**
 * Recognises the text of an upright page. The recogniser gets it as strips, one for each line or cell that was found: its own
 * search for lines loses what stands in tables and boxes.
 * @param picture grey or colour
 * @param languages ISO 639-2; the first is tried first, another one when the text turns out to be in it: forcing several on
 *   the engine at once costs accents and time
 * @throws Problem 'page-not-read', 'took-too-long'
 */
export async function recognise(picture: Raster, languages: string[]): Promise<PageText> {
  const seen = { picture, even: evenPage(picture) };
  let larger: SeenPage | undefined;
  const enlarge = async () => {
    const large = await enlarged(picture, ENLARGED);
    return (larger = { picture: large, even: evenPage(large) });
  };
  const isSmall = await isSmallPrint(seen.even.ink, async () => (await enlarge()).even.ink);
  const page = isSmall
    ? scaledPageText(await recogniseAsSeen(larger ?? (await enlarge()), languages), 1 / ENLARGED)
    : await recogniseAsSeen(seen, languages);
  return { ...page, codes: await readCodes(picture) };
}

/** How many times small print is enlarged: three times reads it no better. */
const ENLARGED = 2;

/** The picture of a page in the size in which it is read, and the same evened, which is used up by reading. */
interface SeenPage {
  picture: Raster;
  even: EvenPage;
}

/** The text of a page in the size that it has, without the codes on it. */
async function recogniseAsSeen(seen: SeenPage, languages: string[]): Promise<PageText> {
  const { picture } = seen;
  const { width, height } = picture;
  const { words: read, language, layout, handwriting } = await readLinesOf(picture, languages, seen.even);
  const dictionary = await dictionaryOf(language);
  const words = withoutNoise(read, dictionary);
  const { components, letter } = layout.pieces;
  const left = lettersLeft(
    components,
    letter,
    width,
    words.map(({ box }) => box),
  );
  const all = isPoor(read, left)
    ? withoutNoise(
        await withWholePage(layout.isJoined ? layout.page : picture, words, language, handwriting, letter),
        dictionary,
      )
    : words;
  // What the other search read as print was none.
  const unreadByHand = handwriting.filter(
    (place) => !all.some((word) => !words.includes(word) && covers(place, word.box)),
  );
  return {
    width,
    height,
    words: withoutGaps(all),
    language,
    handwriting: unreadByHand,
  };
}

/** Words whose lines are numbered without gaps. */
function withoutGaps(words: readonly Word[]): Word[] {
  const lines = new Map([...new Set(words.map(({ line }) => line))].map((line, number) => [line, number]));
  return words.map((word) => ({ ...word, line: lines.get(word.line)! }));
}

/** What stands in the lines and cells that the program finds, print or not, and where handwriting is. */
export async function readLinesOf(
  picture: Raster,
  languages: string[],
  even = evenPage(picture),
): Promise<{ words: Word[]; language: string; layout: PageLayout; handwriting: Box[] }> {
  expectLines(languages[0]);
  const layout = layOut(even);
  const strips = cutStrips(layout.page, layout.pieces, layout.segments, CAPITAL);
  const { words: read, language } = await readInItsLanguage(strips, languages);
  await readOtherLines(read, strips, language, languages);
  await readDotted(read, strips, layout, language);
  const barred = showsBarredZeros(read, strips);
  const settled = settle(read, strips, CAPITAL, barred);
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
    const second = await readParts(again, parts, language, AGAIN, barred);
    numbers.forEach((strip, number) => takeSurer(settled[strip], second[number], 1 / scales[number]));
  }
  const figures = doubtfulFigures(settled);
  const other = figures.length > 0 ? await otherModel(language) : undefined;
  if (other) {
    const own = at(
      strips,
      figures.map(({ strip }) => strip),
    );
    const third = await readParts(own, figures, other, CAPITAL, barred);
    figures.forEach(({ strip }, number) => takeSurerFigures(settled[strip], third[number]));
  }
  // Legal forms are settled without a dictionary as well.
  const dictionary = wantsDictionary(settled) ? await dictionaryOf(language) : NO_WORDS;
  settleByDictionary(settled, dictionary, COMPOUNDING.includes(language));
  const unread = unreadHandwriting(layout.segments, layout.pieces.components, settled);
  unread.forEach((is, number) => is && (settled[number] = []));
  const handwriting = together(layout.segments.filter((_, number) => unread[number]));
  const words = withCombsJoined(pageWords(settled, strips, layout), layout.rules, layout.pieces.letter);
  return { words, language, layout, handwriting };
}

/** A line is in another language than its page when it has so many words and that language is so far ahead. */
const [WORDS_OF_A_LINE, OTHER_LEAD] = [4, 3.5];

/** Reads lines in another of the languages where they are written in it: a page may mix them. The first readings are changed in place. */
async function readOtherLines(
  read: SpelledWord[][],
  strips: Strip[],
  language: string,
  languages: string[],
): Promise<void> {
  const told = [language, ...languages.filter((each) => TOLD_APART.includes(each) && each !== language)];
  if (told.length < 2 || !TOLD_APART.includes(language)) return;
  const others = new Map<string, number[]>();
  read.forEach((words, number) => {
    if (words.length < WORDS_OF_A_LINE) return;
    const { language: own, lead } = tellLanguageOf(plain([words]), told);
    if (own !== language && lead >= OTHER_LEAD) others.set(own, [...(others.get(own) ?? []), number]);
  });
  for (const [other, numbers] of others) {
    const again = await readLines(at(strips, numbers), other);
    numbers.forEach((number, place) => {
      if (again[place].length > 0 && doubt([again[place]]) <= doubt([read[number]])) read[number] = again[place];
    });
  }
}

/** Names keep their ä, ö and ü in whatever language the rest is. */
const DOTTED = 'deu';

/** Reads strips in which two dots stand over a letter in a language that has such letters as well. The first readings are changed in place. */
async function readDotted(
  read: SpelledWord[][],
  strips: Strip[],
  { segments, pieces }: PageLayout,
  language: string,
): Promise<void> {
  if (language === DOTTED || !(await installedLanguages()).includes(DOTTED)) return;
  const numbers = segments.flatMap((segment, number) => (showsDiaeresis(segment, pieces) ? number : []));
  if (numbers.length === 0) return;
  const again = await readLines(at(strips, numbers), DOTTED);
  numbers.forEach((number, place) => takeDiaereses(read[number], again[place]));
}

/** So many letters that were not read, or words that are doubted so much on average, and the page is read the other way as well. */
const [MANY_LEFT, SHARE_LEFT] = [14, 0.02];
const [DOUBTFUL_PAGE, DOUBTED, MANY_DOUBTED] = [0.968, 0.7, 0.035];
/** For fewer doubted words than these it is not worth the time: another reading hardly ever says more of them. */
const WORTH_READING_AGAIN = 3;

function isPoor(words: readonly Word[], left: number): boolean {
  const letters = words.reduce((sum, { text }) => sum + text.length, 0);
  const sure = words.reduce((sum, { text, confidence }) => sum + text.length * confidence, 0);
  const doubted = words.filter(({ confidence }) => confidence < DOUBTED).length;
  return (
    (left >= MANY_LEFT && left > SHARE_LEFT * letters) ||
    (doubted >= WORTH_READING_AGAIN && (sure < DOUBTFUL_PAGE * letters || doubted > MANY_DOUBTED * words.length))
  );
}

/** Own layout loses what is set in a way that it does not know: what the recogniser's own finds besides is taken over. */
async function withWholePage(
  picture: Raster,
  words: Word[],
  language: string,
  handwriting: Box[],
  letter: number,
): Promise<Word[]> {
  const [whole, dictionary] = await Promise.all([readWholePage(picture, language, letter), dictionaryOf(language)]);
  return better(words, whole, (word) => dictionary.has(word) || dictionary.has(word.toLowerCase()), handwriting);
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

/** Fetches what doubtful words are settled with, while the page is read for the first time. */
async function prepareFor(language: string): Promise<void> {
  void dictionaryOf(language);
  const other = await otherModel(language);
  if (other) expectLines(other);
}

async function readInItsLanguage(
  strips: Strip[],
  languages: string[],
): Promise<{ words: SpelledWord[][]; language: string }> {
  if (languages.length === 1) return { words: await readLines(strips, languages[0]), language: languages[0] };
  const done = new Map<string, SpelledWord[][]>();
  const readIn = async (language: string, numbers: number[]) => {
    const known = done.get(language) ?? [];
    done.set(language, known);
    const missing = numbers.filter((number) => known[number] === undefined);
    const read = await readLines(at(strips, missing), language);
    read.forEach((words, number) => (known[missing[number]] = words));
    return at(known, numbers);
  };
  const widestFirst = strips.map((_, number) => number).sort((a, b) => strips[b].width - strips[a].width);
  const language = await tellLanguage(widestFirst, (number) => strips[number].width, languages, readIn);
  await prepareFor(language);
  await readIn(language, widestFirst);
  const words = done.get(language)!;
  const told = languages.filter((each) => TOLD_APART.includes(each));
  if (!told.includes(language)) return { words, language };
  // With all of the text there may be more to tell by.
  const better = guessLanguage(plain(words), [language, ...told.filter((each) => each !== language)]);
  if (better !== language) await readIn(better, widestFirst);
  const [usual] = languages;
  // What can hardly be read is in no language that could be told.
  if (better !== usual && doubt(done.get(better)!) > UNREADABLE && saysLittle(done.get(better)!, told)) {
    await readIn(usual, widestFirst);
    return { words: done.get(usual)!, language: usual };
  }
  return { words: done.get(better)!, language: better };
}

/** Of characters that are doubted so much on average, nothing can be told. */
const UNREADABLE = 0.035;
/** How far the language of a text that can be read is ahead of others, for each of its words. */
const LEAST_LEAD = 0.25;

function saysLittle(words: SpelledWord[][], told: string[]): boolean {
  const text = plain(words);
  const different = new Set(text.match(/\p{L}{2,}/gu) ?? []);
  return tellLanguageOf(text, told).lead < LEAST_LEAD * different.size;
}

/** A language that was added is taken when the recogniser's doubt is less than this part of what it is otherwise. */
const LESS_DOUBT = 0.75;

/**
 * The language of a text: by its words as far as they are known; languages of which no words are known are tried, and the one in
 * which the recogniser is clearly surest is taken.
 * @param order of the strips, those that say most first
 * @param readIn reads some of them
 */
async function tellLanguage(
  order: number[],
  widthOf: (strip: number) => number,
  languages: string[],
  readIn: (language: string, strips: number[]) => Promise<SpelledWord[][]>,
): Promise<string> {
  const told = languages.filter((language) => TOLD_APART.includes(language));
  const added = languages.filter((language) => !told.includes(language));
  let [count, seen] = [0, 0];
  const grow = (until: number) => {
    while (count < order.length && seen < until) seen += widthOf(order[count++]);
    return order.slice(0, count);
  };
  let best = told[0] ?? added.shift();
  const words: SpelledWord[][] = [];
  for (let lead = 0; told.length > 1 && lead < CLEAR_LEAD && seen < MOST_TO_TELL && count < order.length;) {
    // What is read in the language that it is will not have to be read again, and says more of it.
    const portion = grow(seen + PORTION).slice(words.length);
    words.push(...(await readIn(lead >= LIKELY_LEAD ? best : told[0], portion)));
    ({ language: best, lead } = tellLanguageOf(plain(words), told));
  }
  if (added.length === 0) return best;
  const sample = grow(ENOUGH_TO_DOUBT);
  let least = LESS_DOUBT * doubt(await readIn(best, sample));
  for (const language of added) {
    const doubtful = doubt(await readIn(language, sample));
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
  barred: boolean,
): Promise<SpelledWord[][]> {
  const cut = strips.map((strip, number) => ({
    ...strip,
    picture: partOf(strip, parts[number].from, parts[number].until),
  }));
  const read = settle(await readLines(cut, language), cut, capital, barred);
  return read.map((words, number) => movedBy(words, Math.max(0, parts[number].from) - PART_MARGIN));
}
