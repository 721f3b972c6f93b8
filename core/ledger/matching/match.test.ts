import { MatchLine, OpenEntry, Tie } from './entry';
import { matchPayments } from './match';
import { linesAsPaid, turnedToFit } from './turned';

let counted = 0;
const bill = (part: Partial<OpenEntry>): OpenEntry => ({
  ...{
    id: `E${++counted}`,
    day: '2026-03-01',
    due: '2026-03-15',
    who: 'Harbour Fibre Mill Ltd',
    number: '',
    units: 18420,
  },
  ...{ currency: 'GBP', ...part },
});
const line = (part: Partial<MatchLine>): MatchLine => ({
  ...{ day: '2026-03-14', units: -18420, currency: 'GBP', who: 'HARBOUR FIBRE MILL', text: '', ...part },
});
/** Others, as there always are, so that an amount or a name is not the only one. */
const entries = (...own: OpenEntry[]) => [
  ...own,
  ...Array.from({ length: 40 }, (_, at) =>
    bill({ who: `Tollgate ${at}`, number: `TG-${7000 + at}`, units: 50_000 + 731 * at }),
  ),
];
const lines = (...own: MatchLine[]) => [
  ...own,
  ...Array.from({ length: 40 }, (_, at) => line({ who: `Shop ${at}`, units: -(900 + 13 * at), text: 'card' })),
];
const ofOwn = (ties: Tie[], count: number) => ties.filter((tie) => tie.entries.some((entry) => entry < count));

it('one bill and its payment, by amount, name and day', () => {
  const [tie] = ofOwn(matchPayments(entries(bill({})), lines(line({}))), 1);
  expect(tie).toMatchObject({ entries: [0], lines: [0], why: 'amount' });
  expect(tie.confidence).toBeGreaterThan(0.95);
});

it.each([
  ['cut off and misspelt', { who: 'HARBUOR FIBRE MI' }],
  ['run together', { who: 'HARBOURFIBREMILL' }],
  ['behind whoever passes it on', { who: '', text: 'PAYPAL *HARBOUR FIBRE' }],
  ['with umlauts taken apart', { who: 'FAERBEREI GRUENAU' }, { who: 'Färberei Grünau GmbH' }],
])('names %s are known', (_, said: Partial<MatchLine>, of: Partial<OpenEntry> = {}) => {
  const [tie] = ofOwn(matchPayments(entries(bill(of)), lines(line(said))), 1);
  expect(tie).toMatchObject({ entries: [0], lines: [0] });
  expect(tie.confidence).toBeGreaterThan(0.75);
});

it('a number tells bills of one amount apart, whichever came first', () => {
  const own = ['HF-2291', 'HF-2292', 'HF-2293'].map((number) => bill({ number }));
  const paid = ['2293', 'HF2291', 'INV HF 2292 THANKS'].map((text) => line({ text }));
  const ties = ofOwn(matchPayments(entries(...own), lines(...paid)), 3);
  expect(ties.map((tie) => [tie.entries[0], tie.lines[0]]).sort()).toEqual([
    [0, 1],
    [1, 2],
    [2, 0],
  ]);
  expect(Math.min(...ties.map(({ confidence }) => confidence))).toBeGreaterThan(0.95);
});

it('a rent that is the same each month goes month by month, also where one is missing', () => {
  const months = Array.from({ length: 14 }, (_, at) => new Date(Date.UTC(2025, at, 1)).toISOString().slice(0, 10));
  const rents = months.map((day) => bill({ who: 'Quay Estates', units: 65_000, day, due: day }));
  const paid = months.flatMap((day, at) =>
    at === 6 ? [] : [line({ who: 'QUAY ESTATES', units: -65_000, day: `${day.slice(0, 8)}03` })],
  );
  const ties = ofOwn(matchPayments(entries(...rents), lines(...paid)), 14);
  expect(ties.map((tie) => [tie.entries[0], tie.lines[0]]).sort((a, b) => a[0] - b[0])).toEqual(
    months.flatMap((_, at) => (at === 6 ? [] : [[at, at < 6 ? at : at - 1]])),
  );
});

it('one payment of several bills, said or not, with a credit note taken off', () => {
  const own = [
    bill({ number: 'HF-1001', units: 12_011 }),
    bill({ number: 'HF-1002', units: 33_333 }),
    bill({ number: 'HF-1003', units: -4_400 }),
  ];
  for (const text of ['HF-1001 HF-1002 HF-1003', 'HF-1001 and others', '']) {
    const [tie] = ofOwn(matchPayments(entries(...own), lines(line({ units: -40_944, text }))), 3);
    expect([...tie.entries].sort()).toEqual([0, 1, 2]);
    expect(tie.why).toBe('together');
  }
});

