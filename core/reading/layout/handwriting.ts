import { Component } from '../../imaging/components';
import { SpelledWord } from '../spelled';
import { Segment } from './segments';

/** A line has so many letters before its shape says anything. */
const LEAST_LETTERS = 8;
/** Of printed letters, at least such a share has one of two heights, and stands on one line; within such parts of a letter. */
const EVEN_HEIGHTS = 0.63;
const [HEIGHT_NEAR, FOOT_NEAR] = [0.06, 0.07];
const EVEN_FEET = 0.72;
/** What the recogniser reads of handwriting is kept when it is so sure on average; below the other it has read nothing at all. */
const [READ, UNREAD] = [0.988, 0.92];

/** A page is set in type where so many of its lines, and at least so many, have letters of one height, within such a part of it. */
const [IN_TYPE, LEAST_LINES, TYPE_NEAR] = [0.6, 6, 0.07];

/**
 * The lines that are written by hand, or scribbled, and were not read. Of a page whose print can hardly be read the recogniser's doubt
 * tells nothing: lines there that are as high as most others are print. A hand doesn't keep its height so well.
 * @param components the pieces of ink of the page, that the segments' members number from 1
 * @returns for each segment
 */
export function unreadHandwriting(
  segments: readonly Segment[],
  components: readonly Component[],
  read: readonly (readonly SpelledWord[])[],
): boolean[] {
  const unread = segments.map((segment, at) => isUnreadHandwriting(segment, components, read[at]));
  const lines = segments.filter((_, at) => lettersOf(read[at]).length >= LEAST_LETTERS);
  const heights = lines.map(({ letter }) => letter).sort((a, b) => a - b);
  const usual = heights[heights.length >> 1];
  const isUsual = ({ letter }: Segment) => Math.abs(letter - usual) <= Math.max(1, TYPE_NEAR * usual);
  const isSet = lines.length >= LEAST_LINES && lines.filter(isUsual).length >= IN_TYPE * lines.length;
  const print = read.flatMap((words, at) => (unread[at] ? [] : lettersOf(words)));
  if (!isSet || sureness(print) >= READ) return unread;
  return unread.map((is, at) => is && !isUsual(segments[at]));
}

const lettersOf = (words: readonly SpelledWord[]) => words.flatMap((word) => word.characters);

function sureness(letters: ReturnType<typeof lettersOf>): number {
  return letters.reduce((sum, { confidence }) => sum + confidence, 0) / letters.length;
}

/**
 * Whether a line by itself is written by hand, or scribbled, and was not read: letters of print have two heights and stand on one line, those
 * of a hand don't (as in Guo & Ma 2001, by features of the pieces), and the recogniser is unsure of them.
 */
function isUnreadHandwriting(
  segment: Segment,
  components: readonly Component[],
  words: readonly SpelledWord[],
): boolean {
  const characters = lettersOf(words);
  if (characters.length < LEAST_LETTERS) return false;
  const sure = sureness(characters);
  if (sure >= READ) return false;
  if (sure < UNREAD) return true;
  const letters = segment.members
    .map((member) => components[member - 1])
    .filter(({ top, bottom }) => bottom - top + 1 > 0.5 * segment.letter);
  if (letters.length < LEAST_LETTERS) return false;
  const heights = letters.map(({ top, bottom }) => bottom - top + 1);
  const feet = letters.map(({ left, right, bottom }) => bottom - (segment.slope * (left + right)) / 2);
  return (
    inTwoPlaces(heights, Math.max(1, HEIGHT_NEAR * segment.letter)) < EVEN_HEIGHTS &&
    inOnePlace(feet, Math.max(1, FOOT_NEAR * segment.letter)) < EVEN_FEET
  );
}

/** The largest share of values that lie within a distance of one value. */
function inOnePlace(values: number[], near: number): number {
  return Math.max(...values.map((one) => share(values, (value) => Math.abs(value - one) <= near)));
}

/** The largest share of values that lie within a distance of either of two values. */
function inTwoPlaces(values: number[], near: number): number {
  const distinct = [...new Set(values)];
  return Math.max(
    ...distinct.flatMap((one) =>
      distinct.map((other) =>
        share(values, (value) => Math.abs(value - one) <= near || Math.abs(value - other) <= near),
      ),
    ),
  );
}

function share(values: number[], holds: (value: number) => boolean): number {
  return values.filter(holds).length / values.length;
}
