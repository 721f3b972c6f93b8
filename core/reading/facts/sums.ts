import { around } from '../../geometry';
import { Fact, leastSure, placeOf, TaxAtRate } from './fact';
import { labelOf } from './labelled';
import { EXTRA, NET, PAYMENT, TAX, TOTAL } from './labels';
import { Amount, amountsIn } from './money';
import { Row } from './rows';
import { PrintedLine } from './tableLines';

/** What the amounts at the foot of an invoice or receipt are. */
export interface Sums {
  net: Fact<number> | null;
  tax: Fact<number> | null;
  taxRate: Fact<number> | null;
  total: Fact<number> | null;
  taxes: Fact<TaxAtRate[]> | null;
  /** Whether what was found adds up, as far as it can be checked. */
  addsUp: boolean;
}

interface Named {
  amount: Amount;
  label: string;
  score: number;
  /** As it was read, when a figure of it has been put right. */
  printed?: string;
  /** In percent, when its row says it. */
  rate?: { percent: number; words: Amount['words'] };
  /** What the tax is on, where its row says that, too. */
  on?: Amount;
}

const NAMES = { total: TOTAL, net: NET, tax: TAX, payment: PAYMENT, extra: EXTRA };
/** Rounding line by line may lead so many hundredths away, a rate. */
const ROUNDING = 2;
/** What it costs to leave out a sum that the paper names. */
const DROPPED = 2.5;

/** Net, tax by rate and total: by what they are called, and by what adds up. */
export function findSums(rows: readonly Row[], lines: readonly PrintedLine[]): Sums {
  const named: Record<'total' | 'net' | 'tax', Named[]> = { total: [], net: [], tax: [] };
  const listed = new Set(lines.map(({ amount }) => amount.row));
  let extras = 0;
  for (const row of rows) {
    if (listed.has(row)) continue;
    const amounts = amountsIn(row);
    if (amounts.length === 0) continue;
    const byRate = taxAtRate(row, amounts);
    if (byRate) {
      named.tax.push(byRate);
      continue;
    }
    const amount = amounts[amounts.length - 1];
    const label = labelOf(rows, row, amounts[0].words, NAMES);
    if (label?.name === 'extra') extras += amount.cents;
    if (!label || label.name === 'payment' || label.name === 'extra' || amount.cents < 0) continue;
    const score =
      (label.where === 'before' ? 1 : 0.4) +
      speciality(label.name, label.text) +
      row.number * 0.004 -
      label.away * 0.01;
    named[label.name].push({ amount, label: label.text, score, rate: rateIn(row) });
  }
  return chosen(named, lines, extras);
}

/** A row of a table of taxes: a rate, what is taxed, and the tax, which fits both; a gross amount may follow. */
function taxAtRate(row: Row, amounts: Amount[]): Named | undefined {
  const rate = rateIn(row);
  if (!rate || amounts.length < 2) return undefined;
  const sure = amounts.filter(({ cents }) => cents > 0);
  const none = amounts.find(({ cents }) => cents === 0);
  if (rate.percent === 0)
    return none && sure.length > 0 ? { amount: none, on: sure[0], label: '0 %', score: 1, rate } : undefined;
  for (const on of sure) {
    for (const tax of sure) {
      if (tax === on || Math.abs((on.cents * rate.percent) / 100 - tax.cents) > 1) continue;
      // Of small sums other figures fit as well, by chance.
      if (tax.cents < 5) continue;
      return { amount: tax, on, label: `${rate.percent} %`, score: 1, rate };
    }
  }
  return undefined;
}

/** How much a label says that its amount is the last of all. */
function speciality(name: string, text: string): number {
  if (name !== 'total') return 0;
  return /due|pay|grand|incl|ttc|brutto|gesamt|rechnungs|zahl|end|betalen|pagar|regler|fattura|factura/.test(text)
    ? 0.5
    : 0.2;
}

