import { Kind } from './kindList';
import { TAX } from './labels';
import { Amount } from './money';
import { Named } from './namedSums';
import { fold, Row } from './rows';

/** Words for what is in a sum (folded). */
export const INCLUDED = /^(?:incl(?:uding|udes)?|inkl(?:usive)?|einschl(?:iesslich)?|davon|darin|dont)\.?$/;

/** “Total (incl. 13.80 VAT) 86.40”, “Total including VAT 13.80 86.40”: a tax within a sum. */
export function taxWithin({ words }: Row, amounts: readonly Amount[]): Named | undefined {
  if (amounts.length < 2) return undefined;
  const opens = words.findIndex(({ text }) => text.startsWith('('));
  const begins = words.findIndex(({ text }) => INCLUDED.test(fold(text)));
  const from = opens >= 0 ? opens : begins > 0 ? begins : -1;
  const last = words.indexOf(amounts.at(-1)!.words[0]) - 1;
  const to = opens >= 0 ? words.findIndex(({ text }, at) => at >= from && text.includes(')')) : last;
  if (from < 0 || to <= from) return undefined;
  const inside = words.slice(from, to + 1);
  const [amount, ...others] = amounts.filter((each) => inside.includes(each.words[0]));
  const said = TAX.exec(
    fold(
      inside
        .map(({ text }) => text)
        .join(' ')
        .replace(/[()]/g, ' '),
    ),
  )?.[0];
  if (!amount || others.length > 0 || !said) return undefined;
  return { amount, label: said, score: 1, rate: rateIn({ words: inside }) };
}

/** “VAT included in total: £2.00”, “Your total includes £2.00 VAT” (folded). */
const TAX_INCLUDED =
  /(?<!\p{L})(?:vat|tax|mwst|ust|tva)(?!\p{L})\.?(?:(?! not\b| nicht\b| non\b).){0,12} (?:included|contained|enthalten|comprise|incluse)(?!\p{L})|(?<!\p{L})(?:includes?|including|contains|enthalt|inclut|comprend)(?: \p{L}+){0,2} [£€$]?\d[\d.,]* ?[£€$]? ?(?:of )?(?:vat|tax|mwst|ust|tva)(?!\p{L})/u;

/** The only amount of a row that says of it that it is the tax in another sum. */
export function taxInSentence(row: Row, [amount, ...others]: readonly Amount[]): Named | undefined {
  const said = others.length === 0 && amount ? TAX_INCLUDED.exec(row.folded.slice(0, LONGEST_ROW)) : null;
  return said ? { amount, label: said[0], score: 1, rate: rateIn(row) } : undefined;
}

/** What is said of a sum stands in so many letters. */
const LONGEST_ROW = 200;

/** “A 20% incl.”: the code of a rate, the rate, and that it is in the sum (folded). */
const CODED =
  /^[a-z*][ =:]{0,3}\d{1,2}(?:[.,]\d+)? ?% ?(?:incl|inkl|inbegr|compris|included|vat|mwst|ust|tva)?\.? ?[£€$]?[\d.,]+ ?[£€$]?$/;

/** The tax that a till's slip prints behind the code of its rate. */
export function taxByCode(row: Row, [amount, ...others]: readonly Amount[], kind: Kind): Named | undefined {
  const rate = rateIn(row);
  if (kind !== 'receipt' || !rate || !amount || others.length > 0 || amount.cents <= 0) return undefined;
  return CODED.test(row.folded.slice(0, LONGEST_ROW))
    ? { amount, label: `${rate.percent} %`, score: 1, rate }
    : undefined;
}

/** A row of a table of taxes: a rate, what is taxed, and the tax, which fits both; a gross amount may follow. */
export function taxAtRate(row: Row, amounts: Amount[], inTaxTable: boolean): Named | undefined {
  const rate = rateIn(row);
  if (!rate) return inTaxTable ? taxByGross(amounts) : undefined;
  if (amounts.length < 2) return undefined;
  const sure = amounts.filter(({ cents }) => cents > 0);
  const none = amounts.find(({ cents }) => cents === 0);
  if (rate.percent === 0)
    return none && sure.length > 0 ? { amount: none, on: sure[0], label: '0 %', score: 1, rate } : undefined;
  // Of small sums other figures fit as well, by chance.
  const fits = (part: number, tax: Amount) => tax.cents >= 5 && Math.abs(part - tax.cents) <= 1;
  const pairs = sure.flatMap((on) => sure.filter((tax) => tax !== on).map((tax) => ({ on, tax })));
  const net = pairs.find(({ on, tax }) => fits((on.cents * rate.percent) / 100, tax));
  if (net) return { amount: net.tax, on: net.on, label: `${rate.percent} %`, score: 1, rate };
  const gross = pairs.find(({ on, tax }) => fits((on.cents * rate.percent) / (100 + rate.percent), tax));
  return gross && { amount: gross.tax, label: `${rate.percent} %`, score: 1, rate };
}

/** “MwSt 8.1% auf 197.30: 14.78     MwSt 2.6% auf 48.00: 1.22”: the taxes at two rates and more that stand beside each other. */
export function taxesBeside(row: Row, amounts: readonly Amount[]): Named[] | undefined {
  const begins = row.cells.flatMap(({ words, folded }) => (TAX.test(folded) && rateIn({ words }) ? [words[0]] : []));
  if (begins.length < 2) return undefined;
  const starts = begins.map((word) => row.words.indexOf(word));
  const found = starts.map((start, at) => {
    const words = row.words.slice(start, starts[at + 1]);
    return taxAtRate(
      { ...row, words },
      amounts.filter((amount) => words.includes(amount.words[0])),
      false,
    );
  });
  return found.every((each) => each !== undefined) ? found : undefined;
}

/** A tax is a share of what is taxed between these. */
export const [LEAST_TAX, MOST_TAX] = [0.01, 0.3];

/** The same of a row whose rate was misread, or that has none: what is taxed and the tax make the third amount. */
function taxByGross(amounts: readonly Amount[]): Named | undefined {
  if (amounts.length !== 3 || amounts.some(({ cents }) => cents <= 0)) return undefined;
  const [tax, on, gross] = amounts.toSorted((one, other) => one.cents - other.cents);
  const share = tax.cents / on.cents;
  if (on.cents + tax.cents !== gross.cents || share < LEAST_TAX || share > MOST_TAX) return undefined;
  const near = Math.round(share * 200) / 2;
  const isNear = Math.abs((on.cents * near) / 100 - tax.cents) <= 1;
  return { amount: tax, on, label: '', score: 1, ...(isNear && { rate: { percent: near, words: tax.words } }) };
}

/** The percentage that a row names, and the words that it stands in. */
export function rateIn({ words }: Pick<Row, 'words'>): Named['rate'] {
  for (let at = 0; at < words.length; at++) {
    for (const group of [words.slice(at, at + 1), words.slice(at, at + 2), words.slice(at, at + 3)]) {
      const found = /(?<!\d[.,]?)(\d{1,2}(?:[.,]\d{1,3})?) ?(?:%|per ?cent|pour ?cent|prozent|v\. ?h\.)/i.exec(
        group.map(({ text }) => text).join(' '),
      );
      if (found) return { percent: Number(found[1].replace(',', '.')), words: group };
    }
  }
  return undefined;
}
