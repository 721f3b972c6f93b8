import type { Reason } from './reason';
import { Box } from '../../geometry';
import { editDistance } from '../../finding/editDistance';
import { datesInLine } from '../dates';
import { PageText, Word } from '../words';
import { Fact, placeOf } from './fact';
import { CLOSING, OPENING } from './labels';
import { amountsIn } from './money';
import { Cell, fold, Row } from './rows';
import {
  bare,
  COMPANY,
  inFull,
  isBranch,
  isAddressLine,
  isColumnHead,
  isHeading,
  isLabel,
  isName,
  isReturnLine,
  isNamedAfter,
  isTitle,
  JOINING,
  LEAST_LETTERS,
  LEGAL_FORM,
  lettersOf,
  nameIn,
  partsOfLine,
} from './senderNames';

/** How much of the first page's height letterheads take; of a till's long paper, not more than so many widths. */
const HEAD = 0.3;
const HEAD_IN_WIDTHS = 0.45;
/** Where the small print at the foot of a page begins, as a share of its height or of what is printed on it. */
const FOOT = 0.88;

/** From here on a line in the head says more than small print. */
const STANDS_OUT = 0.65;

type FirstPage = Pick<PageText, 'width' | 'height'>;

/** Who a paper is from: one of those known already, or the name in its letterhead or in the small print at its foot. */
export function findSender(rows: readonly Row[], first: FirstPage | undefined, known: string[]): Fact | null {
  const onFirst = rows.filter(({ page }) => page === 1);
  if (!first || onFirst.length === 0) return null;
  const { head, foot } = headAndFoot(onFirst, first);
  const confirmed = findKnownVendor([...head, ...foot], known);
  if (confirmed) return confirmed;
  const heading = findVendor(head, rows);
  // Whoever makes an agreement is named in it.
  const between = heading?.why.code === 'heads-paper' && !COMPANY.test(heading.value) && partyOf(onFirst);
  if (between) return between;
  // “nimbusrack.example” in the head is drawn; the firm behind it has a name.
  const domain = DOMAIN.exec(heading?.value ?? '');
  const behind = domain && firmCalled(domain[1], onFirst);
  if (behind) return behind;
  // A line that nothing speaks for but its height may as well be whom the paper goes to.
  if (heading && heading.confidence >= STANDS_OUT) return heading;
  const team = teamOf(onFirst);
  // “Nordlicht Energie eG” is signed by the team of “Nordlicht Energie”.
  if (heading && team && lettersOf(heading.value).startsWith(lettersOf(team.value)))
    return { ...heading, confidence: Math.max(heading.confidence, team.confidence) };
  return team ?? findInSmallPrint(foot) ?? payeeOf(onFirst) ?? firmInText(onFirst) ?? heading ?? signedBy(onFirst);
}

/** Whoever a paper may be from, the likeliest first: each name in its head, in the small print, at its end. */
export function possibleSenders(rows: readonly Row[], first: FirstPage | undefined): { value: string; box: Box }[] {
  const onFirst = rows.filter(({ page }) => page === 1);
  if (!first || onFirst.length === 0) return [];
  const { head, foot } = headAndFoot(onFirst, first);
  const inHead = namesInHead(head, rows).sort((one, other) => other.score - one.score);
  const elsewhere = [teamOf(onFirst), findInSmallPrint(foot), payeeOf(onFirst), firmInText(onFirst), signedBy(onFirst)];
  return [
    ...inHead.map(({ text, words }) => ({ value: lettered(text), box: placeOf(words) })),
    ...elsewhere.flatMap((fact) => (fact ? [{ value: fact.value, box: fact.box }] : [])),
  ];
}

/** The rows in which letterheads stand, and those of the small print at the foot. */
function headAndFoot(onFirst: readonly Row[], { width, height }: FirstPage): { head: Row[]; foot: Row[] } {
  const lowest = Math.min(HEAD * height, Math.max(HEAD_IN_WIDTHS * width, 0.16 * height));
  const last = Math.max(...onFirst.map(({ box: [, y] }) => y));
  return {
    head: onFirst.filter(({ box }) => box[1] < lowest),
    foot: onFirst.filter(({ box: [, y] }) => y > lowest && y >= Math.min(last, FOOT * height)),
  };
}

