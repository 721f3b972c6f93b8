import { connectedComponents, inkPieces } from './components';

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
