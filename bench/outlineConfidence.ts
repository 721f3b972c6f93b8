import sharp from 'sharp';
import { features, confidenceOf } from '@crow/core/imaging/outline/confidence';
import { findSheets } from '@crow/core/imaging/outline/findOutlines';
import { overlap } from '@crow/core/imaging/quad';
import { Raster } from '@crow/core/imaging/raster';
import { rgbRaster } from '@crow/demo/capture';
import { seededRandom } from '@crow/demo/random';
import { makeScene } from '@crow/demo/scenes';
import { demoStock } from '@crow/demo/stock';
import { renderView } from '@crow/demo/view';

/**
 * Fits the confidence of outlines, and says how well it holds: node scripts/bench.mjs outlineConfidence FIRST COUNT
 * Made photos by turns as they are, spoilt (flat, blurred, noisy), and of a table without a sheet. The weights are fitted to the
 * first half (logistic regression by iterated least squares, with a small penalty), and tried on the second.
 */
const [first, count] = process.argv.slice(2).map(Number);
const LONG_SIDE = 1200;
const RIGHT = 0.9;
interface Sample {
  x: number[];
  right: boolean;
  now: number;
}
const stock = await demoStock(150);
const samples: Sample[][] = [];
for (let seed = first; seed < first + count; seed++) {
  const { view, outlines } = makeScene(seed, stock, LONG_SIDE);
  const random = seededRandom(seed);
  const kind = (seed - first) % 5;
  const empty = kind === 4;
  const picture = renderView(empty ? { ...view, sheets: [] } : view);
  const shown = kind === 1 || kind === 3 ? await spoilt(picture, random) : picture;
  samples.push(
    // While filming there is no time to look for print.
    [...findSheets(shown), ...findSheets(shown, { quick: true, most: 1 })].map(({ corners, evidence }) => ({
      x: features(evidence),
      right: !empty && outlines.some((quad) => overlap(quad, corners) >= RIGHT),
      now: confidenceOf(evidence),
    })),
  );
}
const half = samples.length / 2;
const [tuned, untuned] = [samples.slice(0, half).flat(), samples.slice(half).flat()];
const weights = fitted(tuned);
console.log('weights', weights.map((each) => Number(each.toFixed(2))).join(', '));
table('with those weights, second half', untuned, ({ x }) => logistic(x, weights));
table('as the program has it, all', samples.flat(), ({ now }) => now);

async function spoilt({ width, height, channels, data }: Raster, random: () => number): Promise<Raster> {
  const contrast = 0.15 + 0.5 * random();
  const middle = 60 + 100 * random();
  const noise = 14 * random();
  const flat = Buffer.from(
    Array.from(data, (value) =>
      Math.max(0, Math.min(255, (value - 128) * contrast + middle + noise * (random() - 0.5))),
    ),
  );
  return rgbRaster(sharp(flat, { raw: { width, height, channels } }).blur(0.5 + 4 * random()));
}

function logistic(x: number[], weights: number[]): number {
  return 1 / (1 + Math.exp(-x.reduce((sum, value, index) => sum + value * weights[index], 0)));
}

function fitted(samples: Sample[]): number[] {
  const size = samples[0].x.length;
  let weights = new Array<number>(size).fill(0);
  for (let round = 0; round < 60; round++) {
    const gradient = weights.map((weight) => -0.02 * weight);
    const hessian = weights.map((_, i) => weights.map((__, j) => (i === j ? 0.02 : 0)));
    for (const { x, right } of samples) {
      const chance = logistic(x, weights);
      x.forEach((value, i) => {
        gradient[i] += value * ((right ? 1 : 0) - chance);
        x.forEach((other, j) => (hessian[i][j] += value * other * Math.max(1e-4, chance * (1 - chance))));
      });
    }
    const step = solved(hessian, gradient);
    weights = weights.map((weight, i) => weight + 0.7 * step[i]);
  }
  return weights;
}

/** Gauss's elimination with pivots. */
function solved(matrix: number[][], right: number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i]]);
  rows.forEach((_, at) => {
    const pivot = rows.reduce(
      (best, row, i) => (i >= at && Math.abs(row[at]) > Math.abs(rows[best][at]) ? i : best),
      at,
    );
    [rows[at], rows[pivot]] = [rows[pivot], rows[at]];
    rows.forEach((row, i) => {
      if (i === at) return;
      const factor = row[at] / rows[at][at];
      rows[i] = row.map((value, j) => value - factor * rows[at][j]);
    });
  });
  return rows.map((row, i) => row[row.length - 1] / row[i]);
}

function table(title: string, samples: Sample[], chanceOf: (sample: Sample) => number): void {
  console.log(title, `${samples.length} outlines, ${samples.filter(({ right }) => !right).length} wrong`);
  const bounds = [0, 0.2, 0.5, 0.8, 0.95, 0.99, 1.01];
  bounds.slice(1).forEach((to, index) => {
    const those = samples.filter((sample) => chanceOf(sample) >= bounds[index] && chanceOf(sample) < to);
    if (those.length === 0) return;
    const mean = those.reduce((sum, sample) => sum + chanceOf(sample), 0) / those.length;
    const right = those.filter((sample) => sample.right).length / those.length;
    console.log(`${bounds[index]}–${to}: ${those.length} outlines, said ${mean.toFixed(3)}, right ${right.toFixed(3)}`);
  });
}
