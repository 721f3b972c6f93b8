import { Money } from '../../money';
import { Paper } from '../../shelf/paper';

/** What is known of a paper on the shelf when a question is asked over all of them. */
export interface AskedPaper extends Paper {
  name: string;
  tags: readonly string[];
  /** What somebody wrote about it. */
  note: string;
  /** The folder that it is in, as a path. */
  folder: string | null;
  subject: string | null;
  number: string | null;
  customer: string | null;
  reference: string | null;
  order: string | null;
  policy: string | null;
  iban: string | null;
  period: string | null;
  /** In percent. */
  taxRate: string | null;
  tax: Money | null;
  net: Money | null;
  /** What it lists; amounts in units of its currency, as they stand there. */
  lines: readonly { description: string; amount: number }[];
}
