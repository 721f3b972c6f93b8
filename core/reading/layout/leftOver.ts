import { around, Box } from '../../geometry';
import { Component } from '../../imaging/components';
import { Word } from '../words';

/** Pieces of ink from and to these shares of a small letter's height may be letters, or some that touch. */
const [LOWEST, TALLEST, WIDEST] = [0.55, 3.2, 14];
/** Less ink than this in its box is a rule, a frame or a crack; more may be a blot. */
const [THINNEST, FULLEST] = [0.12, 0.92];
/** How far beyond a word's box its ink may reach, and how far beside each other letters of a word stand, in heights of a letter. */
const BEYOND = 0.35;
const BESIDE = 1.6;
/** So many letters beside each other are print that was lost; fewer are dirt. */
const LEAST_LETTERS = 3;

/**
 * How many letters there are that look like print and were not read.
 * @param letter the usual height of small letters, in pixels
 * @param places of what was read
 */
export function lettersLeft(
  components: readonly Component[],
  letter: number,
  width: number,
  places: readonly Box[],
): number {
  const covered = coverage(width, places, BEYOND * letter);
  const left = components.filter(({ left: from, right, top, bottom, pixels }) => {
    const [w, h] = [right - from + 1, bottom - top + 1];
    if (h < LOWEST * letter || h > TALLEST * letter || w > WIDEST * letter || w < 0.12 * letter) return false;
    const full = pixels / (w * h);
    if (full < THINNEST || (full > FULLEST && w > letter)) return false;
    return !covered((from + right) / 2, (top + bottom) / 2);
  });
  return inRows(left, letter)
    .filter((row) => row.length >= LEAST_LETTERS)
    .reduce((sum, row) => sum + row.length, 0);
}

/** Tells whether a place lies in one of some boxes, by a grid of cells that hold them. */
function coverage(width: number, places: readonly Box[], margin: number): (x: number, y: number) => boolean {
  const CELL = 64;
  const cells = new Map<number, Box[]>();
  const across = Math.ceil(width / CELL) + 2;
  for (const [x, y, w, h] of places) {
    const wide: Box = [x - margin, y - margin, w + 2 * margin, h + 2 * margin];
    for (let row = Math.floor(wide[1] / CELL); row <= (wide[1] + wide[3]) / CELL; row++)
      for (let column = Math.floor(wide[0] / CELL); column <= (wide[0] + wide[2]) / CELL; column++) {
        const key = row * across + column;
        cells.set(key, [...(cells.get(key) ?? []), wide]);
      }
  }
  return (x, y) =>
    (cells.get(Math.floor(y / CELL) * across + Math.floor(x / CELL)) ?? []).some(
      ([bx, by, bw, bh]) => x >= bx && x <= bx + bw && y >= by && y <= by + bh,
    );
}

/** Pieces that stand beside each other, as letters of a line do. */
function inRows(pieces: readonly Component[], letter: number): Component[][] {
  const rows: Component[][] = [];
  // Rows that pieces may still go on, by how far down they stand.
  const open = new Map<number, Component[][]>();
  const band = ({ top, bottom }: Component) => Math.floor((top + bottom) / 2 / (TALLEST * letter));
  for (const piece of pieces.toSorted((a, b) => a.left - b.left)) {
    const near = [-1, 0, 1].flatMap((by) => open.get(band(piece) + by) ?? []);
    const home = near.find((row) => {
      const last = row[row.length - 1];
      const shared = Math.min(last.bottom, piece.bottom) - Math.max(last.top, piece.top);
      const lower = Math.min(last.bottom - last.top, piece.bottom - piece.top) + 1;
      return piece.left - last.right < BESIDE * letter && shared > 0.4 * lower;
    });
    if (home) home.push(piece);
    else {
      const row = [piece];
      rows.push(row);
      const beside = (open.get(band(piece)) ?? []).filter(
        (other) => piece.left - other[other.length - 1].right < BESIDE * letter,
      );
      open.set(band(piece), [...beside, row]);
    }
  }
  return rows;
}

/** Words that nobody knows and that the recogniser doubts are noise, and count so much against a reading. */
const DOUBTED = 0.7;
const NOISE = 0.6;

