/** What is added up: a share of an entry under one category and one treatment; money in the smallest unit. */
export interface SummedPart {
  categoryId: string | null;
  taxCode: string | null;
  net: number;
  tax: number;
}

export interface SummedEntry {
  day: string;
  who: string;
  currency: string;
  parts: readonly SummedPart[];
}

/**
 * Entries in the money of the books: those in another as what they are worth, each share by its part of the whole, the last one what is left.
 * @returns beside them how many are left out because nobody knows what they come to
 */
export function inOwnMoney<Entry extends SummedEntry & { units: number; worth: number | null }>(
  entries: readonly Entry[],
  own: string,
): { entries: SummedEntry[]; unknown: number } {
  const known = entries.filter(({ currency, worth }) => currency === own || worth !== null);
  return { entries: known.map((entry) => exchanged(entry, own)), unknown: entries.length - known.length };
}

function exchanged(entry: SummedEntry & { units: number; worth: number | null }, own: string): SummedEntry {
  const { currency, units, worth, parts } = entry;
  if (currency === own || worth === null || units === 0) return entry;
  let left = worth;
  const share = (of: number): number => {
    const part = Math.round((worth * of) / units);
    left -= part;
    return part;
  };
  const taxes = parts.map(({ tax }) => share(tax));
  const nets = parts.map(({ net }, at) => (at === parts.length - 1 ? left : share(net)));
  return { ...entry, currency: own, parts: parts.map((part, at) => ({ ...part, net: nets[at], tax: taxes[at] })) };
}

/** By what entries are added up. */
export const SUMMED_BY = ['month', 'category', 'tax', 'who'] as const;
export type SummedBy = (typeof SUMMED_BY)[number];

/** A row of sums: what it is of ('' for none), in one currency, and what the same was in the year before. */
export interface SumRow {
  key: string;
  entries: number;
  net: number;
  tax: number;
  total: number;
  before: number;
}

/**
 * What the entries of a year, or of some of its months, come to in one currency, by month, category, tax code or sender, beside the same time of
 * the year before. Costs are positive, what comes in negative; by tax code each apart, as on a return: what is given back of the one is no part of
 * the other. Months in their order, the rest by how much they come to.
 * @param year `2026`
 * @param months the first and the last, from 1
 * @param isIncome whether what is under a category comes in
 */
export function sumsBy(
  entries: readonly SummedEntry[],
  by: SummedBy,
  {
    year,
    currency,
    months: [first, end] = [1, 12],
    isIncome = () => false,
  }: {
    year: string;
    currency: string;
    months?: readonly [first: number, last: number];
    isIncome?: (categoryId: string) => boolean;
  },
): SumRow[] {
  const rows = new Map<string, SumRow>();
  const row = (key: string) => {
    const there = rows.get(key) ?? { key, entries: 0, net: 0, tax: 0, total: 0, before: 0 };
    rows.set(key, there);
    return there;
  };
  const last = String(Number(year) - 1);
  for (const entry of entries) {
    const month = Number(entry.day.slice(5, 7));
    if (entry.currency !== currency || month < first || month > end) continue;
    const isNow = entry.day.startsWith(year);
    if (!isNow && !entry.day.startsWith(last)) continue;
    const counted = new Set<string>();
    for (const part of entry.parts) {
      const key = keyOf(entry, part, by, isIncome);
      const of = row(key);
      const sum = part.net + part.tax;
      if (!isNow) {
        of.before += sum;
        continue;
      }
      of.net += part.net;
      of.tax += part.tax;
      of.total += sum;
      if (!counted.has(key)) of.entries++;
      counted.add(key);
    }
  }
  const all = [...rows.values()];
  return by === 'month'
    ? all.sort((a, b) => (a.key < b.key ? -1 : 1))
    : all.sort((a, b) => Math.abs(b.total) - Math.abs(a.total) || (a.key < b.key ? -1 : 1));
}

/** What stands before a tax code of what comes in. */
export const COMES_IN = 'in ';

function keyOf(
  { day, who }: SummedEntry,
  { categoryId, taxCode, net, tax }: SummedPart,
  by: SummedBy,
  isIncome: (categoryId: string) => boolean,
): string {
  switch (by) {
    case 'month':
      return day.slice(5, 7);
    case 'category':
      return categoryId ?? '';
    case 'tax':
      return ((categoryId ? isIncome(categoryId) : net + tax < 0) ? COMES_IN : '') + (taxCode ?? '');
    case 'who':
      return who;
  }
}
