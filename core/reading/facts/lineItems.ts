import { datesInLine, monthNamed } from '../dates';
import { Word } from '../words';
import { ColumnHead, headAt, headsIn, isTableHead, Part, partsAt } from './columnHeads';
import { FactLine } from './fact';
import { Amount, amountsIn } from './money';
import { Cell, fold, Row } from './rows';

/** What is counted or measured (folded). */
const UNIT =
  /^(?:x|×|kg|g|gr|mg|lb|lbs|oz|t|l|ml|cl|ltr|litres?|liters?|m|m2|m²|m3|m³|qm|cbm|lfm|lm|cm|mm|km|ft|yd|yds|miles?|mi|h|hrs?|hours?|std|stdn?|stunden?|heures?|uren|ore|horas?|min|mins|minutes?|minuten|days?|tage?|jours?|nights?|nachte?|nuits?|weeks?|wochen?|semaines?|months?|monate?|mois|years?|jahre?|ans?|kwh|mwh|units?|ea|each|pcs?|pce|pieces?|piece|pkt|pks?|packs?|boxe?s?|pairs?|sets?|rolls?|cones?|bags?|sheets?|st|stk|stck|stuck|paar|dose|pck|pkg|packung(?:en)?|karton|rolle|ve|psch|pausch|pauschale?|ps|pal|satz|u|un|uds?|unites?|piece?s|pz|stuks?|no|off|ct|ls|sum|item|job|visit|person(?:en|s)?|pers|gast|adults?|block|ries|p|pence|cents?)\.?$/;
