import { digitsOf, moneyOf, writeMoney } from '../../money';
import { readDate } from '../dates';
import { isDay } from '../dayForms';
import { KIND_NAME } from './kindList';
import { currencyIn } from './currencies';
import { readAmount } from './money';

/** A typed fact as it is kept (days in ISO 8601, money with a point and two decimals), or what the text is not. */
export type TypedFact = { value: string } | { unclear: 'date' | 'amount' | 'kind' | 'currency' };

/** So long a text of a fact is at most. */
export const LONGEST_FACT = 300;

/** The facts that are money. */
export const MONEY = ['net', 'tax', 'total', 'amountDue', 'opening', 'closing'];
/** The facts that are days. */
export const DAYS = ['date', 'dueDate', 'ends'];
const RATE = /^(\d{1,2}(?:[.,]\d{1,2})?) ?%?$/;

/**
 * What a fact of a name says, whether it was typed, read, or comes from an archive; an empty text stays empty: typed, it takes the
 * fact away.
 */
export function typedFact(name: string, text: string): TypedFact {
  if (text === '') return { value: '' };
  switch (name) {
    case 'date':
    case 'dueDate':
    case 'ends': {
      const date = readDate(text);
      return date ? { value: date } : { unclear: 'date' };
    }
    case 'kind':
      return KIND_NAME.test(text) ? { value: text } : { unclear: 'kind' };
    case 'net':
    case 'tax':
    case 'total':
    case 'amountDue':
    case 'opening':
    case 'closing': {
      const amount = readAmount(text);
      return amount ? { value: (amount.cents / 100).toFixed(2) } : { unclear: 'amount' };
    }
    case 'taxRate': {
      const rate = RATE.exec(text);
      return rate ? { value: String(Number(rate[1].replace(',', '.'))) } : { unclear: 'amount' };
    }
    case 'currency': {
      const currency = currencyIn(text) ?? /^[a-z]{3}$/i.exec(text)?.[0].toUpperCase();
      return currency ? { value: currency } : { unclear: 'currency' };
    }
    case 'iban':
      return { value: text.replace(/[\s.-]/g, '').toUpperCase() };
    default:
      return { value: text };
  }
}

/** A fact as the database keeps it: its text, and what that says by its type. */
export interface KeptValue {
  /** Days in ISO 8601, money with all decimals of its currency. */
  value: string;
  /** ISO 8601. */
  day: string | null;
  /** Money: how many of the smallest unit of its currency, and how many decimals that has. */
  units: number | null;
  digits: number | null;
  currency: string | null;
  /** In percent. */
  rate: string | null;
}

/** @param value as `typedFact` gives it  @param currency of the paper; null when it is not known */
export function keptValue(name: string, value: string, currency: string | null): KeptValue {
  const kept: KeptValue = { value, day: null, units: null, digits: null, currency: null, rate: null };
  if (DAYS.includes(name)) return { ...kept, day: isDay(value) ? value : null };
  if (name === 'taxRate') return { ...kept, rate: RATE.test(value) ? value : null };
  if (!MONEY.includes(name)) return kept;
  const money = moneyOf(value, currency);
  return money ? { ...kept, value: writeMoney(money), units: money.units, digits: digitsOf(currency), currency } : kept;
}
