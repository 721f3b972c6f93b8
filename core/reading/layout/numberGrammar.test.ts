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

  it('stand in British postcodes where only a figure can', () => {
    expect(settled('Orrin Harbour OH6 STW', 'Wexcombe OHS 8TW')).toEqual(['Orrin Harbour OH6 5TW', 'Wexcombe OH5 8TW']);
    expect(settled('Orrin Harbour OH1 9 TW')).toEqual(['Orrin Harbour OH1 9TW']);
    // No figure can be told where both halves are doubtful, two letters that never stand there, or no town.
    const text = ['Wexcombe OHS STW', 'Bolts M8 BOX', '3 M8 SET', 'with A4 SIZ'];
    expect(settled(...text)).toEqual(text);
  });

  it('of a postcode end before what parts it from the next part of its line', () => {
    expect(settled('Wexcombe OH5 8TW- Tel. 60695')).toEqual(['Wexcombe OH5 8TW - Tel. 60695']);
  });

  it('stand apart where a thin space parts thousands, and nowhere else', () => {
    const wide = (gap: number) => {
      const [word] = line('1204,67');
      word.characters.slice(1).forEach(({ box }) => (box[0] += gap));
      const read = [[word]];
      settleNumbers(read);
      return read[0].map(({ characters }) => characters.map(({ text }) => text).join('')).join(' ');
    };
    expect(wide(8)).toBe('1 204,67');
    expect(wide(3)).toBe('1204,67');
    expect(settled('1204,67')).toEqual(['1204,67']);
  });

  it('of a bank account hold no letters, when the check digits allow one reading only', () => {
    expect(settled('IBAN DE6S 7112 2003 OOOO 1122 33')).toEqual(['IBAN DE6S 7112 2003 OOOO 1122 33']);
    expect(settled('IBAN DE64 7112 2003 OOOO 1122 33')).toEqual(['IBAN DE64 7112 2003 0000 1122 33']);
    expect(settled('IBAN DE64 7112 2003 0000 1122 E3')).toEqual(['IBAN DE64 7112 2003 0000 1122 E3']);
  });

  it('of a bank account are looked for further on where it goes on in the next line of its column', () => {
    const lines = ['Weberei DE64 7112 2O03', 'Deichweg 9 1122 33', '0000 1122 33', 'Tel. 60695'];
    expect(settled(...lines)).toEqual(['Weberei DE64 7112 2003', ...lines.slice(1)]);
  });

  it('and letters of a bank account stand each where its country has them', () => {
    expect(settled('IBAN GB95 PE1L 1234 S612 3456 78')).toEqual(['IBAN GB95 PELL 1234 5612 3456 78']);
    expect(settled('IBAN GB95 P?1L 1234 S612 3456 78')).toEqual(['IBAN GB95 P?1L 1234 S612 3456 78']);
  });
});
