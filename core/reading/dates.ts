import { editDistance } from '../finding/editDistance';
import { allMatches } from './allMatches';
import { Word } from './words';

const MONTHS: string[][] = [
  ['january', 'jan', 'januar', 'jänner', 'janvier', 'janv', 'enero', 'ene', 'gennaio', 'gen', 'januari', 'janeiro'],
  [
    'february',
    'feb',
    'februar',
    'février',
    'fevrier',
    'févr',
    'fevr',
    'febrero',
    'febbraio',
    'februari',
    'fevereiro',
    'fev',
  ],
  ['march', 'mar', 'märz', 'marz', 'mrz', 'mars', 'marzo', 'maart', 'mrt', 'março', 'marco'],
  ['april', 'apr', 'avril', 'avr', 'abril', 'abr', 'aprile'],
  ['may', 'mai', 'mayo', 'maggio', 'mag', 'mei', 'maio'],
  ['june', 'jun', 'juni', 'juin', 'junio', 'giugno', 'giu', 'junho'],
  ['july', 'jul', 'juli', 'juillet', 'juil', 'julio', 'luglio', 'lug', 'julho'],
  ['august', 'aug', 'août', 'aout', 'agosto', 'ago', 'augustus'],
  ['september', 'sep', 'sept', 'septembre', 'septiembre', 'settembre', 'set', 'setembro'],
  ['october', 'oct', 'oktober', 'okt', 'octobre', 'octubre', 'ottobre', 'ott', 'outubro', 'out'],
  ['november', 'nov', 'novembre', 'noviembre', 'novembro'],
  ['december', 'dec', 'dezember', 'dez', 'décembre', 'decembre', 'déc', 'diciembre', 'dic', 'dicembre', 'dezembro'],
];

const monthNumbers = new Map(MONTHS.flatMap((names, index) => names.map((name) => [name, index + 1] as const)));
/** A month's name may have one letter misread, if it is long enough to be told all the same. */
const LONG_NAME = 5;

function monthOf(name: string): number | undefined {
  const written = name.toLowerCase();
  const known = monthNumbers.get(written);
  if (known !== undefined || written.length < LONG_NAME) return known;
  const near = [...monthNumbers].filter(([month]) => month.length >= LONG_NAME && editDistance(month, written) <= 1);
  return new Set(near.map(([, number]) => number)).size === 1 ? near[0][1] : undefined;
}

/** The month (1 to 12) that a name or its short form says, in small letters, with accents or without. */
export function monthNamed(name: string): number | undefined {
  return monthNumbers.get(name);
}

const ROMAN = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII', 'VIII', 'IX', 'X', 'XI', 'XII'];
/** Letters of months' names, as ranges: what the engine makes of a property of letters in any case takes milliseconds to make. */
const LETTER = 'A-Za-zÀ-ÖØ-öø-ɏ';
const NAME = `([${LETTER}]{3,10})`;
const START = `(?<![${LETTER}\\d])`;
const END = `(?![${LETTER}\\d])`;
/** The forms that may be read in two ways; the time of day may follow. A day does not begin with the month of another: “02.11. 02.11.” */
const IN_FIGURES =
  /(?<!(?<!\d)\d{1,2}[./·])\b(\d{1,2})(?:[./·-] ?(\d{1,2})[./·-] ?(\d{4})|([./·-]) ?(\d{1,2})\4 ?(\d{2}))\b(?![.,/-]\d(?!\d?:\d))/gu;
