import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { MarkFonts } from '@crow/core/pdf/marks/markPdf';
import { unpackWoff } from '@crow/core/pdf/woff';

const FAMILY = 'atkinson-hyperlegible-next';
let fonts: Promise<MarkFonts> | undefined;

/** The letters that marks are written in, which ship with the program; unpacked once. */
export function markFonts(): Promise<MarkFonts> {
  fonts ??= unpack();
  return fonts;
}

async function unpack(): Promise<MarkFonts> {
  const require = createRequire(join(process.cwd(), 'package.json'));
  const folder = join(dirname(require.resolve(`@fontsource/${FAMILY}/package.json`)), 'files');
  const face = async (weight: number) =>
    unpackWoff(await readFile(join(folder, `${FAMILY}-latin-${weight}-normal.woff`)));
  return { plain: await face(400), bold: await face(700) };
}
