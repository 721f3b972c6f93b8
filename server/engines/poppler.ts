import { existsSync } from 'node:fs';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Problem } from '@crow/contract/problems';
import { parseBboxLayout } from '@crow/core/reading/bboxLayout';
import { PageText } from '@crow/core/reading/words';
import { ChildLimits, runChild } from './child';

const LIMITS: ChildLimits = { seconds: 60, megabytes: 3000 };

export interface PdfPageSize {
  /** As shown, in points. */
  width: number;
  height: number;
}

/**
 * The number of pages of a PDF.
 * @throws Problem 'file-encrypted', 'file-broken'
 */
export async function countPdfPages(path: string, name: string): Promise<number> {
  const { code, output, errors } = await runChild('pdfinfo', [path], { limits: LIMITS, what: `Opening “${name}”` });
  if (/Incorrect password/i.test(errors)) throw new Problem('file-encrypted', { name });
  const pages = /^Pages:\s+(\d+)/m.exec(output.toString());
  if (code !== 0 || !pages || Number(pages[1]) === 0) throw new Problem('file-broken', { name, format: 'PDF' });
  return Number(pages[1]);
}

/** The sizes of pages `first` to `last` (from 1) as they are shown. */
export async function pdfPageSizes(path: string, first: number, last: number): Promise<PdfPageSize[]> {
  const { output } = await runChild('pdfinfo', ['-f', `${first}`, '-l', `${last}`, path], {
    limits: LIMITS,
    what: 'Measuring the pages',
  });
  const text = output.toString();
  const rotations = [...text.matchAll(/^Page\s+\d+ rot:\s+(\d+)/gm)].map((found) => Number(found[1]));
  return [...text.matchAll(/^Page\s+\d+ size:\s+([\d.]+) x ([\d.]+) pts/gm)].map((found, index) => {
    const [width, height] = [Number(found[1]), Number(found[2])];
    return (rotations[index] ?? 0) % 180 === 0 ? { width, height } : { width: height, height: width };
  });
}

/**
 * The resolution of pages that are one picture from edge to edge, as scanners make them, by page number from 1; other pages are
 * left out.
 * @param sizes of the pages from `first` on
 */
export async function scannedResolutions(
  path: string,
  sizes: readonly PdfPageSize[],
  { first = 1 }: { first?: number } = {},
): Promise<Map<number, number>> {
  const last = first + sizes.length - 1;
  const { code, output } = await runChild('pdfimages', ['-list', '-f', `${first}`, '-l', `${last}`, path], {
    limits: LIMITS,
    what: 'Looking at the pictures',
  });
  const found = new Map<number, number>();
  if (code !== 0) return found;
  const pictures = new Map<number, { width: number; height: number; dpi: number }[]>();
  for (const line of output.toString().split('\n').slice(2)) {
    const [page, , kind, width, height, , , , , , , , dpi] = line.trim().split(/\s+/);
    if (kind !== 'image' && kind !== 'stencil' && kind !== 'mask' && kind !== 'smask') continue;
    const number = Number(page);
    const others = pictures.get(number) ?? [];
    pictures.set(number, [...others, { width: Number(width), height: Number(height), dpi: Number(dpi) }]);
  }
  for (const [number, all] of pictures) {
    const size = sizes[number - first];
    if (all.length !== 1 || !size) continue;
    const [{ width, height, dpi }] = all;
    // Turned pages have their sides the other way round.
    const sides = (across: number, down: number) =>
      Math.abs(across / dpi - size.width / 72) < EDGE_INCHES && Math.abs(down / dpi - size.height / 72) < EDGE_INCHES;
    if (sides(width, height) || sides(height, width)) found.set(number, dpi);
  }
  return found;
}

/** The first picture on a page (from 1), as a file in a folder; undefined where there is none that can be taken out. */
export async function pictureOnPage(path: string, page: number, folder: string): Promise<string | undefined> {
  const { code } = await runChild(
    'pdfimages',
    ['-png', '-f', `${page}`, '-l', `${page}`, path, join(folder, `on-${page}`)],
    {
      limits: LIMITS,
      what: 'Taking a picture out of the page',
    },
  );
  const made = join(folder, `on-${page}-000.png`);
  return code === 0 && existsSync(made) ? made : undefined;
}

/** The only picture on a page (from 1), to the byte as it is in the PDF, if there is one and it is a JPEG; as a file in a folder. */
export async function onlyJpegOnPage(path: string, page: number, folder: string): Promise<string | undefined> {
  const begins = `jpeg-${page}-`;
  const { code } = await runChild(
    'pdfimages',
    ['-all', '-f', `${page}`, '-l', `${page}`, path, join(folder, begins.slice(0, -1))],
    { limits: LIMITS, what: 'Taking a picture out of the page' },
  );
  if (code !== 0) return undefined;
  const [only, ...more] = (await readdir(folder)).filter((name) => name.startsWith(begins));
  return only?.endsWith('.jpg') && more.length === 0 ? join(folder, only) : undefined;
}

/** A scan may miss the page's edge by so much, in inches. */
const EDGE_INCHES = 0.2;

/**
 * Draws a page as an uncompressed TIFF: compressing a noisy page would take ten times as long as drawing it.
 * @param page from 1
 * @param dpi pixels per inch
 * @throws Problem 'page-not-drawn'
 */
export async function drawPdfPage(
  path: string,
  name: string,
  page: number,
  dpi: number,
  folder: string,
): Promise<Buffer> {
  const out = join(folder, `drawn-${page}-${Math.round(dpi)}`);
  const args = [
    '-f',
    `${page}`,
    '-l',
    `${page}`,
    '-r',
    dpi.toFixed(2),
    '-cropbox',
    '-tiff',
    '-tiffcompression',
    'none',
    '-singlefile',
    path,
    out,
  ];
  const what = `Drawing page ${page} of “${name}”`;
  const { code } = await runChild('pdftoppm', args, { limits: LIMITS, what });
  try {
    if (code !== 0) throw new Error(`pdftoppm ended with ${code}`);
    return await readFile(`${out}.tif`);
  } catch {
    throw new Problem('page-not-drawn', { name, page });
  }
}

/** The text that pages `first` to `last` (from 1) bring along; boxes in points as shown. Broken pages have none. */
export async function pdfText(path: string, first: number, last: number): Promise<PageText[]> {
  const { code, output } = await runChild(
    'pdftotext',
    ['-f', `${first}`, '-l', `${last}`, '-cropbox', '-bbox-layout', path, '-'],
    { limits: LIMITS, what: 'Taking the text out' },
  );
  return code === 0 ? parseBboxLayout(output.toString()) : [];
}
