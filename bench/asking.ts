/**
 * Questions over a made shelf of 2,000 papers: how many are answered right, and how many that nothing answers are answered all the same.
 * Usage: node scripts/bench.mjs asking [known|aside|fresh|third|fourth] [--all]
 */
import { answerFrom, namesOn, NoAnswer, ShelfAnswer } from '@crow/core/finding/asking/answer';
import { AskedPaper } from '@crow/core/finding/asking/paper';
import { understand } from '@crow/core/finding/asking/understand';
import { kindTraits, Kind } from '@crow/core/reading/facts/kindList';
import { Money } from '@crow/core/money';
import { sumsOf } from '@crow/core/shelf/addUp';
import { ASIDE } from './asking/aside';
import { Key, Question } from './asking/key';
import { FRESH, freshShelf } from './asking/fresh';
import { KNOWN } from './asking/known';
import { LAST } from './asking/last';
import { EIGHTH } from './asking/eighth';
import { FIFTH } from './asking/fifth';
import { FOURTH, fourthShelf } from './asking/fourth';
import { SEVENTH } from './asking/seventh';
import { SIXTH } from './asking/sixth';
import { THIRD, thirdShelf } from './asking/third';
import { madeShelf, TODAY } from './asking/shelf';

const like = (kind: string) => kind as Kind;
let papers = madeShelf();
let names = namesOn(papers, []);

const sorted = (sums: readonly Money[]) =>
  sums
    .filter(({ units }) => units !== 0)
    .map(({ units, currency }) => `${units} ${currency}`)
    .sort()
    .join();
const repeats = ({ kind }: AskedPaper) => Boolean(kindTraits[like(kind!)].repeats);
/** A contract says what it costs where whoever it is with sends no bills. */
const counts = (paper: AskedPaper) =>
  !repeats(paper) ||
  (paper.kind === 'contract' &&
    !papers.some((other) => other.vendor === paper.vendor && other.total && !repeats(other)));
const latest = (all: AskedPaper[], fact: 'date' | 'dueDate' | 'ends') =>
  all.toSorted((a, b) => (a[fact]! < b[fact]! ? 1 : -1));

function isRight(key: NonNullable<Key>, answer: ShelfAnswer): boolean {
  const ids = new Set(answer.sources.map(({ paper }) => paper.id));
  const same = (all: AskedPaper[]) => all.length === ids.size && all.every(({ id }) => ids.has(id));
  const summed = (test: (paper: AskedPaper) => boolean, field: 'total' | 'tax' | 'net' = 'total') =>
    papers.filter((paper) => test(paper) && counts(paper) && paper[field] !== null);
  if ('sum' in key) {
    const meant = summed(key.sum, key.field);
    return (
      sorted(answer.sums) === sorted(sumsOf(meant.map((paper) => ({ total: paper[key.field ?? 'total'] })))) &&
      same(meant)
    );
  }
  if ('lines' in key) {
    const meant = papers.filter(key.of).flatMap((paper) => {
      const units = paper.lines
        .filter(({ description }) => key.lines.test(description))
        .reduce((sum, { amount }) => sum + Math.round(100 * amount), 0);
      return units === 0 ? [] : [{ total: { units, currency: paper.total!.currency } }];
    });
    return sorted(answer.sums) === sorted(sumsOf(meant));
  }
  if ('count' in key) return answer.count === papers.filter(key.count).length;
  if ('average' in key) {
    const meant = summed(key.average);
    return (
      answer.sums.length === 1 &&
      Math.abs(answer.sums[0].units - meant.reduce((sum, { total }) => sum + total!.units, 0) / meant.length) <= 0.5
    );
  }
  if ('day' in key) {
    const having = latest(
      papers.filter((paper) => key.day(paper) && paper[key.fact] !== null),
      key.fact,
    );
    return answer.days.length === 1 && answer.days[0].day === having.at(key.which === 'first' ? -1 : 0)![key.fact];
  }
  if ('papers' in key) return same(papers.filter(key.papers));
  if ('most' in key) {
    const best = papers
      .filter((paper) => key.most(paper) && paper.total)
      .reduce((one, other) => (other.total!.units > one.total!.units !== Boolean(key.least) ? other : one));
    return answer.sums.some((sum) => sorted([sum]) === sorted([best.total!]));
  }
  if ('latest' in key) {
    const [last] = latest(papers.filter(key.latest), 'date');
    return sorted(answer.sums) === sorted([last.total!]);
  }
  if ('who' in key)
    return (
      answer.who
        .map(({ name }) => name)
        .sort()
        .join() === [...new Set(papers.filter(key.who).map(({ vendor }) => vendor!))].sort().join()
    );
  if ('whoMost' in key) {
    const meant = summed(key.whoMost);
    const [main] = sumsOf(meant);
    const by = new Map<string, number>();
    for (const { vendor, total } of meant)
      if (total!.currency === main.currency) by.set(vendor!, (by.get(vendor!) ?? 0) + total!.units);
    return answer.who[0]?.name === [...by].sort(([, a], [, b]) => b - a)[0][0];
  }
  if ('value' in key)
    return answer.values.join() === [...new Set(papers.filter(key.of).map((paper) => paper[key.value]))].join();
  return (
    sorted(answer.sums) === sorted(sumsOf(summed(key.first))) &&
    sorted(answer.against ?? []) === sorted(sumsOf(summed(key.second)))
  );
}

