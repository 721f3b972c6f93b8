import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Kind, KINDS } from '@crow/core/reading/facts/kindList';
import { wordingOf } from '@crow/core/reading/facts/kindModel';
import { fold, rowsOf } from '@crow/core/reading/facts/rows';
import { PageText } from '@crow/core/reading/words';
import { PHRASES } from './kinds/phrases';

/**
 * Fits what the words of a paper say of its kind to forms that were read, and to what papers of each kind say, and writes it down:
 * node scripts/bench.mjs trainKinds FOLDER [write] [without SET]
 * FOLDER holds a folder for each set of bench/forms, as bench/forms.ts keeps what it read. Logistic regression with a penalty, by gradient
 * descent with momentum (Polyak 1964). First each set is left out in turn, and told by what was learnt from the others; what was learnt without
 * a set tells how a set is read that is new.
 */
const [folder, ...options] = process.argv.slice(2);
const without = options.includes('without') ? options[options.indexOf('without') + 1] : undefined;
const PENALTY = 1e-4;
const [ROUNDS, RATE, MOMENTUM] = [150, 2, 0.9];
/** What is told by something must be found in so many sets; what says less than this is left out. */
const [LEAST_SETS, LEAST_WEIGHT] = [3, 0.15];
/** Names, places and goods of the scenario are on nearly all forms, and say nothing of other people's papers. */
const OF_THE_SCENARIO =
  /castell|^imre|wickfor|^loom$|emden|norden|douarn|hafenga|webstuh|^quay|harbour|_loom|loom_|wool|wolle|yarn|garn|merin|linen|leinen|looms?|weav|weber|(?:^|_)dyes?(?:_|$)|farber|strang(?!e)|spinn|heddle|studio|craft|pebble|saltmar/;

interface Paper {
  set: string;
  kind: number;
  signs: string[];
}
interface Model {
  signs: Map<string, Float64Array>;
  usual: Float64Array;
}

const forms = readdirSync('bench/forms').flatMap(formsOf);
const phrases = Object.entries(PHRASES).flatMap(([kind, texts]) =>
  texts.map((text, at): Paper => paperOf(`phrases ${at % 3}`, kind, text.split('. ').map(fold))),
);
if (!without) report();
if (options.includes('write')) writeDown(fitted([...forms.filter(({ set }) => set !== without), ...phrases]));

function formsOf(set: string): Paper[] {
  return readdirSync(join('bench/forms', set))
    .map((name) => {
      const source = readFileSync(join('bench/forms', set, name), 'utf8');
      const truth = JSON.parse(/<script type="application\/json">([\s\S]*?)<\/script>/.exec(source)![1]) as {
        kind?: string;
      };
      const kept = join(folder, set, name.replace('.html', '.json'));
      const pages = JSON.parse(readFileSync(kept, 'utf8')) as PageText[];
      const lines = rowsOf(pages).map(({ folded }) => folded);
      return paperOf(set, truth.kind ?? 'none', lines);
    })
    .filter(({ kind }) => kind >= 0);
}

function paperOf(set: string, kind: string, lines: string[]): Paper {
  const signs = [...wordingOf(lines)].filter((sign) => !OF_THE_SCENARIO.test(sign));
  return { set, kind: KINDS.indexOf(kind as Kind), signs };
}

