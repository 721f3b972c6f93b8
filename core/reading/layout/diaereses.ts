import { editDistance } from '../../finding/editDistance';
import { Component } from '../../imaging/components';
import { SpelledWord } from '../spelled';
import { PageSegments, Segment } from './segments';

/** A dot is no larger than this and no smaller, in heights of a small letter; dots of a pair stand so far from each other, at one height. */
const [SMALLEST_DOT, LARGEST_DOT] = [0.08, 0.4];
const [NEAREST, FARTHEST, LEVEL] = [0.2, 0.95, 0.15];
/** Two dots that run together are a bar so long and so thin. */
const [SHORTEST_BAR, LONGEST_BAR, THICKEST_BAR] = [0.45, 1, 0.36];
/** How far under the dots their letter begins. */
const UNDER = 0.75;

/**
 * Whether two dots stand over a letter somewhere in a segment, as on ä, ö and ü: languages without these letters read them as something
 * else. Accents and dots that touch their letters are not told from them; then it is looked at once more for nothing.
 */
export function showsDiaeresis(
  { members, letter }: Segment,
  { components }: Pick<PageSegments, 'components'>,
): boolean {
  const pieces = members.map((number) => components[number - 1]);
  const small = pieces.filter((piece) => sizeOf(piece).every((side) => side <= LONGEST_BAR * letter));
  const letters = pieces.filter((piece) => sizeOf(piece)[1] >= 0.75 * letter);
  const isOver = (left: number, right: number, bottom: number) =>
    letters.some(
      (piece) =>
        piece.left <= left + 0.3 * letter &&
        piece.right >= right - 0.3 * letter &&
        piece.top > bottom &&
        piece.top - bottom < UNDER * letter,
    );
  const isDot = (piece: Component) =>
    sizeOf(piece).every((side) => side >= SMALLEST_DOT * letter && side <= LARGEST_DOT * letter);
  const dots = small.filter(isDot).sort((a, b) => a.left - b.left);
  const isPair = (one: Component, other: Component) => {
    const apart = (other.left + other.right - one.left - one.right) / 2;
    const level = Math.abs(one.top + one.bottom - other.top - other.bottom) / 2;
    return apart >= NEAREST * letter && apart <= FARTHEST * letter && level <= LEVEL * letter;
  };
  const pairs = dots.some((dot, at) =>
    dots
      .slice(at + 1, at + 4)
      .some((other) => isPair(dot, other) && isOver(dot.left, other.right, Math.max(dot.bottom, other.bottom))),
  );
  return (
    pairs ||
    small.some((piece) => {
      const [width, height] = sizeOf(piece);
      const isBar = width >= SHORTEST_BAR * letter && width > 1.6 * height && height <= THICKEST_BAR * letter;
      return isBar && isOver(piece.left, piece.right, piece.bottom);
    })
  );
}

const sizeOf = ({ left, right, top, bottom }: Component) => [right - left + 1, bottom - top + 1];

const DOTTED = /[äöüÄÖÜ]/;
const textOf = ({ characters }: SpelledWord) => characters.map(({ text }) => text).join('');
/** Letters without their dots; two strokes that a ü was taken for are one letter. */
const bare = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/ii|ij|iı/g, 'u');
/** So large a share of a word's letters may be another one; the word with dots is at least so sure. */
const OTHERWISE = 0.25;
const SURE = 0.5;

/**
 * Takes from a second reading, in a language that has them, the words with ä, ö or ü that are otherwise the same.
 * @param first is changed in place; places as in the second
 */
export function takeDiaereses(first: SpelledWord[], second: readonly SpelledWord[]): void {
  for (const other of second) {
    const text = textOf(other);
    if (!DOTTED.test(text) || other.confidence < SURE) continue;
    const [from, to] = span(other);
    const word = first.find((each) => {
      const [left, right] = span(each);
      return Math.min(right, to) - Math.max(left, from) > 0.7 * Math.max(right - left, to - from);
    });
    // What has an accent was seen as what it is.
    if (!word || /\p{M}/u.test(textOf(word).normalize('NFD'))) continue;
    const [mine, its] = [bare(textOf(word)), bare(text)];
    if (editDistance(mine, its) > Math.max(1, OTHERWISE * its.length)) continue;
    word.characters = other.characters;
    word.confidence = Math.max(word.confidence, other.confidence);
  }
}

function span({ characters }: SpelledWord): [from: number, to: number] {
  const { box } = characters[characters.length - 1];
  return [characters[0].box[0], box[0] + box[2]];
}
