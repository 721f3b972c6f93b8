import { partsOf, termsBefore } from './terms';

it.each([
  ['rechnungsnummer', ['document', 'number']],
  ['kundennr', ['customer', 'number']],
  ['versicherungsschein', ['policy']],
  ['invoice', ['document']],
  ['kassenzeichen', ['number']],
  ['falligkeit', ['pay']],
  ['wool', []],
])('takes %s apart', (word, parts) => expect(partsOf(word)).toEqual(parts));

it('says nothing of what is too long to be a word', () => {
  const began = performance.now();
  expect(partsOf(`${'x'.repeat(50_000)}nummer`)).toEqual([]);
  expect(termsBefore(`${'x'.repeat(50_000)} no.`).map(({ word }) => word)).toContain('no.');
  expect(performance.now() - began).toBeLessThan(5000);
});

it('goes back from a value to the value before it, nearest first', () => {
  const words = (before: string) => termsBefore(before).map(({ word }) => word);
  expect(words('order 4471 customer no.')).toEqual(['no.', 'customer']);
  expect(words('n° de facture')).toEqual(['facture', 'de', 'n°']);
  expect(words('rechnungs-nr.:')).toEqual(['nr.', 'rechnungs']);
});

it('crosses a sum in a sentence, but not the end of one', () => {
  const words = (before: string) => termsBefore(before).map(({ word }) => word);
  expect(words('bitte uberweisen sie 1.173,34 € bis zum')).toContain('uberweisen');
  expect(words('thank you for the payment. from')).toEqual(['from']);
});
