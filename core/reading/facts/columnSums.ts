import { datesInLine } from '../dates';
import { placeOf } from './fact';
import { CLOSING, DEPOSIT, OPENING } from './labels';
import { Amount, amountsIn } from './money';
import { foldMisread, Row } from './rows';

/** A sum of a paper's column of amounts: what stands above it makes it, whatever it is called. */
export interface ColumnSum {
  amount: Amount;
  /** What it is made of, from the top. */
  of: Amount[];
  /** Whether what was paid before, or is taken off otherwise, stands last among those. */
  less: boolean;
}

/** Right edges of a column lie within so many heights of a figure. */
const ALIGNED = 1.2;
/** A column longer than this is looked at from its end. */
const LONGEST = 120;
/** What is taken off though it is printed without a sign (folded). */
const TAKEN_OFF =
  /^\W*(?:less|minus|abzgl|abzuglich|moins|meno|menos|af:)\b|\b(?:discount|credit|rabatt|nachlass|skonto|gutschrift|remise|rabais|avoir|sconto|korting|descuento|you paid|paid by you|received from you)\b/;
/** What is still to be paid (folded). */
const ASKED = /bitte|please|payable|\bdue\b|to pay|zu zahlen|fallig|a (?:payer|regler|verser)/;
/** Behind an amount: what lowers what is owed. */
const CREDIT = /^(?:CR|H|Cr\.?|-)$/;

/**
 * The sums in the column in which most of a paper's amounts stand: each is what the two or more unsummed amounts right above it make,
 * or a sum and what stands between it and that one. By chance alone that is seldom so, and no name is needed.
 */
export function columnSums(rows: readonly Row[]): ColumnSum[] {
  const column = mainColumn(rows).slice(-LONGEST);
  const sums: ColumnSum[] = [];
  let open: { amount: Amount; cents: number }[] = [];
  let [all, whole] = [[] as Amount[], 0];
  for (const amount of column) {
    // Two lines may make a third by chance; what all of them make is their sum.
    if (all.length > 2 && whole === amount.cents) {
      sums.splice(0, sums.length, { amount, of: all, less: false });
      open = [{ amount, cents: amount.cents }];
      [all, whole] = [[], Number.NaN];
      continue;
    }
    all.push(amount);
    whole += signed(amount);
    const made = madeOf(amount.cents, open) ?? (isMarked(amount) ? madeOf(signed(amount), open) : undefined);
    if (!made) {
      open.push({ amount, cents: signed(amount) });
      continue;
    }
    const last = made.parts.at(-1)!;
    sums.push({ amount, of: made.parts.map((part) => part.amount), less: made.off || last.cents < 0 });
    open = [...open.slice(0, open.length - made.parts.length), { amount, cents: amount.cents }];
  }
  return sums;
}

/** The fewest amounts right above that make a sum; the last of two may be one that is taken off. */
function madeOf(
  cents: number,
  open: readonly { amount: Amount; cents: number }[],
): { parts: { amount: Amount; cents: number }[]; off: boolean } | undefined {
  if (cents === 0) return undefined;
  let sum = open.at(-1)?.cents ?? 0;
  for (let from = open.length - 2; from >= 0; from--) {
    sum += open[from].cents;
    const last = open.at(-1)!;
    const parts = open.slice(from);
    if (parts.some((part) => part.cents === 0) && parts.length === 2) continue;
    if (sum === cents) return { parts, off: false };
    // What was paid may have no sign and any name, but stands right below the sum that it lowers.
    if (parts.length === 2 && last.cents > 0 && sum - 2 * last.cents === cents && cents > 0)
      return { parts, off: true };
    // What is kept back of a wage is listed below it, each as it is.
    const rest = sum - open[from].cents;
    const isListed = parts.length > 2 && parts.every((part) => part.cents > 0);
    if (isListed && cents > 0 && open[from].cents - rest === cents) return { parts, off: true };
  }
  return undefined;
}

/** Whether a letter behind an amount says on which side of an account it stands. */
const isMarked = ({ row, words }: Amount) => CREDIT.test(row.words[row.words.indexOf(words.at(-1)!) + 1]?.text ?? '');

function signed({ cents, row, words }: Amount): number {
  const behind = row.words[row.words.indexOf(words.at(-1)!) + 1]?.text ?? '';
  const said = foldMisread(row.cells[0].text);
  // “Abschlag, bitte überweisen” asks for it.
  const isPaid = DEPOSIT.exec(said)?.index === 0 && !ASKED.test(said);
  const isOff = TAKEN_OFF.test(said) || CREDIT.test(behind) || isPaid;
  return cents > 0 && isOff ? -cents : cents;
}

/** The last amounts of rows, one a row, of the column whose right edge most of them share. */
function mainColumn(rows: readonly Row[]): Amount[] {
  const all = rows.flatMap((row) => amountsIn(row).map((amount) => ({ amount, edge: edgeOf(amount) })));
  const near = (one: (typeof all)[number], other: (typeof all)[number]) =>
    Math.abs(one.edge - other.edge) < ALIGNED * placeOf(one.amount.words)[3];
  let best: typeof all = [];
  for (const one of all.slice(-LONGEST)) {
    const column = all.filter((other) => near(one, other));
    if (column.length > best.length || (column.length === best.length && one.edge > (best[0]?.edge ?? 0)))
      best = column;
  }
  return best.map(({ amount }) => amount);
}

