import { around } from '../../geometry';
import { datesInLine } from '../dates';
import { ColumnSum, columnSums } from './columnSums';
import { Fact, Kind, leastSure, placeOf, TaxAtRate } from './fact';
import { kindTraits } from './kindList';
import { labelOf } from './labelled';
import { DEPOSIT, EXTRA, NET, PAYMENT, TAX, TO_PAY, TOTAL } from './labels';
import { Amount, amountsIn } from './money';
import { moneyFact, Named, NO_SUMS, Sums } from './namedSums';
import { putBackPoints, repair } from './repair';
import { fold, foldMisread, Row } from './rows';
import { asked, payout } from './singleSums';
import { PrintedLine } from './tableLines';

const NAMES = { deposit: DEPOSIT, total: TOTAL, net: NET, tax: TAX, payment: PAYMENT, extra: EXTRA };
/** Rounding line by line may lead so many hundredths away, a rate. */
const ROUNDING = 2;
/** What it costs to leave out a sum that the paper names. */
const DROPPED = 2.5;

/** Net, tax by rate, total and what is left to pay: by what they are called, and by what adds up. */
export function findSums(rows: readonly Row[], lines: readonly PrintedLine[], kind: Kind): Sums {
  if (kind === 'payslip') return payout(rows);
  if (kindTraits[kind].balances) return asked(rows);
  const isReturned = kindTraits[kind].sums === 'returned';
  const named: Record<'total' | 'net' | 'tax', Named[]> = { total: [], net: [], tax: [] };
  const listed = new Set(lines.map(({ amount }) => amount.row));
  const sumOfLines = lines.reduce((sum, { amount }) => sum + Math.abs(amount.cents), 0);
  const unnamed: Amount[] = [];
  const paidAtOnce: Named[] = [];
  let [extras, paid] = [0, 0];
  for (const row of rows) {
    const printed = amountsIn(row);
    if (row.words.some(({ text }) => text === '=') && printed.length > 2 && isSumOfOthers(printed.at(-1)!, printed))
      named.total.push({ amount: printed.at(-1)!, label: '=', score: 0.8 });
    if (listed.has(row)) continue;
    const within = taxWithin(row, printed);
    if (within) named.tax.push({ ...within, amount: { ...within.amount, cents: Math.abs(within.amount.cents) } });
    const amounts = printed
      .filter((amount) => amount !== within?.amount)
      .map((amount) => (isReturned ? { ...amount, cents: Math.abs(amount.cents) } : amount));
    if (amounts.length === 0) continue;
    const byRate = taxAtRate(row, amounts);
    if (byRate) named.tax.push(byRate);
    if (byRate?.on) continue;
    for (const { part, group } of labelledApart(
      row,
      amounts.filter((each) => each !== byRate?.amount),
    )) {
      const amount = group[group.length - 1];
      const label = labelOf(rows, part, group[0].words, NAMES);
      if (label?.name === 'extra' && amount.cents !== sumOfLines) extras += amount.cents;
      if (label?.name === 'deposit') paid += Math.abs(amount.cents);
      if (label?.name === 'payment') paidAtOnce.push({ amount, label: label.text, score: 0.3 });
      if (!label || label.name === 'extra') unnamed.push(...group);
      if (!label || !isSumName(label.name) || amount.cents < 0) continue;
      // What the tax of the row is in is no tax.
      if (byRate && label.name === 'tax') continue;
      const score =
        (label.where === 'before' ? 1 : 0.4) +
        speciality(label.name, label.text) +
        row.number * 0.004 -
        label.away * 0.01;
      named[label.name].push({ amount, label: label.text, score, rate: rateIn(part) ?? rateIn(row) });
    }
  }
  // One thing alone may be all that there is to pay.
  if (lines.length === 1) unnamed.push(lines[0].amount);
  addUnnamed(named, unnamed, lines, extras);
  const column = columnSums(rows);
  const made = addMade(named, column, isReturned);
  if (named.total.length === 0 && kind === 'receipt') named.total.push(...paidAtOnce);
  if (named.total.length === 0) named.total.push(...paidInParts(rows));
  if (named.total.length === 0) named.total.push(...onlyAmount(rows, named.tax));
  putBackPoints(named);
  const sums = chosen(
    named,
    lines,
    extras,
    made.paid ?? paid,
    made,
    rows.flatMap((row) => amountsIn(row)),
  );
  // What a reminder asks for is all that is owed.
  if (kind === 'reminder') return { ...sums, amountDue: sums.total };
  return isReturned ? returned(sums) : sums;
}

