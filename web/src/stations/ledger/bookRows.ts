import { BookedLine, BookTie, Entry } from '@crow/contract/ledger';
import { writeMoney } from '@crow/core/money';
import { groupBy } from '@crow/core/shelf/groupBy';
import { monthName } from '../../parts/months';

/** What entries come to, by currency: what goes out, what comes in, and what of both is still to be paid and to come. */
export interface BookSums {
  currency: string;
  out: number;
  in: number;
  toPay: number;
  toCome: number;
}

/** A row of the page: the heading of a month or of another group, or a rule with what stands on it at the left and at the right. */
export type BookRow =
  | { kind: 'group'; title: string; sums: BookSums[]; entries: number }
  | { kind: 'rule'; entry?: Entry; line?: BookedLine };

/** What entries come to, by currency, the one with most entries first. */
export function sumsOf(entries: readonly Entry[]): BookSums[] {
  const sums = new Map<string, BookSums & { times: number }>();
  for (const { currency, units, paid } of entries) {
    const sum = sums.get(currency) ?? { currency, out: 0, in: 0, toPay: 0, toCome: 0, times: 0 };
    if (units >= 0) sum.out += units;
    else sum.in -= units;
    const left = units - paid;
    if (left > 0) sum.toPay += left;
    else sum.toCome -= left;
    sum.times++;
    sums.set(currency, sum);
  }
  return [...sums.values()].sort((a, b) => b.times - a.times).map(({ times: _, ...sum }) => sum);
}

/**
 * The rows of the page in the order of days: on each day as many rules as its entries or its lines of statements need, whichever are more,
 * so that both stand at the height of their date.
 * @param entries and lines in any order
 */
export function rowsByDay(entries: readonly Entry[], lines: readonly BookedLine[], latestFirst: boolean): BookRow[] {
  const days = new Map<string, { entries: Entry[]; lines: BookedLine[] }>();
  const at = (day: string) => {
    const there = days.get(day) ?? { entries: [], lines: [] };
    days.set(day, there);
    return there;
  };
  for (const entry of entries) at(entry.day).entries.push(entry);
  for (const line of lines) at(line.day).lines.push(line);
  const ordered = [...days.keys()].sort((a, b) => (latestFirst ? -1 : 1) * (a < b ? -1 : 1));
  const byMonth = groupBy(entries, ({ day }) => day.slice(0, 7));
  const rows: BookRow[] = [];
  let month = '';
  for (const day of ordered) {
    if (day.slice(0, 7) !== month) {
      month = day.slice(0, 7);
      const those = byMonth.get(month) ?? [];
      rows.push({ kind: 'group', title: monthName(month), sums: sumsOf(those), entries: those.length });
    }
    const { entries: own, lines: booked } = days.get(day)!;
    if (latestFirst) own.reverse();
    for (let rule = 0; rule < Math.max(own.length, booked.length); rule++)
      rows.push({ kind: 'rule', entry: own[rule], line: booked[rule] });
  }
  return rows;
}

/**
 * The rows in another order: an entry a rule, the first line that is tied to it beside it.
 * @param groupOf the title of the group that an entry is in, those of one beside each other; none where they are not grouped
 */
export function rowsInOrder(
  entries: readonly Entry[],
  lines: readonly BookedLine[],
  ties: readonly BookTie[],
  groupOf?: (entry: Entry) => string,
): BookRow[] {
  const lineOf = new Map(lines.map((line) => [line.id, line]));
  const tied = new Map<string, BookedLine>();
  for (const tie of ties)
    for (const entry of tie.entries) {
      const line = lineOf.get(tie.lines[0]);
      if (line && (tie.made || !tied.has(entry))) tied.set(entry, line);
    }
  const groups = groupOf && groupBy(entries, groupOf);
  let last: string | undefined;
  return entries.flatMap((entry): BookRow[] => {
    const rule: BookRow = { kind: 'rule', entry, line: tied.get(entry.id) };
    const title = groupOf?.(entry);
    if (title === undefined || title === last) return [rule];
    last = title;
    const those = groups!.get(title)!;
    return [{ kind: 'group', title, sums: sumsOf(those), entries: those.length }, rule];
  });
}

/** How a tie is drawn: from where its entries stand to where its lines do. */
export interface DrawnTie {
  tie: BookTie;
  /** Pairs of rows. */
  pairs: [entry: number, line: number][];
}

/** The ties of which both ends are on the page. */
export function drawnTies(rows: readonly BookRow[], ties: readonly BookTie[]): DrawnTie[] {
  const entryRow = new Map<string, number>();
  const lineRow = new Map<string, number>();
  rows.forEach((row, at) => {
    if (row.kind !== 'rule') return;
    if (row.entry) entryRow.set(row.entry.id, at);
    if (row.line) lineRow.set(row.line.id, at);
  });
  return ties.flatMap((tie) => {
    const pairs = tie.entries.flatMap((entry) =>
      tie.lines.flatMap((line): [number, number][] => {
        const [from, to] = [entryRow.get(entry), lineRow.get(line)];
        return from === undefined || to === undefined ? [] : [[from, to]];
      }),
    );
    return pairs.length > 0 ? [{ tie, pairs }] : [];
  });
}

/** Which entries are shown. */
export type BookFilter = 'all' | 'open' | 'no-paper' | 'no-category' | 'not-checked' | 'proposed';

const fold = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();

/** What an entry says, to be looked through. */
export interface Searchable {
  entry: Entry;
  text: string;
}

/** @param categoryName what a category is called */
export function searchable(entries: readonly Entry[], categoryName: (id: string) => string): Searchable[] {
  return entries.map((entry) => ({
    entry,
    text: fold(
      [
        entry.who,
        entry.what,
        entry.number,
        entry.day,
        String(entry.serial),
        writeMoney({ units: Math.abs(entry.units), currency: entry.currency }),
        ...entry.parts.flatMap(({ categoryId }) => (categoryId ? categoryName(categoryId) : [])),
      ].join(' '),
    ),
  }));
}

/** The entries that a filter and words leave: each word stands somewhere in what the entry says. */
export function filtered(
  all: readonly Searchable[],
  { words, filter, year }: { words: string; filter: BookFilter; year: string },
  ties: readonly BookTie[],
): Entry[] {
  const wanted = fold(words).split(/\s+/).filter(Boolean);
  const proposed = new Set(ties.flatMap((tie) => (tie.made ? [] : tie.entries)));
  return all.flatMap(({ entry, text }) => {
    if (year && !entry.day.startsWith(year)) return [];
    if (!wanted.every((word) => text.includes(word))) return [];
    return passes(entry, filter, proposed) ? [entry] : [];
  });
}

function passes(entry: Entry, filter: BookFilter, proposed: ReadonlySet<string>): boolean {
  switch (filter) {
    case 'open':
      return entry.paid !== entry.units;
    case 'no-paper':
      return !entry.papers.some(({ role }) => role === 'proof');
    case 'no-category':
      return entry.parts.some(({ categoryId, taxCode }) => !categoryId || !taxCode);
    case 'not-checked':
      return !entry.checkedAt;
    case 'proposed':
      return proposed.has(entry.id);
    default:
      return true;
  }
}
