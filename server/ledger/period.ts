import { Readable } from 'node:stream';
import { In } from 'typeorm';
import { Books, Entry as ShownEntry, Ledger } from '@crow/contract/ledger';
import { freeName, nameKey, safeName } from '@crow/core/filing/names';
import { COMES_IN, sumsBy } from '@crow/core/ledger/books/bookSums';
import { Period, periodPage } from '@crow/core/ledger/books/periodPage';
import { nameOfCode } from '@crow/core/ledger/books/taxCodes';
import { Money } from '@crow/core/money';
import { csvOf } from '@crow/core/filing/csv';
import { readBlob } from '../platform/blobs';
import { Context } from '../platform/context';
import { Document, StatementFile } from '../platform/entities';
import { Entry as ZipEntry, textEntry, zipped } from '../shelf/exporting';
import { readBooks } from './books';
import { readLedger } from './entries';
import { booksOf } from './exporting';

/** From which day to which, both included (ISO 8601). */
export interface PeriodDays {
  from: string;
  to: string;
}

interface PaperFile {
  path: string;
  blobId: string;
}

/**
 * A period as whoever does the accounts gets it, as a ZIP that needs no program: a page that opens it, the ledger in three forms, the papers
 * named and foldered by month, the files of statements, and a list of what is missing.
 */
export async function periodArchive({ database }: Context, days: PeriodDays): Promise<Readable> {
  const { manager } = database.source;
  const books = await readBooks(manager);
  const whole = await readLedger(manager);
  const ledger = within(whole, days);
  const papers = await papersOf(ledger.entries);
  const statements = await statementsOf(ledger);
  const missing = missingIn(books, ledger);
  const title = `${days.from} to ${days.to}`;
  const forms = await Promise.all((['xlsx', 'csv', 'journal'] as const).map((as) => booksOf(books, ledger, as)));
  const files = [...forms.map(({ ending }) => `Ledger.${ending}`), 'Missing.csv'];
  const page = periodPage(pageOf(books, ledger, days, { title, papers, statements, missing, files }));
  return Readable.from(zipped(all()), { objectMode: false });

  function* all(): Generator<ZipEntry> {
    yield textEntry('index.html', page);
    for (const { ending, bytes } of forms)
      yield {
        name: `Ledger.${ending}`,
        pieces: async function* () {
          yield await Promise.resolve(bytes);
        },
      };
    yield textEntry('Missing.csv', csvOf([['What'], ...missing.map((each) => [each])]));
    for (const { path, blobId } of [...papers.values()].flat())
      yield { name: path, pieces: () => readBlob(database, blobId) };
    for (const { path, blobId } of statements) yield { name: path, pieces: () => readBlob(database, blobId) };
  }

  /** The PDFs of entries, by entry: named by sender, number, entry and day. */
  async function papersOf(entries: readonly ShownEntry[]): Promise<Map<string, PaperFile[]>> {
    const ids = entries.flatMap((entry) => entry.papers.map(({ documentId }) => documentId));
    const found = await manager.findBy(Document, { id: In(ids) });
    const byId = new Map(found.map((document) => [document.id, document]));
    const taken = new Set<string>();
    const named = (entry: ShownEntry, documentId: string): PaperFile[] => {
      const blobId = byId.get(documentId)?.pdfBlobId;
      if (!blobId) return [];
      const wanted = [entry.who, entry.number, `entry ${entry.serial}`, entry.day].filter(Boolean).join(' ');
      const name = freeName(safeName(wanted), taken);
      taken.add(nameKey(name));
      return [{ path: `Papers/${entry.day.slice(0, 7)}/${name}.pdf`, blobId }];
    };
    return new Map(
      entries.map((entry) => [entry.id, entry.papers.flatMap(({ documentId }) => named(entry, documentId))]),
    );
  }

  /** The files that lines of the period came in. */
  async function statementsOf({ lines }: Ledger): Promise<PaperFile[]> {
    const accounts = new Set(lines.map(({ accountId }) => accountId));
    const found = (await manager.find(StatementFile, { order: { takenInAt: 'ASC' } })).filter(
      ({ accountId, firstDay, lastDay }) =>
        accounts.has(accountId) && (firstDay ?? '') <= days.to && (lastDay ?? '9') >= days.from,
    );
    const taken = new Set<string>();
    return found.map(({ name, blobId, documentId }) => {
      const free = freeName(safeName(name), taken);
      taken.add(nameKey(free));
      return { path: `Statements/${free}${documentId ? '.pdf' : ''}`, blobId };
    });
  }
}

