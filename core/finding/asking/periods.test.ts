import { readPeriods } from './periods';
import { plainQuestion } from './text';

/** A Saturday. */
const TODAY = '2026-11-28';
const read = (text: string, ahead = false) =>
  readPeriods(plainQuestion(text), TODAY, ahead).periods.map(({ from, until }) => `${from ?? ''}..${until ?? ''}`);

describe('periods in a question', () => {
  it.each([
    ['in 2025', '2025-01-01..2025-12-31'],
    ['im Jahr 2025', '2025-01-01..2025-12-31'],
    ['in March 2026', '2026-03-01..2026-03-31'],
    ['im Februar 2024', '2024-02-01..2024-02-29'],
    ['en août 2025', '2025-08-01..2025-08-31'],
    ['on 3 March 2026', '2026-03-03..2026-03-03'],
    ['am 3. März 2026', '2026-03-03..2026-03-03'],
    ['on March 3rd, 2026', '2026-03-03..2026-03-03'],
    ['am 03.04.2026', '2026-04-03..2026-04-03'],
    ['2026-04', '2026-04-01..2026-04-30'],
    ['Q2 2026', '2026-04-01..2026-06-30'],
    ['the first quarter of 2025', '2025-01-01..2025-03-31'],
    ['im dritten Quartal', '2026-07-01..2026-09-30'],
    ['au deuxième trimestre 2025', '2025-04-01..2025-06-30'],
    ['the second half of 2025', '2025-07-01..2025-12-31'],
    ['im ersten Halbjahr 2025', '2025-01-01..2025-06-30'],
    ['summer 2025', '2025-06-01..2025-08-31'],
    ['this year', '2026-01-01..2026-12-31'],
    ['letztes Jahr', '2025-01-01..2025-12-31'],
    ['l’année dernière', '2025-01-01..2025-12-31'],
    ['last month', '2026-10-01..2026-10-31'],
    ['next week', '2026-11-30..2026-12-06'],
    ['diese Woche', '2026-11-23..2026-11-29'],
    ['last quarter', '2026-07-01..2026-09-30'],
    ['in the last 3 months', '2026-08-28..2026-11-28'],
    ['in den letzten zwei Jahren', '2024-11-28..2026-11-28'],
    ['ces 30 derniers jours', '2026-10-29..2026-11-28'],
    ['within 10 days', '2026-11-28..2026-12-08'],
    ['yesterday', '2026-11-27..2026-11-27'],
    ['since June 2025', '2025-06-01..'],
    ['seit März', '2026-03-01..'],
    ['depuis janvier 2024', '2024-01-01..'],
    ['from March on', '2026-03-01..'],
    ['until May 2026', '..2026-05-31'],
    ['vor 2024', '..2023-12-31'],
    ['after 2024', '2025-01-01..'],
    ['between March and May 2026', '2026-03-01..2026-05-31'],
    ['from November to January 2026', '2025-11-01..2026-01-31'],
    ['in May', '2026-05-01..2026-05-31'],
    ['zwischen 1. und 15. Dezember 2026', '2026-12-01..2026-12-15'],
    ['de mars à mai 2025', '2025-03-01..2025-05-31'],
  ])('%s', (text, period) => {
    const [first, ...more] = read(text);
    expect(first).toBe(period);
    expect(more).toEqual([]);
  });

  it('takes a month without a year for the last one, or for the next where something is due', () => {
    expect(read('in December')).toEqual(['2025-12-01..2025-12-31']);
    expect(read('in December', true)).toEqual(['2026-12-01..2026-12-31']);
    expect(read('in October', true)).toEqual(['2027-10-01..2027-10-31']);
  });

  it('finds two that are set beside each other', () => {
    expect(read('more in 2025 than in 2024')).toEqual(['2025-01-01..2025-12-31', '2024-01-01..2024-12-31']);
  });

  it.each(['the marching band', 'we may ask', 'invoice 1302', 'a second-hand loom', 'until when'])(
    'finds none in: %s',
    (text) => {
      expect(read(text)).toEqual([]);
    },
  );
});
