import sharp from 'sharp';
import { rasterise } from '@crow/demo/capture';
import { Paper } from '@crow/demo/papers';
import { LoadedSheet } from './machine';
import { blankSide, SheetPicture } from './sheet';

const DRAWN_AT = 200;
const POINTS_PER_INCH = 72;

/** A demo paper as sheets: printed on one side, or on both. */
export async function sheetsOf(
  paper: Pick<Paper, 'id' | 'draw' | 'pages'>,
  { bothSides = false } = {},
): Promise<LoadedSheet[]> {
  const drawn = await rasterise(await paper.draw(), paper.pages, DRAWN_AT);
  const sides = await Promise.all(
    drawn.map(async (page): Promise<SheetPicture> => {
      const { width, height } = await page.metadata();
      return {
        bytes: await page.png({ compressionLevel: 3 }).toBuffer(),
        width: (width / DRAWN_AT) * POINTS_PER_INCH,
        height: (height / DRAWN_AT) * POINTS_PER_INCH,
      };
    }),
  );
  const sheets: LoadedSheet[] = [];
  for (let at = 0; at < sides.length; at += bothSides ? 2 : 1) {
    const back = bothSides ? sides[at + 1] : undefined;
    sheets.push({
      name: `${paper.id} ${at + 1}`,
      front: sides[at],
      back: back ?? (await blankSide(sides[at].width, sides[at].height)),
    });
  }
  return sheets;
}

/** Somebody's own picture as a sheet of A4, or as large as its resolution says. @throws Error when it is no picture */
export async function sheetFromPicture(name: string, bytes: Buffer): Promise<LoadedSheet> {
  const { width, height, density } = await sharp(bytes).rotate().metadata();
  const size: [number, number] =
    density && density > 72
      ? [(width / density) * POINTS_PER_INCH, (height / density) * POINTS_PER_INCH]
      : [595, (595 * height) / width];
  const upright = await sharp(bytes).rotate().png().toBuffer();
  return { name, front: { bytes: upright, width: size[0], height: size[1] }, back: await blankSide(...size) };
}
