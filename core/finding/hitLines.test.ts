import { linesWithHits } from './hitLines';

const term = (form: string, ...others: string[]) => ({ forms: [form, ...others], prefix: false });

it('gives the lines in which something is met, with what was met apart from the rest', () => {
  const pages = [{ pageId: 'a', number: 1, lines: 'Quarry Dye Works\nindigo and more indigo\nnothing here' }];
  expect(linesWithHits(pages, [[term('indigo')]])).toEqual({
    hits: 2,
    lines: [
      {
        pageId: 'a',
        pageNumber: 1,
        pieces: [
          { text: 'indigo', hit: true },
          { text: 'and more', hit: false },
          { text: 'indigo', hit: true },
        ],
      },
    ],
    forms: new Set(['indigo']),
  });
});

it('gives the first four lines of all pages, and counts what comes after', () => {
  const page = (number: number) => ({ pageId: number, number, lines: 'madder\nweld\nmadder\nmadder' });
  const { hits, lines } = linesWithHits([page(1), page(2)], [[term('madder')]]);
  expect(hits).toBe(6);
  expect(lines.map(({ pageNumber }) => pageNumber)).toEqual([1, 1, 1, 2]);
});

it('tells in which spelling something was met', () => {
  const { forms } = linesWithHits([{ pageId: 1, number: 1, lines: 'ind1go' }], [[term('indigo', 'ind1go')]]);
  expect([...forms]).toEqual(['ind1go']);
});
