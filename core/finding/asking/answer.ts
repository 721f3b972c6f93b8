import { Money, moneyOf } from '../../money';
import { sumsOf } from '../../shelf/addUp';
import { groupBy } from '../../shelf/groupBy';
import { Kind, kindTraits } from '../../reading/facts/kindList';
import { AskedPaper } from './paper';
import { isTopic, partsOf, stemOf, wordsMeaning } from './topics';
import { plainQuestion } from './text';
import { ShelfNames } from './understand';
import {
  DAY_FACTS,
  MONEY_FACTS,
  VALUE_FACTS,
  DayFact,
  MoneyFact,
  NotSaid,
  Period,
  Rate,
  Understood,
  ValueFact,
} from './understood';

/** Where on a paper the answer stands: a fact, or one of its lines. */
export interface Source {
  paper: AskedPaper;
  fact: string | null;
  /** What it adds to the sum, where one is asked for. */
  money: Money | null;
  /** What its lines say that are meant, where not the whole paper is. */
  lines: string[];
}

/** An answer from the papers of the shelf, with all that it comes from. */
export interface ShelfAnswer {
  /** Sums, averages, or single amounts, by currency. */
  sums: Money[];
  /** Over how many units of time an average is spread; null for one of papers. */
  over: number | null;
  /** The sums of the period that it is set beside. */
  against: Money[] | null;
  count: number | null;
  /** A day for each sender, or contract, that is meant. */
  days: { day: string; paper: AskedPaper }[];
  /** Senders, the one that was paid most first where that is asked. */
  who: { name: string; sums: Money[] }[];
  values: string[];
  /** Every paper that the answer comes from, the latest first. */
  sources: Source[];
  /** Papers that say the same sum as another one, and were not counted, by kind. */
  leftOut: { kind: string; papers: number }[];
}

/** Why the shelf has no answer. */
export type NoAnswer =
  | NotSaid
  /** No paper is about these words. */
  | { cannot: 'about'; words: string[] }
  /** There are papers, but none of that time, sum or kind. */
  | { cannot: 'none such' }
  /** The papers that are meant do not say it. */
  | { cannot: 'not on them'; papers: number };

export interface Shelf {
  papers: readonly AskedPaper[];
  /** The kind of the list that papers of a kind are like. */
  like: (kind: string) => Kind;
  /** ISO 8601. */
  today: string;
}

/** The names that papers have, by which questions are understood. */
export function namesOn(papers: readonly AskedPaper[], ownKinds: readonly string[]): ShelfNames {
  const distinct = (values: (string | null)[]) => [...new Set(values.filter((value) => value !== null))];
  return {
    senders: distinct(papers.map(({ vendor }) => vendor)),
    folders: distinct(papers.map(({ folder }) => folder)),
    ownKinds,
  };
}

