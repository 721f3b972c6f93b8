import { both, during, from, inFolder, kind, over, Question, year } from './key';
import { every, madeShelf, Sender } from './shelf';

/** Another shelf, of senders, things and folders that the first has none of: a pottery in the hills and the flat above it. */
const SENDERS: Sender[] = [
  every('Clayfield Minerals', 'Pottery/Clay', 'invoice', {
    papers: 60,
    goods: ['Stoneware clay', 'Porcelain body', 'Pallet'],
    rate: 20,
    due: 30,
  }),
  every('Ember Kilns', 'Pottery/Kiln', 'invoice', {
    papers: 9,
    amounts: [90, 3000],
    goods: ['Kiln shelf', 'Element', 'Call-out'],
    rate: 20,
    due: 14,
  }),
  every('Ember Kilns', 'Pottery/Kiln', 'contract', {
    papers: 1,
    amounts: [0, 0],
    subject: 'Maintenance agreement for the kiln',
    facts: { policy: 'EK-7', ends: '2028-02-29' },
  }),
  every('Fjord Elektro', 'Flat/Electricity', 'invoice', {
    every: 1,
    papers: 46,
    amounts: [50, 140],
    due: 14,
    facts: { customer: '990-1' },
  }),
  every('Brunnen & Quell', 'Flat/Water', 'invoice', {
    every: 3,
    papers: 15,
    amounts: [30, 80],
    currency: 'EUR',
    due: 20,
  }),
  every('Hollis Estates', 'Flat/Lease', 'invoice', {
    every: 1,
    papers: 46,
    amounts: [880, 880],
    due: 5,
    goods: ['Rent of the flat'],
  }),
  every('Granite State Assurance', 'Flat/Cover', 'contract', {
    every: 12,
    papers: 4,
    amounts: [150, 190],
    subject: 'Household insurance',
    facts: { policy: 'GS 40 11' },
  }),
  every('Dr. Lieselotte Amann', 'Health', 'invoice', {
    papers: 14,
    goods: ['Zahnreinigung', 'Füllung'],
    currency: 'EUR',
    due: 30,
  }),
  every('Müller Verpackungen', 'Pottery/Boxes', 'invoice', {
    papers: 70,
    goods: ['Kartons', 'Füllmaterial'],
    currency: 'EUR',
    rate: 19,
    due: 14,
  }),
  every('Atelier Bonnard', 'Pottery/Glaze', 'invoice', {
    papers: 40,
    goods: ['Émail blanc', 'Oxyde de cobalt'],
    currency: 'EUR',
    rate: 20,
    due: 30,
  }),
  every('Atelier Bonnard', 'Pottery/Glaze', 'quote', { papers: 3, amounts: [200, 800], currency: 'EUR' }),
  every('Kestrel Couriers', 'Pottery/Sending', 'receipt', {
    papers: 150,
    amounts: [5, 40],
    goods: ['Next-day delivery', 'Insurance of goods'],
    rate: 20,
  }),
  every('Moorland Rates Office', 'Flat/Town', 'notice', {
    every: 12,
    papers: 4,
    amounts: [700, 900],
    subject: 'Business rates',
    due: 30,
    facts: { reference: 'BR/2/77' },
  }),
  every('Pets of Alder Lane', 'Flat/Cat', 'receipt', { papers: 45, amounts: [6, 60], goods: ['Cat food', 'Litter'] }),
  every('Pets of Alder Lane', 'Flat/Cat', 'letter', { papers: 6, amounts: [0, 0], subject: 'Loyalty card' }),
  every('Valley Coaches', 'Trips', 'ticket', { papers: 30, amounts: [4, 22] }),
  every('Savings Union', 'Money', 'statement', {
    every: 1,
    papers: 46,
    amounts: [0, 0],
    facts: { iban: 'GB94BARC10201530093459' },
  }),
  every('Clayfield Minerals', 'Pottery/Clay', 'reminder', { papers: 3, amounts: [60, 200], due: 7 }),
  every('Clayfield Minerals', 'Pottery/Clay', 'credit note', { papers: 4, amounts: [-60, -10], rate: 20 }),
];

export const freshShelf = () => madeShelf(SENDERS, 900, 7);

