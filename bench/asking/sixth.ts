import { both, during, from, inFolder, kind, over, Question, under, year } from './key';

const billsOf = (vendor: string) => both(from(vendor), kind('invoice'));

/** More questions over the third shelf, in other words, written after all changes of the rules and asked once. */
export const SIXTH: Question[] = [
  { q: 'Sum of all Clarion Press invoices', key: { sum: billsOf('Clarion Press') } },
  {
    q: 'How much have I had to pay Fenwick Motors since the start of 2025?',
    key: { sum: both(from('Fenwick Motors'), during('2025-01-01', '2099-01-01')) },
  },
  {
    q: 'What was the damage for petrol in July 2026?',
    key: { sum: both(from('Petrol at the Crossing'), during('2026-07-01', '2026-07-31')) },
  },
  { q: 'Total outlay on rent, 2025', key: { sum: both(from('Cobden Lettings'), year(2025)) } },
  {
    q: 'How much in total did Northern Trains receive from us in 2024?',
    key: { sum: both(from('Northern Trains'), year(2024)) },
  },
  { q: 'What do we fork out for broadband every month?', key: { average: from('Thistle Broadband') } },
  { q: 'Mean petrol receipt in 2025', key: { average: both(from('Petrol at the Crossing'), year(2025)) } },
  { q: 'Annual cost of the liability insurance', key: { average: from('Riders Shield') } },
  {
    q: 'Compared with 2024, how much did we spend on petrol in 2025?',
    key: {
      first: both(from('Petrol at the Crossing'), year(2025)),
      second: both(from('Petrol at the Crossing'), year(2024)),
    },
  },
  {
    q: 'Were train tickets dearer in 2026 than 2025?',
    key: { first: both(from('Northern Trains'), year(2026)), second: both(from('Northern Trains'), year(2025)) },
  },
  {
    q: 'Difference between heating in 2025 and heating in 2024',
    key: {
      first: both(from('Marlow Heat & Power'), year(2025)),
      second: both(from('Marlow Heat & Power'), year(2024)),
    },
  },
  { q: 'What’s the highest sum Spoke & Hub ever invoiced?', key: { most: billsOf('Spoke & Hub Wholesale') } },
  { q: 'What is the cheapest train ticket we have?', key: { most: from('Northern Trains'), least: true } },
  { q: 'Latest heating bill, how much was it?', key: { latest: from('Marlow Heat & Power') } },
  { q: 'Amount of the last Thistle invoice', key: { latest: from('Thistle Broadband') } },
  { q: 'Insurance for the building: when does it run out?', key: { day: from('Pennine Mutual'), fact: 'ends' } },
  { q: 'Is there an end date on the Riders Shield policy?', key: { day: from('Riders Shield'), fact: 'ends' } },
  { q: 'Payment date for the council tax', key: { day: from('Eastgate Borough'), fact: 'dueDate' } },
  { q: 'When must the latest Velo Bernard invoice be paid?', key: { day: from('Velo Bernard'), fact: 'dueDate' } },
  {
    q: 'What date is on our first bill from Thistle Broadband?',
    key: { day: from('Thistle Broadband'), fact: 'date', which: 'first' },
  },
  {
    q: 'When did the solicitors last write to us?',
    key: { day: both(from('Harrow & Vale Solicitors'), kind('letter')), fact: 'date' },
  },
  { q: 'Which policy number does Riders Shield use for us?', key: { value: 'policy', of: from('Riders Shield') } },
  { q: 'Our reference with Eastgate Borough, please', key: { value: 'reference', of: from('Eastgate Borough') } },
  { q: 'How many quotes has Clarion Press given us?', key: { count: both(from('Clarion Press'), kind('quote')) } },
  { q: 'How many times have we been billed by Fenwick Motors?', key: { count: from('Fenwick Motors') } },
  { q: 'How many bank statements do we have for 2025?', key: { count: both(kind('statement'), year(2025)) } },
  {
    q: 'Let me see the credit notes from Spoke & Hub',
    key: { papers: both(from('Spoke & Hub Wholesale'), kind('credit note')) },
  },
  {
    q: 'Frame invoices of more than €1,700',
    key: { papers: both(inFolder('Bikes/Frames'), kind('invoice'), over(170_000)) },
  },
  { q: 'Greengrocer receipts for under a fiver', key: null },
  { q: 'Greengrocer receipts for less than £5', key: { papers: both(from('Corner Greengrocer'), under(500)) } },
  { q: 'Papers about the boundary', key: { papers: both(from('Harrow & Vale Solicitors'), kind('letter')) } },
  { q: 'What is filed under Premises for 2024?', key: { papers: both(inFolder('Bikes/Premises'), year(2024)) } },
  {
    q: 'What did inner tubes set us back in 2025?',
    key: { lines: /inner tubes/i, of: both(billsOf('Spoke & Hub Wholesale'), year(2025)) },
  },
  { q: 'How much did labour cost at Fenwick Motors?', key: { lines: /labour/i, of: billsOf('Fenwick Motors') } },
  { q: 'Who is our internet provider?', key: { who: from('Thistle Broadband') } },
  { q: 'Who is our landlord?', key: { who: from('Cobden Lettings') } },
  { q: 'Who have we spent most with in the last two years?', key: { whoMost: during('2024-11-28', '2026-11-28') } },
  {
    q: 'How much VAT did Clarion Press add in 2025?',
    key: { sum: both(billsOf('Clarion Press'), year(2025)), field: 'tax' },
  },
  { q: 'Was haben wir dieses Jahr bei Ziegler gelassen?', key: { sum: both(billsOf('Radhaus Ziegler'), year(2026)) } },
  { q: 'Mietkosten 2026 bis jetzt', key: { sum: both(from('Cobden Lettings'), year(2026)) } },
  {
    q: 'Sind die Heizkosten 2025 höher als 2024?',
    key: {
      first: both(from('Marlow Heat & Power'), year(2025)),
      second: both(from('Marlow Heat & Power'), year(2024)),
    },
  },
  { q: 'Wann läuft die Haftpflichtversicherung aus?', key: { day: from('Riders Shield'), fact: 'ends' } },
  { q: 'Höchste Rechnung von Ziegler in 2025', key: { most: both(billsOf('Radhaus Ziegler'), year(2025)) } },
  { q: 'Wie viel kostet der Kindergarten durchschnittlich?', key: { average: from('Kindergarten Regenbogen') } },
  { q: 'Zeig mir alle Rechnungen von Ziegler aus 2024', key: { papers: both(billsOf('Radhaus Ziegler'), year(2024)) } },
  {
    q: 'Combien avons-nous versé à Velo Bernard entre janvier et juin 2026 ?',
    key: { sum: both(from('Velo Bernard'), during('2026-01-01', '2026-06-30')) },
  },
  {
    q: 'Avons-nous payé plus de loyer en 2026 qu’en 2025 ?',
    key: { first: both(from('Cobden Lettings'), year(2026)), second: both(from('Cobden Lettings'), year(2025)) },
  },
  {
    q: 'Quand faut-il payer la dernière facture de Velo Bernard ?',
    key: { day: from('Velo Bernard'), fact: 'dueDate' },
  },
  { q: 'Where did I leave the van keys?', key: null },
  { q: 'How many litres of petrol did we burn?', key: null },
  { q: 'What do the solicitors think of the boundary?', key: null },
  { q: 'How much did the workshop take in March?', key: null },
  { q: 'When does the train leave?', key: null },
  { q: 'Who fitted the brake discs?', key: null },
  { q: 'Is the rent going to rise?', key: null },
  { q: 'What size are the inner tubes?', key: null },
  { q: 'How much did we pay for solar panels?', key: null },
  { q: 'What’s our credit limit at Spoke & Hub?', key: null },
  { q: 'Has Ziegler refunded us?', key: null },
  { q: 'When did we move into the workshop?', key: null },
  { q: 'How many employees does Clarion Press have?', key: null },
  { q: 'Wie lange dauert die Fahrt?', key: null },
  { q: 'Wer hat den Rahmen lackiert?', key: null },
  { q: 'Wann öffnet der Kindergarten?', key: null },
  { q: 'Pourquoi le chauffage est-il si cher ?', key: null },
  { q: 'Combien de vélos avons-nous réparés ?', key: null },
];