const isSame = (one: Amount, other: Amount) => one.row === other.row && Math.abs(one.cents) === Math.abs(other.cents);

const isSumOfOthers = (sum: Amount, amounts: readonly Amount[]) =>
  amounts.reduce((all, { cents }) => all + cents, 0) === 2 * sum.cents;

type SumName = 'total' | 'net' | 'tax';
const isSumName = (name: keyof typeof NAMES): name is SumName => name === 'total' || name === 'net' || name === 'tax';

/** The amounts of a row by what they are called: “Price 18.40  VAT 3.07” are two, a row of columns is one. */
function labelledApart(row: Row, amounts: Amount[]): { part: Row; group: Amount[] }[] {
  const parts: { part: Row; group: Amount[] }[] = [];
  let from = 0;
  amounts.forEach((amount, at) => {
    const before = row.words.slice(from, row.words.indexOf(amount.words[0]));
    const says = fold(before.map(({ text }) => text).join(' '));
    const isNamed = at > 0 && Object.values(NAMES).some((label) => label.test(says));
    if (at > 0 && !isNamed) {
      parts[parts.length - 1].group.push(amount);
      return;
    }
    if (isNamed) from = row.words.indexOf(amounts[at - 1].words.at(-1)!) + 1;
    parts.push({ part: { ...row, words: row.words.slice(from) }, group: [amount] });
  });
  return parts;
}

const MOST_SUMS = 40;

/**
 * Sums that nothing known is said of, or something else, but that fit: what net, tax and what stands between make, two of which one is
 * the other and the tax, what all lines make.
 */
function addUnnamed(
  named: Record<SumName, Named[]>,
  unnamed: readonly Amount[],
  lines: readonly PrintedLine[],
  extras: number,
): void {
  // A paper may name any number of sums; on one that can be understood there are few.
  const [nets, totals, taxes] = [named.net, named.total, named.tax].map((sums) => sums.slice(0, MOST_SUMS));
  const loose = unnamed.slice(0, MOST_SUMS).map((amount): Named => ({ amount, label: sayLabel(amount), score: 0.8 }));
  const known = (sums: readonly Named[], { amount }: Named) => sums.some((sum) => sum.amount === amount);
  const add = (name: 'net' | 'total', sum: Named) => {
    if (!known(named[name], sum)) named[name].push({ ...sum, score: 0.8 });
  };
  const all = [...nets, ...loose, ...totals].filter(({ amount }) => amount.cents > 0);
  const whole = taxes.reduce((sum, { amount }) => sum + amount.cents, 0);
  for (const tax of new Set([...taxes.map(({ amount }) => amount.cents), whole])) {
    if (tax <= 0) continue;
    for (const net of all) {
      if (net.amount.cents <= tax) continue;
      for (const total of all) {
        const more = total.amount.cents - net.amount.cents - tax;
        const isNet = known(named.net, net);
        if (total.amount === net.amount || (more !== 0 && !(isNet && more === extras))) continue;
        if (!isNet) add('net', net);
        add('total', total);
      }
    }
  }
  // A sum of which a tax is the part that its rate says: “EUR 35.00, with 19 % VAT 5.59”.
  if (totals.length === 0)
    for (const { amount: tax, rate } of taxes)
      for (const sum of rate && rate.percent > 0 ? loose : []) {
        const part = (sum.amount.cents * rate!.percent) / (100 + rate!.percent);
        if (sum.amount !== tax && Math.abs(part - tax.cents) <= 1) add('total', sum);
      }
  const listed = lines.reduce((sum, { amount }) => sum + amount.cents, 0);
  if (lines.length > 1 && totals.length === 0)
    for (const sum of loose) if (sum.amount.cents > 0 && sum.amount.cents === listed) add('total', sum);
}

