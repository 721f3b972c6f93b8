import { Component, connectedComponents } from '../../imaging/components';
import { Ink } from '../../imaging/ink';

/** Darker than this, in grey levels of an even page, is print of any kind; paper and its grain are lighter. */
const SEEN_BELOW = 218;
/** A letter that is as dark as this anywhere is no faint one; what is lighter than this all over may show through from behind. */
const [DARK, LIGHT] = [110, 205];
/** How dark the darkest of a faint letter becomes. */
const RAISED_TO = 40;
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
  const seen: Ink = { width, height, data: new Uint8Array(data.length) };
  for (let at = 0; at < data.length; at++) if (data[at] < SEEN_BELOW) seen.data[at] = 1;
  const { components, labels } = connectedComponents(seen);
  const darkest = new Uint8Array(components.length).fill(255);
  const steep = new Uint32Array(components.length);
  const eachPixel = (tell: (piece: number, at: number) => void) => {
    for (let at = width + 1; at < labels.length; at++) if (labels[at] > 0) tell(labels[at] - 1, at);
  };
  eachPixel((piece, at) => {
    if (data[at] < darkest[piece]) darkest[piece] = data[at];
  });
  eachPixel((piece, at) => {
    const step = Math.max(Math.abs(data[at] - data[at - 1]), Math.abs(data[at] - data[at - width]));
    if (step >= SHARP * (255 - darkest[piece])) steep[piece]++;
  });
  const isFaint = ({ left, right, top, bottom, pixels }: Component, at: number) =>
    darkest[at] >= DARK &&
    darkest[at] < LIGHT &&
    bottom - top + 1 >= LEAST_HIGH &&
    bottom - top < MOST_HIGH &&
    right - left < MOST_WIDE &&
    steep[at] >= SHARP_SHARE * pixels;
  const faint = components.flatMap((component, at) =>
    isFaint(component, at) ? [{ ...component, darkest: darkest[at] }] : [],
  );
  for (const line of linesOf(faint)) {
    const [left, right] = [Math.min(...line.map((each) => each.left)), Math.max(...line.map((each) => each.right))];
    const [top, bottom] = [Math.min(...line.map((each) => each.top)), Math.max(...line.map((each) => each.bottom))];
    const level = line.map((each) => each.darkest).sort((one, other) => one - other)[line.length >> 1];
    const gain = (255 - RAISED_TO) / (255 - level);
    for (let y = Math.max(0, top - MARGIN); y <= Math.min(height - 1, bottom + MARGIN); y++)
      for (let x = Math.max(0, left - MARGIN); x <= Math.min(width - 1, right + MARGIN); x++) {
        const at = y * width + x;
        if (labels[at] > 0 && darkest[labels[at] - 1] < DARK) continue;
        data[at] = Math.max(0, Math.round(255 - gain * (255 - data[at])));
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
