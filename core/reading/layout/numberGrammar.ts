import { isIban } from '../facts/signs';
import { Character, SpelledWord } from '../spelled';

/** What can be an amount: groups of three, a separator, two decimals. */
const AMOUNT = /^[^\d]*(\d{1,3}(?:[.,'’]\d{3})*|\d+)([.,])(\d{2})[^\d]*$/;
/** So many amounts show how a page writes decimals, and so much more often one way than the other. */
const LEAST_AMOUNTS = 3;
const MOSTLY = 3;

const textOf = ({ characters }: SpelledWord) => characters.map(({ text }) => text).join('');

/**
 * Puts right what the way in which numbers are written forbids: points and commas of amounts as the rest of the page has them,
 * quotation marks that are sevens, letters among the figures of bank accounts, as far as their check digits allow only one reading.
 */
export function settleNumbers(read: SpelledWord[][]): void {
  for (const words of read) for (const word of words) settleSevens(word);
  settleDecimals(read.flat());
  for (const words of read) settleAccounts(words);
}

/** A quotation mark has less than this share of a figure's height. */
const TALL = 0.55;

/** A quotation mark as tall as the figures beside it is a seven. */
function settleSevens({ characters }: SpelledWord): void {
  const figures = characters.filter(({ text }) => /^\d$/.test(text));
  if (figures.length < 2) return;
  const tall = Math.max(...figures.map(({ box }) => box[3]));
  characters.forEach((character, at) => {
    if (!/^["'“”„’‘]$/.test(character.text) || character.box[3] < TALL * tall) return;
    const beside = [characters[at - 1], characters[at + 1]].filter((each) => each && /^\d$/.test(each.text));
    if (beside.length > 0) character.text = '7';
  });
}

/** The separators of an amount, the last one first. */
function separatorsOf({ characters }: SpelledWord): Character[] {
  return characters.filter(({ text }, at) => at > 0 && at < characters.length - 1 && /^[.,]$/.test(text)).reverse();
}

/** Amounts are written alike on a page: with a comma before the decimals, or with a point. */
function settleDecimals(words: SpelledWord[]): void {
  const amounts = words.filter((word) => /\d[.,]\d{2}\D*$/.test(textOf(word)) && isNumber(textOf(word)));
  const votes = { ',': 0, '.': 0 };
  for (const word of amounts) {
    const found = AMOUNT.exec(textOf(word));
    // What has both says most: it can hardly be read the wrong way round.
    if (!found || /([.,])\d{3}\1/.test(found[0])) continue;
    votes[found[2] as ',' | '.'] += /[.,]\d{3}[.,]/.test(found[0]) ? 2 : 1;
  }
  const all = votes[','] + votes['.'];
  const [decimal, other] = votes[','] >= votes['.'] ? [',', '.'] : ['.', ','];
  const isClear = all >= LEAST_AMOUNTS && Math.max(votes[','], votes['.']) >= MOSTLY * Math.min(votes[','], votes['.']);
  for (const word of amounts) {
    const [last, ...before] = separatorsOf(word);
    if (!last) continue;
    const isMixed = before.length > 0;
    if (isClear) last.text = decimal;
    // Three figures stand between the separators: the last one can't be of the same kind.
    else if (isMixed && before.every(({ text }) => text === last.text)) last.text = last.text === '.' ? ',' : '.';
    for (const each of before) each.text = last.text === ',' ? '.' : ',';
    if (isClear && before.length > 0) for (const each of before) each.text = other;
  }
}

/** Whether a word has the form of an amount, whatever its separators. */
function isNumber(text: string): boolean {
  return /^[^\p{L}\d]*\d{1,3}(?:[.,]?\d{3})*[.,]\d{2}[^\p{L}\d]*$/u.test(text);
}

/** Letters that are read for figures. */
const FIGURES: Record<string, string> = {
  O: '0',
  o: '0',
  D: '0',
  Q: '0',
  I: '1',
  l: '1',
  i: '1',
  '|': '1',
  Z: '2',
  S: '58',
  B: '8',
  G: '6',
  T: '7',
};
/** Countries in whose bank accounts (IBAN) there are figures only, and how many characters those have. */
const ACCOUNTS: Record<string, number> = { AT: 20, BE: 16, CH: 21, DE: 22, DK: 18, ES: 24, PL: 28, PT: 25, SE: 24 };
const MOST_READINGS = 64;

/** Bank accounts with letters among their figures: the one reading whose check digits fit. */
function settleAccounts(words: SpelledWord[]): void {
  for (let at = 0; at < words.length; at++) {
    const length = ACCOUNTS[textOf(words[at]).slice(0, 2)];
    if (!length) continue;
    const characters: Character[] = [];
    for (let next = at; next < words.length && characters.length < length; next++)
      characters.push(...words[next].characters);
    if (characters.length !== length) continue;
    const doubtful = characters.slice(2).filter(({ text }) => !/^\d$/.test(text));
    if (doubtful.length === 0 || doubtful.some(({ text }) => !FIGURES[text])) continue;
    let readings: string[][] = [[]];
    for (const { text } of doubtful) {
      readings = readings.flatMap((reading) => [...FIGURES[text]].map((figure) => [...reading, figure]));
      if (readings.length > MOST_READINGS) return;
    }
    const fitting = readings.filter((reading) => {
      let place = 0;
      const account = characters.map(({ text }, index) => (index < 2 || /^\d$/.test(text) ? text : reading[place++]));
      return isIban(account.join(''));
    });
    if (fitting.length === 1) doubtful.forEach((character, place) => (character.text = fitting[0][place]));
  }
}
