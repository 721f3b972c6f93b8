import { JournalEntry, JournalLine, writeJournal } from './journal';

const entry = (given: Partial<JournalEntry> = {}): JournalEntry => ({
  id: 'e',
  serial: 7,
  day: '2026-10-02',
  who: 'Saltgate Yarns',
  what: '',
  number: 'S-118',
  currency: 'GBP',
  units: 12_000,
  paidIn: '',
  parts: [{ category: 'Materials', side: 'cost', taxCode: 'GB-S', net: 10_000, tax: 2_000 }],
  ...given,
});
const line = (given: Partial<JournalLine> = {}): JournalLine => ({
  id: 'l',
  day: '2026-10-09',
  account: 'Bank account',
  who: 'SALTGATE',
  text: 'S118',
  units: -12_000,
  currency: 'GBP',
  ...given,
});
const tie = (settles = false) => ({ entries: ['e'], lines: ['l'], settles });

/** By account, what a journal's postings come to, in hundredths; and that every transaction comes to nothing. */
function balances(journal: string): Record<string, number> {
  const sums: Record<string, number> = {};
  for (const block of journal.split(/\n(?=\d{4}-)/).slice(1)) {
    const byCurrency: Record<string, number> = {};
    for (const [, account, amount, currency] of block.matchAll(/^ {4}(.+?) {2}(-?[\d.]+) ([A-Z]{3})/gm)) {
      const units = Math.round(Number(amount) * 100);
      sums[`${account} ${currency}`] = (sums[`${account} ${currency}`] ?? 0) + units;
      byCurrency[currency] = (byCurrency[currency] ?? 0) + units;
    }
    expect(Object.values(byCurrency).every((sum) => sum === 0)).toBe(true);
  }
  return sums;
}

it('has an entry under its category, with its tax, against what is open, and the line that pays it against that', () => {
  const journal = writeJournal({ entries: [entry()], lines: [line()], ties: [tie()] });
  expect(journal).toContain('2026-10-02 (S-118) Saltgate Yarns  ; entry:7');
  expect(balances(journal)).toEqual({
    'expenses:Materials GBP': 10_000,
    'assets:tax paid GBP': 2_000,
    'liabilities:open GBP': 0,
    'assets:Bank account GBP': -12_000,
  });
});

it('has what came in under income, what was paid in cash at once, and lines that nothing is tied to', () => {
  const sale = entry({
    units: -5_000,
    parts: [{ category: 'Sales', side: 'income', taxCode: 'GB-N', net: -5_000, tax: 0 }],
    paidIn: 'Cash',
  });
  const openings = [{ day: '2026-01-01', account: 'Bank account', units: 40_000, currency: 'GBP' }];
  expect(balances(writeJournal({ entries: [sale], lines: [line({ units: -310 })], ties: [], openings }))).toEqual({
    'assets:Bank account GBP': 40_000 - 310,
    'equity:opening GBP': -40_000,
    'income:Sales GBP': -5_000,
    'assets:Cash GBP': 5_000,
    'equity:not matched GBP': 310,
  });
});

it('leaves a part that is not paid open, and puts a discount under differences', () => {
  const less = [line({ units: -11_760 })];
  expect(balances(writeJournal({ entries: [entry()], lines: less, ties: [tie()] }))).toMatchObject({
    'liabilities:open GBP': -240,
  });
  expect(balances(writeJournal({ entries: [entry()], lines: less, ties: [tie(true)] }))).toMatchObject({
    'liabilities:open GBP': 0,
    'expenses:differences GBP': -240,
  });
});

it('settles what is owed in another currency by way of the exchange', () => {
  const foreign = entry({ currency: 'EUR' });
  expect(
    balances(writeJournal({ entries: [foreign], lines: [line({ units: -10_344 })], ties: [tie()] })),
  ).toMatchObject({
    'liabilities:open EUR': 0,
    'equity:exchange EUR': -12_000,
    'equity:exchange GBP': 10_344,
    'assets:Bank account GBP': -10_344,
  });
});

it('a line that pays what was entered at another time is open from then, and no difference is made of half a tie', () => {
  const elsewhere = { entries: ['of last year'], lines: ['l'], settles: true };
  expect(balances(writeJournal({ entries: [], lines: [line()], ties: [elsewhere] }))).toEqual({
    'assets:Bank account GBP': -12_000,
    'liabilities:open GBP': 12_000,
  });
  const half = { entries: ['e', 'of last year'], lines: ['l'], settles: true };
  expect(balances(writeJournal({ entries: [entry()], lines: [line({ units: -20_000 })], ties: [half] }))).toMatchObject(
    {
      'liabilities:open GBP': 8_000,
    },
  );
});

it('names nothing that a journal would take for something else', () => {
  const odd = entry({ who: 'A;B\nC', number: '(1)', parts: [{ ...entry().parts[0], category: 'Post: far  away' }] });
  const journal = writeJournal({ entries: [odd], lines: [], ties: [] });
  expect(journal).toContain('2026-10-02 (1) A B C  ; entry:7');
  expect(journal).toContain('    expenses:Post far away  100.00 GBP');
});
