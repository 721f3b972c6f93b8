import { open, readFile, stat } from 'node:fs/promises';
import sharp, { Sharp } from 'sharp';
import { Problem } from '@crow/contract/problems';
import { Orientation } from '@crow/core/geometry';
import { isPaperSize } from '@crow/core/imaging/straighten';
import { pageSize } from '@crow/core/pdf/pageSize';
import { detectFormat, Format, FORMAT_NAMES, HEAD_BYTES, looksLike } from './formats';
import { InvoiceData } from '@crow/core/reading/facts/invoiceData';
import { decodeHeic } from './heic';
import { embeddedInvoice } from './invoiceXml';
import { countPdfPages, drawPdfPage, onlyJpegOnPage, pdfPageSizes, scannedResolutions } from './poppler';
import { tiffResolutions } from './tiffResolutions';

export const MOST_PAGES = 1000;
const MOST_MEGAPIXELS = 200;
/** PDF pages are drawn at this resolution for reading and for looking closely. */
const PDF_DPI = 300;
const LEAST_PDF_DPI = 150;
/** A PDF page larger than any paper is drawn with fewer pixels per inch, so that the picture stays below this. */
const MOST_PDF_PIXELS = 40e6;
const POINTS_PER_INCH = 72;
const LEAST_SCAN_DPI = 90;

/** A page in a file: how large its picture is upright. */
export interface SourcePage {
  /** Upright, in pixels. */
  width: number;
  height: number;
  /** Upright, in points. */
  pointWidth: number;
  pointHeight: number;
  /** Whether it is a flat scan for sure: from a PDF or a TIFF, or with a resolution at which it is as large as a standard paper. */
  scanned: boolean;
}

/** A file with pages, on disk. */
export interface SourceInfo {
  path: string;
  /** The name that the person knows it by. */
  name: string;
  format: Format;
  pages: SourcePage[];
  /** What the electronic invoice inside a PDF says. */
  invoice?: InvoiceData | null;
}

sharp.cache({ memory: 32, files: 0, items: 20 });
sharp.concurrency(1);

/**
 * Finds out what a file is and which pages it has.
 * @throws Problem 'file-empty', 'file-unknown', 'file-broken', 'file-encrypted', 'too-many-pages', 'picture-too-large'
 */
export async function inspectFile(path: string, name: string): Promise<SourceInfo> {
  const head = await readHead(path, name);
  const format = detectFormat(head);
  if (!format) throw new Problem('file-unknown', { name, looksLike: looksLike(head) });
  const pages = await pagesOf(path, name, format);
  return {
    path,
    name,
    format,
    pages,
    ...(format === 'pdf' && { invoice: await embeddedInvoice(path).catch(() => null) }),
  };
}

/** Whether a file is a ZIP archive, whatever is in it. */
export async function isZip(path: string): Promise<boolean> {
  const handle = await open(path);
  try {
    const { buffer } = await handle.read(Buffer.alloc(4), 0, 4, 0);
    return buffer.toString('latin1') === 'PK\x03\x04';
  } finally {
    await handle.close();
  }
}

async function readHead(path: string, name: string): Promise<Buffer> {
  const { size } = await stat(path);
  if (size === 0) throw new Problem('file-empty', { name });
  const handle = await open(path);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}

async function pagesOf(path: string, name: string, format: Format): Promise<SourcePage[]> {
  if (format === 'pdf') return pdfPages(path, name);
  if (format === 'heic') {
    const { width, height } = await decodeHeic(await readFile(path), name, MOST_MEGAPIXELS);
    return [sourcePage(width, height, format, undefined)];
  }
  const first = await pictureMetadata(path, name, format, 0);
  const count = format === 'tiff' ? (first.pages ?? 1) : 1;
  checkCount(name, count);
  const resolutions = format === 'tiff' ? await tiffResolutions(path, count) : [];
  const pages: SourcePage[] = [];
  for (let number = 0; number < count; number++) {
    const { width, height, orientation, density } =
      number === 0 ? first : await pictureMetadata(path, name, format, number);
    const [across, down, dpi] = inSquares(width, height, density, resolutions[number]);
    const sideways = (orientation ?? 1) >= 5;
    pages.push(sideways ? sourcePage(down, across, format, dpi) : sourcePage(across, down, format, dpi));
  }
  return pages;
}

