import { Box } from '../geometry';
import { fold, Row, rowsOf } from './facts/rows';
import { FactLine } from './facts/fact';
import { isDay } from './facts/gate';
import { placeOf } from './facts/fact';
import { subjectOf } from './facts/subject';
import { PageText } from './words';

type Pages = readonly Pick<PageText, 'words'>[];

/** The facts of a document by name, as they are kept: dates in ISO 8601, money with a point. */
export type KnownFacts = Readonly<Partial<Record<string, string>>>;

const KIND_WORDS: Partial<Record<string, string>> = {
  receipt: 'Receipt',
  invoice: 'Invoice',
  letter: 'Letter',
  statement: 'Statement',
};

/**
 * What a paper is, in one or two sentences, from its facts and its own words; '' when nothing is known of it.
 * @param lines what it lists
 */
export function summaryOf(facts: KnownFacts, lines: readonly FactLine[], pages: Pages): string {
  const { kind, vendor, date, number, total, currency, dueDate, net, tax, taxRate } = facts;
  const what = KIND_WORDS[kind ?? ''] ?? 'Paper';
  const money = total && `${total}${currency ? ` ${currency}` : ''}`;
  const taxed = tax && `with ${tax} tax${taxRate ? ` at ${taxRate} %` : ''}${net ? ` on ${net}` : ''}`;
  const first = [
    `${what}${number ? ` ${number}` : ''}`,
    vendor && `from ${vendor}`,
    date && `of ${dayInWords(date)}`,
    money && `over ${money}`,
    money && taxed,
    dueDate && `due on ${dayInWords(dueDate)}`,
  ].filter(Boolean);
  const named = lines.map(({ description }) => description).filter(Boolean);
  const subject = facts.subject ?? subjectOf(pages)?.text;
  const second =
    named.length > 0
      ? `It lists ${named.slice(0, 3).join(', ')}${named.length > 3 ? ` and ${named.length - 3} more` : ''}.`
      : subject
        ? `It is about “${subject}”.`
        : '';
  if (first.length === 1 && !second && what === 'Paper') return '';
  return `${first.join(' ').replace(/ (due on)/, ', $1')}.${second ? ` ${second}` : ''}`;
}

function dayInWords(date: string): string {
  if (!isDay(date)) return date;
  return new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
    new Date(`${date}T00:00:00Z`),
  );
}

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

/** What is asked, by words that ask for it (small letters, no accents), in the order in which they are tried. */
const ASKED: [fact: string, asks: RegExp][] = [
  ['subject', /\b(about|subject|worum|betreff|sujet)\b/],
  [
    'signed',
    /\b(who|wer|qui|quien|chi|wie|quem)\b.*\b(sign|unterschrieb|unterzeichn|signe|firm|assin|onderteken)|\bsignature\b|\bunterschrift\b/,
  ],
  ['iban', /\b(iban|bank account|account number|kontonummer|konto|compte|which account)\b/],
  ['phone', /\b(phone|telephone|telefon|tel|call|anrufen)\b/],
  ['web', /\b(web|website|site|email|e-mail|mail|internet)\b/],
  [
    'taxNumber',
    /\b(vat (no|number|id)|tax (no|number|id)|ust-?id\w*|steuernummer|numero de tva|tva intracommunautaire)\b/,
  ],
  [
    'dueDate',
    /\b(due|pay by|payable|deadline|fallig\w*|zahlbar|bis wann|echeance|vencimiento|scadenza|vervaldatum|vencimento)\b/,
  ],
  ['taxRate', /\b(rate|percent|prozent|steuersatz|taux)\b|%|\bwhich (vat|tax)\b/],
  ['net', /\b(net|netto|before tax|without (vat|tax)|hors taxe|ht)\b/],
  ['tax', /\b(vat|tax|mwst|ust|steuer|tva|iva|btw)\b/],
  ['number', /\b(number|nummer|numero|no|reference)\b/],
  ['total', /\b(total|how much|amount|cost|sum|price|wie ?viel|betrag|summe|combien|montant|cuanto|quanto|hoeveel)\b/],
  ['date', /\b(date|dated|when|datum|wann|quand|cuando|quando|wanneer|day)\b/],
  ['vendor', /\b(who|from|sender|wer|von wem|absender|qui|quien|chi|wie|quem)\b/],
  ['currency', /\b(currency|wahrung|devise|moneda|valuta)\b/],
  ['kind', /\b(what is (it|this)\s*[?]?$|kind|what kind|art|was ist das)\b/],
];

