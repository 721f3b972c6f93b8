import { dayNumber } from '../matching/entry';
import { NameIndex } from '../matching/names';

/** What is compared of a paper and of an entry; money in the smallest unit of its currency, days in ISO 8601 or ''. */
export interface Comparable {
  who: string;
  number: string;
  day: string;
  units: number | null;
  currency: string;
}

/** What a paper and an entry have alike. */
export type Alike = 'number' | 'amount' | 'who' | 'day';

/** An entry that a paper may prove. */
export interface Fit {
  id: string;
  /** From 0 to 1: that it is of this entry, and not of another or of none. */
  confidence: number;
  alike: Alike[];
}

/** Everything in the logarithm of odds, as in matching lines of statements (Fellegi & Sunter 1969). */
const NUMBER = { same: 6, other: -3 };
const AMOUNT = { same: 4, other: -4.5 };
const WHO = { same: 3.5, alike: 1.5, other: -3 };
const DAY: [within: number, odds: number][] = [
  [0, 2.5],
  [3, 1.5],
  [14, 0.5],
  [45, -0.5],
];
const FAR = -3;
const PRIOR = -2;
const LEAST_NUMBER = 2;
/** What is less likely is not worth a look. */
const LEAST = 0.2;

const closed = (number: string) =>
  number
    .toUpperCase()
    .replace(/[^\p{L}\p{N}]/gu, '')
    .replace(/^0+/, '');

/**
 * The entries without a paper that a paper may be of, the likeliest first: by number, amount, who it is from and its day.
 * @param entries those that lack one
 */
export function entriesFor(paper: Comparable, entries: readonly (Comparable & { id: string })[]): Fit[] {
  return fitsAmong(paper, entries, new NameIndex(entries.map(({ who }) => who)));
}

/**
 * Which entry each of several papers is likely of, each entry for one paper: the likeliest pairs first. @returns by the papers' places
 */
export function pairPapers(
  papers: readonly Comparable[],
  entries: readonly (Comparable & { id: string })[],
): Map<number, Fit> {
  const names = new NameIndex(entries.map(({ who }) => who));
  const all = papers.flatMap((paper, at) => fitsAmong(paper, entries, names).map((fit) => ({ at, fit })));
  const found = new Map<number, Fit>();
  const taken = new Set<string>();
  for (const { at, fit } of all.sort((a, b) => b.fit.confidence - a.fit.confidence)) {
    if (found.has(at) || taken.has(fit.id)) continue;
    found.set(at, fit);
    taken.add(fit.id);
  }
  return found;
}

function fitsAmong(paper: Comparable, entries: readonly (Comparable & { id: string })[], names: NameIndex): Fit[] {
  const likeness = names.likeness(paper.who);
  const number = closed(paper.number);
  const weighed = entries.map((entry, at) => {
    const alike: Alike[] = [];
    let odds = PRIOR;
    const own = closed(entry.number);
    if (number.length >= LEAST_NUMBER && own.length >= LEAST_NUMBER) {
      odds += number === own ? NUMBER.same : NUMBER.other;
      if (number === own) alike.push('number');
    }
    if (paper.units !== null) {
      const isSame = paper.units === entry.units && (!paper.currency || paper.currency === entry.currency);
      odds += isSame ? AMOUNT.same : AMOUNT.other;
      if (isSame) alike.push('amount');
    }
    if (paper.who) {
      const how = likeness.get(at) ?? 0;
      odds += how >= 0.8 ? WHO.same : how >= 0.4 ? WHO.alike : WHO.other;
      if (how >= 0.4) alike.push('who');
    }
    if (paper.day) {
      const apart = Math.abs(dayNumber(paper.day) - dayNumber(entry.day));
      odds += DAY.find(([within]) => apart <= within)?.[1] ?? FAR;
      if (apart <= DAY[1][0]) alike.push('day');
    }
    return { id: entry.id, odds: Math.exp(odds), alike };
  });
  // One of them, or none.
  const all = weighed.reduce((sum, { odds }) => sum + odds, 1);
  return weighed
    .map(({ id, odds, alike }) => ({ id, confidence: odds / all, alike }))
    .filter(({ confidence }) => confidence >= LEAST)
    .sort((a, b) => b.confidence - a.confidence);
}
