import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { findOutlines } from '@crow/core/imaging/outline/findOutlines';
import { scaleQuad, wholeQuad } from '@crow/core/imaging/quad';
import { proposeRecipes } from '@crow/core/imaging/proposing/proposals';
import { makePage, Recipe } from '@crow/core/imaging/recipe';
import { paperFor, trueAspect } from '@crow/core/imaging/straighten';
import { quarterTurned, Raster } from '@crow/core/imaging/raster';
import { Bend, BENDS, makeBent } from '@crow/demo/bentScenes';
import { encodePhoto, rasterise, rgbRaster } from '@crow/demo/capture';
import { BATCH, FILED, WAITING } from '@crow/demo/papers';
import { renderView } from '@crow/demo/view';
import { asTaken } from './asTaken';
import { recallOf, wordsOf } from './words';

/**
 * Words read from photos of sheets that aren't flat, by the engine alone, from the page made as if it were flat, and made flat:
 * node scripts/bench.mjs bentWords COUNT LONGSIDE FIRSTSEED [BEND] [FOLDER for the pictures]
 */
const [count = '8', longSide = '2600', firstSeed = '1', only, keep] = process.argv.slice(2);
const PAPER_DPI = 220;
const folder = keep ?? mkdtempSync(join(tmpdir(), 'crow-bench-'));
const papers = [...FILED, ...WAITING, ...BATCH];
const bends = only ? [only as Bend] : BENDS;
const totals: Record<string, number[][]> = {};
for (let number = 0; number < Number(count); number++) {
  const seed = Number(firstSeed) + number;
  const bend = bends[number % bends.length];
  const paper = papers[(seed * 7) % papers.length];
  const pdf = await paper.draw();
  const picture = await rgbRaster((await rasterise(pdf, 1, PAPER_DPI))[0]);
  const sheet = { picture, width: (picture.width / PAPER_DPI) * 25.4, height: (picture.height / PAPER_DPI) * 25.4 };
  const taken = join(folder, `${seed}-${bend}-alone.jpg`);
  const { photo, seen } = await asTaken(renderView(makeBent(seed, bend, sheet, Number(longSide))), taken);
  const path = join(folder, `${seed}-${bend}.pdf`);
  writeFileSync(path, pdf);
  const truth = wordsOf(execFileSync('pdftotext', ['-l', '1', path, '-'], { encoding: 'utf8' }));
  const began = performance.now();
  const [proposal] = proposeRecipes(seen);
  const bent = Boolean(proposal.recipe.bend);
  const page = quarterTurned(makePage(photo, proposal.recipe), proposal.turn);
  const milliseconds = performance.now() - began;
  const made = recallOf(truth, await read(page, 'page'));
  const asFlat = bent ? recallOf(truth, await read(makePage(photo, flatRecipe(seen)), 'flat')) : made;
  const row = [recallOf(truth, wordsIn(taken)), asFlat, made];
  (totals[bend] ??= []).push(row);
  console.error(
    seed,
    bend,
    bent ? 'bent' : 'flat',
    proposal.confidence.toFixed(2),
    row.map((each) => each.toFixed(3)).join(' '),
    Math.round(milliseconds),
  );

  async function read(picture: Raster, what: string): Promise<string[]> {
    const file = join(folder, `${seed}-${bend}-${what}.jpg`);
    writeFileSync(file, await encodePhoto(picture));
    return wordsIn(file);
  }

  function wordsIn(file: string): string[] {
    const text = execFileSync('tesseract', [file, 'stdout', '-l', 'eng+deu+fra', '--dpi', '200'], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
      env: { ...process.env, OMP_THREAD_LIMIT: '1' },
    });
    return wordsOf(text);
  }
}
const mean = (rows: number[][], each: number) =>
  (rows.reduce((sum, row) => sum + row[each], 0) / rows.length).toFixed(3);
for (const [bend, rows] of Object.entries(totals))
  console.log(
    bend,
    rows.length,
    'alone',
    mean(rows, 0),
    'as if flat',
    mean(rows, 1),
    'page',
    mean(rows, 2),
    'worst',
    Math.min(...rows.map((row) => row[2])).toFixed(3),
  );

/** The sheet by its outline alone. */
function flatRecipe(photo: Raster): Recipe {
  const corners = findOutlines(photo)[0]?.corners ?? wholeQuad(photo.width, photo.height);
  const { width, height } = paperFor(trueAspect(corners, photo.width, photo.height));
  return {
    corners: scaleQuad(corners, 1 / photo.width, 1 / photo.height),
    angle: 0,
    look: 'grey',
    paper: [width, height],
    marks: [],
  };
}
