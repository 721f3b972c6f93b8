import { findFacts } from './facts/findFacts';
import { readPaymentCode } from './paymentCode';
import { typed } from './testing/typed';

const epc = (amount: string) =>
  [
    'BCD',
    '002',
    '1',
    'SCT',
    '',
    'Küstenschutz Versicherung',
    'DE75 5121 0800 1245 1261 99',
    amount,
    '',
    '',
    'HR 7714',
  ].join('\n');
const swiss = [
  ...['SPC', '0200', '1', 'CH4431999123000889012', 'S', 'Weberei Seeblick AG', 'Quai', '1', '8000', 'Zürich', 'CH'],
  ...['', '', '', '', '', '', '', '199.95', 'CHF', 'S', 'Wickford Loom', '', '', '', '', 'GB'],
  ...['QRR', '210000000003139471430009017', 'Rechnung 4417', 'EPD'],
].join('\r\n');

it('reads what a payment code of the EPC asks for', () => {
  expect(readPaymentCode(epc('EUR141.13'))).toEqual({
    name: 'Küstenschutz Versicherung',
    iban: 'DE75512108001245126199',
    amount: 141.13,
    currency: 'EUR',
    reference: 'HR 7714',
  });
  expect(readPaymentCode(epc(''))).toMatchObject({ amount: null });
});

it('reads a Swiss QR-bill', () => {
  expect(readPaymentCode(swiss)).toEqual({
    name: 'Weberei Seeblick AG',
    iban: 'CH4431999123000889012',
    amount: 199.95,
    currency: 'CHF',
    reference: '210000000003139471430009017',
  });
});

it('takes nothing from other codes, and none whose account can’t be one', () => {
  expect(readPaymentCode('https://loom.example/receipt/4417')).toBeNull();
  expect(readPaymentCode(epc('EUR141.13').replace('1245', '1246'))).toBeNull();
  expect(readPaymentCode('BCD')).toBeNull();
  expect(readPaymentCode('SPC\n0200')).toBeNull();
});

describe('the facts of a paper with a payment code', () => {
  const paper = (total: string) =>
    typed(`
# Küstenschutz Versiherung
Beitragsrechnung                30.09.2026
Zu zahlen                       ${total} EUR
`);
  const facts = (total: string, amount = 'EUR141.13') =>
    findFacts([{ ...paper(total), codes: [{ text: epc(amount), box: [10, 20, 100, 100] }] }]);

  it('are what the code says, certainly, wherever it says it', () => {
    const found = facts('141,13');
    expect(found.total).toMatchObject({ value: 141.13, confidence: 1 });
    expect(found.currency).toMatchObject({ value: 'EUR', confidence: 1 });
    expect(found.iban).toMatchObject({ value: 'DE75512108001245126199', box: [10, 20, 100, 100] });
    // Misread by a letter: it is the name in the code.
    expect(found.vendor).toMatchObject({ value: 'Küstenschutz Versicherung' });
  });

  it('keep the total that the paper says where the code asks for less', () => {
    const found = facts('182,26');
    expect(found.total).toMatchObject({ value: 182.26 });
    expect(found.amountDue).toMatchObject({ value: 141.13, confidence: 1 });
  });

  it('are those of the paper where the code leaves the amount open', () => {
    expect(facts('141,13', '').total).toMatchObject({ value: 141.13, why: { code: 'beside' } });
  });
});
