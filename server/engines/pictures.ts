import { readFile } from 'node:fs/promises';
import sharp, { Sharp } from 'sharp';
import { Problem } from '@crow/contract/problems';
import { Orientation, Turn, turnOrientation } from '@crow/core/geometry';
import { makePage, pageSizeOf, Recipe } from '@crow/core/imaging/recipe';
import { greyOf, quarterTurned, Raster } from '@crow/core/imaging/raster';
import { EncodedPicture } from '@crow/core/pdf/bindPdf';
import { LOOKED_AT as KIND_LOOKED_AT } from '@crow/core/sorting/blank';
import { rasterOf } from './rasters';
import { openPage, SourceInfo, storedOrientation } from './sourceFile';

export type PictureSize = 'thumb' | 'screen' | 'full';

/** The longer side of each derived picture, in pixels. */
const LONG_SIDE: Record<PictureSize, number> = { thumb: 420, screen: 1700, full: Infinity };
const QUALITY: Record<PictureSize, number> = { thumb: 72, screen: 80, full: 88 };

export interface DerivedPicture {
  bytes: Buffer;
  mediaType: 'image/webp' | 'image/jpeg';
}

/**
 * A page's picture in each of the sizes asked for, from one decoding.
 * @param number from 0
 * @throws Problem as `openPage`
 */
export async function derivePictures(
  source: SourceInfo,
  number: number,
  turn: Turn,
  sizes: PictureSize[],
  folder: string,
  recipe: Recipe | null = null,
): Promise<Map<PictureSize, DerivedPicture>> {
  const longest = Math.max(...sizes.map((size) => LONG_SIDE[size]));
  const decoded = recipe
    ? await madePage(source, number, recipe, longest, folder)
    : await drawn(source, number, longest, folder);
  const derived = new Map<PictureSize, DerivedPicture>();
  for (const size of sizes) {
    const picture = sharp(decoded.data, { raw: decoded.info }).rotate(turn);
    // Below the size of a full page, WebP is a third smaller than JPEG at the same look; above, it is slower to show.
    const resized =
      size === 'full'
        ? picture
        : picture.resize({ width: LONG_SIDE[size], height: LONG_SIDE[size], fit: 'inside', withoutEnlargement: true });
    const quality = QUALITY[size];
    derived.set(
      size,
      size === 'full'
        ? { bytes: await resized.jpeg({ quality }).toBuffer(), mediaType: 'image/jpeg' }
        : { bytes: await resized.webp({ quality, effort: 2 }).toBuffer(), mediaType: 'image/webp' },
    );
  }
  return derived;
}

async function drawn(source: SourceInfo, number: number, longSide: number, folder: string) {
  const opened = await openPage(source, number, folder, longSide);
  const sized = Number.isFinite(longSide)
    ? opened.resize({ width: longSide, height: longSide, fit: 'inside', withoutEnlargement: true })
    : opened;
  try {
    return await sized
      .flatten({ background: '#ffffff' })
      .toColourspace('srgb')
      .raw()
      .toBuffer({ resolveWithObject: true });
  } catch {
    throw new Problem('page-not-drawn', { name: source.name, page: number + 1 });
  }
}

/** A page made by its recipe, before quarter turns. */
async function madePage(source: SourceInfo, number: number, recipe: Recipe, longSide: number, folder: string) {
  const { width, height, channels, data } = await madeRaster(source, number, recipe, longSide, folder);
  return { data: Buffer.from(data.buffer, data.byteOffset, data.byteLength), info: { width, height, channels } };
}

async function madeRaster(
  source: SourceInfo,
  number: number,
  recipe: Recipe,
  longSide: number,
  folder: string,
): Promise<Raster> {
  // The sheet may be a small part of its picture: what is to be shown in full needs all of it.
  const opened = await openPage(source, number, folder, Number.isFinite(longSide) ? 2 * longSide : Infinity);
  try {
    return makePage(await rasterOf(opened), recipe, { longSide });
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw new Problem('page-not-drawn', { name: source.name, page: number + 1 });
  }
}

/** The longer side of the picture in which sheets are sought and legibility is judged: more tells no more. */
const LOOKED_AT = 2000;

