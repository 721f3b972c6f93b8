import { Kind, KINDS } from './fact';
import { KindScores } from './kindScores';
import { kindWords, KindWords } from './kindWords';
import { PAYMENT } from './labels';
import { amountsIn } from './money';
import { Row } from './rows';
import { partsOf } from './terms';
import { kindOfTitle } from './titles';

/** What is paid at once is paid at a till. */
export const PAID = new RegExp(`^(?:(?:amount|date) (?=paid))?(?:${PAYMENT.source})`, 'u');
const SAYS_PAID = 1.1;
/** What naming its kind counts for on a paper, and how: as its heading, before a number, in a sentence. */
const NAMED = 3;
const SAID = { heading: 1.7, short: 1, label: 0.6, mention: 0.5 };
/** Rows from the top in which headings stand. */
const EARLY = 12;
/** The heads of letters have so many rows. */
const HEAD_ROWS = 2;
/** A line of more words is one of a sentence. */
const SENTENCE = 5;
/** A line so much taller than usual is a heading, whatever else it says. */
const TALL = 1.25;

/** Beside something else it must be so much taller: letters with tails are tall by themselves. */
const TALLER = 1.6;

/** Behind the name of a kind: a number and then what is said about it. */
const ABOUT_NUMBERED = /^\W*\S*\d\S*\W+\p{L}/u;
/** What a title goes on with behind the name of a kind. */
export const GOES_ON =
  /^ (?:for|of|on|to|between|about|de|du|des|d'|pour|sur|uber|zur|zum|fur|von|zwischen|per|para|van|voor)\b/;
const LONGEST_TITLE = 9;
/** In small letters it goes on with no more words. */
const LONGEST_BROKEN_OFF = 5;

/** What stands before the name of another paper that this one is about (folded): “against invoice”. */
const ABOUT =
  /(?<!\p{L})(?:against|regarding|re|concerning|zu|zur|betr(?:ifft)?|bezug(?:lich)?|sur|concernant)\.?:? (?:(?:our|your|the|unsere[rm]?|ihre[rm]?|der|notre|votre|la) )?$/u;

/** What stands before the name of what a paper says that it is not (folded): “cet avis ne vaut pas quittance”. */
const IS_NOT =
  /\b(?:(?:is|are|does|do) not(?: \p{L}+)?|isn't|keine?|nicht als|(?:vaut|valent|constitue\p{L}*|n'est|est) pas)(?: an?| any| une?| de| comme)?(?: (?:tax|vat|valid|steuerliche))? $/u;

/** What goes on behind the name of another paper that comes with this one or by itself (folded): “Certificate issued: CS-4418”. */
const BESIDES =
  /^s? (?:(?:is|was|will be) )?(?:issued|enclosed|attached|sent|to follow|follows|beigefugt|anbei|liegt bei|ci-joint\p{L}*|jointe?s?)\b(?! (?:by|on|at)\b)(?!\W+\d{1,2}[ ./])/u;

/** How the line begins that says what a letter is about (folded), perhaps with which of several it is. */
const SUBJECT =
  /^(?:objet|subject|betreff|betr\.?|re|concerne|asunto|oggetto|onderwerp|assunto) ?:? (?:\p{L}+(?:er|e|ieme|st|nd|rd|th)\.? |\d\S* )?$/u;

/** What letters are about again and again (folded). */
const ONGOING = /polic|poliz|contract|contrat|vertrag|agreement|order|bestell|commande|ticket/;

