import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { encodePhoto, rasterise, rgbRaster } from '@crow/demo/capture';
import { makeScene, Scene } from '@crow/demo/scenes';
import { renderView } from '@crow/demo/view';
import { Chance } from './piles/chance';
import { feederScan } from './piles/scan';
import { Tongue } from './reading/labels';
import { Half, makeReadingPaper, ReadingPaper } from './reading/paper';

/**
 * Makes papers to read, scanned or photographed, each with what it says:
 * node scripts/bench.mjs makePapers FOLDER tuned|untuned scan|photo FIRST COUNT [LANGUAGES]
 */
const [folder, half, way, first, count, tongues = 'en,en,de,de,fr'] = process.argv.slice(2);
const TROUBLES = ['none', 'things', 'shadow', 'bowed'];
mkdirSync(folder, { recursive: true });
for (let seed = Number(first); seed < Number(first) + Number(count); seed++) {
  const paper = await makeReadingPaper(seed, half as Half, tongues.split(',') as Tongue[]);
  const chance = new Chance(seed + 77);
  const name = join(folder, String(seed));
  if (way === 'scan') {
    const [page] = await rasterise(paper.pdf, 1, 200);
    const bilevel = chance.of(0.2);
    const { picture } = await feederScan(page, chance, bilevel);
    writeFileSync(
      `${name}.${bilevel ? 'png' : 'jpg'}`,
      bilevel ? picture : await sharp(picture).jpeg({ quality: 85 }).withDensity(200).toBuffer(),
    );
  } else {
    const dpi = 220;
    const picture = await rgbRaster((await rasterise(paper.pdf, 1, dpi))[0]);
    const sheet = { picture, width: (picture.width / dpi) * 25.4, height: (picture.height / dpi) * 25.4 };
    let at = seed * 13;
    const stock = { sheets: [sheet], receipts: [sheet] };
    let scene = makeScene(at, stock, 3600);
    while (!TROUBLES.includes(scene.trouble) || isCovered(paper, scene)) scene = makeScene(++at, stock, 3600);
    writeFileSync(`${name}.jpg`, await encodePhoto(renderView(scene.view)));
  }
  const { pdf, ...truth } = paper;
  writeFileSync(`${name}.pdf.bin`, pdf);
  writeFileSync(`${name}.json`, JSON.stringify(truth));
}

/** Whether something lies on a word of the paper in a scene: nobody could read it then. */
function isCovered({ words, size }: ReadingPaper, { view: { sheets, things } }: Scene): boolean {
  const { at, angle, width, height } = sheets[sheets.length - 1];
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return words.some(({ box: [left, top, wide, high] }) => {
    const mm = width / size[0];
    const [x, y] = [(left + wide / 2) * mm - width / 2, (top + high / 2) * mm - height / 2];
    const [onTableX, onTableY] = [at[0] + x * cos - y * sin, at[1] + x * sin + y * cos];
    return things.some(({ from, to, radius }) => {
      const along = [to[0] - from[0], to[1] - from[1]];
      const way = [onTableX - from[0], onTableY - from[1]];
      const length = along[0] ** 2 + along[1] ** 2;
      const share = length === 0 ? 0 : Math.max(0, Math.min(1, (way[0] * along[0] + way[1] * along[1]) / length));
      const away = Math.hypot(way[0] - share * along[0], way[1] - share * along[1]);
      return away < radius + (wide / 2) * mm;
    });
  });
}
