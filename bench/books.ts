import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { proposePages } from '@crow/core/imaging/proposing/proposals';
import { fromPage, makePage, pageQuad, Recipe } from '@crow/core/imaging/recipe';
import { overlap, Quad, wholeQuad } from '@crow/core/imaging/quad';
import { Raster } from '@crow/core/imaging/raster';
import { BentSheet, placeInPicture } from '@crow/demo/bent';
import { makeSpread } from '@crow/demo/bentScenes';
import { openPages } from '@crow/demo/book';
import { encodePhoto } from '@crow/demo/capture';
import { renderView, View } from '@crow/demo/view';
import { recallOf, wordsOf } from './words';

/**
 * Open books photographed from above: how well the pages are cut, how level their rows are, and, unless "cut" is said, the words read from the
 * whole picture and from the pages: node scripts/bench.mjs books COUNT LONGSIDE FIRSTSEED [cut] [FOLDER for the pictures]
 */
const [count = '8', longSide = '3600', firstSeed = '1', how = '', keep] = process.argv.slice(2);
const PAPER_DPI = 220;
const folder = keep ?? mkdtempSync(join(tmpdir(), 'crow-bench-'));
const rows: { cut: number; level: number; words: number; alone: number }[] = [];
for (let seed = Number(firstSeed); seed < Number(firstSeed) + Number(count); seed++) {
  const { form, pdf, pages } = await openPages(seed, 2 * (5 + (seed % 30)), PAPER_DPI);
  const path = join(folder, `${seed}.pdf`);
  writeFileSync(path, pdf);
  const view = makeSpread(seed, pages, Number(longSide));
  const photo = renderView(view);
  const truth = [1, 2].map((page) =>
    wordsOf(execFileSync('pdftotext', ['-f', `${page}`, '-l', `${page}`, path, '-'], { encoding: 'utf8' })),
  );
  const began = performance.now();
  const found = proposePages(photo, 'book');
  const milliseconds = performance.now() - began;
  const cut = view.bent!.map((sheet, index) =>
    found.length === 2
      ? overlap(cornersOf(sheet, view), pageQuad({ ...found[index].recipe, angle: 0 }, photo.width, photo.height))
      : 0,
  );
  const level = view.bent!.map((sheet, index) =>
    found.length === 2 ? offLevel(sheet, view, found[index].recipe, 0.48 * (form.points / 72) * 25.4) : NaN,
  );
  const words: number[] = [];
  let alone = NaN;
  if (how !== 'cut') {
    for (const [index, { recipe }] of found.entries())
      words.push(recallOf(truth[index] ?? [], await read(makePage(photo, recipe), `${index}`)));
    alone = recallOf(truth.flat(), await read(photo, 'alone'));
  } else writeFileSync(join(folder, `${seed}-alone.jpg`), await encodePhoto(photo));
  rows.push({ cut: Math.min(...cut), level: Math.max(...level), words: mean(words), alone });
  console.error(
    seed,
    view.table,
    found.length,
    'cut',
    cut.map((each) => each.toFixed(3)).join(' '),
    'level',
    level.map((each) => each.toFixed(2)).join(' '),
    'words',
    words.map((each) => each.toFixed(3)).join(' '),
    'alone',
    alone.toFixed(3),
    Math.round(milliseconds),
  );

  async function read(picture: Raster, what: string): Promise<string[]> {
    const file = join(folder, `${seed}-${what}.jpg`);
    writeFileSync(file, await encodePhoto(picture));
    const text = execFileSync('tesseract', [file, 'stdout', '-l', 'eng', '--dpi', '300'], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
      env: { ...process.env, OMP_THREAD_LIMIT: '1' },
    });
    return wordsOf(text);
  }
}
console.log(
  JSON.stringify({
    spreads: rows.length,
    cutWorst: Math.min(...rows.map((row) => row.cut)).toFixed(3),
    levelMean: mean(rows.map((row) => row.level)).toFixed(3),
    levelWorst: Math.max(...rows.map((row) => row.level)).toFixed(3),
    words: mean(rows.map((row) => row.words)).toFixed(3),
    wordsWorst: Math.min(...rows.map((row) => row.words)).toFixed(3),
    alone: mean(rows.map((row) => row.alone)).toFixed(3),
  }),
);

function mean(values: number[]): number {
  return values.reduce((sum, each) => sum + each, 0) / values.length;
}

function cornersOf(sheet: BentSheet, view: View): Quad {
  return wholeQuad(sheet.width, sheet.height).map((point) => placeInPicture(sheet, view, point)) as Quad;
}

/**
 * How far rows of print are off a straight level line once the page is flat, in x-heights: of the rows of the text area, the worst's greatest.
 * Each point of a row is sought on the flat page by Newton's method.
 */
function offLevel(sheet: BentSheet, view: View, recipe: Recipe, xHeight: number): number {
  const seen = fromPage(recipe, view.width, view.height);
  const offs: number[] = [];
  for (let row = 0.12; row < 0.9; row += 0.06) {
    const levels: number[] = [];
    for (let across = 0.14; across < 0.87; across += 0.04) {
      const wanted = placeInPicture(sheet, view, [across * sheet.width, row * sheet.height]);
      let [u, v] = [across, row];
      for (let step = 0; step < 6; step++) {
        const by = 1e-4;
        const [here, right, down] = [seen([u, v]), seen([u + by, v]), seen([u, v + by])];
        const [a, c] = [(right[0] - here[0]) / by, (right[1] - here[1]) / by];
        const [b, d] = [(down[0] - here[0]) / by, (down[1] - here[1]) / by];
        const [ex, ey] = [wanted[0] - here[0], wanted[1] - here[1]];
        const det = a * d - b * c;
        u += (d * ex - b * ey) / det;
        v += (a * ey - c * ex) / det;
      }
      levels.push((v * sheet.height) / xHeight);
    }
    const middle = mean(levels);
    offs.push(Math.max(...levels.map((each) => Math.abs(each - middle))));
  }
  return Math.max(...offs);
}
