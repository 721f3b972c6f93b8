import { endBalances, runningBalances } from './columnSums';
import { isDoubtfulFact } from './doubt';
import { Fact, KINDS } from './fact';
import { OwnKind } from './kindList';
import { kindChances } from './kindModel';
import { addNames, PAID } from './kindNames';
import { HEADING_POINTS, KindScores } from './kindScores';
import { ADDS_UP, addSums, ASKS, asksForMoney, asksForTransfer, INSURED, isTaxRow } from './kindSums';
import { kindWords, KindWords, ownWords } from './kindWords';
import { CLOSING, OPENING, TOTAL } from './labels';
import { currencyIn } from './currencies';
import { amountsIn } from './money';
import { Row } from './rows';

/** A till's paper is no wider than this share of its height. */
const NARROW = 0.62;
/** The wording of fewer rows says nothing. */
const LEAST_ROWS = 4;
/** What an account's statement says somewhere. */
const OF_ACCOUNT = new RegExp(
  `${OPENING.source}|${CLOSING.source}|account|konto|compte|cuenta|conto|rekening|balance|saldo|solde|card`,
  'u',
);
/** What balances that follow from each other count for. */
const BALANCED = 6;
/** What it counts for that things are counted, and nothing is said of what they cost. */
const ONLY_COUNTED = 3;
const LEAST_COUNTED = 2;

/** The first row of a list of things with how many there are of each. */
function countedGoods(rows: readonly Row[]): Row | undefined {
  const isCounted = ({ cells }: Row) =>
    cells.length > 1 && /^\d{1,3}(?: ?x)?$/i.test(cells[0].text) && /\p{L}{3}/u.test(cells[1].text);
  const found = rows.filter(isCounted);
  return found.length >= LEAST_COUNTED ? found[0] : undefined;
}

/** What it counts for that a paper is surely worded like those of a kind; and how likely that is where it says something. */
const WORDED = 6;
const LEAST_LIKELY = 0.15;

/** Of papers whose wording made a kind so likely, nearly all were of it when nothing of their set had been learnt; so sure they are. */
const [LIKELY, WELL_WORDED] = [0.73, 0.85];

/** Adds what the wording of a paper says of its kind, and gives how likely it makes each. */
function addWording(scores: KindScores, rows: readonly Row[], own: readonly OwnKind[]): Record<string, number> {
  const chances: Record<string, number> = kindChances(rows.map(({ folded }) => folded));
  if (rows.length < LEAST_ROWS) return {};
  // Nothing was learnt of a kind that a person added: it gets as much as the likeliest, so that wording decides nothing against it.
  const most = Math.max(...Object.values(chances));
  for (const { name } of own) if (scores.has(name)) scores.add(name, WORDED * most, rows[0], '');
  for (const [kind, chance] of Object.entries(chances))
    if (scores.has(kind) || chance >= LEAST_LIKELY) scores.add(kind, WORDED * chance, rows[0], '');
  return chances;
}

/** What kind of paper it is. @param own kinds that a person added */
export function findKind(
  rows: readonly Row[],
  first: { width: number; height: number } | undefined,
  own: readonly OwnKind[] = [],
): Fact | null {
  const scores = new KindScores();
  addNames(scores, rows, [
    ...KINDS.map((kind): [string, KindWords] => [kind, kindWords[kind]]),
    ...own.filter(({ words }) => words.length > 0).map((kind): [string, KindWords] => [kind.name, ownWords(kind)]),
  ]);
  const isNarrow = first !== undefined && first.width / first.height < NARROW;
  addPayment(scores, rows, isNarrow);
  const hasSums = addSums(scores, rows, isNarrow);
  addGoods(scores, rows);
  addLetter(scores, rows, hasSums);
  addAccount(scores, rows, hasSums);
  // A till's slip may be called a ticket, too.
  if (!scores.isHeaded('ticket') && scores.has('receipt')) scores.weaken('ticket', 0.6);
  const chances = addWording(scores, rows, own);
  const [likeliest, second] = scores.ranked();
  if (!likeliest) return byItsSum(rows, first);
  const [kind, { score, strongest, row, said }] = likeliest;
  const most = strongest >= HEADING_POINTS ? 0.97 : chances[kind] >= LIKELY ? WELL_WORDED : 0.68;
  const confidence = Math.min(most, 0.55 + (score - (second?.[1].score ?? 0)) / 8);
  return {
    value: kind,
    page: row.page,
    box: row.box,
    confidence,
    why: said === '' ? { code: 'its-wording' } : { code: 'says', text: said.trim() },
    // Which it may be as well, where nothing settles it.
    ...(isDoubtfulFact({ confidence, confirmed: false }) && second !== undefined && { other: second[0] }),
  };
}

