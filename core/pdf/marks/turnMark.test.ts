import { Mark } from './mark';
import { turnMark } from './turnMark';

const mark: Mark = {
  ...{ id: 'm', kind: 'signature', ink: 'sea', text: '' },
  boxes: [[10, 20, 60, 30]],
  strokes: [
    [
      [0, 0, 1],
      [1, 0.5, 1],
    ],
  ],
};

it('turns a signature within its box, as its page was turned', () => {
  const turned = turnMark(mark, 90, 200, 300);
  expect(turned.boxes).toEqual([[300 - 20 - 30, 10, 30, 60]]);
  // What was at the left is at the top.
  expect(turned.strokes).toEqual([
    [
      [1, 0, 1],
      [0.5, 1, 1],
    ],
  ]);
  expect(turnMark(turned, 270, 300, 200)).toEqual(mark);
});

it('turns a drawing with the page it is on', () => {
  const drawing: Mark = { ...mark, kind: 'drawing', strokes: [[[10, 20, 2]]] };
  expect(turnMark(drawing, 180, 200, 300).strokes).toEqual([[[190, 280, 2]]]);
});
