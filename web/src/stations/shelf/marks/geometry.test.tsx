import { Turn } from '@crow/core/geometry';
import { Mark } from '@crow/core/pdf/marks/mark';
import { markAt, moved, resized, selectedLines, shareAt } from './geometry';
import { movedByKey } from './MarkLayer';

const mark = (id: string, part: Partial<Mark>): Mark => ({
  id,
  kind: 'stamp',
  ink: 'sea',
  boxes: [[100, 100, 80, 40]],
  strokes: [],
  text: 'PAID',
  ...part,
});

it.each<[Turn, [number, number]]>([
  [0, [0.25, 0.1]],
  [90, [0.1, 0.75]],
  [180, [0.75, 0.9]],
  [270, [0.9, 0.25]],
])('knows where on a page that is shown turned by %i° a place of the window is', (turn, place) => {
  const frame = new DOMRect(10, 20, 400, 200);
  expect(shareAt(frame, turn, 10 + 100, 20 + 20).map((share) => Math.round(share * 100) / 100)).toEqual(place);
});

it('picks the topmost mark, and of a highlight only its lines', () => {
  const marks = [
    mark('stamp', {}),
    mark('lines', {
      kind: 'highlight',
      boxes: [
        [0, 120, 300, 10],
        [0, 180, 300, 10],
      ],
    }),
  ];
  expect(markAt(marks, 140, 125)?.id).toBe('lines');
  expect(markAt(marks, 140, 110)?.id).toBe('stamp');
  expect(markAt(marks, 20, 155)).toBeUndefined();
});

it('makes the lines of a signature wider along with it', () => {
  const signature = mark('s', { kind: 'signature', strokes: [[[0, 0.5, 1]]] });
  expect(resized(signature, 80, 10)).toMatchObject({ boxes: [[100, 100, 160, 80]], strokes: [[[0, 0.5, 2]]] });
});

it('moves drawings with their lines, and leaves those of signatures, which are shares of their box', () => {
  const drawing = mark('d', {
    kind: 'drawing',
    strokes: [
      [
        [1, 2, 3],
        [4, 5, 3],
      ],
    ],
  });
  expect(moved(drawing, 10, 20).strokes).toEqual([
    [
      [11, 22, 3],
      [14, 25, 3],
    ],
  ]);
  const signature = mark('s', { kind: 'signature', strokes: [[[0, 0.5, 1]]] });
  expect(moved(signature, 10, 20)).toMatchObject({ boxes: [[110, 120, 80, 40]], strokes: [[[0, 0.5, 1]]] });
});

it('keeps the shape of signatures and drawings when they become larger, and the height of texts', () => {
  expect(resized(mark('s', { kind: 'signature' }), 80, 0).boxes[0]).toEqual([100, 100, 160, 80]);
  expect(resized(mark('t', { kind: 'text' }), 40, 99).boxes[0]).toEqual([100, 100, 120, 40]);
  expect(resized(mark('p', {}), -500, 10).boxes[0]).toEqual([100, 100, 12, 50]);
});

it('moves by arrow keys what is not on words, farther with Shift', () => {
  const shown = (part: Partial<Mark>) => ({ ...mark('a', part), pageId: '', by: '', at: '', replies: [] });
  expect(movedByKey(shown({}), { key: 'ArrowLeft', shiftKey: false })?.boxes[0]).toEqual([98, 100, 80, 40]);
  expect(movedByKey(shown({}), { key: 'ArrowDown', shiftKey: true })?.boxes[0]).toEqual([100, 120, 80, 40]);
  expect(movedByKey(shown({ kind: 'strike' }), { key: 'ArrowDown', shiftKey: false })).toBeUndefined();
  expect(movedByKey(shown({}), { key: 'Enter', shiftKey: false })).toBeUndefined();
});

it('takes selected words line by line, on each page that they are on', () => {
  const word = (text: string, box: string) => `<span data-box="${box}">${text} </span>`;
  document.body.innerHTML = `
    <section data-page="one"><div class="text-layer">
      <div>${word('Lease', '0.1 0.1 0.1 0.02')}${word('of', '0.25 0.1 0.05 0.02')}</div>
      <div>${word('the', '0.1 0.2 0.05 0.03')}</div>
    </div></section>
    <section data-page="two"><div class="text-layer"><div>${word('boat', '0.3 0.4 0.1 0.02')}</div></div></section>`;
  const words = document.querySelectorAll('span');
  const selection = window.getSelection()!;
  selection.setBaseAndExtent(words[1].firstChild!, 0, words[3].firstChild!, 2);
  const found = selectedLines(selection);
  expect([...found].map(([page, { text, boxes }]) => [page, text, boxes.length])).toEqual([
    ['one', 'of the', 2],
    ['two', 'boat', 1],
  ]);
  expect(found.get('one')!.boxes[0]).toEqual([0.25, 0.1, expect.closeTo(0.05), expect.closeTo(0.02)]);
  selection.removeAllRanges();
  expect(selectedLines(selection).size).toBe(0);
});
