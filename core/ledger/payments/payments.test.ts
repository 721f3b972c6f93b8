import { readPaymentCode } from '../../reading/paymentCode';
import { epcCode, isCreditorReference, Payment, paymentProblem, transferText } from './payment';
import { writePain001 } from './pain001';

const PAYMENT: Payment = {
  id: 'entry 12',
  name: 'Spinnerei Wiesengrund GmbH & Söhne',
  iban: 'DE44500105175407324931',
  units: 18_420,
  currency: 'EUR',
  reference: 'Rechnung 2026-0209',
};
const PAYER = { name: 'Imre Castellane', iban: 'FR1420041010050500013M02606' };
const file = (...payments: Payment[]) =>
  writePain001(payments, { payer: PAYER, on: '2026-12-01', at: '2026-11-29T09:00:00', id: 'CROW 1' });

describe('a payment code', () => {
  it('says who, where, how much and what for, as a reader of such codes finds it', () => {
    expect(readPaymentCode(epcCode(PAYMENT))).toEqual({
      name: PAYMENT.name,
      iban: PAYMENT.iban,
      amount: 184.2,
      currency: 'EUR',
      reference: 'Rechnung 2026-0209',
    });
  });

  it('has a creditor’s reference in its own place', () => {
    const code = epcCode({ ...PAYMENT, reference: 'RF18 5390 0754 7034' }).split('\n');
    expect(code.slice(9)).toEqual(['RF18539007547034', '']);
    expect(isCreditorReference('RF18 5390 0754 7035')).toBe(false);
    expect(isCreditorReference('2026-0209')).toBe(false);
  });

  it('is made only of what can be transferred', () => {
    expect(paymentProblem({ ...PAYMENT, units: 0 })).toBe('nothing-to-pay');
    expect(paymentProblem({ ...PAYMENT, currency: 'GBP' })).toBe('not-euro');
    expect(paymentProblem({ ...PAYMENT, iban: '' })).toBe('no-iban');
    expect(paymentProblem({ ...PAYMENT, iban: 'DE44500105175407324932' })).toBe('iban-wrong');
    expect(() => epcCode({ ...PAYMENT, iban: '' })).toThrow('no-iban');
  });
});

describe('a file of transfers', () => {
  it('adds up, names each in signs that every bank passes on, and says what for', () => {
    const xml = file(PAYMENT, { ...PAYMENT, id: 'entry 13', units: 1_05, reference: 'RF18539007547034' });
    expect(xml).toContain('<NbOfTxs>2</NbOfTxs><CtrlSum>185.25</CtrlSum>');
    expect(xml).toContain('<Nm>Spinnerei Wiesengrund GmbH + Soehne</Nm>');
    expect(xml).toContain('<InstdAmt Ccy="EUR">1.05</InstdAmt>');
    expect(xml).toContain('<Ustrd>Rechnung 2026-0209</Ustrd>');
    expect(xml).toContain('<Ref>RF18539007547034</Ref>');
    expect(xml).toContain('<ReqdExctnDt><Dt>2026-12-01</Dt></ReqdExctnDt>');
  });

  it('holds nothing that is no transfer in euros', () => {
    expect(() => file()).toThrow();
    expect(() => file(PAYMENT, { ...PAYMENT, currency: 'CHF' })).toThrow();
  });
});

it('text that banks pass on has no accents, no signs that they don’t know, and an end', () => {
  expect(transferText('Färberei «Straße» é\n<x>', 40)).toBe('Faerberei Strasse e x');
  expect(transferText('a b c', 4)).toBe('a b');
});
