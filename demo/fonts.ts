import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { inflateSync } from 'node:zlib';
import * as fontkit from 'fontkit';
import { PDFDocument, PDFFont } from '@cantoo/pdf-lib';

const FACES = {
  plain: 'source-sans-3/files/source-sans-3-latin-400-normal.woff',
  bold: 'source-sans-3/files/source-sans-3-latin-700-normal.woff',
  book: 'libre-baskerville/files/libre-baskerville-latin-400-normal.woff',
  bookBold: 'libre-baskerville/files/libre-baskerville-latin-700-normal.woff',
  typed: 'courier-prime/files/courier-prime-latin-400-normal.woff',
  typedBold: 'courier-prime/files/courier-prime-latin-700-normal.woff',
  hand: 'caveat/files/caveat-latin-400-normal.woff',
};
export type Face = keyof typeof FACES;
export type Fonts = Record<Face, PDFFont>;

/** Embeds the fonts that the demo papers are set in; they ship with the project, so the papers look alike everywhere. */
export async function embedFonts(pdf: PDFDocument): Promise<Fonts> {
  pdf.registerFontkit(fontkit as never);
  const fonts = {} as Fonts;
  for (const [face, file] of Object.entries(FACES) as [Face, string][]) {
    fonts[face] = await pdf.embedFont(unpackWoff(readFileSync(fontFile(file))), {
      subset: true,
      customName: `Demo-${face}`,
    });
  }
  return fonts;
}

function fontFile(file: string): string {
  const [family] = file.split('/');
  const require = createRequire(join(process.cwd(), 'package.json'));
  return join(require.resolve(`@fontsource/${family}/package.json`), '../..', file);
}

/** The TrueType font inside a WOFF file (W3C Recommendation, 2012): its tables inflated, one after the other. */
export function unpackWoff(woff: Buffer): Uint8Array {
  const tables = woff.readUInt16BE(12);
  const header = Buffer.alloc(12 + 16 * tables);
  woff.copy(header, 0, 4, 8);
  const power = Math.floor(Math.log2(tables));
  header.writeUInt16BE(tables, 4);
  header.writeUInt16BE(16 << power, 6);
  header.writeUInt16BE(power, 8);
  header.writeUInt16BE(16 * (tables - (1 << power)), 10);
  const bodies: Buffer[] = [];
  let offset = header.length;
  for (let table = 0; table < tables; table++) {
    const entry = 44 + 20 * table;
    const [from, packed, full, checksum] = [4, 8, 12, 16].map((at) => woff.readUInt32BE(entry + at));
    const bytes = woff.subarray(from, from + packed);
    const body = packed < full ? inflateSync(bytes) : bytes;
    woff.copy(header, 12 + 16 * table, entry, entry + 4);
    [checksum, offset, full].forEach((value, index) => header.writeUInt32BE(value, 12 + 16 * table + 4 + 4 * index));
    const padded = Buffer.alloc(Math.ceil(full / 4) * 4);
    body.copy(padded);
    bodies.push(padded);
    offset += padded.length;
  }
  return Buffer.concat([header, ...bodies]);
}
