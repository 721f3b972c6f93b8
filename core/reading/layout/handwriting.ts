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

/**
 * Whether a line is written by hand, or scribbled, and was not read: letters of print have two heights and stand on one line, those
 * of a hand don't (as in Guo & Ma 2001, by features of the pieces), and the recogniser is unsure of them.
 * @param components the pieces of ink of the page, that the segment's members number from 1
 */
export function isUnreadHandwriting(segment: Segment, components: readonly Component[], words: SpelledWord[]): boolean {
  const characters = words.flatMap((word) => word.characters);
  if (characters.length < LEAST_LETTERS) return false;
  const sure = characters.reduce((sum, { confidence }) => sum + confidence, 0) / characters.length;
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