/** Answers a question that was understood, from the facts of the papers; or says why not. */
export function answerFrom(understood: Understood, shelf: Shelf): ShelfAnswer | NoAnswer {
  const { wants, about, who, kinds, folder, period, against, by } = understood;
  if (!isOf(wants, understood.fact)) return { cannot: 'words' };
  const wide = shelf.papers.filter(
    (paper) =>
      (who.length === 0 || who.includes(paper.vendor ?? '')) &&
      (folder === null || paper.folder === folder || (paper.folder ?? '').startsWith(`${folder}/`)),
  );
  const found = aboutWords(about, wide, shelf);
  if ('cannot' in found) return found;
  const fits = (when: Period | null) => (each: Meant) =>
    (kinds.length === 0 || kinds.includes(each.paper.kind ?? '')) &&
    isIn(each.paper[by], when) &&
    isBetween(each.paper.total, understood.amounts);
  const meant = found.meant.filter(fits(period));
  if (meant.length === 0 && !against) return { cannot: 'none such' };
  const blank: ShelfAnswer = {
    sums: [],
    over: null,
    against: null,
    count: null,
    days: [],
    who: [],
    values: [],
    sources: [],
    leftOut: [],
  };
  const named = (each: Meant, fact: string | null, money: Money | null = null): Source => ({
    paper: each.paper,
    fact: each.lines.length > 0 ? null : fact,
    money,
    lines: each.lines.map(({ description }) => description),
  });
  switch (wants) {
    case 'papers':
      return {
        ...blank,
        count: meant.length,
        sources: latestFirst(meant).map((each) => named(each, by === 'date' ? null : by, each.paper.total)),
      };
    case 'count':
      return { ...blank, count: meant.length, sources: latestFirst(meant).map((each) => named(each, null)) };
    case 'day':
      return dayAnswer(understood, meant, shelf, blank, named);
    case 'value':
      return valueAnswer(understood.fact as ValueFact, meant, blank, named);
    case 'who': {
      const senders = [...new Set(latestFirst(meant).flatMap(({ paper }) => paper.vendor ?? []))];
      if (senders.length === 0) return { cannot: 'not on them', papers: meant.length };
      return {
        ...blank,
        who: senders.map((name) => ({ name, sums: [] })),
        sources: latestFirst(meant).map((each) => named(each, 'vendor')),
      };
    }
    default:
      return moneyAnswer(understood, found.meant, meant, fits(against), shelf, blank, named);
  }
}

/** Whether a fact can be what is wanted: a day where it is asked when, money where it is asked how much. */
function isOf(wants: Understood['wants'], fact: Understood['fact']): boolean {
  const among: readonly string[] = wants === 'day' ? DAY_FACTS : wants === 'value' ? VALUE_FACTS : MONEY_FACTS;
  return ['papers', 'count', 'who'].includes(wants) || among.includes(fact);
}

/** A paper that is meant, and, where only some of its lines are, those. */
interface Meant {
  paper: AskedPaper;
  lines: { description: string; amount: number }[];
}
type Named = (each: Meant, fact: string | null, money?: Money | null) => Source;

/** How much of what a sender charges must be for something of a topic for the sender to be of that trade. */
const OF_THE_TRADE = 0.5;

/** Papers that are about words, by who sent them, where they are and what they are called; if none is, lines that are. */
function aboutWords(
  about: readonly string[],
  papers: readonly AskedPaper[],
  shelf: Shelf,
): { meant: Meant[] } | { cannot: 'about'; words: string[] } {
  if (about.length === 0) return { meant: papers.map((paper) => ({ paper, lines: [] })) };
  const matchers = about.map((word) => matcherOf(word));
  const trades = about.map((word, at) => (isTopic(word) ? tradesIn(shelf.papers, matchers[at]) : new Set<string>()));
  const isAbout = (paper: AskedPaper, at: number) =>
    [paper.vendor, paper.folder, paper.subject, paper.name, paper.kind, ...paper.tags, paper.note].some(
      (text) => text !== null && matchers[at](text),
    ) ||
    (paper.vendor !== null && trades[at].has(paper.vendor));
  const lacking = papers.map((paper) => matchers.map((_, at) => at).filter((at) => !isAbout(paper, at)));
  const whole = papers.filter((_, place) => lacking[place].length === 0);
  // Words that stand together in a line, and nowhere else together, mean that line: “cat food”.
  const together = (text: string | null) => text !== null && matchers.every((matches) => matches(text));
  const isNamed = papers.some(({ vendor, folder, subject, name }) => [vendor, folder, subject, name].some(together));
  if (about.length > 1 && !isNamed) {
    const listed = withLines(papers, (_, { description }) => about.every((word) => literallyHas(description, word)));
    if (listed.length > 0) return { meant: listed };
  }
  if (whole.length > 0) return { meant: whole.map((paper) => ({ paper, lines: [] })) };
  const meant = withLines(papers, (place, { description }) => lacking[place].every((at) => matchers[at](description)));
  if (meant.length > 0) return { meant };
  const nowhere = about.filter(
    (_, at) =>
      !papers.some(
        (paper, place) =>
          !lacking[place].includes(at) || paper.lines.some(({ description }) => matchers[at](description)),
      ),
  );
  return { cannot: 'about', words: nowhere.length > 0 ? nowhere : [...about] };
}

