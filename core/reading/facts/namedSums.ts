import { Fact, leastSure, placeOf, TaxAtRate } from './fact';
import { Amount } from './money';

/** What the amounts at the foot of an invoice or receipt are. */
export interface Sums {
  net: Fact<number> | null;
  tax: Fact<number> | null;
  taxRate: Fact<number> | null;
  total: Fact<number> | null;
  taxes: Fact<TaxAtRate[]> | null;
  /** What is left to pay, where it is not the total. */
  amountDue: Fact<number> | null;
  /** Whether what was found adds up, as far as it can be checked. */
  addsUp: boolean;
}

/** An amount that something was taken for. */
export interface Named {
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

export const NO_SUMS: Sums = {
  net: null,
  tax: null,
  taxRate: null,
  total: null,
  taxes: null,
  amountDue: null,
  addsUp: false,
};

/** An amount as a fact, by what it is called. @param most how sure it is at most */
export function moneyFact({ row, words }: Amount, cents: number, label: string, most: number): Fact<number> {
  return {
    value: cents / 100,
    page: row.page,
    box: placeOf(words),
    confidence: most * leastSure(words),
    why: { code: 'beside', label },
  };
}
