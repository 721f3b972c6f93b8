/** From a day to a day, both included (ISO 8601); open where there is none. */
export interface Period {
  from: string | null;
  until: string | null;
}

/** What a question wants to be told. */
export const WANTS = [
  'sum',
  'average',
  'count',
  'papers',
  'most',
  'least',
  'latest',
  'who',
  'who most',
  'day',
  'value',
] as const;
export type Wants = (typeof WANTS)[number];

/** The days that papers say. */
export const DAY_FACTS = ['date', 'dueDate', 'ends'] as const;
export type DayFact = (typeof DAY_FACTS)[number];
export const MONEY_FACTS = ['total', 'net', 'tax'] as const;
export type MoneyFact = (typeof MONEY_FACTS)[number];
export const VALUE_FACTS = ['number', 'customer', 'policy', 'order', 'reference', 'iban', 'taxRate', 'period'] as const;
export type ValueFact = (typeof VALUE_FACTS)[number];

export const WHICH_DAY = ['latest', 'first', 'next', 'newest'] as const;
export const RATE_UNITS = ['paper', 'month', 'quarter', 'year'] as const;
export type Rate = (typeof RATE_UNITS)[number];

/** A question as it was understood: what is wanted, and of which papers. */
export interface Understood {
  wants: Wants;
  /** What an average is of: of each paper, or of each unit of time. */
  per: Rate;
  /** Of which money, day or value. */
  fact: MoneyFact | DayFact | ValueFact;
  /** The first paper rather than the latest, where one day is wanted; the next one to come; that of the newest paper. */
  which: (typeof WHICH_DAY)[number];
  /** What papers have to be about, in the words of the question: small letters, no accents. */
  about: string[];
  /** Senders, any of them; none for all. */
  who: string[];
  /** Kinds, any of them; none for all. */
  kinds: string[];
  /** A path; what is in folders inside it belongs to it. */
  folder: string | null;
  /** Which day of a paper lies in the period. */
  by: DayFact;
  period: Period | null;
  /** Another period that the sum is set beside. */
  against: Period | null;
  /** In units of the currency, which may be any. */
  amounts: { least: number | null; most: number | null; currency: string | null } | null;
}

/** Why a question can't be answered: it asks for what no paper says. */
export interface NotSaid {
  cannot: 'paid' | 'words' | 'nothing asked';
}
