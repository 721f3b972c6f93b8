import sharp, { Sharp } from 'sharp';
import { noiseSource, seededRandom } from '@crow/demo/random';

/** One side of a sheet: a grey or colour picture of it and how large the paper is. */
export interface SheetPicture {
  bytes: Buffer;
  /** In points. */
  width: number;
  height: number;
}

export type ColourMode = 'BlackAndWhite1' | 'Grayscale8' | 'RGB24';

export interface ScanArea {
  /** In 300ths of an inch, from the upper left of the glass or of the sheet in the feeder. */
  x: number;
  y: number;
  width: number;
  height: number;
}

export const UNITS_PER_INCH = 300;
const POINTS_PER_INCH = 72;
/** What lies behind the sheet: the lid of the glass, the roller of the feeder. */
const BEHIND = { glass: '#fbfbfb', feeder: '#e9e9e9' };
const MOST_SKEW = 0.9;

/** Paper with nothing on it, in points. */
export async function blankSide(width: number, height: number): Promise<SheetPicture> {
  const bytes = await sharp({ create: { width: 40, height: 56, channels: 3, background: '#ffffff' } })
    .png()
    .toBuffer();
  return { bytes, width, height };
}

/**
 * What the machine's camera sees of a sheet: a little askew when it went through the feeder, with noise, the rest of the area
 * showing what lies behind. The picture has the resolution asked for.
 * @param through the other side, which shows through faintly
 */
export async function scanSide(
  side: SheetPicture,
  through: SheetPicture | undefined,
  area: ScanArea,
  resolution: number,
  colour: ColourMode,
  source: 'glass' | 'feeder',
  seed: number,
): Promise<Buffer> {
  const random = seededRandom(seed);
  const scale = resolution / POINTS_PER_INCH;
  const [width, height] = [area.width, area.height].map((units) =>
    Math.max(1, Math.round((units / UNITS_PER_INCH) * resolution)),
  );
  const [paperWidth, paperHeight] = [Math.round(side.width * scale), Math.round(side.height * scale)];
  let paper = await pixels(
    sharp(side.bytes).resize(paperWidth, paperHeight, { fit: 'fill' }).flatten({ background: '#ffffff' }),
  );
  if (through) {
    const ghost = await pixels(
      sharp(through.bytes)
        .resize(paperWidth, paperHeight, { fit: 'fill' })
        .flop()
        .greyscale()
        .blur(Math.max(0.5, resolution / 120))
        // Faint: nine tenths of it is paper.
        .linear(0.08, 235),
    );
    paper = await pixels(opened(paper).composite([{ input: ghost.data, raw: ghost.info, blend: 'multiply' }]));
  }
  const degrees = source === 'feeder' ? (random() - 0.5) * 2 * MOST_SKEW : 0;
  const turned = degrees === 0 ? paper : await pixels(opened(paper).rotate(degrees, { background: BEHIND[source] }));
  // The feeder draws sheets in along the middle of its width, the glass has its corner at the upper left.
  const left = Math.round((paperWidth - turned.info.width) / 2 - (area.x / UNITS_PER_INCH) * resolution);
  const top = Math.round((paperHeight - turned.info.height) / 2 - (area.y / UNITS_PER_INCH) * resolution);
  const seen = await laid(turned, left, top, width, height, BEHIND[source]);
  return encode(seen, colour, resolution, seed);
}

interface Pixels {
  data: Buffer;
  info: { width: number; height: number; channels: 1 | 2 | 3 | 4 };
}

/** A picture's pixels: between steps, packing and unpacking it would take longer than the steps do. */
async function pixels(picture: Sharp): Promise<Pixels> {
  const { data, info } = await picture.toColourspace('srgb').removeAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data, info: { width: info.width, height: info.height, channels: info.channels } };
}

function opened({ data, info }: Pixels): Sharp {
  return sharp(data, { raw: info });
}

/** A picture laid on a ground, cut off at its sides. */
async function laid(
  picture: Pixels,
  left: number,
  top: number,
  width: number,
  height: number,
  ground: string,
): Promise<Sharp> {
  const { width: w, height: h } = picture.info;
  const [fromX, fromY] = [Math.max(0, -left), Math.max(0, -top)];
  const [toX, toY] = [Math.min(w, width - left), Math.min(h, height - top)];
  const made = sharp({ create: { width, height, channels: 3, background: ground } });
  if (toX <= fromX || toY <= fromY) return made;
  const part = await pixels(
    opened(picture).extract({ left: fromX, top: fromY, width: toX - fromX, height: toY - fromY }),
  );
  return opened(
    await pixels(
      made.composite([{ input: part.data, raw: part.info, left: Math.max(0, left), top: Math.max(0, top) }]),
    ),
  );
}

async function encode(picture: Sharp, colour: ColourMode, resolution: number, seed: number): Promise<Buffer> {
  const prepared = colour === 'RGB24' ? picture.toColourspace('srgb') : picture.greyscale().toColourspace('b-w');
  const { data, info } = await prepared.raw().toBuffer({ resolveWithObject: true });
  const noise = noiseSource(seededRandom(seed + 1));
  for (let at = 0; at < data.length; at++) data[at] = Math.max(0, Math.min(255, data[at] * 0.97 + 3 + noise(5)));
  const made = sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } });
  const toned = colour === 'RGB24' ? made : made.toColourspace('b-w');
  return (colour === 'BlackAndWhite1' ? toned.threshold(150) : toned)
    .jpeg({ quality: 85 })
    .withDensity(resolution)
    .toBuffer();
}