/** How a row says the name of a kind, if it doesn't say that it is none. */
function howItIsSaid(row: Row, named: RegExp, name: string, usual: number): keyof typeof SAID | undefined {
  const cell = row.cells.find(({ folded }) => named.test(folded));
  // A row of a table tells of something else: “Standing order, rent  810.00”.
  if (!cell || (row.cells.length > 1 && row.number > HEAD_ROWS && amountsIn(row).length > 0)) return 'mention';
  const rest = cell.folded
    .replace(name, ' ')
    .replace(/[^\p{L}#°º]+/gu, ' ')
    .trim();
  const words = rest === '' ? [] : rest.split(' ');
  const before = cell.folded.slice(0, cell.folded.indexOf(name));
  if (IS_NOT.test(before)) return undefined;
  if (ABOUT.test(before) || BESIDES.test(cell.folded.slice(before.length + name.length))) return 'mention';
  // “Objet : deuxième relance, compte 41”: what it is about is what it is, unless that may be another paper.
  if (SUBJECT.test(before) && !ONGOING.test(name) && !kindWords.invoice.named.test(name)) return 'short';
  const isNumbered = words.some((each) => partsOf(each).some((part) => part === 'number' || part === 'day'));
  if (words.length === 0) {
    if (/:\s*$/.test(cell.text)) return 'label';
    const isTall = cell.box[3] > TALL * usual;
    // “Facture  Date  Échéance  Montant” is the head of a table.
    if (!isTall && row.number > HEAD_ROWS && row.cells.length > 2 && !/\d/.test(row.folded)) return 'mention';
    const behind = row.folded.slice(row.folded.indexOf(name) + name.length);
    // A word with a number behind it may as well be one of a list of numbers; “Receipt  Receipt no. 2418” says it twice.
    return isTall || !/\d/.test(behind) || behind.includes(` ${name} `) ? 'heading' : 'short';
  }
  if (isNumbered && words.length <= 4) return 'label';
  // “Reminder: our bill of May” is the title of a letter.
  if (cell.folded.startsWith(`${name}:`)) return 'short';
  // “Angebot 2026-204: Beleuchtung” as well, but for what may be about a paper that there was before.
  const numbered = cell.folded.slice(name.length);
  if (
    cell.folded.startsWith(name) &&
    /^ (?:(?:no|nr|n°)\.? ?)?[\p{L}]{0,4}[-/ ]?\d\S*(?:: |:$| (?:for|fur|pour|per|para|voor|on your|to your|zu ihre[rm]?|auf ihre|sur votre|a votre) )/u.test(
      numbered,
    ) &&
    !ONGOING.test(name)
  )
    return 'short';
  // “Ihr Vertrag ab April” is what a letter is about.
  if (words.some((each) => partsOf(each).includes('yours'))) return 'mention';
  if (cell.box[3] > TALL * usual) {
    const behind = cell.folded.slice(cell.folded.indexOf(name) + name.length);
    // “Policy B-2914: the new loom” is what a letter is about, “Agreement for the hire of a stall” the title of one.
    if (words.length <= 5 && !ABOUT_NUMBERED.test(behind)) return 'heading';
    if (cell.folded.startsWith(name) && GOES_ON.test(behind) && words.length <= LONGEST_TITLE) return 'heading';
  }
  // A heading may stand beside the name of the firm: “Northgate Academy Trust Payslip”.
  const endsHead = row.number < HEAD_ROWS && words.length <= 5 && cell.folded.endsWith(` ${name}`);
  // “Quotation for oak shelves” alone in its line is a title, whatever its size.
  const isTitle =
    row.page === 1 &&
    row.number < EARLY &&
    row.cells.length === 1 &&
    words.length <= LONGEST_BROKEN_OFF &&
    cell.folded.startsWith(name) &&
    GOES_ON.test(cell.folded.slice(name.length)) &&
    !/[.,;:]$/.test(cell.text);
  return words.length <= 2 || endsHead || isTitle ? 'short' : 'mention';
}

/** What the subject of a message names that answers an order, with its number (folded). */
const ORDERED =
  /^(?:subject|betreff|objet|re) ?: .*\b(?:order|booking|bestellung|buchung|commande|reservation|reservierung)\b.*\d/;

/** Subjects are no longer than so many letters. */
const LONGEST_SUBJECT = 200;

/** The subject of a printed message that is about an order, and about no other paper. */
function orderedBy(rows: readonly Row[]): Row | undefined {
  const isMail = rows.slice(0, EARLY).some(({ text }) => /^\p{L}+ ?: .*@/u.test(text));
  const subject = isMail
    ? rows.slice(0, EARLY).find(({ folded }) => ORDERED.test(folded.slice(0, LONGEST_SUBJECT)))
    : undefined;
  const others = KINDS.filter((kind) => kind !== 'order' && subject && kindWords[kind].named.test(subject.folded));
  return others.length > 0 ? undefined : subject;
}

/** What is said where one line of a sentence goes on in the next. */
function acrossLines(pattern: RegExp, { words, folded, page }: Row, next: Row | undefined): RegExpExecArray | null {
  if (words.length <= SENTENCE || next?.page !== page) return null;
  const found = pattern.exec(`${folded} ${next.folded}`);
  return found && found.index < folded.length && found.index + found[0].length > folded.length ? found : null;
}

/** The number and the day of a paper behind its title (folded). */
const NUMBER_BEHIND = /(?: (?:no|nr|n°)\.?)? \S*\d.*$/;

/** What is billed was agreed to before: “Devis D-087 accepté le 4 septembre” (folded). */
const AGREED_TO = /\d\S* (?:was |wurde )?(?:accept|angenomm|agreed|approv|approuv|signe|beauftragt|bestatigt|confirm)/u;

/** The kind that a title names, perhaps with its number; orders and bookings with theirs are what other papers are about. */
function titleWith(folded: string): Kind | undefined {
  const title = folded.replace(NUMBER_BEHIND, '');
  const kind = kindOfTitle(title);
  return (kind === 'order' && title !== folded) || (kind === 'quote' && AGREED_TO.test(folded)) ? undefined : kind;
}

/** The kind that a title at the top, large or alone in its row, names by the parts of its words. */
function titleOf(row: Row, usual: number): Kind | undefined {
  if (row.page > 1 || row.number >= EARLY || amountsIn(row).length > 0) return undefined;
  return row.cells
    .filter(({ text, box }) => (row.cells.length === 1 || box[3] > TALLER * usual) && !/:$/.test(text))
    .map(({ folded }) => titleWith(folded))
    .find((kind) => kind !== undefined);
}

/** A title has no more words in the first of its lines, and so many rows may stand between that and the next. */
const [LONGEST_BROKEN, ROWS_BETWEEN] = [2, 2];
/** A row of more cells is one of a table. */
const MOST_CELLS = 6;

/**
 * What a short line at the top and the one below it say together, and the length of the first: “CREDIT”, and below it “Note CN 0093”.
 */
function brokenTitles(rows: readonly Row[]): { above: number; text: string; row: Row }[] {
  const heads = rows.slice(0, EARLY + ROWS_BETWEEN).filter(({ cells }) => cells.length <= MOST_CELLS);
  return heads.slice(0, EARLY).flatMap((row, at) =>
    row.cells.flatMap(({ folded, words, box: [x, y, width, height] }) => {
      if (words.length > LONGEST_BROKEN || !/^[\p{L} ]+$/u.test(folded)) return [];
      const below = heads
        .slice(at + 1, at + 1 + ROWS_BETWEEN)
        .filter(({ page }) => page === row.page)
        .flatMap(({ cells }) => cells)
        .find(({ box: [left, top, wide, high] }) => {
          const shared = Math.min(x + width, left + wide) - Math.max(x, left);
          return shared > 0.5 * Math.min(width, wide) && top - y - height < 1.5 * Math.max(height, high);
        });
      return below ? [{ above: folded.length, text: `${folded} ${below.folded}`, row }] : [];
    }),
  );
}

/** What landlords and insurers call what asks for the next payment, and what only the latter say (folded). */
const FALLS_DUE = /^avis d'echeance$/;
const COVER = /\bassur(?:ance|eur|ee?s?)\b|\bprimes?\b|\bsinistres?\b|\bgaranties? (?:souscrites?|accordees?)\b/;

/**
 * Adds what a paper says of its kind: its names, as titles, before numbers, in sentences, and what else such papers say.
 * @param table what kinds are known by; those of the list first, then those that a person added
 */
export function addNames(scores: KindScores, rows: readonly Row[], table: readonly [string, KindWords][]): void {
  const heights = rows.flatMap(({ words }) => words.map(({ box }) => box[3])).sort((one, other) => one - other);
  const usual = heights[heights.length >> 1] || 1;
  const isCover = rows.some(({ folded }) => COVER.test(folded));
  const counted = new Set<string>();
  for (const [rank, row] of rows.entries()) {
    // A person's own words for a kind say more than the parts of a title.
    const isOwn = table.slice(KINDS.length).some(([, { named }]) => named.test(row.folded));
    const title = isOwn ? undefined : titleOf(row, usual);
    if (title) {
      scores.titled.add(title);
      scores.add(title, NAMED * (kindWords[title].weight ?? 1) * SAID.heading, row, row.text);
    }
    const names = table.map(([, { named }]) => named.exec(row.folded)).filter((found) => found !== null);
    for (const [kind, { named, says = [], headed, weight = 1 }] of table) {
      const name = named.exec(row.folded);
      // Of two that one line names, the first is what it is: “Rechnung/Lieferschein”, “Credit note for invoice 7719”.
      const isSecond = name && names.some((other) => other.index < name.index);
      // What the whole of a title says counts, not a word of it: “Delivery ticket”.
      const way = !title && name && (isSecond ? 'mention' : howItIsSaid(row, named, name[0], usual));
      if (name && way && !counted.has(`${kind} ${way} ${name[0]}`)) {
        counted.add(`${kind} ${way} ${name[0]}`);
        const early = row.page > 1 ? 0.4 : row.number < EARLY ? 1.15 : 1;
        // What falls due for a year's cover tells of the policy.
        const meant = isCover && FALLS_DUE.test(name[0]) ? 'contract' : kind;
        if (way !== 'mention') scores.titled.add(meant);
        scores.add(meant, NAMED * weight * SAID[way] * early, row, name[0]);
      }
      if (row.number < EARLY && row.box[3] > TALL * usual && headed?.test(row.folded)) {
        scores.titled.add(kind);
        scores.add(kind, NAMED * SAID.heading, row, headed.exec(row.folded)![0]);
      }
      for (const [pattern, points] of says) {
        const found = pattern.exec(row.folded) ?? acrossLines(pattern, row, rows[rank + 1]);
        if (!found || counted.has(kind + found[0])) continue;
        counted.add(kind + found[0]);
        scores.add(kind, points * (row.words.length <= 4 ? 1.2 : 0.8), row, found[0]);
      }
    }
    const paid = PAID.exec(row.folded);
    if (paid && row.words.length <= 5) scores.add('receipt', SAYS_PAID, row, paid[0]);
  }
  for (const { above, text, row } of brokenTitles(rows)) {
    for (const [kind, { named, weight = 1 }] of table) {
      const name = named.exec(text);
      if (!name || name.index >= above || name.index + name[0].length <= above) continue;
      scores.titled.add(kind);
      scores.add(kind, NAMED * weight * SAID.heading, row, name[0]);
    }
  }
  const ordered = orderedBy(rows);
  if (ordered) scores.add('order', NAMED * SAID.short, ordered, ordered.text);
}
