import { any } from './text';
import { ValueFact } from './understood';

/** Whether something was paid is not said by the paper that asks for it. */
export const WHETHER_PAID = [
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

/** What is to be done, rather than told. */
export const ORDERED =
  /^(?:(?:please|bitte|kannst du|peux tu|pouvez vous|(?:can|could|would|will) you) )+(?:send|forward|pay|print|delete|sign|remind|mail|email|upload|scan|schicke?n?|sende|drucke?n?|losche?n?|bezahle?n?|envoie|envoyer|envoyez|imprime|imprimer|paye|payer|payez|supprime|supprimer)\b|^(?:send|forward|pay|print|delete|sign|remind|mail|email|upload|scan|schicke?|sende|drucke?|losche|bezahle?|envoie|envoyez|imprime|paye|payez|supprime) (?:the|this|that|these|those|all|my|our|me|us|it|them|a|an|die|den|das|der|diese[nrs]?|mir|uns|meine?|unsere?|la|le|les|moi|nous|¤)(?= |$)/;

/** When something was paid, and what others paid us or we were given, stand on no paper that asks for money. */
export const PAID_WHEN = any('pay|paid|paying|bezahlt|gezahlt|bezahlten|paye|payee|payes');
export const OTHER_WAY =
  /\b(?:pa(?:y|ys|id)(?: back)?(?: to)? (?:us|me)|(?:we|i) (?:ever )?(?:get|got|receive[ds]?|earn(?:ed)?|charged?|invoiced?|billed?|make|made)|(?:hat|haben) (?:uns|mir)\b.*\b(?:be|ge)?zahlt|(?:be)?zahlten? (?:uns|mir)|(?:uns|mir) (?:be|ge)?zahlt|(?:wir|ich)\b.*\b(?:bekommen|erhalten|verdient|berechnet)|(?:bekamen|bekam|erhielten|erhielt|verdienten) (?:wir|ich)|(?:nous|m) (?:a|ont) (?:paye|verse)|(?:avons nous|nous avons|ai je|j ai) (?:recu|gagne|facture))\b/;
export const MONEY_ASKED = any(
  'how much|how (?:expensive|dear|high)|wie ?viel|wie teuer|combien|sum|total|totals|summe|betrag|montant|amount|cost|costs|kostet|kostete|kosteten|gekostet|kosten|coute|coutait|coutent|spend|spent|spending|ausgegeben|ausgaben|depenses?|depensee?|expenses?|expenditure|outgoings|pay|paid|bezahlt|gezahlt|payee?|charged?|berechnet|worth|gesamt|gesamtbetrag|wie hoch|s eleve|somme|fees?|premiums?|gebuhr(?:en)?|frais|honoraires|what was the (?:bill|invoice)',
);
export const HOW_MUCH = /how much|wie ?viel|combien/;
export const COMPARED = any(
  'than|als|que|qu|compared?|comparison|versus|vs|against|verglichen|vergleich|vergleiche|gegenuber|comparez?|par rapport',
);
export const BESIDE = any('versus|vs|against|beside|compared?|gegenuber|verglichen|par rapport|comparez?');
export const MORE = any(
  'more expensive|less expensive|more costly|more|less|dearer|cheaper|mehr|weniger|teurer|billiger|gunstiger|plus|moins|higher|lower|hoher|niedriger|compared?|vergleich\\w*|verglichen|comparez?',
);
export const AVERAGE = any('average|on average|mean|durchschnitt|durchschnittlich|im schnitt|en moyenne|moyenne');
export const HOW_MANY = any(
  'how many|number of|count(?: the| all| of)?|wie viele|anzahl(?: der| an| von)?|nombre de|combien (?:de|d|y a)|count of',
);
export const MOST = any(
  'the most (?:we|i)(?: have)?(?: ever)?|most expensive|dearest|costliest|priciest|steepest|highest|largest|biggest|greatest|teuerste[snrm]?|hochste[snrm]?|grosste[snrm]?|(?:la |le |les )?plus (?:chere?s?|elevee?s?|grande?s?|grosse?s?)',
);
export const LEAST = any(
  'least expensive|cheapest|lowest|smallest|billigste[snrm]?|gunstigste[snrm]?|niedrigste[snrm]?|kleinste[snrm]?|(?:la |le |les )?moins (?:chere?s?|elevee?s?)|(?:la |le |les )?plus (?:petite?s?|basse?s?)',
);
export const LATEST = any(
  'latest|last|most recent|newest|letzte[snrm]?|neueste[snrm]?|neuste[snrm]?|jungste[snrm]?|zuletzt|derniere?s?|(?:la |le )?plus recente?s?|dernierement',
);
export const EARLIEST = any(
  'first|earliest|oldest|erste[snrm]?|fruheste[snrm]?|alteste[snrm]?|premiere?s?|(?:la |le )?plus ancienne?s?',
);
export const UPCOMING = any('next|nachste[snrm]?|prochaine?s?');
export const WHO = any(
  '(?:from |to |by |with |of )?whom|who|which (?:suppliers?|senders?|company|companies|firms?|shops?|vendors?)|what (?:supplier|company|firm)|(?:von |an |bei |mit )?(?:wem|wen)|wer|welche[rsnm]? (?:lieferant(?:en)?|firm(?:a|en)|absender|unternehmen|laden)|(?:de |a |chez |avec |par )?qui|quel(?:le)?s? (?:fournisseurs?|entreprises?|societes?|magasins?)',
);
export const SENDING =
  /\b(from|sent|sends?|von|geschickt|schickte|schickt|bekommen|de|envoyee?|envoye|wrote|written|geschrieben)\b/;
/** Who somebody is by what they charge for: “our energy supplier”. */
export const PROVIDER = any('supplier|provider|lieferant|anbieter|versorger|fournisseur');
/** The same, and what for. */
export const TRADE = any(
  'insurer|landlord|accountant|vet|dentist|versicherer|vermieter|steuerberater|tierarzt|zahnarzt|assureur|proprietaire|comptable',
);
export const WHO_IS = /^(?:who is|who are|wer ist|qui est) (?:our|my|unser|unsere|mein|meine|notre|mon|ma) /;
export const MOSTLY = any('the most|most|am meisten|meisten|le plus|plus|highest');
export const WHEN = any(
  'when|until when|by when|expiration|expiry(?: date)?|due date|ablaufdatum|vertragsende|falligkeit|date de fin|(?:what|which) (?:day|date)|(?:what is )?the date|deadline|wann|(?:bis|seit|ab) wann|(?:welche[snrm]? )?(?:tag|datum)|quand|jusqu a quand|date|echeance|quel jour',
);
export const DUE = any(
  'due|fall(?:s|en)? due|payable|must|(?:have|need|ought|got) to (?:be )?(?:paid|pay|settled?|transfer)|mussen? (?:\\S+ ){0,6}(?:begleichen|zahlen|bezahlen)|zu begleichen|a regler|faut il (?:payer|regler|verser)|deadline|by when|fallig|zahlbar|bezahlt werden|zu (?:be)?zahlen|echeance|echeances|exigible|a payer|payer avant',
);
export const ENDS = any(
  'ends?|ending|ended|finish(?:es|ed)?|ceases?|stops?|court|courent|echoit|erlischt|lapses?|lapsed|expiration|ablaufdatum|vertragsende|expires?|expiry|expired|expiring|runs? out|terminates?|renew(?:s|al|ed|ing|able)?|valid|until when|guaranteed until|lasts|endet|enden|ende|ablauft|ablauf|lauft|gultig|gilt|gelten|bis wann|auslauft|lauft aus|fin|expire|expirent|finit|se termine|termine|valable|jusqu a quand|prend fin',
);
export const FILLERS_OF_DAYS = any('falls?|fallen|ab|out|aus|se');
/** What was done to something, other than what is done with papers. */
export const HAPPENED =
  /\b(?:was|were|got|been)\b.* (?!(?:billed|invoiced|dated|charged|filed|issued|received|ordered|purchased|delivered|quoted|signed|renewed|expired|ended|needed)\b)[a-z]{3,}ed\b/;
/** Values that stand on papers, and how they are asked for; the number of a paper itself last. */
export const VALUES: [fact: ValueFact, asks: RegExp][] = [
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
export const TAX = any(
  '(?:how much|total|sum of|what|which|wie ?viel|combien de|montant de(?: la)?) (?:tax|taxe|steuer)|vat|sales tax|mwst|mehrwertsteuer|ust|umsatzsteuer|vorsteuer|tva|iva|btw',
);
export const NET = any(
  'net|netto|before (?:tax|vat)|without (?:tax|vat)|excluding (?:tax|vat)|ohne (?:mehrwert|umsatz)?steuer|ohne mwst|hors (?:taxes?|tva)|ht',
);
export const GROSS = any('gross|brutto|including (?:tax|vat)|mit mwst|ttc');
export const WHAT_IS = /^(?:what (?:is|was|were|are)|was (?:ist|war|waren)|quel(?:le)? (?:est|etait)) /;
export const ONE_BILL = /\b(?:bill|bills for|rechnung fur|facture de)\b/;
export const LIST = any(
  'which|what|show|list|find|are there|is there|do we have|have we|give me|all|welche[snrm]?|gibt es|zeige?|suche?|haben wir|quelles?|quels|quel|y a t il|montrez?|avons nous|liste|trouve[rz]?',
);
export const YES_OR_NO = any(
  '^(?:does|do|did|is|are|has|have|can|could|should|will|would|was(?! (?:hat|haben|kostet|kosteten|war|waren|ist|sind|kam|zahl\\S*|bezahl\\S*|geben|gaben|gibt|geht|ging|gingen|mussen|musste|wird|wurde|macht|machte|steht|kommt))|were|ist|sind|hat|haben|kann|soll|est ce|avons nous|avez vous|ai je|a t on)',
);

/** What is done with money otherwise than paying it, which no bill tells. */
export const OTHERWISE =
  /^(?:sav|los|lost|earn|mak|made|ow|sell|sold|refund|return|borrow|lend|lent|donat|budget|plan|expect|estimat|tak|took|turn|bring|brought|us|need|get|win|won|rais|lower|invoic|bill|credit|claim|sue|harvest|produc|spar|verdien|verlor|verkauf|leih|lieh|erstatt|brauch|gagn|perd|vend|rembours|prevoi|econom|utilis)/;

export const SUBJECTS = /^(?:we|i)$/;
export const HELPERS = /^(?:do|does|did|has|have|had)$/;
/** Small words before things: what follows them was not done. */
export const BEFORE_THINGS =
  /^(?:fur|von|an|bei|mit|aus|auf|in|zu|um|uber|der|die|das|den|dem|ein|eine|einen|einem|unser|unsere|mein|meine)$/;

export const SEPARATE = /^(?:ge\p{L}{3,}(?:t|en)|(?:ver|be|ent|er)\p{L}{3,}(?:t|en))$/u;

/** What somebody does who pays. */
export const PAYING =
  /^(?:pay|pays|paid|spend|spent|buy|bought|give|gave|given|cost|hand|leave|left|settle|send|sent|part|shell|lay|put)$/;
/** What somebody did with how much of something. */
export const DONE =
  /\bhow much (?:\S+ ){1,3}(?:did|do|does|have|has|can|will) (?:we|i|you|they) (?:ever |already |have to |had to |need to )?(\S+)/;
