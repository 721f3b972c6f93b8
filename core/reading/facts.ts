import { editDistance } from '../finding/editDistance';
import { Box } from '../geometry';
import { datesInLine } from './dates';
import { lineBox, linesOf, PageText, plainText, Word } from './words';

export const KINDS = ['receipt', 'invoice', 'letter', 'statement', 'other'] as const;
export type Kind = (typeof KINDS)[number];

/** Something that was read from a document: what, where, and how sure. */
export interface Fact<Value = string> {
  value: Value;
  /** The page that it stands on, from 1. */
  page: number;
  /** Where it stands there, in pixels of the page's picture. */
  box: Box;
  /** From 0 to 1. */
  confidence: number;
}

export interface Facts {
  kind: Fact<Kind> | null;
  vendor: Fact | null;
  /** ISO 8601. */
  date: Fact | null;
}

interface PlacedLine {
  page: number;
  words: Word[];
  text: string;
  box: Box;
}

/**
 * The kind of paper, who it is from and its date, from the text of its pages (in order); null for what was not found.
 * @param knownVendors names that a person has confirmed before: recognised again, in the spelling that was confirmed
 */
export function findFacts(
  pages: Pick<PageText, 'width' | 'height' | 'words'>[],
  { knownVendors = [] }: { knownVendors?: string[] } = {},
): Facts {
  const lines = pages.flatMap((page, index) =>
    linesOf(page.words).map((words) => ({ page: index + 1, words, text: plainText(words), box: lineBox(words) })),
  );
  return {
    kind: findKind(lines),
    vendor: findKnownVendor(lines, pages[0], knownVendors) ?? findVendor(lines, pages[0]),
    date: findDate(lines),
  };
}

const KIND_WORDS: [Kind, RegExp, weight: number][] = [
  ['invoice', /\b(invoice|rechnung|facture|bill)\b/i, 3],
  ['invoice', /\b(vat|mwst|ust|tva)\b|due date|amount due|fällig|zahlbar|échéance/i, 1],
  ['receipt', /\b(receipt|quittung|beleg|bon|kassenbon|reçu|ticket)\b/i, 3],
  ['receipt', /\b(cash|change|card|till|kasse|bar|karte|rückgeld|espèces|carte)\b/i, 1],
  ['statement', /\b(statement|kontoauszug|relevé)\b|account summary|opening balance/i, 3],
  ['letter', /^(dear|sehr geehrte|liebe[rs]?|madame|monsieur|chère?)\b/i, 3],
  ['letter', /yours (sincerely|faithfully|truly)|kind regards|mit freundlichen grüßen|cordialement|salutations/i, 2],
];

/** What a word for a kind scores as a heading; without any, the kind is a guess. */
const HEADING_POINTS = 4.5;

function findKind(lines: PlacedLine[]): Fact<Kind> | null {
  const scores = new Map<Kind, { score: number; strongest: number; line: PlacedLine }>();
  for (const line of lines) {
    for (const [kind, pattern, weight] of KIND_WORDS) {
      if (!pattern.test(line.text)) continue;
      // A short line that says the word is a heading; a long one only mentions it.
      const points = weight * (line.words.length <= 4 ? 1.5 : 0.6);
      const known = scores.get(kind);
      if (!known) scores.set(kind, { score: points, strongest: points, line });
      else {
        known.score += points;
        if (points > known.strongest) Object.assign(known, { strongest: points, line });
      }
    }
  }
  const ranked = [...scores].sort((a, b) => b[1].score - a[1].score);
  if (ranked.length === 0) return null;
  const [kind, { score, strongest, line }] = ranked[0];
  const second = ranked[1]?.[1].score ?? 0;
  const most = strongest >= HEADING_POINTS ? 0.95 : 0.6;
  const confidence = Math.min(most, 0.55 + (score - second) / 10);
  return { value: kind, page: line.page, box: line.box, confidence };
}

const COMPANY =
  /\b(ltd|limited|llp|plc|gmbh|ag|kg|ohg|e\.k\.|sarl|s\.a\.r\.l\.|sas|s\.a\.|co\.?|& sons|council|school|surgery|stadtwerke|verein)\b/i;
