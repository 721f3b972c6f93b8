import { Component } from '../../imaging/components';
import { Ink } from '../../imaging/ink';

/** Boxes to be ticked are so large, in heights of a small letter, and as wide as high within such a part. */
const [SMALLEST, LARGEST] = [0.8, 3.5];
const SQUARE = 0.22;
/** Their sides are no thicker than this share of them, and are drawn over so much of their length. */
const [THICKNESS, DRAWN] = [0.22, 0.9];
/** And in the middle, so far in from each side, hardly anything stands. */
const [INSET, MOST_INSIDE] = [0.28, 0.02];

/**
 * Takes the sides of empty boxes out of a page, such as those of a list to be ticked: they would be read as letters. What is in a box
 * that is not empty stays, with its box.
 * @param ink changed in place
 * @param pieces those of the ink
 * @param letter the height of small letters, in pixels
 * @returns the pixels that were part of one
 */
export function takeOutEmptyBoxes(ink: Ink, pieces: readonly Component[], letter: number): number[] {
  const taken: number[] = [];
  for (const piece of pieces) {
    const { left, right, top, bottom } = piece;
    const [w, h] = [right - left + 1, bottom - top + 1];
    const isSquare = Math.abs(w - h) <= SQUARE * Math.max(w, h);
    if (Math.min(w, h) < SMALLEST * letter || Math.max(w, h) > LARGEST * letter || !isSquare) continue;
    if (!hasSides(ink, piece) || !isEmpty(ink, piece)) continue;
    for (let y = top; y <= bottom; y++)
      for (let at = y * ink.width + left; at <= y * ink.width + right; at++) if (ink.data[at] !== 0) taken.push(at);
  }
  for (const at of taken) ink.data[at] = 0;
  return taken;
}

/** Whether ink runs along all four sides of a piece, from one corner to the other: a round letter does not reach its corners. */
function hasSides({ width, data }: Ink, { left, right, top, bottom }: Component): boolean {
  const [w, h] = [right - left + 1, bottom - top + 1];
  const [deepAcross, deepDown] = [Math.max(1, Math.round(THICKNESS * w)), Math.max(1, Math.round(THICKNESS * h))];
  const drawn = (length: number, deep: number, at: (along: number, into: number) => number) => {
    let count = 0;
    for (let along = 0; along < length; along++)
      for (let into = 0; into < deep; into++)
        if (data[at(along, into)] !== 0) {
          count++;
          break;
        }
    return count >= DRAWN * length;
  };
  const cornersOf = [
    [left, top, 1, 1],
    [right, top, -1, 1],
    [left, bottom, 1, -1],
    [right, bottom, -1, -1],
  ];
  const hasCorner = ([x, y, across, down]: number[]) => {
    const near = Math.max(1, Math.round(CORNER * Math.min(w, h)));
    for (let dy = 0; dy < near; dy++)
      for (let dx = 0; dx < near; dx++) if (data[(y + dy * down) * width + x + dx * across] !== 0) return true;
    return false;
  };
  return (
    cornersOf.every(hasCorner) &&
    drawn(w, deepDown, (along, into) => (top + into) * width + left + along) &&
    drawn(w, deepDown, (along, into) => (bottom - into) * width + left + along) &&
    drawn(h, deepAcross, (along, into) => (top + along) * width + left + into) &&
    drawn(h, deepAcross, (along, into) => (top + along) * width + right - into)
  );
}

/** So near to its corner, as a share of the box, there is ink. */
const CORNER = 0.1;

function isEmpty({ width, data }: Ink, { left, right, top, bottom }: Component): boolean {
  const [w, h] = [right - left + 1, bottom - top + 1];
  let [count, all] = [0, 0];
  for (let y = Math.ceil(top + INSET * h); y <= bottom - INSET * h; y++)
    for (let x = Math.ceil(left + INSET * w); x <= right - INSET * w; x++, all++)
      if (data[y * width + x] !== 0) count++;
  return all > 0 && count <= MOST_INSIDE * all;
}
