import type { Reason } from './reason';
import { around } from '../../geometry';
import { datesInLine } from '../dates';
import { Fact, FactLine } from './fact';
import { amountsIn, Amount } from './money';
import { COLUMN, NET, PAYMENT, TAX, TOTAL } from './labels';
import { Row } from './rows';

/** A line of an invoice or receipt with the row that its amount stands in; money in hundredths. */
export interface PrintedLine {
  description: string;
  quantity: number | null;
  unitCents: number | null;
  amount: Amount;
}

const SUM_LABELS = [TOTAL, NET, TAX, PAYMENT];
const COUNTED = /^(\d{1,4}(?:[.,]\d{1,3})?)\s*(?:x|×|\*|st\.?|stk\.?|pcs\.?)?$/i;

/** Whether a row is one of the sums, or says how it was paid. */
function isSum(row: Row): boolean {
  const [first] = row.cells;
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

const HEADING = new RegExp(`^(?:${COLUMN.source})`, 'u');

/** Whether a row names columns: at least two of them, and has no amounts. */
function isHead(row: Row): boolean {
  const named = row.cells.filter(({ folded }) => HEADING.test(folded)).length;
  return named >= 2 && amountsIn(row).length === 0;
}

/**
 * The lines of an invoice's table, or of a receipt: rows with something named and an amount, below the heads of the columns if
 * there are any, and above the first sum.
 */
export function findLines(rows: readonly Row[]): PrintedLine[] {
  const heads = rows.findIndex(isHead);
  const lines: PrintedLine[] = [];
  /** What stands in the column of amounts so far, in hundredths. */
  const seen: number[] = [];
  let named: Row | undefined;
  for (const [at, row] of rows.entries()) {
    if (at <= heads) continue;
    const amounts = amountsIn(row);
    const cents = amounts.at(-1)?.cents;
    if (isSum(row) || (cents !== undefined && isSumOf(seen, cents, rows.slice(at + 1)))) {
      if (lines.length > 0 && amounts.length > 0) break;
      if (cents !== undefined) seen.push(cents);
      named = undefined;
      continue;
    }
    if (amounts.length === 0) {
      // What is counted in the next row may be named in this one.
      named = /\p{L}{2}/u.test(row.text) && row.cells.length <= 2 ? row : undefined;
      continue;
    }
    const line = lineOf(row, amounts, named);
    if (line) {
      lines.push(line);
      seen.push(line.amount.cents);
    }
    named = undefined;
  }
  return lines;
}

/** Whether an amount is what all before it make, whatever it is called; not where a later sum has it in it as well. */
function isSumOf(seen: readonly number[], cents: number, later: readonly Row[]): boolean {
  const sum = seen.reduce((all, each) => all + each, 0);
  if (seen.length < 2 || sum !== cents) return false;
  return !later.some((row) => isSum(row) && amountsIn(row).some((amount) => amount.cents === sum + cents));
}

function lineOf(row: Row, amounts: Amount[], named: Row | undefined): PrintedLine | undefined {
  const amount = amounts[amounts.length - 1];
  const others = amounts.slice(0, -1);
  const taken = new Set(amounts.flatMap(({ words }) => words));
  const left = row.words.filter((word) => !taken.has(word) && word.box[0] < amount.words[0].box[0]);
  // A quantity such as 2.75 looks like an amount.
  const counts = [...left, ...others.flatMap(({ words }) => words)].filter(({ text }) => COUNTED.test(text));
  for (const price of others.toReversed()) {
    for (const count of counts.filter((word) => !price.words.includes(word)).reverse()) {
      const quantity = Number(COUNTED.exec(count.text)![1].replace(',', '.'));
      if (Math.abs(Math.round(quantity * price.cents) - amount.cents) > 1) continue;
      const words = left.filter((word) => word !== count && !/^[x×*]$/i.test(word.text));
      return named && !/\p{L}{2}/u.test(words.map(({ text }) => text).join(' '))
        ? { description: describe(named.words.map(({ text }) => text)), quantity, unitCents: price.cents, amount }
        : { description: describe(words.map(({ text }) => text)), quantity, unitCents: price.cents, amount };
    }
  }
  const description = describe(left.map(({ text }) => text));
  // A list of papers names them by their numbers and days.
  if (!/\p{L}{2}/u.test(description) && datesInLine(left).length === 0) return undefined;
  const counted = /^(\d{1,3})\s?[x×]\s+(.+)$/i.exec(description);
  if (counted && others.length === 0) {
    const quantity = Number(counted[1]);
    const each = amount.cents / quantity;
    return { description: counted[2], quantity, unitCents: Number.isInteger(each) ? each : null, amount };
  }
  return { description, quantity: null, unitCents: others.at(-1)?.cents ?? null, amount };
}

/** A description without the position's number before it, and without what is counted behind it. */
function describe(words: string[]): string {
  return words
    .join(' ')
    .replace(/^\d{1,3}[.)]?\s+(?=\p{L})(?![x×]\s)/iu, '')
    .replace(/\s+\d+([.,]\d+)?\s*[x×]?$/i, '')
    .trim();
}

/** As a fact of the document. */
export function asLinesFact(lines: PrintedLine[], confidence: number, why: Reason): Fact<FactLine[]> | null {
  if (lines.length === 0) return null;
  const { page } = lines[0].amount.row;
  const onPage = lines.filter(({ amount }) => amount.row.page === page);
  return {
    value: lines.map(({ description, quantity, unitCents, amount }) => ({
      description,
      quantity,
      unitPrice: unitCents === null ? null : unitCents / 100,
      amount: amount.cents / 100,
    })),
    page,
    box: around(onPage.map(({ amount }) => amount.row.box)),
    confidence,
    why,
  };
}
