import { MatchLine } from '../matching/entry';
import { lineKey } from '../matching/habits';

/** How lines of statements are entered for which no bill comes: rent, salaries, what the bank charges. Learnt from one that somebody entered. */
export interface LineRule {
  id: string;
  /** The words of such lines; see `lineKey`. */
  key: string;
  /** Whether it is of money that goes out. */
  out: boolean;
  who: string;
  what: string;
  categoryId: string | null;
  taxCode: string | null;
  rate: number | null;
}

/** Which rule enters each line, by the line's place; the latest rule for the same words holds. */
export function rulesFor(lines: readonly MatchLine[], rules: readonly LineRule[]): Map<number, LineRule> {
  const byKey = new Map(rules.map((rule) => [`${rule.key} ${rule.out}`, rule]));
  const found = new Map<number, LineRule>();
  lines.forEach((line, at) => {
    const key = lineKey(line);
    const rule = key && byKey.get(`${key} ${line.units < 0}`);
    if (rule) found.set(at, rule);
  });
  return found;
}
