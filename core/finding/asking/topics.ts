/**
 * What papers are about, as people name it: words of one meaning in English, German and French (small letters, no accents), and
 * what narrower topics belong to a wider one. General knowledge of what households and small businesses pay for.
 */
interface Topic {
  words: string;
  /** Topics that are part of it. */
  holds?: string[];
}

const TOPICS: Record<string, Topic> = {
  energy: { words: 'energy energie energies energiekosten', holds: ['electricity', 'gas', 'heating'] },
  electricity: { words: 'electricity electric power strom elektrizitat electricite' },
  gas: { words: 'gas erdgas gaz' },
  heating: { words: 'heating heizung heiz fernwarme heizol chauffage kerosene fioul mazout' },
  water: { words: 'water wasser eau sewerage abwasser' },
  rent: { words: 'rent miete miet mieten loyer lease pacht lettings landlord vermieter proprietaire bail' },
  insurance: { words: 'insurance cover coverage insurer versicherung assurance assureur underwriting underwriters' },
  liability: { words: 'liability haftpflicht responsabilite' },
  contents: { words: 'contents hausrat mobilier' },
  buildings: { words: 'building buildings gebaude wohngebaude batiment immeuble' },
  communication: { words: 'telecommunication telekommunikation', holds: ['phone', 'internet'] },
  phone: { words: 'phone telephone mobile telecom telefon handy mobilfunk telephonie portable' },
  internet: { words: 'internet broadband breitband dsl fibre glasfaser' },
  council: { words: 'council municipality gemeinde stadtverwaltung mairie commune rates' },
  post: { words: 'post postage parcel shipping courier porto paket pakete versand poste colis affranchissement' },
  vet: { words: 'vet veterinary veterinarian tierarzt tierarztin tierarztpraxis veterinaire' },
  health: { words: 'health medical gesundheit sante', holds: ['doctor', 'dentist', 'pharmacy'] },
  doctor: { words: 'doctor physician arzt arztin arztpraxis medecin' },
  dentist: { words: 'dentist dental zahnarzt zahnarztin zahnarztpraxis dentiste dentaire' },
  pharmacy: { words: 'pharmacy chemist apotheke pharmacie' },
  school: { words: 'school schule ecole tuition schulgeld' },
  car: { words: 'car vehicle auto kfz fahrzeug voiture vehicule', holds: ['fuel', 'garage'] },
  garage: { words: 'garage werkstattrechnung autowerkstatt' },
  fuel: { words: 'fuel fuels kraftstoff tanken tankstelle carburant', holds: ['petrol', 'diesel'] },
  petrol: { words: 'petrol gasoline benzin essence' },
  diesel: { words: 'diesel gazole gasoil' },
  travel: {
    words: 'travel travelling reise reisen reisekosten voyage voyages deplacement',
    holds: ['rail', 'hotel', 'flight', 'taxi'],
  },
  rail: { words: 'rail railway train trains bahn zug zugfahrt fahrkarten chemin de fer' },
  hotel: { words: 'hotel hotels lodging accommodation unterkunft ubernachtung hebergement' },
  flight: { words: 'flight flights airline flug fluge vol vols' },
  taxi: { words: 'taxi taxis cab' },
  food: {
    words: 'food grocery groceries grocer grocers lebensmittel essen alimentation nourriture',
    holds: ['bakery', 'restaurant'],
  },
  bakery: { words: 'bakery baker bakers backerei boulangerie' },
  restaurant: { words: 'restaurant restaurants cafe gasthaus gaststatte' },
  stationery: { words: 'stationery stationer burobedarf schreibwaren papeterie' },
  bank: { words: 'bank banking banque' },
  guarantee: { words: 'guarantee guaranteed warranty garantie gewahrleistung' },
  fair: { words: 'fair fairs messe messen foire foires salon' },
  yarn: { words: 'yarn yarns garn garne fil filature spinnerei spinning' },
  dyeing: { words: 'dye dyeing dyes farben farberei teinture teinturerie' },
  accounting: {
    words:
      'accountant accountants accounting accountancy bookkeeper bookkeeping steuerberater steuerberatung buchhaltung comptable comptabilite',
  },
  software: { words: 'software hosting licence lizenz logiciel' },
  waste: { words: 'waste rubbish refuse mull abfall entsorgung dechets ordures' },
  cleaning: { words: 'cleaning cleaner reinigung nettoyage' },
  repair: { words: 'repair repairs reparatur reparaturen reparation reparations' },
  tools: { words: 'tool tools werkzeug werkzeuge outil outils' },
  membership: { words: 'membership subscription mitgliedschaft mitgliedsbeitrag abonnement abo cotisation' },
  clothes: { words: 'clothes clothing kleidung vetements' },
  books: { words: 'book books buch bucher livre livres' },
  garden: { words: 'garden gardening garten jardin' },
  boat: { words: 'boat boot bateau' },
  house: { words: 'house haus maison' },
  maintenance: { words: 'maintenance wartung entretien servicing' },
  delivery: { words: 'delivery deliveries lieferung lieferungen livraison livraisons carriage freight fracht' },
  packaging: { words: 'packaging verpackung verpackungen emballage emballages' },
  advertising: { words: 'advertising adverts werbung publicite' },
  printing: { words: 'printing printer printers druck druckerei impression imprimerie' },
  furniture: { words: 'furniture mobel meuble meubles' },
  bicycle: { words: 'bicycle bicycles bike bikes fahrrad fahrrader velo velos' },
  tyres: { words: 'tyre tyres tire tires reifen pneu pneus' },
  parking: { words: 'parking parken parkhaus stationnement' },
  childcare: { words: 'childcare nursery creche kindergarten kita kindertagesstatte' },
  legal: {
    words: 'legal lawyer lawyers solicitor solicitors anwalt anwaltin kanzlei notary notar avocat avocate notaire',
  },
  newspaper: { words: 'newspaper newspapers magazine zeitung zeitschrift journal' },
  sports: { words: 'gym fitness sport sports sportverein' },
  taxes: { words: 'taxes finanzamt impots fisc' },
  loan: { words: 'loan loans mortgage kredit darlehen hypothek pret emprunt' },
  pension: { words: 'pension rente retraite' },
  wages: { words: 'wages salary salaries lohn gehalt gehalter salaire salaires' },
  boiler: { words: 'boiler heizkessel therme chaudiere' },
};

