import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Fact } from '@crow/core/reading/facts/fact';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { Word } from '@crow/core/reading/words';
import { readSheets } from '@crow/server/cli/sheets';
import { inspectFile } from '@crow/server/engines/sourceFile';
import { ReadingPaper } from './reading/paper';

/**
 * Reads made papers (see makePapers) and says how many of their words and facts come out right, beside the engine alone:
 * node scripts/bench.mjs reading FOLDER [LANGUAGES] [engine|facts|all] [NUMBERS]
 * `engine` reads with the engine alone as well, in each paper's own language; `all` tells of every paper what went wrong.
 */
const [folder, languages = 'eng,deu,fra', how = '', only] = process.argv.slice(2);
type Truth = Omit<ReadingPaper, 'pdf'>;
const names = readdirSync(folder)
  .filter((name) => /\.(jpg|png)$/.test(name))
  .filter((name) => !only || only.split(',').includes(name.split('.')[0]))
  .sort((a, b) => parseInt(a) - parseInt(b));

interface Count {
  hits: number;
  truth: number;
  found: number;
  milliseconds: number;
}
const none = (): Count => ({ hits: 0, truth: 0, found: 0, milliseconds: 0 });
const [ours, alone] = [none(), none()];
const calibration = new Map<number, { right: number; all: number }>();
const FACTS = ['kind', 'vendor', 'date', 'dueDate', 'number', 'currency', 'net', 'tax', 'taxRate', 'total'] as const;
const facts = new Map<string, { right: number; said: number; missing: number; sureWrong: number; extra: number }>(
  FACTS.map((name) => [name, { right: 0, said: 0, missing: 0, sureWrong: 0, extra: 0 }]),
);
const lines = { right: 0, truth: 0, found: 0 };
const SURE = 0.9;

for (const name of names) {
  const path = join(folder, name);
  const truth = JSON.parse(readFileSync(`${path.replace(/\.\w+$/, '')}.json`, 'utf8')) as Truth;
  const must = comparable(truth.words.filter(({ optional }) => !optional).map(({ text }) => text));
  const may = comparable(truth.words.filter(({ optional }) => optional).map(({ text }) => text));
  let began = performance.now();
  const info = await inspectFile(path, name);
  const sheets = await readSheets(info, 0, languages.split(','));
  const words = sheets.flatMap(({ text }) => text.words);
  ours.milliseconds += performance.now() - began;
  const { missed, extra } = compare(ours, must, may, comparable(words.map(({ text }) => text)));
  calibrate(words, extra);
  const wrong = judgeFacts(truth, findFacts(sheets.map(({ text }) => text)));
  if (how === 'all' && (missed.length > 0 || extra.length > 0 || wrong.length > 0))
    console.log(
      `${name} ${truth.facts.kind} ${truth.language}${sheets[0]?.text.language === truth.language ? '' : ` read as ${sheets[0]?.text.language}`}: missed ${missed.join(' ')} | instead ${extra.join(' ')}${wrong.length > 0 ? `\n    ${wrong.join('; ')}` : ''}`,
    );
  if (how !== 'engine') continue;
  began = performance.now();
  const text = execFileSync('tesseract', [path, 'stdout', '-l', truth.language, '--dpi', '200'], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
    env: { ...process.env, OMP_THREAD_LIMIT: '1' },
  });
  alone.milliseconds += performance.now() - began;
  compare(alone, must, may, comparable(text.split(/\s+/)));
}

const share = (part: number, of: number) => (of === 0 ? '-' : (part / of).toFixed(4));
const report = ({ hits, truth, found, milliseconds }: Count) =>
  `recall ${share(hits, truth)} precision ${share(hits, found)}, ${Math.round(milliseconds / names.length)} ms a page`;
console.log(`${names.length} papers, ${ours.truth} words: ${report(ours)}`);
if (how === 'engine')
  console.log(`the engine alone: ${report(alone)}; time ratio ${share(ours.milliseconds, alone.milliseconds)}`);
