import { datesInLine } from '../dates';
import { columnSums, ColumnSum, endBalances, runningBalances } from './columnSums';
import { Kind } from './fact';
import { KindScores } from './kindScores';
import { CLOSING, OPENING, PAYOUT, TAX } from './labels';
import { amountsIn } from './money';
import { fold, Row } from './rows';
import { partsOf } from './terms';

/** Whether a paper says somewhere that something is to be paid, or names an account to pay to. */
export const asksForMoney = (rows: readonly Row[]) =>
  rows.some(({ words }) =>
    words.some(({ text }) => partsOf(fold(text)).some((part) => part === 'pay' || part === 'iban')),
  );

const TRANSFER =
  /uberweis|\btransfer|virement|virer|bonific|overschr|\b(?:auf|an) (?:das|unser|folgendes|mein|dieses) konto\b/;
const RECEIVED = /\b(?:received|paid|erhalten|bezahlt|beglichen|recu|regle|paye|acquitte|ricevuto|ontvangen|betaald)\b/;
/** Whether a paper asks to pay into an account that it names; what says that it was paid does not. */
export const asksForTransfer = (rows: readonly Row[]) =>
  rows.some(({ folded }) => TRANSFER.test(folded)) &&
  !rows.some(({ folded }) => RECEIVED.test(folded)) &&
  rows.some(({ text }) => /\b[A-Z]{2}\d{2}(?: ?[\dA-Z]{4}){3}/.test(text));

/** What it counts for that amounts make a sum below them, that a tax is among those, and that the paper asks for money as well. */
export const [ADDS_UP, ASKS] = [2, 1.6];
const TAXED = 0.8;
/** Papers with sums that nobody is asked to pay by them. */
const UNASKED: Kind[] = ['order', 'quote', 'credit note', 'delivery note', 'payslip'];

/** Who collects taxes and charges, by the first rows of a paper (folded). */
const PUBLIC =
  /\b(?:council|(?:inland )?revenue (?:office|service|agency)|municipality of|(?:city|town|county|borough) of|tax (?:office|collector)|landkreis|stadtverwaltung|\p{L}{3,}(?<!ges)amt|mairie de|tresor public|ayuntamiento|comune di)\b|^(?:stadt|gemeinde|gemeente|commune de) \p{L}+$/u;
/** What only an office's papers say: how one objects to them (folded). */
const APPEALED =
  /rechtsbehelf|\bwiderspruch (?:erhoben|erheben|einlegen|eingelegt)|\beinspruch (?:einlegen|eingelegt|erheben|erhoben)|voies de recours|right of appeal|you (?:may|can) appeal/;