const SPACED = /(?<![\d.,/-] ?)\b(\d{1,2})(?: ([./-]) (\d{1,2}) \2 |(?<=\b\d{2}) (\d{2}) )(20\d{2})\b(?! ?[\d./-])/gu;
const FORMS: { form: RegExp; parts: (found: string[]) => [year: string, month: string, day: string] }[] = [
  { form: /\b(\d{4})([-/.])(\d{1,2})\2(\d{1,2})(?=T\d|\b)/gu, parts: ([, y, , m, d]) => [y, m, d] },
  // “11/26-18” is a number: a year of two figures stands behind the same sign as the month.
  { form: IN_FIGURES, parts: ([, d, m, y, , month, year]) => [y ?? year, m ?? month, d] },
  { form: SPACED, parts: ([, d, , m, other, y]) => [y, m ?? other, d] },
  // “20260903” may be any number but where it is called a day.
  {
    form: /(?<=\b(?:date|dated?|datum)\W{1,3})(20\d{2})([01]\d)([0-3]\d)(?!\d)/gi,
    parts: ([, y, m, d]) => [y, m, d],
  },
  // “3.IX.2026”
  {
    form: new RegExp(`${START}(\\d{1,2})\\. ?(I{1,3}|I?[VX]|VI{1,3}|XI{1,2})\\.? ?(\\d{4})\\b`, 'gu'),
    parts: ([, d, m, y]) => [y, String(ROMAN.indexOf(m) + 1), d],
  },
  // A comma after the day is a point that was misread.
  {
    form: new RegExp(
      `${START}(\\d{1,2})(?:st|nd|rd|th|er|[.,]|º)? ?(?:day of |of |de )?${NAME}[.,]{0,2} ?(?:de )?(\\d{4})${END}`,
      'gi',
    ),
    parts: ([, d, m, y]) => [y, m, d],
  },
  {
    form: new RegExp(`${START}(\\d{1,2})(?:[-/]${NAME}[-/]| ${NAME} ['’])(\\d{4}|\\d{2})${END}`, 'gi'),
    parts: ([, d, m, other, y]) => [y, m ?? other, d],
  },
  // “05 NOV 26”, as machines print it.
  {
    form: new RegExp(`${START}(\\d{2}) ([A-ZÀ-ÖØ-Þ]{3}) (\\d{2})(?=$| [^\\d])`, 'gu'),
    parts: ([, d, m, y]) => [y, m, d],
  },
  // “12711726 14:22”: strokes between the figures that were read as sevens or ones, before the time of day.
  {
    form: /\b(\d{2})[71](\d{2})[71](20\d{2}|\d{2})(?= \d{1,2}:\d{2}\b)/gu,
    parts: ([, d, m, y]) => [y, m, d],
  },
  // “07NOV26”
  {
    form: new RegExp(`${START}(\\d{2})([${LETTER}]{3})(\\d{4}|\\d{2})${END}`, 'gi'),
    parts: ([, d, m, y]) => [y, m, d],
  },
  // “18 Nov 26” in a column: the year is one that may be.
  {
    form: new RegExp(`${START}(\\d{1,2}) ${NAME}\\.? (2\\d)(?= \\p{L})`, 'gu'),
    parts: ([, d, m, y]) => [y, m, d],
  },
  // A year of two figures by itself ends a line, or stands before the time of day.
  {
    form: new RegExp(`${START}(\\d{1,2})(?:st|nd|rd|th|\\.)? ${NAME}\\.? (\\d{2})(?=$| \\d{1,2}:\\d{2})`, 'gi'),
    parts: ([, d, m, y]) => [y, m, d],
  },
  {
    form: new RegExp(`${START}${NAME}\\.?[ -](\\d{1,2})(?:st|nd|rd|th)?(?:,? |-)(\\d{4})${END}`, 'gi'),
    parts: ([, m, d, y]) => [y, m, d],
  },
];

/** What ones, and the nine of “9th”, are taken for where a day stands before its month and year. */
const MISREAD_DAY = new RegExp(
  `${START}(?:[lI|1]{1,2}|i(?=st)|[12]?[gq](?=th)|[23][lI|])(?=(?:st|nd|rd|th)?\\.? [${LETTER}]{3,10}\\.?,? \\d{4}(?!\\d))|\\b[flI](?=er [${LETTER}]{3,9} \\d{4})`,
  'gu',
);
/** What has a number of its own before the name of a month: “Month 6   September 2026”. */
const isNumbered = (before: string) => /(?:^| )(?:month|monat|mois|week|woche|semaine)[.:]? $/i.test(before);
/** All forms of days end in a year of two figures at least, or hold one. */
const HOLDS_YEAR = /\d\d/;

