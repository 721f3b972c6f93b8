import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { crc32, deflateSync } from 'node:zlib';
import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { DrawSheet, drawPdf } from '@crow/demo/sheet';

/** Files made for tests: small, and different in just the way that a test is about. */

export function scratchFolder(): string {
  return mkdtempSync(join(tmpdir(), 'crow-test-'));
}

/** A PDF with one page of text for each text, a line for each line of it. */
export function textPdf(...pages: string[]): Promise<Uint8Array> {
  return drawPdf(
    pages.map((text): DrawSheet => (sheet) => {
      for (const line of text.split('\n')) sheet.line(line, { size: 14 });
    }),
  );
}

/** The pages of a PDF drawn as pictures. */
export function drawn(pdf: Uint8Array, { dpi = 150, page = 1 } = {}): Promise<Buffer> {
  const folder = scratchFolder();
  writeFileSync(join(folder, 'in.pdf'), pdf);
  execFileSync('pdftoppm', [
    '-r',
    `${dpi}`,
    '-f',
    `${page}`,
    '-l',
    `${page}`,
    '-cropbox',
    '-png',
    '-singlefile',
    join(folder, 'in.pdf'),
    join(folder, 'out'),
  ]);
  return sharp(readFileSync(join(folder, 'out.png')))
    .withDensity(dpi)
    .png()
    .toBuffer();
}

/** A page of text as a scanner delivers it: a grey JPEG at 150 dpi. */
export async function scanned(text: string, { dpi = 150 } = {}): Promise<Buffer> {
  return sharp(await drawn(await textPdf(text), { dpi }))
    .greyscale()
    .withDensity(dpi)
    .jpeg({ quality: 85 })
    .toBuffer();
}

/** A picture in black and white only, as a fax or a scanner set so delivers it: TIFF, group 4. */
export async function blackAndWhite(picture: Buffer, dpi: number): Promise<Buffer> {
  const { data, info } = await sharp(picture)
    .greyscale()
    .threshold()
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return sharp(data, { raw: info })
    .toColourspace('b-w')
    .tiff({ bitdepth: 1, compression: 'ccittfax4', xres: dpi / 25.4, yres: dpi / 25.4 })
    .toBuffer();
}

/** A scanned PDF: pictures of pages, no text. */
export async function scannedPdf(...texts: string[]): Promise<Buffer> {
  const pdf = await PDFDocument.create();
  for (const text of texts) {
    const picture = await pdf.embedJpg(await scanned(text));
    pdf.addPage([595, 842]).drawImage(picture, { x: 0, y: 0, width: 595, height: 842 });
  }
  return Buffer.from(await pdf.save());
}

export async function multiPageTiff(...texts: string[]): Promise<Buffer> {
  const pages = await Promise.all(
    texts.map(async (text) =>
      sharp(await scanned(text))
        .toColourspace('b-w')
        .raw()
        .toBuffer({ resolveWithObject: true }),
    ),
  );
  const { width, height } = pages[0].info;
  // A tall picture whose page height is told is written as so many pages.
  return sharp(Buffer.concat(pages.map(({ data }) => data)), {
    raw: { width, height: height * pages.length, channels: 1, pageHeight: height },
  })
    .tiff({ compression: 'lzw' })
    .toBuffer();
}

export async function lockedPdf(): Promise<Buffer> {
  const folder = scratchFolder();
  writeFileSync(join(folder, 'open.pdf'), await textPdf('secret'));
  execFileSync('qpdf', [
    '--encrypt',
    'word',
    'owner',
    '256',
    '--',
    join(folder, 'open.pdf'),
    join(folder, 'locked.pdf'),
  ]);
  return readFileSync(join(folder, 'locked.pdf'));
}

export async function longPdf(pages: number): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  for (let page = 0; page < pages; page++) pdf.addPage([200, 200]);
  return pdf.save();
}

/** A black and white PNG of any size, hardly any bytes long. */
export function hugePng(width: number, height: number): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const frame = Buffer.alloc(8);
    frame.writeUInt32BE(data.length, 0);
    frame.writeUInt32BE(crc32(body), 4);
    return Buffer.concat([frame.subarray(0, 4), body, frame.subarray(4)]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header[8] = 1;
  const rows = Buffer.alloc((Math.ceil(width / 8) + 1) * height);
  return Buffer.concat([
    Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(rows, { level: 1 })),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

export const ZIP = Buffer.from('504b0304140000000800' + '00'.repeat(40), 'hex');
