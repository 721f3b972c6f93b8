import { Box } from '../../geometry';
import { allMatches } from '../allMatches';
import { Word } from '../words';
import { placeOf } from './fact';
import { fold, foldMisread, Row } from './rows';

/** What a value is called where it stands. */
export interface Label<Name extends string> {
  name: Name;
  /** As printed. */
  text: string;
  /** Before it in its row, or at the head of its column. */
  where: 'before' | 'above';
  /** How many letters are between the label and the value. */
  away: number;
}

/** A label further before its value than so many letters belongs to something else. */
const FARTHEST = 40;
/** How far above a label may stand, in heights of the value. */
const HIGHEST = 3.4;

/**
 * What a value is called: the label nearest before it in its row, else the one above it.
 * @param labels patterns for folded text, by what they name
 */
export function labelOf<Name extends string>(
  rows: readonly Row[],
  row: Row,
  value: readonly Word[],
  labels: Record<Name, RegExp>,
): Label<Name> | undefined {
  const [left] = placeOf(value);
  const before = foldMisread(
    wordsBefore(row, left)
      .map(({ text }) => text)
      .join(' '),
  );
  const beside = nearestLabel(before, labels);
  if (beside) return { ...beside, where: 'before' };
  const above = cellAbove(rows, row, placeOf(value))?.text;
  const over = above === undefined ? undefined : nearestLabel(above, labels);
  return over && { ...over, where: 'above' };
}

/** What a sum is with or without, in brackets behind its label (folded): “Subtotal (excl. VAT)”. */
const WITH_OR_WITHOUT =
  /\((?:incl|inkl|excl|exkl|exclud|includ|zzgl|ex|outside|no|not|free of|kein|keine|sans|hors|before|without|net of|sin|sem|con|com|senza|ohne|mit)\b[^)]*\)/g;

/** “This year's price, including insurance premium tax”: behind a sum's name it is in that sum (folded). */
const IN_SUM =
  /(\b(?:total|price|premium|cost|charge|fee|rent|amount|sum|preis|betrag|summe|beitrag|pramie|montant|prix|prime|cout|loyer|importe?|precio|importo|prezzo|totale?|totaal|bedrag|prijs|valor|preco)(?: (?:chf|eur|gbp|usd|[£€$]))?),? (?:(?:incl(?:uding|usive of|usief|\.)?|inkl(?:usive)?\.?|einschl(?:iesslich)?\.?|with|mit|y compris|avec|with all|con|com|met) (?:\d{1,2}(?:[.,]\d{1,2})? ?% )?(?:[\p{L}-]+ ){0,3}(?:vat|tax|taxes|mwst\.?|ust\.?|\p{L}*steuer|tva|iva|btw)(?: (?:inclu\p{L}+|inbegrepen|compris\p{L}*))?|(?:vat|tax|mwst\.?|ust\.?|tva|iva|btw) (?:inclu\p{L}+|inbegrepen|inbegriffen|enthalten|compris\p{L}*))$/u;

/** A tax that is not there (folded): “no VAT charged”. */
const UNTAXED =
  /\b(?:no|not|without|zero|ohne|keine?|sans|exempt from|exonere de|free of)[- ](?:vat|tax|mwst|ust|umsatzsteuer|tva)(?: (?:charged|due|payable|added|ausgewiesen|applicable))?/g;

/** What labels are looked for with, again and again in a text. */
const global = new WeakMap<RegExp, RegExp>();

function anywhere(label: RegExp): RegExp {
  const known = global.get(label) ?? new RegExp(label.source, 'gu');
  global.set(label, known);
  return known;
}

function nearestLabel<Name extends string>(
  whole: string,
  labels: Record<Name, RegExp>,
): Omit<Label<Name>, 'where'> | undefined {
  const text = whole.replace(WITH_OR_WITHOUT, '').replace(UNTAXED, '').trimEnd().replace(IN_SUM, '$1');
  let best: Omit<Label<Name>, 'where'> | undefined;
  for (const name of Object.keys(labels) as Name[]) {
    for (const found of allMatches(anywhere(labels[name]), text)) {
      const away = text.length - found.index - found[0].length;
      // The longer of two that end alike says more.
      if (away <= FARTHEST && (!best || away < best.away || (away === best.away && found[0].length > best.text.length)))
        best = { name, text: found[0], away };
    }
  }
  return best;
}

/** What names a value stands within so many words before it: a line of a paper may be of any length. */
const MOST_BEFORE = 50;
const wordsBefore = ({ words }: Row, left: number) =>
  words.filter(({ box }) => box[0] < left - 0.5).slice(-MOST_BEFORE);

/** The text of the cell above a place, if that is no value itself, and the row that it stands in. */
function cellAbove(
  rows: readonly Row[],
  row: Row,
  [x, y, width, height]: Box,
): { text: string; above: Row } | undefined {
  for (const above of rows.slice(Math.max(0, row.number - 2), row.number).reverse()) {
    if (above.page !== row.page || y - above.box[1] > HIGHEST * Math.max(height, above.box[3])) return undefined;
    const cell = above.cells
      .map((each) => ({ each, shared: Math.min(x + width, each.box[0] + each.box[2]) - Math.max(x, each.box[0]) }))
      .filter(({ shared }) => shared > 0)
      .sort((a, b) => b.shared - a.shared)[0]?.each;
    if (cell) return /\d{3}/.test(cell.text) ? undefined : { text: foldMisread(cell.text), above };
  }
  return undefined;
}

/** A label above a value has no more words; what has more is a sentence. */
const LONGEST_ABOVE = 5;

/** What may name a value: the words before it in its row, those of the cell above it, and whether a label of its own stands before it. */
export function wordsAround(
  rows: readonly Row[],
  row: Row,
  value: readonly Word[],
): { beside: string; above: string | undefined; isLabel: boolean } {
  const [left] = placeOf(value);
  const before = wordsBefore(row, left);
  const beside = foldMisread(before.map(({ text }) => text).join(' '));
  const cell = row.cells.find(({ words }) => words.includes(value[0]));
  const isLabel = before.at(-1)?.text.endsWith(':') || cell?.words[0] === value[0];
  const over = cellAbove(rows, row, placeOf(value));
  // The label of a value beside it is not that of the one below.
  const isTaken = over?.above.cells.some(({ text }) => /\d{2}/.test(text));
  const above = isTaken || (over && over.text.split(' ').length > LONGEST_ABOVE) ? undefined : over?.text;
  return { beside, above, isLabel };
}

/**
 * What stands before a value in its own cell, as it is and folded; nothing where the value begins it. Where that names the value, what
 * stands in the cells beside is of something else.
 */
export function beforeInCell(row: Row, [first]: readonly Word[]): { words: Word[]; text: string } | undefined {
  const cell = row.cells.find(({ words }) => words.includes(first));
  const words = cell?.words.slice(0, cell.words.indexOf(first)) ?? [];
  return words.length > 0 ? { words, text: fold(words.map(({ text }) => text).join(' ')) } : undefined;
}
