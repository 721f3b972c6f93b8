import { readdirSync, existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { PageText } from '@crow/core/reading/words';
import { pdfPageSizes, pdfText } from '@crow/server/engines/poppler';
import { rasterOf } from '@crow/server/engines/rasters';
import { recognise } from '@crow/server/engines/recognise';
import { rasterise } from '@crow/demo/capture';
import { Chance } from './piles/chance';
import { feederScan } from './piles/scan';
import { garbled } from './piles/garble';

/**
 * Reads made piles and keeps the words beside them: node scripts/bench.mjs readPiles FOLDER drawn|scanned [FIRST LAST]
 * `drawn` takes the words from the PDF and garbles some as a recogniser does; `scanned` scans each page at 200 dpi, grey or black and white, and has
 * the engine read it.
 */
const [folder, how, first = '0', last = 'Infinity'] = process.argv.slice(2);
for (const name of readdirSync(folder).filter((each) => each.endsWith('.pdf'))) {
  const seed = Number(name.slice(0, -4));
  const out = join(folder, `${seed}.words`);
  if (existsSync(out) || seed < Number(first) || seed > Number(last)) continue;
  const path = join(folder, name);
  const { length } = JSON.parse(readFileSync(join(folder, `${seed}.json`), 'utf8')) as unknown[];
  const sizes = await pdfPageSizes(path, 1, length);
  const chance = new Chance(seed + 77);
  const texts: PageText[] =
    how === 'drawn'
      ? (await pdfText(path, 1, length)).map((text) => garbled(text, chance))
      : await scanned(path, length, chance);
  writeFileSync(
    out,
    JSON.stringify(texts.map((text, index) => ({ ...text, size: [sizes[index].width, sizes[index].height] }))),
  );
  console.error(name);
}

async function scanned(path: string, length: number, chance: Chance): Promise<PageText[]> {
  const bilevel = chance.of(0.4);
  const drawn = await rasterise(readFileSync(path), length, 200);
  const texts: PageText[] = [];
  for (const page of drawn) {
    const { picture, width, height } = await feederScan(page, chance, bilevel);
    texts.push(
      await recognise(await rasterOf(sharp(picture)), ['eng', 'deu', 'fra']).catch(() => ({
        width,
        height,
        words: [],
        language: 'eng',
      })),
    );
  }
  return texts;
}
