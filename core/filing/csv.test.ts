import { csvOf } from './csv';

it('quotes what needs it, keeps numbers, and lets no formula in', () => {
  expect(
    csvOf([
      ['Description', 'Amount', 'Note'],
      ['Wool, 2 "fine" skeins', -12.5, null],
      ['=HYPERLINK("x")', 3, '-4.20'],
    ]),
  ).toBe('\uFEFFDescription,Amount,Note\r\n"Wool, 2 ""fine"" skeins",-12.5,\r\n"\'=HYPERLINK(""x"")",3,-4.20\r\n');
});
