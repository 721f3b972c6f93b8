import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Problem } from '@crow/contract/problems';
import { Raster } from '@crow/core/imaging/raster';
import { layOut } from '@crow/core/reading/layout/pageLayout';
import { doubtfulStrips, pageWords, settle, takeSurer } from '@crow/core/reading/layout/spelling';
import { cutStrips, Strip } from '@crow/core/reading/layout/strips';
import { parseSpelledHocr, SpelledWord } from '@crow/core/reading/hocr';
import { guessLanguage } from '@crow/core/reading/language';
import { PageText } from '@crow/core/reading/words';
import { runChild } from './child';

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
export async function recognise(picture: Raster, languages: string[], folder: string): Promise<PageText> {
  const { width, height } = picture;
  const layout = layOut(picture);
  const strips = cutStrips(layout.page, layout.pieces, layout.segments, CAPITAL);
  const { words: read, language } = await readInItsLanguage(strips, languages, folder);
  const settled = settle(read, strips, CAPITAL);
  const doubtful = doubtfulStrips(settled);
  if (doubtful.length > 0) {
    const again = cutStrips(layout.page, layout.pieces, layout.segments, AGAIN);
    const chosen = doubtful.map((at) => again[at]);
    const second = settle(await readStrips(chosen, language, folder), chosen, AGAIN);
    doubtful.forEach((at, number) => takeSurer(settled[at], second[number], strips[at].scale / again[at].scale));
  }
  return { width, height, words: pageWords(settled, strips, layout), language };
}

async function readInItsLanguage(
  strips: Strip[],
  languages: string[],
  folder: string,
): Promise<{ words: SpelledWord[][]; language: string }> {
  const [usual] = languages;
  if (languages.length === 1) return { words: await readStrips(strips, usual, folder), language: usual };
  const order = strips.map((_, at) => at).sort((a, b) => strips[b].picture.width - strips[a].picture.width);
  let [count, seen] = [0, 0];
  while (count < order.length && seen < ENOUGH_TO_TELL) seen += strips[order[count++]].picture.width;
  const sample = order.slice(0, count);
  const tried = await readStrips(at(strips, sample), usual, folder);
  const language = guessLanguage(plain(tried), languages);
  const rest = language === usual ? order.slice(count) : order;
  const others = await readStrips(at(strips, rest), language, folder);
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

/** Has strips read in one go: for each its words, character by character. */
async function readStrips(strips: Strip[], language: string, folder: string): Promise<SpelledWord[][]> {
  if (strips.length === 0) return [];
  const paths = await Promise.all(
    strips.map(async ({ picture }, number) => {
      const path = join(folder, `strip-${number}.pgm`);
      await writeFile(path, portableGreymap(picture));
      return path;
    }),
  );
  const list = join(folder, 'strips.txt');
  await writeFile(list, paths.join('\n'));
  const settings = ['tessedit_create_hocr=1', 'hocr_char_boxes=1', 'tessedit_do_invert=0'];
  const args = [list, 'stdout', '-l', language, '--dpi', '300', '--psm', SINGLE_LINE];
  const { code, output, errors } = await runChild('tesseract', [...args, ...settings.flatMap((each) => ['-c', each])], {
    limits: { seconds: 120, megabytes: 3000 },
    what: 'Reading the page',
  });
  if (code !== 0) throw new Problem('page-not-read', { detail: plainReason(errors) });
  const read = parseSpelledHocr(output.toString());
  return strips.map((_, number) => read[number] ?? []);
}

const SINGLE_LINE = '7';

/** A picture in the simplest of formats: nothing is lost or computed. */
function portableGreymap({ width, height, data }: Raster): Buffer {
  return Buffer.concat([
    Buffer.from(`P5 ${width} ${height} 255\n`),
    Buffer.from(data.buffer, data.byteOffset, data.length),
  ]);
}

function plainReason(errors: string): string {
  if (/Failed loading language|couldn't load any languages/i.test(errors))
    return 'a language is not installed on this machine';
  return 'the recogniser gave up on it';
}
