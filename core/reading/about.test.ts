import { answerTo, summaryOf } from './about';
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
const ask = (question: string, facts = {}, pages = [letter]) => answerTo(question, facts, pages)?.text;

describe('a summary', () => {
  it('of a bill tells what it comes to and what it lists', () => {
    const line = (description: string) => ({ description, quantity: 1, unitPrice: 1, amount: 1 });
    expect(summaryOf(bill, ['Warp', 'Weft', 'Linen', 'Post'].map(line), [])).toBe(
      'Invoice 1302 from Saltgate Yarns of 5 March 2026 over 58.20 GBP with 9.70 tax at 20 % on 48.50, due on 4 April 2026. It lists Warp, Weft, Linen and 1 more.',
    );
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

describe('a question', () => {
  it.each([
    ['Which tax rate?', '20 %'],
    ['When is it due?', '4 April 2026'],
    ['Wann fällig?', '4 April 2026'],
    ['How much VAT is in it?', '9.70 GBP'],
    ['Combien ?', '58.20 GBP'],
    ['Who is it from?', 'Saltgate Yarns'],
    ['What is the invoice number?', '1302'],
    ['What date is on it?', '5 March 2026'],
  ])('about facts is answered from them: %s', (question, answer) => {
    expect(ask(question, bill)).toBe(answer);
  });

  it.each([
    ['Who signed?', 'Petra Quill'],
    ['What is the phone number?', '01632 960555'],
    ['What is it about?', 'Your waste collection changes'],
    ['When are the bins collected?', 'From May your bins are collected on Tuesdays.'],
    ['which form to return?', 'Please return the form by the end of April.'],
  ])('about the text is answered with its words: %s', (question, answer) => {
    expect(ask(question)).toBe(answer);
  });

  it.each(['Which tax rate?', 'When is it due?', 'What is the IBAN?', 'How old is the cat?', '?'])(
    'that nothing answers has no answer: %s',
    (question) => {
      expect(ask(question)).toBeUndefined();
    },
  );

  it('is answered with the place', () => {
    expect(answerTo('Who signed it?', {}, [letter])).toMatchObject({ page: 1, box: [0, 240, 110, 20] });
    expect(answerTo('the total?', bill, [letter])).toMatchObject({ fact: 'total' });
  });
});
