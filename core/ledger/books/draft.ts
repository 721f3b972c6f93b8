import { digitsOf, moneyOf } from '../../money';
import { BookCountry, CURRENCY_OF, taxCodeFor } from './taxCodes';

/** A share of an entry under one category and one treatment; money in the smallest unit of the entry's currency. */
export interface EntryPart {
  /** Which category; null until one is chosen. */
  categoryId: string | null;
  /** Of taxCodes.ts; null where none is known for the rate. */
  taxCode: string | null;
  /** In percent; null without tax. */
  rate: number | null;
  net: number;
  tax: number;
}

/** What a paper says that the books need; money as a decimal number, days in ISO 8601, '' for what it doesn't say. */
export interface PaperSays {
  /** The kind of the list that it is like. */
  kind: string;
  vendor: string;
  subject: string;
  date: string;
  dueDate: string;
  number: string;
  currency: string;
  net: string;
  tax: string;
  taxRate: string;
  total: string;
  /** Tax by rate; in units of the currency. */
  taxes: readonly { rate: number; net: number | null; tax: number }[];
  /** What it lists. */
  lines: readonly string[];
}

/** Why a paper can't be entered as it is. */
export type DraftProblem = 'no-day' | 'no-who' | 'no-total' | 'not-adding-up';

/** An entry as a paper proposes it. */
export interface EntryDraft {
  day: string;
  due: string | null;
  who: string;
  what: string;
  number: string;
  currency: string;
  /** What is to be paid; negative on a credit note. */
  units: number;
  parts: EntryPart[];
  problems: DraftProblem[];
}

/** Papers that are entered: each is owed, or was paid, once. */
const ENTERED = ['receipt', 'invoice', 'credit note', 'ticket'];

/** Whether a paper of a kind counts as an entry. @param kind of the list */
export const isEntered = (kind: string): boolean => ENTERED.includes(kind);

/** Whole units that amounts may differ by where each was rounded by itself, for each rate. */
const ROUNDED_BY = 1;
/** Where cash is rounded to five of the smallest unit (Switzerland, since 2007). */
const CASH_ROUNDING: Record<string, number> = { CHF: 5 };

/** The entry that a paper proposes, and what keeps it from being entered. */
export function draftEntry(says: PaperSays, { country }: { country: BookCountry }): EntryDraft {
  const currency = says.currency || CURRENCY_OF[country];
  const sign = says.kind === 'credit note' ? -1 : 1;
  const read = (text: string): number | undefined => {
    const found = text === '' ? undefined : moneyOf(text, currency);
    return found && sign * Math.abs(found.units) * (sign > 0 ? Math.sign(found.units) : 1);
  };
  const ofCurrency = (amount: number) => read(amount.toFixed(digitsOf(currency)))!;
  const [total, net, tax] = [read(says.total), read(says.net), read(says.tax)];
  const units = total ?? (net !== undefined && tax !== undefined ? net + tax : undefined);
  const rates = says.taxes.length > 0 ? says.taxes : singleRate(says);
  const codeOf = (rate: number | null) => taxCodeFor(rate, { country, currency, day: says.date })?.code ?? null;
  const parts: EntryPart[] = rates.map((each) => {
    const taxed = each.tax === null ? undefined : ofCurrency(each.tax);
    const given = each.net === null ? undefined : ofCurrency(each.net);
    const split = splitAt(each.rate, { net: given, tax: taxed, total: rates.length === 1 ? units : undefined });
    return { categoryId: null, taxCode: codeOf(each.rate), rate: each.rate, ...split };
  });
  const left = (units ?? 0) - sumOf(parts);
  if (parts.length === 0) parts.push({ categoryId: null, taxCode: codeOf(null), rate: null, net: units ?? 0, tax: 0 });
  else if (left !== 0 && isUntaxedRest(left, parts, net))
    parts.push({ categoryId: null, taxCode: codeOf(null), rate: null, net: left, tax: 0 });
  else if (left !== 0 && Math.abs(left) <= ROUNDED_BY * parts.length) parts[0].net += left;
  else if (left !== 0 && Math.abs(left) < (CASH_ROUNDING[currency] ?? 0)) parts[0].net += left;
  const problems: DraftProblem[] = [];
  if (!says.date) problems.push('no-day');
  if (!says.vendor) problems.push('no-who');
  if (units === undefined) problems.push('no-total');
  else if (sumOf(parts) !== units) problems.push('not-adding-up');
  return {
    day: says.date,
    due: says.dueDate || null,
    who: says.vendor,
    what: says.subject,
    number: says.number,
    currency,
    units: units ?? 0,
    parts,
    problems,
  };
}

/** What parts come to, with their tax. */
export const sumOf = (parts: readonly Pick<EntryPart, 'net' | 'tax'>[]): number =>
  parts.reduce((sum, { net, tax }) => sum + net + tax, 0);

function singleRate({ taxRate, net, tax }: PaperSays): { rate: number; net: number | null; tax: number | null }[] {
  if (taxRate === '' && (tax === '' || Number(tax) === 0)) return [];
  const [onIt, taxed] = [net === '' ? null : Number(net), tax === '' ? null : Number(tax)];
  const rate = taxRate !== '' ? Number(taxRate) : onIt && taxed ? nearRate((100 * taxed) / onIt) : NaN;
  return Number.isFinite(rate) ? [{ rate, net: onIt, tax: taxed }] : [];
}

/** A rate as laws give it: in tenths, or halves of them. */
const nearRate = (rate: number): number => Math.round(rate * 20) / 20;

/** Net and tax of an amount, from what of them is known; rounded half away from zero. */
function splitAt(
  rate: number,
  { net, tax, total }: { net?: number; tax?: number; total?: number },
): { net: number; tax: number } {
  if (net !== undefined) return { net, tax: tax ?? (total !== undefined ? total - net : shareOf(net, rate, 100)) };
  if (total !== undefined) {
    const taxed = tax ?? shareOf(total, rate, 100 + rate);
    return { net: total - taxed, tax: taxed };
  }
  // Only the tax is said: what it is on follows from the rate.
  return tax === undefined || rate === 0 ? { net: 0, tax: tax ?? 0 } : { net: shareOf(tax, 100, rate), tax };
}

/** units × share ÷ of, rounded half away from zero; in thousandths of percent, so that no rate is a binary fraction. */
export function shareOf(units: number, share: number, of: number): number {
  const [times, by] = [BigInt(Math.round(share * 1000)), BigInt(Math.round(of * 1000))];
  const product = BigInt(Math.abs(units)) * times;
  const rounded = Number((2n * product + by) / (2n * by));
  return units < 0 && rounded !== 0 ? -rounded : rounded;
}

/** Whether what is left of a total is a share without tax (postage, a deposit): the paper's own net has it too. */
function isUntaxedRest(left: number, parts: readonly EntryPart[], net: number | undefined): boolean {
  return net !== undefined && parts.reduce((sum, part) => sum + part.net, left) === net;
}
