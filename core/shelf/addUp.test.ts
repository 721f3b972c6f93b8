import { likeOf } from '../reading/facts/kindList';
import { addUp } from './addUp';
import { Paper } from './paper';

let next = 0;
function paper(part: Partial<Paper>): Paper {
  return {
    id: String(next++),
    kind: 'invoice',
    vendor: 'Linden Carpets',
    date: '2027-02-03',
    dueDate: null,
    ends: null,
    total: { units: 1000, currency: 'GBP' },
    pages: 1,
    ...part,
  };
}
const like = (kind: string) => likeOf(kind, [{ name: 'toll', like: 'receipt', words: ['toll'] }]);

it('adds up by currency, the one of most papers first, credit notes taken off', () => {
  const { sums, papers, pages } = addUp(
    [
      paper({ total: { units: 900, currency: 'EUR' } }),
      paper({}),
      paper({ kind: 'credit note', total: { units: -250, currency: 'GBP' }, pages: 3 }),
    ],
    like,
  );
  expect(sums).toEqual([
    { currency: 'GBP', units: 750 },
    { currency: 'EUR', units: 900 },
  ]);
  expect([papers, pages]).toEqual([3, 5]);
});

it('leaves out what bills say as well, and says so', () => {
  const { sums, leftOut, withoutSum } = addUp(
    [
      paper({}),
      paper({ kind: 'reminder' }),
      paper({ kind: 'quote' }),
      paper({ kind: 'quote' }),
      paper({ total: null }),
    ],
    like,
  );
  expect(sums).toEqual([{ currency: 'GBP', units: 1000 }]);
  expect(leftOut).toEqual([
    { kind: 'reminder', papers: 1 },
    { kind: 'quote', papers: 2 },
  ]);
  expect(withoutSum).toBe(1);
});

it('counts kinds that somebody added as those that they are like, and papers of no known kind', () => {
  expect(addUp([paper({ kind: 'toll' }), paper({ kind: null })], like).sums).toEqual([
    { currency: 'GBP', units: 2000 },
  ]);
});

it('groups by month in the order of time and by sender, those not known last', () => {
  const { byMonth, byWho, from, until } = addUp(
    [
      paper({ date: null, vendor: null }),
      paper({ date: null, vendor: null }),
      paper({ date: '2027-03-30' }),
      paper({ date: '2026-12-01', vendor: 'Ash & Co' }),
      paper({ date: '2027-03-02', kind: 'reminder' }),
    ],
    like,
  );
  expect(byMonth.map(({ key, papers, sums }) => [key, papers, sums[0].units])).toEqual([
    ['2026-12', 1, 1000],
    ['2027-03', 2, 1000],
    [null, 2, 2000],
  ]);
  expect(byWho.map(({ key }) => key)).toEqual(['Linden Carpets', 'Ash & Co', null]);
  expect([from, until]).toEqual(['2026-12-01', '2027-03-30']);
});
