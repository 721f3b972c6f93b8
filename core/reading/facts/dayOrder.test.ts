import { typed } from '../testing/typed';
import { dayOrderOf } from './dayOrder';
import { rowsOf } from './rows';

const A4 = { width: 1654, height: 2339 };
const LETTER = { width: 1700, height: 2200 };
const order = (text: string, { paper = A4, language = 'eng', currency = undefined as string | undefined } = {}) =>
  dayOrderOf(rowsOf([typed(text)]), { ...paper, language }, currency);

it.each([
  ['Sent 04/05/2026, back on 25/05/2026', 'day'],
  ['Sent 04/05/2026, back on 05/25/2026', 'month'],
  ['Datum 04.05.2026', 'day'],
  ['Rechnung 04/05/2026\nBruns GmbH', 'day'],
  ['Invoice 04/05/2026\nCascade Tools LLC', 'month'],
  ['Invoice 04/05/2026\nBelfast, ME 04915', 'month'],
  ['Invoice 04/05/2026\nWickford WK1 2AB', 'day'],
  ['Invoice 04/05/2026', 'unknown'],
])('of “%s” is by %s', (text, expected) => expect(order(text)).toBe(expected));

it('goes by the language of the paper, its size and its currency where nothing else tells', () => {
  expect(order('Reçu le 04/05/2026', { language: 'fra' })).toBe('day');
  expect(order('Paid 04/05/2026', { paper: LETTER })).toBe('month');
  expect(order('Paid 04/05/2026', { currency: 'USD' })).toBe('month');
});