/** Pixels that are so much longer than wide are no squares: those of a fax in standard resolution are 2.08 times as high as wide. */
const OBLONG = 1.15;
/** Nothing that scans has pixels longer than this, and a file may say anything. */
const MOST_OBLONG = 4;

/** The size of a page in square pixels, and how many of these there are to the inch. @param resolution as it is stored, across and down */
function inSquares(
  width: number,
  height: number,
  dpi: number | undefined,
  [across, down]: readonly [number, number] = [1, 1],
): [width: number, height: number, dpi: number | undefined] {
  const ratio = across / down;
  const oblong = Math.max(ratio, 1 / ratio);
  const isTooLarge = width * height * oblong > MOST_MEGAPIXELS * 1e6;
  if (oblong < OBLONG || oblong > MOST_OBLONG || isTooLarge) return [width, height, dpi];
  return ratio > 1 ? [width, Math.round(height * ratio), dpi] : [Math.round(width / ratio), height, dpi && dpi / ratio];
}

function checkCount(name: string, pages: number): void {
  if (pages > MOST_PAGES) throw new Problem('too-many-pages', { name, pages, most: MOST_PAGES });
}

function sourcePage(width: number, height: number, format: Format, dpi: number | undefined): SourcePage {
  const [pointWidth, pointHeight] = pageSize(width, height, dpi);
  const scanned =
    format === 'tiff' || (dpi !== undefined && dpi >= LEAST_SCAN_DPI && isPaperSize(pointWidth, pointHeight));
  return { width, height, pointWidth, pointHeight, scanned };
}

async function pictureMetadata(path: string, name: string, format: Format, page: number) {
  const broken = () => new Problem('file-broken', { name, format: FORMAT_NAMES[format] });
  const metadata = await sharp(path, { page, limitInputPixels: false })
    .metadata()
    .catch(() => {
      throw broken();
    });
  const { width, height } = metadata;
  if (!width || !height) throw broken();
  if (width * height > MOST_MEGAPIXELS * 1e6)
    throw new Problem('picture-too-large', { name, width, height, most: MOST_MEGAPIXELS });
  // JPEG writers that know no resolution say 72.
  return { ...metadata, width, height, density: metadata.density === 72 ? undefined : metadata.density };
}

async function pdfPages(path: string, name: string): Promise<SourcePage[]> {
  const count = await countPdfPages(path, name);
  checkCount(name, count);
  const sizes = await pdfPageSizes(path, 1, count);
  if (sizes.length !== count || sizes.some(({ width, height }) => width <= 0 || height <= 0)) {
    throw new Problem('file-broken', { name, format: 'PDF' });
  }
  const scans = await scannedResolutions(path, sizes);
  return sizes.map(({ width: pointWidth, height: pointHeight }, index) => {
    // A scan has no more to show than its own pixels.
    const own = Math.max(LEAST_PDF_DPI, scans.get(index + 1) ?? PDF_DPI);
    const dpi = Math.min(own, pdfDpi(pointWidth, pointHeight));
    return {
      width: Math.max(1, Math.round((pointWidth * dpi) / POINTS_PER_INCH)),
      height: Math.max(1, Math.round((pointHeight * dpi) / POINTS_PER_INCH)),
      pointWidth,
      pointHeight,
      scanned: true,
    };
  });
}

