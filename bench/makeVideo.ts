import { writeFileSync } from 'node:fs';
import { makeScene } from '@crow/demo/scenes';
import { demoStock } from '@crow/demo/stock';
import { encodePhoto } from '@crow/demo/capture';
import { renderView } from '@crow/demo/view';

/** A film for Chromium's fake camera: sheets on a table, one after the other. MJPEG: node scripts/bench.mjs makeVideo OUT.mjpeg SEED… */
const [out, ...seeds] = process.argv.slice(2);
const stock = await demoStock(120, 12);
const frames: Buffer[] = [];
for (const seed of seeds) {
  const scene = makeScene(Number(seed), stock, 1280);
  const frame = await encodePhoto(renderView({ ...scene.view, noise: 2 }));
  for (let again = 0; again < 75; again++) frames.push(frame);
}
writeFileSync(out, Buffer.concat(frames));
