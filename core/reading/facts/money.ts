import { Word } from '../words';
import { currencyIn, SIGN, SURE_SIGN } from './currencies';
import { Row } from './rows';

/** An amount of money as it is printed. */
export interface Amount {
  /** In hundredths of the currency's unit. */
  cents: number;
  words: Word[];
  row: Row;
  /** Whether it has decimals, as nearly all amounts have. */
  exact: boolean;
}

/** Groups of three by a point, a comma, a space or an apostrophe, then two decimals by a comma or a point. */
const WRITTEN = new RegExp(
  `^[(]?([-–−+]?)\\s?${SIGN}?\\s?([-–−]?)(\\d{1,3}(?:[.,' ]\\d{3})+|\\d+)([.,](\\d{2}|-{1,2}|–|—))?\\s?([-–−]?)\\s?${SIGN}?[)]?[*A-Da-d]?$`,
);

/** “£**1,234.50**”, “£1,234·50”, “£1,234-50”, “£1,234.50p”, “1 234€50” as they are written usually. */
function plain(text: string): string {
  return text
    .replace(/’/g, "'")
    .replace(/^[*=#]+|(?<=[£€$])\*+|(?<=\d)\*{2,}$/g, '')
    .replace(/(?<=\d)·(?=\d{2}(?!\d))/, '.')
    .replace(/^(£[\d,]+)-(?=\d{2}$)/, '$1.')
    .replace(/(?<=^£.*\.\d{2})p$/, '')
    .replace(/^(\d[\d ]*?) ?€ ?(\d{2})$/, '$1,$2 €')
    .trim();
}

/** What is printed as hundredths; undefined when it is no amount. 1.234,56 and 1,234.56 are told by their last separator. */
export function readAmount(text: string): { cents: number; exact: boolean } | undefined {
  const found = WRITTEN.exec(plain(text));
  if (!found) return undefined;
  const [, minusA, minusB, whole, decimals, hundredths, minusC] = found;
  // Books print what is below nothing in brackets.
  const isBracketed = /^\(.*\)$/.test(found[0]);
  const digits = whole.replace(/[.,' ]/g, '');
  if (digits.length > 10) return undefined;
  // One comma or point before three figures parts thousands.
  const exact = decimals !== undefined || SURE_SIGN.test(text);
  const cents = Number(digits) * 100 + (hundredths !== undefined && /\d/.test(hundredths) ? Number(hundredths) : 0);
  const negative = isBracketed || /[-–−]/.test(minusA + minusB + minusC);
  return { cents: negative ? -cents : cents, exact };
}

/**
 * The amounts of a row from the left: words that belong together (a sign, groups of thousands, decimals) are taken together.
 * Only those with decimals, unless `loose`.
 */
export function amountsIn(row: Row, loose = false): Amount[] {
  const found: Amount[] = [];
  for (const [at, { words, text: whole }] of row.cells.entries()) {
    // “03.11.” before what was booked is a day, and so is the one beside it.
    if (at < FIRST_CELLS && row.cells.length > 1 && /^(?:[0-2]\d|3[01])\.(?:0\d|1[0-2])\.$/.test(whole)) continue;
    // A sign may stand apart before the only amount of its cell.
    const isLess = words.length > 1 && /^[-–−]$/.test(words[0].text);
    for (let from = 0; from < words.length; from++) {
      // The longest first: 6 059,52 is one amount.
      for (let to = Math.min(words.length, from + 4); to > from; to--) {
        const group = words.slice(from, to);
        if (!/\d/.test(group[0].text) && !isSign(group[0].text)) break;
        if (isDayOf(words, from)) break;
        // “45 € 50” ends its cell.
        const isInside = to === words.length && /^\d[\d ]* ?€ ?\d{2}$/.test(textOf(group));
        // In a sentence a stop may follow.
        const text = textOf(group)
          .replace(/(\d)[.,;:]$/, '$1')
          // What is said before it may have run into it.
          .replace(/^(?:[%\p{L}]{0,12}:|[%\p{L}@\d.,]{1,16}=)(?=[£€$₹¥]?\d)/u, '');
        const read =
          /\d/.test(text) && (to - from === 1 || isInside || isGrouped(group)) ? readAmount(text) : undefined;
        if (!read || (!read.exact && !loose) || isOtherNumber(words, from, to)) continue;
        const isOff = isLess && from === 1 && to === words.length && read.cents > 0;
        const isSaidAgain = text.startsWith('(') && IN_WORDS.test(words[from - 1]?.text ?? '');
        found.push({ ...read, cents: isOff || isSaidAgain ? -read.cents : read.cents, words: group, row });
        from = to - 1;
        break;
      }
    }
  }
  return found;
}

/** “Thirty-five pounds (£35.00)”: in figures what stands before it in words, not less than nothing. */
const IN_WORDS = /^(?:pounds?|pence|dollars?|cents?|euros?|francs?|franken|rappen|only)$/i;

const textOf = (words: readonly Word[]) => words.map(({ text }) => text).join(' ');

/** “Saldo am 30.09.” */
const isDayOf = (words: readonly Word[], at: number) =>
  /^(?:[0-2]?\d|3[01])\.(?:0?\d|1[0-2])\.$/.test(words[at].text) &&
  /^(?:am|vom|bis|zum|ab|per|seit|den|dem)$/i.test(words[at - 1]?.text ?? '');

/** Days of booking and of value stand in the first columns. */
const FIRST_CELLS = 2;

const ONLY_SIGN = new RegExp(`^[-–−+]?${SIGN}[-–−]?$`);
const isSign = (text: string) => ONLY_SIGN.test(text);

/** Whether words can be one amount: signs around it, and groups of three figures after the first. */
function isGrouped(words: readonly Word[]): boolean {
  const figures = words.filter(({ text }) => !isSign(text));
  if (words.some(({ text }, at) => isSign(text) && at > 0 && at < words.length - 1)) return false;
  return (
    (figures.every(({ text }, at) => at === 0 || /^\d{3}([.,]\d{2})?[€£$₹¥]?$/.test(text)) &&
      /^[-–−]?\D?\d{1,3}([.,]\d{2})?$/.test(figures[0].text)) ||
    figures.length === 1
  );
}

/** A percentage or a measure is no amount. */
function isOtherNumber(words: readonly Word[], from: number, to: number): boolean {
  const text = words
    .slice(from, to)
    .map((word) => word.text)
    .join('');
  if (/%/.test(text.slice(Math.max(text.indexOf(':'), text.indexOf('=')) + 1))) return true;
  const next = words[to]?.text ?? '';
  // A capital H behind an amount is the “Haben” of an account.
  return /^%/.test(next) || /^(mm|cm|kg|g|kwh|m²|st|std|km)$/i.test(next) || next === 'h';
}

/**
 * The rows of a paper without amounts that are in another currency than the one it counts in: what a bill in euros comes to in pounds, or what
 * was spent abroad. An amount is in the currency that stands in it or right beside it.
 */
export function inOneCurrency(rows: readonly Row[], currency: string | undefined): readonly Row[] {
  if (currency === undefined) return rows;
  return rows.map((row) => {
    const named = row.words.filter(({ text }) => currencyIn(text) !== undefined);
    if (!named.some(({ text }) => currencyIn(text, currency) !== currency)) return row;
    const others = new Set(
      amountsIn(row).flatMap(({ words }) => {
        const [before, after] = [
          row.words[row.words.indexOf(words[0]) - 1],
          row.words[row.words.indexOf(words.at(-1)!) + 1],
        ];
        const own = [...words, ...[before, after].filter((word) => word && isSign(word.text))];
        const told = own.map(({ text }) => currencyIn(text, currency)).filter((name) => name !== undefined);
        return told.length > 0 && !told.includes(currency) ? words : [];
      }),
    );
    if (others.size === 0) return row;
    const kept = ({ words }: { words: Word[] }) => words.filter((word) => !others.has(word));
    return {
      ...row,
      words: kept(row),
      cells: row.cells.map((cell) => ({ ...cell, words: kept(cell) })).filter(({ words }) => words.length > 0),
    };
  });
}
