import fc from 'fast-check';
import { addTurns, around, Box, Orientation, turnBox, turnOrientation, turnSize, Turn } from './geometry';

const turns: Turn[] = [0, 90, 180, 270];

describe('turning', () => {
  it('puts the top left corner of a page at the top right after a quarter turn clockwise', () => {
    expect(turnBox([0, 0, 10, 4], 100, 200, 90)).toEqual([196, 0, 4, 10]);
  });

  it('comes back to where it began after turns that add up to a full one', () => {
    fc.assert(
      fc.property(fc.constantFrom(...turns), fc.nat(50), fc.nat(50), fc.nat(40), fc.nat(40), (turn, x, y, w, h) => {
        const box: Box = [x, y, w, h];
        const [width, height] = turnSize(120, 160, turn);
        expect(turnBox(turnBox(box, 120, 160, turn), width, height, addTurns(360, -turn))).toEqual(box);
      }),
    );
  });

  it('keeps a mirrored picture mirrored, and needs four quarters to come round', () => {
    for (const orientation of [1, 2, 3, 4, 5, 6, 7, 8] as Orientation[]) {
      const mirrored = [2, 4, 5, 7];
      expect(mirrored.includes(turnOrientation(orientation, 90))).toBe(mirrored.includes(orientation));
      expect(turnOrientation(turnOrientation(orientation, 270), 90)).toBe(orientation);
    }
    expect(turnOrientation(1, 90)).toBe(6);
  });
});

it('finds the box around several', () => {
  expect(
    around([
      [5, 5, 10, 2],
      [0, 6, 3, 9],
    ]),
  ).toEqual([0, 5, 15, 10]);
});
