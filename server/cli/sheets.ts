import { Turn } from '@crow/core/geometry';
import { Point, wholeQuad } from '@crow/core/imaging/quad';
import { looksFlat } from '@crow/core/imaging/proposing/flat';
import { proposeRecipes } from '@crow/core/imaging/proposing/proposals';
import { fromPage, pageSizeOf, Recipe } from '@crow/core/imaging/recipe';
import { PageText, turnPageText, Word } from '@crow/core/reading/words';
import { lookedAtPicture } from '../engines/pictures';
import { withScratch } from '../engines/scratch';
import { SourceInfo } from '../engines/sourceFile';
import { hasOwnText } from '../engines/ownText';
import { readText } from '../engines/pageText';

/** A sheet in a picture, and what was read from it. */
export interface ReadSheet {
  recipe: Recipe | null;
  turn: Turn;
  text: PageText;
  /** Whether the text came with the page. */
  own: boolean;
}

/** Readings less sure than this on average may be of a page that lies the wrong way up. */
const POORLY_READ = 0.75;

/** Finds the sheets in a page's picture and reads them; a flat scan is one sheet, read as it is unless that goes badly. */
export async function readSheets(info: SourceInfo, number: number, languages: string[]): Promise<ReadSheet[]> {
  const { scanned, pointWidth, pointHeight } = info.pages[number];
  if (info.format === 'pdf' && (await hasOwnText(info, number)))
    return [{ recipe: null, turn: 0, ...(await readText(info, number, 0, languages)) }];
  const asScan: [number, number] = [pointWidth, pointHeight];
  const picture = scanned ? undefined : await withScratch((folder) => lookedAtPicture(info, number, folder));
  if (!picture || looksFlat(picture)) {
    const plain = { recipe: null, turn: 0 as Turn, ...(await readText(info, number, 0, languages)) };
    if (meanConfidence(plain.text) >= POORLY_READ) return [plain];
    const looked = picture ?? (await withScratch((folder) => lookedAtPicture(info, number, folder)));
    const [{ turn }] = proposeRecipes(looked, { scanned: asScan });
    if (turn === 0) return [plain];
    return [{ recipe: null, turn, ...(await readText(info, number, turn, languages)) }];
  }
  const sheets: ReadSheet[] = [];
  for (const { recipe, turn } of proposeRecipes(picture))
    sheets.push({ recipe, turn, ...(await readText(info, number, turn, languages, recipe)) });
  return sheets;
}

function meanConfidence({ words }: PageText): number {
  return words.length === 0 ? 0 : words.reduce((sum, { confidence }) => sum + confidence, 0) / words.length;
}

/** The words of a sheet with their boxes in pixels of the picture that it is in. */
export function wordsInPicture(
  { recipe, turn, text }: ReadSheet,
  { width, height }: { width: number; height: number },
): Word[] {
  const upright = turnPageText(text, ((360 - turn) % 360) as Turn);
  if (!recipe) return upright.words;
  const [pageWidth, pageHeight] = pageSizeOf(recipe, width, height);
  const [across, down] = [pageWidth / upright.width, pageHeight / upright.height];
  const toPicture = fromPage(recipe, width, height);
  return upright.words.map((word) => {
    const [x, y, w, h] = word.box;
    const corners = wholeQuad(w, h).map(([dx, dy]): Point =>
      toPicture([((x + dx) * across) / pageWidth, ((y + dy) * down) / pageHeight]),
    );
    const [xs, ys] = [corners.map(([cx]) => cx), corners.map(([, cy]) => cy)];
    const [left, top] = [Math.min(...xs), Math.min(...ys)];
    return { ...word, box: [left, top, Math.max(...xs) - left, Math.max(...ys) - top] };
  });
}
