import { Box } from '../../geometry';
import { datesInLine } from '../dates';
import { PageText, Word } from '../words';
import { currencyIn } from './currencies';
import { dayOrderOf } from './dayOrder';
import { placeOf } from './fact';
import { amountsIn } from './money';
import { numberOf, numbersIn } from './printedNumbers';
import { Row, rowsOf } from './rows';
import { possibleSenders } from './senders';

/** What facts may be chosen from: what a paper says that may be a day, a sum, a number, whoever it is from, a rate, a currency. */
export const CHOICE_GROUPS = ['days', 'sums', 'numbers', 'names', 'rates', 'currencies'] as const;
export type ChoiceGroup = (typeof CHOICE_GROUPS)[number];

/** One thing that a paper says. */
export interface Choice {
  /** As `typedFact` gives it: days in ISO 8601, money with two decimals. */
  value: string;
  /** What stands beside it; empty where nothing does. */
  beside: string;
  /** The number of the page, from 1, and its place there, in pixels. */
  page: number;
  box: Box;
}

type ReadPage = Pick<PageText, 'width' | 'height' | 'words'> & Partial<Pick<PageText, 'language'>>;

/** So many of each group are offered at most: the first ones. */
const MOST = 60;
/** So many words tell what stands beside something. */
const [BEFORE, BEHIND] = [4, 3];

/**
 * Everything on a paper that a fact could be, each value once, where it stands first: days in the order in which they stand (both
 * readings where nothing says whether day or month comes first), sums from the largest, names from the likeliest.
 */
export function choicesOf(pages: readonly ReadPage[]): Record<ChoiceGroup, Choice[]> {
  const rows = rowsOf(pages);
  const order = dayOrderOf(rows, pages[0], undefined);
  const readings = order === 'unknown' ? [false, true] : [order === 'month'];
  const inRows = (find: (row: Row) => { value: string; words: readonly Word[] }[]): Choice[] =>
    rows.flatMap((row) =>
      find(row).map(({ value, words }) => ({
        value,
        beside: besideOf(row, words),
        page: row.page,
        box: placeOf(words),
      })),
    );
  const sums = inRows((row) =>
    amountsIn(row).map(({ cents, words }) => ({ value: (cents / 100).toFixed(2), words })),
  ).sort((one, other) => Number(other.value) - Number(one.value));
  const groups: Record<ChoiceGroup, Choice[]> = {
    days: inRows((row) =>
      readings.flatMap((monthFirst) =>
        datesInLine(row.words, { monthFirst }).map(({ date, words }) => ({ value: date, words })),
      ),
    ),
    sums,
    numbers: inRows((row) => numbersIn(rows, row).map(({ words }) => ({ value: numberOf(words), words }))),
    names: possibleSenders(rows, pages[0]).map((name) => ({ ...name, beside: '', page: 1 })),
    rates: inRows((row) => ratesIn(row)),
    currencies: inRows((row) =>
      row.words.flatMap((word) => {
        const value = currencyIn(word.text);
        return value ? [{ value, words: [word] }] : [];
      }),
    ),
  };
  return Object.fromEntries(
    Object.entries(groups).map(([group, choices]) => [group, once(choices).slice(0, MOST)]),
  ) as Record<ChoiceGroup, Choice[]>;
}

/** Shares of a hundred in a row, as they are typed: “7.5 %” is 7.5. */
function ratesIn({ words }: Row): { value: string; words: Word[] }[] {
  return words.flatMap((word, at) => {
    const next = words[at + 1];
    const rate = /^\(?(\d{1,2}(?:[.,]\d{1,2})?)(%?)\)?[,:]?$/.exec(word.text);
    if (!rate || (rate[2] === '' && !/^%/.test(next?.text ?? ''))) return [];
    return [{ value: String(Number(rate[1].replace(',', '.'))), words: rate[2] ? [word] : [word, next] }];
  });
}

/** The words before something in its row, else those behind it. */
function besideOf({ words }: Row, own: readonly Word[]): string {
  const [from, to] = [words.indexOf(own[0]), words.indexOf(own.at(-1)!) + 1];
  const told = from > 0 ? words.slice(Math.max(0, from - BEFORE), from) : words.slice(to, to + BEHIND);
  return told.map(({ text }) => text).join(' ');
}

/** Each value where it stands first. */
function once(choices: readonly Choice[]): Choice[] {
  const known = new Set<string>();
  return choices.filter(({ value }) => {
    const isNew = !known.has(value);
    known.add(value);
    return isNew;
  });
}
