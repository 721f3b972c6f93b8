import { lineBox, linesOf, PageText, Word } from './words';

/** What is read of a page: its words, in pixels of a picture of it. */
type Read = Pick<PageText, 'width' | 'height' | 'words'>;

/** How much of a page's height its edges take, where page numbers stand. */
const EDGE = 0.13;
/** No page has a higher number. */
const HIGHEST = 4999;
/** A number that cannot be seen on more pages in a row is lost. */
const LOOK_BACK = 12;
/** Of so many pages numbers must follow each other, and on such a share of the pages with words. */
const LEAST_FOLLOWING = 4;
const LEAST_NUMBERED = 0.5;

/** What speaks for a number behind another: that it counts on, that it is the same again, or that it leaps, when others must follow it. */
const [FOLLOWS, AGAIN, LEAPS] = [1, 0.3, -0.5];
/** What speaks against each page between that has other numbers. */
const PASSED_OVER = 0.4;

/** Numbers that may be the page's own: alone on a line at its head or foot, or first or last in one. */
function numbersAtEdges({ words, height }: Read): number[] {
  const lines = linesOf(words).filter((line) => {
    const [, y, , h] = lineBox(line);
    return y + h < EDGE * height || y > (1 - EDGE) * height;
  });
  const found = lines.flatMap((line) => {
    const texts = line.map(({ text }) => text).filter((text) => /[\p{L}\p{N}]/u.test(text));
    return [...texts.slice(0, 1), ...texts.slice(-1)];
  });
  const numbers = found.flatMap((text) => /^[-–—[(]?(\d{1,4})[-–—\])]?$/.exec(text)?.[1] ?? []).map(Number);
  return [...new Set(numbers)].filter((number) => number >= 1 && number <= HIGHEST);
}

/**
 * The numbers printed on pages that follow each other: of what stands at their edges the numbers that count on with the pages, found as the
 * heaviest path (dynamic programming). A page may be missing, and a page or an open book may be there twice.
 * @returns for each page its number, also where it cannot be seen but follows from its neighbours; null where nothing follows; all null
 *   when too few numbers count on
 */
export function printedNumbers(pages: readonly Read[]): (number | null)[] {
  interface Step {
    page: number;
    number: number;
    weight: number;
    following: number;
    length: number;
    before?: Step;
  }
  const steps: Step[] = [];
  const seen = pages.map(numbersAtEdges);
  seen.forEach((numbers, at) => {
    for (const number of numbers) {
      let best: Step = { page: at, number, weight: 1, following: 0, length: 1 };
      for (let each = steps.length - 1; each >= 0 && at - steps[each].page <= LOOK_BACK; each--) {
        const before = steps[each];
        const [on, by] = [at - before.page, number - before.number];
        if (on < 1 || by < -1 || by > on + LOOK_BACK) continue;
        const follows = by === on;
        const passed = seen.slice(before.page + 1, at).filter((others) => others.length > 0).length;
        const weight = before.weight + (follows ? FOLLOWS : by === 0 ? AGAIN : LEAPS) - PASSED_OVER * passed;
        const following = before.following + (follows ? 1 : 0);
        if (weight > best.weight) best = { page: at, number, weight, following, length: before.length + 1, before };
      }
      steps.push(best);
    }
  });
  const last = steps.reduce<Step | undefined>(
    (best, step) => (best && best.weight >= step.weight ? best : step),
    undefined,
  );
  const numbers = pages.map((): number | null => null);
  const printed = pages.filter(({ words }) => words.length > 0).length;
  if (!last || last.following < LEAST_FOLLOWING - 1 || last.length < LEAST_NUMBERED * printed) return numbers;
  for (let step: Step | undefined = last; step; step = step.before) {
    numbers[step.page] = step.number;
    const { before } = step;
    // What lies between, where as many pages lie between as numbers.
    if (before && step.number - before.number === step.page - before.page)
      for (let at = before.page + 1; at < step.page; at++) numbers[at] = before.number + at - before.page;
    if (!before) for (let by = 1; by <= step.page && by < step.number; by++) numbers[step.page - by] = step.number - by;
  }
  for (let at = last.page + 1; at < pages.length; at++) numbers[at] = last.number + at - last.page;
  return numbers;
}

