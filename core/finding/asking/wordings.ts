/**
 * Ways of saying that mean the same as a plainer one, which is what questions are understood by (small letters, no accents, words parted
 * by single spaces). They say how people speak of money, time and papers, and never what is bought or from whom.
 */
const SAME: [form: RegExp, plain: string | ((...found: string[]) => string)][] = [
  // Contracted words: “what’s”, “I’ve”.
  [/\b(what|who|when|where|how|which|that|there|it)s\b(?= )/g, '$1 is'],
  [/\b(i|we|you|they) (?:ve|d|m|re|ll)\b/g, '$1'],
  [/^(?:could|can|would|will) you (?:please )?(?:tell|show|give) (?:me|us)\b/g, 'tell me'],
  [/\b(?:pull|bring|call|look|dig) (?:up|out)\b|\b(?:display|fetch)\b/g, 'show'],
  // By when.
  [/\b(?:last|latest|final) (?:date|day) (?:for|of) (?:paying|payment|the payment)\b/g, 'due date'],
  [/^when (?:is|are|will) (.+?) (?:be )?over$/g, 'when does $1 end'],
  // What somebody does with a number: “which reference do we quote?”
  [/\b(?:do|should|must) (?:we|i) (?:quote|use|give|state|mention)(?: to| at| with)?\b/g, ''],
  // Paying.
  [
    /\b(?:shell(?:ed|ing)?|fork(?:ed|ing)?|cough(?:ed|ing)?|dish(?:ed|ing)?|splash(?:ed|ing)?|lay|laid|laying|paid|pay|paying) (?:out|up)\b/g,
    'spent',
  ],
  [/\b(?:hand(?:ed|ing)?|turn(?:ed)?) over\b/g, 'paid'],
  [/\b(?:part(?:ed)? with|get through|got through|run through|blow|blew|fritter(?:ed)? away)\b/g, 'spent'],
  [/\b(?:sink|sank|sunk|pour(?:ed)?|plough(?:ed)?|put|invest(?:ed)?) (?:in|into)\b/g, 'spent on'],
  [/\b(?:set|took?|taken) (us|me) (?:back|for)\b/g, 'cost $1'],
  [/\b(?:take|took|taken|get|got|had) (?:off|out of) (us|me)\b/g, 'cost $1'],
  [/\b(?:transfer(?:red)?|remit(?:ted)?|wired?|paying)\b/g, 'pay'],
  [/\bcosting\b/g, 'cost'],
  [/\b(?:uberwiesen|uberweisen|beglichen|entrichtet|hingelegt|hingeblattert)\b/g, 'bezahlt'],
  [
    /\b(?:draufgegangen|drauf gegangen|gelassen|losgeworden|investiert|reingesteckt|verbraucht an geld)\b/g,
    'ausgegeben',
  ],
  [/\b(ging|gingen|geht|gehen)( .*)? drauf\b/g, '$1$2'],
  [/\b(?:debourse|debourser|laisse|mis dans|acquitte|vire|regle)\b(?! avant)/g, 'depense'],
  [/\b(?:the )?(?:damage|outlay|outgoings|spend|expense) (for|on)\b/g, 'spending $1'],
  [
    /\bannual (?:cost|costs|price|amount|charge|fee|premium)s?\b|\byearly (?:cost|price|charge|premium)s?\b/g,
    'cost peryear',
  ],
  [/\bmonthly (?:cost|price|charge|outlay)s?\b/g, 'cost permonth'],
  [/\b(?:the )?(?:start|beginning|outset) of (?=(?:19|20)\d\d)/g, ''],
  [/\b(?:dem )?(?:anfang|beginn)(?: des jahres)? (?=(?:19|20)\d\d)|\bdebut (?=(?:19|20)\d\d)/g, ''],
  // What is asked for.
  [/\b(?:let me see|let me have|can i see|i want to see)\b|^i need\b/g, 'show'],
  [/\b(?:is|are) (?:filed|stored|kept) (?:under|in|at)\b/g, 'is in'],
  [/\b(?:payment|paying) (?:date|day|deadline)\b/g, 'due date'],
  [/\b(?:end|closing|expiry) date\b/g, 'expiry date'],
  // Being asked for money.
  [
    /\b(?:how often|how many times) (?:have|has|were|was|are) (?:we|i) (?:been )?(?:billed|invoiced|charged) by\b/g,
    'how many bills from',
  ],
  [
    /\b(?:(?:were|are|was|am)(?= (?:we|i)\b)|(?:have|has|had)(?= (?:we|i) (?:been|got)\b)|did(?= (?:we|i) get\b)) (we|i)(?: been| got| get| being)?(?: \S+)?? (?:charged|billed|invoiced|debited)\b/g,
    'cost $1',
  ],
  [/^(?:compared (?:with|to)|verglichen mit|par rapport a) ((?:19|20)\d\d) (.+)$/g, '$2 compared to $1'],
  [/\b(we|i) (?:were|are|was|am|have been|had been|got|get) (?:charged|billed|invoiced|debited)\b/g, 'cost $1'],
  [/\b(?:swallow(?:ed|s)?|eat(?:s|en)? up|ate up|devour(?:ed|s)?)\b/g, 'cost'],
  [
    /\b(?:took|takes|gets?|got|receives?|received|had|has had) (?:the )?most(?: of)?(?: our| the)?(?: money)?\b/g,
    'paid the most',
  ],
  // What it comes to.
  [/\b(?:add(?:s|ed)? up|amount(?:s|ed)?|run(?:s)?|ran|comes?|came) to\b/g, 'cost'],
  [/\bwork(?:s|ed)? out at\b/g, 'cost'],
  [/\b(?:zusammengenommen|alles in allem|unterm strich)\b/g, 'insgesamt'],
  // At what rate.
  [
    /\b(?:typical|usual|normal|ordinary|typische[nrsm]?|ubliche[nrsm]?|typique|habituelle?)\b(?! of)|\b(?:normally|usually|typically|generally|as a rule|in general|normalerweise|ublicherweise|gewohnlich|in der regel|normalement|d habitude|habituellement|en general)\b/g,
    'on average',
  ],
  [
    /\b(?:(?:per|a|each|every) (month|year|quarter|week)|(month|year|quarter|week)ly)\b(?! (?:bills?|invoices?|statements?|fees?|ago|before|later|earlier))/g,
    'per$1$2',
  ],
  [/\b(?:(?:pro|jeden|je) monat|im monat(?= (?:fur|bei|an|von|aus)\b|$)|monatlich(?:e[nrs]?)?)\b/g, 'permonth'],
  [/\b(?:(?:pro|je) jahr|jedes jahr|im jahr(?= (?:fur|bei|an|von|aus)\b|$)|jahrlich(?:e[nrs]?)?)\b/g, 'peryear'],
  [/\b(?:(?:pro|je) quartal|im quartal(?= (?:fur|bei|an|von|aus)\b|$)|vierteljahrlich)\b/g, 'perquarter'],
  [/\b(?:par mois|chaque mois|mensuel(?:le)?(?:ment)?)\b/g, 'permonth'],
  [/\b(?:par an|par annee|chaque annee|annuel(?:le)?(?:ment)?)\b/g, 'peryear'],
  // A month by its name.
  [/\b(?:im monat|the month of|le mois de|au mois de) (?=\p{L})/gu, 'in '],
  // Until when.
  [
    /\b(?:till|until what date|until which (?:date|day)|up to (?:when|what date)|to what date)\b(?! now)/g,
    'until when',
  ],
  [/\buntil when when\b/g, 'until when'],
  [
    /\bhow long (?:am|are|is|do|does|will)\b(?=.*\b(?:insured|covered|guaranteed|valid|run|last|good|in force|go on|contract)\b)/g,
    'until when',
  ],
  [/\b(?:jusqu a quelle date|jusqu a quel jour)\b/g, 'jusqu a quand'],
  [/\bcombien de temps\b(?=.*\b(?:assure|assuree|assures|valable|court|dure|contrat)\b)/g, 'jusqu a quand'],
  [/\bwie lange\b(?=.*\b(?:gilt|lauft|versichert|gultig|garantie|vertrag)\b)/g, 'bis wann'],
  [/\bwho (?:am|are) (?:i|we) (?:insured|covered) (?:with|by|through|at)\b/g, 'who is our insurer'],
  [/\b(?:insured|covered)(?= |$)/g, 'insurance valid'],
  [/\bversichert\b/g, 'versicherung gultig'],
  [/\bassure(?:e|s|es)?\b/g, 'assurance valable'],
  [/\b(?:come |comes |coming |be |is |are )?(?:up|due) for renewal\b/g, 'renewal'],
  [/\b(?:needs?|has|have|must) (?:to be )?(?:renewing|renewed|renew|replacing|replaced)\b/g, 'renewal'],
  [/\b(?:come to an end|comes to an end|coming to an end)\b/g, 'end'],
  [/\b(?:run|runs|last|good|in force)\b(?= until| for$|$)(?<=until when.*)/g, 'valid'],
  // How something changed from one time to another.
  [
    /\b(?:(?:gone|went|go|going) (?:up|down)|increase[sd]?|risen|rises?|rose|grown|grew|climbed|changed?|decrease[sd]?|dropped|drops?|fallen|fell|sunk)\b(?=.* (?:from .* to|since|between|than|compared) )/g,
    'more',
  ],
  [/\b(?:gestiegen|angestiegen|gesunken|gefallen|zugenommen|abgenommen)\b/g, 'mehr'],
  [/\b(?:augmente|augmentee?s?|diminue|baisse)\b/g, 'plus'],
  [/\b(?:difference|unterschied|difference) (?:between|zwischen|entre) (.+?) (?:and|und|et) (.+)$/g, 'more $1 than $2'],
  [/\bmore((?: \S+)*?) from (.+) to (.+)$/g, 'more$1 in $3 than in $2'],
  [/\bmehr((?: \S+)*?) von (.+) (?:auf|zu|bis) (.+)$/g, 'mehr$1 $3 als $2'],
  // Two times, of which the second is not said again.
  [
    /\bthis (year|month|quarter|week)((?: \S+)*) than (?:the |in )?(?:last|previous)(?: one)?$/g,
    'this $1$2 than last $1',
  ],
  [
    /\bdiese[sn]? (jahr|monat|quartal)((?: \S+)*) als (?:im )?(?:letzte[nsm]?|vorige[nsm]?)$/g,
    'dieses $1$2 als letztes $1',
  ],
  [
    /\b((?:19|20)\d\d)((?: \S+)*) (than|als|que)(?: in| im)?(?: the| l)? (?:year before|previous year|vorjahr|jahr davor|jahr zuvor|annee d avant|annee precedente)$/g,
    (_, year, between, than) => `${year}${between} ${than} ${Number(year) - 1}`,
  ],
  // Who.
  [/\bwho (?:supplies|sells|provides|delivers) (?:us )?(?:with )?(?:our |the )?(.+)$/g, 'who is our $1 supplier'],
  [/\bwhere (?:do|did|have|does) (we|i) (?:buy|bought|get|got|order|ordered)\b/g, 'from whom do $1 buy'],
  [/\bwo (?:kaufen|kauften|bestellen|bestellten|haben) (wir)\b/g, 'von wem $1'],
  [/\bou (?:achetons nous|avons nous achete|achete t on)\b/g, 'chez qui'],
  [/\bwoher\b/g, 'von wem'],
  // How often somebody did what papers do.
  [
    /\b(?:how often|how many times) (?:did|has|have) (.+?) (?:bill(?:ed)?|invoiced?|charged?) (?:us|me)\b/g,
    'how many bills from $1',
  ],
  [
    /\b(?:how often|how many times) (?:did|has|have) (.+?) (?:write|written|wrote) (?:to )?(?:us|me)\b/g,
    'how many letters from $1',
  ],
  [/\b(?:how often|how many times) (?:did|has|have) (.+?) remind(?:ed)? (?:us|me)\b/g, 'how many reminders from $1'],
  // All there is.
  [
    /\b(?:anything|everything|whatever|all there is|alles|irgendetwas|irgendwas|tout ce qui|tout ce que)\b/g,
    'all papers',
  ],
  [/\bno\b(?= of\b)/g, 'number'],
];

/** Words that something is paid at a rate, and which. */
export const RATES = { permonth: 'month', perquarter: 'quarter', peryear: 'year' } as const;

/** What stands in a question where a sender was named. */
export const NAMED = '¤';

/** A plain question, said by the wordings that questions are understood by. */
export function rephrased(plain: string): string {
  return SAME.reduce(
    (text, [form, same]) => (typeof same === 'string' ? text.replace(form, same) : text.replace(form, same)),
    plain,
  )
    .replace(/ {2,}/g, ' ')
    .trim();
}
