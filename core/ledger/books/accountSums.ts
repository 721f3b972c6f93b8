/** An account, with what was on it at the beginning of a day; null while nobody has said. */
export interface SummedAccount {
  id: string;
  name: string;
  kind: 'bank' | 'card' | 'cash';
  currency: string;
  opening: { day: string; units: number } | null;
}

/** A line of a statement; what came in is positive. */
interface AccountMove {
  accountId: string | null;
  day: string;
  units: number;
  currency: string;
}

/** What happened on an account in a year; money in the smallest unit of its currency. Balances are null where none is known. */
export interface AccountSum {
  id: string;
  name: string;
  currency: string;
  opening: number | null;
  received: number;
  spent: number;
  closing: number | null;
}

/**
 * What was on accounts when a year began, what came in and went out, and what is on them at its end: of banks and cards by the lines of their
 * statements, of cash by the entries that it paid. A balance is known from a day on that somebody gave, or from the first line that says one.
 * @param year `2026`
 * @returns accounts on which something happened by then, or something was to begin with
 */
export function accountSums(
  accounts: readonly SummedAccount[],
  {
    entries,
    lines,
  }: { entries: readonly AccountMove[]; lines: readonly (AccountMove & { balance?: number | null })[] },
  year: string,
): AccountSum[] {
  const [first, next] = [`${year}-01-01`, `${Number(year) + 1}-01-01`];
  return accounts.flatMap((account): AccountSum[] => {
    const { id, name, currency, kind, opening } = account;
    const moves =
      kind === 'cash'
        ? entries.filter(({ accountId }) => accountId === id).map((entry) => ({ ...entry, units: -entry.units }))
        : lines.filter(({ accountId }) => accountId === id);
    const own = moves.filter((move) => move.currency === currency && move.day < next);
    if (own.length === 0 && opening === null) return [];
    const begin = opening ?? (kind === 'cash' ? null : beginningOf(lines.filter(({ accountId }) => accountId === id)));
    const sum = (those: readonly AccountMove[]) => those.reduce((total, { units }) => total + units, 0);
    const inYear = own.filter(({ day }) => day >= first);
    // Before its beginning nothing is known; what the year before it had is not in its balance.
    const counted = begin ? own.filter(({ day }) => day >= begin.day) : [];
    const at = (until: string) =>
      begin && begin.day <= until ? begin.units + sum(counted.filter(({ day }) => day < until)) : null;
    return [
      {
        ...{ id, name, currency },
        opening: at(first),
        received: sum(inYear.filter(({ units }) => units > 0)),
        spent: -sum(inYear.filter(({ units }) => units < 0)),
        closing: at(next),
      },
    ];
  });
}

/** What was on an account before its first line, where that says what is on it then. */
function beginningOf(
  lines: readonly { day: string; units: number; balance?: number | null }[],
): SummedAccount['opening'] {
  const [first] = lines;
  return first?.balance == null ? null : { day: first.day, units: first.balance - first.units };
}
