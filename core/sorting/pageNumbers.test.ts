import { readPageNumbers, sayPageNumbers } from './pageNumbers';

it.each([
  ['', [1, 2, 3, 4, 5, 6, 7, 8]],
  ['3', [3]],
  ['2-4, 8', [2, 3, 4, 8]],
  ['8, 2 – 3;3', [2, 3, 8]],
  ['6-', [6, 7, 8]],
])('reads “%s”', (typed, numbers) => {
  expect(readPageNumbers(typed, 8)).toEqual(numbers);
});

it.each(['0', '9', '2-9', '5-3', 'two', '1-2-3', '-4'])('does not guess what “%s” means', (typed) => {
  expect(readPageNumbers(typed, 8)).toBeUndefined();
});

it('says what it reads', () => {
  expect(sayPageNumbers([1, 2, 3, 6, 8, 9])).toBe('1-3, 6, 8-9');
  expect(readPageNumbers(sayPageNumbers([1, 2, 3, 6, 8]), 8)).toEqual([1, 2, 3, 6, 8]);
});
