import fc from 'fast-check';
import { digitsOf, moneyOf, writeMoney } from './money';

it.each([
  ['1184.20', 'GBP', 118420],
  ['1184.2', 'EUR', 118420],
  ['0.07', null, 7],
  ['-3', 'EUR', -300],
  ['1200', 'JPY', 1200],
  ['1200.00', 'JPY', 1200],
  ['4.5', 'KWD', 4500],
  ['9999999999999', 'CHF', 999999999999900],
])('counts %s %s in smallest units', (text, currency, units) => {
  expect(moneyOf(text, currency)).toEqual({ units, currency });
});

it.each([
  ['0.105', 'GBP', 11],
  ['0.104999', 'GBP', 10],
  ['-0.105', 'GBP', -11],
  ['1.5', 'JPY', 2],
  ['-0.001', 'EUR', 0],
])('rounds what the currency does not have half away from zero: %s %s', (text, currency, units) => {
  expect(moneyOf(text, currency)!.units).toBe(units);
});

it.each(['', '1,20', '1.2.3', '12 GBP', '1e5', '--3', 'NaN', '.5'])('takes “%s” for no number', (text) => {
  expect(moneyOf(text, 'GBP')).toBeUndefined();
});

it('writes what it read', () => {
  const currency = fc.constantFrom('GBP', 'EUR', 'JPY', 'TND', null);
  fc.assert(
    fc.property(fc.integer({ min: -1e12, max: 1e12 }), currency, (units, each) => {
      const text = writeMoney({ units, currency: each });
      expect(text.split('.')[1]?.length ?? 0).toBe(digitsOf(each));
      expect(moneyOf(text, each)).toEqual({ units: units === 0 ? 0 : units, currency: each });
    }),
  );
});