/** Papers with those of their lines that are meant. */
function withLines(
  papers: readonly AskedPaper[],
  isMeant: (place: number, line: AskedPaper['lines'][number]) => boolean,
): Meant[] {
  return papers.flatMap((paper, place): Meant[] => {
    const lines = paper.lines.filter((line) => isMeant(place, line));
    return lines.length > 0 ? [{ paper, lines }] : [];
  });
}

/** Whether a text has a word itself, in whatever ending. */
function literallyHas(text: string, word: string): boolean {
  return plainQuestion(text)
    .split(/[^\p{L}\p{N}]+/u)
    .some((each) => stemOf(each) === stemOf(word));
}

/** Whether a text has a word of a question, one that means the same, or one that is put together with it; texts are looked at once. */
function matcherOf(word: string): (text: string) => boolean {
  const [head] = partsOf(word);
  const stems = new Set([...wordsMeaning(word), ...(isTopic(head) ? wordsMeaning(head) : [])].map(stemOf));
  const seen = new Map<string, boolean>();
  return (text) => {
    let found = seen.get(text);
    if (found === undefined) {
      found = plainQuestion(text)
        .split(/[^\p{L}\p{N}]+/u)
        .some((each) => stems.has(stemOf(each)) || partsOf(each).some((part) => stems.has(stemOf(part))));
      seen.set(text, found);
    }
    return found;
  };
}

/** Senders who charge for things of a topic above all; what others charge besides, such as postage, does not make it their trade. */
function tradesIn(papers: readonly AskedPaper[], matches: (text: string) => boolean): Set<string> {
  const bySender = groupBy(
    papers.filter(({ vendor, lines }) => vendor !== null && lines.length > 0),
    ({ vendor }) => vendor!,
  );
  const charged = (lines: AskedPaper['lines']) => lines.reduce((sum, { amount }) => sum + Math.abs(amount), 0);
  return new Set(
    [...bySender].flatMap(([sender, all]) => {
      const lines = all.flatMap((paper) => paper.lines);
      const meant = lines.filter(({ description }) => matches(description));
      return meant.length > 0 && charged(meant) > OF_THE_TRADE * charged(lines) ? [sender] : [];
    }),
  );
}

function isIn(day: string | null, period: Period | null): boolean {
  if (period === null) return true;
  if (day === null) return false;
  return (period.from === null || day >= period.from) && (period.until === null || day <= period.until);
}

function isBetween(total: Money | null, amounts: Understood['amounts']): boolean {
  if (amounts === null) return true;
  if (total === null || (amounts.currency !== null && total.currency !== amounts.currency)) return false;
  const unitsOf = (amount: number) => moneyOf(amount.toFixed(4), total.currency)!.units;
  const isOpen = amounts.least === null || amounts.most === null;
  const { units } = total;
  // “Over 500” is more than that; “between 100 and 500” has both ends.
  return (
    (amounts.least === null || (isOpen ? units > unitsOf(amounts.least) : units >= unitsOf(amounts.least))) &&
    (amounts.most === null || (isOpen ? units < unitsOf(amounts.most) : units <= unitsOf(amounts.most)))
  );
}

function latestFirst(meant: readonly Meant[]): Meant[] {
  return meant.toSorted((a, b) => ((a.paper.date ?? '') < (b.paper.date ?? '') ? 1 : -1));
}

