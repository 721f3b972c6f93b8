import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { roughInk } from '@crow/core/imaging/ink';
import { lettersOnly } from '@crow/core/imaging/components';
import { quarterTurned, Raster, shrink } from '@crow/core/imaging/raster';
import { textDirection } from '@crow/core/imaging/textLines';
import { rgbRaster, scanPaper } from '@crow/demo/capture';
import { BATCH, FILED, WAITING } from '@crow/demo/papers';

/** Counts how often pages turned by quarters are brought upright: node scripts/bench.mjs direction [FILE…] (upright pictures) */
const SURE = 0.5;
const LOOKED_AT = 1000;
const pages: { name: string; picture: Raster }[] = [];
for (const paper of [...FILED, ...WAITING, ...BATCH]) {
  const scans = await scanPaper(await paper.draw(), paper.pages, 5);
  for (const scan of scans) pages.push({ name: paper.id, picture: await rgbRaster(sharp(scan)) });
}
for (const file of process.argv.slice(2))
  pages.push({ name: file, picture: await rgbRaster(sharp(readFileSync(file))) });
let [right, wrong, unsure] = [0, 0, 0];
for (const { name, picture } of pages) {
  const small = shrink(picture, LOOKED_AT);
  for (const turn of [0, 90, 180, 270] as const) {
    const found = textDirection(lettersOnly(roughInk(quarterTurned(small, turn))));
    if (found.confidence < SURE) unsure++;
    else if ((found.turn + turn) % 360 === 0) right++;
    else {
      wrong++;
      console.log('wrong:', name, 'turned by', turn, 'taken for', found.turn, found.confidence.toFixed(2));
    }
  }
}
console.log(JSON.stringify({ pages: pages.length, right, wrong, unsure }));
