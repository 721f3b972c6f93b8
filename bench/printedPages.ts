import { execFileSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from 'playwright-core';
import sharp from 'sharp';
import { rasterise } from '@crow/demo/capture';
import { plainText } from '@crow/core/reading/words';
import { readSheets } from '@crow/server/cli/sheets';
import { inspectFile } from '@crow/server/engines/sourceFile';
import { Chance } from './piles/chance';
import { feederScan } from './piles/scan';
import { compared, printedWords } from './printed/compared';
import { LAYOUTS } from './printed/layouts';

/**
 * Prints pages of layouts that letters and bills don't have (columns, grids, lists, boxes), scans them in grey and in black and white, and
 * tells how many of their words the program reads, beside the engine alone: node scripts/bench.mjs printedPages FOLDER [SEED] [all]
 */
const [folder, seed = '1', how = ''] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const sum = { ours: [0, 0], engine: [0, 0], told: 0 };
for (const [number, { name, style, body }] of LAYOUTS.entries())
  for (const bilevel of [false, true]) {
    const chance = new Chance(Number(seed) * 1000 + number);
    const page = await browser.newPage();
    await page.setContent(
      `<!doctype html><meta charset="utf-8"><style>@page{size:A4;margin:14mm} body{${style}}</style>${body(chance)}`,
    );
    const told = printedWords(await page.evaluate(() => document.body.innerText));
    const pdf = await page.pdf({ preferCSSPageSize: true, printBackground: true });
    await page.close();
    const [sheet] = await rasterise(pdf, 1, bilevel ? 300 : 200);
    const { picture } = await feederScan(sheet, new Chance(number + 5), bilevel);
    const path = join(folder, `${number}-${bilevel ? 'bilevel.png' : 'grey.jpg'}`);
    const made = sharp(picture).withDensity(bilevel ? 300 : 200);
    await (bilevel ? made.png() : made.jpeg({ quality: 85 })).toFile(path);
    const sheets = await readSheets(await inspectFile(path, name), 0, ['eng']);
    const ours = sheets.flatMap(({ text }) => text.words.map((word) => word.text));
    writeFileSync(`${path}.txt`, sheets.map(({ text }) => plainText(text.words)).join('\n'));
    const engine = execFileSync('tesseract', [path, 'stdout', '-l', 'eng', '--psm', '3'], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
      env: { ...process.env, OMP_THREAD_LIMIT: '1' },
    });
    const [a, b] = [compared(printedWords(ours.join(' ')), told), compared(printedWords(engine), told)];
    sum.told += told.length;
    for (const [which, { found, given }] of [
      ['ours', a],
      ['engine', b],
    ] as const) {
      sum[which][0] += found;
      sum[which][1] += given;
    }
    const isWorse = a.found < b.found || a.found / a.given < b.found / b.given - 0.005;
    console.log(
      `${isWorse ? 'WORSE ' : '      '}${name}, ${bilevel ? 'black and white' : 'grey'}: ours ${a.found}/${a.given}, engine ${b.found}/${b.given} of ${told.length}`,
    );
    if (how === 'all')
      console.log(`   missed ${a.missed.slice(0, 30).join(' ')} | instead ${a.extra.slice(0, 30).join(' ')}`);
  }
await browser.close();
const share = (part: number, of: number) => (part / of).toFixed(4);
for (const which of ['ours', 'engine'] as const)
  console.log(
    `${which}: found ${share(sum[which][0], sum.told)}, of what is given ${share(sum[which][0], sum[which][1])}`,
  );
