import { Money } from '../money';

/** What lists know of a paper on the shelf. */
export interface Paper {
  id: string;
  /** One of the list, or one that a person added; null where it is not known. */
  kind: string | null;
  vendor: string | null;
  /** ISO 8601. */
  date: string | null;
  dueDate: string | null;
  /** The day on which it ends, or until which it holds. */
  ends: string | null;
  /** Negative on a credit note. */
  total: Money | null;
  pages: number;
}
