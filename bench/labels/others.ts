/** What else papers say, by whatever it may be called: each a paper with a place for that, and what it says. */
export interface OtherLabels {
  name: string;
  /** With strokes between. */
  labels: string;
  /** “{label}” stands for it, “{label:38}” where it takes so much room. */
  text: string;
  truth: Record<string, unknown>;
}

export const others: OtherLabels[] = [
  {
    name: 'opening en',
    labels:
      'Opening balance|Balance brought forward|Brought forward|Balance b/f|B/F|Start balance|Starting balance|Previous balance|Balance at start|Balance at 30 September|Last balance|Old balance|Beginning balance|Carried over|Balance from sheet 13|Initial balance|Balance on 1 October',
    text: `
# Estuary Savings Society
Current account 41170823, Imre Castellane
Statement for October 2026

Date          Details                  Amount     Balance
1 Oct 2026    {label:38}1,204.18
3 Oct 2026    Rent                    -410.00      794.18
9 Oct 2026    Fair takings             655.50    1,449.68
31 Oct 2026   Closing balance                       1,449.68
`,
    truth: { kind: 'statement', opening: 1204.18, closing: 1449.68 },
  },
  {
    name: 'closing en',
    labels:
      'Closing balance|Balance carried forward|Carried forward|Balance c/f|C/F|End balance|Ending balance|New balance|Balance at end|Balance at 31 October|Final balance|Current balance|Balance now|Your balance|Balance|Balance on 31 October',
    text: `
# Estuary Savings Society
Current account 41170823, Imre Castellane
Statement for October 2026

Date          Details                  Amount     Balance
1 Oct 2026    Opening balance                       1,204.18
3 Oct 2026    Rent                    -410.00      794.18
9 Oct 2026    Fair takings             655.50    1,449.68
31 Oct 2026   {label:38}1,449.68
`,
    truth: { kind: 'statement', opening: 1204.18, closing: 1449.68 },
  },
  {
    name: 'opening de',
    labels:
      'Alter Saldo|Anfangssaldo|Kontostand alt|Saldovortrag|Vortrag|Übertrag|Anfangsbestand|Kontostand am 30.09.2026|Saldo am 30.09.|Stand zu Beginn|Eröffnungssaldo|Alter Kontostand|Letzter Saldo|Saldo alt',
    text: `
# Küstenkasse Norden
Girokonto 4471 882, Imre Castellane
Auszug Oktober 2026

Datum         Text                     Betrag       Stand
01.10.2026    {label:38}1.204,18
03.10.2026    Miete                   -410,00      794,18
09.10.2026    Markt                    655,50    1.449,68
31.10.2026    Neuer Saldo                           1.449,68
`,
    truth: { kind: 'statement', opening: 1204.18, closing: 1449.68 },
  },
  {
    name: 'closing de',
    labels:
      'Neuer Saldo|Endsaldo|Kontostand neu|Schlusssaldo|Endbestand|Kontostand am 31.10.2026|Saldo am 31.10.|Stand zum Ende|Abschlusssaldo|Neuer Kontostand|Aktueller Kontostand|Saldo neu|Saldo|Übertrag',
    text: `
# Küstenkasse Norden
Girokonto 4471 882, Imre Castellane
Auszug Oktober 2026

Datum         Text                     Betrag       Stand
01.10.2026    Alter Saldo                           1.204,18
03.10.2026    Miete                   -410,00      794,18
09.10.2026    Markt                    655,50    1.449,68
31.10.2026    {label:38}1.449,68
`,
    truth: { kind: 'statement', opening: 1204.18, closing: 1449.68 },
  },
  {
    name: 'policy en',
    labels:
      'Policy number|Policy no.|Policy|Policy ref|Your policy|Your policy number|Insurance policy no.|Certificate number|Contract no.|Contract number|Agreement no.|Agreement number|Plan number|Cover number|Insurance number|Schedule no.|Membership/policy no.',
    text: `
# Tideway Mutual
Policy schedule
{label}: HM 4471-22
Date: 3 September 2026
Insured item: loom
Annual premium                     £312.00
`,
    truth: { kind: 'contract', policy: 'HM 4471-22' },
  },
  {
    name: 'policy de',
    labels:
      'Versicherungsschein-Nr.|Versicherungsnummer|Vertragsnummer|Vertrags-Nr.|Vertrag|Police|Policennummer|Versicherungsschein|Vers.-Nr.|VS-Nr.|VSNR|Polizzennummer|Vertrag Nr.',
    text: `
# Nordsee Assekuranz
Versicherungsschein
{label}: HM 4471-22
Datum: 03.09.2026
Versicherte Sache: Webstuhl
Jahresbeitrag                      312,00 €
`,
    truth: { kind: 'contract', policy: 'HM 4471-22' },
  },
  {
    name: 'policy fr',
    labels:
      'N° de contrat|Contrat n°|Numéro de contrat|Police n°|N° de police|Contrat|Référence contrat|Réf. contrat|Votre contrat',
    text: `
# Assurances du Ponant
Conditions particulières de votre contrat
{label} : HM 4471-22
Date : 03/09/2026
Objet assuré : métier à tisser
Prime annuelle                      312,00 €
`,
    truth: { kind: 'contract', policy: 'HM 4471-22' },
  },
  {
    name: 'ends en',
    labels:
      'Valid until|Valid until:|Valid to|Valid till|Valid up to|Expires|Expires on|Expiry date:|Expiration date:|Offer ends|Offer valid until|Quote valid until|Price held until|Prices held to|Prices firm until|Good until|Good through|Open for acceptance until|This quote lapses on|Quotation expires|Accept by|Please accept by|To be accepted by|Validity:|Valid through',
    text: `
# Alder Tree Care
Quotation no. 44718
Date: 3 September 2026
{label} 3 October 2026
Hedge       618.00
Total            £618.00
`,
    truth: { kind: 'quote', date: '2026-09-03', ends: '2026-10-03' },
  },
  {
    name: 'ends de',
    labels:
      'Gültig bis|Gültig bis:|Gültig bis zum|Gültigkeit:|Gültigkeit bis|Angebot gültig bis|Das Angebot gilt bis|Gilt bis|Bindefrist|Bindefrist bis|Gebunden bis|Preise gültig bis|Preisbindung bis|Angebotsfrist|Annahme bis|Befristet bis|Ablauf|Läuft ab am|Endet am|Wir halten uns an das Angebot gebunden bis',
    text: `
# Glaserei Uphoff
Angebot Nr. 44718
Datum: 03.09.2026
{label} 03.10.2026
Isolierglas       618,00
Gesamt            618,00 €
`,
    truth: { kind: 'quote', date: '2026-09-03', ends: '2026-10-03' },
  },
  {
    name: 'ends fr',
    labels:
      "Valable jusqu'au|Valable jusqu'au :|Valide jusqu'au|Validité :|Validité jusqu'au|Offre valable jusqu'au|Devis valable jusqu'au|Prix valables jusqu'au|Date de validité :|Fin de validité :|Expire le|Expiration :|Date d'expiration :|Limite de validité :|Réponse avant le|À accepter avant le",
    text: `
# Couverture Morvan
Devis n° 44718
Date : 03/09/2026
{label} 03/10/2026
Ardoises       618,00
Total            618,00 €
`,
    truth: { kind: 'quote', date: '2026-09-03', ends: '2026-10-03' },
  },
  {
    name: 'credit note about en',
    labels:
      'Original invoice:|Against invoice:|Against:|Against our invoice|Invoice:|Invoice no:|Invoice number:|Invoice ref:|Your invoice:|Our invoice:|Re invoice|Re:|Relates to invoice|Relating to|Refers to invoice|Reference invoice:|Ref invoice:|Applied to invoice|Applies to:|For invoice|Credit for invoice|Credit against|In respect of invoice|Concerning invoice|Correcting invoice|Reversal of invoice|Cancels invoice|Invoice credited:|Invoice concerned:|Original document:|Original bill:|Bill no:',
    text: `
# Brightling Packaging
CREDIT NOTE
Credit no: CN30418
Date: 15 October 2026
{label} INV88204
Mailing boxes        31.00
Net                  31.00
VAT 20%               6.20
Total credit        £37.20
`,
    truth: { kind: 'credit note', number: 'CN30418', reference: 'INV88204', total: 37.2 },
  },
  {
    name: 'credit note about de',
    labels:
      'Zu Rechnung|Zu unserer Rechnung|Zur Rechnung Nr.|Rechnung:|Rechnung Nr.|Rechnungsnummer:|Rechnungs-Nr.:|Ursprüngliche Rechnung:|Originalrechnung:|Bezug:|Bezug: Rechnung|Bezugsrechnung:|Ursprungsbeleg:|Betrifft Rechnung|Betr. Rechnung|Korrektur zu|Korrektur der Rechnung|Storno der Rechnung|Storniert Rechnung|Unsere Rechnung|Ihre Rechnung|Referenz:|Referenzbeleg:',
    text: `
# Garnkontor Bremen KG
GUTSCHRIFT
Gutschrift Nr. GS-30418
Datum: 15.10.2026
{label} R-88204
Leinen 16/2          31,00
Netto                31,00
USt 19 %              5,89
Gutschriftsbetrag    36,89 EUR
`,
    truth: { kind: 'credit note', number: 'GS-30418', reference: 'R-88204', total: 36.89 },
  },
  {
    name: 'credit note about fr',
    labels:
      "Facture d'origine :|Sur facture|Sur facture n°|Relatif à la facture|Concerne la facture|Concerne :|Facture :|Facture n°|Facture concernée :|Facture initiale :|Réf. facture :|Annule la facture|Annule et remplace la facture|Correction de la facture|Avoir sur facture|En référence à la facture|Rattaché à la facture|Pour la facture|Notre facture",
    text: `
# Laines du Ponant
AVOIR
Avoir n° AV-30418
Date : 15/10/2026
{label} F-88204
Mérinos              31,00
Total HT             31,00
TVA 20 %              6,20
Total TTC            37,20 €
`,
    truth: { kind: 'credit note', number: 'AV-30418', reference: 'F-88204', total: 37.2 },
  },
  {
    name: 'period en',
    labels:
      'Period|Period:|Billing period|Billing period:|Bill period|For the period|Charges for|Covering|This bill covers|Usage from|Service period:|Period covered|Supply period|Statement period|From|Dates:|Consumption period|Rental period|Term',
    text: `
# Fernlight Energy
Gas bill
Bill number 44718
Bill date 6 October 2026
{label} 5 July 2026 to 4 October 2026
Gas 1,332 kWh        115.38
Total               £115.38
`,
    truth: { number: '44718', date: '2026-10-06', period: '2026-07-05/2026-10-04' },
  },
  {
    name: 'period de',
    labels:
      'Zeitraum|Zeitraum:|Abrechnungszeitraum|Abrechnungszeitraum:|Leistungszeitraum:|Lieferzeitraum:|Verbrauchszeitraum|Rechnungszeitraum|Für die Zeit vom|Für den Zeitraum|Vom|Periode|Abrechnungsperiode',
    text: `
# Stadtwerke Leerhafe
Rechnung Nr. 44718
Datum: 06.10.2026
{label} 05.07.2026 bis 04.10.2026
Strom 412 kWh       118,20
Gesamtbetrag        118,20 €
`,
    truth: { number: '44718', date: '2026-10-06', period: '2026-07-05/2026-10-04' },
  },
  {
    name: 'title certificate',
    labels:
      'Certificate|Certificate of attendance|Guarantee|Warranty card|Guarantee certificate|Two-year guarantee|Test certificate|Inspection certificate|Safety certificate|Gas safety record|Vaccination card|Vaccination record|Birth certificate|Licence|Permit|Diploma|Deed of gift|Proof of insurance|Certificate of insurance|Bescheinigung|Teilnahmebescheinigung|Zeugnis|Urkunde|Garantieschein|Garantiekarte|Garantie|Prüfbescheinigung|Prüfbericht|Impfpass|Nachweis der Teilnahme|Zertifikat|Geburtsurkunde|Attestation|Attestation de formation|Certificat|Certificat de garantie|Bon de garantie|Garantie 2 ans|Carnet de vaccination|Diplôme|Permis|Acte de naissance|Procès-verbal de contrôle',
    text: `
# Estuary Services
17 Chandler Row, Port Selwyn

{label}

Imre Castellane
Issued: 3 September 2026
Model Hearthstone 24
Number: EF-1183
`,
    truth: { kind: 'certificate' },
  },
  {
    name: 'title payslip',
    labels:
      'Payslip|Pay slip|Pay advice|Salary slip|Wage slip|Salary statement|Statement of earnings|Earnings statement|Pay statement|Gehaltsabrechnung|Lohnabrechnung|Entgeltabrechnung|Verdienstabrechnung|Lohnzettel|Gehaltszettel|Lohn- und Gehaltsabrechnung|Bezügemitteilung|Abrechnung der Bezüge|Bulletin de paie|Bulletin de salaire|Fiche de paie|Fiche de salaire',
    text: `
# Estuary Services
17 Chandler Row, Port Selwyn

{label}

Employee: B. Teague
Date: 30 October 2026
Gross pay      1,420.00
Income tax       -74.60
Pension          -75.40
Net pay        1,270.00
`,
    truth: { kind: 'payslip' },
  },
  {
    name: 'title notice',
    labels:
      "Penalty charge notice|Parking charge notice|Council tax bill|Council tax demand notice|Tax demand|Notice of assessment|Tax assessment|Rates bill|Business rates bill|Notice|Official notice|Enforcement notice|Notice of decision|Decision|Bescheid|Gebührenbescheid|Steuerbescheid|Grundsteuerbescheid|Bußgeldbescheid|Verwarnung|Verwarnungsgeld|Anhörung|Festsetzung|Abgabenbescheid|Kostenbescheid|Feststellungsbescheid|Avis d'imposition|Taxe foncière|Avis de taxe foncière|Avis de contravention|Avis d'amende|Avis à payer|Décision|Notification|Titre de recettes",
    text: `
# Estuary Services
17 Chandler Row, Port Selwyn

{label}

Borough of Wickford
Reference no: 44718
Date: 3 September 2026
You may appeal within 28 days.
Amount to pay    £60.00
`,
    truth: { kind: 'notice' },
  },
  {
    name: 'title statement',
    labels:
      "Statement|Bank statement|Account statement|Statement of account|Monthly statement|Account summary|Card statement|Credit card statement|Savings statement|Loan statement|Kontoauszug|Auszug|Kontoübersicht|Finanzstatus|Sparkontoauszug|Depotauszug|Kreditkartenabrechnung|Relevé de compte|Relevé|Extrait de compte|Relevé bancaire|Relevé d'opérations|Situation de compte",
    text: `
# Estuary Services
17 Chandler Row, Port Selwyn

{label}

Account 41170823
1 Oct 2026     Opening balance     1,204.18
3 Oct 2026     Rent   -410.00        794.18
31 Oct 2026    Closing balance       794.18
`,
    truth: { kind: 'statement' },
  },
  {
    name: 'title contract',
    labels:
      "Agreement|Contract|Tenancy agreement|Lease|Rental agreement|Hire agreement|Service contract|Terms of engagement|Contract of employment|Insurance policy|Policy schedule|Schedule of insurance|Renewal notice|Your renewal|Renewal invitation|Cover note|Direct debit mandate|Vertrag|Mietvertrag|Kaufvertrag|Dienstvertrag|Arbeitsvertrag|Pachtvertrag|Vereinbarung|Nutzungsvereinbarung|Versicherungsschein|Police|Nachtrag zum Vertrag|SEPA-Lastschriftmandat|Contrat|Contrat de location|Bail|Bail commercial|Convention|Convention de prêt|Contrat d'assurance|Conditions particulières|Avenant au contrat|Mandat de prélèvement",
    text: `
# Estuary Services
17 Chandler Row, Port Selwyn

{label}

between Harbour Crafts and Imre Castellane
Date: 3 September 2026
It begins on 1 October 2026 and may be ended with two months notice.
Monthly payment      £35.00
`,
    truth: { kind: 'contract' },
  },
  {
    name: 'title ticket',
    labels:
      "Ticket|E-ticket|Boarding pass|Day ticket|Single ticket|Return ticket|Season ticket|Travelcard|Admission ticket|Entry ticket|Concert ticket|Parking ticket|Day pass|Rail ticket|Ferry ticket|Reservation|Seat reservation|Fahrkarte|Fahrschein|Tageskarte|Einzelfahrkarte|Rückfahrkarte|Eintrittskarte|Bordkarte|Platzkarte|Zeitkarte|Parkschein|Flugticket|Billet|Billet aller-retour|Titre de transport|Ticket d'entrée|Carte d'embarquement|Billet d'entrée|Billet de train",
    text: `
# Estuary Services
17 Chandler Row, Port Selwyn

{label}

Passenger: I. Castellane
Departs 14 Nov 2026 08:40   Platform 2
Seat 41A    Coach C
Booking ref KX7RT2Q
Fare       £18.00
`,
    truth: { kind: 'ticket' },
  },
];
