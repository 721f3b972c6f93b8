import { datesInLine, FoundDate } from '../dates';
import { kindTraits } from './kindList';
import { Fact, Kind, leastSure, placeOf } from './fact';
import { wordsAround } from './labelled';
import { Word } from '../words';
import { fold, Row } from './rows';
import { Part, partsOf, Term, termsBefore } from './terms';

/** What a day on a paper is of. */
type Role = 'date' | 'due' | 'ends' | 'other';

interface Candidate extends FoundDate {
  row: Row;
  label: { role: Role; text: string; away: number; weak: boolean; until?: boolean } | undefined;
  /** How many dates stand in the row's column of dates: a list of bookings has many. */
  listed: boolean;
}

export interface Days {
  date: Fact | null;
  dueDate: Fact | null;
  ends: Fact | null;
  period: Fact | null;
}

/** The date of a paper, the day by which it must be paid, the day on which it ends, and the time that it is for. */
export function findDays(rows: readonly Row[], monthFirst: boolean, kind: Kind | undefined): Days {
  const candidates = rows.flatMap((row) =>
    [...datesInLine(row.words, { monthFirst }), ...acrossLines(row, rows[row.number + 1])].map((found): Candidate => ({
      ...found,
      row,
      label: labelOf(rows, row, found, kind),
      listed: false,
    })),
  );
  markLists(candidates);
  const date = best(candidates, ({ label, row, words, listed }) => {
    const said = !label
      ? 0
      : label.role === 'date'
        ? label.weak
          ? isInSentence(row, words)
            ? -0.6
            : 0.8
          : 2.2
        : label.role === 'other'
          ? -1.2
          : -3;
    return 1 + said - (listed ? 1.4 : 0) - Math.min(40, row.number) * 0.02 - (row.page - 1) * 0.4;
  });
  const due = best(
    candidates.filter(({ label }) => label?.role === 'due'),
    ({ label, row, listed }) =>
      2 - label!.away * 0.02 - row.number * 0.005 - (label!.weak ? 0.5 : 0) - (listed ? 1 : 0),
  );
  const ends = best(
    candidates.filter(({ label }) => label?.role === 'ends'),
    ({ label, row }) => 2 - label!.away * 0.02 - row.number * 0.005,
  );
  const late = due && date && due.value < date.value;
  return {
    date: date && asFact(date, sureOf(date)),
    // A paper is seldom due before it was written.
    dueDate: due && due !== date ? asFact(due, late ? 0.5 : due.label!.weak ? 0.8 : 0.98) : null,
    ends: ends && ends !== date ? asFact(ends, 0.9) : null,
    period: periodOf(candidates),
  };
}

/** Days in words that a line's end parts: “19” and, below, “December 2026”. */
function acrossLines(row: Row, next: Row | undefined): FoundDate[] {
  if (!next || next.page !== row.page || !/^\d{1,2}\.?$|^\p{L}{3,}$/u.test(row.words.at(-1)!.text)) return [];
  const [ends, begins] = [row.words.slice(-2), next.words.slice(0, 2)];
  return datesInLine([...ends, ...begins])
    .filter(({ words }) => words.some((word) => ends.includes(word)) && words.some((word) => begins.includes(word)))
    .map(({ date, words }) => ({ date, words: words.filter((word) => ends.includes(word)) }));
}

/** A cell of more words is a sentence. */
const SENTENCE = 6;

function isInSentence(row: Row, words: readonly Word[]): boolean {
  return row.cells.some((cell) => cell.words.includes(words[0]) && cell.words.length - words.length > SENTENCE);
}

function sureOf({ label, listed }: Candidate): number {
  if (label?.role === 'date') return label.weak ? 0.9 : 0.99;
  return label ? 0.45 : listed ? 0.6 : 0.88;
}

const ROLES: Part[] = ['day', 'issued', 'pay', 'until', 'from', 'ends', 'span', 'event'];
/** Prepositions and such that say little by themselves. */
const LITTLE: Part[] = ['day', 'until', 'from'];
/** Words that only say that it is a day: “on”, “le”, “am”. */
const PREPOSITION = /^(?:on|am|le|il|op|den|du|del|of|el|em|a|vom)$/;
/** How many words behind a day with an “until” may say that it is one of payment. */
const FAR_BEHIND = 6;
/** Letters between a word and the day that it is for. */
const NEAR = 40;

function labelOf(rows: readonly Row[], row: Row, { words }: FoundDate, kind: Kind | undefined): Candidate['label'] {
  const { beside, above } = wordsAround(rows, row, words);
  const here = roleOf(termsBefore(beside), kind, beside);
  // “bis 7. Dezember zu überweisen”, “am 1. April fällig”: what is to be done stands behind the day.
  const behind = here?.role === 'other' ? (here.until ? FAR_BEHIND : 0) : !here || here.weak ? 2 : 0;
  if (isPaidBehind(row, words, behind)) return { text: 'day', away: 0, ...here, role: 'due', weak: false };
  if (here && !(here.weak && above)) return here;
  const over = above === undefined ? undefined : roleOf(termsBefore(above), kind, above);
  return over && !over.weak ? { ...over, away: over.away + 4 } : (here ?? over);
}

