import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { prepareZXingModule, readBarcodes, type ReaderOptions } from 'zxing-wasm/reader';
import { around, Box } from '@crow/core/geometry';
import { bytesOf, greyOf, Raster } from '@crow/core/imaging/raster';
import { PageCode } from '@crow/core/reading/words';
import { Divider, readDividerCode } from '@crow/core/sorting/divider';

const MOST_CODES = 8;
const DARK = 140;
const LEAST_DARK = 0.045;

let prepared: Promise<unknown> | undefined;

/** The decoder is WebAssembly from its package on disk; left alone, it would fetch it from the net. */
function prepare(): Promise<unknown> {
  const require = createRequire(import.meta.url);
  const wasmBinary = readFileSync(require.resolve('zxing-wasm/reader/zxing_reader.wasm'));
  return (prepared ??= Promise.resolve(
    prepareZXingModule({ overrides: { wasmBinary: wasmBinary.buffer as ArrayBuffer }, fireImmediately: true }),
  ));
}

/** What the divider sheet in a picture says, if it is one: its square code (QR, ISO/IEC 18004) may lie in any direction. */
export async function readDivider(picture: Raster): Promise<Divider | null> {
  if (!isDarkEnough(picture)) return null;
  for (const { text } of await readCodes(picture, ['QRCode'])) {
    const divider = readDividerCode(text);
    if (divider) return divider;
  }
  return null;
}

/** Whether so much of a page is dark as the codes on a divider sheet alone make it: looking for them takes longer. */
function isDarkEnough(picture: Raster): boolean {
  const { data } = greyOf(picture);
  let dark = 0;
  for (let at = 0; at < data.length; at++) if (data[at] < DARK) dark++;
  return dark >= LEAST_DARK * data.length;
}

/** What stands on bills, tickets and parcels: square codes, and bars for articles and for shipping. */
const ON_PAPERS: ReaderOptions['formats'] = [
  'QRCode',
  'DataMatrix',
  'Aztec',
  'PDF417',
  'Code128',
  'ITF',
  'EAN13',
  'EAN8',
];
/** Bars that look like print by chance say less than this. */
const SHORTEST = 5;

/** The square and bar codes in a picture, with what they say. */
export async function readCodes(picture: Raster, formats = ON_PAPERS): Promise<PageCode[]> {
  await prepare();
  const grey = greyOf(picture);
  // As a file of grey pixels (PGM), which it takes as they are; of a picture in colours the package makes grey ones itself, slowly.
  const head = `P5\n${grey.width} ${grey.height}\n255\n`;
  const found = await readBarcodes(new Uint8Array(Buffer.concat([Buffer.from(head), bytesOf(grey)])), {
    formats,
    tryHarder: false,
    tryInvert: false,
    tryDownscale: false,
    tryDenoise: false,
    maxNumberOfSymbols: MOST_CODES,
  });
  return found
    .filter(({ isValid, text }) => isValid && text.length >= SHORTEST)
    .map(({ text, position: { topLeft, topRight, bottomLeft, bottomRight } }) => {
      const corners = [topLeft, topRight, bottomLeft, bottomRight];
      return { text, box: around(corners.map(({ x, y }): Box => [x, y, 0, 0])) };
    });
}
