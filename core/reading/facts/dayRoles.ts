import { datesInLine, FoundDate } from '../dates';
import { Kind, KINDS } from './fact';
import { kindTraits } from './kindList';
import { kindWords } from './kindWords';
import { beforeInCell, wordsAround } from './labelled';
import { OPENING } from './labels';
import { amountsIn } from './money';
import { Word } from '../words';
import { fold, Row } from './rows';
import { Part, partsOf, Term, termsBefore } from './terms';

/** What a day on a paper is of. */
export type DayRole = 'date' | 'due' | 'ends' | 'other';

/** What says it. */
export interface DayLabel {
  role: DayRole;
  text: string;
  /** How many letters lie between it and the day. */
  away: number;
  /** Whether it may as well say something else. */
  weak: boolean;
  until?: boolean;
  above?: boolean;
  /** Whether it is of a paper that the one to whom this one goes has written. */
  yours?: boolean;
}

/** A cell of more words is a sentence. */
export const SENTENCE = 6;

const ROLES: Part[] = ['day', 'issued', 'pay', 'until', 'from', 'ends', 'span', 'event'];
/** Prepositions and such that say little by themselves. */
const LITTLE: Part[] = ['day', 'until', 'from'];
/** Words that only say that it is a day: “on”, “le”, “am”. */
const PREPOSITION = /^(?:on|am|le|il|op|den|du|del|of|el|em|a|vom)$/;
const TO_BE = /\b(?:wird|werden|will be|sera|seront)\b/;
/** How many words behind a day with an “until” may say that it is one of payment. */
const FAR_BEHIND = 14;
const NEARBY = 2;
/** Letters between a word and the day that it is for. */
const NEAR = 40;

/** What stands beside a day, before or behind it or above, and says what it is of. */
export function dayLabel(
  rows: readonly Row[],
  row: Row,
  { words }: Pick<FoundDate, 'words'>,
  kind: Kind | undefined,
): DayLabel | undefined {
  // In a list of other papers each row tells of another one.
  if ((isAboutAnother(kind) || kind === 'statement') && row.cells.length >= 3 && amountsIn(row).length > 0)
    return { role: 'other', text: 'list', away: 0, weak: false };
  const { beside, above } = wordsAround(rows, row, words);
  const before = labelInCell(row, words) ?? beside;
  // “Sort code 20-11-84”
  const [nearest] = termsBefore(before).filter(({ parts }) => parts.length > 0);
  if (nearest?.parts.includes('bank')) return { role: 'other', text: nearest.word, away: nearest.away, weak: false };
  const behindIt = foldedBehind(row, words);
  if (WE_TAKE.test(behindIt)) return { role: 'due', text: 'take', away: 0, weak: false };
  if (TAKES.test(before) && isTakenBehind(row, words))
    return { role: 'due', text: TAKES.exec(before)![0], away: 0, weak: false };
  if (DRAWS.test(before) && DRAWN_BEHIND.test(behindIt))
    return { role: 'due', text: DRAWS.exec(before)![1], away: 0, weak: false };
  if (SUM_BY.test(before) && !ONLY_IF.test(before) && kind && kindTraits[kind].due)
    return { role: 'due', text: 'by', away: 0, weak: false };
  // “Alter Kontostand vom 30.10.”: the last day of the statement before.
  if (kind && kindTraits[kind].balances && OPENING.test(row.folded))
    return { role: 'other', text: OPENING.exec(row.folded)![0], away: 0, weak: false };
  // “Bei Zahlung bis 12.11. 2 % Skonto”
  const discount = DISCOUNT.exec(behindIt);
  if (discount) return { role: 'other', text: discount[1], away: 0, weak: false };
  // “Bis 30.11. netto”
  const net = kind && kindTraits[kind].due && NET_BEHIND.exec(behindIt);
  if (net) return { role: 'due', text: net[1], away: 0, weak: false };
  if (NET_DAYS.test(before)) return { role: 'due', text: NET_DAYS.exec(before)![0].trim(), away: 0, weak: false };
  const cited = ofNumbered(before, kind);
  if (cited) return cited;
  const told = before === '' ? sentenceBefore(rows, row) : before;
  const here = roleOf(termsBefore(told), kind, told);
  // “bis 7. Dezember zu überweisen”, “am 1. April fällig”: what is to be done stands behind the day.
  // “Der Betrag wird am 19.11. von Ihrem Konto abgebucht”
  const isToBe = TO_BE.test(before);
  const behind =
    here?.role === 'other' ? (here.until ? FAR_BEHIND : 0) : !here || here.weak ? (isToBe ? FAR_BEHIND : NEARBY) : 0;
  if (isPaidBehind(rows, row, words, behind)) return { text: 'day', away: 0, ...here, role: 'due', weak: false };
  if (here && !(here.weak && above)) return here;
  // “Stand 30.09.2026” below the head of a column is named by itself.
  const own = row.cells.find((each) => each.words.includes(words[0]))!.words;
  const isNamed = own.slice(0, own.indexOf(words[0])).some(({ text }) => /\p{L}{3}/u.test(text));
  const isLabelled = above !== undefined && !isNamed && !isEndOfTime(rows, row, above);
  const said = isLabelled ? roleOf(termsBefore(above), kind, above) : undefined;
  // “Care plan renewal” is a title, and the day below it that of the paper.
  const over = said?.role === 'ends' && !saysWhen(above!) ? undefined : said;
  return over && !over.weak ? { ...over, away: over.away + 4, above: true } : (here ?? over);
}

