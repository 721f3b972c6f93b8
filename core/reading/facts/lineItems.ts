import { Word } from '../words';
import { ColumnHead, headsIn, isTableHead, Part, partsAt } from './columnHeads';
import { FactLine } from './fact';
import { Item, rowsBetween, shareOut } from './goesOn';
import { BETWEEN, isMeasure, isNaming, PER, UNIT } from './measures';
import { Amount } from './money';
import { cellsBefore, Figure, figuresIn, isUnitBetween, Product, productOf, saidCount } from './products';
import { Cell, fold, Row } from './rows';
import { Build, buildOf, isCode, isPosition, leadingDay } from './tableBuild';

/**
 * The lines of a bill as they are meant: what each is, how much of it, and its price, told by the heads of the columns, by what makes
 * the amount (quantity times price, less a discount), and by what stands the same way in all rows. What goes on above or below its row
 * is told with it.
 * @param rows those of the paper
 * @param amounts what the rows of the table count, in order
 */
export function lineItems(rows: readonly Row[], amounts: readonly Amount[]): FactLine[] {
  if (amounts.length === 0) return [];
  const heads = headsAbove(rows);
  const build = buildOf(amounts);
  const buildAt = ({ number }: Row): Build => ({ ...build, heads: heads[number] });
  const items = amounts.map((amount) => readItem(amount, buildAt(amount.row)));
  const [first] = items;
  shareOut(rowsBetween(rows, undefined, first.row), undefined, first, build);
  items.forEach((item, at) => {
    const next = items[at + 1] as Item | undefined;
    shareOut(rowsBetween(rows, item.row, next?.row), item, next, buildAt(item.row));
  });
  return items.map(({ description, quantity, unitPrice, discount, cents }) => ({
    description: tidy(description),
    quantity,
    unitPrice,
    ...(discount !== undefined && { discount }),
    amount: cents / 100,
  }));
}

/** For each row the heads of the table that it stands in: the last ones above it. */
function headsAbove(rows: readonly Row[]): (readonly ColumnHead[])[] {
  let heads: readonly ColumnHead[] = [];
  return rows.map((row) => {
    const above = heads;
    if (isTableHead(row)) heads = headsIn(row);
    return above;
  });
}

/** What links a quantity with its price, such as “m²” or “à”, may be misread where it has no more letters. */
const MISREAD = 2;

function readItem(amount: Amount, build: Build): Item {
  const { row, cents } = amount;
  const cells = cellsBefore(amount);
  const words = cells.flatMap((cell) => cell.words);
  const behind = row.words.slice(row.words.indexOf(amount.words.at(-1)!) + 1);
  const isText = (some: readonly Word[]) => some.some(({ box }) => partsAt(build.heads, box)[0] === 'text');
  const figures = figuresIn(row, cells, words, build);
  const made = productOf(figures, words, amount, build) ?? saidCount(figures, words, build);
  const linked = made?.price ? words.slice(made.quantity.figure.at + 1, made.price.figure.at) : [];
  const used = new Set(
    [made?.quantity.figure, made?.price?.figure, made?.discount].flatMap((each) => each?.words ?? []),
  );
  const isUnit = isUnitBetween(linked) && isNaming(words.slice(0, made!.quantity.figure.at));
  if (isUnit || linked.every(({ text }) => isMeasure(text) || text.length <= MISREAD))
    linked.forEach((word) => used.add(word));
  // The amount may stand first, or before the column of what things are.
  const isBehind = isNaming(words) ? isText(behind) && !isText(words) : isNaming(behind);
  const named = isBehind ? behind : namedBy(cells, { words, used, linked, build, row, isText });
  const quantity = made?.quantity.value ?? null;
  const unitPrice = made?.price?.value ?? priceBeside(made, figures, used, cents);
  return {
    row,
    cents,
    description: inOne(named),
    quantity,
    unitPrice: cents < 0 && unitPrice !== null && quantity !== null ? -Math.abs(unitPrice) : unitPrice,
    left: named.some(({ text }) => /\p{L}{2}/u.test(text)) ? named[0].box[0] : undefined,
    ...(made?.discount && { discount: made.discount.values[0] }),
    prices: figures.filter(({ words: [word] }) => !used.has(word)).flatMap(({ values }) => values),
  };
}

