import { typed, typedFacts } from '../testing/typed';
import { findFacts } from './findFacts';

const daysOn = (lines: string, heading = 'Invoice') => {
  const { date, dueDate, ends, period } = typedFacts(`
# Skerry Dye Works Ltd
${heading}

${lines}

Total      £46.00
`);
  return { date, dueDate, ends, period };
};
const NONE = { date: null, dueDate: null, ends: null, period: null };

it.each([
  ['Date: 3 November 2026', { date: '2026-11-03' }],
  ['Wickford, 3 November 2026', { date: '2026-11-03' }],
  ['Billed: 03/11/2026\nDelivered: 29/10/2026', { date: '2026-11-03' }],
  ['Date 3 November 2026\nPlease pay £46.00 by 17 November 2026.', { date: '2026-11-03', dueDate: '2026-11-17' }],
  ['Datum 03.11.2026\nBitte bis 17.11.2026 überweisen.', { date: '2026-11-03', dueDate: '2026-11-17' }],
  ['Datum 03.11.2026\nDer Betrag ist am 17.11.2026 fällig.', { date: '2026-11-03', dueDate: '2026-11-17' }],
  ['Date 3 November 2026\nDeposit received on 2 October 2026', { date: '2026-11-03' }],
  [
    'Date 3 November 2026\nPeriod 1 August 2026 to 31 October 2026',
    { date: '2026-11-03', period: '2026-08-01/2026-10-31' },
  ],
  ['Date 3 November 2026\nWe collect this by direct debit on 20 Nov.', { date: '2026-11-03', dueDate: '2026-11-20' }],
  // A label that nobody knows, in a cell of its own, or one that only says “day”.
  ['Date 3 November 2026\nLoppuun mennessa      17 November 2026', { date: '2026-11-03', dueDate: '2026-11-17' }],
  ['Dokumentdatum 03-11-2026\nSlutdatum 17-11-2026', { date: '2026-11-03', dueDate: '2026-11-17' }],
  ['Rechnungsdatum 03.11.2026\nDruckdatum 16.11.2026', { date: '2026-11-03' }],
  ['Invoice date 3 November 2026\nPrinted 16 November 2026', { date: '2026-11-03' }],
  ['Week ending Sat 3 October 2026', { date: '2026-10-03' }],
  ['Date 3 November 2026\nWe will pay this into your account on 20 November 2026', { date: '2026-11-03' }],
  ['Tax point 03.11.26\nStrictly 30 days from date of invoice', { date: '2026-11-03', dueDate: '2026-12-03' }],
  ['Date 3 November 2026\nPlease pay by 10th January', { date: '2026-11-03', dueDate: '2027-01-10' }],
  ['Issued 3 November 2026\nNet 30: 03/12/2026', { date: '2026-11-03', dueDate: '2026-12-03' }],
  [
    '3 November 2026\nWe take this from your bank on or after 17 November 2026.',
    { date: '2026-11-03', dueDate: '2026-11-17' },
  ],
  ['Date 3 November 2026\nLess your payment of 02/10/2026   10.00', { date: '2026-11-03' }],
  ['Date 3 November 2026\nFor 1 to 31 October 2026', { date: '2026-11-03', period: '2026-10-01/2026-10-31' }],
  ['Date 3 November 2026\nPeriod   01.08.2026   31.10.2026', { date: '2026-11-03', period: '2026-08-01/2026-10-31' }],
  ['Date 3 November 2026\nFunds required by: 17 November 2026', { date: '2026-11-03', dueDate: '2026-11-17' }],
  ['Date 3 November 2026\nOn or before: 17 November 2026', { date: '2026-11-03', dueDate: '2026-11-17' }],
  ['Datum 03.11.2026\nAbbuchungstermin: 17.11.2026', { date: '2026-11-03', dueDate: '2026-11-17' }],
  ['Datum 03.11.2026\nWir buchen ab am 17.11.2026', { date: '2026-11-03', dueDate: '2026-11-17' }],
  ['Date 3 November 2026\nCredit period ends: 17 November 2026', { date: '2026-11-03', dueDate: '2026-11-17' }],
  ['Date 3 November 2026\nClaims by: 17 November 2026', { date: '2026-11-03' }],
  ['Datum 03.11.2026\n2 % Skonto bis 17.11.2026', { date: '2026-11-03' }],
  ['Datum 03.11.2026\nAnpassung zum 01.12.2026', { date: '2026-11-03' }],
  ['Date 3 November 2026\nNext appointment: 17 November 2026', { date: '2026-11-03' }],
  ['Date 3 November 2026\nPeriod 05.07.2026–04.10.2026', { date: '2026-11-03', period: '2026-07-05/2026-10-04' }],
  ['14 Nov 26 15:08', { date: '2026-11-14' }],
])('reads “%s”', (lines, expected) => expect(daysOn(lines)).toEqual({ ...NONE, ...expected }));

