import { PageCode, Word } from '../reading/words';
import { placesToHide, withMargin, wordsLeft } from './placesToHide';

/** A line of words, each twenty pixels to a letter, one line below the other. */
function page(...lines: string[]): { words: Word[] } {
  const words = lines.flatMap((line, row) => {
    let x = 0;
    return line.split(' ').map((text): Word => {
      const box: Word['box'] = [x, 40 * row, 10 * text.length, 20];
      x += 10 * text.length + 10;
      return { text, box, confidence: 1, line: row, baseline: box[1] + 20 };
    });
  });
  return { words };
}
const texts = (what: 'accounts' | 'amounts', ...lines: string[]) =>
  placesToHide([page(...lines)], what).map(({ text }) => text);

it.each([
  ['IBAN DE44 5001 0517 5407 3249 31', ['DE44 5001 0517 5407 3249 31']],
  ['pay to GB33BUKB20201555555555, thank you', ['GB33BUKB20201555555555,']],
  ['IBAN: FR14 2004 1010 0505 0001 3M02 606 BIC PSSTFRPP', ['FR14 2004 1010 0505 0001 3M02 606']],
  // A misread check digit hides it all the same.
  ['DEO4 5001 0517 5407 3249 31', ['DEO4 5001 0517 5407 3249 31']],
  ['order no. AB12 of 3 May 2027', []],
])('finds accounts in “%s”', (line, wanted) => expect(texts('accounts', line)).toEqual(wanted));

it('finds accounts in codes', () => {
  const codes: PageCode[] = [{ text: 'BCD\n002\n1\nSCT\n\nWeir\nDE44500105175407324931\nEUR12', box: [5, 5, 50, 50] }];
  expect(placesToHide([{ words: [], codes }], 'accounts')).toMatchObject([{ page: 0, box: [5, 5, 50, 50] }]);
});

it('finds amounts with their signs, and no rates and dates', () => {
  expect(texts('amounts', 'Total £1,204.50', 'VAT 20 % of 12.05.2027', '6 059,52 €')).toEqual([
    '£1,204.50',
    '6 059,52 €',
  ]);
});

it('leaves the words that lie outside, and hides those of which only a part lies inside', () => {
  const { words } = page('alpha beta', 'gamma delta');
  const left = wordsLeft(words, [withMargin([0, 0, 80, 20])]);
  expect(left.map(({ text }) => text)).toEqual(['gamma', 'delta']);
});
