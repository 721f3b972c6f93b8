import { addDays } from '../../shelf/days';
import { monthNamed } from '../../reading/dates';
import { Period } from './understood';

export interface FoundPeriods {
  /** In the order in which they stand. */
  periods: Period[];
  /** The text without them. */
  rest: string;
}

const NUMBERS: Record<string, number> = {};
for (const words of [
  'one two three four five six seven eight nine ten eleven twelve',
  'ein zwei drei vier funf sechs sieben acht neun zehn elf zwolf',
  'un deux trois quatre cinq six sept huit neuf dix onze douze',
])
  words.split(' ').forEach((word, at) => (NUMBERS[word] = at + 1));
const NUMBER = `(\\d{1,3}|${Object.keys(NUMBERS).join('|')})`;
const numberOf = (text: string) => NUMBERS[text] ?? Number(text);

const YEAR = '((?:19|20)\\d{2})';
/** What stands between the parts of a period. */
const GAP = '(?: (?:of|in|im|des|de|du|der|d|the|year|jahres?|annee|l))* ';
const THIS = 'this|current|diese[smrn]?|aktuelle[smrn]?|laufende[smrn]?|cette|ce|cet|actuel(?:le)?';
const LAST =
  'last|previous|past|letzte[srnm]?|vergangene[srnm]?|vorige[srnm]?|dernier(?:e|s|es)?|passee?s?|precedente?';
const NEXT = 'next|coming|nachste[srnm]?|kommende[srnm]?|prochaine?s?';
type Unit = 'day' | 'week' | 'month' | 'quarter' | 'half' | 'year';
const UNITS: Record<Unit, string> = {
  day: 'days?|tage?n?|jours?',
  week: 'weeks?|wochen?|semaines?',
  month: 'months?|monate?[sn]?|mois',
  quarter: 'quarters?|quartals?|quartale|trimestres?',
  half: 'half[- ]years?|halbjahre?s?|semestres?',
  year: 'years?|jahre?[sn]?|ans?|annees?',
};
const ANY_UNIT = Object.values(UNITS).join('|');
const unitOf = (word: string) =>
  (Object.keys(UNITS) as Unit[]).find((unit) => new RegExp(`^(?:${UNITS[unit]})$`).test(word))!;
const FIRST = '1st|1er|1ere|first|erste[snrm]?|premiere?|1\\.?';
const ORDINALS = [
  FIRST,
  '2nd|2eme|2e|second|zweite[snrm]?|deuxieme|seconde?|2\\.?',
  '3rd|3eme|3e|third|dritte[snrm]?|troisieme|3\\.?',
  '4th|4eme|4e|fourth|vierte[snrm]?|quatrieme|4\\.?',
];
const ORDINAL = `(${ORDINALS.join('|')})`;
const ordinalOf = (word: string) => ORDINALS.findIndex((each) => new RegExp(`^(?:${each})$`).test(word)) + 1;
const SEASONS = ['spring|fruhling|fruhjahr|printemps', 'summer|sommer|ete', 'autumn|herbst|automne'];

const two = (number: number) => String(number).padStart(2, '0');
const lastOf = (year: number, month: number) => new Date(Date.UTC(year, month, 0)).toISOString().slice(0, 10);
/** From the first day of a month to the last of one that is so many months on. */
function months(year: number, month: number, many = 1): Period {
  const first = new Date(Date.UTC(year, month - 1, 1));
  const [y, m] = [first.getUTCFullYear(), first.getUTCMonth() + 1];
  return { from: `${y}-${two(m)}-01`, until: lastOf(y, m + many - 1) };
}
const yearOf = (year: number) => months(year, 1, 12);

/** A day so many months before or after another; the last of its month where that is shorter. */
function addMonths(day: string, many: number): string {
  const [year, month, date] = day.split('-').map(Number);
  const last = lastOf(year, month + many);
  return `${last.slice(0, 8)}${two(Math.min(date, Number(last.slice(8))))}`;
}

/** The unit of the calendar so many units from the one that today is in. */
function unitFrom(today: string, unit: Unit, by: number): Period {
  const [year, month] = today.split('-').map(Number);
  switch (unit) {
    case 'day':
      return { from: addDays(today, by), until: addDays(today, by) };
    case 'week': {
      const monday = addDays(today, -((new Date(today).getUTCDay() + 6) % 7) + 7 * by);
      return { from: monday, until: addDays(monday, 6) };
    }
    case 'month':
      return months(year, month + by);
    case 'quarter':
      return months(year, 3 * Math.floor((month - 1) / 3) + 1 + 3 * by, 3);
    case 'half':
      return months(year, 6 * Math.floor((month - 1) / 6) + 1 + 6 * by, 6);
    default:
      return yearOf(year + by);
  }
}