function dayAnswer(
  { fact, which, period }: Understood,
  meant: readonly Meant[],
  { today }: Shelf,
  blank: ShelfAnswer,
  named: Named,
): ShelfAnswer | NoAnswer {
  const dayOf = ({ paper }: Meant) => paper[fact as DayFact];
  const having = meant.filter((each) => dayOf(each) !== null);
  if (having.length === 0) return { cannot: 'not on them', papers: meant.length };
  // Of each contract, or whatever a sender writes about, one day.
  const one = ({ paper }: Meant) =>
    fact === 'ends' ? [paper.vendor, paper.policy ?? paper.subject].join('\n') : (paper.vendor ?? '');
  const chosen = [...groupBy(having, one).values()].flatMap((each): Meant[] => {
    const sorted = each.toSorted((a, b) => (dayOf(a)! < dayOf(b)! ? -1 : 1));
    const coming = sorted.filter((paper) => dayOf(paper)! >= today);
    if (which === 'first') return [sorted[0]];
    if (which === 'next') return coming.slice(0, 1);
    if (which === 'newest') return latestFirst(each).slice(0, 1);
    // What is due next, if anything is; what ends last, since that holds.
    if (fact === 'dueDate' && period === null && coming.length > 0) return [coming[0]];
    return [sorted.at(-1)!];
  });
  if (chosen.length === 0) return { cannot: 'none such' };
  const found = chosen.toSorted((a, b) => (dayOf(a)! < dayOf(b)! ? 1 : -1));
  return {
    ...blank,
    days: found.map((each) => ({ day: dayOf(each)!, paper: each.paper })),
    sources: found.map((each) => named({ ...each, lines: [] }, fact)),
  };
}

function valueAnswer(
  fact: ValueFact,
  meant: readonly Meant[],
  blank: ShelfAnswer,
  named: Named,
): ShelfAnswer | NoAnswer {
  const having = latestFirst(meant).filter(({ paper }) => paper[fact] !== null);
  if (having.length === 0) return { cannot: 'not on them', papers: meant.length };
  // A number of its own every paper has: that of the latest is meant.
  const sources = fact === 'number' ? having.slice(0, 1) : having;
  return {
    ...blank,
    values: [...new Set(sources.map(({ paper }) => paper[fact]!))],
    sources: sources.map((each) => named({ ...each, lines: [] }, fact)),
  };
}

const MONTHS = { month: 1, quarter: 3, year: 12 };

/**
 * By how much a sum is divided: by the papers, or by the units of time that they are of. Where no time is asked for, the last paper is
 * of as long as lies between two usually: four yearly ones are of four years.
 */
function shares(
  per: Rate,
  meant: readonly Meant[],
  { period, today }: { period: Period | null; today: string },
): number {
  if (per === 'paper') return meant.length;
  const days = meant.flatMap(({ paper }) => paper.date ?? []).sort();
  const monthOf = (day: string) => 12 * Number(day.slice(0, 4)) + Number(day.slice(5, 7));
  const [first, last] = [days[0] ?? today, days.at(-1) ?? today];
  const until = period?.until && period.until < today ? period.until : today;
  if (period) return Math.max(1, (monthOf(until) - monthOf(period.from ?? first) + 1) / MONTHS[per]);
  const gaps = days.slice(1).map((day, at) => monthOf(day) - monthOf(days[at]));
  const usual = gaps.sort((a, b) => a - b)[Math.floor((gaps.length - 1) / 2)] ?? 1;
  return Math.max(1, (monthOf(last) - monthOf(first) + Math.max(1, usual)) / MONTHS[per]);
}

