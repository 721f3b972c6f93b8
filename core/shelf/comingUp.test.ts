import { likeOf } from '../reading/facts/kindList';
import { comingUp } from './comingUp';

const TODAY = '2026-06-10';
const like = (kind: string) => likeOf(kind, []);
const bare = { vendor: 'Linden Carpets', date: null, total: null, pages: 1, number: null, reference: null };
const paper = (id: string, part: object) => ({ ...bare, id, kind: 'invoice', dueDate: null, ends: null, ...part });

it('tells what is due and what ends, in the order of days, and how far off', () => {
  const papers = [
    paper('policy', { kind: 'contract', ends: '2026-08-01' }),
    paper('bill', { dueDate: '2026-06-12' }),
    paper('late', { dueDate: '2026-06-01' }),
  ];
  expect(comingUp(papers, TODAY, like)).toEqual([
    { paper: 'late', what: 'due', day: '2026-06-01', inDays: -9 },
    { paper: 'bill', what: 'due', day: '2026-06-12', inDays: 2 },
    { paper: 'policy', what: 'ends', day: '2026-08-01', inDays: 52 },
  ]);
});

it('says nothing of what is long past, far off, or not of the kind', () => {
  const papers = [
    paper('paid', { dueDate: '2026-04-01' }),
    paper('far', { dueDate: '2026-09-01' }),
    paper('slip', { kind: 'receipt', dueDate: '2026-06-12' }),
  ];
  expect(comingUp(papers, TODAY, like)).toEqual([]);
});

it('names a bill that was reminded of once, by its reminder', () => {
  const papers = [
    paper('bill', { number: '4711', dueDate: '2026-06-01' }),
    paper('reminder', { kind: 'reminder', reference: '4711', dueDate: '2026-06-20' }),
    paper('same number of somebody else', { vendor: 'Ash & Co', number: '4711', dueDate: '2026-06-15' }),
  ];
  expect(comingUp(papers, TODAY, like).map((each) => each.paper)).toEqual(['same number of somebody else', 'reminder']);
});
