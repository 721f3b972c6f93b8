import { findMissing } from './missing';
import { Paper } from './paper';

const of = (vendor: string, ...dates: string[]): Paper[] =>
  dates.map((date) => ({
    id: `${vendor} ${date}`,
    kind: 'invoice',
    vendor,
    date,
    dueDate: null,
    ends: null,
    total: null,
    pages: 1,
  }));

it('misses the one in between of papers that come every month, on about the same day', () => {
  const bills = of('Fen Water', '2026-01-05', '2026-02-03', '2026-03-06', '2026-05-04', '2026-06-05');
  expect(findMissing(bills, '2026-06-20')).toEqual([
    { vendor: 'Fen Water', kind: 'invoice', months: 1, around: '2026-04-05', after: '2026-03-06', last: false },
  ]);
});

it('misses the next one when it is late, and not before', () => {
  const bills = of('Fen Water', '2025-11-30', '2025-12-31', '2026-01-31');
  expect(findMissing(bills, '2026-03-05')).toEqual([]);
  expect(findMissing(bills, '2026-03-25')).toMatchObject([{ around: '2026-03-02', last: true }]);
});

it('knows quarters and years', () => {
  const rent = of('Estate', '2025-01-06', '2025-04-03', '2025-07-02', '2026-01-07');
  expect(findMissing(rent, '2026-02-01')).toMatchObject([{ months: 3, around: '2025-10-01' }]);
  const cover = of('Pell', '2022-05-06', '2023-05-04', '2024-05-07', '2026-05-05');
  expect(findMissing(cover, '2026-06-01')).toMatchObject([{ months: 12, around: '2025-05-07' }]);
});

it('misses nothing from who sends papers now and then, or has ceased to send any', () => {
  expect(findMissing(of('Yarns', '2026-01-05', '2026-01-19', '2026-04-02', '2026-08-23'), '2026-10-01')).toEqual([]);
  expect(findMissing(of('Fen Water', '2025-01-05', '2025-02-03', '2025-03-06'), '2026-01-01')).toEqual([]);
  expect(findMissing(of('Twice', '2026-01-05', '2026-02-05'), '2026-04-01')).toEqual([]);
});

it('keeps what one sender sends of different kinds apart', () => {
  const bills = of('Bank', '2026-01-31', '2026-02-28', '2026-03-31', '2026-04-30');
  const letters = of('Bank', '2026-02-11', '2026-03-20').map((letter) => ({ ...letter, kind: 'letter' }));
  expect(findMissing([...bills, ...letters], '2026-05-05')).toEqual([]);
});