/** What stands between a quantity and its price. */
const BETWEEN = /^(?:x|×|\*|@|a|à|at|je|zu|for|zum?|von|of|per|chaque|cad|de)$/i;
/** “per hour”, “/kg”, “each”, “je Stunde” behind a price. */
const PER = /^(?:\/ ?\p{L}+²?|per|je|pro|par|each|ea|a|an|die|le|la|l')\.?$/iu;
/** Less than so many hundredths may a product be off by rounding. */
const ROUNDED = 1.01;
const MOST_DISCOUNT = 90;

/** A number of a row, as it may be meant. */
interface Figure {
  words: readonly Word[];
  /** “1.204” may be either. */
  values: readonly number[];
  parts: readonly Part[];
  isPercent: boolean;
  /** With two decimals. */
  exact: boolean;
  /** Where it stands among the words of the row. */
  at: number;
}

/** How much of something, at which price, and with which discount. */
interface Product {
  quantity: { figure: Figure; value: number };
  price?: { figure: Figure; value: number };
  discount?: Figure;
}

/** How the rows of a table are built, as far as that shows only in all of them. */
interface Build {
  heads: readonly ColumnHead[];
  /** Rows are numbered, from one on. */
  isNumbered: boolean;
  /** Rows begin with how much of something there is. */
  isCounted: boolean;
  /** Rows begin with the number or code of an article. */
  isCoded: boolean;
}

/** What one row says of its goods. */
interface Item {
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

/**
 * The lines of a bill as they are meant: what each is, how much of it, and its price, told by the heads of the columns, by what makes
 * the amount (quantity times price, less a discount), and by what stands the same way in all rows. What goes on above or below its row
 * is told with it.
 * @param rows those of the paper
 * @param amounts what the rows of the table count, in order
 */
export function lineItems(rows: readonly Row[], amounts: readonly Amount[]): FactLine[] {
  if (amounts.length === 0) return [];
  const build = buildOf(amounts);
  const items = amounts.map((amount) => readItem(amount, { ...build, heads: headsAbove(rows, amount.row) }));
  const [first] = items;
  shareOut(rowsBetween(rows, undefined, first.row), undefined, first, build);
  items.forEach((item, at) => {
    const next = items[at + 1] as Item | undefined;
    shareOut(rowsBetween(rows, item.row, next?.row), item, next, { ...build, heads: headsAbove(rows, item.row) });
  });
  return items.map(({ description, quantity, unitPrice, discount, cents }) => ({
    description: tidy(description),
    quantity,
    unitPrice,
    ...(discount !== undefined && { discount }),
    amount: cents / 100,
  }));
}

/** The heads of the table that a row stands in: the last ones above it. */
function headsAbove(rows: readonly Row[], { number }: Row): ColumnHead[] {
  const head = rows.slice(0, number).findLast(isTableHead);
  return head ? headsIn(head) : [];
}

/** Whether words name something: a word of letters that is not only what is counted in. */
export function isNaming(words: readonly Word[]): boolean {
  const isWord = ({ text }: Word) => /\p{L}{2}/u.test(text);
  return words.some((word, at) => {
    if (!isWord(word)) return false;
    // “Night units 88 kWh”: what is counted in stands behind a figure.
    const [before, after] = [words[at - 1], words[at + 1]] as (Word | undefined)[];
    return (
      !isMeasure(word.text) || (before === undefined && after !== undefined && isWord(after) && !/\d/.test(after.text))
    );
  });
}

const isMeasure = (text: string) =>
  UNIT.test(fold(text)) || BETWEEN.test(text) || PER.test(text) || /^[\d.,]+\p{L}{1,4}²?$/u.test(text) || isPrice(text);
const isPrice = (text: string) => /^[@x×]?\W{0,2}\d[\d.,]*(?:\/\p{L}{1,4}²?)?$/u.test(text);

/** “0.842 kg @ £0.95/kg”: how much of what another row names, and at which price. */
const COUNTED_AT =
  /^\(?(\d[\d.,]*) ?(?:(\p{L}{1,8}[²³]?)\.? ?)?(?:x|×|\*|@|a|at|je|zu|for)(?: |(?=[\d£€$]))(?:[£€$]|[a-z]{3} )?(\d[\d.,]*)(p|ct)?(?: ?[£€$]| eur| chf| gbp)?(?: ?\/ ?\p{L}{1,6}²?| (?:per|je|pro) \p{L}{1,8}| each| ea\.?)?\)?$/u;

/** What a row says that only counts what another names, as quantity and price; undefined where it says anything else. */
export function countedAt({ folded }: Pick<Row, 'folded'>): { quantity: number; unitPrice: number }[] | undefined {
  const said = COUNTED_AT.exec(folded.slice(0, LONGEST_PHRASE + 1));
  if (!said || (said[2] && !UNIT.test(said[2]))) return undefined;
  const prices = valuesOf(said[3]).map((price) => (said[4] ? hundredth(price) : price));
  return valuesOf(said[1]).flatMap((quantity) => prices.map((unitPrice) => ({ quantity, unitPrice })));
}

const LONGEST_PHRASE = 60;

/** “à 8,90”, “@ £1.20 each” in a row of its own (folded). */
const ONLY_PRICE = /^(?:a|at|@|je|zu|per|x|×) ?[£€$]? ?(\d[\d.,]*)(?: ?[£€$]| eur| each| ea\.?)?$/u;

/** The price that a row says of what stands above it; undefined where it says anything else. */
export function onlyPrice({ folded }: Pick<Row, 'folded'>): number | undefined {
  const said = ONLY_PRICE.exec(folded.slice(0, LONGEST_PHRASE + 1));
  return said ? valuesOf(said[1])[0] : undefined;
}

/** Whether a quantity and a price make an amount, in hundredths. */
export const makes = (quantity: number, unitPrice: number, cents: number, discount = 0) =>
  Math.abs(quantity * unitPrice * (100 - discount) - Math.abs(cents)) < ROUNDED;

function buildOf(amounts: readonly Amount[]): Build {
  const items = amounts.map(({ row }) => row);
  const firsts = items.map(({ words }) => words[0].text);
  const counts = items.map(({ words }) =>
    /^\d{1,3}[.)]?$/.test(words[0].text) && !leadingDay(words) ? parseInt(words[0].text, 10) : NaN,
  );
  // The last may be a surcharge without a number.
  const numbers = counts.filter((count) => !Number.isNaN(count));
  const isNumbered =
    (numbers.length > 1 && numbers.every((count, at) => count === at + 1) && numbers.length * 3 >= items.length * 2) ||
    firsts.every((text) => /^\d{1,3}[.)]$|^\d{1,2}(?:\.\d{1,2})+\.?$/.test(text));
  const most = (test: (row: Row, at: number) => boolean) =>
    items.length > 1 && items.filter(test).length * 3 >= items.length * 2;
  return {
    heads: [],
    isNumbered,
    isCounted:
      !isNumbered &&
      most((_, at) => !firsts[at].endsWith('.') && counts[at] > 0) &&
      // Numbers of lots or rooms don't share what stands beside them.
      amounts.every(({ cents }, at) => Number.isNaN(counts[at]) || cents % counts[at] === 0),
    isCoded: items.filter(isCode).length > 1,
  };
}

