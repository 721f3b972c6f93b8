import { isIban } from '../facts/signs';
import { Character, SpelledWord, split } from '../spelled';

/** What can be an amount: groups of three, a separator, two decimals. */
const AMOUNT = /^[^\d]*(\d{1,3}(?:[.,'’]\d{3})*|\d+)([.,])(\d{2})[^\d]*$/;
/** So many amounts show how a page writes decimals, and so much more often one way than the other. */
const LEAST_AMOUNTS = 3;
const MOSTLY = 3;

const textOf = ({ characters }: SpelledWord) => characters.map(({ text }) => text).join('');

/**
 * Puts right what the way in which numbers are written forbids: points and commas of amounts as the rest of the page has them,
 * quotation marks that are sevens, letters among the figures of bank accounts, as far as their check digits allow only one reading,
 * letters for figures in British postcodes, and the room between thousands.
 */
export function settleNumbers(read: SpelledWord[][]): void {
  for (const words of read) for (const word of words) settleSevens(word);
  settleDecimals(read.flat());
  read.forEach((words, strip) => {
    settleAccounts(read, strip);
    settlePostcodes(words);
    settleThousands(words);
  });
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
/** Figures that are read for letters. */
const LETTERS: Record<string, string> = { '0': 'O', '1': 'IL', '2': 'Z', '5': 'S', '8': 'B', '6': 'G' };
/** What stands behind the country in its bank accounts: n figures, a capitals, c either (IBAN registry, ISO 13616). */
const ACCOUNTS: Record<string, string> = {
  AT: 'n18',
  BE: 'n14',
  CH: 'n7c12',
  DE: 'n20',
  DK: 'n16',
  ES: 'n22',
  FI: 'n16',
  FR: 'n12c11n2',
  GB: 'n2a4n14',
  IE: 'n2a4n14',
  IT: 'n2a1n10c12',
  LU: 'n5c13',
  NL: 'n2a4n10',
  NO: 'n13',
  PL: 'n26',
  PT: 'n23',
  SE: 'n22',
};
const MOST_READINGS = 64;
/** The rest of an account that does not fit into its line stands so many strips further on at most. */
const REST_WITHIN = 12;
const LEAST_BEFORE_REST = 8;

/** The kind of each character behind the country: n, a or c. */
function kindsOf(country: string): string {
  return (ACCOUNTS[country] ?? '').replace(/([nac])(\d+)/g, (_, kind: string, count: string) => kind.repeat(+count));
}

/** What a character of an account may be: itself if it is of the right kind, else what is read for it. */
function readingsOf({ text }: Character, kind: string): string {
  if (kind === 'c' || (kind === 'n' ? /^\d$/ : /^[A-Z]$/).test(text)) return text;
  return (kind === 'n' ? FIGURES : LETTERS)[text] ?? '';
}

/** Bank accounts with letters among their figures, or the other way round: the one reading whose check digits fit. */
function settleAccounts(read: SpelledWord[][], strip: number): void {
  const words = read[strip];
  for (let at = 0; at < words.length; at++) {
    const country = textOf(words[at]).slice(0, 2);
    const kinds = kindsOf(country);
    if (!kinds) continue;
    const here: Character[] = [];
    for (let next = at; next < words.length && here.length < kinds.length + 2; next++)
      here.push(...words[next].characters);
    const missing = kinds.length + 2 - here.length;
    const rests =
      missing <= 0
        ? [[]]
        : read.slice(strip + 1, strip + 1 + REST_WITHIN).map((line) => line.flatMap(({ characters }) => characters));
    if (missing > 0 && here.length < LEAST_BEFORE_REST) continue;
    const accounts = rests
      .filter((rest) => rest.length === Math.max(0, missing))
      .flatMap((rest) => readAccount(country, [...here, ...rest].slice(2), kinds));
    if (accounts.length === 1) for (const { character, text } of accounts[0]) character.text = text;
  }
}

/** The readings of an account's characters whose check digits fit, as far as something changes. */
function readAccount(country: string, characters: Character[], kinds: string) {
  if (characters.length !== kinds.length) return [];
  const choices = characters.map((character, at) => readingsOf(character, kinds[at]));
  let readings = [''];
  for (const choice of choices) {
    readings = readings.flatMap((reading) => [...choice].map((text) => reading + text));
    if (readings.length > MOST_READINGS) return [];
  }
  return readings
    .filter((reading) => isIban(country + reading))
    .map((reading) => characters.map((character, at) => ({ character, text: reading[at] })));
}

/** The two halves of a British postcode: area and district, then a figure and two letters of those that stand there. */
const OUTWARD = /^[A-Z]{1,2}\d{1,2}$/;
const INWARD = /^\d[ABD-HJLNP-UW-Z]{2}[^\p{L}\d]?$/u;
const MISREAD: Record<string, string> = { S: '5', O: '0', I: '1', l: '1', Z: '2', B: '8', G: '6' };

/** Letters at the one place of a postcode's half where a figure stands, beside the other half, behind a town's name. */
function settlePostcodes(words: SpelledWord[]): void {
  for (let at = 1; at + 1 < words.length; at++) {
    joinInward(words, at + 1);
    const [town, first, second] = words.slice(at - 1, at + 2);
    if (!/^\p{Lu}\p{L}{2,},?$/u.test(textOf(town))) continue;
    const [last, head] = [first.characters[first.characters.length - 1], second.characters[0]];
    const [before, after] = [textOf(first), textOf(second)];
    if (OUTWARD.test(before) && MISREAD[head.text] && INWARD.test(MISREAD[head.text] + after.slice(head.text.length)))
      head.text = MISREAD[head.text];
    else if (INWARD.test(after) && MISREAD[last.text] && OUTWARD.test(before.slice(0, -1) + MISREAD[last.text]))
      last.text = MISREAD[last.text];
    // What parts it from the next part of its line is no part of it.
    if (OUTWARD.test(textOf(first)) && /^\d[A-Z]{2}[:-]$/.test(textOf(second)) && words[at + 2])
      words.splice(at + 1, 1, ...split(second, 3));
  }
}

/** “OH1 9 TW”: what stands behind an outward half belongs together. */
function joinInward(words: SpelledWord[], at: number): void {
  const [outward, figure, letters] = words.slice(at - 1, at + 2);
  if (!letters || !OUTWARD.test(textOf(outward)) || !INWARD.test(textOf(figure) + textOf(letters))) return;
  if (textOf(figure).length !== 1) return;
  const confidence = Math.min(figure.confidence, letters.confidence);
  words.splice(at, 2, { characters: [...figure.characters, ...letters.characters], confidence });
}

/** Thousands stand apart by so much more than other figures, in heights of a figure, and so many times as far. */
const THIN_SPACE = 0.38;
const FARTHER = 2;

/** Figures of an amount that stand apart before the last three: a thin space parts thousands. */
function settleThousands(words: SpelledWord[]): void {
  for (let at = 0; at < words.length; at++) {
    const { characters } = words[at];
    const [, whole] = /^(\d{4,6})[.,]\d{2}\D*$/.exec(textOf(words[at])) ?? [];
    if (!whole) continue;
    const place = whole.length - 3;
    const gaps = characters
      .slice(1, whole.length)
      .map(({ box: [x] }, number) => x - characters[number].box[0] - characters[number].box[2]);
    const [here] = gaps.splice(place - 1, 1);
    const usual = gaps.sort((a, b) => a - b)[gaps.length >> 1];
    if (here > THIN_SPACE * characters[place].box[3] && here > FARTHER * usual)
      words.splice(at, 1, ...split(words[at], place));
  }
}
