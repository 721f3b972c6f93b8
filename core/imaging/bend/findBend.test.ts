import { Point, wholeQuad } from '../quad';
import { bentSheet } from './findBend';

const picture = { width: 10, height: 10, channels: 1 as const, data: new Uint8Array(100) };
const through = (from: (point: Point) => Point) => bentSheet(wholeQuad(200, 300), { picture, at: from, from });

it('takes the shape of a sheet as it is seen', () => {
  const sheet = through(([x, y]) => [40 + x + 0.0005 * x * y, 30 + y + 20 * Math.sin(x / 64)]);
  expect(sheet!.aspect).toBeCloseTo(2 / 3, 2);
  expect(sheet!.corners[0]).toEqual([40, 30]);
});

it.each<[string, (point: Point) => Point]>([
  ['is nowhere', () => [NaN, NaN]],
  ['lies in one point', () => [5, 5]],
  ['lies on a line', ([x, y]) => [x + y, x + y]],
  ['is seen from behind', ([x, y]) => [-x, y]],
  ['has one corner in the middle', ([x, y]) => (x > 0 && y > 0 ? [60, 90] : [x, y])],
  ['goes far out between its corners', ([x, y]) => [x, y + (x % 200 > 0 && y % 300 > 0 ? 1e6 : 0)]],
])('takes a shape for none that %s', (_, from) => expect(through(from)).toBeUndefined());