/** A label in the cell of a day that calls it one (folded). */
function labelInCell(row: Row, words: readonly Word[]): string | undefined {
  const before = beforeInCell(row, words);
  if (!before || before.words.length > LONGEST_CALLED) return undefined;
  const calls = ({ word, parts }: Term) => parts.includes('day') && !PREPOSITION.test(word);
  return termsBefore(before.text).some(calls) ? before.text : undefined;
}
/** Labels that call a day one have no more words. */
const LONGEST_CALLED = 4;

/** Whether a label means a day: “Renewal date” does, and “expires”, “Care plan renewal” does not. */
const saysWhen = (text: string) =>
  !/\brenewal$/.test(text) ||
  text.split(' ').some((word) => partsOf(word).some((part) => part === 'day' || part === 'until'));

/** Whether the head of a column is the second of two, from when and until when something was (folded). */
function isEndOfTime(rows: readonly Row[], row: Row, above: string): boolean {
  if (!/^(?:bis|to|until|till|au|tot)$/.test(above)) return false;
  return rows
    .slice(Math.max(0, row.number - HEADS_ABOVE), row.number)
    .some(({ cells }) => cells.some(({ folded }) => /^(?:von|from|ab|du|van|since)$/.test(folded)));
}
const HEADS_ABOVE = 6;

/** A sum and the day until which it is to be paid: “£87.43 by 26 Oct 2026” (folded). */
const SUM_BY = /\d[.,]\d{2} ?[€£$]?,? (?:by|before|until|bis|bis zum|avant le|au plus tard le)$/;

/** What names a day is no longer than so many letters. */
const LONGEST_LABEL = 100;

/** “Ihre Bestellung 4-118 vom”, “Invoice 22-1180”: the day of what a number before it is of (folded). */
const NUMBERED = /^(.*\p{L}.*?)[ :]+\S*\d\S*,?(?:\s+(?:vom|of|du|dated|from|del|van))?$/u;

function ofNumbered(before: string, kind: Kind | undefined): DayLabel | undefined {
  // A line of a paper may be of any length.
  const said = NUMBERED.exec(before.slice(-LONGEST_LABEL).trim());
  if (!said || isAboutAnother(kind)) return undefined;
  const named = termsBefore(said[1])
    .slice(0, 2)
    .find(({ parts }) => parts.includes('order') || parts.includes('document') || parts.includes('delivery'));
  if (!named) return undefined;
  // What is confirmed is of another day than the customer's order.
  const isYours = YOURS.test(before.slice(0, before.lastIndexOf(named.word)));
  if (named.parts.includes('order')) return { ...label(kind === 'order' ? 'date' : 'other', named), yours: isYours };
  if (named.parts.includes('delivery')) return label(kind === 'delivery note' ? 'date' : 'other', named);
  return label(isOthersName(named, kind) ? 'other' : 'date', named);
}

