import { beginsDocument, Placed } from '@crow/core/sorting/arrangement';

/** The gap between two documents, in CSS pixels: the mark of a cut. */
export const GAP = 56;
/** So much of a sheet lies under the next one of its document, as a share of its width: its margin. */
const COVERED = 0.12;
/** Each sheet of a document lies so much lower than the one before, up to a few of them, in CSS pixels. */
const LOWER = 5;
const MOST_LOWER = 3;
/** Room that the lowest sheet of a row needs. */
export const FAN = LOWER * MOST_LOWER;

/** Where a page lies in its row, in CSS pixels. */
export interface LaidPage {
  index: number;
  left: number;
  top: number;
  /** How wide its document is from here to the end of the row, where the page is the first of it in the row; else 0. */
  run: number;
}

/** What has to be known of a page to lay it. */
type Laying = Placed & { divider?: unknown };

/**
 * Lays pages out in rows: the sheets of a document fanned, each a little over the one before, documents apart; a divider sheet belongs
 * to none.
 * @param width of the table, `pageWidth` of a sheet, in CSS pixels
 */
export function layInRows(pages: readonly Laying[], width: number, pageWidth: number): LaidPage[][] {
  const step = Math.round(pageWidth * (1 - COVERED));
  const rows: LaidPage[][] = [];
  let first: LaidPage | undefined;
  pages.forEach((page, index) => {
    const begins = beginsDocument(pages as Laying[], index);
    const isApart = page.dropped && Boolean(page.divider);
    let row = rows.at(-1);
    const before = row?.at(-1);
    let left = before ? before.left + (begins ? pageWidth + GAP : isApart ? pageWidth + GAP / 2 : step) : 0;
    if (!row || left + pageWidth > width) {
      rows.push((row = []));
      left = 0;
    }
    const isFirst = row.length === 0 || begins || isApart;
    const lower = isFirst ? 0 : Math.min(row.at(-1)!.top + LOWER, FAN);
    const laid: LaidPage = { index, left, top: lower, run: isFirst ? pageWidth : 0 };
    if (isFirst) first = laid;
    else first!.run = left + pageWidth - first!.left;
    row.push(laid);
  });
  return rows;
}

/** The page over (-1) or under (1) another one: the one of the next row that lies nearest. */
export function pageBeside(rows: readonly LaidPage[][], index: number, by: -1 | 1): number {
  const at = rows.findIndex((row) => row.some((page) => page.index === index));
  const from = rows[at]?.find((page) => page.index === index);
  const to = rows[at + by];
  if (!from || !to) return by < 0 ? 0 : Math.max(0, rows.flat().length - 1);
  return to.reduce((best, page) => (Math.abs(page.left - from.left) < Math.abs(best.left - from.left) ? page : best))
    .index;
}
