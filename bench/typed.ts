import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { typed } from '@crow/core/reading/testing/typed';
import { FactScore } from './factScore';

/**
 * What papers say that are typed as text (bench/typed: each with a name, its lines, and what it says), without printing and reading them:
 * node scripts/bench.mjs typed SET [list]
 * SET is a file of bench/typed; the facts of each were asked for once before anything was mended for them, and they are looked at since.
 */
const [set, list] = process.argv.slice(2);
const score = new FactScore();
for (const paper of readFileSync(join('bench/typed', `${set}.txt`), 'utf8')
  .split(/^=== /m)
  .slice(1)) {
  const [name, ...lines] = paper.trimEnd().split('\n');
  const truth = JSON.parse(lines.at(-1)!.replace(/^--- /, '')) as Record<string, unknown>;
  const said = score.add(truth, findFacts([typed(lines.slice(0, -1).join('\n'))]));
  if (list) console.log(`${name}: ${said}`);
}
console.log(`${set}: ${score.toString()}`);