/** Questions over it, written after the rules and asked once before anything was changed for them. */
export const FRESH: Question[] = [
  {
    q: 'How much have I spent with Clayfield Minerals since 2025?',
    key: { sum: both(from('Clayfield Minerals'), during('2025-01-01', '2099-01-01')) },
  },
  { q: 'Total cost of clay in 2025', key: { sum: both(inFolder('Pottery/Clay'), year(2025)) } },
  {
    q: 'What was the rent in January 2026?',
    key: { sum: both(from('Hollis Estates'), during('2026-01-01', '2026-01-31')) },
  },
  { q: 'Stromkosten 2025?', key: { sum: both(from('Fjord Elektro'), year(2025)) } },
  { q: 'Wie teuer war das Wasser letztes Jahr?', key: { sum: both(from('Brunnen & Quell'), year(2025)) } },
  {
    q: 'Combien ai-je payé à Atelier Bonnard cette année ?',
    key: { sum: both(from('Atelier Bonnard'), kind('invoice'), year(2026)) },
  },
  {
    q: 'How much VAT is on the invoices of Ember Kilns?',
    key: { sum: both(from('Ember Kilns'), kind('invoice')), field: 'tax' },
  },
  {
    q: 'Was kosteten die Kartons von Müller im März 2026?',
    key: { lines: /Kartons/, of: both(from('Müller Verpackungen'), during('2026-03-01', '2026-03-31')) },
  },
  { q: 'How much did the cobalt oxide cost us?', key: null },
  {
    q: 'How much did we spend on cat food this year?',
    key: { lines: /cat food/i, of: both(from('Pets of Alder Lane'), year(2026)) },
  },
  {
    q: 'What did we pay the courier in the last 6 months?',
    key: { sum: both(from('Kestrel Couriers'), during('2026-05-28', '2026-11-28')) },
  },
  { q: 'what is the latest invoice from ember kilns', key: { latest: both(from('Ember Kilns'), kind('invoice')) } },
  { q: 'Höchste Rechnung von Clayfield?', key: { most: both(from('Clayfield Minerals'), kind('invoice')) } },
  {
    q: 'How many coach tickets did I buy in 2025?',
    key: { count: both(from('Valley Coaches'), kind('ticket'), year(2025)) },
  },
  {
    q: 'How many tickets from Valley Coaches in 2025?',
    key: { count: both(from('Valley Coaches'), kind('ticket'), year(2025)) },
  },
  {
    q: 'Wie viele Quittungen habe ich von Kestrel Couriers aus 2024?',
    key: { count: both(from('Kestrel Couriers'), kind('receipt'), year(2024)) },
  },
  {
    q: 'When does the maintenance agreement for the kiln run out?',
    key: { day: both(from('Ember Kilns'), kind('contract')), fact: 'ends' },
  },
  { q: 'Wann endet die Hausratversicherung?', key: null },
  {
    q: 'When does the household insurance expire?',
    key: { day: both(from('Granite State Assurance'), (p) => p.ends !== null), fact: 'ends' },
  },
  {
    q: 'When are the business rates due?',
    key: { day: both(from('Moorland Rates Office'), kind('notice')), fact: 'dueDate' },
  },
  {
    q: 'Welche Rechnungen sind im Dezember fällig?',
    key: { papers: both(kind('invoice'), during('2026-12-01', '2026-12-31', 'dueDate')) },
  },
  { q: 'Show me reminders from Clayfield', key: { papers: both(from('Clayfield Minerals'), kind('reminder')) } },
  { q: 'Any quotes from Atelier Bonnard?', key: { papers: both(from('Atelier Bonnard'), kind('quote')) } },
  {
    q: 'Invoices above €400 from Müller?',
    // There is none.
    key: null,
  },
  {
    q: 'Invoices above €250 from Müller in 2026',
    key: { papers: both(from('Müller Verpackungen'), kind('invoice'), over(25_000), year(2026)) },
  },
  { q: 'Which customer number do I have with Fjord Elektro?', key: { value: 'customer', of: from('Fjord Elektro') } },
  { q: 'What is the IBAN on the statements of Savings Union?', key: { value: 'iban', of: from('Savings Union') } },
  {
    q: 'Payment reference for the Moorland Rates Office?',
    key: { value: 'reference', of: from('Moorland Rates Office') },
  },
  { q: 'Who sent credit notes?', key: { who: kind('credit note') } },
  {
    q: 'Did the electricity cost more in 2025 than in 2024?',
    key: { first: both(from('Fjord Elektro'), year(2025)), second: both(from('Fjord Elektro'), year(2024)) },
  },
  {
    q: 'Average invoice of Clayfield Minerals in 2024',
    key: { average: both(from('Clayfield Minerals'), kind('invoice'), year(2024)) },
  },
  { q: 'Who is our cheapest courier?', key: null },
  { q: 'How hot does the kiln get?', key: null },
  { q: 'What time does the coach leave?', key: null },
  { q: 'How much did the customers pay for bowls in 2025?', key: null },
  { q: 'When was the cat born?', key: null },
  { q: 'How much do I spend on coffee?', key: null },
  { q: 'Is the flat insured against flood?', key: null },
  { q: 'Wie viel verdient Imre?', key: null },
  { q: 'Combien de bols avons-nous vendus ?', key: null },
  { q: 'How much was the balance of the account in June 2026?', key: null },
  { q: 'Who signed the lease?', key: null },
  { q: 'What did the kiln shelf weigh?', key: null },
  { q: 'Which bills did I pay twice?', key: null },
  { q: 'Until when can I return the clay?', key: null },
];
