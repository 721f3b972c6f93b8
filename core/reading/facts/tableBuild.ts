import { datesInLine, monthNamed } from '../dates';
import { Word } from '../words';
import { ColumnHead } from './columnHeads';
import { isNaming } from './measures';
import { Amount } from './money';
import { fold, Row } from './rows';

/** How the rows of a table are built, as far as that shows only in all of them. */
export interface Build {
  heads: readonly ColumnHead[];
  /** Rows are numbered, from one on. */
  isNumbered: boolean;
  /** Rows begin with how much of something there is. */
  isCounted: boolean;
  /** Rows begin with the number or code of an article. */
  isCoded: boolean;
}

/** How rows are built whose amounts are given. */
export function buildOf(amounts: readonly Amount[]): Build {
  const items = amounts.map(({ row }) => row);
  const firsts = items.map(({ words }) => words[0].text);
  const counts = items.map(({ words }) =>
    /^\d{1,3}[.)]?$/.test(words[0].text) && !leadingDay(words) ? parseInt(words[0].text, 10) : NaN,
  );
  // The last may be a surcharge without a number.
  const numbers = counts.filter((count) => !Number.isNaN(count));
  const isNumbered =
    (numbers.length > 1 && numbers.every((count, at) => count === at + 1) && numbers.length * 3 >= items.length * 2) ||
    firsts.every((text) => /^\d{1,3}[.)]$|^\d{1,2}(?:\.\d{1,2})+\.?$/.test(text));
  const most = (test: (row: Row, at: number) => boolean) =>
    items.length > 1 && items.filter(test).length * 3 >= items.length * 2;
  return {
    heads: [],
    isNumbered,
    isCounted:
      !isNumbered &&
      most((_, at) => !firsts[at].endsWith('.') && counts[at] > 0) &&
      // Numbers of lots or rooms don't share what stands beside them.
      amounts.every(({ cents }, at) => Number.isNaN(counts[at]) || cents % counts[at] === 0),
    isCoded: items.filter(isCode).length > 1,
  };
}

/** The day that words begin with, also without its year: “14 Sep”, “04/10”, “02.11.”; how many words it has. */
export function leadingDay(words: readonly Word[]): number | undefined {
  const [whole] = datesInLine(words.slice(0, MOST_OF_DAY));
  if (whole && whole.words[0] === words[0]) return whole.words.length;
  const [first, second] = words.map(({ text }) => text);
  if (/^(?:0?[1-9]|[12]\d|3[01])(?:[.,/-](?:0[1-9]|1[0-2])\.?|\.(?:[1-9]|0[1-9]|1[0-2])\.)$/.test(first)) return 1;
  if (second === undefined) return undefined;
  const isNamed = (day: string, month: string) =>
    /^\d{1,2}(?:\.|st|nd|rd|th)?$/.test(day) && monthNamed(fold(month.replace(/\.$/, ''))) !== undefined;
  return isNamed(first, second) || isNamed(second, first) ? 2 : undefined;
}

const MOST_OF_DAY = 4;

/** Whether a row begins, behind its position, with what may be the number or code of an article: in a cell of its own, or long. */
export function isCode({ cells, words: all }: Row): boolean {
  const { words } = cells[isPosition({ cells }) ? 1 : 0];
  const [{ text }] = words;
  if (!/\d/.test(text) || !/^[\p{Lu}\d][\p{Lu}\d./_-]{2,}$/u.test(text) || datesInLine(words.slice(0, 1)).length > 0)
    return false;
  if (/^\d+[.,]\d{2}$|^\d{1,3}$/.test(text) || !isNaming(all.slice(all.indexOf(words[0]) + 1))) return false;
  return words.length === 1 || text.length >= LONG_CODE;
}

/** So many letters of a code show it also where no gap follows it. */
export const LONG_CODE = 5;
export const isPosition = ({ cells }: Pick<Row, 'cells'>) => cells.length > 2 && /^\d{1,3}[.)]?$/.test(cells[0].text);
