import { typedFacts } from '../testing/typed';
import { kindChances, wordingOf } from './kindModel';

it('takes words by their first letters, and those beside each other, but no figures', () => {
  expect([...wordingOf(['payment overdue: 42', 'since 3 may'])]).toEqual([
    'payment',
    'overdue',
    'since',
    'may',
    'payment_overdue',
    'overdue_since',
    'since_may',
  ]);
});

it.each([
  ['reminder', 'we wrote to you in july and have had no payment. your account is overdue and remains unpaid'],
  ['delivery note', 'bestellt geliefert rest folgt. ware erhalten, unterschrift des empfangers. gewicht, kartons'],
  ['payslip', 'salaire brut, cotisations, retenues. employeur, salarie. net a payer'],
  ['ticket', 'seat and coach. platform. passenger, adult. departs at, valid on. not transferable'],
])('holds a %s for the likeliest by its wording', (kind, text) => {
  const chances = kindChances(text.split('. '));
  const [likeliest] = Object.entries(chances).sort(([, one], [, other]) => other - one);
  expect(likeliest[0]).toBe(kind);
});

it('gives chances that make one together, also for what it knows no word of', () => {
  for (const lines of [[], ['xyzzy plugh'], ['please pay this invoice by friday']])
    expect(Object.values(kindChances(lines)).reduce((sum, chance) => sum + chance, 0)).toBeCloseTo(1);
});

it('tells papers without a title by their wording, though what they add up to would make them bills', () => {
  expect(
    typedFacts(`
# Saltmarsh Spinners
Unit 6, Creek Road, Harwell Staithe
Our credit SC-0219
Made out 22 Oct 2026
Against invoice SI-4108 of 9 Oct 2026
Three cones returned
3 cones at 31.40           94.20
Carriage refunded           6.50
Sub-total                 100.70
VAT at 20%                 20.14
To your credit           £120.84
We shall set this against your next order.
`),
  ).toMatchObject({ kind: 'credit note', reference: 'SI-4108', total: -120.84 });
  expect(
    typedFacts(`
# Skerry Ferries
Booking SKF-7R2Q1
Sailing              Sat 14 Nov 2026, 08:40
Route                Wickford - Gull Isle, day return
Foot passengers      2 adults, 1 child
Paid                 £46.20 (card) on 30 Oct 2026
Board 20 minutes before. Not transferable.
`),
  ).toMatchObject({ kind: 'ticket', total: 46.2 });
});