console.log(
  'called sure to',
  [...calibration]
    .sort(([a], [b]) => a - b)
    .map(([said, { right, all }]) => `${said.toFixed(2)}: ${share(right, all)} of ${all}`)
    .join(', '),
);
for (const [name, { right, said, missing, sureWrong, extra }] of facts)
  console.log(
    name,
    `right ${share(right, said + missing)} of ${said + missing}; ${missing} missing, ${said - right} wrong, ${sureWrong} of them sure; ${extra} where there is none`,
  );
console.log(`lines: recall ${share(lines.right, lines.truth)} precision ${share(lines.right, lines.found)}`);

/** Words with letters or figures; apostrophes of both kinds count as one. */
function comparable(words: string[]): string[] {
  return words.map((word) => word.replace(/[’‘]/g, "'")).filter((word) => /[\p{L}\p{N}]/u.test(word));
}

function compare(count: Count, must: string[], may: string[], found: string[]): { missed: string[]; extra: string[] } {
  const left = new Map<string, number>();
  for (const word of found) left.set(word, (left.get(word) ?? 0) + 1);
  const take = (word: string) => {
    const number = left.get(word) ?? 0;
    if (number > 0) left.set(word, number - 1);
    return number > 0;
  };
  const missed = must.filter((word) => !take(word));
  const stamped = may.filter(take).length;
  count.hits += must.length - missed.length;
  count.truth += must.length;
  count.found += found.length - stamped;
  return { missed, extra: [...left].flatMap(([word, number]) => Array<string>(number).fill(word)) };
}

function calibrate(words: Word[], extra: string[]): void {
  const wrong = new Map<string, number>();
  for (const word of extra) wrong.set(word, (wrong.get(word) ?? 0) + 1);
  for (const { text, confidence } of words) {
    const [plain] = comparable([text]);
    if (!plain) continue;
    const bad = (wrong.get(plain) ?? 0) > 0;
    if (bad) wrong.set(plain, wrong.get(plain)! - 1);
    const bin = confidence >= 0.99 ? 0.99 : confidence >= 0.9 ? 0.9 : Math.floor(confidence * 5) / 5;
    const seen = calibration.get(bin) ?? { right: 0, all: 0 };
    seen.all++;
    if (!bad) seen.right++;
    calibration.set(bin, seen);
  }
}

function judgeFacts(truth: Truth, found: ReturnType<typeof findFacts>): string[] {
  const wrong: string[] = [];
  const given = found as unknown as Record<string, Fact<unknown> | null>;
  for (const name of FACTS) {
    const [expected, fact] = [truth.facts[name], given[name] ?? null];
    const count = facts.get(name)!;
    if (expected === null) {
      if (fact) count.extra++;
      if (fact) wrong.push(`${name} ${String(fact.value)} where there is none (${fact.confidence.toFixed(2)})`);
      continue;
    }
    if (!fact) {
      count.missing++;
      wrong.push(`${name} ${expected} missing`);
      continue;
    }
    count.said++;
    const right =
      typeof expected === 'number'
        ? Math.abs(Number(fact.value) - expected) < 0.005
        : normal(String(fact.value)) === normal(expected);
    if (right) count.right++;
    else {
      if (fact.confidence >= SURE) count.sureWrong++;
      wrong.push(`${name} ${expected} as ${String(fact.value)} (${fact.confidence.toFixed(2)})`);
    }
  }
  const foundLines = (given.lines?.value ?? []) as { description: string; amount: number }[];
  const left = foundLines.map(({ amount }) => amount);
  for (const { amount } of truth.facts.lines) {
    const at = left.findIndex((value) => Math.abs(value - amount) < 0.005);
    if (at >= 0) {
      left.splice(at, 1);
      lines.right++;
    }
  }
  lines.truth += truth.facts.lines.length;
  lines.found += foundLines.length;
  return wrong;
}

function normal(text: string): string {
  return text.toLowerCase().replace(/[’‘]/g, "'").replace(/\s+/g, ' ').trim();
}