/** What the column of amounts says of its sums: which is the total, what was taxed to it, and what was paid of it already. */
interface Made {
  /** What the total is made of. */
  of?: readonly Amount[];
  total?: Amount;
  net?: Amount;
  left?: Amount;
  paid?: number;
}

/** Sums that are what stands above them, whatever they are called. */
function addMade(named: Record<SumName, Named[]>, column: readonly ColumnSum[], isReturned: boolean): Made {
  const made: Made = {};
  const says = (amount: Amount, label: RegExp) => label.test(foldMisread(sayLabel(amount)));
  for (const { amount, of, less } of column) {
    const last = of[of.length - 1];
    // Instalments stand below the sum with their days.
    const isInstalment = [last, amount].every(({ row }) => datesInLine(row.cells[0].words).length > 0);
    if (isInstalment) continue;
    if (less && of.length === 2 && !says(last, EXTRA) && amount.cents > 0) {
      Object.assign(made, { total: of[0], left: amount, paid: Math.abs(last.cents) });
      continue;
    }
    // What calls itself net is no total, though the one below it may have been misread.
    if (says(amount, NET) && !says(amount, TO_PAY)) {
      made.net = amount;
      continue;
    }
    if (of.slice(1).some((part) => says(part, TAX)) && !says(of[0], TAX)) made.net = of[0];
    Object.assign(made, { total: amount, of, left: undefined, paid: undefined });
  }
  const add = (name: 'net' | 'total', sum: Amount | undefined) => {
    const cents = sum && (isReturned ? Math.abs(sum.cents) : sum.cents);
    if (!sum || cents === undefined || cents < 0) return;
    const known = named[name].find(({ amount }) => amount.row === sum.row && amount.cents === cents);
    if (known) known.score += MADE;
    else named[name].push({ amount: { ...sum, cents }, label: sayLabel(sum), score: 0.8 + MADE });
  };
  add('total', made.total);
  add('net', made.net);
  return made;
}

/** Whether the column makes a total of some sums and what stands besides, such as what is not taxed. */
function isMadeOf({ total: made, of = [] }: Made, total: Named, sums: readonly Named[]): boolean {
  return (
    made !== undefined &&
    isSame(total.amount, made) &&
    sums.every(({ amount }) => of.some((part) => isSame(part, amount)))
  );
}

/** What it speaks for a sum that it is one. */
const MADE = 0.6;

/** What stands before an amount in its row. */
function sayLabel({ row, words }: Amount): string {
  return row.words
    .slice(0, row.words.indexOf(words[0]))
    .slice(-4)
    .map(({ text }) => text)
    .join(' ');
}

/** What is paid again and again is no total. */
const EACH_TIME =
  /\b(?:monthly|a month|per month|each month|quarterly|a day|per (?:day|night|person|head|hour)|(?:je|pro) \p{L}+|par (?:jour|personne|nuit)|instal?ments?|monatlich|im monat|je monat|rate von|mensuel\w*|par mois|mensualite|al mes|al mese|per maand)\b/u;

/** A sum that is paid in parts, which stand below it, each with its day. */
function paidInParts(rows: readonly Row[]): Named[] {
  const all = rows.flatMap((row) => amountsIn(row).slice(-1));
  const isDated = ({ row }: Amount) => datesInLine(row.words).length > 0;
  for (const [at, amount] of all.entries()) {
    const parts = all.slice(at + 1).filter(isDated);
    const sum = parts.reduce((cents, part) => cents + part.cents, 0);
    if (parts.length > 1 && sum === amount.cents && !isDated(amount))
      return [{ amount, label: sayLabel(amount), score: 0.6 }];
  }
  return [];
}

/** The only sum that a paper names, without saying what it is: a fee in a sentence, a price on a ticket. */
function onlyAmount(rows: readonly Row[], taxes: readonly Named[]): Named[] {
  const found = rows
    .filter((row) => !taxes.some(({ amount }) => amount.row === row) && !EACH_TIME.test(row.folded))
    .flatMap((row) => amountsIn(row))
    .filter(({ cents }) => cents > 0);
  if (found.length === 0 || new Set(found.map(({ cents }) => cents)).size > 1) return [];
  return [{ amount: found[0], label: sayLabel(found[0]), score: 0.3 }];
}

