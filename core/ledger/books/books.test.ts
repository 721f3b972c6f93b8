import fc from 'fast-check';
import { categoryByWords, FIRST_CATEGORIES } from './categories';
import { draftEntry, isEntered, PaperSays, shareOf, sumOf } from './draft';
import { BOOK_COUNTRIES, nameOfCode, TAX_CODES, taxCodeFor, taxCodesOn } from './taxCodes';

const SAYS: PaperSays = {
  kind: 'invoice',
  vendor: 'Saltgate Yarns Ltd',
  subject: '',
  date: '2026-10-02',
  dueDate: '2026-11-01',
  number: 'S-118',
  currency: 'GBP',
  net: '100.00',
  tax: '20.00',
  taxRate: '20',
  total: '120.00',
  taxes: [],
  lines: [],
};
const draft = (given: Partial<PaperSays>, country: (typeof BOOK_COUNTRIES)[number] = 'GB') =>
  draftEntry({ ...SAYS, ...given }, { country });

describe('an entry as a paper proposes it', () => {
  it('has what the paper says, in whole units, with the treatment of its rate', () => {
    expect(draft({})).toEqual({
      day: '2026-10-02',
      due: '2026-11-01',
      who: 'Saltgate Yarns Ltd',
      what: '',
      number: 'S-118',
      currency: 'GBP',
      units: 12_000,
      parts: [{ categoryId: null, taxCode: 'GB-S', rate: 20, net: 10_000, tax: 2_000 }],
      problems: [],
    });
  });

  it('is split by rate, with what has no tax besides', () => {
    const taxes = [
      { rate: 7, net: 50, tax: 3.5 },
      { rate: 19, net: 100, tax: 19 },
    ];
    const { parts, problems } = draft(
      { currency: 'EUR', taxes, taxRate: '19', net: '158.00', tax: '22.50', total: '180.50' },
      'DE',
    );
    expect(parts.map(({ taxCode, net, tax }) => [taxCode, net, tax])).toEqual([
      ['DE-R', 5_000, 350],
      ['DE-S', 10_000, 1_900],
      ['DE-N', 800, 0],
    ]);
    expect(problems).toEqual([]);
  });

  it('finds net and tax of a total by the rate, rounded half away from zero', () => {
    expect(draft({ net: '', tax: '', total: '31.41' }).parts).toMatchObject([{ net: 2617, tax: 524 }]);
    expect(draft({ net: '', tax: '', taxRate: '', total: '31.41' }).parts).toEqual([
      { categoryId: null, taxCode: 'GB-N', rate: null, net: 3141, tax: 0 },
    ]);
  });

  it('is negative on a credit note, however that prints its sums', () => {
    for (const [net, tax, total] of [
      ['100.00', '20.00', '120.00'],
      ['-100.00', '-20.00', '-120.00'],
    ])
      expect(draft({ kind: 'credit note', net, tax, total })).toMatchObject({
        units: -12_000,
        parts: [{ net: -10_000, tax: -2_000 }],
        problems: [],
      });
  });

  it('is not entered as it is where sums do not come to the total, or a day, a name or a total is missing', () => {
    expect(draft({ total: '130.00' }).problems).toEqual(['not-adding-up']);
    expect(draft({ date: '', vendor: '', total: '', net: '', tax: '' }).problems).toEqual([
      'no-day',
      'no-who',
      'no-total',
    ]);
  });

  it('allows for what was rounded: by rate, and in cash where that is done', () => {
    expect(draft({ total: '120.01' }).problems).toEqual([]);
    expect(draft({ currency: 'CHF', taxRate: '8.1', net: '100.00', tax: '8.10', total: '108.12' }, 'CH')).toMatchObject(
      { problems: [], parts: [{ net: 10_002, tax: 810, taxCode: 'CH-S' }] },
    );
    expect(draft({ total: '120.04' }).problems).toEqual(['not-adding-up']);
  });

  it('knows money without decimals, and the own country’s where a paper names none', () => {
    expect(draft({ currency: 'JPY', taxRate: '', net: '', tax: '', total: '12000' })).toMatchObject({ units: 12_000 });
    expect(draft({ currency: '' }, 'FR').currency).toBe('EUR');
  });

  it('whatever net and rate: net and tax come to the total', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000_000 }), fc.constantFrom(5, 5.5, 8.1, 19, 20), (net, rate) => {
        const tax = shareOf(net, rate, 100);
        const text = (units: number) => `${Math.floor(units / 100)}.${String(units % 100).padStart(2, '0')}`;
        const made = draft({ net: '', tax: '', taxRate: String(rate), total: text(net + tax) });
        expect(sumOf(made.parts)).toBe(net + tax);
        expect(Math.abs(made.parts[0].net - net)).toBeLessThanOrEqual(1);
      }),
    );
  });

  it('is made of bills and receipts, not of what repeats them', () => {
    expect(['receipt', 'invoice', 'credit note', 'ticket'].every(isEntered)).toBe(true);
    expect(['reminder', 'statement', 'quote', 'order', 'delivery note', 'letter'].some(isEntered)).toBe(false);
  });
});

describe('tax codes', () => {
  it('hold at their time: rates that changed for half a year, and for good', () => {
    const on = (country: 'DE' | 'CH' | 'GB', day: string) =>
      taxCodesOn(country, day).find(({ code }) => code.endsWith('-S'))?.rate;
    expect([on('DE', '2020-06-30'), on('DE', '2020-07-01'), on('DE', '2021-01-01')]).toEqual([19, 16, 19]);
    expect([on('CH', '2023-12-31'), on('CH', '2024-01-01')]).toEqual([7.7, 8.1]);
    expect([on('GB', '2011-01-03'), on('GB', '2011-01-04')]).toEqual([17.5, 20]);
  });

  it('no two rates of one code hold on one day', () => {
    for (const code of new Set(TAX_CODES.map((each) => each.code))) {
      const spans = TAX_CODES.filter((each) => each.code === code).sort((a, b) => (a.from < b.from ? -1 : 1));
      for (const [at, { until }] of spans.entries()) if (spans[at + 1]) expect(until! < spans[at + 1].from).toBe(true);
      expect(spans.at(-1)!.source).not.toBe('');
    }
  });

  it('are the own country’s where that charges such a rate, else that of the paper’s money', () => {
    const of = (rate: number | null, currency: string, country: 'GB' | 'FR' = 'GB') =>
      taxCodeFor(rate, { country, currency, day: '2026-03-01' })?.code;
    expect(of(20, 'GBP')).toBe('GB-S');
    expect(of(19, 'EUR')).toBe('DE-S');
    expect(of(20, 'EUR', 'FR')).toBe('FR-S');
    expect(of(null, 'EUR')).toBe('GB-N');
    expect(of(7.25, 'USD')).toBe('US-T');
    expect(of(13, 'GBP')).toBeUndefined();
    expect(nameOfCode('DE-S', '2020-08-01')).toBe('Regelsteuersatz 16 %');
  });
});

it('a category is proposed by what stands on a paper, in three languages', () => {
  const named = (said: string) => {
    const found = categoryByWords(said, FIRST_CATEGORIES);
    return found && [FIRST_CATEGORIES[found.at].name, found.word];
  };
  expect(named('Spinnerei Wiesengrund: Garn, Garn und Porto')).toEqual(['Materials', 'garn']);
  expect(named('Électricité et eau')).toEqual(['Energy and water', 'electricite']);
  expect(named('Spinnerei: Schurwolle, Leinengarn, Fracht')).toEqual(['Materials', 'schurwolle']);
  expect(named('Something else altogether')).toBeUndefined();
});
