import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PageText } from '@crow/core/reading/words';
import { proposeCuts, sayReasons } from '@crow/core/sorting/cuts';
import { signsOf } from '@crow/core/sorting/signs';
import { Chance } from './piles/chance';

/**
 * How well cuts are proposed in piles of papers of unusual forms, one behind the other by chance, from what bench/forms.ts kept of them:
 * node scripts/bench.mjs formPiles PILES FOLDER… (a number of piles for each folder)
 */
const [piles, ...folders] = process.argv.slice(2);
const POINTS = 72 / 200;
let [gaps, hits, said, real, sure, sureRight] = [0, 0, 0, 0, 0, 0];
for (const folder of folders) {
  const kept = readdirSync(folder)
    .filter((name) => name.endsWith('.json'))
    .sort()
    .map((name) => ({ name, texts: JSON.parse(readFileSync(join(folder, name), 'utf8')) as PageText[] }));
  for (let seed = 1; seed <= Number(piles); seed++) {
    const chance = new Chance(seed);
    const pages = chance
      .shuffled(kept)
      .flatMap(({ name, texts }) => texts.map((text, number) => ({ name, number, text, size: sizeOf(text) })));
    const proposals = proposeCuts(
      pages.map(({ text, size }) => ({ signs: signsOf(text, size), size, blank: text.words.length === 0 })),
    );
    proposals.forEach((proposal, at) => {
      if (!proposal || at === 0) return;
      const { name, number } = pages[at];
      const [begins, cut] = [number === 0, proposal.chance >= 0.5];
      gaps++;
      if (begins) real++;
      if (cut) said++;
      if (cut && begins) hits++;
      if (proposal.sure) sure++;
      if (proposal.sure && cut === begins) sureRight++;
      if (cut !== begins)
        console.log(
          `${folder} ${seed}: ${pages[at - 1].name} | ${name} ${number + 1}: said ${proposal.chance.toFixed(2)}${proposal.sure ? ' sure' : ''}; ${sayReasons(proposal.why, proposal.chance).join('; ')}`,
        );
    });
  }
}
console.log(
  `${gaps} gaps, ${real} beginnings: F1 ${((2 * hits) / (said + real)).toFixed(4)}; sure of ${((100 * sure) / gaps).toFixed(1)} %, wrong ${sure - sureRight}`,
);

function sizeOf({ width, height }: PageText): [number, number] {
  return [width * POINTS, height * POINTS];
}
