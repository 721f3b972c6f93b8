import { typedFacts } from '../testing/typed';

/** Papers whose columns say more, or less, than those of a usual bill. */
it.each<[string, string, Record<string, unknown>]>([
  [
    'a credit note whose title is broken, with the tax of each row in the last column',
    `
                                                             CREDIT
# Sedge & Rowan                                              Note CN 0093
Unit 11, Limekiln Yard                                       Tax point 12.11.2026
                                            Against our invoice 7741 of 30.10.2026
                                                             A/c WICK01
To: Wickford Loom, 4 Loft Lane

Returned                        Kg      Per kg      Goods       VAT
Weld, dried                     4.00    13.75       55.00     11.00
Carriage refunded                                    9.50      1.90
Totals                                              64.50     12.90
Credited to your account                                     £77.40
`,
    {
      kind: 'credit note',
      vendor: 'Sedge & Rowan',
      date: '2026-11-12',
      number: 'CN 0093',
      customer: 'WICK01',
      reference: '7741',
      net: -64.5,
      tax: -12.9,
      total: -77.4,
    },
  ],
  [
    'a slip with two rates of which one can’t be read',
    `
# Dünen-Apotheke
Pflaster 20 St                    4,95 A
Salbe 50 g                        8,40 A
Tee                               3,21 B
zu zahlen EUR                    16,56
gegeben bar                      20,00
zurück                            3,44
Satz        Netto     Steuer     Brutto
A 19%       11,22     2,13       13,35
B 7A         3,00     0,21        3,21
Bon 30718
`,
    { net: 14.22, tax: 2.34, total: 16.56, number: '30718' },
  ],
  [
    'an invoice of which only a part is taxed',
    `
# Tern & Marrow LLC
Invoice # 1093-WL        Date 09/28/2026
Sign                                         $640.00
Site visit                                   $180.00
Subtotal                                     $820.00
Sales tax (6.25%) on sign                     $40.00
Amount due                                   $860.00
`,
    { net: 820, tax: 40, taxRate: 6.25, total: 860 },
  ],
  [
    'a discount in percent that is no payment',
    `
# BOXWREN DROP SHOP
Tracked 2-5kg x 3                 23.85
Insurance x 3                      4.50
Labels                             0.75
SUBTOTAL                          29.10
Loyalty 5% off                    -1.46
TO PAY GBP                        27.64
incl VAT 20%                       4.61
`,
    { total: 27.64, tax: 4.61, net: null, amountDue: null },
  ],
  [
    'an account whose two balances are called alike, each with its side, and whose days of booking stand beside those of value',
    `
# Raiffeisenkasse Süderney eG
Kontoauszug Nr. 11/2026      erstellt am 30.10.2026
Bu-Tag     Wert       Vorgang                                Betrag
                      Kontostand am 30.09.2026           2.318,40 H
02.10.     02.10.     LASTSCHRIFT Nordkabel                 39,90 S
06.10.     06.10.     GUTSCHRIFT Marktverein               540,00 H
15.10.     15.10.     DAUERAUFTRAG Miete                   610,00 S
                      Kontostand am 30.10.2026           2.208,50 H
`,
    { kind: 'statement', vendor: 'Raiffeisenkasse Süderney eG', number: '11/2026', opening: 2318.4, closing: 2208.5 },
  ],
  [
    'an invoice with the same goods twice below a column of tax, and no sum of that column',
    `
# Sedge & Rowan Ltd
Invoice 7741     Date 12.11.2026
Goods                          Net         VAT
Weld, dried                  55.00       11.00
Weld, dried                  55.00       11.00
To pay                     £132.00
`,
    { number: '7741', total: 132, tax: null },
  ],
  [
    'two taxes beside each other, below a sum with its taxes in it',
    `
# Garnhaus Bleiker
Rechnung 118204                              Trogen, 25. November 2026
Leinengarn NeL 16/2         6       14.80      88.80
Total CHF (inkl. MwSt)                          88.80
MwSt 8.1% auf 58.80: 4.41     MwSt 2.6% auf 30.00: 0.76
`,
    { total: 88.8, tax: 5.17 },
  ],
  [
    'a rate that only the rows of the table tell',
    `
# Larch & Linden Labels
Invoice 4471                                   25 November 2026
Product              VAT rate     Quantity      Line total
Labels, end fold         20%         250          66.00
Sample pack              20%           1           4.80
Net 59.00      VAT 11.80      Total GBP 70.80
`,
    { net: 59, tax: 11.8, taxRate: 20, total: 70.8 },
  ],
  [
    'a slip whose words for numbers and days run into them, paid when it was printed',
    `
# HOLM-MARKT
Hafenstr. 8, 26506 Norden
BROT DUNKEL                     4,79 A
SUMME              EUR          4,79
Datum:30.11.2026    18:04   Bon-Nr.:4418
`,
    { number: '4418', date: '2026-11-30', total: 4.79 },
  ],
  [
    'a slip that was paid at the hour that it says, and is not due then',
    `
# The Bollard Café
2 Flat white            6.40
Total                 £6.40
29 Nov 2026 11:12  Paid contactless
`,
    { date: '2026-11-29', dueDate: null },
  ],
  [
    'a slip with its tax by one word, and a sum with taxes in Spanish',
    `
# BAR EL ANCLA
Factura simplificada  T-20447
Fecha 27/11/2026
2    Café con leche          1,60      3,20
3    Zumo naranja            2,80      8,40
Total con IVA incluido      11,60 €
Base 10,55   IVA 10% 1,05
`,
    { kind: 'receipt', total: 11.6, net: 10.55, tax: 1.05 },
  ],
  [
    'a table whose taxes stand before what things are',
    `
# Hythe Wholesale
Invoice SI118204            26 Nov 2026
Qty   Code       Unit £   Net £    VAT £   Description
24    HK-0018      0.45   10.80     2.16   Brass cup hooks
6     GL-2240      3.10   18.60     3.72   Wood glue
                          29.40     5.88
Total payable £35.28
`,
    { net: 29.4, tax: 5.88, total: 35.28 },
  ],
  [
    'a ticket whose fare is not all that was paid',
    `
# Sound Ferries     E-ticket
Booking      K7RT4Q             Issued       18 Sep 2026
Passengers   1 adult            Departs      2 Oct 2026 07:45
Fare         £96.00             Surcharge    £7.50
Paid         £103.50            Card         ending 4410
`,
    { kind: 'ticket', number: 'K7RT4Q', total: 103.5 },
  ],
])('reads %s', (_, paper, expected) => {
  const found = typedFacts(paper);
  expect(Object.fromEntries(Object.keys(expected).map((name) => [name, found[name] ?? null]))).toEqual(expected);
});
