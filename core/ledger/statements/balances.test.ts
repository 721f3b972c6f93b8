import { balanceGaps } from './balances';

const line = (day: string, units: number, balance: number | null = null) => ({ day, units, balance });
const NONE = { opening: null, closing: null };

it('there is no gap where each balance follows from the one before, in either order', () => {
  const forwards = [line('2026-01-02', -500, 9500), line('2026-01-03', 700, 10_200), line('2026-01-03', -200, 10_000)];
  expect(balanceGaps(forwards, { opening: 10_000, closing: 10_000 })).toEqual([]);
  expect(balanceGaps(forwards.toReversed(), { opening: 10_000, closing: 10_000 })).toEqual([]);
  expect(balanceGaps(forwards.toReversed(), NONE)).toEqual([]);
});

it('says after which day lines are missing, and what they come to', () => {
  const all = [line('2026-01-02', -500, 9500), line('2026-01-09', 700, 8200)];
  expect(balanceGaps(all, NONE)).toEqual([{ day: '2026-01-09', units: -2000 }]);
});

it('finds it by opening and closing balance alone', () => {
  const all = [line('2026-01-02', -500), line('2026-01-09', 700)];
  expect(balanceGaps(all, { opening: 1000, closing: 1200 })).toEqual([]);
  expect(balanceGaps(all, { opening: 1000, closing: 900 })).toEqual([{ day: '2026-01-09', units: -300 }]);
  expect(balanceGaps(all, NONE)).toEqual([]);
});
