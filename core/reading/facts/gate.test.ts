import fc from 'fast-check';
import { Fact, Facts } from './fact';
import { MONEY } from './typedFact';
import { findFacts } from './findFacts';
import { admitFacts, admitKept } from './gate';
import { isDay } from '../dayForms';
import { readInvoiceXml, withInvoiceData } from './invoiceData';
import { summaryOf } from '../about';
import { isKeepable } from '../printable';
import { storeWords, Word } from '../words';
import { tokenise } from '../../finding/tokens';

const NOTHING = findFacts([]);
/** Text as a hostile paper may hold it: marks without letters, halves of characters, zeros, turned directions, any length. */
const anyText = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 60 }),
  fc.string({
    unit: fc.constantFrom('\0', '\u0308', '\ud800', '\udc00', '\u202e', 'İ', 'ﷺ', "'", '<', '9', '-', '.', ' ', 'é'),
  }),
  fc.constantFrom(
    'constructor',
    '__proto__',
    'toString',
    '2026-99-99',
    '0000-00-00',
    '-',
    '1e999',
    'NaN',
    'x'.repeat(5000),
  ),
);
const anyNumber = fc.oneof(fc.double(), fc.constantFrom(NaN, Infinity, -Infinity, 1e300, -0, 1e-300));
const anyFact = (value: fc.Arbitrary<unknown>) =>
  fc.option(
    fc.record({
      value,
      page: anyNumber,
      box: fc.tuple(anyNumber, anyNumber, anyNumber, anyNumber),
      confidence: anyNumber,
      why: fc.constant({ code: 'has-total' }),
      other: value,
    }) as fc.Arbitrary<Fact<never>>,
    { nil: null },
  );
const anyLine = fc.record({ description: anyText, quantity: anyNumber, unitPrice: anyNumber, amount: anyNumber });
const anyTax = fc.record({ rate: anyNumber, net: fc.option(anyNumber, { nil: null }), tax: anyNumber });
const anyBooking = fc.record({ date: anyText, text: anyText, amount: anyNumber, balance: fc.option(anyNumber) });
const anyFacts = fc.record(
  Object.fromEntries(
    Object.keys(NOTHING).map((name) => [
      name,
      anyFact(
        name === 'lines'
          ? fc.array(anyLine)
          : name === 'taxes'
            ? fc.array(anyTax)
            : name === 'bookings'
              ? fc.array(anyBooking)
              : [...MONEY, 'taxRate'].includes(name)
                ? anyNumber
                : anyText,
      ),
    ]),
  ),
) as unknown as fc.Arbitrary<Facts>;

/** What the database, its indexes and the screens can hold. */
function expectKeepable(facts: Facts): void {
  for (const [name, fact] of Object.entries(facts) as [string, Fact<unknown> | null][]) {
    if (!fact) continue;
    const { value } = fact;
    if (typeof value === 'string') {
      expect(isKeepable(value)).toBe(true);
      expect(value.length).toBeGreaterThan(0);
      expect(value.length).toBeLessThanOrEqual(300);
    }
    if (typeof value === 'number') expect(Math.abs(value)).toBeLessThanOrEqual(1e10);
    if (name === 'date' || name === 'dueDate') expect(isDay(value as string)).toBe(true);
    expect(fact.confidence >= 0 && fact.confidence <= 1).toBe(true);
    expect(fact.page).toBeGreaterThanOrEqual(1);
    expect(JSON.stringify(fact)).not.toContain('null,null');
  }
}