/** How much a reading says: the letters of words that are known or sure, less those of what is neither. */
export function worthOf(
  words: readonly Pick<Word, 'text' | 'confidence'>[],
  isKnown: (word: string) => boolean,
): number {
  return words.reduce((sum, { text, confidence }) => {
    const bare = text.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
    if (bare.length === 0) return confidence < DOUBTED ? sum - NOISE : sum;
    const isWord = bare.length > 2 && isKnown(bare);
    return (
      sum +
      (isWord || confidence >= 0.9 ? bare.length : confidence >= DOUBTED ? 0.5 * bare.length : -NOISE * bare.length)
    );
  }, 0);
}

/**
 * Of two readings of a page, line by line, what says more: a line of the other search is taken where the own has none and it says
 * something, or where it says clearly more than the own words that it covers; own lines without a figure that say little where the
 * other search saw no text are noise; where it has more words on all of the page, it is taken as it is. Word by word (as in voting systems, Fiscus 1997) the one that is known counts where the other is not.
 * @param own by the program's own search for lines  @param whole by the recogniser's
 * @param handwriting places of what was taken for handwriting: only what reads as print is taken from there
 */
export function better(
  own: readonly Word[],
  whole: readonly Word[],
  isKnown: (word: string) => boolean,
  handwriting: readonly Box[] = [],
): Word[] {
  const worth = (words: readonly Word[]) => worthOf(words, isKnown);
  // Of print that is hard to read, most says little: that tells nothing of a line.
  const isHard = worth(own) < HARD * lettersOf(own);
  let out = linesOf(own.map((word) => known(word, whole, isKnown))).filter(
    (line) =>
      isHard ||
      worth(line) > LEAST_ALONE * lettersOf(line) ||
      // Figures in tables are what the other search loses.
      line.some(({ text, box }) => /\d/.test(text) || whole.some((word) => covers(word.box, box))),
  );
  for (const given of linesOf(whole).filter((line) => isPrint(line, worth(line), handwriting))) {
    const box = around(given.map((word) => word.box));
    const isUnder = (word: Word) => covers(box, word.box);
    const under = out.flatMap((line) => line.filter(isUnder));
    const says = worth(given);
    if (says < LEAST_WORTH || (under.length > 0 && says <= LEAD * Math.max(0, worth(under)) + LEAST_WORTH)) continue;
    out = out.map((line) => line.filter((word) => !isUnder(word))).filter((line) => line.length > 0);
    const behind = out.findLastIndex((other) => isAbove(around(other.map((word) => word.box)), box));
    out.splice(behind + 1, 0, withOwnFigures(given, under));
  }
  const lines = saysMore(whole, out.flat(), isKnown) ? instead(out, whole, isKnown, handwriting) : out;
  return lines.flatMap((line, number) => line.map((word) => ({ ...word, line: number })));
}

/** Groups of letters that may be words. */
const groupsOf = (words: readonly Pick<Word, 'text'>[]) => words.flatMap(({ text }) => text.match(/\p{L}{3,}/gu) ?? []);
/** A reading of a page by fewer words tells nothing of another one; and it must have so many more. */
const [LEAST_WORDS, CLEARLY] = [5, 1.1];

/** Of what it gives no less may be known than so much of what is known of the other: noise holds words by chance. */
const AS_SURELY = 0.85;

/** Whether a reading of the whole page has more words that are known than another one, and as few that are not. */
function saysMore(one: readonly Word[], other: readonly Word[], isKnown: (word: string) => boolean): boolean {
  const [groups, theirs] = [one, other].map(groupsOf);
  const [known, theirKnown] = [groups, theirs].map((some) => some.filter(isKnown).length);
  const isAsSure = known * theirs.length >= AS_SURELY * theirKnown * groups.length;
  return known > LEAST_WORDS && known > CLEARLY * theirKnown && isAsSure;
}

/** So many of the words of a line are known where it is print; and so many words tell that what was taken for handwriting is print. */
const [MOSTLY, ENOUGH_TO_TELL] = [0.5, 12];

function isMostlyKnown(line: readonly Word[], isKnown: (word: string) => boolean): boolean {
  const groups = groupsOf(line);
  return groups.filter(isKnown).length > MOSTLY * groups.length;
}

/** Whether what stands in some places reads as print after all. */
function isPrinted(places: readonly Box[], whole: readonly Word[], isKnown: (word: string) => boolean): boolean {
  const inside = whole.filter(({ box }) => places.some((place) => covers(place, box)));
  return groupsOf(inside).length >= ENOUGH_TO_TELL && isMostlyKnown(inside, isKnown);
}

