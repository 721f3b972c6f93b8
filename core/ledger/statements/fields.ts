import { monthNamed } from '../../reading/dates';
import { isDay } from '../../reading/dayForms';
import { moneyOf } from '../../money';

/** In which order the parts of a day stand that is written in figures. */
export type DayOrder = 'day' | 'month' | 'year';

const FIGURES = /^(\d{1,4})[./\- ](\d{1,2})[./\- ]'?(\d{1,4})(?:[T ,].*)?$/;
const CLOSE = /^(\d{4})(\d{2})(\d{2})(?:\d{6}.*|\[.*|T.*)?$/;
const NAMED = /^(\d{1,2})[.\- ]{1,2}(\p{L}{3,10})\.?[,\- ]{1,2}'?(\d{2}|\d{4})$/u;
const NAMED_FIRST = /^(\p{L}{3,10})\.? (\d{1,2}),? (\d{4})$/u;

/** The parts of a day as they are written, if it is written in figures and no year stands in front. */
function partsOf(text: string): [number, number, string] | undefined {
  const [, a, b, year] = FIGURES.exec(text.trim()) ?? [];
  return a && a.length <= 2 ? [Number(a), Number(b), year] : undefined;
}

/**
 * In which order days are written in a column: by those that can be read one way only, else in which they follow each other in time;
 * the day first where nothing tells.
 */
export function dayOrderIn(texts: readonly string[]): DayOrder {
  const parts = texts.map(partsOf).filter((each) => each !== undefined);
  if (parts.length === 0) return 'year';
  const [firstOver, secondOver] = [0, 1].map((at) => parts.filter((each) => Number(each[at]) > 12).length);
  if (firstOver > 0 && secondOver === 0) return 'day';
  if (secondOver > 0 && firstOver === 0) return 'month';
  const [asDays, asMonths] = (['day', 'month'] as const).map((order) => steadiness(texts, order));
  return asMonths > asDays ? 'month' : 'day';
}

/** How many days follow the one before, in the one direction that more of them go; the days between them count against it. */
function steadiness(texts: readonly string[], order: DayOrder): number {
  const days = texts.map((text) => readDay(text, order)).filter((day) => day !== undefined);
  let [up, down] = [0, 0];
  for (let at = 1; at < days.length; at++) {
    if (days[at] >= days[at - 1]) up++;
    if (days[at] <= days[at - 1]) down++;
  }
  const span = days.length > 1 ? Math.abs(Date.parse(days.at(-1)!) - Date.parse(days[0])) / 86_400_000 : 0;
  return Math.max(up, down) - span / 1e5;
}

/** A day as banks write it (ISO 8601); undefined when it is none. */
export function readDay(written: string, order: DayOrder = 'day'): string | undefined {
  const text = written.trim();
  const [, closeYear, closeMonth, closeDay] = CLOSE.exec(text) ?? [];
  if (closeYear) return day(closeYear, closeMonth, closeDay);
  const [, a, b, c] = FIGURES.exec(text) ?? [];
  if (a) return a.length === 4 ? day(a, b, c) : order === 'month' ? day(c, a, b) : day(c, b, a);
  const [, dayNamed, name, year] = NAMED.exec(text) ?? [];
  if (dayNamed) return day(year, String(monthNamed(name.toLowerCase()) ?? 0), dayNamed);
  const [, firstName, second, third] = NAMED_FIRST.exec(text) ?? [];
  return firstName ? day(third, String(monthNamed(firstName.toLowerCase()) ?? 0), second) : undefined;
}

/** Whether a text is a day in whatever order its parts stand. */
export function isSomeDay(written: string): boolean {
  return readDay(written) !== undefined || readDay(written, 'month') !== undefined;
}

function day(year: string, month: string, date: string): string | undefined {
  const full = year.length === 2 ? `20${year}` : year;
  const written = `${full.padStart(4, '0')}-${month.padStart(2, '0')}-${date.padStart(2, '0')}`;
  return full.length === 4 && isDay(written) ? written : undefined;
}

const AMOUNT =
  /^(?:[A-Z]{3}|[€£$¥]|CHF|Fr\.)?\s*([-+–−(]?)\s*(?:[A-Z]{3}|[€£$¥])?\s*(\d{1,3}(?:[.,'’   ]\d{3})+(?:[.,]\d{1,3})?|\d{1,2}(?:,\d{2})+,\d{3}(?:\.\d{1,2})?|\d+(?:[.,]\d{1,4})?|[.,]\d{1,2})\s*([-–−)]|[+])?\s*(?:[A-Z]{3}|[€£$¥])?\s*(CR|DR|C|D|H|S|Cr|Dr)?$/u;

/** Which sign stands before the decimals. */
export type DecimalSign = '.' | ',';

/** An amount as banks write it, as a decimal number: `1.234,56-` with a comma is `-1234.56`; undefined when it is none. */
export function readDecimal(written: string, decimal: DecimalSign): string | undefined {
  const [, before, figures, after, side] = AMOUNT.exec(written.trim()) ?? [];
  if (!figures) return undefined;
  const plain = figures.replace(decimal === '.' ? /[,'’\s]/g : /[.'’\s]/g, '').replace(',', '.');
  if (!/^\d*(\.\d+)?$/.test(plain)) return undefined;
  const negative = /[-–−(]/.test(`${before ?? ''}${after ?? ''}`) || /^(DR|D|S|Dr)$/.test(side ?? '');
  return `${negative ? '-' : ''}${plain.startsWith('.') ? `0${plain}` : plain}`;
}

/** Money of a currency in its smallest unit; undefined when it is none. */
export function readUnits(written: string, decimal: DecimalSign, currency: string | null): number | undefined {
  const plain = readDecimal(written, decimal);
  return plain === undefined ? undefined : moneyOf(plain, currency)?.units;
}

/** Whether a text can be an amount at all. */
export function looksLikeAmount(written: string): boolean {
  return readDecimal(written, '.') !== undefined || readDecimal(written, ',') !== undefined;
}

/** Which sign stands before the decimals in a column of amounts; a point where nothing tells. */
export function decimalSignIn(texts: readonly string[]): DecimalSign {
  let [points, commas] = [0, 0];
  for (const text of texts) {
    const [, sign, decimals] = /([.,])(\d+)[^\d]*$/.exec(text.trim()) ?? [];
    if (!sign) continue;
    const other = sign === '.' ? ',' : '.';
    // Three figures behind it are thousands, unless the other sign stands before them.
    const counts = text.includes(other) ? 3 : decimals.length === 3 ? -1 : 1;
    if (sign === '.') points += counts;
    else commas += counts;
  }
  return commas > points ? ',' : '.';
}
