import fc from 'fast-check';
import { admitKept } from './gate';
import { typedFact } from './typedFact';

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
    ['kind', 'poem', 'kind'],
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
