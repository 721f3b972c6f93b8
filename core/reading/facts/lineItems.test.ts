import { FactLine } from './fact';
import { findFacts } from './findFacts';
import { whatDoesNotAddUp } from './addingUp';
import { typed, typedFacts } from '../testing/typed';

type Line = [description: string, quantity: number | null, unitPrice: number | null, amount: number];

const linesOn = (paper: string) => (typedFacts(paper).lines ?? []) as FactLine[];
const told = (paper: string) =>
  linesOn(paper).map(({ description, quantity, unitPrice, amount }): Line => [
    description,
    quantity,
    unitPrice,
    amount,
  ]);

it.each<[string, string, Line[]]>([
  [
    'codes, units and a discount in columns of their own',
    `
# Thistle Reed Works
Invoice 4471          24 Nov 2026
Code     Goods                         Qty  Unit   Price   Disc%    Value
TR-204   Reed, 12 dent                   3  ea     64.00    10.0   172.80
TR-377   Heddle wire, tinned             8  kg     22.50     0.0   180.00
                                               Goods total          352.80
                                               VAT 20%               70.56
                                               Total               £423.36
`,
    [
      ['Reed, 12 dent', 3, 64, 172.8],
      ['Heddle wire, tinned', 8, 22.5, 180],
    ],
  ],
  [
    'a position and a code in one cell, thousands parted by a space, and prices for a thousand',
    `
# Imprimerie Kerdual
Facture 118           le 20/11/2026
Nr  Produit   Désignation               Quantité   PU/1000   Montant
10  ETQ-40    Étiquettes cousues           2 500     62,00    155,00
20  DEP-55    Dépliants                    1 000    248,00    248,00
                                  Net à payer EUR             403,00
`,
    [
      ['Étiquettes cousues', 2500, 0.062, 155],
      ['Dépliants', 1000, 0.248, 248],
    ],
  ],
  [
    'figures in columns that no head names, behind what things are',
    `
# Copperas Flats
Service charge 2027        1 December 2026
Cleaning              61/900    7 200.00     488.00
Garden                61/900    1 800.00     122.00
Total to pay                                £610.00
`,
    [
      ['Cleaning', null, null, 488],
      ['Garden', null, null, 122],
    ],
  ],
  [
    'counted in what nobody knows, and priced in pence for each',
    `
# Sedgemoor Signs
Invoice 118           27 November 2026
Lettering, gilt        46 letters × 3.50       161.00
Lamp oil              210.5 x 88.00 ppl        185.24
Varnish                  2 tins @ 14.00         28.00
Total                                          £374.24
`,
    [
      ['Lettering, gilt', 46, 3.5, 161],
      ['Lamp oil', 210.5, 0.88, 185.24],
      ['Varnish', 2, 14, 28],
    ],
  ],
  [
    'what is counted in words, in the cell of what it is',
    `
# Ruddle & Sons
Invoice 72            27 November 2026
Rehang gate, 2.5 hours at £48.00 per hour       £120.00
Sand 4 bags @ £3.20 each                         £12.80
Hinges, Kestrel 24                               £18.40
Total                                           £151.20
`,
    [
      ['Rehang gate', 2.5, 48, 120],
      ['Sand', 4, 3.2, 12.8],
      ['Hinges, Kestrel 24', null, null, 18.4],
    ],
  ],
  [
    'what is named above how much there is of it, and how much below',
    `
FERRY STORES
28/11/26 17:42
BANANAS
 0.842 kg @ £0.95/kg                 0.80
FLOUR 1KG                            3.30
 2 x 1.65
LOAF                                 2.10
TOTAL                               £6.20
`,
    [
      ['BANANAS', 0.842, 0.95, 0.8],
      ['FLOUR 1KG', 2, 1.65, 3.3],
      ['LOAF', null, null, 2.1],
    ],
  ],
  [
    'descriptions of several rows, and headings that are none',
    `
# Marram Web
Invoice 318                                  1 December 2026
DESCRIPTION                        HRS      RATE      AMOUNT
Shop
Photographs, sizes                 4.5     40.00      180.00
and care labels
Hosting,
one year                           1       96.00       96.00
TOTAL GBP                                             276.00
`,
    [
      ['Photographs, sizes and care labels', 4.5, 40, 180],
      ['Hosting, one year', 1, 96, 96],
    ],
  ],
  [
    'two sections, each with its sum',
    `
# Elektro Siebels
Rechnung 4471                                24.11.2026
Geselle          3,50 Std.   52,00     182,00
Anfahrt                                 25,00
Zwischensumme                          207,00
Leitung NYM      25 m         1,15      28,75
Dose              3 St        7,90      23,70
Zwischensumme                           52,45
Nettosumme                             259,45
19 % MwSt                               49,30
Summe                                308,75 €
`,
    [
      ['Geselle', 3.5, 52, 182],
      ['Anfahrt', null, null, 25],
      ['Leitung NYM', 25, 1.15, 28.75],
      ['Dose', 3, 7.9, 23.7],
    ],
  ],
  [
    'the column that the total stands below',
    `
# Staithe Vets
Invoice 551                                    19/11/2026
Date        Treatment              Net      VAT    Gross
16/11/26    Consultation         35.00     7.00    42.00
19/11/26    Oral drops 32ml      18.20     3.64    21.84
            Totals               53.20    10.64    63.84
`,
    [
      ['Consultation', null, null, 42],
      ['Oral drops 32ml', null, null, 21.84],
    ],
  ],
  [
    'prices in pence, and thousands that look like decimals',
    `
# Stadtwerke Holm
Rechnung 118204                         12.11.2026
Arbeitspreis 2.762 kWh x 27,10 ct          748,50 EUR
Grundpreis                                 118,80 EUR
Netto                                      867,30 EUR
USt 19 %                                   164,79 EUR
Brutto                                   1.032,09 EUR
`,
    [
      ['Arbeitspreis', 2762, 0.271, 748.5],
      ['Grundpreis', null, null, 118.8],
    ],
  ],
  [
    'what is carried over to the next page, and what is taken off',
    `
# Hollin Supplies
Invoice 71820                                        30/11/2026
Code    Goods                               No.    Each      Total
R118    Reed, 90 cm                          1     64.00     64.00
H220    Heddles, 100                         6      8.90     53.40
                                   Carried forward          117.40
                                   Brought forward          117.40
B400    Bobbins, pack of 10                  4      6.75     27.00
                                   Goods                    144.40
                                   Less 5%                   -7.22
                                   To pay                  £137.18
`,
    [
      ['Reed, 90 cm', 1, 64, 64],
      ['Heddles, 100', 6, 8.9, 53.4],
      ['Bobbins, pack of 10', 4, 6.75, 27],
      ['Less 5%', null, null, -7.22],
    ],
  ],
  [
    'prices for a hundred, prices below their goods, and packs that are no counts',
    `
# Quoin Printers
Invoice 4418                                     1 December 2026
Description                 Quantity   Per 100   Total
Postcards, two sides             500     14.20    71.00
YOGHURT X4                         1               2.97
SHEETS                             2              17.80
   @ 8.90
Due                                               91.77
`,
    [
      ['Postcards, two sides', 500, 0.142, 71],
      ['YOGHURT X4', 1, null, 2.97],
      ['SHEETS', 2, 8.9, 17.8],
    ],
  ],
  [
    'two tables with heads of their own, and descriptions behind their amounts',
    `
# Fender Garage
Invoice 2618                                     25 November 2026
Labour                          Hours    Rate      Cost
Timing belt                      3.2     55.00    176.00
Parts                           Qty      Each      Cost
Belt kit KV118                    1      94.00     94.00
Total                                            £270.00
`,
    [
      ['Timing belt', 3.2, 55, 176],
      ['Belt kit KV118', 1, 94, 94],
    ],
  ],
  [
    'no sentence that names a sum',
    `
# Harbour Bank
Reminder                                     14 October 2026
Our records show that the sum of £118.20 has not been paid.
Charge for this letter                         5.00
Amount due                                   123.20
`,
    [['Charge for this letter', null, null, 5]],
  ],
])('tells lines of %s', (_, paper, expected) => expect(told(paper)).toEqual(expected));