/** Whether what is to be paid stands behind a day, within so many words of its cell and sentence. */
function isPaidBehind(row: Row, words: readonly Word[], within: number): boolean {
  const cell = row.cells.find((each) => each.words.includes(words[words.length - 1]))!.words;
  const from = cell.indexOf(words[words.length - 1]);
  if (/[.;]$/.test(cell[from].text)) return false;
  const behind = cell.slice(from + 1, from + 1 + within);
  const end = behind.findIndex(({ text }) => /[.;]$/.test(text));
  return behind.slice(0, end < 0 ? undefined : end + 1).some(({ text }) => partsOf(fold(text)).includes('pay'));
}

function roleOf(terms: readonly Term[], kind: Kind | undefined, whole: string): Candidate['label'] {
  const found = terms
    .filter(({ parts }) => parts.some((part) => ROLES.includes(part) || part === 'document' || part === 'policy'))
    .map(({ parts, ...term }) => ({ ...term, parts }));
  if (found.length === 0) return undefined;
  const has = (part: Part, within = 99) => found.find(({ parts, away }) => parts.includes(part) && away <= within);
  const nearest = found[0];
  const label = (role: Role, text: string, away: number, weak = false) => ({ role, text, away, weak });
  // Only prepositions right before it: what they belong to stands further before.
  // What was paid on account has been paid.
  const pay = found.find(({ parts }) => parts.includes('pay') && !parts.includes('event'));
  const [until, ends, from, event, span] = [
    has('until', NEAR),
    has('ends', NEAR),
    has('from', 20),
    has('event', NEAR),
    has('span', NEAR),
  ];
  const isCited = (kind === 'reminder' || kind === 'credit note') && /invoice|rechnung|factu|fattur|fatur/.test(whole);
  if (isCited && !/date|datum|data\b/.test(nearest.word)) return label('other', nearest.word, nearest.away);
  const strong = found.find(
    ({ parts, word }) =>
      parts.some((part) => !LITTLE.includes(part)) || (parts.includes('day') && !PREPOSITION.test(word)),
  );
  if (pay && pay.away <= NEAR + (until ? 24 : 0)) {
    // “Payment received on”, “paid on”: that day has been.
    const isPast = /received|erhalten|recu|paid|bezahlt|dankend/.test(whole) && !until;
    const between = [ends, event].find((other) => other && other.away < pay.away);
    // The day of a pay slip is the day of its pay.
    if (kind === 'payslip') return label('date', pay.word, pay.away);
    if (!between && !isPast)
      return label('due', pay.word, pay.away, !until && !nearest.parts.includes('pay') && pay.away > 14);
    if (isPast) return label('other', pay.word, pay.away);
  }
  if (ends) return label(/next|nachst|prochain/.test(whole) ? 'other' : 'ends', ends.word, ends.away);
  if (event && event.away <= NEAR) {
    const isOwn =
      (kind === 'delivery note' && /deliver|liefer|livrais|leistung|lever|consegn|entrega/.test(event.word)) ||
      (kind === 'order' && /order|bestell|command|pedido|ordine/.test(event.word)) ||
      (kind === 'ticket' && /depart|abfahrt|travel|valid/.test(event.word));
    if (isOwn) return label('date', event.word, event.away);
    const isDocument = has('document', event.away);
    if (!isDocument) return label('other', event.word, event.away);
  }
  if (span && span.away <= NEAR) return label('other', span.word, span.away);
  if (from && !strong) return label('other', from.word, from.away);
  const isUntil = until && (!strong || until.away < strong.away) && !strong?.parts.includes('issued');
  if (isUntil && kind && kindTraits[kind].ends) return label('ends', until.word, until.away);
  if (isUntil) return { ...label('other', until.word, until.away), until: true };
  if (strong)
    return label(
      'date',
      strong.word,
      strong.away,
      strong.away > 24 || (strong.parts.every((part) => part === 'document' || part === 'policy') && strong.away > 4),
    );
  // In a paper about another one, a day that only “of” stands before is that one's.
  if (kind === 'reminder' || kind === 'credit note') return label('other', nearest.word, nearest.away);
  return label('date', nearest.word, nearest.away, true);
}

/** Two days with a stroke or a word for “to” between them, or a “from” before the first. */
function periodOf(candidates: readonly Candidate[]): Fact | null {
  for (let at = 0; at + 1 < candidates.length; at++) {
    const [first, second] = [candidates[at], candidates[at + 1]].toSorted(
      (a, b) => placeOf(a.words)[0] - placeOf(b.words)[0],
    );
    if (first.row !== second.row || first.date >= second.date) continue;
    const words = first.row.words;
    const between = words
      .slice(words.indexOf(first.words.at(-1)!) + 1, words.indexOf(second.words[0]))
      .map(({ text }) => text);
    if (!/^(?:[-–—]|to|until|bis|au|al|a|tot|t\/m|through|e)$/i.test(between.join(' '))) continue;
    return {
      value: `${first.date}/${second.date}`,
      page: first.row.page,
      box: placeOf([...first.words, ...second.words]),
      confidence: 0.95 * leastSure([...first.words, ...second.words]),
      why: { code: 'says', text: between.join(' ') },
    };
  }
  return null;
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
        other.label?.role !== 'date',
    );
    candidate.listed = column.length >= 3;
  }
}
