import { typedFacts } from '@crow/core/reading/testing/typed';
import { first } from './labels/first';
import { others } from './labels/others';
import { LabelPaper, Labels, paperOfKind, papersOf } from './labels/papers';
import { second } from './labels/second';

/**
 * Types one paper for each of the many things that numbers, days, sums and kinds are called, all else on it being usual, and says
 * how many are understood: node scripts/bench.mjs labels SET [list] [PART]
 * SET is first (labels that rules were written against), second (written before that, and measured before anything was mended for it)
 * or others (balances, policies, times, what credit notes are about, titles of other kinds; rules were written against it); PART is a part of a group's name, such as “de due”.
 */
const [set, ...options] = process.argv.slice(2);
const list = options.includes('list');
const part = options.find((option) => option !== 'list') ?? '';
const labels: Labels = set === 'second' ? second : first;

interface Group {
  right: number;
  all: number;
  wrong: string[];
}
const groups = new Map<string, Group>();

/** Asks for the facts of a paper, and keeps what came out. */
function ask(name: string, label: string, { way, text, truth }: LabelPaper): void {
  if (!name.includes(part)) return;
  const group = groups.get(name) ?? { right: 0, all: 0, wrong: [] };
  groups.set(name, group);
  const found = typedFacts(text);
  // What is given back is less than nothing.
  const value = (fact: string) =>
    typeof found[fact] === 'number' && found.kind === 'credit note' ? Math.abs(found[fact]) : found[fact];
  const wrong = Object.keys(truth).filter((fact) => value(fact) !== truth[fact]);
  group.all++;
  if (wrong.length === 0) group.right++;
  else group.wrong.push(`${label} (${way}): ${wrong.map((fact) => `${fact} ${String(found[fact])}`).join(', ')}`);
}

if (set === 'others')
  for (const { name, labels: called, text, truth } of others)
    for (const label of called.split('|'))
      ask(name, label, {
        way: 'in its place',
        text: text.replace('{label}', label).replace('{label:38}', label.padEnd(38)),
        truth,
      });
else askUsual();

function askUsual(): void {
  for (const language of ['en', 'de', 'fr'] as const)
    for (const fact of ['number', 'date', 'due', 'total', 'net', 'tax'] as const)
      for (const label of labels[language][fact].split('|'))
        for (const paper of papersOf(language, fact, label)) ask(`${language} ${fact}`, label, paper);
  for (const [kind, titles] of Object.entries(labels.kinds))
    for (const title of titles.split('|')) ask(`kind ${kind}`, title, paperOfKind(kind, title));
}

let [right, all] = [0, 0];
for (const [name, group] of groups) {
  right += group.right;
  all += group.all;
  console.log(`${name}: ${group.right} of ${group.all}`);
  if (list) for (const each of group.wrong) console.log(`  ${each}`);
}
console.log(`${set}: ${right} of ${all} right (${(right / all).toFixed(3)})`);
