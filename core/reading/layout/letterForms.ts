import { bytesOf } from '../../imaging/raster';
import { Character } from '../spelled';
import { ReadStrip } from './shapes';

/** Letters whose capital has the same form, and such as show how tall small letters and capitals are. */
const SAME_FORM = /^[cosuvwxzCOSUVWXZ]$/;
const SMALL = /^[acemnorsuxz]$/;
const CAPITAL = /^[ABDEFGHKLMNPRT]$/;
/** Characters that are surer than this are examples, if their boxes fit: so wide, and a small letter's at most so tall, in pixels. */
const EXAMPLE = 0.97;
const NARROWEST = 9;
const TALLEST_SMALL = 25;
/** From this part of the way between a small letter and a capital on it is one, up to that part it is a small one. */
const [CAPITAL_FROM, SMALL_UP_TO] = [0.7, 0.3];
/** Letters that are surer than this are what they were read as. */
const SURE = 0.995;
/** Capitals are at least so much taller than small letters, or nothing is told. */
const LEAST_TALLER = 1.12;

/** Where small letters of a strip stand, how tall they are, and capitals, in pixels. */
interface Heights {
  foot: number;
  small: number;
  capital?: number;
}

/**
 * Says by their height on the paper whether letters that look the same as their capitals (c, o, s, u, v, w, x, z) are capitals, at
 * the beginning of a word. The recogniser's boxes are too rough for that; the ink itself is measured, beside the letters of the same
 * strip, or as much taller as capitals of the page are where it has no other capital.
 */
export function settleCapitals(strips: ReadStrip[]): void {
  const all = strips.map(letterHeights);
  const taller = median(all.flatMap((each) => (each?.capital ? [each.capital / each.small] : [])));
  strips.forEach((strip, at) => {
    const heights = all[at];
    if (!heights) return;
    const capital = heights.capital ?? (taller ?? 0) * heights.small;
    if (capital < LEAST_TALLER * heights.small) return;
    for (const { characters } of strip.words) {
      const place = characters.findIndex(({ text }) => /[\p{L}\p{N}]/u.test(text));
      const [first, second] = [characters[place], characters[place + 1]];
      if (/^www\./i.test(characters.map(({ text }) => text).join(''))) {
        for (const character of characters.slice(0, 3)) character.text = 'w';
        continue;
      }
      if (
        !first ||
        first.confidence > SURE ||
        !SAME_FORM.test(first.text) ||
        (second && !/^[\p{Ll}'’]$/u.test(second.text))
      )
        continue;
      const rows = inkRows(strip, first, 0);
      if (!rows) continue;
      const way = (heights.foot - rows[0] - heights.small) / (capital - heights.small);
      if (way > CAPITAL_FROM && way < 2 - CAPITAL_FROM) first.text = first.text.toUpperCase();
      else if (way < SMALL_UP_TO && way > -SMALL_UP_TO) first.text = first.text.toLowerCase();
    }
  });
}

function letterHeights(strip: ReadStrip): Heights | undefined {
  const sure = strip.words.flatMap(({ characters }) => characters.filter(({ confidence }) => confidence > EXAMPLE));
  const rowsOf = (form: RegExp, tallest = Infinity) =>
    sure
      .filter(({ text, box }) => form.test(text) && box[2] >= NARROWEST && box[3] <= tallest)
      .map((character) => inkRows(strip, character))
      .filter((rows) => rows !== undefined);
  const smalls = rowsOf(SMALL, TALLEST_SMALL);
  const [top, bottom] = [median(smalls.map(([first]) => first)), median(smalls.map(([, last]) => last))];
  if (top === undefined || bottom === undefined) return undefined;
  const foot = bottom + 1;
  const capitalTop = median(rowsOf(CAPITAL).map(([first]) => first));
  return { foot, small: foot - top, capital: capitalTop === undefined ? undefined : foot - capitalTop };
}

/** Of a character's width, so much at either side may belong to its neighbours. */
const SIDE = 0.2;
const INK = 128;

/** The first and last row with ink in the middle of a character. */
function inkRows(
  { picture }: ReadStrip,
  { box: [left, , width] }: Character,
  leftSide = SIDE,
): [top: number, bottom: number] | undefined {
  const data = bytesOf(picture);
  const from = Math.max(0, Math.round(left + leftSide * width));
  const until = Math.min(picture.width, Math.round(left + (1 - SIDE) * width));
  let [top, bottom] = [-1, -1];
  for (let y = 0; y < picture.height; y++) {
    for (let x = from; x < until; x++) {
      if (data[y * picture.width + x] >= INK) continue;
      if (top < 0) top = y;
      bottom = y;
      break;
    }
  }
  return top < 0 ? undefined : [top, bottom];
}

function median(values: number[]): number | undefined {
  return values.toSorted((a, b) => a - b)[values.length >> 1];
}
