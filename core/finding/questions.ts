import { Box } from '../geometry';
import { KnownFacts } from '../reading/about';
import { DayForm, writeDay } from '../reading/dayForms';
import { datesInLine } from '../reading/dates';
import { placeOf } from '../reading/facts/fact';
import { amountsIn } from '../reading/facts/money';
import { Cell, fold, Row, rowsOf } from '../reading/facts/rows';
import { subjectOf } from '../reading/facts/subject';
import { isCommonWord } from '../reading/language';
import { PageText } from '../reading/words';

type Pages = readonly Pick<PageText, 'words'>[];

/** An answer, with the place where it stands when it is in words of the paper. */
export interface Answer {
  text: string;
  /** The fact that it comes from; null for words on the paper. */
  fact: string | null;
  /** From 1. */
  page: number | null;
  /** In pixels of the page's picture. */
  box: Box | null;
}

/** Words that ask for the same (small letters, no accents). What one of a group asks for, the others on a paper answer. */
const SAME: readonly (readonly string[])[] = [
  [
    'end',
    'expire',
    'expiry',
    'expires',
    'ends',
    'until',
    'ablauf',
    'endet',
    'ende',
    'bis',
    'fin',
    'expiration',
    'jusqu',
    'jusque',
  ],
  ['begin', 'start', 'starts', 'begins', 'from', 'beginn', 'beginnt', 'ab', 'debut'],
  ['pay', 'paid', 'payable', 'payment', 'zahlen', 'bezahlen', 'zahlung', 'zahlbetrag', 'payer', 'owe', 'due', 'fallig'],
  ['phone', 'telephone', 'telefon', 'tel'],
  ['number', 'no', 'nr', 'nummer', 'numero'],
  ['meter', 'zahler', 'zahlernummer', 'compteur'],
  ['customer', 'client', 'kunde', 'kunden', 'kundennummer'],
  ['policy', 'police', 'versicherungsschein', 'polizze'],
  ['cost', 'price', 'preis', 'prix'],
];
const groupOf = new Map(SAME.flatMap((words, group) => words.map((word) => [word, group] as const)));

/** What kind of thing is asked for. */
type Wanted = 'day' | 'amount' | 'number' | 'rate' | 'name' | 'place' | 'text';
const WANTS: [wanted: Wanted, asks: RegExp][] = [
  ['rate', /\b(rate|percent|prozent|steuersatz|taux)\b|%/],
  ['day', /\b(when|date|day|deadline|until|wann|datum|bis wann|tag|quand|cuando|quando|wanneer|jour)\b/],
  [
    'amount',
    /\b(how much|amount|cost|price|sum|total|betrag|summe|wie ?viel|preis|combien|montant|prix|cuanto|quanto|hoeveel|owe)\b/,
  ],
  ['number', /\b(number|no|nr|nummer|\w+nummer|numero|code|reference|reading|stand|zahlerstand|how many|wie viele)\b/],
  ['name', /\b(who|whom|whose|wer|wem|wen|qui|quien|chi|wie|quem)\b/],
  ['place', /\b(where|wo|ou|donde|dove|waar|onde)\b/],
];

/**
 * What a question may be about so that a fact answers it: all its words that say something are among these. A question with any
 * other word is about something else, which only the paper itself can answer.
 */
const PAPER_WORDS =
  'paper document bill invoice receipt letter slip it this rechnung quittung brief beleg papier facture recu lettre ticket factura fattura factuur fatura stand say print written printed';
