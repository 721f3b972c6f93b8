import { Fact, Kind } from './fact';
import { PAYMENT, TOTAL } from './labels';
import { amountsIn } from './money';
import { Row } from './rows';

/** Words that tell kinds of papers, in folded text: what they say as a heading, or only mentioned. */
const KIND_WORDS: [Kind, RegExp, number][] = [
  [
    'invoice',
    /\b(tax |vat |sales )?invoice\b|\brechnung\b|\brechnung[/|li1](?=lief|quitt|beleg)|kundenrechnung|\bfacture\b|\bfactura\b|\bfattura\b|\bfactuur\b|verkoopfactuur|\bfatura\b|\bbill\b/u,
    3,
  ],
  [
    'invoice',
    /due date|amount due|payment due|pay by|pay within|uberweisen sie|zahlen sie|falligkeit|fallig am|zahlbar bis|zahlungsziel|echeance|vencimiento|scadenza|vervaldatum|vencimento/u,
    1.4,
  ],
  [
    'invoice',
    /invoice n|inv\. ?n|rechnungsn|rechnungs-|facture n|n° de facture|factuurn|numero fattura|fattura n/u,
    1.6,
  ],
  [
    'receipt',
    /\breceipt\b|\bquittung\b|kassenbon|kassenbeleg|\bbeleg\b(?!-? ?(?:nr|nummer|no|datum))|\brecu\b|ticket( de caisse| de compra)?\b|\brecibo\b|scontrino|\bricevuta\b|documento commerciale|kassabon|kwitantie|\btalao\b/u,
    3,
  ],
  [
    'receipt',
    /\b(cash|change|card|till|contactless|visa|kasse|bar|karte|girocard|ruckgeld|especes|carte|rendu|efectivo|tarjeta|cambio|contanti|resto|pin|wisselgeld|troco|multibanco|numerario)\b/u,
    1.1,
  ],
  [
    'receipt',
    /thank you for (your )?(visit|custom|shopping)|fur ihren einkauf|merci de votre visite|gracias por su|bedankt voor uw|obrigado pela|grazie (e|della)/u,
    1.6,
  ],
  [
    'statement',
    /\bstatement\b|kontoauszug|umsatzubersicht|releve de compte|extrait de compte|extracto|estratto conto|rekeningafschrift|\bafschrift\b|extrato/u,
    4.2,
  ],
  [
    'statement',
    /(opening|closing|previous|new) balance|kontostand|(ancien|nouveau) solde|saldo (anterior|actual|iniziale|finale|atual)|(begin|eind)saldo/u,
    2,
  ],
  [
    'letter',
    /^(dear|sehr geehrte|liebe[rs]?|guten tag|madame|monsieur|chere?|estimad[oa]|muy senor|gentile|egregio|geachte|beste|exm[oa]|caro|prezado)\b/u,
    3.4,
  ],
  [
    'letter',
    /yours (sincerely|faithfully|truly)|kind regards|best wishes|mit freundlichen grussen|freundliche grusse|herzliche grusse|hochachtungsvoll|cordialement|bien a vous|salutations|atentamente|cordial saludo|cordiali saluti|distinti saluti|vriendelijke groet|hoogachtend|melhores cumprimentos|atenciosamente/u,
    2.4,
  ],
];

/** What is paid at once is paid at a till. */
const PAID = new RegExp(`^(?:${PAYMENT.source})`, 'u');
const SAYS_PAID = 1.1;
/** A till's paper is no wider than this share of its height, and no wider than this in points. */
const NARROW = 0.62;
/** What a word for a kind scores as a heading; without any, the kind is a guess. */
const HEADING_POINTS = 4.5;

/** What kind of paper it is. */
export function findKind(
  rows: readonly Row[],
  first: { width: number; height: number } | undefined,
): Fact<Kind> | null {
  const scores = new Map<Kind, { score: number; strongest: number; row: Row; said: string }>();
  const add = (kind: Kind, points: number, row: Row, said: string) => {
    const known = scores.get(kind);
    if (!known) scores.set(kind, { score: points, strongest: points, row, said });
    else {
      known.score += points;
      if (points > known.strongest) Object.assign(known, { strongest: points, row, said });
    }
  };
  const counted = new Set<string>();
  for (const row of rows) {
    for (const [kind, pattern, weight] of KIND_WORDS) {
      const found = pattern.exec(row.folded);
      if (!found || counted.has(kind + found[0])) continue;
      counted.add(kind + found[0]);
      // A short line that says the word is a heading; a long one only mentions it.
      const short =
        row.words.length <= 4 || row.cells.some(({ folded, words }) => words.length <= 3 && pattern.test(folded));
      add(kind, weight * (short ? 1.5 : 0.6), row, found[0]);
    }
    const paid = PAID.exec(row.folded);
    if (paid && row.words.length <= 5) add('receipt', SAYS_PAID, row, paid[0]);
  }
  if (first && rows.length > 0 && scores.size > 0 && first.width / first.height < NARROW)
    add('receipt', 2, rows[0], 'its narrow paper');
  const ranked = [...scores].sort((a, b) => b[1].score - a[1].score);
  if (ranked.length === 0) return byItsSum(rows, first);
  const [kind, { score, strongest, row, said }] = ranked[0];
  const second = ranked[1]?.[1].score ?? 0;
  const most = strongest >= HEADING_POINTS ? 0.97 : 0.68;
  const confidence = Math.min(most, 0.55 + (score - second) / 8);
  return { value: kind, page: row.page, box: row.box, confidence, why: { code: 'says', text: said.trim() } };
}

/** A paper that no word says the kind of, but that has a total, is a bill of some kind. */
function byItsSum(rows: readonly Row[], first: { width: number; height: number } | undefined): Fact<Kind> | null {
  const total = rows.findLast((row) => TOTAL.test(row.folded) && amountsIn(row).length > 0);
  if (!total) return null;
  const value = first && first.width / first.height < NARROW ? 'receipt' : 'invoice';
  return { value, page: total.page, box: total.box, confidence: 0.5, why: { code: 'has-total' } };
}
