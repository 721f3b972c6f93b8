import { around } from '../../geometry';
import { Character, SpelledWord, split } from '../spelled';

/** The words of a language, in small letters. */
export type Dictionary = ReadonlySet<string>;

/** A letter less sure than this may be another one, if only that makes a word; an accent may be missing from a surer one, too. */
const DOUBTED = 0.975;
const ACCENT_DOUBTED = 0.993;
/** Shorter words are alike too often, and longer ones are put together of such. */
const SHORTEST = 4;
const SHORTEST_PART = 4;

/** Letters that are taken for each other, small ones; and those that an accent was lost from. */
const ALIKE = [
  'ceo',
  'trfl',
  'ilj1!|',
  'hbk',
  'unv',
  'gq9',
  'sa',
  's5',
  'z2',
  'o0',
  'vy',
  'mn',
  'ij',
  'rn',
  'dcl',
  'e£',
];
const ACCENTED: Record<string, string> = { a: 'äàâáã', o: 'öôóõò', u: 'üùûú', e: 'éèêë', i: 'íîïì', c: 'ç', n: 'ñ' };

/** Letters that run together, and what they are read as then; doubted more than this, one may be the other. */
const RUN_TOGETHER: [string, string][] = [
  ['m', 'rn'],
  ['rn', 'm'],
  ['rm', 'rn'],
  ['n', 'rn'],
  ['cl', 'd'],
  ['vv', 'w'],
];
const TOGETHER_DOUBTED = 0.986;

/** Legal forms of firms: short words that no dictionary has, and that stand on most papers. */
const LEGAL_FORMS = new Set('plc ltd llp inc gmbh ohg sarl eurl srl sas lda'.split(' '));
const LEGAL_DOUBTED = 0.996;
/** What is a word in no language, and only ever such a form misread, however surely. */
const NEVER_A_WORD = new Map(Object.entries({ ple: 'plc', plo: 'plc', p1c: 'plc', '1td': 'ltd', '1lp': 'llp' }));

const textOf = ({ characters }: SpelledWord) => characters.map(({ text }) => text).join('');

/** Whether any word is doubtful in such a way that a dictionary could settle it. */
export function wantsDictionary(read: SpelledWord[][]): boolean {
  return read.some((words) =>
    words.some(
      (word) =>
        STROKE_BETWEEN.test(textOf(word)) ||
        (isOfLetters(textOf(word)) &&
          word.characters.some(
            ({ text, confidence }) =>
              confidence < DOUBTED || (confidence < ACCENT_DOUBTED && ACCENTED[text.toLowerCase()] !== undefined),
          )),
    ),
  );
}

