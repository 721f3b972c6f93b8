import { brightened } from '../grain';
import { blocksOf, blurred, noiseIn } from '../noise';
import { Raster } from '../raster';

/** Of the blocks of a picture sorted by their noise, and of those sorted by their tone, the ones that say how noisy and how bright it is. */
const PLAIN = 0.25;
const BRIGHT = 0.9;
/** From so much noise on (standard deviation as a share of what is bright) a picture was taken in little light. */
const DIM = 0.006;
/** From so much on it is smoothed, by how much for how much noise and at the most (standard deviations, in pixels). */
const NOISY = 0.015;
const WIDTH_PER_NOISE = 60;
const WIDEST = 2.5;

/**
 * A picture taken in little light as edges can be sought in it: brighter by a whole number, its noise smoothed by as much as there is of it.
 * Others are given back as they are.
 */
export function inBetterLight(picture: Raster): Raster {
  const blocks = blocksOf(picture).map((block) => noiseIn(picture, block));
  const sorted = (which: 'deviation' | 'tone') => blocks.map((block) => block[which]).sort((a, b) => a - b);
  const noise =
    sorted('deviation')[PLAIN * blocks.length] / Math.max(1, sorted('tone')[Math.floor(BRIGHT * blocks.length)]);
  if (noise < DIM) return picture;
  const bright = brightened(picture);
  return noise < NOISY ? bright : blurred(bright, Math.min(WIDEST, WIDTH_PER_NOISE * noise));
}
