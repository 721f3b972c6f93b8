import { Comparable, entriesFor, pairPapers } from './paperFits';

const PAPER: Comparable = {
  who: 'Harbour Fibre Mill Ltd',
  number: 'HF-2291',
  day: '2026-03-01',
  units: 18_420,
  currency: 'GBP',
};
const entry = (id: string, given: Partial<Comparable> = {}) => ({ ...PAPER, id, ...given });

describe('the entry that a paper is of', () => {
  it('is that with its number, amount and sender, whatever else is in the books', () => {
    const others = Array.from({ length: 40 }, (_, at) => entry(`o${at}`, { number: `HF-${at}`, units: 1000 + at }));
    const [first, second] = entriesFor(PAPER, [...others, entry('own')]);
    expect(first).toMatchObject({ id: 'own', alike: ['number', 'amount', 'who', 'day'] });
    expect(first.confidence).toBeGreaterThan(0.99);
    expect(second).toBeUndefined();
  });

  it('is likely where it was entered without a number, some days off', () => {
    const [first] = entriesFor(PAPER, [entry('own', { number: '', day: '2026-03-06', who: 'Harbour Fibre' })]);
    expect(first.id).toBe('own');
    expect(first.confidence).toBeGreaterThan(0.9);
  });

  it('is asked about where two are as likely', () => {
    const two = [entry('a', { number: '' }), entry('b', { number: '' })];
    const found = entriesFor(PAPER, two);
    expect(found).toHaveLength(2);
    for (const { confidence } of found) expect(confidence).toBeLessThan(0.6);
  });

  it('is none where only the amount, or only the sender, is the same', () => {
    expect(entriesFor(PAPER, [entry('a', { who: 'Quayside Parcels', number: '771', day: '2026-09-01' })])).toEqual([]);
    expect(entriesFor(PAPER, [entry('a', { units: 99, number: 'HF-1', day: '2025-03-01' })])).toEqual([]);
  });
});

it('several papers are each of an entry of their own, the likeliest first', () => {
  const entries = [
    entry('first', { day: '2026-03-02', number: '' }),
    entry('second', { day: '2026-04-02', number: '' }),
  ];
  const april = { ...PAPER, day: '2026-04-01', number: 'HF-2340' };
  const other = { ...PAPER, who: 'Quayside Parcels', units: 77 };
  const found = pairPapers([other, april, PAPER], entries);
  expect([...found].map(([at, { id }]) => [at, id]).sort()).toEqual([
    [1, 'second'],
    [2, 'first'],
  ]);
  // One entry for two papers that fit it alike: one of them has it.
  expect(pairPapers([PAPER, PAPER], [entry('own')]).size).toBe(1);
});
