import { Component } from '../../imaging/components';
import { Ink } from '../../imaging/ink';

/** Dots and dashes are no taller and no longer than these shares of a small letter's height; some that touch may be longer. */
const [TALLEST, LONGEST] = [0.6, 2.4];
/** How far one lies from the next, and how far below or above it, in heights of a small letter. */
const [WIDEST_GAP, MOST_ASIDE] = [1.6, 0.14];
/** So many in a row, so evenly apart, are a line; full stops are fewer. */
const LEAST_DOTS = 9;
const [EVEN, MOST_UNEVEN] = [0.75, 0.4];

/** Those down a page are more: a column of full stops or hyphens stands at the ends of its rows. */
const LEAST_DOTS_DOWN = 14;

/**
 * Takes lines of dots or dashes, and what is left of torn ones, out of a page: those under the rows of a table, those that lead from a word to its figure, the sides of what
 * is to be cut out. Their pieces, which follow each other evenly at one height, would else be read as letters of the line above them.
 * @param ink changed in place
 * @param pieces those of the ink
 * @param letter the height of small letters, in pixels
 * @returns the pixels that were part of one
 */
export function takeOutDots(ink: Ink, pieces: readonly Component[], letter: number): number[] {
  const taken: number[] = [];
  const take = (row: readonly Component[]) => {
    for (const { left, right, top, bottom } of row)
      for (let y = top; y <= bottom; y++)
        for (let at = y * ink.width + left; at <= y * ink.width + right; at++) if (ink.data[at] !== 0) taken.push(at);
  };
  let places: ByPlace | undefined;
  const isText = (column: readonly Component[]) =>
    standsInText(column, (places ??= lettersByPlace(pieces, letter)), letter);
  for (const row of linesOf(pieces, letter, LEAST_DOTS)) take(row);
  for (const column of linesOf(pieces.map(turned), letter, LEAST_DOTS_DOWN).map((line) => line.map(turned)))
    if (!isText(column)) take(column);
  for (const column of tornLines(pieces, letter)) if (!isText(column)) take(column);
  for (const at of taken) ink.data[at] = 0;
  return taken;
}

/** What is left of a torn line is no wider and no shorter than these shares of a small letter's height, and no further from the next piece than so many of these heights. */
const [TORN_WIDTH, TORN_LENGTH, TORN_GAP] = [0.42, 0.3, 9];
/** So many pieces of lengths so different are a torn line: letters under each other are alike. */
const [LEAST_TORN, DIFFERENT] = [7, 0.6];

/** The pieces of lines down a page of which a scan has left little: the fold of a paper, the edge of a copied sheet. */
function tornLines(pieces: readonly Component[], letter: number): Component[][] {
  const aside = Math.max(1.5, TORN_WIDTH * letter);
  const narrow = pieces
    .filter(({ left, right, top, bottom }) => {
      const high = bottom - top;
      return right - left < TORN_WIDTH * letter && high > right - left && high >= TORN_LENGTH * letter;
    })
    .sort((one, other) => one.top - other.top);
  const middle = ({ left, right }: Component) => (left + right) / 2;
  const columns: Component[][] = [];
  // Columns that may still go on, by how far across the page they stand.
  const open = new Map<number, Component[][]>();
  for (const piece of narrow) {
    const band = Math.floor(middle(piece) / aside);
    const goesOn = (column: Component[]) => piece.top - column[column.length - 1].bottom <= TORN_GAP * letter;
    const near = [-1, 0, 1].flatMap((by) => open.get(band + by) ?? []).filter(goesOn);
    const home = near.find((column) => Math.abs(middle(column[column.length - 1]) - middle(piece)) <= aside);
    const own = (open.get(band) ?? []).filter((column) => column !== home && goesOn(column));
    if (home) {
      const was = Math.floor(middle(home[home.length - 1]) / aside);
      if (was !== band)
        open.set(
          was,
          (open.get(was) ?? []).filter((column) => column !== home),
        );
      home.push(piece);
      open.set(band, [...own, home]);
    } else {
      const column = [piece];
      columns.push(column);
      open.set(band, [...own, column]);
    }
  }
  return columns.filter((column) => {
    if (column.length < LEAST_TORN) return false;
    const lengths = column.map(({ top, bottom }) => bottom - top + 1).sort((a, b) => a - b);
    const [short, usual, long] = [0.15, 0.5, 0.85].map((share) => lengths[Math.floor(share * lengths.length)]);
    return long - short > DIFFERENT * usual;
  });
}

/** So many pieces of a column that have a letter beside them, so near and so much of whose height is theirs, are figures or letters themselves. */
const IN_TEXT = 0.3;
const [BESIDE, SHARED] = [1.1, 0.5];
/** What is lower than this share of a letter may be a point or a comma: it belongs to the letter that it stands so near to. */
const [POINT, NEAR] = [0.6, 0.8];

/** Pieces that may be letters, by the squares of a page that they reach into, each as wide as a small letter is high. */
type ByPlace = ReadonlyMap<number, readonly Component[]>;

/** Letters are no taller and no wider than so many small ones; some may touch. */
const [TEXT, TOUCHING] = [3, 12];

/** A page has fewer squares than this beside each other. */
const MOST_ACROSS = 65_536;