/** The words before an amount that name something, without its figures and what belongs to those; none where only figures stand there. */
function namedBy(
  cells: readonly Cell[],
  {
    words,
    used,
    linked,
    build,
    row,
    isText,
  }: {
    words: readonly Word[];
    used: ReadonlySet<Word>;
    linked: readonly Word[];
    build: Build;
    row: Row;
    isText: (some: readonly Word[]) => boolean;
  },
): Word[] {
  const told = cells.flatMap((cell, at) => {
    const isCounted = used.size > 0 && !cell.words.some((word) => used.has(word));
    const isNamed = cells.slice(0, at).some((before) => isNaming(before.words));
    return textOf(cell, at, { used, build, isCounted, isNamed, row });
  });
  // The number of a paper in a list of some is its name.
  if (isNaming(told) || (isText(told) && told.some(({ text }) => /\d{2}/.test(text)))) return told;
  // What only columns of days, codes or numbers say is all that there is; “13 nights at 21.50” names what it counts.
  const isLetters = ({ text }: Word) => /\p{L}{3}/u.test(text) && !BETWEEN.test(text);
  const left = words.filter((word) => (linked.includes(word) ? isLetters(word) : !used.has(word)));
  return left.some(({ text }) => /\p{L}{2}/u.test(text)) || leadingDay(words) !== undefined ? left : [];
}

/** The price of one where nothing multiplies to the amount: what stands below its head, or the share of each in what is counted. */
function priceBeside(
  made: Product | undefined,
  figures: readonly Figure[],
  used: ReadonlySet<Word>,
  cents: number,
): number | null {
  const priced = figures.find((figure) => figure.parts[0] === 'price' && !used.has(figure.words[0]));
  if (priced) return priced.values[0];
  if (!made || made.quantity.figure.parts[0] === 'quantity') return null;
  const each = cents / made.quantity.value;
  return Number.isInteger(each) ? each / 100 : null;
}

const inOne = (words: readonly Word[]) => words.map(({ text }) => text).join(' ');

/** Units that are short enough not to be the first word of a name. */
const ABBREVIATED = /^.{1,3}\.?$/;

