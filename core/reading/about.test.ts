import { summaryOf } from './about';
import { bill, letter } from './testing/papers';

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
