import { proposeCuts, sayReasons, SURE_FROM } from '@crow/core/sorting/cuts';
import { keptPiles } from './piles/kept';

/** How well cuts are proposed in made piles that have been read: node scripts/bench.mjs sorting FOLDER [list] */
const [folder, list] = process.argv.slice(2);
let [hits, said, real, gaps, sure, sureRight, milliseconds] = [0, 0, 0, 0, 0, 0, 0];
for (const { seed, pages, documents } of keptPiles(folder)) {
  const began = performance.now();
  const proposals = proposeCuts(pages);
  milliseconds += performance.now() - began;
  let before = -1;
  proposals.forEach((proposal, at) => {
    if (documents[at] < 0) return;
    const begins = documents[at] !== before;
    before = documents[at];
    if (!proposal) return;
    gaps++;
    const cut = proposal.chance >= 0.5;
    if (begins) real++;
    if (cut) said++;
    if (cut && begins) hits++;
    if (proposal.sure) {
      sure++;
      if (cut === begins) sureRight++;
    }
    if (list && cut !== begins)
      console.log(
        `pile ${seed} page ${at + 1}: said ${proposal.chance.toFixed(2)}${proposal.sure ? ' sure' : ''}, ${begins ? 'begins' : 'goes on'}; ${sayReasons(proposal.why, proposal.chance).join('; ')}`,
      );
  });
}
console.log(
  `${gaps} gaps, ${real} beginnings: F1 ${((2 * hits) / (said + real)).toFixed(4)}; sure (from ${SURE_FROM}) of ${((100 * sure) / gaps).toFixed(1)} %, right ${(sureRight / sure).toFixed(4)}; ${(milliseconds / gaps).toFixed(2)} ms a gap`,
);