it('keeps the discount of a line, with which it adds up', () => {
  const lines = linesOn(`
# Thistle Reed Works
Invoice 4471          24 Nov 2026
Goods                  Qty    Price   Disc    Value
Reed, 12 dent            3    64.00   10 %   172.80
Total                                       £172.80
`);
  expect(lines).toMatchObject([{ discount: 10, amount: 172.8 }]);
  expect(whatDoesNotAddUp({ total: '172.80' }, { lines })).toEqual([]);
  expect(whatDoesNotAddUp({ total: '172.80' }, { lines: [{ ...lines[0], discount: 20 }] })).toEqual([
    '3 × 64.00 less 20 % is 153.60, but 172.80 stands at “Reed, 12 dent”.',
  ]);
});

it('is sure of lines only where they make a sum that the paper says', () => {
  const lines = (total: string) =>
    findFacts([
      typed(`
# Thistle Reed Works
Invoice 4471          24 Nov 2026
Reed, 12 dent                    64.00
Heddles, 100                     13.50
Total                           ${total}
`),
    ]).lines;
  expect(lines('77.50')).toMatchObject({ why: { code: 'rows-that-add-up' } });
  expect(lines('77.50')!.confidence).toBeGreaterThan(0.9);
  expect(lines('97.50')).toMatchObject({ why: { code: 'rows-with-amounts' } });
  expect(lines('97.50')!.confidence).toBeLessThan(0.7);
});

it('tells no lines of what a policy insures, nor of a payslip, whose columns are of two things', () => {
  expect(
    linesOn(`
# Lantern Mutual
Policy schedule
Policy number: LM/2204418           Date of issue: 2 November 2026
Section                    Sum insured        Excess
Buildings                    £410,000           £250
Contents                      £60,000           £150
Total premium                                £320.77
`),
  ).toEqual([]);
  expect(
    linesOn(`
# Brightling College
Payslip                        September 2026
Tuition            412.00      PAYE tax        10.00
Holiday pay         49.73      Pension         13.09
Gross pay          461.73      Total           23.09
Net pay            438.64
`),
  ).toEqual([]);
});

it('gives what is taken back a price below nothing, wherever it is counted', () => {
  const lines = linesOn(`
THREAD & THIMBLE
22/09/2026
REEL, ECRU                       12.00
RETURNED REEL                    -7.95
 1 x 7.95
TOTAL                             4.05
`);
  expect(lines).toMatchObject([{ amount: 12 }, { quantity: 1, unitPrice: -7.95, amount: -7.95 }]);
  expect(whatDoesNotAddUp({ total: '4.05' }, { lines })).toEqual([]);
});

it('tells the price of one where several are sold together, without endless decimals', () =>
  expect(
    linesOn(`
SHOREWAY MARKET
11/28/26
 3 @ 3/5.00
CANNED BEANS          5.00 F
BREAD                 2.00 F
TOTAL                 7.00
`),
  ).toMatchObject([{ description: 'CANNED BEANS', quantity: 3, unitPrice: 1.666667 }, {}]));
