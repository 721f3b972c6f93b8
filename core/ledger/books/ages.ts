import { dayNumber } from '../matching/entry';

/** What is owed, and since when it is due. */
export interface OwedEntry {
  day: string;
  due: string | null;
  units: number;
  paid: number;
  currency: string;
}

/** How long something has been due: not yet; then by months of thirty days. */
export const AGES = ['not due', 'up to 30 days', 'up to 60 days', 'up to 90 days', 'longer'] as const;
const MONTH = 30;

/** What is still to be paid and to come in one currency, by how long it has been due. */
export interface Aged {
  toPay: number[];
  toCome: number[];
}

/** @param today ISO 8601; what says no day is due on its own @returns sums in the order of AGES */
export function owedByAge(entries: readonly OwedEntry[], currency: string, today: string): Aged {
  const aged: Aged = { toPay: AGES.map(() => 0), toCome: AGES.map(() => 0) };
  for (const entry of entries) {
    const left = entry.units - entry.paid;
    if (left === 0 || entry.currency !== currency) continue;
    const late = dayNumber(today) - dayNumber(entry.due ?? entry.day);
    const age = late <= 0 ? 0 : Math.min(AGES.length - 1, Math.ceil(late / MONTH));
    if (left > 0) aged.toPay[age] += left;
    else aged.toCome[age] -= left;
  }
  return aged;
}