function moneyAnswer(
  { wants, per, fact, kinds, period, against }: Understood,
  all: readonly Meant[],
  meant: readonly Meant[],
  fitsOther: (each: Meant) => boolean,
  { papers, like, today }: Shelf,
  blank: ShelfAnswer,
  named: Named,
): ShelfAnswer | NoAnswer {
  const isRepeated = ({ kind }: AskedPaper) => kind !== null && Boolean(kindTraits[like(kind)].repeats);
  // What a contract costs a year stands on it alone where whoever it is with sends no bills.
  const billers = new Set(
    papers.flatMap((paper) =>
      paper.total !== null && paper.vendor !== null && !isRepeated(paper) ? paper.vendor : [],
    ),
  );
  const repeats = ({ paper }: Meant) =>
    kinds.length === 0 &&
    isRepeated(paper) &&
    !(like(paper.kind!) === 'contract' && paper.vendor !== null && !billers.has(paper.vendor));
  // What a credit note lists was given back, with whatever sign it stands there.
  const isReturned = ({ kind }: AskedPaper) => kind !== null && kindTraits[like(kind)].sums === 'returned';
  const listed = (lines: Meant['lines']) => lines.reduce((sum, { amount }) => sum + amount, 0);
  const moneyIn = ({ paper, lines }: Meant): Money | null =>
    lines.length > 0 && fact === 'total'
      ? moneyOf(
          (isReturned(paper) ? -Math.abs(listed(lines)) : listed(lines)).toFixed(4),
          paper.total?.currency ?? null,
        )!
      : lines.length > 0
        ? null
        : paper[fact as MoneyFact];
  const counted = (from: readonly Meant[]) =>
    latestFirst(from.filter((each) => !repeats(each) && moneyIn(each) !== null));
  const total = (from: readonly Meant[]) => sumsOf(from.map((each) => ({ total: moneyIn(each) })));
  const having = counted(meant);
  const sourcesOf = (from: readonly Meant[]) => from.map((each) => named(each, fact, moneyIn(each)));
  const leftOut = [
    ...groupBy(
      meant.filter((each) => repeats(each) && moneyIn(each) !== null),
      ({ paper }) => paper.kind!,
    ),
  ].map(([kind, papers]) => ({ kind, papers: papers.length }));
  if (against) {
    const others = counted(all.filter(fitsOther));
    // Nothing is more or less than what the shelf knows nothing of.
    if (having.length === 0 || others.length === 0) return { cannot: 'none such' };
    return {
      ...blank,
      sums: total(having),
      against: total(others),
      sources: sourcesOf([...having, ...others]),
      leftOut,
    };
  }
  if (having.length === 0)
    return meant.some(repeats) || period === null
      ? { cannot: 'not on them', papers: meant.length }
      : { cannot: 'none such' };
  switch (wants) {
    case 'latest': {
      const [latest] = having;
      return { ...blank, sums: [moneyIn(latest)!], sources: sourcesOf([latest]) };
    }
    case 'most':
    case 'least': {
      const best = [...groupBy(having, (each) => moneyIn(each)!.currency).values()].map((each) =>
        each.reduce((one, other) => {
          const more = moneyIn(other)!.units - moneyIn(one)!.units;
          return wants === 'most' ? (more > 0 ? other : one) : more < 0 ? other : one;
        }),
      );
      return { ...blank, sums: best.map((each) => moneyIn(each)!), sources: sourcesOf(best) };
    }
    case 'average': {
      const sums = [...groupBy(having, (each) => moneyIn(each)!.currency)].map(([currency, each]) => ({
        currency,
        units: Math.round(
          each.reduce((sum, one) => sum + moneyIn(one)!.units, 0) / shares(per, each, { period, today }),
        ),
      }));
      const over = per === 'paper' ? null : shares(per, having, { period, today });
      return { ...blank, sums, over, sources: sourcesOf(having), leftOut };
    }
    case 'who most': {
      const [main] = total(having);
      const bySender = [
        ...groupBy(
          having.filter(({ paper }) => paper.vendor !== null),
          ({ paper }) => paper.vendor!,
        ),
      ].map(([name, each]) => ({ name, sums: total(each), each }));
      const unitsOf = (sums: Money[]) => sums.find(({ currency }) => currency === main.currency)?.units ?? -Infinity;
      const sorted = bySender.sort((a, b) => unitsOf(b.sums) - unitsOf(a.sums));
      if (sorted.length === 0) return { cannot: 'not on them', papers: meant.length };
      return {
        ...blank,
        who: sorted.map(({ name, sums }) => ({ name, sums })),
        sources: sourcesOf(sorted[0].each),
        leftOut,
      };
    }
    default:
      return { ...blank, sums: total(having), sources: sourcesOf(having), leftOut };
  }
}