export interface FoundDate {
  /** ISO 8601, such as 2026-03-14. */
  date: string;
  words: Word[];
}

/**
 * All calendar dates written in a line, in the order of their forms; where only digits are given, the day stands before the
 * month unless `monthFirst`, or the other way round where only that is a date.
 */
export function datesInLine(line: Word[], { monthFirst = false } = {}): FoundDate[] {
  const starts: number[] = [];
  let text = '';
  for (const word of line) {
    if (text) text += ' ';
    starts.push(text.length);
    text += word.text;
  }
  if (!HOLDS_YEAR.test(text)) return [];
  // Strokes before a month are ones: “ll December 2027”, “gth November 2026” is the ninth.
  text = text.replace(MISREAD_DAY, (day) => day.replace(/[filI|]/g, '1').replace(/[gq]/g, '9'));
  const found: FoundDate[] = [];
  const taken: [from: number, until: number][] = [];
  for (const { form, parts } of FORMS) {
    for (const match of allMatches(form, text)) {
      const [year, first, second] = parts([...match]);
      const turned = monthFirst && (form === IN_FIGURES || form === SPACED);
      const date = turned ? calendarDate(year, second, first) : calendarDate(year, first, second);
      const end = match.index + match[0].length;
      if (isNumbered(text.slice(0, match.index)) || isNextDay(match[0], text.slice(end))) continue;
      // Some dates fit two forms.
      if (!date || taken.some(([from, until]) => from < end && until > match.index)) continue;
      taken.push([match.index, end]);
      const words = line.filter((word, index) => starts[index] < end && starts[index] + word.text.length > match.index);
      found.push({ date, words });
    }
  }
  return found;
}

/** “20 Nov   23 Nov”: what looks like a year is the day of the next month that is named. */
function isNextDay(date: string, behind: string): boolean {
  const month = /^ (\p{L}{3,10})\b/u.exec(behind)?.[1];
  // “12 Nov 26 may differ” goes on.
  return (
    month !== undefined &&
    month !== 'may' &&
    /\p{L} \d{2}$/u.test(date) &&
    monthNamed(month.toLowerCase()) !== undefined
  );
}

/** The first date in a text typed by hand, as ISO 8601; undefined when there is none. */
export function readDate(text: string): string | undefined {
  const word: Word = { text, box: [0, 0, 0, 0], confidence: 1, line: 0, baseline: 0 };
  return datesInLine([word])[0]?.date;
}

/** The first and last day of a year (2026), a month (2026-03 or 3/2026) or a day typed by hand, as ISO 8601. */
export function readDateRange(text: string): { from: string; to: string } | undefined {
  const year = /^(\d{4})$/.exec(text);
  if (year) return { from: `${year[1]}-01-01`, to: `${year[1]}-12-31` };
  const month = /^(\d{4})-(\d{1,2})$/.exec(text) ?? /^(\d{1,2})[./-](\d{4})$/.exec(text);
  if (month) {
    const [first, second] = month.slice(1);
    const [y, m] = first.length === 4 ? [Number(first), Number(second)] : [Number(second), Number(first)];
    const from = calendarDate(String(y), String(m), '1');
    return from ? { from, to: new Date(Date.UTC(y, m, 0)).toISOString().slice(0, 10) } : undefined;
  }
  const day = readDate(text);
  return day ? { from: day, to: day } : undefined;
}

/** Years of two figures from here on are of the last century. */
const LAST_CENTURY = 70;

function calendarDate(year: string, month: string, day: string): string | undefined {
  const fullYear = year.length === 2 ? Number(year) + (Number(year) < LAST_CENTURY ? 2000 : 1900) : Number(year);
  let m = monthOf(month) ?? Number(month);
  let d = Number(day);
  if (m > 12 && d <= 12) [m, d] = [d, m];
  const date = new Date(Date.UTC(fullYear, m - 1, d));
  const real = date.getUTCFullYear() === fullYear && date.getUTCMonth() === m - 1 && date.getUTCDate() === d;
  return real && fullYear >= 1900 && fullYear < 2100 ? date.toISOString().slice(0, 10) : undefined;
}
