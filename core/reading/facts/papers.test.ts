import { typedFacts as facts } from '../testing/typed';

it.each([
  [
    'an invoice whose letterhead stands on the right, beside the address it goes to',
    `
# INVOICE
                                                   Harbour Carding Mill
Wickford Loom                                      Unit 4, Ropewalk Yard
Imre Castellane                                    Eastmere EM2 7QT
12 Quay Street                                     VAT No GB 123 4567 82
Wickford                                           accounts@harbourcarding.example

Invoice number     Invoice date      Terms         Payment due
HCM/10482          14/09/2026        30 days       14/10/2026

Description                         Qty      Unit price       Amount
Carded fleece, grey                 12 kg         18.50       222.00
Carriage                            1             14.00        14.00

                                            Subtotal          236.00
                                            VAT @ 20%          47.20
                                            TOTAL            £283.20
Please quote the invoice number with your payment. Account 55518820, sort code 20-00-11.
`,
    {
      kind: 'invoice',
      vendor: 'Harbour Carding Mill',
      date: '2026-09-14',
      dueDate: '2026-10-14',
      number: 'HCM/10482',
      currency: 'GBP',
      net: 236,
      tax: 47.2,
      taxRate: 20,
      total: 283.2,
    },
  ],
  [
    'a German invoice with the sender small above the address, and a delivery date',
    `
# Spinnerei Uferwind GmbH
Spinnerei Uferwind GmbH · Am Wehr 3 · 24768 Uferstedt

Wickford Loom                               Kundennummer: 40117
Imre Castellane                             Rechnungsnummer: R-2026-3391
12 Quay Street                              Rechnungsdatum: 03.11.2026
Wickford                                    Lieferdatum: 29.10.2026

# Rechnung
Pos.  Bezeichnung              Menge    Einzelpreis      Gesamtpreis
1     Leinengarn 16/2            8         14,90 €         119,20 €
2     Wollgarn Natur            10         22,40 €         224,00 €

      Zwischensumme netto                                  343,20 €
      zzgl. 19 % MwSt.                                      65,21 €
      Rechnungsbetrag                                      408,41 €

Zahlbar bis 03.12.2026 ohne Abzug.
IBAN DE89 3704 0044 0532 0130 00   USt-IdNr. DE136695976
`,
    {
      kind: 'invoice',
      vendor: 'Spinnerei Uferwind GmbH',
      date: '2026-11-03',
      dueDate: '2026-12-03',
      number: 'R-2026-3391',
      currency: 'EUR',
      net: 343.2,
      tax: 65.21,
      taxRate: 19,
      total: 408.41,
    },
  ],
  [
    'a German till slip with two rates of tax',
    `
      Markthalle Uferstedt
         Fischmarkt 1
     24768 Uferstedt
  Kaffee gemahlen      6,99 A
  Seife Lavendel       3,49 B
  Brot                 4,20 A
  Summe         EUR   14,68
  Girocard            14,68
  MwSt A  7,00%  netto 10,46  0,73
  MwSt B 19,00%  netto  2,93  0,56
  Bon-Nr. 88213
  21.10.2026 17:42
  Vielen Dank für Ihren Einkauf
`,
    {
      kind: 'receipt',
      vendor: 'Markthalle Uferstedt',
      date: '2026-10-21',
      number: '88213',
      currency: 'EUR',
      total: 14.68,
    },
  ],
  [
    'a French invoice in columns, with its day before its month',
    `
# Filature du Vieux Pont
8 rue des Tanneurs, 35400 Rochebrune
SIRET 732 829 320 00074

FACTURE N° FA-2026-0112                    Wickford Loom
Date de facture : 03/04/2026               12 Quay Street
Échéance : 03/05/2026                      Wickford

Désignation                      Qté       P.U. HT       Montant HT
Laine peignée écrue               15         19,80           297,00
Port                               1         24,00            24,00

                                     Total HT                321,00 €
                                     TVA 20 %                 64,20 €
                                     Total TTC               385,20 €
`,
    {
      kind: 'invoice',
      vendor: 'Filature du Vieux Pont',
      date: '2026-04-03',
      dueDate: '2026-05-03',
      number: 'FA-2026-0112',
      currency: 'EUR',
      net: 321,
      tax: 64.2,
      taxRate: 20,
      total: 385.2,
    },
  ],
  [
    'an energy bill with a period, readings and an account number',
    `
# Northmere Energy
Your electricity bill

Mr I Castellane                               Account number 8510 2247 19
7 Lantern Row                                 Bill number 60033815
Wickford                                      Bill date 2 November 2026

Billing period 1 August 2026 to 31 October 2026
Meter reading 31 October 2026                 48 213 kWh
Electricity used 612 kWh at 24.10 p                           £147.49
Standing charge 92 days at 52.00 p                             £47.84
VAT at 5%                                                       £9.77
Total charges this period                                     £205.10
Amount due                                                    £205.10
Please pay by 20 November 2026
`,
    {
      kind: 'invoice',
      vendor: 'Northmere Energy',
      date: '2026-11-02',
      dueDate: '2026-11-20',
      number: '60033815',
      currency: 'GBP',
      tax: 9.77,
      taxRate: 5,
      total: 205.1,
    },
  ],
  [
    'a letter from the council that names a sum and another day',
    `
# Wickford Town Council
Parks and Quays · Market Hall · Wickford

Mr I Castellane
7 Lantern Row                                 12 October 2026
Wickford

Our ref: PQ/2026/118

Dear Mr Castellane,

Parking permit for Lantern Row

Your permit ends on 30 November 2026. The charge for a further year is £48.00.
Please apply before it ends.

Yours sincerely,
Odile Marchbanks
`,
    {
      kind: 'letter',
      vendor: 'Wickford Town Council',
      date: '2026-10-12',
      subject: 'Parking permit for Lantern Row',
      total: null,
      number: null,
    },
  ],
  [
    'an American invoice, its month first',
    `
# Tidewater Reed & Heddle Co.
1400 Dock Street, Port Alder

Bill To: Wickford Loom                          Invoice #: 10234
                                                Date: 10/25/2026
                                                Due Date: 11/24/2026

Item                                  Qty        Rate       Amount
Stainless reed, 12 dent                 2       64.00      $128.00
Texsolv heddles                         5        9.75       $48.75

                                         Subtotal          $176.75
                                         Sales Tax (6%)     $10.61
                                         Balance Due       $187.36
`,
    {
      kind: 'invoice',
      vendor: 'Tidewater Reed & Heddle Co.',
      date: '2026-10-25',
      dueDate: '2026-11-24',
      number: '10234',
      currency: 'USD',
      net: 176.75,
      tax: 10.61,
      taxRate: 6,
      total: 187.36,
    },
  ],
  [
    'a Spanish simplified invoice',
    `
        TINTES LA RIBERA S.L.
        Calle del Puerto 9
        B-12345674
  FACTURA SIMPLIFICADA  T-00913
  Fecha 05/06/2026   11:20
  Ovillo algodón    2 x 4,50     9,00
  Tinte índigo                  12,10
  TOTAL                      21,10 EUR
  Base imponible 17,44  IVA 21% 3,66
  Tarjeta                       21,10
  Gracias por su visita
`,
    {
      vendor: 'TINTES LA RIBERA S.L.',
      date: '2026-06-05',
      currency: 'EUR',
      net: 17.44,
      tax: 3.66,
      taxRate: 21,
      total: 21.1,
    },
  ],
  [
    'an Italian invoice',
    `
# Tessitura Bramante S.r.l.
Via del Molo 22 - 19100 Portovento - P.IVA IT12345670785

Spett.le Wickford Loom
Fattura n. 118/2026                             Data 15/07/2026
Scadenza pagamento 14/08/2026

Descrizione                     Quantità      Prezzo       Importo
Seta filata 60/2                       6       42,00        252,00
Trasporto                              1       18,00         18,00

                              Imponibile                    270,00
                              IVA 22%                        59,40
                              Totale fattura              € 329,40
`,
    {
      kind: 'invoice',
      vendor: 'Tessitura Bramante S.r.l.',
      date: '2026-07-15',
      dueDate: '2026-08-14',
      number: '118/2026',
      currency: 'EUR',
      net: 270,
      tax: 59.4,
      taxRate: 22,
      total: 329.4,
    },
  ],
  [
    'a Dutch invoice with a customer number and days in words',
    `
# Weefgetouwen Van der Linde B.V.
Kade 14, 1621 AB Havenwijk

Wickford Loom
12 Quay Street, Wickford

Factuurnummer: 20260778             Factuurdatum: 9 maart 2026
Klantnummer: 5512                   Vervaldatum: 8 april 2026

Omschrijving                 Aantal        Prijs         Bedrag
Schietspoel beuken                4        27,50         110,00
Verzendkosten                     1         9,95           9,95

                       Subtotaal                        119,95
                       BTW 21%                           25,19
                       Totaal te betalen               € 145,14
`,
    {
      kind: 'invoice',
      vendor: 'Weefgetouwen Van der Linde B.V.',
      date: '2026-03-09',
      dueDate: '2026-04-08',
      number: '20260778',
      currency: 'EUR',
      net: 119.95,
      tax: 25.19,
      taxRate: 21,
      total: 145.14,
    },
  ],
  [
    'a Swiss invoice, its thousands apart by an apostrophe',
    `
# Webstuhlbau Rüti AG
Bahnweg 2, 8630 Rütihof                        CHE-123.456.788 MWST

Wickford Loom
Rechnung Nr. 7741                              Datum: 18. August 2026
Fällig am: 17. September 2026

Bezeichnung                     Anzahl       Preis          Betrag
Webstuhl, 8 Schäfte                  1    2'150.00        2'150.00
Montage                              4       95.00          380.00

                           Nettobetrag               CHF  2'530.00
                           MWST 8.1%                 CHF    204.95
                           Gesamtbetrag              CHF  2'734.95
`,
    {
      kind: 'invoice',
      vendor: 'Webstuhlbau Rüti AG',
      date: '2026-08-18',
      dueDate: '2026-09-17',
      number: '7741',
      currency: 'CHF',
      net: 2530,
      tax: 204.95,
      taxRate: 8.1,
      total: 2734.95,
    },
  ],
  [
    'a receipt for a parcel with a long number to follow it by',
    `
       Quayside Parcels & Post
          3 Ferry Steps
       Tel 01632 960 114
  04/11/2026 10:12   Till 2
  Parcel 2 kg tracked      £7.95
  Tracking TW 4471 8820 3GB
  Packing tape             £2.40
  Total to pay            £10.35
  Contactless             £10.35
  Receipt no. 0047719
  Thank you
`,
    {
      kind: 'receipt',
      vendor: 'Quayside Parcels & Post',
      date: '2026-11-04',
      number: '0047719',
      currency: 'GBP',
      total: 10.35,
    },
  ],
  [
    'a bank statement with its balances and bookings',
    `
# Estuary Mutual Bank
Statement of account

Wickford Loom                                  Sort code 20-00-11
                                               Account 55518820
Statement date 31 October 2026                 Page 1 of 1

Date            Details                 Paid out      Paid in      Balance
01 Oct 2026     Opening balance                                   2,418.20
06 Oct 2026     Harbour Carding Mill      283.20                  2,135.00
19 Oct 2026     Craft fair takings                   640.00       2,775.00
31 Oct 2026     Closing balance                                   2,775.00
`,
    { kind: 'statement', vendor: 'Estuary Mutual Bank', date: '2026-10-31' },
  ],
  [
    'a Portuguese invoice that is a receipt at once',
    `
# Lanifícios da Foz, Lda.
Rua do Cais 40, 4400 Vila da Foz          NIF: 501442600

Fatura n.º FT 2026/311
Data: 22/05/2026                          Vencimento: 21/06/2026

Descrição                     Quantidade      Preço        Valor
Fio de lã merino                      20       6,30       126,00

                              Total ilíquido              126,00
                              IVA 23%                      28,98
                              Total a pagar             154,98 €
`,
    {
      kind: 'invoice',
      vendor: 'Lanifícios da Foz, Lda.',
      date: '2026-05-22',
      dueDate: '2026-06-21',
      currency: 'EUR',
      net: 126,
      tax: 28.98,
      taxRate: 23,
      total: 154.98,
    },
  ],
  [
    'a school letter without any sum',
    `
# Lantern Hill Primary School
Hill Road, Wickford · office@lanternhill.example

5th November 2026

Dear Parents and Carers,

Winter concert

The concert takes place on Thursday 17 December 2026 at 2 pm in the main hall.

Kind regards,
Thea Ostrowe, Head Teacher
`,
    {
      kind: 'letter',
      vendor: 'Lantern Hill Primary School',
      date: '2026-11-05',
      subject: 'Winter concert',
      total: null,
    },
  ],
  [
    'a letter from an insurer in German, with the place before the day',
    `
# Küstenschutz Versicherung AG
Postfach 1180 · 24103 Holmhaven

Herrn                                       Versicherungsnummer 77-201-448
Imre Castellane                             Ihr Zeichen: –
7 Lantern Row                               Holmhaven, den 7. September 2026

Ihre Werkstattversicherung

Sehr geehrter Herr Castellane,

der Beitrag ändert sich ab 1. Januar 2027 auf 184,20 € im Jahr.

Mit freundlichen Grüßen
Jolanda Weiher
`,
    {
      kind: 'letter',
      vendor: 'Küstenschutz Versicherung AG',
      date: '2026-09-07',
      subject: 'Ihre Werkstattversicherung',
    },
  ],
  [
    'a craftsman’s invoice that says its sum once more in a sentence',
    `
# Malerbetrieb Jensen
Inh. Tjark Jensen · Deichstr. 5 · 24768 Uferstedt · Tel. 04331 55512

Wickford Loom                               Rechnungs-Nr.: 2026-087
12 Quay Street                              Kunden-Nr.: 1204
Wickford                                    Datum: 20.10.2026

Leistungszeitraum 12.10.2026 bis 14.10.2026

Rechnung

Für die Malerarbeiten in Ihrer Werkstatt berechnen wir:
Arbeitslohn         16,5 Std.     52,00         858,00 €
Farbe, weiß         20 l           6,40         128,00 €
Nettosumme                                      986,00 €
19 % Umsatzsteuer                               187,34 €
Gesamtsumme                                   1.173,34 €

Bitte überweisen Sie 1.173,34 € bis zum 03.11.2026 auf unser Konto.
`,
    {
      kind: 'invoice',
      vendor: 'Malerbetrieb Jensen',
      date: '2026-10-20',
      number: '2026-087',
      currency: 'EUR',
      net: 986,
      tax: 187.34,
      taxRate: 19,
      total: 1173.34,
      dueDate: '2026-11-03',
    },
  ],
  [
    'rent without tax, with a day in words and an ordinal',
    `
# Ropewalk Yard Workshops
Ropewalk Yard, Eastmere EM2 7QT

To: Wickford Loom, Unit 9

RENT INVOICE No. RY-2611                     Issued 1st December, 2026

Workshop rent, December 2026                                    £420.00
Service charge                                                   £35.00
Total due                                                       £455.00
Not registered for VAT. Due on 8th December 2026.
`,
    {
      kind: 'invoice',
      vendor: 'Ropewalk Yard Workshops',
      date: '2026-12-01',
      dueDate: '2026-12-08',
      number: 'RY-2611',
      currency: 'GBP',
      total: 455,
      tax: null,
    },
  ],
  [
    'a French till slip with its tax inside',
    `
      MERCERIE DU PORT
     14 quai des Brumes
  Ticket 004512    Caisse 2
  Fil de lin         4,80
  Aiguilles          3,20
  TOTAL TTC          8,00 EUR
  Dont TVA 20%       1,33
  CB SANS CONTACT    8,00
  12/09/26  16:05
  Merci de votre visite
`,
    {
      kind: 'receipt',
      vendor: 'MERCERIE DU PORT',
      date: '2026-09-12',
      number: '004512',
      currency: 'EUR',
      tax: 1.33,
      taxRate: 20,
      total: 8,
    },
  ],
  [
    'an invoice with a deposit that was paid before',
    `
# Fenwater Loom Repairs
Invoice 3307                                          3 November 2026
                                                      Payment due 17 November 2026
Wickford Loom

Reed cleaned and straightened                                  180.00
New beam, ash                                                  320.00
Subtotal                                                       500.00
VAT 20%                                                        100.00
Total                                                         £600.00
Deposit paid                                                  -150.00
Balance due                                                   £450.00
`,
    {
      kind: 'invoice',
      vendor: 'Fenwater Loom Repairs',
      date: '2026-11-03',
      dueDate: '2026-11-17',
      number: '3307',
      net: 500,
      tax: 100,
      taxRate: 20,
      total: 600,
    },
  ],
  [
    'a reminder about an invoice, written as a letter',
    `
# Saltgate Yarns Ltd
Mill Lane, Cressbrook

Wickford Loom
12 Quay Street
Wickford

24 November 2026

Dear Ms Castellane,

Reminder: invoice SG-1188

Our invoice SG-1188 of 12 October 2026 over £186.60 was due on 11 November.
Perhaps it has escaped your attention. Please pay within seven days.

Yours sincerely,
Accounts
`,
    { kind: 'reminder', vendor: 'Saltgate Yarns Ltd', date: '2026-11-24', subject: 'Reminder: invoice SG-1188' },
  ],
  [
    'a French invoice with thousands apart and the month in words',
    `
# Ateliers Kermoal SAS
Zone du Port, 29200 Brestelle                       TVA FR 40 303265045

Wickford Loom
Facture no 26-0458                                  Le 7 février 2026

Libellé                        Quantité     Prix unitaire       Montant
Ourdissoir mural                       1         1 180,00      1 180,00
Livraison                              1            90,00         90,00

                               Sous-total HT                 1 270,00 €
                               TVA (20 %)                      254,00 €
                               Net à payer                   1 524,00 €
À régler avant le 9 mars 2026
`,
    {
      kind: 'invoice',
      vendor: 'Ateliers Kermoal SAS',
      date: '2026-02-07',
      dueDate: '2026-03-09',
      number: '26-0458',
      net: 1270,
      tax: 254,
      taxRate: 20,
      total: 1524,
    },
  ],
  [
    'a vet’s receipt with the animal’s birthday',
    `
# Gullwing Veterinary Surgery
Chapel Street, Wickford    VAT reg 312 4455 09

RECEIPT                                        Receipt number V-20931
Client: Castellane    Patient: Bobbin, cat, born 02/05/2021

Date          Item                                              Amount
11/11/2026    Consultation                                       42.00
11/11/2026    Vaccination                                        31.50
                                   Net                           73.50
                                   VAT (20.0%)                   14.70
                                   Total                         88.20
                                   Paid by card                  88.20
`,
    {
      kind: 'receipt',
      vendor: 'Gullwing Veterinary Surgery',
      date: '2026-11-11',
      number: 'V-20931',
      net: 73.5,
      tax: 14.7,
      taxRate: 20,
      total: 88.2,
    },
  ],
  [
    'a heating bill in German with what was paid in advance',
    `
# Stadtwerke Holmhaven
Ihre Gasrechnung

Herr Imre Castellane                        Vertragskonto 300 114 882
Lantern Row 7                               Rechnungsnummer 9920018834
                                            Rechnungsdatum 15.01.2026
Abrechnungszeitraum 01.01.2025 - 31.12.2025

Verbrauch 11.240 kWh                                         1.124,00 €
Grundpreis                                                     120,00 €
Summe netto                                                  1.244,00 €
Umsatzsteuer 19 %                                              236,36 €
Rechnungsbetrag brutto                                       1.480,36 €
Bereits gezahlte Abschläge                                  -1.320,00 €
Nachzahlung                                                    160,36 €
Fällig am 05.02.2026
`,
    {
      kind: 'invoice',
      vendor: 'Stadtwerke Holmhaven',
      date: '2026-01-15',
      dueDate: '2026-02-05',
      number: '9920018834',
      net: 1244,
      tax: 236.36,
      taxRate: 19,
      total: 1480.36,
    },
  ],
  [
    'an Italian till slip',
    `
      FILATI DEL GOLFO SRL
     Via Roma 8 Portovento
     P.IVA 12345670785
    DOCUMENTO COMMERCIALE
   di vendita o prestazione
  DESCRIZIONE     IVA    Prezzo
  Gomitolo lana   22%     12,40
  Ferri n. 4      22%      7,60
  TOTALE COMPLESSIVO      20,00
  di cui IVA               3,61
  Pagamento elettronico   20,00
  18-06-2026 17:33
  DOC. N. 0412-0087
`,
    { kind: 'receipt', vendor: 'FILATI DEL GOLFO SRL', date: '2026-06-18', number: '0412-0087', tax: 3.61, total: 20 },
  ],
  [
    'an invoice that writes its days by year, month and day, and its sums with the currency’s letters',
    `
# Nordvik Spinn AS
Invoice No: 55-1027
Invoice Date: 2026-07-30
Due Date: 2026-08-29
Customer No: 7781     Order No: 90321     Your ref: Castellane

Item              Quantity   Unit Price     Line Total
Gotland yarn            24     EUR 5.10     EUR 122.40
Shipping                 1    EUR 19.60      EUR 19.60

                              Net amount    EUR 142.00
                              VAT 0%          EUR 0.00
                              Amount payable EUR 142.00
`,
    {
      kind: 'invoice',
      vendor: 'Nordvik Spinn AS',
      date: '2026-07-30',
      dueDate: '2026-08-29',
      number: '55-1027',
      currency: 'EUR',
      net: 142,
      total: 142,
    },
  ],
  [
    'a letter in French with its object and the place before the day',
    `
# Mairie de Rochebrune
Service de l’urbanisme

                                            Monsieur Imre Castellane
                                            12 Quay Street
                                            Wickford
                                            Rochebrune, le 14 octobre 2026

Objet : votre stand au marché d’hiver

Monsieur,

Nous confirmons votre emplacement pour les 12 et 13 décembre 2026.

Veuillez agréer, Monsieur, nos salutations distinguées.
`,
    {
      kind: 'letter',
      vendor: 'Mairie de Rochebrune',
      date: '2026-10-14',
      subject: 'votre stand au marché d’hiver',
    },
  ],
  [
    'a German statement of account',
    `
# Küstenbank eG
Kontoauszug Nr. 10/2026                              Blatt 1
Kontoinhaber: Imre Castellane       IBAN DE89 3704 0044 0532 0130 00
Kontoauszug vom 30.10.2026

Buchung       Text                                           Betrag
              Alter Kontostand 30.09.2026                  1.204,11
05.10.2026    Spinnerei Uferwind GmbH                       -408,41
23.10.2026    Gutschrift Kunsthandwerkermarkt                612,00
              Neuer Kontostand 30.10.2026                  1.407,70
`,
    { kind: 'statement', vendor: 'Küstenbank eG', date: '2026-10-30' },
  ],
  [
    'an invoice whose firm is named in full only at its foot',
    `
INVOICE                                              No. 5521
                                                     27 May 2026
Bill to
Wickford Loom
12 Quay Street
Wickford

Item                                        Qty     Price      Total
Logwood chips 500 g                           4      9.50      38.00
Madder root 500 g                             2     11.25      22.50
                                      Total to pay            £60.50

Brightwater Dyestuffs Ltd · 3 Weir Road, Eastmere · brightwaterdyestuffs.example · Company no. 04418270
`,
    { kind: 'invoice', vendor: 'Brightwater Dyestuffs Ltd', date: '2026-05-27', number: '5521', total: 60.5 },
  ],
  [
    'an invoice that says from whom and to whom',
    `
# Invoice

From: Petra Quill Translations              To: Wickford Loom
      4 Chandler Court, Eastmere                12 Quay Street, Wickford

Invoice number: 2026-31        Invoice date: 6 June 2026        Due: 20 June 2026

Translation of a catalogue, 2,400 words                           £216.00
Total                                                             £216.00
`,
    {
      kind: 'invoice',
      vendor: 'Petra Quill Translations',
      date: '2026-06-06',
      dueDate: '2026-06-20',
      number: '2026-31',
      total: 216,
    },
  ],
  [
    'a till slip that says welcome first',
    `
      *** WELCOME ***
      Eastmere Hardware
       High Street 40
   Sandpaper 120      3.20
   Wood glue          5.95
   SUBTOTAL           9.15
   TOTAL   GBP        9.15
   CASH              10.00
   CHANGE             0.85
   03-07-26  09:41  #4471
   THANK YOU FOR YOUR VISIT
`,
    { kind: 'receipt', vendor: 'Eastmere Hardware', date: '2026-07-03', currency: 'GBP', total: 9.15 },
  ],
  [
    'an invoice with a motto over its name',
    `
Natural colours since 1902
# Gorse & Lichen Dye Works
Lichen Lane 4, Cressbrook · www.gorselichen.example

Wickford Loom                              Invoice 2026/204
                                           Dated 11.02.2026

Dyeing of 14 kg merino, weld                                    £238.00
VAT 20%                                                          £47.60
Amount due                                                      £285.60
`,
    {
      kind: 'invoice',
      vendor: 'Gorse & Lichen Dye Works',
      date: '2026-02-11',
      number: '2026/204',
      tax: 47.6,
      total: 285.6,
    },
  ],
  [
    'a letterhead whose name takes two lines',
    `
# EASTMERE CRAFT FAIR
# ASSOCIATION
Guildhall, Eastmere EM1 4AA

Wickford Loom                              Date: 14 August 2026
                                           Invoice: ECF-77
Stall, two days                                                 £120.00
Electricity                                                      £15.00
Total                                                           £135.00
Payable by 1 September 2026
`,
    {
      kind: 'invoice',
      vendor: 'EASTMERE CRAFT FAIR ASSOCIATION',
      date: '2026-08-14',
      dueDate: '2026-09-01',
      number: 'ECF-77',
      total: 135,
    },
  ],
  [
    'a German invoice to a person whose name comes first',
    `
Herr
Imre Castellane
Lantern Row 7
Wickford

                                              Tischlerei Brodersen
                                              Werftweg 12
                                              24768 Uferstedt

                                              Uferstedt, 18.05.2026
Rechnung Nr. 26-118

Reparatur Webstuhlbank                                       95,00 €
MwSt. 19 %                                                   18,05 €
Gesamt                                                      113,05 €
Zahlbar innerhalb von 14 Tagen.
`,
    {
      kind: 'invoice',
      vendor: 'Tischlerei Brodersen',
      date: '2026-05-18',
      number: '26-118',
      tax: 18.05,
      total: 113.05,
    },
  ],
  [
    'a guarantee, which is neither a bill nor a letter',
    `
# Hearthline Boilers
Certificate of guarantee

Appliance: Hearthline 24 combi         Serial number 8841 2207
Installed on 3 March 2026 by Eastmere Heating
This appliance is guaranteed for ten years against faults in material and manufacture.
Keep this certificate with your papers.
`,
    { vendor: 'Hearthline Boilers', date: '2026-03-03', total: null, number: null, dueDate: null },
  ],
  [
    'a supermarket’s slip that counts what was saved',
    `
      Quay Foods
   14 Market Square, Wickford
   Oat milk            2.10
   Bread               1.85
   Cheese              6.40
   Multibuy saving    -1.20
   3 items
   Total savings       1.20
   TOTAL TO PAY       £9.15
   Visa debit         £9.15
   Change              0.00
   12 Nov 2026 18:22
`,
    { kind: 'receipt', vendor: 'Quay Foods', date: '2026-11-12', currency: 'GBP', total: 9.15 },
  ],
  [
    'an invoice with a discount before the tax',
    `
# Marram Basketry Ltd
Invoice number MB-0912                          Date 2 September 2026

Willow, 10 bundles                                       500.00
Subtotal                                                 500.00
Discount 10%                                             -50.00
Net total                                                450.00
VAT at 20%                                                90.00
Invoice total                                           £540.00
`,
    { kind: 'invoice', number: 'MB-0912', net: 450, tax: 90, taxRate: 20, total: 540 },
  ],
  [
    'an invoice with carriage between its subtotal and its tax',
    `
# Marram Basketry Ltd
Invoice number MB-0913                          Date 9 September 2026

Willow, 2 bundles                                        100.00
Subtotal                                                 100.00
Shipping                                                  10.00
VAT 20%                                                   22.00
Total                                                   £132.00
`,
    { kind: 'invoice', number: 'MB-0913', tax: 22, taxRate: 20, total: 132 },
  ],
  [
    'a German slip paid in notes',
    `
     Kurzwaren Petersen
     Marktplatz 2, Uferstedt
   KASSENBON
   Garn schwarz      2 x 3,90     7,80
   Reißverschluss                 16,00
   SUMME EUR                      23,80
   Gegeben Bar                    50,00
   Rückgeld                       26,20
   enth. MwSt 19%                  3,80
   Nettobetrag                    20,00
   14.11.2026   Bon 2231
`,
    {
      kind: 'receipt',
      vendor: 'Kurzwaren Petersen',
      date: '2026-11-14',
      number: '2231',
      net: 20,
      tax: 3.8,
      taxRate: 19,
      total: 23.8,
    },
  ],
  [
    'a café’s slip with service',
    `
        The Lantern Café
      2 x Soup of the day     13.00
      2 x Tea                  5.20
      Food and drink          18.20
      Service 10%              1.82
      Total                  £20.02
      Incl. VAT @ 20%          3.03
      Card                   £20.02
      21/10/2026 13:05  Table 4
`,
    { kind: 'receipt', vendor: 'The Lantern Café', date: '2026-10-21', tax: 3.03, taxRate: 20, total: 20.02 },
  ],
  [
    'fuel, with a price of three decimals',
    `
     Causeway Filling Station
     Receipt 118830      26/03/2026 07:58
     Pump 3  Unleaded
     35.10 L  @ £1.489 / L
     Fuel                 £52.26
     TOTAL                £52.26
     VAT 20.00%            £8.71
     NET                  £43.55
     Contactless          £52.26
`,
    {
      kind: 'receipt',
      vendor: 'Causeway Filling Station',
      date: '2026-03-26',
      number: '118830',
      net: 43.55,
      tax: 8.71,
      taxRate: 20,
      total: 52.26,
    },
  ],
  [
    'an invoice with two rates in a table at its foot',
    `
# Eastmere Paper & Print Ltd
VAT no. GB 123 4567 82
Invoice no 40911       Tax point 16/06/2026      Due 16/07/2026

Catalogue, printed, 200            0%        340.00
Swing tickets, 1000               20%         85.00

VAT summary        Goods         VAT
0%                340.00        0.00
20%                85.00       17.00
Total goods                   425.00
Total VAT                      17.00
Invoice total                £442.00
`,
    {
      kind: 'invoice',
      vendor: 'Eastmere Paper & Print Ltd',
      date: '2026-06-16',
      dueDate: '2026-07-16',
      number: '40911',
      tax: 17,
      total: 442,
    },
  ],
  [
    'an invoice with misread letters in its labels, and a sign beside its name read as letters',
    `
# C ) Filature Yarmore
Quai Nord 3, Brestelle

Invoice no. FY-221                                     D4te 3 Ocfober 2026
                                                       7ahlbar bis 2 November 2026
Dyed silk                                                        80.00
Sub7otal                                                         80.00
VAT 20%                                                          16.00
T0tal                                                           £96.00
`,
    { vendor: 'Filature Yarmore', date: '2026-10-03', dueDate: '2026-11-02', total: 96, tax: 16 },
  ],
  [
    'a letter in Spanish with its subject',
    `
# Ayuntamiento de Ribamar
Plaza Mayor 1, 33990 Ribamar

                                            Sr. D. Imre Castellane
                                            12 Quay Street
                                            Ribamar, 9 de marzo de 2026

Asunto: permiso para el mercado de artesanía

Estimado señor Castellane:

Le comunicamos que su solicitud ha sido aceptada para los días 4 y 5 de abril.

Atentamente,
Nuria Pellicer
`,
    {
      kind: 'letter',
      vendor: 'Ayuntamiento de Ribamar',
      date: '2026-03-09',
      subject: 'permiso para el mercado de artesanía',
    },
  ],
  [
    'an Italian letter from a bank',
    `
# Banca del Golfo S.p.A.
Via Porto 3 - 19100 Portovento

Portovento, 12 gennaio 2026

Gentile Sig. Castellane,

Nuove condizioni del conto

dal 1 marzo 2026 il canone mensile sarà di 4,50 euro.

Distinti saluti
Livia Ferrand
`,
    { kind: 'letter', vendor: 'Banca del Golfo S.p.A.', date: '2026-01-12', subject: 'Nuove condizioni del conto' },
  ],
  [
    'a Dutch till slip',
    `
       GARENHUIS DE KADE
      Kade 22 Havenwijk
   KASSABON
   Sokkenwol blauw       8,95
   Breinaald 3 mm        4,50
   TOTAAL       EUR     13,45
   PIN                  13,45
   BTW 21%               2,33
   Bon 10022  17-09-2026 14:20
   Bedankt voor uw bezoek
`,
    {
      kind: 'receipt',
      vendor: 'GARENHUIS DE KADE',
      date: '2026-09-17',
      number: '10022',
      tax: 2.33,
      taxRate: 21,
      total: 13.45,
    },
  ],
  [
    'a statement of what is owed to a supplier',
    `
# Saltgate Yarns Ltd
STATEMENT                                         Date: 30/09/2026
                                                  Account: WICK01
Wickford Loom
12 Quay Street

Date          Reference         Debit       Credit       Balance
04/09/2026    Invoice 1188     186.60                     186.60
18/09/2026    Payment                       186.60          0.00
22/09/2026    Invoice 1204      94.20                      94.20
Balance due                                               £94.20
`,
    { kind: 'statement', vendor: 'Saltgate Yarns Ltd', date: '2026-09-30' },
  ],
  [
    'an invoice whose sums stand in words before their signs',
    `
# The Lantern Press
Tax Invoice
Invoice Ref: LP/77/26
Invoice Date: 05 Aug 2026
Payment Terms: 14 days, due 19 Aug 2026
Customer: Wickford Loom

1 x Letterpress labels, 500 @ 92.00                        GBP 92.00
Subtotal (excl. VAT)                                       GBP 92.00
VAT (20%)                                                  GBP 18.40
Total (incl. VAT)                                         GBP 110.40
Amount Due                                                GBP 110.40
`,
    {
      kind: 'invoice',
      vendor: 'The Lantern Press',
      date: '2026-08-05',
      dueDate: '2026-08-19',
      number: 'LP/77/26',
      currency: 'GBP',
      net: 92,
      tax: 18.4,
      taxRate: 20,
      total: 110.4,
    },
  ],
  [
    'a bill for a subscription, with the month first in words and no number',
    `
Tidemark Hosting
Receipt

Date paid            November 3, 2026
Payment method       Card ending 4410

Website, monthly     Nov 3 – Dec 2, 2026      1      $12.00      $12.00

Subtotal                                                         $12.00
Total                                                            $12.00
Amount paid                                                      $12.00
`,
    { kind: 'receipt', vendor: 'Tidemark Hosting', date: '2026-11-03', currency: 'USD', total: 12 },
  ],
  [
    'a German bill of a doctor’s without tax',
    `
Dr. med. vet. Jolanda Weiher
Tierärztin
Deichstraße 40 · 24768 Uferstedt · Tel. 04331 77120

Herrn
Imre Castellane
Lantern Row 7

Rechnung Nr. 2026/1187                                 Uferstedt, 02.06.2026

Behandlung Katze „Bobbin“
Allgemeine Untersuchung                                      30,78 €
Impfung Katzenschnupfen                                      41,20 €
Medikamente                                                  12,50 €
Rechnungsbetrag                                              84,48 €
Bitte überweisen Sie den Betrag bis zum 16.06.2026.
`,
    {
      kind: 'invoice',
      vendor: 'Dr. med. vet. Jolanda Weiher',
      date: '2026-06-02',
      dueDate: '2026-06-16',
      number: '2026/1187',
      total: 84.48,
    },
  ],
  [
    'a fair’s confirmation with what is to be paid',
    `
# Harbour Makers' Market CIC
Booking confirmation and invoice

Stallholder: Wickford Loom                   Invoice no: HMM-2026-041
Date of issue: 1 September 2026              Pay by: 15 September 2026

Stall, 5 and 6 December 2026                                     £95.00
Table hire                                                       £12.00
Total payable                                                   £107.00
`,
    {
      kind: 'invoice',
      vendor: "Harbour Makers' Market CIC",
      date: '2026-09-01',
      dueDate: '2026-09-15',
      number: 'HMM-2026-041',
      total: 107,
    },
  ],
])('reads %s', (_, text, expected) => {
  expect(facts(text)).toMatchObject(expected);
});
