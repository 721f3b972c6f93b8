import { Word } from '../words';
import { KINDS } from './kindList';
import { GOES_ON } from './kindNames';
import { kindWords } from './kindWords';
import { COLUMN } from './labels';
import { Cell, fold, Row } from './rows';
import { STREET } from './street';
import { Part, partsOf } from './terms';

export const COMPANY =
  /(?<![\p{L}.])(ltd|limited|llp|plc|llc|inc\.?|corp\.?|cic|c\.i\.c\.|gmbh|ag|kg|ohg|ug|e\.? ?k\.?|e\.? ?v\.?|(?<=\p{L}{3} )e\.? ?g|sarl|s\.a\.r\.l\.|sas|s\.a\.|sa|co\.?|& sons|& söhne|& fils|e hijos|e figli|& zonen|& filhos|s\.l\.|s\.r\.l\.|s\.p\.a\.|b\.v\.|n\.v\.|lda\.?|council|school|surgery|stadtwerke|verein|bank|insurance|university|museum)(?![\p{L}])/iu;
const NOT_A_NAME =
  /@|www\.|https?:|(?<!\p{L})(tel|phone|fax|date|datum|invoice|rechnung|facture|factura|fattura|factuur|fatura|receipt|quittung|kassenbon|kassenbeleg|beleg|ticket|recibo|reçu|statement|kontoauszug|page|seite|iban|vat|total|dear)(?!\p{L})|\d{4,}|^\P{L}*$/iu;

/** A sum in words: “einhundertfünfundvierzig”, “one hundred and forty-five pounds” (folded). */
const SUM_IN_WORDS =
  /^(?:(?:betrag )?in worten|(?:amount )?in words|en (?:toutes )?lettres|\p{L}*(?:ein|zwei|drei|vier|funf|sechs|sieben|acht|neun)(?:hundert|tausend|und(?:zwan|drei|vier|funf|sech|sieb|acht|neun)s?[sz]ig)\p{L}*(?: euro)?|(?:(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|\p{L}+teen|(?:twen|thir|for|fif|six|seven|eigh|nine)ty|hundred|thousand|and|pounds?|euros?|dollars?|only|un|deux|trois|quatre|cinq|sept|huit|neuf|dix|onze|douze|vingts?|trente|quarante|cinquante|soixante|cents?|mille|et)\b[ -]*){2,})$/u;

/** How short a name may be, in letters, to be recognised again. */
export const LEAST_LETTERS = 5;

export function lettersOf(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
}

/** What stands before the name of a person who practises. */
const PERSONS_TITLE = /^(?:Dr|Prof|Dipl|Mag|Ma[iî]tre|Me|Ing)\b/u;

/** Lines of a name in two lines are as tall as each other, and so much taller than usual. */
const LARGE = 1.3;
const AS_TALL = 0.12;