const NOT_A_NAME =
  /@|www\.|https?:|\b(tel|phone|fax|date|datum|invoice|rechnung|facture|receipt|quittung|page|seite|iban|vat|total|dear)\b|\d{4,}|^\W*$/i;
/** How much of the first page's height letterheads take. */
const HEAD = 0.3;

/** A sender that is known already, in the head of the first page: the surest way to tell one. */
function findKnownVendor(
  lines: PlacedLine[],
  first: Pick<PageText, 'height'> | undefined,
  known: string[],
): Fact | null {
  const keys = known.map((name) => ({ name, key: lettersOf(name) })).filter(({ key }) => key.length >= LEAST_LETTERS);
  for (const { page, words, text, box } of lines) {
    if (page !== 1 || box[1] > HEAD * (first?.height ?? 0)) continue;
    const letters = lettersOf(text);
    const match = keys.find(({ key }) => letters === key || editDistance(letters, key) <= key.length * MOST_MISREAD);
    if (!match) continue;
    const sure = words.reduce((sum, word) => sum + word.confidence, 0) / words.length;
    return { value: match.name, page: 1, box, confidence: Math.min(0.98, 0.6 + 0.38 * sure) };
  }
  return null;
}

/** How short a name may be, in letters, to be recognised again; and what share of them may have been misread. */
const LEAST_LETTERS = 5;
const MOST_MISREAD = 0.1;

function lettersOf(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
}

/** Who a paper is from: the line in the head of the first page that stands out by size, height and form of a name. */
function findVendor(lines: PlacedLine[], first: Pick<PageText, 'height'> | undefined): Fact | null {
  if (!first) return null;
  const head = lines.filter(({ page, box }) => page === 1 && box[1] < HEAD * first.height);
  const heights = head.flatMap(({ words }) => words.map((word) => word.box[3])).sort((a, b) => a - b);
  const usual = heights[heights.length >> 1] || 1;
  let best: { score: number; fact: Fact } | undefined;
  head.forEach((line, rank) => {
    const text = line.text.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}.)]+$/gu, '');
    const letters = (text.match(/\p{L}/gu) ?? []).length;
    if (letters < 3 || line.words.length > 7 || NOT_A_NAME.test(text)) return;
    const sure = line.words.reduce((sum, word) => sum + word.confidence, 0) / line.words.length;
    const size = Math.min(3, line.box[3] / usual);
    const score = size + (COMPANY.test(text) ? 1.2 : 0) + (rank === 0 ? 0.8 : 0) - rank * 0.08 + sure - 1;
    if (!best || score > best.score) {
      // Without a form that only firms have, a line that stands out may be anything.
      const most = COMPANY.test(text) ? 0.9 : 0.7;
      const confidence = Math.max(0.2, Math.min(most, sure * (0.35 + score / 6)));
      best = { score, fact: { value: text, page: 1, box: line.box, confidence } };
    }
  });
  return best?.fact ?? null;
}

const DATE_LABEL = /\b(date|dated|datum|vom|le|du|issued|rechnungsdatum|invoice date|tax point)\b/i;
const OTHER_DATE =
  /\b(due|fällig|zahlbar|bis|until|by|échéance|delivery|lieferdatum|liefer|period|from|birth|geb|since|expires?|gültig|order date)\b/i;

function findDate(lines: PlacedLine[]): Fact | null {
  let best: { score: number; fact: Fact } | undefined;
  lines.forEach(({ page, words, text }, rank) => {
    datesInLine(words).forEach(({ date, words: written }, position) => {
      const label = DATE_LABEL.test(text) ? 1 : 0;
      const other = OTHER_DATE.test(text) ? 1 : 0;
      const score = 1 + label - other * 1.2 - Math.min(rank, 40) * 0.02 - (page - 1) * 0.3 - position * 0.1;
      if (best && score <= best.score) return;
      const sure = Math.min(...written.map((word) => word.confidence));
      const confidence = Math.min(0.95, sure) * (other ? 0.5 : label ? 1 : 0.8);
      best = { score, fact: { value: date, page, box: lineBox(written), confidence } };
    });
  });
  return best?.fact ?? null;
}
