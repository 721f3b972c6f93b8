import { Period, NotSaid, Understood, ValueFact } from './understood';
import { readPeriods } from './periods';
import { takeAmounts } from './takeAmounts';
import { capitalsIn, takeFolder, takeSenders } from './takeNames';
import { any, plainQuestion, Text } from './text';
import { isEmpty, kindNouns } from './words';

/** What names there are on the shelf. */
export interface ShelfNames {
  senders: readonly string[];
  folders: readonly string[];
  ownKinds: readonly string[];
}

/** Whether something was paid is not said by the paper that asks for it. */
const WHETHER_PAID = [
  any(
    'unpaid|overdue|outstanding|still owe|owe|owed|owing|unbezahlte?[snrm]?|uberfallige?[snrm]?|offene[snrm]?|offen|schulde|schulden|impayee?s?|dois|devons|doit',
  ),
  any('(?:has|have|is|are|was|were)(?: \\S+){0,8} (?:been |already |yet )*paid(?: yet| already)?$'),
  any(
    'already paid|not paid|paid (?:late|already|yet|on time)|schon bezahlt|bereits bezahlt|noch nicht bezahlt|deja payee?s?|pas (?:encore )?payee?s?',
  ),
  any('(?:ist|sind|wurde|wurden)(?: \\S+){0,8} bezahlt$'),
  any('(?:who|wer|qui)(?: \\S+){0,8} (?:paid|bezahlt|gezahlt|paye)$'),
];

/** When something was paid, and what others paid us or we were given, stand on no paper that asks for money. */
const PAID_WHEN = any('pay|paid|paying|bezahlt|gezahlt|bezahlten|paye|payee|payes');
const OTHER_WAY =
  /\b(?:pa(?:y|ys|id)(?: back)?(?: to)? (?:us|me)|(?:we|i) (?:ever )?(?:get|got|receive[ds]?|earn(?:ed)?|charged?|make|made)|(?:hat|haben) (?:uns|mir)\b.*\b(?:be|ge)?zahlt|(?:be)?zahlten? (?:uns|mir)|(?:uns|mir) (?:be|ge)?zahlt|(?:wir|ich)\b.*\b(?:bekommen|erhalten|verdient|berechnet)|(?:bekamen|bekam|erhielten|erhielt|verdienten) (?:wir|ich)|(?:nous|m) (?:a|ont) (?:paye|verse)|(?:avons nous|nous avons|ai je|j ai) (?:recu|gagne|facture))\b/;
const MONEY_ASKED = any(
  'how much|how (?:expensive|dear|high)|wie ?viel|wie teuer|combien|sum|total|totals|summe|betrag|montant|amount|cost|costs|kostet|kostete|kosteten|gekostet|kosten|coute|coutait|coutent|spend|spent|spending|ausgegeben|ausgaben|depenses?|depensee?|expenses?|expenditure|outgoings|pay|paid|bezahlt|gezahlt|payee?|charged?|berechnet|worth|gesamt|gesamtbetrag|wie hoch|s eleve|somme|what was the (?:bill|invoice)',
);
const HOW_MUCH = /how much|wie ?viel|combien/;
const COMPARED = any(
  'than|als|que|qu|compared?|comparison|versus|vs|against|verglichen|vergleich|vergleiche|gegenuber|comparez?|par rapport',
);
const MORE = any(
  'more|less|dearer|cheaper|mehr|weniger|teurer|billiger|gunstiger|plus|moins|higher|lower|hoher|niedriger|compared?|vergleich\\w*|verglichen|comparez?',
);
const AVERAGE = any('average|on average|mean|durchschnitt|durchschnittlich|im schnitt|en moyenne|moyenne');
const HOW_MANY = any(
  'how many|number of|count(?: the| all| of)?|wie viele|anzahl(?: der| an| von)?|nombre de|combien (?:de|d|y a)|count of',
);
const MOST = any(
  'the most (?:we|i)(?: have)?(?: ever)?|most expensive|dearest|highest|largest|biggest|greatest|teuerste[snrm]?|hochste[snrm]?|grosste[snrm]?|(?:la |le |les )?plus (?:chere?s?|elevee?s?|grande?s?|grosse?s?)',
);
const LEAST = any(
  'least expensive|cheapest|lowest|smallest|billigste[snrm]?|gunstigste[snrm]?|niedrigste[snrm]?|kleinste[snrm]?|(?:la |le |les )?moins (?:chere?s?|elevee?s?)|(?:la |le |les )?plus (?:petite?s?|basse?s?)',
);
const LATEST = any(
  'latest|last|most recent|newest|letzte[snrm]?|neueste[snrm]?|neuste[snrm]?|jungste[snrm]?|zuletzt|derniere?s?|(?:la |le )?plus recente?s?|dernierement',
);
const EARLIEST = any(
  'first|earliest|oldest|erste[snrm]?|fruheste[snrm]?|alteste[snrm]?|premiere?s?|(?:la |le )?plus ancienne?s?',
);
const UPCOMING = any('next|nachste[snrm]?|prochaine?s?');
const WHO = any(
  '(?:from |to |by |with |of )?whom|who|which (?:supplier|sender|company|firm|shop|vendor)|what (?:supplier|company|firm)|(?:von |an |bei |mit )?(?:wem|wen)|wer|welche[rsnm]? (?:lieferant|firma|absender|unternehmen|laden)|(?:de |a |chez |avec |par )?qui|quel(?:le)? (?:fournisseur|entreprise|societe|magasin)',
);
const SENDING =
  /\b(from|sent|sends?|von|geschickt|schickte|schickt|bekommen|de|envoyee?|envoye|wrote|written|geschrieben)\b/;