/** Whether a word names another kind of paper, and so another paper: “as in our quote 118 of 3 May” on a bill. */
function isOthersName({ word, parts }: Term, kind: Kind | undefined): boolean {
  if (!kind || !parts.includes('document') || kindWords[kind].named.test(word)) return false;
  return KINDS.some((other) => other !== kind && kindWords[other].named.test(word));
}

/** What a sentence says in the line above, of which a day begins the next one (folded). */
function sentenceBefore(rows: readonly Row[], row: Row): string {
  const above = rows[row.number - 1];
  const cell = above?.page === row.page ? above.cells[0] : undefined;
  const goesOn = cell && cell.words.length > SENTENCE && !/[.;:]$/.test(cell.text);
  return goesOn && Math.abs(cell.box[0] - row.box[0]) < 2 * row.box[3] ? cell.folded : '';
}

/** What was paid, and what makes of it what is to be paid (folded). */
const DONE = /^(?:paid|bezahlt|gezahlt|payee?s?|pagad[oa]|pagat[oa]|betaald|pag[oa])\W*$/;
const TO_BE_DONE = /\b(?:be|zu|werden|wird|sein|etre|ser|essere|worden)\b/;

/** Whether what is to be paid stands behind a day, within so many words of its cell and sentence. */
function isPaidBehind(rows: readonly Row[], row: Row, words: readonly Word[], within: number): boolean {
  const own = row.cells.find((each) => each.words.includes(words[words.length - 1]))!.words;
  // A sentence goes on in the next line.
  const next =
    own.length > SENTENCE && rows[row.number + 1]?.page === row.page ? rows[row.number + 1].cells[0].words : [];
  const cell = [...own, ...next];
  const from = cell.indexOf(words[words.length - 1]);
  if (/[.;]$/.test(cell[from].text)) return false;
  const behind = cell.slice(from + 1, from + 1 + within);
  // “5 July, due 4 August”: what is said behind it is of the next day.
  if (within <= NEARBY && datesInLine(cell.slice(from + 1, from + 5)).length > 0) return false;
  const end = behind.findIndex(({ text }) => /[.;]$/.test(text));
  // “29 Nov 11:12 paid contactless” has been.
  const isDone = (said: readonly Word[], at: number) =>
    DONE.test(fold(said[at].text)) && !TO_BE_DONE.test(fold(`${said[at - 1]?.text ?? ''} ${said[at + 1]?.text ?? ''}`));
  const says = (said: readonly Word[]) =>
    said.some(({ text }, at) => partsOf(fold(text)).includes('pay') && !isDone(said, at));
  // Far behind, what is to be done ends the sentence.
  if (within > NEARBY) return end >= 0 && says(behind.slice(end, end + 1));
  return says(behind.slice(0, end < 0 ? undefined : end + 1));
}

/** What stands before a day. */
interface Saying {
  /** Words that say something of a day, the nearest first. */
  terms: Term[];
  /** The nearest of them that is more than a preposition. */
  strong: Term | undefined;
  kind: Kind | undefined;
  whole: string;
}

const label = (role: DayRole, { word: text, away }: Term, weak = false): DayLabel => ({ role, text, away, weak });
const first = ({ terms }: Saying, part: Part, within = NEAR) =>
  terms.find(({ parts, away }) => parts.includes(part) && away <= within);
const isAboutAnother = (kind: Kind | undefined) => kind === 'reminder' || kind === 'credit note';

/** What is said of a day stands in so many letters before it. */
const LONGEST_SAYING = 300;

function roleOf(before: readonly Term[], kind: Kind | undefined, whole: string): DayLabel | undefined {
  const terms = before.filter(({ parts }) =>
    parts.some((part) => ROLES.includes(part) || part === 'document' || part === 'policy'),
  );
  if (terms.length === 0) return undefined;
  const strong = terms.find(
    ({ parts, word }) =>
      parts.some((part) => !LITTLE.includes(part)) || (parts.includes('day') && !PREPOSITION.test(word)),
  );
  const saying = { terms, strong, kind, whole: whole.slice(-LONGEST_SAYING) };
  for (const rule of RULES) {
    const said = rule(saying);
    if (said) return said;
  }
  return undefined;
}

