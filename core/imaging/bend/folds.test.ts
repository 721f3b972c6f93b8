import { applyHomography, homography } from '../homography';
import { Point, Quad, wholeQuad } from '../quad';
import { bentRow } from './bend';
import { besideFold, foldedSheet } from './folds';
import { BOTTOM, HEIGHT, LEFT, piece, RIGHT, seen, SIZE, TOP, WIDTH } from './testing/foldedPaper';

it.each([
  ['the left one first', LEFT, RIGHT],
  ['their corners beginning elsewhere', [...LEFT.slice(2), ...LEFT.slice(0, 2)] as Quad, RIGHT],
])('two pieces are one folded sheet, of its true shape, %s', (_, one, other) => {
  const found = foldedSheet(besideFold(one, other)!, SIZE)!;
  expect(found.aspect).toBeCloseTo(WIDTH / HEIGHT, 2);
  expect(found.folds[0][0]).toBeCloseTo(TOP / WIDTH, 2);
  expect(found.folds[0][1]).toBeCloseTo(BOTTOM / WIDTH, 2);
  const inPicture = homography(wholeQuad(1, 1), found.corners);
  for (const [u, v] of [
    [0.1, 0.2],
    [0.44, 0.5],
    [0.56, 0.5],
    [0.9, 0.9],
  ] as Point[]) {
    // prettier-ignore
    const [x, y] = applyHomography(inPicture, bentRow(found.bend, v)(u));
    const [trueX, trueY] = seen([u * WIDTH, v * HEIGHT]);
    expect(Math.hypot(x - trueX, y - trueY)).toBeLessThan(2.5);
  }
});

it('sheets beside each other with a gap are none', () =>
  expect(besideFold(LEFT, RIGHT.map(([x, y]) => [x + 60, y]) as Quad)).toBeUndefined());

it('nor are two with a side in common whose other sides do not fit', () => {
  const wide = piece([TOP, 0], [WIDTH + 200, 0], [WIDTH - 30, HEIGHT], [BOTTOM, HEIGHT]);
  expect(foldedSheet(besideFold(LEFT, wide)!, SIZE)).toBeUndefined();
});

it("corners that are no sheet's give none, and no error", () => {
  const line: [number, number][] = [100, 200, 300, 400].map((at) => [at, at]);
  const [a, b, c, d] = line;
  expect(foldedSheet([[a, b, c, d], [b, c, d, a]], SIZE)).toBeUndefined(); // prettier-ignore
});