const MOSTLY = any('the most|most|am meisten|meisten|le plus|plus|highest');
const WHEN = any(
  'when|until when|by when|(?:what|which) (?:day|date)|(?:what is )?the date|deadline|wann|(?:bis|seit|ab) wann|(?:welche[snrm]? )?(?:tag|datum)|quand|jusqu a quand|date|echeance|quel jour',
);
const DUE = any(
  'due|fall(?:s|en)? due|payable|must|have to be paid|deadline|by when|fallig|zahlbar|bezahlt werden|zu (?:be)?zahlen|echeance|echeances|exigible|a payer|payer avant',
);
const ENDS = any(
  'ends?|ending|ended|expires?|expiry|expired|expiring|runs? out|terminates?|renew(?:s|al|ed)?|valid|until when|guaranteed until|lasts|endet|enden|ende|ablauft|ablauf|lauft|gultig|gilt|gelten|bis wann|auslauft|lauft aus|fin|expire|expirent|finit|se termine|termine|valable|jusqu a quand|prend fin',
);
const FILLERS_OF_DAYS = any('falls?|fallen|ab|out|aus|se');
/** Values that stand on papers, and how they are asked for; the number of a paper itself last. */
const VALUES: [fact: ValueFact, asks: RegExp][] = [
  [
    'taxRate',
    any('(?:tax|vat) rate|rate of (?:tax|vat)|(?:mehrwert|umsatz)?steuersatz|mwst satz|taux de (?:tva|taxe)|taux'),
  ],
  [
    'customer',
    any(
      'customer (?:number|no|id|reference)|client (?:number|no)|account number with|kundennummer|kunden ?nr|numero de? client|numero client|reference client',
    ),
  ],
  [
    'policy',
    any(
      '(?:policy|contract|insurance|agreement) (?:number|no)|(?:police|policen|versicherungs|versicherungsschein|vertrags)nummer|numero de (?:police|contrat)',
    ),
  ],
  ['order', any('(?:purchase )?order (?:number|no)|bestellnummer|auftragsnummer|numero de commande')],
  ['iban', any('iban|(?:bank )?account number|kontonummer|bankverbindung|compte bancaire')],
  ['reference', any('(?:payment )?reference|verwendungszweck|aktenzeichen|reference de paiement')],
  ['period', any('(?:which|what) period|abrechnungszeitraum|welchen zeitraum|quelle periode')],
  [
    'number',
    any(
      '(?:invoice|bill|receipt|paper) (?:number|no)|number of (?:the|this|that) (?:\\S+ )?(?:invoice|bill|receipt)|rechnungsnummer|belegnummer|numero de (?:la )?(?:derniere )?facture',
    ),
  ],
];
const TAX = any(
  '(?:how much|total|sum of|what|which|wie ?viel|combien de|montant de(?: la)?) (?:tax|taxe|steuer)|vat|sales tax|mwst|mehrwertsteuer|ust|umsatzsteuer|vorsteuer|tva|iva|btw',
);
const NET = any(
  'net|netto|before (?:tax|vat)|without (?:tax|vat)|excluding (?:tax|vat)|ohne (?:mehrwert|umsatz)?steuer|ohne mwst|hors (?:taxes?|tva)|ht',
);
const GROSS = any('gross|brutto|including (?:tax|vat)|mit mwst|ttc');
const WHAT_IS = /^(?:what (?:is|was|were|are)|was (?:ist|war|waren)|quel(?:le)? (?:est|etait)) /;
const LIST = any(
  'which|what|show|list|find|are there|is there|do we have|have we|give me|all|welche[snrm]?|gibt es|zeige?|suche?|haben wir|quelles?|quels|quel|y a t il|montrez?|avons nous|liste|trouve[rz]?',
);
const YES_OR_NO = any(
  '^(?:does|do|did|is|are|has|have|can|could|should|will|would|was(?! (?:hat|haben|kostet|kosteten|war|waren|ist|sind|kam))|were|ist|sind|hat|haben|kann|soll|est ce)',
);

