import { typed } from '../testing/typed';
import { findFacts } from './findFacts';
import { Word } from '../words';

/** A page set from lines of text; a line may begin with its height in pixels, as in `40:Halden & Firth Yarns Ltd`. */
function page(...lines: string[]) {
  const words: Word[] = [];
  let y = 60;
  lines.forEach((given, line) => {
    const [, height, text] = /^(?:(\d+):)?(.*)$/.exec(given)!;
    const size = Number(height ?? 20);
    let x = 100;
    for (const each of text.split(' ')) {
      words.push({
        text: each,
        box: [x, y, each.length * size * 0.5, size],
        confidence: 0.95,
        line,
        baseline: y + size,
      });
      x += (each.length + 1) * size * 0.5;
    }
    y += size * 1.8;
  });
  return { width: 1600, height: 2200, words };
}

const INVOICE = page(
  '40:Halden & Firth Yarns Ltd',
  'Mill Lane, Cressbrook CB4 1QA',
  'Wickford Loom',
  'Imre Castellane',
  '34:Invoice',
  'Invoice no. HF-24518',
  'Date 8 October 2026',
  'Due date 7 November 2026',
  'Total £315.48',
);

describe('finding the facts of a paper', () => {
  it('reads kind, sender and date of an invoice, and where they stand', () => {
    const { kind, vendor, date } = findFacts([INVOICE]);
    expect(kind).toMatchObject({ value: 'invoice', page: 1 });
    expect(vendor).toMatchObject({ value: 'Halden & Firth Yarns Ltd', box: [100, 60, expect.any(Number), 40] });
    expect(date).toMatchObject({ value: '2026-10-08', page: 1 });
  });

  it('takes what a till counts apart from what it names', () => {
    const { lines } = findFacts([
      {
        ...page(
          'Quayside Parcels',
          'RECEIPT',
          '26/02/2026',
          '4 x Parcel 2 kg signed £35.80',
          '3 × Padded bag C4 £4.95',
          'TOTAL £40.75',
        ),
        width: 700,
      },
    ]);
    expect(lines?.value).toEqual([
      { description: 'Parcel 2 kg signed', quantity: 4, unitPrice: 8.95, amount: 35.8 },
      { description: 'Padded bag C4', quantity: 3, unitPrice: 1.65, amount: 4.95 },
    ]);
  });

  it('takes the date of a paper, not the day by which it must be paid, whichever comes first', () => {
    const { date } = findFacts([
      page('30:Marlowe Dye Works', 'Payment due by 1 December 2026', 'Invoice date 11 November 2026'),
    ]);
    expect(date?.value).toBe('2026-11-11');
  });

  it('knows German and French papers', () => {
    expect(
      findFacts([page('36:Spinnerei Wiesengrund GmbH', '30:Rechnung', 'Datum 20.05.2025', 'MwSt. 19 % 69,66 €')]),
    ).toMatchObject({
      kind: { value: 'invoice' },
      vendor: { value: 'Spinnerei Wiesengrund GmbH' },
      date: { value: '2025-05-20' },
    });
    expect(findFacts([page('36:Filature du Val Clair SARL', '30:Facture', 'Date 12/11/2025')]).kind?.value).toBe(
      'invoice',
    );
  });

  it('tells a letter by its greeting and a receipt by its heading', () => {
    expect(
      findFacts([
        page('30:Orrin Harbour Council', '9 March 2026', 'Dear Mr Castellane,', 'Your council tax', 'Yours sincerely,'),
      ]).kind?.value,
    ).toBe('letter');
    expect(
      findFacts([page('24:Quayside Parcels', 'RECEIPT', '21/10/2026 10:27', 'TOTAL £31.40', 'Card £31.40')]).kind
        ?.value,
    ).toBe('receipt');
  });

  it('is not sure of a kind that is only mentioned in a sentence', () => {
    const { kind } = findFacts([
      page('It supported the passage of the Montgomery bill in that year and much else besides'),
    ]);
    expect(kind?.confidence ?? 0).toBeLessThan(0.7);
  });

  it('recognises a sender that was confirmed before, misread letters and all, in the confirmed spelling', () => {
    const { vendor } = findFacts([page('20:Nlarlowe Dye W0rks', '34:Invoice')], {
      knownVendors: ['Brack & Pell', 'Marlowe Dye Works'],
    });
    expect(vendor).toMatchObject({ value: 'Nlarlowe Dye W0rks' });
    const near = findFacts([page('20:Marl0we Dye Works', '34:Invoice')], {
      knownVendors: ['Brack & Pell', 'Marlowe Dye Works'],
    });
    expect(near.vendor?.value).toBe('Marlowe Dye Works');
    expect(near.vendor?.confidence).toBeGreaterThan(0.9);
  });

  it('leaves out what was read from a drawing before the name, and nothing that belongs to it', () => {
    const beside = (text: string, height: number, confidence: number) => {
      const paper = page('40:Glazing Oakley & Sons', 'Mill Lane, Cressbrook CB4 1QA', '34:Invoice');
      const drawing: Word = { text, box: [20, 60 - height / 2, 70, height], confidence, line: 0, baseline: 100 };
      return findFacts([{ ...paper, words: [drawing, ...paper.words] }]).vendor?.value;
    };
    expect(beside('oO', 90, 0.6)).toBe('Glazing Oakley & Sons');
    expect(beside('AB', 90, 0.99)).toBe('AB Glazing Oakley & Sons');
    expect(beside('AB', 40, 0.6)).toBe('AB Glazing Oakley & Sons');
  });

  it('finds nothing on a blank page', () => {
    const found = [
      ...Object.values(findFacts([{ width: 10, height: 10, words: [] }])),
      ...Object.values(findFacts([])),
    ];
    expect(found.filter((fact) => fact !== null)).toEqual([]);
    expect(found.length).toBeGreaterThan(0);
  });
});

describe('a kind that a person added', () => {
  const membership = {
    name: 'membership',
    like: 'invoice',
    words: ['Mitgliedsbeitrag', 'annual subscription'],
  } as const;
  const paper = (heading: string) =>
    typed(`# Loom Guild\n# ${heading}\n\nDate 3 November 2026\nPlease pay by 17 November 2026\nTotal   £46.00`);
  const found = (heading: string) =>
    findFacts([paper(heading)], { ownKinds: [{ ...membership, words: [...membership.words] }] });

  it('is known by its words, and says what those of the kind do that it is like', () =>
    expect(found('Annual Subscription 2027')).toMatchObject({
      kind: { value: 'membership' },
      dueDate: { value: '2026-11-17' },
      total: { value: 46 },
    }));

  it('stands against the wording of a paper, and against a title that is understood without it', () => {
    const text = `# Pebble Lane Rentals
Rent receipt
Tenant: Imre Castellane
Date 3 November 2026
Received with thanks, paid in cash    £46.00
Card payments are not taken.
Total paid                            £46.00`;
    const rent = { name: 'rent book', like: 'receipt', words: ['rent receipt'] } as const;
    const read = findFacts([typed(text)], { ownKinds: [{ ...rent, words: [...rent.words] }] });
    expect(read.kind?.value).toBe('rent book');
    expect(findFacts([typed(text)]).kind?.value).toBe('receipt');
  });

  it('leaves other papers as they are', () => {
    expect(found('Receipt').kind).toMatchObject({ value: 'receipt' });
    expect(findFacts([paper('Annual Subscription 2027')]).kind?.value).not.toBe('membership');
  });
});
