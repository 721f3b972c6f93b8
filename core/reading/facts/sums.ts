import { datesInLine } from '../dates';
import { Word } from '../words';
import { chosen, Made, MADE, sayLabel } from './chosenSums';
import { ColumnSum, columnSums } from './columnSums';
import { Fact, Kind } from './fact';
import { kindTraits } from './kindList';
import { labelOf } from './labelled';
import { DEPOSIT, EXTRA, NET, PAYMENT, TAX, TO_PAY, TOTAL } from './labels';
import { currencyIn } from './currencies';
import { Amount, amountsIn } from './money';
import { Named, Sums } from './namedSums';
import { putBackPoints, putBackPointsOfRates } from './repair';
import { fold, foldMisread, Row } from './rows';
import { TaxColumn } from './taxColumn';
import {
  INCLUDED,
  LEAST_TAX,
  MOST_TAX,
  rateIn,
  taxAtRate,
  taxesBeside,
  taxByCode,
  taxInSentence,
  taxWithin,
} from './rowTaxes';
import { asked, payout } from './singleSums';

const NAMES = { deposit: DEPOSIT, total: TOTAL, net: NET, tax: TAX, payment: PAYMENT, extra: EXTRA };
/** Net, tax by rate, total and what is left to pay: by what they are called, and by what adds up. */
export function findSums(rows: readonly Row[], lines: readonly Amount[], kind: Kind, taxColumn?: TaxColumn): Sums {
  if (kind === 'payslip') return payout(rows);
  if (kindTraits[kind].balances) return asked(rows);
  const isReturned = kindTraits[kind].sums === 'returned';
  const named: Record<'total' | 'net' | 'tax', Named[]> = { total: [], net: [], tax: [] };
  const listed = new Set(lines.map(({ row }) => row));
  const sumOfLines = lines.reduce((sum, { cents }) => sum + Math.abs(cents), 0);
  const unnamed: Amount[] = [];
  const paidAtOnce: Named[] = [];
  const deposits: Amount[] = [];
  let extras = 0;
  /** The last row of a table of taxes so far. */
  let ratedRow = -2;
  if (taxColumn) {
    named.net.push({ amount: taxColumn.net, label: sayLabel(taxColumn.net), score: 1 });
    named.tax.push({ amount: taxColumn.tax, label: sayLabel(taxColumn.tax), score: 1 });
  }
  for (const row of rows) {
    const printed = amountsIn(row);
    if (row.words.some(({ text }) => text === '=') && printed.length > 2 && isSumOfOthers(printed.at(-1)!, printed))
      named.total.push({ amount: printed.at(-1)!, label: '=', score: 0.8 });
    const [first, second, third] = printed;
    // “120.45 plus 24.09 VAT makes £144.54”
    if (
      printed.length === 3 &&
      isSumOfOthers(third, printed) &&
      OF_TAX.test(row.folded) &&
      second.cents < first.cents
    ) {
      named.net.push({ amount: first, label: sayLabel(first), score: 0.8 });
      named.tax.push({ amount: second, label: sayLabel(second), score: 0.8, rate: rateIn(row) });
      named.total.push({ amount: third, label: sayLabel(third), score: 0.8 });
      continue;
    }
    if (listed.has(row)) continue;
    const within = taxWithin(row, printed) ?? taxInSentence(row, printed) ?? taxByCode(row, printed, kind);
    if (isTaxWithin(row, printed)) named.total.push({ amount: first, label: sayLabel(first), score: 0.8 });
    if (within) named.tax.push({ ...within, amount: { ...within.amount, cents: Math.abs(within.amount.cents) } });
    const amounts = printed
      .filter((amount) => amount !== within?.amount)
      .map((amount) => (isReturned ? { ...amount, cents: Math.abs(amount.cents) } : amount));
    if (amounts.length === 0) continue;
    const several = taxesBeside(row, amounts);
    if (several) {
      named.tax.push(...several);
      continue;
    }
    const byRate = taxAtRate(row, amounts, ratedRow === row.number - 1);
    if (byRate?.on) ratedRow = row.number;
    if (byRate) named.tax.push(byRate);
    if (byRate?.on) continue;
    for (const { part, group } of labelledApart(
      row,
      amounts.filter((each) => each !== byRate?.amount),
    )) {
      const amount = group[group.length - 1];
      const label = wholeOf(labelOf(rows, part, group[0].words, NAMES), part, group[0]);
      if (label?.name === 'extra' && amount.cents !== sumOfLines)
        extras += DISCOUNT.test(label.text) ? -Math.abs(amount.cents) : amount.cents;
      if (label?.name === 'deposit') deposits.push(amount);
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
  const wanted = depositAsked(deposits, named.tax, rows);
  if (wanted) named.net.push({ amount: wanted, label: sayLabel(wanted), score: 1 });
  const paid = deposits.reduce((sum, each) => sum + (each === wanted ? 0 : Math.abs(each.cents)), 0);
  // One thing alone may be all that there is to pay.
  if (lines.length === 1) unnamed.push(lines[0]);
  addTaxes(named, unnamed);
  addUnnamed(named, unnamed, lines, extras);
  const across = crossFooted(rows);
  named.total.push(...across.map(({ sum }) => ({ amount: sum, label: sayLabel(sum), score: 1 + MADE })));
  const column = columnSums(rows).filter(({ amount }) => !across.some(({ of }) => of === amount.row));
  const made = addMade(named, column, kind);
  if (named.total.length === 0 && PAID_AT_ONCE.includes(kind)) named.total.push(...paidAtOnce);
  // “Fare 96.00, fuel surcharge 7.50, paid 103.50”: what was paid is all of it.
  for (const whole of paidAtOnce) {
    const more = named.total.some(({ amount }) =>
      unnamed.some(
        (extra) =>
          extra !== amount && !says(extra, TIP) && extra.cents > 0 && amount.cents + extra.cents === whole.amount.cents,
      ),
    );
    if (more) named.total.push({ ...whole, score: 2 });
  }
  if (named.total.length === 0) named.total.push(...paidInParts(rows));
  // Nothing is added to a sum that calls itself net where no tax stands on a paper that asks for it.
  if (named.total.length === 0 && named.tax.length === 0 && kindTraits[kind].due)
    named.total.push(...named.net.slice(-1).map((net) => ({ ...net, score: 0.3 })));
  if (named.total.length === 0) named.total.push(...onlyAmount(rows, named.tax));
  putBackPoints(named);
  putBackPointsOfRates(named);
  const sums = chosen(named, lines, extras, made.paid ?? paid, made, rows);
  // What a reminder asks for is all that is owed.
  if (kind === 'reminder') return { ...sums, amountDue: sums.total };
  return isReturned ? returned(sums) : sums;
}

/** Kinds of what is paid when it is handed over. */
const PAID_AT_ONCE: Kind[] = ['receipt', 'ticket'];

/** What a whole sum is called before the tax that is in it (folded): “Jahresbeitrag inkl. 19 % Versicherungssteuer”. */
const WHOLE = new RegExp(
  `^(?:${TOTAL.source})[ ,(]*(?:incl|inkl|einschl|including|mit|with|y compris|compris|inclusief)`,
  'u',
);

/** A label of a sum: of the whole one where it names that first, and then the tax in it. */
function wholeOf<Label extends { name: keyof typeof NAMES; text: string }>(
  label: Label | undefined,
  part: Row,
  { words: [first] }: Amount,
): Label | undefined {
  if (label?.name !== 'tax') return label;
  const before = part.words.slice(0, part.words.indexOf(first)).map(({ text }) => text);
  return WHOLE.test(fold(before.join(' '))) ? { ...label, name: 'total' } : label;
}

/** “Fee 78.00 incl. VAT 13.00”: whether the second of two amounts is a tax that is in the first. */
function isTaxWithin({ words }: Row, [whole, tax, ...others]: readonly Amount[]): boolean {
  if (!tax || others.length > 0 || tax.cents <= 0 || tax.cents > whole.cents * MOST_TAX) return false;
  const between = words.slice(words.indexOf(whole.words.at(-1)!) + 1, words.indexOf(tax.words[0]));
  return (
    between.length > 1 &&
    INCLUDED.test(fold(between[0].text)) &&
    between.slice(1).some(({ text }) => TAX.test(fold(text)))
  );
}

/** Sums of columns beside each other, and right below what they make together. */
function crossFooted(rows: readonly Row[]): { sum: Amount; of: Row }[] {
  return rows.flatMap((row, at) => {
    const sums = amountsIn(row);
    const next = rows[at + 1] as Row | undefined;
    const below = next?.page === row.page ? amountsIn(next) : [];
    const isSums = sums.length > 2 && sums.every(({ cents }) => cents > 0) && !/\p{L}{3}/u.test(sayLabel(sums[0]));
    const whole = sums.reduce((all, { cents }) => all + cents, 0);
    return isSums && below.length === 1 && below[0].cents === whole ? [{ sum: below[0], of: row }] : [];
  });
}

/** The deposit that a paper asks for: what its tax is on, with which it makes another sum. */
function depositAsked(deposits: readonly Amount[], taxes: readonly Named[], rows: readonly Row[]): Amount | undefined {
  const isPrinted = (cents: number) => rows.some((row) => amountsIn(row).some((amount) => amount.cents === cents));
  return deposits.find(({ cents }) =>
    taxes.some(
      ({ amount: tax, rate }) =>
        rate && Math.abs((cents * rate.percent) / 100 - tax.cents) <= 1 && isPrinted(cents + tax.cents),
    ),
  );
}

/** Whether what stands before an amount says something. */
const says = (amount: Amount, label: RegExp) => label.test(foldMisread(sayLabel(amount)));

/** What is given on top (folded). */
const TIP = /\b(?:tip|gratuity|trinkgeld|pourboire|propina|mancia|fooi|gorjeta)\b/;

/** What a sum will be if something is done or left undone: “After 14 December it rises to £105.00”, “a reduced amount of £42.00 will be accepted” (folded). */
const CHANGED =
  /\b(?:rises?|increases?|goes up|reduced|drops?|falls?|steigt|sinkt|(?:erhoht|ermassigt|verringert)(?: sich)?|porte|ramene|reduit|majore)(?: \p{L}+){0,2} (?:to|auf|a)\W*$|\b(?:reduced|discounted|(?:ermassigt|reduziert|minore|reduit)\p{L}*) (?:\p{L}+ ){0,2}(?:of|von|de)\W*$/u;

/** What one of several payments is, what something cost before, and what a firm's owners put into it (folded). */
const NOT_NOW =
  /\b(?:(?:credit|overdraft|card) limit|limit of (?:indemnity|liability|cover)|(?:kredit|verfugungs|uberziehungs)(?:limit|rahmen)|kreditlinie|plafond|(?:sum|amount) insured|versicherungssumme|deckungssumme)(?: (?:of|is|now|von|ist|est|de|to))?:?\W*$|\b(?:capital(?: social)?(?: de)?|share capital(?: of)?|stammkapital|grundkapital)\W*$|\b\d+ (?:\p{L}+ )?(?:payments?|instal?ments?|raten|zahlungen|mensualites|versements|rate|cuotas|termijnen) (?:of|von|zu|a|de|da|van)\W*$|\b(?:last year(?:'s)?|(?:im )?vorjahr\p{L}*|(?:l'an(?:nee)?|l'annee) (?:derniere?|passee?))(?: \p{L}+){0,4}\W*$/u;

/** The rows without sums that only hold under some condition, or for a part of what is paid. */
export function withoutChanged(rows: readonly Row[]): Row[] {
  return rows.map((row) => {
    const changed = amountsIn(row).filter(({ words: [first] }) => {
      const before = row.words.slice(0, row.words.indexOf(first));
      const said = fold(before.map(({ text }) => text).join(' '));
      return CHANGED.test(said) || NOT_NOW.test(said);
    });
    if (changed.length === 0) return row;
    const left = new Set(changed.flatMap(({ words }) => words));
    const kept = ({ words }: { words: Word[] }) => words.filter((word) => !left.has(word));
    return {
      ...row,
      words: kept(row),
      cells: row.cells.map((cell) => ({ ...cell, words: kept(cell) })).filter(({ words }) => words.length > 0),
    };
  });
}

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
/** Sums are rounded by no more hundredths: by half of the smallest coin. */
const MOST_ROUNDED = 5;

/** Words of which one says that an amount has to do with a tax, whatever it calls it (folded). */
const OF_TAX =
  /(?<!\p{L})(?:(?:vat|tax(?:es?)?|tva|mwst|ust|iva|btw|moms|mva|gst)(?!\p{L})|\p{L}*(?:steuer|t\.v\.a|t\.p\.s))/u;

/**
 * Taxes by what they make: an amount that a word or a rate says to be of a tax, and that another one and the sum of both stand beside.
 * “Output tax”, “Tax”, “A 19 %”.
 */
function addTaxes(named: Record<SumName, Named[]>, unnamed: readonly Amount[]): void {
  const loose = unnamed.slice(0, MOST_SUMS).map((amount): Named => ({ amount, label: sayLabel(amount), score: 0.8 }));
  const all = [...named.net, ...named.total, ...named.tax, ...loose].slice(0, 2 * MOST_SUMS);
  const isPositive = ({ amount }: Named) => amount.cents > 0;
  for (const tax of all.filter(isPositive)) {
    if (named.tax.some(({ amount }) => amount === tax.amount)) continue;
    const rate = tax.rate ?? rateIn(tax.amount.row);
    const isTax = says(tax.amount, OF_TAX);
    if (!isTax && (!rate || says(tax.amount, EXTRA))) continue;
    const fits = all.some(({ amount: net }) => {
      const share = tax.amount.cents / net.cents;
      if (net === tax.amount || !(share >= LEAST_TAX && share <= MOST_TAX)) return false;
      const isRate = rate && Math.abs((net.cents * rate.percent) / 100 - tax.amount.cents) <= 1;
      return (isRate || isTax) && all.some(({ amount }) => amount.cents === net.cents + tax.amount.cents);
    });
    if (fits) named.tax.push({ ...tax, score: 1, rate });
  }
}

/**
 * Sums that nothing known is said of, or something else, but that fit: what net, tax and what stands between make, two of which one is
 * the other and the tax, what all lines make.
 */
function addUnnamed(
  named: Record<SumName, Named[]>,
  unnamed: readonly Amount[],
  lines: readonly Amount[],
  extras: number,
): void {
  // A paper may name any number of sums; on one that can be understood there are few.
  const [nets, totals, taxes] = [named.net, named.total, named.tax].map((sums) => sums.slice(0, MOST_SUMS));
  const loose = unnamed.slice(0, MOST_SUMS).map((amount): Named => ({ amount, label: sayLabel(amount), score: 0.8 }));
  const known = (sums: readonly Named[], { amount }: Named) => sums.some((sum) => sum.amount === amount);
  const add = (name: 'net' | 'total', sum: Named) => {
    if (!known(named[name], sum)) named[name].push({ ...sum, score: 0.8 });
  };
  const all = [...nets, ...loose, ...totals, ...taxes].filter(({ amount }) => amount.cents > 0);
  const whole = taxes.reduce((sum, { amount }) => sum + amount.cents, 0);
  for (const tax of new Set([...taxes.map(({ amount }) => amount.cents), whole])) {
    if (tax <= 0) continue;
    for (const net of all) {
      // What is called a tax may be what the tax is on: “Exclusive of VAT”.
      if (net.amount.cents <= tax || (taxes.includes(net) && tax > net.amount.cents * MOST_TAX)) continue;
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
  const listed = lines.reduce((sum, { cents }) => sum + cents, 0);
  if (lines.length > 1 && totals.length === 0)
    for (const sum of loose) if (sum.amount.cents > 0 && sum.amount.cents === listed) add('total', sum);
}

/** What is taken off, printed with its sign or without (folded). */
const DISCOUNT = /discount|rebate|rabatt|nachlass|remise|skonto|escompte|sconto|descuento|korting|desconto|saving/;

/** What lowers a sum, and was paid by nobody (folded). */
const RELIEF =
  /relief|reduction|ermassigung|abatement|allowance|exemption|degrevement|exoneration|abattement|zuschuss|subsidy|funded|waiver|kulanz|goodwill/;

/** What was left open by earlier bills, and is asked for with this one (folded). */
const LEFT_OPEN =
  /\b(?:previous|prior|last) (?:balance|bill|invoice|statement|amount|account)\b|\b(?:owing|owed|outstanding|unpaid|due) from (?:last|previous|prior|earlier|before)\b|\barrears\b|ruckstand|\b(?:alter|vorheriger?) (?:saldo|betrag)\b|\boffen aus\b|\bsolde (?:anterieur|precedent)\b|\bimpayes?\b|\barrieres?\b/;

/** Sums that are what stands above them, whatever they are called. */
function addMade(named: Record<SumName, Named[]>, column: readonly ColumnSum[], kind: Kind): Made {
  const isReturned = kindTraits[kind].sums === 'returned';
  const made: Made = {};
  // A share of a subtotal is a discount: “Loyalty 5% off”.
  const isShare = (from: Amount, off: Amount) => {
    const rate = rateIn(off.row);
    return rate !== undefined && Math.abs((from.cents * rate.percent) / 100 - Math.abs(off.cents)) <= 1;
  };
  const isTakenOff = (from: Amount, off: Amount) =>
    says(off, EXTRA) ||
    says(off, RELIEF) ||
    (!says(off, DEPOSIT) &&
      !says(off, PAYMENT) &&
      (isShare(from, off) || (says(from, NET) && rateIn(off.row) !== undefined)));
  for (const { amount, of, less } of column) {
    const last = of[of.length - 1];
    // Instalments stand below the sum with their days.
    const isInstalment = [last, amount].every(({ row }) => datesInLine(row.cells[0].words).length > 0);
    if (isInstalment) continue;
    if (less && of.length === 2 && !isTakenOff(of[0], last) && amount.cents > 0) {
      Object.assign(made, { total: of[0], left: amount, paid: Math.abs(last.cents) });
      continue;
    }
    // What earlier bills left open is no part of this one, which is what a reminder is about.
    const own = of.filter((part) => !says(part, LEFT_OPEN));
    const isWhole = own.length === 1 && own[0].cents > 0 && !says(own[0], DEPOSIT) && !says(own[0], PAYMENT);
    if (kind !== 'reminder' && of.length > 1 && isWhole) {
      Object.assign(made, { total: own[0], of: undefined, left: amount, paid: undefined });
      continue;
    }
    // What calls itself net is no total, though the one below it may have been misread.
    if (says(amount, NET) && !says(amount, TO_PAY)) {
      made.net = amount;
      continue;
    }
    // Only where nothing but taxes is added to it; what was rounded is no part of the goods.
    const added = of.slice(1).filter(({ cents }) => Math.abs(cents) > MOST_ROUNDED);
    if (added.length > 0 && added.every((part) => says(part, TAX)) && !says(of[0], TAX)) made.net = of[0];
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

/** What is paid again and again is no total. */
const EACH_TIME =
  /\b(?:monthly|a month|per month|each month|quarterly|a day|per (?:day|night|person|head|hour)|(?:je|pro) \p{L}+|par (?:jour|personne|nuit)|instal?ments?|monatlich\p{L}*|im monat|je monat|rate von|mensuel\w*|par mois|mensualite|al mes|al mese|per maand)\b/u;

/** A sum that is paid in parts, which stand below it, each with its day. */
function paidInParts(rows: readonly Row[]): Named[] {
  const all = rows.flatMap((row) => amountsIn(row).slice(-1));
  let [parts, sum] = [0, 0];
  for (const amount of all.reverse()) {
    if (datesInLine(amount.row.words).length > 0) {
      parts++;
      sum += amount.cents;
    } else if (parts > 1 && sum === amount.cents) return [{ amount, label: sayLabel(amount), score: 0.6 }];
  }
  return [];
}

/** What is left with somebody as a security comes back. */
const SECURITY = /\b(?:kaution\p{L}*|security deposit|depot de garantie|fianza|cauzione|waarborgsom)\b/u;

/** From one time to another: “10.00 – 16.30”. */
const CLOCK = /(?<![\d.,])(?:[01]?\d|2[0-3])\.[0-5]\d ?[-–—] ?(?:[01]?\d|2[0-3])\.[0-5]\d(?![\d.,])/;

/** Whether an amount is a part of the one before it: “£18.50 incl. booking fee £1.50”. */
function isWithin({ row, words: [first] }: Amount): boolean {
  const before = row.words.slice(0, row.words.indexOf(first));
  const from = before.findLastIndex(({ text }) => INCLUDED.test(fold(text).replace(/^\(/, '')));
  return (
    from > 0 &&
    before.length - from <= MOST_WITHIN &&
    /\d/.test(
      before
        .slice(0, from)
        .map(({ text }) => text)
        .join(''),
    )
  );
}

/** A part of a sum is named in no more words. */
const MOST_WITHIN = 4;

/** What says behind an amount that it is to be paid: “sind 63,00 € zu zahlen” (folded). */
const ASKED_BEHIND =
  /^(?:zu (?:zahlen|entrichten|uberweisen|begleichen)|ist (?:fallig|zahlbar)|(?:is |are )?(?:due|payable|to be paid)|(?:est |sont )?(?:a (?:payer|regler|verser)|exigibles?))\b/;

const isAskedFor = ({ row, words }: Amount) => {
  const from = row.words.indexOf(words.at(-1)!) + 1;
  return ASKED_BEHIND.test(
    fold(
      row.words
        .slice(from, from + 3)
        .map(({ text }) => text)
        .join(' '),
    ),
  );
};

/** The only sum that a paper names, without saying what it is: a fee in a sentence, a price on a ticket. */
/** What something is worth, by which is reckoned what is to be paid (folded). */
const VALUED =
  /\b(?:annual|rateable|taxable|assessed|property|market|insured|declared) value\b|\b(?:einheits|waren|versicherungs|grundsteuer)wert\b|\bvaleur (?:locative|declaree|assuree)\b/;

function onlyAmount(rows: readonly Row[], taxes: readonly Named[]): Named[] {
  const found = rows
    .filter(
      (row) =>
        !taxes.some(({ amount }) => amount.row === row) &&
        !EACH_TIME.test(row.folded) &&
        !SECURITY.test(row.folded) &&
        !VALUED.test(row.folded),
    )
    .flatMap((row) => amountsIn(row).filter((amount) => !isWithin(amount)))
    .filter(({ cents, row, words }) => cents > 0 && !(CLOCK.test(row.text) && !currencyIn(words[0].text)));
  // Of several in sentences it is the one that is asked for.
  const asked = found.filter(isAskedFor);
  const [first, ...others] = asked.length > 0 ? asked : found;
  if (!first || others.some(({ cents }) => cents !== first.cents)) return [];
  return [{ amount: first, label: sayLabel(first), score: 0.3 }];
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

/** How much a label says that its amount is the last of all. */
function speciality(name: string, text: string): number {
  if (name !== 'total') return 0;
  return /due|pay|owed|owing|outstanding|offen|grand|incl|ttc|brutto|gesamt|rechnungs|zahl|end|betalen|pagar|regler|fattura|factura/.test(
    text,
  )
    ? 0.5
    : 0.2;
}
