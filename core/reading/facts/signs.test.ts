import { Word } from '../words';
import { sayReason } from './reason';
import { checksOf, findSigns, isIban, senderBySigns, taxNumberFits, sayCheck } from './signs';

const page = (text: string) => ({
  words: text.split('\n').flatMap((line, number) =>
    line.split(' ').map((each, place): Word => ({
      text: each,
      box: [100 * place, 40 * number, 90, 20],
      confidence: 1,
      line: number,
      baseline: 40 * number + 16,
    })),
  ),
});

it('finds bank accounts, tax numbers, web addresses and phones', () => {
  const paper = page(
    'IBAN: DE64 7112 2003 0000 1122 33 BIC ABCDDEFF\nUSt-IdNr. DE711220034\nTel. +49 40 555 0199\nwww.wolle-seidel.example post@wolle-seidel.example',
  );
  expect(findSigns([paper])).toEqual([
    { kind: 'iban', value: 'DE64711220030000112233', fits: true },
    { kind: 'tax', value: 'DE711220034', fits: true },
    { kind: 'web', value: 'wolle-seidel.example', fits: true },
    { kind: 'phone', value: '49405550199', fits: true },
  ]);
});

it.each(['Ihre USt-IdNr. DE711220034', 'Your VAT no. DE711220034', 'N° TVA client : DE711220034'])(
  'takes no tax number of whoever pays for the sender’s: %s',
  (line) =>
    expect(findSigns([page(`USt-IdNr. DE136695976\n${line}`)]).map(({ value }) => value)).toEqual(['DE136695976']),
);

it.each(['GB53WICK71122003000011', 'FR6171122003300001122330011', 'CH7471122003300001122', 'NL85LOOM0711220033'])(
  'knows the IBAN %s, and that it does not fit with a figure changed',
  (iban) => {
    expect(isIban(iban)).toBe(true);
    expect(isIban(iban.replace(/\d(?=\D*$)/, (digit) => String((Number(digit) + 1) % 10)))).toBe(false);
  },
);

it.each([
  ['DE711220034', true],
  ['DE711220035', false],
  ['ATU71122019', true],
  ['BE0711220034', true],
  ['FR96711220033', true],
  ['IT71122003008', true],
  ['NL711220037B01', true],
  ['PT711220034', true],
  ['LU71122021', true],
  ['GB711220052', true],
  ['GB711220053', false],
  ['CHE711220035', true],
  ['DE12345', undefined],
  ['XX123456789', undefined],
])('checks the tax number %s', (number, fits) => {
  expect(taxNumberFits(number)).toBe(fits);
});

it('knows a sender by signs that are its alone', () => {
  const signs = findSigns([page('Tel. 01632 960123\nwww.saltgate.example\nIBAN DE64 7112 2003 0000 1122 33')]);
  const own = { kind: 'iban', value: 'DE64711220030000112233' };
  const known = [
    { kind: 'web', value: 'saltgate.example', vendor: 'Saltgate Yarns' },
    { ...own, vendor: 'Saltgate Yarns' },
    { ...own, vendor: 'Marlowe Dye Works' },
  ];
  const { vendor, why } = senderBySigns(signs, known)!;
  expect([vendor, sayReason(why)]).toEqual(['Saltgate Yarns', 'its web address is known']);
  expect(senderBySigns(signs, known.slice(1))).toBeUndefined();
});

it('says what does not fit', () => {
  const signs = findSigns([page('IBAN DE65 7112 2003 0000 1122 33')]);
  expect(checksOf(signs).map(sayCheck)).toEqual([
    'The check digits of the IBAN DE65 7112 2003 0000 1122 33 do not fit: a figure was misread, or misprinted.',
  ]);
});

it('takes no account number that is as long as those of another country, though its check digits fit', () => {
  expect(isIban('DE31308827403207845731')).toBe(true);
  expect(isIban('DE31308827403207')).toBe(false);
});