function edgeOf({ words }: Amount): number {
  const [x, , width] = placeOf(words);
  return x + width;
}

/** Balances of an account, each of which is the one above it and what its row books. */
export interface RunningBalances {
  /** The balance that they begin with, where a row says nothing else. */
  opening: Amount | undefined;
  closing: Amount;
}

/** What a balance is called (folded). */
const BALANCE = /saldo|balance|solde|stand\b|bestand|forward|report|ubertrag/;

/** The balances of an account of which only the first and the last are told: both are called alike, and what is booked leads from one to the other. */
export function endBalances(rows: readonly Row[]): RunningBalances | undefined {
  const isBalance = ({ row }: Amount) => BALANCE.test(row.folded);
  // “Value of your plan on 5 November 2025”, and a year later
  const isAlike = (one: Amount, other: Amount) =>
    [one, other].every(({ row }) => datesInLine(row.words).length === 1) &&
    called(one, LONGEST_CALLED) === called(other, LONGEST_CALLED);
  const found = columnSums(rows).find(
    ({ amount, of }) => (isBalance(amount) && isBalance(of[0])) || isAlike(amount, of[0]),
  );
  if (found) return { opening: found.of[0], closing: found.amount };
  return balancesNamed(rows) ?? balancesOfTwoColumns(rows);
}

/** The same by what they are called, wherever what is booked between them stands: the last amount of each row. */
function balancesNamed(rows: readonly Row[]): RunningBalances | undefined {
  const last = rows.flatMap((row) => amountsIn(row).slice(-1));
  const from = last.findIndex(({ row }) => OPENING.test(row.folded));
  const to = last.findIndex(({ row }, at) => at > from && CLOSING.test(row.folded));
  if (from < 0 || to - from <= LEAST_BOOKED) return undefined;
  const booked = last.slice(from + 1, to).reduce((sum, { cents }) => sum + cents, 0);
  return last[from].cents + booked === last[to].cents ? { opening: last[from], closing: last[to] } : undefined;
}

/** What two balances are called alike by, in words: “Reste au 30 juin”, “Reste au 30 septembre”. */
const CALLED = 2;
const LONGEST_CALLED = 5;

/** The first words of an amount's row, without figures (folded). */
const called = ({ row }: Amount, words: number) =>
  row.folded
    .replace(/[\d.,:/-]+/g, '')
    .trim()
    .split(/\s+/)
    .slice(0, words)
    .join(' ');

/** So many rows are booked between two balances at least. */
const LEAST_BOOKED = 2;
/** And so many amounts may stand before the first balance. */
const MOST_BEFORE = 8;

/**
 * The same of an account that books what goes out and what comes in in columns of their own: the last balance is the first one, less the
 * one column and more the other.
 */
function balancesOfTwoColumns(rows: readonly Row[]): RunningBalances | undefined {
  const single = rows.flatMap((row) => {
    const [amount, ...others] = amountsIn(row);
    return amount && others.length === 0 ? amount : [];
  });
  // An account begins with its balance: a long paper is not tried from each of its rows.
  for (const [first, opening] of single.slice(0, MOST_BEFORE).entries()) {
    const last = single.findLastIndex(
      (other) =>
        called(other, CALLED) === called(opening, CALLED) ||
        (BALANCE.test(other.row.folded) && BALANCE.test(opening.row.folded)),
    );
    if (last <= first + LEAST_BOOKED) continue;
    const [closing, booked] = [single[last], single.slice(first + 1, last)];
    const left = Math.min(...booked.map(edgeOf));
    const isLeft = (amount: Amount) => edgeOf(amount) - left < ALIGNED * placeOf(amount.words)[3];
    const sum = (some: Amount[]) => some.reduce((all, { cents }) => all + cents, 0);
    const [out, into] = [sum(booked.filter(isLeft)), sum(booked.filter((each) => !isLeft(each)))];
    if (Math.abs(closing.cents - opening.cents) === Math.abs(into - out)) return { opening, closing };
  }
  return undefined;
}

/** Rows of bookings with a balance, so many one below the other, are an account's. */
const LEAST_BALANCES = 3;

/** The balances of a paper whose rows book something and say what there is then; undefined where none follow from each other. */
export function runningBalances(rows: readonly Row[]): RunningBalances | undefined {
  let best: (RunningBalances & { length: number }) | undefined;
  let [opening, last, length] = [undefined as Amount | undefined, undefined as Amount | undefined, 0];
  for (const row of rows) {
    const amounts = amountsIn(row);
    const balance = amounts.at(-1);
    if (!balance) continue;
    const follows =
      last !== undefined &&
      amounts.length > 1 &&
      Math.abs(balance.cents - last.cents) === Math.abs(amounts.at(-2)!.cents);
    if (follows) length++;
    // The same balance again, by itself, ends a page or begins one.
    const isAgain = !follows && amounts.length === 1 && balance.cents === last?.cents;
    if (!follows && !isAgain) [opening, length] = [amounts.length === 1 ? balance : undefined, 0];
    last = balance;
    // Between two that stand by themselves fewer are enough.
    const enough = isAgain && opening ? LEAST_BOOKED : LEAST_BALANCES;
    if (length >= enough && length >= (best?.length ?? 0)) best = { opening, closing: balance, length };
  }
  return best;
}
