import { ColumnDef } from '@tanstack/react-table';
import { Entry } from '@crow/contract/ledger';

/** A column that the book can be sorted by. */
export interface BookColumn {
  id: string;
  name: string;
  figures?: boolean;
  /** Whether what is latest or largest comes first, unless asked otherwise. */
  latestFirst?: boolean;
  /** In which group an entry is when it is sorted by this; days are grouped by months. */
  groups?: (entry: Entry, categoryName: (id: string) => string) => string;
  /** @param categoryName what a category is called */
  sortedBy: (entry: Entry, categoryName: (id: string) => string) => string | number;
}

const sum = (entry: Entry, of: 'net' | 'tax') => entry.parts.reduce((all, part) => all + part[of], 0);

/** The columns in their order, those that stand one below the other together. */
export const BOOK_COLUMNS: BookColumn[][] = [
  [
    {
      id: 'day',
      name: 'Date',
      latestFirst: true,
      sortedBy: ({ day, serial }) => day + String(serial).padStart(9, '0'),
    },
  ],
  [
    { id: 'who', name: 'Who', sortedBy: ({ who }) => who.toLowerCase(), groups: ({ who }) => who },
    { id: 'what', name: 'What', sortedBy: ({ what }) => what.toLowerCase() },
  ],
  [
    { id: 'number', name: 'Number', sortedBy: ({ number }) => number },
    {
      id: 'category',
      name: 'Category',
      sortedBy: ({ parts: [{ categoryId }] }, name) => (categoryId ? name(categoryId) : ''),
      groups: ({ parts: [{ categoryId }] }, name) => (categoryId && name(categoryId)) || 'No category',
    },
  ],
  [{ id: 'net', name: 'Net', figures: true, latestFirst: true, sortedBy: (entry) => sum(entry, 'net') }],
  [{ id: 'tax', name: 'Tax', figures: true, latestFirst: true, sortedBy: (entry) => sum(entry, 'tax') }],
  [{ id: 'total', name: 'Total', figures: true, latestFirst: true, sortedBy: ({ units }) => units }],
  [{ id: 'paid', name: 'Paid', figures: true, latestFirst: true, sortedBy: ({ units, paid }) => units - paid }],
];

/** The same for the table that sorts them. */
export const sortColumns = (categoryName: (id: string) => string): ColumnDef<Entry>[] =>
  BOOK_COLUMNS.flat().map(({ id, sortedBy }) => ({
    id,
    accessorFn: (entry) => sortedBy(entry, categoryName),
    sortingFn: 'basic',
  }));

/** In which group each entry is when they are sorted by a column; nothing where they are in none. */
export function groupsBy(column: string, categoryName: (id: string) => string): ((entry: Entry) => string) | undefined {
  const groups = BOOK_COLUMNS.flat().find(({ id }) => id === column)?.groups;
  return groups && ((entry) => groups(entry, categoryName));
}
