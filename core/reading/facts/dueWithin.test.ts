import { typedFacts } from '../testing/typed';

/** A bill of 5 October 2026 that says this of its payment. */
const bill = (...said: string[]) =>
  typedFacts(`
# Merganser Looms Ltd
Invoice No ML-2207
Invoice date 5 October 2026

Warp beam, 120 cm      £84.00
Total due              £84.00
${said.join('\n')}
`);

it.each([
  ['Please pay within 14 days.', '2026-10-19'],
  ['Payment terms: 30 days from date of invoice', '2026-11-04'],
  ['Terms: net 15', '2026-10-20'],
  ['Our terms are strictly thirty (30) days.', '2026-11-04'],
  ['Zahlbar innert 10 Tagen netto.', '2026-10-15'],
  ['Wir bitten um Überweisung binnen vierzehn Tagen.', '2026-10-19'],
  ['Zahlbar in 30 Tagen netto, bei Zahlung in 10 Tagen 2 % Skonto.', '2026-11-04'],
  ['Bei Zahlung innerhalb von 10 Tagen 2 % Skonto. Sonst zahlbar in 30 Tagen netto.', '2026-11-04'],
  ['Paiement à 45 jours fin de mois', '2026-11-30'],
  ['Règlement sous 30 jours.', '2026-11-04'],
  ['Payable within one month of this invoice.', '2026-11-05'],
  ['Zahlbar innerhalb von 4 Wochen.', '2026-11-02'],
  ['Bitte zahlen Sie innerhalb eines Monats.', '2026-11-05'],
])('“%s” is due on %s', (said, due) => expect(bill(said)).toMatchObject({ dueDate: due }));

it('goes on in the next line', () =>
  expect(bill('Kindly settle the whole of this account within', '21 days of its date.')).toMatchObject({
    dueDate: '2026-10-26',
  }));

it.each([
  'Goods may be returned within 14 days.',
  'Complaints must reach us within 8 days.',
  'Delivery within 21 days.',
  'Accounts not paid within 30 days bear interest.',
  'This price is valid for 30 days.',
  'You pay once a month.',
  'A deposit of two months is due.',
  'Payment by card, thank you.',
])('“%s” says nothing of when it is due', (said) => expect(bill(said).dueDate ?? null).toBeNull());

it.each([
  ['Net      45.00', 'VAT 20 %      9.00', 'Total due      £54.00'],
  ['Standing charge 91 days      23.39', 'Total due      £84.00'],
  ['Payment received, with thanks      60.00', 'Loom hire, 14 days      84.00', 'Balance due      £84.00'],
])('“%s” in a table is no time to pay in', (...rows) => expect(bill(...rows).dueDate ?? null).toBeNull());

it.each([[['Payment terms      Account', '30 days      W-118']], [['Terms of payment:      30 days']]])(
  'a time in a cell of its own is named beside or above: %s',
  (rows) => expect(bill(...rows)).toMatchObject({ dueDate: '2026-11-04' }),
);

it('a day that is printed counts before one that is counted', () =>
  expect(bill('Payment within 30 days, by 1 November 2026.')).toMatchObject({ dueDate: '2026-11-01' }));
