import { sayReason } from './reason';
import { Word } from '../words';
import { findFacts } from './findFacts';

/** A page of rows; two spaces and more part cells, which begin at the same places in every row. A word in ~ is doubtful. */
function paper(...texts: string[]) {
  const words: Word[] = [];
  texts.forEach((text, line) => {
    const cells = text.split(/ {2,}/);
    cells.forEach((cell, at) => {
      let x = 100 + at * 380;
      for (const each of cell.split(' ')) {
        const doubtful = each.startsWith('~');
        const plain = each.replace('~', '');
        words.push({
          text: plain,
          box: [x, 60 + line * 44, plain.length * 12, 22],
          confidence: doubtful ? 0.6 : 0.995,
          line,
          baseline: 82 + line * 44,
        });
        x += (plain.length + 1) * 12;
      }
    });
  });
  return { width: 1654, height: 2339, words };
}

const HEAD = [
  'Halden Yarns Ltd',
  'Invoice',
  'Invoice no.  HF-24518',
  'Invoice date  8 October 2026',
  'Due date  7 November 2026',
];
const TABLE = [
  'Description  Qty  Unit price  Amount',
  '1 Merino 2-ply, undyed  12  18.40  220.80',
  '2 Carriage  1  42.10  42.10',
];

it('finds number, days, money and lines of an invoice, sure because they add up', () => {
  const facts = findFacts([paper(...HEAD, ...TABLE, 'Net  £262.90', 'VAT 20 %  £52.58', 'Total due  £315.48')]);
  expect(facts).toMatchObject({
    kind: { value: 'invoice' },
    number: { value: 'HF-24518' },
    date: { value: '2026-10-08' },
    dueDate: { value: '2026-11-07' },
    currency: { value: 'GBP' },
    net: { value: 262.9 },
    tax: { value: 52.58 },
    taxRate: { value: 20 },
    total: { value: 315.48 },
  });
  expect(facts.lines?.value).toEqual([
    { description: 'Merino 2-ply, undyed', quantity: 12, unitPrice: 18.4, amount: 220.8 },
    { description: 'Carriage', quantity: 1, unitPrice: 42.1, amount: 42.1 },
  ]);
  expect(facts.total!.confidence).toBeGreaterThan(0.95);
  expect(sayReason(facts.total!.why)).toContain('adds up');
});

it('tells a quantity with decimals from the price', () => {
  const { lines } = findFacts([
    paper(
      ...HEAD,
      TABLE[0],
      '1 Labour, per hour  2.75  107.76  296.34',
      'Net  £296.34',
      'VAT 20 %  £59.27',
      'Total  £355.61',
    ),
  ]);
  expect(lines?.value).toEqual([
    { description: 'Labour, per hour', quantity: 2.75, unitPrice: 107.76, amount: 296.34 },
  ]);
});

it('says so when an invoice does not add up', () => {
  const { total } = findFacts([paper(...HEAD, 'Net  £262.90', 'VAT 20 %  £52.58', 'Total due  £999.99')]);
  expect(total?.value).toBe(999.99);
  expect(total!.confidence).toBeLessThan(0.7);
  expect(sayReason(total!.why)).toContain('does not add up');
});

it('puts a doubtful figure right when only so everything adds up, and tells what was read', () => {
  const { total, net } = findFacts([paper(...HEAD, 'Net  £262.90', 'VAT 20 %  £52.58', 'Total due  ~£316.48')]);
  expect(net?.value).toBe(262.9);
  // A six is not mistaken for a five and back again by chance: 315.48 is the only reading that makes the sum.
  expect(total).toMatchObject({ value: 315.48, repaired: '£316.48' });
  expect(total!.confidence).toBeLessThan(0.9);
});

