import sharp from 'sharp';
import { Problem } from '@crow/contract/problems';
import { Turn } from '@crow/core/geometry';
import { makePage, pageSizeOf, Recipe } from '@crow/core/imaging/recipe';
import { greyOf, greyWhereGrey, quarterTurned, Raster } from '@crow/core/imaging/raster';
import { LOOKED_AT as KIND_LOOKED_AT } from '@crow/core/sorting/blank';
import { rasterOf } from './rasters';
import { openPage, SourceInfo } from './sourceFile';

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
export async function madePage(source: SourceInfo, number: number, recipe: Recipe, longSide: number, folder: string) {
  const { width, height, channels, data } = await madeRaster(source, number, recipe, longSide, folder);
  return { data: Buffer.from(data.buffer, data.byteOffset, data.byteLength), info: { width, height, channels } };
}

export async function madeRaster(
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
  try {
    return greyWhereGrey(
      await rasterOf(opened.resize({ width: LOOKED_AT, height: LOOKED_AT, fit: 'inside', withoutEnlargement: true })),
    );
  } catch {
    throw new Problem('page-not-drawn', { name: source.name, page: number + 1 });
  }
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
