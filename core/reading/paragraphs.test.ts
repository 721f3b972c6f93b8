import { paragraphsOf } from './paragraphs';
import { Word } from './words';

/** Lines at 30 pixels' distance, an empty one for more; `|` begins another column. */
function page(...lines: string[]): Word[] {
  return lines.flatMap((line, number) => {
    let x = 0;
    return line
      .split(' ')
      .filter(Boolean)
      .flatMap((text): Word[] => {
        if (text === '|') {
          x += 200;
          return [];
        }
        const word: Word = {
          text,
          box: [x, 30 * number, 10 * text.length, 20],
          confidence: 1,
          line: number,
          baseline: 30 * number + 16,
        };
        x += 10 * text.length + 10;
        return [word];
      });
  });
}

const textsOf = (words: Word[]) => paragraphsOf(words).map(({ text }) => text);

it('joins lines that go on, and words divided at their end', () => {
  expect(
    textsOf(
      page(
        'Dear Imre,',
        '',
        'thank you very much for the new ship-',
        'ment of wool, which arrived on Friday.',
        'It was dry.',
        '',
        'The next one may come in the autumn.',
      ),
    ),
  ).toEqual([
    'Dear Imre,',
    'thank you very much for the new shipment of wool, which arrived on Friday. It was dry.',
    'The next one may come in the autumn.',
  ]);
});

it('keeps rows of tables and addresses as lines', () => {
  const lines = ['Saltgate Yarns', '12 Quay Street', 'Warp, natural | 2 | 10.00', 'Weft, blue | 1 | 30.00'];
  expect(textsOf(page(...lines))).toEqual(lines.map((line) => line.replaceAll(' |', '')));
});
