import { placeOf } from './fact';
import { TAX, TOTAL } from './labels';
import { Amount, amountsIn } from './money';
import { Row } from './rows';

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
    const last = head.cells.at(-1)!;
    const isTax =
      TAX.exec(last.folded.replace(/[^\p{L}.]+$/u, ''))?.[0].length === last.folded.replace(/\W+$/, '').length;
    if (head.cells.length < 3 || !isTax || amountsIn(head).length > 0) continue;
    const found: { row: Row; net: Amount; tax: Amount }[] = [];
    for (const row of rows.slice(head.number + 1)) {
      const amounts = amountsIn(row);
      const [net, tax] = amounts.slice(-2);
      if (amounts.length < 2 || row.page !== head.page || !isUnder(tax, last.box)) break;
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

/** Whether an amount stands under the head of a column. */
function isUnder({ words }: Amount, [x, , width]: Row['box']): boolean {
  const [left, , wide] = placeOf(words);
  return Math.min(left + wide, x + width) - Math.max(left, x) > 0.3 * Math.min(wide, width);
}