/** Weighs how a paper is paid, by its shape and what it asks for. */
function addPayment(scores: KindScores, rows: readonly Row[], isNarrow: boolean): void {
  if (isNarrow && rows.length > 0 && scores.size > 0) scores.add('receipt', 2, rows[0], 'its narrow paper');
  // What asks for a transfer has not been paid, whatever it calls itself: “Beleg über Ihren Einkauf auf Rechnung”.
  if (scores.has('receipt') && asksForTransfer(rows)) scores.weaken('receipt', 0.5);
  // A till's slip may call itself a bill: what is paid by card or in cash at once is a receipt.
  if (isNarrow && scores.has('invoice') && rows.some(({ folded }) => PAID.test(folded))) scores.weaken('invoice', 0.5);
}

/** Adds what is counted without a price, or insured. */
function addGoods(scores: KindScores, rows: readonly Row[]): void {
  if (scores.titled.size === 0 && !rows.some((row) => amountsIn(row).length > 0)) {
    const counted = countedGoods(rows);
    if (counted) scores.add('delivery note', ONLY_COUNTED, counted, counted.text);
  }
  const insured = rows.find(({ folded }) => INSURED.test(folded));
  if (insured && !scores.titled.has('invoice')) scores.add('contract', ADDS_UP, insured, insured.text);
}

/** Weighs whether a paper is only a letter, whatever it encloses or asks for. */
function addLetter(scores: KindScores, rows: readonly Row[], hasSums: boolean): void {
  const isLetter = scores.has('letter');
  // A bill or a notice may be written as a letter; its heading says what it is.
  if (scores.isHeadedOtherwise('letter')) scores.weaken('letter', 0.5);
  // What asks in a letter for a sum, and says into which account, is a bill.
  const asking = !hasSums && isLetter && asksForTransfer(rows) ? rows.find(namesSum) : undefined;
  if (!asking) return;
  scores.weaken('letter', 0.5);
  scores.add('invoice', ADDS_UP + ASKS, asking, asking.text);
}

/** Adds the balances of an account, and weighs what is only called a statement. */
function addAccount(scores: KindScores, rows: readonly Row[], hasSums: boolean): void {
  // Balances that follow from each other are those of an account.
  const isTaxed = rows.some(isTaxRow);
  const balances = isTaxed ? undefined : (runningBalances(rows) ?? endBalances(rows));
  if (balances) {
    // Called balances they say it twice.
    const areCalled = OPENING.test(balances.opening?.row.folded ?? '') && CLOSING.test(balances.closing.row.folded);
    scores.add('statement', areCalled ? 2 * BALANCED : BALANCED, balances.closing.row, balances.closing.row.text);
  }
  if (!scores.has('statement')) return;
  // What accounts to somebody for work is a bill.
  if (!balances && (isTaxed || !rows.some(({ folded }) => OF_ACCOUNT.test(folded)))) scores.weaken('statement', 0.5);
  // What adds a tax to the last balance and asks for both is one, whatever it is called.
  if (isTaxed && hasSums && asksForMoney(rows)) scores.weaken('statement', 0.4);
}

/** Whether a row names a sum in a currency. */
const namesSum = (row: Row) => amountsIn(row).length > 0 && row.words.some(({ text }) => currencyIn(text));

/** A paper that no word says the kind of, but that has a total, is a bill of some kind. */
function byItsSum(rows: readonly Row[], first: { width: number; height: number } | undefined): Fact | null {
  const total = rows.findLast((row) => TOTAL.test(row.folded) && amountsIn(row).length > 0) ?? rows.findLast(isTaxRow);
  const amounts = rows.filter(namesSum);
  const asking = total ?? (amounts.length > 0 && asksForMoney(rows) ? amounts[amounts.length - 1] : undefined);
  if (!asking) return null;
  const value = first && first.width / first.height < NARROW ? 'receipt' : 'invoice';
  return { value, page: asking.page, box: asking.box, confidence: 0.5, why: { code: 'has-total' } };
}
