import { typed } from '../testing/typed';
import { choicesOf } from './choices';

const PAPER = `
# Malerbetrieb Onken
Hafenweg 4, 26409 Möwenhaven
Rechnung Nr. 2026-0418           Kunde 70418
Rechnungsdatum: 05.11.2026
Wandflächen streichen           416,50 €
19 % MwSt.                       79,14
Gesamtbetrag                    495,64
Zahlbar bis 19.11.2026, nach dem 05.11.2026
Malerbetrieb Onken GmbH, Amtsgericht Aurich`;

/** The values of a group, with what stands beside each. */
const offered = (group: keyof ReturnType<typeof choicesOf>, paper = PAPER) =>
  choicesOf([typed(paper)])[group].map(({ value, beside }) => [value, beside]);

describe('what a paper offers for a fact', () => {
  it('is its days, each once, with what stands before them', () =>
    expect(offered('days')).toEqual([
      ['2026-11-05', 'Rechnungsdatum:'],
      ['2026-11-19', 'Zahlbar bis'],
    ]));

  it('is a day in both readings where nothing tells the order', () =>
    expect(offered('days', 'Anything\nSeen 05/11/2026').map(([day]) => day)).toEqual(['2026-11-05', '2026-05-11']));

  it('is its sums from the largest', () =>
    expect(offered('sums')).toEqual([
      ['495.64', 'Gesamtbetrag'],
      ['416.50', 'Wandflächen streichen'],
      ['79.14', '19 % MwSt.'],
    ]));

  it('is its numbers, and no day or sum', () =>
    expect(offered('numbers')).toEqual([
      ['26409', 'Hafenweg 4,'],
      ['2026-0418', 'Rechnung Nr.'],
      ['70418', 'Rechnung Nr. 2026-0418 Kunde'],
    ]));

  it('is whoever may have sent it, the likeliest first', () =>
    expect(offered('names')[0]).toEqual(['Malerbetrieb Onken', '']));

  it('is its rates and currencies', () => {
    expect(offered('rates')).toEqual([['19', 'MwSt. 79,14']]);
    expect(offered('currencies').map(([currency]) => currency)).toEqual(['EUR']);
  });

  it('says where each stands', () => {
    const [{ page, box }] = choicesOf([typed(PAPER)]).days;
    expect(page).toBe(1);
    expect(box[2]).toBeGreaterThan(0);
  });

  it('is nothing on an empty page', () =>
    expect(Object.values(choicesOf([{ width: 100, height: 100, words: [] }])).flat()).toEqual([]));
});
