import { Component, piecesOf } from '../../imaging/components';
import { inkBelow } from '../../imaging/ink';

/** Darker than this, in grey levels of an even page, is print of any kind; paper and its grain are lighter. */
const SEEN_BELOW = 218;
/**
 * A letter is faint whose darkest is so much lighter than that of the page's letters usually is, or lighter than the second number, and
 * never one that is darker than the third. What is lighter than the last all over may show through from behind.
 */
const [FAINTER, ALWAYS_FAINT, NEVER_FAINT, LIGHT] = [60, 110, 60, 205];
/** How dark the darkest of a faint letter becomes. */
const RAISED_TO = 0;
/** Sizes of letters in pixels: a small one of print that can be read, and a large one. */
const [LEAST_HIGH, MOST_HIGH, MOST_WIDE] = [6, 64, 160];
/**
 * Between two neighbouring pixels at the edge of a letter, so much of its contrast at least, at so many of its pixels: what shows through
 * from the other side of the sheet, and shade, have soft edges, and grain is steep here and there.
 */
const [SHARP, SHARP_SHARE] = [0.38, 0.15];
/** So many letters beside each other are print; how far apart, and how unlike in height. */
const LEAST_LETTERS = 3;
const APART = 2;
const ALIKE = 2.2;
const MARGIN = 2;

/**
 * Print that is much lighter than the rest of its page (grey labels, a worn ribbon, pencil) becomes as dark as it, line by line: by one
 * threshold for the whole page it would be paper. Pixels are changed in place.
 * @param data an even page, grey, paper white
 */
export function darkenFaintPrint(width: number, height: number, data: Uint8Array): void {
  // Runs of seen pixels: the number of their piece, from 0, their first and their last pixel.
  const runs: number[] = [];
  const components = piecesOf(inkBelow({ width, height, channels: 1, data }, SEEN_BELOW), (piece, from, to) =>
    runs.push(piece - 1, from, to),
  );
  const darkest = new Uint8Array(components.length).fill(255);
  for (let run = 0; run < runs.length; run += 3)
    for (let at = runs[run + 1]; at <= runs[run + 2]; at++)
      if (data[at] < darkest[runs[run]]) darkest[runs[run]] = data[at];
  const isLetter = components.map(
    ({ left, right, top, bottom }) =>
      bottom - top + 1 >= LEAST_HIGH && bottom - top < MOST_HIGH && right - left < MOST_WIDE,
  );
  const usual = darkest.filter((_, at) => isLetter[at]).sort();
  const dark = Math.max(NEVER_FAINT, Math.min(ALWAYS_FAINT, usual[usual.length >> 1] + FAINTER));
  const mayBeFaint = isLetter.map((is, at) => is && darkest[at] >= dark && darkest[at] < LIGHT);
  if (!mayBeFaint.includes(true)) return;
  const steep = new Uint32Array(components.length);
  for (let run = 0; run < runs.length; run += 3) {
    const piece = runs[run];
    if (!mayBeFaint[piece]) continue;
    const least = SHARP * (255 - darkest[piece]);
    for (let at = Math.max(width + 1, runs[run + 1]); at <= runs[run + 2]; at++) {
      const step = Math.max(Math.abs(data[at] - data[at - 1]), Math.abs(data[at] - data[at - width]));
      if (step >= least) steep[piece]++;
    }
  }
  const faint = components.flatMap((component, at) =>
    mayBeFaint[at] && steep[at] >= SHARP_SHARE * component.pixels ? [{ ...component, darkest: darkest[at] }] : [],
  );
  const lines = linesOf(faint);
  if (lines.length === 0) return;
  // What is as dark as the rest stays as it is, in a faint line as well.
  const isDark = new Uint8Array(data.length);
  for (let run = 0; run < runs.length; run += 3)
    if (darkest[runs[run]] < dark) isDark.fill(1, runs[run + 1], runs[run + 2] + 1);
  for (const line of lines) {
    const [left, right] = [Math.min(...line.map((each) => each.left)), Math.max(...line.map((each) => each.right))];
    const [top, bottom] = [Math.min(...line.map((each) => each.top)), Math.max(...line.map((each) => each.bottom))];
    const level = line.map((each) => each.darkest).sort((one, other) => one - other)[line.length >> 1];
    const gain = (255 - RAISED_TO) / (255 - level);
    for (let y = Math.max(0, top - MARGIN); y <= Math.min(height - 1, bottom + MARGIN); y++)
      for (let x = Math.max(0, left - MARGIN); x <= Math.min(width - 1, right + MARGIN); x++) {
        const at = y * width + x;
        if (isDark[at] === 0) data[at] = Math.max(0, Math.round(255 - gain * (255 - data[at])));
      }
  }
}

type Letter = Component & { darkest: number };

/** Letters beside each other, of like height. */
function linesOf(letters: Letter[]): Letter[][] {
  const open: Letter[][] = [];
  const lines: Letter[][] = [];
  for (const letter of letters.sort((one, other) => one.left - other.left)) {
    const high = letter.bottom - letter.top + 1;
    // What ended too far to the left takes no more letters.
    for (let at = open.length - 1; at >= 0; at--)
      if (letter.left - open[at].at(-1)!.right > APART * MOST_HIGH) lines.push(...open.splice(at, 1));
    const line = open.find((each) => {
      const last = each.at(-1)!;
      const lastHigh = last.bottom - last.top + 1;
      const shared = Math.min(last.bottom, letter.bottom) - Math.max(last.top, letter.top) + 1;
      return (
        letter.left - last.right <= APART * Math.max(high, lastHigh) &&
        shared > 0.5 * Math.min(high, lastHigh) &&
        Math.max(high, lastHigh) <= ALIKE * Math.min(high, lastHigh)
      );
    });
    if (line) line.push(letter);
    else open.push([letter]);
  }
  return [...lines, ...open].filter(({ length }) => length >= LEAST_LETTERS);
}
