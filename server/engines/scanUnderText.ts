import sharp from 'sharp';
import { greyOf } from '@crow/core/imaging/raster';
import { PageText } from '@crow/core/reading/words';
import { pictureOnPage, scannedResolutions } from './poppler';
import { rasterOf } from './rasters';
import { SourceInfo } from './sourceFile';

/** Longer side of the picture in which words are looked for, in pixels. */
const LOOKED_AT = 1200;
/** Where a word stands, brightness varies by so much (standard deviation); and so many of the words must stand there. */
const INKED = 14;
const MOST_WORDS = 0.9;

/**
 * Whether a page of a PDF is a scan with its text laid over it unseen: one picture from edge to edge, in which there is ink
 * wherever the text has a word. Of such a page nothing is lost when its picture is made anew.
 * @param number from 0
 * @param text the page's own, unturned
 */
export async function isScanUnderText(
  { path, format, pages }: SourceInfo,
  number: number,
  { width, height, words }: Pick<PageText, 'width' | 'height' | 'words'>,
  folder: string,
): Promise<boolean> {
  if (format !== 'pdf' || words.length === 0) return false;
  const { pointWidth, pointHeight } = pages[number];
  const page = number + 1;
  const scans = await scannedResolutions(path, [{ width: pointWidth, height: pointHeight }], { first: page });
  if (!scans.has(page)) return false;
  const file = await pictureOnPage(path, page, folder);
  if (!file) return false;
  const picture = sharp(file)
    .resize({ width: LOOKED_AT, height: LOOKED_AT, fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#fff' });
  const { data, width: across, height: down } = greyOf(await rasterOf(picture));
  const [scaleX, scaleY] = [across / width, down / height];
  const inked = words.filter(({ box: [x, y, w, h] }) => {
    let [sum, squares, seen] = [0, 0, 0];
    for (let row = Math.floor(y * scaleY); row < Math.min(down, (y + h) * scaleY); row++)
      for (let column = Math.floor(x * scaleX); column < Math.min(across, (x + w) * scaleX); column++) {
        const value = data[row * across + column];
        sum += value;
        squares += value * value;
        seen++;
      }
    return seen > 0 && Math.sqrt(Math.max(0, squares / seen - (sum / seen) ** 2)) > INKED;
  });
  return inked.length >= MOST_WORDS * words.length;
}
