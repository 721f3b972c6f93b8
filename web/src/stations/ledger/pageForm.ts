import { SortingState } from '@tanstack/react-table';
import { BookedLine, BookTie, Entry, Ledger } from '@crow/contract/ledger';

/** How high each rule of the page is, in pixels. */
export const ROW = 40;
/** Where the threads between entries and statements run, and how wide the column of these is. */
export const GUTTER = 48;
export const LINES_WIDTH = 264;

/** What the page shows, and what is done from it. */
export interface PageProps {
  entries: readonly Entry[];
  lines: readonly BookedLine[];
  ties: readonly BookTie[];
  sorting: SortingState;
  onSorting: (sorting: SortingState) => void;
  categoryName: (id: string) => string;
  /** The entry that keys act on. */
  current?: string;
  onCurrent: (id: string) => void;
  chosen: ReadonlySet<string>;
  chosenLines: ReadonlySet<string>;
  onChoose: (id: string) => void;
  onChooseLine: (id: string) => void;
  onOpen: (entry: Entry) => void;
  onEdit: (entry: Entry) => void;
  onCheck: (entry: Entry) => void;
  onTakeOut: (entry: Entry) => void;
  onTake: (tie: BookTie) => void;
  onTakeOff: (tie: BookTie) => void;
  /** How lines may be entered, as lines like them were before, by the line. */
  asBefore: ReadonlyMap<string, Ledger['asBefore'][number]>;
  /** Enters a line for which no bill comes. */
  onEnterLine: (line: BookedLine) => void;
  /** Whether there is room for the lines of statements beside the entries. */
  wide: boolean;
  /** Whether there is hardly room for the entries themselves. */
  small: boolean;
}
