import { readFile } from 'node:fs/promises';
import sharp, { Sharp } from 'sharp';
import { Orientation, Turn, turnOrientation } from '@crow/core/geometry';
import { Layers, separateLayers, Stencil } from '@crow/core/imaging/layers';
import { bytesOf, greyOf, Raster } from '@crow/core/imaging/raster';
import { Recipe } from '@crow/core/imaging/recipe';
import { EncodedPicture, EncodedStencil } from '@crow/core/pdf/bindPdf';
import { encodeJbig2 } from '@crow/core/pdf/jbig2';
import { madePage } from './pictures';
import { rasterOf, sharpOf } from './rasters';
import { isDamaged, openPage, SourceInfo, storedOrientation } from './sourceFile';

/**
 * How a page's picture goes into the PDF: as it was captured; with fewer pixels and stronger compression; or taken apart into sharp
 * ink and a coarse background.
 */
export type BindingSize = 'full' | 'balanced' | 'small';
export const BINDING_SIZES: BindingSize[] = ['full', 'balanced', 'small'];

const BALANCED = { dpi: 200, quality: 72 };
const FULL_QUALITY = 90;

/**
 * A page's picture in the form in which a PDF holds it. Black and white becomes CCITT group 4, which loses nothing; a JPEG in
 * full size stays as it is to the byte; everything else is encoded as JPEG, or, small, as layers.
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
    return encode(made, info.width, recipe.paper[0], turn, size);
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
  // One that is damaged is encoded anew as far as it goes: not every reader of PDFs would show it.
  if (size === 'full' && plainJpeg && !(await isDamaged(source, number, folder))) {
    const bytes = await readFile(source.path);
    const channels = metadata.channels === 1 ? 1 : 3;
    const { width, height } = metadata;
    return { format: 'jpeg', bytes, width, height, shown: [width, height], channels, orientation };
  }
  const { width, pointWidth } = source.pages[number];
  return encode(await openPage(source, number, folder), width, pointWidth, turn, size);
}

async function encode(
  opened: Sharp,
  width: number,
  pointWidth: number,
  turn: Turn,
  size: BindingSize,
): Promise<EncodedPicture> {
  const picture = opened.flatten({ background: '#ffffff' });
  const orientation = turnOrientation(1, turn);
  if (size === 'small') return encodeLayers(picture, width / (pointWidth / 72), orientation);
  const most = size === 'full' ? Infinity : Math.round((pointWidth / 72) * BALANCED.dpi);
  const { isGrey, pixels } = await greyOrColour(most < width ? picture.resize({ width: most }) : picture);
  return encodeJpeg(isGrey ? pixels.toColourspace('b-w') : pixels, isGrey, orientation, {
    quality: size === 'full' ? FULL_QUALITY : BALANCED.quality,
    mozjpeg: size !== 'full',
  });
}

async function encodeJpeg(
  picture: Sharp,
  isGrey: boolean,
  orientation: Orientation,
  options: { quality: number; mozjpeg: boolean },
): Promise<EncodedPicture> {
  const { data: bytes, info } = await picture.jpeg(options).toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  return { format: 'jpeg', bytes, width, height, shown: [width, height], channels: isGrey ? 1 : 3, orientation };
}

/**
 * The resolution at which ink is cut out, in dots an inch. What was captured coarser keeps the shapes of its letters only when it is
 * enlarged before; where that takes more than its share, less is saved. Finer tells no more words.
 */
const INK = 350;
/** A small page should not have more than this share of what it has as a JPEG of quality 75. */
const SMALL_SHARE = 0.1;
/** But so many bytes it may have in any case: there is little to be saved on a receipt, and its letters are small. */
const SMALL_ENOUGH = 6500;
/** The background’s resolutions and qualities, the best first. */
const BACKGROUNDS = [
  { dpi: 100, quality: 55 },
  { dpi: 100, quality: 40 },
  { dpi: 75, quality: 36 },
  { dpi: 60, quality: 30 },
  { dpi: 50, quality: 25 },
];

/** A page as layers: ink as stencils over a coarse JPEG, the best that stays within its share of a plain JPEG. */
async function encodeLayers(picture: Sharp, dpi: number, orientation: Orientation): Promise<EncodedPicture> {
  const { isGrey, pixels } = await greyOrColour(picture);
  const plain = await rasterOf(isGrey ? pixels.toColourspace('b-w') : pixels);
  const page = isGrey ? greyOf(plain) : plain;
  if (isGrey && isAllBlackOrWhite(page)) return encodeExactly(page, orientation);
  const plainBytes = (await sharpOf(page).jpeg({ quality: 75 }).toBuffer()).length;
  const most = Math.max(SMALL_ENOUGH, SMALL_SHARE * plainBytes);
  const { layers, stencils } = await cutInk(page, Math.max(1, INK / dpi), Math.max(dpi, INK));
  const { width, height, background, cell } = layers;
  let under: EncodedPicture;
  let coarseness = 0;
  do {
    const { dpi: coarse, quality } = BACKGROUNDS[coarseness++];
    const across = Math.max(1, Math.round((background.width * coarse) / BACKGROUNDS[0].dpi));
    const sized = across === background.width ? sharpOf(background) : sharpOf(background).resize({ width: across });
    under = await encodeJpeg(sized, isGrey, orientation, { quality, mozjpeg: true });
  } while (coarseness < BACKGROUNDS.length && under.bytes.length + sizeOf(stencils) > most);
  // The last cells reach over the edge of the page.
  const shown: [number, number] = [
    (under.width * width) / (background.width * cell),
    (under.height * height) / (background.height * cell),
  ];
  return { ...under, shown, stencils };
}

