import { datesInLine } from '../dates';
import { columnSums, endBalances, runningBalances } from './columnSums';
import { isDoubtfulFact } from './doubt';
import { Fact, Kind, KINDS } from './fact';
import { OwnKind } from './kindList';
import { kindChances } from './kindModel';
import { kindWords, KindWords, ownWords } from './kindWords';
import { CLOSING, OPENING, PAYMENT, PAYOUT, TAX, TOTAL } from './labels';
import { currencyIn } from './currencies';
import { amountsIn } from './money';
import { fold, Row } from './rows';
import { partsOf } from './terms';
import { kindOfTitle } from './titles';

/** What is paid at once is paid at a till. */
const PAID = new RegExp(`^(?:(?:amount|date) (?=paid))?(?:${PAYMENT.source})`, 'u');
const SAYS_PAID = 1.1;
/** A till's paper is no wider than this share of its height, and no wider than this in points. */
const NARROW = 0.62;
/** What naming its kind counts for on a paper, and how: as its heading, before a number, in a sentence. */
const NAMED = 3;
const SAID = { heading: 1.7, short: 1, label: 0.6, mention: 0.5 };
/** Rows from the top in which headings stand. */
const EARLY = 12;
/** The heads of letters have so many rows. */
const HEAD_ROWS = 2;
/** A line of more words is one of a sentence. */
const SENTENCE = 5;
/** The wording of fewer rows says nothing. */
const LEAST_ROWS = 4;
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

/** What an account's statement says somewhere. */
const OF_ACCOUNT = new RegExp(
  `${OPENING.source}|${CLOSING.source}|account|konto|compte|cuenta|conto|rekening|balance|saldo|solde|card`,
  'u',
);
/** Whether a paper says somewhere that something is to be paid, or names an account to pay to. */
const asksForMoney = (rows: readonly Row[]) =>
  rows.some(({ words }) =>
    words.some(({ text }) => partsOf(fold(text)).some((part) => part === 'pay' || part === 'iban')),
  );

const TRANSFER =
  /uberweis|\btransfer|virement|virer|bonific|overschr|\b(?:auf|an) (?:das|unser|folgendes|mein|dieses) konto\b/;
const RECEIVED = /\b(?:received|paid|erhalten|bezahlt|beglichen|recu|regle|paye|acquitte|ricevuto|ontvangen|betaald)\b/;
/** Whether a paper asks to pay into an account that it names; what says that it was paid does not. */
const asksForTransfer = (rows: readonly Row[]) =>
  rows.some(({ folded }) => TRANSFER.test(folded)) &&
  !rows.some(({ folded }) => RECEIVED.test(folded)) &&
  rows.some(({ text }) => /\b[A-Z]{2}\d{2}(?: ?[\dA-Z]{4}){3}/.test(text));

/** What it counts for that amounts make a sum below them, that a tax is among those, and that the paper asks for money as well. */
const ADDS_UP = 2;
const TAXED = 0.8;
const ASKS = 1.6;
/** What balances that follow from each other count for. */
const BALANCED = 6;
/** Papers with sums that nobody is asked to pay by them. */
const UNASKED: Kind[] = ['order', 'quote', 'credit note', 'delivery note', 'payslip'];

/** Who collects taxes and charges, by the first rows of a paper (folded). */
const PUBLIC =
  /\b(?:council|(?:inland )?revenue (?:office|service|agency)|municipality of|(?:city|town|county|borough) of|tax (?:office|collector)|landkreis|stadtverwaltung|\p{L}{3,}(?<!ges)amt|mairie de|tresor public|ayuntamiento|comune di)\b|^(?:stadt|gemeinde|gemeente|commune de) \p{L}+$/u;
/** What only an office's papers say: how one objects to them (folded). */
const APPEALED =
  /rechtsbehelf|\bwiderspruch (?:erhoben|erheben|einlegen|eingelegt)|\beinspruch (?:einlegen|eingelegt|erheben|erhoben)|voies de recours|right of appeal|you (?:may|can) appeal/;
