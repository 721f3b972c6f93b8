import { LineRule, rulesFor } from '../books/lineRules';
import { habitsOf, lineKey } from './habits';
import { matchPayments } from './match';

const line = (who: string, units = -12_000, text = 'card payment', day = '2026-10-09') => ({
  ...{ who, units, text, day },
  currency: 'GBP',
});
const entry = (id: string, who: string, units = 12_000, day = '2026-10-02') => ({
  ...{ id, who, units, day },
  due: null,
  number: '',
  currency: 'GBP',
});

it('know a line again by the words of whom it is about, else by its text', () => {
  expect(lineKey(line('ZHL*PARTNERS 4471'))).toBe('zhl partners');
  expect(lineKey(line('', -1, 'Service charge 10/26'))).toBe('service charge');
});

it('come from ties with entries of one name', () => {
  const lines = [line('ZHL PARTNERS')];
  expect(
    habitsOf([
      { who: ['Saltgate Yarns'], lines },
      { who: ['Saltgate Yarns', 'Saltgate Yarns'], lines },
      { who: ['Saltgate Yarns', 'Marlowe Dye Works'], lines },
      { who: [], lines },
    ]),
  ).toEqual([{ key: 'zhl partners', who: 'Saltgate Yarns', times: 2 }]);
});

it('tell whom a line is about whose words are like nobody', () => {
  const entries = [entry('a', 'Marlowe Dye Works'), entry('b', 'Saltgate Yarns')];
  const lines = [line('ZHL PARTNERS')];
  const best = (habits = habitsOf([])) => matchPayments(entries, lines, { habits })[0];
  expect(best().confidence).toBeLessThan(0.6);
  const learnt = best(habitsOf([{ who: ['Saltgate Yarns'], lines }]));
  expect(learnt.entries).toEqual([1]);
  expect(learnt.confidence).toBeGreaterThan(0.75);
});

it('tell little where such lines were about several', () => {
  const entries = [entry('a', 'Marlowe Dye Works'), entry('b', 'Saltgate Yarns')];
  const lines = [line('PAYMENT SERVICE')];
  const habits = habitsOf([
    { who: ['Saltgate Yarns'], lines },
    { who: ['Marlowe Dye Works'], lines },
    { who: ['Quayside Parcels'], lines },
  ]);
  expect(matchPayments(entries, lines, { habits })[0].confidence).toBeLessThan(0.6);
});

describe('a rule', () => {
  const rule = (given: Partial<LineRule>): LineRule => ({
    id: 'r',
    key: 'tarrow estates',
    out: true,
    who: 'Tarrow Estates',
    what: 'Rent',
    categoryId: 'rent',
    taxCode: 'GB-N',
    rate: null,
    ...given,
  });
  it('enters lines with its words that go its way, the latest rule for them', () => {
    const lines = [line('TARROW ESTATES'), line('TARROW ESTATES', 500), line('Another'), line('', -1, '')];
    const later = rule({ id: 'later' });
    expect([...rulesFor(lines, [rule({}), later])]).toEqual([[0, later]]);
  });
});