/** What is wrong with the pages by the numbers printed on them: some missing between two, or one that is there twice. */
export type NumberingFault =
  { code: 'missing'; after: number; before: number; count: number } | { code: 'twice'; number: number };

/** @param numbers as `printedNumbers` gives them */
export function numberingFaults(numbers: readonly (number | null)[]): NumberingFault[] {
  const faults: NumberingFault[] = [];
  const seen = new Map<number, number>();
  let before: { at: number; number: number } | undefined;
  numbers.forEach((number, at) => {
    if (number === null) return;
    seen.set(number, (seen.get(number) ?? 0) + 1);
    const count = before ? number - before.number - (at - before.at) : 0;
    if (before && count > 0) faults.push({ code: 'missing', after: before.number, before: number, count });
    before = { at, number };
  });
  for (const [number, times] of seen) if (times > 1) faults.push({ code: 'twice', number });
  return faults;
}

/** A fault in a sentence for the person. */
export function sayNumberingFault(fault: NumberingFault): string {
  if (fault.code === 'twice') return `Page ${fault.number} seems to be there twice.`;
  const { after, before, count } = fault;
  const seem = count === 1 ? 'seems' : 'seem';
  if (before - after - 1 === count) {
    const pages = count === 1 ? `Page ${after + 1}` : `Pages ${after + 1} to ${before - 1}`;
    return `${pages} ${seem} to be missing.`;
  }
  return `${count === 1 ? 'A page' : `${count} pages`} between ${after} and ${before} ${seem} to be missing.`;
}

/** A heading, on which page it stands (from 0), and how far down, as a share of the page's height. */
export interface Heading {
  text: string;
  page: number;
  top: number;
}

/** From so many pages on a document has an outline, of so many headings at least. */
const LEAST_PAGES = 6;
const LEAST_HEADINGS = 2;
/** A heading's letters are so much larger than most; it has so many words at the most. */
const LARGER = 1.3;
const MOST_WORDS = 12;
/** What stands at the head of so many pages is no heading. */
const RUNNING = 3;
const CHAPTER = /^(chapter|part|kapitel|teil|abschnitt|chapitre|partie)\s+(\d{1,3}|[ivxlc]+)\b/i;

/**
 * The headings of a long document, in their order: lines of few words in larger letters than the rest, and what calls itself a chapter.
 * @returns none where it is short, or has hardly any, or more than a heading and a half a page: then they are none
 */
export function headingsOf(pages: readonly Read[]): Heading[] {
  if (pages.length < LEAST_PAGES) return [];
  // Pages come in pictures of different sizes.
  const sizes = pages.flatMap(({ words, height }) => words.map(({ box }) => box[3] / height)).sort((a, b) => a - b);
  const usual = sizes[sizes.length >> 1] ?? 1;
  const found = pages.flatMap(({ words, height }, page): (Heading & { tall: number })[] => {
    const joined: (Heading & { tall: number })[] = [];
    for (const line of linesOf(words)) {
      const text = line.map((word) => word.text).join(' ');
      const tall = letterHeight(line) / height;
      const [, y] = lineBox(line);
      if (line.length > MOST_WORDS || (text.match(/\p{L}/gu)?.length ?? 0) < 3) continue;
      if (tall < LARGER * usual && !CHAPTER.test(text)) continue;
      const above = joined[joined.length - 1];
      const goesOn = above && Math.abs(tall / above.tall - 1) < 0.2 && y / height - above.top < 2.2 * above.tall;
      if (goesOn) above.text += ` ${text}`;
      else joined.push({ text, page, top: y / height, tall });
    }
    return joined;
  });
  const often = new Map<string, number>();
  for (const { text } of found) often.set(text, (often.get(text) ?? 0) + 1);
  const headings = found.filter(({ text }) => often.get(text)! < RUNNING);
  if (headings.length < LEAST_HEADINGS || headings.length > 1.5 * pages.length) return [];
  return headings.map(({ text, page, top }) => ({ text, page, top }));
}

/** The middling height of a line's words. */
function letterHeight(line: readonly Word[]): number {
  const heights = line.map(({ box }) => box[3]).sort((a, b) => a - b);
  return heights[heights.length >> 1];
}
