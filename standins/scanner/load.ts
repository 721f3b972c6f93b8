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

/** Where a slip lies on the glass: its upper left corner in points, and how far it is turned. */
export interface Laid {
  slip: SheetPicture;
  x: number;
  y: number;
  degrees: number;
}

const GLASS: [number, number] = [595, 842];
const LID = '#f6f6f6';

/**
 * Several slips beside each other on the glass, each with the thin shadow that its edges throw.
 * @param ground what lies behind them: the lid, or the colour of the sheet that they are stuck onto
 */
export async function slipsOnGlass(name: string, slips: Laid[], ground = LID): Promise<LoadedSheet> {
  const scale = DRAWN_AT / POINTS_PER_INCH;
  const parts = await Promise.all(
    slips.map(async ({ slip, x, y, degrees }) => {
      const [width, height] = [Math.round(slip.width * scale), Math.round(slip.height * scale)];
      const edge = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><path d="M1 ${height}V1H${width}" stroke="#e2e2e2" stroke-width="2" fill="none"/><path d="M${width - 2} 0V${height - 2}H0" stroke="#b9b9b9" stroke-width="4" fill="none"/></svg>`;
      const paper = await sharp(slip.bytes)
        .resize(width, height, { fit: 'fill' })
        .flatten({ background: '#ffffff' })
        .composite([{ input: Buffer.from(edge) }])
        .png()
        .toBuffer();
      const input = await sharp(paper).rotate(degrees, { background: ground }).png().toBuffer();
      return { input, left: Math.round(x * scale), top: Math.round(y * scale) };
    }),
  );
  const [width, height] = GLASS.map((side) => Math.round(side * scale));
  const bytes = await sharp({ create: { width, height, channels: 3, background: ground } })
    .composite(parts)
    .png()
    .toBuffer();
  return { name, front: { bytes, width: GLASS[0], height: GLASS[1] }, back: await blankSide(...GLASS) };
}
