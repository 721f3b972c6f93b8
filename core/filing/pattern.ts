import { freeName, nameKey, safeName } from './names';

/** What a name can be made of; everything as it is kept: dates and times in ISO 8601, money with a point. */
export interface NameValues {
  kind?: string;
  who?: string;
  subject?: string;
  date?: string;
  due?: string;
  number?: string;
  amount?: string;
  currency?: string;
  net?: string;
  tax?: string;
  /** The number of its entry in the books. */
  entry?: string;
  /** When the paper was taken in, as ISO 8601 with the time. */
  scanned?: string;
  /** The path of the folder that it goes into. */
  folder?: string;
  pages?: string;
}

/** What a name can be made of, from the facts of a document. @param facts values by the facts' names, and `entry` */
export function valuesOf(
  facts: Readonly<Partial<Record<string, string>>>,
  { createdAt, folder, pages }: { createdAt: string; folder?: string; pages: number },
): NameValues {
  const { kind, vendor: who, subject, date, dueDate: due, number, total: amount, currency, net, tax, entry } = facts;
  return {
    kind,
    who,
    subject,
    date,
    due,
    number,
    amount,
    currency,
    net,
    tax,
    entry,
    scanned: createdAt,
    folder,
    pages: String(pages),
  };
}

/** What can stand in braces, and what it stands for, in words for the person. */
export const PLACEHOLDERS: Record<keyof NameValues | 'counter', string> = {
  date: 'the date on the paper',
  who: 'who it is from',
  subject: 'what a letter is about',
  kind: 'what kind of paper it is',
  number: 'its number',
  amount: 'the total',
  currency: 'the currency',
  net: 'the amount before tax',
  tax: 'the tax',
  due: 'when it is due',
  entry: 'the number of its entry in the books',
  scanned: 'when it was taken in',
  folder: 'the folder it goes into',
  pages: 'how many pages it has',
  counter: 'a number that counts up while a name is taken',
};
type Placeholder = keyof typeof PLACEHOLDERS;

export const USUAL_PATTERN = '{date} {who} {kind}';

type Part = string | { placeholder: Placeholder; form: string } | { optional: Part[] };

/** A pattern that can't be understood, with a sentence that says why. */
export class PatternError extends Error {}

/**
 * A name by a pattern: text with placeholders in braces, such as `{date:DD.MM.YY} {who}[ no. {number}]`. What stands in square
 * brackets is left out when something inside is not known; what is not known outside of them leaves nothing, not even a double
 * space. The name is safe for every file system, and free: a counter counts up until it is, without one a number follows.
 * @param taken keys of names (see `nameKey`) that are taken in the folder
 * @returns '' when nothing that the pattern asks for is known
 * @throws PatternError
 */
export function nameBy(pattern: string, values: NameValues, taken: ReadonlySet<string> = new Set()): string {
  const parts = parse(pattern);
  if (!isAnyKnown(parts, values)) return '';
  const name = (counter: number) => safeName(fill(parts, values, counter) ?? '', '');
  const first = name(1);
  if (!first || !mentions(parts, 'counter')) return first && freeName(first, taken);
  let counter = 1;
  while (counter <= taken.size && taken.has(nameKey(name(counter)))) counter++;
  return name(counter);
}

/**
 * A text by a pattern, as `nameBy` makes a name, line by line. A line of which nothing is known that it asks for is left out.
 * @throws PatternError
 */
export function textBy(pattern: string, values: NameValues): string {
  const lines = pattern.split('\n').flatMap((line) => {
    const parts = parse(line);
    // Where all is known nothing is left over that would have to be tidied away, such as a comma at the end.
    return isAnyKnown(parts, values) ? [fill(parts, values, 1, true) ?? fill(parts, values, 1) ?? ''] : [];
  });
  return lines.join('\n');
}

/** What is wrong with the pattern of a text, as a sentence; undefined when nothing is. */
export function textProblem(pattern: string): string | undefined {
  return pattern
    .split('\n')
    .filter((line) => line.trim())
    .map(patternProblem)
    .find(Boolean);
}

/** What is wrong with a pattern, as a sentence; undefined when nothing is. */
export function patternProblem(pattern: string): string | undefined {
  try {
    parse(pattern);
    return pattern.trim() ? undefined : 'A pattern needs something in it.';
  } catch (error) {
    if (error instanceof PatternError) return error.message;
    throw error;
  }
}