/** In the order in which they count: the first that has something to say settles it. */
const RULES = [ofSigning, ofAnotherPaper, ofPayment, ofAnEnd, ofAnEvent, ofASpan, ofItsOwn];

/** “Fait à Concarneau, le”, “Signed on”: a paper is of the day on which it was signed; what was received before is no paper (folded). */
const [SIGNED, GOT] = [
  /\b(?:fait (?:en \p{L}+ exemplaires? )?(?:a|le)|signed|done at|unterzeichnet|geschehen zu)\b/u,
  /\b(?:recu|received|erhalten)(?: le| on| am)?\W*$/,
];

function ofSigning({ terms, kind, whole }: Saying): DayLabel | undefined {
  const [nearest] = terms;
  // What is signed beside another day is of that one.
  const said = whole.slice(whole.search(/\d(?!.*\d)/) + 1);
  if (SIGNED.test(said) && !GOT.test(whole)) return label('date', nearest);
  const isPayment = terms.some(({ parts }) => parts.includes('pay'));
  return kind === 'receipt' && GOT.test(whole) && !isPayment ? label('date', nearest, true) : undefined;
}

/** The bill that a reminder or a credit note is about has its own day. */
function ofAnotherPaper({ terms: [nearest], kind, whole }: Saying): DayLabel | undefined {
  if (kind === 'reminder' && REMINDED.test(whole)) return label('other', nearest);
  const isCited = isAboutAnother(kind) && /invoice|rechnung|factu|fattur|fatur/.test(whole);
  return isCited && !/date|datum|data\b/.test(nearest.word) ? label('other', nearest) : undefined;
}

/** An earlier reminder, in one that follows: “trotz unserer Erinnerung vom” (folded). */
const REMINDED =
  /\b(?:unsere?[rsnm]?|our|notre|nos|previous|vorherige[rn]?|precedente?)\b(?: \p{L}+)? (?:zahlungs)?(?:erinnerung|mahnung|schreiben|reminder|letter|notice|rappel|relance|courrier)s?(?: vom| of| from| dated| du)?\W*$/u;

