import { Random, Vocabulary } from './books';

const number = (digits: number) => (random: Random) =>
  String(Math.floor(random() * 10 ** digits)).padStart(digits, '0');
const run = (prefix: string, width: number) => (_: Random, counted: number, year: number) =>
  `${prefix}${year}-${String(counted % 10 ** width).padStart(width, '0')}`;

/** Names made of parts, all of them invented. */
function names(
  firsts: readonly string[],
  seconds: readonly string[],
  ends: readonly string[],
  count: number,
): string[] {
  return Array.from({ length: count }, (_, at) =>
    [
      firsts[at % firsts.length],
      seconds[(at * 7 + Math.floor(at / firsts.length)) % seconds.length],
      ends[at % ends.length],
    ]
      .filter(Boolean)
      .join(' '),
  );
}

/** Looked at while the rules were written. */
export const KNOWN: Vocabulary = {
  suppliers: names(
    [
      'Harbour',
      'Marlowe',
      'Spinnerei',
      'Teinturerie',
      'Ottery',
      'Halden',
      'Grünau',
      'Quillmoor',
      'Brücken',
      'Sable',
      'Fenwick',
      'Lindner',
    ],
    [
      'Fibre Mill',
      'Dye Works',
      'Wiesengrund',
      'du Port',
      'Combing',
      'Yarns',
      'Färberei',
      'Looms',
      'Druckerei',
      'Paper',
    ],
    ['Ltd', 'GmbH', '', 'SARL', 'KG', ''],
    60,
  ),
  customers: names(
    ['Kern', 'Avery', 'Besson', 'Thorne', 'Müller', 'Okafor', 'Lund'],
    ['Interiors', 'Galerie', 'Stores', 'Hotel', 'Museum'],
    ['Ltd', '', 'AG'],
    25,
  ),
  others: [
    'Ada Wren',
    'Bo Quay',
    'Cy Marsh',
    'Bakery Corner',
    'Fuel Stop',
    'Rail Tickets',
    'Corner Grocer',
    'Book Nook',
    'City Parking',
    'Pharmacy North',
  ],
  numbers: [
    run('RE-', 4),
    number(6),
    (random, counted) => `HF/${counted}/${number(2)(random)}`,
    run('', 5),
    (random) => `INV${number(7)(random)}`,
  ],
  purposes: [
    (said) => `Invoice ${said}`,
    (said) => `RG.-NR. ${said}`,
    (said) => said,
    (said) => `Rechnung ${said} vielen Dank`,
  ],
  currency: 'EUR',
  foreign: 'GBP',
};

/** Only measured. */
export const ASIDE: Vocabulary = {
  suppliers: names(
    [
      'Tollgate',
      'Pemberly',
      'Ashcombe',
      'Brightwater',
      'Calder',
      'Dunmore',
      'Eastwick',
      'Foxglove',
      'Greystone',
      'Hollins',
      'Inver',
      'Juniper',
      'Kestrel',
    ],
    [
      'Plumbing',
      'Catering',
      'Stationers',
      'Couriers',
      'Electrical',
      'Joinery',
      'Accountants',
      'Textiles',
      'Print',
      'Signage',
      'Packaging',
    ],
    ['Limited', 'plc', '& Sons', 'LLP', ''],
    80,
  ),
  customers: names(
    ['Norrland', 'Vasquez', 'Petit', 'Olsen', 'Brandt', 'Rossi', 'Novak', 'Silva'],
    ['Design', 'Trading', 'Schools', 'Clinic', 'Events'],
    ['', 'Inc', 'LLC'],
    30,
  ),
  others: [
    'Nia Cole',
    'Tam Reid',
    'Lena Fox',
    'Espresso Point',
    'Night Bus',
    'Garden World',
    'Toll Road',
    'Cloud Storage',
    'Gym Central',
    'Cinema Four',
    'Post Desk',
  ],
  numbers: [
    number(5),
    (random) => `${number(3)(random)}-${number(4)(random)}`,
    (_, counted) => `SI${String(counted).padStart(6, '0')}`,
    (_, counted, year) => `${String(year).slice(2)}/${counted}`,
  ],
  purposes: [(said) => `REF ${said}`, (said) => `BILL ${said} BACS`, (said) => `FPO ${said}`, (said) => `/RFB/${said}`],
  currency: 'GBP',
  foreign: 'USD',
};

/** Only measured, of another language. */
export const FRESH: Vocabulary = {
  suppliers: names(
    [
      'Maison',
      'Atelier',
      'Établissements',
      'Société',
      'Imprimerie',
      'Menuiserie',
      'Garage',
      'Librairie',
      'Boulangerie',
    ],
    [
      'Lefèvre',
      'Côte Vermeille',
      'des Halles',
      'Dubreuil',
      'Montclair',
      'Saint-Aubin',
      'Garnier',
      'Perrault',
      'Vauquelin',
      'Hérault',
      'Bréchet',
    ],
    ['SARL', 'SAS', '', 'et Fils', 'SA'],
    70,
  ),
  customers: names(
    ['Hôtel', 'Mairie', 'Lycée', 'Clinique', 'Galerie'],
    ['du Lac', 'Beauregard', 'Chantemerle', 'Roche', 'Saint-Clair', 'Bellevue'],
    [''],
    28,
  ),
  others: [
    'Paul Aubry',
    'Rose Denis',
    'Luc Morel',
    'Péage Nord',
    'Station Bleue',
    'Fleurs Anna',
    'Presse Gare',
    'Café Central',
    'Opticien Vue',
  ],
  numbers: [
    run('F', 3),
    (_, counted, year) => `${year}${String(counted).padStart(4, '0')}`,
    (random) => `FA-${number(4)(random)}-${number(2)(random)}`,
    number(8),
  ],
  purposes: [
    (said) => `FACTURE ${said}`,
    (said) => `VIR SEPA ${said}`,
    (said) => `REGLEMENT ${said}`,
    (said) => `MOTIF: FACT ${said}`,
  ],
  currency: 'EUR',
  foreign: 'CHF',
};
