import { Point, Quad } from '../quad';
import { bendOver, bentOutline, bentRow, isBend } from './bend';

const corners: Quad = [
  [100, 50],
  [500, 80],
  [520, 700],
  [90, 660],
];
/** A sheet whose middle is pulled down, and whose sides stay. */
const sagging = ([u, v]: Point): Point => {
  const [top, bottom] = [0, 1].map((end): Point => {
    const [from, to] = end === 0 ? [corners[0], corners[1]] : [corners[3], corners[2]];
    return [from[0] + u * (to[0] - from[0]), from[1] + u * (to[1] - from[1]) + 30 * Math.sin(Math.PI * u)];
  });
  return [top[0] + v * (bottom[0] - top[0]), top[1] + v * (bottom[1] - top[1])];
};

const bend = bendOver(corners, sagging);

it('has the corners of the sheet as its own', () => {
  const first = bentRow(bend, 0);
  const last = bentRow(bend, 1);
  for (const [seen, wanted] of [
    [first(0), [0, 0]],
    [first(1), [1, 0]],
    [last(1), [1, 1]],
    [last(0), [0, 1]],
  ])
    wanted.forEach((each, index) => expect(seen[index]).toBeCloseTo(each, 4));
});

it('goes smoothly between the points of its mesh, and straight on beyond them', () => {
  const row = bentRow(bend, 0.37);
  for (let u = 0.02; u < 1; u += 0.013) {
    const [before, here, after] = [row(u - 0.005), row(u), row(u + 0.005)];
    expect(Math.abs(before[1] - 2 * here[1] + after[1])).toBeLessThan(2e-4);
  }
  const [x0, x1, x2] = [row(-0.02), row(-0.01), row(0)].map(([x]) => x);
  expect(x0 - 2 * x1 + x2).toBeCloseTo(0, 6);
});

it('has an outline that follows the bent sides', () => {
  const outline = bentOutline(corners, bend);
  const middle = outline.find(([x]) => Math.abs(x - 300) < 1)!;
  expect(middle[1]).toBeCloseTo(65 + 30, -0.5);
  expect(outline).toHaveLength(2 * (bend.across + bend.down));
});

it.each([
  ['in one place', corners.map((): Point => [0, 0])],
  ['three on a line', [corners[0], [300, 65], corners[1], corners[3]]],
])('keeps straight sides when the corners are drawn together: %s', (_, together) =>
  expect(bentOutline(together as Quad, bend)).toEqual(together),
);

it.each([
  ['nothing', undefined],
  ['a mesh with too few places', { across: 2, down: 2, places: [0, 0] }],
  ['places that are none', { across: 1, down: 1, places: [0, 0, 1, 0, 0, 1, NaN, 1] }],
  ['places far off', { across: 1, down: 1, places: [0, 0, 1, 0, 0, 1, 900, 1] }],
  ['a mesh without end', { across: 1e9, down: 1, places: [] }],
])('is not %s', (_, value) => expect(isBend(value)).toBe(false));

it('is a mesh of points', () => expect(isBend(JSON.parse(JSON.stringify(bend)))).toBe(true));
