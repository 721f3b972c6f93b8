import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from 'playwright-core';
import sharp from 'sharp';
import { rasterise } from '@crow/demo/capture';
import { Chance } from './piles/chance';
import { feederScan } from './piles/scan';
import { BesideEngine, printedWords } from './printed/besideEngine';
import { LAYOUTS } from './printed/layouts';

/**
 * Prints pages of layouts that letters and bills don't have (columns, grids, lists, boxes), scans them in grey and in black and white, and
 * tells how many of their words the program reads, beside the engine alone: node scripts/bench.mjs printedPages FOLDER [SEED] [all]
 */
const [folder, seed = '1', how = ''] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const both = new BesideEngine();
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
    const { ours: a, engine: b, said } = await both.read(path, told);
    const isWorse = a.found < b.found || a.found / a.given < b.found / b.given - 0.005;
    console.log(`${isWorse ? 'WORSE ' : '      '}${name}, ${bilevel ? 'black and white' : 'grey'}: ${said}`);
    if (how === 'all')
      console.log(`   missed ${a.missed.slice(0, 30).join(' ')} | instead ${a.extra.slice(0, 30).join(' ')}`);
  }
await browser.close();
both.tell();
