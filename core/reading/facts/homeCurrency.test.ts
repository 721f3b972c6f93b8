import { typed } from '../testing/typed';
import { findFacts } from './findFacts';
import { homeCurrency } from './homeCurrency';
import { rowsOf } from './rows';

const told = (text: string) => homeCurrency(rowsOf([typed(text)]))?.value;

describe('the currency of a paper that prints no sign', () => {
  it.each([
    ['22 Net Loft Row, Brightling BR4 2LD\nTotal  12.40', 'GBP'],
    ['118 Wharf Ave, Rockport, ME 04856\nTotal  12.40', 'USD'],
    ['Osterstr. 77, 26721 Emden\nUSt 19 %  2,40\nSumme  15,00', 'EUR'],
    ['TVA FR 44 411774208\nTotal  41,40', 'EUR'],
    ['CHE-114.772.310 MWST\nTotal  138.00', 'CHF'],
    ['ABN 51 824 753 556\nTotal  12.40', 'AUD'],
  ])('is that of where it comes from: %s', (text, currency) => expect(told(text)).toBe(currency));

  it('is not guessed where little or nothing tells it, or two countries do', () => {
    expect(told('Total  12.40')).toBeUndefined();
    expect(told('Parts Ltd\nTotal  12.40')).toBeUndefined();
    expect(told('22 Net Loft Row, Brightling BR4 2LD\nto Osterstr. 77, 26721 Emden\nUSt 19 %  2,40')).toBeUndefined();
  });

  it('is not told by words and places that only look alike', () => {
    expect(told('btw: 3 skeins\nTotal  12.40')).toBeUndefined();
    expect(told('to Galerie Aumont, FR 29900\nTotal  12.40')).toBeUndefined();
  });

  it('is doubtful where it is dollars by their sign alone, whose country only a place tells', () => {
    const found = findFacts([typed('# Fiber Farm\nINVOICE 1044\nShip to: Rimouski QC G5L 4B7\nTotal due  $170.40')]);
    expect(found.currency).toMatchObject({ value: 'CAD', why: { code: 'comes-from' } });
    expect(found.currency!.confidence).toBeLessThan(0.6);
  });

  it('is doubtful, and says by what it was told', () => {
    const fact = homeCurrency(rowsOf([typed('22 Net Loft Row, Brightling BR4 2LD')]))!;
    expect(fact.confidence).toBeLessThan(0.6);
    expect(fact.why).toEqual({ code: 'comes-from', text: 'BR4 2LD' });
  });
});
