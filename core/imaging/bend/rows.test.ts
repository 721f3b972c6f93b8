import { Ink } from '../ink';
import { leastSquares } from './linear';
import { mayBeBent, offLevel, printedRules, textRows } from './rows';

const [WIDTH, HEIGHT] = [700, 500];

/** Letters as blocks, eight wide and ten high, some of which rise above or hang below their row. */
function inkOf(rowAt: (row: number, x: number) => number, rows: number, from = 60, to = 640): Ink {
  const data = new Uint8Array(WIDTH * HEIGHT);
  for (let row = 0; row < rows; row++) {
    for (let x = from, letter = 0; x < to; x += 12, letter++) {
      if (letter % 6 === 5) continue;
      const foot = Math.round(rowAt(row, x + 4));
      const [above, below] = [letter % 4 === 1 ? 15 : 10, letter % 7 === 3 ? 5 : 0];
      for (let y = foot - above + 1; y <= foot + below; y++)
        for (let dx = 0; dx < 8; dx++) data[y * WIDTH + x + dx] = 1;
    }
  }
  return { width: WIDTH, height: HEIGHT, data };
}

it('follows rows that bend, and leaves out letters that hang below', () => {
  const rowAt = (row: number, x: number) => 60 + 40 * row + 30 * Math.sin(x / 200);
  const rows = textRows(inkOf(rowAt, 8));
  expect(rows).toHaveLength(8);
  for (const [index, { feet }] of rows.sort((a, b) => a.feet[0][1] - b.feet[0][1]).entries())
    for (const [x, y] of feet) expect(Math.abs(y - rowAt(index, x))).toBeLessThan(2);
});

it('makes two rows of what stands far apart, as in two columns', () => {
  const left = inkOf((row) => 80 + 40 * row, 6, 60, 300);
  const right = inkOf((row) => 80 + 40 * row, 6, 400, 640);
  const both = { ...left, data: left.data.map((each, at) => each | right.data[at]) };
  expect(textRows(both)).toHaveLength(12);
});

it.each<[string, boolean, (row: number, x: number) => number]>([
  ['bent', true, (row, x) => 60 + 40 * row + 30 * Math.sin(x / 200)],
  ['bent along a slant, each row nearly straight', true, (row, x) => 60 + 44 * row + ((x - 350) * (row % 4)) / 60],
  ['level', false, (row) => 60 + 40 * row],
  ['aslant', false, (row, x) => 40 + 40 * row + x / 12],
  ['seen aslant', false, (row, x) => 60 + 40 * row + ((x - 350) * (row - 4)) / 80],
])('tells from rows whether a sheet may be bent: %s', (_, bent, rowAt) =>
  expect(mayBeBent(textRows(inkOf(rowAt, 9)))).toBe(bent),
);

it('finds none on a page without print', () =>
  expect(textRows({ width: WIDTH, height: HEIGHT, data: new Uint8Array(WIDTH * HEIGHT) })).toEqual([]));

it('fits numbers to what was measured', () => {
  const [slope, offset] = leastSquares(
    [
      [0, 1],
      [1, 1],
      [2, 1],
      [3, 1],
    ],
    [1, 3, 5, 99],
    [1, 1, 1, 0],
  );
  expect([slope, offset].map((each) => each.toFixed(6))).toEqual(['2.000000', '1.000000']);
});

it('a sheet without print is not taken for bent', () => expect(mayBeBent([])).toBe(false));

it.each<[string, boolean, (row: number, x: number) => number]>([
  ['level', true, (row) => 60 + row * 40],
  ['all a little askew, as print may stand on its sheet', true, (row, x) => 60 + row * 40 + 0.008 * x],
  ['all clearly aslant', false, (row, x) => 60 + row * 40 + 0.05 * x],
  ['aslant on one half, as beyond a fold', false, (row, x) => 60 + row * 40 + 0.1 * Math.max(0, x - 350)],
])('tells how far off level rows are that are %s (little: %s)', (_, isLittle, rowAt) => {
  expect(offLevel(textRows(inkOf(rowAt, 8))) < 0.12).toBe(isLittle);
});

describe('printed rules', () => {
  const rowAt = (row: number) => 60 + 60 * row;
  /** A sheet folded at the middle, with a rule two pixels thick below the second row. */
  const broken = (x: number) => 150 + 0.04 * Math.abs(x - 350);
  const withRule = (from = 60, to = 640, thickness = 2) => {
    const ink = inkOf(rowAt, 6);
    for (let x = from; x < to; x++)
      for (let y = 0; y < thickness; y++) ink.data[(Math.round(broken(x)) + y) * WIDTH + x] = 1;
    return ink;
  };

  it('are followed over a fold, where rows of letters end', () => {
    const [rule, ...others] = printedRules(withRule());
    expect(others).toEqual([]);
    expect(rule.feet[rule.feet.length - 1][0] - rule.feet[0][0]).toBeGreaterThan(550);
    for (const [x, y] of rule.feet) expect(Math.abs(y - broken(x))).toBeLessThan(2);
  });

  it.each<[string, Ink]>([
    ['letters', inkOf(rowAt, 6)],
    ['a short stroke', withRule(300, 380)],
    ['a bar as thick as letters', withRule(60, 640, 14)],
  ])('are not seen in %s', (_, ink) => expect(printedRules(ink)).toEqual([]));
});
