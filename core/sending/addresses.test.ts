import { addressesIn, bareAddress, isAddress } from './addresses';

it('are told apart by commas and semicolons, but not by those in quoted names', () => {
  expect(addressesIn(' ada@books.example; "Quay, Bo" <bo@quay.example>,,cy@x.example ')).toEqual([
    'ada@books.example',
    '"Quay, Bo" <bo@quay.example>',
    'cy@x.example',
  ]);
  expect(addressesIn(' ; ')).toEqual([]);
});

it.each([
  'ada@books.example',
  'Ada <ada@books.example>',
  'a.b+c@x-y.example',
  'imre@hafen-büro.example',
  'me@localhost',
])('%s is one', (written) => expect(isAddress(written)).toBe(true));

it.each([
  'ada',
  'ada@',
  '@books.example',
  'ada@books..example',
  'ada @books.example',
  'a@b@c.example',
  'Ada <ada>',
  '<a@b.example> x',
  'a@-b.example',
])('%s is none', (written) => expect(isAddress(written)).toBe(false));

it('come without the name before them', () => expect(bareAddress('Ada <ada@books.example>')).toBe('ada@books.example'));
