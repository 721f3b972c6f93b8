import { Word } from '../words';
import { datesInLine } from '../dates';
import { ELSEWHERE } from './calledNumbers';
import { currencyIn } from './currencies';
import { wordsAround } from './labelled';
import { readAmount } from './money';
import { fold, Row } from './rows';
import { STREET } from './street';
import { partsOf, SPAN, termsBefore } from './terms';

/** What a number looks like: figures, perhaps with letters, hyphens, strokes and points between. */
export const LOOKS_LIKE_ONE = /^#?[A-Z]{0,6}(?:[-/.][A-Z]{1,6})*[-/.]?\d[\dA-Z]*(?:[-/.][\dA-Z]+)*$/i;
const LONGEST = 40;
/** A number as it is called, without what stands around it. */
export const numberOf = (words: readonly Word[]) =>
  words
    .map(({ text }) => trimmed(text))
    .join(' ')
    .replace(/^#/, '');

/** What may be the number of something in a row: the word that looks like it, and all that belong to it. */
export function numbersIn(rows: readonly Row[], row: Row): { word: Word; words: Word[] }[] {
  const dated = new Set(datesInLine(row.words).flatMap(({ words }) => words));
  const taken = new Set<Word>();
  return row.words.flatMap((word, at) => {
    const value = trimmed(word.text);
    const looks =
      (LOOKS_LIKE_ONE.test(value) || isNamedInLetters(row, at)) &&
      (/^[A-Z]{4,}$/.test(value) ||
        /\d{2}|^#\d|[A-Z][-/]?\d/.test(value) ||
        (/^\d$/.test(value) && isNumbered(row, at)));
    if (taken.has(word) || value.length > LONGEST || !looks || dated.has(word) || isSomethingElse(row, word, at))
      return [];
    const words = whole(rows, row, at);
    for (const each of words) taken.add(each);
    return [{ word, words }];
  });
}

/** A number that is printed in groups, or with letters before it: “4417 2209 31”, “TE 90331845”. */
function whole(rows: readonly Row[], row: Row, at: number): Word[] {
  const cell = row.cells.find(({ words }) => words.includes(row.words[at]))!.words;
  let [from, to] = [cell.indexOf(row.words[at]), cell.indexOf(row.words[at]) + 1];
  const before = cell[from - 1]?.text ?? '';
  const says = termsBefore(before.toLowerCase()).flatMap(({ parts }) => parts);
  // At the beginning of a cell that another names they belong to the number, whatever else they may mean.
  const named = row.words[row.words.indexOf(cell[0]) - 1];
  const isNamed = from === 1 && named !== undefined && !/\d/.test(named.text);
  // “No. A 55120”, “Nr. AB 2026-417”
  const isSeries =
    /^[A-Z]{1,4}$/.test(before) &&
    !currencyIn(before) &&
    // “Contrat n° AUTO 118 204” names what is insured.
    (!says.some((part) => ELSEWHERE.includes(part)) || partsOf(fold(cell[from - 3]?.text ?? '')).includes('policy')) &&
    partsOf(fold(cell[from - 2]?.text ?? '')).includes('number');
  const isBelow = () =>
    from === 1 &&
    termsBefore(wordsAround(rows, row, cell.slice(0, 2)).above ?? '').some(({ parts }) => parts.includes('number'));
  const isLetter = /^[A-Z]$/.test(before);
  // “3 0041 7725”
  const isFirstFigure =
    /^\d$/.test(before) && /^\d{3,}$/.test(cell[from].text) && /^\d{3,}$/.test(cell[to]?.text ?? '');
  if (
    isSeries ||
    (isLetter && isBelow()) ||
    isFirstFigure ||
    (/^[A-Z]{1,4}$/.test(before) && (isNamed ? !says.includes('number') : says.length === 0))
  )
    from--;
  // “A-4410 2273”: the figures behind its letters are as many as those of a group.
  const begun = /^[A-Z]{1,3}[-/]?(\d{3,6})$/.exec(cell[to - 1].text)?.[1];
  const isBegun = begun !== undefined && /^\d+$/.test(cell[to]?.text ?? '') && cell[to].text.length === begun.length;
  // “KN-9 120 447 318”, “7 410 338 226”: groups of three behind what begins them.
  const isOfThrees =
    /^(?:[A-Z]{1,4}[-/]?)?\d{1,3}$/.test(cell[to - 1].text) && isThree(cell[to]) && isThree(cell[to + 1]);
  if (isOfThrees) while (isThree(cell[to])) to++;
  if (isBegun || /^\d{2,6}$/.test(cell[to - 1].text)) {
    while (/^\d{2,8}$/.test(cell[to]?.text ?? '')) to++;
    // The sentence may end behind it.
    if (/^\d{3,6}[.,;]$/.test(cell[to]?.text ?? '')) to++;
    // The last figure or letter of one in groups may stand by itself.
    if (to - from > 1 && to === cell.length - 1 && /^[\dA-Z]$/.test(cell[to].text)) to++;
  }
  // “S 0418 - 1177/26”: a file's, with its year behind a stroke.
  if (/^[-–/]$/.test(cell[to]?.text ?? '') && to === cell.length - 2 && /^\d{1,6}[-/]\d{2,4}$/.test(cell[to + 1].text))
    to += 2;
  return cell.slice(from, to);
}

const isThree = (word: Word | undefined) => word !== undefined && /^\d{3}[.,;]?$/.test(word.text);

/** A customer may go by letters alone: “Customer ID: WICKLM”. */
function isNamedInLetters({ words }: Row, at: number): boolean {
  const before = words.slice(Math.max(0, at - 2), at);
  const says = before.flatMap(({ text }) => partsOf(fold(text)));
  return (
    /^[A-Z]{4,12}$/.test(words[at].text) &&
    /:$/.test(words[at - 1]?.text ?? '') &&
    says.includes('customer') &&
    says.includes('number')
  );
}

/** A single figure is a number where the word for it stands before it: “Auszug Nr. 8”, “Relevé de compte n° 9”. */
const isNumbered = ({ words }: Row, at: number) =>
  partsOf(fold(words[at - 1]?.text ?? '')).includes('number') &&
  words.slice(Math.max(0, at - 4), at - 1).some(({ text }) => partsOf(fold(text)).includes('document'));

/** Without what stands around it, and without the word before it that it ran into: “Nr.T260914”. */
export const trimmed = (text: string) =>
  text
    .replace(/^[(:]+|[):;,.]+$/g, '')
    .replace(/^\$(?=[A-Z]?[-/]\d)/, 'S')
    .replace(/^(?:Nr|No|N°|Nº)[.:](?=[A-Z]{0,3}[-/]?\d)/i, '');

/** Amounts, times, percentages and house numbers are no numbers of papers. */
function isSomethingElse(row: Row, { text }: Word, at: number): boolean {
  if (
    readAmount(text)?.exact ||
    /%|^\d{1,4}[.,]\d{1,2}$/.test(text) ||
    (currencyIn(text) && !/^[A-Z]{1,5}[-/]?\d/.test(text))
  )
    return true;
  // The year of a day that the line before begins.
  if (row.words.length === 1 && /^(?:19|20)\d\d[.,;]?$/.test(text)) return true;
  // “GBP H6.60”: a sum of which a figure was misread.
  if (currencyIn(row.words[at - 1]?.text ?? '') && /[.,]\d{2}$/.test(text)) return true;
  // “210 Tannery Row”, in a cell of its own: a house and its street.
  const cell = row.cells.find((each) => each.words[0] === row.words[at]);
  if (/^\d{1,4}[a-z]?$/i.test(text) && cell && STREET.test(cell.folded)) return true;
  if (/^(?:%|‰|[x×]$)/.test(row.words[at + 1]?.text ?? '')) return true;
  if (/^\d{1,2}:\d{2}|^\d+[.,]\d+p$/.test(text)) return true;
  // What is counted: “standing charge 169 days”.
  if (/^\d{1,4}$/.test(text) && SPAN.test(fold(row.words[at + 1]?.text ?? ''))) return true;
  // “Port Amity, ME 04032”
  if (/^\d{5}(?:-\d{4})?$/.test(text) && isState(row.words, at)) return true;
  // Who may draw from accounts: “DE44ZZZ00000118447”.
  if (/^[A-Z]{2}\d{2}[A-Z]{3}\d{5,}/.test(text)) return true;
  // A law's paragraph: “§ 4 Nr. 14 UStG”.
  if (text.length <= 3 && /^(?:\p{Lu}\p{L}*G|BGB|HGB|AO)\b/u.test(row.words[at + 1]?.text ?? '')) return true;
  // What an account begins with.
  if (/^[A-Z]{2}\d{2}$/.test(text) && /^[A-Z\d]{4}$/.test(row.words[at + 1]?.text ?? '')) return true;
  // The last figures of a card.
  if (/^(?:[*x•#.]+|([^\d])\1{2,}\W?)$/i.test(row.words[at - 1]?.text ?? '') && /^\d{2,4}$/.test(text)) return true;
  // The day or year of a date in words.
  const [before, after] = [row.words[at - 1]?.text ?? '', row.words[at + 1]?.text ?? ''];
  const isCalled = partsOf(fold(before)).some((part) => part === 'document' || part === 'number');
  return (
    /^\d{1,4}[.,]?$/.test(text) &&
    ((/^\p{L}{3,}\.?$/u.test(before) && /^(19|20)\d\d/.test(text) && !/^\d{3,}/.test(after)) ||
      (!isCalled && /^\p{Lu}\p{Ll}+$/u.test(after) && text.length <= 2))
  );
}

/** Whether a state stands before a place, as in addresses of the United States: “Port Amity, ME”. */
const isState = (words: readonly Word[], at: number) =>
  /^[A-Z]{2}$/.test(words[at - 1]?.text ?? '') && /,$/.test(words[at - 2]?.text ?? '');
