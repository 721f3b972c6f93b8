import { Kind, kindTraits } from '../reading/facts/kindList';
import { daysBetween } from './days';
import { Paper } from './paper';

/** Something that is to be done, or ends, on a day. */
export interface ComingUp {
  paper: string;
  what: 'due' | 'ends';
  /** ISO 8601. */
  day: string;
  /** From today; negative when it is past. */
  inDays: number;
}

/** What was due longer ago is taken for paid, in days. */
const DUE_BEHIND = 30;
const DUE_AHEAD = 45;
/** An end is told early enough to give notice. */
const ENDS_AHEAD = 120;
const ENDS_BEHIND = 14;

/** Nothing before or after so many days from today is told. */
export const EARLIEST = -Math.max(DUE_BEHIND, ENDS_BEHIND);
export const LATEST = Math.max(DUE_AHEAD, ENDS_AHEAD);

/**
 * What of papers is due or ends soon, in the order of its days. A bill that a later reminder asks for again is named once, by the
 * reminder, whose day is the later one.
 * @param today ISO 8601
 * @param like the kind of the list that papers of a kind are like
 */
export function comingUp(
  papers: readonly (Paper & { number: string | null; reference: string | null })[],
  today: string,
  like: (kind: string) => Kind,
): ComingUp[] {
  const reminded = new Set(
    papers
      .filter(({ kind }) => kind !== null && like(kind) === 'reminder')
      .flatMap(({ reference, vendor }) => (reference ? `${vendor} ${reference}` : [])),
  );
  const found: ComingUp[] = [];
  for (const { id, kind, vendor, number, dueDate, ends } of papers) {
    const traits = kind === null ? { due: true, ends: true } : kindTraits[like(kind)];
    const note = (what: ComingUp['what'], day: string, behind: number, ahead: number) => {
      const inDays = daysBetween(today, day);
      if (inDays >= -behind && inDays <= ahead) found.push({ paper: id, what, day, inDays });
    };
    if (dueDate && traits.due && !(number && reminded.has(`${vendor} ${number}`)))
      note('due', dueDate, DUE_BEHIND, DUE_AHEAD);
    if (ends && traits.ends) note('ends', ends, ENDS_BEHIND, ENDS_AHEAD);
  }
  return found.sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
}
