import { Word } from '../words';
import { headAt, Part, partsAt } from './columnHeads';
import { hundredth, isMeasure, isNaming, makes, NUMBER, valuesOf } from './measures';
import { Amount, amountsIn } from './money';
import { Cell, fold, Row } from './rows';
import { Build, LONG_CODE } from './tableBuild';

const MOST_DISCOUNT = 90;

/** A number of a row, as it may be meant. */
export interface Figure {
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
export interface Product {
  quantity: { figure: Figure; value: number };
  price?: { figure: Figure; value: number };
  discount?: Figure;
}

/** The cells to the left of an amount. */
export function cellsBefore({ row, words }: Amount): Cell[] {
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

/** The numbers of a row. @param cells those before its amount @param words theirs */
export function figuresIn(row: Row, cells: readonly Cell[], words: readonly Word[], { heads }: Build): Figure[] {
  const grouped = amountsIn(row);
  return cells.flatMap((cell) => {
    const figures: Figure[] = [];
    for (let at = 0; at < cell.words.length; at++) {
      const word = cell.words[at];
      const place = { parts: partsAt(heads, word.box), at: words.indexOf(word) };
      const group = grouped.find((each) => each.words[0] === word && each.words.every((part) => words.includes(part)));
      const read = NUMBER.exec(word.text);
      const inGroups = groupedBySpaces(cell.words, at);
      if (group && group.words.length > 1) {
        figures.push({
          words: group.words,
          values: [Math.abs(group.cents) / 100],
          isPercent: false,
          exact: true,
          ...place,
        });
        at += group.words.length - 1;
      } else if (inGroups) {
        figures.push({
          words: inGroups,
          values: [Number(written(inGroups))],
          isPercent: false,
          exact: false,
          ...place,
        });
        at += inGroups.length - 1;
      } else if (read) {
        const next = cell.words[at + 1]?.text ?? '';
        const isPercent = read[2] === '%' || next === '%';
        const isPence =
          /^(?:p|ct|c)$/i.test(read[2] ?? '') || /^(?:(?:p|pence|cts?|cents?|rp)\.?(?:\/\p{L}+)?|ppl)$/iu.test(next);
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

const written = (words: readonly Word[]) => words.map(({ text }) => text).join('');

/** A whole number in groups of three, “2 500”, by itself in its cell or with its unit behind it. */
function groupedBySpaces(words: readonly Word[], at: number): Word[] | undefined {
  if (at > 0 || !/^[1-9]\d{0,2}$/.test(words[0].text)) return undefined;
  const end = words.findIndex(({ text }, index) => index > 0 && !/^\d{3}$/.test(text));
  const group = words.slice(0, end < 0 ? words.length : end);
  const rest = words.slice(group.length);
  return group.length > 1 && rest.every(({ text }) => isMeasure(text)) ? group : undefined;
}

/** What makes the amount, the likeliest of all that do. */
export function productOf(
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
  const isLinked = isUnitBetween(between) || (between.length > 0 && between.every(({ text }) => isMeasure(text)));
  const isFirst = quantity.at === 0 && (isNumbered || (isCoded && words[0].text.length >= LONG_CODE));
  const isCrossed = /^[x×]$/i.test(words[quantity.at + 1]?.text ?? '') || /\d[x×]$/i.test(words[quantity.at].text);
  // “2 tablecloths @ 9.25”: what stands first is how many.
  const isAt = /^(?:@|à|je|×|x)$/i.test(words[price.at - 1]?.text ?? '') || /^[@x×]/i.test(words[price.at].text);
  const isDiscount = discount && (discount.isPercent || discount.parts.includes('discount'));
  return (
    (heads.length > 0 ? fits(quantity, 'quantity') + fits(price, 'price') : 0) +
    (isLinked ? 2 : 0) +
    (isCrossed ? 2 : 0) +
    (isAt && quantity.at === 0 ? 4 : 0) +
    (quantity.at < price.at ? 1 : 0) +
    (price.exact ? 1 : 0) +
    (Number.isInteger(count) ? 0.5 : 0) -
    (discount ? (isDiscount ? 0.5 : 2) : 0) -
    (isFirst ? 4 : 0) -
    // “2L”, “800G” are sizes.
    (/\d[a-wyz]/i.test(words[quantity.at].text) ? 1 : 0)
  );
}

/** Whether words between two numbers are what is counted, whatever it is, and a cross: “3,412 words × 0.14”. */
export const isUnitBetween = (between: readonly Word[]) =>
  between.length === 2 && /^\p{L}+[.²³]?$/u.test(between[0].text) && /^[x×*@à]$/i.test(between[1].text);

/** How much there is where no price beside it says so: below its head, before or behind a cross, or first in all rows. */
export function saidCount(
  figures: readonly Figure[],
  words: readonly Word[],
  { isCounted, heads }: Build,
): Product | undefined {
  const headed = figures.find(({ parts, isPercent }) => parts[0] === 'quantity' && !isPercent);
  const first = figures.find(({ at, values }) => at === 0 && Number.isInteger(values[0]) && isNaming(words.slice(1)));
  // “YOGHURT X4” is a pack of four.
  const isCross = (word: Word | undefined) => word !== undefined && /^[x×]$/i.test(word.text);
  const crossed =
    first && (isCross(words[1]) || /^\d{1,3}[x×]$/i.test(words[0].text))
      ? first
      : figures.find(
          ({ at }) => at === words.length - 1 && (isCross(words[at - 1]) || /^[x×]\d{1,3}$/.test(words[at].text)),
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
