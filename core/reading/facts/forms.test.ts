import { typedFacts } from '../testing/typed';

/** Forms that bills of the usual kind don't have: each a paper as typed, and what it says. */
it.each<[string, string, Record<string, unknown>]>([
  [
    'a payslip that pays into an account',
    `
# Werkstatt Deichlicht gGmbH
Herrn Tjark Ennen        Pers.-Nr. 0417
Entgeltnachweis Oktober 2026
erstellt 28.10.2026
Stundenlohn 84,5 Std.    1.385,80
Lohnsteuer                 -38,25
Krankenversicherung       -113,64
auf Ihr Konto            1.233,91
`,
    { kind: 'payslip', date: '2026-10-28', total: 1233.91 },
  ],
  [
    'goods that go out, of an order, with a number behind the title',
    `
# Färberei Klüver
WARENAUSGANG 8841    19.10.26
an Wickford Loom, Emden
aus Ihrer Bestellung WL-118 vom 5.10.
Anz.   Gebinde    Inhalt
4      Strang     Wolle, Krapp 3
2      Strang     Wolle, Reseda 1
Nachzuliefern: 2 Strang Indigo 5
`,
    { kind: 'delivery note', number: '8841', date: '2026-10-19', order: 'WL-118' },
  ],
  [
    'a letter about a note that was not paid, in a sentence over two lines',
    `
# Ateliers Kermorvan
Mme Imre Castellane
Le 12 octobre 2026
Objet : votre compte
Madame,
Sauf erreur de notre part, la note ci-dessous ne nous a
pas été réglée :
Note 2026-318 du 14 août 2026      231,60 €
Frais de relance                    12,00 €
Il nous est dû                     243,60 €
Nous comptons sur votre virement d'ici au 26 octobre 2026.
`,
    { kind: 'reminder', reference: '2026-318', date: '2026-10-12', dueDate: '2026-10-26', total: 243.6 },
  ],
  [
    'water, with what to pay by when in one cell, and an account in groups',
    `
# Harbour Water
Account 3 0041 7725
Bill made 5 Oct 2026
£87.43 by 26 Oct 2026
Water, 22 m³                 £51.12
Waste water                  £36.31
This quarter                 £87.43
`,
    { kind: 'invoice', customer: '3 0041 7725', date: '2026-10-05', dueDate: '2026-10-26', total: 87.43 },
  ],
  [
    'a renewal whose cover runs out on a day',
    `
# Tideway Mutual
14 September 2026
It's time to renew: studio cover TM/88/20417
Your present cover runs out at midnight on 18 October 2026.
Premium for the coming year      £312.00
Insurance premium tax 12%         £37.44
You pay                          £349.44
`,
    { kind: 'contract', date: '2026-09-14', policy: 'TM/88/20417', tax: 37.44, total: 349.44 },
  ],
  [
    'what is to be paid in one sentence that adds up',
    `
# Harbourside Tap & Heat
Ref 7714 - visit 1 Oct 2026 - written 4 Oct 2026
Call out, first hour         72.00
Ball valve and fittings      18.45
Half hour more               30.00
120.45 plus 24.09 VAT makes £144.54. Please pay us.
Send this with your money    Ref 7714    £144.54
`,
    { kind: 'invoice', number: '7714', date: '2026-10-04', currency: 'GBP', net: 120.45, tax: 24.09, total: 144.54 },
  ],
  [
    'an account that names its balances by their days alone, below heads',
    `
# Raiffeisen Küstenland eG
Girokonto Imre Castellane
Blatt 10/2026 vom 30.10.2026
Tag       Vorgang                       EUR
          Stand 30.09.2026         872,40 +
05.10.    Miete Hafengasse         520,00 -
20.10.    Kunsthandwerkermarkt     448,00 +
          Stand 30.10.2026         800,40 +
`,
    { kind: 'statement', date: '2026-10-30', opening: 872.4, closing: 800.4 },
  ],
  [
    'a friendly letter about what was not paid, that asks by the end of a week',
    `
Tidepool Signs
3 Rope Walk
19 October 2026
Hello Imre
Hope the fair went well. I think our bill got lost on your desk? It should have been with us by
10 September and nothing has come in yet.
Could you let us have the £264.00 by the end of next week, 30 October 2026? Thank you.
`,
    { kind: 'reminder', vendor: 'Tidepool Signs', date: '2026-10-19', dueDate: '2026-10-30', total: 264 },
  ],
  [
    'money back for what was sent back, from a firm whose name is drawn in capitals',
    `
# GARNKONTOR BREMEN
Garnkontor Bremen KG, Am Speicher XI 4, 28217 Bremen
Vorgang R-20933
14.10.2026
zu Rechnung 26-88412
Ihre Rücksendung ist da. Folgendes erhalten Sie zurück:
4 Konen Leinen 16/2     71,60
Rücksendekosten         -4,90
Netto                   66,70
USt 19 %                12,67
Zurück an Sie           79,37 EUR
`,
    {
      kind: 'credit note',
      vendor: 'Garnkontor Bremen KG',
      date: '2026-10-14',
      number: 'R-20933',
      reference: '26-88412',
      total: -79.37,
    },
  ],
  [
    'a box, without a title, with what is in it and what comes later',
    `
# Saltmarsh Spinners
For Wickford Loom
Your order 4419    Left us 12 Oct 2026    Our DN20771
Ordered   Here   Later
6         6      0       Shetland 2-ply, peat
4         3      1       Shetland 2-ply, gorse
Counted by JL. Tell us within 5 days if anything is amiss.
`,
    { kind: 'delivery note', vendor: 'Saltmarsh Spinners', number: 'DN20771', order: '4419', date: '2026-10-12' },
  ],
  [
    'money that comes back on the next bill, by an adjustment',
    `
# Harbour Water
Customer Care, PO Box 40, Port Selwyn
Mr I Castellane, 4 Quay Steps, Wickford
Account 3 0041 7725    Adjustment A-5520    27 October 2026
We misread your meter in July. Bill 88-20417 was too high and we are putting it right.
Water over-charged, 6 m³        £10.45
Waste water over-charged         £9.81
Coming back to you              £20.26
You will see it on your next bill.
`,
    { kind: 'credit note', vendor: 'Harbour Water', number: 'A-5520', customer: '3 0041 7725', total: -20.26 },
  ],
  [
    'a printed message whose subject names a booking, with a deposit taken',
    `
From: Dye Barn <hello@dyebarn.example>
Sent: 06 October 2026 19:20
To: imre@wickfordloom.example
Subject: You're in! Indigo weekend, booking DB-3318
Hi Imre, we've kept a place for you.
Indigo weekend, 14-15 November 2026    £165.00
Lunches                                 £18.00
Altogether                             £183.00
Deposit taken today                     £50.00
To bring on the day                    £133.00
`,
    { kind: 'order', vendor: 'Dye Barn', date: '2026-10-06', number: 'DB-3318', total: 183 },
  ],
  [
    'an allotment that an association lets, its name in the midst of a sentence',
    `
Gartenparzelle 31
Der Kleingartenverein Deichblick e.V., Norden, überlässt Imre Castellane die Parzelle 31 zur Nutzung.
Beginn 1. November 2026. Die Nutzung endet am 31. Oktober 2029, wenn sie nicht vorher mit drei
Monaten Frist aufgegeben wird.
Im Jahr sind 98,00 € zu zahlen, dazu Wasser nach Verbrauch.
Norden, den 18. Oktober 2026
`,
    { kind: 'contract', vendor: 'Kleingartenverein Deichblick e.V.', date: '2026-10-18', ends: '2029-10-31' },
  ],
  [
    'a bill whose rate lost its sign, and that is due on a “day of”',
    `
# Dunlin Boatyard
Invoice No. 26/1184
Invoice date 1 October 2026

Slipway, two tides      277.00
Net                     277.00
VAT 20                   55.40
Total                  £332.40
Accounts are due for settlement on or before the 28th day of October 2026.
`,
    { date: '2026-10-01', dueDate: '2026-10-28', tax: 55.4, taxRate: 20, total: 332.4 },
  ],
  [
    'a letter with a return line above the address in its window, and what is taken from the account',
    `
Ev. Kindergarten Muschel, Deichstraße 5, 26725 Emden
Familie
Castellane
Hafengasse 4
26721 Emden
                              Emden, 28.09.2026
Elternbeitrag Oktober 2026
Elternbeitrag Ganztag         186,00 €
Essensgeld                     64,80 €
Abbuchung am 05.10.2026       250,80 €
`,
    { vendor: 'Ev. Kindergarten Muschel', date: '2026-09-28', dueDate: '2026-10-05', total: 250.8 },
  ],
  [
    'a notice that asks for one of two sums, in a sentence',
    `
# Stadt Norden
Norden, 12.03.2026
Hundesteuerbescheid
Wir setzen die Hundesteuer ab 01.04.2026 auf 84,00 € fest.
Für dieses Jahr sind 63,00 € zu zahlen, fällig am 15.05.2026.
Gegen diesen Bescheid kann Widerspruch erhoben werden.
`,
    { kind: 'notice', date: '2026-03-12', dueDate: '2026-05-15', currency: 'EUR', total: 63 },
  ],
  [
    'a refund, and the order that it is of',
    `
# We've issued your refund
From: Sandbar Dyes <orders@sandbar.example>
Date: Oct 14, 2026
Order #44718 placed September 30, 2026
Madder root, 1 lb         $24.50
Shipping refund            $6.95
Total refunded            $31.45
`,
    { kind: 'credit note', vendor: 'Sandbar Dyes', date: '2026-10-14', currency: 'USD', total: -31.45 },
  ],
  [
    'a yearly statement of a loan, whose twelve payments are no day in December',
    `
# Fulmar Building Society
Mortgage statement
Statement date 31 December 2025
Date      Details                    Charged     Paid     Balance
01 Jan    Balance at start                               84,210.00
31 Dec    Interest                  3,368.40             87,578.40
31 Dec    12 payments of £512.00             6,144.00    81,434.40
31 Dec    Balance at end                                 81,434.40
`,
    { kind: 'statement', date: '2025-12-31', dueDate: null, opening: 84210, closing: 81434.4 },
  ],
  [
    'a bill in rupees, with two taxes of one rate and no sum without them',
    `
# Periyar Handloom Mills
TAX INVOICE
Invoice No: PHM/114      Date: 11-Sep-2026
To: Wickford Loom

Description               Qty      Rate      Amount
Towelling cloth            60    120.00    7,200.00
Selvedge tape              40     45.00    1,800.00
CGST @ 2.5%                                  225.00
SGST @ 2.5%                                  225.00
Total                                  INR 9,450.00
`,
    { kind: 'invoice', date: '2026-09-11', number: 'PHM/114', currency: 'INR', tax: 450, total: 9450 },
  ],
  [
    'a bill for a deposit, which is what it asks for',
    `
# FERRONNERIE TANGUY SARL
SARL au capital de 6 000 €
Facture d'acompte
Facture n° 26-118
Le 9 septembre 2026
Client : Wickford Loom

Montant du marché HT          3 200,00 €
Acompte de 40 % HT            1 280,00 €
TVA 20 %                        256,00 €
Acompte à régler TTC          1 536,00 €
`,
    { kind: 'invoice', date: '2026-09-09', currency: 'EUR', net: 1280, tax: 256, total: 1536 },
  ],
  [
    'a receipt whose goods and carriage make the sum with the tax, and that prints no net sum',
    `
# Skerryvore Labels Ltd
Receipt 20417
Date 14 Sep 2026

Woven labels, 300      £48.00
Delivery                £7.00
VAT (20%)              £11.00
Amount charged         £66.00
`,
    { kind: 'receipt', net: null, tax: 11, total: 66 },
  ],
  [
    'a ticket whose price has its fee in it',
    `
# Quayside Playhouse
Ticket
Sat 21 Nov 2026      Row C Seat 4
£16.00 incl. booking fee £1.20
`,
    { kind: 'ticket', currency: 'GBP', total: 16 },
  ],
  [
    'a statement without balances that asks for what is left to pay',
    `
# Spruce Head Orthodontics
Patient Statement
Statement date: 10/14/2026
Please remit by: 11/04/2026

Service                     Charge    Plan paid    You owe
09/22/2026 Retainer check    96.00        70.00      26.00
Amount you owe                                      $26.00
`,
    { date: '2026-10-14', dueDate: '2026-11-04', currency: 'USD', total: 26 },
  ],
  [
    'a bill whose last column tells the tax of each row, below a head in its middle',
    `
# GANNET FREIGHT LTD
Invoice No. GF-40118
Invoice date 03/10/2026

Charge                   Net GBP           VAT GBP
Customs clearance          60.00                   12.00
Carriage                   35.00                    7.00
Duty outlay                21.50                    0.00
Totals                    116.50                   19.00
Invoice total GBP                                 135.50
`,
    { kind: 'invoice', net: 116.5, tax: 19, total: 135.5 },
  ],
  [
    'a notice of what is paid out from a day on',
    `
# Versorgungswerk Küste
Datum 22.06.2026
Anpassung Ihrer Rente
Rente bisher                  402,00 EUR
Rente neu                     415,00 EUR
Beitrag Krankenkasse          -33,00 EUR
Zahlbetrag ab 01.07.2026      382,00 EUR
Gegen diesen Bescheid kann Widerspruch erhoben werden.
`,
    { kind: 'notice', date: '2026-06-22', dueDate: null },
  ],
  [
    'a certificate whose issuer is named as such',
    `
# Deposit Certificate
issued by Strongroom Deposits Ltd, the scheme
Certificate number SD 2207 118
Date protected 4th September 2026
`,
    { kind: 'certificate', vendor: 'Strongroom Deposits Ltd', number: 'SD 2207 118' },
  ],
  [
    'a mail that was printed, with who sent it',
    `
Inbox
Your receipt from Netshed Prints #NP-331
From: Netshed Prints <accounts@netshed.example>
Sent: 28 September 2026 17:52
To: imre@wickfordloom.example
Amount paid £24.00
`,
    { kind: 'receipt', vendor: 'Netshed Prints', number: 'NP-331', total: 24 },
  ],
  [
    'a bill that is payable on receipt',
    `
# Farrow & Lyle, P.C.
September 30, 2026
Invoice 18820
For services rendered                $624.00
Balance now due                      $624.00
Payable upon receipt. Thank you.
`,
    { kind: 'invoice', number: '18820', total: 624 },
  ],
  [
    'a last bill that cites its quote and what was paid on account, each with its day',
    `
                                        Zimmerei Okke Brodersen
                                        Deichweg 14, 25832 Tönning
Wickford Loom

                                        Tönning, 6. November 2026
# Schlussrechnung SR 26-117
Lieferung laut Angebot vom 3.8.2026                   2.140,00
Zusätzliche Lattung                                     160,00
Nettobetrag                                           2.300,00
19 v. H. Umsatzsteuer                                   437,00
Bruttobetrag                                          2.737,00
Ihre Abschlagszahlung vom 5.10.2026                  -1.000,00
Noch zu überweisen                                    1.737,00 €
Zahlbar bis spätestens 20. November 2026.
`,
    { date: '2026-11-06', dueDate: '2026-11-20', taxRate: 19, total: 2737, amountDue: 1737 },
  ],
  [
    'a fine that changes with the day on which it is paid',
    `
# Wickford Harbour Authority
Penalty Charge Notice   WH 0093317
Date of notice          16/11/2026
Charge                  £70.00
If you pay on or before 30/11/2026 the charge is reduced to £35.00. After
14/12/2026 it rises to £105.00.
`,
    { kind: 'notice', date: '2026-11-16', number: 'WH 0093317', total: 70 },
  ],
  [
    'a bill whose table ends with net, tax and gross, and whose sums stand below those heads',
    `
# KITTIWAKE CAR POOL
Invoice no.: KP-3301
Invoice date: 30/06/26

Date     Car           Product      Net      VAT     Gross
04/06    WK20 ABD      Diesel     49.40     9.88     59.28
19/06    WK20 ABD      Diesel     47.10     9.42     56.52
All of this month                 96.50    19.30   £115.80
`,
    { kind: 'invoice', date: '2026-06-30', number: 'KP-3301', net: 96.5, tax: 19.3, total: 115.8 },
  ],
  [
    'a rent that is asked for as a statement, with the last balance and a tax',
    `
# Heron Bay Storage
40 Dock St, Port Amity, ME 04032
Monthly Statement
Statement prepared                     06/22/2026
Previous balance                          $112.00
Payment received 06/03/2026              -$112.00
Rent 07/01/2026 - 07/31/2026              $100.00
Sales tax 5.5% on rent                      $5.50
Balance due 07/01/2026                    $105.50
`,
    { kind: 'invoice', date: '2026-06-22', dueDate: '2026-07-01', tax: 5.5, total: 105.5 },
  ],
  [
    'a fee note that says when the next vaccination is',
    `
# Cabinet des Mouettes
Perros, le 3 novembre 2026
Note d'honoraires n° 2026/118
Consultation                    38,00
Vaccin                          29,50
Total TTC                       67,50 €
Prochain rappel de vaccin : 03/11/2027
`,
    { kind: 'invoice', date: '2026-11-03', number: '2026/118', total: 67.5 },
  ],
  [
    'an order confirmed, with the day of the customer’s own order beside its number',
    `
Kammbau Iversen GmbH, Industriering 8, 08412 Werdau
Wickford Loom
                                      Werdau, 12. Oktober 2026
Auftragsbestätigung Nr. KB 2026-417 zu Ihrer Bestellung vom 8. Oktober 2026
Webkamm 40/10             2       62,00           124,00
Nettobetrag                                       124,00
zzgl. 19 % MwSt.                                   23,56
Auftragssumme                                     147,56 €
`,
    { kind: 'order', date: '2026-10-12', number: 'KB 2026-417', net: 124, total: 147.56 },
  ],
  [
    'a bill of a firm that draws its name as its place on the web',
    `
# skerrycloud.example
Skerrycloud B.V. - Keizerskade 118 - Rotterdam
Invoice SC-5530
1 Sep 2026
Storage                         4.00
Snapshots                       0.73
Total EUR                       4.73
`,
    { kind: 'invoice', vendor: 'Skerrycloud B.V.', number: 'SC-5530', total: 4.73 },
  ],
  [
    'a receipt by hand with its sum in words',
    `
Quittung Nr. 18
Betrag in EUR       145,00
in Worten           einhundertfünfundvierzig
`,
    { kind: 'receipt', vendor: null, number: '18', total: 145 },
  ],
  [
    'a Swiss bill whose rate lost its point, with terms in days before the day itself',
    `
# Färberei Kesselmatt
Kesselmattstrasse 31, 3007 Bern
Bern, den 9.11.2026
Beleg 2026.0441
6 Strangen Leinen                        96.00
2 Strangen Wolle                         39.60
Porto                                    14.00
Rechnungstotal CHF                      149.60
darin MWST 81 %                          11.21
Besten Dank für die Überweisung, 30 Tage, 9.12.2026, auf CH93 0076 2011 6238 5295 7.
`,
    { kind: 'invoice', dueDate: '2026-12-09', total: 149.6, tax: 11.21, taxRate: 8.1 },
  ],
  [
    'a receipt for what came by transfer, with the account at its foot',
    `
# Verein Hafenweber Büsum
Quittung 118                       Büsum, den 12.10.2026
Mitgliedsbeitrag                     30,00 €
Aufnahmegebühr                       10,00 €
Gesamt                               40,00 €
Per Überweisung dankend erhalten.
IBAN DE02 1203 0000 0000 2020 51
`,
    { kind: 'receipt', date: '2026-10-12', total: 40 },
  ],
  [
    'a slip whose strokes were read as sevens and ones',
    `
TREVARTHEN HARDWARE
12711726 14:22 TILL 2
COACH BOLT        4.80
LINSEED OIL       9.95
TOTAL            14.75
CASH             20.00
CHANGE            5.25
`,
    { kind: 'receipt', date: '2026-11-12', total: 14.75 },
  ],
  [
    'an order whose value leaves out the tax',
    `
# The Gull Rock Hotel
PURCHASE ORDER   GR-2207
Raised 13 Nov 2026
1   Wool throw          12     88.00    1,056.00
2   Cushion cover       24     26.50      636.00
Order value, VAT not included          £1,692.00
`,
    { kind: 'order', number: 'GR-2207', date: '2026-11-13', net: 1692, total: null, currency: 'GBP' },
  ],
  [
    'a till slip with a letter for each rate',
    `
      PENNYWORT STORES
     4 Capstan Row  Eastmere
  VAT no. 882 1940 33
OATMILK 1L          2.10 A
ROOIBOS TEA 40      3.25 A
DISH BRUSH          4.80 B
LAMP OIL 1L         9.60 B
SUBTOTAL           19.75
TO PAY             19.75
VISA DEBIT         19.75
      RATE    NET    VAT
A  0.0%      5.35   0.00
B 20.0%     12.00   2.40
18/11/26 14:52  TILL 03  TRANS 004417
`,
    {
      kind: 'receipt',
      vendor: 'PENNYWORT STORES',
      date: '2026-11-18',
      total: 19.75,
      tax: 2.4,
      currency: null,
    },
  ],
  [
    'an invoice with two rates, a deposit already paid, and a number whose label is unusual',
    `
# Gebr. Tannhof Möbelbau GmbH
Tannhof Möbelbau · Sägeweg 9 · 83209 Prien

Frau Imre Castellane
12 Quay Street                                    Vorgang: 26-10883
Wickford                                          Kundenkennung: 55102
                                                  Ausgestellt: 4. November 2026
# Schlussrechnung
Webstuhlbank, Esche              1        640,00        640,00
Fachbuch Holzpflege              2         24,00         48,00

Warenwert netto                                         688,00
19 % MwSt. auf 640,00                                   121,60
 7 % MwSt. auf  48,00                                     3,36
Rechnungsbetrag                                         812,96
abzgl. Anzahlung vom 02.10.2026                        -300,00
Noch zu zahlen                                          512,96 EUR
Fällig ohne Abzug am 18.11.2026
`,
    {
      kind: 'invoice',
      number: '26-10883',
      customer: '55102',
      date: '2026-11-04',
      dueDate: '2026-11-18',
      net: 688,
      tax: 124.96,
      total: 812.96,
      amountDue: 512.96,
      currency: 'EUR',
    },
  ],
  [
    'an American invoice with the month first',
    `
# Blue Heron Reeds LLC
2210 Lakeshore Drive, Duluth, MN 55804

INVOICE                              Invoice #: 4471-B
                                     Issued: 10/06/2026
Bill To:                             Terms: Net 30
Wickford Loom                        Payment due: 11/05/2026

Item                    Qty     Rate        Amount
Stainless reed 12 dent   2    $86.00       $172.00
Shipping                                    $31.50

Subtotal                                   $203.50
Sales Tax (8.875%)                          $18.06
Balance Due                                $221.56
`,
    {
      kind: 'invoice',
      vendor: 'Blue Heron Reeds LLC',
      number: '4471-B',
      date: '2026-10-06',
      dueDate: '2026-11-05',
      net: 203.5,
      tax: 18.06,
      total: 221.56,
      currency: 'USD',
    },
  ],
  [
    'a credit note',
    `
# Skerry Dye Works
Foundry Lane, Eastmere EM1 4RT

CREDIT NOTE
Credit note no.   CN-0093            Date   21 November 2026
In respect of invoice 7719           Customer  WICKF01

Indigo vat, returned        1       46.00       -46.00

Net                                             -46.00
VAT 20%                                          -9.20
Total credit                                   £-55.20
`,
    {
      kind: 'credit note',
      number: 'CN-0093',
      date: '2026-11-21',
      customer: 'WICKF01',
      net: -46,
      tax: -9.2,
      total: -55.2,
      currency: 'GBP',
    },
  ],
  [
    'a reminder',
    `
# Wasserwerk Uferstedt
Zählerweg 2, 24768 Uferstedt

Frau                                            Uferstedt, 23. November 2026
Imre Castellane
12 Quay Street
# 1. Mahnung
Kundennummer 90-4418

Sehr geehrte Frau Castellane,
zu unserer Rechnung 2026/55310 vom 01.10.2026 haben wir noch keinen Zahlungseingang festgestellt.

Offener Betrag                      88,40 EUR
Mahngebühr                           5,00 EUR
Gesamtforderung                     93,40 EUR

Wir bitten Sie, den Betrag bis spätestens 07.12.2026 zu überweisen.
Mit freundlichen Grüßen
`,
    {
      kind: 'reminder',
      vendor: 'Wasserwerk Uferstedt',
      date: '2026-11-23',
      dueDate: '2026-12-07',
      reference: '2026/55310',
      customer: '90-4418',
      amountDue: 93.4,
      currency: 'EUR',
    },
  ],
  [
    'a statement of an account whose lines add up',
    `
# Harbour & Dales Bank
Current account                         Statement no. 11
Imre Castellane                         Account number 55518820
                                        Sort code 20-00-11
                                        Period 1 October 2026 to 31 October 2026

Date          Details                   Paid out     Paid in     Balance
1 Oct 2026    Balance brought forward                            1,204.10
4 Oct 2026    Card Pennywort Stores        19.75                 1,184.35
12 Oct 2026   Craft fair takings                      480.00     1,664.35
30 Oct 2026   Rent Ropewalk Yard          650.00                 1,014.35
31 Oct 2026   Balance carried forward                            1,014.35
`,
    {
      kind: 'statement',
      vendor: 'Harbour & Dales Bank',
      number: '11',
      opening: 1204.1,
      closing: 1014.35,
      currency: null,
    },
  ],
  [
    'the renewal of a policy',
    `
# Fernhill Mutual Insurance
Your home contents cover is due for renewal

Policy number: HC/77/20931                 3 November 2026
Renewal date: 1 December 2026
Cover ends: 30 November 2027

Dear Mr Castellane,
Thank you for insuring with us. Here is what your cover will cost for the next year.
Annual premium                 £184.00
Insurance premium tax (12%)     £22.08
Total to pay                   £206.08
We will collect this on 1 December 2026.
Yours sincerely
`,
    {
      kind: 'contract',
      vendor: 'Fernhill Mutual Insurance',
      date: '2026-11-03',
      policy: 'HC/77/20931',
      ends: '2027-11-30',
      total: 206.08,
    },
  ],
  [
    'a delivery note without any money',
    `
# Weaver's Yard Supplies Ltd
Delivery Note
Despatch no  DN 20417            Despatched  16/11/2026
Order ref    PO-3319             Carrier     Coastline Parcels

Line  Code     Description            Ordered   Sent
1     LIN16    Linen 16/2 natural        12      12
2     HEM08    Hemp 8/1 black             6       4
Goods received in good condition: ____________
`,
    {
      kind: 'delivery note',
      vendor: "Weaver's Yard Supplies Ltd",
      number: 'DN 20417',
      order: 'PO-3319',
      date: '2026-11-16',
      total: null,
    },
  ],
  [
    'a bill of the energy, with a table of the meter',
    `
# Tideway Energy
Your electricity bill                 Bill date 7 November 2026
Account number  A-4471-2209           Bill number  TE 90331845
Supply period 1 August 2026 - 31 October 2026

Meter        Previous    Present     Units
E14-220917     18,204     18,911       707 kWh

Energy used   707 kWh at 24.50p        173.22
Standing charge 92 days at 53.00p       48.76
Subtotal                               221.98
VAT at 5%                               11.10
Total charges this period             £233.08
By direct debit on or just after 21 November 2026
`,
    {
      kind: 'invoice',
      vendor: 'Tideway Energy',
      number: 'TE 90331845',
      customer: 'A-4471-2209',
      date: '2026-11-07',
      net: 221.98,
      tax: 11.1,
      total: 233.08,
      currency: 'GBP',
    },
  ],
  [
    'an order confirmed',
    `
# Filature du Rocher SARL
Bordereau de commande                     Le 12 octobre 2026
Commande n° BC-2026-118                   Réf. client : WL-7

Fil de lin 16/2, écru       20 bobines      11,40        228,00
Port                                                       19,00
Total HT                                                  247,00
TVA 20 %                                                   49,40
Total TTC                                              296,40 €
Livraison prévue le 6 novembre 2026
`,
    {
      kind: 'order',
      vendor: 'Filature du Rocher SARL',
      number: 'BC-2026-118',
      customer: 'WL-7',
      date: '2026-10-12',
      total: 296.4,
      currency: 'EUR',
    },
  ],
  [
    'a quote',
    `
# Ropewalk Joinery
QUOTATION                                Quote ref Q-558
Prepared for Wickford Loom               Dated 2 November 2026
                                         Valid until 2 December 2026
Supply and fit two sash windows, oak sill               1,480.00
Scaffold                                                  220.00
Net                                                     1,700.00
VAT 20%                                                   340.00
Total                                                  £2,040.00
`,
    { kind: 'quote', number: 'Q-558', date: '2026-11-02', ends: '2026-12-02', dueDate: null, total: 2040 },
  ],
  [
    'a payslip',
    `
Saltgate Academy                        PAY ADVICE
Employee: Imre Castellane               Pay date 28/10/2026
Payroll no. 20117                       Tax period 7
Basic pay             412.00
Income tax                        31.20
National insurance                 9.84
Gross pay             412.00
Total deductions                  41.04
Net pay                          370.96
`,
    { kind: 'payslip', vendor: 'Saltgate Academy', date: '2026-10-28', total: 370.96 },
  ],
  [
    'a notice of the council',
    `
# Stadt Uferstedt
Der Magistrat - Steueramt
Aktenzeichen 20.3-7714/26                    Datum: 09.01.2026

Bescheid über Grundsteuer für das Jahr 2026
Sehr geehrte Frau Castellane,
die Grundsteuer wird festgesetzt auf 412,80 EUR.
Fällig am 15.02.2026
Rechtsbehelfsbelehrung: Gegen diesen Bescheid kann Widerspruch erhoben werden.
`,
    {
      kind: 'notice',
      vendor: 'Stadt Uferstedt',
      number: '20.3-7714/26',
      date: '2026-01-09',
      dueDate: '2026-02-15',
    },
  ],
  [
    'a certificate',
    `
# Certificate of Inspection
Lantern Boiler Care
Certificate no. BG-2026-4417
Appliance: gas boiler, 12 Quay Street, Wickford
Inspected on 30 September 2026
Next inspection due by 30 September 2027
Signed  A. Morrow
`,
    { kind: 'certificate', vendor: 'Lantern Boiler Care', number: 'BG-2026-4417', date: '2026-09-30' },
  ],
  [
    'a ticket of the railway',
    `
# Coast Line Railways
RETURN TICKET
Wickford to Eastmere       14 NOV 2026
Ticket no 4417 2209 31     Coach B  Seat 22
Price £18.40   VAT 0.00
`,
    { kind: 'ticket', vendor: 'Coast Line Railways', date: '2026-11-14', total: 18.4, currency: 'GBP' },
  ],
  [
    'a note in pencil',
    `
Rhiannon rang about the green rug
wants it by Friday
ring back 01632 960417
`,
    { kind: 'other', vendor: null, total: null, number: null },
  ],
  [
    'a message that an order has come in, with its tax in brackets',
    `
# Danke für Ihre Bestellung!
Hallo Imre Castellane,
Ihre Bestellung 7-220-118 vom 03.11.2026 ist bei uns. Sie kommt voraussichtlich am 09.11.2026 an.
3 x Spulenhalter                      36,00 EUR
Versand                                4,50 EUR
Gesamt (inkl. 6,47 EUR MwSt.)         40,50 EUR
Ihr Team von Zwirnwerk
`,
    { kind: 'order', vendor: 'Zwirnwerk', number: '7-220-118', date: '2026-11-03', tax: 6.47, total: 40.5 },
  ],
  [
    'a bill that begins with what was owed on the last one',
    `
# Marram Water Co-operative
Account  2200-417-9                       Billed  Oct 6, 2026
IMRE CASTELLANE
Previous balance                          61.40
Payment received 09/14/26, thank you     -61.40
Balance forward                            0.00
Standing charge                            9.00
Water, 31 units                           22.48
Harbor levy                                0.90
Current charges                           32.38
Pay this amount by 10/28/26   $32.38
`,
    { kind: 'invoice', vendor: 'Marram Water Co-operative', dueDate: '2026-10-28', total: 32.38, opening: null },
  ],
  [
    'an account with a column for what goes out and one for what comes in',
    `
# Fördebank
Auszug 7                                      Erstellt am 31.07.2026
Buchung   Vorgang                  Soll       Haben
          Stand am 30.06.2026                 310,40
02.07.    Strom                    58,00
11.07.    Eingang Markt                       120,00
30.07.    Entgelt                   3,90
          Stand am 31.07.2026                 368,50
`,
    { kind: 'statement', vendor: 'Fördebank', date: '2026-07-31', opening: 310.4, closing: 368.5 },
  ],
  [
    'what was sent, counted and not priced',
    `
# GOODS AT YOUR DOOR
To: Wickford Loom                          No. B 4417
By van on 3.11.26                          Against your order 118
4    boxes    dressed flax
2    cones    hemp twine
1    bag      buttons
`,
    { kind: 'delivery note', number: 'B 4417', total: null },
  ],
  [
    'an insurance that may be ended until a day before its year',
    `
# Saltings Mutual
Your policy renews
Prepared on 2 December 2026
Policy        SM/4/2281
Cover runs    1 February 2027 to 31 January 2028
Premium                     £180.00
Insurance premium tax (12%)  £21.60
You pay                     £201.60
If you would rather not renew, tell us by 15 January 2027.
`,
    { kind: 'contract', policy: 'SM/4/2281', date: '2026-12-02', ends: '2028-01-31', total: 201.6 },
  ],
  [
    'a receipt that also names the number of a bill',
    `
# Receipt from Bobbinhost
Receipt #4417-2081
Date paid  Oct 3, 2026
Studio plan      $20.00
VAT (20%)         $4.00
Amount charged   $24.00
Invoice number 7C20F1-0003
`,
    { kind: 'receipt', vendor: 'Bobbinhost', number: '4417-2081', date: '2026-10-03', total: 24 },
  ],
  [
    'a receipt for rent that says when it was paid and when it was signed',
    `
# QUITTANCE DE LOYER
Bailleur : SCI des Embruns, 4 rue du Phare, 29000 Quimper
Locataire : Imre Castellane
Loyer                     410,00 €
Charges                    30,00 €
Total réglé               440,00 €
Reçu le 4 mars 2026 la somme de quatre cent quarante euros.
Fait à Quimper, le 6 mars 2026
`,
    { kind: 'receipt', vendor: 'SCI des Embruns', date: '2026-03-06', total: 440, order: null },
  ],
  [
    'a demand of a public body in instalments',
    `
# Saltmere Borough Council
Issued: 02/10/2026
RATES DEMAND
Rateable value            1,220.00
Small business relief      -610.00
AMOUNT TO PAY              £610.00
01/11/2026                 £305.00
01/02/2027                 £305.00
`,
    { kind: 'notice', vendor: 'Saltmere Borough Council', date: '2026-10-02', total: 610, amountDue: null },
  ],
  [
    'a final bill with what was paid on account',
    `
Zimmerei Ohlsen & Sohn - Am Priel 2 - 25899 Niebüll          Zimmerei
                                                             Ohlsen & Sohn
Imre Castellane                                              Niebüll, 12. Juni 2026
# Schlussrechnung 2026/0088
Ausgeführt vom 02.06. bis 10.06.2026
Dachbalken                                                     900,00
Latten                                                         100,00
Nettobetrag                                                  1.000,00 €
19 % Mehrwertsteuer                                            190,00 €
Bruttobetrag                                                 1.190,00 €
abzgl. Abschlag vom 03.06.2026                                -500,00 €
Restforderung                                                  690,00 €
`,
    {
      vendor: 'Zimmerei Ohlsen & Sohn',
      date: '2026-06-12',
      period: '2026-06-02/2026-06-10',
      total: 1190,
      amountDue: 690,
    },
  ],
  [
    'what a law says is no number, and its sign no currency',
    `
# Dr. med. dent. Silke Thomsen
Liquidation 26/0417
vom 11.05.2026
Leistung                       Faktor     EUR
Untersuchung                   2,3      12,94
Reinigung                      2,3      94,12
Endbetrag                              107,06
Steuerfrei nach $ 4 Nr. 14 UStG. Ich bitte um Ausgleich bis zum 11.06.2026.
`,
    { kind: 'invoice', number: '26/0417', date: '2026-05-11', dueDate: '2026-06-11', currency: 'EUR', total: 107.06 },
  ],
  [
    'wages of which each deduction is listed as it is',
    `
Papierwerk Süd GmbH     Abrechnung der Bezüge     Mai 2026
Imre Castellane         Erstellt 27.05.2026
Grundgehalt              1.200,00
Zulage                     100,00
Gesamtbrutto             1.300,00
Lohnsteuer                  40,00
Krankenversicherung        106,60
Rentenversicherung         120,90
Auszahlung               1.032,50
`,
    { kind: 'payslip', vendor: 'Papierwerk Süd GmbH', date: '2026-05-27', total: 1032.5 },
  ],
  [
    'a bill with something that is not taxed below its tax',
    `
# Ferrybank Motors
Tax invoice 31-0442   8 June 2026
Labour                    100.00
Parts                      50.00
Net                       150.00
VAT 20%                    30.00
Road test (outside VAT)    40.00
Please pay               £220.00
`,
    { kind: 'invoice', number: '31-0442', date: '2026-06-08', net: 150, tax: 30, taxRate: 20, total: 220 },
  ],
  [
    'a sum, and the tax that is the part of it which its rate says',
    `
Quittung      Nr. 41      EUR 23,80
einschl. 19 % MwSt. 3,80
dankend erhalten
Husum, 30.04.2026
`,
    { kind: 'receipt', number: '41', date: '2026-04-30', currency: 'EUR', tax: 3.8, taxRate: 19, total: 23.8 },
  ],
  [
    'a bill whose sum will be taken from an account',
    `
# Wattnetz
Wattnetz Mobil GmbH, Am Deich 4, 25899 Niebüll
Rechnungsnummer WN26-0417        Rechnungsdatum 12.03.2026
Tarif                              20,00
Summe ohne USt                     20,00
19,00 % USt                         3,80
Zu zahlender Betrag                23,80 EUR
Der Betrag wird am 19.03.2026 von Ihrem Konto abgebucht.
`,
    { kind: 'invoice', vendor: 'Wattnetz Mobil GmbH', number: 'WN26-0417', dueDate: '2026-03-19', total: 23.8 },
  ],
  [
    'a tax bill in two halves',
    `
# TOWN OF NORTH HARBOR
REAL ESTATE TAX BILL
Bill no. 220417      Issued 10/01/2026
Tax for the year                      $1,840.00
Paid to date                              $0.00
First half, due 11/02/2026              $920.00
Second half, due 05/03/2027             $920.00
`,
    { kind: 'notice', vendor: 'TOWN OF NORTH HARBOR', number: '220417', dueDate: '2026-11-02', total: 1840 },
  ],
  [
    'an order whose tax stands before its sum, and an account that goes on in the next line',
    `
# Heddlestone Supplies
Order confirmation
Order HS-4417     9 Feb 2026
Reed                                 60.00
Delivery                              6.00
Order total including VAT £11.00    £66.00
Pay by transfer to DE89 3704 0044 0532 0130
00.
`,
    { kind: 'order', number: 'HS-4417', date: '2026-02-09', tax: 11, total: 66, iban: 'DE89370400440532013000' },
  ],
  [
    'a tax whose comma was not read',
    `
# Wollhaus Tönning GmbH
Rechnung Nr. 118          Datum: 04.05.2026
Merino                       37,50 €
Netto                        37,50 €
MwSt. 19 %                   713 €
Rechnungsbetrag              44,63 €
`,
    { kind: 'invoice', number: '118', net: 37.5, tax: 7.13, total: 44.63 },
  ],
  [
    'a slip of a shop that is called after a county, and is no office',
    `
COUNTY STORES
VAT 118 2204 71
Tea                 3.60
Soap                2.40
Gesamt              6.00
Card                6.00
`,
    { kind: 'receipt', vendor: 'COUNTY STORES', total: 6 },
  ],
  [
    'a charge that is less if it is paid at once',
    `
# Orrin Harbour District Council
Penalty Charge Notice
PCN: OH0714823A                         Served: 19 Oct 2026
A penalty charge of £70.00 is payable not later than 16 November 2026. If it is paid by 2 November 2026 the
charge is reduced to £35.00.
`,
    { kind: 'notice', date: '2026-10-19', dueDate: '2026-11-16', number: 'OH0714823A', total: 70 },
  ],
  [
    'a wage with what was paid in the year so far beside it',
    `
# Salt Pond Weavers Guild Inc
Earnings Statement
Employee            Pay date
CASTELLANE, IMRE    10/23/2026

Earnings        Hours      This period      Year to date
Regular         24.00           744.00         11,160.00
Federal income tax               52.10            781.50
Net pay                         691.90         10,378.50
`,
    { kind: 'payslip', date: '2026-10-23', total: 691.9 },
  ],
  [
    'a receipt that says what was received, a discount apart from its sign',
    `
# Ropewalk Dental Surgery
12 Ropewalk, Orrin Harbour
Paid with thanks                   Thursday 5 November 2026
Scale and polish                                     £62.00
One filling, white                                  £118.00
Less: plan discount                                - £18.00
Received £162.00 by card ending 0047
Your receipt is no. R/20771
`,
    { kind: 'receipt', date: '2026-11-05', number: 'R/20771', total: 162, currency: 'GBP' },
  ],
  [
    'a ticket with times beside its only sum',
    `
# INDIGO VAT DAY
Sat 14 March 2027        10.00 - 16.30      ADMITS 2
BOOKING CODE             PAID
PVX-4471                 £190.00
Bring this ticket with you
`,
    { kind: 'ticket', number: 'PVX-4471', total: 190 },
  ],
  [
    'an agreement with a cooperative, a monthly fee and a security',
    `
# Nutzungsvertrag
über eine Lagerfläche
zwischen der Speicherhof Tönning eG, Am Eiderdeich 2, 25832 Tönning (nachfolgend: Genossenschaft)
und Imre Castellane, Hafenstr. 4 (nachfolgend: Nutzer)
Vertragsnummer: SH-LF-0218
Das monatliche Nutzungsentgelt beträgt 84,00 €.
Der Nutzer hinterlegt eine Kaution in Höhe von 168,00 €.
Tönning, den 20. November 2026
`,
    { kind: 'contract', vendor: 'Speicherhof Tönning eG', number: 'SH-LF-0218', date: '2026-11-20', total: null },
  ],
  [
    'a bill with “until” as a label of its own, and an account whose figures were read as letters',
    `
# Webschule Norderhever
Rechnungs-Nr.       WN-2026-0318
Ausgestellt         02.11.2026
Kursgebühr          345,00 €
Material             38,50 €
Zu überweisen       383,50 €
bis zum             15.12.2026
auf Konto           DEO02 1203 0000 0000 2020 5I
`,
    { kind: 'invoice', dueDate: '2026-12-15', total: 383.5, iban: 'DE02120300000000202051' },
  ],
  [
    'a tax bill with its number in groups behind “de l’avis”',
    `
# DIRECTION DES FINANCES LOCALES
AVIS D'IMPOSITION 2026
Numéro de l'avis : 26 56 0714 228 03
Date d'établissement          28/10/2026
Montant à payer               202,00 €
Date limite de paiement       15/12/2026
`,
    { kind: 'notice', number: '26 56 0714 228 03', dueDate: '2026-12-15', total: 202 },
  ],
  [
    'a certificate of a donation, with a word in capitals that is no account',
    `
# Förderkreis Hafenmuseum e.V.
Ratsdelft 1, 26721 Emden
Bestätigung über Geldzuwendungen
Name des Zuwendenden: Imre Castellane
Tag der Zuwendung: 28.05.2026
XXOO 1203 0000 0000 2020 51
Emden, 15.06.2026
`,
    { kind: 'certificate', vendor: 'Förderkreis Hafenmuseum e.V.', date: '2026-06-15', iban: null },
  ],
  [
    'a notice that takes less from who pays soon, and numbers in groups of three',
    `
# Selwyn Parking Control
PARKING CHARGE NOTICE
Notice number       7 410 338 226
Date of notice      21 September 2026
The amount of £70.00 is payable by 19 October 2026.
If paid by 5 October 2026 a reduced amount of £42.00 will be accepted.
`,
    { kind: 'notice', number: '7 410 338 226', date: '2026-09-21', dueDate: '2026-10-19', total: 70 },
  ],
  [
    'an order that is confirmed on another day than it was written, in the currency of its address',
    `
# Northmere Yarns Ltd
4 Canal Row, Brightling BR4 2LD
ORDER CONFIRMATION
Your order PO-WL-077 of 2 September 2026
Our reference 55-20418                  Confirmed 3 September 2026
Yarn                   Cones    Price     Value
Merino 8/2, slate      6        14.20     85.20
Linen 16/2, flax       4        11.75     47.00
VAT 20%                                   26.44
Order total                              158.64
`,
    { kind: 'order', date: '2026-09-03', number: '55-20418', total: 158.64, currency: 'GBP' },
  ],
  [
    'a bill for what was agreed to in an estimate',
    `
# Menuiserie Le Goff
FACTURE D'ACOMPTE n° FA-2026-112
Le 11 septembre 2026
Devis D-2026-087 accepté le 4 septembre 2026
Acompte 30 %                                555,00 €
TVA 20 %                                    111,00 €
Net à payer                                 666,00 €
À régler avant le 25 septembre 2026
`,
    { kind: 'invoice', number: 'FA-2026-112', date: '2026-09-11', dueDate: '2026-09-25', total: 666 },
  ],
  [
    'pay of a month that is called by its number',
    `
# Brightling College
Pay Advice                     Month 6   September 2026
Employee   I Castellane        Employee no. 004418
Pay date   25/09/2026
Sessional tuition  412.00      PAYE tax        0.00
Holiday pay         49.73      Pension        23.09
Gross pay          461.73      Total deductions 23.09
Net pay            438.64
`,
    { kind: 'payslip', date: '2026-09-25', total: 438.64 },
  ],
  [
    'a policy whose contribution is named before the tax in it, and that was signed before it begins',
    `
# Küstenschutz Versicherung AG
Versicherungsschein
Versicherungsnummer 4471-0882-14
Vertragsbeginn: 01.11.2026
Ablauf 01.11.2027, 12 Uhr
Jahresbeitrag inkl. 19 % Versicherungssteuer  214,20 EUR
Aurich, 12.10.2026
`,
    { kind: 'contract', policy: '4471-0882-14', date: '2026-10-12', total: 214.2, tax: null, currency: 'EUR' },
  ],
  [
    'an account with totals of its columns, numbered by one figure',
    `
# Caisse du Littoral
RELEVÉ DE COMPTE n° 9
du 01/09/2026 au 30/09/2026
Date    Libellé                       Débit      Crédit
        Solde au 31/08/2026                      812,40
03/09   PRLV ÉLECTRICITÉ             64,20
11/09   VIR GALERIE AUMONT                       355,00
        Totaux des opérations        64,20       355,00
        Solde au 30/09/2026                    1 103,20
`,
    { kind: 'statement', number: '9', opening: 812.4, closing: 1103.2 },
  ],
  [
    'charges that are taken on a day which stands before that is said',
    `
# Estuary Savings Society
Notice of charges
Account 41170823          12 October 2026
On 30 October 2026 we will take these charges from your account:
Unpaid item fee, 1 October         £12.00
Overdraft interest                  £1.84
Total                              £13.84
`,
    { kind: 'notice', date: '2026-10-12', dueDate: '2026-10-30', total: 13.84 },
  ],
  [
    'a reminder of two bills, to be paid within a time that has a name of its own',
    `
# École Saint-Guénolé
Concarneau, le 3 novembre 2026
RAPPEL
Cantine - septembre et octobre
Facture n° C26-1182 du 5 octobre           61,20 €
Facture n° C26-1240 du 30 octobre          57,80 €
Reste à payer                             119,00 €
Merci de régler sous quinzaine.
`,
    { kind: 'reminder', date: '2026-11-03', dueDate: '2026-11-18', number: null, total: 119 },
  ],
  [
    'a reminder in a sentence behind another one, of a bill whose number begins as a year does',
    `
# Alderton Dye Works
Reminder
14 October 2026
Our records show that invoice 2026 0418 4420 of 31 August for £118.20 has not been paid.
It was due on 30 September. Please let us have your payment by 21 October 2026.
`,
    { kind: 'reminder', date: '2026-10-14', dueDate: '2026-10-21', reference: '2026 0418 4420', total: 118.2 },
  ],
  [
    'a receipt that names the bill it is for',
    `
# Stitchplan Software
Receipt                                         Receipt no. 2418-0077
Invoice no. SP-104418
Date paid   October 9, 2026
Description           Qty    Unit price     Amount
Studio plan             1        $12.00     $12.00
                        Total               $12.00
                        Amount paid         $12.00
`,
    { kind: 'receipt', number: '2418-0077', date: '2026-10-09', total: 12 },
  ],
  [
    'a toll with the day of what it is for before its own',
    `
# Estuary Bridge Tolls
Unpaid toll notice
Notice no: UT-2026-118204
Date of passage: 28/09/2026 17:44
Toll          €2.90
Surcharge     €3.00
Amount due    €5.90
Pay before 12/10/2026 or the penalty rises to €47.40
Issue date: 30/09/2026
`,
    { number: 'UT-2026-118204', date: '2026-09-30', dueDate: '2026-10-12', total: 5.9 },
  ],
  [
    'dollars of the country that a bill comes from',
    `
# Rivière Textiles Inc.
118 rue Principale, Rimouski QC G5L 4B7
FACTURE 26-0418
2026-10-06
Laine mérinos, 5 kg        42,00     210,00
TPS 5 %                               10,50
TVQ 9,975 %                           20,95
Total                                241,45 $
`,
    { kind: 'invoice', number: '26-0418', date: '2026-10-06', total: 241.45, currency: 'CAD' },
  ],
  [
    'a renewal with its day below the title, of cover that has a limit',
    `
# Hearthmark Boilers
Care plan renewal
4 October 2026
Plan number CP-118-4420
Your care plan ends on 31 October 2026. Limit of cover £500.00.
To keep your cover for another year, pay £162.00 by 28 October 2026.
`,
    { date: '2026-10-04', dueDate: '2026-10-28', total: 162 },
  ],
  [
    'a bill without a title whose number says itself what it is of',
    `
# Kiln & Loft Workspaces
INV-3018
Tax date 01-Oct-2026
Due 15-Oct-2026
Desk share, October            120.00   20%   24.00   144.00
Net     120.00
VAT      24.00
Gross   144.00
`,
    { kind: 'invoice', number: 'INV-3018', date: '2026-10-01', dueDate: '2026-10-15', net: 120, total: 144 },
  ],
  [
    'a letter that asks for a sum and says into which account',
    `
# Webschule Norderhever
Anmeldebestätigung
Kurs 26-H-14 Doppelgewebe, 14.-15.11.2026
Liebe Imre,
wir freuen uns auf dich. Die Kursgebühr von 165,00 € zahlst du bitte bis zum 01.11.2026
auf das Konto DE02 1203 0000 0000 2020 51.
Husum, 12.10.2026
`,
    { date: '2026-10-12', dueDate: '2026-11-01', total: 165, iban: 'DE02120300000000202051' },
  ],
  [
    'a bill that names a certificate which comes with it',
    `
# Okell & Daughter
For: Ropewalk Yard, unit 3            Job 26/418
Swept 6 October 2026
Stove flue, brush and vacuum           55.00
Bird guard fitted                      38.00
Certificate issued: CS-4418
You owe                               £93.00
`,
    { kind: 'invoice', total: 93 },
  ],
  [
    'an agreement with its day behind the parties',
    `
# Agreement
between Imre Castellane and Beatrix Loft, 3 September 2026
Bea lends Imre £600 for the new warping mill. Imre pays back £50 on the first of each
month from 1 November 2026, the last on 1 October 2027. No interest.
Signed: Imre Castellane     Beatrix Loft
`,
    { kind: 'contract', date: '2026-09-03' },
  ],
  [
    'a last reminder of a “Beleg”',
    `
# Nordgarn Versand
Letzte Mahnung
Kundennr. 55120      Beleg R-2026-3391
Datum 16.11.2026
Offen seit 15.09.2026: 118,40 EUR
Mahnkosten: 7,50 EUR
Bitte zahlen Sie 125,90 EUR bis zum 26.11.2026.
`,
    { kind: 'reminder', reference: 'R-2026-3391', number: null, dueDate: '2026-11-26', total: 125.9 },
  ],
  [
    'a ticket for goods that asks for what they cost, with their tax',
    `
# Downeast Propane
Delivery ticket 7710-44
Acct 20418    11/09/2026
Gallons delivered 88.4 @ 3.199        282.79
Delivery fee                            8.50
Sales tax 5.5%                         16.02
Amount of this delivery               307.31
Pay within 10 days and deduct 5.00
`,
    { number: '7710-44', customer: '20418', tax: 16.02, total: 307.31 },
  ],
  [
    'a supplier’s statement of what is outstanding',
    `
# Alderton Dye Works Ltd
STATEMENT                               30 November 2026
Wickford Loom   A/C WICK01
Date      Document         Amount      Outstanding
30/09     Inv AD/9918      336.60           0.00
29/10     Inv AD/9977      118.20         118.20
27/11     Inv AD/10031      64.80          64.80
                                Total     183.00
`,
    { kind: 'statement', date: '2026-11-30', customer: 'WICK01', number: null, total: null },
  ],
])('reads %s', (_, paper, expected) => {
  const found = typedFacts(paper);
  expect(Object.fromEntries(Object.keys(expected).map((name) => [name, found[name] ?? null]))).toEqual(expected);
});
