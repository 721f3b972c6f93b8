import { turnBox, Turn } from '../../geometry';
import { Mark } from './mark';

/** A mark on a page that is shown turned by so much more than when it was put there. @param width, height of the page before, in points */
export function turnMark<Each extends Mark>(mark: Each, turn: Turn, width: number, height: number): Each {
  if (turn === 0) return mark;
  // What is drawn lies on the page; of signatures in their box, as shares of it.
  const [across, down] = mark.kind === 'signature' ? [1, 1] : [width, height];
  const point = (x: number, y: number) => turnBox([x, y, 0, 0], across, down, turn).slice(0, 2) as [number, number];
  return {
    ...mark,
    boxes: mark.boxes.map((box) => turnBox(box, width, height, turn)),
    strokes: mark.strokes.map((stroke) => stroke.map(([x, y, wide]) => [...point(x, y), wide])),
  };
}
