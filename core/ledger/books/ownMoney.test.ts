import { accountSums, SummedAccount } from './accountSums';
import { inOwnMoney } from './bookSums';
import { worthOf } from './paid';

const entry = (id: string, units: number, currency = 'EUR', ownUnits: number | null = null) => ({
  ...{ id, units, currency, ownUnits },
  day: '2026-03-01',
});

describe('what entries come to in the money of the books', () => {
  const worth = (entries: ReturnType<typeof entry>[], payments: Parameters<typeof worthOf>[1] = []) =>
    Object.fromEntries(worthOf(entries, payments, 'GBP'));
  const paid = (entries: string[], ...units: number[]) => ({
    entries,
    lines: units.map((each) => ({ units: each, currency: 'GBP' })),
    why: 'exchange',
  });
  it('is themselves, what somebody said, or what was paid, and else not known', () => {
    expect(
      worth(
        [entry('own', 500, 'GBP'), entry('said', 1000, 'EUR', 870), entry('paid', 1000), entry('open', 1000)],
        [paid(['paid'], -860), paid(['said'], -1)],
      ),
    ).toEqual({ own: 500, said: 870, paid: 860 });
  });
  it('is shared by what was paid together, to the last penny', () =>
    expect(worth([entry('a', 100), entry('b', 100), entry('c', 100)], [paid(['a', 'b', 'c'], -200)])).toEqual({
      a: 67,
      b: 67,
      c: 66,
    }));
  it('is not told by what was paid in that money, or for several of different money', () =>
    expect(
      worth(
        [entry('a', 100), entry('b', 100, 'USD'), entry('c', 100)],
        [{ ...paid(['a', 'b'], -200) }, { entries: ['c'], lines: [{ units: -100, currency: 'EUR' }], why: 'amount' }],
      ),
    ).toEqual({}));
});

it('entries in other money are added up in one’s own share by share, and those of unknown worth are counted', () => {
  const parts = [
    { categoryId: 'a', taxCode: null, net: 5_000, tax: 1_000 },
    { categoryId: 'b', taxCode: null, net: 4_001, tax: 0 },
  ];
  const base = { day: '2026-03-01', who: 'Filature', currency: 'EUR', units: 10_001, parts };
  const { entries, unknown } = inOwnMoney(
    [
      { ...base, worth: 8_600 },
      { ...base, worth: null },
    ],
    'GBP',
  );
  expect(unknown).toBe(1);
  expect(entries).toHaveLength(1);
  expect(entries[0].currency).toBe('GBP');
  expect(entries[0].parts.reduce((sum, { net, tax }) => sum + net + tax, 0)).toBe(8_600);
  expect(entries[0].parts[0]).toMatchObject({ net: 4_300, tax: 860 });
});

describe('accounts over a year', () => {
  const account = (given: Partial<SummedAccount> = {}): SummedAccount => ({
    id: 'bank',
    name: 'Bank',
    kind: 'bank',
    currency: 'GBP',
    opening: null,
    ...given,
  });
  const line = (day: string, units: number, balance: number | null = null) => ({
    ...{ day, units, balance },
    accountId: 'bank',
    currency: 'GBP',
  });
  const lines = [
    line('2025-11-01', 10_000),
    line('2026-02-01', -3_000),
    line('2026-05-01', 500),
    line('2027-01-02', 1),
  ];
  it('begin with what somebody said was on them', () => {
    const opening = { day: '2025-01-01', units: 200 };
    expect(accountSums([account({ opening })], { entries: [], lines }, '2026')).toEqual([
      { id: 'bank', name: 'Bank', currency: 'GBP', opening: 10_200, received: 500, spent: 3_000, closing: 7_700 },
    ]);
  });
  it('begin with what the first line of their statement says', () => {
    const said = [line('2025-11-01', 10_000, 10_050), ...lines.slice(1)];
    expect(accountSums([account()], { entries: [], lines: said }, '2026')[0]).toMatchObject({
      opening: 10_050,
      closing: 7_550,
    });
  });
  it('have no balance where nobody says one, nor before the day that is known', () => {
    expect(accountSums([account()], { entries: [], lines }, '2026')[0]).toMatchObject({ opening: null, closing: null });
    const opening = { day: '2026-03-01', units: 900 };
    expect(accountSums([account({ opening })], { entries: [], lines }, '2026')[0]).toMatchObject({
      opening: null,
      closing: 1_400,
    });
  });
  it('of cash go by what entries were paid from them; those on which nothing happened are left out', () => {
    const cash = account({ id: 'cash', kind: 'cash', opening: { day: '2026-01-01', units: 5_000 } });
    const entries = [{ accountId: 'cash', day: '2026-03-04', units: 1_200, currency: 'GBP' }];
    expect(accountSums([cash, account({ id: 'idle' })], { entries, lines: [] }, '2026')).toEqual([
      { id: 'cash', name: 'Bank', currency: 'GBP', opening: 5_000, received: 0, spent: 1_200, closing: 3_800 },
    ]);
  });
});
