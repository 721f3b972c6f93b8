import { gapInWords, isDoubtful, nextDoubtful } from './gaps';

type Gap = Parameters<typeof isDoubtful>[0];

const gap = (index: number, chance: number | null, rest: Partial<Gap> = {}): Gap => ({
  index,
  dropped: false,
  cutBefore: (chance ?? 0) >= 0.5,
  cutDecided: false,
  reading: 'read',
  proposal:
    chance === null ? null : { chance, sure: Math.max(chance, 1 - chance) > 0.96, why: ['it has a letterhead'] },
  ...rest,
});

describe('a doubtful gap', () => {
  it('is one that is not sure and that nobody has decided', () => expect(isDoubtful(gap(3, 0.7))).toBe(true));
  it.each([
    ['sure', gap(3, 0.99)],
    ['decided', gap(3, 0.7, { cutDecided: true })],
    ['before a page that was dropped', gap(3, 0.7, { dropped: true })],
    ['before the first page', gap(0, 0.7)],
    ['before a blank page', gap(3, null)],
    ['before a page that is still to be read, so that it may become sure', gap(3, 0.7, { reading: 'waiting' })],
  ])('is none that is %s', (_what, each) => expect(isDoubtful(each)).toBe(false));
});

it('walks from one doubtful gap to the next, round about, to both sides', () => {
  const pages = [gap(0, null), gap(1, 0.7), gap(2, 0.99), gap(3, 0.4), gap(4, 0.02)];
  expect(nextDoubtful(pages, 1)).toBe(3);
  expect(nextDoubtful(pages, 3)).toBe(1);
  expect(nextDoubtful(pages, 0, -1)).toBe(3);
  expect(nextDoubtful([gap(0, null), gap(1, 0.99)], 0)).toBe(-1);
});

it('says how sure it is, what it means and why; or who decided', () => {
  expect(gapInWords(gap(2, 0.98))).toBe('Surely a new document begins here: it has a letterhead.');
  expect(gapInWords(gap(2, 0.1))).toBe('Probably this page goes on with the document before: it has a letterhead.');
  expect(gapInWords(gap(2, 0.6))).toMatch(/^Perhaps a new document begins here/);
  expect(gapInWords(gap(2, 0.6, { cutDecided: true }))).toBe('You have cut here.');
  expect(gapInWords(gap(0, 0.6))).toBeUndefined();
});
