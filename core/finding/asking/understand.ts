import { readAmount } from '../../reading/facts/money';
import { fold } from '../../reading/facts/rows';
import { isTopic } from './topics';
import { readPeriods } from './periods';
import { NotSaid, Period, Understood, ValueFact } from './understood';
import { isEmpty, kindNouns, nameWords } from './words';

/** What names there are on the shelf. */
export interface ShelfNames {
  senders: readonly string[];
  folders: readonly string[];
  ownKinds: readonly string[];
}

const any = (words: string) => new RegExp(`(?<![\\p{L}\\p{N}])(?:${words})(?![\\p{L}\\p{N}])`, 'u');

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

const MONEY_ASKED = any(
  'how much|how (?:expensive|dear|high)|wie ?viel|wie teuer|combien|sum|total|totals|summe|betrag|montant|amount|cost|costs|kostet|kostete|kosteten|gekostet|kosten|coute|coutait|coutent|spend|spent|spending|ausgegeben|ausgaben|depenses?|depensee?|expenses?|expenditure|outgoings|pay|paid|bezahlt|gezahlt|payee?|charged?|berechnet|worth|gesamt|gesamtbetrag|wie hoch|s eleve|somme|what was the (?:bill|invoice)',
);
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

const CURRENCIES: [currency: string, names: string][] = [
  ['GBP', '£|pounds?|quid|gbp|pfund|livres?(?: sterling)?'],
  ['EUR', '€|euros?|eur'],
  ['USD', '\\$|dollars?|usd'],
  ['CHF', 'chf|francs?|franken|fr'],
];
const MONEY = `(?:(£|€|\\$|gbp|eur|chf|usd) ?)?(\\d[\\d.,']*)(?: ?(£|€|\\$|pounds?|quid|gbp|pfund|livres?(?: sterling)?|euros?|eur|dollars?|usd|chf|francs?|franken))?(?![\\p{L}\\p{N}])`;
const OVER =
  'over|above|more than|greater than|at least|exceeding|exceeds?|from|uber|mehr als|mindestens|ab|plus de|au moins|superieure?s? a|depass(?:ent|e|ant)|de plus de|hoher als|teurer als';
const UNDER =
  'under|below|less than|up to|at most|unter|weniger als|bis zu|hochstens|moins de|au plus|inferieure?s? a|de moins de|billiger als|cheaper than';

function currencyOf(name: string | undefined): string | null {
  return name === undefined
    ? null
    : (CURRENCIES.find(([, names]) => new RegExp(`^(?:${names})$`).test(name))?.[0] ?? null);
}

/** Takes what a form finds out of a text. */
class Text {
  constructor(public rest: string) {}
  has(form: RegExp): boolean {
    return form.test(this.rest);
  }
  take(form: RegExp): boolean {
    const before = this.rest;
    this.rest = this.rest.replace(form, ' ').replace(/ {2,}/g, ' ');
    return this.rest !== before;
  }
}

