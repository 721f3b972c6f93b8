/** Which way money goes that is entered under a category. */
export type CategorySide = 'cost' | 'income';

/** A category that the books begin with. */
export interface FirstCategory {
  name: string;
  side: CategorySide;
  /** What stands on papers that belong under it, in English, German and French, folded: a proposal until a sender has a usual one. */
  words: string;
}

/** What a small trade and a household begin with; the owner changes it. */
export const FIRST_CATEGORIES: readonly FirstCategory[] = [
  {
    name: 'Materials',
    side: 'cost',
    words: 'yarn yarns wool material materials garn garne wolle stoff laine fil',
  },
  {
    name: 'Work by others',
    side: 'cost',
    words: 'dye dyeing dyer finishing repair farberei reparatur teinture',
  },
  { name: 'Tools and equipment', side: 'cost', words: 'tool tools machine equipment werkzeug maschine outil outils' },
  {
    name: 'Post and carriage',
    side: 'cost',
    words: 'parcel parcels courier carriage postage post paket porto fracht colis',
  },
  { name: 'Fairs and selling', side: 'cost', words: 'fair market stall pitch stand messe markt foire marche' },
  { name: 'Rent', side: 'cost', words: 'rent lease premises miete pacht loyer bail' },
  {
    name: 'Energy and water',
    side: 'cost',
    words: 'energy electricity gas water kwh strom wasser energie electricite eau',
  },
  { name: 'Insurance', side: 'cost', words: 'insurance policy premium versicherung police beitrag assurance prime' },
  { name: 'Phone and internet', side: 'cost', words: 'phone telephone mobile broadband internet telefon mobilfunk' },
  { name: 'Office', side: 'cost', words: 'stationery paper printing office toner papier buro bureau papeterie' },
  { name: 'Travel', side: 'cost', words: 'train ticket hotel fuel fare parking bahn fahrkarte taxi billet essence' },
  {
    name: 'Fees and advice',
    side: 'cost',
    words: 'accountant solicitor fee bank advice steuerberater gebuhr honoraire frais',
  },
  { name: 'Rates and taxes', side: 'cost', words: 'council rates tax authority finanzamt gemeinde impot mairie' },
  { name: 'House', side: 'cost', words: 'boiler plumber roof garden heizung dach chaudiere jardin' },
  { name: 'Health', side: 'cost', words: 'dentist doctor optician pharmacy zahnarzt arzt apotheke pharmacie' },
  { name: 'Animals', side: 'cost', words: 'vet veterinary tierarzt veterinaire' },
  { name: 'School', side: 'cost', words: 'school nursery lessons schule kita ecole cantine' },
  { name: 'Other costs', side: 'cost', words: '' },
  { name: 'Sales', side: 'income', words: 'sale sales commission verkauf vente' },
  { name: 'Other income', side: 'income', words: '' },
];

const fold = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').replace(/ß/g, 'ss').toLowerCase();

/** What a German compound ends with says what it is: Schurwolle is wool. */
const isCompoundOf = (word: string, known: string): boolean =>
  known.length >= 4 && word.length >= known.length + 3 && word.endsWith(known);

/**
 * The category whose words stand on a paper most often.
 * @param said who it is from, what it is about, what it lists
 * @returns its place in the list and the word that told it; nothing where none stands there
 */
export function categoryByWords(
  said: string,
  categories: readonly Pick<FirstCategory, 'words'>[],
): { at: number; word: string } | undefined {
  const words = fold(said).split(/[^\p{L}\p{N}]+/u);
  let best: { at: number; word: string; times: number } | undefined;
  for (const [at, category] of categories.entries()) {
    const known = category.words.split(' ').filter(Boolean);
    const found = words.filter((word) => known.some((each) => word === each || isCompoundOf(word, each)));
    if (found.length > (best?.times ?? 0)) best = { at, word: found[0], times: found.length };
  }
  return best && { at: best.at, word: best.word };
}