/** The percentage that a row names, and the words that it stands in. */
function rateIn({ words }: Row): Named['rate'] {
  for (let at = 0; at < words.length; at++) {
    for (const group of [words.slice(at, at + 1), words.slice(at, at + 2)]) {
      const found = /(?<!\d[.,]?)(\d{1,2}(?:[.,]\d{1,2})?) ?%/.exec(group.map(({ text }) => text).join(' '));
      if (found) return { percent: Number(found[1].replace(',', '.')), words: group };
    }
  }
  return undefined;
}

/** Figures that are taken for each other, and how sure an amount may be and still be doubted. */
const MISTAKEN = ['0689', '17', '27', '3589', '49', '56', '1469'];
const DOUBTED = 0.985;

/** Every reading of an amount in which one figure is another that it may be mistaken for, in hundredths. */
function otherReadings(cents: number): number[] {
  const digits = String(cents);
  return [...digits].flatMap((digit, at) => {
    const others = new Set(MISTAKEN.filter((set) => set.includes(digit)).join(''));
    others.delete(digit);
    return [...others].map((other) => Number(digits.slice(0, at) + other + digits.slice(at + 1)));
  });
}

/**
 * Puts a misread figure right: when net and tax don't make the total, and exactly one other reading of one doubtful amount makes
 * them, and makes the tax what its rate says where it says it, that is what stands there.
 */
function repair(total: Named, net: Named, tax: Named): Named | undefined {
  const fits = (t: number, n: number, x: number) =>
    n + x === t && (!tax.rate || Math.abs((n * tax.rate.percent) / 100 - x) <= 1);
  const [t, n, x] = [total, net, tax].map(({ amount }) => amount.cents);
  if (fits(t, n, x)) return undefined;
  const found = [
    ...readings(total)
      .filter((each) => fits(each, n, x))
      .map((cents) => ({ of: total, cents })),
    ...readings(net)
      .filter((each) => fits(t, each, x))
      .map((cents) => ({ of: net, cents })),
    ...readings(tax)
      .filter((each) => fits(t, n, each))
      .map((cents) => ({ of: tax, cents })),
  ];
  if (found.length !== 1) return undefined;
  const [{ of, cents }] = found;
  of.printed = of.amount.words.map(({ text }) => text).join(' ');
  of.amount = { ...of.amount, cents };
  return of;
}

function readings({ amount }: Named): number[] {
  return leastSure(amount.words) < DOUBTED ? otherReadings(amount.cents) : [];
}

