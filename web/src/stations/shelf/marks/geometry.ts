import { THINNEST_STROKE, WIDEST_STROKE } from '@crow/contract/marks';
import { around, Box, Turn } from '@crow/core/geometry';
import { Mark } from '@crow/core/pdf/marks/mark';
import { extentOf, shapesOf } from '@crow/core/pdf/marks/shapes';
import { measure } from './look';

/** How far a mark reaches, in points. */
export const extent = (mark: Mark): Box => extentOf(shapesOf(mark, measure), measure);

/** Where on a page, as shares of it, a place of the window is. @param frame what the page takes up of the window, turned as it is */
export function shareAt(frame: DOMRect, turn: Turn, clientX: number, clientY: number): [x: number, y: number] {
  const [u, v] = [(clientX - frame.left) / frame.width, (clientY - frame.top) / frame.height];
  switch (turn) {
    case 90:
      return [v, 1 - u];
    case 180:
      return [1 - u, 1 - v];
    case 270:
      return [1 - v, u];
    default:
      return [u, v];
  }
}

/** A finger or a pointer may be so many points off. */
const REACH = 4;

/** The topmost of some marks that lies at a place, in points. */
export function markAt<Each extends Mark>(marks: readonly Each[], x: number, y: number): Each | undefined {
  const holds = ([left, top, width, height]: Box) =>
    x >= left - REACH && x <= left + width + REACH && y >= top - REACH && y <= top + height + REACH;
  return marks.findLast((mark) => (mark.kind === 'highlight' ? mark.boxes.some(holds) : holds(extent(mark))));
}

/** A mark somewhere else on its page. */
export function moved<Each extends Mark>(mark: Each, dx: number, dy: number): Each {
  return {
    ...mark,
    boxes: mark.boxes.map(([x, y, width, height]) => [x + dx, y + dy, width, height]),
    strokes:
      mark.kind === 'drawing'
        ? mark.strokes.map((stroke) => stroke.map(([x, y, wide]) => [x + dx, y + dy, wide]))
        : mark.strokes,
  };
}

const LEAST_SIDE = 12;
const widthOf = (points: number) => Math.min(WIDEST_STROKE, Math.max(THINNEST_STROKE, points));

/** A mark as large as its lower right corner says, where it was dragged to. */
export function resized<Each extends Mark>(mark: Each, dx: number, dy: number): Each {
  const [left, top, width, height] = mark.kind === 'drawing' ? extent(mark) : mark.boxes[0];
  const [wide, high] = [Math.max(LEAST_SIDE, width + dx), Math.max(LEAST_SIDE, height + dy)];
  if (mark.kind === 'text') return { ...mark, boxes: [[left, top, wide, height]] };
  // Signatures keep their shape, and so do drawings.
  const times = Math.max(wide / width, high / height);
  if (mark.kind === 'drawing')
    return {
      ...mark,
      boxes: [[left, top, width * times, height * times]],
      strokes: mark.strokes.map((stroke) =>
        stroke.map(([x, y, w]) => [left + (x - left) * times, top + (y - top) * times, w]),
      ),
    };
  if (mark.kind === 'signature')
    return {
      ...mark,
      boxes: [[left, top, width * times, height * times]],
      strokes: mark.strokes.map((stroke) => stroke.map(([x, y, w]) => [x, y, widthOf(w * times)])),
    };
  return { ...mark, boxes: [[left, top, wide, high]] };
}

/** The lines of words that are selected in the window, by page, as shares of it: one box a line. */
export function selectedLines(selection: Selection): Map<string, { boxes: Box[]; text: string }> {
  const found = new Map<string, { boxes: Box[]; text: string }>();
  if (selection.isCollapsed) return found;
  const range = selection.getRangeAt(0);
  for (const page of document.querySelectorAll<HTMLElement>('[data-page]')) {
    if (!range.intersectsNode(page)) continue;
    const words: string[] = [];
    const boxes = [...page.querySelectorAll('.text-layer > div')].flatMap((line) => {
      const spans = [...line.querySelectorAll<HTMLElement>('span[data-box]')].filter((span) =>
        hasLetterIn(range, span),
      );
      if (spans.length === 0) return [];
      words.push(...spans.map((span) => span.textContent!.trim()));
      return [around(spans.map((span) => span.dataset.box!.split(' ').map(Number) as Box))];
    });
    if (boxes.length > 0) found.set(page.dataset.page!, { boxes, text: words.join(' ') });
  }
  return found;
}

/** Whether a letter of a word is selected: a selection may begin or end between two words. */
function hasLetterIn(range: Range, word: HTMLElement): boolean {
  if (!range.intersectsNode(word)) return false;
  const own = document.createRange();
  own.selectNodeContents(word);
  if (range.compareBoundaryPoints(Range.START_TO_START, own) > 0) own.setStart(range.startContainer, range.startOffset);
  if (range.compareBoundaryPoints(Range.END_TO_END, own) < 0) own.setEnd(range.endContainer, range.endOffset);
  return own.toString().trim() !== '';
}
