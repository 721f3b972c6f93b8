import { asideInWords, bytes, count } from './words';

it('counts things in words', () => {
  expect(count(1, 'page')).toBe('1 page');
  expect(count(0, 'page')).toBe('0 pages');
  expect(count(2, 'stack waits', 'stacks wait')).toBe('2 stacks wait');
});
it.each([
  [0, '0 bytes'],
  [999, '999 bytes'],
  [1234, '1.2 kB'],
  [474_000, '474 kB'],
  [2_790_563, '2.8 MB'],
])('says the size of %d bytes', (size, said) => {
  expect(bytes(size)).toBe(said);
});

it('says why a page is in no document', () => {
  const page = { blank: false, divider: null, dropDecided: false };
  expect(asideInWords({ ...page, blank: true })).toBe('blank');
  expect(asideInWords({ ...page, blank: true, dropDecided: true })).toBe('dropped');
  expect(asideInWords({ ...page, divider: { folder: null, kind: 'letter' } })).toBe('divider sheet');
  expect(asideInWords({ ...page, divider: { folder: 'Household/Vet', kind: null } })).toBe(
    'divider sheet: Household / Vet',
  );
});
