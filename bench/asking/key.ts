import { AskedPaper } from '@crow/core/finding/asking/paper';

type Test = (paper: AskedPaper) => boolean;

/** What the right answer to a question is; null where the shelf has none. */
export type Key =
  | { sum: Test; field?: 'tax' | 'net' }
  | { lines: RegExp; of: Test }
  | { count: Test }
  | { average: Test }
  /** The day of each sender's latest paper; of `ends` and `dueDate`, that fact. */
  | { day: Test; fact: 'date' | 'dueDate' | 'ends'; which?: 'first' }
  | { papers: Test }
  | { most: Test; least?: true }
  | { latest: Test }
  | { who: Test }
  | { whoMost: Test }
  | { value: keyof AskedPaper; of: Test }
  | { first: Test; second: Test }
  | null;

export interface Question {
  q: string;
  key: Key;
}

export const both =
  (...tests: Test[]): Test =>
  (paper) =>
    tests.every((test) => test(paper));
export const from =
  (vendor: string): Test =>
  (paper) =>
    paper.vendor === vendor;
export const kind =
  (...kinds: string[]): Test =>
  (paper) =>
    kinds.includes(paper.kind ?? '');
export const inFolder =
  (path: string): Test =>
  (paper) =>
    paper.folder === path || paper.folder!.startsWith(`${path}/`);
export const during =
  (first: string, last: string, fact: 'date' | 'dueDate' | 'ends' = 'date'): Test =>
  (paper) => {
    const day = paper[fact];
    return day !== null && day >= first && day <= last;
  };
export const year = (number: number): Test => during(`${number}-01-01`, `${number}-12-31`);
export const over =
  (units: number): Test =>
  (paper) =>
    paper.total !== null && paper.total.units > units;
export const under =
  (units: number): Test =>
  (paper) =>
    paper.total !== null && paper.total.units < units;
