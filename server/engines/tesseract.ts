import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Problem } from '@crow/contract/problems';
import { parseHocr } from '@crow/core/reading/hocr';
import { guessLanguage } from '@crow/core/reading/language';
import { PageText, plainText, Word } from '@crow/core/reading/words';
import { runChild } from './child';

/**
 * Recognises the text of an upright page.
 * @param picture an encoded picture (PNG, JPEG, TIFF)
 * @param size its width and height in pixels
 * @param languages ISO 639-2; the first is tried first, another one when the text turns out to be in it: forcing several on
 *   the engine at once costs accents and time
 * @throws Problem 'page-not-read', 'took-too-long'
 */
export async function recognise(
  picture: Uint8Array,
  size: { width: number; height: number; dpi: number },
  languages: string[],
  folder: string,
): Promise<PageText> {
  const path = join(folder, 'reading.img');
  await writeFile(path, picture);
  let language = languages[0];
  let words = await readOnce(path, size.dpi, language);
  const better = guessLanguage(plainText(words), languages);
  if (better !== language) {
    language = better;
    words = await readOnce(path, size.dpi, language);
  }
  return { width: size.width, height: size.height, words, language };
}

async function readOnce(path: string, dpi: number, language: string): Promise<Word[]> {
  const args = [
    path,
    'stdout',
    '-l',
    language,
    '--dpi',
    `${Math.round(dpi)}`,
    '--psm',
    '3',
    '-c',
    'tessedit_create_hocr=1',
  ];
  const { code, output, errors } = await runChild('tesseract', args, {
    limits: { seconds: 120, megabytes: 3000 },
    what: 'Reading the page',
  });
  if (code !== 0) throw new Problem('page-not-read', { detail: plainReason(errors) });
  return parseHocr(output.toString());
}

function plainReason(errors: string): string {
  if (/Failed loading language|couldn't load any languages/i.test(errors))
    return 'a language is not installed on this machine';
  if (/too small|Line cannot be recognized|Image too small/i.test(errors)) return 'the picture is too small';
  return 'the recogniser gave up on it';
}
