import { datesInLine } from '../reading/dates';
import { findKind } from '../reading/facts/kinds';
import { rowsOf as documentRows } from '../reading/facts/rows';
import { findSender } from '../reading/facts/senders';
import { lineBox, linesOf, PageText, plainText, Word } from '../reading/words';

/** What a page shows that tells whether it begins a document, goes on with one or ends one. Small enough to be kept with it. */
export interface PageSigns {
  /** The paper, upright, in points. */
  size: [width: number, height: number];
  words: number;
  language: string;
  /** The page number printed on it, and of how many. */
  number: { at: number; of: number | null } | null;
  /** Numbers that are named as that of an invoice, an account, a customer and so on. */
  refs: string[];
  dates: string[];
  /** Words that not every paper has: names, numbers. */
  names: string[];
  /** The letters of the first lines, and the words at the foot. */
  head: string;
  foot: string[];
  /** How much larger the largest letters in the head are than most on the page. */
  headSize: number;
  title: boolean;
  address: boolean;
  salutation: boolean;
  closing: boolean;
  total: boolean;
  terms: boolean;
  /** A sum is carried over to the next page, or was from the last one; “continued”, “please turn over”. */
  goesOn: boolean;
  wentOn: boolean;
  /** The first line of the body begins in the midst of a sentence; the last one ends there. */
  beginsOpen: boolean;
  endsOpen: boolean;
  /** Where the body begins and ends, as shares of the height. */
  top: number;
  bottom: number;
  /** Right ends of the amounts in the first and the last rows of the body, as shares of the width; empty without a table. */
  firstColumns: number[];
  lastColumns: number[];
  /** Height of most words and where lines begin: points, and a share of the width. */
  letter: number;
  left: number;
  /** Who its letterhead names, in letters and figures alone, and how sure that is; absent in what was kept before this was looked for. */
  sender?: { letters: string; sure: number } | null;
  /** What kind of paper a heading on it says that it is, and how sure that is. */
  kind?: { name: string; sure: number } | null;
}

interface Line {
  text: string;
  words: Word[];
  x: number;
  y: number;
  width: number;
  height: number;
}

/** How much of the height the head of a page takes, and its edges, where page numbers stand. */
const HEAD = 0.36;
const EDGE = 0.14;
const FOOT = 0.9;
const MOST_NAMES = 60;
const MOST_HEAD_LETTERS = 60;

const NUMBER = '([\\dlI|]{1,3})';
const NUMBERED = '(?:page|seite|blatt|sheet|folio|p[aá]gina|pagina|pag\\.?|bladzijde|p\\.|s\\.)';
const OF = '(?:of|von|sur|de|di|van|/)';
const PAGE_OF = new RegExp(`${NUMBERED}\\s*${NUMBER}\\s*${OF}\\s*${NUMBER}(?!\\d)`, 'i');
const ALONE_OF = new RegExp(`^\\W*${NUMBER}\\s*(?:${OF})\\s*${NUMBER}\\W*$`, 'i');
const PAGE_ALONE = new RegExp(`(?:^|[\\s·,|])${NUMBERED}\\s*${NUMBER}\\W*$`, 'i');
const ALONE = /^[-–—.\s]*([\dlI|]{1,2})[-–—.\s]*$/;

const REF_LABEL =
  /\b(?:invoice|rechnungs?|facture|factura|fattura|factuur|account|konto|compte|customer|kunden|client|policy|vertrags?|contrat|our ref|ref|r[ée]f|beleg|order|auftrags?|commande|statement|kontoauszug|inv|credit note|gutschrift|delivery note|lieferschein|bon de livraison)\b/i;
const REF = /\b(?=[\w/-]*\d{3})[A-Z]{0,4}[\d][\w/-]{2,17}\b/g;
const TITLE =
  /^\W*(?:tax |vat |pro forma )?(?:invoice|bill|rechnung|facture|factura|fattura|factuur|statement|kontoauszug|relev[ée]|receipt|quittung|kassenbon|kassenbeleg|beleg|re[çc]u|ticket|delivery note|lieferschein|bon de livraison|agreement|contract|vertrag|contrat|minutes|protokoll|compte rendu|certificate|bescheinigung|urkunde|reminder|mahnung|rappel|order|bestellung|auftragsbest[äa]tigung|credit note|gutschrift|avoir|quotation|angebot|devis)\b/i;
