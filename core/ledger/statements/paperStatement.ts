import { moneyOf } from '../../money';
import { Booking } from '../../reading/facts/fact';
import { Statement } from './statement';

/**
 * A paper that was read as a statement, as a statement: what it books, with the balances and the account that it says.
 * @param says its facts, money as decimal numbers
 * @param usual the currency where it says none
 */
export function paperStatement(
  bookings: readonly Booking[],
  says: Partial<Record<'currency' | 'opening' | 'closing' | 'iban' | 'reference', string>>,
  usual: string,
): Statement {
  const currency = says.currency ?? usual;
  const units = (amount: number | string | null | undefined) =>
    amount == null ? null : (moneyOf(typeof amount === 'number' ? amount.toFixed(4) : amount, currency)?.units ?? null);
  const lines = bookings.map(({ date, text, amount, balance }) => ({
    ...{ day: date, units: units(amount) ?? 0, currency, who: '', text, id: '' },
    balance: units(balance),
  }));
  const opening = units(says.opening);
  return {
    ...{ format: 'paper', account: says.iban ?? says.reference ?? null, currency, opening },
    closing: units(says.closing),
    lines: lines.filter((line) => line.units !== 0),
    signed: bookings.some(({ amount }) => amount < 0),
  };
}