/** @param extras carriage, discounts and the like that stand between the sums, in hundredths */
function chosen(named: Record<'total' | 'net' | 'tax', Named[]>, lines: readonly PrintedLine[], extras: number): Sums {
  const byScore = (a: Named, b: Named) => b.score - a.score;
  const totals = named.total.toSorted(byScore).slice(0, 5);
  const nets = named.net.toSorted(byScore).slice(0, 3);
  // The same tax is often said twice.
  const taxes = named.tax.filter(
    ({ amount, on }, at) => on || named.tax.findIndex((other) => other.amount.cents === amount.cents) === at,
  );
  // A table by rates says all of it; what is said besides is their sum.
  const table = taxes.filter(({ on }) => on);
  const taxSets = [taxes, ...(table.length > 1 ? [table] : []), ...taxes.map((each) => [each]), []];
  const sumOfLines = lines.reduce((sum, { amount }) => sum + amount.cents, 0);
  let best: { score: number; total?: Named; net?: Named; tax: Named[]; adds: boolean; checked: boolean } | undefined;
  for (const total of [...totals, undefined]) {
    for (const net of [...nets, undefined]) {
      for (const tax of taxSets) {
        const taxed = tax.reduce((sum, { amount }) => sum + amount.cents, 0);
        let score = (total?.score ?? -0.5) + (net ? 0.5 * net.score : 0) + (tax.length > 0 ? 0.6 : 0);
        let [adds, checked] = [true, false];
        const check = (right: boolean, weight: number) => {
          checked = true;
          adds &&= right;
          score += right ? weight : -weight * 0.6;
        };
        // What stands between the sums may be in the net sum already, or not.
        const makes = (sum: number, other: number, off: number) =>
          [0, extras].some((extra) => Math.abs(sum + extra - other) <= off);
        const off = ROUNDING * tax.length - 1;
        if (total && net && tax.length > 0) check(makes(net.amount.cents + taxed, total.amount.cents, off), 3);
        if (total && tax.length > 0 && tax.every(({ on }) => on)) {
          const untaxed = tax.reduce((sum, { on }) => sum + on!.cents, 0);
          const fits = makes(untaxed + taxed, total.amount.cents, off);
          // One rate alone may be that of a part of the goods.
          if (fits || tax.length > 1) check(fits, 3);
        }
        if (total && net && tax.length === 0) check(net.amount.cents === total.amount.cents, 0.2);
        if (tax.length === 1 && tax[0].rate && !tax[0].on) {
          const rate = tax[0].rate.percent;
          if (net)
            check(
              [0, extras].some((extra) => Math.abs(((net.amount.cents + extra) * rate) / 100 - taxed) <= ROUNDING),
              1.5,
            );
          else if (total) check(Math.abs((total.amount.cents * rate) / (100 + rate) - taxed) <= ROUNDING, 1.5);
        }
        if (lines.length > 0 && (net ?? total))
          check(
            [net, total].some((each) => each && makes(sumOfLines, each.amount.cents, 1)),
            2,
          );
        if (total && taxed >= total.amount.cents && taxed > 0) score -= 4;
        // What is named counts, though it doesn't add up; but a subtotal that is the total has its tax in it.
        if (!net && nets.length > 0 && !nets.some(({ amount }) => amount.cents === total?.amount.cents))
          score -= DROPPED;
        if (tax.length === 0 && taxes.length > 0) score -= DROPPED;
        if (!total && totals.length > 0) score -= DROPPED;
        if (!best || score > best.score) best = { score, total, net, tax, adds, checked };
      }
    }
  }
  if (!best) return { net: null, tax: null, taxRate: null, total: null, taxes: null, addsUp: false };
  const { total, net, tax } = best;
  const repaired = !best.adds && total && net && tax.length === 1 ? repair(total, net, tax[0]) : undefined;
  const [adds, checked] = repaired ? [true, true] : [best.adds, best.checked];
  const sure = checked ? (adds ? 1 : 0.6) : 0.92;
  const fact = ({ amount, label, printed }: Named): Fact<number> => ({
    value: amount.cents / 100,
    page: amount.row.page,
    box: placeOf(amount.words),
    // What adds up was read right, however doubtful the figures look.
    confidence: printed ? 0.88 : checked && adds ? 0.985 : sure * leastSure(amount.words),
    why: printed ? { code: 'repaired', printed } : { code: 'beside', label, ...(checked && { adds }) },
    ...(printed && { repaired: printed }),
  });
  const most = tax.toSorted((a, b) => b.amount.cents - a.amount.cents)[0];
  const taxCents = tax.reduce((sum, { amount }) => sum + amount.cents, 0);
  const rate = most?.rate;
  // Where the row of the only tax says what it is on, and all adds up, that is the net sum.
  const onlyTaxed = adds && total && tax.length === 1 && most.on && { ...most, amount: most.on };
  return {
    total: total ? fact(total) : null,
    net: net ? fact(net) : onlyTaxed ? fact(onlyTaxed) : null,
    tax: most ? { ...fact(most), value: taxCents / 100 } : null,
    taxRate: rate
      ? {
          value: rate.percent,
          page: most.amount.row.page,
          box: placeOf(rate.words),
          confidence: checked && adds ? 0.985 : 0.9 * leastSure(rate.words),
          why: { code: 'beside', label: most.label },
        }
      : null,
    taxes: byRates(tax, checked && adds),
    addsUp: checked && adds,
  };
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
