import { bytesOf, greyOf, Raster } from '@crow/core/imaging/raster';
import { Word } from '@crow/core/reading/words';
import { runChild } from './child';
import { enlarged } from './enlarged';
import { dataPath } from './languageData';

/** Small letters lower than so many pixels are enlarged so many times. */
const [SMALL_LETTER, ENLARGED, USUAL_LETTER] = [9.5, 2, 16];
/** A large page with so small letters is one of grain; enlarged it would take more pixels than this, and much time and memory. */
const MOST_PIXELS = 16_000_000;

const LIMITS = { seconds: 120, megabytes: 2000 };

/**
 * Reads a page by the recogniser's own search for text; small print is enlarged before.
 * @param letter height of its small letters, in pixels
 * @throws Problem 'took-too-long'
 */
export async function readWholePage(picture: Raster, language: string, letter = USUAL_LETTER): Promise<Word[]> {
  const { width, height } = picture;
  if (letter < SMALL_LETTER && width * height * ENLARGED ** 2 <= MOST_PIXELS) {
    const words = await readWholePage(await enlarged(picture, ENLARGED), language);
    return words.map((word) => ({
      ...word,
      box: word.box.map((value) => value / ENLARGED) as Word['box'],
      baseline: word.baseline / ENLARGED,
    }));
  }
  const input = Buffer.concat([Buffer.from(`P5\n${width} ${height}\n255\n`), bytesOf(greyOf(picture))]);
  const { code, output } = await runChild('tesseract', ['stdin', 'stdout', '-l', language, '--psm', '3', 'tsv'], {
    limits: LIMITS,
    what: 'Reading the page',
    input,
    environment: dataPath(),
  });
  return code === 0 ? wordsIn(output.toString()) : [];
}

/** The words that the recogniser's table tells: level, page, block, paragraph, line, word, box, confidence, text. */
function wordsIn(table: string): Word[] {
  const words: Word[] = [];
  let [line, known] = [-1, ''];
  for (const row of table.split('\n')) {
    const [level, , block, paragraph, number, , x, y, w, h, sure, text] = row.split('\t');
    if (level !== '5' || !text?.trim()) continue;
    const key = `${block} ${paragraph} ${number}`;
    if (key !== known) [line, known] = [line + 1, key];
    const box: Word['box'] = [Number(x), Number(y), Number(w), Number(h)];
    const confidence = Math.max(0, Math.min(1, Number(sure) / 100));
    words.push({ text: text.trim(), box, confidence, line, baseline: box[1] + box[3] });
  }
  return words;
}
