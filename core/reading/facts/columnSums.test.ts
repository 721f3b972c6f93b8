import { typed, typedFacts } from '../testing/typed';
import { columnSums, runningBalances } from './columnSums';
import { rowsOf } from './rows';

const sumsOf = (paper: string) =>
  columnSums(rowsOf([typed(paper)])).map(({ amount, of, less }) => [amount.cents, of.map(({ cents }) => cents), less]);
const balancesOf = (paper: string) => {
  const found = runningBalances(rowsOf([typed(paper)]));
  return found && [found.opening?.cents, found.closing.cents];
};

describe('the sums of a column', () => {
  it('are what stands above them, whatever they are called', () =>
    expect(
      sumsOf(`
Taking out a sill               120.00
Fitting a new one               286.50
Two panes                        64.00
                                470.50
Something                        94.10
Altogether                      564.60
`),
    ).toEqual([
      [47050, [12000, 28650, 6400], false],
      [56460, [47050, 9410], false],
    ]));

  it('have what is taken off in them, with a sign, in brackets or in words', () =>
    expect(
      sumsOf(`
Borough             318.44
County            1,302.10
Discount           -405.13
                  1,215.41
Credit             (215.41)
Less cash           500.00
                    500.00
`).map(([cents]) => cents),
    ).toEqual([121541, 50000]));

  it('are not a line that two others make by chance', () =>
    expect(
      sumsOf(`
Reed         20.00
Shuttle      30.00
Temple       50.00
Sum         100.00
`),
    ).toEqual([[10000, [2000, 3000, 5000], false]]));

  it('are none where nothing adds up', () =>
    expect(sumsOf('Reed   20.00\nShuttle   31.00\nTemple   50.00')).toEqual([]));
});

describe('balances', () => {
  it('follow from each other, though nothing says that they are such', () =>
    expect(
      balancesOf(`
01/09   At the start                     2,210.40
03/09   Timber              64.20        2,146.20
04/09   Rent               810.00        1,336.20
08/09   Fair               655.50        1,991.70
08/09                                    1,991.70
`),
    ).toEqual([221040, 199170]));

  it('are none in a table whose amounts are prices', () =>
    expect(
      balancesOf('Reed   2   20.00   40.00\nShuttle   1   30.00   30.00\nTemple   3   5.00   15.00'),
    ).toBeUndefined());
});

it('finds the total and what is left of it where they have no names', () =>
  expect(
    typedFacts(`
# Askew Joiners Ltd
7 November 2026
For work at the Net Loft:
Taking out a sill               120.00
Fitting a new one               286.50
                               £406.50
By cash, 20 October             150.00
                               £256.50
Please settle before the end of the month, 30 November.
`),
  ).toMatchObject({ kind: 'invoice', total: 406.5, amountDue: 256.5, date: '2026-11-07', dueDate: '2026-11-30' }));

it('takes a letter that lists what it asks for as a bill', () =>
  expect(
    typedFacts(`
# Guild of Coastal Weavers
20 November 2026
Dear member,
Members are asked to pay not later than 15 January 2027.
Full member no. 0617            £42.00
Journal by post                 £12.50
In all                          £54.50
`),
  ).toMatchObject({ kind: 'invoice', total: 54.5, dueDate: '2027-01-15', currency: 'GBP' }));

it('takes what its sums say is below nothing as credited', () =>
  expect(
    typedFacts(`
# Harrow Haberdashers Ltd
19 October 2026
Against our invoice HP-33908: zips returned
40 zips                          (72.00)
Carriage                          (6.50)
                                 (78.50)
`),
  ).toMatchObject({ kind: 'credit note', total: -78.5 }));

it('takes a statement by its balances, and no booking for the kind of the paper', () =>
  expect(
    typedFacts(`
# Cobbold Bank
From 1 September to 30 September 2026, sort code 20-11-84
01/09   At the start                                2,210.40
03/09   Timber                         64.20        2,146.20
04/09   Standing order, rent          810.00        1,336.20
08/09   Fair                          655.50        1,991.70
`),
  ).toMatchObject({
    kind: 'statement',
    opening: 2210.4,
    closing: 1991.7,
    period: '2026-09-01/2026-09-30',
    date: '2026-09-30',
  }));

it('leaves out of the sums what another currency says', () =>
  expect(
    typedFacts(`
# Norrvik Maskiner AB
Invoice NT-60771
Date 19 October 2026
Brake, pair            EUR 214.00
Heddles                EUR  96.00
Invoice total          EUR 310.00
Equivalent amount      GBP 268.15
`),
  ).toMatchObject({ currency: 'EUR', total: 310, amountDue: null }));

it.each([
  ['Balance on 1 October', 'Balance on 31 October'],
  ['B/F', 'C/F'],
  ['At the start', 'What you have now'],
])('takes “%s” and “%s” for balances where two bookings lead from one to the other', (first, last) =>
  expect(
    typedFacts(`
# Estuary Savings Society
Statement for October 2026
${`1 Oct 2026    ${first}`.padEnd(52)}1,204.18
3 Oct 2026    Rent                    -410.00      794.18
9 Oct 2026    Fair takings             655.50    1,449.68
${`31 Oct 2026   ${last}`.padEnd(52)}1,449.68
`),
  ).toMatchObject({ kind: 'statement', opening: 1204.18, closing: 1449.68 }),
);

it('takes balances called alike but for their day, what goes out and what comes in beside each other', () =>
  expect(
    typedFacts(`
# Crédit Coopératif du Ponant
Livret 4471 882     Situation au 30/09/2026
Date          Opération            Sorties      Entrées
01/07/2026    Reste au 30 juin                 2 410,00
18/07/2026    Versement                          150,00
09/08/2026    Retrait guichet       300,00
30/09/2026    Intérêts                            12,05
              Reste au 30 septembre            2 272,05
`),
  ).toMatchObject({ opening: 2410, closing: 2272.05 }));