/** What is taken from an account is due on that day (folded). */
const TAKEN =
  /\b(?:take|taken|draw|drawn|charged?|buchen|einziehen)\b.*\b(?:bank|account|card|konto)\b|\b(?:buchen|ziehen)\b.*\b(?:ab|ein)\b|\b(?:will|to) be (?:charged|debited|taken|drawn|collected)\b|\bwe(?: will|'ll) (?:take|collect)\b/;

/** “Wir buchen den Beitrag am 1.12. von Ihrem Konto ab”, “we collect it on 5 May from your account” (folded). */
const TAKES = /\b(?:buchen|ziehen|take|collect|debit|prelev\p{L}*)\b/u;
const ACCOUNT = /konto|account|bank|compte|cuenta|lastschrift|direct debit|prelevement/;

/** “On 30 October 2026 we will take it from your account”, “Am 3.11. buchen wir den Betrag von Ihrem Konto ab”: what stands behind the day (folded). */
const WE_TAKE =
  /^,? ?(?:we(?: will|'ll| shall)? (?:take|collect|debit|charge)|(?:buchen|ziehen|werden) wir|(?:nous )?(?:preleverons|debiterons))\b.*(?:account|bank|card|konto|karte|compte|abbuchen|einziehen)/u;

/** “Den Beitrag ziehen wir am 4.1. ein”: the verb's parts before and behind the day (folded). */
const DRAWS = /\b(ziehen|buchen) (?:wir )?(?:\p{L}+ ){0,6}(?:am|zum|ab dem)$/u;
const DRAWN_BEHIND = /^(?:,? ?(?:\p{L}+ ){0,5})(?:ein|ab)\b/u;

/** What is said of a day behind it stands within so many words: a line of a paper may be of any length. */
const MOST_BEHIND = 40;

/** The words behind a day in its row (folded). */
function foldedBehind(row: Row, words: readonly Word[]): string {
  const from = row.words.indexOf(words[words.length - 1]) + 1;
  const behind = row.words.slice(from, from + MOST_BEHIND);
  return fold(behind.map(({ text }) => text).join(' '));
}

function isTakenBehind(row: Row, words: readonly Word[]): boolean {
  const from = row.words.indexOf(words[words.length - 1]) + 1;
  return row.words.slice(from, from + 5).some(({ text }) => ACCOUNT.test(fold(text)));
}

/** “Net 30: 11/05/2026”, “14 days, 24-Nov-2026” (folded). */
const NET_DAYS =
  /\b(?:net|netto)[: ]+\d{1,3}(?: days?| tage)?\W*$|(?<!valid for |gultig |valable )\b(?:[7-9]|\d{2,3}) (?:days?|tagen?|jours),?\W*$/;

/** How something is paid (folded). */
const BY_MEANS =
  /\bby (?:card|cash|cheque|check|bank|credit|debit|direct|contactless|transfer|standing|post|phone|hand|visa|bacs|mastercard)\b/;

/** Behind a day by which all is to be paid, where less is taken earlier (folded). */
const NET_BEHIND =
  /^\W*(?:rein )?(netto|ohne (?:jeden )?(?:abzug|skonto)|net(?= ?$|[.,;])|without (?:deduction|discount)|sans escompte|in full)/;

/** What should have been paid before (folded). */
const WAS_DUE = /\b(?:was|were|fell|had been) (?:due|payable)|\b(?:war|waren) fallig|\betait (?:due|exigible|payable)/;

/** What comes to its end, and is not to be paid then (folded). */
const RUNS_OUT =
  /\b(?:abonnement|contrat|adhesion|police|bail|garantie)\b.*\barriv\p{L}* a (?:echeance|expiration|son terme|terme)\W*(?:le\W*)?$/u;

/** What the writer pays, and nobody else (folded). */
const WE_PAY =
  /\b(?:we(?: will| shall|'ll)? (?:pay|credit|transfer|refund|reimburse)|wir (?:zahlen|uberweisen|erstatten|verguten)|(?:zahlen|uberweisen|erstatten|verguten) wir|nous (?:vous )?(?:payons|paierons|versons|verserons|virons|virerons|rembours\p{L}+))\b(?:[^.;]|\.(?=\d))*$/u;

/** What begins on a day (folded). */
const BEGINS = /\b(?:ab|seit|from|since|as of|effective|depuis|a (?:partir|compter) du)(?: dem| the| le)?\W*$/;

/** What is taken off where something is paid by a day, right behind that (folded): “bis 12.11. 2 % Skonto”. */
const DISCOUNT =
  /^\W*(?:(?!ohne |no |without |sans |abzuglich )[^\s,;.]+(?:[.,]\d+)? ){0,5}(skonto|discount|escompte|sconto|rabatt|remise)\b/u;

/** “If it is paid by 2 November the charge is reduced”: what holds only then (folded). */
const ONLY_IF = /(?:^|[.;:] )(?:if|provided|wenn|falls|sofern|bei|si|en cas)\b(?:[^.;]|\.(?=\d))*$/u;

/** A word for paying, as far away as a sentence with its sum puts it. */
function ofPayment(saying: Saying): DayLabel | undefined {
  const { terms, kind, whole } = saying;
  // A parcel is collected, and nothing of it is to be paid.
  if (kind === 'delivery note') return undefined;
  // “Was due” says when something else should have been paid.
  if (WAS_DUE.test(whole.slice(whole.lastIndexOf('. ') + 1))) return label('other', terms[0]);
  // “Votre abonnement arrive à échéance le”: it ends.
  if (RUNS_OUT.test(whole)) return label('ends', terms[0]);
  // “Zahlbetrag ab 1. Juli” begins on that day.
  if (BEGINS.test(whole)) return label('other', terms[0]);
  if (TAKEN.test(whole) && terms[0].away <= NEAR) return label('due', terms[0]);
  // “We will pay this into your account on”
  if (WE_PAY.test(whole)) return label('other', terms[0]);
  // What was paid on account has been paid.
  // “Zahlungserinnerung vom” is the paper itself.
  const isOwnName = ({ word, parts }: Term) =>
    kind !== undefined && parts.includes('document') && kindWords[kind].named.test(word);
  const pay = terms.find(
    (term, at) =>
      term.parts.includes('pay') &&
      !term.parts.includes('event') &&
      !term.parts.includes('span') &&
      !isOwnName(term) &&
      // “Payment reminder” is the title.
      !(at > 0 && isOwnName(terms[at - 1])),
  );
  // “Paid by card on”
  const by = first(saying, 'until');
  const until = by?.word === 'by' && BY_MEANS.test(whole) ? undefined : by;
  if (!pay || pay.away > NEAR + (until ? 24 : 0)) return undefined;
  // The day of a pay slip is the day of its pay.
  if (kind === 'payslip') return label('date', pay);
  // What was paid at once was paid on the day of its receipt.
  if (kind === 'receipt' && !until) return label('date', pay, true);
  // “Payment received on”, “paid on”: that day has been.
  if (!until && /received|erhalten|recu|paid|bezahlt|dankend|^\W*less\b|abzgl|abzuglich|moins/.test(whole))
    return label(terms.some(({ word }) => /^(?:date|datum|fecha|data)$/.test(word)) ? 'date' : 'other', pay, true);
  // “Before the end of the month” is no end of anything else.
  const isBetween = [until ? undefined : first(saying, 'ends'), first(saying, 'event')].some(
    (other) => other && other.away < pay.away,
  );
  return isBetween
    ? undefined
    : label('due', pay, ONLY_IF.test(whole) || (!until && !terms[0].parts.includes('pay') && pay.away > 14));
}

/** The end of a time by which something is to be done (folded). */
const END_OF = /\b(?:by|before|bis(?: zum)?|avant|d'ici) (?:the |la |le )?(?:end of|ende|fin)\b/;

/** The last day of the time that a paper is about (folded): “Week ending Sat 14 November”. */
const TIME_ENDING =
  /\b(?:week|fortnight|month|quarter|period) (?:ending|ended)(?: (?:on|the|mon|tues?|wed|thur?s?|fri|sat|sun)(?:\p{L}*day)?)*\W*$/u;

function ofAnEnd(saying: Saying): DayLabel | undefined {
  if (TIME_ENDING.test(saying.whole)) return label('date', saying.terms[0], true);
  const [ends, issued] = [first(saying, 'ends'), first(saying, 'issued')];
  if (!ends || (issued && issued.away < ends.away)) return undefined;
  // “By the end of next week, 30 October”
  if (END_OF.test(saying.whole) && first(saying, 'until')) return undefined;
  return label(/next|nachst|prochain/.test(saying.whole) ? 'other' : 'ends', ends);
}

/** Events whose day is that of the paper, by its kind. */
const OWN_EVENTS: Partial<Record<Kind, RegExp>> = {
  'delivery note': /deliver|liefer|livrais|leistung|lever|consegn|entrega/,
  order: /order|bestell|command|pedido|ordine/,
  ticket: /depart|abfahrt|travel|valid/,
  invoice: /^(?:depart|check-?out)/,
  receipt: /purchas|kauf|achat|^(?:depart|check-?out)/,
};

/** Whose it is, right before a word or one before it (folded). */
const YOURS = /\b(?:your|ihre[mnr]?|votre|uw|su|vostro)\W+(?:\p{L}+\W+)?$/u;

function ofAnEvent(saying: Saying): DayLabel | undefined {
  // “Date required” is when goods are to be there.
  if (WANTED.test(saying.whole)) return label('other', saying.terms[0]);
  const event = first(saying, 'event');
  if (!event) return undefined;
  // “By the end of next week, 30 October”
  const until = first(saying, 'until');
  if (saying.kind === 'reminder' && until && until.away > event.away) return undefined;
  // “Zu Ihrer Bestellung vom 8. Oktober” is the customer's, and seldom the day of what answers it.
  const isYours = YOURS.test(saying.whole.slice(0, saying.whole.lastIndexOf(event.word)));
  if (saying.kind && OWN_EVENTS[saying.kind]?.test(event.word)) return label('date', event, isYours);
  return first(saying, 'document', event.away) ? undefined : label('other', event);
}

/** By when somebody wants something to be there (folded). */
const WANTED =
  /\b(?:date|day) (?:required|needed|wanted)\W*$|\b(?:required|needed|wanted) (?:date|on|for)\W*$|\bwunschtermin\W*$/;

/** “At the latest by” is what is said of paying, whatever the sentence says besides. */
const LATEST = /latest|later|spat(?:est|er)|tard|uiterl|^(?:frist(?:ende|ablauf)?|delai|limite?|terme|cut-?off)$/;

/** The last day on which something may be done (folded): on a paper that asks for money it is to be paid. */
const LAST_DAY =
  /^\W*(?:the )?(?:final|last|latest|letzter?|spatester?|derniere?|ultime) (?:date|day|tag|jour|termin)\W*$/;

/** A label that says “until” and no more (folded). */
const UNTIL_ALONE =
  /^\W*(?:bis(?: zum)?|by|until|no later than|jusqu'au|d'ici(?: au)?|avant le|entro(?: il)?|hasta el|voor|uiterlijk|ate)\W*$/;

function ofASpan(saying: Saying): DayLabel | undefined {
  const { strong, kind, whole } = saying;
  const [span, from, until] = [first(saying, 'span', 12), first(saying, 'from', 20), first(saying, 'until')];
  if (span) return label('other', span);
  // “Kontoauszug zum 31.10.”: an account's statement is of the day that it goes to.
  if (until?.word === 'zum' && !strong && kind && kindTraits[kind].balances) return label('date', until);
  // “To reach us by”
  if (from && !strong && !(until && until.away < from.away)) return label('other', from);
  if (LAST_DAY.test(whole) && kind && kindTraits[kind].due && !kindTraits[kind].ends)
    return label('due', saying.terms[0], true);
  // It stands below what is to be paid.
  const isAlone = kind && !kindTraits[kind].ends && UNTIL_ALONE.test(whole);
  // “A charge applies after 14 November”
  if (until?.word === 'after' && /\bapplies\b|\bwill apply\b|\bbe (?:added|charged)\b/.test(whole))
    return label('other', until);
  const isAsked = kind === 'reminder' || (until && (LATEST.test(until.word) || isAlone));
  if (until && kind && kindTraits[kind].due && isAsked) return label('due', until, true);
  if (!until || (strong && (until.away >= strong.away || strong.parts.includes('issued')))) return undefined;
  return kind && kindTraits[kind].ends ? label('ends', until, true) : { ...label('other', until), until: true };
}

/** What a day is of, where that is no word that is known (folded). */
function isOfSomething({ word }: Term, whole: string): boolean {
  const behind = whole.slice(whole.lastIndexOf(word) + word.length);
  const of = /^ (?:der|des|de la|de|du|of(?: the)?) (\p{L}{5,})\W*$/u.exec(behind)?.[1];
  return of !== undefined && partsOf(of).length === 0;
}

/** “Date in” of what is brought for repair, which has a “date out” (folded). */
const DATE_IN = /\b(?:date|day) (?:in|received)\W*$/;

/** Whom an agreement is made between, and its day behind them (folded). */
const PARTIES = /\b(?:between .+ and|zwischen .+ und|entre .+ et) [^,;]+,\W*$/u;

/** What a day that is a paper's own may be called by. */
const OWN: Part[] = ['day', 'issued', 'document', 'policy', 'from', 'until', 'pay'];

function ofItsOwn({ terms: [nearest], strong, kind, whole }: Saying): DayLabel {
  if (strong) {
    // “Between A and B, 3 September 2026”
    if (kind === 'contract' && strong.away > 12 && PARTIES.test(whole)) return label('date', strong, true);
    if (!strong.parts.some((part) => OWN.includes(part))) return label('other', strong);
    if (isOthersName(strong, kind)) return label('other', strong);
    // “Tag der Zuwendung”, “date of donation”: the day of something else, that has a paper of its own or none.
    const isNearest = nearest === strong || PREPOSITION.test(nearest.word);
    if (strong.parts.includes('day') && isNearest && isOfSomething(strong, whole)) return label('date', strong, true);
    // “Vertragsbeginn”, “date in”: from when on something holds, or was there.
    if (/beginn$/.test(strong.word) || DATE_IN.test(whole)) return label('date', strong, true);
    const onlyNamesIt = strong.parts.every((part) => part === 'document' || part === 'policy');
    return label('date', strong, strong.away > 24 || (onlyNamesIt && strong.away > 4));
  }
  // In a paper about another one, a day that only “of” stands before is that one's.
  return isAboutAnother(kind) ? label('other', nearest) : label('date', nearest, true);
}
