import { dayNumber, MatchLine, OpenEntry } from './entry';
import { Habit, HabitIndex } from './habits';
import { NameIndex, nameWords } from './names';
import { NumberFound, NumberIndex } from './numbers';

/** Everything in the logarithm of odds: how much more often it is seen of what belongs together than of what does not. */
const NAME_MISSING = -2.5;
/** A word that so large a share of the lines has says nothing of whom one is about. */
const COMMON = 0.03;
const NUMBER: Record<NumberFound, number> = { all: 9, figures: 6, last: 3, none: 0 };
/**
 * A few lines say little of how often something is seen: as if so many more, in which it is not, had been seen as well (additive smoothing, after
 * Laplace).
 */
export const AS_IF = 100;
/** A number of few figures stands somewhere by chance more often. */
const SHORT_NUMBER = 3;
const FEW_FIGURES = 4;
/** Most lines say some number, if they say any, and it is the paper's. */
const OTHER_NUMBER = -0.9;
const NUMBER_OF_ANOTHER = -3;
/** Bills are paid on time by some, and by others for weeks after. */
const LATEST = 60;
const EARLIEST = -45;
const SPREAD = 5;
const USUAL_TERM = 14;
/** A day before its paper is one that was paid ahead, or of another. */
const BEFORE_PAPER = 3;

/** What is known of entries and lines, looked up once, and what it says about each pair. */
export class Evidence {
  readonly entryDays: { day: number; due: number }[];
  readonly lineDays: number[];
  private readonly likeness: Map<number, number>[];
  private readonly numbers: { found: Map<number, NumberFound>; others: boolean }[];
  private readonly numberIndex: NumberIndex;
  /** The place of each entry's name among the names. */
  readonly nameOf: readonly number[];
  /** How often lines are about each name. */
  private readonly nameShare: number[];
  private readonly entriesByName: number[][];
  /** How many words of each line may say who it is about. */
  private readonly words: number[];
  private readonly span: number;
  /** The odds, before anything is known, that an entry and a line belong together. */
  readonly prior: number;

  constructor(
    readonly entries: readonly OpenEntry[],
    readonly lines: readonly MatchLine[],
    habits: readonly Habit[] = [],
  ) {
    const names = [...new Set(entries.map(({ who }) => who))];
    const places = new Map(names.map((name, at) => [name, at]));
    this.nameOf = entries.map(({ who }) => places.get(who)!);
    this.entriesByName = names.map(() => []);
    this.nameOf.forEach((name, entry) => this.entriesByName[name].push(entry));
    const index = new NameIndex(names);
    this.numberIndex = new NumberIndex(entries.map(({ number }) => number));
    const said = lines.map(({ who, text }) => `${who} ${text}`);
    this.likeness = said.map((text) => index.likeness(text));
    this.learn(new HabitIndex(habits), places);
    this.numbers = said.map((text) => this.numberIndex.in(text));
    this.words = rareWords(said);
    const counts = names.map(() => 0);
    for (const likeness of this.likeness) for (const [name, how] of likeness) if (how >= 0.8) counts[name]++;
    this.nameShare = counts.map((count) => (count + 0.5) / (lines.length + AS_IF));
    this.entryDays = entries.map(({ day, due }) => {
      const from = dayNumber(day);
      return { day: from, due: due ? dayNumber(due) : from + USUAL_TERM };
    });
    this.lineDays = lines.map(({ day }) => dayNumber(day));
    this.span = Math.max(60, rangeOf(this.lineDays));
    this.prior = -Math.log(Math.max(entries.length, lines.length, 2));
  }

  /** Whom lines were about before that had the same words is whom they are about, whatever their words are like. */
  private learn(habits: HabitIndex, places: ReadonlyMap<string, number>): void {
    this.lines.forEach((line, at) => {
      for (const { who, share } of habits.of(line)) {
        const place = places.get(who);
        if (place !== undefined && share > (this.likeness[at].get(place) ?? 0)) this.likeness[at].set(place, share);
      }
    });
  }

  /** Entries whose number stands in a line. */
  numbered(line: number): [number, NumberFound][] {
    return [...this.numbers[line].found];
  }

  /** Entries of those whom a line is about, at least so much. */
  of(line: number, least: number): number[] {
    const found: number[] = [];
    for (const [name, how] of this.likeness[line])
      if (how >= least) for (const entry of this.entriesByName[name]) found.push(entry);
    return found;
  }

  /** Entries of the same name as one. */
  ofSame(entry: number): readonly number[] {
    return this.entriesByName[this.nameOf[entry]];
  }

  nameLikeness(entry: number, line: number): number {
    return this.likeness[line].get(this.nameOf[entry]) ?? 0;
  }

  numberFound(entry: number, line: number): NumberFound {
    return this.numbers[line].found.get(entry) ?? 'none';
  }

  /** What name, number and day say of a pair; the amount left out. */
  besides(entry: number, line: number): number {
    return this.name(entry, line) + this.number(entry, line) + this.day(entry, line);
  }

  private name(entry: number, line: number): number {
    const how = this.nameLikeness(entry, line);
    const most = Math.min(6, Math.max(0.7, Math.log(0.85 / this.nameShare[this.nameOf[entry]])));
    if (how >= 0.8) return most;
    if (how >= 0.45) return most * (how - 0.25);
    if (how >= 0.2 || this.words[line] < 1) return 0;
    return NAME_MISSING;
  }

  private number(entry: number, line: number): number {
    const how = this.numberFound(entry, line);
    if (how !== 'none') return NUMBER[how] - (this.numberIndex.figures(entry) < FEW_FIGURES ? SHORT_NUMBER : 0);
    const { found, others } = this.numbers[line];
    const isOfAnother = [...found.values()].some((each) => each === 'all' || each === 'figures');
    return isOfAnother ? NUMBER_OF_ANOTHER : others ? OTHER_NUMBER : 0;
  }

  /** A mixture of those who pay on the day and those who don't, beside any day at all. */
  private day(entry: number, line: number): number {
    const { day, due } = this.entryDays[entry];
    const at = this.lineDays[line];
    if (at < day - BEFORE_PAPER) return -3 - Math.min(7, (day - at) / 15);
    const late = at - due;
    const onTime = Math.exp(-Math.abs(late) / SPREAD) / (2 * SPREAD);
    const some = late >= EARLIEST && late <= LATEST ? 1 / (LATEST - EARLIEST) : 0;
    const any = Math.exp(-Math.max(0, late - LATEST) / 40) * 0.0006;
    return Math.log((0.5 * onTime + 0.5 * some + any) * this.span);
  }
}

/** How many words of each line are not such as many lines have: those are the bank's own. */
function rareWords(lines: readonly string[]): number[] {
  const words = lines.map((line) => [...new Set(nameWords(line).filter((word) => word.length >= 3))]);
  const counts = new Map<string, number>();
  for (const word of words.flat()) counts.set(word, (counts.get(word) ?? 0) + 1);
  const many = Math.max(3, lines.length * COMMON);
  return words.map((own) => own.filter((word) => counts.get(word)! <= many).length);
}

function rangeOf(days: readonly number[]): number {
  let [least, most] = [Infinity, -Infinity];
  for (const day of days) [least, most] = [Math.min(least, day), Math.max(most, day)];
  return Number.isFinite(least) ? most - least + 1 : 0;
}
