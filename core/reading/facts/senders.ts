import type { Reason } from './reason';
import { Box } from '../../geometry';
import { editDistance } from '../../finding/editDistance';
import { datesInLine } from '../dates';
import { PageText, Word } from '../words';
import { Fact, placeOf } from './fact';
import { KINDS } from './kindList';
import { GOES_ON } from './kinds';
import { kindWords } from './kindWords';
import { COLUMN } from './labels';
import { Cell, fold, Row } from './rows';

const COMPANY =
  /(?<![\p{L}.])(ltd|limited|llp|plc|llc|inc\.?|corp\.?|cic|c\.i\.c\.|gmbh|ag|kg|ohg|ug|e\.? ?k\.?|e\.? ?v\.?|sarl|s\.a\.r\.l\.|sas|s\.a\.|sa|co\.?|& sons|& söhne|& fils|e hijos|e figli|& zonen|& filhos|s\.l\.|s\.r\.l\.|s\.p\.a\.|b\.v\.|n\.v\.|lda\.?|council|school|surgery|stadtwerke|verein|bank|insurance|university|museum)(?![\p{L}])/iu;
const NOT_A_NAME =
  /@|www\.|https?:|(?<!\p{L})(tel|phone|fax|date|datum|invoice|rechnung|facture|factura|fattura|factuur|fatura|receipt|quittung|kassenbon|kassenbeleg|beleg|ticket|recibo|reçu|statement|kontoauszug|page|seite|iban|vat|total|dear)(?!\p{L})|\d{4,}|^\P{L}*$/iu;
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
  const lowest = Math.min(HEAD * first.height, Math.max(HEAD_IN_WIDTHS * first.width, 0.16 * first.height));
  const head = onFirst.filter(({ box }) => box[1] < lowest);
  const last = Math.max(...onFirst.map(({ box: [, y] }) => y));
  const foot = onFirst.filter(({ box: [, y] }) => y > lowest && y >= Math.min(last, FOOT * first.height));
  const confirmed = findKnownVendor([...head, ...foot], known);
  if (confirmed) return confirmed;
  const heading = findVendor(head, rows);
  // Whoever makes an agreement is named in it.
  const between = heading?.why.code === 'heads-paper' && !COMPANY.test(heading.value) && partyOf(onFirst);
  if (between) return between;
  // A line that nothing speaks for but its height may as well be whom the paper goes to.
  return heading && heading.confidence >= STANDS_OUT
    ? heading
    : (teamOf(onFirst) ?? findInSmallPrint(foot) ?? firmInText(onFirst) ?? heading);
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

/** How short a name may be, in letters, to be recognised again; and what share of them may have been misread. */
const LEAST_LETTERS = 5;
const MOST_MISREAD = 0.1;