/** A sender that is known already, in the head of the first page: the surest way to tell one. */
function findKnownVendor(head: readonly Row[], known: string[]): Fact | null {
  const keys = known.map((name) => ({ name, key: lettersOf(name) })).filter(({ key }) => key.length >= LEAST_LETTERS);
  for (const { words, text, box } of head.flatMap(({ cells }) => cells)) {
    const letters = lettersOf(text);
    const match = keys.find(({ key }) => letters === key || editDistance(letters, key) <= key.length * MOST_MISREAD);
    if (!match) continue;
    const sure = words.reduce((sum, word) => sum + word.confidence, 0) / words.length;
    return {
      value: match.name,
      page: 1,
      box,
      confidence: Math.min(0.98, 0.6 + 0.38 * sure),
      why: { code: 'known-name' },
    };
  }
  return null;
}

/** What share of a name's letters may have been misread. */
const MOST_MISREAD = 0.1;

/** What a name begins with, or not. */
const ARTICLE = /^(?:the|die|der|das|le|la|les|el|il|de|het) /i;

/** Web and mail addresses and the small print at the foot name the firm again. */
function saidAgain({ text }: Pick<Cell, 'text'>, rows: readonly Row[]): number {
  const key = lettersOf(text.replace(ARTICLE, ''));
  const own = lettersOf(text.split(' ').sort((a, b) => b.length - a.length)[0]);
  let said = 0;
  for (const row of rows) {
    const letters = lettersOf(row.text);
    if ((letters !== key || key !== lettersOf(text)) && letters.includes(key)) said = Math.max(said, 1);
    const isItsAddress = (word: string) => /@|www\.|\w\.[a-z]{2,}\W*$/i.test(word) && lettersOf(word).includes(own);
    if (own.length >= 4 && row.words.some((word) => isItsAddress(word.text))) said = Math.max(said, 0.8);
  }
  return said;
}

