import { AskedPaper } from '@crow/core/finding/asking/paper';
import { both, during, from, inFolder, kind, over, Question, under, year } from './key';

const ENERGY = (paper: AskedPaper) => inFolder('Home/Energy')(paper) || from('Stadtwerke Rosenau')(paper);

/** Questions that were before those who wrote the rules. */
export const KNOWN: Question[] = [
  { q: 'How much did we pay Northlight Power in 2025?', key: { sum: both(from('Northlight Power'), year(2025)) } },
  {
    q: 'What did we spend on energy in 2025?',
    key: { sum: both(ENERGY, year(2025)) },
  },
  {
    q: 'How much was the electricity in March 2026?',
    key: {
      sum: both(
        (p) => from('Northlight Power')(p) || from('Stadtwerke Rosenau')(p),
        during('2026-03-01', '2026-03-31'),
      ),
    },
  },
  { q: 'Wie viel haben wir 2024 für Gas bezahlt?', key: { sum: both(from('Harbour Gas Ltd'), year(2024)) } },
  { q: 'Combien avons-nous payé à Harbour Gas en 2024 ?', key: { sum: both(from('Harbour Gas Ltd'), year(2024)) } },
  { q: 'How much rent did we pay this year?', key: { sum: both(from('Quayside Lettings'), year(2026)) } },
  { q: 'Was hat uns die Miete letztes Jahr gekostet?', key: { sum: both(from('Quayside Lettings'), year(2025)) } },
  {
    q: 'How much did we spend at Tern Parcels last month?',
    key: { sum: both(from('Tern Parcels'), during('2026-10-01', '2026-10-31')) },
  },
  {
    q: 'total of all invoices from Saltgate Yarns since January 2026',
    key: { sum: both(from('Saltgate Yarns'), kind('invoice'), during('2026-01-01', '2099-12-31')) },
  },
  {
    q: 'How much did the yarn from Saltgate cost in the first quarter of 2025?',
    key: { sum: both(from('Saltgate Yarns'), during('2025-01-01', '2025-03-31')) },
  },
  {
    q: 'How much VAT did we pay to Marlowe in 2025?',
    key: { sum: both(from('Marlowe Dye Works'), year(2025)), field: 'tax' },
  },
  {
    q: 'Wie viel Mehrwertsteuer war in den Rechnungen von Marlowe 2024?',
    key: { sum: both(from('Marlowe Dye Works'), kind('invoice'), year(2024)), field: 'tax' },
  },
  { q: 'net total of Penrose Garage in 2025', key: { sum: both(from('Penrose Garage'), year(2025)), field: 'net' } },
  {
    q: 'How much was the last invoice from Penrose Garage?',
    key: { latest: both(from('Penrose Garage'), kind('invoice')) },
  },
  {
    q: 'Wie hoch war die letzte Rechnung von Orrin Water?',
    key: { latest: both(from('Orrin Water'), kind('invoice')) },
  },
  {
    q: 'How many invoices did we get from Marlowe Dye Works in 2025?',
    key: { count: both(from('Marlowe Dye Works'), kind('invoice'), year(2025)) },
  },
  { q: 'How many reminders have we had?', key: { count: kind('reminder') } },
  {
    q: 'Wie viele Rechnungen kamen 2025 von der Spinnerei Wiesengrund?',
    key: { count: both(from('Spinnerei Wiesengrund'), kind('invoice'), year(2025)) },
  },
  {
    q: 'Combien de factures de Filature du Val en 2025 ?',
    key: { count: both(from('Filature du Val'), kind('invoice'), year(2025)) },
  },
  { q: 'How many papers are in the folder Fairs?', key: { count: inFolder('Fairs') } },
  {
    q: 'When does the boat insurance end?',
    key: { day: both(from('Seven Capes Underwriting'), (p) => p.ends !== null), fact: 'ends' },
  },
  {
    q: 'When does the contents insurance expire?',
    key: { day: both(from('Alder Mutual'), (p) => p.ends !== null), fact: 'ends' },
  },
  {
    q: 'Until when is the boiler guaranteed?',
    key: { day: both(from('Hearth & Flue'), (p) => p.ends !== null), fact: 'ends' },
  },
  {
    q: 'Wann endet der Vertrag mit Wire & Wave?',
    key: { day: both(from('Wire & Wave Broadband'), (p) => p.ends !== null), fact: 'ends' },
  },
  {
    q: 'When is the council tax due?',
    key: { day: both(from('Orrin Harbour Council'), kind('notice')), fact: 'dueDate' },
  },
  { q: 'When did we last take the car to Penrose Garage?', key: null },
  {
    q: 'When was the last invoice from the vet?',
    key: { day: both(from('Bracken Veterinary Practice'), kind('invoice')), fact: 'date' },
  },
  {
    q: 'When was the first invoice from Loom & Reed Makers?',
    key: { day: both(from('Loom & Reed Makers'), kind('invoice')), fact: 'date', which: 'first' },
  },
  {
    q: 'Which invoices are due in December 2026?',
    key: { papers: both(kind('invoice'), during('2026-12-01', '2026-12-31', 'dueDate')) },
  },
  {
    q: 'Which invoices over 500 pounds came in 2025?',
    key: { papers: both(kind('invoice'), year(2025), over(50_000), (p) => p.total!.currency === 'GBP') },
  },
  {
    q: 'Show all letters from Saint Ebba School in 2026',
    key: { papers: both(from('Saint Ebba School'), kind('letter'), year(2026)) },
  },
  {
    q: 'Welche Rechnungen von Marlowe liegen unter 100?',
    key: { papers: both(from('Marlowe Dye Works'), kind('invoice'), under(10_000)) },
  },
  {
    q: 'Which contracts end in 2027?',
    key: { papers: both(kind('contract'), during('2027-01-01', '2027-12-31', 'ends')) },
  },
  {
    q: 'Quelles lettres du Orrin Harbour Council ?',
    key: { papers: both(from('Orrin Harbour Council'), kind('letter')) },
  },
  { q: 'Who did we pay the most in 2025?', key: { whoMost: year(2025) } },
  { q: 'Which supplier of yarn cost us most in 2024?', key: { whoMost: both(inFolder('Workshop/Yarn'), year(2024)) } },
  { q: 'Who sent us reminders?', key: { who: kind('reminder') } },
  { q: 'Von wem haben wir Gutschriften bekommen?', key: { who: kind('credit note') } },
  {
    q: 'What was the most expensive invoice in 2025?',
    key: { most: both(kind('invoice'), year(2025), (p) => p.total?.currency === 'GBP') },
  },
  {
    q: 'What was the highest invoice from Loom & Reed Makers?',
    key: { most: both(from('Loom & Reed Makers'), kind('invoice')) },
  },
  {
    q: 'Which was the cheapest ticket of Coast Line Railway in 2024?',
    key: { most: both(from('Coast Line Railway'), year(2024)), least: true },
  },
  { q: 'What is our customer number with Northlight Power?', key: { value: 'customer', of: from('Northlight Power') } },
  {
    q: 'Wie lautet unsere Kundennummer bei Marlowe?',
    key: { value: 'customer', of: both(from('Marlowe Dye Works'), (p) => p.customer !== null) },
  },
  {
    q: 'What is the policy number of the boat insurance?',
    key: { value: 'policy', of: both(from('Seven Capes Underwriting'), (p) => p.policy !== null) },
  },
  {
    q: 'What tax rate does Spinnerei Wiesengrund charge?',
    key: { value: 'taxRate', of: from('Spinnerei Wiesengrund') },
  },
  {
    q: 'Did we pay more for energy in 2025 than in 2024?',
    key: { first: both(ENERGY, year(2025)), second: both(ENERGY, year(2024)) },
  },
  {
    q: 'Did we spend more at Fenwick Fuels this year than last year?',
    key: { first: both(from('Fenwick Fuels'), year(2026)), second: both(from('Fenwick Fuels'), year(2025)) },
  },
  {
    q: 'How much did we spend on indigo dyeing in 2025?',
    key: { lines: /indigo/i, of: both(from('Marlowe Dye Works'), kind('invoice'), year(2025)) },
  },
  { q: 'What did the tyres cost?', key: { lines: /tyres/i, of: from('Penrose Garage') } },
  {
    q: 'What does an invoice of Lantern Telecom cost on average?',
    key: { average: both(from('Lantern Telecom'), kind('invoice')) },
  },
  // Nothing on the shelf says.
  { q: 'How much did we pay for the gym in 2025?', key: null },
  { q: 'What did we spend at Cobalt Hardware?', key: null },
  { q: 'How much did we pay Northlight Power in 2019?', key: null },
  { q: 'Why did the rent go up?', key: null },
  { q: 'Which invoices are still unpaid?', key: null },
  { q: 'How many kilos of wool did we buy in 2025?', key: null },
  { q: 'When does the lease of the shop in Rosenau end?', key: null },
  { q: 'What is the phone number of the landlord?', key: null },
  { q: 'Wie heißt der Hund?', key: null },
  { q: 'Wann wird der Schornstein gefegt?', key: null },
  { q: 'Combien coûte la piscine ?', key: null },
  { q: 'Who is the head of the school?', key: null },
  { q: 'How much will the electricity cost next year?', key: null },
  { q: 'Is Tern Parcels reliable?', key: null },
  { q: 'What is the best yarn supplier?', key: null },
  { q: 'How much money is in the bank account?', key: null },
  { q: 'What is our customer number with Penrose Garage?', key: null },
  { q: 'When does the insurance of the car end?', key: null },
  { q: 'How much did Imre earn in 2025?', key: null },
  { q: 'Which parcels were lost?', key: null },
  { q: 'Did the vet vaccinate the cat in 2024?', key: null },
  { q: 'How many metres of linen are in stock?', key: null },
  { q: 'How much did we pay in cash in 2025?', key: null },
  { q: 'Wer hat die Rechnung von Marlowe bezahlt?', key: null },
];
