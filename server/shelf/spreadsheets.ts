import { EntityManager } from 'typeorm';
import writeXlsx from 'write-excel-file/node';
import { TableRows } from '@crow/contract/folders';
import { Problem } from '@crow/contract/problems';
import { csvOf } from '@crow/core/filing/csv';
import { Document } from '../platform/entities';
import { foldersOf, Sight } from '../platform/sight';
import { papersInTable, PaperInTable } from './queries';

export const SPREADSHEET_TYPES = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
};
export type SpreadsheetForm = keyof typeof SPREADSHEET_TYPES;

/** What stands in a cell: text, a number, or a day (ISO 8601). */
export type CellValue = string | number | null | { day: string | null };

const LINE_HEADS = ['Description', 'Quantity', 'Unit price', 'Discount %', 'Amount'];
const BOOKING_HEADS = ['Description', 'Date', 'Amount', 'Balance'];

/** What a bill lists or a statement books, as a spreadsheet. @throws Problem 'no-lines' when it lists nothing */
export async function linesAs(manager: EntityManager, documentId: string, form: SpreadsheetForm): Promise<Buffer> {
  const document = await manager.findOneBy(Document, { id: documentId });
  const { lines, bookings } = document ?? {};
  const heads = bookings?.length ? BOOKING_HEADS : LINE_HEADS;
  const table: CellValue[][] = bookings?.length
    ? bookings.map(({ date, text, amount, balance }) => [text, { day: date }, amount, balance])
    : (lines ?? []).map(({ description, quantity, unitPrice, discount, amount }) => [
        description,
        quantity,
        unitPrice,
        discount ?? null,
        amount,
      ]);
  if (table.length === 0) throw new Problem('no-lines');
  return spreadsheet(heads, table, form);
}

/** Which paper a row is about. */
const PAPER_HEADS = ['Date', 'From', 'Number', 'Name'];
const paperOf = ({ name, facts }: PaperInTable): CellValue[] => [
  { day: facts.date ?? null },
  facts.vendor ?? null,
  facts.number ?? null,
  name,
];
const numberOf = (value: string | undefined) => (value === undefined ? null : Number(value));

const TABLES: Record<TableRows, { heads: string[]; rowsOf: (paper: PaperInTable) => CellValue[][] }> = {
  papers: {
    heads: [...PAPER_HEADS, 'Kind', 'Currency', 'Net', 'Tax', 'Total', 'Due', 'Ends', 'Pages', 'Folder'],
    rowsOf: (paper) => [
      [
        ...paperOf(paper),
        paper.facts.kind ?? null,
        paper.facts.currency ?? null,
        ...(['net', 'tax', 'total'] as const).map((name) => numberOf(paper.facts[name])),
        { day: paper.facts.dueDate ?? null },
        { day: paper.facts.ends ?? null },
        paper.pages,
        paper.folder,
      ],
    ],
  },
  lines: {
    heads: [...PAPER_HEADS, 'Booked', 'Description', 'Quantity', 'Unit price', 'Discount %', 'Amount', 'Currency'],
    rowsOf: (paper) => {
      const currency = paper.facts.currency ?? null;
      return [
        ...(paper.lines ?? []).map(({ description, quantity, unitPrice, discount, amount }) => [
          ...paperOf(paper),
          null,
          ...[description, quantity, unitPrice, discount ?? null, amount, currency],
        ]),
        ...(paper.bookings ?? []).map(({ date, text, amount }) => [
          ...paperOf(paper),
          { day: date },
          ...[text, null, null, null, amount, currency],
        ]),
      ];
    },
  },
  rates: {
    heads: [...PAPER_HEADS, 'Rate in %', 'Net', 'Tax', 'Currency'],
    rowsOf: (paper) => {
      const { net, tax, taxRate, currency = null } = paper.facts;
      const one = tax === undefined ? [] : [{ rate: numberOf(taxRate), net: numberOf(net), tax: Number(tax) }];
      const rates = paper.taxes?.length ? paper.taxes : one;
      return rates.map((each) => [...paperOf(paper), each.rate, each.net, each.tax, currency]);
    },
  },
};

/**
 * Papers as a spreadsheet, in the order in which they are named, as far as they are seen.
 * @throws Problem 'no-lines' when there is not one row
 */
export async function tableOfPapers(
  manager: EntityManager,
  sight: Sight,
  { ids, rows, as }: { ids: readonly string[]; rows: TableRows; as: SpreadsheetForm },
): Promise<Buffer> {
  const { heads, rowsOf } = TABLES[rows];
  const found = new Map((await papersInTable(manager, ids, foldersOf(sight))).map((paper) => [paper.id, paper]));
  const table = ids.flatMap((id) => {
    const paper = found.get(id);
    return paper ? rowsOf(paper) : [];
  });
  if (table.length === 0) throw new Problem('no-rows');
  return spreadsheet(heads, table, as);
}

/** How wide columns are that hold other than numbers and days, in characters. */
const WIDE: Record<string, number> = { Description: 40, Name: 40, From: 26, Folder: 26, Number: 18 };
const NARROW = 13;

/** Office Open XML, in which numbers stay numbers, days days, and text text whatever it looks like; or comma-separated values. */
export async function spreadsheet(
  heads: string[],
  table: CellValue[][],
  form: SpreadsheetForm,
  sheet = 'Papers',
): Promise<Buffer> {
  if (form === 'csv') {
    const plain = table.map((row) => row.map((value) => (isDay(value) ? value.day : value)));
    return Buffer.from(csvOf([heads, ...plain]));
  }
  const cells = table.map((row) => row.map((value, at) => cellOf(value, heads[at])));
  const head = heads.map((value) => ({ value, type: String, fontWeight: 'bold' as const }));
  const columns = heads.map((name) => ({ width: WIDE[name] ?? NARROW }));
  return writeXlsx([head, ...cells], { columns, sheet, stickyRowsCount: 1 }).toBuffer();
}

const isDay = (value: CellValue): value is { day: string | null } => typeof value === 'object' && value !== null;

/** Heads of columns whose numbers are no money. */
const PLAIN_NUMBERS = ['Quantity', 'Pages', 'Rate in %'];

function cellOf(value: CellValue, head: string) {
  if (isDay(value))
    return value.day === null ? null : { type: Date, value: new Date(`${value.day}T00:00:00Z`), format: 'yyyy-mm-dd' };
  if (value === null) return null;
  if (typeof value === 'string') return { type: String, value };
  return { type: Number, value, ...(PLAIN_NUMBERS.includes(head) ? {} : { format: '#,##0.00' }) };
}
