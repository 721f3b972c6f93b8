import { around } from '../../geometry';
import { rivalled } from './doubt';
import { Fact, leastSure, placeOf, TaxAtRate } from './fact';
import { DEPOSIT, EXTRA, NET, OPENING, PAYMENT, TAX, TO_PAY } from './labels';
import { Amount, amountsIn } from './money';
import { moneyFact, Named, NO_SUMS, Sums } from './namedSums';
import { repair } from './repair';
import { foldMisread, Row } from './rows';
import { rateIn } from './rowTaxes';

/** Rounding line by line may lead so many hundredths away, a rate. */
const ROUNDING = 2;
/** What it speaks for sums that they make the total with something else that is named there. */
const BESIDES = 1;
/** What it speaks against sums that only a part of them is taxed. */
const PARTLY_TAXED = 0.3;
/** What it costs to leave out a sum that the paper names. */
const DROPPED = 2.5;

/** What the column of amounts says of its sums: which is the total, what was taxed to it, and what was paid of it already. */
export interface Made {
  /** What the total is made of. */
  of?: readonly Amount[];
  total?: Amount;
  net?: Amount;
  left?: Amount;
  paid?: number;
}

export const isSame = (one: Amount, other: Amount) =>
  one.row === other.row && Math.abs(one.cents) === Math.abs(other.cents);

/** Whether the column makes a total of some sums and what stands besides, such as what is not taxed. */
function isMadeOf({ total: made, of = [] }: Made, total: Named, sums: readonly Named[]): boolean {
  return (
    made !== undefined &&
    isSame(total.amount, made) &&
    sums.every(({ amount }) => of.some((part) => isSame(part, amount)))
  );
}

/** Whether the column makes a total of the sum of the lines and the taxes below that. */
function isMadeWith({ total: made, of = [] }: Made, total: Named, lines: number): boolean {
  if (!made || !isSame(total.amount, made)) return false;
  const isTax = (part: Amount) => TAX.test(foldMisread(sayLabel(part)));
  // Right below the lines, or below what they make, and what is added to those.
  const first = of.findIndex(isTax);
  const goods = of
    .slice(0, Math.max(1, first))
    .filter((part, at) => at === 0 || !EXTRA.test(foldMisread(sayLabel(part))));
  const untaxed = goods.reduce((sum, { cents }) => sum + cents, 0);
  return untaxed === lines && of.slice(Math.max(1, first)).every(isTax);
}

/** Two taxes of one rate that are called otherwise are two, such as those of a state and of the country. */
function isAnotherTax(one: Pick<Named, 'label' | 'rate'>, other: Pick<Named, 'label' | 'rate'>): boolean {
  return one.label !== other.label && one.rate !== undefined && one.rate.percent === other.rate?.percent;
}

/** Which of the sums something else on the paper confirms. */
type Checked = Record<'total' | 'net' | 'tax', boolean>;
const EACH = ['total', 'net', 'tax'] as const;

/** What it speaks for a sum that it is one. */
export const MADE = 0.6;

/** What stands before an amount in its row. */
export function sayLabel({ row, words }: Amount): string {
  return row.words
    .slice(0, row.words.indexOf(words[0]))
    .slice(-4)
    .map(({ text }) => text)
    .join(' ');
}

/**
 * @param extras carriage, discounts and the like that stand between the sums, in hundredths
 * @param paid what was paid before, in hundredths
 * @param made what its column of amounts says
 * @param rows those of the paper
 */
