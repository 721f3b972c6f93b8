import { Word } from '../words';
import { Dictionary } from './dictionary';
import { NOISE_WEIGHTS } from './noiseWeights';

/**
 * What speaks for a word being no print: a piece of a picture, of the table under the sheet, of its back, dirt. All from 0 to about 1.
 */
export const NOISE_SIGNS = [
  'always',
  /** How unsure the recogniser is of the word, and of its whole line. */
  'unsure',
  'veryUnsure',
  'lineUnsure',
  /** How unsure it is of those of the page's words that are words of the language: of print that is hard to read nothing is sure. */
  'pageUnsure',
  /** Whether it is a word of the language, and how many of those beside it are. */
  'known',
  'besideKnown',
  /** How far its pairs of letters are from those of the language. */
  'misspelt',
  /** Whether it is a number, a sum or a day. */
  'figures',
  'short',
  'long',
  /** Signs and capitals where words have none. */
  'odd',
  'mixed',
  /** How far its size is from the page's. */
  'size',
  /** How much lower it is than the page's words: a picture falls into crumbs. */
  'small',
  /** Whether nothing stands near it in its line. */
  'alone',
  /** How many of the words about it, above and below as well, are print as far as can be told of each by itself. */
  'aroundPrint',
] as const;

export type NoiseSign = (typeof NOISE_SIGNS)[number];
export type NoiseEvidence = Record<NoiseSign, number>;

type Read = Pick<Word, 'text' | 'confidence' | 'box' | 'line'>;

/** What leaving print and entering noise within a line costs, or the other way round. */
const CHANGE = 2;

/**
 * The words of a page that are print. Each word is judged by signs whose weights were fitted to made pages (logistic regression, see
 * `bench/trainNoise.ts`), and those of a line together: it changes between print and noise as seldom as its signs allow (Viterbi 1967).
 */
export function withoutNoise<Some extends Read>(words: readonly Some[], dictionary: Dictionary): Some[] {
  const scores = noiseSigns(words, dictionary).map((signs, at) =>
    isBetween(words[at], signs) ? 0 : NOISE_SIGNS.reduce((sum, sign) => sum + NOISE_WEIGHTS[sign] * signs[sign], 0),
  );
  return byLines(words).flatMap((line) => {
    const isNoise = settled(line.map((at) => scores[at]));
    return line.filter((_, place) => !isNoise[place]).map((at) => words[at]);
  });
}

/** Whether a word is nothing but strokes and points beside others: it is what they are. */
export function isBetween({ text }: Pick<Word, 'text'>, signs: NoiseEvidence): boolean {
  return bareOf(text) === '' && !FIGURES.test(text) && signs.alone === 0;
}

/** The likeliest row of print and noise. @param scores above 0 where it is likelier noise, in logits */
function settled(scores: readonly number[]): boolean[] {
  let [print, noise] = [0, 0];
  const from: [print: boolean, noise: boolean][] = [];
  for (const score of scores) {
    const [stay, enter] = [noise, print - CHANGE];
    const [keep, leave] = [print, noise - CHANGE];
    from.push([leave > keep, stay > enter]);
    [print, noise] = [Math.max(keep, leave), Math.max(stay, enter) + score];
  }
  const isNoise: boolean[] = [];
  let now = noise > print;
  for (let at = scores.length - 1; at >= 0; at--) {
    isNoise[at] = now;
    now = now ? from[at][1] : from[at][0];
  }
  return isNoise;
}

/** The places of the words of each line. */
function byLines(words: readonly Read[]): number[][] {
  const lines = new Map<number, number[]>();
  words.forEach(({ line }, at) => {
    const own = lines.get(line);
    if (own) own.push(at);
    else lines.set(line, [at]);
  });
  return [...lines.values()];
}

