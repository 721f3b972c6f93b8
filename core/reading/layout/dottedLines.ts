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
  for (const row of linesOf(pieces, letter, LEAST_DOTS)) take(row);
  for (const column of linesOf(pieces.map(turned), letter, LEAST_DOTS_DOWN).map((line) => line.map(turned)))
    if (!standsInText(column, pieces, letter)) take(column);
  for (const column of tornLines(pieces, letter)) take(column);
  for (const at of taken) ink.data[at] = 0;
  return taken;
}

/** What is left of a torn line is no wider than this share of a small letter's height, and no further from the next piece than so many of these heights. */
const [TORN_WIDTH, TORN_GAP] = [0.42, 9];
/** So many pieces of lengths so different are a torn line: letters under each other are alike. */
const [LEAST_TORN, DIFFERENT] = [7, 0.6];

/** The pieces of lines down a page of which a scan has left little: the fold of a paper, the edge of a copied sheet. Nothing stands beside them. */
function tornLines(pieces: readonly Component[], letter: number): Component[][] {
  const aside = Math.max(1.5, TORN_WIDTH * letter);
  const narrow = pieces
    .filter(({ left, right, top, bottom }) => right - left < TORN_WIDTH * letter && bottom - top > right - left)
    .sort((one, other) => one.top - other.top);
  const middle = ({ left, right }: Component) => (left + right) / 2;
  const columns: Component[][] = [];
  for (const piece of narrow) {
    const home = columns.find((column) => {
      const last = column[column.length - 1];
      return Math.abs(middle(last) - middle(piece)) <= aside && piece.top - last.bottom <= TORN_GAP * letter;
    });
    if (home) home.push(piece);
    else columns.push([piece]);
  }
  return columns.filter((column) => {
    if (column.length < LEAST_TORN) return false;
    const lengths = column.map(({ top, bottom }) => bottom - top + 1).sort((a, b) => a - b);
    const [short, usual, long] = [0.15, 0.5, 0.85].map((share) => lengths[Math.floor(share * lengths.length)]);
    return long - short > DIFFERENT * usual && !standsInText(column, pieces, letter);
  });
}

/** So many pieces of a column that have a letter beside them, so near and so much of whose height is theirs, are figures or letters themselves. */
const IN_TEXT = 0.3;
const [BESIDE, SHARED] = [1.1, 0.5];

/** Whether a column consists of the same letter in one row after the other, such as the ones of a table's figures. */
function standsInText(column: readonly Component[], pieces: readonly Component[], letter: number): boolean {
  const [from, until] = [column[0].left - BESIDE * letter, column[0].right + BESIDE * letter];
  const near = pieces.filter(
    ({ left, right, top, bottom }) => right >= from && left <= until && bottom - top < TEXT * letter,
  );
  const isBeside = (one: Component, other: Component) => {
    const shared = Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top) + 1;
    const tall = Math.max(one.bottom - one.top, other.bottom - other.top) + 1;
    return shared >= SHARED * tall && (other.left > one.right || other.right < one.left);
  };
  return column.filter((piece) => near.some((other) => isBeside(piece, other))).length > IN_TEXT * column.length;
}
/** Letters are no taller than so many small ones. */
const TEXT = 3;

/** Pieces so small and in a row so long and even that they make a line. */
function linesOf(pieces: readonly Component[], letter: number, least: number): Component[][] {
  const small = pieces
    .filter(({ left, right, top, bottom }) => bottom - top < TALLEST * letter && right - left < LONGEST * letter)
    .sort((one, other) => one.left - other.left);
  return rowsOf(small, letter).filter((row) => row.length >= least && isEven(row));
}

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
  return [gaps, heights].every((values) => {
    const usual = values.toSorted((a, b) => a - b)[values.length >> 1];
    const near = Math.max(1, MOST_UNEVEN * usual);
    return values.filter((value) => Math.abs(value - usual) <= near).length >= EVEN * values.length;
  });
}
