import fc from 'fast-check';
import { admitKept } from './gate';
import { keptValue, typedFact } from './typedFact';

const NAMES = [
  'kind',
  'vendor',
  'date',
  'dueDate',
  'number',
  'currency',
  'net',
  'tax',
  'taxRate',
  'total',
  'amountDue',
];

describe('what is typed', () => {
  it.each([
    ['date', '14.3.2026', '2026-03-14'],
    ['dueDate', '2026-03-14', '2026-03-14'],
    ['total', '1.234,56', '1234.56'],
    ['total', '£1,234.5', undefined],
    ['net', '-12.00', '-12.00'],
    ['amountDue', '7', '7.00'],
    ['taxRate', '7,5 %', '7.5'],
    ['currency', '€', 'EUR'],
    ['currency', 'sek', 'SEK'],
    ['kind', 'invoice', 'invoice'],
    ['vendor', 'Halden & Firth', 'Halden & Firth'],
    ['total', '', ''],
  ])('%s “%s” is kept as %s', (name, text, value) => {
    expect(typedFact(name, text)).toEqual(value === undefined ? { unclear: 'amount' } : { value });
  });

  it.each([
    ['date', 'soon', 'date'],
    ['kind', 'a poem; by me', 'kind'],
    ['total', 'a lot', 'amount'],
    ['taxRate', '120 %', 'amount'],
    ['currency', 'gold', 'currency'],
  ])('%s “%s” is refused', (name, text, unclear) => {
    expect(typedFact(name, text)).toEqual({ unclear });
  });

  it('is what an archive may bring back, whatever was typed', () => {
    const text = fc.oneof(
      fc.string(),
      fc.stringMatching(/^[-£€]?\d{1,7}[.,]?\d{0,3} ?%?$/),
      fc.constantFrom('1.1.2026'),
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...NAMES.filter((name) => !['vendor', 'number'].includes(name))),
        text,
        (name, typed) => {
          const found = typedFact(name, typed);
          if ('value' in found && found.value !== '') expect(admitKept(name, found.value)).toBe(found.value);
        },
      ),
    );
  });
});

describe('what is kept', () => {
  it.each([
    ['total', '1184.20', 'GBP', { value: '1184.20', units: 118420, digits: 2, currency: 'GBP' }],
    ['total', '1200.00', 'JPY', { value: '1200', units: 1200, digits: 0, currency: 'JPY' }],
    ['net', '-12.00', null, { value: '-12.00', units: -1200, digits: 2, currency: null }],
    ['date', '2026-03-14', null, { value: '2026-03-14', day: '2026-03-14' }],
    ['taxRate', '7.5', null, { value: '7.5', rate: '7.5' }],
    ['vendor', '1184.20', 'GBP', { value: '1184.20' }],
  ])('of %s “%s” in %s is told by its type', (name, value, currency, kept) => {
    const nothing = { day: null, units: null, digits: null, currency: null, rate: null };
    expect(keptValue(name, value, currency)).toEqual({ ...nothing, ...kept });
  });
});