export function chosen(
  named: Record<'total' | 'net' | 'tax', Named[]>,
  lines: readonly Amount[],
  extras: number,
  paid: number,
  made: Made,
  rows: readonly Row[],
): Sums {
  const all = rows.flatMap((row) => amountsIn(row));
  const byScore = (a: Named, b: Named) => b.score - a.score;
  const totals = named.total.toSorted(byScore).slice(0, 5);
  const nets = named.net.toSorted(byScore).slice(0, 3);
  // The same tax is often said twice.
  const taxes = named.tax.filter(
    ({ amount, on, label, rate }, at) =>
      on ||
      named.tax.findIndex((other) => other.amount.cents === amount.cents && !isAnotherTax(other, { label, rate })) ===
        at,
  );
  // A table by rates says all of it; what is said besides is their sum.
  const table = taxes.filter(({ on }) => on);
  const taxSets = [taxes, ...(table.length > 1 ? [table] : []), ...taxes.map((each) => [each]), []];
  const sumOfLines = lines.reduce((sum, { cents }) => sum + cents, 0);
  let best: { score: number; total?: Named; net?: Named; tax: Named[]; adds: boolean; checked: Checked } | undefined;
  for (const total of [...totals, undefined]) {
    for (const net of [...nets, undefined]) {
      for (const tax of taxSets) {
        const taxed = tax.reduce((sum, { amount }) => sum + amount.cents, 0);
        let score = (total?.score ?? -0.5) + (net ? 0.5 * net.score : 0) + (tax.length > 0 ? 0.6 : 0);
        let adds = true;
        const checked: Checked = { total: false, net: false, tax: false };
        const check = (right: boolean, weight: number, ...names: (keyof Checked)[]) => {
          for (const name of names) checked[name] = true;
          adds &&= right;
          score += right ? weight : -weight * 0.6;
        };
        // What stands between the sums may be in the net sum already, or not.
        const makes = (sum: number, other: number, off: number) =>
          [0, extras].some((extra) => Math.abs(sum + extra - other) <= off);
        const off = ROUNDING * tax.length - 1;
        const threeFit = total && net && tax.length > 0 && net.amount.cents + taxed === total.amount.cents;
        if (total && net && tax.length > 0) {
          const exact = makes(net.amount.cents + taxed, total.amount.cents, off);
          check(exact || isMadeOf(made, total, [net, ...tax]), exact ? 3 : BESIDES, ...EACH);
        }
        if (total && tax.length > 0 && tax.every(({ on }) => on)) {
          const untaxed = tax.reduce((sum, { on }) => sum + on!.cents, 0);
          const fits = makes(untaxed + taxed, total.amount.cents, off);
          // One rate alone may be that of a part of the goods.
          if (fits || tax.length > 1) check(fits, 3, 'total', 'tax');
        }
        if (total && made.total && isSame(total.amount, made.total)) check(true, MADE, 'total');
        if (total && net && tax.length === 0) check(net.amount.cents === total.amount.cents, 0.2, 'net', 'total');
        if (tax.length === 1 && tax[0].rate && !tax[0].on) {
          const rate = tax[0].rate.percent;
          const isRate =
            net && [0, extras].some((extra) => Math.abs(((net.amount.cents + extra) * rate) / 100 - taxed) <= ROUNDING);
          // Where the sums make each other and the tax is less than its rate says, some of the goods are not taxed.
          if (net && threeFit && (net.amount.cents * rate) / 100 > taxed) score -= PARTLY_TAXED;
          else if (net) check(isRate === true, 1.5, 'net', 'tax');
          else if (total)
            check(
              [0, extras].some(
                (extra) => Math.abs(((total.amount.cents - extra) * rate) / (100 + rate) - taxed) <= ROUNDING,
              ),
              1.5,
              'total',
              'tax',
            );
        }
        if (lines.length > 0 && (net ?? total)) {
          const fitting = [
            ...(net ? [['net', net] as const] : []),
            ...(total ? [['total', total] as const] : []),
          ].filter(
            ([name, each]) =>
              makes(sumOfLines, each.amount.cents, 1) || (name === 'total' && isMadeWith(made, each, sumOfLines)),
          );
          check(fitting.length > 0, 2, ...fitting.map(([name]) => name));
        }
        if (total && taxed >= total.amount.cents && taxed > 0) score -= 4;
        // Before a discount it was more, and had its tax in it.
        if (total && net && net.amount.cents > total.amount.cents) score -= 2;
        // What is named counts, though it doesn't add up; but a subtotal that is the total has its tax in it.
        const left = nets.filter(({ amount }) => !total || amount.cents <= total.amount.cents);
        if (!net && left.length > 0 && !left.some(({ amount }) => amount.cents === total?.amount.cents))
          score -= DROPPED;
        if ((tax.length === 0 && taxes.length > 0) || (table.length > 1 && isPartOf(tax, table))) score -= DROPPED;
        if (!total && totals.length > 0) score -= DROPPED;
        if (!best || score > best.score) best = { score, total, net, tax, adds, checked };
      }
    }
  }
  if (!best) return NO_SUMS;
  const { total, net, tax } = best;
  const repaired =
    !best.adds && total && net && tax.length === 1
      ? repair(total, net, tax[0], sumOfLines === net.amount.cents)
      : undefined;
  const adds = repaired !== undefined || best.adds;
  const checked: Checked = repaired ? { total: true, net: true, tax: true } : best.checked;
  // Several sums that may be the total, and nothing to tell by.
  const others = totals.filter(
    (other) => total && other.amount.cents !== total.amount.cents && other.score > total.score - 0.3,
  );
  const fact = (name: keyof Checked, { amount, label, printed }: Named, most = 1): Fact<number> => ({
    value: amount.cents / 100,
    page: amount.row.page,
    box: placeOf(amount.words),
    // What adds up was read right, however doubtful the figures look.
    confidence: printed
      ? 0.88
      : checked[name] && adds
        ? 0.985
        : Math.min(adds ? (others.length > 0 ? 0.6 : 0.92) : 0.6, most) * leastSure(amount.words),
    why: printed ? { code: 'repaired', printed } : { code: 'beside', label, ...(checked[name] && { adds }) },
    ...(printed && { repaired: printed }),
  });
  const most = tax.toSorted((a, b) => b.amount.cents - a.amount.cents)[0];
  const taxCents = tax.reduce((sum, { amount }) => sum + amount.cents, 0);
  const rate =
    most?.rate ??
    (tax.length === 1 && net
      ? (bareRate(most.amount, net.amount.cents) ?? rateElsewhere(rows, most.amount, net.amount.cents))
      : undefined);
  // Beside what is not taxed, a sum that does not call itself net may be a part of it.
  const isWholeNet =
    !net || !total || net.amount.cents + taxCents === total.amount.cents || NET.test(foldMisread(net.label));
  // Where the row of the only tax says what it is on, and all adds up, that is the net sum.
  const onlyTaxed = adds && total && tax.length === 1 && most.on && { ...most, amount: most.on };
  return {
    total: total ? belowRival(fact('total', total), total, lines, all) : null,
    net: net
      ? withExtras(
          isWholeNet ? fact('net', net, UNCONFIRMED) : doubted(fact('net', net)),
          extras,
          total,
          taxCents,
          rate?.percent,
        )
      : onlyTaxed
        ? fact('tax', onlyTaxed)
        : netOfTable(tax, total, all),
    tax: most ? { ...fact('tax', most, UNCONFIRMED), value: taxCents / 100 } : null,
    taxRate: rate
      ? {
          value: rate.percent,
          page: most.amount.row.page,
          box: placeOf(rate.words),
          confidence: checked.tax && adds ? 0.985 : Math.min(0.9, adds ? 1 : 0.6) * leastSure(rate.words),
          why: { code: 'beside', label: most.label },
        }
      : null,
    taxes: byRates(tax, checked.tax && adds),
    amountDue: total ? leftToPay(total, named.total, paid, made) : null,
    addsUp: adds && EACH.some((name) => checked[name]),
  };
}

