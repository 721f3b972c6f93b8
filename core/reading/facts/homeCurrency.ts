import { STATE_AND_ZIP } from './dayOrder';
import { placeOf, Fact, leastSure } from './fact';
import { Row } from './rows';

/** What tells in which currency a paper counts that names none, each with its weight: how addresses, taxes, telephones and accounts are written. */
const TELLING: [currency: string, pattern: RegExp, weight: number][] = [
  ['GBP', /\b[A-Z]{1,2}\d[A-Z\d]? \d[A-Z]{2}\b/, 2],
  ['GBP', /\bVAT (?:reg|no)|\b(?:registered charity|sort code|company number)\b/i, 1.5],
  ['GBP', /\b(?:Ltd|plc)\b|\.co\.uk\b|\b0\d{3,4} \d{5,6}\b/, 1],
  ['GBP', /\b01\d{3} \d{3} \d{3}\b|\b07\d{3} \d{3} ?\d{3}\b|\bVAT\b.{0,30}(?<!\d)20(?:\.0+)? ?%/, 1],
  ['USD', STATE_AND_ZIP, 2],
  ['USD', /\bsales tax\b/i, 1.5],
  ['USD', /\b(?:LLC|Inc)\b|\(\d{3}\) ?\d{3}-\d{4}\b/, 1],
  ['CAD', /\b[ABCEGHJ-NPR-TVXY]\d[A-Z] \d[A-Z]\d\b|\b(?:HST|GST\/HST|QST|TPS|TVQ)\b/, 3],
  ['AUD', /\bABN\b/, 2],
  ['EUR', /\b(?:DE|AT|FR|BE|NL|IT|ES|IE|LU|FI|PT)\d{2}(?: ?\d{4}){2}|\b(?:DE\d{9}|ATU\d{8})\b/, 2],
  ['EUR', /\bSIRET\b|\b(?:USt-?Id|UID-?Nr|Steuer-?Nr|St\.?-?Nr|Finanzamt)\b/i, 2],
  ['EUR', /\bBTW\b/, 2],
  ['EUR', /\b(?:USt|MwSt|TVA)\b/, 1],
  ['EUR', /(?<![\d.,])(?:\d{1,3}(?:[. ]\d{3})+|\d{1,3}),\d{2}(?![\d.,])/, 1],
  ['EUR', /(?<![\d/.-]|\d,)\b(?:[DF]-)?\d{5} \p{Lu}\p{Ll}{2,}/u, 1],
  ['EUR', /\b(?:TVA|VAT|USt)\W+(?:\p{L}+\W+)?(?:FR ?[A-Z\d]{2} ?\d{3}|BE ?\d{4}|NL ?\d{3})|\b0\d(?: \d\d){4}\b/u, 1.5],
  ['CHF', /\bCHE-?\d{3}|\bCH\d{2} ?\d{4}/, 3],
  ['CHF', /\bMWST\b/, 1],
];
/** So much must speak for a currency, and so much more than for any other. */
const [LEAST, LEAD] = [2, 1.5];
/** No more sure than this: a paper may come from elsewhere. */
const SURE = 0.55;

/** The currency of the country that a paper comes from, where no sign names one; nothing where that can't be told. */
export function homeCurrency(rows: readonly Row[]): Fact | null {
  const told = new Map<string, { weight: number; row: Row; text: string }>();
  for (const [currency, pattern, weight] of TELLING) {
    const row = rows.find(({ text }) => pattern.test(text));
    if (!row) continue;
    const text = pattern.exec(row.text)![0];
    const known = told.get(currency);
    if (known) known.weight += weight;
    else told.set(currency, { weight, row, text });
  }
  const [best, other] = [...told].sort(([, one], [, two]) => two.weight - one.weight);
  if (!best || best[1].weight < LEAST || best[1].weight - (other?.[1].weight ?? 0) < LEAD) return null;
  const [value, { row, text }] = best;
  const confidence = SURE * leastSure(row.words);
  return { value, page: row.page, box: placeOf(row.words), confidence, why: { code: 'comes-from', text } };
}
