import { Word } from '../words';
import { datesInLine, monthNamed } from '../dates';
import { Booking, Fact, leastSure, placeOf } from './fact';
import { CLOSING, OPENING } from './labels';
import { Amount, amountsIn } from './money';
import { fold, Row } from './rows';
import { around } from '../../geometry';

/** Heads of columns of money that leaves, that comes, and of what there is then (folded). */
const COLUMNS: Record<Column, RegExp> = {
  out: /\b(?:out|debits?|soll|lastschriften|belastungen?|ausgaben?|ausgange?|withdrawals?|payments(?! in)|paid(?! in)|charges?|abgang|uitgaven|af|addebiti|dare|cargos?)\b/,
  in: /\b(?:in|credits?|haben|gutschriften?|eingange?|einnahmen|deposits?|receipts|received|bij|accrediti|avere|abonos?)\b/,
  balance: /\b(?:balance|saldo|solde|stand|kontostand)\b/,
};
type Column = 'out' | 'in' | 'balance';
/** Signs and words behind an amount that leaves, and one that comes. */
const LEAVES = /^(?:S|DR?|OD|Soll|debit|-|–|−)\.?$/i;
const COMES = /^(?:H|CR?|Haben|credit|\+)\.?$/i;
/** What only sums up. */
const SUMS_UP =
  /^\W*(?:totals?|totaux|sous-total|subtotal|sum(?:me)?|gesamt|zwischensumme|umsatz|saldo|solde|balance)\b/;
/** Right edges of a column lie within so many heights of a figure. */
const ALIGNED = 1.5;
/** Rows without a day below a booking go on telling it if they are no farther away than so many heights. */
const GOES_ON = 1.9;
const FEWEST = 2;

interface Line {
  row: Row;
  day: string;
  amounts: Amount[];
  amount: Amount;
  balance: Amount | undefined;
  text: string[];
}

/**
 * The bookings of an account's statement: rows with a day and an amount, by the column that it stands in, the sign beside it, and by
 * what they must satisfy: each balance is the one before it and what is booked, and all lead from the opening to the closing balance.
 * @param until its last day (ISO 8601): days without a year lie before it
 * @param monthFirst whether the month comes first in its days
 */
export function findBookings(
  rows: readonly Row[],
  {
    opening,
    closing,
    ...days
  }: { opening: number | null; closing: number | null; until: string | undefined; monthFirst?: boolean },
): Fact<Booking[]> | null {
  const lines = linesIn(rows, days);
  if (lines.length < FEWEST) return null;
  const heads = headsOf(rows, lines[0].row);
  splitBalances(lines, heads);
  const [said, balanced] = [bySigns(lines, heads), byBalances(lines, opening)];
  const leads = (values: number[]) =>
    opening !== null &&
    closing !== null &&
    cents(opening) + values.reduce((sum, value) => sum + value, 0) === cents(closing);
  const fitting = [said, balanced, opposite(said)].find(leads);
  const values = fitting ?? (lines.every(({ balance }) => balance) ? balanced : said);
  const { page } = lines[0].row;
  const onPage = lines.filter(({ row }) => row.page === page);
  return {
    value: lines.map(({ day, text, balance }, at) => ({
      date: day,
      text: text.join(' '),
      amount: values[at] / 100,
      balance: balance ? balance.cents / 100 : null,
    })),
    page,
    box: around(onPage.map(({ row }) => row.box)),
    confidence: fitting ? 0.97 * Math.min(...lines.map(({ amount }) => leastSure(amount.words))) : 0.5,
    why: { code: fitting ? 'rows-that-add-up' : 'rows-with-amounts' },
  };
}

/** The month of a statement where no day says more: “November 2026”, “Auszug 11/2026” (folded). */
const MONTH = /(?<![\d./-])(?:(\p{L}{3,9})\.? |(0?[1-9]|1[0-2]) ?[/.-] ?)(20\d{2})(?![\d/.-])/gu;

/** The day of the last balance that a statement tells (ISO 8601). */
export function lastBalanceDay(rows: readonly Row[]): string | undefined {
  const told = rows.filter((row) => SUMS_UP.test(row.folded) && amountsIn(row).length > 0);
  return told
    .flatMap(({ words }) => datesInLine(words).map(({ date }) => date))
    .sort()
    .at(-1);
}

