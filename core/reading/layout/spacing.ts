import { Character, SpelledWord } from '../spelled';

/** How wide a space is where a page tells nothing of it, in heights of a capital. */
const USUAL_SPACE = 0.42;
/** A gap is a space from this share of the usual one on, and none below that share. */
const [SPLIT_FROM, JOIN_BELOW] = [0.78, 0.62];
/** And a gap within a word is at most so many times the usual one. */
const LOOSE = 2;
const LEAST_SEEN = 3;

/** The characters of a strip with the gap before each, in heights of a capital, and whether the recogniser saw a space there. */
interface Gap {
  gap: number;
  space: boolean;
}

/**
 * Puts the spaces of a page's strips where the paper has them: the recogniser joins “19 %” and parts “12: 30”, but the gaps
 * between the letters tell. What is usual is learnt from the page itself.
 * @param strips the words of each strip, as they were read
 * @param capital height of a capital in a strip, in pixels
 */
export function respaced(strips: SpelledWord[][], capital: number): SpelledWord[][] {
  const all = strips.map((words) => gapsOf(words, capital));
  const spacesOnPage = median(all.flatMap((gaps) => gaps.filter(({ space }) => space).map(({ gap }) => gap)));
  const within = (gaps: Gap[]) => gaps.filter(({ space }) => !space).map(({ gap }) => gap);
  const tightOnPage = median(all.flatMap(within));
  return strips.map((words, at) => {
    const gaps = all[at];
    const own = gaps.filter(({ space }) => space).map(({ gap }) => gap);
    const space = (own.length >= LEAST_SEEN ? median(own) : undefined) ?? spacesOnPage ?? USUAL_SPACE;
    const tight = (gaps.length >= 8 ? median(within(gaps)) : undefined) ?? tightOnPage ?? 0;
    return respace(words, gaps, space, tight);
  });
}

function gapsOf(words: SpelledWord[], capital: number): Gap[] {
  const gaps: Gap[] = [];
  let before: Character | undefined;
  for (const { characters } of words) {
    characters.forEach((character, at) => {
      if (before) gaps.push({ gap: (character.box[0] - before.box[0] - before.box[2]) / capital, space: at === 0 });
      before = character;
    });
  }
  return gaps;
}

function respace(words: SpelledWord[], gaps: Gap[], space: number, tight: number): SpelledWord[] {
  const out: SpelledWord[] = [];
  let number = -1;
  let before: Character | undefined;
  for (const { characters, confidence } of words) {
    for (const character of characters) {
      const here = number >= 0 ? gaps[number] : undefined;
      number++;
      const begins =
        !here ||
        !before ||
        (here.space ? !isTorn(before, character, here.gap, space) : isSpace(before, character, here.gap, space, tight));
      if (begins) out.push({ characters: [character], confidence });
      else {
        const word = out[out.length - 1];
        word.characters.push(character);
        word.confidence = Math.min(word.confidence, confidence);
      }
      before = character;
    }
  }
  return out;
}

/** Between letters, or between figures, the recogniser is believed more than between a figure and a letter or a sign. */
function isSpace(before: Character, after: Character, gap: number, space: number, tight: number): boolean {
  if (/[.,;:!?)\]'’]/.test(after.text) || /[.,(['’/@#-]/.test(before.text)) return false;
  const alike = kindOf(before.text) === kindOf(after.text);
  // A one stands in as much paper as other figures.
  const [least, loose] = alike ? [1.6, 3] : before.text === '1' ? [1.15, LOOSE] : [SPLIT_FROM, LOOSE];
  return gap > least * space && gap > loose * tight && gap > 0.2;
}

function kindOf(text: string): 'figure' | 'letter' | 'sign' {
  if (/\p{N}/u.test(text)) return 'figure';
  return /\p{L}/u.test(text) ? 'letter' : 'sign';
}

/** Numbers, addresses and the like that were parted at a point or comma. */
function isTorn(before: Character, after: Character, gap: number, space: number): boolean {
  // No language has a space before a point or a comma.
  if (/[.,)]/.test(after.text)) return gap < 1.2 * space;
  const pointed = /[.,:'’/\-–@]/.test(before.text) || /[:;'’/\-–@!?]/.test(after.text);
  return pointed && gap < JOIN_BELOW * space;
}

function median(values: number[]): number | undefined {
  return values.length === 0 ? undefined : values.toSorted((a, b) => a - b)[values.length >> 1];
}
