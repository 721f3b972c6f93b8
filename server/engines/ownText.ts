import { isGoodTextLayer } from '@crow/core/reading/bboxLayout';
import { guessLanguage } from '@crow/core/reading/language';
import { PageText, plainText } from '@crow/core/reading/words';
import { pdfText } from './poppler';
import { SourceInfo } from './sourceFile';

/** Whether a page of a PDF brings good text along. */
export async function hasOwnText({ path }: SourceInfo, number: number): Promise<boolean> {
  const [text] = await pdfText(path, number + 1, number + 1);
  return text !== undefined && isGoodTextLayer(text.words);
}

/** The text that a page of a PDF brings along, where it is good. @param number from 0 */
export async function ownText(info: SourceInfo, number: number, languages: string[]): Promise<PageText | undefined> {
  const [text] = await pdfText(info.path, number + 1, number + 1);
  if (!text || !isGoodTextLayer(text.words)) return undefined;
  // Poppler gives the words as the page is shown, but the size of the page as it was before being turned.
  const { width, height, pointWidth, pointHeight } = info.pages[number];
  const [across, down] = [width / pointWidth, height / pointHeight];
  const words = text.words.map((word) => {
    const [x, y, w, h] = word.box;
    return {
      ...word,
      box: [x * across, y * down, w * across, h * down] as typeof word.box,
      baseline: word.baseline * down,
    };
  });
  return { width, height, words, language: guessLanguage(plainText(words), languages) };
}
