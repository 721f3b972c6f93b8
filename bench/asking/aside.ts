import { both, during, from, inFolder, kind, over, Question, under, year } from './key';

const FOOD = inFolder('Home/Food');

/** Questions that were written before the rules, and only measured. */
export const ASIDE: Question[] = [
  {
    q: 'What have we paid for broadband so far this year?',
    key: { sum: both(from('Wire & Wave Broadband'), year(2026)) },
  },
  { q: 'Groceries in 2025, how much in all?', key: { sum: both(FOOD, year(2025)) } },
  {
    q: 'Sum of the Tidemark Grocers receipts between March and May 2026',
    key: { sum: both(from('Tidemark Grocers'), during('2026-03-01', '2026-05-31')) },
  },
  { q: 'What did diesel cost us in 2024?', key: { sum: both(from('Fenwick Fuels'), year(2024)) } },
  {
    q: 'How much went to Ashby & Lowe Accountants in the last two years?',
    key: { sum: both(from('Ashby & Lowe Accountants'), during('2024-11-28', '2026-11-28')) },
  },
  {
    q: 'our spending on postage in October 2026',
    key: { sum: both(from('Tern Parcels'), during('2026-10-01', '2026-10-31')) },
  },
  { q: 'Wieviel ging 2025 an die Lantern Telecom?', key: { sum: both(from('Lantern Telecom'), year(2025)) } },
  {
    q: 'Was haben wir im zweiten Quartal 2026 beim Tierarzt ausgegeben?',
    key: { sum: both(from('Bracken Veterinary Practice'), during('2026-04-01', '2026-06-30')) },
  },
  {
    q: 'Quel montant avons-nous dépensé pour le téléphone en 2025 ?',
    key: { sum: both(from('Lantern Telecom'), year(2025)) },
  },
  { q: 'Combien nous a coûté l’Hôtel du Phare ?', key: { sum: from('Hôtel du Phare') } },
  {
    q: 'How much is the council tax for 2026?',
    key: { sum: both(from('Orrin Harbour Council'), kind('notice'), year(2026)) },
  },
  {
    q: 'Total VAT on receipts from Gull & Wren Stationery, 2026',
    key: { sum: both(from('Gull & Wren Stationery'), kind('receipt'), year(2026)), field: 'tax' },
  },
  // There are only quotes of that year.
  { q: 'How much did Loom & Reed Makers charge before tax in 2024?', key: null },
  { q: 'What did we pay the dentist last year?', key: { sum: both(from('Dr. Ines Okafor'), year(2025)) } },
  {
    q: 'How much for water since June 2025?',
    key: { sum: both(from('Orrin Water'), during('2025-06-01', '2099-12-31')) },
  },
  {
    q: 'How much was our most recent bill from Lantern Telecom?',
    key: { latest: both(from('Lantern Telecom'), kind('invoice')) },
  },
  {
    q: 'À combien s’élève la dernière facture de Filature du Val ?',
    key: { latest: both(from('Filature du Val'), kind('invoice')) },
  },
  {
    q: 'Number of receipts from Corner Bakehouse in 2026',
    key: { count: both(from('Corner Bakehouse'), kind('receipt'), year(2026)) },
  },
  {
    q: 'How many delivery notes did Marlowe send in 2024?',
    key: { count: both(from('Marlowe Dye Works'), kind('delivery note'), year(2024)) },
  },
  { q: 'Wie oft hat uns Marlowe gemahnt?', key: null },
  { q: 'Anzahl der Belege von Fenwick Fuels 2025', key: { count: both(from('Fenwick Fuels'), year(2025)) } },
  {
    q: 'Combien de billets de Coast Line Railway cette année ?',
    key: { count: both(from('Coast Line Railway'), kind('ticket'), year(2026)) },
  },
  {
    q: 'What date does our broadband agreement run out?',
    key: { day: both(from('Wire & Wave Broadband'), kind('contract')), fact: 'ends' },
  },
  { q: 'Bis wann gilt die Garantie für die Heizung?', key: null },
  {
    q: 'Wann läuft die Versicherung bei Alder Mutual ab?',
    key: { day: both(from('Alder Mutual'), (p) => p.ends !== null), fact: 'ends' },
  },
  {
    q: 'By when must the Quayside Lettings invoice be paid?',
    key: { day: both(from('Quayside Lettings'), kind('invoice')), fact: 'dueDate' },
  },
  {
    q: 'Quelle est l’échéance de la facture de Craft Fair Holm ?',
    key: { day: both(from('Craft Fair Holm'), kind('invoice')), fact: 'dueDate' },
  },
  {
    q: 'When did Saint Ebba School last write?',
    key: { day: both(from('Saint Ebba School'), kind('letter')), fact: 'date' },
  },
  {
    q: 'What is the date of the newest quote from Loom & Reed?',
    key: { day: both(from('Loom & Reed Makers'), kind('quote')), fact: 'date' },
  },
  { q: 'Do we have a certificate for the boiler?', key: { papers: both(from('Hearth & Flue'), kind('certificate')) } },
  { q: 'Find credit notes from Marlowe', key: { papers: both(from('Marlowe Dye Works'), kind('credit note')) } },
  {
    q: 'bills from the garage above 400',
    key: { papers: both(from('Penrose Garage'), kind('invoice'), over(40_000)) },
  },
  {
    q: 'Rechnungen der Stadtwerke Rosenau aus dem Jahr 2025',
    key: { papers: both(from('Stadtwerke Rosenau'), kind('invoice'), year(2025)) },
  },
  { q: 'Gibt es Angebote von Loom & Reed Makers?', key: { papers: both(from('Loom & Reed Makers'), kind('quote')) } },
  {
    q: 'Quelles factures de Spinnerei Wiesengrund dépassent 400 euros ?',
    key: { papers: both(from('Spinnerei Wiesengrund'), kind('invoice'), over(40_000)) },
  },
  {
    q: 'statements of the Merchant Bank of Orrin from 2024',
    key: { papers: both(from('Merchant Bank of Orrin'), kind('statement'), year(2024)) },
  },
  {
    q: 'What falls due between 1 and 15 December 2026?',
    key: { papers: during('2026-12-01', '2026-12-15', 'dueDate') },
  },
  {
    q: 'Receipts from Tern Parcels less than 5 pounds in 2026',
    key: { papers: both(from('Tern Parcels'), kind('receipt'), year(2026), under(500)) },
  },
  { q: 'To whom did we pay the most for food in 2026?', key: { whoMost: both(FOOD, year(2026)) } },
  { q: 'An wen ging 2024 am meisten Geld?', key: { whoMost: year(2024) } },
  { q: 'From whom are there quotes?', key: { who: kind('quote') } },
  { q: 'Dearest purchase at Tidemark Grocers in 2025?', key: { most: both(from('Tidemark Grocers'), year(2025)) } },
  {
    q: 'Was war die teuerste Rechnung vom Tierarzt?',
    key: { most: both(from('Bracken Veterinary Practice'), kind('invoice')) },
  },
  {
    q: 'Smallest invoice from Saltgate Yarns this year',
    key: { most: both(from('Saltgate Yarns'), kind('invoice'), year(2026)), least: true },
  },
  {
    q: 'Which customer number do we have at Lantern Telecom?',
    key: { value: 'customer', of: from('Lantern Telecom') },
  },
  {
    q: 'Quel est le numéro de contrat de Wire & Wave Broadband ?',
    key: { value: 'policy', of: both(from('Wire & Wave Broadband'), (p) => p.policy !== null) },
  },
  {
    q: 'What reference goes with the council tax?',
    key: { value: 'reference', of: both(from('Orrin Harbour Council'), (p) => p.reference !== null) },
  },
  {
    q: 'Was parcel post dearer in 2025 than in 2024?',
    key: { first: both(from('Tern Parcels'), year(2025)), second: both(from('Tern Parcels'), year(2024)) },
  },
  {
    q: 'Compare what we paid Corner Bakehouse in 2024 and 2025',
    key: { first: both(from('Corner Bakehouse'), year(2024)), second: both(from('Corner Bakehouse'), year(2025)) },
  },
  {
    q: 'What did we spend on cheese in 2025?',
    key: { lines: /cheese/i, of: both(from('Tidemark Grocers'), year(2025)) },
  },
  // Nothing on the shelf says.
  { q: 'What was the bill from Thornapple Plumbing?', key: null },
  { q: 'How much did we give to charity in 2024?', key: null },
  { q: 'What did we pay Penrose Garage in 2018?', key: null },
  { q: 'How much do we still owe Saltgate?', key: null },
  { q: 'Has the rent for October been paid?', key: null },
  { q: 'What was the weather like at the fair?', key: null },
  { q: 'How many loaves of bread did we eat in 2025?', key: null },
  { q: 'Who delivered the loom?', key: null },
  { q: 'When is the next fair in Holm?', key: null },
  { q: 'What is the password of the broadband router?', key: null },
  { q: 'When will the vet be closed?', key: null },
  { q: 'How old is the boiler?', key: null },
  { q: 'Wie groß ist die Werkstatt?', key: null },
  { q: 'Was kostet ein Hund im Jahr?', key: null },
  { q: 'Wie viele Mitarbeiter hat Marlowe?', key: null },
  { q: 'Wann hat der Zahnarzt geöffnet?', key: null },
  { q: 'Combien de kilomètres avons-nous parcourus ?', key: null },
  { q: 'Quelle est l’adresse du garage ?', key: null },
  { q: 'Should we change our energy supplier?', key: null },
  { q: 'How much profit did we make in 2025?', key: null },
  { q: 'What is the IBAN of Tern Parcels?', key: null },
  { q: 'When does our lease of the workshop end?', key: null },
  { q: 'Which invoices were paid late?', key: null },
];
