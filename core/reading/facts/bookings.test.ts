import { findFacts } from './findFacts';
import { typed } from '../testing/typed';

const bookingsOn = (paper: string) => {
  const { bookings } = findFacts([typed(paper)]);
  return bookings && { lines: bookings.value, sure: bookings.confidence > 0.9 };
};

it('reads money out and in by the columns, and that it leads from one balance to the other', () =>
  expect(
    bookingsOn(`
# Saltmarsh Savings
Statement of account
1 September 2026 to 30 September 2026

Date       Details                     Money out     Money in      Balance
1 Sep      Balance brought forward                                 1,204.11
3 Sep      Harbour rates                   88.00                   1,116.11
9 Sep      Scarf commission                            240.00      1,356.11
           M Oyelaran
28 Sep     Studio rent                    410.00                     946.11
30 Sep     Balance carried forward                                   946.11
`),
  ).toEqual({
    sure: true,
    lines: [
      { date: '2026-09-03', text: 'Harbour rates', amount: -88, balance: 1116.11 },
      { date: '2026-09-09', text: 'Scarf commission M Oyelaran', amount: 240, balance: 1356.11 },
      { date: '2026-09-28', text: 'Studio rent', amount: -410, balance: 946.11 },
    ],
  }));

it('reads signs behind the amounts, and days of the year before', () =>
  expect(
    bookingsOn(`
# Sparkasse Deichland
Kontoauszug 1/2027 vom 05.01.2027

Buchungstag  Vorgang                              Betrag EUR
             Alter Kontostand                       512,40 H
29.12.       Lastschrift Strom                       74,00 S
31.12.       Gutschrift Schal                       120,00 H
04.01.       Miete Januar                           410,00 S
             Neuer Kontostand                       148,40 H
`),
  ).toEqual({
    sure: true,
    lines: [
      { date: '2026-12-29', text: 'Lastschrift Strom', amount: -74, balance: null },
      { date: '2026-12-31', text: 'Gutschrift Schal', amount: 120, balance: null },
      { date: '2027-01-04', text: 'Miete Januar', amount: -410, balance: null },
    ],
  }));

it('tells by the balances alone what comes and what leaves', () =>
  expect(
    bookingsOn(`
# Crédit des Brumes
Relevé de compte du 30/09/2026

Ancien solde                                               300,00
02/09/2026   Virement atelier                  50,00       350,00
14/09/2026   Cantine scolaire                  36,40       313,60
Nouveau solde                                              313,60
`),
  ).toMatchObject({ sure: true, lines: [{ amount: 50 }, { amount: -36.4 }] }));

it('says that it is unsure when the lines do not lead from one balance to the other', () =>
  expect(
    bookingsOn(`
# Sparkasse Deichland
Kontoauszug vom 31.01.2027

             Alter Kontostand                       512,40 H
04.01.2027   Miete Januar                           410,00 S
09.01.2027   Lastschrift Strom                       74,00 S
             Neuer Kontostand                        99,40 H
`),
  ).toMatchObject({ sure: false }));

it('takes what is owed on a card for what its charges add up to', () =>
  expect(
    bookingsOn(`
# Dunlin Credit Union
Credit card statement       5 November 2026

Previous balance                    £212.08
20 Oct   Payment received           £212.08 CR
28 Oct   Needle House                £34.60
29 Oct   Ferry tickets               £58.00
New balance                          £92.60
`),
  ).toMatchObject({ sure: true, lines: [{ amount: -212.08 }, { amount: 34.6 }, { amount: 58 }] }));

it('dates a statement by the end of its time, and takes its last balance for no sum to be paid', () => {
  const { date, amountDue, closing } = findFacts([
    typed(`
# Orrin Savings Bank
Statement of account
1 October 2026 to 31 October 2026

Date         Details               Paid out     Paid in      Balance
01.10.2026   Opening balance                                 1,842.15
02.10.2026   Rent                    615.00                  1,227.15
31.10.2026   Closing balance                                 1,227.15
`),
  ]);
  expect(date?.value).toBe('2026-10-31');
  expect(closing?.value).toBe(1227.15);
  expect(amountDue).toBeNull();
});

it('reads the month first where the paper does', () =>
  expect(
    bookingsOn(`
# Amity Harbor Bank
Account statement
Statement date 09/30/2026
Port Amity, ME 04032

Date          Details                    Debits     Credits      Balance
09/01/2026    Previous balance                                 $1,204.11
09/03/2026    Harbor rates                88.00                $1,116.11
09/09/2026    Scarf commission                       240.00    $1,356.11
09/30/2026    New balance                                      $1,356.11
`)?.lines.map(({ date }) => date),
  ).toEqual(['2026-09-03', '2026-09-09']));

it('reads days of booking beside those of value, of a month that the paper names, or of the day of its last balance', () => {
  const days = (paper: string) => bookingsOn(paper)?.lines.map(({ date, text }) => `${date} ${text}`);
  expect(
    days(`
# Harbour Card
Card statement November 2026
Previous balance                               £184.20
03 Nov   04 Nov   LARCH LABELS                 £100.80
20 Nov   23 Nov   REFUND THORNBECK             -£12.00
Interest                                         £0.00
New balance                                    £273.00
`),
  ).toEqual(['2026-11-03 LARCH LABELS', '2026-11-20 REFUND THORNBECK']);
  expect(
    days(`
# Banque de la Presqu'île
Relevé de compte
Date    Valeur   Nature                          Débit     Crédit
                 SOLDE AU 31/10/2026                      1 118,40
05.11   05.11    PRLV EAUX                       78,43
12.11   13.11    REMISE CHEQUES                             240,00
                 SOLDE AU 30/11/2026                      1 279,97
`),
  ).toEqual(['2026-11-05 PRLV EAUX', '2026-11-12 REMISE CHEQUES']);
});
