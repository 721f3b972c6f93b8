import { datesInLine, FoundDate } from '../dates';
import { DayOrder } from './dayOrder';
import { rivalled } from './doubt';
import { dueWithin } from './dueWithin';
import { DayLabel, dayLabel, SENTENCE } from './dayRoles';
import { kindTraits } from './kindList';
import { Fact, Kind, leastSure, placeOf } from './fact';
import { amountsIn } from './money';
import { Word } from '../words';
import { fold, Row } from './rows';
import { SALUTATION } from './subject';
import { partsOf } from './terms';

interface Candidate extends FoundDate {
  row: Row;
  label: DayLabel | undefined;
  /** How many dates stand in the row's column of dates: a list of bookings has many. */
  listed: boolean;
  /** Whether it stands by itself above the salutation of a letter. */
  heads?: boolean;
  /** Whether it is the only one that stands by itself, unnamed, at the top. */
  alone?: boolean;
}

export interface Days {
  date: Fact | null;
  dueDate: Fact | null;
  ends: Fact | null;
  period: Fact | null;
}

/**
 * The date of a paper, the day by which it must be paid, the day on which it ends, and the time that it is for. Where nothing says
 * whether day or month comes first in figures, the one with which it is due after it was written; where neither does, both are told.
 */
export function findDays(rows: readonly Row[], order: DayOrder, kind: Kind | undefined): Days {
  if (order !== 'unknown') return daysIn(rows, order === 'month', kind);
  const [dayFirst, monthFirst] = [daysIn(rows, false, kind), daysIn(rows, true, kind)];
  const fits = [inOrder(dayFirst), inOrder(monthFirst)];
  if (fits[0] !== fits[1]) return fits[0] ? dayFirst : monthFirst;
  const told = (name: keyof Days): Fact | null => {
    const [fact, other] = [dayFirst[name], monthFirst[name]?.value];
    const isEither = fact && other !== undefined && other !== fact.value;
    return isEither ? { ...fact, confidence: Math.min(fact.confidence, EITHER_WAY), other } : fact;
  };
  return { date: told('date'), dueDate: told('dueDate'), ends: told('ends'), period: told('period') };
}

/** How sure a day is that may be another one as well. */
const EITHER_WAY = 0.5;
/** A bill is to be paid within so many days. */
const LONGEST_TERM = 120;

/** Whether a day is not so long after another that a bill could not be due by it. */
const isSoon = (day: string, written: string) => Date.parse(day) - Date.parse(written) <= LONGEST_TERM * 86_400_000;

/** Whether it is due soon after it was written. */
function inOrder({ date, dueDate }: Days): boolean {
  if (!date || !dueDate) return false;
  const days = (Date.parse(dueDate.value) - Date.parse(date.value)) / 86_400_000;
  return days >= 0 && days <= LONGEST_TERM;
}