/** The day that words begin with, also without its year: “14 Sep”, “04/10”, “02.11.”; how many words it has. */
function leadingDay(words: readonly Word[]): number | undefined {
  const [whole] = datesInLine(words.slice(0, MOST_OF_DAY));
  if (whole && whole.words[0] === words[0]) return whole.words.length;
  const [first, second] = words.map(({ text }) => text);
  if (/^(?:0?[1-9]|[12]\d|3[01])(?:[.,/-](?:0[1-9]|1[0-2])\.?|\.(?:[1-9]|0[1-9]|1[0-2])\.)$/.test(first)) return 1;
  if (second === undefined) return undefined;
  const isNamed = (day: string, month: string) =>
    /^\d{1,2}(?:\.|st|nd|rd|th)?$/.test(day) && monthNamed(fold(month.replace(/\.$/, ''))) !== undefined;
  return isNamed(first, second) || isNamed(second, first) ? 2 : undefined;
}

const MOST_OF_DAY = 4;

/** Whether a row begins, behind its position, with what may be the number or code of an article: in a cell of its own, or long. */
function isCode({ cells, words: all }: Row): boolean {
  const { words } = cells[isPosition({ cells }) ? 1 : 0];
  const [{ text }] = words;
  if (!/\d/.test(text) || !/^[\p{Lu}\d][\p{Lu}\d./_-]{2,}$/u.test(text) || datesInLine(words.slice(0, 1)).length > 0)
    return false;
  if (/^\d+[.,]\d{2}$|^\d{1,3}$/.test(text) || !isNaming(all.slice(all.indexOf(words[0]) + 1))) return false;
  return words.length === 1 || text.length >= LONG_CODE;
}

const LONG_CODE = 5;
const isPosition = ({ cells }: Pick<Row, 'cells'>) => cells.length > 2 && /^\d{1,3}[.)]?$/.test(cells[0].text);

const MISREAD = 2;

/** The cells to the left of an amount. */
function cellsBefore({ row, words }: Amount): Cell[] {
  const edge = words[0].box[0];
  return row.cells
    .map((cell) => ({ ...cell, words: cell.words.filter((word) => !words.includes(word) && word.box[0] < edge) }))
    .filter((cell) => cell.words.length > 0);
}

/** Whether an amount is made by numbers that stand before it in its row. */
export function isProduct(amount: Amount): boolean {
  const build = { heads: [], isNumbered: false, isCounted: false, isCoded: false };
  const cells = cellsBefore(amount);
  const words = cells.flatMap((cell) => cell.words);
  return productOf(figuresIn(amount.row, cells, words, build), words, amount, build) !== undefined;
}

function readItem(amount: Amount, build: Build): Item {
  const { row, cents } = amount;
  const cells = cellsBefore(amount);
  const words = cells.flatMap((cell) => cell.words);
  const behind = row.words.slice(row.words.indexOf(amount.words.at(-1)!) + 1);
  const isText = (some: readonly Word[]) => some.some(({ box }) => partsAt(build.heads, box)[0] === 'text');
  const isDescribed = isText(behind) && !isText(words);
  if (!isNaming(words)) {
    // The amount may stand first.
    if (isNaming(behind))
      return {
        row,
        cents,
        description: inOne(behind),
        quantity: null,
        unitPrice: null,
        left: behind[0].box[0],
        prices: [],
      };
  }
  const figures = figuresIn(row, cells, words, build);
  const made = productOf(figures, words, amount, build) ?? saidCount(figures, words, build);
  const used = new Set([made?.quantity, made?.price].flatMap((each) => (each ? each.figure.words : [])));
  made?.discount?.words.forEach((word) => used.add(word));
  const linked = made?.price ? words.slice(made.quantity.figure.at + 1, made.price.figure.at) : [];
  // A sign such as “m²” or “à” may be misread.
  if (linked.every(({ text }) => isMeasure(text) || text.length <= MISREAD)) linked.forEach((word) => used.add(word));
  const told = cells
    .map((cell, at) =>
      textOf(cell, at, {
        used,
        build,
        isCounted: made !== undefined && !cell.words.some((word) => used.has(word)),
        row,
      }),
    )
    .filter((left) => left.length > 0);
  // What only columns of days, codes or numbers say is all that there is.
  const isLetters = ({ text }: Word) => /\p{L}{3}/u.test(text) && !BETWEEN.test(text);
  const kept = told.some(isNaming)
    ? told.flat()
    : words.filter((word) => (linked.includes(word) ? isLetters(word) : !used.has(word)));
  const quantity = made?.quantity.value ?? null;
  const priced = figures.find((figure) => figure.parts[0] === 'price' && !used.has(figure.words[0]));
  const isNamed = isDescribed || kept.some(({ text }) => /\p{L}{2}/u.test(text));
  const isHeaded = made?.quantity.figure.parts[0] === 'quantity';
  const each = quantity !== null && !isHeaded ? cents / quantity : NaN;
  const unitPrice = made?.price?.value ?? priced?.values[0] ?? (Number.isInteger(each) ? each / 100 : null);
  return {
    row,
    cents,
    description: isDescribed ? inOne(behind) : isNamed || leadingDay(words) !== undefined ? inOne(kept) : '',
    quantity,
    unitPrice: cents < 0 && unitPrice !== null && quantity !== null ? -Math.abs(unitPrice) : unitPrice,
    left: isDescribed ? behind[0].box[0] : isNamed ? kept[0].box[0] : undefined,
    ...(made?.discount && { discount: made.discount.values[0] }),
    prices: figures.filter(({ words: [word] }) => !used.has(word)).flatMap(({ values }) => values),
  };
}