/** A page's picture as it came, in the size in which it is looked at. @throws Problem as `openPage` */
export async function lookedAtPicture(source: SourceInfo, number: number, folder: string): Promise<Raster> {
  const opened = await openPage(source, number, folder, LOOKED_AT);
  return rasterOf(opened.resize({ width: LOOKED_AT, height: LOOKED_AT, fit: 'inside', withoutEnlargement: true }));
}

/** A picture in grey and so small that it is quickly told what kind of page it is. */
export async function atAGlance({ width, height, channels, data }: Raster): Promise<Raster> {
  const { data: pixels, info } = await sharp(data, { raw: { width, height, channels } })
    .resize({
      width: KIND_LOOKED_AT,
      height: KIND_LOOKED_AT,
      fit: 'inside',
      kernel: 'linear',
      withoutEnlargement: true,
    })
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data: pixels, width: info.width, height: info.height, channels: info.channels as 1 };
}

/** The longer side of the picture that is read, in pixels: about 300 dpi of A4. */
const READ_AT = 3600;

/**
 * The picture of a page that is read: grey, upright and turned.
 * @returns the picture, and how many pixels the page has in full for each of its
 */
export async function readingPicture(
  source: SourceInfo,
  number: number,
  turn: Turn,
  folder: string,
  recipe: Recipe | null = null,
): Promise<{ picture: Raster; enlarged: number }> {
  const { width, height } = source.pages[number];
  // Reading evens out the light itself, and must not lose a dark band that looks like the table at an edge.
  const full = recipe && { ...recipe, look: 'asShot' as const };
  const [fullWidth, fullHeight] = full ? pageSizeOf(full, width, height) : [width, height];
  const longSide = Math.min(READ_AT, Math.max(fullWidth, fullHeight));
  const picture = full
    ? greyOf(await madeRaster(source, number, full, longSide, folder))
    : await greyPicture(source, number, longSide, folder);
  const enlarged = Math.max(fullWidth, fullHeight) / Math.max(picture.width, picture.height);
  return { picture: quarterTurned(picture, turn), enlarged };
}

async function greyPicture(source: SourceInfo, number: number, longSide: number, folder: string): Promise<Raster> {
  const opened = await openPage(source, number, folder, longSide);
  const { width, height } = source.pages[number];
  const sized =
    Math.max(width, height) > longSide ? opened.resize({ width: longSide, height: longSide, fit: 'inside' }) : opened;
  try {
    const { data, info } = await sized
      .flatten({ background: '#ffffff' })
      .toColourspace('b-w')
      .raw()
      .toBuffer({ resolveWithObject: true });
    return greyOf({ width: info.width, height: info.height, channels: info.channels as Raster['channels'], data });
  } catch {
    throw new Problem('page-not-drawn', { name: source.name, page: number + 1 });
  }
}

/** How a page's picture goes into the PDF: as it was captured, or with fewer pixels and stronger compression. */
export type BindingSize = 'full' | 'balanced' | 'small';

const BINDING: Record<Exclude<BindingSize, 'full'>, { dpi: number; quality: number }> = {
  balanced: { dpi: 200, quality: 72 },
  small: { dpi: 130, quality: 45 },
};
const FULL_QUALITY = 90;

/**
 * A page's picture in the form in which a PDF holds it. Black and white becomes CCITT group 4, which loses nothing; a JPEG in
 * full size stays as it is to the byte; everything else is encoded as JPEG.
 */
export async function bindingPicture(
  source: SourceInfo,
  number: number,
  turn: Turn,
  size: BindingSize,
  folder: string,
  recipe: Recipe | null = null,
): Promise<EncodedPicture> {
  if (recipe) {
    const { data, info } = await madePage(source, number, recipe, Infinity, folder);
    const made = sharp(data, { raw: info });
    if (recipe.look === 'bilevel') return encodeBilevel(made, turnOrientation(1, turn));
    return encodeJpeg(made, info.width, recipe.paper[0], turn, size);
  }
  const metadata =
    source.format === 'pdf' || source.format === 'heic'
      ? undefined
      : await sharp(source.path, { page: number }).metadata();
  const orientation = turnOrientation(await storedOrientation(source, number), turn);
  if (metadata?.bitsPerSample === 1 && (metadata.channels ?? 1) === 1) {
    return encodeBilevel(sharp(source.path, { page: number }), orientation);
  }
  const plainJpeg = source.format === 'jpeg' && (metadata?.space === 'srgb' || metadata?.space === 'b-w');
  if (size === 'full' && plainJpeg) {
    const bytes = await readFile(source.path);
    const channels = metadata.channels === 1 ? 1 : 3;
    const { width, height } = metadata;
    return { format: 'jpeg', bytes, width, height, shown: [width, height], channels, orientation };
  }
  const { width, pointWidth } = source.pages[number];
  return encodeJpeg(await openPage(source, number, folder), width, pointWidth, turn, size);
}