const SALUTATION =
  /^\W*(?:dear\b|sehr geehrte|liebe[rs]?\b|hallo\b|guten tag|madame\b|monsieur\b|ch[eè]re?s?\b|estimad|gentile|geachte)/i;
const CLOSING =
  /^\W*(?:yours (?:sincerely|faithfully|truly)|(?:kind|best|warm) regards|with (?:best|kind) |mit freundlichen gr|freundliche gr|hochachtungsvoll|herzliche gr|viele gr|cordialement|bien [àa] vous|veuillez agr|salutations|atentamente|cordiali saluti|distinti saluti|met vriendelijke)/i;
const TOTAL =
  /\b(?:total(?: due)?|amount due|gesamtbetrag|rechnungsbetrag|endbetrag|zu zahlen|summe|gesamt|net [àa] payer|total ttc|closing balance|neuer kontostand|endsaldo|nouveau solde|importe total|totale)\b/i;
const TERMS =
  /\b(?:please pay|payment is due|thank you for your (?:order|visit|custom)|direct debit|zahlbar|bitte [üu]berweisen|vielen dank|wird von ihrem konto|r[èe]glement|paiement [àa]|merci de votre|nous vous remercions)/i;
const GOES_ON =
  /\b(?:carried forward|carry forward|[üu]bertrag|[àa] reporter|continued overleaf|please turn over|p\.?t\.?o\.?|bitte wenden|tournez s)/i;
const WENT_ON = /\b(?:brought forward|[üu]bertrag|report\b|continued\b|fortsetzung|suite\b)/i;
const AMOUNT = /^[-+£$€]*\d[\d.,' ]*[.,]\d{2}(?:[€£$]|\s*(?:EUR|CHF))?-?$/;
/** A line with a postcode, as in an address. */
const POSTCODE = /\b(?:[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}|\d{4,5} \p{Lu}\p{L}{2,})/u;

/**
 * Reads the signs off a page's text.
 * @param size of the paper in points, upright
 */
export function signsOf(
  text: Pick<PageText, 'width' | 'height' | 'words' | 'language'>,
  size: [number, number],
): PageSigns {
  const lines = linesOf(text.words)
    .map((words): Line => {
      const [x, y, width, height] = lineBox(words);
      return {
        text: plainText(words),
        words,
        x: x / text.width,
        y: y / text.height,
        width: width / text.width,
        height: height / text.height,
      };
    })
    .filter((line) => /[\p{L}\p{N}]/u.test(line.text))
    .sort((a, b) => a.y - b.y);
  const rows = rowsOf(text.words.filter((word) => word.box[1] < FOOT * text.height));
  const number = pageNumber(lines);
  const printed = documentRows([text]);
  const sender = findSender(printed, text, []);
  const kind = findKind(printed, text);
  const usual = median(text.words.map((word) => word.box[3])) || 1;
  const foot = lines.filter(({ y }) => y > FOOT);
  const body = lines.filter((line) => line.y <= FOOT && line !== number?.line);
  const head = body.filter(({ y }) => y < HEAD);
  const some = (among: Line[], pattern: RegExp) => among.some((line) => pattern.test(line.text));
  const [first, last] = [body[0], body[body.length - 1]];
  return {
    size,
    words: text.words.length,
    language: text.language,
    number: number && { at: number.at, of: number.of },
    refs: unique(lines.filter((line) => REF_LABEL.test(line.text)).flatMap(refsIn)).slice(0, 8),
    dates: unique(lines.flatMap((line) => datesInLine(line.words).map(({ date }) => date))).slice(0, 8),
    names: unique(body.flatMap((line) => line.text.match(/\b\p{Lu}[\p{L}-]{4,}|\b[\d/-]{4,}\b/gu) ?? [])).slice(
      0,
      MOST_NAMES,
    ),
    head: lettersOf(
      body
        .slice(0, 2)
        .map((line) => line.text)
        .join(''),
    ).slice(0, MOST_HEAD_LETTERS),
    foot: unique(foot.flatMap((line) => line.text.toLowerCase().match(/[\p{L}\p{N}@.]{4,}/gu) ?? [])).slice(0, 24),
    headSize: Math.max(0, ...body.filter(({ y }) => y < 0.22).map((line) => (line.height * text.height) / usual)),
    title: head.some((line) => line.words.length <= 6 && TITLE.test(line.text)),
    address: head.some((line, index) => line.words.length <= 6 && POSTCODE.test(line.text) && index > 0),
    salutation: some(
      body.filter(({ y }) => y < 0.6),
      SALUTATION,
    ),
    closing: some(body, CLOSING),
    total: rows.some((words) => TOTAL.test(plainText(words)) && words.some((word) => AMOUNT.test(word.text))),
    terms: some(body, TERMS),
    goesOn: some(lines.slice(-6), GOES_ON),
    wentOn: some(lines.slice(0, 6), WENT_ON),
    beginsOpen: first !== undefined && /^\p{Ll}/u.test(first.text) && first.words.length > 3,
    endsOpen:
      last !== undefined &&
      last.words.length > 5 &&
      !/[.!?:)]\W*$/.test(last.text) &&
      amountEnds(last.words).length === 0,
    top: first?.y ?? 1,
    bottom: last ? last.y + last.height : 0,
    firstColumns: columnsOf(rows.slice(0, 7), text.width),
    lastColumns: columnsOf(rows.slice(-5), text.width),
    letter: (usual / text.height) * size[1],
    left: median(body.map(({ x }) => x)) || 0,
    sender: sender && { letters: lettersOf(sender.value), sure: sender.confidence },
    kind: kind && { name: kind.value, sure: kind.confidence },
  };
}