function fitted(papers: readonly Paper[]): Model {
  const sets = new Map<string, Set<string>>();
  for (const { set, signs } of papers) for (const sign of signs) sets.set(sign, (sets.get(sign) ?? new Set()).add(set));
  const signs = new Map<string, Float64Array>();
  // What is said in so many words is no chance.
  const isSaid = (names: Set<string>) => [...names].some((name) => name.startsWith('phrases'));
  for (const [sign, names] of sets)
    if (names.size >= (isSaid(names) ? 2 : LEAST_SETS)) signs.set(sign, new Float64Array(KINDS.length));
  const counts = KINDS.map((_, kind) => papers.filter((paper) => paper.kind === kind).length);
  const usual = Float64Array.from(counts, (count) => Math.log(count / papers.length + 1e-3));
  // A kind that is seldom counts more for each of its papers.
  const worth = counts.map((count) => 1 / Math.sqrt(Math.max(1, count)));
  const mean = papers.reduce((sum, { kind }) => sum + worth[kind], 0) / papers.length;
  const known = papers.map((paper) => ({ paper, on: paper.signs.filter((sign) => signs.has(sign)) }));
  const moves = new Map([...signs.keys()].map((sign) => [sign, new Float64Array(KINDS.length)]));
  for (let round = 0; round < ROUNDS; round++) {
    const slopes = new Map<string, Float64Array>();
    for (const { paper, on } of known) {
      const share = 1 / Math.sqrt(Math.max(1, on.length));
      const chances = chancesOf({ signs, usual }, on);
      for (const sign of on) {
        const slope = slopes.get(sign) ?? new Float64Array(KINDS.length);
        slopes.set(sign, slope);
        for (let kind = 0; kind < KINDS.length; kind++)
          slope[kind] +=
            ((chances[kind] - Number(kind === paper.kind)) * share * worth[paper.kind]) / mean / papers.length;
      }
    }
    for (const [sign, weight] of signs) {
      const [move, slope] = [moves.get(sign)!, slopes.get(sign)!];
      for (let kind = 0; kind < KINDS.length; kind++) {
        move[kind] = MOMENTUM * move[kind] - RATE * (slope[kind] + PENALTY * weight[kind]);
        weight[kind] += move[kind];
      }
    }
  }
  return { signs, usual };
}

function chancesOf({ signs, usual }: Model, all: readonly string[]): number[] {
  const on = all.flatMap((sign) => signs.get(sign) ?? []);
  const share = 1 / Math.sqrt(Math.max(1, on.length));
  const scores = [...usual];
  for (const weight of on) for (let kind = 0; kind < scores.length; kind++) scores[kind] += weight[kind] * share;
  const most = Math.max(...scores);
  const chances = scores.map((score) => Math.exp(score - most));
  const sum = chances.reduce((whole, chance) => whole + chance, 0);
  return chances.map((chance) => chance / sum);
}

/** How many are told right of each set when it is left out, and how right those are that are told as surely as each other. */
function report(): void {
  const told: { chance: number; right: boolean }[] = [];
  for (const set of new Set(forms.map((each) => each.set))) {
    const model = fitted([...forms.filter((each) => each.set !== set), ...phrases]);
    const own = forms.filter((each) => each.set === set);
    const here = own.map(({ kind, signs }) => {
      const chances = chancesOf(model, signs);
      const chance = Math.max(...chances);
      return { chance, right: chances.indexOf(chance) === kind };
    });
    told.push(...here);
    console.log(`${set}: ${here.filter(({ right }) => right).length} of ${own.length}`);
  }
  const share = (some: typeof told) => (some.filter(({ right }) => right).length / some.length).toFixed(3);
  console.log(`left out in turn: ${share(told)} of ${told.length}`);
  told.sort((one, other) => one.chance - other.chance);
  const part = Math.ceil(told.length / 5);
  for (let from = 0; from < told.length; from += part) {
    const some = told.slice(from, from + part);
    console.log(`  from ${some[0].chance.toFixed(2)} to ${some.at(-1)!.chance.toFixed(2)}: ${share(some)} right`);
  }
}

function writeDown({ signs, usual }: Model): void {
  const told = KINDS.flatMap((kind, at) => {
    const listed = [...signs]
      .filter(([, weight]) => Math.abs(weight[at]) >= LEAST_WEIGHT)
      .sort(([one], [other]) => (one < other ? -1 : 1))
      .map(([sign, weight]) => `${sign}=${Math.round(weight[at] * 100)}`);
    return listed.length > 0 ? [[kind, listed.join(' ')] as const] : [];
  });
  const key = (kind: string) => (kind.includes(' ') ? `'${kind}'` : kind);
  const seen = KINDS.flatMap((kind, at) =>
    usual[at] > Math.log(2e-3) ? [`    ${key(kind)}: ${usual[at].toFixed(2)},`] : [],
  );
  writeFileSync(
    'core/reading/facts/kindWeights.ts',
    `import { Kind } from './kindList';

/**
 * How usual each kind is (the logarithm of its share), and what each word or pair of words says for a paper being of a kind (above 0) or
 * against it, in hundredths: made by \`bench/trainKinds.ts\`.
 */
export const KIND_WEIGHTS: Record<'usual', Partial<Record<Kind, number>>> & Record<'signs', Partial<Record<Kind, string>>> = {
  usual: {
${seen.join('\n')}
  },
  signs: {
${told.map(([kind, listed]) => `    ${key(kind)}: '${listed}',`).join('\n')}
  },
};
`,
  );
}