/** The resolution at which a PDF page of this size (points) is drawn in full. */
function pdfDpi(pointWidth: number, pointHeight: number): number {
  const squareInches = (pointWidth * pointHeight) / POINTS_PER_INCH ** 2;
  return Math.min(PDF_DPI, Math.sqrt(MOST_PDF_PIXELS / squareInches));
}

/**
 * The picture of a page, upright, to be resized and encoded by the caller.
 * @param number from 0
 * @param longSide when given, a picture at least this long (in pixels) is enough
 * @throws Problem 'page-not-drawn', 'file-broken', 'took-too-long'
 */
export async function openPage(
  source: SourceInfo,
  number: number,
  folder: string,
  longSide = Infinity,
): Promise<Sharp> {
  const { path, name, format } = source;
  const { width, height, pointWidth } = source.pages[number];
  if (format === 'pdf') {
    const full = (width / pointWidth) * POINTS_PER_INCH;
    const dpi = Math.min(full, (longSide / Math.max(width, height)) * full);
    const drawn = await drawPdfPage(path, name, number + 1, dpi, folder);
    return sharp(drawn, { limitInputPixels: false });
  }
  if (format === 'heic') {
    const { data, ...raw } = await decodeHeic(await readFile(path), name, MOST_MEGAPIXELS);
    return sharp(data, { raw });
  }
  // A damaged picture is drawn as far as it goes; that it is damaged is told, see `isDamaged`.
  const picture = sharp(path, { page: number, limitInputPixels: MOST_MEGAPIXELS * 1e6, failOn: 'none' }).autoOrient();
  return format === 'tiff' ? stretched(picture, { width, height }, name, number) : picture;
}

/** A page as large as it is in square pixels: whoever goes on with it gives it another size. */
async function stretched(
  picture: Sharp,
  { width, height }: { width: number; height: number },
  name: string,
  number: number,
): Promise<Sharp> {
  try {
    const { autoOrient: stored } = await picture.metadata();
    if (stored.width === width && stored.height === height) return picture;
    const { data, info } = await picture
      .resize({ width, height, fit: 'fill' })
      .raw()
      .toBuffer({ resolveWithObject: true });
    return sharp(data, { raw: info });
  } catch {
    throw new Problem('page-not-drawn', { name, page: number + 1 });
  }
}

/** Decoding to so small a picture reads all of the file, and takes the least time. */
const SMALLEST = 32;
/** Some cameras and scanners leave bytes between a JPEG's picture and its end. */
const HARMLESS = /extraneous bytes before marker/i;

/**
 * Whether the picture of a page ends before its end, or has places that can't be decoded. A page of a PDF is asked of when it is one
 * JPEG, as scanners make them.
 * @param number from 0
 */
export async function isDamaged({ path, format }: SourceInfo, number: number, folder: string): Promise<boolean> {
  if (format === 'heic') return false;
  const jpeg = format === 'pdf' ? await onlyJpegOnPage(path, number + 1, folder) : undefined;
  if (format === 'pdf' && !jpeg) return false;
  const isJpeg = jpeg !== undefined || format === 'jpeg';
  // Of a JPEG every warning counts but one; other formats are warned of for what harms no picture.
  const failOn = isJpeg ? 'warning' : 'error';
  const options = { page: format === 'tiff' ? number : 0, limitInputPixels: false, failOn } as const;
  return sharp(jpeg ?? path, options)
    .resize(SMALLEST, SMALLEST, { fit: 'inside' })
    .raw()
    .toBuffer()
    .then(
      () => false,
      (error: Error) => !HARMLESS.test(error.message),
    );
}

/** How a stored picture must be turned to be upright; PDF and HEIC pages are upright as drawn. */
export async function storedOrientation(source: SourceInfo, number: number): Promise<Orientation> {
  if (source.format === 'pdf' || source.format === 'heic') return 1;
  const { orientation } = await sharp(source.path, { page: number, limitInputPixels: false }).metadata();
  return (orientation ?? 1) as Orientation;
}
