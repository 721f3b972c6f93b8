import { inkPieces, letterHeight } from '../../imaging/components';
import { bytesOf, Raster } from '../../imaging/raster';
import { joinBrokenPrint } from './brokenPrint';
import { takeOutDots } from './dottedLines';
import { takeOutEmptyBoxes } from './emptyBoxes';
import { EvenPage } from './evenPage';
import { Rule, takeOutRules } from './ruledLines';
import { inReadingOrder } from './readingOrder';
import { findSegments, PageSegments, Segment } from './segments';

/** A page laid out for reading: white paper without ruled lines, and the segments of text on it, in rows. */
export interface PageLayout {
  page: Raster;
  /** In reading order. */
  segments: Segment[];
  /** For each segment the number of the row that it stands in, from 0. */
  rows: number[];
  pieces: Pick<PageSegments, 'components' | 'labels' | 'letter'>;
  rules: Rule[];
  /** Whether print of dots was joined on the page: the picture as it came can hardly be read. */
  isJoined: boolean;
}

/** Finds the text on a page that is upright and level, or nearly so; what it is given is changed in place. */
export function layOut({ page, ink }: EvenPage): PageLayout {
  const isJoined = joinBrokenPrint(page, ink);
  const pieces = inkPieces(ink);
  const letter = letterHeight(pieces) || USUAL_LETTER;
  const dots = takeOutDots(ink, pieces, letter);
  const boxes = takeOutEmptyBoxes(ink, pieces, letter);
  const { rules, taken } = takeOutRules(ink, letter);
  const data = bytesOf(page);
  for (const some of [dots, boxes, taken]) for (const at of some) data[at] = 255;
  const found = findSegments(ink, rules);
  const { segments, rows } = inReadingOrder(found.segments);
  return { page, segments, rows, pieces: found, rules, isJoined };
}

const USUAL_LETTER = 16;
