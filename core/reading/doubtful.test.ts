import { doubtfulWords } from './doubtful';
import { restoreWords, StoredWord } from './words';

const word = (text: string, x: number, line: number, confidence: number): StoredWord => [
  text,
  x,
  100 * line,
  40,
  20,
  confidence,
  line,
  100 * line + 16,
];

it('finds the words worth a look, with the rest of their lines', () => {
  const words = [
    word('Total', 10, 1, 0.99),
    word('5S.20', 60, 1, 0.6),
    word('EUR', 110, 1, 0.98),
    word('—', 10, 2, 0.2),
    word('Thanks', 10, 3, 0.95),
    word('gqod', 10, 4, 0.89),
  ];
  expect(doubtfulWords(words)).toEqual([
    { index: 1, text: '5S.20', box: [60, 100, 40, 20], before: 'Total', after: 'EUR', lineBox: [10, 100, 140, 20] },
    { index: 5, text: 'gqod', box: [10, 400, 40, 20], before: '', after: '', lineBox: [10, 400, 40, 20] },
  ]);
});

it('leaves out what somebody found to be no text', () => {
  const words = [word('Total', 10, 1, 0.99), word('', 60, 1, 1), word('5S.20', 110, 1, 0.5)];
  expect(restoreWords(words).map(({ text }) => text)).toEqual(['Total', '5S.20']);
  expect(doubtfulWords(words)).toMatchObject([{ index: 2, before: 'Total' }]);
});
