import { StatementLine } from '../statements/statement';

/** An entry in the books that is to be paid, or for which money is to come. */
export interface OpenEntry {
  id: string;
  /** Of its paper (ISO 8601). */
  day: string;
  /** When it is due; null where that is not said. */
  due: string | null;
  who: string;
  number: string;
  /** In the smallest unit of its currency: what is to be paid is positive, what is to be received negative. */
  units: number;
  currency: string | null;
}

/** What belongs together: entries and lines, by their places in what was given. */
export interface Tie {
  entries: number[];
  lines: number[];
  /** How likely it is that all of them belong together and nothing else does, from 0 to 1. */
  confidence: number;
  why: TieReason;
}

/** What a tie rests on. */
export type TieReason = 'amount' | 'discount' | 'fee' | 'exchange' | 'together' | 'parts' | 'part';

export type MatchLine = Pick<StatementLine, 'day' | 'units' | 'currency' | 'who' | 'text'>;

const DAY_MS = 86_400_000;

/** A day as a number of days. */
export function dayNumber(day: string): number {
  return Math.round(Date.parse(`${day}T00:00:00Z`) / DAY_MS);
}
