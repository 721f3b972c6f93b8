import { around, Box } from '../../geometry';
import { Word } from '../words';
import { Rule } from './ruledLines';

/** Boxes in a row into which figures and letters are written one by one. */
interface Comb {
  box: Box;
  /** From the side of one box to the next, in pixels. */
  pitch: number;
}

/** The boxes of a comb are so wide, in heights of a small letter, as wide as each other within such a part, and so many at least. */
const [NARROWEST, WIDEST] = [0.9, 3.6];
const ALIKE = 0.2;
const LEAST_BOXES = 4;
/** They are in one row, no higher than so many heights of a letter: what runs down further parts the columns of a table. */
const HIGHEST = 4.5;
/** Two letters in two boxes are wider than one box: of the words read there, no more than this share may be narrower, which are two figures in one box. */
const NARROWER = 0.34;
/** An empty box parts what is written before and behind it. */
const EMPTY = 1.5;

/**
 * The words of a page, in which what stands letter by letter in a comb of boxes is one word: the account on a payment form, a postcode.
 * @param letter the usual height of small letters, in pixels
 */
export function withCombsJoined(words: readonly Word[], rules: readonly Rule[], letter: number): Word[] {
  let out = [...words];
  for (const { box, pitch } of combsOf(rules, letter)) {
    const inside = out.filter((word) => isInside(word.box, box)).sort((a, b) => a.box[0] - b.box[0]);
    const isInOneBox = ({ text, box: [, , width] }: Word) => width < pitch * ([...text].length - 1);
    if (inside.length < 2 || inside.filter(isInOneBox).length > NARROWER * inside.length) continue;
    const joined = runsOf(inside, pitch).map(asOne);
    const first = out.findIndex((word) => inside.includes(word));
    const rest = (some: Word[]) => some.filter((word) => !inside.includes(word));
    out = [...rest(out.slice(0, first)), ...joined, ...rest(out.slice(first))];
  }
  return out;
}

function combsOf(rules: readonly Rule[], letter: number): Comb[] {
  const sides = rules
    .filter(({ direction, top, bottom }) => direction === 'down' && bottom - top <= HIGHEST * letter)
    .sort((a, b) => a.left - b.left);
  const combs: Comb[] = [];
  const used = new Set<Rule>();
  for (const first of sides) {
    if (used.has(first)) continue;
    const isBeside = ({ top, bottom }: Rule) =>
      Math.abs(top - first.top) < letter / 2 && Math.abs(bottom - first.bottom) < letter / 2;
    const row = sides.filter((side) => !used.has(side) && isBeside(side));
    const gaps = row.slice(1).map(({ left }, at) => left - row[at].left);
    const narrow = gaps.filter((gap) => gap >= NARROWEST * letter && gap <= WIDEST * letter).sort((a, b) => a - b);
    const pitch = narrow[narrow.length >> 1];
    if (pitch === undefined) continue;
    // Combs may stand beside each other.
    let run = [row[0]];
    const close = () => {
      if (run.length > LEAST_BOXES) {
        const [last] = run.slice(-1);
        combs.push({ box: [run[0].left, first.top, last.right - run[0].left, first.bottom - first.top], pitch });
      }
      run.forEach((side) => used.add(side));
    };
    gaps.forEach((gap, at) => {
      const boxes = Math.round(gap / pitch);
      const isOne = boxes <= 2 && boxes > 0 && Math.abs(gap - boxes * pitch) < ALIKE * pitch;
      if (isOne) run.push(row[at + 1]);
      else {
        close();
        run = [row[at + 1]];
      }
    });
    close();
  }
  return combs;
}

function isInside([x, y, width, height]: Box, [left, top, wide, high]: Box): boolean {
  const [middle, level] = [x + width / 2, y + height / 2];
  return middle > left && middle < left + wide && level > top && level < top + high;
}

/** Words from one empty box to the next. */
function runsOf(inside: readonly Word[], pitch: number): Word[][] {
  const runs: Word[][] = [];
  for (const word of inside) {
    const last = runs.at(-1)?.at(-1);
    const [ends, begins] = [last && last.box[0] + last.box[2], word.box[0]];
    // From the middle of a letter to the middle of the next there is one box.
    const half = ({ box: [, , width], text }: Word) => width / [...text].length / 2;
    if (last && begins + half(word) - (ends! - half(last)) < EMPTY * pitch) runs.at(-1)!.push(word);
    else runs.push([word]);
  }
  return runs;
}

function asOne(words: Word[]): Word {
  const letters = words.reduce((sum, { text }) => sum + [...text].length, 0);
  return {
    ...words[0],
    text: words.map(({ text }) => text).join(''),
    box: around(words.map(({ box }) => box)),
    confidence: words.reduce((sum, { text, confidence }) => sum + [...text].length * confidence, 0) / letters,
  };
}