/**
 * The last day that the bookings of a statement may have, where neither its day nor the time that it is for is said: the last day that it
 * names, or the end of the month that it names last (ISO 8601).
 */
export function lastDayNamed(rows: readonly Row[]): string | undefined {
  const days = rows.flatMap(({ words }) => datesInLine(words).map(({ date }) => date));
  const months = rows.flatMap(({ folded }) =>
    [...folded.matchAll(MONTH)].flatMap(([, name, figures, year]) => {
      const month = figures ? Number(figures) : monthNamed(name);
      return month === undefined ? [] : [new Date(Date.UTC(Number(year), month, 0)).toISOString().slice(0, 10)];
    }),
  );
  return [...days, ...months].sort().at(-1);
}

const cents = (money: number) => Math.round(money * 100);
const opposite = (values: number[]) => values.map((value) => -value);

/** How days are written: the last that there may be, and whether the month comes first. */
interface DaysWritten {
  until: string | undefined;
  monthFirst?: boolean;
}

function linesIn(rows: readonly Row[], days: DaysWritten): Line[] {
  const lines: Line[] = [];
  let above: Row | undefined;
  for (const row of rows) {
    const day = withValueDay(row, dayIn(row, days));
    const amounts = moneyIn(row, day?.words);
    const told = row.words.filter(({ box }) => amounts.length === 0 || box[0] < placeOf(amounts[0].words)[0]);
    const text = told.filter((word) => !day?.words.includes(word)).map((word) => word.text);
    const isBalance =
      OPENING.test(row.folded) || CLOSING.test(row.folded) || SUMS_UP.test(text.join(' ').toLowerCase());
    const last = lines.at(-1);
    const near =
      above && row.page === above.page && row.box[1] - above.box[1] < GOES_ON * Math.max(row.box[3], 1) * 1.4;
    const isNothing = !day && amounts.every(({ cents: none }) => none === 0);
    if (amounts.length > 0 && !isBalance && !isNothing && text.length > 0 && (day ?? (last && near))) {
      lines.push({ row, day: day?.date ?? last!.day, amounts, amount: amounts.at(-1)!, balance: undefined, text });
      above = row;
    } else if (amounts.length === 0 && !day && last && near && !isBalance) {
      last.text.push(...text);
      above = row;
    } else above = isBalance ? undefined : above;
  }
  return lines;
}

/** A day without its year looks like an amount: “29.12.” */
function moneyIn(row: Row, day: readonly Word[] = []): Amount[] {
  return amountsIn(row).filter(({ words }) => !words.some((word) => day.includes(word)));
}

/** The first day of a row, if it begins with one; without a year, the last such day before the end of the statement. */
function dayIn(row: Row, { until, monthFirst }: DaysWritten): { date: string; words: Word[] } | undefined {
  const first = row.words.slice(0, 4);
  const [whole] = datesInLine(row.words, { monthFirst });
  if (whole && first.includes(whole.words[0])) return whole;
  if (!until) return undefined;
  for (let count = 1; count <= 2; count++) {
    const words = row.words.slice(0, count);
    const text = words.map((word) => word.text).join(' ');
    if (!/^\d{1,2}[./-]\d{1,2}[.]?$|^\d{1,2}[. ]+\p{L}{3,9}[.]?$|^\p{L}{3,9}[.]? \d{1,2}$/u.test(text)) continue;
    for (const year of [Number(until.slice(0, 4)), Number(until.slice(0, 4)) - 1]) {
      const bare = text.replace(/[.]$/, '');
      const separator = /^\d+[./-]/.test(bare) ? bare[bare.search(/[./-]/)] : ' ';
      const [found] = datesInLine([{ ...words[0], text: `${bare}${separator}${year}` }], { monthFirst });
      if (found && found.date <= until) return { date: found.date, words };
    }
  }
  return undefined;
}

/** A day without its year, with that on which it counts right behind it: “02.11.  03.11.” */
function withValueDay(row: Row, day: ReturnType<typeof dayIn>): ReturnType<typeof dayIn> {
  if (!day) return undefined;
  const [next, month] = row.words.slice(row.words.indexOf(day.words.at(-1)!) + 1);
  if (!next) return day;
  const isAlike = /^\d{1,2}[./]\d{1,2}$/.test(next.text) && /^\d{1,2}[./]\d{1,2}$/.test(day.words[0].text);
  if (isAlike || /^\d{1,2}\.\d{1,2}\.$/.test(next.text)) return { ...day, words: [...day.words, next] };
  const isNamed = month && /^\d{1,2}$/.test(next.text) && monthNamed(fold(month.text)) !== undefined;
  return isNamed ? { ...day, words: [...day.words, next, month] } : day;
}

