/** What is entered: what is to be paid is positive, what is to be received negative, in the smallest unit of its currency. */
export interface Owed {
  id: string;
  day: string;
  units: number;
  currency: string;
}

/** What was paid by a tie: what went out is negative, as on a statement. */
export interface Payment {
  entries: readonly string[];
  lines: readonly { units: number; currency: string }[];
  why: string;
}

/**
 * What entries come to in the money of the books: those in it, themselves; those in another as somebody said, else as they were paid in it. Several
 * that were paid together share what was paid by their amounts, the last one what is left.
 * @returns by the entry's id; without those of which it is not known
 */
export function worthOf(
  entries: readonly (Owed & { ownUnits: number | null })[],
  payments: readonly Payment[],
  own: string,
): Map<string, number> {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const worth = new Map<string, number>();
  for (const { entries: ids, lines } of payments) {
    const those = ids.flatMap((id) => byId.get(id) ?? []);
    const [first] = those;
    const isForeign = first && first.currency !== own && those.every(({ currency }) => currency === first.currency);
    if (!isForeign || lines.length === 0 || lines.some(({ currency }) => currency !== own)) continue;
    const whole = those.reduce((sum, { units }) => sum + units, 0);
    const paid = -lines.reduce((sum, { units }) => sum + units, 0);
    if (whole === 0) continue;
    let left = paid;
    those.forEach(({ id, units }, at) => {
      const share = at === those.length - 1 ? left : Math.round((paid * units) / whole);
      left -= share;
      worth.set(id, share);
    });
  }
  for (const { id, units, currency, ownUnits } of entries) {
    if (currency === own) worth.set(id, units);
    else if (ownUnits !== null) worth.set(id, ownUnits);
  }
  return worth;
}

/** Ties that settle all that they hold, whatever their sums: the difference is a discount, a fee, or one of exchange. */
const SETTLES = ['discount', 'fee', 'exchange'];

/**
 * How much of each entry is paid by the ties that were made: by one that pays less than all of its entries, those of the earliest day first.
 * @returns by the entry's id, with the entry's sign
 */
export function paidBy(entries: readonly Owed[], payments: readonly Payment[]): Map<string, number> {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const paid = new Map<string, number>();
  const leftOf = (entry: Owed) => entry.units - (paid.get(entry.id) ?? 0);
  const pay = (entry: Owed, units: number) => paid.set(entry.id, (paid.get(entry.id) ?? 0) + units);
  for (const { entries: ids, lines, why } of payments) {
    const own = ids.flatMap((id) => byId.get(id) ?? []).sort((a, b) => (a.day < b.day ? -1 : 1));
    const isForeign = lines.some((line) => own.some(({ currency }) => currency !== line.currency));
    const owed = own.reduce((sum, entry) => sum + leftOf(entry), 0);
    let left = -lines.reduce((sum, { units }) => sum + units, 0);
    if (isForeign || SETTLES.includes(why) || left === owed) {
      for (const entry of own) pay(entry, leftOf(entry));
      continue;
    }
    // What goes the other way, a credit note, is set off against the rest.
    for (const entry of own.filter(({ units }) => Math.sign(units) !== Math.sign(left))) {
      const part = leftOf(entry);
      pay(entry, part);
      left -= part;
    }
    const along = own.filter(({ units }) => Math.sign(units) === Math.sign(left));
    for (const [at, entry] of along.entries()) {
      const most = leftOf(entry);
      // More than is owed is paid to the last.
      const part = at === along.length - 1 || Math.abs(left) < Math.abs(most) ? left : most;
      pay(entry, part);
      left -= part;
    }
  }
  return paid;
}
