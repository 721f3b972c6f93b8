import { EntityManager } from 'typeorm';
import { Books, Ledger, LedgerForm } from '@crow/contract/ledger';
import { writeMoney } from '@crow/core/money';
import { JournalOpening, writeJournal } from '@crow/core/ledger/books/journal';
import { CURRENCY_OF, nameOfCode } from '@crow/core/ledger/books/taxCodes';
import { CellValue, spreadsheet, SPREADSHEET_TYPES } from '../shelf/spreadsheets';
import { readBooks } from './books';
import { readLedger } from './entries';

/** The books, saved. */
export interface SavedBooks {
  bytes: Buffer;
  name: string;
  mediaType: string;
}

const HEADS = [
  'Entry',
  'Date',
  'Who',
  'What',
  'Number',
  'Category',
  'Tax code',
  'Tax',
  'Rate in %',
  'Currency',
  'Net',
  'Tax amount',
  'Total',
  'Due',
  'Paid of the entry',
  'Worth in own money',
  'Paper',
  'Checked',
];

/** The books in a form: as a spreadsheet a row for each share of an entry. @param year only what is of it */
export async function exportLedger(
  manager: EntityManager,
  { as, year }: { as: LedgerForm; year?: string },
): Promise<SavedBooks> {
  const books = await readBooks(manager);
  const { bytes, ending } = await booksOf(books, ofYear(await readLedger(manager), year), as);
  return { bytes, name: `Ledger${year ? ` ${year}` : ''}.${ending}`, mediaType: TYPES[as] };
}

const TYPES: Record<LedgerForm, string> = {
  ...SPREADSHEET_TYPES,
  json: 'application/json',
  journal: 'text/plain; charset=utf-8',
};

/** What is given of the books, in a form. */
export async function booksOf(
  books: Books,
  ledger: Ledger,
  as: LedgerForm,
): Promise<{ bytes: Buffer; ending: LedgerForm }> {
  if (as === 'json')
    return {
      bytes: Buffer.from(JSON.stringify({ books, ...withDecimals(ledger, CURRENCY_OF[books.country]) }, null, 1)),
      ending: as,
    };
  if (as === 'journal') return { bytes: Buffer.from(journalOf(books, ledger)), ending: as };
  return { bytes: await spreadsheet(HEADS, rowsOf(books, ledger), as, 'Ledger'), ending: as };
}

/** What is of a year: its entries and lines, and the ties that hold any of them together. */
function ofYear({ entries, lines, ties }: Ledger, year: string | undefined): Ledger {
  if (!year) return { entries, lines, ties, asBefore: [] };
  const own = entries.filter(({ day }) => day.startsWith(year));
  const those = lines.filter(({ day }) => day.startsWith(year));
  const [ids, lineIds] = [new Set(own.map(({ id }) => id)), new Set(those.map(({ id }) => id))];
  const held = ties.filter((tie) => tie.entries.some((id) => ids.has(id)) || tie.lines.some((id) => lineIds.has(id)));
  return { entries: own, lines: those, ties: held, asBefore: [] };
}

const decimal = (units: number, currency: string): number => Number(writeMoney({ units, currency }));

function rowsOf({ categories, country }: Books, { entries }: Ledger): CellValue[][] {
  const own = CURRENCY_OF[country];
  const names = new Map(categories.map(({ id, name }) => [id, name]));
  return entries.flatMap((entry) =>
    entry.parts.map(({ categoryId, taxCode, rate, net, tax }): CellValue[] => [
      String(entry.serial),
      { day: entry.day },
      entry.who,
      entry.what,
      entry.number,
      categoryId ? (names.get(categoryId) ?? null) : null,
      taxCode ?? null,
      taxCode ? nameOfCode(taxCode, entry.day) : null,
      rate ?? null,
      entry.currency,
      decimal(net, entry.currency),
      decimal(tax, entry.currency),
      decimal(net + tax, entry.currency),
      { day: entry.due ?? null },
      decimal(entry.paid, entry.currency),
      entry.worth == null ? null : decimal(entry.worth, own),
      entry.papers.map(({ name }) => name).join('; ') || null,
      { day: entry.checkedAt?.slice(0, 10) ?? null },
    ]),
  );
}

/** Money as decimal numbers in text, so that no reader makes binary fractions of it. */
function withDecimals({ entries, lines, ties }: Ledger, own: string): object {
  return {
    entries: entries.map(({ units, paid, worth, ownUnits: _, parts, ...entry }) => ({
      ...entry,
      total: writeMoney({ units, currency: entry.currency }),
      paid: writeMoney({ units: paid, currency: entry.currency }),
      worth: worth == null ? null : writeMoney({ units: worth, currency: own }),
      parts: parts.map(({ net, tax, ...part }) => ({
        ...part,
        net: writeMoney({ units: net, currency: entry.currency }),
        tax: writeMoney({ units: tax, currency: entry.currency }),
      })),
    })),
    lines: lines.map(({ units, balance, ...line }) => ({
      ...line,
      amount: writeMoney({ units, currency: line.currency }),
      balance:
        balance === null || balance === undefined ? null : writeMoney({ units: balance, currency: line.currency }),
    })),
    ties: ties.filter(({ made }) => made),
  };
}

/** Ties that settle what they hold though the sums differ. */
const SETTLING = ['discount', 'fee', 'exchange'];

function journalOf({ categories, accounts }: Books, { entries, lines, ties }: Ledger): string {
  const category = new Map(categories.map((each) => [each.id, each]));
  const account = new Map(accounts.map((each) => [each.id, each]));
  const openings = accounts.flatMap(({ id, name, currency, opening }): JournalOpening[] => {
    if (opening) return [{ day: opening.day, account: name, units: opening.units, currency }];
    const first = lines.find((line) => line.accountId === id && line.balance != null);
    const before = lines.filter((line) => line.accountId === id);
    if (!first || before[0] !== first) return [];
    return [{ day: first.day, account: name, units: first.balance! - first.units, currency: first.currency }];
  });
  return writeJournal({
    openings: openings.filter(({ units }) => units !== 0),
    entries: entries.map((entry) => {
      const paidIn = entry.accountId ? account.get(entry.accountId) : undefined;
      return {
        ...entry,
        paidIn: paidIn?.kind === 'cash' ? paidIn.name : '',
        parts: entry.parts.map(({ categoryId, taxCode, net, tax }) => {
          const own = categoryId ? category.get(categoryId) : undefined;
          return {
            category: own?.name ?? 'no category',
            side: own?.side ?? 'cost',
            taxCode: taxCode ?? null,
            net,
            tax,
          };
        }),
      };
    }),
    lines: lines.map((line) => ({ ...line, account: account.get(line.accountId)?.name ?? 'account' })),
    ties: ties.filter(({ made }) => made).map((tie) => ({ ...tie, settles: SETTLING.includes(tie.why) })),
  });
}
