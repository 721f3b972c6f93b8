import { readDate } from '../dates';
import { KINDS } from './fact';
import { currencyIn, readAmount } from './money';

/** A typed fact as it is kept (days in ISO 8601, money with a point and two decimals), or what the text is not. */
export type TypedFact = { value: string } | { unclear: 'date' | 'amount' | 'kind' | 'currency' };

const RATE = /^(\d{1,2}(?:[.,]\d{1,2})?) ?%?$/;

/** What a person typed for a fact of a name; an empty text stays empty: it takes the fact away. */
export function typedFact(name: string, text: string): TypedFact {
  if (text === '') return { value: '' };
  switch (name) {
    case 'date':
    case 'dueDate': {
      const date = readDate(text);
      return date ? { value: date } : { unclear: 'date' };
    }
    case 'kind':
      return (KINDS as readonly string[]).includes(text) ? { value: text } : { unclear: 'kind' };
    case 'net':
    case 'tax':
    case 'total':
    case 'amountDue': {
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
    default:
      return { value: text };
  }
}
