import { balanceGaps } from './balances';
import { paperStatement } from './paperStatement';

const booking = (date: string, amount: number, balance: number | null = null) => ({
  date,
  amount,
  balance,
  text: 'Rates',
});

it('is what a paper books, to the penny, with its balances and its account', () => {
  const statement = paperStatement(
    [booking('2026-09-03', -88.1, 1116.11), booking('2026-09-09', 240, 1356.11)],
    { currency: 'GBP', opening: '1204.21', closing: '1356.11', iban: 'GB94BARC10201530093459' },
    'EUR',
  );
  expect(statement).toMatchObject({
    format: 'paper',
    account: 'GB94BARC10201530093459',
    currency: 'GBP',
    signed: true,
  });
  expect(statement.lines.map(({ day, units, balance }) => [day, units, balance])).toEqual([
    ['2026-09-03', -8_810, 111_611],
    ['2026-09-09', 24_000, 135_611],
  ]);
  expect(balanceGaps(statement.lines, statement)).toEqual([]);
});

it('shows a line that was not read as a gap', () => {
  const statement = paperStatement(
    [booking('2026-09-03', -88.1, 1116.11), booking('2026-09-28', -10, 946.11)],
    { opening: '1204.21' },
    'GBP',
  );
  expect(balanceGaps(statement.lines, statement)).toEqual([{ day: '2026-09-28', units: -16_000 }]);
});
