import { typedFacts } from '../testing/typed';

/** Papers that say much besides what counts: of discounts, of other days, of what else is due. */
describe('what stands beside what counts', () => {
  it('takes the days of a discount for no day to pay by, and counts those without it', () => {
    expect(
      typedFacts(`
# Malerbetrieb Onken
Rechnung Nr. 2026-0418
Rechnungsdatum: 05.11.2026

Wandflächen streichen           416,50
Vorarbeiten                     576,00
Zwischensumme                   992,50
19 % MwSt.                      188,58
Gesamtbetrag                  1.181,08 €
Zahlbar innerhalb von 14 Tagen ohne Abzug. Bei Zahlung bis 12.11.2026 2 % Skonto (23,62 €).`),
    ).toMatchObject({ total: 1181.08, dueDate: '2026-11-19' });
  });

  it('says of a bill no day to pay by that is a year away', () => {
    expect(
      typedFacts(`
# Quayside Motors
Invoice 41822          Date 19/11/2026
Mileage 61,204         MOT due 18/11/2027
MOT test                          54.85
Brake pads                        41.20
Total                            £96.05`),
    ).toMatchObject({ date: '2026-11-19', dueDate: null, total: 96.05 });
  });

  it('reads a statement of two columns of days by its last balance, and takes no day from the middle of two', () => {
    expect(
      typedFacts(`
# Küstenbank eG
Kontoauszug Nr. 11/2026
alter Kontostand vom 30.10.2026                       2.418,77 H
Bu-Tag  Wert    Vorgang
02.11.  02.11.  Dauerauftrag Miete                      640,00 S
05.11.  05.11.  Überweisung Galerie Strandgut           418,00 H
neuer Kontostand vom 30.11.2026                       2.196,77 H`),
    ).toMatchObject({
      kind: 'statement',
      date: '2026-11-30',
      opening: 2418.77,
      closing: 2196.77,
      bookings: [
        { date: '2026-11-02', amount: -640 },
        { date: '2026-11-05', amount: 418 },
      ],
    });
  });

  it('takes what is called alike on two days, and follows from what stands between, for balances', () => {
    expect(
      typedFacts(`
# Tern Pensions
18 November 2026
Your yearly statement

Dear Mr Castellane
Value of your plan on 5 November 2025               £18,204.11
What was paid in                                     £1,200.00
Charges                                                -£91.02
Value of your plan on 5 November 2026               £19,313.09`),
    ).toMatchObject({ kind: 'statement', opening: 18204.11, closing: 19313.09 });
  });

  it('takes a plan’s discount off what is asked for, though no sign stands before it', () => {
    expect(
      typedFacts(`
# Bellhaven Dental Care
Mr Imre Castellane     Patient no. 20447
Treatment date 12/11/2026   Dentist: Dr R. Aho

Code    Tooth   Treatment                Fee
EX01            Examination             29.00
FL11    UR6     White filling          124.00

Total                                  153.00
Less plan discount 10%                  15.30
To pay                                 137.70
Received with thanks 12/11/2026 card   137.70
Outstanding                              0.00`),
    ).toMatchObject({
      kind: 'receipt',
      vendor: 'Bellhaven Dental Care',
      number: null,
      customer: '20447',
      total: 137.7,
    });
  });

  it('knows a paper for no receipt that says that it is none', () => {
    expect(
      typedFacts(`
# AGENCE DU PORT
AVIS D'ÉCHÉANCE n° 26110418
Nantes, le 25 novembre 2026
Loyer                                    540,00
Provision pour charges                    62,00
TOTAL À RÉGLER                           602,00 €
Exigible le 01/12/2026. Cet avis ne vaut pas quittance.`),
    ).toMatchObject({ kind: 'invoice', number: '26110418', dueDate: '2026-12-01', total: 602 });
  });

  it('names a number by the label in its own cell', () => {
    expect(
      typedFacts(`
# Färberei Rotach AG
Rechnung Nr. 26-11084
Unsere Referenz: S. Rotach          Ihre Bestellung: WL-112 vom 20.10.2026
Seide färben                        159.60
Porto                                24.00
Rechnungsbetrag                 CHF 183.60`),
    ).toMatchObject({ number: '26-11084', order: 'WL-112' });
  });

  it.each<[string, string, Record<string, unknown>]>([
    [
      'a reminder by its own day, not those of the bill or of an earlier one',
      `
# Der Deichbote
Abo-Nr. 118-4477
Zahlungserinnerung vom 18.11.2026
Trotz unserer Erinnerung vom 30.10.2026 ist die Rechnung 26-20447 vom 15.10.2026 über 38,70 EUR noch offen.
Mahnkosten 2,50 EUR
Bitte zahlen Sie 41,20 EUR bis 02.12.2026`,
      { kind: 'reminder', date: '2026-11-18', dueDate: '2026-12-02', customer: '118-4477', reference: '26-20447' },
    ],
    [
      'an order by the day on which it was written, not that by which it is wanted',
      `
# Wickford Loom
PURCHASE ORDER
PO number   WL-121                Date required   4 December 2026
Issued      20 November 2026      Deliver to      14 Quay Street, Wickford
8 kg   Merino 2/28, Harbour Blue     21.60     172.80
Order value                                   £172.80`,
      { kind: 'order', number: 'WL-121', date: '2026-11-20' },
    ],
    [
      'a certificate by who made it, and until when it holds, beside the day on which it was signed',
      `
# Domestic Electrical Installation Certificate
Certificate no. DEIC/118447
Installation  New circuit for dye kitchen
Contractor    Harbourlight Electrical Ltd, Unit 4 Boatyard Way
Signed  R. Tye           Date 08/11/2026        Next inspection due 08/11/2036`,
      { kind: 'certificate', vendor: 'Harbourlight Electrical Ltd', date: '2026-11-08', ends: '2036-11-08' },
    ],
    [
      'what an insurer pays as a letter that asks for nothing',
      `
# Lantern Mutual
17 November 2026
Dear Mr Castellane
Water damage at 14 Quay Street
Repairs to ceiling            £640.00
Dye stock lost                £212.50
Less excess                  -£150.00
We will pay                   £702.50
Yours sincerely`,
      { kind: 'letter', total: null },
    ],
    [
      'no number that customers call for theirs',
      `
# Lagunagas S.p.A.
Servizio clienti 800 118 447 (gratuito)
Codice cliente 8841 2207              Bolletta n. 2026/0041882
Totale da pagare                      78,30 €`,
      { customer: '8841 2207', number: '2026/0041882' },
    ],
    [
      'until when all is to be paid, behind until when less is',
      `
# Malerbetrieb Onken
Malerbetrieb Onken- Inh. Deike Onken
Rechnung 2026-118
Datum 02.11.2026
Summe 100,00 €
Zahlbar bis 12.11.2026 mit 2 % Skonto, bis 30.11.2026 netto`,
      { vendor: 'Malerbetrieb Onken', date: '2026-11-02', dueDate: '2026-11-30' },
    ],
    [
      'the day on which something was paid by card as that of its slip',
      `
# Ironbark Locksmiths
Call out, evening                                   45.00
                                        To be paid  45.00
Paid by card on the doorstep, 20.11.2026 19:40`,
      { date: '2026-11-20', dueDate: null, total: 45 },
    ],
    [
      'what is to be paid beside what it is reckoned by',
      `
# Fenland Drainage Board
Drainage rates                          Demand number 0118/26/44
                                        Date of demand 17 November 2026
Annual value         £412.00   Rate in the pound   14.2p
Half year to 31 March 2027                          £29.25
Arrears                                              £0.00
PAYABLE ON DEMAND AND NOT LATER THAN 17 DECEMBER 2026`,
      { number: '0118/26/44', dueDate: '2026-12-17', total: 29.25, currency: 'GBP' },
    ],
    [
      'the number of a title, not of a family',
      `
# VILLE DE GUÉRANDE
AVIS DES SOMMES À PAYER
N° de titre 2026-T-4418          Émis le 12/11/2026
Débiteur : CASTELLANE IMRE       Famille n° 20447
MONTANT À PAYER                                55,50 €`,
      { number: '2026-T-4418', customer: '20447', date: '2026-11-12' },
    ],
    [
      'the number of a despatch, not of the carrier',
      `
# Ottery Combing Mill
DESPATCH ADVICE
Despatch 88204    Your order WL-119    Order date 09/11/2026
Despatched 17/11/2026 by Tern Couriers, 2 parcels, consignment TC 4418 2044
WM-228    Merino 2/28 ecru, kg         10      8        2`,
      { kind: 'delivery note', number: '88204', order: 'WL-119', date: '2026-11-17' },
    ],
    [
      'a number with a stroke and a hyphen as no day, nor as a sign that the month comes first',
      `
# Waldkindergarten Deichkrabben gGmbH
Beitragsrechnung November 2026
Kind: Jory C.                            Beleg-Nr.: 11/26-18
                                         erstellt: 02.11.2026
Betreuung 35 Std.                        142,00
Mittagessen                               64,80
Abbuchung am 05.11.2026                  206,80 EUR`,
      { number: '11/26-18', date: '2026-11-02', dueDate: '2026-11-05', total: 206.8 },
    ],
    [
      'when a fee is drawn by a verb in two parts, and no number of who may draw it',
      `
# Weberei-Gilde Nordsee e.V.
Mitgliedsnummer: 0447
Den Jahresbeitrag 2027 in Höhe von 48,00 Euro ziehen wir am 04.01.2027 ein.
Unsere Gläubiger-ID: DE44ZZZ00000118447`,
      { number: null, customer: '0447', dueDate: '2027-01-04', total: 48 },
    ],
    [
      'a ticket that is paid by card',
      `
# Moot Hall Theatre
Box office 01993 555 300
Booking 118447        2 tickets
Saturday 12 December 2026, 7.30pm
Stalls F11, F12                  2 x 18.00
Booking fee                           2.50
Total charged to card               £38.50
Booked 14/11/2026`,
      { kind: 'ticket', number: '118447', date: '2026-11-14', total: 38.5 },
    ],
    [
      'a day whose year has two figures, in a column',
      `
no.      date          your order
0418     18 Nov 26     phone, 10 Nov
clean 2 wool rugs, studio floor           96.00
please pay                                96.00`,
      { date: '2026-11-18' },
    ],
    [
      'a settlement of what was sold as nothing that is asked for',
      `
# Castle & Shore Lettings
Landlord statement no. 41                      Period 1 - 30 November 2026
Property: Flat 2, 4 Netmakers Yard             Prepared 30/11/2026
Rent received 1/11/2026                        725.00
Management fee 10%                             -72.50
Paid to you 30/11/2026                         652.50`,
      { date: '2026-11-30', dueDate: null },
    ],
    [
      'a name without its trade, and its legal form as it is written',
      `
Maëlle Corre - Photographe
14 rue du Lin, 29770 Audierne
Facture F2026-088                       le 13 novembre 2026
Total                                                  400,00 €`,
      { vendor: 'Maëlle Corre', number: 'F2026-088' },
    ],
    [
      'points of a legal form that were not read',
      `
Kunsthandwerk Norderwik eV.
# Rechnung
Rechnungsnummer AM-26-17
Gesamt                        125,00 €`,
      { vendor: 'Kunsthandwerk Norderwik e.V.', number: 'AM-26-17' },
    ],
    [
      'a day by the label in its cell, whatever the cell beside it says',
      `
# Tarn Power
Export payment                             Statement date 12 Nov 2026
Mr I Castellane                            Reference      TP-EXP-20447
You exported 184 kWh from 1 July to 30 September 2026.
184 kWh at 15.0p                                  £27.60`,
      { date: '2026-11-12', dueDate: null },
    ],
    [
      'a policy that begins with what is insured, and the fee for a year',
      `
# Mutuelle du Littoral
Avis d'échéance - Assurance automobile
Contrat n° AUTO 118 204 477              Sociétaire 4418-B
Période du 01/12/2026 au 30/11/2027      Le 05/11/2026
Cotisation annuelle TTC                  412,60 €
Prélèvements : 12 x 34,39 € le 5 de chaque mois`,
      { kind: 'contract', policy: 'AUTO 118 204 477', customer: '4418-B', total: 412.6 },
    ],
    [
      'a name that begins with which of several it is',
      `
1st Wickford Sea Scouts
Autumn camp, 23 to 25 October 2026
Dear parents of Jory
Please pay £28 into 20-44-77 11844772 by 30 November.
Thanks, Skip (P. Oake), 9 November 2026`,
      { vendor: '1st Wickford Sea Scouts' },
    ],
    [
      'whom a tax adviser works for',
      `
# Kanzlei Ubben & Partner
Rechnung Nr. 2026/1184                       Aurich, 19. November 2026
Mandant 20447
zu zahlender Betrag                                     302,26 €`,
      { number: '2026/1184', customer: '20447' },
    ],
  ])('reads %s', (_, paper, facts) => expect(typedFacts(paper)).toMatchObject(facts));
});

it('goes through lines of any length without comparing each word with all others', () => {
  const line = Array.from({ length: 3000 }, (_, at) => `AB-${1000 + at}`).join(' ');
  const began = performance.now();
  typedFacts(`Saltgate Yarns\nInvoice\n${line}`);
  // It took twenty seconds when it did, and takes one.
  expect(performance.now() - began).toBeLessThan(10_000);
});
