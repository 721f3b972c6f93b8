import { currencyIn } from './currencies';
import { placeOf } from './fact';
import { TAX, TOTAL } from './labels';
import { Amount, amountsIn } from './money';
import { Cell, fold, Row } from './rows';

/** What the last column of a table says of taxes: the sum of what is taxed, and that of the taxes. */
export interface TaxColumn {
  net: Amount;
  tax: Amount;
}

/**
 * A table that tells of each of its rows the tax, in its last column, and below them what both columns make: the rows without those
 * taxes, which would be taken for prices, and the sums; the rows as they are where there is no such table.
 */
export function apartFromTaxColumn(rows: readonly Row[]): { rows: readonly Row[]; column: TaxColumn | undefined } {
  for (const head of rows) {
    if (head.cells.length < 3 || amountsIn(head).length > 0) continue;
    // What is described may stand behind the amounts.
    const at = head.cells.findLastIndex((cell, index) => index > 0 && isTaxHead(cell));
    const isBeforeLast = at === head.cells.length - 2 && !DESCRIBES.test(head.cells[at + 1].folded);
    const [before, last] = at < 0 || isBeforeLast ? head.cells.slice(-2) : head.cells.slice(at - 1, at + 1);
    const column = isTaxHead(before) ? beforeGross(head, before, rows) : undefined;
    if (column) return { rows, column };
    if (!isTaxHead(last)) continue;
    const found: { row: Row; net: Amount; tax: Amount }[] = [];
    for (const row of rows.slice(head.number + 1)) {
      const amounts = amountsIn(row);
      const [net, tax] = amounts.slice(-2);
      if (amounts.length < 2 || row.page !== head.page || !isInLast(tax, before, last)) break;
      found.push({ row, net, tax });
    }
    const sums = found.at(-1);
    const goods = found.slice(0, -1);
    const sum = (of: (each: (typeof found)[number]) => Amount) => goods.reduce((all, each) => all + of(each).cents, 0);
    // Below one row the same again may be another of the same; the sum of one says that it is one.
    if (!sums || goods.length < (TOTAL.test(sums.row.folded) ? 1 : 2)) continue;
    if (sum(({ net }) => net) !== sums.net.cents || sum(({ tax }) => tax) !== sums.tax.cents) continue;
    const taxes = new Set(found.flatMap(({ tax }) => tax.words));
    const kept = <Holder extends Pick<Row, 'words'>>(holder: Holder): Holder => ({
      ...holder,
      words: holder.words.filter((word) => !taxes.has(word)),
    });
    const inTable = new Set(found.map(({ row }) => row));
    return {
      rows: rows.map((row) =>
        inTable.has(row)
          ? { ...kept(row), cells: row.cells.map((cell) => kept(cell)).filter(({ words }) => words.length > 0) }
          : row,
      ),
      column: { net: sums.net, tax: sums.tax },
    };
  }
  return { rows, column: undefined };
}

/** Heads of columns of what things are (folded). */
const DESCRIBES = /^(?:descri|desig|bezeichn|beschr|details?|goods|item|text|particulars|omschr)/;

/** Whether the head of a column says that it is of taxes, and nothing else. */
function isTaxHead({ words }: Cell): boolean {
  // “VAT GBP”, “TVA (€)”
  const named = words.filter(({ text }) => currencyIn(text) === undefined);
  const folded = fold(named.map(({ text }) => text).join(' '));
  return TAX.exec(folded.replace(/[^\p{L}.]+$/u, ''))?.[0].length === folded.replace(/\W+$/, '').length;
}

/** The sums of a table whose rows tell what is taxed, the tax below its head, and at last what both make. */
function beforeGross(head: Row, tax: Cell, rows: readonly Row[]): TaxColumn | undefined {
  let [net, taxes, count] = [0, 0, 0];
  for (const row of rows.slice(head.number + 1)) {
    const [one, two, both] = amountsIn(row).slice(-3);
    if (row.page !== head.page || !both || one.cents + two.cents !== both.cents || !isUnder(two, tax.box))
      return undefined;
    if (count > 0 && one.cents === net && two.cents === taxes) return { net: one, tax: two };
    [net, taxes, count] = [net + one.cents, taxes + two.cents, count + 1];
  }
  return undefined;
}

/** Whether an amount stands in the last column, whose head may stand in its middle: nearer to it than to the one before. */
function isInLast(amount: Amount, before: Cell, last: Cell): boolean {
  const middle = ([x, , width]: Row['box']) => x + width / 2;
  const at = middle(placeOf(amount.words));
  return isUnder(amount, last.box) || at > (middle(before.box) + middle(last.box)) / 2;
}

/** Whether an amount stands under the head of a column. */
function isUnder({ words }: Amount, [x, , width]: Row['box']): boolean {
  const [left, , wide] = placeOf(words);
  return Math.min(left + wide, x + width) - Math.max(left, x) > 0.3 * Math.min(wide, width);
}