const inOne = (words: readonly Word[]) => words.map(({ text }) => text).join(' ');

/** “£0.95/kg”, “26.40p”, “84m²”, “(12”, “12x” (without the sign of its money). */
const NUMBER =
  /^[(@x×*]?[-–−]?(?:[£€$¥]|chf|eur|gbp)?(\d[\d.,']*|\.\d+)(p|ct|c|%)?(?:[£€$])?(?:\/?\p{L}{1,5}[²³.]?)?[)x×,;:*]*$/iu;

function figuresIn(row: Row, cells: readonly Cell[], words: readonly Word[], { heads }: Build): Figure[] {
  const grouped = amountsIn(row);
  return cells.flatMap((cell) => {
    const figures: Figure[] = [];
    for (let at = 0; at < cell.words.length; at++) {
      const word = cell.words[at];
      const place = { parts: partsAt(heads, word.box), at: words.indexOf(word) };
      const group = grouped.find((each) => each.words[0] === word && each.words.every((part) => words.includes(part)));
      const read = NUMBER.exec(word.text);
      if (group && group.words.length > 1) {
        figures.push({
          words: group.words,
          values: [Math.abs(group.cents) / 100],
          isPercent: false,
          exact: true,
          ...place,
        });
        at += group.words.length - 1;
      } else if (read) {
        const next = cell.words[at + 1]?.text ?? '';
        const isPercent = read[2] === '%' || next === '%';
        const isPence = /^(?:p|ct|c)$/i.test(read[2] ?? '') || /^(?:p|pence|cts?|cents?|rp)\.?$/i.test(next);
        const per = headAt(heads, word.box)?.per ?? 1;
        const values = valuesOf(read[1])
          .map((value) => (isPence ? hundredth(value) : value))
          .map((value) => (per === 1 ? value : Number((value / per).toPrecision(12))));
        figures.push({ words: [word], values, isPercent, exact: /[.,]\d{2}$/.test(read[1]), ...place });
      }
    }
    return figures;
  });
}

const hundredth = (value: number) => Number((value / 100).toPrecision(12));

/** What a number may be: one separator with three figures behind it parts thousands or decimals. */
function valuesOf(written: string): number[] {
  const text = written.replace(/'/g, '').replace(/[.,]+$/, '');
  const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','));
  if (last < 0) return [Number(text)];
  const whole = Number(text.replace(/[.,]/g, ''));
  const decimals = text.length - last - 1;
  const others = text.slice(0, last).replace(/[.,]/g, '');
  const decimal = Number(`${others}.${text.slice(last + 1)}`);
  const isMixed = /[.,]/.test(text.slice(0, last));
  if (decimals !== 3) return [decimal];
  return isMixed && text[last] === /[.,]/.exec(text)![0] ? [whole] : isMixed ? [decimal] : [decimal, whole];
}

/** What makes the amount, the likeliest of all that do. */
function productOf(
  figures: readonly Figure[],
  words: readonly Word[],
  { cents }: Amount,
  build: Build,
): Product | undefined {
  let best: { score: number; product: Product } | undefined;
  const discounts = [undefined, ...figures.filter(({ values: [value] }) => value > 0 && value < MOST_DISCOUNT)];
  for (const quantity of figures.slice(0, MOST_FIGURES))
    for (const price of figures.slice(0, MOST_FIGURES))
      for (const discount of discounts.slice(0, MOST_FIGURES)) {
        if (quantity === price || discount === quantity || discount === price) continue;
        if (quantity.isPercent || price.isPercent) continue;
        for (const count of quantity.values)
          for (const each of price.values) {
            if (count <= 0 || !makes(count, each, cents, discount?.values[0])) continue;
            const score = scoreOf({ quantity, price, discount }, count, words, build);
            const product = {
              quantity: { figure: quantity, value: count },
              price: { figure: price, value: each },
              ...(discount && { discount }),
            };
            if (score >= LEAST_SCORE && (!best || score > best.score)) best = { score, product };
          }
      }
  return best?.product;
}

const [MOST_FIGURES, LEAST_SCORE] = [8, 1];

function scoreOf(
  { quantity, price, discount }: { quantity: Figure; price: Figure; discount: Figure | undefined },
  count: number,
  words: readonly Word[],
  { heads, isNumbered, isCoded }: Build,
): number {
  const fits = (figure: Figure, part: Part) =>
    figure.parts.includes(part) ? 3 : figure.parts.length > 0 && !figure.parts.includes('text') ? -2 : 0;
  const between = words.slice(quantity.at + 1, price.at);
  const isLinked = between.length > 0 && between.every(({ text }) => isMeasure(text));
  const isFirst = quantity.at === 0 && (isNumbered || (isCoded && words[0].text.length >= LONG_CODE));
  const isCrossed = /^[x×]$/i.test(words[quantity.at + 1]?.text ?? '') || /\d[x×]$/i.test(words[quantity.at].text);
  const isDiscount = discount && (discount.isPercent || discount.parts.includes('discount'));
  return (
    (heads.length > 0 ? fits(quantity, 'quantity') + fits(price, 'price') : 0) +
    (isLinked ? 2 : 0) +
    (isCrossed ? 2 : 0) +
    (quantity.at < price.at ? 1 : 0) +
    (price.exact ? 1 : 0) +
    (Number.isInteger(count) ? 0.5 : 0) -
    (discount ? (isDiscount ? 0.5 : 2) : 0) -
    (isFirst ? 4 : 0) -
    // “2L”, “800G” are sizes.
    (/\d[a-wyz]/i.test(words[quantity.at].text) ? 1 : 0)
  );
}

/** How much there is where no price beside it says so: below its head, before or behind a cross, or first in all rows. */
function saidCount(
  figures: readonly Figure[],
  words: readonly Word[],
  { isCounted, heads }: Build,
): Product | undefined {
  const headed = figures.find(({ parts, isPercent }) => parts[0] === 'quantity' && !isPercent);
  const first = figures.find(({ at, values }) => at === 0 && Number.isInteger(values[0]) && isNaming(words.slice(1)));
  const isCross = (word: Word | undefined) => word !== undefined && /^[x×]$/i.test(word.text);
  const crossed =
    first && (isCross(words[1]) || /^\d{1,3}[x×]$/i.test(words[0].text))
      ? first
      : figures.find(
          ({ at }) => at === words.length - 1 && (isCross(words[at - 1]) || /^[x×]\d{1,3}$/i.test(words[at].text)),
        );
  // “1.75 h” in a cell of its own
  const last = figures.at(-1);
  const isMeasured =
    last && heads.length === 0 && last.at > 0 && words.slice(last.at + 1).length === 1 && isOwnCell(words, last.at);
  const measured = isMeasured && TIME.test(fold(words.at(-1)!.text)) ? last : undefined;
  const figure = headed ?? crossed ?? measured ?? (isCounted && first && first.values[0] > 0 ? first : undefined);
  return figure && { quantity: { figure, value: figure.values[0] } };
}

/** What work is measured in (folded). */
const TIME = /^(?:h|hrs?|hours?|std|stdn?|stunden?|heures?|ore|uur|uren|horas?|days?|tage?|jours?)\.?$/;

/** Whether a gap stands before a word. */
const isOwnCell = (words: readonly Word[], at: number) => {
  const [[x, , width, height], [next]] = [words[at - 1].box, words[at].box];
  return next - x - width > height;
};

/** Units that are short enough not to be the first word of a name. */
const ABBREVIATED = /^.{1,3}\.?$/;

/** What a cell tells of the goods themselves. */
function textOf(
  { words, box }: Cell,
  at: number,
  { used, build, isCounted, row }: { used: ReadonlySet<Word>; build: Build; isCounted: boolean; row: Row },
): Word[] {
  const kept = words.filter((word, index) => !used.has(word) && !isOfFigure(words, index, used));
  const text = inOne(kept);
  if (text === '') return [];
  const parts = partsAt(build.heads, box);
  if (at < 2 && kept[0] === words[0]) {
    const rest = kept.slice(1);
    const isAtCode = build.isCoded && isCode(row) && at === (isPosition(row) ? 1 : 0);
    if (isCodeShaped(kept[0].text) && (isAtCode || (at === 0 && /^\d{5,}$/.test(kept[0].text)))) {
      if (rest.length > 0) return rest;
      if (words.length < row.words.length) return [];
    }
    const isNumber = at === 0 && /^\d{1,3}[.)]?$|^\d{1,2}(?:\.\d{1,2})+\.?$/.test(kept[0].text);
    const isCount = isCounted && !UNIT.test(fold((kept[1] as Word | undefined)?.text ?? ''));
    if (isNumber && (build.isNumbered || parts[0] === 'position' || isCount))
      return rest.filter((word) => !/^[.)]$/.test(word.text));
  }
  if (belongsTo(text, kept, parts, build)) return [];
  const day = leadingDay(kept) ?? 0;
  return isNaming(kept.slice(day)) ? kept.slice(day) : kept;
}

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
      return /\d/.test(text);
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
  if (isUnknown && /\d/.test(text) && !isNaming(words)) return true;
  if (isFigure && (/[.,]\d{2}\)?$/.test(text) || isUnknown)) return true;
  return leadingDay(words) === words.length;
}

