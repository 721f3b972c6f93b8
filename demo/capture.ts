import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp, { Sharp } from 'sharp';
import { noiseSource, seededRandom } from './random';

const run = promisify(execFile);

/** Rasterises the pages of a PDF to greyscale or colour, as raw pixels. */
export async function rasterise(pdf: Uint8Array, pages: number, dpi: number): Promise<Sharp[]> {
  const folder = await mkdtemp(join(tmpdir(), 'crow-demo-'));
  try {
    const path = join(folder, 'paper.pdf');
    await writeFile(path, pdf);
    await run('pdftoppm', ['-r', String(dpi), '-tiff', '-tiffcompression', 'none', path, join(folder, 'page')]);
    const names = Array.from({ length: pages }, (_, index) => `page-${index + 1}.tif`);
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
        .withMetadata({ density: SCAN_DPI })
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

type Point = [x: number, y: number];

/** A paper photographed from above, by hand: on a wooden desk, a little slanted, light falling off to one side. JPEG. */
export async function photographPaper(pdf: Uint8Array, seed: number): Promise<Buffer> {
  const random = seededRandom(seed);
  const [drawn] = await rasterise(pdf, 1, 190);
  const { data: paper, info } = await drawn
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const landscape = info.width > info.height;
  const [width, height] = landscape ? [2000, 1500] : [1500, 2000];
  const scale = Math.min((width * 0.84) / info.width, (height * 0.88) / info.height);
  const [halfWidth, halfHeight] = [(info.width * scale) / 2, (info.height * scale) / 2];
  const jitter = () => (random() - 0.5) * width * 0.03;
  const corners = (
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as Point[]
  ).map(([x, y]): Point => [width / 2 + x * halfWidth + jitter(), height / 2 + y * halfHeight + jitter()]);
  const toPaper = homography(corners, [
    [0, 0],
    [info.width, 0],
    [info.width, info.height],
    [0, info.height],
  ]);
  const out = Buffer.alloc(width * height * 3);
  const noise = noiseSource(random);
  const shade = random() * 0.25 + 0.12;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 3;
      const w = toPaper[6] * x + toPaper[7] * y + 1;
      const u = (toPaper[0] * x + toPaper[1] * y + toPaper[2]) / w;
      const v = (toPaper[3] * x + toPaper[4] * y + toPaper[5]) / w;
      const light = 1.02 - shade * (x / width) - 0.1 * (y / height);
      const inside = u >= 0 && v >= 0 && u < info.width - 1 && v < info.height - 1;
      const grain = 10 * Math.sin(y * 0.045 + 3 * Math.sin(x * 0.0021)) + noise(4);
      for (let channel = 0; channel < 3; channel++) {
        const colour = inside ? bilinear(paper, info.width, u, v, channel) * 0.93 : [112, 82, 58][channel] + grain;
        out[at + channel] = Math.max(0, Math.min(255, colour * light + noise(3)));
      }
    }
  }
  return sharp(out, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 86 })
    .toBuffer();
}

function bilinear(pixels: Buffer, width: number, u: number, v: number, channel: number): number {
  const [x, y] = [Math.floor(u), Math.floor(v)];
  const [fx, fy] = [u - x, v - y];
  const at = (y * width + x) * 3 + channel;
  const below = at + width * 3;
  return (
    (pixels[at] * (1 - fx) + pixels[at + 3] * fx) * (1 - fy) + (pixels[below] * (1 - fx) + pixels[below + 3] * fx) * fy
  );
}

/** The projective map that takes four points to four others, as eight numbers (the ninth is 1), by Gaussian elimination. */
function homography(from: Point[], to: Point[]): number[] {
  const rows = from.flatMap(([x, y], index) => {
    const [u, v] = to[index];
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, v],
    ];
  });
  for (let column = 0; column < 8; column++) {
    const pivot = rows
      .slice(column)
      .reduce(
        (best, row, index) => (Math.abs(row[column]) > Math.abs(rows[best][column]) ? index + column : best),
        column,
      );
    [rows[column], rows[pivot]] = [rows[pivot], rows[column]];
    for (let row = 0; row < 8; row++) {
      if (row === column) continue;
      const factor = rows[row][column] / rows[column][column];
      for (let each = column; each < 9; each++) rows[row][each] -= factor * rows[column][each];
    }
  }
  return rows.map((row, index) => row[8] / row[index]);
}