/** Group 4 through a TIFF of one tile (strips would each need a picture of their own); tiles are multiples of 16 pixels. */
async function encodeBilevel(picture: Sharp, orientation: Orientation): Promise<EncodedPicture> {
  const { data: pixels, info } = await picture.toColourspace('b-w').raw().toBuffer({ resolveWithObject: true });
  const [width, height] = [tileSize(info.width), tileSize(info.height)];
  const tiff = await sharp(pixels, { raw: info })
    .extend({ right: width - info.width, bottom: height - info.height, background: '#ffffff' })
    .toColourspace('b-w')
    .tiff({ compression: 'ccittfax4', bitdepth: 1, miniswhite: true, tile: true, tileWidth: width, tileHeight: height })
    .toBuffer();
  return {
    format: 'ccitt',
    bytes: ccittTile(tiff),
    width,
    height,
    shown: [info.width, info.height],
    channels: 1,
    orientation,
  };
}

function tileSize(length: number): number {
  return Math.ceil(length / 16) * 16;
}

async function encodeJpeg(
  opened: Sharp,
  width: number,
  pointWidth: number,
  turn: Turn,
  size: BindingSize,
): Promise<EncodedPicture> {
  let picture = opened.flatten({ background: '#ffffff' });
  if (size !== 'full') {
    const most = Math.round((pointWidth / 72) * BINDING[size].dpi);
    if (most < width) picture = picture.resize({ width: most });
  }
  const { isGrey, encodable } = await greyOrColour(picture);
  const { data, info } = await encodable
    .jpeg({ quality: size === 'full' ? FULL_QUALITY : BINDING[size].quality, mozjpeg: size !== 'full' })
    .toBuffer({ resolveWithObject: true });
  const { width: encodedWidth, height } = info;
  return {
    format: 'jpeg',
    bytes: data,
    width: encodedWidth,
    height,
    shown: [encodedWidth, height],
    channels: isGrey ? 1 : 3,
    orientation: turnOrientation(1, turn),
  };
}

async function greyOrColour(picture: Sharp): Promise<{ isGrey: boolean; encodable: Sharp }> {
  const { data, info } = await picture.toColourspace('srgb').raw().toBuffer({ resolveWithObject: true });
  const isGrey = info.channels < 3 || isAlmostGrey(data, info.channels);
  const raw = sharp(data, { raw: info });
  return { isGrey, encodable: isGrey ? raw.toColourspace('b-w') : raw };
}

/** Whether a sample of the pixels has no colour to speak of. */
function isAlmostGrey(pixels: Buffer, channels: number): boolean {
  const mostDifference = 24;
  const mostColoured = 0.0005;
  const step = channels * 7;
  let coloured = 0;
  let seen = 0;
  for (let at = 0; at + 2 < pixels.length; at += step) {
    const [red, green, blue] = [pixels[at], pixels[at + 1], pixels[at + 2]];
    if (Math.max(red, green, blue) - Math.min(red, green, blue) > mostDifference) coloured++;
    seen++;
  }
  return coloured <= mostColoured * seen;
}

/** The one tile of a group 4 TIFF (TIFF 6.0) as PDF wants it: without the file around it. */
function ccittTile(tiff: Buffer): Buffer {
  const little = tiff.toString('latin1', 0, 2) === 'II';
  const u16 = (at: number) => (little ? tiff.readUInt16LE(at) : tiff.readUInt16BE(at));
  const u32 = (at: number) => (little ? tiff.readUInt32LE(at) : tiff.readUInt32BE(at));
  const directory = u32(4);
  const fields = new Map<number, number>();
  for (let entry = 0; entry < u16(directory); entry++) {
    const at = directory + 2 + 12 * entry;
    fields.set(u16(at), u32(at + 8));
  }
  const [tileOffset, tileBytes] = [fields.get(324)!, fields.get(325)!];
  return tiff.subarray(tileOffset, tileOffset + tileBytes);
}
