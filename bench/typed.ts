import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { chromium } from 'playwright-core';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { typed } from '@crow/core/reading/testing/typed';
import { PageText } from '@crow/core/reading/words';
import { FactScore } from './factScore';
import { readPrinted } from './readPrinted';

/**
 * What papers say that are typed as text (bench/typed: each with a name, its lines, and what it says), without printing and reading them:
 * node scripts/bench.mjs typed SET [list] [in FOLDER]
 * SET is a file of bench/typed; the facts of each were asked for once before anything was mended for them, and they are looked at since.
 * With a folder, they are set in type, printed, scanned and read, if that has not been done there before.
 */
const [set, ...options] = process.argv.slice(2);
const list = options.includes('list');
const folder = options.includes('in') ? options[options.indexOf('in') + 1] : undefined;
/** What papers are set in, one after the other. */
const FACES = [
  'Carlito',
  'Liberation Serif',
  'Lato',
  'Caladea',
  'DejaVu Sans',
  'Gentium',
  'Roboto Slab',
  'Karla',
  'Courier Prime',
];
/** How wide a typed letter's place is, and how high a line, in points; a line with “# ” is larger. */
const [ACROSS, DOWN, SIZE, LARGE] = [6.1, 17, 10.5, 19];

const browser = folder
  ? await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
  : undefined;
if (folder) mkdirSync(folder, { recursive: true });
const score = new FactScore();
const papers = readFileSync(join('bench/typed', `${set}.txt`), 'utf8')
  .split(/^=== /m)
  .slice(1);
for (const [at, paper] of papers.entries()) {
  const [name, ...lines] = paper.trimEnd().split('\n');
  const truth = JSON.parse(lines.at(-1)!.replace(/^--- /, '')) as Record<string, unknown>;
  const text = lines.slice(0, -1);
  const pages = folder
    ? await inPrint(text, join(folder, `${set}-${at + 1}`), FACES[at % FACES.length])
    : [typed(text.join('\n'))];
  const said = score.add(truth, findFacts(pages));
  if (list) console.log(`${name}: ${said}`);
}
await browser?.close();
console.log(`${set}${folder ? ', printed and read' : ''}: ${score.toString()}`);

/** A paper set in type, printed, scanned and read; kept beside its scan. */
async function inPrint(lines: string[], path: string, face: string): Promise<PageText[]> {
  if (!existsSync(`${path}.json`)) {
    await writeFile(`${path}.html`, inType(lines, face));
    await writeFile(
      `${path}.json`,
      JSON.stringify(await readPrinted(browser!, pathToFileURL(`${path}.html`).href, path)),
    );
  }
  return JSON.parse(readFileSync(`${path}.json`, 'utf8')) as PageText[];
}

/** Each cell stands where it begins, and a figure in a column where it ends. */
function inType(lines: string[], face: string): string {
  let top = 0;
  const spans = lines.flatMap((line) => {
    const [size, letters] = line.startsWith('# ') ? [LARGE, line.slice(2)] : [SIZE, line];
    const row = top;
    top += line.startsWith('# ') ? 1.6 * DOWN : DOWN;
    return [...letters.matchAll(/\S+(?: \S+)*/g)].map(({ 0: cell, index }) => {
      const isFigure = index > 0 && /\d[.,]\d{2}\b|^\d+$/.test(cell);
      const place = isFigure ? `right:${520 - ACROSS * (index + cell.length)}pt` : `left:${ACROSS * index}pt`;
      const escaped = cell.replace(/[&<>]/g, (sign) => `&#${sign.charCodeAt(0)};`);
      return `<span style="top:${row}pt;${place};font-size:${size}pt">${escaped}</span>`;
    });
  });
  return `<!doctype html><meta charset="utf-8"><style>@page{size:A4;margin:0}body{margin:40pt 36pt;position:relative;width:520pt;font-family:'${face}'}span{position:absolute;white-space:pre}</style>${spans.join('')}`;
}