function lettersByPlace(pieces: readonly Component[], letter: number): ByPlace {
  const places = new Map<number, Component[]>();
  for (const piece of pieces) {
    const { left, right, top, bottom } = piece;
    if (bottom - top >= TEXT * letter || right - left >= TOUCHING * letter) continue;
    for (const square of squares([left, right, top, bottom], letter)) {
      const own = places.get(square);
      if (own) own.push(piece);
      else places.set(square, [piece]);
    }
  }
  return places;
}

/** The numbers of the squares that a box reaches into. */
function squares([left, right, top, bottom]: number[], letter: number): number[] {
  const found: number[] = [];
  for (let y = Math.floor(top / letter); y <= bottom / letter; y++)
    for (let x = Math.floor(left / letter); x <= right / letter; x++) found.push(y * MOST_ACROSS + x);
  return found;
}

/** Whether a column consists of the same sign in one row after the other, such as the ones or the points of a table's figures. */
function standsInText(column: readonly Component[], letters: ByPlace, letter: number): boolean {
  const beside = BESIDE * letter;
  const inText = column.filter(({ left, right, top, bottom }) =>
    squares([left - beside, right + beside, top, bottom], letter).some((square) =>
      letters.get(square)?.some((other) => {
        const shared = Math.min(bottom, other.bottom) - Math.max(top, other.top) + 1;
        const tall = Math.max(bottom - top, other.bottom - other.top) + 1;
        const gap = Math.max(other.left - right, left - other.right);
        if (gap <= 0) return false;
        const isPoint = bottom - top < POINT * letter && other.bottom - other.top >= POINT * letter;
        return isPoint ? gap <= NEAR * letter && shared > 0 : gap <= beside && shared >= SHARED * tall;
      }),
    ),
  );
  return inText.length > IN_TEXT * column.length;
}

/** Pieces so small and in a row so long and even that they make a line. */
function linesOf(pieces: readonly Component[], letter: number, least: number): Component[][] {
  const small = pieces
    .filter(({ left, right, top, bottom }) => bottom - top < TALLEST * letter && right - left < LONGEST * letter)
    .sort((one, other) => one.left - other.left);
  return rowsOf(small, letter).filter((row) => row.length >= least && isEven(row) && !isSmallPrint(row));
}

/** Of a box at least so many pixels wide and high, a dot or dash fills so much. Of small print more than so many pieces fill less. */
const [LEAST_BOX, SOLID, OPEN] = [5, 0.66, 0.4];
/** Widths of letters differ by more than this share. */
const LETTERS_UNEVEN = 0.2;

/** Whether pieces are letters that are smaller than the rest of the page: they have hollows. */
function isSmallPrint(row: readonly Component[]): boolean {
  const open = row.filter(({ left, right, top, bottom, pixels }) => {
    const [width, height] = [right - left + 1, bottom - top + 1];
    return Math.min(width, height) >= LEAST_BOX && pixels < SOLID * width * height;
  });
  // Asterisks, which cover figures, are open as well, but as wide as each other.
  return open.length > OPEN * row.length && !areAlike(widthsOf(row), LETTERS_UNEVEN);
}

const widthsOf = (row: readonly Component[]) => row.map(({ left, right }) => right - left + 1);

/** A piece with across and down exchanged. */
const turned = ({ left, right, top, bottom, pixels }: Component): Component => ({
  left: top,
  right: bottom,
  top: left,
  bottom: right,
  pixels,
});

/** Pieces that follow each other from the left at one height. */
function rowsOf(pieces: readonly Component[], letter: number): Component[][] {
  const aside = Math.max(1.5, MOST_ASIDE * letter);
  const middle = ({ top, bottom }: Component) => (top + bottom) / 2;
  const rows: Component[][] = [];
  // Rows that may still go on, by how far down they stand.
  const open = new Map<number, Component[][]>();
  const band = (piece: Component) => Math.floor(middle(piece) / letter);
  for (const piece of pieces) {
    const near = [-1, 0, 1].flatMap((by) => open.get(band(piece) + by) ?? []);
    const home = near.find((row) => {
      const last = row[row.length - 1];
      const gap = piece.left - last.right;
      return gap > 0 && gap <= WIDEST_GAP * letter && Math.abs(middle(piece) - middle(last)) <= aside;
    });
    if (home) {
      home.push(piece);
      continue;
    }
    const row = [piece];
    rows.push(row);
    const beside = (open.get(band(piece)) ?? []).filter(
      (other) => piece.left - other[other.length - 1].right <= WIDEST_GAP * letter,
    );
    open.set(band(piece), [...beside, row]);
  }
  return rows;
}

/** Whether the gaps between pieces are alike, and the pieces no taller than each other. */
function isEven(row: readonly Component[]): boolean {
  const gaps = row.slice(1).map(({ left }, at) => left - row[at].right - 1);
  const heights = row.map(({ top, bottom }) => bottom - top + 1);
  return [gaps, heights].every((values) => areAlike(values, MOST_UNEVEN));
}

/** Whether most of some lengths are what is usual among them, but for a share of it. */
function areAlike(values: readonly number[], uneven: number): boolean {
  const usual = values.toSorted((a, b) => a - b)[values.length >> 1];
  const near = Math.max(1, uneven * usual);
  return values.filter((value) => Math.abs(value - usual) <= near).length >= EVEN * values.length;
}
