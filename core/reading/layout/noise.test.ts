import { Word } from '../words';
import { withoutNoise } from './noise';

const ENGLISH = new Set(
  'the invoice for yarn and two cones of wool total amount due please pay within thirty days from our mill thank you dyed red madder weld woad'.split(
    ' ',
  ),
);

/** Words beside each other, each line below the last; as sure as said behind them. */
function page(...lines: string[]): Word[] {
  return lines.flatMap((text, line) =>
    text.split(' ').map((told, at): Word => {
      const [word, sure = '0.99', height = '24'] = told.split('|');
      return {
        text: word,
        confidence: Number(sure),
        box: [100 + at * 130, 100 + line * 50, word.length * 14, Number(height)],
        line,
        baseline: 124 + line * 50,
      };
    }),
  );
}

const texts = (words: Word[]) => words.map(({ text }) => text).join(' ');

describe('the judge of noise', () => {
  it('leaves out what was read from a picture beside the text of a line, and keeps the text', () => {
    const words = page(
      'invoice for two cones of wool',
      'please pay within thirty days y:|0.44|50 xq|0.4|55 =|0.5|12 ~e|0.46|9 zx|0.4|60 q_|0.38|48',
      'thank you',
    );
    expect(texts(withoutNoise(words, ENGLISH))).toBe(
      'invoice for two cones of wool please pay within thirty days thank you',
    );
  });

  it('leaves out few doubtful letters in no size that the page has', () => {
    const words = page('madder weld woad', 'l|0.5|8', 'R|0.5|80');
    expect(texts(withoutNoise(words, ENGLISH))).toBe('madder weld woad');
  });

  it('leaves out a whole picture’s crumbs, though some are words by chance, and keeps as doubtful a word of print', () => {
    const crumbs = page(
      'ree|0.5|19 ies|0.48|26 two|0.55|20',
      'eae|0.49|12 total|0.52|15 rae|0.5|10',
      'wae|0.5|12 it|0.4|16',
    );
    const print = page('please pay within thirty days', 'the totaI|0.55 amount due', 'thank you for wool');
    const below = crumbs.map(({ box: [x, y, ...size], line, ...word }): Word => ({
      ...word,
      box: [x, y + 400, ...size],
      line: line + 3,
    }));
    expect(texts(withoutNoise([...print, ...below], ENGLISH))).toBe(
      'please pay within thirty days the totaI amount due thank you for wool',
    );
  });

  it('keeps a doubtful word among sure ones, numbers, and names that no list has', () => {
    const lines = ['invoice from Grünau|0.62 mill', 'total amount 118,40|0.6', 'Zwirnwerk|0.95'];
    expect(texts(withoutNoise(page(...lines), ENGLISH))).toBe('invoice from Grünau mill total amount 118,40 Zwirnwerk');
  });

  it('keeps the order of what it keeps, and copes with a page of nothing', () => {
    expect(withoutNoise([], ENGLISH)).toEqual([]);
    expect(texts(withoutNoise(page('two cones', 'of wool'), new Set()))).toBe('two cones of wool');
  });
});
