import { datesInLine, FoundDate } from '../dates';
import { Fact, leastSure, placeOf } from './fact';
import { Label, labelOf } from './labelled';
import { DATE, DUE, OTHER_DATE } from './labels';
import { Row } from './rows';

interface Candidate extends FoundDate {
  row: Row;
  label: Label<'date' | 'due' | 'other'> | undefined;
  /** How many dates stand in the row's column of dates: a list of bookings has many. */
  listed: boolean;
}

/** The date of a paper, and the day by which it must be paid. */
export function findDays(rows: readonly Row[], monthFirst: boolean): { date: Fact | null; dueDate: Fact | null } {
  const candidates = rows.flatMap((row) =>
    datesInLine(row.words, { monthFirst: monthFirst }).map((found): Candidate => {
      const label = labelOf(rows, row, found.words, { date: DATE, due: DUE, other: OTHER_DATE });
      return { ...found, row, label, listed: false };
    }),
  );
  markLists(candidates);
  const date = best(candidates, ({ label, row, listed }) => {
    const said = label?.name === 'date' ? 2.2 : label?.name === 'due' ? -3 : label?.name === 'other' ? -1.2 : 0;
    return 1 + said - (listed ? 1.4 : 0) - Math.min(40, row.number) * 0.02 - (row.page - 1) * 0.4;
  });
  const due = best(
    candidates.filter(({ label }) => label?.name === 'due'),
    ({ label, row }) => 2 - (label?.away ?? 0) * 0.02 - row.number * 0.005,
  );
  const late = due && date && due.value < date.value;
  return {
    date: date && asFact(date, date.label?.name === 'date' ? 0.99 : date.label ? 0.45 : date.listed ? 0.6 : 0.88),
    // A paper is seldom due before it was written.
    dueDate: due && due !== date ? asFact(due, late ? 0.5 : 0.98) : null,
  };
}

type Chosen = Candidate & { value: string };

function best(candidates: Candidate[], score: (candidate: Candidate) => number): Chosen | null {
  let [chosen, most] = [null as Candidate | null, -0.5];
  for (const candidate of candidates) {
    const value = score(candidate);
    if (value > most) [chosen, most] = [candidate, value];
  }
  return chosen && { ...chosen, value: chosen.date };
}

function asFact({ date, words, row, label }: Candidate, most: number): Fact {
  return {
    value: date,
    page: row.page,
    box: placeOf(words),
    confidence: most * leastSure(words),
    why: label ? { code: 'beside', label: label.text } : { code: 'first-date' },
  };
}

/** Dates under each other at one edge, three and more, are a list. */
function markLists(candidates: Candidate[]): void {
  for (const candidate of candidates) {
    const [x] = placeOf(candidate.words);
    const column = candidates.filter(
      (other) =>
        other.row.page === candidate.row.page &&
        Math.abs(placeOf(other.words)[0] - x) < 12 &&
        other.label?.name !== 'date',
    );
    candidate.listed = column.length >= 3;
  }
}