/**
 * Answers a plain question from a document's facts and its own words; undefined when nothing on it answers: nothing is made up.
 * @param question in any of the languages that papers are read in, such as “which tax rate?” or “wann fällig?”
 */
export function answerTo(question: string, facts: KnownFacts, pages: Pages): Answer | undefined {
  const asked = fold(question);
  for (const [name, asks] of ASKED) {
    if (!asks.test(asked)) continue;
    const found = lookedUp(name, facts, pages);
    if (found) return found;
    // What is asked for is known, but the paper does not say it; only a plain question about it ends here.
    if (name !== 'date' && name !== 'vendor' && name !== 'number') break;
  }
  return bestLine(asked, pages);
}

function lookedUp(name: string, facts: KnownFacts, pages: Pages): Answer | undefined {
  const rows = rowsOf(pages);
  const at = (row: Row, text: string): Answer => ({ text, fact: null, page: row.page, box: row.box });
  const matching = (form: RegExp) => {
    for (const row of rows) {
      const found = form.exec(row.text);
      if (found) return at(row, (found[1] ?? found[0]).trim());
    }
    return undefined;
  };
  switch (name) {
    case 'signed':
      return signatureOf(rows);
    case 'iban':
      return matching(/\b([A-Z]{2}\d{2}(?: ?[A-Z0-9]{2,4}){3,8})\b/);
    case 'phone':
      return matching(/(?:tel|phone|fon|telefon|t[ée]l)\b\S*\s*(\+?[\d()/ -]{6,20}\d)/i);
    case 'web':
      return matching(/(\S+@\S+\.\w+|www\.\S+|https?:\/\/\S+)/i);
    case 'taxNumber':
      return matching(
        /(?:vat|ust|tva|iva|btw|steuer|tax)\S*[^A-Z0-9]*(?:no|nr|number|id|reg)?\S*\s+([A-Z]{0,3} ?[\d./ -]{7,}\d)/i,
      );
    case 'subject': {
      const subject = subjectOf(pages);
      return subject && at(subject.row, subject.text);
    }
    default: {
      const value = facts[name];
      if (!value) return undefined;
      const money = ['total', 'net', 'tax'].includes(name) && facts.currency ? `${value} ${facts.currency}` : value;
      const day = name === 'date' || name === 'dueDate' ? dayInWords(value) : money;
      return { text: name === 'taxRate' ? `${value} %` : day, fact: name, page: null, box: null };
    }
  }
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

const EMPTY_WORDS = new Set(
  'a an the is are was were be it its this that of to in on at for by with and or what which when where who how does do did has have much many der die das ist sind ein eine und oder was welche welcher wann wo wer wie hat le la les un une est sont et ou que quel quelle quand'.split(
    ' ',
  ),
);
/** Words are the same when their first letters are: “deliver” and “delivery”. */
const STEM = 5;

/** The line of the paper that has most of the question's words, if it has most of them. */
function bestLine(asked: string, pages: Pages): Answer | undefined {
  const stem = (word: string) => word.slice(0, STEM);
  const sought = new Set(
    asked
      .split(/[^\p{L}\p{N}]+/u)
      .filter((word) => word.length > 2 && !EMPTY_WORDS.has(word))
      .map(stem),
  );
  if (sought.size === 0) return undefined;
  let best: { row: Row; has: number } | undefined;
  for (const row of rowsOf(pages)) {
    const words = new Set(row.folded.split(/[^\p{L}\p{N}]+/u).map(stem));
    const has = [...sought].filter((word) => words.has(word)).length;
    if (!best || has > best.has) best = { row, has };
  }
  if (!best || best.has * 2 <= sought.size) return undefined;
  return { text: best.row.text, fact: null, page: best.row.page, box: best.row.box };
}