const say = (answer: ShelfAnswer | NoAnswer) =>
  'cannot' in answer
    ? JSON.stringify(answer)
    : `${answer.sources.length} papers ${sorted(answer.sums)} | ${sorted(answer.against ?? [])} | ${answer.count} | ${answer.days.map(({ day }) => day).join()} | ${answer.who
        .slice(0, 3)
        .map(({ name }) => name)
        .join()} | ${answer.values.join()}`;

function measure(title: string, questions: readonly Question[], all: boolean): void {
  let [right, wrong, silent, invented, unanswerable] = [0, 0, 0, 0, 0];
  const began = performance.now();
  let slowest = 0;
  for (const { q, key } of questions) {
    const start = performance.now();
    const understood = understand(q, names, TODAY);
    const answer = 'cannot' in understood ? understood : answerFrom(understood, { papers, like, today: TODAY });
    slowest = Math.max(slowest, performance.now() - start);
    const isAnswered = !('cannot' in answer);
    const isGood = key === null ? !isAnswered : isAnswered && isRight(key, answer);
    if (key === null) {
      unanswerable++;
      if (isAnswered) invented++;
    } else if (isGood) right++;
    else if (isAnswered) wrong++;
    else silent++;
    if (all || !isGood)
      console.log(isGood ? 'ok ' : 'BAD', q, '\n    ', JSON.stringify(understood), '\n    ', say(answer));
  }
  const answerable = questions.length - unanswerable;
  console.log(
    `${title}: ${right} of ${answerable} right (${(right / answerable).toFixed(3)}), ${wrong} wrong, ${silent} not answered; ` +
      `${invented} of ${unanswerable} answered that nothing answers; of given answers true ${(right / (right + wrong + invented)).toFixed(3)}; ` +
      `${((performance.now() - began) / questions.length).toFixed(1)} ms each, slowest ${slowest.toFixed(0)} ms`,
  );
}

const [which] = process.argv.slice(2).filter((each) => !each.startsWith('--'));
const all = process.argv.includes('--all');
console.log(`${papers.length} papers`);
if (which === 'known' || !which) measure('known', KNOWN, all);
if (which === 'aside' || !which) measure('aside', ASIDE, all);
if (which === 'fresh' || !which) {
  papers = freshShelf();
  names = namesOn(papers, []);
  measure('fresh', FRESH, all);
  measure('last', LAST, all);
  measure('seventh', SEVENTH, all);
}
if (which === 'third' || !which) {
  papers = thirdShelf();
  names = namesOn(papers, []);
  measure('third', THIRD, all);
  measure('sixth', SIXTH, all);
}
if (which === 'fourth' || !which) {
  papers = fourthShelf();
  names = namesOn(papers, []);
  measure('fourth', FOURTH, all);
  measure('fifth', FIFTH, all);
  measure('eighth', EIGHTH, all);
}
