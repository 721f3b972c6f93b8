import { answerTo } from './questions';
import { bill, letter, page } from '../reading/testing/papers';

const energy = page(
  'Tarn Power\nElectricity statement\nCustomer number   77 120\nMeter number   E09 4417\nReading   41208\nPolicy of supply   TP-2\nDeposit paid   20.00\nTotal   96.40\nBalance to pay   76.40',
);
const policy = page(
  'Fell & Moor Mutual\nPolicy number: FM-20931\nDear Imre Castellane,\nThe policy ends on 31 March 2027.\nIt was issued on 2 April 2026.\nThe premium is payable each quarter.',
);
const ask = (question: string, facts = {}, pages = [letter]) => answerTo(question, facts, pages)?.text;

describe('a question', () => {
  it.each([
    ['Which tax rate?', '20 %'],
    ['When is it due?', '2026-04-04'],
    ['Wann fällig?', '2026-04-04'],
    ['How much VAT is in it?', '9.70 GBP'],
    ['Combien ?', '58.20 GBP'],
    ['Who is it from?', 'Saltgate Yarns'],
    ['What is the invoice number?', '1302'],
    ['What date is on it?', '2026-03-05'],
    ['How much do we have to pay?', '58.20 GBP'],
    ['What is the total?', '58.20 GBP'],
    ['the net amount?', '48.50 GBP'],
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

  it.each([
    ['What is the meter number?', 'E09 4417'],
    ['customer number?', '77 120'],
    ['Balance to pay?', '76.40'],
  ])('about something with a label is answered by what stands behind it: %s', (question, answer) => {
    expect(ask(question, { kind: 'statement', number: 'S-1', total: '96.40' }, [energy])).toBe(answer);
  });

  it('about the end of something is not answered with the day of the paper', () => {
    const facts = { kind: 'letter', date: '2026-04-02', number: 'FM-20931' };
    expect(ask('When does the policy end?', facts, [policy])).toBe('2027-03-31');
    expect(ask('What is the policy number?', facts, [policy])).toBe('FM-20931');
    expect(ask('When does the insurance of the van start?', facts, [policy])).toBeUndefined();
  });

  it('about what is left to pay is not answered with a total of which something was paid before', () => {
    expect(ask('How much do we owe?', { total: '96.40' }, [energy])).not.toBe('96.40');
    expect(ask('How much do we owe?', { total: '96.40', amountDue: '76.40' }, [energy])).toBe('76.40');
  });

  it.each([
    'Which tax rate?',
    'When is it due?',
    'What is the IBAN?',
    'How old is the cat?',
    'Who is it addressed to?',
    'What is the meter number?',
    'How much is the parking?',
    'When was the boiler serviced?',
    'who repaired the roof',
    '?',
    '',
  ])('that nothing answers has no answer: %s', (question) => {
    expect(ask(question)).toBeUndefined();
    if (!/tax|due/.test(question)) expect(ask(question, bill, [letter])).toBeUndefined();
  });

  it('that several things on the paper may answer has no answer', () => {
    const two = page('Call us\nTel. 01632 960555\nTel. 01632 960777');
    expect(ask('What is the phone number?', {}, [two])).toBeUndefined();
  });

  it('about where something is is answered by what says so, with a name or without, and not by a time', () => {
    const where = (question: string, line: string) => ask(question, {}, [page(`Cobb Carriers\n${line}`)]);
    expect(where('Where was it left?', 'Left behind the blue gate')).toBe('Left behind the blue gate');
    expect(where('Where was it left?', 'The crate was left at Netmakers Yard')).toBe(
      'The crate was left at Netmakers Yard',
    );
    expect(where('Wo wurde das Paket abgelegt?', 'Paket abgelegt hinter der Werkstatt')).toBe(
      'Paket abgelegt hinter der Werkstatt',
    );
    expect(where('Where was it left?', 'It was left in the morning')).toBeUndefined();
  });

  it('is answered with the place', () => {
    expect(answerTo('Who signed it?', {}, [letter])).toMatchObject({ page: 1, box: [0, 240, 110, 20] });
    expect(answerTo('the total?', bill, [letter])).toMatchObject({ fact: 'total' });
  });
});