const LETTERHEAD = 4;
const INSURED = /insurance premium tax|versicherungs?-?steuer|taxe sur les (?:conventions d')?assurances?/u;
/** What landlords and insurers call what asks for the next payment, and what only the latter say (folded). */
const FALLS_DUE = /^avis d'echeance$/;
const COVER = /\bassur(?:ance|eur|ee?s?)\b|\bprimes?\b|\bsinistres?\b|\bgaranties? (?:souscrites?|accordees?)\b/;
/** What whoever writes pays themselves (folded). */
const WE_PAY =
  /\bwe (?:will|shall|have|are|can) (?:now |therefore )?(?:pay|paid|refund|repay|reimburse)|\bwe(?:'ll|'ve) (?:pay|paid)\b|\bwe pay you\b|\b(?:paid|transferred)(?: out)? to you\b|\byou (?:will|'ll) (?:get|receive)\b|\ban sie (?:uberwiesen|ausgezahlt)|\bwir (?:zahlen|erstatten|uberweisen|vergute[nt])\b|\bnous vous (?:versons|verserons|remboursons|rembourserons)\b/;
/** Whom an agreement is made between (folded). */
const AGREED =
  /\bbetween\b.{3,60}\band\b.{3,60}\(the\b|\bmade (?:on|this)\b.{3,40}\bbetween\b|\bzwischen\b.{3,60}\bund\b.{3,60}\((?:im folgenden|nachfolgend)|\bentre\b.{3,60}\bet\b.{3,60}\(ci-apres/;
/** What it counts for that things are counted, and nothing is said of what they cost. */
const ONLY_COUNTED = 3;
const LEAST_COUNTED = 2;

/** The first row of a list of things with how many there are of each. */
function countedGoods(rows: readonly Row[]): Row | undefined {
  const isCounted = ({ cells }: Row) =>
    cells.length > 1 && /^\d{1,3}(?: ?x)?$/i.test(cells[0].text) && /\p{L}{3}/u.test(cells[1].text);
  const found = rows.filter(isCounted);
  return found.length >= LEAST_COUNTED ? found[0] : undefined;
}

/** What a word for a kind scores as a heading; without any, the kind is a guess. */
const HEADING_POINTS = 4.4;

/** How much speaks for each kind, and what of that most. */
type Scores = Map<string, { score: number; strongest: number; row: Row; said: string }>;

/** What it counts for that a paper is surely worded like those of a kind; and how likely that is where it says something. */
const WORDED = 6;
const LEAST_LIKELY = 0.15;

/** Of papers whose wording made a kind so likely, nearly all were of it when nothing of their set had been learnt; so sure they are. */
const [LIKELY, WELL_WORDED] = [0.73, 0.85];

/** Adds what the wording of a paper says of its kind, and gives how likely it makes each. */
function addWording(scores: Scores, rows: readonly Row[], own: readonly OwnKind[]): Record<string, number> {
  const chances: Record<string, number> = kindChances(rows.map(({ folded }) => folded));
  if (rows.length < LEAST_ROWS) return {};
  // Nothing was learnt of a kind that a person added: it gets as much as the likeliest, so that wording decides nothing against it.
  const most = Math.max(...Object.values(chances));
  for (const { name } of own) {
    const known = scores.get(name);
    if (known) known.score += WORDED * most;
  }
  for (const [kind, chance] of Object.entries(chances)) {
    const known = scores.get(kind);
    if (known) known.score += WORDED * chance;
    else if (chance >= LEAST_LIKELY) scores.set(kind, { score: WORDED * chance, strongest: 0, row: rows[0], said: '' });
  }
  return chances;
}

/** What kind of paper it is. @param own kinds that a person added */
export function findKind(
  rows: readonly Row[],
  first: { width: number; height: number } | undefined,
  own: readonly OwnKind[] = [],
): Fact | null {
  const table: [string, KindWords][] = [
    ...KINDS.map((kind): [string, KindWords] => [kind, kindWords[kind]]),
    ...own.filter(({ words }) => words.length > 0).map((kind): [string, KindWords] => [kind.name, ownWords(kind)]),
  ];
  const scores: Scores = new Map();
  const add = (kind: string, points: number, row: Row, said: string) => {
    const known = scores.get(kind);
    if (!known) scores.set(kind, { score: points, strongest: points, row, said });
    else {
      known.score += points;
      if (points > known.strongest) Object.assign(known, { strongest: points, row, said });
    }
  };
  const heights = rows.flatMap(({ words }) => words.map(({ box }) => box[3])).sort((one, other) => one - other);
  const usual = heights[heights.length >> 1] || 1;
  const isCover = rows.some(({ folded }) => COVER.test(folded));
  const counted = new Set<string>();
  const titled = new Set<string>();
  for (const [rank, row] of rows.entries()) {
    // A person's own words for a kind say more than the parts of a title.
    const isOwn = table.slice(KINDS.length).some(([, { named }]) => named.test(row.folded));
    const title = isOwn ? undefined : titleOf(row, usual);
    if (title) {
      titled.add(title);
      add(title, NAMED * (kindWords[title].weight ?? 1) * SAID.heading, row, row.text);
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
        if (way !== 'mention') titled.add(meant);
        add(meant, NAMED * weight * SAID[way] * early, row, name[0]);
      }
      if (row.number < EARLY && row.box[3] > TALL * usual && headed?.test(row.folded)) {
        titled.add(kind);
        add(kind, NAMED * SAID.heading, row, headed.exec(row.folded)![0]);
      }
      for (const [pattern, points] of says) {
        const found = pattern.exec(row.folded) ?? acrossLines(pattern, row, rows[rank + 1]);
        if (!found || counted.has(kind + found[0])) continue;
        counted.add(kind + found[0]);
        add(kind, points * (row.words.length <= 4 ? 1.2 : 0.8), row, found[0]);
      }
    }
    const paid = PAID.exec(row.folded);
    if (paid && row.words.length <= 5) add('receipt', SAYS_PAID, row, paid[0]);
  }
  for (const { above, text, row } of brokenTitles(rows)) {
    for (const [kind, { named, weight = 1 }] of table) {
      const name = named.exec(text);
      if (!name || name.index >= above || name.index + name[0].length <= above) continue;
      titled.add(kind);
      add(kind, NAMED * weight * SAID.heading, row, name[0]);
    }
  }
  const ordered = orderedBy(rows);
  if (ordered) add('order', NAMED * SAID.short, ordered, ordered.text);
  const isNarrow = first !== undefined && first.width / first.height < NARROW;
  if (isNarrow && rows.length > 0 && scores.size > 0) add('receipt', 2, rows[0], 'its narrow paper');
  // What asks for a transfer has not been paid, whatever it calls itself: “Beleg über Ihren Einkauf auf Rechnung”.
  const received = scores.get('receipt');
  if (received && asksForTransfer(rows)) received.score *= 0.5;
  // A till's slip may call itself a bill: what is paid by card or in cash at once is a receipt.
  const bill = scores.get('invoice');
  if (isNarrow && bill && rows.some(({ folded }) => PAID.test(folded))) bill.score *= 0.5;
  const insured = rows.find(({ folded }) => INSURED.test(folded));
  // A ticket for goods that are taxed and to be paid is a bill as well.
  const isBilled =
    titled.has('delivery note') &&
    asksForMoney(rows) &&
    rows.some((row) => TAX.test(row.folded) && amountsIn(row).length > 0);
  const goods = scores.get('delivery note');
  if (goods && isBilled) goods.score *= 0.5;
  const unasked = UNASKED.filter((kind) => kind !== 'delivery note' || !isBilled);
  // “We will pay £702.50”: what an insurer pays is asked of nobody.
  const asksFor = ({ amount }: ReturnType<typeof columnSums>[number]) => !WE_PAY.test(amount.row.folded);
  const sums = unasked.some((kind) => titled.has(kind)) ? [] : askedSums(rows).filter(asksFor);
  if (sums.length > 0) {
    const { amount } = sums[sums.length - 1];
    const hasTax = sums.some(({ of }) => of.some(({ row }) => TAX.test(row.folded)));
    const asks = asksForMoney(rows);
    const points = ADDS_UP + (hasTax ? TAXED : 0) + (asks ? ASKS : 0);
    // What is paid out leaves a balance of payments and deductions.
    const paidOut = rows.find((each) => PAYOUT.test(each.folded) && amountsIn(each).length > 0);
    const isLeft = sums.at(-1)!.less;
    // What was paid asks for no transfer any more.
    const isPaid =
      isNarrow ||
      (!titled.has('invoice') && rows.some(isSettled)) ||
      (!isLeft && !asksForTransfer(rows) && (scores.get('receipt')?.score ?? 0) > (scores.get('invoice')?.score ?? 0));
    // What a public body asks for is no bill, unless it calls it one.
    const isPublic = rows.slice(0, LETTERHEAD).some(({ cells }) => cells.some(({ folded }) => PUBLIC.test(folded)));
    const isOfficial = isPublic || rows.some(({ folded }) => APPEALED.test(folded));
    const isCharged = isOfficial && !isPaid && !titled.has('invoice') && !titled.has('receipt');
    // Only what is insured is taxed so; an agreement lists what is to be paid by it.
    const isAgreed =
      titled.has('contract') && (rows.some(({ folded }) => AGREED.test(folded)) || (!asks && !titled.has('receipt')));
    const isInsured = !titled.has('invoice') && (isAgreed || insured !== undefined);
    // What is headed as a reminder lists what is owed.
    const heads = (name: string) => (scores.get(name)?.strongest ?? 0) >= HEADING_POINTS;
    const isReminded = heads('reminder') && !heads('invoice');
    // So does a statement that a supplier sends; what is taxed on one is a bill.
    const isListed = heads('statement') && !heads('invoice') && !hasTax;
    const asked: [kind: Kind, is: boolean][] = [
      ['credit note', amount.cents < 0],
      ['reminder', isReminded],
      ['statement', isListed],
      ['notice', isCharged],
      ['contract', isInsured],
      ['receipt', isPaid],
    ];
    const kind = asked.find(([, is]) => is)?.[0] ?? 'invoice';
    // “Net à payer” is said on bills as well.
    const isPay = (scores.get('payslip')?.score ?? 0) > (scores.get('invoice')?.score ?? 0);
    // What gives money back is no receipt for what was paid.
    const receipt = scores.get('receipt');
    if (receipt && amount.cents < 0) receipt.score *= 0.5;
    if (paidOut && !hasTax && isPay) add('payslip', points, paidOut, paidOut.text);
    else add(kind, points, amount.row, amount.row.text);
    // A letter that lists what it asks for is a bill.
    const letter = scores.get('letter');
    if (letter && asks) letter.score *= 0.5;
  }
  if (titled.size === 0 && !rows.some((row) => amountsIn(row).length > 0)) {
    const counted = countedGoods(rows);
    if (counted) add('delivery note', ONLY_COUNTED, counted, counted.text);
  }
  if (insured && !titled.has('invoice')) add('contract', ADDS_UP, insured, insured.text);
  // A bill or a notice may be written as a letter; its heading says what it is.
  const letter = scores.get('letter');
  if (letter && [...scores].some(([kind, { strongest }]) => kind !== 'letter' && strongest >= HEADING_POINTS))
    letter.score *= 0.5;
  // What asks in a letter for a sum, and says into which account, is a bill.
  const asking = sums.length === 0 && letter && asksForTransfer(rows) ? rows.find(namesSum) : undefined;
  if (letter && asking) {
    letter.score *= 0.5;
    add('invoice', ADDS_UP + ASKS, asking, asking.text);
  }
  // Balances that follow from each other are those of an account.
  const isTaxed = rows.some((each) => TAX.test(each.folded) && amountsIn(each).length > 0);
  const balances = isTaxed ? undefined : (runningBalances(rows) ?? endBalances(rows));
  if (balances) {
    // Called balances they say it twice.
    const areCalled = OPENING.test(balances.opening?.row.folded ?? '') && CLOSING.test(balances.closing.row.folded);
    add('statement', areCalled ? 2 * BALANCED : BALANCED, balances.closing.row, balances.closing.row.text);
  }
  // What accounts to somebody for work is a bill.
  const statement = scores.get('statement');
  if (statement && !balances && (isTaxed || !rows.some(({ folded }) => OF_ACCOUNT.test(folded))))
    statement.score *= 0.5;
  // What adds a tax to the last balance and asks for both is one, whatever it is called.
  if (statement && isTaxed && sums.length > 0 && asksForMoney(rows)) statement.score *= 0.4;
  // A till's slip may be called a ticket, too.
  const ticket = scores.get('ticket');
  if (ticket && ticket.strongest < HEADING_POINTS && scores.has('receipt')) ticket.score *= 0.6;
  const chances = addWording(scores, rows, own);
  const ranked = [...scores].sort((a, b) => b[1].score - a[1].score);
  if (ranked.length === 0) return byItsSum(rows, first);
  const [kind, { score, strongest, row, said }] = ranked[0];
  const [second, { score: next }] = ranked[1] ?? [undefined, { score: 0 }];
  const most = strongest >= HEADING_POINTS ? 0.97 : chances[kind] >= LIKELY ? WELL_WORDED : 0.68;
  const confidence = Math.min(most, 0.55 + (score - next) / 8);
  return {
    value: kind,
    page: row.page,
    box: row.box,
    confidence,
    why: said === '' ? { code: 'its-wording' } : { code: 'says', text: said.trim() },
    // Which it may be as well, where nothing settles it.
    ...(isDoubtfulFact({ confidence, confirmed: false }) && second !== undefined && { other: second }),
  };
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

/** Whether a row says that nothing is left to pay: “Outstanding 0.00”. */
const isSettled = (row: Row) =>
  /\b(?:outstanding|to pay|(?:balance|amount)(?: now)? due|left to pay|offen|restbetrag|noch zu zahlen|reste? (?:a payer|du))\b/.test(
    row.folded,
  ) && amountsIn(row).at(-1)?.cents === 0;

/** The sums of what a paper lists; none on one that tells the balances of an account. */
function askedSums(rows: readonly Row[]): ReturnType<typeof columnSums> {
  // A bill may begin with what was owed before; what is taxed is one.
  if (rows.some((row) => TAX.test(row.folded) && amountsIn(row).length > 0)) return columnSums(rows);
  const isAccount =
    rows.some(({ folded }) => OPENING.test(folded) || CLOSING.test(folded)) ||
    runningBalances(rows) !== undefined ||
    endBalances(rows) !== undefined;
  return isAccount ? askedAgain(rows) : columnSums(rows);
}

/** Sums that are asked for by name, of charges that have no day of their own: those of a bill that begins with the balance of the last one. */
function askedAgain(rows: readonly Row[]): ReturnType<typeof columnSums> {
  const asks = (row: Row) => row.words.some(({ text }) => partsOf(fold(text)).includes('pay'));
  const isDated = ({ words }: Row) =>
    datesInLine(words).length > 0 || /^\d{1,2}[ ./-](?:\d{1,2}|\p{L}{3})/u.test(words[0].text);
  return columnSums(rows).filter(
    ({ amount, of }) =>
      amount.cents > 0 &&
      !of.some(({ row, cents }) => cents > 0 && isDated(row)) &&
      // “TOTAL DUE 12/02/2026  $65.35” says by when itself.
      ((asks(amount.row) && datesInLine(amount.row.words).length > 0) ||
        rows.some(
          (row) => row !== amount.row && asks(row) && amountsIn(row).some(({ cents }) => cents === amount.cents),
        )),
  );
}

/** Whether a row names a sum in a currency. */
const namesSum = (row: Row) => amountsIn(row).length > 0 && row.words.some(({ text }) => currencyIn(text));

/** A paper that no word says the kind of, but that has a total, is a bill of some kind. */
function byItsSum(rows: readonly Row[], first: { width: number; height: number } | undefined): Fact | null {
  const total =
    rows.findLast((row) => TOTAL.test(row.folded) && amountsIn(row).length > 0) ??
    rows.findLast((row) => TAX.test(row.folded) && amountsIn(row).length > 0);
  const amounts = rows.filter(namesSum);
  const asking = total ?? (amounts.length > 0 && asksForMoney(rows) ? amounts[amounts.length - 1] : undefined);
  if (!asking) return null;
  const value = first && first.width / first.height < NARROW ? 'receipt' : 'invoice';
  return { value, page: asking.page, box: asking.box, confidence: 0.5, why: { code: 'has-total' } };
}
