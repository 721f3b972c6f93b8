import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makePile } from './piles/pile';

/** Makes piles of papers as PDFs, with what they consist of: node scripts/bench.mjs makePiles FOLDER FIRST COUNT PAGES */
const [folder, first, count, pages] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
for (let seed = Number(first); seed < Number(first) + Number(count); seed++) {
  const pile = await makePile(seed, Number(pages));
  writeFileSync(join(folder, `${seed}.pdf`), pile.pdf);
  writeFileSync(join(folder, `${seed}.json`), JSON.stringify(pile.pages));
}