function lettersOf(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
}

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
  /^(?:from|von|absender|expediteur|emetteur|remitente|emisor|mittente|afzender|emitente|(?:[\p{L}']+ )?(?:business|company|firm|seller|supplier|vendor|shop|merchant|verkaufer|lieferant|auftragnehmer|aussteller|firma|vendeur|fournisseur|prestataire|societe|landlord|lessor|bailleur|vermieter(?:in)?|employer|employeur|arbeitgeber|insurer|versicherer|assureur|proveedor|fornitore|leverancier))\s*:\s*/u;
/** The heading of a paper that goes on with whom it is from: “Receipt from …”. */
const TITLE_FROM = /^(.{3,30}?) (?:from|von|bei|chez|van) (?=\p{L})/u;
/** Who says at its end that they wrote it: “Ihr Team von …”, “the … team”. */
const TEAM =
  /^(?:(?:ihr|euer|dein|das|the|your|l'equipe|votre equipe)(?: [\p{L}-]+)? ?team (?:von|vom|from|at|of|de|der|des) |l'equipe (?:de |d'|du )?)(?=\p{L})/u;
const TO =
  /^(?:to (?=\p{L})|(?:bill(?:ed)?|invoiced?|sold|ship(?:ped)?|deliver(?:ed|y)?|sent?d?|charged?)[ -]to|to\s*:|to$|customer|client|buyer|attn|an\s*:|an$|rechnung an|kunde|kaufer|empfanger|lieferadresse|rechnungsadresse|a l'attention|facture a|destinataire|adresse de|livre a|cliente|destinatario|spett|fatturare|aan\s*:|aan$|t\.?a\.?v|klant|factuuradres|adquirente)\b/u;
const PERSON =
  /^(?:mr|mrs|ms|miss|herrn?|frau|familie|firma|fa\.|monsieur|madame|mlle|mme|m\.|sr\.?|sra\.?|senor|senora|sig\.?(?:ra|na)?|signor|signora|dhr\.?|mevr\.?|de heer|mevrouw|exm[oa]|senhor|senhora)(?= |$)/;
const GREETING =
  /^\W*(?:welcome|willkommen|bienvenue|bienvenid[oa]s?|benvenut[oi]|welkom|bem-?vind[oa]s?)\b\W*(?:(?:to|bei|in der|im|chez|al?|da|bij|ao?)\s+)?/;
/** Signs that a block of lines is the sender's own. */
const OWN_SIGN =
  /@|www\.|\b(?:tel|phone|telefon|fax|vat|ust|tva|p\.? ?iva|nif|cif|siret|btw|kvk|company no|inh\.|iban)\b/;
/** Lines of a block stand under each other within so many heights, and begin, end or have their middle at one place. */
const NEAR = 1.25;
const ALIGNED = 1.6;
/** Lines of a name in two lines are as tall as each other, and so much taller than usual. */
const LARGE = 1.3;
const AS_TALL = 0.12;

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
      if (home && !TO.test(cell.folded) && !FROM.test(cell.folded)) home.cells.push({ cell, row, rank });
      else blocks.push({ cells: [{ cell, row, rank }], recipient: false });
    }
  });
  for (const block of blocks)
    block.recipient = block.cells.some(
      ({ cell: { folded } }, at) => (at === 0 && TO.test(folded)) || (at < 2 && PERSON.test(folded)),
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

interface Candidate {
  text: string;
  words: Word[];
  score: number;
  /** Whether it says that it is the sender. */
  labelled: boolean;
  again: number;
}

/** The line in the head of the first page that stands out by size, height, form of a name, its block, and being named again. */
function findVendor(head: readonly Row[], rows: readonly Row[]): Fact | null {
  const heights = rows.flatMap(({ words }) => words.map((word) => word.box[3])).sort((a, b) => a - b);
  const usual = heights[heights.length >> 1] || 1;
  const addressed = rows.map(({ folded }) => SALUTED.exec(folded)?.[1]).find((name) => name !== undefined);
  let best: Candidate | undefined;
  for (const { cells, recipient } of blocksOf(head)) {
    if (recipient) continue;
    const own = cells.some(({ cell }) => OWN_SIGN.test(cell.folded)) ? 0.5 : 0;
    let named = false;
    cells.forEach(({ cell, row, rank }, at) => {
      const titled = TITLE_FROM.exec(cell.folded);
      const from = FROM.exec(cell.folded) ?? (titled && isHeading(titled[1]) ? titled : null);
      const label = from ?? GREETING.exec(cell.folded);
      const isFrom = from !== null;
      const { text, words } = inFull(nameIn(cell, cells[at + 1]?.cell, label?.[0] ?? '', usual), rows);
      if (
        !isName(text) ||
        datesInLine(cell.words).length > 0 ||
        isHeading(text) ||
        isTitle(text) ||
        isNamedAfter(text) ||
        isColumnHead(cell) ||
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
        (COMPANY.test(text) ? 1.2 : 0) +
        again +
        own +
        (isFrom ? 2 : 0) +
        // A line with name, street and town is that of a letter's window.
        (isAddressLine(cell) ? 0.8 : 0) +
        (rank === 0 ? 0.8 : 0) -
        // A line of columns is one of a table.
        (row.cells.length >= 3 ? 0.8 : 0) -
        rank * 0.12 -
        below +
        sure -
        1;
      if (!best || score > best.score) best = { text, words, score, labelled: isFrom, again };
    });
  }
  if (!best) return null;
  const { text, words, score, labelled, again } = best;
  const sure = words.reduce((sum, word) => sum + word.confidence, 0) / words.length;
  const isFirm = COMPANY.test(text);
  // Without a form that only firms have, a line that stands out may be anything.
  const known = isFirm && again > 0 ? 0.96 : isFirm || again > 0 || labelled ? 0.9 : 0.7;
  // Names begin with a capital: a small letter was misread.
  const most = /^\p{Ll}/u.test(text) ? 0.7 : known;
  const confidence = Math.max(0.2, Math.min(most, sure * (0.35 + score / 5)));
  const why: Reason = { code: labelled ? 'named-as-sender' : again > 0 ? 'heads-and-again' : 'heads-paper' };
  return { value: lettered(text), page: 1, box: placeOf(words), confidence, why };
}

/** A nought among capitals is the letter. */
const lettered = (text: string) =>
  text.replace(/ pic$/, ' plc').replace(/(?<=\p{Lu})0(?=\p{Lu}|\s|$)|(?<=\s|^)0(?=\p{Lu}{2})/gu, 'O');

/** Who is greeted in a letter, by the last name. */
const SALUTED =
  /^(?:dear|sehr geehrter?|liebe[rs]?|chere?|estimad[oa]|gentile|egregio|geachte|beste|exm[oa]|car[oa])\b.*?(\p{L}{3,})[,!]?$/u;

/** A cell without what introduces the name, and with its second line if the name goes on there. */
function nameIn(cell: Cell, below: Cell | undefined, label: string, usual: number): { text: string; words: Word[] } {
  const skipped = label.split(' ').filter((part) => part !== '').length;
  const words = withoutAddress(asLarge(withoutCrumbs(label === '' ? cell.words : cell.words.slice(skipped))));
  const goesOn =
    below &&
    cell.box[3] > LARGE * usual &&
    Math.abs(below.box[3] - cell.box[3]) < AS_TALL * cell.box[3] &&
    /^[\p{L}&' ’.-]+$/u.test(below.text) &&
    isName(below.text) &&
    !COMPANY.test(cell.text);
  const all = withoutTitle(goesOn ? [...words, ...below.words] : words);
  return { text: bare(all.map(({ text }) => text).join(' ')), words: all };
}

/** A name in large letters, without what goes on beside it in small ones. */
function asLarge(words: Word[]): Word[] {
  const end = words.findIndex(({ box }, at) => at > 0 && box[3] < MUCH_LOWER * words[at - 1].box[3]);
  const large = words.slice(0, Math.max(0, end));
  const isName = lettersOf(large.map(({ text }) => text).join('')).length >= LEAST_LETTERS;
  return isName && words.length - end > 2 ? large : words;
}

/** So much lower a word is none of the name before it. */
const MUCH_LOWER = 0.62;

/** The name in a line that also says what kind of paper it is: “Northgate Academy Trust Payslip”. */
function withoutTitle(words: Word[]): Word[] {
  const isTitle = (some: Word[]) => isHeading(bare(some.map(({ text }) => text).join(' ')));
  const cut = [1, 2].find((count) => words.length - count >= 2 && isTitle(words.slice(-count)));
  return cut === undefined || isTitle(words) ? words : words.slice(0, -cut);
}

/** What is read from a drawing before a name: a few doubtful letters, so much taller than the name's. */
const DRAWN_TALLER = 1.5;
const MOST_DRAWN = 3;

function isDrawing([first, ...rest]: Word[]): boolean {
  if (rest.length === 0 || first.text.length > MOST_DRAWN || first.confidence >= 0.9) return false;
  const heights = rest.map(({ box }) => box[3]).sort((a, b) => a - b);
  return first.box[3] > DRAWN_TALLER * heights[heights.length >> 1];
}

/** Without what was read from a sign or a picture beside the name: a sign by itself and the letter before it, a lone small letter. */
function withoutCrumbs(words: Word[]): Word[] {
  if (isDrawing(words)) return words.slice(1);
  const isOrnament = ({ text }: Word) => /^[*xX=~+_#-]{1,4}$/.test(text);
  if (words.length > 2 && isOrnament(words[0]) && isOrnament(words.at(-1)!)) return words.slice(1, -1);
  if (/^\p{Ll}$/u.test(words[0]?.text ?? '') && /^\p{Lu}/u.test(words[1]?.text ?? '')) return words.slice(1);
  const crumb = words.slice(0, 3).findLastIndex(({ text }) => !/[\p{L}\p{N}&+]/u.test(text));
  const before = words.slice(0, crumb);
  return crumb >= 0 && crumb < words.length - 1 && before.every(({ text }) => text.length <= 2)
    ? words.slice(crumb + 1)
    : words;
}

/** The name in a line that goes on with the address: “Holzwerk Birkenau KG, Gewerbepark 7, 69488 Birkenau”. */
function withoutAddress(words: Word[]): Word[] {
  const end = words.findIndex(
    ({ text }, at) =>
      at > 0 && (/^[·•|–—:-]$/.test(text) || /^P\.?O\.?$/.test(text) || /[,:]$/.test(words[at - 1].text)),
  );
  // What goes on after a comma with a house number, or in parts, is where it is or what it does.
  const rest = words.slice(end);
  const goesOn = rest.some(({ text }) => /\d/.test(text)) || rest.filter(({ text }) => /,$/.test(text)).length >= 2;
  // “Sunna Bakke, photographs”
  const isWork = end > 1 && /^\p{Ll}/u.test(words[end]?.text ?? '');
  if (end < 0 || !(goesOn || isWork)) return words;
  return words.slice(0, end);
}

const bare = (text: string) => text.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}.)]+$/gu, '');

function isName(text: string): boolean {
  const letters = (text.match(/\p{L}/gu) ?? []).length;
  return letters >= 3 && text.split(' ').length <= 7 && !NOT_A_NAME.test(text) && !/(?<!\p{L})\d/u.test(text);
}

/** What a title ends with that names no kind by itself, and words by which a line speaks to whoever reads it (folded). */
const TITLE =
  /(?<!\p{L})(?:record|report|summary|form|schedule|confirmation|advice|notice|details|overview|protokoll|ubersicht|nachweis|bestatigung|mitteilung|rapport|recapitulatif|confirmacion|conferma|overzicht)$|(?<!\p{L})(?:your|ihre?[nmrs]?|votre|vos|thank|danke?)(?!\p{L})/u;

function isTitle(text: string): boolean {
  return TITLE.test(fold(text)) && !COMPANY.test(text);
}

/** The forms by which a firm goes, whatever its name begins with. */
const LEGAL_FORM =
  /(?<![\p{L}.])(?:ltd|limited|llp|plc|llc|inc\.?|corp\.?|gmbh|ag|kg|ohg|sarl|sas|s\.a\.|cic)(?![\p{L}])/iu;

/** Whether a line begins with what kind of paper it is: “Certificate of Motor Insurance”. */
function isNamedAfter(text: string): boolean {
  const folded = fold(text);
  return (
    folded.includes(' ') &&
    !LEGAL_FORM.test(text) &&
    KINDS.some((kind) => kindWords[kind].named.exec(folded)?.index === 0)
  );
}

/** A line that parts name, street and town by signs. */
function isAddressLine({ words }: Cell): boolean {
  const signs = words.flatMap(({ text }, at) => (at > 0 && /^[·•|:–—-]$/.test(text) ? [at] : []));
  return signs.length >= 2 && words.slice(signs[0]).some(({ text }) => /^\d/.test(text));
}

/**
 * A name of one word as it stands elsewhere with more: what is drawn large at the top is often the first word of it, or has small
 * letters where the name has none.
 */
function inFull(name: { text: string; words: Word[] }, rows: readonly Row[]): { text: string; words: Word[] } {
  const key = lettersOf(name.text);
  const isDrawn = name.words.length === 1 || /^\p{Ll}/u.test(name.text);
  if (!isDrawn || key.length < LEAST_LETTERS) return name;
  for (const part of rows.flatMap(({ cells }) => cells).flatMap(({ words }) => partsOfLine(words))) {
    if (part.includes(name.words[0]) || !/^\p{Lu}/u.test(part[0].text)) continue;
    const same = part.findIndex(
      (_, at) =>
        lettersOf(
          part
            .slice(0, at + 1)
            .map(({ text }) => text)
            .join(''),
        ) === key,
    );
    const form = part.slice(0, LONGEST_FORM).findIndex(({ text }) => COMPANY.test(` ${text}`));
    const whole = form > same ? part.slice(0, form + 1) : part;
    const text = bare(whole.map((each) => each.text).join(' '));
    const isNamed = whole.every((each) => /^(?:[\p{Lu}&]|e\.?[GKV])/u.test(each.text));
    if (same >= 0 && whole.length > same + 1 && whole.length <= LONGEST_FORM && isName(text) && isNamed)
      return { text, words: whole };
  }
  return name;
}

/** The parts of a line between its commas, points and strokes. */
function partsOfLine(words: readonly Word[]): Word[][] {
  const parts: Word[][] = [[]];
  for (const word of words) {
    if (/^[·•|–—/,;:-]$/.test(word.text)) parts.push([]);
    else {
      parts[parts.length - 1].push(word);
      if (/[,;:]$/.test(word.text)) parts.push([]);
    }
  }
  return parts.filter(({ length }) => length > 0);
}

/** A name with its legal form has no more words. */
const LONGEST_FORM = 5;

function isColumnHead({ folded, words }: Cell): boolean {
  return words.length <= 2 && COLUMN.exec(folded)?.[0] === folded;
}

/** Whether a line says what kind of paper it is, and hardly more. */
function isHeading(text: string): boolean {
  const folded = fold(text);
  return KINDS.some((kind) => {
    const name = kindWords[kind].named.exec(folded)?.[0];
    if (name === undefined) return false;
    const isTwoWords = folded.split(' ').length === 2 && ` ${folded} `.includes(` ${name} `);
    return (
      isTwoWords ||
      name.length > 0.7 * folded.length ||
      (folded.startsWith(name) && GOES_ON.test(folded.slice(name.length)))
    );
  });
}

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

/** The first firm that is named by its legal form in the text: “between Harbour Crafts Ltd (the organiser) and …”. */
function firmInText(rows: readonly Row[]): Fact | null {
  for (const { words } of rows.slice(0, TOLD_EARLY)) {
    const form = words.findIndex(
      ({ text }, at) => at > 0 && COMPANY.exec(text)?.index === 0 && /^(?:\p{Lu}|e\.|gGmbH)/u.test(text),
    );
    if (form < 0) continue;
    const isCapital = (at: number) => /^\p{Lu}/u.test(words[at]?.text ?? '') && !/[,;:.]$/.test(words[at].text);
    const joins = (at: number): boolean =>
      /^(?:&|and|of|the|und|et|del?|des|d[aou]|la|les?|von|der|van|y|e)$/.test(words[at]?.text ?? '') &&
      (isCapital(at - 1) || joins(at - 1));
    let from = form;
    while (isCapital(from - 1) || joins(from - 1)) from--;
    while (/^(?:between|zwischen|entre|tra|tussen|the|der|dem|den|die|la|le)$/i.test(words[from].text)) from++;
    const name = words.slice(from, form + 1);
    const value = bare(name.map(({ text }) => text).join(' '));
    if (name.length < 2 || !isName(value)) continue;
    const sure = name.reduce((sum, word) => sum + word.confidence, 0) / name.length;
    return { value, page: 1, box: placeOf(name), confidence: 0.7 * sure, why: { code: 'named-in-text' } };
  }
  return null;
}

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

/** The firm that the small print at the foot of a page names by its legal form. */
function findInSmallPrint(foot: readonly Row[]): Fact | null {
  for (const { words } of foot) {
    const part = partsOfLine(words).find((each) => {
      const text = bare(each.map((word) => word.text).join(' '));
      return isName(text) && COMPANY.test(text);
    });
    if (!part) continue;
    const sure = part.reduce((sum, word) => sum + word.confidence, 0) / part.length;
    const value = bare(part.map((word) => word.text).join(' '));
    return { value, page: 1, box: placeOf(part), confidence: 0.75 * sure, why: { code: 'small-print' } };
  }
  return null;
}
