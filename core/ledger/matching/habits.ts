import { MatchLine } from './entry';
import { nameWords } from './names';

/** Whom lines with the same words were found to be about, by ties that somebody made. */
export interface Habit {
  /** The words of such lines; see `lineKey`. */
  key: string;
  /** As in the entries. */
  who: string;
  /** How often. */
  times: number;
}

/** The words by which a line of a statement is known again: of whom it is about, or of its text where it doesn't say who. */
export function lineKey({ who, text }: Pick<MatchLine, 'who' | 'text'>): string {
  const words = nameWords(who);
  return (words.length > 0 ? words : nameWords(text)).join(' ');
}

/** What ties that were made say of whom lines are about: of one with several entries of one name as well. */
export function habitsOf(ties: readonly { who: readonly string[]; lines: readonly MatchLine[] }[]): Habit[] {
  const habits = new Map<string, Habit>();
  for (const { who, lines } of ties) {
    const [name, ...others] = new Set(who);
    if (!name || others.length > 0) continue;
    for (const key of new Set(lines.map(lineKey))) {
      if (!key) continue;
      const habit = habits.get(`${key}\n${name}`) ?? { key, who: name, times: 0 };
      habit.times++;
      habits.set(`${key}\n${name}`, habit);
    }
  }
  return [...habits.values()];
}

/** How much a line is about each of those whom such lines were about before: the share of the times, from 0 to 1. */
export class HabitIndex {
  private readonly byKey = new Map<string, { who: string; share: number }[]>();

  constructor(habits: readonly Habit[]) {
    const sums = new Map<string, number>();
    for (const { key, times } of habits) sums.set(key, (sums.get(key) ?? 0) + times);
    for (const { key, who, times } of habits)
      this.byKey.set(key, [...(this.byKey.get(key) ?? []), { who, share: times / sums.get(key)! }]);
  }

  of(line: MatchLine): readonly { who: string; share: number }[] {
    return this.byKey.get(lineKey(line)) ?? [];
  }
}
