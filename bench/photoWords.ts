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
import { LaidSheet, outlineOf, renderView, Shine, Thing, View } from '@crow/demo/view';
import { asTaken } from './asTaken';
import { recallOf, wordsOf } from './words';

/**
 * Words read from photos by the engine alone and after the page was made flat and clear, and how well legibility foretells them:
 * node scripts/bench.mjs photoWords COUNT LONGSIDE FIRSTSEED [vary | edge | dim | glare | sleeve | clips | lamp | usual] [FOLDER for the pictures]
 * With “vary” the photos are of all qualities: taken from far away, blurred, noisy, dark. With “edge” the sheet runs out of the picture on one side,
 * and only words that are wholly in the picture count.
 * With “glare” a lamp is mirrored on them, with “sleeve” they lie in clear film, with “clips” wires and staples hold them, with “lamp” the light is
 * coloured and a hand and a phone throw shadows; with “dim” they are taken in a dark room, by a camera that makes up for it with noise.
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
  const changed = {
    vary: worse,
    edge: runningOut,
    dim: inTheDark,
    glare: mirroring,
    sleeve: inSleeve,
    clips: heldTogether,
    lamp: underLamp,
  }[how ?? ''];
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

/** The same view with one or two lamps mirrored on the sheet. */
function mirroring(view: View, number: number): View {
  const random = seededRandom(number + 203);
  const [sheet] = view.sheets.slice(-1);
  const shines = Array.from({ length: number % 2 === 0 ? 1 : 2 }, (): Shine => ({
    at: [sheet.at[0] + (random() - 0.5) * sheet.width, sheet.at[1] + (random() - 0.6) * sheet.height],
    reach: [14 + 40 * random(), 8 + 24 * random()],
    angle: Math.PI * random(),
    strength: 60 + 80 * random(),
  }));
  return { ...view, shines, light: { ...view.light, level: 0.62 + 0.25 * random() } };
}

/** The same view, the sheet in a clear sleeve that mirrors in streaks. */
function inSleeve(view: View, number: number): View {
  const random = seededRandom(number + 307);
  const [sheet] = view.sheets.slice(-1);
  const shines = Array.from({ length: 3 }, (): Shine => ({
    at: [sheet.at[0] + (random() - 0.5) * sheet.width, sheet.at[1] + (random() - 0.5) * sheet.height],
    reach: [40 + 90 * random(), 1.5 + 6 * random()],
    angle: Math.PI * random(),
    strength: 40 + 80 * random(),
  }));
  return { ...view, sleeve: 3 + 3 * random(), shines, light: { ...view.light, level: 0.7 + 0.25 * random() } };
}

/** The same view with a clip of wire over the upper edge, and a staple. */
function heldTogether(view: View, number: number): View {
  const random = seededRandom(number + 401);
  const [sheet] = view.sheets.slice(-1);
  const [cos, sin] = [Math.cos(sheet.angle), Math.sin(sheet.angle)];
  const on = (x: number, y: number): Point => {
    const [u, v] = [x - sheet.width / 2, y - sheet.height / 2];
    return [sheet.at[0] + u * cos - v * sin, sheet.at[1] + u * sin + v * cos];
  };
  const wire = (from: Point, to: Point): Thing => ({ from, to, radius: 0.5, colour: [150, 152, 158] });
  const at = sheet.width * (0.1 + 0.8 * random());
  const clip = [
    wire(on(at, -4), on(at, 24)),
    wire(on(at + 7, -4), on(at + 7, 20)),
    wire(on(at, -4), on(at + 7, -4)),
    wire(on(at + 1.5, 27), on(at + 5.5, 27)),
    wire(on(at + 5.5, 27), on(at + 5.5, 4)),
  ];
  const staple = [8 + 6 * random(), 6 + 6 * random()];
  return {
    ...view,
    things: [...view.things, ...clip, wire(on(staple[0], staple[1]), on(staple[0] + 8, staple[1] + 5))],
  };
}

/** The same view in coloured light, with the shadows of a hand and a phone. */
function underLamp(view: View, number: number): View {
  const random = seededRandom(number + 503);
  const shadow = (width: number) => ({
    at: [160 * (random() - 0.5), 200 * (random() - 0.5)] as Point,
    angle: 2 * Math.PI * random(),
    softness: 2 + 12 * random(),
    depth: 0.35 + 0.3 * random(),
    width,
  });
  return {
    ...view,
    light: { ...view.light, warmth: number % 3 === 0 ? -1.4 : 1.6 + 1.4 * random() },
    shadows: [shadow(70 + 60 * random()), shadow(30 + 50 * random())],
  };
}