/** A cell without what introduces the name, and with its second line if the name goes on there. */
export function nameIn(
  cell: Cell,
  below: Cell | undefined,
  label: string,
  usual: number,
): { text: string; words: Word[] } {
  const skipped = label.split(' ').filter((part) => part !== '').length;
  const named = withoutMail(label === '' ? cell.words : cell.words.slice(skipped));
  const words = withoutAddress(withoutSentence(asLarge(withoutCrumbs(named))));
  const goesOn =
    below &&
    cell.box[3] > LARGE * usual &&
    Math.abs(below.box[3] - cell.box[3]) < AS_TALL * cell.box[3] &&
    /^[\p{L}&' ’.-]+$/u.test(below.text) &&
    // Small letters with long strokes are as tall as capitals of a smaller size.
    isInCapitals(cell.text) === isInCapitals(below.text) &&
    isName(below.text) &&
    isName(`${bare(cell.text)} ${bare(below.text)}`) &&
    // “Dr. Leopoldine Hartig” is whole.
    !PERSONS_TITLE.test(cell.text) &&
    !COMPANY.test(cell.text);
  const all = withoutArticle(withoutTitle(goesOn ? [...words, ...below.words] : words), cell.words);
  const text = bare(all.map((word) => word.text).join(' '));
  // A point between it and what went on behind it may have been read as one of its own.
  return { text: text.replace(/(?<=\p{Lu}\p{Ll}{4,})\.$|(?<=\p{L}{2})[-–·]$/u, ''), words: all };
}

/** The name before a mail address: “Quayside Print <accounts@quayside.example>”. */
function withoutMail(words: Word[]): Word[] {
  const address = words.findIndex(({ text }, at) => at > 0 && /^[<([]?[\w.+-]+@[\w.-]+\.\w+[>)\]]?$/.test(text));
  return address > 0 && address === words.length - 1 ? words.slice(0, address) : words;
}

/** “Der Kleingartenverein Deichblick e.V., Norden, überlässt”: the article is the sentence's. */
function withoutArticle(words: Word[], line: readonly Word[]): Word[] {
  const behind = line.slice(line.indexOf(words.at(-1)!) + 1);
  const isSentence = behind.some(({ text }) => /^\p{Ll}{4,}$/u.test(text));
  return words.length > 2 && isSentence && /^(?:Der|Die|Das|Le|La|Les)$/.test(words[0].text) ? words.slice(1) : words;
}

const isInCapitals = (text: string) => !/\p{Ll}{2}/u.test(text);

/** The name that a sentence begins with: “Skerry Stoves undertake to repair …”. */
function withoutSentence(words: Word[]): Word[] {
  const isSmall = ({ text }: Word) => /^\p{Ll}{3,}$/u.test(text) && !JOINING.test(text);
  const verb = words.findIndex(isSmall);
  return verb >= 2 && words.slice(verb).filter(isSmall).length >= LEAST_SENTENCE ? words.slice(0, verb) : words;
}

/** Small words that stand within names, and how many others make a sentence. */
export const JOINING = /^(?:and|the|und|der|die|das|von|vom|zum|zur|des|les|del|della|pour|sur|for|aux)$/;
const LEAST_SENTENCE = 4;

/** A name in large letters, without what goes on beside it in small ones. */
function asLarge(words: Word[]): Word[] {
  // How high a sign such as “&” stands says nothing.
  const before = (at: number) => words.slice(0, at).findLast(({ text }) => /[\p{L}\d]/u.test(text));
  const end = words.findIndex(({ box }, at) => box[3] < MUCH_LOWER * (before(at)?.box[3] ?? 0));
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
  if (cut === undefined || isTitle(words)) return words;
  // “Vehicle test certificate”, “Electrical Installation Certificate” are all title.
  const rest = words.slice(0, -cut);
  const isFirm = COMPANY.test(rest.map(({ text }) => text).join(' '));
  if (!isFirm && rest.length > 1 && SAYS_OF_WHAT.test(fold(words.at(-1)!.text))) return [];
  return rest.some(({ text }) => /^\p{Ll}{3,}$/u.test(text) && !JOINING.test(text)) ? [] : rest;
}

/** What a title ends with that says before it what it is of (folded). */
const SAYS_OF_WHAT = /^(?:certificate|agreement|contract|schedule|licen[cs]e|permit|report|policy)\W*$/;

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

/** A point between the parts of a line may have been read as one behind the word before it: “Wildblume Seifen. Manufaktur”. */
const isPointBehind = (before: string, text: string) =>
  /^\p{Lu}\p{Ll}{4,}\.$/u.test(before) && /^\p{Lu}\p{Ll}{3,}/u.test(text) && !LEGAL_FORM.test(` ${before}`);

/** A point between the parts of a line may have been read as a stroke of the word before: “Onken- Inh. Deike Onken”. */
const isStrokeBehind = ({ text: before }: Word, text: string) =>
  /\p{L}{2}[-–·]$/u.test(before) && /^\p{Lu}/u.test(text);

/** What streets are called that have no number beside them (folded). */
const ROAD = /^(?:road|street|lane|yard|avenue|\p{L}{3,}(?:strasse|gasse|weg))\W*$/u;

/** A dash and the place behind it. */
const MOST_PARTED = 2;

/** The name in a line that goes on with the address: “Holzwerk Birkenau KG, Gewerbepark 7, 69488 Birkenau”. */
function withoutAddress(words: Word[]): Word[] {
  const end = words.findIndex(
    ({ text }, at) =>
      at > 0 &&
      (/^[·•|–—:-]$/.test(text) ||
        isPointBehind(words[at - 1].text, text) ||
        /^P\.?O\.?$/.test(text) ||
        // A point between that was read as a stroke of the word before: “Onken- Inh. Deike Onken - Deichweg 4”.
        isStrokeBehind(words[at - 1], text) ||
        /[,:]$/.test(words[at - 1].text)),
  );
  // “Amity Light & Power 77 Substation Rd”
  const house = words.findIndex(
    (_, at) =>
      at > 1 &&
      STREET.test(
        fold(
          words
            .slice(at)
            .map(({ text }) => text)
            .join(' '),
        ),
      ),
  );
  if (house > 1 && (end < 0 || house < end)) return words.slice(0, house);
  // The stroke behind a firm's form may have been lost: “Wohnbau Lüttenhus eG Deichgrafenweg 3 - 26506 Norden”.
  const form = words.findIndex(({ text }, at) => at > 0 && LEGAL_FORM.test(`Xxx ${text}`));
  // “Inselkaufhaus Brunke KG Einkauf Textil”
  if (form > 0 && ENDS_NAME.test(words[form].text) && /^\p{Lu}\p{Ll}{2,}/u.test(words[form + 1]?.text ?? ''))
    return words.slice(0, form + 1);
  if (
    form > 0 &&
    form + 1 < (end < 0 ? words.length : end) &&
    words.slice(form + 1).some(({ text }) => /^\d/.test(text))
  )
    return words.slice(0, form + 1);
  // What goes on after a comma with a house number, or in parts, is where it is or what it does.
  const rest = words.slice(end);
  const isPlace = rest.slice(1).some(({ text }) => ROAD.test(fold(text)));
  const goesOn =
    isPlace || rest.some(({ text }) => /\d/.test(text)) || rest.filter(({ text }) => /,$/.test(text)).length >= 2;
  // “Sunna Bakke, photographs”
  const isWork = end > 1 && /^\p{Ll}/u.test(words[end]?.text ?? '');
  // “Laines du Ponant — Concarneau”
  const isParted =
    end > 1 &&
    /^[—–-]$/.test(words[end].text) &&
    rest.length <= MOST_PARTED &&
    !COMPANY.test(rest.map(({ text }) => text).join(' '));
  const isPointed = end > 0 && isPointBehind(words[end - 1].text, words[end].text);
  const isStroked = end > 1 && isStrokeBehind(words[end - 1], words[end].text);
  if (end < 0 || !(goesOn || isWork || isPointed || isStroked || isParted)) return words;
  return words.slice(0, end);
}

export const bare = (text: string) => text.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}.)]+$/gu, '');

