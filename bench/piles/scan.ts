import sharp, { Sharp } from 'sharp';
import { noiseSource, seededRandom } from '@crow/demo/random';
import { Chance } from './chance';

/** A page as a feeder scans it: a little askew, with noise; grey, or black and white. PNG. */
export async function feederScan(
  page: Sharp,
  chance: Chance,
  bilevel: boolean,
): Promise<{ picture: Buffer; width: number; height: number }> {
  const { width, height } = await page.metadata();
  const turned = await page
    .greyscale()
    .rotate((chance.random() - 0.5) * 1.4, { background: '#f4f4f4' })
    .toBuffer();
  const { data, info } = await sharp(turned)
    .resize({ width, height, fit: 'cover' })
    .blur(0.5)
    .raw()
    .toBuffer({ resolveWithObject: true });
  const noise = noiseSource(seededRandom(chance.whole(1, 1e9)));
  for (let at = 0; at < data.length; at++) data[at] = Math.max(0, Math.min(255, data[at] * 0.96 + noise(8) + 3));
  let made = sharp(data, { raw: info }).toColourspace('b-w');
  if (bilevel) made = made.threshold(150);
  return {
    picture: await made.png().withDensity(200).toBuffer(),
    width: info.width,
    height: info.height,
  };
}