/** So many units up to today, or from today on. */
function span(today: string, unit: Unit, many: number, ahead: boolean): Period {
  const sign = ahead ? 1 : -1;
  const other =
    unit === 'day' || unit === 'week'
      ? addDays(today, sign * many * (unit === 'week' ? 7 : 1))
      : addMonths(today, sign * many * { month: 1, quarter: 3, half: 6, year: 12 }[unit]);
  return ahead ? { from: today, until: other } : { from: other, until: today };
}

/** A month without a year: the last one that has begun; when what is to come is asked for, the next one. */
function monthNear(month: number, today: string, ahead: boolean): Period {
  const [year, now] = today.split('-').map(Number);
  return months(ahead ? (month < now ? year + 1 : year) : month > now ? year - 1 : year, month);
}

interface Context {
  today: string;
  ahead: boolean;
  /** The year, and month, that the other end of a span says. */
  year?: number;
}
type Reader = [form: RegExp, read: (found: RegExpExecArray, context: Context) => Period | undefined];

const dayOf = (year: number, month: number, day: number): Period | undefined => {
  const text = `${year}-${two(month)}-${two(day)}`;
  const real = new Date(Date.UTC(year, month - 1, day)).toISOString().slice(0, 10) === text;
  return real ? { from: text, until: text } : undefined;
};
const form = (source: string) => new RegExp(`^(?:${source})(?![\\p{L}\\p{N}])`, 'u');
const MONTH = '(\\p{L}{3,10})\\.?';

