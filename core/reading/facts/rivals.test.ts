import { typed } from '../testing/typed';
import { isDoubtfulFact } from './doubt';
import { findFacts } from './findFacts';

const read = (paper: string) => findFacts([typed(paper)]);
const isDoubtful = (fact: { confidence: number } | null) =>
  fact !== null && isDoubtfulFact({ confidence: fact.confidence, confirmed: false });

const BILL = `
# Skerry Dye Works Ltd
# INVOICE
Invoice no. 4471          Date 3 November 2026
Madder                    40.00
Net                       40.00
VAT 20 %                   8.00
Total                    £48.00
`;

it('is sure of what nothing else on a bill could be', () => {
  const { date, number, total, kind } = read(BILL);
  expect([date, number, total, kind].map(isDoubtful)).toEqual([false, false, false, false]);
  expect([date, number, total, kind].map((fact) => fact?.other)).toEqual([undefined, undefined, undefined, undefined]);
});

it('doubts a day beside another that may be that of the paper, and tells the other', () => {
  const { date } = read(BILL.replace('Madder  ', 'Document date 9 November 2026\nMadder  '));
  expect(date?.value).toBe('2026-11-03');
  expect(isDoubtful(date)).toBe(true);
  expect(date?.other).toBe('2026-11-09');
});

it('doubts a number beside another that is called as much', () => {
  const { number } = read(BILL.replace('Madder  ', 'Invoice number 9920\nMadder  '));
  expect(number?.value).toBe('4471');
  expect(isDoubtful(number)).toBe(true);
  expect(number?.other).toBe('9920');
});

it('doubts a total below a larger sum, unless that is what was handed over', () => {
  const totalWith = (row: string) => read(BILL + row).total;
  expect(isDoubtful(totalWith('Carried to account        96.00\n'))).toBe(true);
  expect(isDoubtful(totalWith('Cash tendered             50.00\n'))).toBe(false);
});

it('tells which kind a paper may be as well, and doubts what would be another fact of one of that kind', () => {
  const { kind, dueDate, date } = read(`
# Moot Hall Trust
20 November 2026
Hire of the room          £180.00
Late charge                £15.00
To pay                    £195.00
We have not received your payment. Our invoice H-2291 of 5 October 2026.
Please pay by 4 December 2026.
`);
  const kinds = [kind?.value, kind?.other];
  expect(kinds).toContain('reminder');
  expect(isDoubtful(kind)).toBe(true);
  expect(dueDate?.value).toBe('2026-12-04');
  expect(isDoubtful(dueDate)).toBe(false);
  expect(isDoubtful(date)).toBe(true);
  expect([date?.value, date?.other]).toContain('2026-11-20');
});

it('doubts none for another kind where a person has said which it is', () => {
  const paper = BILL.replace('# INVOICE\n', '').replace('Invoice no.', 'Our no.     ') + 'Credited to your account\n';
  const [unsaid, said] = [read(paper), findFacts([typed(paper)], { kind: 'invoice' })];
  expect([unsaid.kind?.value, unsaid.kind?.other]).toContain('credit note');
  expect(isDoubtful(unsaid.total)).toBe(true);
  expect(isDoubtful(said.total)).toBe(false);
  expect(said.kind).toMatchObject({ value: 'invoice', confidence: 1 });
});
