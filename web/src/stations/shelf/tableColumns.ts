import { ColumnDef, SortingState } from '@tanstack/react-table';
import { DocumentSummary } from '@crow/contract/documents';
import { digitsOf } from '@crow/core/money';
import { shownDay, shownMoment } from '../../parts/days';
import { bytes, kindName, money } from '../../parts/words';

/** A column of the table of papers: how it is called, what it is sorted by, what stands in it. */
interface PaperColumn {
  id: string;
  name: string;
  width: number;
  /** Of money and numbers, which stand at the right. */
  figures?: boolean;
  sortedBy: (paper: DocumentSummary) => string | number | null;
  shows: (paper: DocumentSummary) => string;
}

const day = (value: string | null) => (value ? shownDay(value) : '');

/** The columns that there are, in their order. */
export const PAPER_COLUMNS: PaperColumn[] = [
  {
    id: 'name',
    name: 'Name',
    width: 240,
    sortedBy: ({ name }) => name,
    shows: ({ name }) => name || 'Not named yet',
  },
  {
    id: 'date',
    name: 'Date',
    width: 94,
    sortedBy: ({ date }) => date,
    shows: ({ date }) => day(date),
  },
  {
    id: 'vendor',
    name: 'Who',
    width: 150,
    sortedBy: ({ vendor }) => vendor,
    // Where nobody knows from whom it is, its name tells what it is.
    shows: ({ vendor, name }) => vendor ?? name,
  },
  {
    id: 'kind',
    name: 'What',
    width: 92,
    sortedBy: ({ kind }) => kind,
    shows: ({ kind }) => (kind ? kindName(kind) : ''),
  },
  {
    id: 'number',
    name: 'Number',
    width: 100,
    sortedBy: ({ number }) => number,
    shows: ({ number }) => number ?? '',
  },
  {
    id: 'total',
    name: 'Amount',
    width: 112,
    figures: true,
    sortedBy: ({ total }) => (total ? total.units / 10 ** digitsOf(total.currency) : null),
    shows: ({ total }) => (total ? money(total) : ''),
  },
  {
    id: 'tags',
    name: 'Tags',
    width: 130,
    sortedBy: ({ tags }) => tags.join(', ') || null,
    shows: ({ tags }) => tags.join(', '),
  },
  {
    id: 'pages',
    name: 'Pages',
    width: 58,
    figures: true,
    sortedBy: ({ pages }) => pages,
    shows: ({ pages }) => String(pages),
  },
  {
    id: 'due',
    name: 'Due',
    width: 94,
    sortedBy: ({ dueDate }) => dueDate,
    shows: ({ dueDate }) => day(dueDate),
  },
  {
    id: 'ends',
    name: 'Ends',
    width: 94,
    sortedBy: ({ ends }) => ends,
    shows: ({ ends }) => day(ends),
  },
  {
    id: 'folder',
    name: 'Folder',
    width: 130,
    sortedBy: ({ folderPath }) => folderPath,
    shows: ({ folderPath }) => folderPath?.replaceAll('/', ' / ') ?? '',
  },
  {
    id: 'filed',
    name: 'Filed',
    width: 136,
    sortedBy: ({ filedAt }) => filedAt,
    shows: ({ filedAt }) => (filedAt ? shownMoment(filedAt) : ''),
  },
  {
    id: 'bytes',
    name: 'Size',
    width: 80,
    figures: true,
    sortedBy: (paper) => paper.bytes,
    shows: (paper) => (paper.bytes === null ? '' : bytes(paper.bytes)),
  },
];
/** The first of these that is shown has whatever room is left. */
export const WIDE_COLUMNS = ['name', 'vendor', 'folder'];
export const columnOf = new Map(PAPER_COLUMNS.map((column) => [column.id, column]));

/** Letters in the order of a dictionary, figures in them as numbers. */
const words = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });

/** The same for the table's machinery. */
export const COLUMNS: ColumnDef<DocumentSummary>[] = PAPER_COLUMNS.map(({ id, width, sortedBy }) => ({
  id,
  size: width,
  minSize: 40,
  accessorFn: sortedBy,
  sortDescFirst: ['date', 'total', 'filed', 'bytes', 'pages'].includes(id),
}));

/** Papers sorted by a column; those that have nothing in it come last, whichever way it is sorted. */
export function inOrder(papers: readonly DocumentSummary[], [by]: SortingState): readonly DocumentSummary[] {
  const column = columnOf.get(by?.id);
  if (!column) return papers;
  const way = by.desc ? -1 : 1;
  const valued = papers.map((paper) => ({ paper, value: column.sortedBy(paper) }));
  valued.sort((a, b) => {
    if (a.value === null || b.value === null) return Number(a.value === null) - Number(b.value === null);
    if (typeof a.value === 'number' && typeof b.value === 'number') return way * (a.value - b.value);
    return way * words.compare(String(a.value), String(b.value));
  });
  return valued.map(({ paper }) => paper);
}