function parse(pattern: string): Part[] {
  const open: Part[][] = [[]];
  for (const [piece, inside] of pattern.matchAll(/\{([^{}]*)\}|[^[\]{}]+|[[\]{}]/g)) {
    const parts = open[open.length - 1];
    if (inside !== undefined) parts.push(placeholder(inside));
    else if (piece === '[') open.push([]);
    else if (piece === ']') {
      if (open.length === 1) throw new PatternError('A “]” has no “[” before it.');
      open.pop();
      open[open.length - 1].push({ optional: parts });
    } else if (piece === '{') throw new PatternError('A “{” has no “}” after it.');
    else if (piece === '}') throw new PatternError('A “}” has no “{” before it.');
    else parts.push(piece);
  }
  if (open.length > 1) throw new PatternError('A “[” has no “]” after it.');
  return open[0];
}

function placeholder(inside: string): Part {
  const colon = inside.indexOf(':');
  const name = (colon < 0 ? inside : inside.slice(0, colon)).trim().toLowerCase();
  if (!Object.hasOwn(PLACEHOLDERS, name))
    throw new PatternError(`“${inside}” is not known; there is ${Object.keys(PLACEHOLDERS).join(', ')}.`);
  return { placeholder: name as Placeholder, form: colon < 0 ? '' : inside.slice(colon + 1).trim() };
}

function mentions(parts: Part[], name: Placeholder): boolean {
  return parts.some(
    (part) =>
      typeof part !== 'string' && ('optional' in part ? mentions(part.optional, name) : part.placeholder === name),
  );
}

function isAnyKnown(parts: Part[], values: NameValues): boolean {
  const asked = (Object.keys(PLACEHOLDERS) as Placeholder[]).filter((name) => mentions(parts, name));
  const ofThePaper = asked.filter((name) => name !== 'counter' && name !== 'folder' && name !== 'pages');
  return ofThePaper.length === 0 || ofThePaper.some((name) => known(name, values) !== undefined);
}

function known(name: Placeholder, values: NameValues): string | undefined {
  if (name === 'counter') return '';
  // A paper of no kind is not called so.
  if (name === 'kind')
    return !values.kind || values.kind === 'other' ? undefined : values.kind[0].toUpperCase() + values.kind.slice(1);
  return values[name]?.trim() || undefined;
}

/** The text of parts; undefined when something in brackets is not known. */
function fill(parts: Part[], values: NameValues, counter: number, within = false): string | undefined {
  let text = '';
  for (const part of parts) {
    if (typeof part === 'string') text += part;
    else if ('optional' in part) text += fill(part.optional, values, counter, true) ?? '';
    else {
      const value = known(part.placeholder, values);
      if (value === undefined && within) return undefined;
      if (value !== undefined) text += formed(part.placeholder, value, part.form, counter);
    }
  }
  return within ? text : tidied(text);
}

/** Without what is left over where something was missing: separators at the ends, in a row, or in empty parentheses. */
function tidied(text: string): string {
  return text
    .replace(/\(\s*\)/g, '')
    .replace(/\s+/g, ' ')
    .replace(/( [-–—_,·]){2,}(?= |$)/g, '$1')
    .replace(/^[\s\-–—_,·]+|[\s\-–—_,·]+$/g, '');
}

function formed(name: Placeholder, value: string, form: string, counter: number): string {
  if (name === 'counter') return String(counter).padStart(Math.min(9, Number(form) || 1), '0');
  if (name === 'date' || name === 'due') return formedDate(value, form || 'YYYY-MM-DD');
  if (name === 'scanned') return formedDate(value, form || 'YYYY-MM-DD HH.mm');
  if (name === 'folder') return value.split('/').at(-1)!;
  if (name === 'amount' || name === 'net' || name === 'tax') return form === ',' ? value.replace('.', ',') : value;
  return value;
}

const DATE_PART = /YYYY|YY|MMMM|MMM|MM|M|DD|D|HH|mm|ss/g;

