import { digitsOf, writeMoney } from '../../money';

/** An entry as a journal has it; money in the smallest unit of its currency. */
export interface JournalEntry {
  id: string;
  serial: number;
  day: string;
  who: string;
  what: string;
  number: string;
  currency: string;
  units: number;
  /** The account that it was paid from at once, in cash; '' where it is paid by lines of statements, or not yet. */
  paidIn: string;
  parts: readonly { category: string; side: 'cost' | 'income'; taxCode: string | null; net: number; tax: number }[];
}

/** A line of a statement, with the entries that it pays, alone or with others. */
export interface JournalLine {
  id: string;
  day: string;
  account: string;
  who: string;
  text: string;
  units: number;
  currency: string;
}

/** What belongs together: the lines are the payment of the entries; without any, the two ends of a transfer between accounts. */
export interface JournalTie {
  entries: readonly string[];
  lines: readonly string[];
  /** Whether it settles the entries though the sums differ, by a discount or a fee. */
  settles: boolean;
}

/** What is on an account before the first line. */
export interface JournalOpening {
  day: string;
  account: string;
  units: number;
  currency: string;
}

interface Posting {
  account: string;
  units: number;
  currency: string;
  note?: string;
}

const OPEN = 'liabilities:open';
const TAX_PAID = 'assets:tax paid';
const TAX_CHARGED = 'liabilities:tax charged';
const UNMATCHED = 'equity:not matched';
const EXCHANGE = 'equity:exchange';
const DIFFERENCES = 'expenses:differences';
const OPENING = 'equity:opening';
const BETWEEN = 'assets:between accounts';

/**
 * The books as a plain-text journal of double entries, as hledger and its kin read them: each entry against what is open, each tied line of a
 * statement against that, each line that nothing is tied to against what is not matched. Every transaction adds up to nothing in each currency.
 */
export function writeJournal({
  entries,
  lines,
  ties,
  openings = [],
}: {
  entries: readonly JournalEntry[];
  lines: readonly JournalLine[];
  ties: readonly JournalTie[];
  openings?: readonly JournalOpening[];
}): string {
  const entryOf = new Map(entries.map((entry) => [entry.id, entry]));
  const lineOf = new Map(lines.map((line) => [line.id, line]));
  const currencies = [...new Set([...entries, ...lines, ...openings].map(({ currency }) => currency))].sort();
  const transactions: { day: string; text: string }[] = openings.map(({ day, account, units, currency }) => ({
    day,
    text: transaction(`${day} Opening balance`, [
      { account: assets(account), units, currency },
      { account: OPENING, units: -units, currency },
    ]),
  }));
  for (const entry of entries) transactions.push({ day: entry.day, text: entered(entry) });
  const tied = new Set<string>();
  for (const tie of ties) {
    const own = tie.entries.flatMap((id) => entryOf.get(id) ?? []);
    const those = tie.lines.flatMap((id) => lineOf.get(id) ?? []);
    those.forEach(({ id }) => tied.add(id));
    const isTransfer = tie.entries.length === 0;
    transactions.push(...(own.length > 0 ? paid(own, those) : those.map(isTransfer ? transferred : paidBefore)));
    const isWhole = own.length === tie.entries.length && those.length === tie.lines.length;
    const difference = tie.settles && isWhole ? settledDifference(own, those) : undefined;
    if (difference) transactions.push(difference);
  }
  for (const line of lines)
    if (!tied.has(line.id))
      transactions.push({
        day: line.day,
        text: transaction(`${line.day} ${named(line.who, line.text)}`, [
          { account: assets(line.account), units: line.units, currency: line.currency },
          { account: UNMATCHED, units: -line.units, currency: line.currency },
        ]),
      });
  const heads = currencies.map(
    (currency) =>
      `commodity ${writeMoney({ units: 0, currency }).replace('0', '1000')}${digitsOf(currency) === 0 ? '.' : ''} ${currency}`,
  );
  const ordered = transactions.sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
  const written = ordered.map(({ text }) => text).join('\n');
  const accounts = new Set([...written.matchAll(/^ {4}(.+?) {2}/gm)].map(([, account]) => account));
  return [...heads, ...[...accounts].sort().map((account) => `account ${account}`), '', written].join('\n');
}

const assets = (account: string) => `assets:${accountName(account)}`;

