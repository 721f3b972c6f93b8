import { sayLabel } from './chosenSums';
import { columnSums, endBalances, runningBalances } from './columnSums';
import { Fact } from './fact';
import { CLOSING, OPENING, PAYOUT, TO_PAY, TOTAL } from './labels';
import { Amount, amountsIn } from './money';
import { moneyFact, NO_SUMS, Sums } from './namedSums';
import { Row } from './rows';

/** What heads a column of sums of the year so far (folded). */
const SO_FAR =
  /\b(?:year[- ]to[- ]date|to date|ytd|y\.t\.d|cumul\p{L}*|kumul\p{L}*|jahressumme\p{L}*|aufgelaufen\p{L}*)\b/u;

/** What a payslip pays out. */
export function payout(rows: readonly Row[]): Sums {
  const row = rows.findLast((each) => PAYOUT.test(each.folded) && amountsIn(each).length > 0);
  if (!row) return leftOfPay(rows);
  const { 0: said, index } = PAYOUT.exec(row.folded)!;
  const from = row.folded.slice(0, index).split(' ').length - 1;
  const all = amountsIn(row);
  const behind = all.filter(({ words: [first] }) => row.words.indexOf(first) >= from);
  const amounts = behind.length > 0 ? behind : all;
  // Beside what is paid now stands what was paid in the year so far, which is no less.
  const isAddedUp = amounts.length > 1 && rows.some(({ folded }) => SO_FAR.test(folded));
  const amount = isAddedUp
    ? amounts.reduce((least, each) => (each.cents < least.cents ? each : least))
    : amounts[amounts.length - 1];
  return { ...NO_SUMS, total: moneyFact(amount, amount.cents, said, 0.93) };
}

/** What a column of pay and what is taken off it leaves, whatever it is called: “auf Ihr Konto”. */
function leftOfPay(rows: readonly Row[]): Sums {
  const left = columnSums(rows).findLast(({ of }) => of.some(({ cents }) => cents < 0));
  if (!left || left.amount.cents <= 0) return NO_SUMS;
  return { ...NO_SUMS, total: moneyFact(left.amount, left.amount.cents, sayLabel(left.amount), 0.85) };
}

/** What a statement asks for, where it does. */
export function asked(rows: readonly Row[]): Sums {
  const isBalance = ({ folded }: Row) => OPENING.test(folded) || CLOSING.test(folded);
  // What there is in an account is not yet to be paid.
  const says = (each: Row) => TOTAL.exec(each.folded)?.[0].replace(/^(?:balance|saldo|solde)$/, '') ?? '';
  const row = rows.findLast((each) => TO_PAY.test(says(each)) && !isBalance(each) && amountsIn(each).length === 1);
  const [amount] = row ? amountsIn(row) : [];
  return { ...NO_SUMS, amountDue: row ? moneyFact(amount, amount.cents, TOTAL.exec(row.folded)![0], 0.9) : null };
}

/** The balances that an account's statement begins and ends with; below nothing where a sign or a word behind it says so. */
export function findBalances(rows: readonly Row[]): { opening: Fact<number> | null; closing: Fact<number> | null } {
  const saying = (label: RegExp) => rows.filter((each) => label.test(each.folded) && amountsIn(each).length > 0);
  const balance = (label: RegExp, row: Row | undefined) => {
    const amount = row && amountsIn(row).at(-1);
    if (!amount) return null;
    const behind = row.words[row.words.indexOf(amount.words.at(-1)!) + 1]?.text ?? '';
    const isBelow = /^(?:S|DR|D|OD|Soll|debit)\.?$/i.test(behind) || /[-–−]$/.test(behind);
    return moneyFact(amount, isBelow ? -Math.abs(amount.cents) : amount.cents, label.exec(row.folded)![0], 0.95);
  };
  const running = runningBalances(rows) ?? endBalances(rows);
  const follow = (amount: Amount | undefined) =>
    amount ? moneyFact(amount, amount.cents, amount.row.cells[0].text, 0.9) : null;
  const closing = saying(CLOSING);
  // Both may be called alike: “Kontostand am 30.09.”, and below what was booked “Kontostand am 31.10.”
  const [first, last] = [closing[0], closing.at(-1)];
  const alike = first && last && last.number - first.number > 1 ? first : undefined;
  return {
    opening: balance(OPENING, saying(OPENING)[0]) ?? follow(running?.opening) ?? balance(CLOSING, alike),
    closing: balance(CLOSING, last) ?? follow(running?.closing),
  };
}
