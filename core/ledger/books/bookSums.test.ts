import { sumsBy, SummedEntry } from './bookSums';

const entry = (
  day: string,
  parts: [string | null, string, number, number][],
  who = 'A',
  currency = 'GBP',
): SummedEntry => ({
  day,
  who,
  currency,
  parts: parts.map(([categoryId, taxCode, net, tax]) => ({ categoryId, taxCode, net, tax })),
});
const ENTRIES = [
  entry('2026-03-01', [
    ['yarn', 'GB-S', 1000, 200],
    ['post', 'GB-Z', 300, 0],
    ['yarn', 'GB-Z', 50, 0],
  ]),
  entry('2026-01-09', [['yarn', 'GB-S', -100, -20]], 'B'),
  entry('2025-03-20', [['yarn', 'GB-S', 700, 140]]),
  entry('2024-03-20', [['yarn', 'GB-S', 9, 1]]),
  entry('2026-03-01', [[null, 'DE-S', 5000, 950]], 'C', 'EUR'),
];
const sums = (by: Parameters<typeof sumsBy>[1]) =>
  sumsBy(ENTRIES, by, { year: '2026', currency: 'GBP' }).map((row) => [row.key, row.entries, row.total, row.before]);

it('adds up a year by category, each entry once, beside the year before', () => {
  expect(sums('category')).toEqual([
    ['yarn', 2, 1130, 840],
    ['post', 1, 300, 0],
  ]);
});

it('adds up by tax code what comes in apart from what goes out, a credit note with what it gives back', () => {
  const entries = [
    entry('2026-01-05', [['yarn', 'GB-S', 1000, 200]]),
    entry('2026-02-05', [['yarn', 'GB-S', -100, -20]]),
    entry('2026-02-09', [['sales', 'GB-S', -5000, -1000]]),
    entry('2026-03-09', [[null, 'GB-S', -50, -10]]),
    entry('2026-04-01', [['sales', 'GB-S', -1, 0]]),
  ];
  const isIncome = (category: string) => category === 'sales';
  const quarter = sumsBy(entries, 'tax', { year: '2026', currency: 'GBP', months: [1, 3], isIncome });
  expect(quarter.map(({ key, entries: count, net, tax }) => [key, count, net, tax])).toEqual([
    ['in GB-S', 2, -5050, -1010],
    ['GB-S', 2, 900, 180],
  ]);
});

it('adds up by month in their order, by tax code, and by sender', () => {
  expect(sums('month')).toEqual([
    ['01', 1, -120, 0],
    ['03', 1, 1550, 840],
  ]);
  expect(sums('tax')).toEqual([
    ['GB-S', 2, 1080, 840],
    ['GB-Z', 1, 350, 0],
  ]);
  expect(sums('who')).toEqual([
    ['A', 1, 1550, 840],
    ['B', 1, -120, 0],
  ]);
  expect(sumsBy(ENTRIES, 'category', { year: '2026', currency: 'EUR' })).toMatchObject([{ key: '', total: 5950 }]);
});