/** What a single period looks like; the first that fits counts. */
const SINGLE: Reader[] = [
  [form('(\\d{4})-(\\d{1,2})-(\\d{1,2})'), ([, y, m, d]) => dayOf(Number(y), Number(m), Number(d))],
  [form('(\\d{1,2})[./](\\d{1,2})[./](\\d{4})'), ([, d, m, y]) => dayOf(Number(y), Number(m), Number(d))],
  [form('(\\d{4})-(\\d{1,2})'), ([, y, m]) => (Number(m) <= 12 ? months(Number(y), Number(m)) : undefined)],
  [
    form(`(\\d{1,2})(?:st|nd|rd|th|er|\\.)?(?: of)? ${MONTH},?(?:${GAP}${YEAR})?`),
    ([, d, name, y], { today, ahead, year }) => {
      const month = monthNamed(name);
      if (month === undefined) return undefined;
      const inYear = y ? Number(y) : (year ?? Number(monthNear(month, today, ahead).from!.slice(0, 4)));
      return dayOf(inYear, month, Number(d));
    },
  ],
  [
    form(`${MONTH} (\\d{1,2})(?:st|nd|rd|th)?,? ${YEAR}`),
    ([, name, d, y]) => {
      const month = monthNamed(name);
      return month === undefined ? undefined : dayOf(Number(y), month, Number(d));
    },
  ],
  [form(`q([1-4])(?:${GAP}${YEAR})?`), ([, q, y], { today }) => quarterOf(Number(q), y, today)],
  [form(`h([12])(?:${GAP}${YEAR})?`), ([, h, y], { today }) => halfOf(Number(h), y, today)],
  [
    form(`${ORDINAL} (?:${UNITS.quarter})(?:${GAP}${YEAR})?`),
    ([, word, y], { today }) => quarterOf(ordinalOf(word), y, today),
  ],
  [
    // “The last quarter of 2025”; without a year it is the one before this.
    form(`(?:${LAST}) (${UNITS.quarter}|${UNITS.half}|half|months?|monat|mois)${GAP}${YEAR}`),
    ([, unit, y]) => {
      const many = /^(?:m)/.test(unit) ? 1 : new RegExp(`^(?:${UNITS.quarter})$`).test(unit) ? 3 : 6;
      return months(Number(y), 13 - many, many);
    },
  ],
  [
    form(`${ORDINAL} (?:half|${UNITS.half})(?:${GAP}${YEAR})?`),
    ([, word, y], { today }) => (ordinalOf(word) <= 2 ? halfOf(ordinalOf(word), y, today) : undefined),
  ],
  [
    form(`(?:(?:the|den|der|les|des|im|in) )*(?:${LAST}) ${NUMBER} (${ANY_UNIT})`),
    ([, many, unit], { today }) => span(today, unitOf(unit), numberOf(many), false),
  ],
  [
    form(`${NUMBER} (?:${LAST}) (${ANY_UNIT})`),
    ([, many, unit], { today }) => span(today, unitOf(unit), numberOf(many), false),
  ],
  [
    form(`(?:(?:the|den|der|les|des) )*(?:${NEXT}) ${NUMBER} (${ANY_UNIT})`),
    ([, many, unit], { today }) => span(today, unitOf(unit), numberOf(many), true),
  ],
  [
    form(`${NUMBER} (?:${NEXT}) (${ANY_UNIT})`),
    ([, many, unit], { today }) => span(today, unitOf(unit), numberOf(many), true),
  ],
  [
    form(`(?:within|innerhalb von|binnen|d ici) ${NUMBER} (${ANY_UNIT})`),
    ([, many, unit], { today }) => span(today, unitOf(unit), numberOf(many), true),
  ],
  [form(`(?:${THIS}) (${ANY_UNIT})`), ([, unit], { today }) => unitFrom(today, unitOf(unit), 0)],
  [form(`(?:${LAST}) (${ANY_UNIT})`), ([, unit], { today }) => unitFrom(today, unitOf(unit), -1)],
  [form(`(?:${NEXT}) (${ANY_UNIT})`), ([, unit], { today }) => unitFrom(today, unitOf(unit), 1)],
  [form(`(${ANY_UNIT}) (?:${LAST})`), ([, unit], { today }) => unitFrom(today, unitOf(unit), -1)],
  [form(`(${ANY_UNIT}) (?:${NEXT})`), ([, unit], { today }) => unitFrom(today, unitOf(unit), 1)],
  [form(`(?:today|heute|aujourd hui)`), (_, { today }) => unitFrom(today, 'day', 0)],
  [form('(?:yesterday|gestern|hier)'), (_, { today }) => unitFrom(today, 'day', -1)],
  [form('(?:tomorrow|demain)'), (_, { today }) => unitFrom(today, 'day', 1)],
  [form('heuer'), (_, { today }) => unitFrom(today, 'year', 0)],
  ...SEASONS.map((names, at): Reader => [
    form(`(?:(${LAST}) )?(?:${names})(?:${GAP}${YEAR})?`),
    ([, , y], { today, ahead, year }) =>
      months(y ? Number(y) : (year ?? Number(monthNear(3 * at + 3, today, ahead).from!.slice(0, 4))), 3 * at + 3, 3),
  ]),
  [
    form(`(?:(?:${LAST}|${THIS}|${NEXT}) )?${MONTH},?${GAP}${YEAR}`),
    ([, name, y]) => {
      const month = monthNamed(name);
      return month === undefined ? undefined : months(Number(y), month);
    },
  ],
  [
    form(`(?:(?:${LAST}|${THIS}) )?${MONTH}`),
    ([whole, name], { today, ahead, year }) => {
      const month = wholeMonth(name);
      if (month === undefined) return undefined;
      const isNamed = new RegExp(`^(?:${LAST}|${THIS}) `).test(whole);
      return year === undefined ? monthNear(month, today, ahead && !isNamed) : months(year, month);
    },
  ],
  [
    form(`(?:${NEXT}) ${MONTH}`),
    ([, name], { today }) => {
      const month = wholeMonth(name);
      return month === undefined ? undefined : monthNear(month, today, true);
    },
  ],
  [form(`(?:(?:the )?year |(?:dem |des )?jahre?s? |l annee |annee )?${YEAR}`), ([, y]) => yearOf(Number(y))],
];

function quarterOf(number: number, year: string | undefined, today: string): Period {
  return months(Number(year ?? today.slice(0, 4)), 3 * number - 2, 3);
}
function halfOf(number: number, year: string | undefined, today: string): Period {
  return months(Number(year ?? today.slice(0, 4)), 6 * number - 5, 6);
}

/** A month by a name that is not a usual word, too. */
function wholeMonth(name: string): number | undefined {
  return name.length >= 4 || name === 'mai' || name === 'may' ? monthNamed(name) : undefined;
}

/** A period at the beginning of a text, and how long it is there. */
function single(text: string, context: Context): { period: Period; length: number } | undefined {
  for (const [shape, read] of SINGLE) {
    const found = shape.exec(text);
    const period = found && read(found, context);
    if (period) return { period, length: found[0].length };
  }
  return undefined;
}