const LETTERHEAD = 4;
/** Only what is insured is taxed so (folded). */
export const INSURED = /insurance premium tax|versicherungs?-?steuer|taxe sur les (?:conventions d')?assurances?/u;
/** What whoever writes pays themselves (folded). */
const WE_PAY =
  /\bwe (?:will|shall|have|are|can) (?:now |therefore )?(?:pay|paid|refund|repay|reimburse)|\bwe(?:'ll|'ve) (?:pay|paid)\b|\bwe pay you\b|\b(?:paid|transferred)(?: out)? to you\b|\byou (?:will|'ll) (?:get|receive)\b|\ban sie (?:uberwiesen|ausgezahlt)|\bwir (?:zahlen|erstatten|uberweisen|vergute[nt])\b|\bnous vous (?:versons|verserons|remboursons|rembourserons)\b/;
/** Whom an agreement is made between (folded). */
const AGREED =
  /\bbetween\b.{3,60}\band\b.{3,60}\(the\b|\bmade (?:on|this)\b.{3,40}\bbetween\b|\bzwischen\b.{3,60}\bund\b.{3,60}\((?:im folgenden|nachfolgend)|\bentre\b.{3,60}\bet\b.{3,60}\(ci-apres/;
/** Whether a row tells a tax. */
export const isTaxRow = (row: Row) => TAX.test(row.folded) && amountsIn(row).length > 0;

/** A ticket for goods that are taxed and to be paid is a bill as well. */
const isBilledDelivery = (scores: KindScores, rows: readonly Row[]) =>
  scores.titled.has('delivery note') && asksForMoney(rows) && rows.some(isTaxRow);

/**
 * Adds what the sums of a paper say of its kind: what lists and asks for money is a bill, whatever it is called, unless something else
 * speaks for another kind of paper with sums.
 * @param isNarrow whether it is a till's paper
 * @returns whether it has sums that ask for something
 */
export function addSums(scores: KindScores, rows: readonly Row[], isNarrow: boolean): boolean {
  const isBilled = isBilledDelivery(scores, rows);
  if (isBilled) scores.weaken('delivery note', 0.5);
  const unasked = UNASKED.filter((kind) => kind !== 'delivery note' || !isBilled);
  // “We will pay £702.50”: what an insurer pays is asked of nobody.
  const asksFor = ({ amount }: ColumnSum) => !WE_PAY.test(amount.row.folded);
  const sums = unasked.some((kind) => scores.titled.has(kind)) ? [] : askedSums(rows).filter(asksFor);
  const last = sums.at(-1);
  if (!last) return false;
  const { amount } = last;
  const hasTax = sums.some(({ of }) => of.some(({ row }) => TAX.test(row.folded)));
  const asks = asksForMoney(rows);
  const points = ADDS_UP + (hasTax ? TAXED : 0) + (asks ? ASKS : 0);
  // What is paid out leaves a balance of payments and deductions; “net à payer” is said on bills as well.
  const paidOut = rows.find((each) => PAYOUT.test(each.folded) && amountsIn(each).length > 0);
  const isPay = paidOut && !hasTax && scores.of('payslip') > scores.of('invoice');
  const kind = kindOfSum(last, { scores, rows, isNarrow, hasTax, asks });
  // What gives money back is no receipt for what was paid.
  if (amount.cents < 0) scores.weaken('receipt', 0.5);
  if (isPay) scores.add('payslip', points, paidOut, paidOut.text);
  else scores.add(kind, points, amount.row, amount.row.text);
  // A letter that lists what it asks for is a bill.
  if (asks) scores.weaken('letter', 0.5);
  return true;
}

/** What a paper is by the last of its sums: a bill, unless something says otherwise. */
function kindOfSum(
  { amount, less }: ColumnSum,
  {
    scores,
    rows,
    isNarrow,
    hasTax,
    asks,
  }: { scores: KindScores; rows: readonly Row[]; isNarrow: boolean; hasTax: boolean; asks: boolean },
): Kind {
  const { titled } = scores;
  // What was paid asks for no transfer any more.
  const isPaid =
    isNarrow ||
    (!titled.has('invoice') && rows.some(isSettled)) ||
    (!less && !asksForTransfer(rows) && scores.of('receipt') > scores.of('invoice'));
  // What a public body asks for is no bill, unless it calls it one.
  const isPublic = rows.slice(0, LETTERHEAD).some(({ cells }) => cells.some(({ folded }) => PUBLIC.test(folded)));
  const isOfficial = isPublic || rows.some(({ folded }) => APPEALED.test(folded));
  const isCharged = isOfficial && !isPaid && !titled.has('invoice') && !titled.has('receipt');
  // An agreement lists what is to be paid by it.
  const isAgreed =
    titled.has('contract') && (rows.some(({ folded }) => AGREED.test(folded)) || (!asks && !titled.has('receipt')));
  const isInsured = !titled.has('invoice') && (isAgreed || rows.some(({ folded }) => INSURED.test(folded)));
  // What is headed as a reminder lists what is owed.
  const isReminded = scores.isHeaded('reminder') && !scores.isHeaded('invoice');
  // So does a statement that a supplier sends; what is taxed on one is a bill.
  const isListed = scores.isHeaded('statement') && !scores.isHeaded('invoice') && !hasTax;
  const asked: [kind: Kind, is: boolean][] = [
    ['credit note', amount.cents < 0],
    ['reminder', isReminded],
    ['statement', isListed],
    ['notice', isCharged],
    ['contract', isInsured],
    ['receipt', isPaid],
  ];
  return asked.find(([, is]) => is)?.[0] ?? 'invoice';
}

/** Whether a row says that nothing is left to pay: “Outstanding 0.00”. */
const isSettled = (row: Row) =>
  /\b(?:outstanding|to pay|(?:balance|amount)(?: now)? due|left to pay|offen|restbetrag|noch zu zahlen|reste? (?:a payer|du))\b/.test(
    row.folded,
  ) && amountsIn(row).at(-1)?.cents === 0;

/** The sums of what a paper lists; none on one that tells the balances of an account. */
function askedSums(rows: readonly Row[]): ColumnSum[] {
  // A bill may begin with what was owed before; what is taxed is one.
  if (rows.some(isTaxRow)) return columnSums(rows);
  const isAccount =
    rows.some(({ folded }) => OPENING.test(folded) || CLOSING.test(folded)) ||
    runningBalances(rows) !== undefined ||
    endBalances(rows) !== undefined;
  return isAccount ? askedAgain(rows) : columnSums(rows);
}

/** Sums that are asked for by name, of charges that have no day of their own: those of a bill that begins with the balance of the last one. */
function askedAgain(rows: readonly Row[]): ColumnSum[] {
  const asks = (row: Row) => row.words.some(({ text }) => partsOf(fold(text)).includes('pay'));
  const isDated = ({ words }: Row) =>
    datesInLine(words).length > 0 || /^\d{1,2}[ ./-](?:\d{1,2}|\p{L}{3})/u.test(words[0].text);
  return columnSums(rows).filter(
    ({ amount, of }) =>
      amount.cents > 0 &&
      !of.some(({ row, cents }) => cents > 0 && isDated(row)) &&
      // “TOTAL DUE 12/02/2026  $65.35” says by when itself.
      ((asks(amount.row) && datesInLine(amount.row.words).length > 0) ||
        rows.some(
          (row) => row !== amount.row && asks(row) && amountsIn(row).some(({ cents }) => cents === amount.cents),
        )),
  );
}
