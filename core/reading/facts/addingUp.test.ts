import { whatDoesNotAddUp } from './addingUp';

const LINES = [
  { description: 'Merino, undyed', quantity: 12, unitPrice: 18.4, amount: 220.8 },
  { description: 'Carriage', quantity: 1, unitPrice: 42.1, amount: 42.1 },
];
const FACTS = {
  net: '262.90',
  tax: '52.58',
  taxRate: '20',
  total: '315.48',
  date: '2026-10-08',
  dueDate: '2026-11-07',
};

it('says nothing when everything adds up, or nothing can be checked', () => {
  expect(whatDoesNotAddUp(FACTS, { lines: LINES })).toEqual([]);
  expect(whatDoesNotAddUp({})).toEqual([]);
  expect(whatDoesNotAddUp({ total: '262.90' }, { lines: LINES })).toEqual([]);
});

it.each([
  [
    'a line',
    FACTS,
    [{ ...LINES[0], quantity: 13 }, LINES[1]],
    '13 × 18.40 is 239.20, but 220.80 stands at “Merino, undyed”.',
  ],
  ['the sum of the lines', FACTS, [LINES[0]], 'The lines make 220.80, but 262.90 and 315.48 are said.'],
  [
    'net, tax and total',
    { ...FACTS, total: '316.48' },
    LINES,
    '262.90 and 52.58 tax are 315.48, but the total is 316.48.',
  ],
  ['the rate', { ...FACTS, taxRate: '19' }, LINES, '19 % of 262.90 are 49.95, but the tax is 52.58.'],
  ['the days', { ...FACTS, dueDate: '2026-10-01' }, LINES, 'It is due before its date.'],
])('says so when it is wrong: %s', (_what, facts, lines, sentence) => {
  expect(whatDoesNotAddUp(facts, { lines })).toEqual([sentence]);
});

it('checks tax by rate, each and all together', () => {
  const facts = { net: '100.00', tax: '15.20', taxRate: '19', total: '115.20' };
  const taxes = [
    { rate: 19, net: 60, tax: 11.4 },
    { rate: 7, net: 40, tax: 2.8 },
  ];
  expect(whatDoesNotAddUp({ ...facts, tax: '14.20', total: '114.20' }, { taxes })).toEqual([]);
  expect(whatDoesNotAddUp(facts, { taxes })).toEqual(['The taxes by rate make 14.20, but the tax is 15.20.']);
  expect(whatDoesNotAddUp({}, { taxes: [{ rate: 7, net: 40, tax: 3.8 }] })).toEqual([
    '7 % of 40.00 are 2.80, but 3.80 is said.',
  ]);
});

it('takes the lines of a credit note as they were billed, and prices before a tax that the amounts are with', () => {
  expect(whatDoesNotAddUp({ net: '-262.90', tax: '-52.58', total: '-315.48' }, { lines: LINES })).toEqual([]);
  expect(whatDoesNotAddUp({ net: '-262.80' }, { lines: [LINES[0]] })).toEqual([
    'The lines make 220.80, but -262.80 is said.',
  ]);
  const taxed = [{ description: 'Labels', quantity: 250, unitPrice: 0.22, amount: 66 }];
  expect(whatDoesNotAddUp({ taxRate: '20', total: '66.00' }, { lines: taxed })).toEqual([]);
  expect(whatDoesNotAddUp({ taxRate: '5', total: '66.00' }, { lines: taxed })).toEqual([
    '250 × 0.22 is 55.00, but 66.00 stands at “Labels”.',
  ]);
});

it('forgives what rounding does', () => {
  const lines = [1, 2, 3].map((n) => ({ description: `${n}`, quantity: 3, unitPrice: 0.333, amount: 1 }));
  expect(whatDoesNotAddUp({ net: '3.01' }, { lines })).toEqual([]);
});

it('checks that what a statement books leads from one balance to the other', () => {
  const booking = (amount: number) => ({ date: '2026-09-03', text: 'Rent', amount, balance: null });
  const facts = { opening: '100.00', closing: '60.10' };
  expect(whatDoesNotAddUp(facts, { bookings: [booking(-50.1), booking(10.2)] })).toEqual([]);
  expect(whatDoesNotAddUp(facts, { bookings: [booking(-50.1), booking(-10.2)] })).toEqual([
    'From 100.00 the bookings lead to 39.70, but the closing balance is 60.10.',
  ]);
});
