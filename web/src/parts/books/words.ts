import { Account, BookTie, Entry, PaperBooks } from '@crow/contract/ledger';
import { digitsOf } from '@crow/core/money';
import { count } from '../words';

/** Why a category is proposed. */
export function whyCategory({ code, text }: PaperBooks['why']): string {
  if (code === 'usual') return `usual for this sender, ${count(Number(text), 'time')}`;
  if (code === 'sender') return 'as you said for this sender';
  if (code === 'word') return `because of “${text}”`;
  return code === 'said' ? '✓ by hand' : 'nothing tells: choose one';
}

const PROBLEMS: Record<string, string> = {
  'no-day': 'no date is known',
  'no-who': 'it is not known from whom it is',
  'no-total': 'no total is known',
  'not-adding-up': 'net and tax do not come to the total',
  'period-closed': 'the books are closed for its time',
  'entered-already': 'the same bill is in the books already',
};
/** What keeps a paper from being entered. */
export const problemInWords = (code: string): string => PROBLEMS[code] ?? code;

const ALIKE: Record<string, string> = { number: 'number', amount: 'amount', who: 'sender', day: 'day' };
/** What a paper and an entry have alike: `the same number, amount and sender`. */
export function alikeInWords(alike: readonly string[]): string {
  const names = alike.map((each) => ALIKE[each] ?? each);
  const last = names.pop();
  return last ? `the same ${names.length > 0 ? `${names.join(', ')} and ` : ''}${last}` : 'little alike';
}

const TIES: Record<string, string> = {
  amount: 'the same amount',
  discount: 'less a discount',
  fee: 'with a fee',
  exchange: 'in another currency',
  together: 'several bills paid together',
  parts: 'paid in parts',
  part: 'a part of it',
  'by-hand': 'tied by hand',
  transfer: 'between own accounts',
};
/** What a tie rests on, and how likely it is while it is proposed. */
export const tieInWords = ({ why, made, confidence }: Pick<BookTie, 'why' | 'made' | 'confidence'>): string =>
  made ? (TIES[why] ?? why) : `${TIES[why] ?? why}, ${Math.round(100 * confidence)} % likely`;

export const ACCOUNT_NAMES: Record<Account['kind'], string> = { bank: 'Bank', card: 'Card', cash: 'Cash' };

/** Whether an entry has a paper that proves it. */
export const isProven = ({ papers }: Pick<Entry, 'papers'>): boolean => papers.some(({ role }) => role === 'proof');

export const FORMAT_NAMES: Record<string, string> = {
  csv: 'CSV',
  ofx: 'OFX',
  camt: 'CAMT (ISO 20022)',
  mt940: 'MT940',
  qif: 'QIF',
  paper: 'a paper',
};

/** A bank account as it is written. */
export const inFours = (iban: string): string => iban.replace(/(.{4})(?=.)/g, '$1 ');

/** At which rate something in other money comes to so much in one's own. */
export function rateInWords(
  { units, ownUnits, currency }: { units: number; ownUnits: number | null; currency: string },
  own: string,
): string {
  if (ownUnits === null || units === 0) return 'as it is paid';
  const rate = (ownUnits / 10 ** digitsOf(own) / (units / 10 ** digitsOf(currency))).toFixed(5);
  return `1 ${currency} = ${rate} ${own}`;
}
