import { around } from '../../geometry';
import { isTableHead } from './columnHeads';
import { Fact, FactLine } from './fact';
import { Kind } from './kindList';
import { TAX } from './labels';
import { lineItems } from './lineItems';
import { countedAt, onlyPrice } from './measures';
import { Amount, amountsIn } from './money';
import { rateIn } from './rowTaxes';
import { Row } from './rows';
import { CARRIED, isCounting, isSum, isSumOf, mayName } from './tableLines';

/** A row with amounts, and what it is among those of a paper. */
interface Entry {
  row: Row;
  /** From the left. */
  amounts: Amount[];
  role: 'item' | 'maybe' | 'sum' | 'tax' | 'paid';
}

/** Kinds of papers that have sums in sentences and in tables of other things: what they list must make a sum. */
const MUST_LAND: readonly Kind[] = ['contract', 'notice', 'letter', 'certificate', 'ticket', 'other'];
/** What stands among the goods and is not in their sum (folded). */
const NOT_COUNTED =
  /\b(?:not included|optional|option [a-z\d]|alternativ\p{L}*|eventual\p{L}*|on request|auf wunsch|en option)\b/u;
const TAXED = /^\W{0,3}(?:sales )?(?:tax(?:es)?|steuern?)\b/;
/** What is in an amount above it (folded). */
const WITHIN = /^\W{0,3}(?:dont|davon|darin|of which|including|incl|inkl|di cui|waarvan|inclusief)\b/;
/** What was paid or owed before (folded). */
const PAID_BEFORE =
  /^\W{0,3}(?:your |ihre |vos |less |abzgl\.? |abzuglich |minus )?(?:payments?|paid|pre-?paid|zahlung(?:en)?|bezahlt|paiements?|versements?|acomptes?|(?:geleistete |bereits |gezahlte )?(?:abschlage|abschlagszahlung(?:en)?|anzahlung(?:en)?|vorauszahlung(?:en)?)|geleistete|bereits|betaalde?|(?:previous|last|opening|old) (?:balance|bill)|balance (?:from|brought)|credit from|guthaben aus|alter saldo|solde (?:anterieur|precedent))\b/;
const RECEIVED = /\b(?:received|paid|erhalten|bezahlt|recue?s?|versee?s?|ontvangen|recibid[oa]s?)\b/;
/** Columns that a sum may stand below, from the right. */
const COLUMNS = [-1, -2, -3];

/**
 * What a paper lists, as a fact: the rows that make a sum which stands on it, in whichever column of amounts, on below the sum of a
 * section, and also where a name stands above or behind its amount; else the rows above the first sum, doubtful.
 * @param rows without amounts in other currencies, and without a column of taxes
 * @param said what it comes to, before and after taxes, in hundredths
 */
export function findLineItems(rows: readonly Row[], kind: Kind, said: readonly number[]): Fact<FactLine[]> | null {
  // What is paid and what is taken off stand beside each other.
  if (kind === 'payslip') return null;
  const entries = entriesIn(rows, rows.findIndex(isTableHead));
  // The only heads may be those of a table of taxes, or of a payment part.
  const landed = landing(entries, said) ?? landing(entriesIn(rows, -1), said);
  const amounts = landed ?? (MUST_LAND.includes(kind) ? [] : aboveFirstSum(entries));
  if (amounts.length === 0) return null;
  const { page } = amounts[0].row;
  const onPage = amounts.filter(({ row }) => row.page === page);
  return {
    value: lineItems(rows, amounts),
    page,
    box: around(onPage.map(({ row }) => row.box)),
    confidence: landed ? 0.97 : 0.6,
    why: { code: landed ? 'rows-that-add-up' : 'rows-with-amounts' },
  };
}