/** Where columns end that the table's head names, nearest above the first line. */
function headsOf(rows: readonly Row[], first: Row): { column: Column; from: number; to: number }[] {
  for (const row of rows.slice(Math.max(0, first.number - 6), first.number).reverse()) {
    if (amountsIn(row).length > 0) continue;
    const heads = row.cells.flatMap(({ folded, box: [x, , width] }) => {
      const column = (['balance', 'out', 'in'] as const).find((name) => COLUMNS[name].test(folded));
      return column ? [{ column, from: x, to: x + width }] : [];
    });
    if (heads.length > 0 && row.cells.length > 1) return heads;
  }
  return [];
}

const endOf = ({ words }: Amount) => {
  const [x, , width] = placeOf(words);
  return x + width;
};

function columnOf(amount: Amount, heads: ReturnType<typeof headsOf>): Column | undefined {
  const [x, , width, height] = placeOf(amount.words);
  const under = heads.filter(({ from, to }) => x < to + ALIGNED * height && x + width > from - ALIGNED * height);
  return under.sort((a, b) => Math.abs(a.to - x - width) - Math.abs(b.to - x - width))[0]?.column;
}

/** Tells balances from bookings, where rows have both: by the head of the column, else because they follow from each other. */
function splitBalances(lines: Line[], heads: ReturnType<typeof headsOf>): void {
  const two = lines.filter(({ amounts }) => amounts.length > 1);
  const follow = two.filter(({ amounts }, at) => {
    const before = two[at - 1]?.amounts.at(-1)!.cents;
    return Math.abs(amounts.at(-1)!.cents - before) === Math.abs(amounts.at(-2)!.cents);
  }).length;
  const edges = two.map(({ amounts }) => endOf(amounts.at(-1)!)).sort((a, b) => a - b);
  const edge = edges[edges.length >> 1];
  const named = heads.some(({ column }) => column === 'balance');
  if (!named && (two.length < FEWEST || follow * 2 < two.length - 1)) return;
  for (const line of lines) {
    const { amounts } = line;
    const last = amounts.at(-1)!;
    const height = placeOf(last.words)[3];
    const isBalance =
      columnOf(last, heads) === 'balance' || (edge !== undefined && Math.abs(endOf(last) - edge) < ALIGNED * height);
    if (amounts.length > 1 && isBalance) [line.amount, line.balance] = [amounts.at(-2)!, last];
  }
}

/**
 * What each line books, in hundredths, by the sign or the word beside it or the column that it stands in; one without any goes the
 * other way than those with one.
 */
function bySigns(lines: readonly Line[], heads: ReturnType<typeof headsOf>): number[] {
  const ways = lines.map(({ row, amount }) => {
    const behind = row.words[row.words.indexOf(amount.words.at(-1)!) + 1]?.text ?? '';
    if (amount.cents < 0 || LEAVES.test(behind)) return -1;
    if (COMES.test(behind)) return 1;
    const column = columnOf(amount, heads);
    return column === 'out' ? -1 : column === 'in' ? 1 : 0;
  });
  const rest = ways.includes(1) && !ways.includes(-1) ? -1 : 1;
  return lines.map(({ amount }, at) => (ways[at] || rest) * Math.abs(amount.cents));
}

/** What each line books by the balances: as much as the one after it is more than the one before. */
function byBalances(lines: readonly Line[], opening: number | null): number[] {
  let before = opening === null ? undefined : cents(opening);
  // Several bookings of a day may have one balance: what is between is told when it comes.
  const values = lines.map(({ amount }) => amount.cents);
  lines.forEach(({ balance, amount }, at) => {
    if (!balance) {
      before = before === undefined ? undefined : before + values[at];
      return;
    }
    if (before !== undefined && Math.abs(balance.cents - before) === Math.abs(amount.cents))
      values[at] = balance.cents - before;
    before = balance.cents;
  });
  return values;
}
