import sharp from 'sharp';
import { judgeLegibility } from '@crow/core/imaging/legibility';
import { findOutlines } from '@crow/core/imaging/outline/findOutlines';
import { proposeRecipes } from '@crow/core/imaging/proposing/proposals';
import { flatten, makePage } from '@crow/core/imaging/recipe';
import { encodePhoto } from '@crow/demo/capture';
import { makeScene } from '@crow/demo/scenes';
import { demoStock } from '@crow/demo/stock';
import { renderView } from '@crow/demo/view';

/** The time from a photo to a finished page, by stages, on one core: node scripts/bench.mjs pageStages LONGSIDE SEED… */
const [longSide = '4000', ...seeds] = process.argv.slice(2);
const REPEATS = 6;
const LOOKED_AT = 2000;
sharp.concurrency(1);
sharp.cache(false);
const stock = await demoStock(220, 6);
const times = new Map<string, number[]>();
const timed = async <T>(stage: string, work: () => T | Promise<T>): Promise<T> => {
  const began = performance.now();
  const result = await work();
  times.set(stage, [...(times.get(stage) ?? []), performance.now() - began]);
  return result;
};
const decode = async (jpeg: Buffer, size?: number) => {
  const opened = size ? sharp(jpeg).resize({ width: size, height: size, fit: 'inside' }) : sharp(jpeg);
  const { data, info } = await opened.raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, channels: 3 as const, data };
};
for (const seed of seeds.length > 0 ? seeds : ['0', '9', '24']) {
  const jpeg = await encodePhoto(renderView(makeScene(Number(seed), stock, Number(longSide)).view));
  for (let repeat = 0; repeat < REPEATS; repeat++) {
    const small = await timed('decode to look at', () => decode(jpeg, LOOKED_AT));
    await timed('(outline alone)', () => findOutlines(small));
    await timed('all', async () => {
      await decode(jpeg, LOOKED_AT);
      const [{ recipe }] = await timed('outline, upright, skew, look', () => proposeRecipes(small));
      await timed('legibility', () => judgeLegibility(flatten(small, recipe)));
      const picture = await timed('decode', () => decode(jpeg));
      await timed(`make page, ${recipe.look}`, () => makePage(picture, recipe));
    });
  }
}
for (const [stage, values] of times) {
  values.sort((a, b) => a - b);
  console.log(stage.padEnd(32), 'median', values[values.length >> 1].toFixed(0), 'least', values[0].toFixed(0));
}