/** What stands before the sender's name, before the one it goes to, and on the line of a person who is written to (folded). */
const FROM =
  /^(?:(?:issued|sold|supplied|provided|billed|invoiced|underwritten) by:? |(?:ausgestellt|verkauft) (?:von|durch):? |(?:delivre|emis|vendu)e? par:? |(?:from|von|absender|expediteur|emetteur|remitente|emisor|mittente|afzender|emitente|(?:[\p{L}']+ )?(?:business|company|firm|seller|supplier|vendor|shop|merchant|verkaufer|lieferant|auftragnehmer|aussteller|firma|vendeur|fournisseur|prestataire|societe|landlord|lessor|bailleur|creancier|creditor|glaubiger|zahlungsempfanger|vermieter(?:in)?|employer|employeur|arbeitgeber|insurer|versicherer|assureur|proveedor|fornitore|leverancier))\s*:\s*)/u;
/** The heading of a paper that goes on with whom it is from: “Receipt from …”. */
const TITLE_FROM = /^(.{3,30}?) (?:from|von|bei|chez|van) (?=\p{L})/u;
/** Who says at its end that they wrote it: “Ihr Team von …”, “the … team”. */
const TEAM =
  /^(?:(?:ihr|euer|dein|das|the|your|l'equipe|votre equipe)(?: [\p{L}-]+)? ?team (?:von|vom|from|at|of|de|der|des) |l'equipe (?:de |d'|du )?)(?=\p{L})/u;
const TO =
  /^(?:to (?=\p{L})|(?:received|payment) (?:with thanks )?from(?! us)|(?:dankend )?erhalten von|recu de|(?:bill(?:ed)?|invoiced?|sold|ship(?:ped)?|deliver(?:ed|y)?|sent?d?|charged?)[ -]to|to\s*:|to$|customer(?! copy)|client|buyer|attn|an\s*:|an$|an (?=(?:herrn?|frau|familie|firma|fa\.|die|den|das|alle)(?!\p{L})|\p{L}.{2,60}, .*\d)|\p{L}*(?:empfanger|anschrift)|rechnung an|kunde|kaufer|empfanger|lieferadresse|rechnungsadresse|a l'attention|facture a|destinataire|adresse de|livre a|cliente|destinatario|spett|fatturare|aan\s*:|aan$|t\.?a\.?v|klant|factuuradres|adquirente)\b/u;
/** “À Imre Castellane”: without its accent it could be anything. */
const TO_FRENCH = /^À\s/;
/** Who a paper is from, where that stands alone above the name: “Issued by”, “Rechnungssteller”. */
const LONE_SENDER =
  /^(?:(?:issued|sold|supplied|provided|billed|invoiced|underwritten|prepared) by|(?:ausgestellt|verkauft) (?:von|durch)|(?:delivre|emis|vendu)e? par|seller|supplier|vendor|merchant|verkaufer|lieferant|auftragnehmer|(?:rechnungs)?(?:aus)?steller|absender|expediteur|emetteur|vendeur|fournisseur|prestataire|landlord|lessor|bailleur|creditor|insurer|versicherer|assureur) ?:?$/;
/** The heading of what is ordered, and what whoever gets that is called there (folded). */
const ORDERS = /^(?:purchase order|bestellung|bon de commande|order)(?: (?:no|nr|n°)?\.? ?\S*\d\S*)?$/;
const SUPPLIER = /^(?:suppliers?|vendors?|sellers?|lieferant|verkaufer|fournisseur|vendeur)\b/;
const PERSON =
  /^(?:mr|mrs|ms|miss|herrn?|frau|familie|firma|fa\.|monsieur|madame|mlle|mme|m\.|sr\.?|sra\.?|senor|senora|sig\.?(?:ra|na)?|signor|signora|dhr\.?|mevr\.?|de heer|mevrouw|exm[oa]|senhor|senhora)(?= |$)/;
const GREETING =
  /^\W*(?:welcome|willkommen|bienvenue|bienvenid[oa]s?|benvenut[oi]|welkom|bem-?vind[oa]s?)\b\W*(?:(?:to|bei|in der|im|chez|al?|da|bij|ao?)\s+)?/;
/** Signs that a block of lines is the sender's own. */
const OWN_SIGN =
  /@|www\.|\b(?:tel|phone|telefon|fax|vat|ust|tva|p\.? ?iva|nif|cif|siret|btw|kvk|company no|inh\.|iban)\b/;
/** What is so much larger is no line of the same block: by the room that its letters take, since tails and commas make words higher. */
const DRAWN = 1.3;
const letterWidth = ({ text, box: [, , width] }: Cell) => width / text.length;
/** Lines of a block stand under each other within so many heights, and begin, end or have their middle at one place. */
const NEAR = 1.25;
const ALIGNED = 1.6;
/** Lines under each other in the head of a page: a letterhead, an address. */
interface Block {
  cells: { cell: Cell; row: Row; rank: number }[];
  /** Whether it is the address that the paper goes to. */
  recipient: boolean;
}

function blocksOf(head: readonly Row[]): Block[] {
  const blocks: Block[] = [];
  head.forEach((row, rank) => {
    for (const cell of row.cells) {
      const home = blocks.findLast(({ cells }) => standsUnder(cell.box, cells[cells.length - 1].cell.box));
      // The line above the address in a window is the sender's.
      const isBelowReturn = home?.cells.length === 1 && isReturnLine(home.cells[0].cell);
      // A person right below what is drawn larger is written to by it.
      const isBelowDrawn =
        home?.cells.length === 1 &&
        PERSON.test(cell.folded) &&
        letterWidth(home.cells[0].cell) > DRAWN * letterWidth(cell);
      if (home && !isBelowReturn && !isBelowDrawn && !TO.test(cell.folded) && !FROM.test(cell.folded))
        home.cells.push({ cell, row, rank });
      else blocks.push({ cells: [{ cell, row, rank }], recipient: false });
    }
  });
  for (const block of blocks)
    block.recipient = block.cells.some(
      ({ cell: { folded, text } }, at) =>
        (at === 0 && (TO.test(folded) || TO_FRENCH.test(text))) || (at < 2 && PERSON.test(folded)),
    );
  return blocks;
}

function standsUnder([x, y, width, height]: Box, [overX, overY, overWidth, overHeight]: Box): boolean {
  const [taller, lower] = [Math.max(height, overHeight), Math.min(height, overHeight)];
  const gap = y - overY - overHeight;
  if (gap > NEAR * taller || y < overY + 0.5 * overHeight) return false;
  const apart = Math.min(
    Math.abs(x - overX),
    Math.abs(x + width - overX - overWidth),
    Math.abs(x + width / 2 - overX - overWidth / 2),
  );
  return apart < ALIGNED * lower;
}

/** Rows from the top in which a name may be drawn. */
const DRAWN_ROWS = 12;

interface Candidate {
  text: string;
  words: Word[];
  score: number;
  /** Whether it says that it is the sender. */
  labelled: boolean;
  again: number;
}

/** Names in the head of the first page, by how they stand out: by size, height, form of a name, block, and being named again. */
function namesInHead(head: readonly Row[], rows: readonly Row[]): Candidate[] {
  const heights = rows.flatMap(({ words }) => words.map((word) => word.box[3])).sort((a, b) => a - b);
  const usual = heights[heights.length >> 1] || 1;
  const addressed = rows.map(({ folded }) => SALUTED.exec(folded)?.[1]).find((name) => name !== undefined);
  const found: Candidate[] = [];
  // Whom an order goes to is called its supplier.
  const isOrder = head.some(({ cells }) => cells.some(({ folded }) => ORDERS.test(folded)));
  for (const { cells, recipient } of blocksOf(head)) {
    if (recipient || (isOrder && SUPPLIER.test(cells[0].cell.folded))) continue;
    const own = cells.some(({ cell }) => OWN_SIGN.test(cell.folded)) ? 0.5 : 0;
    let named = false;
    const isOpened = LONE_SENDER.test(cells[0].cell.folded);
    cells.forEach(({ cell: whole, row, rank }, at) => {
      const cell = beforeTitle(whole);
      if (isOpened && at === 0) return;
      const titled = TITLE_FROM.exec(cell.folded);
      const from = FROM.exec(cell.folded) ?? (titled && isHeading(titled[1]) ? titled : null);
      const label = from ?? GREETING.exec(cell.folded);
      const isFrom = from !== null || (isOpened && at === 1);
      const short = nameIn(cell, cells[at + 1]?.cell, label?.[0] ?? '', usual);
      // What is drawn stands at the very top.
      const { text, words } = rank < DRAWN_ROWS ? inFull(short, rows) : short;
      if (
        !(isName(text) || (rank === 0 && isBranch(text))) ||
        datesInLine(cell.words).length > 0 ||
        isHeading(text) ||
        isTitle(text) ||
        isNamedAfter(text) ||
        isColumnHead(cell) ||
        isHeadOfTable(rows, row) ||
        isLabel(cell, text) ||
        (amountsIn(row).length > 0 && !COMPANY.test(text)) ||
        (addressed && fold(text).split(' ').includes(addressed))
      )
        return;
      const sure = words.reduce((sum, word) => sum + word.confidence, 0) / words.length;
      const size = Math.min(3, Math.max(...words.map(({ box }) => box[3])) / usual);
      const again = saidAgain(
        { text },
        rows.filter((other) => other !== row),
      );
      // The first line of a block that may be a name is one; those below are streets and towns.
      const below = named ? 0.5 : 0;
      named = true;
      const score =
        size +
        (LEGAL_FORM.test(text) ? 1.2 : COMPANY.test(text) ? 0.8 : 0) +
        again +
        own +
        (isFrom ? 2 : 0) +
        // A line with name, street and town is that of a letter's window.
        (isAddressLine(cell) ? 0.8 : 0) +
        // What stands beside the first line is as high as it.
        (cell.box[1] < head[0].box[1] + head[0].box[3] ? 0.8 : 0) -
        // A line of columns is one of a table.
        (row.cells.length >= 3 ? 0.8 : 0) -
        rank * 0.12 -
        below +
        sure -
        1;
      found.push({ text, words, score, labelled: isFrom, again });
    });
  }
  return found;
}

/** The name in the head of the first page that stands out most. */
function findVendor(head: readonly Row[], rows: readonly Row[]): Fact | null {
  const [best, ...others] = namesInHead(head, rows);
  if (!best) return null;
  const { text, words, score, labelled, again } = others.reduce(
    (most, each) => (each.score > most.score ? each : most),
    best,
  );
  const sure = words.reduce((sum, word) => sum + word.confidence, 0) / words.length;
  const isFirm = COMPANY.test(text);
  // Without a form that only firms have, a line that stands out may be anything; words such as “insurance” stand in titles as well.
  const isSaid = LEGAL_FORM.test(text) || again > 0 || labelled;
  // Of names that only one of these speaks for one in six was another on forms that nobody foresaw.
  const known = isFirm && again > 0 ? 0.96 : isSaid ? 0.85 : isFirm ? 0.8 : 0.7;
  // Names begin with a capital: a small letter was misread.
  const most = /^\p{Ll}/u.test(text) ? 0.7 : known;
  const confidence = Math.max(0.2, Math.min(most, sure * (0.35 + score / 5)));
  const why: Reason = { code: labelled ? 'named-as-sender' : again > 0 ? 'heads-and-again' : 'heads-paper' };
  return { value: lettered(text), page: 1, box: placeOf(words), confidence, why };
}

/** Whether a row of several short cells heads a table: the next row has as many, and a sum. */
function isHeadOfTable(rows: readonly Row[], row: Row): boolean {
  const next = rows[row.number + 1];
  return (
    row.cells.length >= 3 &&
    row.cells.every(({ words }) => words.length <= 2) &&
    amountsIn(row).length === 0 &&
    next?.page === row.page &&
    next.cells.length >= 3 &&
    amountsIn(next).length > 0
  );
}

/** A line that begins with the name goes on with the title in capitals and the day: “Estuary Museum Trust PAYSLIP Pay date 30/10/2026”. */
function beforeTitle(cell: Cell): Cell {
  const { words } = cell;
  const title = words.findIndex(({ text }, at) => at > 1 && /^\p{Lu}{4,}$/u.test(text) && isHeading(text));
  if (title < 0 || !words.slice(title).some(({ text }) => /\d/.test(text))) return cell;
  const name = words.slice(0, title);
  const text = textOf(name);
  return { ...cell, words: name, text, folded: fold(text), box: placeOf(name) };
}

/** A nought among capitals is the letter, and points of a legal form may not have been read. */
const lettered = (text: string) =>
  text
    .replace(/ pic$/, ' plc')
    .replace(/ e\.?V\.?$/, ' e.V.')
    .replace(/ e\.?K\.?$/, ' e.K.')
    .replace(/(?<=\p{Lu})0(?=\p{Lu}|\s|$)|(?<=\s|^)0(?=\p{Lu}{2})/gu, 'O');

/** Who is greeted in a letter, by the last name. */
const SALUTED =
  /^(?:dear|sehr geehrter?|liebe[rs]?|chere?|estimad[oa]|gentile|egregio|geachte|beste|exm[oa]|car[oa])\b.*?(\p{L}{3,})[,!]?$/u;

/** Rows of a deed or a letter in which it says between whom or from whom it is. */
const TOLD_EARLY = 14;

/** The first party of an agreement, where a word for “between” stands before a firm: “between Harbour Crafts Ltd and …”. */
function partyOf(rows: readonly Row[]): Fact | undefined {
  const firm = firmInText(rows);
  if (!firm) return undefined;
  const told = rows.slice(0, TOLD_EARLY).some(({ text }) => {
    const at = text.indexOf(firm.value);
    return at > 0 && /\b(?:between|zwischen|entre|tra|tussen)(?: der| den| la| le)?\W*$/i.test(text.slice(0, at));
  });
  return told ? firm : undefined;
}

/** What stands before a firm, as who it is (folded). */
const OF_WHOM =
  /^(?:contractors?|installers?|suppliers?|sellers?|employers?|insurers?|landlords?|lessors?|agents?|engineers?|lieferant|verkaufer|auftragnehmer|arbeitgeber|vermieter|versicherer|fournisseur|vendeur|bailleur|employeur|assureur|installateur|prestataire)\W*$/;

/** The first firm that is named by its legal form in the text: “between Harbour Crafts Ltd (the organiser) and …”. */
function firmInText(rows: readonly Row[]): Fact | null {
  for (const { words } of rows.slice(0, TOLD_EARLY)) {
    const form = words.findIndex(
      ({ text }, at) =>
        at > 0 && (/^e\.?G\b/.test(text) || (COMPANY.exec(text)?.index === 0 && /^(?:\p{Lu}|e\.|gGmbH)/u.test(text))),
    );
    if (form < 0) continue;
    const isCapital = (at: number) => /^\p{Lu}/u.test(words[at]?.text ?? '') && !/[,;:.]$/.test(words[at].text);
    const joins = (at: number): boolean =>
      /^(?:&|and|of|the|und|et|del?|des|d[aou]|la|les?|von|der|van|y|e)$/.test(words[at]?.text ?? '') &&
      (isCapital(at - 1) || joins(at - 1));
    let from = form;
    while (isCapital(from - 1) || joins(from - 1)) from--;
    while (OF_WHOM.test(fold(words[from].text)) && from < form - 1) from++;
    while (/^(?:between|zwischen|entre|tra|tussen|the|der|dem|den|die|la|le)$/i.test(words[from].text)) from++;
    const name = words.slice(from, form + 1);
    const value = bare(name.map(({ text }) => text).join(' '));
    if (name.length < 2 || !isName(value)) continue;
    const sure = name.reduce((sum, word) => sum + word.confidence, 0) / name.length;
    return { value, page: 1, box: placeOf(name), confidence: 0.7 * sure, why: { code: 'named-in-text' } };
  }
  return null;
}

/** A name that is where something is on the web. */
const DOMAIN = /^(?:www\.)?([\w-]{4,})(?:\.[a-z]{2,}){1,2}$/i;

/** The firm whose name begins as something does and ends with its legal form. */
function firmCalled(beginning: string, rows: readonly Row[]): Fact | undefined {
  const key = lettersOf(beginning);
  for (const { words } of rows) {
    const from = words.findIndex((_, at) => lettersOf(textOf(words.slice(at, at + 3))).startsWith(key));
    for (let to = from + 1; from >= 0 && to <= Math.min(words.length, from + LONGEST_FIRM); to++) {
      const part = words.slice(from, to);
      const value = bare(textOf(part)).replace(/[-–·:,]+$/, '');
      if (!LEGAL_FORM.test(value) || DOMAIN.test(value) || !isName(value)) continue;
      const sure = part.reduce((sum, { confidence }) => sum + confidence, 0) / part.length;
      return { value, page: 1, box: placeOf(part), confidence: 0.85 * sure, why: { code: 'small-print' } };
    }
  }
  return undefined;
}

const LONGEST_FIRM = 5;
const textOf = (words: readonly Word[]) => words.map(({ text }) => text).join(' ');

/** Who closes a message by name. */
function teamOf(rows: readonly Row[]): Fact | undefined {
  for (const { words, folded, page, box } of rows.slice(HALF_OF_A_LETTER)) {
    const said = TEAM.exec(folded)?.[0];
    if (!said) continue;
    const name = words.slice(said.trim().split(' ').length);
    const value = bare(name.map(({ text }) => text).join(' '));
    if (name.length > 5 || !isName(value)) continue;
    const sure = name.reduce((sum, word) => sum + word.confidence, 0) / name.length;
    return { value, page, box, confidence: 0.75 * sure, why: { code: 'named-in-text' } };
  }
  return undefined;
}

/** Nobody signs in the first rows. */
const HALF_OF_A_LETTER = 3;

/** What stands before the name of whoever is to be paid (folded). */
const PAYEE =
  /(?:(?:cheques?|checks?|payments?)(?: (?:should|to|can|must))?(?: be)? (?:made )?(?:payable|out) to|beneficiary|payee|in favou?r of|zahlungsempfanger|a l'ordre de|beneficiaire|(?<holder>account(?: name| holder)|name of account|kontoinhaber(?:in)?|bankverbindung|titulaire(?: du compte)?))\s*:?\s+(?=\p{L})/u;

/** What says that an account is that of whoever pays, or has it (folded). */
const OF_THE_PAYER = new RegExp(
  `debit|lastschrift|mandat|abgebucht|einzieh|eingezogen|prelev|${OPENING.source}|${CLOSING.source}`,
  'u',
);

/** Whoever is to be paid, by name: “Please make cheques payable to …”. */
function payeeOf(rows: readonly Row[]): Fact | undefined {
  const isPayers = rows.some(({ folded }) => OF_THE_PAYER.test(folded));
  for (const { words, folded, page } of rows) {
    const said = PAYEE.exec(folded);
    if (!said || (said.groups?.holder && isPayers)) continue;
    const from = folded
      .slice(0, said.index + said[0].length)
      .trim()
      .split(/\s+/).length;
    const [part] = partsOfLine(words.slice(from));
    // The name ends where the sentence goes on.
    const small = part?.findIndex(({ text }) => /^\p{Ll}{3,}/u.test(text) && !JOINING.test(text)) ?? -1;
    const name = small < 0 ? part : part.slice(0, small);
    const value = bare(textOf(name ?? [])).replace(/(?<=\p{Ll}{3})\.$/u, '');
    if (!name || name.length < 2 || !isName(value) || !/^\p{Lu}/u.test(value)) continue;
    const sure = name.reduce((sum, { confidence }) => sum + confidence, 0) / name.length;
    return { value, page, box: placeOf(name), confidence: 0.7 * sure, why: { code: 'named-in-text' } };
  }
  return undefined;
}

/** How letters and bills close before the name of whoever wrote them (folded). */
const CLOSES =
  /^(?:(?:with|many) thanks|thank you|yours (?:sincerely|faithfully|truly)|(?:kind|best|warm) regards|regards|best wishes|mit (?:freundlichen|besten|herzlichen) grussen|(?:freundliche|beste|herzliche|viele) grusse|hochachtungsvoll|cordialement|bien a vous|(?:sinceres )?salutations|avec (?:mes|nos) remerciements)\W*$/;
/** So many lines below that are names: of a person, and of the firm. */
const MOST_SIGNED = 3;

/** Who signs at the end: of a person and a firm, the firm. */
function signedBy(rows: readonly Row[]): Fact | null {
  const at = rows.findLastIndex(({ folded }) => CLOSES.test(folded));
  if (at < 0) return null;
  const names = rows
    .slice(at + 1, at + 1 + MOST_SIGNED)
    .filter(({ cells, text }) => cells.length === 1 && isName(text) && !isTitle(text));
  const signed = names.find(({ text }) => COMPANY.test(text) || text.includes(' & ')) ?? names[0];
  if (!signed) return null;
  const sure = signed.words.reduce((sum, { confidence }) => sum + confidence, 0) / signed.words.length;
  return {
    value: bare(signed.text),
    page: signed.page,
    box: signed.box,
    confidence: 0.6 * sure,
    why: { code: 'named-in-text' },
  };
}

/** The firm that the small print at the foot of a page names by its legal form. */
function findInSmallPrint(foot: readonly Row[]): Fact | null {
  for (const { words } of foot) {
    const part = partsOfLine(words).find((each) => {
      const text = bare(each.map((word) => word.text).join(' '));
      // “Bank” alone is a label.
      return isName(text) && COMPANY.test(text) && text.includes(' ');
    });
    if (!part) continue;
    const sure = part.reduce((sum, word) => sum + word.confidence, 0) / part.length;
    const value = bare(part.map((word) => word.text).join(' '));
    return { value, page: 1, box: placeOf(part), confidence: 0.75 * sure, why: { code: 'small-print' } };
  }
  return null;
}
