import { allMatches } from './allMatches';

const found = (form: RegExp, text: string) => allMatches(form, text).map((match) => [match.index, match[0]]);

it('finds the same in one text after another, wherever the last match ended', () => {
  const form = /\d+/g;
  expect(found(form, 'a 12 b 345')).toEqual([
    [2, '12'],
    [7, '345'],
  ]);
  expect(found(form, '9')).toEqual([[0, '9']]);
  expect(found(form, '')).toEqual([]);
});

it('passes over matches of nothing', () => {
  expect(found(/x*/g, 'axxb')).toEqual([[1, 'xx']]);
});
