import { summaryOf } from './about';
import { Word } from './words';

const page = (text: string) => ({
  words: text.split('\n').flatMap((line, number) =>
    line.split(' ').map((each, place): Word => ({
      text: each,
      box: [
        10 * (line.split(' ').slice(0, place).join(' ').length + (place > 0 ? 1 : 0)),
        40 * number,
        10 * each.length,
        20,
      ],
      confidence: 1,
      line: number,
      baseline: 40 * number + 16,
    })),
  ),
});

const letter = page(
  'Orrin Harbour Council\nYour waste collection changes\nDear Mr Castellane,\nFrom May your bins are collected on Tuesdays.\nPlease return the form by the end of April.\nYours sincerely\nPetra Quill\nTel. 01632 960555',
);
const bill = {
  kind: 'invoice',
  vendor: 'Saltgate Yarns',
  date: '2026-03-05',
  number: '1302',
  total: '58.20',
  currency: 'GBP',
  tax: '9.70',
  taxRate: '20',
  net: '48.50',
  dueDate: '2026-04-04',
};

describe('a summary', () => {
  it('of a bill tells what it comes to and what it lists', () => {
    const line = (description: string) => ({ description, quantity: 1, unitPrice: 1, amount: 1 });
    expect(summaryOf(bill, ['Warp', 'Weft', 'Linen', 'Post'].map(line), [])).toBe(
      'Invoice 1302 from Saltgate Yarns of 2026-03-05 over 58.20 GBP with 9.70 tax at 20 % on 48.50, due on 2026-04-04. It lists Warp, Weft, Linen and 1 more.',
    );
  });

  it('writes days as they are wanted', () => {
    expect(summaryOf({ kind: 'letter', date: '2026-03-05' }, [], [], 'words')).toBe('Letter of 5 March 2026.');
  });

  it('of a letter tells what it is about', () => {
    expect(summaryOf({ kind: 'letter', vendor: 'Orrin Harbour Council' }, [], [letter])).toBe(
      'Letter from Orrin Harbour Council. It is about “Your waste collection changes”.',
    );
  });

  it('of a paper of which nothing is known is empty', () => {
    expect(summaryOf({}, [], [])).toBe('');
  });
});