describe('the gate of facts', () => {
  it('lets nothing through that can’t be kept, whatever is claimed', () => {
    fc.assert(
      fc.property(anyFacts, (facts) => expectKeepable(admitFacts(facts))),
      { numRuns: 300 },
    );
  });

  it('lets what is read of an ordinary paper through as it is', () => {
    const fact = {
      value: 'Saltgate Yarns Ltd',
      page: 1,
      box: [1, 2, 3, 4],
      confidence: 0.9,
      why: { code: 'heads-paper' },
    } as Fact;
    const total = { ...fact, value: 120.5 } as unknown as Fact<number>;
    const date = { ...fact, value: '2024-02-29' };
    expect(admitFacts({ ...NOTHING, vendor: fact, total, date })).toMatchObject({ vendor: fact, total, date });
  });

  it('knows days that there are', () => {
    expect(['2024-02-29', '1999-12-31'].every(isDay)).toBe(true);
    expect(['2026-99-99', '2023-02-29', '2026-1-1', '2026-01-01T00:00', '9999-01-01', ''].some(isDay)).toBe(false);
  });

  it('takes money and rates of archives only as they are kept', () => {
    expect(admitKept('total', '12.50')).toBe('12.50');
    expect(admitKept('total', '4.505')).toBe('4.505');
    expect(admitKept('total', '1,200.00')).toBeNull();
    expect(admitKept('total', '1e9')).toBeNull();
    expect(admitKept('total', '99999999999999')).toBeNull();
    expect(admitKept('taxRate', '20')).toBe('20');
    expect(admitKept('taxRate', '')).toBeNull();
    expect(admitKept('date', '2026-99-99')).toBeNull();
    expect(admitKept('kind', '<b>')).toBeNull();
    expect(admitKept('kind', 'x'.repeat(31))).toBeNull();
    expect(admitKept('constructor', 'x')).toBe('x');
    expect(admitKept('number', { toString: 1 })).toBeNull();
  });
});

describe('invoices as data', () => {
  const tree = fc.letrec((tie) => ({
    node: fc.oneof(
      { maxDepth: 6 },
      anyText,
      fc.array(tie('node'), { maxLength: 3 }),
      fc.dictionary(
        fc.constantFrom('ID', '#text', 'IssueDate', 'TaxTotal', 'TaxSubtotal', 'InvoiceLine', 'Party'),
        tie('node'),
      ),
    ),
  })).node;

  it('say what can be, or nothing, whatever is in them', () => {
    fc.assert(
      fc.property(tree, fc.constantFrom('Invoice', 'CrossIndustryInvoice'), (node, root) => {
        const data = readInvoiceXml({ [root]: node });
        if (data) expectKeepable(withInvoiceData(NOTHING, data));
      }),
      { numRuns: 300 },
    );
  });

  it('with an impossible day leave the one that was read', () => {
    const data = readInvoiceXml({ Invoice: { ID: '4711', IssueDate: '2026-99-99' } })!;
    const date = {
      value: '2026-03-05',
      page: 1,
      box: [0, 0, 1, 1],
      confidence: 0.9,
      why: { code: 'first-date' },
    } as Fact;
    expect(withInvoiceData({ ...NOTHING, date }, data).date).toMatchObject(date);
  });
});

describe('text of papers', () => {
  const word = (text: string, at: number): Word => ({
    text,
    box: [at, at, 10, 10],
    confidence: 1,
    line: at,
    baseline: 10,
  });

  it('gives facts, a summary, stored words and searchable ones that can be kept, whatever it is', () => {
    fc.assert(
      fc.property(fc.array(anyText, { maxLength: 30 }), (texts) => {
        const words = texts.map(word);
        const facts = findFacts([{ width: 1000, height: 1400, words }]);
        expectKeepable(facts);
        const values = Object.fromEntries(
          Object.entries(facts).flatMap(([name, fact]) =>
            typeof fact?.value === 'string' ? [[name, fact.value]] : [],
          ),
        );
        expect(typeof summaryOf(values, [], [{ words }])).toBe('string');
        for (const [text] of storeWords(words)) {
          expect(isKeepable(text)).toBe(true);
          expect(text).not.toBe('');
          for (const token of tokenise(text)) {
            expect(token.text).toMatch(/^[\p{L}\p{N}.]{1,120}$/u);
          }
        }
      }),
      { numRuns: 300 },
    );
  });

  it('has a summary even where a day that was kept before is none', () => {
    expect(summaryOf({ kind: 'invoice', date: '2026-99-99' }, [], [])).toContain('2026-99-99');
  });
});
