import { Placed } from '@crow/core/sorting/arrangement';
import { GAP, layInRows, pageBeside } from './rows';

/** Pages of documents with so many pages each. */
function pagesOf(...documents: number[]): Placed[] {
  return documents.flatMap((count, number) =>
    Array.from({ length: count }, (_, place): Placed => ({
      id: `${number}-${place}`,
      turn: 0,
      version: '',
      cutBefore: place === 0 && number > 0,
      cutDecided: false,
      dropped: false,
      dropDecided: false,
    })),
  );
}

it('lays the sheets of a document a little over each other, and documents apart', () => {
  const [row] = layInRows(pagesOf(2, 1), 1000, 200);
  const [first, second, other] = row;
  expect(second.left).toBeGreaterThan(first.left + 150);
  expect(second.left).toBeLessThan(first.left + 200);
  expect(second.top).toBeGreaterThan(first.top);
  expect(other.left).toBe(second.left + 200 + GAP);
  expect(other.top).toBe(0);
  expect([first.run, second.run, other.run]).toEqual([second.left + 200, 0, 200]);
});

it('goes on in the next row where one is full, with a document as it comes', () => {
  const rows = layInRows(pagesOf(8), 600, 200);
  expect(rows.map((row) => row.map(({ index }) => index))).toEqual([
    [0, 1, 2],
    [3, 4, 5],
    [6, 7],
  ]);
  for (const row of rows) {
    expect(row[0]).toMatchObject({ left: 0, top: 0 });
    expect(row.at(-1)!.left + 200).toBeLessThanOrEqual(600);
  }
});

it('lays a divider sheet apart from the document before it', () => {
  const pages = pagesOf(2, 1).map((page, at) =>
    at === 1 ? { ...page, dropped: true, divider: { folder: null } } : page,
  );
  const [[first, divider, other]] = layInRows(pages, 1000, 200);
  expect(divider.left).toBeGreaterThan(first.left + 200);
  expect(divider.top).toBe(0);
  expect(other.left).toBeGreaterThan(divider.left + 200);
  expect(first.run).toBe(200);
});

it('has one page a row where no more fit', () => {
  expect(layInRows(pagesOf(1, 1, 1), 150, 200).map((row) => row.length)).toEqual([1, 1, 1]);
});

it('goes up and down to the nearest page, and at the edges to the first and the last', () => {
  const rows = layInRows(pagesOf(1, 1, 1, 2, 1), 760, 200);
  expect(rows.map((row) => row.map(({ index }) => index))).toEqual([
    [0, 1, 2],
    [3, 4, 5],
  ]);
  expect(pageBeside(rows, 1, 1)).toBe(4);
  expect(pageBeside(rows, 5, -1)).toBe(2);
  expect(pageBeside(rows, 1, -1)).toBe(0);
  expect(pageBeside(rows, 4, 1)).toBe(5);
});
