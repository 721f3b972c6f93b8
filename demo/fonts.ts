import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import * as fontkit from 'fontkit';
import { PDFDocument, PDFFont } from '@cantoo/pdf-lib';
import { unpackWoff } from '@crow/core/pdf/woff';

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
