import { Component } from '../../imaging/components';
import { SpelledWord } from '../spelled';
import { showsDiaeresis, takeDiaereses } from './diaereses';
import { Segment } from './segments';

/** Pieces of ink by their edges: left, top, right, bottom. A small letter is 20 high and stands on 60. */
const pieces = (...boxes: [number, number, number, number][]): Component[] =>
  boxes.map(([left, top, right, bottom]) => ({ left, top, right, bottom, pixels: (right - left) * (bottom - top) }));
const shows = (...boxes: [number, number, number, number][]) =>
  showsDiaeresis({ members: boxes.map((_, at) => at + 1), letter: 20 } as Segment, { components: pieces(...boxes) });

const U: [number, number, number, number] = [100, 40, 116, 60];

describe('two dots over a letter', () => {
  it('are seen', () => expect(shows(U, [101, 29, 104, 32], [111, 29, 114, 32])).toBe(true));
  it('are seen where they run together to a bar', () => expect(shows(U, [101, 29, 115, 33])).toBe(true));
  it('are not one dot, as on an i', () => expect(shows(U, [106, 29, 109, 32])).toBe(false));
  it('are not dots at two heights, or over nothing', () => {
    expect(shows(U, [101, 24, 104, 27], [111, 32, 114, 35])).toBe(false);
    expect(shows(U, [141, 29, 144, 32], [151, 29, 154, 32])).toBe(false);
  });
});

const word = (text: string, left: number, confidence = 0.9): SpelledWord => ({
  confidence,
  characters: [...text].map((each, at) => ({ text: each, box: [left + at * 20, 10, 16, 30], confidence })),
});
const taken = (first: SpelledWord, second: SpelledWord) => {
  takeDiaereses([first], [second]);
  return first.characters.map(({ text }) => text).join('');
};

describe('a word with dots', () => {
  it('is taken where the rest of it is the same', () => {
    expect(taken(word('Grunau', 0), word('Grünau', 0))).toBe('Grünau');
    expect(taken(word('Griinau', 0), word('Grünaux'.slice(0, 6), 0))).toBe('Grünau');
  });
  it('is left where it is another word, elsewhere, or doubted', () => {
    expect(taken(word('Harbour', 0), word('Hörbürü', 0))).toBe('Harbour');
    expect(taken(word('Grunau', 0), word('Grünau', 400))).toBe('Grunau');
    expect(taken(word('Grunau', 0), word('Grünau', 0, 0.3))).toBe('Grunau');
  });
  it('does not replace what has an accent', () => expect(taken(word('Séance', 0), word('Söance', 0))).toBe('Séance'));
});