/** Sums that are owed the other way round. */
function returned(sums: Sums): Sums {
  const turn = (fact: Fact<number> | null) => fact && { ...fact, value: -Math.abs(fact.value) };
  return {
    ...sums,
    net: turn(sums.net),
    tax: turn(sums.tax),
    total: turn(sums.total),
    amountDue: null,
    taxes: sums.taxes && {
      ...sums.taxes,
      value: sums.taxes.value.map(({ rate, net, tax }) => ({ rate, net: net && -Math.abs(net), tax: -Math.abs(tax) })),
    },
  };
}

/** Words for what is in a sum (folded). */
const INCLUDED = /^(?:incl(?:uding|udes)?|inkl(?:usive)?|einschl(?:iesslich)?|davon|darin|dont)\.?$/;

/** “Total (incl. 13.80 VAT) 86.40”, “Total including VAT 13.80 86.40”: a tax within a sum. */
function taxWithin({ words }: Row, amounts: readonly Amount[]): Named | undefined {
  if (amounts.length < 2) return undefined;
  const opens = words.findIndex(({ text }) => text.startsWith('('));
  const begins = words.findIndex(({ text }) => INCLUDED.test(fold(text)));
  const from = opens >= 0 ? opens : begins > 0 ? begins : -1;
  const last = words.indexOf(amounts.at(-1)!.words[0]) - 1;
  const to = opens >= 0 ? words.findIndex(({ text }, at) => at >= from && text.includes(')')) : last;
  if (from < 0 || to <= from) return undefined;
  const inside = words.slice(from, to + 1);
  const [amount, ...others] = amounts.filter((each) => inside.includes(each.words[0]));
  const said = TAX.exec(
    fold(
      inside
        .map(({ text }) => text)
        .join(' ')
        .replace(/[()]/g, ' '),
    ),
  )?.[0];
  if (!amount || others.length > 0 || !said) return undefined;
  return { amount, label: said, score: 1, rate: rateIn({ words: inside }) };
}

/** A row of a table of taxes: a rate, what is taxed, and the tax, which fits both; a gross amount may follow. */
function taxAtRate(row: Row, amounts: Amount[]): Named | undefined {
  const rate = rateIn(row);
  if (!rate || amounts.length < 2) return undefined;
  const sure = amounts.filter(({ cents }) => cents > 0);
  const none = amounts.find(({ cents }) => cents === 0);
  if (rate.percent === 0)
    return none && sure.length > 0 ? { amount: none, on: sure[0], label: '0 %', score: 1, rate } : undefined;
  // Of small sums other figures fit as well, by chance.
  const fits = (part: number, tax: Amount) => tax.cents >= 5 && Math.abs(part - tax.cents) <= 1;
  const pairs = sure.flatMap((on) => sure.filter((tax) => tax !== on).map((tax) => ({ on, tax })));
  const net = pairs.find(({ on, tax }) => fits((on.cents * rate.percent) / 100, tax));
  if (net) return { amount: net.tax, on: net.on, label: `${rate.percent} %`, score: 1, rate };
  const gross = pairs.find(({ on, tax }) => fits((on.cents * rate.percent) / (100 + rate.percent), tax));
  return gross && { amount: gross.tax, label: `${rate.percent} %`, score: 1, rate };
}

/** How much a label says that its amount is the last of all. */
function speciality(name: string, text: string): number {
  if (name !== 'total') return 0;
  return /due|pay|owed|owing|outstanding|offen|grand|incl|ttc|brutto|gesamt|rechnungs|zahl|end|betalen|pagar|regler|fattura|factura/.test(
    text,
  )
    ? 0.5
    : 0.2;
}

/** The percentage that a row names, and the words that it stands in. */
function rateIn({ words }: Pick<Row, 'words'>): Named['rate'] {
  for (let at = 0; at < words.length; at++) {
    for (const group of [words.slice(at, at + 1), words.slice(at, at + 2), words.slice(at, at + 3)]) {
      const found = /(?<!\d[.,]?)(\d{1,2}(?:[.,]\d{1,3})?) ?(?:%|per ?cent)/.exec(
        group.map(({ text }) => text).join(' '),
      );
      if (found) return { percent: Number(found[1].replace(',', '.')), words: group };
    }
  }
  return undefined;
}