/** What an amount is of, beside it (folded). */
const ONLY_KIND = /^(?:h\.?t\.?|ttc|net(?:to)?|gross|brutto|eur|chf|gbp|usd)$/;

/** The rows between two of a table, not farther than what belongs to them may be. */
function rowsBetween(rows: readonly Row[], from: Row | undefined, to: Row | undefined): Row[] {
  const begin = from ? from.number + 1 : Math.max(1, to!.number - MOST_APART);
  const end = to ? to.number : Math.min(rows.length, begin + MOST_APART);
  return rows.slice(begin, end);
}

const MOST_APART = 4;
/** Rows stand under each other when they begin no more than so many heights apart. */
const NEXT = 2.4;
/** What begins so many heights further right is indented. */
const INDENTED = 0.8;
const MOST_IN_HEADING = 3;
const MOST_NAMING = 3;

/** Gives what stands between two rows of a table to the one that it tells more of, or to none. */
function shareOut(between: readonly Row[], over: Item | undefined, under: Item | undefined, build: Build): void {
  let last = over?.row;
  const isNext = (one: Row | undefined, other: Row) =>
    one !== undefined &&
    one.page === other.page &&
    Math.abs(other.box[1] - one.box[1]) < NEXT * Math.max(one.box[3], 1);
  const forUnder: string[] = [];
  for (const [at, row] of between.entries()) {
    const counted = countedAt(row);
    const whose =
      counted &&
      [over, under].find(
        (item) => item?.quantity === null && counted.some((each) => makes(each.quantity, each.unitPrice, item.cents)),
      );
    if (whose) {
      Object.assign(
        whose,
        counted.find((each) => makes(each.quantity, each.unitPrice, whose.cents)),
      );
      last = last && row;
      continue;
    }
    const price = onlyPrice(row);
    const count = over && price ? over.cents / 100 / price : NaN;
    if (over && price && Math.abs(count - Math.round(count)) * price < 0.01) {
      Object.assign(over, { quantity: Math.round(count), unitPrice: price });
      continue;
    }
    const measured = under && under.quantity === null ? measuredFor(row, under) : undefined;
    if (under && measured) {
      Object.assign(under, measured);
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
      forUnder.push(row.text);
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
  const isHeading = row.text.endsWith(':') && row.words.length <= MOST_IN_HEADING;
  return (
    !isHeading &&
    (/(?:[,&]|\p{L}-|(?<!\p{L})(?:and|und|et|the|of|der|des|dem|la|le|du))$/u.test(row.text) ||
      /^(?:and|und|et|or|oder|ou)\s/.test(under.description) ||
      (over !== undefined && /^[(\p{Ll}]/u.test(under.description)))
  );
}

function tidy(text: string): string {
  return text
    .replace(/\s+/g, ' ')
    .replace(/^[\s,;:.*@–-]+|[\s,;:*@–-]+$/g, '')
    .trim();
}
