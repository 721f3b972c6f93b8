import { PilePage } from './gaps';
import { PageSigns, signsOf } from './signs';
import { weave } from './weave';

type Side = PilePage & { name: string };

const A4: [number, number] = [595, 842];

/** A page that is numbered so, of a letter of so many pages. */
function side(name: string, page: number, of: number): Side {
  const lines = [`Agreement ${of}`, 'the looms are kept in the usual order of', `Page ${page} of ${of}`];
  const words = lines.flatMap((text, row) =>
    text.split(' ').map((word, at) => ({
      text: word,
      box: [60 + at * 60, row === 2 ? 780 : 80 + row * 20, 50, 12] as [number, number, number, number],
      confidence: 0.95,
      line: row,
      baseline: row === 2 ? 790 : 90 + row * 20,
    })),
  );
  const signs: PageSigns = signsOf({ width: 595, height: 842, language: 'eng', words } as never, A4);
  return { name, signs, size: A4, blank: false };
}
const empty = (name: string): Side => ({ name, signs: null, size: A4, blank: true });

/** Two papers of four pages and one of two, on five sheets. */
const FRONTS = [side('a1', 1, 4), side('a3', 3, 4), side('b1', 1, 6), side('b3', 3, 6), side('b5', 5, 6)];
const BACKS = [side('a2', 2, 4), side('a4', 4, 4), side('b2', 2, 6), side('b4', 4, 6), side('b6', 6, 6)];
const named = (sheets: { front: Side | null; back: Side | null }[]) =>
  sheets.map(({ front, back }) => `${front?.name ?? '–'}/${back?.name ?? '–'}`).join(' ');

it('puts backs that came in reverse behind their fronts', () => {
  const { sheets, reversed } = weave(FRONTS, [...BACKS].reverse());
  expect(reversed).toBe(true);
  expect(named(sheets)).toBe('a1/a2 a3/a4 b1/b2 b3/b4 b5/b6');
});

it('notices by the numbers that they came in the order of the fronts', () => {
  const { sheets, reversed } = weave(FRONTS, BACKS);
  expect(reversed).toBe(false);
  expect(named(sheets)).toBe('a1/a2 a3/a4 b1/b2 b3/b4 b5/b6');
});

it('takes blank backs as they come, in reverse unless something speaks against it', () => {
  const backs = [empty('5'), empty('4'), empty('3'), empty('2'), empty('1')];
  expect(named(weave(FRONTS, backs).sheets)).toBe('a1/1 a3/2 b1/3 b3/4 b5/5');
});

it('finds the place where a back is missing', () => {
  const { sheets, reversed } = weave(FRONTS, BACKS.filter(({ name }) => name !== 'b2').reverse());
  expect(reversed).toBe(true);
  expect(named(sheets)).toBe('a1/a2 a3/a4 b1/– b3/b4 b5/b6');
});

it('finds the place where a front is missing', () => {
  const { sheets } = weave(
    FRONTS.filter(({ name }) => name !== 'a3'),
    [...BACKS].reverse(),
  );
  expect(named(sheets)).toBe('a1/a2 –/a4 b1/b2 b3/b4 b5/b6');
});