const ASKED: [fact: string, words: string][] = [
  [
    'dueDate',
    'when due pay payable payment by deadline latest must have until date fallig zahlbar wann bis zahlen zahlung spatestens echeance payer quand vencimiento scadenza vervaldatum vencimento',
  ],
  ['taxRate', 'which what rate tax vat percent mwst ust steuersatz prozent steuer taux tva iva btw apply applies'],
  ['net', 'net netto amount total before without tax vat ohne mwst hors taxe ht sum'],
  ['tax', 'vat tax mwst ust steuer tva iva btw how much amount in included contained enthalten betrag'],
  [
    'amountDue',
    'how much to pay owe payable due still left remain remaining amount balance have zahlen noch betrag offen zahlbetrag payer reste combien must',
  ],
  ['number', 'number no nr nummer numero rechnungsnummer belegnummer id'],
  [
    'total',
    'total how much amount cost sum price altogether gross betrag summe gesamt gesamtbetrag wieviel viel kostet combien montant total cuanto quanto hoeveel come came',
  ],
  ['date', 'date dated when day issued written from of datum wann ausgestellt vom quand date cuando quando wanneer'],
  [
    'vendor',
    'who from sender sent issued supplier seller wrote wer von wem absender qui envoye quien chi wie quem vendor',
  ],
  ['currency', 'which what currency wahrung devise moneda valuta'],
  ['kind', 'what kind sort type of art was ist das is'],
  ['subject', 'what about subject concern concerns worum geht betreff sujet'],
  ['period', 'which what period for time span zeitraum abrechnungszeitraum periode cover covers covered'],
  ['reference', 'reference your ref verwendungszweck zeichen payment'],
];
const ALLOWED = ASKED.map(([fact, words]) => ({
  fact,
  words: new Set([...words.split(' '), ...PAPER_WORDS.split(' ')]),
}));
/** A question is about a fact when it has a word of these, too. */
const MARKS: Partial<Record<string, RegExp>> = {
  dueDate:
    /\b(due|pay|payable|deadline|fallig|zahlbar|bis wann|zahlen|echeance|vencimiento|scadenza|vervaldatum|vencimento)\b/,
  taxRate: /\b(rate|percent|prozent|steuersatz|taux)\b|%|\bwhich (vat|tax)\b/,
  net: /\b(net|netto|before|without|ohne|hors|ht)\b/,
  tax: /\b(vat|tax|mwst|ust|steuer|tva|iva|btw)\b/,
  amountDue:
    /\b(pay|owe|payable|left|remain|remaining|balance|zahlen|offen|zahlbetrag|payer|reste)\b|\bamount due\b|\bdue amount\b/,
  number: /\b(number|no|nr|\w*nummer|numero|id)\b/,
  total:
    /\b(total|much|amount|cost|sum|price|betrag|summe|gesamt\w*|wieviel|viel|kostet|combien|montant|cuanto|quanto|hoeveel)\b/,
  date: /\b(date|dated|when|datum|wann|quand|cuando|quando|wanneer)\b/,
  vendor: /\b(who|sender|supplier|seller|vendor|wer|wem|absender|qui|quien|chi|wie|quem)\b/,
  currency: /\b(currency|wahrung|devise|moneda|valuta)\b/,
  kind: /\b(kind|sort|type)\b|^was ist das|^what is (it|this)\b/,
  subject: /\b(about|subject|worum|betreff|sujet)\b/,
  period: /\b(period|zeitraum|abrechnungszeitraum|periode|cover\w*)\b/,
  reference: /\b(reference|ref|verwendungszweck|zeichen)\b/,
};

/** Rows that say that something was paid before: then the total is not what is to be paid. */
const PAID_BEFORE =
  /\b(deposit|prepaid|prepayment|already paid|less payment|payments? received|credit applied|anzahlung|abschlag|bereits (be|ge)zahlt|acompte|deja paye)\b/;
/** To whom something is addressed, rather than who it is from. */
const TO_WHOM =
  /\b(to whom|whom|addressed|addressee|recipient|sent to|adressiert|empfanger|destinataire|an wen|a qui)\b/;

/**
 * Answers a plain question from a document's facts, or from words of it that truly contain the answer; undefined when nothing does:
 * a wrong answer is worse than none.
 * @param question in any of the languages that papers are read in, such as “which tax rate?” or “wann fällig?”
 * @param form how days are written
 */
export function answerTo(question: string, facts: KnownFacts, pages: Pages, form: DayForm = 'iso'): Answer | undefined {
  const asked = fold(question)
    .replace(/[?!.]+\s*$/, '')
    .trim();
  const words = asked.split(/[^\p{L}\p{N}%]+/u).filter(Boolean);
  if (words.length === 0) return undefined;
  const rows = rowsOf(pages);
  const special = specialAnswer(asked, rows);
  if (special !== undefined) return special ?? undefined;
  for (const { fact, words: allowed } of ALLOWED) {
    if (!MARKS[fact]!.test(asked) || !words.every((word) => allowed.has(word) || isAsking(word))) continue;
    const found = factAnswer(fact, facts, pages, rows, form);
    if (found) return found;
  }
  return labelledAnswer(asked, rows, form) ?? sentenceAnswer(asked, rows);
}