/** Whether no pixel is grey: one note in pencil, however small, would be lost otherwise. @param page grey */
const isAllBlackOrWhite = (page: Raster) => bytesOf(page).every((value) => value <= NEARLY || value >= 255 - NEARLY);
const NEARLY = 3;

/** What is black and white already, as it is: ink over white paper. @param page grey */
async function encodeExactly(page: Raster, orientation: Orientation): Promise<EncodedPicture> {
  const { width, height } = page;
  const grey = bytesOf(page);
  const mask: Raster = { width, height, channels: 1, data: grey.map((value) => (value < 128 ? 0 : 255)) };
  const [across, down] = [width, height].map((side) => Math.ceil(side / WHITE_CELL));
  const paper: Raster = { width: across, height: down, channels: 1, data: new Uint8Array(across * down).fill(255) };
  const under = await encodeJpeg(sharpOf(paper), true, orientation, { quality: BACKGROUNDS[0].quality, mozjpeg: true });
  const stencil = encodeStencil({ mask, colour: [0, 0, 0], left: 0, top: 0 }, page);
  return { ...under, shown: [width / WHITE_CELL, height / WHITE_CELL], stencils: [stencil] };
}
const WHITE_CELL = 16;

interface Cut {
  layers: Layers;
  stencils: EncodedStencil[];
}

/** Cuts the ink out of a page, `scale` times as large as it is, and encodes it. @param dpi the resolution that it has then */
async function cutInk(page: Raster, scale: number, dpi: number): Promise<Cut> {
  const width = Math.round(page.width * scale);
  const sized =
    width === page.width
      ? page
      : await rasterOf(sharpOf(page).resize({ width, kernel: scale > 1 ? 'cubic' : 'lanczos3' }));
  const layers = separateLayers(
    page.channels === 1 ? greyOf(sized) : sized,
    Math.max(1, Math.round(dpi / BACKGROUNDS[0].dpi)),
  );
  return { layers, stencils: layers.stencils.map((stencil) => encodeStencil(stencil, layers)) };
}

function encodeStencil({ mask, colour, left, top }: Stencil, page: Pick<Layers, 'width' | 'height'>): EncodedStencil {
  const { width, height } = mask;
  return {
    bytes: encodeJbig2(mask),
    width,
    height,
    colour,
    place: [left / page.width, top / page.height, width / page.width, height / page.height],
  };
}

const sizeOf = (stencils: EncodedStencil[]) => stencils.reduce((sum, { bytes }) => sum + bytes.length, 0);

async function encodeBilevel(picture: Sharp, orientation: Orientation): Promise<EncodedPicture> {
  return { format: 'ccitt', ...(await encodeGroup4(picture)), channels: 1, orientation };
}

/** Group 4 through a TIFF of one tile (strips would each need a picture of their own); tiles are multiples of 16 pixels. */
async function encodeGroup4(picture: Sharp): Promise<Pick<EncodedPicture, 'bytes' | 'width' | 'height' | 'shown'>> {
  const { data: pixels, info } = await picture.toColourspace('b-w').raw().toBuffer({ resolveWithObject: true });
  const [width, height] = [tileSize(info.width), tileSize(info.height)];
  const tiff = await sharp(pixels, { raw: info })
    .extend({ right: width - info.width, bottom: height - info.height, background: '#ffffff' })
    .toColourspace('b-w')
    .tiff({ compression: 'ccittfax4', bitdepth: 1, miniswhite: true, tile: true, tileWidth: width, tileHeight: height })
    .toBuffer();
  return { bytes: ccittTile(tiff), width, height, shown: [info.width, info.height] };
}

function tileSize(length: number): number {
  return Math.ceil(length / 16) * 16;
}

async function greyOrColour(picture: Sharp): Promise<{ isGrey: boolean; pixels: Sharp }> {
  const { data, info } = await picture.toColourspace('srgb').raw().toBuffer({ resolveWithObject: true });
  const isGrey = info.channels < 3 || isAlmostGrey(data, info.channels);
  return { isGrey, pixels: sharp(data, { raw: info }) };
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
