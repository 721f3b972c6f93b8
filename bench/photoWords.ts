import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { applyHomography, homography } from '@crow/core/imaging/homography';
import { judgeLegibility } from '@crow/core/imaging/legibility';
import { quarterTurned, Raster } from '@crow/core/imaging/raster';
import { overlap, Point, wholeQuad } from '@crow/core/imaging/quad';
import { proposeRecipes } from '@crow/core/imaging/proposing/proposals';
import { finishPage, flatten, pageQuad } from '@crow/core/imaging/recipe';
import { encodePhoto, rasterise, rgbRaster } from '@crow/demo/capture';
import { BATCH, FILED, WAITING } from '@crow/demo/papers';
import { seededRandom } from '@crow/demo/random';
import { makeScene, Stock } from '@crow/demo/scenes';
import { LaidSheet, outlineOf, renderView, View } from '@crow/demo/view';
import { asTaken } from './asTaken';
import { recallOf, wordsOf } from './words';

/**
 * Words read from photos by the engine alone and after the page was made flat and clear, and how well legibility foretells them:
 * node scripts/bench.mjs photoWords COUNT LONGSIDE FIRSTSEED [vary | edge | dim | usual] [FOLDER for the pictures]
 * With “vary” the photos are of all qualities: taken from far away, blurred, noisy, dark. With “edge” the sheet runs out of the picture on one side,
 * and only words that are wholly in the picture count.
 * With “dim” they are taken in a dark room, by a camera that makes up for it with noise.
 */
const [count = '16', longSide = '2600', firstSeed = '600', how, keep] = process.argv.slice(2);
const vary = how === 'vary';
const TROUBLES =
  how === 'edge' ? ['none', 'bowed', 'shadow'] : ['none', 'things', 'shadow', 'bowed', 'on another sheet'];
const PAPER_DPI = 220;
/** With “edge”, how much nearer the camera is, and how far of the longer side the sheet runs out at most. */
const NEARER = 0.9;
const OUT = 0.045;
const STEP_MM = 1.5;
const folder = keep ?? mkdtempSync(join(tmpdir(), 'crow-bench-'));
const papers = [...FILED, ...WAITING, ...BATCH].filter(({ kind }) => kind !== 'receipt');
let bentOnes = 0;
const rows: { alone: number; clean: number; legibility: number; milliseconds: number }[] = [];
let seed = Number(firstSeed);
for (let number = 0; number < Number(count); number++) {
  const paper = papers[(number * 7) % papers.length];
  const pdf = await paper.draw();
  const picture = await rgbRaster((await rasterise(pdf, 1, PAPER_DPI))[0]);
  const sheet = { picture, width: (picture.width / PAPER_DPI) * 25.4, height: (picture.height / PAPER_DPI) * 25.4 };
  const stock: Stock = { sheets: [sheet], receipts: [sheet] };
  // Only troubles that leave all of the print in view.
  let scene = makeScene(seed, stock, Number(longSide));
  while (!TROUBLES.includes(scene.trouble)) scene = makeScene(++seed, stock, Number(longSide));
  seed++;
  const changed = { vary: worse, edge: runningOut, dim: inTheDark }[how ?? ''];
  const view = changed ? changed(scene.view, number) : scene.view;
  const taken = join(folder, `${seed - 1}-alone.jpg`);
  const { photo, seen } = await asTaken(renderView(view), taken);
  // The sheet that is meant, of those that lie there.
  const meant = outlineOf(view.sheets[view.sheets.length - 1], view);
  const path = join(folder, `${number}.pdf`);
  writeFileSync(path, pdf);
  const truth = wordsInPicture(path, view);
  const began = performance.now();
  const { recipe, turn } = proposeRecipes(seen)
    .map((proposal) => ({ ...proposal, on: overlap(pageQuad(proposal.recipe, photo.width, photo.height), meant) }))
    .sort((a, b) => b.on - a.on)[0];
  if (recipe.bend) bentOnes++;
  const flat = flatten(photo, recipe);
  const page = quarterTurned(finishPage(flat, recipe), turn);
  const milliseconds = performance.now() - began;
  rows.push({
    // Reading takes long; of photos of all qualities only the pages count.
    alone: vary ? NaN : recallOf(truth, wordsIn(taken)),
    clean: recallOf(truth, await read(page, `${seed - 1}-page`)),
    legibility: judgeLegibility(flat).score,
    milliseconds,
  });
  console.error(number, seed - 1, scene.trouble, view.table, JSON.stringify(rows[number]));
}
const mean = (values: number[]) => values.reduce((sum, each) => sum + each, 0) / values.length;
console.log(
  JSON.stringify({
    photos: rows.length,
    takenForBent: bentOnes,
    megapixels: ((Number(longSide) ** 2 * 0.75) / 1e6).toFixed(1),
    alone: mean(rows.map((row) => row.alone)).toFixed(3),
    clean: mean(rows.map((row) => row.clean)).toFixed(3),
    rankCorrelation: rankCorrelation(
      rows.map((row) => row.legibility),
      rows.map((row) => row.clean),
    ).toFixed(2),
    milliseconds: Math.round(mean(rows.map((row) => row.milliseconds))),
  }),
);