/** Words that only ask. */
function isAsking(word: string): boolean {
  return ASKING.has(word);
}
const ASKING = new Set(
  'a an the is are was were be it its this that there of on at in for to do does did i we you me us have has had what which when where who how please tell der die das den dem des ist sind war ein eine einer wir ich uns mir es an auf im in zu am welche welcher welches was le la les l un une est sont de du d et on nous je ce cette que quel quelle el los un una es do da o a il lo'.split(
    ' ',
  ),
);

/** What has a form of its own. Null when it is asked for and the paper has none; undefined when nothing of the kind is asked for. */
function specialAnswer(asked: string, rows: readonly Row[]): Answer | null | undefined {
  const at = (row: Row, text: string): Answer => ({ text, fact: null, page: row.page, box: row.box });
  const only = (form: RegExp): Answer | null => {
    const found = new Map<string, Answer>();
    for (const row of rows)
      for (const match of row.text.matchAll(new RegExp(form, `${form.flags.replace('g', '')}g`))) {
        const text = (match[1] ?? match[0]).trim();
        if (!found.has(text)) found.set(text, at(row, text));
      }
    // Of several nobody knows which is meant.
    return found.size === 1 ? [...found.values()][0] : null;
  };
  if (/\b(sign(ed|s|ature)?|unterschr\w+|unterzeichn\w+|signe|firm\w+)\b/.test(asked)) return signatureOf(rows) ?? null;
  if (TO_WHOM.test(asked)) return null;
  if (/\b(iban|bank account|account number|kontonummer|konto|compte bancaire)\b/.test(asked))
    return only(/\b([A-Z]{2}\d{2}(?: ?[A-Z0-9]{2,4}){3,8})\b/);
  if (/\b(phone|telephone|telefon\w*|tel)\b/.test(asked))
    return only(/(?:tel|phone|fon|telefon|t[ée]l)\b\S*\s*(\+?[\d()/ -]{6,20}\d)/i);
  if (/\b(e-?mail|mail)\b/.test(asked)) return only(/(\S+@\S+\.\w+)/);
  if (/\b(website|web|internet)\b/.test(asked)) return only(/(www\.\S+|https?:\/\/\S+)/i);
  if (/\b(vat|tax) (no|number|id)\b|\bust-?id\w*|\bsteuernummer|numero de tva/.test(asked))
    return only(
      /(?:vat|ust|tva|iva|btw|steuer|tax)\S*[^A-Z0-9]*(?:no|nr|number|id|reg)?\S*\s+([A-Z]{0,3} ?[\d./ -]{7,}\d)/i,
    );
  return undefined;
}

function factAnswer(
  fact: string,
  facts: KnownFacts,
  pages: Pages,
  rows: readonly Row[],
  form: DayForm,
): Answer | undefined {
  if (fact === 'subject') {
    const subject = subjectOf(pages);
    if (facts.subject) return { text: facts.subject, fact, page: null, box: null };
    return subject && { text: subject.text, fact: null, page: subject.row.page, box: subject.row.box };
  }
  // Of what is still to be paid the total says something only where nothing was paid before.
  const from =
    fact === 'amountDue' && !facts.amountDue && !rows.some(({ folded }) => PAID_BEFORE.test(folded)) ? 'total' : fact;
  const value = facts[from];
  if (!value) return undefined;
  const isMoney = ['total', 'net', 'tax', 'amountDue'].includes(from);
  const text =
    from === 'date' || from === 'dueDate'
      ? writeDay(value, form)
      : from === 'taxRate'
        ? `${value} %`
        : isMoney && facts.currency
          ? `${value} ${facts.currency}`
          : value;
  return { text, fact: from, page: null, box: null };
}

