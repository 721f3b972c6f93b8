import { Period, periodPage } from './periodPage';

const PERIOD: Period = {
  title: 'October 2026',
  from: '2026-10-01',
  to: '2026-10-31',
  entries: [
    {
      serial: 7,
      day: '2026-10-02',
      who: 'Saltgate <Yarns> & Co',
      what: '',
      number: 'S-118',
      category: 'Materials',
      tax: 'Standard rate 20 %',
      currency: 'GBP',
      net: 10_000,
      taxAmount: 2_000,
      units: 12_000,
      paid: 12_000,
      checked: true,
      papers: ['Papers/2026-10/Saltgate #7 50%.pdf'],
    },
  ],
  sums: [],
  accounts: [{ name: 'Bank', opening: { units: 100, currency: 'GBP' }, closing: null, lines: 3, untied: 1 }],
  statements: ['Statements/bank.csv'],
  missing: ['Entry 9 has no paper.'],
  files: ['Ledger.xlsx'],
};

it('opens the papers of entries by their paths, whatever is in their names', () => {
  const page = periodPage(PERIOD);
  expect(page).toContain('href="Papers/2026-10/Saltgate%20%237%2050%25.pdf"');
  expect(page).toContain('Saltgate &lt;Yarns&gt; &amp; Co');
  expect(page).not.toContain('<Yarns>');
  expect(page).toContain('120.00');
});

it('says what is missing, and which entry has no paper', () => {
  expect(periodPage(PERIOD)).toContain('<li>Entry 9 has no paper.</li>');
  const [own] = PERIOD.entries;
  expect(periodPage({ ...PERIOD, entries: [{ ...own, papers: [], paid: 0 }] })).toMatch(/open[^]*<b>no paper<\/b>/);
  expect(periodPage({ ...PERIOD, missing: [] })).toContain('<p>Nothing.</p>');
});