/** What may be larger than the total: what was handed over, paid or owed before, and what something is insured for (folded). */
const LARGER = [
  PAYMENT,
  DEPOSIT,
  OPENING,
  /\bup to\b|\bbis zu\b|jusqu|insured|cover|versicherungssumme|value of|limit|gesamtbrutto|gross pay/,
];

/** A total, less sure where a larger sum stands at the end of a row and nothing says why. */
function belowRival(
  fact: Fact<number>,
  { amount: total }: Named,
  lines: readonly Amount[],
  all: readonly Amount[],
): Fact<number> {
  const listed = new Set(lines.map(({ row }) => row));
  // The amounts of a row stand in their order.
  const last = new Map(all.map((amount) => [amount.row, amount]));
  const larger = [...last.values()].find(
    (amount) =>
      amount.cents > Math.abs(total.cents) &&
      !listed.has(amount.row) &&
      !LARGER.some((label) => label.test(foldMisread(amount.row.text))),
  );
  return larger ? rivalled(fact) : fact;
}

/** How sure a part of the total is at most that nothing else on the paper confirms. */
const UNCONFIRMED = 0.85;
const doubted = (fact: Fact<number>): Fact<number> => ({ ...fact, confidence: Math.min(fact.confidence, 0.6) });

/** A rate without its sign, which may have been lost: figures before a tax that are what it is of the net sum, in hundredths. */
function bareRate({ row, words, cents: tax }: Amount, net: number): Named['rate'] {
  const before = row.words.slice(0, row.words.indexOf(words[0]));
  const found = before.find(({ text }) => {
    if (!/^\d{1,2}(?:[.,]\d{1,3})?$/.test(text)) return false;
    return tax > 0 && Math.abs((net * Number(text.replace(',', '.'))) / 100 - tax) <= 1;
  });
  return found && { percent: Number(found.text.replace(',', '.')), words: [found] };
}

