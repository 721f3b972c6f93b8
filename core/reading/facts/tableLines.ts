import { datesInLine } from '../dates';
import { isHead } from './columnHeads';
import { NET, PAYMENT, TAX, TOTAL } from './labels';
import { countedAt, isNaming } from './measures';
import { isProduct } from './products';
import { Amount, amountsIn } from './money';
import { Row } from './rows';

const SUM_LABELS = [TOTAL, NET, TAX, PAYMENT];

/** Whether a row is one of the sums, or says how it was paid. */
export function isSum(row: Row): boolean {
  // The amount may stand first.
  const first = row.cells.find(({ folded }) => !/^\W{0,3}\d[\d.,]*\W{0,3}$/.test(folded)) ?? row.cells[0];
  // “einschl. 19 % MwSt.” begins with its tax.
  const begins = first.folded
    .replace(/^[^\p{L}\d]+/u, '')
    .replace(
      /^(?:einschl|inkl|incl(?:uding|udes)?|davon|darin|of which|dont|di cui)\.?:? (?:\d{1,2}(?:[.,]\d{1,2})? ?% )?/u,
      '',
    );
  return SUM_LABELS.some((label) => {
    const found = label.exec(begins);
    return found !== null && found.index <= 12;
  });
}

/** What brings the sum of a page over to the next (folded). */
export const CARRIED =
  /^\W{0,3}(?:carried|brought) (?:forward|over)|^\W{0,3}(?:ubertrag|a reporter|report|suma y sigue|riporto|transport)\b/;

/**
 * The amounts of an invoice's table, or of a receipt: those of rows with something named and an amount, below the heads of the columns
 * if there are any, and above the first sum.
 */
export function findLines(rows: readonly Row[]): Amount[] {
  const heads = rows.findIndex(isHead);
  const lines: Amount[] = [];
  /** What stands in the column of amounts so far, in hundredths. */
  const seen: number[] = [];
  let named: Row | undefined;
  for (const [at, row] of rows.entries()) {
    if (at <= heads) continue;
    const amounts = amountsIn(row);
    const last = amounts.at(-1);
    if (isSum(row) || (last && isSumOf(seen, last.cents, rows.slice(at + 1)))) {
      if (lines.length > 0 && last) break;
      if (last) seen.push(last.cents);
      named = undefined;
    } else if (!last) {
      // What is counted in the next row may be named in this one.
      named = mayName(row) ? row : undefined;
    } else {
      if (isCounting(row, amounts, named)) {
        lines.push(last);
        seen.push(last.cents);
      }
      named = undefined;
    }
  }
  return lines;
}

/** Whether a row without an amount may name what the next one counts. */
export const mayName = (row: Row) => /\p{L}{2}/u.test(row.text) && row.cells.length <= 2;

/** Whether an amount is what all before it make, whatever it is called; not where a later sum has it in it as well. */
export function isSumOf(seen: readonly number[], cents: number, later: readonly Row[]): boolean {
  const sum = seen.reduce((all, each) => all + each, 0);
  if (seen.length < 2 || sum !== cents) return false;
  return !later.some((row) => isSum(row) && amountsIn(row).some((amount) => amount.cents === sum + cents));
}

/** “13 nights at 21.50” names what it counts (folded). */
const COUNTS = /^\d{1,4} \p{L}{4,}/u;

/** Whether a row counts something: where it names that, or says how much there is of what the row above it names. */
export function isCounting(row: Row, amounts: readonly Amount[], named: Row | undefined): boolean {
  const amount = amounts[amounts.length - 1];
  const taken = new Set(amounts.flatMap(({ words }) => words));
  const left = row.words.filter((word) => !taken.has(word) && word.box[0] < amount.words[0].box[0]);
  if (countedAt(row)) return false;
  // A list of papers names them by their numbers and days.
  return (
    isNaming(left) ||
    datesInLine(left).length > 0 ||
    ((named !== undefined || COUNTS.test(row.folded)) && isProduct(amount))
  );
}