export function isName(text: string): boolean {
  const letters = (text.match(/\p{L}/gu) ?? []).length;
  if (letters < 3 || text.split(' ').length > 7) return false;
  // “1st Wickford Sea Scouts”
  const named = text.replace(/^\d{1,2}(?:st|nd|rd|th) (?=\p{Lu})/u, '');
  return !NOT_A_NAME.test(text) && !/(?<!\p{L})\d/u.test(named) && !SUM_IN_WORDS.test(fold(text));
}

/** A shop in capitals and which of several it is, as tills print it on top: “SHOREWAY MARKET #118”. */
export const isBranch = (text: string) =>
  /^\p{Lu}[\p{Lu}&' .-]{3,} #?\d{1,4}$/u.test(text) &&
  !isNamedAfter(text) &&
  // “INVOICE 118”, “TABLE 14”
  text.split(' ').every((word) => partsOf(fold(word)).length === 0);

/** What a title ends with that names no kind by itself, and words by which a line speaks to whoever reads it (folded). */
const TITLE =
  /(?<!\p{L})(?:record|report|summary|form|schedule|confirmation|advice|notice|details|overview|protokoll|ubersicht|nachweis|bestatigung|mitteilung|rapport|recapitulatif|confirmacion|conferma|overzicht)$|(?<!\p{L})(?:your|ihre?[nmrs]?|votre|vos|thank|danke?)(?!\p{L})/u;

/** What papers are marked with, or a part of their title (folded). */
const MARKED =
  /^(?:credit|debit|note|notes|memo|original|(?:customer|merchant|file|office) copy|copy|duplicate|(?:gift )?(?:voucher|card)|geschenkgutschein|gutschein|bon cadeau|cheque cadeau|kopie|duplikat|zweitschrift|copie|void|refund|return|draft|entwurf|paid|bezahlt|paye|private (?:and|&) confidential|confidential|personlich|vertraulich|first class|recommande|einschreiben|urgent|important|wichtig|eilt)$/;

/** How a sentence that names two begins, and a greeting (folded). */
const PARTIES = /^(?:between|zwischen|entre|tra|tussen|hallo|hello|hi|bonjour|guten (?:tag|morgen)|moin) /;

export function isTitle(text: string): boolean {
  const folded = fold(text);
  if (MARKED.test(folded) || PARTIES.test(folded)) return true;
  return TITLE.test(folded) && !COMPANY.test(text);
}

/** The forms by which a firm goes, whatever its name begins with. */
export const LEGAL_FORM =
  /(?<![\p{L}.])(?:ltd|limited|llp|plc|llc|inc\.?|corp\.?|gmbh|ag|kg|ohg|ug|e\.? ?k\.?|e\.? ?v\.?|(?<=\p{L}{3} )e\.? ?g|sarl|sas|sa|s\.a\.|s\.l\.|s\.r\.l\.|b\.v\.|n\.v\.|co\.?|& sons|cic)(?![\p{L}])/iu;

/** Forms that a name ends with, wherever it stands. */
const ENDS_NAME = /^(?:ltd\.?|limited|llp|plc|llc|inc\.?|gmbh|kg|ohg|ug|sarl|sas|eg)$/i;

/** Whether a line begins with what kind of paper it is: “Certificate of Motor Insurance”. */
export function isNamedAfter(text: string): boolean {
  const folded = fold(text);
  return (
    folded.includes(' ') &&
    !LEGAL_FORM.test(text) &&
    KINDS.some((kind) => kindWords[kind].named.exec(folded)?.index === 0)
  );
}

/** A line that parts name, street and town by signs. */
export function isAddressLine({ words }: Cell): boolean {
  const signs = words.flatMap(({ text }, at) => (at > 0 && /^[·•|:–—-]$/.test(text) ? [at] : []));
  return signs.length >= 2 && words.slice(signs[0]).some(({ text }) => /^\d/.test(text));
}

/** A line with a name, a street and a town behind commas, as it stands above the address in a letter's window. */
export function isReturnLine({ words, text }: Cell): boolean {
  const commas = words.filter((word, at) => /,$/.test(word.text) && at < words.length - 1).length;
  return commas >= 2 && /^\p{Lu}/u.test(text) && /, \d{4,5} \p{Lu}\p{L}+$/u.test(text);
}

/**
 * A name of one word as it stands elsewhere with more: what is drawn large at the top is often the first word of it, or has small
 * letters where the name has none.
 */
export function inFull(name: { text: string; words: Word[] }, rows: readonly Row[]): { text: string; words: Word[] } {
  const key = lettersOf(name.text);
  // “GARNKONTOR BREMEN” above “Garnkontor Bremen KG” is drawn as well.
  const isDrawn = name.words.length === 1 || /^\p{Ll}/u.test(name.text) || !/\p{Ll}/u.test(name.text);
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
export function partsOfLine(words: readonly Word[]): Word[][] {
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

export function isColumnHead({ folded, words }: Cell): boolean {
  return words.length <= 2 && COLUMN.exec(folded)?.[0] === folded;
}

/** Whether a name is what a value is called: “Dated”, “Kassenzeichen: 7.4410”. */
export function isLabel({ words: [first] }: Cell, text: string): boolean {
  const words = fold(text).split(' ');
  if (COMPANY.test(text) || !first.text.startsWith(text.split(' ')[0])) return false;
  // “Kind: Marta”
  if (words.length === 1 && first.text.endsWith(':')) return true;
  const last = words[words.length - 1];
  if (words.length < 4 && /^(?:\p{L}*(?:address|anschrift|adresse))$/u.test(last)) return true;
  const parts = partsOf(last);
  return words.length === 1
    ? parts.some((part) => LABELS.includes(part))
    : words.length < 4 && parts.includes('number');
}

/** What values are that labels of one word name; a word of other parts may be a name: “Küstensparkasse”. */
const LABELS: Part[] = ['number', 'day', 'issued', 'pay', 'until', 'ends', 'customer', 'order', 'page', 'item'];

/** Whether a line says what kind of paper it is, and hardly more. */
export function isHeading(text: string): boolean {
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
