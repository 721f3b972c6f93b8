import { both, during, from, inFolder, kind, Question, under, year } from './key';

/** More questions over the fresh shelf, written after all changes of the rules and asked once. */
export const LAST: Question[] = [
  {
    q: 'What have we spent on glazes since spring 2025?',
    key: { sum: both(inFolder('Pottery/Glaze'), kind('invoice'), during('2025-03-01', '2099-01-01')) },
  },
  { q: 'Spending at Pets of Alder Lane by now in 2026', key: { sum: both(from('Pets of Alder Lane'), year(2026)) } },
  {
    q: 'How much money did Müller Verpackungen get from us in 2024?',
    key: { sum: both(from('Müller Verpackungen'), year(2024)) },
  },
  { q: 'I want to know what the flat cost me in rent in 2025', key: { sum: both(from('Hollis Estates'), year(2025)) } },
  { q: 'Wie hoch waren die Ausgaben für Strom im Jahr 2024?', key: { sum: both(from('Fjord Elektro'), year(2024)) } },
  { q: 'Was hat der Zahnarzt 2025 gekostet?', key: { sum: both(from('Dr. Lieselotte Amann'), year(2025)) } },
  { q: 'Quelles sont les dépenses d’eau en 2025 ?', key: { sum: both(from('Brunnen & Quell'), year(2025)) } },
  {
    q: 'How much was charged by Ember Kilns without VAT?',
    key: { sum: both(from('Ember Kilns'), kind('invoice')), field: 'net' },
  },
  {
    q: 'What did porcelain body cost in 2025?',
    key: { lines: /porcelain/i, of: both(from('Clayfield Minerals'), kind('invoice'), year(2025)) },
  },
  {
    q: 'Letzte Rechnung von Atelier Bonnard: wie hoch?',
    key: { latest: both(from('Atelier Bonnard'), kind('invoice')) },
  },
  { q: 'When did we get the last reminder?', key: { day: kind('reminder'), fact: 'date' } },
  {
    q: 'By which date must I pay Moorland Rates Office?',
    key: { day: both(from('Moorland Rates Office'), kind('notice')), fact: 'dueDate' },
  },
  {
    q: 'Expiry date of the household insurance',
    key: { day: both(from('Granite State Assurance'), (p) => p.ends !== null), fact: 'ends' },
  },
  {
    q: 'How many bills came from Kestrel Couriers last month?',
    key: { count: both(from('Kestrel Couriers'), during('2026-10-01', '2026-10-31')) },
  },
  {
    q: 'Count the receipts of Kestrel Couriers in Q3 2026',
    key: { count: both(from('Kestrel Couriers'), kind('receipt'), during('2026-07-01', '2026-09-30')) },
  },
  {
    q: 'Which tickets cost less than 6 pounds in 2026?',
    key: { papers: both(kind('ticket'), under(600), year(2026)) },
  },
  { q: 'All papers in the folder Kiln', key: { papers: inFolder('Pottery/Kiln') } },
  { q: 'Policy number of our household insurance?', key: { value: 'policy', of: from('Granite State Assurance') } },
  { q: 'Who did we spend the most with this year?', key: { whoMost: year(2026) } },
  {
    q: 'Was the rent higher in 2026 than in 2025?',
    key: { first: both(from('Hollis Estates'), year(2026)), second: both(from('Hollis Estates'), year(2025)) },
  },
  { q: 'What was the most we ever paid Ember Kilns?', key: { most: both(from('Ember Kilns'), kind('invoice')) } },
  { q: 'How much did I lend to Ragnhild?', key: null },
  { q: 'When is my next dentist appointment?', key: null },
  { q: 'How much clay is left?', key: null },
  { q: 'Who delivered the boxes in May?', key: null },
  { q: 'Wie lange dauert der Brand?', key: null },
  { q: 'Where is the kiln?', key: null },
  { q: 'How much interest does the savings account pay?', key: null },
  { q: 'Quel âge a le chat ?', key: null },
  { q: 'How much will I pay Clayfield in 2027?', key: null },
  { q: 'Did Müller send the wrong boxes?', key: null },
];
