import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { rasterise } from '@crow/demo/capture';
import { Chance } from './piles/chance';
import { feederScan } from './piles/scan';
import { makeReadingPaper } from './reading/paper';

/**
 * Makes scans of papers of which some lines are printed in grey, or through which another page shines, for bench/reading.ts:
 * node scripts/bench.mjs makeFaint FOLDER grey|through FIRST COUNT
 * Grey are the lines in every other band of the page, each of them whole, from a third to a half as dark as the rest.
 */
const [folder, how, first, count] = process.argv.slice(2);
const BAND = 110;
/** Rows of pixels with hardly anything dark are between lines of print. */
const [DARK, HARDLY] = [200, 3];
mkdirSync(folder, { recursive: true });
for (let seed = Number(first); seed < Number(first) + Number(count); seed++) {
  const chance = new Chance(seed * 31);
  const paper = await makeReadingPaper(seed, 'untuned', ['en', 'de', 'fr']);
  const { data, info } = await pixelsOf(paper.pdf);
  if (how === 'grey') {
    const dark = 0.32 + 0.18 * chance.random();
    for (const [top, bottom] of bandsOf(data, info.width).filter((_, at) => at % 2 === 0))
      for (let at = top * info.width; at < bottom * info.width; at++) data[at] = 255 - dark * (255 - data[at]);
  } else {
    const back = await pixelsOf((await makeReadingPaper(seed + 500, 'untuned', ['en', 'de', 'fr'])).pdf);
    const pale = 0.12 + 0.16 * chance.random();
    const soft = await sharp(back.data, { raw: back.info })
      .flop()
      .resize(info.width, info.height, { fit: 'fill' })
      .blur(1.5 + chance.random())
      .toColourspace('b-w')
      .raw()
      .toBuffer();
    for (let at = 0; at < data.length; at++) data[at] = Math.max(0, data[at] - pale * (255 - soft[at]));
  }
  const { picture } = await feederScan(sharp(await sharp(data, { raw: info }).png().toBuffer()), chance, false);
  await sharp(picture)
    .jpeg({ quality: 85 })
    .withDensity(200)
    .toFile(join(folder, `${seed}.jpg`));
  writeFileSync(join(folder, `${seed}.json`), JSON.stringify({ ...paper, pdf: undefined }));
}

/** Bands of a page about as high as `BAND`, which begin and end between lines of print. */
function bandsOf(data: Uint8Array, width: number): [top: number, bottom: number][] {
  const bands: [number, number][] = [];
  const height = data.length / width;
  let top = 0;
  for (let y = 0; y < height; y++) {
    const isBetween = data.subarray(y * width, (y + 1) * width).filter((value) => value < DARK).length <= HARDLY;
    if (y + 1 < height && (y - top < BAND || !isBetween)) continue;
    bands.push([top, y]);
    top = y;
  }
  return bands;
}

/** The first page of a PDF in grey, one byte a pixel. */
async function pixelsOf(pdf: Uint8Array) {
  const [page] = await rasterise(pdf, 1, 200);
  return page
    .flatten({ background: '#fff' })
    .greyscale()
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
}