const bareOf = (text: string) => text.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
/** Numbers, sums and days, and what stands beside them. */
const FIGURES = /^[\p{Sc}%]$|^[(+-]?[\p{Sc}]?[-–]?\d[\d.,:/'-]*[%\p{Sc}]?[).,:;]?$/u;
const [SURE, HARDLY] = [0.9, 0.45];
/** A word shorter than this may be one by chance. */
const LEAST_KNOWN = 3;

/** The signs of each word. */
export function noiseSigns(words: readonly Read[], dictionary: Dictionary): NoiseEvidence[] {
  const { isKnown, strangeness } = lexiconOf(dictionary);
  const heights = words
    .filter(({ confidence, text }) => confidence >= SURE && text.length >= LEAST_KNOWN)
    .map(({ box }) => box[3])
    .sort((a, b) => a - b);
  const usual = heights[heights.length >> 1];
  const told = words.filter(({ text }) => isKnown(bareOf(text)));
  const pageUnsure = told.reduce((sum, { confidence }) => sum + 1 - confidence, 1) / (told.length + 1);
  const around = aroundOf(words, usual ?? 1, ({ text, confidence }) => {
    const bare = bareOf(text);
    // Of crumbs of a picture some are words by chance, but none is sure.
    if (isKnown(bare)) return Math.max(0, (confidence - HARDLY) / (1 - HARDLY));
    return confidence >= SURE && (FIGURES.test(text) || bare.length >= LEAST_KNOWN) ? 1 : 0;
  });
  const evidence: NoiseEvidence[] = [];
  for (const line of byLines(words)) {
    const own = line.map((at) => words[at]);
    // A sure number says as much as a word.
    const known = own.map(
      ({ text, confidence }) => isKnown(bareOf(text)) || (confidence >= SURE && FIGURES.test(text)),
    );
    const mean = (of: (word: Read, place: number) => number) =>
      own.reduce((sum, word, place) => sum + of(word, place), 0);
    const letters = mean(({ text }) => text.length);
    const unsure = mean(({ text, confidence }) => text.length * (1 - confidence)) / letters;
    line.forEach((at, place) => {
      const { text, confidence, box } = words[at];
      const bare = bareOf(text);
      const inside = bare.replace(/[\p{L}\p{N}.,:/'’-]/gu, '').length;
      // A stroke or a point is low wherever it stands.
      const size =
        bare === '' ? 0 : usual === undefined ? 0.5 : Math.min(1, Math.abs(Math.log(Math.max(1, box[3]) / usual)));
      evidence[at] = {
        always: 1,
        unsure: 1 - confidence,
        veryUnsure: Math.max(0, 0.6 - confidence) / 0.6,
        lineUnsure: unsure,
        pageUnsure,
        known: known[place] ? 1 : 0,
        besideKnown: besideOf(known, place),
        misspelt: strangeness(bare),
        figures: FIGURES.test(text) ? 1 : 0,
        short: bare.length <= 2 ? 1 : 0,
        long: Math.min(1, bare.length / 10),
        odd: bare === '' && !FIGURES.test(text) ? 1 : Math.min(1, (2 * inside) / Math.max(1, bare.length)),
        mixed: /\p{Ll}\p{Lu}|\p{L}\d\p{L}/u.test(bare) ? 1 : 0,
        size,
        small: bare === '' || usual === undefined ? 0 : Math.max(0, Math.min(1, Math.log(usual / Math.max(1, box[3])))),
        alone: isAlone(own, place) ? 1 : 0,
        aroundPrint: Math.min(MOST_AROUND, around[at]),
      };
    });
  }
  return evidence;
}

/** So many words on either side tell what a word stands beside: a line may go on from print into a picture. */
const BESIDE = 3;

const shareOf = (some: readonly boolean[]) => some.filter(Boolean).length / some.length;

/** How many of the words beside one are known, on the side where they are fewer. */
function besideOf(known: readonly boolean[], place: number): number {
  const sides = [known.slice(Math.max(0, place - BESIDE), place), known.slice(place + 1, place + 1 + BESIDE)];
  const shares = sides.filter(({ length }) => length > 0).map(shareOf);
  return shares.length === 0 ? 0 : Math.min(...shares);
}

/** What stands about a word is no further away than so many of the page's heights, across and down. */
const [ACROSS, DOWN] = [9, 4.5];
/** Where nothing stands about a word, nothing is said: as much as of so many words of which half are print. */
const UNTOLD = 2;
/** More print about a word than this says nothing more of it: dirt lies among print as well. */
const MOST_AROUND = 0.4;

/** What share of the words about each one are print. @param printOf how much each of them is, from 0 to 1 */
function aroundOf(words: readonly Read[], usual: number, printOf: (word: Read) => number): number[] {
  const placed = words
    .map(({ box: [x, y, width, height] }, at) => ({
      at,
      x: x + width / 2,
      y: y + height / 2,
      half: width / 2,
      print: printOf(words[at]),
    }))
    .sort((one, other) => one.y - other.y);
  const shares = new Array<number>(words.length);
  let first = 0;
  for (const word of placed) {
    while (placed[first].y < word.y - DOWN * usual) first++;
    let [print, all] = [UNTOLD / 2, UNTOLD];
    for (let next = first; next < placed.length && placed[next].y <= word.y + DOWN * usual; next++) {
      const other = placed[next];
      if (other === word || Math.abs(other.x - word.x) - other.half - word.half > ACROSS * usual) continue;
      print += other.print;
      all++;
    }
    shares[word.at] = print / all;
  }
  return shares;
}

/** A word further from its neighbours than so many of its heights stands alone. */
const FAR = 2;

function isAlone(line: readonly Read[], place: number): boolean {
  const [x, , width, height] = line[place].box;
  return line.every(
    ({ box: [left, , across] }, other) =>
      other === place || left - (x + width) > FAR * height || x - (left + across) > FAR * height,
  );
}

interface Lexicon {
  isKnown: (word: string) => boolean;
  /** From 0, as words of the language are, to 1. */
  strangeness: (word: string) => number;
}

const lexicons = new WeakMap<Dictionary, Lexicon>();
/** So many words tell what pairs of letters a language has, and what a pair that none of them has counts for, in nats. */
const [SAMPLE, NEVER] = [20_000, 9];

function lexiconOf(dictionary: Dictionary): Lexicon {
  const kept = lexicons.get(dictionary);
  if (kept) return kept;
  const isKnown = (word: string) =>
    word.length >= LEAST_KNOWN && (dictionary.has(word) || dictionary.has(word.toLowerCase()));
  const pairs = new Map<string, number>();
  const first = new Map<string, number>();
  const every = Math.max(1, Math.floor(dictionary.size / SAMPLE));
  let number = 0;
  for (const word of dictionary) {
    if (number++ % every !== 0 || !/^\p{L}+$/u.test(word)) continue;
    const letters = `^${word}$`;
    for (let at = 0; at + 1 < letters.length; at++) {
      const pair = letters.slice(at, at + 2);
      pairs.set(pair, (pairs.get(pair) ?? 0) + 1);
      first.set(letters[at], (first.get(letters[at]) ?? 0) + 1);
    }
  }
  const strangeness = (word: string) => {
    const letters = `^${word.toLowerCase().replace(/[^\p{L}]/gu, '')}$`;
    if (letters.length < 4 || pairs.size === 0) return 0.5;
    let sum = 0;
    for (let at = 0; at + 1 < letters.length; at++) {
      const seen = pairs.get(letters.slice(at, at + 2)) ?? 0;
      sum += Math.min(NEVER, -Math.log((seen + 0.01) / ((first.get(letters[at]) ?? 0) + 1)));
    }
    // Words of a language take about two and a half nats a pair.
    return Math.max(0, Math.min(1, (sum / (letters.length - 1) - 2) / 4));
  };
  const lexicon = { isKnown, strangeness };
  lexicons.set(dictionary, lexicon);
  return lexicon;
}
