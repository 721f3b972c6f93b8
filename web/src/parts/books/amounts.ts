import { digitsOf, moneyOf, writeMoney } from '@crow/core/money';
import { readAmount } from '@crow/core/reading/facts/money';

/** An amount as it is typed over: `1184.20`, without its currency. */
export const typedAmount = (units: number, currency: string): string => writeMoney({ units, currency });

/** What was typed as an amount, in the smallest unit of a currency; nothing where it is none. A point, a comma, groups and signs as people type them. */
export function unitsTyped(typed: string, currency: string): number | undefined {
  const text = typed.trim();
  const plain = moneyOf(text, currency);
  if (plain) return plain.units;
  const amount = readAmount(text);
  return amount && Math.round((amount.cents * 10 ** digitsOf(currency)) / 100);
}