const ARTICLE = '(?:(?:the|dem|den|der|des|le|la|l|les|im|in|en|au|du) )*';
const BETWEEN = new RegExp(`^(?:between|zwischen|entre) ${ARTICLE}`);
const FROM = new RegExp(`^(?:from|von|vom|de|du|des) ${ARTICLE}`);
const TO = new RegExp(`^ ?(?:to|till|until|through|bis(?: zum)?|a|au|jusqu (?:a|en|au)|-) ?${ARTICLE}`);
const AND = new RegExp(`^ (?:and|und|et) ${ARTICLE}`);
const SINCE = new RegExp(`^(?:since|seit|depuis|ab|a partir de|from) ${ARTICLE}`);
const AFTER = new RegExp(`^(?:after|nach|apres) ${ARTICLE}`);
const UP_TO = new RegExp(`^(?:until|till|up to|bis(?: zum)?|jusqu (?:a|en|au|a la)|by) ${ARTICLE}`);
const BEFORE = new RegExp(`^(?:before|vor|avant) ${ARTICLE}`);
const ONWARDS = /^ (?:on|onwards?|an)(?= |$)/;
/** Two days of one month: “between 1 and 15 December”. */
const DAYS = new RegExp(
  `^(?:(?:between|zwischen|entre|from|von|vom|du) )${ARTICLE}(\\d{1,2})\\.?(?: (?:and|und|et|to|bis|a|au) ${ARTICLE})(?=\\d{1,2}\\.? \\p{L})`,
  'u',
);

const BEFORE_MONTH = /(?:^|[ ¦])(?:in|of|for|and|or|than|this|last) $/;

/** A period, or a span between two, at the beginning of a text. */
function spanned(text: string, context: Context): { period: Period; length: number } | undefined {
  const days = DAYS.exec(text);
  const lastDay = days && single(text.slice(days[0].length), context);
  if (days && lastDay?.period.from && lastDay.period.from === lastDay.period.until)
    return {
      period: { from: `${lastDay.period.from.slice(0, 8)}${two(Number(days[1]))}`, until: lastDay.period.until },
      length: days[0].length + lastDay.length,
    };
  for (const [begin, join] of [
    [BETWEEN, AND],
    [FROM, TO],
  ]) {
    const begun = begin.exec(text)?.[0].length;
    if (begun === undefined) continue;
    const first = single(text.slice(begun), context);
    if (!first) continue;
    const joint = join.exec(text.slice(begun + first.length))?.[0].length;
    if (joint === undefined) continue;
    const second = single(text.slice(begun + first.length + joint), context);
    if (!second) continue;
    const year = Number(second.period.until!.slice(0, 4));
    // What has no year of its own is of the year that the end says.
    const again = single(text.slice(begun, begun + first.length), { ...context, year })!;
    const from = again.period.from! <= second.period.until! ? again.period.from : addMonths(again.period.from!, -12);
    return { period: { from, until: second.period.until }, length: begun + first.length + joint + second.length };
  }
  const open = (begin: RegExp, of: (period: Period) => Period) => {
    const begun = begin.exec(text)?.[0].length;
    const found = begun === undefined ? undefined : single(text.slice(begun), context);
    return found && { period: of(found.period), length: begun! + found.length };
  };
  const since = open(SINCE, ({ from }) => ({ from, until: null }));
  // “From March” alone is a month; “from March on” is all that follows.
  if (since && !/^from /.test(text)) return since;
  const onwards = since && ONWARDS.exec(text.slice(since.length));
  if (onwards) return { period: since.period, length: since.length + onwards[0].length };
  return (
    open(AFTER, ({ until }) => ({ from: addDays(until!, 1), until: null })) ??
    open(UP_TO, ({ until }) => ({ from: null, until })) ??
    open(BEFORE, ({ from }) => ({ from: null, until: addDays(from!, -1) })) ??
    single(text, context)
  );
}

/**
 * Finds the periods that a question names, in English, German or French.
 * @param text small letters without accents, words parted by single spaces
 * @param today ISO 8601
 * @param ahead whether a month without a year is one that is to come
 */
export function readPeriods(text: string, today: string, ahead = false): FoundPeriods {
  const periods: Period[] = [];
  let rest = '';
  for (let at = 0; at < text.length;) {
    const begins = at === 0 || text[at - 1] === ' ';
    const found = begins && text[at] !== ' ' ? spanned(text.slice(at), { today, ahead }) : undefined;
    // “May” by itself is a word that asks.
    const isMonth = text.slice(at, at + (found?.length ?? 0)) !== 'may' || BEFORE_MONTH.test(text.slice(0, at));
    if (found && isMonth) {
      periods.push(found.period);
      rest += '¦';
      at += found.length;
    } else rest += text[at++];
  }
  return { periods, rest };
}
