import { Problem } from '@crow/contract/problems';
import { Turn } from '@crow/core/geometry';
import { Recipe } from '@crow/core/imaging/recipe';
import { PageCode, PageText, scaledPageText, turnPageText } from '@crow/core/reading/words';
import { readCodes } from './codes';
import { ownText } from './ownText';
import { lookedAtPicture, readingPicture } from './pictures';
import { recognise } from './recognise';
import { withScratch } from './scratch';
import { SourceInfo } from './sourceFile';

/**
 * The text of a page: its own where it brings good text, else recognised. Boxes in pixels of the page's full picture, turned.
 * @param number from 0
 */
export async function readText(
  info: SourceInfo,
  number: number,
  turn: Turn,
  languages: string[],
  recipe: Recipe | null = null,
): Promise<{ text: PageText; own: boolean }> {
  if (info.format === 'pdf' && !recipe) {
    const own = await ownText(info, number, languages);
    if (own) {
      const codes = await codesOn(info, number, own);
      return { text: turnPageText({ ...own, codes }, turn), own: true };
    }
  }
  const text = await withScratch(async (folder) => {
    const { picture, enlarged } = await readingPicture(info, number, turn, folder, recipe);
    return scaledPageText(await recognise(picture, languages), enlarged);
  });
  return { text, own: false };
}

/** Codes of bills and tickets stand on one of the first pages, or on the last. */
const FIRST_PAGES = 2;

/** The codes on a page that needs no recognising; none where it can't be drawn: its text is there all the same. */
async function codesOn(info: SourceInfo, number: number, { width, height }: PageText): Promise<PageCode[]> {
  if (number >= FIRST_PAGES && number < info.pages.length - 1) return [];
  try {
    const picture = await withScratch((folder) => lookedAtPicture(info, number, folder));
    const scale = Math.max(width, height) / Math.max(picture.width, picture.height);
    return scaledPageText({ ...picture, words: [], language: '', codes: await readCodes(picture) }, scale).codes ?? [];
  } catch (error) {
    if (error instanceof Problem) return [];
    throw error;
  }
}
