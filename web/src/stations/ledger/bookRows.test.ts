import { BookedLine, BookTie, Entry } from '@crow/contract/ledger';
import { drawnTies, filtered, rowsByDay, rowsInOrder, searchable, sumsOf } from './bookRows';

const entry = (id: string, given: Partial<Entry> = {}): Entry => ({
  id,
  serial: 1,
  revision: 1,
  day: '2026-10-02',
  due: null,
  who: 'Saltgate Yarns',
  what: '',
  number: 'S-118',
  currency: 'GBP',
  units: 12_000,
  accountId: null,
  ownUnits: null,
  parts: [{ categoryId: 'c', taxCode: 'GB-S', rate: 20, net: 10_000, tax: 2_000 }],
  papers: [],
  paid: 0,
  worth: null,
  checkedAt: null,
  ...given,
});
const line = (id: string, day: string): BookedLine => ({
  id,
  accountId: 'bank',
  day,
  units: -12_000,
  currency: 'GBP',
  who: 'SALTGATE',
  text: '',
  balance: null,
});
const tie = (entries: string[], lines: string[], made = false): BookTie => ({
  id: entries.join(),
  made,
  entries,
  lines,
  confidence: 0.99,
  sure: true,
  why: 'amount',
});
const ends = (rows: ReturnType<typeof rowsByDay>) =>
  rows.map((row) => (row.kind === 'group' ? row.title : `${row.entry?.id ?? '-'} ${row.line?.id ?? '-'}`));

describe('the rows of the book', () => {
  it('have entries and lines of statements at the height of their day, under their month', () => {
    const entries = [entry('a'), entry('b'), entry('c', { day: '2026-09-30' })];
    const lines = [line('x', '2026-10-02'), line('y', '2026-10-05')];
    expect(ends(rowsByDay(entries, lines, true))).toEqual([
      'October 2026',
      '- y',
      'b x',
      'a -',
      'September 2026',
      'c -',
    ]);
    expect(ends(rowsByDay(entries, lines, false))).toEqual([
      'September 2026',
      'c -',
      'October 2026',
      'a x',
      'b -',
      '- y',
    ]);
  });

  it('head a month with what its entries come to', () => {
    const [head] = rowsByDay([entry('a', { paid: 2_000 }), entry('b', { units: -500 })], [], true);
    expect(head).toMatchObject({
      kind: 'group',
      entries: 2,
      sums: [{ currency: 'GBP', out: 12_000, in: 500, toPay: 10_000, toCome: 500 }],
    });
    expect(sumsOf([entry('a'), entry('b', { currency: 'EUR' }), entry('c')]).map(({ currency }) => currency)).toEqual([
      'GBP',
      'EUR',
    ]);
  });

  it('have what is tied beside an entry where they are in another order than that of days', () => {
    const rows = rowsInOrder([entry('a'), entry('b')], [line('x', '2026-10-09')], [tie(['b'], ['x'])]);
    expect(ends(rows)).toEqual(['a -', 'b x']);
  });

  it('stand in groups with their sums where a column has some', () => {
    const entries = [entry('a', { who: 'Avery' }), entry('b', { who: 'Avery', units: 300 }), entry('c')];
    const rows = rowsInOrder(entries, [], [], ({ who }) => who);
    expect(ends(rows)).toEqual(['Avery', 'a -', 'b -', 'Saltgate Yarns', 'c -']);
    expect(rows[0]).toMatchObject({ entries: 2, sums: [{ out: 12_300 }] });
  });
});

it('a tie is drawn from each of its entries to each of its lines that are on the page', () => {
  const rows = rowsByDay([entry('a'), entry('b')], [line('x', '2026-10-05')], true);
  expect(drawnTies(rows, [tie(['a', 'b', 'gone'], ['x']), tie(['gone'], ['x'])])).toMatchObject([
    {
      pairs: [
        [3, 1],
        [2, 1],
      ],
    },
  ]);
});

describe('what is shown', () => {
  const all = searchable(
    [
      entry('a', { paid: 12_000, checkedAt: '2026-10-03' }),
      entry('b', { who: 'Färberei Mühlbach', papers: [{ documentId: 'd', name: 'n', role: 'proof' }] }),
      entry('c', { day: '2025-01-01', parts: [{ categoryId: null, taxCode: null, rate: null, net: 12_000, tax: 0 }] }),
    ],
    () => 'Materials',
  );
  const shown = (given: Partial<Parameters<typeof filtered>[1]>, ties: BookTie[] = []) =>
    filtered(all, { words: '', filter: 'all', year: '', ...given }, ties).map(({ id }) => id);

  it('has each of the words somewhere: name, number, amount, category, accents or not', () => {
    expect(shown({ words: 'farberei 120.00' })).toEqual(['b']);
    expect(shown({ words: 'materials s-118' })).toEqual(['a', 'b']);
    expect(shown({ words: 'nobody' })).toEqual([]);
  });

  it('is of a year, and what still has something to be done', () => {
    expect(shown({ year: '2025' })).toEqual(['c']);
    expect(shown({ filter: 'open' })).toEqual(['b', 'c']);
    expect(shown({ filter: 'no-paper' })).toEqual(['a', 'c']);
    expect(shown({ filter: 'no-category' })).toEqual(['c']);
    expect(shown({ filter: 'not-checked' })).toEqual(['b', 'c']);
    expect(shown({ filter: 'proposed' }, [tie(['b'], ['x']), tie(['a'], ['y'], true)])).toEqual(['b']);
  });
});