function daysIn(rows: readonly Row[], monthFirst: boolean, kind: Kind | undefined): Days {
  const candidates = rows.flatMap((row) =>
    [...datesInLine(row.words, { monthFirst }), ...acrossLines(row, rows[row.number + 1])].map((found): Candidate => ({
      ...found,
      row,
      label: dayLabel(rows, row, found, kind),
      listed: false,
    })),
  );
  markHeads(candidates, rows);
  markLists(candidates);
  markSpans(candidates, kind);
  const date = best(
    candidates,
    (candidate) =>
      1 +
      saysItsDay(candidate) -
      (candidate.listed ? 1.4 : 0) -
      Math.min(40, candidate.row.number) * 0.02 -
      (candidate.row.page - 1) * 0.4,
  );
  const dueOf = (some: Candidate[]) =>
    best(
      some.filter(({ label }) => label?.role === 'due'),
      ({ label, row, listed }) =>
        2 - label!.away * 0.02 - row.number * 0.005 - (label!.weak ? 0.5 : 0) - (listed ? 1 : 0),
    );
  const written = date?.value ?? '';
  // What was due before the paper was written is what it is about; a bill is not due after a year: “MOT due 18/11/2027”.
  const isBill = kind === 'invoice' || kind === 'receipt';
  const due =
    dueOf(
      candidates.filter(({ date: day }) => day >= written && (!isBill || written === '' || isSoon(day, written))),
    ) ??
    dueOf(candidates.filter(({ date: day }) => !isBill || day < written)) ??
    (date &&
      !(kind && kindTraits[kind].balances) &&
      dueOf(
        withoutYear(rows, candidates, date.value, monthFirst, kind).filter((each) => isSoon(each.date, date.value)),
      ));
  const period = periodOf(candidates);
  const traits = kind && kindTraits[kind];
  const ends = best(
    // What can't be due by a day ends on it: “next inspection due by”.
    candidates.filter(({ label }) => label?.role === 'ends' || (label?.role === 'due' && traits?.ends && !traits.due)),
    ({ label, row }) => 2 - label!.away * 0.02 - row.number * 0.005 - (label!.weak ? 0.5 : 0),
  );
  // “Tell us by” is said of other days as well; a contract ends with the time that it is for.
  const runsOut = period && (!ends || ends.label!.weak) ? { ...period, value: period.value.split('/')[1] } : undefined;
  const late = due && date && due.value < date.value;
  return {
    date:
      date &&
      (ofAStatement(date, period, kind) ?? besideRival(asFact(date, sureOf(date)), candidates.filter(mayBeItsDay))),
    // A paper is seldom due before it was written.
    dueDate:
      due && due !== date
        ? besideRival(
            asFact(due, late ? 0.5 : due.label!.weak ? 0.8 : 0.98),
            candidates.filter(
              ({ label, listed, date: day }) => label?.role === 'due' && !label.weak && !listed && day >= written,
            ),
          )
        : (dueWithin(rows, date?.value, kind) ??
          perhapsDue(candidates, written, kind) ??
          perhapsDue(withoutYear(rows, candidates, written, monthFirst, kind), written, kind)),
    ends: runsOut ?? (ends && ends !== date ? asFact(ends, ends.label!.weak ? 0.7 : 0.9) : null),
    period,
  };
}

/** What is to be done by a day that is not paying (folded). */
const OTHERWISE =
  /skonto(?!frei)|rabatt|discount|rebate|escompte|remise|saving|offer|angebot|offre|vote|return|ruckgabe|retour|repl(?:y|ies)|antwort|repons|answer|appeal|objec|einspruch|widerspruch|reclam|rekla|complain|dispute|claim|cancel|kundig|resili|renew|book|order|bestell|command|register|anmeld|inscri|enrol|confirm|bestatig|collect|abhol|retir|use|einlos|read|ables/;

/** A day that its label calls one, of something that nobody knows (folded). */
const OTHER_DAY = /^(?!druck|erfass|eingang|buchung)\p{L}{3,}(?:datum|dato|fecha)$/u;

/** The time in which something is to be paid (folded). */
const TERM = /terms?\b|credit|payment|zahl|frist|delai|paiement|reglement/;

/** Kinds that ask for money by a day, and hardly for anything else. */
const ASKING: readonly (Kind | undefined)[] = ['invoice', 'reminder', 'notice'];

/** How sure a day is that is due by what else it could be. */
const PERHAPS = 0.5;

/**
 * The only day to come that a paper which asks for money names in a label of its own, by which nothing else is said to be done:
 * probably it is the day to pay by, whatever it is called.
 */
function perhapsDue(candidates: readonly Candidate[], written: string, kind: Kind | undefined): Fact | null {
  if (!ASKING.includes(kind) || written === '') return null;
  const coming = candidates.filter(({ date, row, words, label, listed }) => {
    const cell = row.cells.find((each) => each.words.includes(words[0]));
    const isUntil = label?.until === true && label.text !== 'zum';
    const isTerm = label?.role === 'ends' && cell && TERM.test(cell.folded);
    // “Förfallodatum”: named as a day, and not that of the paper.
    const isOther =
      label?.role === 'date' && OTHER_DAY.test(label.text) && partsOf(label.text).every((part) => part === 'day');
    const isAsked = isUntil || isTerm || isOther || (!label && isLabelled(row, words));
    return (
      date > written &&
      isSoon(date, written) &&
      isAsked &&
      !listed &&
      !hasAmount(row) &&
      cell &&
      !OTHERWISE.test(cell.folded)
    );
  });
  const [only, ...others] = coming;
  return only && others.every(({ date }) => date === only.date) ? asFact(only, PERHAPS) : null;
}