/** What a cell tells of the goods themselves. */
function textOf(
  { words, box }: Cell,
  at: number,
  {
    used,
    build,
    isCounted,
    isNamed,
    row,
  }: { used: ReadonlySet<Word>; build: Build; isCounted: boolean; isNamed: boolean; row: Row },
): Word[] {
  const kept = words.filter((word, index) => !used.has(word) && !isOfFigure(words, index, used));
  const text = inOne(kept);
  if (text === '') return [];
  const parts = partsAt(build.heads, box);
  if (at < 2 && kept[0] === words[0]) {
    const rest = kept.slice(1);
    // A list of papers names them by their numbers.
    // Of two columns that may name things, the first holds codes.
    const names = build.heads.filter((head) => head.parts[0] === 'text');
    const isName =
      parts[0] === 'text' && !(names.length > 1 && build.isCoded && partsAt(names.slice(0, 1), box).length > 0);
    const isAtCode = build.isCoded && isCode(row) && at === (isPosition(row) ? 1 : 0);
    if (!isName && isCodeShaped(kept[0].text) && (isAtCode || (at === 0 && /^\d{5,}$/.test(kept[0].text)))) {
      if (rest.length > 0) return rest;
      if (words.length < row.words.length) return [];
    }
    const isNumber = at === 0 && /^\d{1,3}[.)]?$|^\d{1,2}(?:\.\d{1,2})+\.?$/.test(kept[0].text);
    const isCount = isCounted && !UNIT.test(fold((kept[1] as Word | undefined)?.text ?? ''));
    const isPointed = /^\d{1,2}[.)]$/.test(kept[0].text) && rest.length > 0;
    // “10 NF-2204” in one cell, and what it is in the next.
    const isCodeBehind = rest.length === 1 && isCodeShaped(rest[0].text) && rest[0].text.length > SHORT_CODE;
    if (isNumber && isCodeBehind && row.cells.slice(1).some((cell) => isNaming(cell.words))) return [];
    if (isNumber && (build.isNumbered || isPointed || parts[0] === 'position' || isCount))
      return rest.filter((word) => !/^[.)]$/.test(word.text));
  }
  // Behind what it names, a figure in a column of its own counts or measures: “Oak, 27 x 95 | 20 |”, “Lift | 180/1000 |”.
  if (isNamed && kept.length === words.length && /^\d[\d.,']*(?:\/\d+)?$/.test(text)) return [];
  if (belongsTo(text, kept, parts, build)) return [];
  const day = leadingDay(kept) ?? 0;
  return isNaming(kept.slice(day)) ? kept.slice(day) : kept;
}

/** Codes of articles have more letters than sizes and the like. */
const SHORT_CODE = 3;

const isCodeShaped = (text: string) => /\d/.test(text) && /^[\p{Lu}\d][\p{Lu}\d./_-]*$/u.test(text);

/** Whether a word belongs to a figure that was taken: its unit, what links it with another, or what it is for each of. */
function isOfFigure(words: readonly Word[], index: number, used: ReadonlySet<Word>): boolean {
  const { text } = words[index];
  const [before, after] = [words[index - 1], words[index + 1]] as (Word | undefined)[];
  const isLast = !words.slice(index + 1).some((word) => !used.has(word) && !isMeasure(word.text));
  if (before && used.has(before)) {
    if (PER.test(text) || /^[x×*@%]$/i.test(text)) return true;
    if (UNIT.test(fold(text))) return isLast || ABBREVIATED.test(text);
  }
  if (after && used.has(after) && BETWEEN.test(text)) return true;
  // “2.5 hours at £48.00 per hour”
  if (before && BETWEEN.test(text) && after && used.has(after)) return true;
  return before !== undefined && PER.test(before.text) && index >= 2 && used.has(words[index - 2]);
}

/** Whether a cell holds what its column says, other than what things are; without a head, whether it looks so. */
function belongsTo(text: string, words: readonly Word[], parts: readonly Part[], { heads }: Build): boolean {
  const isFigure = /^[-–−+(]?[£€$]?\d[\d.,' ]*[€%]?\)?$|^[-–−—./]+$/.test(text);
  const isUnit = !isNaming(words) && words.every((word) => UNIT.test(fold(word.text)));
  const isRate = /^\(?\d{1,2}(?:[.,]\d{1,3})? ?%\)?$/.test(text);
  switch (parts[0]) {
    case 'position':
      return isFigure;
    case 'code':
      return words.length === 1 || /\d/.test(text);
    case 'unit':
      return words.length <= 2 && !/\d/.test(text);
    case 'discount':
    case 'tax':
      return isFigure || isRate || text.length <= 2 || /^(?:yes|no|oui|non|ja|nein|si)$/i.test(text);
    case 'date':
      return /\d/.test(text) || words.length === 1;
    case 'quantity':
    case 'price':
    case 'amount':
      return isFigure || isUnit || isRate;
  }
  // “Item” is the code where another column describes.
  if (parts.includes('code') && heads.some((head) => head.parts[0] === 'text' && head.parts.length === 1))
    return words.length === 1;
  if (
    isRate ||
    isUnit ||
    ONLY_KIND.test(fold(text)) ||
    /^[-–−—*]$/.test(text) ||
    (/^[A-Z]\*?$/.test(text) && heads.length === 0)
  )
    return true;
  // Below a head that nobody knows figures and measures are no names.
  const isUnknown = heads.length > 0 && parts.length === 0;
  if (isUnknown && /\d/.test(text) && (!isNaming(words) || (words.length === 1 && /^\d/.test(text)))) return true;
  if (isFigure && (/[.,]\d{2}\)?$/.test(text) || isUnknown)) return true;
  return leadingDay(words) === words.length;
}

/** What an amount is of, beside it (folded). */
const ONLY_KIND = /^(?:h\.?t\.?|ttc|net(?:to)?|gross|brutto|eur|chf|gbp|usd)$/;

function tidy(text: string): string {
  return text
    .replace(/\s+/g, ' ')
    .replace(/^[\s,;:.*@–-]+|[\s,;:*@–-]+$/g, '')
    .trim();
}
