import Papa from 'papaparse';
import { moneyOf } from '../../money';
import { fold } from '../../reading/facts/rows';
import { dayOrderIn, decimalSignIn, isSomeDay, looksLikeAmount, readDay, readDecimal } from '../statements/fields';
import { EntryPart, shareOf } from './draft';
import { BookCountry, taxCodeFor } from './taxCodes';

/** What a column of entries made elsewhere may hold. */
export const ENTRY_COLUMNS = [
  'day',
  'due',
  'who',
  'what',
  'number',
  'total',
  'out',
  'in',
  'net',
  'tax',
  'rate',
  'category',
  'currency',
] as const;
export type EntryColumn = (typeof ENTRY_COLUMNS)[number];

/** A table of entries: its head, and its rows, each as long as the head. */
export interface EntriesTable {
  head: string[];
  rows: string[][];
}

/** A file that holds no table of entries, with a sentence that says why. */
export class EntriesTableError extends Error {}

/** What a row comes to. */
export interface ReadEntry {
  day: string;
  due: string | null;
  who: string;
  what: string;
  number: string;
  currency: string;
  units: number;
  parts: EntryPart[];
}

const DELIMITERS = [',', ';', '\t', '|'];
const LEAST_COLUMNS = 2;
const MOST_COLUMNS = 60;
/** Of these, what stands in a column is judged. */
const MOST_SAMPLED = 400;
const MOST = 0.7;
/** Where the head says what they are. */
const SOME = 0.3;
const SAYS_DAY = /\b(date|datum|day|jour|due|fallig|echeance)|datum\b/;

/** What heads say, folded to small letters without accents; the first that fits. */
const HEADS: { column: EntryColumn; says: RegExp }[] = [
  { column: 'due', says: /\b(due|payable by|fallig|falligkeit|zahlungsziel|echeance)\b/ },
  { column: 'rate', says: /(\b(rate|satz|taux)\b|%)/ },
  { column: 'net', says: /\b(net|netto|ht|excl|nettobetrag|montant ht)\b/ },
  { column: 'tax', says: /\b(tax|vat|mwst|ust|tva|steuer|steuerbetrag)\b/ },
  { column: 'out', says: /\b(paid out|debit|expense|ausgabe|soll|depense)\b/ },
  { column: 'in', says: /\b(paid in|credit|income|einnahme|haben|recette)\b/ },
  { column: 'total', says: /\b(total|gross|amount|brutto|betrag|summe|ttc|montant|value)\b/ },
  { column: 'currency', says: /\b(currency|wahrung|devise|ccy)\b/ },
  { column: 'number', says: /\b(number|no|nr|invoice|ref|reference|beleg\w*|rechnungsnummer|numero|piece|voucher)\b/ },
  { column: 'category', says: /\b(category|account|kategorie|konto|kostenart|categorie|compte|nominal)\b/ },
  {
    column: 'who',
    says: /\b(who|supplier|vendor|payee|name|contact|customer|lieferant|kreditor|empfanger|partner|fournisseur|client|tiers)\b/,
  },
  { column: 'what', says: /\b(what|description|text|note|memo|purpose|details|buchungstext|zweck|libelle|objet)\b/ },
  { column: 'day', says: /\b(date|day|datum|jour|belegdatum|buchungsdatum)\b/ },
];

/**
 * The table in a text of separated values: the delimiter that parts most of its rows alike, its first row as the head.
 * @throws EntriesTableError
 */
export function readEntriesTable(text: string): EntriesTable {
  const tables = DELIMITERS.map(
    (delimiter) => Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { delimiter, skipEmptyLines: 'greedy' }).data,
  );
  const alike = (rows: string[][]) => {
    const width = rows[0]?.length ?? 0;
    return width < LEAST_COLUMNS ? 0 : width * rows.filter(({ length }) => length === width).length;
  };
  const [best] = tables.sort((a, b) => alike(b) - alike(a));
  if (alike(best) === 0) throw new EntriesTableError('It has no columns.');
  if (best.length < 2) throw new EntriesTableError('It has a head, and nothing below it.');
  if (best[0].length > MOST_COLUMNS) throw new EntriesTableError('It has more columns than a list of entries has.');
  const [head, ...rows] = best;
  return {
    head: head.map((name) => name.trim()),
    rows: rows.map((row) => head.map((_, at) => (row[at] ?? '').trim())),
  };
}

/** What each column holds, by what its head says and what stands in it; null for nothing that is known. Each is held by one column. */
export function guessColumns({ head, rows }: EntriesTable): (EntryColumn | null)[] {
  const sample = rows.slice(0, MOST_SAMPLED);
  const filled = head.map((_, at) => sample.map((row) => row[at]).filter(Boolean));
  // A few that are none are told of later, row by row.
  const most = (at: number, fits: (cell: string) => boolean, share = MOST) =>
    filled[at].length > 0 && filled[at].filter(fits).length >= share * filled[at].length;
  const isDays = head.map((name, at) =>
    most(at, (cell) => cell.length >= 6 && isSomeDay(cell), SAYS_DAY.test(fold(name)) ? SOME : MOST),
  );
  const isMoney = head.map((_, at) => !isDays[at] && most(at, (cell) => looksLikeAmount(cell.replace(/ ?%$/, ''))));
  const taken = new Set<EntryColumn>();
  const columns = head.map((name, at): EntryColumn | null => {
    const said = fold(name).replace(/[^\p{L}\p{N}%]+/gu, ' ');
    const fits = HEADS.find(({ column, says }) => {
      if (taken.has(column) || !says.test(said)) return false;
      if (column === 'day' || column === 'due') return isDays[at];
      const money = ['net', 'tax', 'out', 'in', 'total', 'rate'].includes(column);
      return money ? isMoney[at] || filled[at].length === 0 : !isDays[at] || column === 'what';
    });
    if (fits) taken.add(fits.column);
    return fits?.column ?? null;
  });
  const give = (column: EntryColumn, fits: (at: number) => boolean) => {
    const at = columns.findIndex((each, place) => each === null && fits(place));
    if (!taken.has(column) && at >= 0) columns[at] = column;
  };
  give('day', (at) => isDays[at]);
  if (!taken.has('out') && !taken.has('in') && !taken.has('net')) give('total', (at) => isMoney[at]);
  return columns;
}