function pageNumber(lines: Line[]): { at: number; of: number | null; line: Line } | null {
  const edge = lines.filter(({ y, height }) => y < EDGE || y + height > 1 - EDGE);
  for (const pattern of [PAGE_OF, ALONE_OF, PAGE_ALONE, ALONE]) {
    // The outermost lines first: what looks like a page number further in may be something else.
    const outermost = [...edge].sort((a, b) => Math.min(a.y, 1 - a.y) - Math.min(b.y, 1 - b.y));
    // In words it may stand anywhere, in a line of its own.
    const short = pattern === PAGE_OF ? lines.filter((line) => line.words.length <= 4 && !edge.includes(line)) : [];
    for (const line of [...outermost, ...short]) {
      const found = pattern.exec(line.text);
      if (!found) continue;
      const [at, of] = [digits(found[1]), found[2] === undefined ? null : digits(found[2])];
      if (at >= 1 && at < 200 && (of === null || (of >= at && of < 400))) return { at, of, line };
    }
  }
  return null;
}

function digits(written: string): number {
  return Number(written.replace(/[lI|]/g, '1'));
}

function refsIn({ text }: Line): string[] {
  const labelled = text.slice(REF_LABEL.exec(text)!.index);
  return (labelled.toUpperCase().match(REF) ?? [])
    .filter((ref) => !/^\d{1,2}[/-]\d{1,2}[/-]\d{2,4}$|^(19|20)\d\d$/.test(ref))
    .map((ref) => ref.replace(/O/g, '0'));
}

/** Words that stand beside each other, whatever columns the reading took them for; from the top downwards. */
function rowsOf(words: Word[]): Word[][] {
  const sorted = [...words].sort((a, b) => middleOf(a) - middleOf(b));
  const rows: Word[][] = [];
  for (const word of sorted) {
    const row = rows[rows.length - 1];
    if (row && middleOf(word) - middleOf(row[row.length - 1]) < 0.45 * word.box[3]) row.push(word);
    else rows.push([word]);
  }
  return rows.map((row) => row.sort((a, b) => a.box[0] - b.box[0]).map((word) => ({ ...word, line: 0 })));
}

function middleOf({ box: [, y, , height] }: Word): number {
  return y + height / 2;
}

/** Right ends of the amounts in a row. */
function amountEnds(row: Word[]): number[] {
  return row.filter((word) => AMOUNT.test(word.text)).map((word) => word.box[0] + word.box[2]);
}

/** Where amounts end in most of some rows. */
function columnsOf(rows: Word[][], width: number): number[] {
  const ends = rows.map(amountEnds).filter((each) => each.length > 0);
  if (ends.length < 2) return [];
  return ends[ends.length >> 1].map((x) => Math.round((1000 * x) / width) / 1000);
}

function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
}

function unique<T>(values: T[]): T[] {
  return [...new Set(values)];
}

function lettersOf(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
}
