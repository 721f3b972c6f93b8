import { fold } from '../reading/facts/rows';

/** What papers of a household or a small business are about, as far as folders are called after it. */
interface Topic {
  /** As it is said in a reason: “It is about school”. */
  name: string;
  /** What a new folder for it is called. */
  called: string;
  /** Words of a folder's name (folded). */
  folder: RegExp;
  /** Words that such papers hold (folded). */
  said: RegExp;
}

const topic = (name: string, called: string, folder: string, said: string): Topic => ({
  name,
  called,
  folder: new RegExp(`^(?:${folder})$`),
  said: new RegExp(`^(?:${said})$`),
});

/** In English, German and French; what a trade works with is learnt from the papers that were filed. */
const TOPICS: Topic[] = [
  topic(
    'energy',
    'Energy',
    'energy|electricity|power|gas|heating|utilities|strom|energie|heizung|electricite|chauffage',
    'kwh|kilowatt\\w*|electric(?:ity)?|energy|tariffs?|meters?|strom\\w*|\\w{3,}strom|erdgas|energie\\w*|zahlerst\\w*|\\w*verbrauch|heizol|electricite|compteur|gaz|propane|heating',
  ),
  topic(
    'water',
    'Water',
    'water|utilities|wasser|eaux?|drainage',
    'water|sewage|sewerage|drainage|wastewater|\\w*wasser|wasser\\w+|eaux?|assainissement',
  ),
  topic(
    'taxes and what the council does',
    'Council',
    'council|tax|taxes|rates|steuern?|impots|gemeinde|stadt|behorden?',
    'council|borough|rates?payer|rates|taxpayer|precept|finanzamt|\\w*steuerbescheid|grundsteuer|gemeinde\\w*|landkreis|\\w{4,}bescheid|widerspruch|mairie|impots?|imposition|communaute|waste|collection|abfall\\w*|mull\\w*',
  ),
  topic(
    'school',
    'School',
    'schools?|kids|children|nursery|kita|schule|kinder|ecole|enfants|education',
    'schools?|pupils?|headteacher|teachers?|nursery|childcare|schul\\w*|\\w{4,}schule|schuler\\w*|kita|\\w*kindergarten|kindertages\\w*|betreuung\\w*|mittagessen|elternbeitrag|eltern|ecole|college|scolaires?|cantine|garderie|eleves?|classe|parents',
  ),
  topic(
    'animals',
    'Animals',
    'animals?|pets?|vets?|dogs?|cats?|tiere?|tierarzt|animaux|hund|katze',
    'vets?|veterinary|cats?|dogs?|kitten|puppy|kennels?|cattery|paws?|worming|microchip|tierarzt\\w*|tierklinik|\\w*tierpraxis|kleintier\\w*|besitzer|halter|hunde?|katzen?|veterinaire|chiens?|chats?|animals?|croquettes',
  ),
  topic(
    'health',
    'Health',
    'health|medical|doctors?|dentist|gesundheit|arzt|arzte|sante|medecin',
    'patients?|dentist|dental|doctor|clinic|prescription|physio\\w*|optician|hospital|medical|zahn\\w*|arzt\\w*|arztin|\\w+praxis|apotheke|rezept\\w*|krankenkasse|behandlung\\w*|medecin|ordonnance|pharmacie|kinesitherapie|dentaires?|lunettes|soins',
  ),
  topic(
    'insurance',
    'Insurance',
    'insurances?|versicherung(?:en)?|assurances?',
    'policy|policyholder|premium|insur(?:ed|er|ance)|underwritten|excess|versicherung\\w*|\\w+versicherung|versichert\\w*|schaden\\w*|selbstbehalt|assurances?|assures?|primes?|sinistres?',
  ),
  topic(
    'rent',
    'Rent',
    'rent|lease|landlord|tenancy|premises|miete|wohnung|loyers?|logement',
    'rent|landlord|tenants?|tenancy|lease|letting|miete|mieter\\w*|\\w*miete|vermieter\\w*|nebenkosten\\w*|betriebskosten\\w*|hausverwaltung|loyers?|locataire|bailleur|locative',
  ),
  topic(
    'repairs in the house',
    'House',
    'house|repairs?|maintenance|haus|handwerker|renovation|maison|travaux',
    'plumb\\w+|boilers?|roof\\w*|gutter\\w*|plaster\\w*|electrician|locksmiths?|lock|joiner\\w*|carpent\\w+|painter|painting|chimney|repairs?|fitted|schornstein\\w*|kaminkehr\\w*|dach\\w*|maler\\w*|fenster\\w*|heizung\\w*|sanitar\\w*|klempner\\w*|montage|wartung|reparatur\\w*|monteur\\w*|plombier|plomberie|chaudiere|toiture|serrurier|depannage',
  ),
  topic(
    'telephone and internet',
    'Telephone',
    'tele(?:phones?|coms?)|phones?|internet|broadband|mobiles?|telefon|handy',
    'broadband|fibre|calls|sim|roaming|internet|router|wifi|minutes|mobilfunk\\w*|festnetz|dsl|glasfaser|telekom\\w*|forfait|telephonie|fixe',
  ),
  topic(
    'postage',
    'Postage',
    'postage|post|shipping|parcels?|couriers?|carriage|porto|versand|pakete?|poste|colis',
    'parcels?|postage|tracked|couriers?|shipments?|posting|stamps?|paket\\w*|porto|einlieferung\\w*|sendungs?\\w*|briefmarken?|colis|affranchissement|recommande|waybill',
  ),
  topic(
    'travel',
    'Travel',
    'travel(?:ling)?|trips?|journeys?|transport|reisen?|fahrten|fahrtkosten|voyages?|deplacements?|hotels?|parking',
    'hotel|guests?|ferry|ferries|sailing|train|rail|railway|journey|passengers?|departure|parking|parkhaus|parkschein|taxi|flight|toll|boarding|fahrkarte|bahn|ruckfahrt|hinfahrt|ubernachtung\\w*|gleis|gare|voyageurs?|peage|stationnement|nights?|einfahrt|ausfahrt|chambre',
  ),
  topic(
    'the car',
    'Car',
    'cars?|vans?|vehicles?|motoring|auto|fahrzeuge?|kfz|voitures?|vehicules?',
    'mot|vehicles?|mileage|tyres?|brakes?|fuel|petrol|diesel|unleaded|garage|kfz|kennzeichen|fahrzeug\\w*|kraftstoff|tankstelle|carburant|vehicule|pneus?|vidange|carrosserie|kilometrage|immatriculation',
  ),
  topic(
    'what is eaten',
    'Food',
    'food|groceries|meals?|restaurants?|catering|essen|lebensmittel|repas|bewirtung',
    'menus?|covers|restaurant|cafe|coffee|lunch|dinner|bread|milk|bakery|eggs|backerei|brot|kaffee|speisen|getranke|boulangerie|vins?|pain|couverts',
  ),
  topic(
    'fairs and markets',
    'Fairs',
    'fairs?|markets?|exhibitions?|shows?|messen?|markte?|salons?|foires?|marches?',
    'stalls?|stallholders?|pitch|exhibitors?|fairs?|markets?|marquee|standgebuhr|standplatz|standmiete|aussteller\\w*|\\w*markt|messe|kunsthandwerk\\w*|exposants?|foire|marche|salon|makers?',
  ),
  topic(
    'pay',
    'Pay',
    'wages|pay|payroll|salar(?:y|ies)|lohne?|gehalt|gehalter|paie|salaires?',
    'payslip|paye|gross|deductions|payroll|lohnsteuer|sozialversicherung|brutto|gehalt\\w*|bruttolohn|salaire|cotisations|employee',
  ),
  topic(
    'software and subscriptions',
    'Software',
    'software|subscriptions?|computers?|hosting|online|abos?|internet',
    'hosting|domains?|licen[cs]e|software|subscription|cloud|servers?|renewal|lizenz\\w*|hebergement|domaine',
  ),
  topic(
    'memberships and gifts',
    'Memberships',
    'memberships?|clubs?|associations?|guilds?|vereine?|donations?|charit(?:y|ies)|spenden|dons?',
    'membership|members?|guild|gilde|jahresbeitrag|mitgliedsbeitrag|society|association|verein|mitglied\\w*|spenden?|zuwendung\\w*|donation|donors?|charity|adhesion|adherents?',
  ),
  topic(
    'the garden',
    'Garden',
    'gardens?|allotment|plants|garten|jardin',
    'garden(?:s|ing)?|nursery|nurseries|plants?|seeds?|compost|bulbs|shrubs?|garten|gartenbau|kleingarten\\w*|pflanzen|blumenerde|jardin|jardinerie|plantes|terreau',
  ),
  topic(
    'culture and leisure',
    'Leisure',
    'culture|leisure|entertainment|cinema|theatre|museums?|freizeit|kultur|loisirs|sorties',
    'theatre|cinema|museum|concert|gallery|matinee|performance|kino|konzert|eintritt\\w*|vorstellung|musee|spectacle|entree',
  ),
  topic(
    'the law',
    'Law',
    'legal|law|courts?|lawyers?|recht|gericht|anwalt|notaire|justice',
    'court|solicitors?|notary|kassenzeichen|verfahrensgebuhr|klage|kanzlei|anwalt\\w*|rechtsanw\\w*|notar|tribunal|huissier|notaire|avocat',
  ),
  topic(
    'the bank',
    'Bank',
    'banks?|banking|konto|konten|banques?|bank statements',
    'overdraft|kontoauszug|kontostand|buchungstag|kontoinhaber|wertstellung|releve|decouvert|cardholder',
  ),
];