it('takes no day from the rows of a table, though its head is a word for a day', () =>
  expect(
    daysOn(`
Emden, den 05.10.2026

Datum        Ziffer   Leistung        Betrag
21.09.2026   6        Untersuchung     13,41
21.09.2026   1202     Refraktion        9,92
21.09.2026   1256     Tonometrie       13,41`),
  ).toMatchObject({ date: '2026-10-05' }));

it('knows until when an offer holds, and that it is not when to pay', () => {
  const lines = 'Dated 2 November 2026\nValid until 2 December 2026';
  expect(daysOn(lines, 'Quotation')).toEqual({ ...NONE, date: '2026-11-02', ends: '2026-12-02' });
});

it('reads a day at the beginning of a line by the sentence that it goes on with', () => {
  const lines = 'Datum 04.11.2026\nBitte überweisen Sie den offenen Betrag bis zum\n18.11.2026 auf unser Konto.';
  expect(daysOn(lines)).toMatchObject({ date: '2026-11-04', dueDate: '2026-11-18' });
});

it('reads a day that the end of a line parts', () => {
  const lines =
    'Date 1 September 2026\nThe goods must be paid for in full and not later than by 19\nDecember 2026 without deduction.';
  expect(daysOn(lines)).toMatchObject({ date: '2026-09-01', dueDate: '2026-12-19' });
});

it.each([
  ['Inc.', '$', 'Sales tax 0.00\nPortland, ME 04101', '2026-10-06'],
  ['Ltd', '£', 'VAT 0.00\nEastmere EM1 4RT', '2026-06-10'],
  ['Inc.', '$', 'Sales tax 0.00\nShipped 25/09/2026', '2026-06-10'],
])('tells by %s, %s and “%s” whether the month comes first', (form, sign, lines, date) =>
  expect(
    typedFacts(`# Skerry Dye Works ${form}\nInvoice\n\nDate 10/06/2026\n${lines}\nTotal   ${sign}46.00`).date,
  ).toBe(date),
);

describe('where nothing says whether day or month comes first', () => {
  const found = (lines: string) => findFacts([typed(`# Skerry Dye Works\nInvoice\n\n${lines}\nTotal   46.00`)]);

  it('both days are told, and neither is sure', () => {
    const { date } = found('Date 10/06/2026');
    expect(date).toMatchObject({ value: '2026-06-10', other: '2026-10-06' });
    expect(date!.confidence).toBeLessThanOrEqual(0.5);
  });

  it('it is so that a bill is due after it was written, and before long', () => {
    const { date, dueDate } = found('Date 06/12/2026\nDue 07/11/2026');
    expect([date, dueDate]).toMatchObject([{ value: '2026-06-12' }, { value: '2026-07-11' }]);
  });

  it('a day that is one only the one way stays sure', () =>
    expect(found('Date 25/06/2026').date!.confidence).toBeGreaterThan(0.9));
});