/** Text that means nothing to who reads the journal: no breaks, no comment, no other payee. */
const plain = (text: string) =>
  text
    .replace(/[;|\r\n\t]+/g, ' ')
    .replace(/ {2,}/g, ' ')
    .trim();
const named = (who: string, what: string) => plain(who && what ? `${who} - ${what}` : who || what || 'not named');
/** What accounts are called: a colon would make another below it, two blanks would end it. */
const accountName = (name: string) =>
  plain(name)
    .replace(/[:()[\]]/g, ' ')
    .replace(/ {2,}/g, ' ')
    .trim() || 'none';

function transaction(head: string, postings: readonly Posting[]): string {
  const rows = postings
    .filter(({ units }) => units !== 0)
    .map(
      ({ account, units, currency, note }) =>
        `    ${account}  ${writeMoney({ units, currency })} ${currency}${note ? `  ; ${note}` : ''}`,
    );
  return `${head}\n${rows.join('\n')}\n`;
}

function entered({ serial, day, who, what, number, currency, units, parts, paidIn }: JournalEntry): string {
  const postings: Posting[] = parts.flatMap(({ category, side, taxCode, net, tax }) => [
    {
      account: `${side === 'income' ? 'income' : 'expenses'}:${accountName(category)}`,
      units: net,
      currency,
      ...(taxCode && { note: `tax:${taxCode}` }),
    },
    { account: side === 'income' ? TAX_CHARGED : TAX_PAID, units: tax, currency },
  ]);
  const code = plain(number).replace(/[()]/g, '');
  const head = `${day} ${code ? `(${code}) ` : ''}${named(who, what)}  ; entry:${serial}`;
  return transaction(head, [...postings, { account: paidIn ? assets(paidIn) : OPEN, units: -units, currency }]);
}

/** Entries and the lines that pay them: what is open is settled by each line; what is left over by none is a difference. */
function paid(entries: readonly JournalEntry[], lines: readonly JournalLine[]): { day: string; text: string }[] {
  const [{ currency }] = entries;
  const isOne = [...entries, ...lines].every((each) => each.currency === currency);
  const owed = entries.reduce((sum, { units }) => sum + units, 0);
  return lines.map((line, at) => {
    const bank: Posting = { account: assets(line.account), units: line.units, currency: line.currency };
    const head = `${line.day} ${named(line.who, line.text)}  ; pays entry ${entries.map(({ serial }) => serial).join(', ')}`;
    if (isOne)
      return { day: line.day, text: transaction(head, [bank, { account: OPEN, units: -line.units, currency }]) };
    // In another currency: the first line settles all, the exchange stands between.
    const settled: Posting[] =
      at > 0
        ? []
        : [
            { account: OPEN, units: owed, currency },
            { account: EXCHANGE, units: -owed, currency },
          ];
    const exchanged = { account: EXCHANGE, units: -line.units, currency: line.currency };
    return { day: line.day, text: transaction(head, [bank, exchanged, ...settled]) };
  });
}

/** One end of a transfer between own accounts: on its way from there to here. */
function transferred({ day, who, text, account, units, currency }: JournalLine): { day: string; text: string } {
  return {
    day,
    text: transaction(`${day} ${named(who, text)}  ; transfer`, [
      { account: assets(account), units, currency },
      { account: BETWEEN, units: -units, currency },
    ]),
  };
}

/** A line that pays what was entered at another time than what is written here: it is open from then, or to be. */
function paidBefore({ day, who, text, account, units, currency }: JournalLine): { day: string; text: string } {
  return {
    day,
    text: transaction(`${day} ${named(who, text)}  ; of another time`, [
      { account: assets(account), units, currency },
      { account: OPEN, units: -units, currency },
    ]),
  };
}

/** What ties leave of entries that they settle all the same: a discount, a fee. */
function settledDifference(
  entries: readonly JournalEntry[],
  lines: readonly JournalLine[],
): { day: string; text: string } | undefined {
  const [{ currency }] = entries;
  if (![...entries, ...lines].every((each) => each.currency === currency)) return undefined;
  const left = entries.reduce((sum, { units }) => sum + units, 0) + lines.reduce((sum, { units }) => sum + units, 0);
  const day = lines.at(-1)?.day;
  if (left === 0 || !day) return undefined;
  return {
    day,
    text: transaction(`${day} Difference of entry ${entries.map(({ serial }) => serial).join(', ')}`, [
      { account: OPEN, units: left, currency },
      { account: DIFFERENCES, units: -left, currency },
    ]),
  };
}
