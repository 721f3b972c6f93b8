import { PageText } from '../words';
import { Row } from './rows';

/** Which comes first in dates in figures: the day, the month, or nothing on the paper says. */
export type DayOrder = 'day' | 'month' | 'unknown';

/** What speaks for the day before the month, and for the month before the day. */
const DAY_FIRST =
  /\b(?:VAT|MwSt|TVA|IVA|btw|IBAN|Ltd|GmbH|AG|SARL|plc|BV|postcode)\b|[£€]|\b[A-Z]{1,2}\d{1,2}[A-Z]? \d[A-Z]{2}\b/;
const MONTH_FIRST = /\b(?:sales tax|LLC|Inc\.?|zip code|routing)\b|\$\s?\d/i;
/** States of the United States before a postcode; Delaware is abbreviated as Germany is. */
export const STATE_AND_ZIP =
  /\b(?:A[KLRZ]|C[AOT]|D(?:C|E(?<=, DE))|FL|GA|HI|I[ADLN]|K[SY]|LA|M[ADEINOST]|N[CDEHJMVY]|O[HKR]|PA|RI|S[CD]|T[NX]|UT|V[AT]|W[AIVY]),? \d{5}(?:-\d{4})?\b/;
/** What impossible months, points between figures, and the paper's language and format say, beside a word that says 1. */
const [IMPOSSIBLE, POINTS, LANGUAGE, FORMAT] = [10, 2, 3, 0.5];
/** Height by width of sheets of 8.5 by 11 inches, as most are where the month comes first. */
const LETTER = { least: 1.27, most: 1.32 };
/** By how much one must be ahead. */
const LEAD = 0.5;

/** Which of day and month comes first: where another date shows it, else where the paper comes from. */
export function dayOrderOf(
  rows: readonly Row[],
  first: (Pick<PageText, 'width' | 'height'> & Partial<Pick<PageText, 'language'>>) | undefined,
  currency: string | undefined,
): DayOrder {
  let [day, month] = [0, currency === 'USD' ? 0.5 : 0];
  for (const { text } of rows) {
    for (const [, one, , two] of text.matchAll(/\b(\d{1,2})([/.-])(\d{1,2})\2(?:\d{4}|\d{2})\b/g)) {
      if (Number(one) > 12 && Number(two) <= 12) day += IMPOSSIBLE;
      if (Number(two) > 12 && Number(one) <= 12) month += IMPOSSIBLE;
    }
    if (/\b\d{1,2}\.\d{1,2}\.\d{4}\b/.test(text)) day += POINTS;
    if (DAY_FIRST.test(text)) day++;
    if (MONTH_FIRST.test(text) || STATE_AND_ZIP.test(text)) month++;
  }
  if (first?.language && first.language !== 'eng') day += LANGUAGE;
  const format = first ? first.height / first.width : 0;
  if (format > LETTER.least && format < LETTER.most) month += FORMAT;
  return month - day >= LEAD ? 'month' : day - month >= LEAD ? 'day' : 'unknown';
}