/** The words of the paper that is meant which are wholly in the picture. */
function wordsInPicture(pdf: string, view: View): string[] {
  const sheet = view.sheets[view.sheets.length - 1];
  const toPicture = homography(wholeQuad(sheet.width, sheet.height), outlineOf(sheet, view));
  const isSeen = (x: number, y: number) => {
    const [u, v] = applyHomography(toPicture, [(x / 72) * 25.4, (y / 72) * 25.4]);
    return u >= 0 && v >= 0 && u < view.width && v < view.height;
  };
  const listed = execFileSync('pdftotext', ['-bbox', '-l', '1', pdf, '-'], { encoding: 'utf8' });
  return [...listed.matchAll(/xMin="(.+?)" yMin="(.+?)" xMax="(.+?)" yMax="(.+?)">(.*?)</g)].flatMap(
    ([, left, top, right, bottom, text]) => {
      const [x0, y0, x1, y1] = [left, top, right, bottom].map(Number);
      const whole = isSeen(x0, y0) && isSeen(x1, y0) && isSeen(x1, y1) && isSeen(x0, y1);
      return whole ? wordsOf(text.replaceAll('&amp;', '&').replaceAll('&quot;', '"').replaceAll('&apos;', "'")) : [];
    },
  );
}

async function read(picture: Raster, name: string): Promise<string[]> {
  const path = join(folder, `${name}.jpg`);
  writeFileSync(path, await encodePhoto(picture));
  return wordsIn(path);
}

function wordsIn(path: string): string[] {
  const languages = ['-l', 'eng+deu+fra', '--dpi', '200'];
  const text = execFileSync('tesseract', [path, 'stdout', ...languages], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
    env: { ...process.env, OMP_THREAD_LIMIT: '1' },
  });
  return wordsOf(text);
}

/** Spearman's; equal values share the mean of their ranks. */
function rankCorrelation(a: number[], b: number[]): number {
  const ranks = (values: number[]) => {
    const sorted = values.toSorted((x, y) => x - y);
    return values.map((value) => (sorted.indexOf(value) + sorted.lastIndexOf(value)) / 2);
  };
  const [ra, rb] = [ranks(a), ranks(b)];
  const middle = (a.length - 1) / 2;
  const sum = (x: number[], y: number[]) =>
    x.reduce((total, value, index) => total + (value - middle) * (y[index] - middle), 0);
  return sum(ra, rb) / Math.sqrt(sum(ra, ra) * sum(rb, rb));
}

/** The same view, taken worse by one thing or another. */
function worse(view: View, number: number): View {
  const random = seededRandom(number + 1);
  const further = 1 + 1.6 * random() ** 1.5;
  return {
    ...view,
    blur: 3.4 * random() ** 2,
    noise: 3 + 20 * random() ** 2,
    light: { ...view.light, level: 1 - 0.75 * random() ** 2 },
    camera: { ...view.camera, shows: view.camera.shows * further },
  };
}

/** The same view in little light. */
function inTheDark(view: View, number: number): View {
  const random = seededRandom(number + 71);
  return {
    ...view,
    blur: 0.4 + 0.8 * random(),
    noise: 6 + 12 * random(),
    light: { ...view.light, level: 0.1 + 0.2 * random(), falloff: 0.2 + 0.5 * random(), warmth: 0.3 + 0.7 * random() },
  };
}

/** The same view from nearer, the sheet moved so far that it runs out of the picture on one side, another one from number to number. */
function runningOut(view: View, number: number): View {
  const [dx, dy] = [
    [0, -1],
    [1, 0],
    [0, 1],
    [-1, 0],
  ][number % 4];
  const near = { ...view, camera: { ...view.camera, shows: view.camera.shows * NEARER } };
  const beyond = ([x, y]: Point) => (dx < 0 ? -x : dx > 0 ? x - view.width : dy < 0 ? -y : y - view.height);
  for (let step = 0; ; step++) {
    const sheets = view.sheets.with(-1, movedBy(view.sheets[view.sheets.length - 1], dx * step, dy * step));
    const moved = { ...near, sheets };
    const outside = outlineOf(sheets[sheets.length - 1], moved).map(beyond);
    if (outside.filter((each) => each > 0).length > 1 || Math.max(...outside) > OUT * view.height) return moved;
  }
}

function movedBy(sheet: LaidSheet, across: number, down: number): LaidSheet {
  return { ...sheet, at: [sheet.at[0] + across * STEP_MM, sheet.at[1] + down * STEP_MM] };
}
