import { connectedComponents, inkPieces, letterHeight } from './components';

/** Ink drawn with # on paper. */
function drawn(...rows: string[]) {
  const data = Uint8Array.from(rows.join(''), (sign) => (sign === '#' ? 1 : 0));
  return { width: rows[0].length, height: rows.length, data };
}

it('finds pieces that touch at sides and corners, numbered from the top, with their extent', () => {
  const ink = drawn('##....#.#', '..#...#.#', '......###', '#........');
  const { components, labels } = connectedComponents(ink);
  expect(components).toEqual([
    { left: 0, top: 0, right: 2, bottom: 1, pixels: 3 },
    { left: 6, top: 0, right: 8, bottom: 2, pixels: 7 },
    { left: 0, top: 3, right: 0, bottom: 3, pixels: 1 },
  ]);
  expect([...labels]).toEqual([...'110000202001000202000000222300000000'].map(Number));
  expect(inkPieces(ink)).toEqual(components);
});

it('tells rows apart where ink ends one and begins the next', () => {
  expect(connectedComponents(drawn('...##', '.....', '#....')).components).toHaveLength(2);
  expect(connectedComponents(drawn('....#', '#....')).components).toHaveLength(2);
});

it('joins what meets only further down, however many runs there are', () => {
  const comb = drawn(...Array<string>(40).fill('#.'.repeat(200)), '#'.repeat(400));
  const { components } = connectedComponents(comb);
  expect(components).toEqual([{ left: 0, top: 0, right: 399, bottom: 40, pixels: 40 * 200 + 400 }]);
});

it('finds the same in ink that does not begin with a word in memory', () => {
  const { width, height, data } = drawn('..........##', '#...........');
  const moved = new Uint8Array(data.length + 1).subarray(1);
  moved.set(data);
  expect(connectedComponents({ width, height, data: moved })).toEqual(connectedComponents({ width, height, data }));
});

it('takes the height of letters from letters, however many dots lead from them to their figures', () => {
  const piece = (left: number, top: number, w: number, h: number, share: number) => ({
    left,
    right: left + w - 1,
    top,
    bottom: top + h - 1,
    pixels: Math.round(share * w * h),
  });
  const letters = Array.from({ length: 60 }, (_, at) => piece(at * 20, 40, 14, 22, 0.45));
  const dots = Array.from({ length: 400 }, (_, at) => piece(at * 8, 58, 5, 5, 0.9));
  expect(letterHeight(letters)).toBe(22);
  expect(letterHeight([...letters, ...dots])).toBe(22);
  // Small letters whose insides have run full are letters.
  expect(letterHeight(Array.from({ length: 60 }, (_, at) => piece(at * 9, 40, 7, 7, 0.8)))).toBe(7);
});
