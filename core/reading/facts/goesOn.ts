import { isTableHead } from './columnHeads';
import { countedAt, isNaming, makes, NUMBER, onlyPrice, UNIT, valuesOf } from './measures';
import { amountsIn } from './money';
import { fold, Row } from './rows';
import { Build } from './tableBuild';

/** What one row says of its goods. */
export interface Item {
  row: Row;
  cents: number;
  description: string;
  quantity: number | null;
  unitPrice: number | null;
  /** In percent. */
  discount?: number;
  /** Where the description begins, in pixels; undefined where the row has none. */
  left: number | undefined;
  /** What may be its price. */
  prices: readonly number[];
}

/** The rows between two of a table, not farther than what belongs to them may be. */
export function rowsBetween(rows: readonly Row[], from: Row | undefined, to: Row | undefined): Row[] {
  const begin = from ? from.number + 1 : Math.max(1, to!.number - MOST_APART);
  const end = to ? to.number : Math.min(rows.length, begin + MOST_APART);
  return rows.slice(begin, end);
}

const MOST_APART = 4;
/** Rows stand under each other when they begin no more than so many heights apart. */
const NEXT = 2.4;
/** What begins so many heights further right is indented. */
const INDENTED = 0.8;
/** The number of a row in a table, before what it is of. */
const POSITION = /^\d{1,2}[.)] (?=\p{L})/u;
const MOST_IN_HEADING = 3;
const MOST_NAMING = 3;

/** Gives what stands between two rows of a table to the one that it tells more of, or to none. */
export function shareOut(between: readonly Row[], over: Item | undefined, under: Item | undefined, build: Build): void {
  let last = over?.row;
  const isNext = (one: Row | undefined, other: Row) =>
    one !== undefined &&
    one.page === other.page &&
    Math.abs(other.box[1] - one.box[1]) < NEXT * Math.max(one.box[3], 1);
  const forUnder: string[] = [];
  for (const [at, row] of between.entries()) {
    if (counts(row, over, under)) {
      last = last && row;
      continue;
    }
    const isAbove =
      under !== undefined && between.slice(at).every((each, index, all) => isNext(each, all[index + 1] ?? under.row));
    if (amountsIn(row).length > 0 || isTableHead(row) || row.cells.length > 2 || !isNaming(row.words)) {
      last = undefined;
      forUnder.length = 0;
      continue;
    }
    if (over && last && isNext(last, row) && goesOn(row, over, under, build)) {
      over.description += ` ${row.text}`;
      last = row;
    } else if (under && isAbove && beginsWith(row, under, over)) {
      forUnder.push(row.text.replace(POSITION, ''));
      last = undefined;
    } else {
      last = undefined;
      forUnder.length = 0;
    }
  }
  // Above the first stands the letterhead as well.
  if (!over && forUnder.length > MOST_NAMING) forUnder.splice(0, forUnder.length - 1);
  if (under && forUnder.length > 0) under.description = `${forUnder.join(' ')} ${under.description}`;
}

/**
 * Takes a row that only says how much there is of something, or at which price, for the line whose amount it makes: the one above it, or
 * the one below. Whether it was one.
 */
function counts(row: Row, over: Item | undefined, under: Item | undefined): boolean {
  const take = (item: Item | undefined, said: { quantity: number; unitPrice: number } | undefined) => {
    if (!item || !said) return false;
    const { quantity, unitPrice } = said;
    // What is taken back has a price below nothing.
    Object.assign(item, { quantity, unitPrice: item.cents < 0 ? -unitPrice : unitPrice });
    return true;
  };
  const made = (item: Item | undefined) =>
    item?.quantity === null
      ? countedAt(row)?.find(({ quantity, unitPrice }) => makes(quantity, unitPrice, item.cents))
      : undefined;
  if (take(over, made(over)) || take(under, made(under))) return true;
  const price = onlyPrice(row);
  const count = over && price ? Math.round(Math.abs(over.cents) / 100 / price) : 0;
  if (over && price && count > 0 && makes(count, price, over.cents))
    return take(over, { quantity: count, unitPrice: price });
  return under?.quantity === null && take(under, measuredFor(row, under));
}

/** “38.42 LITRES”: how much there is of what the next row has the price of. */
function measuredFor({ words }: Row, { cents, prices }: Item): { quantity: number; unitPrice: number } | undefined {
  const read = NUMBER.exec(words[0].text);
  if (!read || !words.slice(1).every(({ text }) => UNIT.test(fold(text)))) return undefined;
  return valuesOf(read[1])
    .flatMap((quantity) => prices.map((unitPrice) => ({ quantity, unitPrice })))
    .find(({ quantity, unitPrice }) => makes(quantity, unitPrice, cents));
}

/** Whether a row goes on telling of what stands above it. */
function goesOn(row: Row, over: Item, under: Item | undefined, { heads, isCoded }: Build): boolean {
  const [x, , , height] = row.box;
  if (/^[(\p{Ll}]/u.test(row.text)) return true;
  if (over.left === undefined || beginsWith(row, under, over)) return false;
  if (x > over.left + INDENTED * height) return row.cells.length === 1;
  const isInColumn = Math.abs(x - over.left) < INDENTED * height;
  // Its own column begins further right than the rows do.
  if (isInColumn && (isCoded || heads.length > 0) && over.left > over.row.box[0] + INDENTED * height) return true;
  const isHeading = row.words.length <= MOST_IN_HEADING || row.text.endsWith(':');
  return under !== undefined && isInColumn && !isHeading && row.cells.length === 1;
}

/** Whether a row begins what goes on in the one below it. */
function beginsWith(row: Row, under: Item | undefined, over: Item | undefined): boolean {
  if (!under) return false;
  if (under.left === undefined) return true;
  // “1. Dyeing” begins what its own row has no number for.
  if (POSITION.test(row.text) && !POSITION.test(under.row.text)) return true;
  const isHeading = row.text.endsWith(':') && row.words.length <= MOST_IN_HEADING;
  return (
    !isHeading &&
    (/(?:[,&]|\p{L}-|(?<!\p{L})(?:and|und|et|the|of|der|des|dem|la|le|du))$/u.test(row.text) ||
      /^(?:and|und|et|or|oder|ou)\s/.test(under.description) ||
      (over !== undefined && /^[(\p{Ll}]/u.test(under.description)))
  );
}
