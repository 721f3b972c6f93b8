import { ShelfAnswer, ShelfReply, UnderstoodQuestion } from '@crow/contract/asking';
import { Money } from '@crow/core/money';
import { shownDay } from '../../../parts/days';
import { count, kindName, money } from '../../../parts/words';

/** The answer itself, as short as it can be: a sum, a day, a name. */
export function headline(answer: ShelfAnswer, { wants, per }: UnderstoodQuestion): string {
  switch (wants) {
    case 'papers':
    case 'count':
      return count(answer.count ?? 0, 'paper');
    case 'day':
      return [...new Set(answer.days.map(({ day }) => shownDay(day)))].slice(0, MOST_NAMED).join(', ');
    case 'value':
      return answer.values.slice(0, MOST_NAMED).join(', ');
    case 'who':
      return named(answer.who.map(({ name }) => name));
    case 'who most':
      return answer.who[0].name;
    case 'average':
      return `${sums(answer.sums)} ${per === 'paper' ? 'on average' : `a ${per}`}`;
    default:
      return answer.against
        ? `${difference(answer.sums, answer.against)}${sums(answer.sums)}, beside ${sums(answer.against)}`
        : sums(answer.sums);
  }
}

const MOST_NAMED = 6;

function named(names: readonly string[]): string {
  const more = names.length - MOST_NAMED;
  return more > 0 ? `${names.slice(0, MOST_NAMED).join(', ')} and ${more} more` : names.join(', ');
}

export const sums = (all: readonly Money[]): string => all.map(money).join(' and ');

/** Whether it is more or less, where both are of one currency. */
function difference(first: readonly Money[], second: readonly Money[]): string {
  if (first.length !== 1 || second.length !== 1 || first[0].currency !== second[0].currency) return '';
  const units = first[0].units - second[0].units;
  if (units === 0) return 'The same: ';
  return `${money({ ...first[0], units: Math.abs(units) })} ${units > 0 ? 'more' : 'less'}: `;
}

/** What the answer comes from, in a sentence or two. */
export function explained(answer: ShelfAnswer, { wants, per }: UnderstoodQuestion): string {
  const { sources, leftOut, over } = answer;
  const dates = sources.flatMap(({ date }) => date ?? []).sort();
  const lines = sources.flatMap((source) => source.lines).length;
  const when =
    dates.length > 1 && dates[0] !== dates.at(-1)
      ? `, from ${shownDay(dates[0])} to ${shownDay(dates.at(-1)!)}`
      : dates.length > 0
        ? `, of ${shownDay(dates[0])}`
        : '';
  const from =
    lines > 0
      ? `What ${count(lines, 'line')} on ${count(sources.length, 'paper')} say${lines === 1 ? 's' : ''}${when}.`
      : wants === 'papers' || wants === 'count'
        ? when && `${when.slice(2)[0].toUpperCase()}${when.slice(3)}.`
        : `From ${count(sources.length, 'paper')}${when}${over === null ? '' : `, spread over ${count(Number(over.toFixed(1)), per)}`}.`;
  const most = wants === 'who most' ? ` ${sums(answer.who[0].sums)} in all.` : '';
  const without =
    leftOut.length > 0
      ? ` Without ${leftOut.map(({ kind, papers }) => count(papers, kindName(kind).toLowerCase())).join(' and ')}: bills say the same.`
      : '';
  return `${from}${most}${without}`;
}

/** Why nothing answers. */
export function notAnswered({ cannot }: ShelfReply): string {
  switch (cannot!.why) {
    case 'paid':
      return 'No paper says whether it was paid.';
    case 'about':
      return `No paper on the shelf is about ${cannot!.words.map((word) => `“${word}”`).join(' and ')}.`;
    case 'none such':
      return 'There is no such paper on the shelf.';
    case 'not on them':
      return `${count(cannot!.papers, 'paper')} may be meant, but ${cannot!.papers === 1 ? 'it doesn’t say it' : 'none of them says it'}.`;
    default:
      return 'No paper on the shelf answers this.';
  }
}

const WANTS_WORDS: Record<UnderstoodQuestion['wants'], string> = {
  sum: 'how much in all',
  average: 'how much on average',
  most: 'the highest',
  least: 'the lowest',
  latest: 'the latest',
  count: 'how many papers',
  papers: 'which papers',
  who: 'who',
  'who most': 'who gets the most',
  day: 'when',
  value: 'what it says',
};
const FACT_WORDS: Record<UnderstoodQuestion['fact'], string> = {
  total: 'total',
  net: 'without tax',
  tax: 'tax',
  date: 'the day of the paper',
  dueDate: 'the day it is due',
  ends: 'the day it ends',
  number: 'number',
  customer: 'customer number',
  policy: 'policy or contract number',
  order: 'order number',
  reference: 'reference',
  iban: 'account (IBAN)',
  taxRate: 'tax rate',
  period: 'period',
};
const MONEY_WANTS = ['sum', 'average', 'most', 'least', 'latest', 'who most'] as const;

/** What else may be wanted instead, with what is chosen among it. */
export function wantsChoices({ wants, fact }: UnderstoodQuestion): { value: string; name: string }[] {
  const choices = [...MONEY_WANTS, 'count', 'papers', 'who'] as const;
  return [
    ...choices.map((each) => ({ value: `${each} total`, name: WANTS_WORDS[each] })),
    { value: 'sum tax', name: 'how much tax' },
    { value: 'sum net', name: 'how much without tax' },
    ...(['date', 'dueDate', 'ends'] as const).map((each) => ({ value: `day ${each}`, name: FACT_WORDS[each] })),
    ...(['number', 'customer', 'policy', 'reference', 'iban', 'taxRate'] as const).map((each) => ({
      value: `value ${each}`,
      name: FACT_WORDS[each],
    })),
  ].concat(
    // Whatever was understood is there to be seen.
    isAmong(wants, fact) ? [] : [{ value: `${wants} ${fact}`, name: `${WANTS_WORDS[wants]}: ${FACT_WORDS[fact]}` }],
  );
}

function isAmong(wants: UnderstoodQuestion['wants'], fact: UnderstoodQuestion['fact']): boolean {
  if (wants === 'day') return ['date', 'dueDate', 'ends'].includes(fact);
  if (wants === 'value') return ['number', 'customer', 'policy', 'reference', 'iban', 'taxRate'].includes(fact);
  return fact === 'total' || (wants === 'sum' && (fact === 'tax' || fact === 'net'));
}

/** A period in words. */
export function periodWords({ from, until }: { from: string | null; until: string | null }): string {
  if (from && until) {
    if (from === until) return shownDay(from);
    if (from.endsWith('-01-01') && until === `${from.slice(0, 4)}-12-31`) return from.slice(0, 4);
    return `${shownDay(from)} to ${shownDay(until)}`;
  }
  return from ? `since ${shownDay(from)}` : until ? `until ${shownDay(until)}` : 'at any time';
}

/** Between which amounts, in words. */
export function amountWords({ least, most, currency }: NonNullable<UnderstoodQuestion['amounts']>): string {
  const unit = currency ? ` ${currency}` : '';
  if (least !== null && most !== null) return `${least} to ${most}${unit}`;
  return least !== null ? `more than ${least}${unit}` : `less than ${most}${unit}`;
}