/** A question in small letters without accents, words parted by single spaces; amounts and days keep their signs. */
export function plainQuestion(question: string): string {
  return (
    fold(question)
      // “Stromkosten” asks what “Strom” costs.
      .replace(/(?<=\p{L}{3})(?=(?:kosten|ausgaben)(?!\p{L}))/gu, ' ')
      .replace(/(?<=\p{L})['’´`](?=s(?!\p{L}))/gu, '')
      .replace(/(?<=\p{L})['’´`](?=\p{L})/gu, ' ')
      .replace(/(?<!\d)[.,](?=\d)|[.,](?!\d)|[?!;:()"“”„«»…]/gu, ' ')
      .replace(/(?<=\p{L})[-–](?=\p{L})/gu, ' ')
      .replace(/[^\p{L}\p{N}.,/£€$&+-]+/gu, ' ')
      .replace(/ {2,}/g, ' ')
      .trim()
  );
}

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
  found.about = text.rest.split(/[^\p{L}\p{N}.]+/u).filter((word) => word && !isEmpty(word));
  return found;
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

/** Reads what is wanted, and of what kind of papers. */
function takeWants(text: Text, found: Understood, names: ShelfNames): NotSaid | undefined {
  const asked = text.rest;
  const takeKinds = () => {
    const nouns = kindNouns(text.rest, names.ownKinds);
    found.kinds = [...new Set(nouns.flatMap(({ kinds }) => kinds))];
    for (const { start, end } of nouns.toReversed())
      text.rest = `${text.rest.slice(0, start)} ${text.rest.slice(end)}`.replace(/ {2,}/g, ' ');
    return nouns.length > 0;
  };
  if (found.against) {
    takeKinds();
    takeMoneyFact(text, found);
    text.take(MONEY_ASKED);
    return undefined;
  }
  for (const [fact, asks] of VALUES)
    if (text.take(asks)) {
      takeKinds();
      text.take(LATEST);
      Object.assign(found, { wants: 'value', fact });
      return undefined;
    }
  if (HOW_MANY.test(asked)) {
    const after = asked.slice(asked.search(HOW_MANY)).replace(HOW_MANY, '');
    const noun = kindNouns(after, names.ownKinds)[0];
    // What is counted are papers, not what stands on them.
    if (
      !noun ||
      after
        .slice(0, noun.start)
        .split(' ')
        .some((word) => word && !isEmpty(word))
    )
      return { cannot: 'words' };
    text.take(HOW_MANY);
    takeKinds();
    found.wants = 'count';
    takeDays(text, found);
    return undefined;
  }
  if (WHO.test(asked)) {
    text.take(WHO);
    takeKinds();
    found.wants = text.take(MOSTLY) ? 'who most' : 'who';
    text.take(MONEY_ASKED);
    // Who did something else than send papers stands on none.
    if (
      found.wants === 'who' &&
      !/\b(from|sent|sends?|von|geschickt|schickte|schickt|bekommen|de|envoyee?|envoye|wrote|written|geschrieben)\b/.test(
        asked,
      )
    )
      return { cannot: 'words' };
    text.take(any('envoyee?s?|envoye'));
    return undefined;
  }
  if (WHEN.test(asked) && !(MONEY_ASKED.test(asked) && /how much|wie ?viel|combien/.test(asked))) {
    const ends = ENDS.test(asked) && !/\b(?:due|fallig)\b/.test(asked);
    text.take(WHEN);
    found.which = text.take(EARLIEST) ? 'first' : text.take(UPCOMING) ? 'next' : 'latest';
    text.take(LATEST);
    found.wants = 'day';
    found.fact = ends ? 'ends' : DUE.test(asked) ? 'dueDate' : 'date';
    while (text.take(ends ? ENDS : DUE));
    text.take(FILLERS_OF_DAYS);
    takeKinds();
    return undefined;
  }
  const most = text.take(MOST);
  const least = !most && text.take(LEAST);
  if (most || least) {
    takeKinds();
    text.take(MONEY_ASKED);
    found.wants = most ? 'most' : 'least';
    return undefined;
  }
  const isAverage = text.take(AVERAGE);
  const isMoney = takeMoneyFact(text, found);
  const asksMoney = isAverage || isMoney || MONEY_ASKED.test(asked);
  if (asksMoney) {
    if (YES_OR_NO.test(asked)) return { cannot: 'words' };
    while (text.take(MONEY_ASKED));
    const latest = text.take(LATEST);
    takeKinds();
    found.wants = isAverage ? 'average' : latest ? 'latest' : 'sum';
    return undefined;
  }
  const hasKind = takeKinds();
  // “What was the rent in January?” asks how much it was.
  if (!hasKind && WHAT_IS.test(asked) && found.amounts === null) {
    found.wants = text.take(LATEST) || found.period === null ? 'latest' : 'sum';
    return undefined;
  }
  takeDays(text, found);
  if (text.take(LATEST)) found.wants = 'latest';
  if (!hasKind && !LIST.test(asked) && found.who.length === 0) return { cannot: 'words' };
  // “Do we have a certificate?” asks for papers; “is it reliable?” for what none says.
  text.take(LIST);
  return undefined;
}

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

function takeAmounts(text: Text): Understood['amounts'] {
  const between = new RegExp(`(?:between|zwischen|entre) ${MONEY} (?:and|und|et) ${MONEY}`, 'u').exec(text.rest);
  const value = (digits: string) => (readAmount(digits)?.cents ?? NaN) / 100;
  const isYear = (digits: string, ...units: (string | undefined)[]) =>
    /^(19|20)\d\d$/.test(digits) && units.every((unit) => unit === undefined);
  if (between && (between[1] ?? between[3] ?? between[4] ?? between[6])) {
    text.rest = text.rest.replace(between[0], ' ');
    const [, a, low, b, c, high, d] = between;
    return { least: value(low), most: value(high), currency: currencyOf(a ?? b ?? c ?? d) };
  }
  for (const [words, isOver] of [
    [OVER, true],
    [UNDER, false],
  ] as const) {
    const found = new RegExp(`(?<![\\p{L}\\p{N}])(?:${words}) ${MONEY}`, 'u').exec(text.rest);
    if (!found) continue;
    const [whole, before, digits, after] = found;
    // “From 2024” and “until 12” are days unless a currency stands beside them.
    const isPlain = /^(from|ab|bis zu|up to) /.test(whole) && before === undefined && after === undefined;
    if (isPlain || isYear(digits, before, after) || Number.isNaN(value(digits))) continue;
    text.rest = text.rest.replace(whole, ' ').replace(/ {2,}/g, ' ');
    const currency = currencyOf(before ?? after);
    return isOver ? { least: value(digits), most: null, currency } : { least: null, most: value(digits), currency };
  }
  return null;
}

/** Takes a folder that is named as one. */
function takeFolder(text: Text, folders: readonly string[]): string | null {
  const found =
    /(?:in|im|inside|of|from|aus dem|dans)? ?(?:the |dem |den |der |le )?(?:folder|ordner|mappe|dossier) (.+)$/u.exec(
      text.rest,
    );
  if (!found) return null;
  const named = folders
    .map((path) => ({
      path,
      plain: plainQuestion(path.replaceAll('/', ' ')),
      last: plainQuestion(path.split('/').at(-1)!),
    }))
    .flatMap(({ path, plain, last }) => [
      { path, name: plain },
      { path, name: last },
    ])
    .filter(({ name }) => name && `${found[1]} `.startsWith(`${name} `))
    .sort((a, b) => b.name.length - a.name.length || a.path.length - b.path.length)[0];
  if (!named) return null;
  text.rest = `${text.rest.slice(0, found.index)} ${found[1].slice(named.name.length)}`.replace(/ {2,}/g, ' ').trim();
  return named.path;
}

/** Words after which a sender is named. */
const BEFORE_SENDER = /^(from|to|at|by|with|pay|paid|von|vom|bei|beim|an|mit|chez|a|de|du|par|avec)$/;

/** The words of a question that are written with a capital. */
function capitalsIn(question: string): ReadonlySet<string> {
  return new Set([...question.matchAll(/\p{Lu}[\p{L}\p{N}]*/gu)].map(([word]) => fold(word)));
}

/** Takes the name of a sender, or as much of its beginning as tells it from others. */
function takeSenders(text: Text, senders: readonly string[], capitals: ReadonlySet<string>): string[] {
  const known = senders.map((sender) => ({ sender, words: nameWords(plainQuestion(sender)) }));
  const words = [...text.rest.matchAll(/[\p{L}\p{N}]+/gu)].map((match) => ({ word: match[0], at: match.index }));
  const places = nameWordPlaces(words);
  // A single word may be a thing as well as a name: “the loom”, “from Loom”.
  const isName = (place: number) => {
    const { word, at } = places[place];
    const before = words[words.findIndex((each) => each.at === at) - 1];
    return capitals.has(word) || !before || BEFORE_SENDER.test(before.word);
  };
  let best: { senders: string[]; from: number; to: number; length: number } | undefined;
  for (let start = 0; start < places.length; start++)
    for (const { sender, words: name } of known) {
      let length = 0;
      while (length < name.length && places[start + length] && isSameName(places[start + length].word, name[length]))
        length++;
      if (length === 0) continue;
      const begin = name.slice(0, length);
      const whole = length === name.length;
      const others = known.filter((each) => begin.every((word, at) => each.words[at] === word));
      const alike = others.every((each) => each.words.join(' ') === others[0].words.join(' '));
      // One word of a name is enough where only this sender begins so, and the word means nothing else.
      const tells =
        whole ||
        (alike && (length > 1 || (isName(start) && !isTopic(begin[0]) && !isEmpty(begin[0]) && begin[0].length > 2)));
      if (!tells || (whole && length === 1 && isTopic(begin[0]) && name.length === 1)) continue;
      const last = places[start + length - 1];
      if (best && best.length > length) continue;
      if (best && best.length === length && best.from === places[start].at) best.senders.push(sender);
      else if (!best || best.length < length)
        best = { senders: [sender], from: places[start].at, to: last.at + last.word.length, length };
    }
  if (!best)
    best = surname(
      places.filter((_, place) => isName(place)),
      known,
    );
  if (!best) return [];
  text.rest = `${text.rest.slice(0, best.from)} ${text.rest.slice(best.to)}`.replace(/ {2,}/g, ' ').trim();
  return [...new Set(best.senders)];
}

/** A word from the middle of one sender's name that no other has, and that means nothing else. */
function surname(
  places: readonly { word: string; at: number }[],
  known: readonly { sender: string; words: string[] }[],
): { senders: string[]; from: number; to: number; length: number } | undefined {
  for (const { word, at } of places) {
    if (word.length < 4 || isTopic(word) || isEmpty(word) || kindNouns(word, []).length > 0) continue;
    const having = known.filter(({ words }) => words.slice(1).includes(word));
    const isOne = new Set(having.map(({ words }) => words.join(' '))).size === 1;
    const elsewhere = known.some(({ words }) => words.includes(word) && !having.some((each) => each.words === words));
    if (isOne && !elsewhere && having[0].words.length <= 3)
      return { senders: having.map(({ sender }) => sender), from: at, to: at + word.length, length: 1 };
  }
  return undefined;
}

/** The words of a question that may belong to a name. */
function nameWordPlaces(words: readonly { word: string; at: number }[]): { word: string; at: number }[] {
  return words.filter(({ word }) => nameWords(`${word} x`).includes(word));
}

/** Whether a word of a question is one of a name: the same, or its genitive. */
function isSameName(word: string, name: string): boolean {
  return word === name || (name.length > 3 && word === `${name}s`);
}
