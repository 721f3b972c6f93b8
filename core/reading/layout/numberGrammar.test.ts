import { SpelledWord } from '../spelled';
import { settleNumbers } from './numberGrammar';

/** Words of a line, each letter ten wide and twenty tall; a letter in ~ is a quotation mark of four only. */
function line(text: string): SpelledWord[] {
  let x = 0;
  return text.split(' ').map((word) => {
    const characters = [...word].map((letter) => ({
      text: letter === '~' ? '”' : letter,
      box: [(x += 10), 0, 8, letter === '~' ? 4 : 20] as [number, number, number, number],
      confidence: 0.95,
    }));
    x += 10;
    return { characters, confidence: 0.95 };
  });
}

function settled(...lines: string[]): string[] {
  const read = lines.map(line);
  settleNumbers(read);
  return read.map((words) => words.map(({ characters }) => characters.map(({ text }) => text).join('')).join(' '));
}

describe('numbers as they are written', () => {
  it('have the decimal separator of the rest of the page', () => {
    expect(settled('34.29', '1.773.84', '2,755,06', '205,74 €', '1.487,13', '78,27')).toEqual([
      '34,29',
      '1.773,84',
      '2.755,06',
      '205,74 €',
      '1.487,13',
      '78,27',
    ]);
    expect(settled('34.29', '1,773.84', '2.755.06', '1,000', '12,5')).toEqual([
      '34.29',
      '1,773.84',
      '2,755.06',
      '1,000',
      '12,5',
    ]);
  });

  it('stay as they are where the page shows no way of writing', () => {
    expect(settled('34.29', '17,50', 'No. 12.50')).toEqual(['34.29', '17,50', 'No. 12.50']);
    expect(settled('1.773.84')).toEqual(['1.773,84']);
  });

  it('are told from days, times and versions', () => {
    const text = ['12,50', '13,50', '14,50', '12.11.2026', '14.30.00', 'v2.10', 'A4.20'];
    expect(settled(...text)).toEqual(text);
  });

  it('have a seven where a quotation mark is as tall as they are', () => {
    expect(settled('6”248', '”5106', '12~', '“quoted”')).toEqual(['67248', '75106', '12”', '“quoted”']);
  });

  it('of a bank account hold no letters, when the check digits allow one reading only', () => {
    expect(settled('IBAN DE6S 7112 2003 OOOO 1122 33')).toEqual(['IBAN DE6S 7112 2003 OOOO 1122 33']);
    expect(settled('IBAN DE64 7112 2003 OOOO 1122 33')).toEqual(['IBAN DE64 7112 2003 0000 1122 33']);
    expect(settled('IBAN DE64 7112 2003 0000 1122 E3')).toEqual(['IBAN DE64 7112 2003 0000 1122 E3']);
  });
});