const topicsOf = new Map<string, string[]>();
for (const [name, { words }] of Object.entries(TOPICS))
  for (const word of words.split(' ')) topicsOf.set(word, [...(topicsOf.get(word) ?? []), name]);

/** What a word means besides itself: the words of its topic, and of what belongs to that. */
export function wordsMeaning(word: string): string[] {
  const found = new Set([word]);
  for (const name of topicsOf.get(word) ?? topicsOf.get(stemOf(word)) ?? [])
    for (const each of [name, ...(TOPICS[name].holds ?? [])])
      for (const same of TOPICS[each].words.split(' ')) found.add(same);
  return [...found];
}

/** Whether a word names something that people pay for in general, rather than a thing or a name. */
export function isTopic(word: string): boolean {
  return topicsOf.has(word) || topicsOf.has(stemOf(word));
}

/** A word without its usual endings, as far as needed to see that two are the same word: first that of many, then the others. */
export function stemOf(word: string): string {
  const one = word.replace(/ies$/, 'y').replace(/(?<=\p{L}{3})(?<!s)s$/u, '');
  const single = /^(?:shel|hal|cal|sel|loa|kni|wi|li|lea|wol)ves$/.test(word) ? word.replace(/ves$/, 'f') : '';
  if (single) return single;
  // What lets rooms writes no letters.
  if (one === 'letter') return one;
  return one.replace(/(?<=\p{L}{4})(ing|ed|en|er|n)$/u, '').replace(/(?<=\p{L}{3})e+$/u, '');
}

/** Ends of German words that say what a paper is, not what it is about: “Stromrechnung” is about “Strom”. */
const HEADS =
  /^(\p{L}{3,}?)s?(rechnung|rechnungen|vertrag|vertrage|versicherung|beitrag|beitrage|gebuhr|gebuhren|kosten|abrechnung|bescheid|quittung|beleg|belege|lieferung|steuer|preis|abschlag)$/u;

/** The part of a word that says what it is about, where it is put together with one that says what it is. */
export function partsOf(word: string): string[] {
  const found = HEADS.exec(word);
  return found ? [found[1], found[2]] : [word];
}
