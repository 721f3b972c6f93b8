import { typedFacts } from '../testing/typed';
import { kindOfTitle } from './titles';

it.each([
  ['delivery slip', 'delivery note'],
  ['versandpapiere', 'delivery note'],
  ["bon d'enlevement", 'delivery note'],
  ['stock transfer note', 'delivery note'],
  ['our offer', 'quote'],
  ['richtpreisangebot', 'quote'],
  ['buchungsbestatigung', 'order'],
  ['votre commande', 'order'],
  ['ruckerstattung', 'credit note'],
  ['goodwill credit', 'credit note'],
  ['credit card receipt', 'receipt'],
  ['cancellation invoice', 'credit note'],
  ['second notice', 'reminder'],
  ['retard de paiement', 'reminder'],
  ['kartenzahlungsbeleg', 'receipt'],
  ["justificatif d'achat", 'receipt'],
])('understands “%s”', (title, kind) => expect(kindOfTitle(title)).toBe(kind));

it.each([
  ['harbour delivery services', 'the name of a firm'],
  ['erinnerung an ihren termin', 'an appointment'],
  ['notice of cancellation', 'what may be of a policy or a booking'],
  ['credited to your account', 'what happened to a sum'],
  ['zahlungsaufforderung', 'a demand, which holds the letters of an order'],
  ['order to invoice note', 'a paper about a bill'],
  ['', 'nothing'],
])('takes “%s” for no title: it is %s', (title) => expect(kindOfTitle(title)).toBeUndefined());

const paper = (rows: string) =>
  typedFacts(`
# Marrow & Pine Joinery
17 Chandler Row, Port Selwyn
${rows}
`).kind;

it('takes a title alone in its line for what the paper is, though one of its words says another kind', () => {
  expect(paper('Delivery ticket\nNo: 44718\n\nOak shelf      2\nBrackets       3')).toBe('delivery note');
  expect(
    paper('Quotation for oak shelves\nNo: 44718\n\nOak shelf     90.00\nFitting       60.00\nTotal        150.00'),
  ).toBe('quote');
});

it('takes no label beside others for a title', () => {
  expect(paper('Booking       Fare\nKX7RT2Q       £41.80\nCoach C       Seat 41A\nTicket        1 adult')).toBe(
    'ticket',
  );
});
