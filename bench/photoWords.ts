import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { judgeLegibility } from '@crow/core/imaging/legibility';
import { quarterTurned, Raster } from '@crow/core/imaging/raster';
import { finishPage, flatten, proposeRecipes } from '@crow/core/imaging/recipe';
import { encodePhoto, rasterise, rgbRaster } from '@crow/demo/capture';
import { BATCH, FILED, WAITING } from '@crow/demo/papers';
import { makeScene, Stock } from '@crow/demo/scenes';
import { renderView } from '@crow/demo/view';

/**
 * Words read from photos by the engine alone and after the page was made flat and clear, and how well legibility foretells them:
 * node scripts/bench.mjs photoWords COUNT LONGSIDE
 */
const [count = '16', longSide = '2600'] = process.argv.slice(2);
const PAPER_DPI = 220;
const folder = mkdtempSync(join(tmpdir(), 'crow-bench-'));
const papers = [...FILED, ...WAITING, ...BATCH].filter(({ kind }) => kind !== 'receipt');
const rows: { alone: number; clean: number; legibility: number; milliseconds: number }[] = [];
for (let number = 0; number < Number(count); number++) {
  const paper = papers[(number * 7) % papers.length];
  const pdf = await paper.draw();
  const picture = await rgbRaster((await rasterise(pdf, 1, PAPER_DPI))[0]);
  const sheet = { picture, width: (picture.width / PAPER_DPI) * 25.4, height: (picture.height / PAPER_DPI) * 25.4 };
  const stock: Stock = { sheets: [sheet], receipts: [sheet] };
  // Troubles that leave all of the print in view.
  const seed = [0, 2, 3, 8, 9, 10, 11, 16, 17, 18, 19, 24][number % 12] + 32 * Math.floor(number / 12);
  const photo = renderView(makeScene(seed, stock, Number(longSide)).view);
  const path = join(folder, `${number}.pdf`);
  writeFileSync(path, pdf);
  const truth = words(execFileSync('pdftotext', ['-l', '1', path, '-'], { encoding: 'utf8' }));
  const began = performance.now();
  const [{ recipe, turn }] = proposeRecipes(photo);
  const flat = flatten(photo, recipe);
  const page = quarterTurned(finishPage(flat, recipe), turn);
  const milliseconds = performance.now() - began;
  rows.push({
    alone: recall(truth, await read(photo)),
    clean: recall(truth, await read(page)),
    legibility: judgeLegibility(flat).score,
    milliseconds,
  });
  console.error(number, seed, JSON.stringify(rows[number]));
}
const mean = (values: number[]) => values.reduce((sum, each) => sum + each, 0) / values.length;
console.log(
  JSON.stringify({
    photos: rows.length,
    megapixels: ((Number(longSide) ** 2 * 0.75) / 1e6).toFixed(1),
    alone: mean(rows.map((row) => row.alone)).toFixed(3),
    clean: mean(rows.map((row) => row.clean)).toFixed(3),
    rankCorrelation: rankCorrelation(
      rows.map((row) => row.legibility),
      rows.map((row) => row.alone),
    ).toFixed(2),
    milliseconds: Math.round(mean(rows.map((row) => row.milliseconds))),
  }),
);

function words(text: string): string[] {
  return text.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word));
}

async function read(picture: Raster): Promise<string[]> {
  const path = join(folder, 'page.jpg');
  writeFileSync(path, await encodePhoto(picture));
  const languages = ['-l', 'eng+deu+fra', '--dpi', '200'];
  const text = execFileSync('tesseract', [path, 'stdout', ...languages], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
    env: { ...process.env, OMP_THREAD_LIMIT: '1' },
  });
  return words(text);
}

/** The share of the true words that were read, each as often as it stands. */
function recall(truth: string[], found: string[]): number {
  const left = new Map<string, number>();
  for (const word of found) left.set(word, (left.get(word) ?? 0) + 1);
  const hits = truth.filter((word) => {
    const number = left.get(word) ?? 0;
    left.set(word, number - 1);
    return number > 0;
  });
  return hits.length / truth.length;
}

/** Spearman's. */
function rankCorrelation(a: number[], b: number[]): number {
  const ranks = (values: number[]) => {
    const order = values.map((value, index) => ({ value, index })).sort((x, y) => x.value - y.value);
    const result = new Array<number>(values.length);
    order.forEach(({ index }, rank) => (result[index] = rank));
    return result;
  };
  const [ra, rb] = [ranks(a), ranks(b)];
  const middle = (a.length - 1) / 2;
  const sum = (x: number[], y: number[]) =>
    x.reduce((total, value, index) => total + (value - middle) * (y[index] - middle), 0);
  return sum(ra, rb) / Math.sqrt(sum(ra, ra) * sum(rb, rb));
}