/** The rows with amounts below the heads of a table. @param heads the number of their row, -1 for all rows */
function entriesIn(rows: readonly Row[], heads: number): Entry[] {
  const entries: Entry[] = [];
  const counted = { rows: 0, sum: 0 };
  let isBelowSum = false;
  let named: Row | undefined;
  for (const [at, row] of rows.entries()) {
    if (at <= heads || CARRIED.test(row.folded) || NOT_COUNTED.test(row.folded)) continue;
    const amounts = amountsIn(row);
    const last = amounts.at(-1);
    // How much there is of it, or its price, may stand in a row of its own.
    const isPhrase = countedAt(row) !== undefined || onlyPrice(row) !== undefined;
    if (last && !isPhrase) {
      const mayBeMade = counted.rows > 1 && counted.sum === last.cents;
      const isMade = mayBeMade && isSumOf([0, counted.sum], last.cents, rows.slice(at + 1));
      const role: Entry['role'] = isMade ? 'sum' : roleOf(row, amounts, { named, isBelowSum });
      entries.push({ row, amounts, role });
      if (role === 'item') Object.assign(counted, { rows: counted.rows + 1, sum: counted.sum + last.cents });
      isBelowSum ||= role === 'sum' || role === 'tax';
    }
    named = isPhrase ? named : !last && mayName(row) ? row : undefined;
  }
  return entries;
}

function roleOf(
  row: Row,
  amounts: readonly Amount[],
  { named, isBelowSum }: { named: Row | undefined; isBelowSum: boolean },
): Entry['role'] {
  const isTax = TAX.test(row.folded);
  const saysTax = rateIn(row) !== undefined || isSum(row) || amounts.every(({ cents }) => cents === 0);
  if (isBelowSum && (isTax || TAXED.test(row.folded)) && saysTax) return 'tax';
  const isLess = amounts.at(-1)!.cents < 0;
  if (PAID_BEFORE.test(row.folded) || (isLess && RECEIVED.test(row.folded))) return 'paid';
  if (WITHIN.test(row.folded)) return 'sum';
  if (isSum(row)) return isTax ? 'tax' : 'sum';
  if (isProse(row, amounts.at(-1)!)) return 'sum';
  return isCounting(row, amounts, named) ? 'item' : 'maybe';
}

/** Whether an amount stands in a sentence. */
function isProse({ cells }: Row, { words }: Amount): boolean {
  const cell = cells.find((each) => each.words.includes(words.at(-1)!));
  if (!cell || cell.words[0] === words[0]) return false;
  const goesOn = cell.words.slice(cell.words.indexOf(words.at(-1)!) + 1).some(({ text }) => /\p{Ll}{2}/u.test(text));
  return (
    goesOn ||
    cell.words.length > MANY_WORDS ||
    (cell.words.length > FEW_WORDS && /\.$|\p{Ll}{2}[.!?] \p{Lu}/u.test(cell.text))
  );
}

const [FEW_WORDS, MANY_WORDS] = [5, 9];

/** The rows that make a sum on the paper: most of them, and of as many those of the sum that the paper comes to, or the larger one. */
function landing(entries: readonly Entry[], said: readonly number[]): Amount[] | undefined {
  const isItem = ({ role }: Entry) => role === 'item';
  const isAny = ({ role }: Entry) => role === 'item' || role === 'maybe';
  const sumOf = (amounts: readonly Amount[]) => Math.abs(amounts.reduce((sum, { cents }) => sum + cents, 0));
  const rank = (amounts: readonly Amount[]) => [amounts.length, Number(said.includes(sumOf(amounts))), sumOf(amounts)];
  const [best] = [isAny, isItem]
    .flatMap((counts) => COLUMNS.map((column) => landed(entries, counts, column)))
    .filter((amounts) => amounts !== undefined)
    .sort((one, other) => {
      const [ours, theirs] = [rank(one), rank(other)];
      return theirs.map((value, at) => value - ours[at]).find((apart) => apart !== 0) ?? 0;
    });
  // What looks like a sum by its name may be one of the goods.
  const run = runOfSums(entries);
  return run && (!best || (run.length > best.length && said.includes(sumOf(run)))) ? run : best;
}