function isOfLetters(text: string): boolean {
  return /^[^\p{L}\p{N}]*[\p{L}£1!|059][\p{L}'’1!|0595£-]{2,}[^\p{L}\p{N}]*$/u.test(text) && /\p{L}{2}/u.test(text);
}

function isDoubted({ characters }: SpelledWord): boolean {
  return characters.some(({ confidence }) => confidence < LEGAL_DOUBTED);
}

/**
 * Exchanges doubtful letters for such as they are taken for, where the word is none as it was read and exactly one exchange makes
 * it one (Kukich 1992 reviews the like); accents come back that only their loss made it none.
 * @param compounds whether words of the language may be put together of others
 */
export function settleByDictionary(read: SpelledWord[][], dictionary: Dictionary, compounds: boolean): void {
  for (const words of read) {
    for (const word of words) {
      settleForms(word);
      settleSlash(word, (text) => isWord(text, dictionary, compounds));
      if (!isOfLetters(textOf(word)) || !isDoubted(word)) continue;
      settleWord(word, (text) => isWord(text, dictionary, compounds));
    }
    const apart = words.flatMap((word) => partAtGap(word, (text) => isWord(text, dictionary, compounds)));
    if (apart.length > words.length) words.splice(0, words.length, ...apart);
  }
}

/**
 * Each of two words that ran together has so many letters; the gap between them is so many times as wide as is usual in them, and as wide as
 * this share of their tallest letter. Names are put together of words, too, but set tightly.
 */
const [SHORTEST_APART, WIDE_GAP, LEAST_GAP] = [3, 1.6, 0.24];

/** What is no word, but two with its widest gap between them, as in “casesidentified”, is these two. */
function partAtGap(word: SpelledWord, isKnown: (text: string) => boolean): SpelledWord[] {
  const { characters } = word;
  const spelt = textOf(word);
  if (spelt.length !== characters.length || !/^\p{L}\p{Ll}+[.,;:]?$/u.test(spelt)) return [word];
  const text = spelt.replace(/\P{L}$/u, '').toLowerCase();
  if (text.length < 2 * SHORTEST_APART || isKnown(text)) return [word];
  const gaps = characters.slice(1).map(({ box }, at) => box[0] - characters[at].box[0] - characters[at].box[2]);
  const widest = Math.max(...gaps);
  const usual = gaps.toSorted((a, b) => a - b)[gaps.length >> 1];
  const at = gaps.indexOf(widest) + 1;
  const tall = Math.max(...characters.map(({ box }) => box[3]));
  const isWide = widest > WIDE_GAP * Math.max(usual, 1) && widest >= LEAST_GAP * tall;
  const parts = [text.slice(0, at), text.slice(at)];
  return isWide && parts.every((part) => part.length >= SHORTEST_APART && isKnown(part)) ? split(word, at) : [word];
}

function isWord(text: string, dictionary: Dictionary, compounds: boolean): boolean {
  if (dictionary.has(text)) return true;
  if (!compounds || text.length < 2 * SHORTEST_PART) return false;
  for (let at = SHORTEST_PART; at <= text.length - SHORTEST_PART; at++) {
    if (!dictionary.has(text.slice(at))) continue;
    const first = text.slice(0, at);
    // In German an s may join the parts.
    if (
      dictionary.has(first) ||
      (first.endsWith('s') && first.length > SHORTEST_PART && dictionary.has(first.slice(0, -1)))
    )
      return true;
  }
  return false;
}

/** A stroke between two words, as in “InvoicelReceipt”: no word has a small letter before a capital. */
const STROKE_BETWEEN = /^(\p{Lu}?\p{Ll}{3,})([lI1|!])(\p{Lu}\p{Ll}{3,})$/u;

/** Such a stroke is a slash, if both sides of it are words, and it is no part of the first one. */
function settleSlash(word: SpelledWord, isKnown: (text: string) => boolean): void {
  const { characters } = word;
  const text = textOf(word);
  const [, first, stroke, second] = STROKE_BETWEEN.exec(text) ?? [];
  if (!first || characters.length !== text.length) return;
  const isPart = isKnown((first + stroke).toLowerCase());
  if (!isPart && isKnown(first.toLowerCase()) && isKnown(second.toLowerCase())) characters[first.length].text = '/';
}

function settleForms({ characters }: SpelledWord): void {
  const own = characters.filter(({ text }) => /[\p{L}\p{N}]/u.test(text));
  const form = NEVER_A_WORD.get(own.map(({ text }) => text.toLowerCase()).join(''));
  if (!form) return;
  own.forEach((character, at) => {
    if (character.text.toLowerCase() !== form[at])
      character.text = /\p{Lu}/u.test(own[1].text) ? form[at].toUpperCase() : form[at];
  });
}

function settleWord({ characters }: SpelledWord, isKnown: (text: string) => boolean): void {
  const from = characters.findIndex(({ text }) => /[\p{L}\p{N}!|£]/u.test(text));
  const until = characters.findLastIndex(({ text }) => /[\p{L}\p{N}!|£]/u.test(text));
  const own = characters.slice(from, until + 1);
  if (own.length < SHORTEST - 1) return;
  const spelt = own.map(({ text }) => text.toLowerCase());
  // Words with hyphens and apostrophes are words part by part; they are left alone.
  if (spelt.some((text) => /[-'’]/.test(text)) || isKnown(spelt.join('')) || LEGAL_FORMS.has(spelt.join(''))) return;
  const exchanges = (doubted: number, fits: (text: string) => boolean) =>
    own.flatMap((character, at) =>
      othersFor(character, doubted)
        .filter((other) => fits([...spelt.slice(0, at), other, ...spelt.slice(at + 1)].join('')))
        .map((text) => ({ character, text })),
    );
  const mayBeLegal = own.length <= SHORTEST && own.every(({ text }) => /\p{L}/u.test(text));
  const legal = mayBeLegal ? exchanges(LEGAL_DOUBTED, (text) => LEGAL_FORMS.has(text)) : [];
  const found = legal.length > 0 || own.length < SHORTEST ? legal : exchanges(DOUBTED, isKnown);
  if (found.length === 0 && own.length >= SHORTEST) takeApart(characters, own, spelt, isKnown);
  if (found.length !== 1) return;
  const [{ character, text }] = found;
  const isCapital = /\p{Lu}/u.test(character.text) || (character === own[0] && own.length > 1 && isTall(own));
  character.text = isCapital ? text.toUpperCase() : text;
}

/** Exchanges letters that ran together for what they are, where that alone makes a word. The characters are changed in place. */
function takeApart(
  characters: Character[],
  own: readonly Character[],
  spelt: readonly string[],
  isKnown: (text: string) => boolean,
): void {
  const found = RUN_TOGETHER.flatMap(([read, right]) =>
    own.flatMap((_, at) => {
      const run = own.slice(at, at + read.length);
      const isRead =
        spelt.slice(at, at + read.length).join('') === read && run.every(({ text }) => /\p{Ll}/u.test(text));
      if (!isRead || run.every(({ confidence }) => confidence >= TOGETHER_DOUBTED)) return [];
      return isKnown([...spelt.slice(0, at), right, ...spelt.slice(at + read.length)].join('')) ? [{ run, right }] : [];
    }),
  );
  if (found.length !== 1) return;
  const [{ run, right }] = found;
  const [x, y, width, height] = around(run.map(({ box }) => box));
  const confidence = Math.min(...run.map((each) => each.confidence));
  const letters = [...right].map((text, at): Character => ({
    text,
    box: [x + (at * width) / right.length, y, width / right.length, height],
    confidence,
  }));
  characters.splice(characters.indexOf(run[0]), run.length, ...letters);
}

/** Whether the first of some letters stands as tall as a capital, beside small ones. */
function isTall([first, ...rest]: Character[]): boolean {
  const heights = rest.map(({ box }) => box[3]).sort((a, b) => a - b);
  return first.box[3] > 1.25 * heights[heights.length >> 1] && !/[bdfhklt]/.test(first.text);
}

function othersFor({ text, confidence }: Character, doubted: number): string[] {
  const letter = text.toLowerCase();
  const others: string[] = [];
  if (confidence < ACCENT_DOUBTED) others.push(...(ACCENTED[letter] ?? ''));
  if (confidence < doubted)
    for (const set of ALIKE)
      if (set.includes(letter)) others.push(...[...set].filter((each) => each !== letter && /\p{L}/u.test(each)));
  return [...new Set(others)];
}