/** The rate that makes the tax of the net sum, in hundredths, where it stands elsewhere on its page, such as in each row of a table. */
function rateElsewhere(rows: readonly Row[], { row: { page }, cents: tax }: Amount, net: number): Named['rate'] {
  return rows
    .filter((row) => row.page === page)
    .map((row) => rateIn(row))
    .find((rate) => rate && tax > 0 && Math.abs((net * rate.percent) / 100 - tax) <= 1);
}

/** How sure a net sum is that carriage or a discount was added to. */
const WITH_EXTRAS = 0.9;

/** What is taxed where carriage and the like stand between the net sum and the tax. */
function withExtras(
  net: Fact<number>,
  extras: number,
  total: Named | undefined,
  tax: number,
  rate: number | undefined,
): Fact<number> {
  const cents = Math.round(net.value * 100);
  if (!total || extras === 0 || tax === 0 || cents + extras + tax !== total.amount.cents) return net;
  // What is rounded or added after the tax is not in the net sum.
  const off = (taxed: number) => Math.abs(taxed * (rate! / 100) - tax);
  if (rate !== undefined && off(cents) <= Math.max(1, off(cents + extras))) return net;
  const confidence = Math.min(net.confidence, WITH_EXTRAS);
  return { ...net, value: (cents + extras) / 100, confidence, why: { code: 'with-extras' } };
}

/** How sure a sum is that the paper leaves to be made. */
const UNPRINTED = 0.88;

/** The sum that a table of taxes by rate adds up to, printed or not. */
function netOfTable(tax: readonly Named[], total: Named | undefined, amounts: readonly Amount[]): Fact<number> | null {
  if (!total || tax.length < 2 || !tax.every(({ on }) => on)) return null;
  const untaxed = tax.reduce((sum, { on }) => sum + on!.cents, 0);
  if (untaxed + tax.reduce((sum, { amount }) => sum + amount.cents, 0) !== total.amount.cents) return null;
  const printed = amounts.findLast(
    ({ cents, row }) => cents === untaxed && !tax.some(({ amount }) => amount.row === row),
  );
  if (printed) return moneyFact(printed, untaxed, sayLabel(printed), 0.98);
  const [{ on: first }] = tax;
  const sure = Math.min(...tax.map(({ on }) => leastSure(on!.words)));
  return {
    value: untaxed / 100,
    page: first!.row.page,
    box: around(tax.filter(({ on }) => on!.row.page === first!.row.page).map(({ on }) => placeOf(on!.words))),
    confidence: Math.min(UNPRINTED, sure),
    why: { code: 'rates', count: tax.length, adds: true },
  };
}

/** Whether some taxes are only some of a table's rows. */
function isPartOf(some: readonly Named[], table: readonly Named[]): boolean {
  return some.length < table.length && some.every((each) => table.includes(each));
}

/** What is left to pay: a sum that says so, and that the total without what was paid makes, or that is less than the total. */
function leftToPay(total: Named, totals: readonly Named[], paid: number, made: Made): Fact<number> | null {
  if (made.left && made.total && isSame(total.amount, made.total))
    return moneyFact(made.left, made.left.cents, sayLabel(made.left), 0.97);
  const left = totals.filter(({ amount, label }) => TO_PAY.test(label) && amount.cents < total.amount.cents);
  const exact = left.find(({ amount }) => paid > 0 && amount.cents === total.amount.cents - paid);
  const found = exact ?? left.at(-1);
  if (!found) return null;
  return moneyFact(found.amount, found.amount.cents, found.label, exact ? 0.97 : 0.6);
}

/** Tax by rate, when there are several rates. */
function byRates(taxes: Named[], sure: boolean): Fact<TaxAtRate[]> | null {
  const rated = taxes.filter(({ rate }) => rate);
  if (new Set(rated.map(({ rate }) => rate!.percent)).size < 2) return null;
  const [{ amount: first }] = rated;
  return {
    value: rated.map(({ rate, on, amount }) => ({
      rate: rate!.percent,
      net: on ? on.cents / 100 : null,
      tax: amount.cents / 100,
    })),
    page: first.row.page,
    box: around(
      rated.filter(({ amount }) => amount.row.page === first.row.page).map(({ amount }) => placeOf(amount.words)),
    ),
    confidence: sure ? 0.97 : 0.7,
    why: { code: 'rates', count: rated.length, adds: sure },
  };
}