/** @param value ISO 8601, a day or a time, as it is written (no time zone is reckoned) */
function formedDate(value: string, form: string): string {
  const found = /^(\d{4})-(\d{2})-(\d{2})(?:T(\d{2}):(\d{2}):(\d{2}))?/.exec(value);
  if (!found) return value;
  const [, year, month, day, hour = '00', minute = '00', second = '00'] = found;
  const monthName = (style: 'long' | 'short') =>
    new Intl.DateTimeFormat('en', { month: style, timeZone: 'UTC' }).format(
      new Date(`${year}-${month}-${day}T00:00:00Z`),
    );
  return form.replace(DATE_PART, (part) => {
    switch (part) {
      case 'YYYY':
        return year;
      case 'YY':
        return year.slice(2);
      case 'MMMM':
        return monthName('long');
      case 'MMM':
        return monthName('short');
      case 'MM':
        return month;
      case 'M':
        return String(Number(month));
      case 'DD':
        return day;
      case 'D':
        return String(Number(day));
      case 'HH':
        return hour;
      case 'mm':
        return minute;
      default:
        return second;
    }
  });
}

/** A way of filing: how a paper is named, where it goes, and how large its PDF is. */
export interface FilingWay {
  name: string;
  pattern: string;
  /** The path that papers filed like this go to, a pattern too (`Bills/{date:YYYY}`); null for the one that is suggested. */
  folder: string | null;
  /** It is used by itself for papers of these kinds (all when empty) that go into this folder or one inside it (any when null). */
  kinds: string[];
  within: string | null;
  size: 'full' | 'balanced' | 'small';
  /** What is kept beside the PDF, in files of the same name. */
  beside: Beside[];
}

/** The text; a PDF with the text set anew for small screens; a picture of each page. */
export const BESIDES = ['text', 'text-pdf', 'jpeg', 'png'] as const;
export type Beside = (typeof BESIDES)[number];

export const USUAL_WAY: FilingWay = {
  name: 'Usual',
  pattern: USUAL_PATTERN,
  folder: null,
  kinds: [],
  within: null,
  size: 'full',
  beside: [],
};

export const USUAL_MAIL = {
  subject: '{kind}[ {number}][ from {who}][, {date:D MMMM YYYY}]',
  text: 'Hello,\n\nplease find this paper attached.\n',
};

/** The way that says most about a paper of this kind that goes to this folder; the first one when none says anything. */
export function wayFor(ways: readonly FilingWay[], { kind, folder }: { kind?: string; folder?: string }): FilingWay {
  let [best, most] = [ways[0] ?? USUAL_WAY, 0];
  for (const way of ways) {
    if (way.kinds.length > 0 && !way.kinds.includes(kind ?? '')) continue;
    if (way.within && !isWithin(folder ?? '', way.within)) continue;
    const says = (way.within ? 10 + way.within.split('/').length : 0) + (way.kinds.length > 0 ? 1 : 0);
    if (says > most) [best, most] = [way, says];
  }
  return best;
}

function isWithin(path: string, folder: string): boolean {
  const [inner, outer] = [nameKey(path), nameKey(folder)];
  return inner === outer || inner.startsWith(`${outer}/`);
}

/** The folder that a way sends a paper to: each part of its path filled in, parts of which nothing is known left out. */
export function folderBy({ folder }: FilingWay, values: NameValues): string | undefined {
  if (!folder) return undefined;
  const names = folder.split('/').map((part) => (/[{[]/.test(part) ? nameBy(part, values) : part.trim()));
  return names.filter(Boolean).join('/') || undefined;
}

/** What is known of where a paper goes: by a person, by where it lies, by what is suggested; the first of them counts. */
export interface PlaceKnown {
  /** The way that somebody chose for it. */
  chosen?: FilingWay;
  /** The folder that it is in. */
  there?: string | null;
  suggested?: string;
}

/** The folder that a paper is filed in; empty when nothing says one. */
export function folderOf(values: NameValues, { chosen, there, suggested }: PlaceKnown): string {
  return (chosen && folderBy(chosen, values)) ?? there ?? suggested ?? '';
}

/** The way by which a paper in a folder is filed, and the name that it gets there. @param taken keys of names that are taken */
export function filedAs(
  ways: readonly FilingWay[],
  values: NameValues,
  { chosen, folder, taken }: { chosen?: FilingWay; folder: string; taken?: ReadonlySet<string> },
): { way: FilingWay; name: string } {
  const way = chosen ?? wayFor(ways, { kind: values.kind, folder });
  return { way, name: nameBy(way.pattern, { ...values, folder: folder || undefined }, taken) };
}

/** Whether a way names papers by the numbers of their entries, which they get when they are filed. */
export const namesByEntry = ({ pattern }: FilingWay): boolean => mentions(parse(pattern), 'entry');
