import { typedFacts } from '../testing/typed';

/** Papers that are written as letters, and say by sentences what others say by columns. */
it.each<[string, string, Record<string, unknown>]>([
  [
    'a letter that asks again for a bill, and tells of the days of that one',
    `
# Moot Hall Trust
Market Place, Saltby

20 November 2026

Dear Ms Castellane

We do not appear to have had your payment for the above, although we wrote.
Our invoice           H-2291
Raised                5 October 2026
Was due               19 October 2026
Hire                  £180.00
Charge for late payment   £15.00
Now owing             £195.00
Would you let us have this by 4 December 2026? If it has crossed with this
letter please accept our apologies.
Yours sincerely
`,
    { kind: 'reminder', date: '2026-11-20', dueDate: '2026-12-04', reference: 'H-2291', total: 195 },
  ],
  [
    'a reminder in French whose subject says which it is, and which lists one bill',
    `
# Teinturerie Kerbrat & Fils
ZA de Kerdrein, 29100 Douarnenez
                                        Wickford Loom

Douarnenez, le 17/11/2026

Objet : deuxième relance, compte client 411-WIC

Madame,
La facture ci-dessous reste impayée à ce jour :
Facture      Date           Échéance       Montant TTC
T-8840       28/08/2026     27/09/2026     412,80 €
Indemnité de recouvrement                   40,00 €
Solde à régler                             452,80 €
Merci de nous faire parvenir votre règlement avant le 27/11/2026.
`,
    { kind: 'reminder', date: '2026-11-17', dueDate: '2026-11-27', total: 452.8 },
  ],
  [
    'a bill of a craftsman that says “net à payer”, as payslips do',
    `
# Solenn Garrec
Cardeuse et fileuse
SIRET 812 447 093 00018
                                        Concarneau, le 21 septembre 2026
FACTURE N° F2026-041
Laine cardée        6 kg      34,00 €      204,00 €
Filage              3 kg      52,00 €      156,00 €
Net à payer                                360,00 €
Règlement au plus tard le 21 octobre 2026, par virement.
`,
    { kind: 'invoice', date: '2026-09-21', dueDate: '2026-10-21', number: 'F2026-041', total: 360 },
  ],
  [
    'a bill on account that cites the quote by its number',
    `
# Holzbau Brinkama
Vorgang         26/0318-A2
vom             03.11.2026
2. Abschlagsrechnung
Leistungsstand netto                4.200,00
Umsatzsteuer 19 %                     798,00
Abschlag, bitte überweisen          4.998,00 EUR
Fällig ohne Abzug bis 17.11.2026.
Angebot Nr. 1877 vom 14.08.2026.
`,
    { kind: 'invoice', number: '26/0318-A2', date: '2026-11-03', dueDate: '2026-11-17', total: 4998 },
  ],
  [
    'a renewal that says what it cost before and what each payment is',
    `
# Hearthguard
2 November 2026

Dear Imre Castellane,

Your boiler cover is coming up for renewal
Your agreement number is HG 2204 7716. Your cover ends on 30 November 2026.
Unless you tell us otherwise we will renew it for twelve months.
Last year's price                                          £174.00
This year's price, including insurance premium tax         £186.00
How you pay                    Direct Debit, 12 payments of £15.50
Yours sincerely,
`,
    { kind: 'contract', date: '2026-11-02', ends: '2026-11-30', policy: 'HG 2204 7716', total: 186, tax: null },
  ],
  [
    'a settlement of a cooperative, the stroke behind whose name was lost, with what is left to pay',
    `
Wohnbau Lüttenhus eG Deichgrafenweg 3 - 26506 Norden


Frau Imre Castellane
Webstuhlgasse 4
                                        Norden, 19. Oktober 2026
# Abrechnung der Betriebskosten 01.01.2025 - 31.12.2025
Grundsteuer                2.880,00       144,00
Wasser                     6.410,00       312,50
Summe                      9.290,00       456,50
Ihre Vorauszahlungen                      320,00
Nachzahlung                               136,50
Bitte überweisen Sie den Betrag bis zum 30. November 2026.
`,
    { vendor: 'Wohnbau Lüttenhus eG', date: '2026-10-19', dueDate: '2026-11-30', total: 456.5, amountDue: 136.5 },
  ],
])('reads %s', (_, paper, expected) => {
  const found = typedFacts(paper);
  expect(Object.fromEntries(Object.keys(expected).map((name) => [name, found[name] ?? null]))).toEqual(expected);
});