/** Above the goods may stand so many rows with what looks like an amount, such as when a shop opens. */
const MOST_ABOVE = 2;

/** The most rows, from one of the first or from below a sum on, that make a sum, with or without taxes, in one column. */
function landed(entries: readonly Entry[], counts: (entry: Entry) => boolean, column: number): Amount[] | undefined {
  const placed = entries.map((entry, at) => ({ entry, at }));
  const goods = placed.filter(({ entry }) => counts(entry));
  const sums = placed.filter(({ entry }) => !counts(entry));
  let best: Amount[] | undefined;
  for (const [first, { at: start }] of goods.entries()) {
    if (start > MOST_ABOVE && goods[first - 1]?.at === start - 1) continue;
    const listed: Amount[] = [];
    let sum = 0;
    for (let index = first; index < goods.length; index++) {
      const { entry, at } = goods[index];
      const amount = entry.amounts.at(column);
      if (!amount) break;
      listed.push(amount);
      sum += amount.cents;
      if (listed.length <= (best?.length ?? 0) || (start > 0 && listed.length < FEWEST)) continue;
      // What they come to may be called as if it were one of them.
      const left = goods.slice(index + 1, index + 2 + MOST_UNNAMED);
      const unnamed = listed.length >= FEWEST && left.length <= MOST_UNNAMED ? left : [];
      const elsewhere = sums.filter((other) => other.at > at || (start > MOST_ABOVE && other.at < start));
      const others = [...elsewhere, ...unnamed].map((other) => other.entry);
      if (isSaid(sum, others)) best = [...listed];
    }
  }
  return best;
}

const [FEWEST, MOST_UNNAMED] = [2, 2];

/** Whether a sum, or it with the taxes, is said. */
function isSaid(sum: number, others: readonly Entry[]): boolean {
  const of = (some: Entry['role']) =>
    others.filter(({ role }) => role === some).flatMap(({ amounts }) => amounts.map(({ cents }) => Math.abs(cents)));
  const [taxes, paid] = [of('tax'), of('paid')];
  return others
    .filter(({ role, amounts }) => role !== 'tax' || amounts.length > 1)
    .some(({ amounts }) =>
      amounts.some(
        ({ cents }) =>
          Math.abs(cents) === Math.abs(sum) ||
          taxes.some((tax) => tax !== cents && cents - tax === sum) ||
          paid.some((before) => before !== cents && cents + before === sum),
      ),
    );
}

/** Rows that a later one is the sum of, whatever they are called, if nearly all that are no sums are among them. */
function runOfSums(entries: readonly Entry[]): Amount[] | undefined {
  const last = entries.map(({ amounts }) => amounts.at(-1)!);
  const itemsIn = (some: readonly Entry[]) => some.filter(({ role }) => role === 'item').length;
  for (let from = 0; from < entries.length; from++) {
    let sum = 0;
    for (let to = from; to < entries.length - 1; to++) {
      sum += last[to].cents;
      const run = entries.slice(from, to + 1);
      const isMost = itemsIn(run) * 2 > run.length && itemsIn(entries.slice(0, from)) === 0;
      if (to === from || !isMost || run.some(({ role }) => role === 'tax' || role === 'paid')) continue;
      if (last[to + 1].cents === sum && itemsIn(entries.slice(to + 2)) === 0) return last.slice(from, to + 1);
    }
  }
  return undefined;
}

/** The rows above the first sum, if they come before more than one. */
function aboveFirstSum(entries: readonly Entry[]): Amount[] {
  const first = entries.findIndex(({ role }) => role === 'item');
  if (first < 0 || entries.slice(0, first).filter(({ role }) => role !== 'item').length > 1) return [];
  const until = entries.findIndex(({ role }, at) => at > first && role !== 'item' && role !== 'maybe');
  return entries
    .slice(first, until < 0 ? entries.length : until)
    .filter(({ role }) => role === 'item')
    .map(({ amounts }) => amounts.at(-1)!);
}