it('keeps net and tax of an invoice that names no rate and does not add up, and is not sure of the total', () => {
  const { net, tax, total } = findFacts([paper(...HEAD, 'Net  £262.90', 'VAT  £52.58', 'Total due  £999.99')]);
  expect([net?.value, tax?.value, total?.value]).toEqual([262.9, 52.58, 999.99]);
  expect(total!.confidence).toBeLessThan(0.7);
});

it('changes no doubtful figure for a hundredth that was rounded', () => {
  const { total } = findFacts([paper(...HEAD, 'Net  £262.90', 'VAT  £52.58', 'Total due  ~£315.49')]);
  expect(total).toMatchObject({ value: 315.49 });
  expect(total!.repaired).toBeUndefined();
});

it('knows a subtotal that has its tax in it', () => {
  const receipt = [
    'Dundorf Bakery Ltd',
    'Sales receipt',
    'Bread  16.00',
    'Subtotal  16.00',
    'Total  16.00',
    'Card  16.00',
    'incl. VAT 20 %  2.67',
  ];
  const { total, tax } = findFacts([{ ...paper(...receipt), width: 700 }]);
  expect([total?.value, tax?.value]).toEqual([16, 2.67]);
  expect(total!.confidence).toBeGreaterThan(0.95);
});

it('changes no figure that was read surely', () => {
  const { total } = findFacts([paper(...HEAD, 'Net  £262.90', 'VAT 20 %  £52.58', 'Total due  £316.48')]);
  expect(total).toMatchObject({ value: 316.48 });
  expect(total!.repaired).toBeUndefined();
});

it('knows the sums of German and French papers, and the names above values in boxes', () => {
  const german = findFacts([
    paper(
      'Weberei Lindner GmbH',
      'Rechnung',
      'Rechnungsnummer  Rechnungsdatum  Zahlbar bis',
      '2393/25  24.08.2025  14.09.2025',
      'Nettobetrag  12.214,60 €',
      'MwSt. 19 %  2.320,77 €',
      'Summe  14.535,37 €',
    ),
  ]);
  expect(german).toMatchObject({
    number: { value: '2393/25' },
    date: { value: '2025-08-24' },
    dueDate: { value: '2025-09-14' },
    total: { value: 14535.37 },
    tax: { value: 2320.77 },
    currency: { value: 'EUR' },
  });
  const french = findFacts([
    paper(
      'Filature du Val SARL',
      'Facture n° 2024-118',
      'Émise le  05/08/2023',
      'Total HT  EUR 5 508,65',
      'TVA à 10 %  EUR 550,87',
      'Total TTC  EUR 6 059,52',
    ),
  ]);
  expect(french).toMatchObject({
    number: { value: '2024-118' },
    date: { value: '2023-08-05' },
    net: { value: 5508.65 },
    taxRate: { value: 10 },
    total: { value: 6059.52 },
  });
});

it('takes the total of a receipt, not what was handed over or given back', () => {
  const facts = findFacts([
    {
      ...paper(
        'Dundorf Bakery Ltd',
        'Sales receipt',
        '10/05/2026  12:52',
        'Soap bars',
        '5 x 2.74  13.70',
        'Bread  2.30',
        'Total  16.00',
        'Cash  20.00',
        'Change  4.00',
        'incl. VAT 20 %  2.67',
      ),
      width: 700,
    },
  ]);
  expect(facts.kind?.value).toBe('receipt');
  expect(facts.total?.value).toBe(16);
  expect(facts.tax?.value).toBe(2.67);
  expect(facts.lines?.value).toEqual([
    { description: 'Soap bars', quantity: 5, unitPrice: 2.74, amount: 13.7 },
    { description: 'Bread', quantity: null, unitPrice: null, amount: 2.3 },
  ]);
});

it('decides a date in figures by another one on the paper', () => {
  const letter = (other: string) =>
    findFacts([paper('Orrin Council', 'Dear Sir,', 'Date  03/04/2025', `We came on ${other} and again.`)]);
  expect(letter('25/03/2025').date?.value).toBe('2025-04-03');
  expect(letter('03/25/2025').date?.value).toBe('2025-03-04');
});