/** What lies within days; of ties those that hold an entry or a line of them. */
function within({ entries, lines, ties }: Ledger, { from, to }: PeriodDays): Ledger {
  const inside = ({ day }: { day: string }) => from <= day && day <= to;
  const [own, those] = [entries.filter(inside), lines.filter(inside)];
  const ids = new Set([...own, ...those].map(({ id }) => id));
  return {
    entries: own,
    lines: those,
    ties: ties.filter((tie) => [...tie.entries, ...tie.lines].some((id) => ids.has(id))),
    asBefore: [],
  };
}

/** What is missing, in sentences: papers, categories, ties. */
function missingIn({ accounts }: Books, { entries, lines, ties }: Ledger): string[] {
  const tied = new Set(ties.flatMap((tie) => (tie.made ? tie.lines : [])));
  const name = (id: string) => accounts.find((each) => each.id === id)?.name ?? 'an account';
  return [
    ...entries.flatMap(({ serial, who, day, papers, parts, checkedAt }) => [
      ...(papers.some(({ role }) => role === 'proof') ? [] : [`Entry ${serial}, ${who}, ${day}: no paper.`]),
      ...(parts.every(({ categoryId, taxCode }) => categoryId && taxCode)
        ? []
        : [`Entry ${serial}, ${who}, ${day}: no category, or it is not known how it is taxed.`]),
      ...(checkedAt ? [] : [`Entry ${serial}, ${who}, ${day}: not checked.`]),
    ]),
    ...lines.flatMap(({ id, day, who, text, accountId }) =>
      tied.has(id) ? [] : [`${name(accountId)}, ${day}, ${who || text}: no entry.`],
    ),
  ];
}

function pageOf(
  { categories, accounts }: Books,
  { entries, lines, ties }: Ledger,
  { from, to }: PeriodDays,
  {
    papers,
    statements,
    ...rest
  }: { title: string; papers: Map<string, PaperFile[]>; statements: PaperFile[]; missing: string[]; files: string[] },
): Period {
  const categoryName = new Map(categories.map(({ id, name }) => [id, name]));
  const tied = new Set(ties.flatMap((tie) => (tie.made ? tie.lines : [])));
  const income = new Set(categories.flatMap(({ id, side }) => (side === 'income' ? id : [])));
  const currencies = [...new Set(entries.map(({ currency }) => currency))];
  const year = to.slice(0, 4);
  const sums = currencies.flatMap((currency) =>
    (['category', 'tax'] as const).map((by) => ({
      title: `${by === 'category' ? 'By category' : 'By treatment of tax'}, ${currency}`,
      rows: sumsBy(
        // Whatever years the period spans, it is added up as one.
        entries.map((entry) => ({ ...entry, day: `${year}${entry.day.slice(4)}` })),
        by,
        { year, currency, isIncome: (id) => income.has(id) },
      ).map(({ key, net, tax, total }) => {
        const money = (units: number): Money => ({ units, currency });
        return {
          name: by === 'category' ? (categoryName.get(key) ?? 'no category') : treatmentName(key, to),
          net: money(net),
          tax: money(tax),
          total: money(total),
        };
      }),
    })),
  );
  return {
    ...rest,
    from,
    to,
    statements: statements.map(({ path }) => path),
    sums,
    accounts: accounts.flatMap(({ id, name, currency }) => {
      const own = lines.filter(({ accountId }) => accountId === id);
      if (own.length === 0) return [];
      const [first, last] = [own[0], own[own.length - 1]];
      const balance = (units: number | null | undefined) => (units == null ? null : { units, currency });
      return [
        {
          name,
          opening: balance(first.balance == null ? null : first.balance - first.units),
          closing: balance(last.balance),
          lines: own.length,
          untied: own.filter((line) => !tied.has(line.id)).length,
        },
      ];
    }),
    entries: entries.map((entry) => ({
      ...entry,
      category: [
        ...new Set(entry.parts.map(({ categoryId }) => categoryName.get(categoryId ?? '') ?? 'no category')),
      ].join(', '),
      tax: [
        ...new Set(entry.parts.map(({ taxCode }) => (taxCode ? nameOfCode(taxCode, entry.day) : 'not known'))),
      ].join(', '),
      net: entry.parts.reduce((sum, { net }) => sum + net, 0),
      taxAmount: entry.parts.reduce((sum, { tax }) => sum + tax, 0),
      checked: Boolean(entry.checkedAt),
      papers: (papers.get(entry.id) ?? []).map(({ path }) => path),
    })),
  };
}

/** A tax code by which something was added up, in words. */
function treatmentName(key: string, day: string): string {
  const code = key.replace(COMES_IN, '');
  const name = code ? `${nameOfCode(code, day)} (${code})` : 'not known';
  return key.startsWith(COMES_IN) ? `coming in: ${name}` : name;
}
