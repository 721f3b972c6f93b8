import sharp from 'sharp';
import { Box } from '@crow/core/geometry';
import { findFigures } from '@crow/core/reading/layout/figures';
import { SetPicture } from '@crow/core/pdf/textOnlyPdf';
import { PageText } from '@crow/core/reading/words';
import { rasterOf } from './rasters';

/** Longer side of the picture in which figures are looked for, and the most pixels that one is kept with, across. */
const LOOKED_AT = 800;
const MOST_ACROSS = 900;
const PAPER_WIDTH = 595;
/** Some paper around each, as a share of the page's longer side. */
const MARGIN = 0.004;

/**
 * Cuts what is drawn rather than written out of the picture of a page.
 * @param picture of the whole page, in a format that sharp reads
 * @param text what was read from it
 * @returns pictures in JPEG with where they begin, in pixels of the text, as wide as on A4 paper
 */
export async function cutFigures(
  picture: Uint8Array,
  text: Pick<PageText, 'width' | 'height' | 'words'>,
): Promise<(SetPicture & { top: number })[]> {
  const small = await rasterOf(
    sharp(picture).resize({ width: LOOKED_AT, height: LOOKED_AT, fit: 'inside' }).flatten({ background: '#fff' }),
  );
  const shrunk = small.width / text.width;
  const words = text.words.map(({ box, confidence }) => ({
    box: box.map((value) => value * shrunk) as Box,
    confidence,
  }));
  const { width = 1, height = 1 } = await sharp(picture).metadata();
  const scale = width / small.width;
  const margin = MARGIN * LOOKED_AT;
  const cut: (SetPicture & { top: number })[] = [];
  for (const [x, y, wide, high] of findFigures(small, words)) {
    const [left, top] = [x - margin, y - margin].map((value) => Math.max(0, Math.floor(value * scale)));
    const right = Math.min(width, Math.ceil((x + wide + margin) * scale));
    const bottom = Math.min(height, Math.ceil((y + high + margin) * scale));
    const jpeg = await sharp(picture)
      .extract({ left, top, width: right - left, height: bottom - top })
      .resize({ width: MOST_ACROSS, height: MOST_ACROSS, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#fff' })
      .jpeg({ quality: 75 })
      .toBuffer();
    cut.push({ jpeg, width: (PAPER_WIDTH * (right - left)) / width, top: y / shrunk });
  }
  return cut;
}