it('makes nothing up: what is not on a letter is null', () => {
  expect(
    findFacts([paper('Orrin Council', '4 May 2026', 'Dear Mr Castellane,', 'The work begins on Monday.')]),
  ).toMatchObject({
    kind: { value: 'letter' },
    date: { value: '2026-05-04' },
    total: null,
    number: null,
    currency: null,
    lines: null,
  });
});

/** What is taxed at two rates. */
const WITH_A_BOOK = [
  'Description  Qty  Unit price  Amount',
  '1 Merino 2-ply, undyed  12  18.40  220.80',
  '2 Book of patterns  2  21.05  42.10',
];

it('finds tax by rate where there are several, from a table of rates', () => {
  const facts = findFacts([
    paper(
      ...HEAD,
      ...WITH_A_BOOK,
      'Rate  Net  VAT  Gross',
      '20 %  220.80  44.16  264.96',
      '5 %  42.10  2.11  44.21',
      'VAT in all  £46.27',
      'Total due  £309.17',
    ),
  ]);
  expect(facts.taxes?.value).toEqual([
    { rate: 20, net: 220.8, tax: 44.16 },
    { rate: 5, net: 42.1, tax: 2.11 },
  ]);
  expect(facts).toMatchObject({ tax: { value: 46.27 }, taxRate: { value: 20 }, total: { value: 309.17 } });
});

it('finds tax by rate where each is said in a line of its own', () => {
  const facts = findFacts([
    paper(...HEAD, ...WITH_A_BOOK, 'Net  £262.90', 'VAT 20 %  £44.16', 'VAT 5 %  £2.11', 'Total due  £309.17'),
  ]);
  expect(facts.taxes?.value).toEqual([
    { rate: 20, net: null, tax: 44.16 },
    { rate: 5, net: null, tax: 2.11 },
  ]);
  expect(facts).toMatchObject({ net: { value: 262.9 }, tax: { value: 46.27 }, total: { value: 309.17 } });
});

it('puts a total right that was read surely and wrong, where lines, net sum, tax and its rate all say another', () => {
  const { total } = findFacts([paper(...HEAD, ...TABLE, 'Net  262.90', 'VAT 20%  52.58', 'Total  375.48')]);
  expect(total).toMatchObject({ value: 315.48, repaired: '375.48' });
  expect(total!.confidence).toBeLessThan(0.9);
});

/** What is read of the sums below goods of 150.00. */
const sumsOf = (...rows: string[]) => {
  const { net, tax, taxRate, total } = findFacts([paper(...HEAD, ...rows)]);
  return { net: net?.value, tax: tax?.value, taxRate: taxRate?.value, total: total?.value };
};

it.each([
  ['Net  £150.00', 'Output tax  £30.00', 'Total  £180.00'],
  ['Net  £150.00', 'Tax  £30.00', 'Total  £180.00'],
  ['Value for VAT  £150.00', 'VAT amount  £30.00', 'Total  £180.00'],
  ['Exclusive of VAT  £150.00', 'VAT  £30.00', 'With VAT  £180.00'],
  ['Before tax  £150.00', 'Total tax  £30.00', 'After tax  £180.00'],
])('tells a tax by the two sums that it stands between: %s, %s, %s', (...rows) =>
  expect(sumsOf(...rows)).toMatchObject({ net: 150, tax: 30, total: 180 }),
);

it('takes the rate of an unnamed tax, but no tip for one', () => {
  expect(sumsOf('Net  £150.00', 'A 20 %  £30.00', 'Total  £180.00')).toMatchObject({ tax: 30, taxRate: 20 });
  expect(sumsOf('Food and drink  £150.00', 'Service 10 %  £15.00', 'Total  £165.00')).toMatchObject({
    tax: undefined,
    total: 165,
  });
});

