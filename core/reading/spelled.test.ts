import { parseSpelled } from './spelled';

it('makes words of characters that say where a word begins', () => {
  const words = parseSpelled('1 10 9 25 52 99.5 96 N\n0 29 20 49 43 98 96 o\n1 60 20 70 43 90 91.5 7\n');
  expect(words.map(({ characters }) => characters.map(({ text }) => text).join(''))).toEqual(['No', '7']);
  expect(words[0].characters[1]).toEqual({ text: 'o', box: [29, 20, 20, 23], confidence: 0.98 });
  expect(words[1].confidence).toBeCloseTo(0.915);
});

it('takes a space inside what was read as part of it, and sureness out of range as none or all', () => {
  const [word] = parseSpelled('1 0 0 5 5 -3 120 a b');
  expect(word).toEqual({ characters: [{ text: 'a b', box: [0, 0, 5, 5], confidence: 0 }], confidence: 1 });
});

it('gives nothing for a line in which nothing was read', () => expect(parseSpelled('')).toEqual([]));
