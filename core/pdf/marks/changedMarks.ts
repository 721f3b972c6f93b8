import { Box } from '../../geometry';
import { Mark, MarkAbout } from './mark';
import { PageMark } from './markPdf';
import { Annotated } from './readMarks';

export type Reply = MarkAbout['replies'][number];

/** What another program did to the marks of a PDF. */
export interface MarkChanges {
  /** Pages counted from 0. */
  added: { page: number; mark: PageMark }[];
  changed: { id: string; was: PageMark; now: PageMark }[];
  removed: string[];
  answered: { id: string; replies: Reply[] }[];
}

/** What moved by less than this, in points, did not move: programs round. */
const ROUNDED = 0.75;

/**
 * What was marked otherwise on the pages of a PDF since it was written.
 * @param was what stood in it then, `now` what stands in it
 * @returns nothing when something was annotated that there is no mark like
 */
export function changedMarks(was: readonly Annotated[], now: readonly Annotated[]): MarkChanges | undefined {
  const changes: MarkChanges = { added: [], changed: [], removed: [], answered: [] };
  for (const [page, { marks, others }] of now.entries()) {
    const before = was[page] ?? { marks: [], others: [] };
    if (others.toSorted().join(' ') !== before.others.toSorted().join(' ')) return undefined;
    const left = [...before.marks];
    for (const mark of marks) {
      const at = left.findIndex((each) => (mark.id ? each.id === mark.id : !each.id && !isChanged(each, mark)));
      if (at < 0) {
        changes.added.push({ page, mark });
        continue;
      }
      const [own] = left.splice(at, 1);
      // What the PDF came with is part of it, and none of the marks that were put on it.
      if (!own.id) continue;
      if (isChanged(own, mark)) changes.changed.push({ id: own.id, was: own, now: mark });
      const replies = mark.replies.filter(({ by, text }) => !own.replies.some((r) => r.by === by && r.text === text));
      if (replies.length > 0) changes.answered.push({ id: own.id, replies });
    }
    changes.removed.push(...left.flatMap(({ id }) => id || []));
  }
  return changes;
}

function isChanged(was: PageMark, now: PageMark): boolean {
  const far = (one: readonly number[], other: readonly number[] | undefined) =>
    !other || one.some((value, at) => Math.abs(value - other[at]) > ROUNDED);
  return (
    was.kind !== now.kind ||
    was.text !== now.text ||
    was.ink !== now.ink ||
    was.boxes.length !== now.boxes.length ||
    was.boxes.some((box, at) => far(box, now.boxes[at])) ||
    was.strokes.some((stroke, at) => stroke.some(([x, y], each) => far([x, y], now.strokes[at]?.[each])))
  );
}

/**
 * A mark as another program left it. A PDF tells how far a mark reaches, its lines counted in, and of drawn lines only where they run:
 * what is known better here goes along by as much as it was moved.
 */
export function changedAs<Each extends Mark>(mark: Each, { was, now }: { was: PageMark; now: PageMark }): Each {
  const boxes = mark.boxes.map((box, at): Box => {
    const [from, to] = [was.boxes[at], now.boxes[at]];
    return from && to ? (box.map((value, side) => value + to[side] - from[side]) as unknown as Box) : box;
  });
  const strokes =
    mark.kind !== 'drawing'
      ? mark.strokes
      : mark.strokes.map((stroke, at) =>
          stroke.map(([x, y, width], each): [number, number, number] => {
            const [from, to] = [was.strokes[at]?.[each], now.strokes[at]?.[each]];
            return from && to ? [x + to[0] - from[0], y + to[1] - from[1], width] : [x, y, width];
          }),
        );
  const isOnOther = now.boxes.length !== was.boxes.length;
  return { ...mark, text: now.text, ink: now.ink, boxes: isOnOther ? now.boxes : boxes, strokes };
}
