import { SortingState } from '@tanstack/react-table';
import { useKept } from '../../parts/useKept';

/** How papers stand in tables: which columns, how wide, by what they are sorted and grouped. */
export interface TableForm {
  columns: string[];
  widths: Record<string, number>;
  sorted: SortingState;
  group: 'none' | 'month' | 'who';
  /** Whether papers in the folders inside a folder are in its table. */
  inside: boolean;
}

const USUAL: TableForm = {
  columns: ['date', 'vendor', 'kind', 'number', 'total', 'pages'],
  widths: {},
  sorted: [{ id: 'date', desc: true }],
  group: 'none',
  inside: false,
};
const KEY = 'crow-papers-table';

/** The form of tables, the same for all folders, kept in this browser. */
export const useTableForm = () => useKept(KEY, USUAL, (kept) => !('columns' in kept) || Array.isArray(kept.columns));
