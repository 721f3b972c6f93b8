import { editDistance } from '../../finding/editDistance';
import { PageText } from '../words';
import { Fact, placeOf } from './fact';
import { Cell, Row } from './rows';

const COMPANY =
  /(?<![\p{L}.])(ltd|limited|llp|plc|gmbh|ag|kg|ohg|ug|e\.? ?k\.?|e\.? ?v\.?|sarl|s\.a\.r\.l\.|sas|s\.a\.|sa|co\.?|& sons|& söhne|& fils|e hijos|e figli|& zonen|& filhos|s\.l\.|s\.r\.l\.|s\.p\.a\.|b\.v\.|n\.v\.|lda\.?|council|school|surgery|stadtwerke|verein|bank|insurance|university|museum)(?![\p{L}])/iu;
const NOT_A_NAME =
  /@|www\.|https?:|\b(tel|phone|fax|date|datum|invoice|rechnung|facture|factura|fattura|factuur|fatura|receipt|quittung|kassenbon|kassenbeleg|beleg|ticket|recibo|reçu|statement|kontoauszug|page|seite|iban|vat|total|dear)\b|\d{4,}|^\W*$/i;
/** How much of the first page's height letterheads take; of a till's long paper, not more than so many widths. */
const HEAD = 0.3;
const HEAD_IN_WIDTHS = 0.45;

type FirstPage = Pick<PageText, 'width' | 'height'>;

/** Who a paper is from: one of those known already, or the name in its letterhead. */
export function findSender(rows: readonly Row[], first: FirstPage | undefined, known: string[]): Fact | null {
  if (!first) return null;
  const lowest = Math.min(HEAD * first.height, Math.max(HEAD_IN_WIDTHS * first.width, 0.16 * first.height));
  const head = rows.filter(({ page, box }) => page === 1 && box[1] < lowest);
  return findKnownVendor(head, known) ?? findVendor(head, rows);
}

/** Why a sender is told that a person has confirmed before. */
export const KNOWN_NAME = 'confirmed before';

/** A sender that is known already, in the head of the first page: the surest way to tell one. */
function findKnownVendor(head: readonly Row[], known: string[]): Fact | null {
  const keys = known.map((name) => ({ name, key: lettersOf(name) })).filter(({ key }) => key.length >= LEAST_LETTERS);
  for (const { words, text, box } of head.flatMap(({ cells }) => cells)) {
    const letters = lettersOf(text);
    const match = keys.find(({ key }) => letters === key || editDistance(letters, key) <= key.length * MOST_MISREAD);
    if (!match) continue;
    const sure = words.reduce((sum, word) => sum + word.confidence, 0) / words.length;
    return { value: match.name, page: 1, box, confidence: Math.min(0.98, 0.6 + 0.38 * sure), why: KNOWN_NAME };
  }
  return null;
}

/** How short a name may be, in letters, to be recognised again; and what share of them may have been misread. */
const LEAST_LETTERS = 5;
const MOST_MISREAD = 0.1;

function lettersOf(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
}

/** Web and mail addresses and the small print at the foot name the firm again. */
function saidAgain(cell: Cell, rows: readonly Row[]): number {
  const key = lettersOf(cell.text);
  const own = lettersOf(cell.text.split(' ').sort((a, b) => b.length - a.length)[0]);
  let said = 0;
  for (const { text } of rows) {
    const letters = lettersOf(text);
    if (letters !== key && letters.includes(key)) said = Math.max(said, 1);
    if (own.length >= 4 && /[@]|www\.|\.\w{2,}$/.test(text) && letters.includes(own)) said = Math.max(said, 0.8);
  }
  return said;
}

/** The line in the head of the first page that stands out by size, height, form of a name and being named again. */
function findVendor(head: readonly Row[], rows: readonly Row[]): Fact | null {
  const heights = rows.flatMap(({ words }) => words.map((word) => word.box[3])).sort((a, b) => a - b);
  const usual = heights[heights.length >> 1] || 1;
  let best: { score: number; fact: Fact } | undefined;
  head.forEach((row, rank) => {
    for (const cell of row.cells) {
      const text = cell.text.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}.)]+$/gu, '');
      const letters = (text.match(/\p{L}/gu) ?? []).length;
      if (letters < 3 || cell.words.length > 7 || NOT_A_NAME.test(text) || /(?<!\p{L})\d/u.test(text)) continue;
      const sure = cell.words.reduce((sum, word) => sum + word.confidence, 0) / cell.words.length;
      const size = Math.min(3, Math.max(...cell.words.map(({ box }) => box[3])) / usual);
      const isFirm = COMPANY.test(text);
      const again = saidAgain(cell, rows);
      const score = size + (isFirm ? 1.2 : 0) + again + (rank === 0 ? 0.8 : 0) - rank * 0.12 + sure - 1;
      if (best && score <= best.score) continue;
      // Without a form that only firms have, a line that stands out may be anything.
      const most = isFirm && again > 0 ? 0.96 : isFirm || again > 0 ? 0.9 : 0.7;
      const confidence = Math.max(0.2, Math.min(most, sure * (0.35 + score / 5)));
      const why = again > 0 ? 'heads the paper and is named again' : 'heads the paper';
      best = { score, fact: { value: text, page: 1, box: placeOf(cell.words), confidence, why } };
    }
  });
  return best?.fact ?? null;
}
