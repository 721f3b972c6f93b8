import { AccountLine, findTransfers } from './transfers';

const ACCOUNTS = [
  { id: 'bank', name: 'Orrin Harbour Bank', number: 'GB94BARC10201530093459' },
  { id: 'savings', name: 'Rainy day', number: '40217755' },
  { id: 'card', name: 'Card', number: '' },
];
const line = (accountId: string, units: number, day: string, text = '', currency = 'GBP'): AccountLine => ({
  ...{ accountId, units, day, text, currency },
  who: '',
});
const found = (...lines: AccountLine[]) => findTransfers(lines, ACCOUNTS);

it('are two lines of two own accounts, one of which names the other account', () => {
  expect(found(line('bank', -50_000, '2026-03-02', 'TO 40217755'), line('savings', 50_000, '2026-03-04'))).toEqual([
    { from: 0, to: 1, confidence: 0.99 },
  ]);
  expect(found(line('bank', -50_000, '2026-03-02', 'to RAINY DAY'), line('savings', 50_000, '2026-03-04'))).toEqual([
    { from: 0, to: 1, confidence: 0.96 },
  ]);
});

it.each([
  'Own account transfer',
  'Umbuchung',
  'ÜBERTRAG März',
  'Virement interne',
  'vers l’épargne mars',
  'TO SAVINGS',
])('are called so: %s', (text) => {
  const [transfer] = found(line('bank', -9_000, '2026-03-02', text), line('savings', 9_000, '2026-03-02'));
  expect(transfer.confidence).toBeGreaterThan(0.95);
});

it('are only proposed where nothing says so, and not at all where several would fit', () => {
  const out = line('bank', -12_345, '2026-03-02', 'Bank transfer');
  expect(found(out, line('card', 12_345, '2026-03-03'))[0].confidence).toBeLessThan(0.95);
  expect(found(out, line('card', 12_345, '2026-03-03'), line('savings', 12_345, '2026-03-03'))).toEqual([]);
});

it('take the nearer of two, each line once', () => {
  expect(
    found(
      line('bank', -5_000, '2026-03-02', 'to savings'),
      line('bank', -5_000, '2026-03-05', 'to savings'),
      line('savings', 5_000, '2026-03-05'),
      line('savings', 5_000, '2026-03-02'),
    ),
  ).toEqual([
    { from: 0, to: 3, confidence: 0.96 },
    { from: 1, to: 2, confidence: 0.96 },
  ]);
});

it.each([
  ['one account', line('bank', 5_000, '2026-03-02')],
  ['another amount', line('savings', 5_001, '2026-03-02')],
  ['another currency', line('savings', 5_000, '2026-03-02', '', 'EUR')],
  ['weeks later', line('savings', 5_000, '2026-03-20')],
  ['long before', line('savings', 5_000, '2026-02-20')],
])('are not: %s', (_, other) => expect(found(line('bank', -5_000, '2026-03-02', 'to savings'), other)).toEqual([]));
