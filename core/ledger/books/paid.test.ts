import { Owed, paidBy, Payment } from './paid';

const owed = (id: string, units: number, day = '2026-03-01', currency = 'GBP'): Owed => ({ id, units, day, currency });
const payment = (entries: string[], ...units: number[]): Payment => ({
  entries,
  lines: units.map((each) => ({ units: each, currency: 'GBP' })),
  why: 'amount',
});
const paid = (entries: Owed[], ...payments: Payment[]) => Object.fromEntries(paidBy(entries, payments));

describe('how much is paid', () => {
  it('is all of a bill that a line pays, and what came in of what is to be received', () => {
    expect(paid([owed('a', 500), owed('b', -300)], payment(['a'], -500), payment(['b'], 300))).toEqual({
      a: 500,
      b: -300,
    });
  });

  it('is what the parts come to, in one tie or in several', () => {
    expect(paid([owed('a', 500)], payment(['a'], -200, -100))).toEqual({ a: 300 });
    expect(paid([owed('a', 500)], payment(['a'], -200), payment(['a'], -300))).toEqual({ a: 500 });
  });

  it('is of the earliest bills first where one line does not pay all', () => {
    const bills = [owed('late', 300, '2026-04-01'), owed('early', 300)];
    expect(paid(bills, payment(['late', 'early'], -400))).toEqual({ early: 300, late: 100 });
    expect(paid(bills, payment(['late', 'early'], -650))).toEqual({ early: 300, late: 350 });
  });

  it('takes a credit note off', () => {
    const all = [owed('bill', 500), owed('credit', -80)];
    expect(paid(all, payment(['bill', 'credit'], -420))).toEqual({ bill: 500, credit: -80 });
    expect(paid(all, payment(['bill', 'credit'], -300))).toEqual({ bill: 380, credit: -80 });
  });

  it('is all of it where a discount, a fee or the exchange makes the difference', () => {
    expect(paid([owed('a', 1000)], { ...payment(['a'], -980), why: 'discount' })).toEqual({ a: 1000 });
    expect(paid([owed('a', 1000, '2026-03-01', 'EUR')], payment(['a'], -862))).toEqual({ a: 1000 });
  });
});