/** A word of the sender's name tells as much as so many others. */
const OF_SENDER = 2;
/** One word alone tells nothing, and more than so many tell no more. */
const [LEAST, MOST] = [2, 4];

/** What a paper is about, by a topic's name. */
export interface TopicTold {
  name: string;
  /** What a new folder for it is called. */
  called: string;
  /** From 2 to 4. */
  weight: number;
  /** The words that say so, as they stand among those of the paper. */
  words: string[];
}

/** What a paper is about. @param words on its first page, in small letters without accents, each once */
export function topicsOf({ vendor = '', words = [] }: { vendor?: string; words?: readonly string[] }): TopicTold[] {
  const ofSender = fold(vendor).split(/[^\p{L}]+/u);
  return TOPICS.flatMap(({ name, called, said }) => {
    const [inName, onPaper] = [ofSender, words].map((some) => [...new Set(some.filter((word) => said.test(word)))]);
    const others = onPaper.filter((word) => !inName.includes(word));
    const weight = Math.min(MOST, OF_SENDER * inName.length + others.length);
    return weight < LEAST ? [] : [{ name, called, weight, words: [...inName, ...others] }];
  });
}

/** What a folder is called after: its own name, or that of the folder of which it is a year. @param path such as `Home/School` */
export function topicsOfFolder(path: string): string[] {
  // “Home/Papers” is not about the house.
  const part = path.split('/').findLast((each) => /\p{L}/u.test(each)) ?? '';
  const words = fold(part).split(/[^\p{L}]+/u);
  return TOPICS.filter(({ folder }) => words.some((word) => folder.test(word))).map(({ name }) => name);
}
