import { typedFacts } from '../testing/typed';

const BILL = `
INVOICE
Invoice no: MP-4471
Date: 3 September 2026

Oak shelf                2    45.00     90.00
Fitting                  3    20.00     60.00

Net                                    150.00
VAT 20%                                 30.00
Total                                 £180.00
`;
const vendorOf = (head: string, foot = '') => typedFacts(`\n${head}\n${BILL}\n${foot}`).vendor;
const TO = 'To Imre Castellane, 4 Quay Steps, Wickford';

it.each([
  ['Customer copy\nMarrow & Pine Joinery\n17 Chandler Row, Port Selwyn'],
  ['From: Marrow & Pine Joinery, 17 Chandler Row, Port Selwyn\nTo: Imre Castellane, 4 Quay Steps, Wickford'],
  ['Marrow & Pine Joinery · 17 Chandler Row · Port Selwyn\n\nImre Castellane\n4 Quay Steps\nWickford'],
  [
    `Seller                                  Buyer
Marrow & Pine Joinery                   Imre Castellane
17 Chandler Row, Port Selwyn            4 Quay Steps, Wickford`,
  ],
  [
    `Rechnungsempfänger                      Rechnungssteller
Imre Castellane                         Marrow & Pine Joinery
Hafengasse 4                            17 Chandler Row`,
  ],
])('tells who it is from by what stands above and beside the name: %s', (head) =>
  expect(vendorOf(head)).toBe('Marrow & Pine Joinery'),
);

it.each([
  ['Please make cheques payable to Marrow & Pine Joinery.'],
  ['Bank: Account name Marrow & Pine Joinery, sort code 20-11-84, account 11849920'],
  ['Bankverbindung: Marrow & Pine Joinery, IBAN DE75 5121 0800 1245 1261 99'],
  ["Chèque à l'ordre de Marrow & Pine Joinery"],
  ['With thanks,\nHollis Marrow\nMarrow & Pine Joinery'],
])('finds at the end of a paper that nobody heads who is to be paid or who signs: %s', (foot) =>
  expect(vendorOf(TO, foot)).toBe('Marrow & Pine Joinery'),
);

it('takes nobody for the sender whom a paper is written to, in any of three languages', () => {
  for (const head of [TO, 'An Imre Castellane, Hafengasse 4, 26721 Emden', 'À Imre Castellane, 4 quai des Voiles'])
    expect(vendorOf(head)).toBeNull();
});

it('takes a bank by itself for no sender', () => {
  expect(vendorOf(TO, 'Bank: 20-11-84, 11849920')).toBeNull();
});

it('takes the beginning of a line that goes on with the title and the day for the name', () =>
  expect(
    typedFacts(`
Estuary Museum Trust PAYSLIP Pay date 30/10/2026
Employee: Bryony Teague
Payments               Deductions
Basic pay   1,420.00   PAYE tax   74.60
Net pay     1,345.40
`).vendor,
  ).toBe('Estuary Museum Trust'));

it('takes a person right below a name drawn larger for whom it is written to', () =>
  expect(vendorOf('# Fernlight Energy\nMr I Castellane, 4 Quay Steps, Wickford WK1 2AB')).toBe('Fernlight Energy'));

it.each([
  [
    'an account of its own',
    `
Current account 41170823
Account name: Imre Castellane
Statement for October 2026
1 Oct 2026     Opening balance                 1,204.18
3 Oct 2026     Rent               -410.00        794.18
31 Oct 2026    Closing balance                   794.18
`,
  ],
  ['what is taken from it', `\n${TO}\n${BILL}\nAccount holder: Imre Castellane. We will debit your account.\n`],
  ['what is paid out', `\n${TO}\nRemittance advice\nPayments to Imre Castellane\nTotal    £46.00\n`],
])('takes nobody for the sender whose account is that of %s', (_, paper) =>
  expect(typedFacts(paper).vendor).not.toBe('Imre Castellane'),
);

it('takes “An” for the beginning of a name where no address or person follows', () => {
  expect(vendorOf('An Lanntair Crafts\n12 Kirk Road, Stornoway')).toBe('An Lanntair Crafts');
  expect(vendorOf('An Herrn Imre Castellane\nHafengasse 4\n26721 Emden')).toBeNull();
});

it('knows a shop by its name and which of several it is, and that no number of the paper', () => {
  const { vendor, number } = typedFacts(`
MARROW MARKET #118
MAIN ST ROCKPORT
11/24/2026  16:20
Oat flakes      4.20
Plums           2.80
TOTAL           7.00
`);
  expect([vendor, number]).toEqual(['MARROW MARKET #118', null]);
});

it('takes no title with a number for a shop and its branch', () => {
  const { vendor, number } = typedFacts(`
INVOICE 118
Marrow & Pine Joinery Ltd
3 September 2026
Oak shelf                               90.00
Total                                  £90.00
`);
  expect([vendor, number]).toEqual(['Marrow & Pine Joinery Ltd', '118']);
});

it('takes nobody who paid for the sender', () =>
  expect(vendorOf('Received from Wickford Loom\nMarrow & Pine Joinery Ltd')).toBe('Marrow & Pine Joinery Ltd'));