/** Whether a label of its own stands before a day: with a colon, or in a cell beside that of the day. */
function isLabelled(row: Row, words: readonly Word[]): boolean {
  const before = row.words[row.words.indexOf(words[0]) - 1];
  if (before !== undefined && /\p{L}.*:$/u.test(before.text)) return true;
  const at = row.cells.findIndex((cell) => cell.words[0] === words[0] && cell.words.at(-1) === words.at(-1));
  const label = at > 0 ? row.cells[at - 1] : undefined;
  return (
    label !== undefined && label.words.length <= LONGEST_LABEL && label.words.every(({ text }) => LETTERS.test(text))
  );
}

/** A label in a cell of its own has no more words, and these are of letters. */
const [LONGEST_LABEL, LETTERS] = [3, /^\p{L}[\p{L}.'-]+$/u];

/** Whether a day could be that of the paper as well, by what stands beside it or where it stands. */
function mayBeItsDay(candidate: Candidate): boolean {
  const { label, listed, alone, heads, row, words } = candidate;
  if (listed || row.page > 1) return false;
  if (heads || alone || isPlaced(row, words)) return !label || label.role === 'date';
  return label?.role === 'date' && !label.weak && !(label.above && isOfTable(row));
}

/** A day, less sure where another could be it as well, which is told. */
function besideRival(fact: Fact, rivals: readonly Candidate[]): Fact {
  const other = rivals.find(({ date }) => date !== fact.value);
  return other ? rivalled(fact, other.date) : fact;
}

/** “20 Nov.”, “30th November”, “20.11.” */
const YEARLESS =
  /^(?:(\d{1,2})(?:st|nd|rd|th|er|\.)? (?:of |de )?(\p{L}{3,10})|(\p{L}{3,10}) (\d{1,2})(?:st|nd|rd|th)?|(\d{1,2})[.,/](\d{1,2}))[.,;]?$/u;

/** Days that say no year: the next such day after the paper was written. */
function withoutYear(
  rows: readonly Row[],
  candidates: readonly Candidate[],
  written: string,
  monthFirst: boolean,
  kind: Kind | undefined,
): Candidate[] {
  const known = new Set(candidates.flatMap(({ words }) => words));
  return rows.flatMap((row) =>
    row.words.flatMap((_, at) =>
      [1, 2, 3].flatMap((count): Candidate[] => {
        const words = row.words.slice(at, at + count);
        if (words.length < count || words.some((word) => known.has(word))) return [];
        const told = YEARLESS.exec(words.map(({ text }) => text).join(' '));
        if (!told) return [];
        const [day, month] = [told[1] ?? told[4] ?? told[5], told[2] ?? told[3] ?? told[6]];
        const form = told[5]
          ? (year: number) => `${day}.${month}.${year}`
          : (year: number) => `${day} ${month} ${year}`;
        const first = Number(written.slice(0, 4));
        const date = [first, first + 1]
          .flatMap((year) => datesInLine([{ ...words[0], text: form(year) }], { monthFirst }))
          .find((found) => found.date >= written)?.date;
        if (date === undefined) return [];
        const found = { date, words };
        return [{ ...found, row, label: dayLabel(rows, row, found, kind), listed: false }];
      }),
    ),
  );
}

/** How much what stands beside a day says that it is the paper's. */
function saysItsDay({ label, row, words, listed, heads, alone }: Candidate): number {
  if (heads) return 2.4;
  if ((!label || (label.role === 'date' && label.weak)) && isPlaced(row, words)) return 1.4;
  if (!label) return alone ? 0.9 : 0;
  if (label.role !== 'date') return label.role === 'other' ? -1.2 : -3;
  // The head of a column names each of the days in it.
  if (label.above && (listed || isOfTable(row))) return 0.8;
  if (!label.weak) return label.yours ? 1.6 : 2.2;
  // Beside an amount it tells of something else, such as what was paid before.
  return isInSentence(row, words) || hasAmount(row) ? -0.6 : 0.8;
}

/** A row of columns with a sum may be of a list of other papers, though it is the only one. */
const isOfTable = (row: Row) => row.cells.length > 2 && hasAmount(row);

/** Whether a row names a sum: a day in figures may look like one. */
function hasAmount(row: Row): boolean {
  const dated = new Set(datesInLine(row.words).flatMap(({ words }) => words));
  return amountsIn(row).some(({ words }) => !words.some((word) => dated.has(word)));
}

/** “Husum, 30. Oktober 2026”: where and when a letter is written. */
function isPlaced(row: Row, words: readonly Word[]): boolean {
  const cell = row.cells.find((each) => each.words.includes(words[0]));
  if (cell?.words.at(-1) !== words.at(-1)) return false;
  const told = cell!.words.slice(0, cell!.words.indexOf(words[0]));
  // “Douarnenez, le 17/11/2026”
  const before = told.length > 1 && /^(?:le|den|am|li|il|a|op|on)$/.test(told.at(-1)!.text) ? told.slice(0, -1) : told;
  return (
    before.length > 0 &&
    before.length <= 3 &&
    /,$/.test(before.at(-1)!.text) &&
    before.every(({ text }) => /^\p{Lu}\p{L}/u.test(text))
  );
}

/** A statement that says no day of its own is of the last one that it is for, not of one of its bookings. */
function ofAStatement(date: Chosen, period: Fact | null, kind: Kind | undefined): Fact | undefined {
  if (!period || !kind || !kindTraits[kind].balances) return undefined;
  const [from, to] = period.value.split('/');
  if (date.value !== from && date.label?.role === 'date' && amountsIn(date.row).length === 0) return undefined;
  return { ...period, value: to };
}

/** Days in words that a line's end parts: “19” and, below, “December 2026”. */
function acrossLines(row: Row, next: Row | undefined): FoundDate[] {
  if (!next || next.page !== row.page || !/^\d{1,2}\.?$|^\p{L}{3,}$/u.test(row.words.at(-1)!.text)) return [];
  const [ends, begins] = [row.words.slice(-2), next.words.slice(0, 2)];
  return datesInLine([...ends, ...begins])
    .filter(({ words }) => words.some((word) => ends.includes(word)) && words.some((word) => begins.includes(word)))
    .map(({ date, words }) => ({ date, words: words.filter((word) => ends.includes(word)) }));
}

function isInSentence(row: Row, words: readonly Word[]): boolean {
  return row.cells.some((cell) => cell.words.includes(words[0]) && cell.words.length - words.length > SENTENCE);
}

function sureOf({ label, listed, row, words, heads }: Candidate): number {
  if (heads) return 0.96;
  if (isPlaced(row, words) && (!label || label.weak)) return 0.94;
  if (label?.role === 'date') return label.above && (listed || isOfTable(row)) ? 0.6 : label.weak ? 0.9 : 0.99;
  return label ? 0.45 : listed ? 0.6 : 0.88;
}

/** What stands between the first and the last day of a time. */
const TO = /^(?:[-–—]|to|until|bis|au|al|a|tot|t\/m|through|e)$/i;

/** Days by the rows in which they stand. */
function byRow(candidates: readonly Candidate[]): Map<Row, Candidate[]> {
  const rows = new Map<Row, Candidate[]>();
  for (const each of candidates) {
    const known = rows.get(each.row);
    if (known) known.push(each);
    else rows.set(each.row, [each]);
  }
  return rows;
}

/** Two days with a stroke or a word for “to” between them; the first may leave its year, and its month, to the second. */
function periodOf(candidates: readonly Candidate[]): Fact | null {
  const rows = byRow(candidates);
  for (const second of candidates) {
    const { words } = second.row;
    const at = words.indexOf(second.words[0]);
    const before = words.slice(Math.max(0, at - 2), at);
    const beside = rows.get(second.row)!;
    const whole = beside.find(({ words: own, date }) => date < second.date && before.includes(own.at(-1)!));
    // “05.07.2026–04.10.2026” is one word.
    const twin = beside.find(({ words: own, date }) => own[0] === second.words[0] && date < second.date);
    if (twin) return { ...asFact(second, 0.95), value: `${twin.date}/${second.date}` };
    const isTold = at > 1 && TO.test(words[at - 1].text);
    const isSpan = whole && partsOf(fold(whole.label?.text ?? '')).includes('span');
    const from = whole
      ? (isTold || (isSpan && words.indexOf(whole.words.at(-1)!) === at - 1)) && whole
      : isTold && firstOf(words.slice(0, at - 1), second.date);
    if (!from) continue;
    return {
      value: `${from.date}/${second.date}`,
      page: second.row.page,
      box: placeOf([...from.words, ...second.words]),
      confidence: 0.95 * leastSure([...from.words, ...second.words]),
      why: { code: 'says', text: isTold ? words[at - 1].text : whole!.label!.text },
    };
  }
  return null;
}

/** The day that some words end with, of the year of a later one: “1 September”, or of its month as well: “1.” */
function firstOf(before: readonly Word[], until: string): { date: string; words: Word[] } | undefined {
  const [year, month] = until.split('-');
  for (const count of [2, 1]) {
    const words = before.slice(-count);
    const text = words.map((word) => word.text).join(' ');
    const told = YEARLESS.exec(text);
    const alone = /^(\d{1,2})(?:st|nd|rd|th|er|\.)?$/.exec(text);
    const written = told
      ? told[5]
        ? `${told[5]}.${told[6]}.${year}`
        : `${told[1] ?? told[4]} ${told[2] ?? told[3]} ${year}`
      : alone && `${alone[1]}.${month}.${year}`;
    const [found] = written ? datesInLine([{ ...words[0], text: written }]) : [];
    if (found && found.date < until) return { date: found.date, words };
  }
  return undefined;
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

/** The first day of a time is not that of the paper, unless it is one that tells what was booked in it. */
function markSpans(candidates: readonly Candidate[], kind: Kind | undefined): void {
  if (kind && kindTraits[kind].balances) return;
  const rows = byRow(candidates);
  for (const candidate of candidates) {
    const { words } = candidate.row;
    const at = words.indexOf(candidate.words.at(-1)!);
    const [behind, next] = words.slice(at + 1, at + 3);
    if (!behind || !next || !TO.test(behind.text)) continue;
    const isFirst = rows.get(candidate.row)!.some((other) => other.words[0] === next && other.date > candidate.date);
    if (isFirst) candidate.label = { role: 'other', text: 'from', away: 0, weak: false };
  }
}

/** So many rows are the top of a paper. */
const TOP = 12;

/** A day by itself above the salutation of a letter, the only one there, is that of the letter, whatever days it tells of. */
function markHeads(candidates: readonly Candidate[], rows: readonly Row[]): void {
  const greeting = rows.findIndex(({ page, folded }) => page === 1 && SALUTATION.test(folded));
  const isAlone = ({ row, words }: Candidate) =>
    row.cells.some((cell) => cell.words.length === words.length && cell.words[0] === words[0]);
  const alone = candidates.filter(
    (each) => each.row.page === 1 && each.row.number < TOP && !each.label && isAlone(each),
  );
  if (alone.length === 1) alone[0].alone = true;
  const above = candidates.filter(({ row }) => row.number < greeting);
  const [only, ...others] = above;
  if (only && others.length === 0 && isAlone(only) && (!only.label || only.label.role === 'date')) only.heads = true;
}

/** Dates under each other at one edge, three and more, are a list; of rows with amounts, two. */
function markLists(candidates: Candidate[]): void {
  const placed = candidates
    .filter(({ label }) => label?.role !== 'date' || label.above === true)
    .map((candidate) => ({ candidate, page: candidate.row.page, x: placeOf(candidate.words)[0] }));
  const isOfList = ({ row }: Candidate) => row.cells.length > 2 && amountsIn(row).length > 0;
  for (const candidate of candidates) {
    const [x] = placeOf(candidate.words);
    const column = placed.filter((other) => other.page === candidate.row.page && Math.abs(other.x - x) < 12);
    const isListed = column.length === 2 && isOfList(candidate);
    candidate.listed =
      column.length >= 3 ||
      (isListed &&
        column.every((other) => isOfList(other.candidate)) &&
        column.some((each) => each.candidate === candidate));
  }
}
