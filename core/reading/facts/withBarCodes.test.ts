import { typed } from '../testing/typed';
import { findFacts } from './findFacts';

const factsWith = (paper: string, ...codes: string[]) =>
  findFacts([{ ...typed(paper), codes: codes.map((text) => ({ text, box: [600, 40, 200, 60] as const }) as never) }]);

const BILL = '# Skerry Dye Works Ltd\nInvoice no. B0T4471\nDate 3 November 2026\nTotal   £46.00';

it('takes a number from the bars where it was misread, and is sure of it', () =>
  expect(factsWith(BILL, 'BOT4471').number).toMatchObject({
    value: 'BOT4471',
    confidence: 0.99,
    why: { code: 'bar-code' },
  }));

it('is sure of a number that the bars say again among others', () =>
  expect(factsWith(BILL.replace('B0T4471', '2026-4471'), '0012026447199').number).toMatchObject({
    value: '2026-4471',
    confidence: 0.99,
  }));

it('gives a paper without a number that of its only code, but not that of an article', () => {
  const parcel = '# Quayside Parcels\nDelivery note\nDate 3 November 2026\nTo Wickford Loom';
  expect(factsWith(parcel, 'QP00412299GB').number).toMatchObject({ value: 'QP00412299GB', confidence: 0.9 });
  expect(factsWith(parcel, '4006381333931').number).toBeNull();
  expect(factsWith(BILL.replace('Invoice no. B0T4471', 'Invoice'), 'QP00412299GB').number).toBeNull();
});

it('leaves another number as it was read, however near it is', () => {
  expect(factsWith(BILL, 'B0T4472').number).toMatchObject({ value: 'B0T4471', why: { code: 'beside' } });
  expect(factsWith(BILL, 'QP00412299GB').number).toMatchObject({ value: 'B0T4471', why: { code: 'beside' } });
});
