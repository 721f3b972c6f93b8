import { Word } from '../words';
import { withCombsJoined } from './combs';
import { Rule } from './ruledLines';

const side = (left: number): Rule => ({ direction: 'down', left, right: left + 1, top: 100, bottom: 140 });
const sides = (from: number, count: number, pitch = 30) =>
  Array.from({ length: count }, (_, at) => side(from + at * pitch));

/** Letters in the middle of boxes; a point is an empty one. */
function written(text: string, from = 50, pitch = 30): Word[] {
  return [...text].flatMap((letter, at) =>
    letter === '.'
      ? []
      : [{ text: letter, box: [from + at * pitch + 10, 110, 10, 18], confidence: 0.9, line: 3, baseline: 128 }],
  );
}
const texts = (words: Word[]) => words.map(({ text }) => text);

it('makes one word of what stands letter by letter in a comb of boxes', () => {
  const label: Word = { text: 'IBAN', box: [50, 70, 60, 18], confidence: 0.9, line: 2, baseline: 88 };
  const joined = withCombsJoined([label, ...written('DE4128350')], sides(50, 10), 14);
  expect(texts(joined)).toEqual(['IBAN', 'DE4128350']);
  expect(joined[1]).toMatchObject({ line: 3, box: [60, 110, 250, 18] });
});

it('parts it at an empty box, and finds it though a side was not seen', () => {
  const seen = sides(50, 10).filter((_, at) => at !== 4);
  expect(texts(withCombsJoined(written('PL21.4AB'), seen, 14))).toEqual(['PL21', '4AB']);
});

it('leaves the cells of tables alone, and words above a comb', () => {
  const table = sides(50, 6, 90);
  const cells = written('1.2.3.', 50, 45);
  expect(texts(withCombsJoined(cells, table, 14))).toEqual(['1', '2', '3']);
  const words = ['12.50', '13.75', '11.00'].map((text, at): Word => ({
    ...written('A')[0],
    text,
    box: [55 + at * 60, 110, 50, 18],
  }));
  expect(texts(withCombsJoined(words, sides(50, 7), 14))).toEqual(['12.50', '13.75', '11.00']);
});

it('leaves a table of narrow columns alone, whose sides run down past several rows or whose cells hold more than one figure', () => {
  const tall = sides(50, 8).map((each) => ({ ...each, bottom: 260 }));
  const rows = [0, 40, 80].flatMap((down, line) =>
    written('1234567').map((word): Word => ({ ...word, line, box: [word.box[0], word.box[1] + down, 10, 18] })),
  );
  expect(withCombsJoined(rows, tall, 14)).toEqual(rows);
  const numbers = [12, 8, 31, 47, 25].map((value, at): Word => ({
    ...written('A')[0],
    text: String(value),
    box: [55 + at * 30, 110, 20, 18],
  }));
  expect(withCombsJoined(numbers, sides(50, 6), 14)).toEqual(numbers);
});