/**
 * @param extras carriage, discounts and the like that stand between the sums, in hundredths
 * @param paid what was paid before, in hundredths
 * @param made what its column of amounts says
 * @param all every amount on the paper
 */
function chosen(
  named: Record<'total' | 'net' | 'tax', Named[]>,
  lines: readonly PrintedLine[],
  extras: number,
  paid: number,
  made: Made,
  all: readonly Amount[],
): Sums {
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
        if (total && net && tax.length > 0)
          check(makes(net.amount.cents + taxed, total.amount.cents, off) || isMadeOf(made, total, [net, ...tax]), 3);
        if (total && tax.length > 0 && tax.every(({ on }) => on)) {
          const untaxed = tax.reduce((sum, { on }) => sum + on!.cents, 0);
          const fits = makes(untaxed + taxed, total.amount.cents, off);
          // One rate alone may be that of a part of the goods.
          if (fits || tax.length > 1) check(fits, 3);
        }
        if (total && made.total && isSame(total.amount, made.total)) check(true, MADE);
        if (total && net && tax.length === 0) check(net.amount.cents === total.amount.cents, 0.2);
        if (tax.length === 1 && tax[0].rate && !tax[0].on) {
          const rate = tax[0].rate.percent;
          if (net)
            check(
              [0, extras].some((extra) => Math.abs(((net.amount.cents + extra) * rate) / 100 - taxed) <= ROUNDING),
              1.5,
            );
          else if (total)
            check(
              [0, extras].some(
                (extra) => Math.abs(((total.amount.cents - extra) * rate) / (100 + rate) - taxed) <= ROUNDING,
              ),
              1.5,
            );
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
  const [adds, checked] = repaired ? [true, true] : [best.adds, best.checked];
  // Several sums that may be the total, and nothing to tell by.
  const others = totals.filter(
    (other) => total && other.amount.cents !== total.amount.cents && other.score > total.score - 0.3,
  );
  const sure = checked ? (adds ? 1 : 0.6) : others.length > 0 ? 0.6 : 0.92;
  const fact = ({ amount, label, printed }: Named, most = 1): Fact<number> => ({
    value: amount.cents / 100,
    page: amount.row.page,
    box: placeOf(amount.words),
    // What adds up was read right, however doubtful the figures look.
    confidence: printed ? 0.88 : checked && adds ? 0.985 : Math.min(sure, most) * leastSure(amount.words),
    why: printed ? { code: 'repaired', printed } : { code: 'beside', label, ...(checked && { adds }) },
    ...(printed && { repaired: printed }),
  });
  const most = tax.toSorted((a, b) => b.amount.cents - a.amount.cents)[0];
  const taxCents = tax.reduce((sum, { amount }) => sum + amount.cents, 0);
  const rate = most?.rate;
  // Beside what is not taxed, a sum that does not call itself net may be a part of it.
  const isWholeNet =
    !net || !total || net.amount.cents + taxCents === total.amount.cents || NET.test(foldMisread(net.label));
  // Where the row of the only tax says what it is on, and all adds up, that is the net sum.
  const onlyTaxed = adds && total && tax.length === 1 && most.on && { ...most, amount: most.on };
  return {
    total: total ? fact(total) : null,
    net: net
      ? withExtras(isWholeNet ? fact(net, UNCONFIRMED) : doubted(fact(net)), extras, total, taxCents, rate?.percent)
      : onlyTaxed
        ? fact(onlyTaxed)
        : netOfTable(tax, total, all),
    tax: most ? { ...fact(most, UNCONFIRMED), value: taxCents / 100 } : null,
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
    amountDue: total ? leftToPay(total, named.total, paid, made) : null,
    addsUp: checked && adds,
  };
}

/** How sure a part of the total is at most that nothing else on the paper confirms. */
const UNCONFIRMED = 0.85;
const doubted = (fact: Fact<number>): Fact<number> => ({ ...fact, confidence: Math.min(fact.confidence, 0.6) });

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