/**
 * Understands a plain question over papers, in English, German or French. Words that it makes nothing of stay as what papers have to
 * be about: where none is, nothing is answered.
 * @param today ISO 8601
 */
export function understand(question: string, names: ShelfNames, today: string): Understood | NotSaid {
  const plain = plainQuestion(question);
  if (!plain) return { cannot: 'nothing asked' };
  if (WHETHER_PAID.some((form) => form.test(plain)) && !/\b(must|muss|have to|doit etre)\b/.test(plain))
    return { cannot: 'paid' };
  const due = DUE.test(plain);
  const found: Understood = {
    wants: 'papers',
    fact: 'total',
    which: 'latest',
    about: [],
    who: [],
    kinds: [],
    folder: null,
    by: 'date',
    period: null,
    against: null,
    amounts: null,
  };
  const text = new Text(plain);
  // Names come first: a sender may be called like a month, a kind or a topic.
  found.who = takeSenders(text, names.senders, capitalsIn(question));
  found.folder = takeFolder(text, names.folders);
  found.amounts = takeAmounts(text);
  const { periods, rest } = readPeriods(text.rest, today, due);
  text.rest = rest.replaceAll('¦', ' ').replace(/ {2,}/g, ' ').trim();
  const isCompared = compare(text, found, periods, today);
  if (!isCompared) [found.period = null] = periods;
  if (periods.length > (isCompared ? 2 : 1)) return { cannot: 'words' };
  const wants = takeWants(text, found, names);
  if (wants) return wants;
  text.take(
    any('so far|in all|all in all|up to now|bisher|bis jetzt|jusqu ici|au total|en tout|how much|wie ?viel|a combien'),
  );
  found.about = text.rest.split(/[^\p{L}\p{N}.]+/u).filter((word) => !isEmpty(word));
  found.about = [...new Set(found.about)];
  return isOfNothing(found) ? { cannot: 'words' } : found;
}

/** Whether nothing says of which papers it is asked, where all together have no answer: “when is it?” */
function isOfNothing({ wants, fact, about, who, kinds, folder, period, amounts }: Understood): boolean {
  if ([...about, ...who, ...kinds].length > 0 || folder !== null || period !== null || amounts !== null) return false;
  return ['value', 'who', 'papers', 'latest'].includes(wants) || (wants === 'day' && fact === 'date');
}

/** Reads what is set beside what: two periods, or one and the one that we are in. Says whether that is asked. */
function compare(text: Text, found: Understood, periods: Period[], today: string): boolean {
  if (!MORE.test(text.rest) || periods.length === 0) return false;
  const isTwo = periods.length === 2;
  if (!isTwo && !COMPARED.test(text.rest)) return false;
  if (isTwo) [found.period, found.against] = periods;
  else {
    // “More than last year?” is asked of this one.
    const [other] = periods;
    const long = other.from && other.until ? Date.parse(other.until) - Date.parse(other.from) : 0;
    found.period = readPeriods(long > 300 * 86_400_000 ? 'this year' : 'this month', today).periods[0];
    found.against = other;
  }
  text.take(MORE);
  text.take(COMPARED);
  text.take(any('with|mit|avec|a|to'));
  found.wants = 'sum';
  return true;
}

/** A reading of what is wanted: whether it fits the question, or why that can't be answered. */
type Reader = (asked: string, text: Text, found: Understood, names: ShelfNames) => boolean | NotSaid;

/** Reads what is wanted, and of what kind of papers; the first reading that fits counts. */
function takeWants(text: Text, found: Understood, names: ShelfNames): NotSaid | undefined {
  const asked = text.rest;
  for (const read of [readCompared, readValue, readCount, readWho, readDay, readExtreme, readMoney, readPapers]) {
    const is = read(asked, text, found, names);
    if (is === true) return undefined;
    if (is) return is;
  }
  return { cannot: 'words' };
}

/** Takes what papers are called, which says of what kinds they are. */
function takeKinds(text: Text, found: Understood, { ownKinds }: ShelfNames): boolean {
  const nouns = kindNouns(text.rest, ownKinds);
  found.kinds = [...new Set(nouns.flatMap(({ kinds }) => kinds))];
  for (const { start, end } of nouns.toReversed())
    text.rest = `${text.rest.slice(0, start)} ${text.rest.slice(end)}`.replace(/ {2,}/g, ' ');
  return nouns.length > 0;
}

