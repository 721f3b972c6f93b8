import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp, { Sharp } from 'sharp';
import { Raster } from '@crow/core/imaging/raster';
import { noiseSource, seededRandom } from './random';
import { renderView, View } from './view';

const run = promisify(execFile);

/** Rasterises all pages of a PDF to greyscale or colour, as raw pixels. */
export async function rasterise(pdf: Uint8Array, pages: number, dpi: number): Promise<Sharp[]> {
  const folder = await mkdtemp(join(tmpdir(), 'crow-demo-'));
  try {
    const path = join(folder, 'paper.pdf');
    await writeFile(path, pdf);
    await run('pdftoppm', ['-r', String(dpi), '-tiff', '-tiffcompression', 'none', path, join(folder, 'page')]);
    const digits = String(pages).length;
    const names = Array.from({ length: pages }, (_, index) => `page-${String(index + 1).padStart(digits, '0')}.tif`);
    return await Promise.all(names.map(async (name) => sharp(await readFile(join(folder, name)))));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

export const SCAN_DPI = 200;

/** The pages of a paper as a feeder scans them: grey, a little crooked, a little noise. JPEG, with its resolution. */
export async function scanPaper(pdf: Uint8Array, pages: number, seed: number): Promise<Buffer[]> {
  const random = seededRandom(seed);
  const drawn = await rasterise(pdf, pages, SCAN_DPI);
  return Promise.all(
    drawn.map(async (page) => {
      const { width, height } = await page.metadata();
      const angle = (random() - 0.5) * 1.6;
      const turned = await page
        .greyscale()
        .rotate(angle, { background: '#f6f6f6' })
        .toBuffer()
        .then((bytes) =>
          sharp(bytes).resize({ width, height, fit: 'cover' }).blur(0.5).raw().toBuffer({ resolveWithObject: true }),
        );
      addNoise(turned.data, noiseSource(random));
      return sharp(turned.data, { raw: turned.info })
        .toColourspace('b-w')
        .jpeg({ quality: 82 })
        .withDensity(SCAN_DPI)
        .toBuffer();
    }),
  );
}

function addNoise(pixels: Buffer, noise: (strength: number) => number): void {
  for (let at = 0; at < pixels.length; at++) {
    const value = pixels[at] * 0.965 + noise(7) + 4;
    pixels[at] = value < 0 ? 0 : value > 255 ? 255 : value;
  }
}

const PHOTO_DPI = 190;
const MM_PER_INCH = 25.4;

/** A paper photographed from above, by hand: on a desk, a little slanted, light falling off to one side. JPEG. */
export async function photographPaper(pdf: Uint8Array, seed: number): Promise<Buffer> {
  const [drawn] = await rasterise(pdf, 1, PHOTO_DPI);
  const picture = await rgbRaster(drawn);
  const [width, height] = [picture.width, picture.height].map((side) => (side / PHOTO_DPI) * MM_PER_INCH);
  const random = seededRandom(seed);
  const between = (low: number, high: number) => low + (high - low) * random();
  const landscape = width > height;
  const view: View = {
    width: landscape ? 2000 : 1500,
    height: landscape ? 1500 : 2000,
    seed,
    table: seed % 3 === 0 ? 'cloth' : seed % 3 === 1 ? 'wood' : 'darkWood',
    sheets: [{ picture, width, height, at: [between(-4, 4), between(-4, 4)], angle: between(-0.05, 0.05) }],
    things: [],
    camera: {
      shows: Math.max(width, height) * between(1.1, 1.2),
      lean: between(0.05, 0.25),
      leanTo: between(-3.1, 3.1),
      roll: between(-0.03, 0.03),
      focal: 0.85,
    },
    light: { level: between(0.86, 1), falloff: between(0.1, 0.35), from: between(0, 6.28), warmth: between(0, 0.5) },
    shadows: [],
    blur: 0.4,
    noise: 3,
  };
  return encodePhoto(renderView(view));
}

export function encodePhoto({ width, height, channels, data }: Raster): Promise<Buffer> {
  return sharp(data, { raw: { width, height, channels } }).jpeg({ quality: 88 }).toBuffer();
}

export async function rgbRaster(picture: Sharp): Promise<Raster> {
  const { data, info } = await picture.removeAlpha().toColourspace('srgb').raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, channels: 3, data };
}
