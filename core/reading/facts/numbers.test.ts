import { typedFacts } from '../testing/typed';

/** What a bill of the kind says of its numbers. */
const numbersOn = (lines: string, heading = 'Invoice') => {
  const { number, reference, customer, order, policy, iban } = typedFacts(`
# Skerry Dye Works Ltd
${heading}

${lines}

Total      £46.00
`);
  return { number, reference, customer, order, policy, iban };
};
const NONE = { number: null, reference: null, customer: null, order: null, policy: null, iban: null };

it.each([
  ['Invoice number: 7719', { number: '7719' }],
  ['Our job: HP4471', { number: 'HP4471' }],
  ['Customer no. 20418', { customer: '20418' }],
  ['Kundnummer 20418', { customer: '20418' }],
  ['Réf. locataire 20418', { customer: '20418' }],
  ['Urkunde Nr. 20418', { number: '20418' }],
  ['Relevé n° 20418', { number: '20418' }],
  ['Your order no. PO-3319', { order: 'PO-3319' }],
  ['Policy number HC/77/20931', { policy: 'HC/77/20931' }],
  ['Client account: A-4471', { customer: 'A-4471' }],
  ['VAT reg. no. 123 4567 82', {}],
  ['Tel. 01632 960417', {}],
  ['Meter serial no. E14-220917', {}],
  ['PO Box 118', {}],
  ['Standing charge: 169 days', {}],
  ['Record serial GSR-77120', { number: 'GSR-77120' }],
  ['Folio 20417', { number: '20417' }],
  ['TRANS# 771204', { number: '771204' }],
  ['07NOV26 16:41   TRN 0482-04-1193', { number: '0482-04-1193' }],
  ['No. A 55120', { number: 'A 55120' }],
  ['Invoice 2026-0417', { number: '2026-0417' }],
  ['Rechnungs-Nr.: 26/0417-A', { number: '26/0417-A' }],
  ['N° de facture F-221', { number: 'F-221' }],
  ['Serial no. of invoice: MP-4471', { number: 'MP-4471' }],
  ['Job sheet no.: MP-4471', { number: 'MP-4471' }],
  ['Numéro de pièce : AL-4471', { number: 'AL-4471' }],
  ['Référence de paiement : AL-4471', { number: 'AL-4471' }],
  ['Re.Nr.: MO-4471', { number: 'MO-4471' }],
  ['When paying quote: MP-4471', { number: 'MP-4471' }],
  ['Bitte bei Zahlung angeben: MO-4471', { number: 'MO-4471' }],
  ['À rappeler lors du paiement : AL-4471', { number: 'AL-4471' }],
  ['Please quote your customer number: 20418', { customer: '20418' }],
  ['IBAN DE75 5121 0800 1245 1261 99', { iban: 'DE75512108001245126199' }],
  ['IBAN DE75 5121 0800 1245 1261 98', {}],
])('reads “%s”', (line, expected) => expect(numbersOn(line)).toEqual({ ...NONE, ...expected }));

it('reads numbers under the heads of columns, each its own', () => {
  expect(
    numbersOn(`Invoice number     Customer no.     Order no.
7719               20418            PO-3319`),
  ).toEqual({ ...NONE, number: '7719', customer: '20418', order: 'PO-3319' });
});

it('holds the number of the bill that a credit note is about for its reference', () => {
  const lines = 'Credit note no. CN-93\nInvoice number 7719';
  expect(numbersOn(lines, 'Credit note')).toEqual({ ...NONE, number: 'CN-93', reference: '7719' });
});

it('keeps numbers in groups and letters before them together', () => {
  expect(numbersOn('Ticket no. 4417 2209 31').number).toBe('4417 2209 31');
  expect(numbersOn('Bill number     TE 90331845').number).toBe('TE 90331845');
});

it('doubts a number whose label says nothing known, and takes a better one where there is one', () => {
  expect(numbersOn('Zettelchen: 26-10883').number).toBe('26-10883');
  expect(numbersOn('Zettelchen: 26-10883\nInvoice number: 7719').number).toBe('7719');
});

it.each([
  ['Against: INV88204'],
  ['Re: INV88204'],
  ['Relating to INV88204'],
  ['Cancels invoice INV88204'],
  ['Invoice credited: INV88204'],
  ['Storno der Rechnung INV88204'],
  ['Korrektur zu INV88204'],
  ['Annule et remplace la facture INV88204'],
  ['Avoir sur facture INV88204'],
])('holds what a credit note says it is about for its reference: %s', (line) => {
  const { number, reference } = numbersOn(`Credit no: CN-93\n${line}`, 'Credit note');
  expect([number, reference]).toEqual(['CN-93', 'INV88204']);
});

it("takes the number of an account's statement for the statement's, and a word that holds “order” for none", () => {
  expect(numbersOn('Relevé de compte n° 10', 'Relevé de compte').number).toBe('10');
  expect(numbersOn('1    Arbeitstisch „Norderney“ 180    389,00').order).toBeNull();
});

it('tells the number of an order by what its writer calls it, not by what the customer does', () =>
  expect(numbersOn('Our order   SO0044718       Your order   WL-0417', 'Order acknowledgement').number).toBe(
    'SO0044718',
  ));