const readCompared: Reader = (asked, text, found, names) => {
  if (!found.against) return false;
  if (OTHER_WAY.test(asked)) return { cannot: 'words' };
  takeKinds(text, found, names);
  takeMoneyFact(text, found);
  text.take(MONEY_ASKED);
  return true;
};

const readValue: Reader = (_, text, found, names) => {
  const [fact] = VALUES.find(([, asks]) => text.take(asks)) ?? [];
  if (!fact) return false;
  takeKinds(text, found, names);
  text.take(LATEST);
  Object.assign(found, { wants: 'value', fact });
  return true;
};

const readCount: Reader = (asked, text, found, names) => {
  if (!HOW_MANY.test(asked)) return false;
  const after = asked.slice(asked.search(HOW_MANY)).replace(HOW_MANY, '');
  const [noun] = kindNouns(after, names.ownKinds);
  // What is counted are papers, not what stands on them.
  if (!noun || !after.slice(0, noun.start).split(' ').every(isEmpty)) return { cannot: 'words' };
  text.take(HOW_MANY);
  takeKinds(text, found, names);
  found.wants = 'count';
  takeDays(text, found);
  return true;
};

const readWho: Reader = (asked, text, found, names) => {
  if (!WHO.test(asked)) return false;
  text.take(WHO);
  takeKinds(text, found, names);
  found.wants = text.take(MOSTLY) ? 'who most' : 'who';
  text.take(MONEY_ASKED);
  // Who did something else than send papers stands on none.
  if (found.wants === 'who' && !SENDING.test(asked)) return { cannot: 'words' };
  text.take(any('envoyee?s?|envoye'));
  return true;
};

const readDay: Reader = (asked, text, found, names) => {
  if (!WHEN.test(asked) || HOW_MUCH.test(asked)) return false;
  const ends = ENDS.test(asked) && !/\b(?:due|fallig)\b/.test(asked);
  text.take(WHEN);
  found.which = text.take(EARLIEST) ? 'first' : text.take(UPCOMING) ? 'next' : 'latest';
  text.take(LATEST);
  found.wants = 'day';
  found.fact = ends ? 'ends' : DUE.test(asked) ? 'dueDate' : 'date';
  if (found.fact === 'date' && PAID_WHEN.test(asked)) return { cannot: 'paid' };
  while (text.take(ends ? ENDS : DUE));
  text.take(FILLERS_OF_DAYS);
  takeKinds(text, found, names);
  return true;
};

const readExtreme: Reader = (_, text, found, names) => {
  if (text.take(MOST)) found.wants = 'most';
  else if (text.take(LEAST)) found.wants = 'least';
  else return false;
  takeKinds(text, found, names);
  text.take(MONEY_ASKED);
  return true;
};

const readMoney: Reader = (asked, text, found, names) => {
  const isAverage = text.take(AVERAGE);
  const isMoney = takeMoneyFact(text, found);
  if (!isAverage && !isMoney && !MONEY_ASKED.test(asked)) return false;
  if (YES_OR_NO.test(asked) || OTHER_WAY.test(asked)) return { cannot: 'words' };
  while (text.take(MONEY_ASKED));
  const latest = text.take(LATEST);
  takeKinds(text, found, names);
  found.wants = isAverage ? 'average' : latest ? 'latest' : 'sum';
  return true;
};

const readPapers: Reader = (asked, text, found, names) => {
  const hasKind = takeKinds(text, found, names);
  // “What was the rent in January?” asks how much it was.
  if (!hasKind && WHAT_IS.test(asked) && found.amounts === null) {
    found.wants = text.take(LATEST) || found.period === null ? 'latest' : 'sum';
    return true;
  }
  takeDays(text, found);
  if (text.take(LATEST)) found.wants = 'latest';
  // “Do we have a certificate?” asks for papers; “is it reliable?” for what none says.
  if (!hasKind && !LIST.test(asked) && found.who.length === 0) return false;
  text.take(LIST);
  return true;
};

/** Reads which day of a paper its period is about. */
function takeDays(text: Text, found: Understood): void {
  if (text.has(DUE)) found.by = 'dueDate';
  else if (text.has(ENDS)) found.by = 'ends';
  while (text.take(found.by === 'dueDate' ? DUE : found.by === 'ends' ? ENDS : /(?!)/));
  if (found.by !== 'date') text.take(FILLERS_OF_DAYS);
}

/** Reads whether tax, or what is without it, is asked for. */
function takeMoneyFact(text: Text, found: Understood): boolean {
  if (text.take(NET)) found.fact = 'net';
  else if (text.take(TAX)) found.fact = 'tax';
  else if (text.take(GROSS)) found.fact = 'total';
  else return false;
  return true;
}