/**
 * The entries that rows come to, or why one comes to none.
 * @param columns what each column holds
 * @param turned whether what is positive is to be received
 * @param categoryOf the category of a name; null for none
 */
export function entriesIn(
  { rows }: EntriesTable,
  columns: readonly (EntryColumn | null)[],
  {
    country,
    currency: usual,
    turned,
    categoryOf,
  }: { country: BookCountry; currency: string; turned: boolean; categoryOf: (name: string) => string | null },
): (ReadEntry | { problem: string })[] {
  const cell = (row: readonly string[], column: EntryColumn) => {
    const at = columns.indexOf(column);
    return at < 0 ? '' : row[at];
  };
  const order = dayOrderIn(rows.map((row) => cell(row, 'day')).filter(Boolean));
  const money: EntryColumn[] = ['total', 'out', 'in', 'net', 'tax'];
  const decimal = decimalSignIn(rows.flatMap((row) => money.map((each) => cell(row, each)).filter(Boolean)));
  return rows.map((row) => {
    const written = cell(row, 'currency').toUpperCase();
    const currency = written || usual;
    if (!/^[A-Z]{3}$/.test(currency)) return { problem: `“${written}” is no currency` };
    const day = readDay(cell(row, 'day'), order);
    if (!day) return { problem: cell(row, 'day') ? `“${cell(row, 'day')}” is no day` : 'it has no day' };
    const who = cell(row, 'who') || cell(row, 'what');
    if (!who) return { problem: 'it says nothing of whom it is' };
    const units = (column: EntryColumn): number | undefined => {
      const text = cell(row, column);
      const plain = text ? readDecimal(text, decimal) : undefined;
      return plain === undefined ? undefined : moneyOf(plain, currency)?.units;
    };
    const [net, tax] = [units('net'), units('tax')];
    const rate = rateIn(cell(row, 'rate'), decimal) ?? rateBy(net, tax);
    const moved = units('out') ?? units('in');
    const whole =
      units('total') ??
      (moved === undefined ? undefined : Math.abs(units('out') ?? 0) - Math.abs(units('in') ?? 0)) ??
      (net === undefined ? undefined : net + (tax ?? shareOf(net, rate ?? 0, 100)));
    if (!whole) return { problem: 'it has no amount' };
    const part = partOf(whole, { net, tax, rate });
    if (!part) return { problem: 'net and tax do not come to its total' };
    const sign = turned ? -1 : 1;
    return {
      ...{ day, who: who.slice(0, 200), currency, units: sign * whole || 0 },
      due: readDay(cell(row, 'due'), order) ?? null,
      what: cell(row, 'who') ? cell(row, 'what').slice(0, 300) : '',
      number: cell(row, 'number').slice(0, 80),
      parts: [
        {
          categoryId: categoryOf(cell(row, 'category')),
          // Tax of a rate that nobody says is of no code that is known.
          taxCode:
            part.rate === null && part.tax !== 0
              ? null
              : (taxCodeFor(part.rate, { country, currency, day })?.code ?? null),
          rate: part.rate,
          net: sign * part.net || 0,
          tax: sign * part.tax || 0,
        },
      ],
    };
  });
}

function rateIn(text: string, decimal: '.' | ','): number | null {
  const plain = readDecimal(text.replace(/ ?%$/, ''), decimal);
  const rate = plain === undefined ? NaN : Number(plain);
  return rate >= 0 && rate <= 100 ? rate : null;
}

/** The rate that net and tax have, where it is a round one. */
function rateBy(net: number | undefined, tax: number | undefined): number | null {
  if (!net || !tax) return null;
  const rate = Math.round((1000 * tax) / net) / 10;
  return rate > 0 && Math.abs(shareOf(net, rate, 100) - tax) <= 1 ? rate : null;
}

/** Net and tax of a sum, as far as a row says them; nothing when they do not come to it. */
function partOf(
  whole: number,
  { net, tax, rate }: { net?: number; tax?: number; rate: number | null },
): Pick<EntryPart, 'net' | 'tax' | 'rate'> | undefined {
  // Lists often have net and tax without the sign that the sum has.
  const sign = Math.sign(whole);
  const [own, of] = [
    net === undefined ? undefined : sign * Math.abs(net),
    tax === undefined ? undefined : sign * Math.abs(tax),
  ];
  if (own !== undefined && of !== undefined) return own + of === whole ? { net: own, tax: of, rate } : undefined;
  const taxed = of ?? (own !== undefined ? whole - own : rate ? shareOf(whole, rate, 100 + rate) : 0);
  return { net: whole - taxed, tax: taxed, rate };
}
