import { Component, inkPieces, letterHeight } from '../../imaging/components';
import { Ink } from '../../imaging/ink';

/** A page of more pixels is large enough for any print that can be read. */
const MOST_PIXELS = 4_500_000;
/** Small letters lower than so many pixels are small print. */
const SMALL_LETTER = 12;
/** What is more letters high and wide than this is none; where such pieces hold so much of the ink, letters may have run together. */
const [LARGE, MANY_LARGE] = [3, 0.5];
/** So many times as many pieces on the page enlarged tell that they had. */
const MORE_PIECES = 2;

/**
 * Whether the print of a page is so small that its lines are better sought when it is enlarged: its letters are low, or so small that they
 * touch, and whole lines are one piece.
 * @param ink of the page
 * @param inkOfLarger gives that of the page enlarged; only asked for where it has to be looked at
 */
export async function isSmallPrint(ink: Ink, inkOfLarger: () => Promise<Ink>): Promise<boolean> {
  if (ink.width * ink.height > MOST_PIXELS) return false;
  const pieces = inkPieces(ink);
  const letter = letterHeight(pieces);
  if (letter > 0 && letter < SMALL_LETTER) return true;
  const pixelsOf = (some: readonly Component[]) => some.reduce((sum, { pixels }) => sum + pixels, 0);
  const large = pieces.filter(
    ({ left, right, top, bottom }) => Math.min(right - left, bottom - top) + 1 > LARGE * Math.max(letter, 1),
  );
  if (pixelsOf(large) < MANY_LARGE * pixelsOf(pieces)) return false;
  return inkPieces(await inkOfLarger()).length > MORE_PIECES * pieces.length;
}
