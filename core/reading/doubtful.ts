import { around, Box } from '../geometry';
import { StoredWord } from './words';

/** Words less sure than this are worth a look: of those that are surer, hardly one in a hundred is wrong. */
export const SURE = 0.9;

/** A word that may be misread, with the rest of its line. */
export interface DoubtfulWord {
  /** Its place among the stored words of the page. */
  index: number;
  text: string;
  box: Box;
  before: string;
  after: string;
  lineBox: Box;
}

/** The words of a page that may be misread, in reading order; boxes in pixels of the page's picture. */
export function doubtfulWords(stored: readonly StoredWord[]): DoubtfulWord[] {
  const found: DoubtfulWord[] = [];
  const boxOf = ([, x, y, width, height]: StoredWord): Box => [x, y, width, height];
  stored.forEach((word, index) => {
    const [text, , , , , confidence, line] = word;
    if (confidence >= SURE || !/[\p{L}\p{N}]/u.test(text)) return;
    let [first, last] = [index, index];
    while (first > 0 && stored[first - 1][6] === line) first--;
    while (last + 1 < stored.length && stored[last + 1][6] === line) last++;
    const textOf = (words: readonly StoredWord[]) =>
      words
        .map(([each]) => each)
        .filter(Boolean)
        .join(' ');
    found.push({
      index,
      text,
      box: boxOf(word),
      before: textOf(stored.slice(first, index)),
      after: textOf(stored.slice(index + 1, last + 1)),
      lineBox: around(stored.slice(first, last + 1).map(boxOf)),
    });
  });
  return found;
}
