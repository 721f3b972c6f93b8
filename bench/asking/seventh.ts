import { both, during, from, inFolder, kind, over, Question, under, year } from './key';

const billsOf = (vendor: string) => both(from(vendor), kind('invoice'));

/** More questions over the fresh shelf, in other words, written after all changes of the rules and asked once. */
export const SEVENTH: Question[] = [
  { q: 'Rent paid in 2024?', key: { sum: both(from('Hollis Estates'), year(2024)) } },
  {
    q: 'Could you tell me how much Müller Verpackungen cost us over the last six months?',
    key: { sum: both(from('Müller Verpackungen'), during('2026-05-28', '2026-11-28')) },
  },
  { q: 'how much for boxes in 2025', key: { sum: both(from('Müller Verpackungen'), year(2025)) } },
  { q: 'Cat expenses, 2026 so far', key: { sum: both(inFolder('Flat/Cat'), year(2026)) } },
  {
    q: 'What did Kestrel Couriers end up costing us in 2025?',
    key: { sum: both(from('Kestrel Couriers'), year(2025)) },
  },
  {
    q: 'How much of our money did Hollis Estates get last year?',
    key: { sum: both(from('Hollis Estates'), year(2025)) },
  },
  {
    q: 'What did we cough up for coach tickets in spring 2026?',
    key: { sum: both(from('Valley Coaches'), during('2026-03-01', '2026-05-31')) },
  },
  { q: 'How much is electricity a month?', key: { average: from('Fjord Elektro') } },
  { q: 'Average spend per courier receipt', key: { average: from('Kestrel Couriers') } },
  {
    q: 'Is water more expensive this year than last year?',
    key: { first: both(from('Brunnen & Quell'), year(2026)), second: both(from('Brunnen & Quell'), year(2025)) },
  },
  {
    q: 'By how much did electricity go up from 2024 to 2025?',
    key: { first: both(from('Fjord Elektro'), year(2025)), second: both(from('Fjord Elektro'), year(2024)) },
  },
  { q: 'Dearest kiln bill ever', key: { most: billsOf('Ember Kilns') } },
  { q: 'Which coach ticket was the cheapest?', key: { most: from('Valley Coaches'), least: true } },
  { q: 'How high was the latest invoice from Atelier Bonnard?', key: { latest: billsOf('Atelier Bonnard') } },
  {
    q: 'How long does the kiln maintenance agreement run?',
    key: { day: both(from('Ember Kilns'), kind('contract')), fact: 'ends' },
  },
  {
    q: 'When is the maintenance contract with Ember Kilns over?',
    key: { day: both(from('Ember Kilns'), kind('contract')), fact: 'ends' },
  },
  { q: 'Last date for paying the business rates', key: { day: from('Moorland Rates Office'), fact: 'dueDate' } },
  { q: 'When did the last bank statement arrive?', key: { day: kind('statement'), fact: 'date' } },
  {
    q: 'When was the most recent credit note from Clayfield issued?',
    key: { day: both(from('Clayfield Minerals'), kind('credit note')), fact: 'date' },
  },
  { q: 'Contract number with Ember Kilns', key: { value: 'policy', of: both(from('Ember Kilns'), kind('contract')) } },
  {
    q: 'What reference do we quote to the Moorland Rates Office?',
    key: { value: 'reference', of: from('Moorland Rates Office') },
  },
  {
    q: 'What’s the customer number on our Fjord Elektro bills?',
    key: { value: 'customer', of: from('Fjord Elektro') },
  },
  {
    q: 'How many credit notes did Clayfield Minerals send in all?',
    key: { count: both(from('Clayfield Minerals'), kind('credit note')) },
  },
  {
    q: 'How many dentist bills have come in since 2025?',
    key: { count: both(from('Dr. Lieselotte Amann'), during('2025-01-01', '2099-01-01')) },
  },
  { q: 'Pull up the quotes from Atelier Bonnard', key: { papers: both(from('Atelier Bonnard'), kind('quote')) } },
  { q: 'Are there reminders from Clayfield?', key: { papers: both(from('Clayfield Minerals'), kind('reminder')) } },
  { q: 'Kiln invoices that exceed £2,000', key: { papers: both(billsOf('Ember Kilns'), over(200_000)) } },
  {
    q: 'Pet shop receipts of less than 8 pounds',
    key: { papers: both(from('Pets of Alder Lane'), kind('receipt'), under(800)) },
  },
  {
    q: 'How much money did cat food swallow in 2025?',
    key: { lines: /cat food/i, of: both(from('Pets of Alder Lane'), year(2025)) },
  },
  { q: 'What did we spend on kiln shelves?', key: { lines: /kiln shelf/i, of: billsOf('Ember Kilns') } },
  { q: 'Who supplies our clay?', key: { who: from('Clayfield Minerals') } },
  { q: 'Which firm took the most of our money in 2024?', key: { whoMost: year(2024) } },
  {
    q: 'How much VAT have we paid Clayfield in 2026?',
    key: { sum: both(from('Clayfield Minerals'), kind('invoice', 'credit note'), year(2026)), field: 'tax' },
  },
  {
    q: 'Was haben die Kartons 2025 gekostet?',
    key: { lines: /kartons/i, of: both(from('Müller Verpackungen'), year(2025)) },
  },
  {
    q: 'Welchen Betrag haben wir 2026 an Müller gezahlt?',
    key: { sum: both(from('Müller Verpackungen'), year(2026)) },
  },
  { q: 'Miete pro Monat?', key: { average: from('Hollis Estates') } },
  { q: 'Wann endet der Wartungsvertrag?', key: { day: both(from('Ember Kilns'), kind('contract')), fact: 'ends' } },
  { q: 'Teuerste Rechnung vom Zahnarzt', key: null },
  { q: 'Liste der Angebote von Bonnard', key: { papers: both(from('Atelier Bonnard'), kind('quote')) } },
  { q: 'Combien nous coûte le loyer chaque mois ?', key: { average: from('Hollis Estates') } },
  { q: 'Total des factures de Bonnard pour 2025', key: { sum: both(billsOf('Atelier Bonnard'), year(2025)) } },
  { q: 'Dernier relevé de compte : quelle date ?', key: { day: kind('statement'), fact: 'date' } },
  { q: 'How hot does the kiln get?', key: null },
  { q: 'How many pots did we fire?', key: null },
  { q: 'When was the cat born?', key: null },
  { q: 'Who broke the shelf?', key: null },
  { q: 'How much did the exhibition bring in?', key: null },
  { q: 'What did we pay for wheels in 2025?', key: null },
  { q: 'Does the flat have a balcony?', key: null },
  { q: 'When does the coach leave?', key: null },
  { q: 'How much glaze do we need per pot?', key: null },
  { q: 'What time does the dentist open?', key: null },
  { q: 'Is Hollis Estates raising the rent?', key: null },
  { q: 'How much have customers paid for plates?', key: null },
  { q: 'Wie heiß wird der Ofen?', key: null },
  { q: 'Wer hat die Vase gekauft?', key: null },
  { q: 'Quelle est la taille du four ?', key: null },
  { q: 'Combien de clients avons-nous ?', key: null },
];
