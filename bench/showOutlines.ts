import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { findOutlines } from '@crow/core/imaging/outline/findOutlines';
import { Quad } from '@crow/core/imaging/quad';
import { rgbRaster } from '@crow/demo/capture';

/** Draws what was found (red) and what is true (green): node scripts/bench.mjs showOutlines FOLDER OUT.png NAME… */
const [folder, out, ...names] = process.argv.slice(2);
const truths = readdirSync(folder)
  .filter((name) => name.startsWith('truth'))
  .flatMap((name) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as { file: string; outlines: Quad[] }[]);
const SIDE = 380;
const tiles = await Promise.all(
  names.map(async (name) => {
    const file = join(folder, `${name}.jpg`);
    const picture = await rgbRaster(sharp(file));
    const { width, height } = picture;
    const draw = (quad: Quad, colour: string) =>
      `<polygon points="${quad.map((point) => point.join(',')).join(' ')}" fill="none" stroke="${colour}" stroke-width="7"/>`;
    const found = findOutlines(picture).map(({ corners }, index) => draw(corners, index ? 'orange' : 'red'));
    const truth = truths.find((each) => each.file === file)?.outlines.map((quad) => draw(quad, 'lime')) ?? [];
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${truth.join('')}${found.join('')}</svg>`;
    const drawn = await sharp(file)
      .composite([{ input: Buffer.from(svg) }])
      .png()
      .toBuffer();
    return sharp(drawn).resize(SIDE, SIDE, { fit: 'contain', background: '#888' }).toBuffer();
  }),
);
const columns = Math.min(4, tiles.length);
await sharp({
  create: { width: SIDE * columns, height: SIDE * Math.ceil(tiles.length / columns), channels: 3, background: '#888' },
})
  .composite(
    tiles.map((input, index) => ({ input, left: (index % columns) * SIDE, top: Math.floor(index / columns) * SIDE })),
  )
  .png()
  .toFile(out);