it.each([['VAT included in total  £30.00'], ['Your total includes £30.00 VAT']])(
  'finds a tax in a sentence: %s',
  (row) => expect(sumsOf('Total  £180.00', row)).toMatchObject({ tax: 30, total: 180 }),
);

it('takes no sum for a tax that it does not hold', () =>
  expect(sumsOf('Total, VAT not included  £180.00')).toMatchObject({ tax: undefined }));

it('takes what calls itself net for the sum to pay where nothing is added to it', () => {
  expect(sumsOf('Net TTC  £150.00').total).toBe(150);
  expect(sumsOf('Net à votre charge  £150.00').total).toBe(150);
});

it('takes a relief off a sum, and nothing of it for paid', () => {
  const { total, amountDue } = findFacts([
    paper(...HEAD, 'At 49.9 pence  £1,472.05', 'Small business relief  -£1,177.64', 'What you have to pay  £294.41'),
  ]);
  expect([total?.value, amountDue?.value ?? null]).toEqual([294.41, null]);
});

it('reads the tax behind the code of its rate on a slip', () => {
  const slip = ['Greengate Stores', 'Receipt 5-10482', 'Tulips A  6.49', 'Curd B  3.25', 'Total  £9.74', 'Card  £9.74'];
  const { tax, taxRate, total } = findFacts([paper(...slip, 'A 20% incl.  1.08', 'B 0% incl.  0.00')]);
  expect([tax?.value, taxRate?.value, total?.value]).toEqual([1.08, 20, 9.74]);
});

it('knows a share that is taken off, whatever it is called, from what was paid before', () => {
  const slip = (less: string) =>
    findFacts([
      paper('Slipway Stores', 'Cash sale', 'Rope  28.00', 'Cleats  12.00', 'Goods  40.00', less, 'To pay  38.00'),
    ]);
  const { total, amountDue } = slip('Less 5% harbour users  -2.00');
  expect([total?.value, amountDue?.value ?? null]).toEqual([38, null]);
  expect(slip('Less deposit  -2.00').total?.value).toBe(40);
});

it('knows what sums of columns beside each other make, and a sum with the tax in it, whatever it is called', () => {
  const bill = findFacts([
    paper(
      ...['Penrose Notaries', 'Invoice 88', '2 November 2026', 'Fees  VAT  Outlays', 'Deed  300.00  60.00  12.00'],
      ...['Copies  20.00  4.00  3.00', '320.00  64.00  15.00', 'TOTAL  399.00'],
    ),
  ]);
  expect(bill.total?.value).toBe(399);
  const permit = findFacts([paper('Quaypark', 'Season permit receipt', 'Fee 78.00 incl. VAT 13.00')]);
  expect([permit.total?.value, permit.tax?.value]).toEqual([78, 13]);
});

it('adds the carriage to what the lines make before the tax', () => {
  const { total, tax } = findFacts([
    paper(
      ...['Netherby Fibres', 'Order confirmation', '23 November 2026', 'Product  Price  Value', 'Tops  74.00  140.60'],
      ...['Noil  41.20  123.60', 'Goods  264.20', 'Carriage  9.95', 'VAT  54.83', 'Order value  328.98'],
    ),
  ]);
  expect([total?.value, tax?.value]).toEqual([328.98, 54.83]);
});

it('tells a bill from what earlier ones left open, which is to be paid with it', () => {
  const bill = (heading: string) =>
    findFacts([
      paper(
        ...['Otterbrook Dairy', heading, '14 November 2026', 'Milk  8.00', 'Eggs  3.80', 'This week  11.80'],
        ...['Owing from last week  9.45', 'Please pay  21.25'],
      ),
    ]);
  const { total, amountDue } = bill('Bill');
  expect([total?.value, amountDue?.value]).toEqual([11.8, 21.25]);
  expect(bill('Payment reminder').total?.value).toBe(21.25);
});