it('several payments of one bill', () => {
  const own = bill({ number: 'HF-1001', units: 100_000 });
  const paid = [
    line({ units: -30_000, text: 'HF-1001 first part' }),
    line({ units: -30_000, text: 'second', day: '2026-04-14' }),
    line({ units: -40_000, text: 'HF 1001 rest', day: '2026-05-14' }),
  ];
  const [tie] = ofOwn(matchPayments(entries(own), lines(...paid)), 1);
  expect(tie).toMatchObject({ entries: [0], lines: [0, 1, 2], why: 'parts' });
});

it.each([
  ['two in the hundred off for paying early', { units: -18_052 }, 'discount'],
  ['with the bank’s fee', { units: -18_570 }, 'fee'],
  [
    'in another currency that the line says',
    { units: -21_733, currency: 'EUR', text: 'GBP 184.20 at 1.18' },
    'exchange',
  ],
])('what is paid %s', (_, paid, why) => {
  const [tie] = ofOwn(
    matchPayments(entries(bill({ number: 'HF-2291' })), lines(line({ text: 'HF-2291', ...paid }))),
    1,
  );
  expect(tie).toMatchObject({ entries: [0], lines: [0], why });
});

it('a statement that does not say its currency is in that of most entries', () => {
  const own = bill({ number: 'HF-2291', currency: 'EUR' });
  const said = line({ units: -15_609, currency: null, text: 'HF-2291 EUR 184.20' });
  expect(ofOwn(matchPayments(entries(own), lines(said)), 1)[0]).toMatchObject({
    entries: [0],
    lines: [0],
    why: 'exchange',
  });
});

it('a bill that is in twice is paid once, and what is paid twice pays one bill', () => {
  const own = bill({ number: 'HF-2291' });
  expect(ofOwn(matchPayments(entries(own, { ...own, id: 'again' }), lines(line({ text: 'HF-2291' }))), 2)).toHaveLength(
    1,
  );
  expect(ofOwn(matchPayments(entries(own), lines(line({}), line({ day: '2026-03-20' }))), 1)).toHaveLength(1);
});

it('money that comes in pays no bill that is to be paid, and nobody is sure of an amount alone', () => {
  expect(ofOwn(matchPayments(entries(bill({})), lines(line({ units: 18_420 }))), 1)).toEqual([]);
  const [tie] = ofOwn(
    matchPayments(entries(bill({ units: 10_000 })), lines(line({ units: -10_000, who: 'Somebody Else' }))),
    1,
  );
  expect(tie?.confidence ?? 0).toBeLessThan(0.95);
});

it('nothing comes of nothing', () => {
  expect(matchPayments([], [])).toEqual([]);
  expect(matchPayments(entries(), [])).toEqual([]);
});

it('a card’s statement that lists what was paid is turned', () =>
  expect(turnedToFit([line({ units: 18_420 })], [bill({})], { signed: false })[0].units).toBe(-18_420));

it('one with signs is turned only where many amounts fit the other way, and none that has a balance or a standard', () => {
  const bills = [100, 230, 470, 990].map((units) => bill({ units }));
  const owed = bills.map(({ units }) => ({ ...line({ units }), id: '', balance: null }));
  const paid = { ...line({ units: -50_000 }), id: '', balance: null };
  const first = (given: Partial<Parameters<typeof linesAsPaid>[0]>) =>
    linesAsPaid({ format: 'csv', signed: true, lines: [...owed, paid], ...given }, bills)[0].units;
  expect(first({})).toBe(-100);
  expect(first({ lines: [...owed.slice(1), paid] })).toBe(230);
  expect(first({ format: 'ofx' })).toBe(100);
  expect(first({ lines: [...owed, { ...paid, balance: 3 }] })).toBe(100);
});

it('a few lines are enough: what has name, number and amount is sure, whatever share of them says so', () => {
  const few = [
    bill({ id: 'a', who: 'Saltgate Yarns Ltd', number: 'S-118', units: 12_000 }),
    bill({ id: 'b', who: 'Pell Works Ltd', number: 'P-9', units: 4_800 }),
  ];
  const booked = [
    line({ who: '', text: 'SALTGATE YARNS S-118', units: -12_000 }),
    line({ who: '', text: 'PELL WORKS P-9', units: -4_800 }),
    line({ who: '', text: 'CORNER GROCER', units: -310 }),
  ];
  const ties = matchPayments(few, booked);
  expect(ties.map((tie) => [tie.entries, tie.lines]).sort()).toEqual([
    [[0], [0]],
    [[1], [1]],
  ]);
  for (const { confidence } of ties) expect(confidence).toBeGreaterThanOrEqual(0.95);
});
