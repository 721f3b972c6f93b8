import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { makeScene } from '@crow/demo/scenes';
import { demoStock } from '@crow/demo/stock';
import { renderView } from '@crow/demo/view';

/** Makes photos with known corners: node scripts/bench.mjs makeScenes FOLDER FIRST COUNT LONGSIDE */
const [folder, first, count, longSide] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const stock = await demoStock(150);
const truth = [];
for (let seed = Number(first); seed < Number(first) + Number(count); seed++) {
  const scene = makeScene(seed, stock, Number(longSide));
  const { width, height, data } = renderView(scene.view);
  const file = join(folder, `${seed}.jpg`);
  await sharp(data, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 85 })
    .toFile(file);
  truth.push({ file, trouble: scene.trouble, table: scene.view.table, outlines: scene.outlines });
}
writeFileSync(join(folder, `truth-${first}.json`), JSON.stringify(truth));