const CLOSING =
  /^(yours (sincerely|faithfully|truly)|(with )?(kind|best) regards|sincerely|mit (freundlichen|besten) gru|freundliche gru|cordialement|bien a vous|veuillez agreer|atentamente|un saludo|cordiali saluti|distinti saluti|met vriendelijke groet|com os melhores cumprimentos|atenciosamente)/;

/** The name under a letter's closing. */
function signatureOf(rows: readonly Row[]): Answer | undefined {
  const at = rows.findIndex(({ folded }) => CLOSING.test(folded));
  const row =
    at < 0
      ? undefined
      : rows.slice(at + 1, at + 4).find(({ text }) => /^\p{Lu}[\p{L}.'’-]+( \p{Lu}[\p{L}.'’-]*)+/u.test(text));
  return row && { text: row.cells[0].text, fact: null, page: row.page, box: placeOf(row.cells[0].words) };
}

/** The words of a question that say what it is about. */
function sought(asked: string): string[] {
  return asked
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => groupOf.has(word) || (word.length > 2 && !isAsking(word) && !isCommonWord(word)))
    .filter((word) => !ONLY_KIND.test(word));
}
/** Words that only say what kind of answer is wanted. */
const ONLY_KIND = /^(date|day|amount|much|many|sum|betrag|datum|montant|who|whom|where|when|wann|quand|code)$/;

/** Whether a word on the paper is one of the question: the same but for its ending, or one that asks for the same. */
function isSame(word: string, asked: string): boolean {
  if (word === asked) return true;
  const group = groupOf.get(asked);
  if (group !== undefined && groupOf.get(word) === group) return true;
  const [short, long] = word.length < asked.length ? [word, asked] : [asked, word];
  if (short.length < 4) return false;
  // Words put together: “Zählernummer” has both “Zähler” and “Nummer”.
  if (long.includes(short) && short.length >= 5) return true;
  return long.startsWith(short.slice(0, Math.max(4, short.length - 2))) && long.length - short.length <= 4;
}

const wordsIn = (folded: string) => folded.split(/[^\p{L}\p{N}]+/u).filter(Boolean);

function holdsAll(text: string, asked: readonly string[]): boolean {
  const words = wordsIn(text);
  return asked.every((each) => words.some((word) => isSame(word, each)));
}

/** The value behind a label that has all words of the question, if there is one value only. */
function labelledAnswer(asked: string, rows: readonly Row[], form: DayForm): Answer | undefined {
  const about = sought(asked);
  const wanted = WANTS.find(([, asks]) => asks.test(asked))?.[0] ?? 'text';
  if (about.length === 0 || wanted === 'name' || wanted === 'place') return undefined;
  const found = new Map<string, Answer>();
  rows.forEach((row, at) => {
    row.cells.forEach((cell, place) => {
      for (const { label, value, words } of labelled(cell, row.cells[place + 1], rows[at + 1], row)) {
        if (!holdsAll(fold(label), about) || wordsIn(fold(label)).length > about.length + 3) continue;
        const text = valueOf(value, wanted, row, form);
        if (text && !found.has(text)) found.set(text, { text, fact: null, page: row.page, box: placeOf(words) });
      }
    });
  });
  return found.size === 1 ? [...found.values()][0] : undefined;
}

/** A cell as label and value: parted by a colon, or by what follows in the next cell, or in the one below. */
function* labelled(
  cell: Cell,
  next: Cell | undefined,
  below: Row | undefined,
  row: Row,
): Generator<{ label: string; value: string; words: Cell['words'] }> {
  const colon = /^(.{2,60}?)\s*[:=]\s+(\S.*)$/.exec(cell.text);
  if (colon) yield { label: colon[1], value: colon[2], words: cell.words };
  else if (next && !/\d{3}/.test(cell.text))
    yield { label: cell.text.replace(/[:\s]+$/, ''), value: next.text, words: next.words };
  else {
    const figures = /^(\D{3,60}?)\s+(\S*\d.*)$/.exec(cell.text);
    if (figures) yield { label: figures[1], value: figures[2], words: cell.words };
  }
  // At the head of a column.
  const under = below?.cells.find(({ box }) => Math.abs(box[0] - cell.box[0]) < cell.box[3]);
  if (!colon && under && row.cells.length > 1 && below!.cells.length === row.cells.length && !/\d/.test(cell.text))
    yield { label: cell.text, value: under.text, words: under.words };
}