/** The other reading as it is, with the own figures, and the own lines that say something where it saw nothing. */
function instead(
  own: readonly Word[][],
  whole: readonly Word[],
  isKnown: (word: string) => boolean,
  handwriting: readonly Box[],
): Word[][] {
  const under = own.flat();
  const written = isPrinted(handwriting, whole, isKnown)
    ? []
    : handwriting.filter((place) => !isPrinted([place], whole, isKnown));
  const lines = linesOf(whole)
    .filter((line) => isPrint(line, worthOf(line, isKnown), written))
    .map((line) => withOwnFigures(line, under));
  const isLost = (line: Word[]) => !line.some(({ box }) => whole.some((word) => covers(word.box, box)));
  // Figures by themselves say something; beside what nobody knows they are noise as well.
  const says = (line: Word[]) =>
    groupsOf(line).length === 0 ? line.some(({ text }) => /\d/.test(text)) : isMostlyKnown(line, isKnown);
  for (const line of own.filter((each) => isLost(each) && says(each))) {
    const box = around(line.map((word) => word.box));
    const behind = lines.findLastIndex((other) => isAbove(around(other.map((word) => word.box)), box));
    lines.splice(behind + 1, 0, line);
  }
  return lines;
}

/** Of the letters of a line that only the own search sees, so many count at least where it is print. */
const LEAST_ALONE = 0.1;
/** Of the letters of print that is hard to read, no more count. */
const HARD = 0.4;
/** Two words are one if so much of both is shared. */
const SAME_PLACE = 0.6;

/** A word as the other reading has it, where only that is a word; numbers and names stay. */
function known(word: Word, whole: readonly Word[], isKnown: (word: string) => boolean): Word {
  const bare = (text: string) => text.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
  // One figure among letters was a letter: “PO1SES”.
  const isSlip = /^\p{L}{2,}\d\p{L}{2,}$/u.test(bare(word.text));
  if (/\d/.test(word.text) ? !isSlip : word.confidence >= 0.9 || isKnown(bare(word.text))) return word;
  const other = whole.find(({ box }) => shares(box, word.box) >= SAME_PLACE);
  if (!other || bare(other.text).length < 3 || !isKnown(bare(other.text))) return word;
  return { ...word, text: other.text, confidence: Math.max(word.confidence, other.confidence) };
}

/** How much of what two boxes cover together they share. */
function shares([x, y, w, h]: Box, [ox, oy, ow, oh]: Box): number {
  const shared =
    Math.max(0, Math.min(x + w, ox + ow) - Math.max(x, ox)) * Math.max(0, Math.min(y + h, oy + oh) - Math.max(y, oy));
  return shared / (w * h + ow * oh - shared);
}

/** A line of the other reading with the own words that have figures: they were settled by the shapes on the paper. */
function withOwnFigures(given: readonly Word[], under: readonly Word[]): Word[] {
  const hasFigure = ({ text }: Word) => /\d/.test(text);
  return given.map((word) =>
    hasFigure(word) ? (under.find((own) => hasFigure(own) && shares(own.box, word.box) >= SAME_PLACE) ?? word) : word,
  );
}

const lettersOf = (line: readonly Word[]) => line.reduce((sum, { text }) => sum + text.length, 0);

/** The own reading has its numbers and names better: the other one must say so much more. */
const LEAD = 1.08;
/** What a line must say to be taken over, and more than what it replaces. */
const LEAST_WORTH = 3;

/** Of the letters of a line, so many count where it is print. */
const LIKE_PRINT = 0.8;

function isPrint(line: readonly Word[], says: number, handwriting: readonly Box[]): boolean {
  const isWritten = line.some(({ box }) => handwriting.some((place) => covers(place, box)));
  return !isWritten || says >= LIKE_PRINT * lettersOf(line);
}

function linesOf(words: readonly Word[]): Word[][] {
  const lines = new Map<number, Word[]>();
  for (const word of words) lines.set(word.line, [...(lines.get(word.line) ?? []), word]);
  return [...lines.values()];
}

/** Whether one box covers much of another, or lies in it. */
export function covers([x, y, w, h]: Box, [ox, oy, ow, oh]: Box): boolean {
  const shared =
    Math.max(0, Math.min(x + w, ox + ow) - Math.max(x, ox)) * Math.max(0, Math.min(y + h, oy + oh) - Math.max(y, oy));
  return shared > 0.4 * Math.min(w * h, ow * oh);
}

/** Whether a line stands over another one, in its column. */
function isAbove([x, y, w, h]: Box, [ox, oy, ow, oh]: Box): boolean {
  return y + h / 2 < oy + oh / 2 && Math.min(x + w, ox + ow) > Math.max(x, ox);
}
