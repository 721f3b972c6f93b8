/** A line of a bank's or a card's statement. */
export interface StatementLine {
  /** When it was booked (ISO 8601). */
  day: string;
  /** In the smallest unit of its currency; what came in is positive, what went out negative. */
  units: number;
  /** By ISO 4217; null where the statement does not say it. */
  currency: string | null;
  /** Who paid, or was paid; '' where it is not told apart from the rest. */
  who: string;
  /** What else it says: purpose, references, kind of booking. */
  text: string;
  /** What the bank calls it; '' for nothing. */
  id: string;
  /** What was on the account after it, in the same unit; null where it is not said. */
  balance: number | null;
}

/** Which formats statements are read in: any bank's CSV, OFX 1 and 2, ISO 20022 CAMT.052 to .054, SWIFT MT940 and MT942, QIF; and papers that were read. */
export type StatementFormat = 'csv' | 'ofx' | 'camt' | 'mt940' | 'qif' | 'paper';

export interface Statement {
  format: StatementFormat;
  /** Number or IBAN of the account; null where it is not said. */
  account: string | null;
  currency: string | null;
  opening: number | null;
  closing: number | null;
  lines: StatementLine[];
  /** Whether the file says which way money went; else amounts are as they stand there. */
  signed: boolean;
}

/** A file that is no statement, with a sentence that says why. */
export class StatementError extends Error {}
