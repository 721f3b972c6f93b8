import { Word } from '../words';
import { currencyIn } from './currencies';
import { amountsIn, readAmount } from './money';
import { rowsOf } from './rows';

/** A row of words as they would stand on paper; two spaces and more part cells. */
function row(text: string) {
  const words: Word[] = [];
  let x = 0;
  for (const piece of text.split(/( +)/)) {
    if (piece.trim())
      words.push({ text: piece, box: [x, 0, piece.length * 10, 20], confidence: 1, line: 0, baseline: 20 });
    x += piece.trim() ? piece.length * 10 : piece.length === 1 ? 8 : 20 * piece.length;
  }
  return rowsOf([{ words }])[0];
}

it('takes brackets for less than nothing, but not behind the same in words', () => {
  expect(amountsIn(row('Discount  (35.00)')).map(({ cents }) => cents)).toEqual([-3500]);
  expect(amountsIn(row('the sum of thirty-five pounds (£35.00)')).map(({ cents }) => cents)).toEqual([3500]);
});

it('takes a day without a year for no amount', () => {
  expect(amountsIn(row('Saldo am 30.09.  872,40')).map(({ cents }) => cents)).toEqual([87240]);
  expect(amountsIn(row('aus Ihrer Bestellung vom 5.10.'))).toEqual([]);
});

it.each([
  ['1.234,56', 123456],
  ['1,234.56', 123456],
  ["12'402.42", 1240242],
  ['£549.17', 54917],
  ['EUR 5 508,65', 550865],
  ['17.081,24 €', 1708124],
  ['-123.53', -12353],
  ['(12.00)', -1200],
  ['7,-', 700],
  ['1.362,—', 136200],
  ['480.--', 48000],
  ['JPY 60,200', 6020000],
  ['£**1,234.50**', 123450],
  ['=£1,234.50', 123450],
  ['£1,234·50', 123450],
  ['£1,234-50', 123450],
  ['£1,234.50p', 123450],
  ['1 234€50', 123450],
  ['¥1,200', 120000],
  ['Fr. 734.20', 73420],
])('reads %s as hundredths', (text, cents) => expect(readAmount(text)).toEqual({ cents, exact: true }));

it.each(['19 %', '14.03.2026', 'A4', '12:30', '', 'OH2 7LM'])('takes %s for no amount', (text) =>
  expect(readAmount(text)).toBeUndefined(),
);

it('takes a comma or point before three figures for thousands', () => {
  expect(readAmount('1.234')).toEqual({ cents: 123400, exact: false });
  expect(readAmount('12,345')).toEqual({ cents: 1234500, exact: false });
});

describe('the amounts of a row', () => {
  const cents = (text: string) => amountsIn(row(text)).map((amount) => amount.cents);

  it('are whole where thousands stand apart and the sign is set close', () => {
    expect(cents('Total HT  6 855,76€')).toEqual([685576]);
  });

  it('are told from quantities, percentages and measures', () => {
    expect(cents('2 Labour, per hour   0.75 h   171.80   128.85')).toEqual([17180, 12885]);
    expect(cents('VAT 5.5 %   £27.46')).toEqual([2746]);
    expect(cents('Kupferrohr 15,00 mm   4,20 €')).toEqual([420]);
  });

  it('are whole though their thousands stand apart', () => {
    expect(cents('TOTAL   EUR 6 059,52')).toEqual([605952]);
    expect(cents('Peigne   16   235,05   3 760,80')).toEqual([23505, 376080]);
  });
});

it.each([
  ['€', 'EUR'],
  ['12.00 CHF', 'CHF'],
  ['£3', 'GBP'],
  ['US$ 4', 'USD'],
  ['Eurydice', undefined],
  ['INR', 'INR'],
  ['¥12,800', 'JPY'],
  ['Fr.', 'CHF'],
  ['ZAR', 'ZAR'],
  ['BAZAR', undefined],
  ['CUP', undefined],
])('finds in %s the currency %s', (text, currency) => expect(currencyIn(text)).toBe(currency));
