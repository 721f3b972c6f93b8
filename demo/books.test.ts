import { randomUUID } from 'node:crypto';
import { Books, Entry } from '@crow/contract/ledger';
import { balanceGaps } from '@crow/core/ledger/statements/balances';
import { readStatement } from '@crow/core/ledger/statements/readStatement';
import { bankStatement, savingsStatement, typedEntries } from './books';

const BOOKS: Books = {
  country: 'GB',
  byThemselves: true,
  holder: '',
  closedUntil: null,
  lineRules: [],
  folders: [],
  accounts: [],
  categories: [{ id: randomUUID(), name: 'Sales', side: 'income', retired: false }],
};
const typed = typedEntries('2026-11-20', 23, BOOKS);

it('what is typed adds up, and is of the months before', () => {
  for (const { units, parts, day } of typed) {
    expect(parts.reduce((sum, { net, tax }) => sum + net + tax, 0)).toBe(units);
    expect(day < '2026-11-20').toBe(true);
  }
  expect(typed.length).toBeGreaterThan(90);
});

it('the statement is one that can be read, without a gap in its balances', () => {
  const entries = typed.map((entry, at): Entry => ({
    ...entry,
    id: randomUUID(),
    serial: at + 1,
    revision: 1,
    papers: [],
    paid: 0,
    worth: entry.units,
    checkedAt: null,
  }));
  const statement = readStatement(Buffer.from(bankStatement(entries, '2026-11-19')));
  expect(statement.lines.length).toBeGreaterThan(80);
  expect(balanceGaps(statement.lines, statement)).toEqual([]);
  expect(statement.lines.some(({ units }) => units > 0)).toBe(true);
  const savings = readStatement(Buffer.from(savingsStatement(statement.lines[0].day, '2026-11-19')));
  expect(balanceGaps(savings.lines, savings)).toEqual([]);
  const laidBy = statement.lines.filter(({ text }) => text.startsWith('TO SAVINGS'));
  expect(savings.lines.filter(({ text }) => text.startsWith('FROM')).length).toBe(laidBy.length);
});