/** A value as what is wanted; nothing when it is none. */
function valueOf(value: string, wanted: Wanted, row: Row, form: DayForm): string | undefined {
  const [word] = [{ text: value, box: row.box, confidence: 1, line: 0, baseline: 0 }];
  switch (wanted) {
    case 'day': {
      const days = datesInLine([word]);
      return days.length === 1 ? writeDay(days[0].date, form) : undefined;
    }
    case 'amount':
      return amountsIn({
        ...row,
        cells: [
          {
            words: value.split(' ').map((text) => ({ ...word, text })),
            text: value,
            folded: fold(value),
            box: row.box,
          },
        ],
      }).length === 1
        ? value
        : undefined;
    case 'rate':
      return /^\d{1,2}([.,]\d{1,2})? ?%$/.test(value) ? value : undefined;
    case 'number':
      return /\d/.test(value) && datesInLine([word]).length === 0 && value.split(' ').length <= 4 ? value : undefined;
    default:
      return value.length <= 80 && value.split(' ').length <= 12 ? value : undefined;
  }
}

/** The sentence that has all words of the question and what is wanted, if there is one only. */
function sentenceAnswer(asked: string, rows: readonly Row[]): Answer | undefined {
  const about = sought(asked);
  const wanted = WANTS.find(([, asks]) => asks.test(asked))?.[0] ?? 'text';
  if (about.length === 0) return undefined;
  const has: Record<Wanted, (text: string) => boolean> = {
    day: (text) =>
      TIME.test(fold(text)) ||
      datesInLine([{ text, box: [0, 0, 0, 0], confidence: 1, line: 0, baseline: 0 }]).length > 0,
    amount: (text) => /\d[.,]\d{2}\b|[£€$]\s?\d|\d\s?(eur|gbp|chf|usd)\b/i.test(text),
    number: (text) => /\d/.test(text),
    rate: (text) => /\d ?%/.test(text),
    name: (text) => /\p{Ll}\s+\p{Lu}\p{Ll}+|^\p{Lu}\p{Ll}+ \p{Lu}/u.test(text),
    place: (text) => /\p{Ll}\s+\p{Lu}\p{Ll}+|\d/u.test(text) || SOMEWHERE.test(fold(text)),
    text: () => true,
  };
  // A single word of a question that wants anything is found anywhere.
  if (wanted === 'text' && about.length < 2) return undefined;
  const found = rows.filter(
    ({ text, folded }) => wordsIn(folded).length >= 4 && holdsAll(folded, about) && has[wanted](text),
  );
  return found.length === 1 ? { text: found[0].text, fact: null, page: found[0].page, box: found[0].box } : undefined;
}

/** Places that have no name of their own: “at the harbour office”, “hinter dem Tor”, “dans la cour”; but not “in the morning”. */
const SOMEWHERE =
  /\b((at|in|to|from|near|behind|beside|under|opposite|inside|outside) (the|our|your)|im|beim|zum|zur|(an|in|auf|bei|hinter|neben|unter|vor) (der|dem)|au|aux|a la|dans (le|la|les|l)|chez|devant|derriere) (?!morning|afternoon|evening|night|day|week|month|year|meantime|future|amount|sum|total|bank|voraus|monat|jahr|morgen|abend|woche|mois|matin|soir|jour|total|montant)\p{L}{3,}/u;

/** Times that are no dates. */
const TIME =
  /\b(mon|tues|wednes|thurs|fri|satur|sun)days?\b|\b(january|february|march|april|may|june|july|august|september|october|november|december|januar|februar|marz|mai|juni|juli|oktober|dezember|janvier|fevrier|mars|avril|juin|juillet|aout|septembre|octobre|novembre|decembre)\b|\b(montag|dienstag|mittwoch|donnerstag|freitag|samstag|sonntag|lundi|mardi|mercredi|jeudi|vendredi|samedi|dimanche)s?\b|\b\d+ (days|weeks|months|tage|wochen|monate|jours|semaines|mois)\b|\b\d{1,2}(:\d{2})? ?(am|pm|uhr)\b/;
