import { both, during, from, inFolder, kind, over, Question, under, year } from './key';

const billsOf = (vendor: string) => both(from(vendor), kind('invoice'));

/** Questions in plain words over the fourth shelf, written after all changes of the rules and asked once. */
export const EIGHTH: Question[] = [
  { q: 'What did Wagtail Vets cost in 2024?', key: { sum: both(from('Wagtail Vets'), year(2024)) } },
  {
    q: 'How much did we pay for electricity between April and September 2026?',
    key: { sum: both(from('Saltmarsh Power'), during('2026-04-01', '2026-09-30')) },
  },
  {
    q: 'What was spent on postage in the first half of 2026?',
    key: { sum: both(from('Parcelwise'), during('2026-01-01', '2026-06-30')) },
  },
  {
    q: 'How much has Ridge Mobile charged since July 2025?',
    key: { sum: both(from('Ridge Mobile'), during('2025-07-01', '2099-01-01')) },
  },
  { q: 'How much council tax did we pay in 2025?', key: { sum: both(from('Marchmont Council'), year(2025)) } },
  { q: 'What did we pay our accountants in 2023?', key: { sum: both(from('Tillage & Co Accountants'), year(2023)) } },
  { q: 'What were the costs for stalls in 2025?', key: { sum: both(billsOf('Harvest Market Office'), year(2025)) } },
  {
    q: 'How much did food cost in March 2026?',
    key: { sum: both(from('Green Lane Stores'), during('2026-03-01', '2026-03-31')) },
  },
  { q: 'What do we pay Saltmarsh Power on average?', key: { average: from('Saltmarsh Power') } },
  { q: 'What is the highest bill from Saltmarsh Power?', key: { most: from('Saltmarsh Power') } },
  { q: 'What is the lowest invoice from Holtz?', key: { most: billsOf('Imkereibedarf Holtz'), least: true } },
  { q: 'How much was the last bill from Ridge Mobile?', key: { latest: from('Ridge Mobile') } },
  {
    q: 'Did we pay more for electricity in 2025 than in 2024?',
    key: { first: both(from('Saltmarsh Power'), year(2025)), second: both(from('Saltmarsh Power'), year(2024)) },
  },
  {
    q: 'Was postage cheaper in 2026 than in 2025?',
    key: { first: both(from('Parcelwise'), year(2026)), second: both(from('Parcelwise'), year(2025)) },
  },
  { q: 'When does the farm insurance expire?', key: { day: from('Farmers’ Shield'), fact: 'ends' } },
  { q: 'Until when is the farm insured?', key: { day: from('Farmers’ Shield'), fact: 'ends' } },
  { q: 'When do we have to pay the council tax?', key: { day: from('Marchmont Council'), fact: 'dueDate' } },
  { q: 'When did Hillbrook Water send the last bill?', key: { day: from('Hillbrook Water'), fact: 'date' } },
  {
    q: 'When was the first invoice from Apex Jars & Lids?',
    key: { day: from('Apex Jars & Lids'), fact: 'date', which: 'first' },
  },
  { q: 'What is our customer number at Apex Jars & Lids?', key: { value: 'customer', of: from('Apex Jars & Lids') } },
  { q: 'What is the policy number of the farm insurance?', key: { value: 'policy', of: from('Farmers’ Shield') } },
  { q: 'What is the account number of Moss Bank?', key: { value: 'iban', of: from('Moss Bank') } },
  {
    q: 'How many invoices from Dunmore Fuels are there in 2025?',
    key: { count: both(from('Dunmore Fuels'), year(2025)) },
  },
  { q: 'How many statements from Moss Bank do we have?', key: { count: from('Moss Bank') } },
  {
    q: 'How many letters came from the school in 2025?',
    key: { count: both(from('St Brede School'), kind('letter'), year(2025)) },
  },
  { q: 'Which invoices from Apex are over 250 pounds?', key: { papers: both(from('Apex Jars & Lids'), over(25_000)) } },
  {
    q: 'Which receipts from Green Lane Stores are under 5 pounds?',
    key: { papers: both(from('Green Lane Stores'), under(500)) },
  },
  { q: 'Which reminders did we get?', key: { papers: kind('reminder') } },
  { q: 'Which papers are in the folder Queens?', key: { papers: inFolder('Honey/Queens') } },
  { q: 'Show all quotes from Holtz', key: { papers: both(from('Imkereibedarf Holtz'), kind('quote')) } },
  {
    q: 'How much did the labels cost in 2026?',
    key: { lines: /labels/i, of: both(billsOf('Apex Jars & Lids'), year(2026)) },
  },
  {
    q: 'What did we pay for vaccinations in 2025?',
    key: { lines: /vaccination/i, of: both(from('Wagtail Vets'), year(2025)) },
  },
  { q: 'Who did we pay the most in 2025?', key: { whoMost: year(2025) } },
  { q: 'Which suppliers sent us reminders?', key: { who: kind('reminder') } },
  {
    q: 'How much VAT did we pay to Apex in 2025?',
    key: { sum: both(from('Apex Jars & Lids'), year(2025)), field: 'tax' },
  },
  {
    q: 'What is the net total of the invoices from Wagtail Vets in 2025?',
    key: { sum: both(from('Wagtail Vets'), year(2025)), field: 'net' },
  },
  { q: 'Wie viel haben wir 2024 für Strom bezahlt?', key: { sum: both(from('Saltmarsh Power'), year(2024)) } },
  { q: 'Wie hoch waren die Kosten für Wasser im Jahr 2025?', key: { sum: both(from('Hillbrook Water'), year(2025)) } },
  { q: 'Wann läuft die Versicherung ab?', key: { day: from('Farmers’ Shield'), fact: 'ends' } },
  { q: 'Wie viele Angebote haben wir von Holtz?', key: { count: both(from('Imkereibedarf Holtz'), kind('quote')) } },
  {
    q: 'Was kosteten die Mittelwände 2025?',
    key: { lines: /mittelwände/i, of: both(billsOf('Imkereibedarf Holtz'), year(2025)) },
  },
  { q: 'Welche Belege von Parcelwise sind über 25 Pfund?', key: { papers: both(from('Parcelwise'), over(2500)) } },
  { q: 'Von wem kommen die Mahnungen?', key: { who: kind('reminder') } },
  {
    q: 'Combien avons-nous dépensé chez Apiculture du Midi en 2026 ?',
    key: { sum: both(from('Apiculture du Midi'), year(2026)) },
  },
  { q: 'Quand expire l’assurance de la ferme ?', key: null },
  {
    q: 'Combien de factures avons-nous reçues de Holtz en 2025 ?',
    key: { count: both(billsOf('Imkereibedarf Holtz'), year(2025)) },
  },
  { q: 'Quel est le total des factures d’eau en 2024 ?', key: { sum: both(from('Hillbrook Water'), year(2024)) } },
  { q: 'Quelle est la facture la plus chère d’Apiculture du Midi ?', key: { most: from('Apiculture du Midi') } },
  { q: 'How many bees are in a hive?', key: null },
  { q: 'What did we earn from honey in 2025?', key: null },
  { q: 'When is the next market?', key: null },
  { q: 'How much did we pay for candles?', key: null },
  { q: 'Who is the head of the school?', key: null },
  { q: 'Where are the jars?', key: null },
  { q: 'When does the school holiday begin?', key: null },
  { q: 'How much electricity did we use in 2025?', key: null },
  { q: 'What is the interest rate at Moss Bank?', key: null },
  { q: 'Which of our hives is the best?', key: null },
  { q: 'Has the water bill been paid?', key: null },
  { q: 'Wie heißt der Tierarzt?', key: null },
  { q: 'Wie viel Honig haben wir verkauft?', key: null },
  { q: 'Wann wurde der Stall gebaut?', key: null },
  { q: 'Combien coûte un pot de miel ?', key: null },
  { q: 'Quel temps fera-t-il demain ?', key: null },
];
