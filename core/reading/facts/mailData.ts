import { isDay } from '../dayForms';
import { Fact, Facts } from './fact';

/** A mail without anything attached to it that is a paper: it is one itself. */
export interface MailData {
  /** Who sent it, as it says, or their address. */
  from: string;
  to: string;
  subject: string;
  /** ISO 8601, with the time where it was sent; null where it says none. */
  sent: string | null;
}

const WHY = { code: 'mail-data' } as const;
/** More than any field of a mail has that is kept as a fact. */
const LONGEST = 200;

/** The facts of a paper that is a mail: who sent it, when and about what stand in its head; what else was read stays. */
export function withMailData(read: Facts, { from, subject, sent }: MailData): Facts {
  const fact = <Value>(found: Fact<Value> | null, value: Value | null): Fact<Value> | null => {
    if (value === null) return found;
    const same = found && found.value === value;
    return { value, page: 1, box: same ? found.box : [0, 0, 0, 0], confidence: 1, why: WHY };
  };
  const day = sent?.slice(0, 10);
  return {
    ...read,
    kind: read.kind ?? fact(read.kind, 'letter'),
    vendor: fact(read.vendor, from.trim().slice(0, LONGEST) || null),
    date: fact(read.date, day && isDay(day) ? day : null),
    subject: fact(read.subject, subject.trim().slice(0, LONGEST) || null),
  };
}
