import { owedByAge } from './ages';

const owed = (due: string | null, units: number, paid = 0, currency = 'GBP') => ({
  day: '2026-06-01',
  due,
  units,
  paid,
  currency,
});

it('what is owed is told by how long it has been due, what is to be paid apart from what is to come', () => {
  const entries = [
    owed('2026-11-29', 100),
    owed('2026-11-28', 200, 50),
    owed('2026-10-30', 300),
    owed('2026-10-29', 400),
    owed('2026-09-01', -500),
    owed(null, 600),
    owed('2026-01-01', 700, 700),
    owed('2026-01-01', 800, 0, 'EUR'),
  ];
  expect(owedByAge(entries, 'GBP', '2026-11-29')).toEqual({
    toPay: [100, 450, 400, 0, 600],
    toCome: [0, 0, 0, 500, 0],
  });
});
