import { amountsSaid, placeIn, roundness } from './amounts';
import { assign, Candidate } from './assign';
import { MatchLine, OpenEntry, Tie, TieReason } from './entry';
import { AS_IF, Evidence } from './evidence';
import { Habit } from './habits';
import { comingTo } from './groups';

/** What is less likely than this is not even proposed. */
const LEAST = 0.15;
/** What is so much less likely than the best of the same entry and of the same line is left out. */
const FAR_BEHIND = 1e-4;
const MOST_SCORE = 25;
/** Of what is bought for cash with so many hundredths off. */
const DISCOUNTS = [1, 1.5, 2, 2.5, 3, 4, 5];
const NEAR = 0.035;
/** Days around a line or an entry in which others may belong to it, too. */
const POOL_BEFORE = 120;
const POOL_AFTER = 20;
const PARTS_AFTER = 240;
const LIKE = 0.55;
/** Several that come to a sum, of which no line says a number, are never sure. */
const MOST_UNSAID = 0.93;

/** Odds, as logarithms, that an amount differs in such a way when entry and line belong together, against that it does so by chance. */
const BY_DISCOUNT = 3;
const BY_RATE = 2.5;
const BY_ANY_RATE = 0.2;
const BY_OTHER_RATE = -2.5;
const BY_SAID_AMOUNT = 6;
const BY_PART = -2.3;

interface Single extends Candidate {
  why: TieReason;
}

/**
 * Which entries and which lines of statements belong together: one with one; one line that pays several entries; several lines that pay
 * one; with a discount, a fee, or in another currency. By the odds that amount, name, number and day give (record linkage after Fellegi
 * & Sunter 1969), each entry and line once, with the chance of each over all ways in which they may go together.
 * @param habits what ties that were made before say of whom lines are about
 * @returns the likeliest first
 */
export function matchPayments(
  entries: readonly OpenEntry[],
  lines: readonly MatchLine[],
  { habits = [] }: { habits?: readonly Habit[] } = {},
): Tie[] {
  return new Matching(entries, withCurrency(lines, entries), habits).ties();
}

/** Lines of statements that do not say their currency are in the one that most entries are in. */
function withCurrency(lines: readonly MatchLine[], entries: readonly OpenEntry[]): readonly MatchLine[] {
  const counts = new Map<string | null, number>();
  for (const { currency } of entries) counts.set(currency, (counts.get(currency) ?? 0) + 1);
  const [usual] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [null];
  return usual === null ? lines : lines.map((line) => (line.currency ? line : { ...line, currency: usual }));
}

class Matching {
  private readonly evidence: Evidence;
  private readonly freeEntries: Set<number>;
  private readonly freeLines: Set<number>;
  private readonly byUnits = new Map<number, number[]>();
  private readonly unitsShare: (units: number) => number;
  /** All amounts, the least first. */
  private readonly amounts: Float64Array;
  /** What amounts each line says beside its own. */
  private readonly said: ReadonlySet<number>[];
  /** The same for entries that are in twice. */
  private readonly keys: string[];
  private readonly rates = new Map<string, number>();
  /** Entries that are tied to a line that says their number. */
  private readonly numberedTies = new Set<number>();
  private readonly found: Tie[] = [];

  constructor(
    private readonly entries: readonly OpenEntry[],
    private readonly lines: readonly MatchLine[],
    habits: readonly Habit[],
  ) {
    this.evidence = new Evidence(entries, lines, habits);
    this.said = lines.map(({ text }) => amountsSaid(text));
    this.keys = entries.map(({ number, who, units }, at) => (number ? `${number} ${who} ${units}` : String(at)));
    this.freeEntries = new Set(entries.keys());
    this.freeLines = new Set(lines.keys());
    const counts = new Map<number, number>();
    entries.forEach(({ units }, at) => {
      const same = this.byUnits.get(units);
      if (same) same.push(at);
      else this.byUnits.set(units, [at]);
      counts.set(units, (counts.get(units) ?? 0) + 1);
    });
    for (const { units } of lines) counts.set(-units, (counts.get(-units) ?? 0) + 1);
    const all = entries.length + lines.length + AS_IF;
    this.amounts = Float64Array.from([...entries, ...lines], ({ units }) => Math.abs(units)).sort();
    this.unitsShare = (units) => Math.max(1, (counts.get(units) ?? 1) - 1 + roundness(units)) / all;
  }

  ties(): Tie[] {
    this.tieNumbered();
    this.tieSingles((line) => this.sameAmounts(line));
    this.tieTogether();
    this.tieParts();
    this.findRates();
    this.tieSingles((line) => this.otherAmounts(line));
    this.tieLoneParts();
    return this.found.sort((a, b) => b.confidence - a.confidence);
  }

  private keep(tie: Tie): void {
    this.found.push(tie);
    for (const entry of tie.entries)
      if (tie.lines.some((line) => isNumbered(this.evidence.numberFound(entry, line)))) this.numberedTies.add(entry);
    for (const entry of tie.entries) this.freeEntries.delete(entry);
    for (const line of tie.lines) this.freeLines.delete(line);
  }

  /** Lines that name the numbers of several entries that come to their amount. */
  private tieNumbered(): void {
    for (const line of this.freeLines) {
      const entries = this.numberedOf(line);
      if (entries.length < 2) continue;
      const sum = entries.reduce((all, entry) => all + this.entries[entry].units, 0);
      if (sum === -this.lines[line].units) this.keep({ entries, lines: [line], confidence: 0.9995, why: 'together' });
    }
  }

  /** The open entries whose numbers a line says, each number once. */
  private numberedOf(line: number): number[] {
    const found = this.evidence
      .numbered(line)
      .filter(([entry, how]) => isNumbered(how) && this.freeEntries.has(entry) && this.isSameCurrency(entry, line));
    return this.eachOnce(found.map(([entry]) => entry));
  }

  private tieSingles(candidatesOf: (line: number) => Single[]): void {
    const all = [...this.freeLines].flatMap(candidatesOf);
    const [bestOfEntry, bestOfLine] = [new Map<number, number>(), new Map<number, number>()];
    for (const { entry, line, odds } of all) {
      bestOfEntry.set(entry, Math.max(odds, bestOfEntry.get(entry) ?? 0));
      bestOfLine.set(line, Math.max(odds, bestOfLine.get(line) ?? 0));
    }
    const kept = all.filter(
      ({ entry, line, odds }) => odds > FAR_BEHIND * Math.max(bestOfEntry.get(entry)!, bestOfLine.get(line)!),
    );
    const why = new Map(kept.map(({ entry, line, why: reason }) => [`${entry} ${line}`, reason]));
    const { entryDays, lineDays } = this.evidence;
    const tied = assign(kept, { entry: (at) => entryDays[at].due, line: (at) => lineDays[at] });
    for (const { entry, line, confidence } of tied) {
      if (confidence < LEAST) continue;
      const isSaid = isNumbered(this.evidence.numberFound(entry, line));
      const tie = { entries: [entry], lines: [line], why: why.get(`${entry} ${line}`)! };
      this.keep({ ...tie, confidence: isSaid ? confidence : tempered(confidence) });
    }
  }

  /** Entries of the very amount of a line. */
  private sameAmounts(line: number): Single[] {
    const units = -this.lines[line].units;
    return (this.byUnits.get(units) ?? [])
      .filter((entry) => this.freeEntries.has(entry) && this.isSameCurrency(entry, line))
      .map((entry) => this.single(entry, line, Math.log(0.8 / this.unitsShare(units)), 'amount'));
  }

  /** Entries of nearly the amount of a line, of whom it is about or whose number it says. */
  private otherAmounts(line: number): Single[] {
    const { evidence } = this;
    const those = new Set([...evidence.of(line, LIKE), ...evidence.numbered(line).map(([entry]) => entry)]);
    return [...those].flatMap((entry) => {
      if (!this.freeEntries.has(entry) || !this.mayPay(entry, line)) return [];
      const how = this.difference(entry, line);
      return how ? [this.single(entry, line, how.odds, how.why)] : [];
    });
  }

  /** In what way an amount that is not the same may be it all the same. */
  private difference(entry: number, line: number): { odds: number; why: TieReason } | undefined {
    const [wanted, paid] = [Math.abs(this.entries[entry].units), Math.abs(this.lines[line].units)];
    const isSaid = this.said[line].has(wanted);
    if (!this.isSameCurrency(entry, line)) {
      if (isSaid) return { odds: BY_SAID_AMOUNT, why: 'exchange' };
      const usual = this.rates.get(`${this.entries[entry].currency} ${this.lines[line].currency}`);
      const rate = paid / wanted;
      if (usual) {
        const off = Math.abs(rate / usual - 1);
        return { odds: off < 0.04 ? BY_RATE : off < 0.12 ? BY_RATE - 1.5 : BY_OTHER_RATE, why: 'exchange' };
      }
      return rate > 0.4 && rate < 2.5 ? { odds: BY_ANY_RATE, why: 'exchange' } : undefined;
    }
    if (DISCOUNTS.some((hundredths) => Math.abs(Math.round((wanted * (100 - hundredths)) / 100) - paid) <= 1))
      return { odds: BY_DISCOUNT, why: 'discount' };
    const off = Math.abs(paid - wanted);
    if (off > Math.max(300, wanted * NEAR)) return isSaid ? { odds: BY_RATE, why: 'exchange' } : undefined;
    // Whoever pays bears the fee, or whoever is paid gets less.
    const isUsual = paid > wanted === this.entries[entry].units > 0;
    return { odds: Math.log((isUsual ? 0.04 : 0.01) / this.shareWithin(wanted, off)), why: 'fee' };
  }

  /** How many of all amounts lie so near to one, as a share. */
  private shareWithin(units: number, off: number): number {
    const from = placeIn(this.amounts, units - off);
    const to = placeIn(this.amounts, units + off + 1);
    return Math.max(1, to - from) / this.amounts.length;
  }

  /** What was paid for one unit of another currency, in the middle, as far as lines say it or numbers tell it. */
  private findRates(): void {
    const rates = new Map<string, number[]>();
    for (const line of this.freeLines) {
      const { evidence } = this;
      const those = new Set([...evidence.of(line, LIKE), ...evidence.numbered(line).map(([entry]) => entry)]);
      for (const entry of those) {
        if (!this.freeEntries.has(entry) || this.isSameCurrency(entry, line) || !this.mayPay(entry, line)) continue;
        const [wanted, paid] = [Math.abs(this.entries[entry].units), Math.abs(this.lines[line].units)];
        if (!isNumbered(evidence.numberFound(entry, line)) && !this.said[line].has(wanted)) continue;
        const key = `${this.entries[entry].currency} ${this.lines[line].currency}`;
        rates.set(key, [...(rates.get(key) ?? []), paid / wanted]);
      }
    }
    for (const [key, all] of rates) this.rates.set(key, all.sort((a, b) => a - b)[all.length >> 1]);
  }

  private single(entry: number, line: number, amount: number, why: TieReason): Single {
    const score = this.evidence.prior + amount + this.evidence.besides(entry, line);
    return { entry, line, odds: Math.exp(Math.min(MOST_SCORE, score)), why };
  }

  /** One line that pays several entries of those whom it is about. */
  private tieTogether(): void {
    const { evidence } = this;
    for (const line of this.freeLines) {
      const at = evidence.lineDays[line];
      const numbered = evidence.numbered(line).filter(([, how]) => isNumbered(how));
      const those = new Set([...evidence.of(line, LIKE), ...numbered.flatMap(([entry]) => evidence.ofSame(entry))]);
      const near = [...those].filter((entry) => {
        const { day } = evidence.entryDays[entry];
        const isNear = day <= at + POOL_AFTER && day >= at - POOL_BEFORE;
        return isNear && this.freeEntries.has(entry) && this.isSameCurrency(entry, line);
      });
      const pool = this.eachOnce(near).sort((a, b) => evidence.entryDays[b].day - evidence.entryDays[a].day);
      if (pool.length < 2) continue;
      const named = this.numberedOf(line);
      const left = named.reduce((sum, entry) => sum - this.entries[entry].units, -this.lines[line].units);
      const others = pool.filter((entry) => !named.includes(entry));
      const units = (those: readonly number[]) => those.map((entry) => this.entries[entry].units);
      // Those whose numbers it says, and what is left of it for others of the same; else any of them.
      const beside = named.length > 0 ? comingTo(left, units(others), 1) : undefined;
      const sum = beside ?? comingTo(-this.lines[line].units, units(pool));
      if (!sum) continue;
      const found = sum.of.map((place) => (beside ? others : pool)[place]);
      const entries = beside ? [...named, ...found] : found;
      const rivals = Math.max(...found.map((entry) => this.rivals(entry, [line])));
      const confidence =
        this.groupConfidence(
          sum,
          entries.map((entry) => [entry, line]),
        ) / rivals;
      if (confidence >= LEAST) this.keep({ entries, lines: [line], confidence, why: 'together' });
    }
  }

  /** Several lines that pay one entry, one after the other. */
  private tieParts(): void {
    const { evidence } = this;
    const linesOf = new Map<number, number[]>();
    for (const line of this.freeLines) {
      const those = new Set([...evidence.of(line, LIKE), ...evidence.numbered(line).map(([entry]) => entry)]);
      for (const entry of those)
        if (this.freeEntries.has(entry) && this.isPart(entry, line))
          linesOf.set(entry, [...(linesOf.get(entry) ?? []), line]);
    }
    // Those with a number first: what it says is of them.
    const order = [...linesOf].sort(
      ([a, own], [b, others]) => this.numberedAmong(b, others) - this.numberedAmong(a, own),
    );
    for (const [entry, all] of order) {
      const free = all.filter((line) => this.freeLines.has(line));
      if (free.length < 2) continue;
      const numbered = free.filter((line) => isNumbered(evidence.numberFound(entry, line)));
      const units = -this.entries[entry].units;
      const left = numbered.reduce((sum, line) => sum - this.lines[line].units, units);
      const from = evidence.entryDays[entry].due;
      const others = free
        .filter((line) => !numbered.includes(line))
        .sort((a, b) => Math.abs(evidence.lineDays[a] - from) - Math.abs(evidence.lineDays[b] - from));
      // All that say its number, and what is left of it from those who pay without a word.
      const sum =
        numbered.length >= 2 && left === 0
          ? { of: [], ways: 1, byChance: 0 }
          : comingTo(
              left,
              others.map((line) => this.lines[line].units),
              numbered.length > 0 ? 1 : 2,
            );
      if (!sum) continue;
      const lines = [...numbered, ...sum.of.map((place) => others[place])];
      const rivals = numbered.length > 0 ? 1 : this.rivals(entry, lines);
      const confidence =
        this.groupConfidence(
          sum,
          lines.map((line) => [entry, line]),
        ) / rivals;
      if (confidence >= LEAST)
        this.keep({ entries: [entry], lines: lines.sort((a, b) => a - b), confidence, why: 'parts' });
    }
  }

  /** Without entries that are in twice: of the same number, name and amount. */
  private eachOnce(those: readonly number[]): number[] {
    const seen = new Set<string>();
    return those.filter((entry) => !seen.has(this.keys[entry]) && seen.add(this.keys[entry]));
  }

  /**
   * How many entries of the same amount and name such lines might pay as well, whether they are open or tied without their number: what is
   * tied to them may be this one's.
   */
  private rivals(entry: number, lines: readonly number[]): number {
    const { evidence } = this;
    const { number, units } = this.entries[entry];
    if (lines.some((line) => isNumbered(evidence.numberFound(entry, line)))) return 1;
    const might = (this.byUnits.get(units) ?? []).filter(
      (other) =>
        (other === entry || !number || this.entries[other].number !== number) &&
        !this.numberedTies.has(other) &&
        evidence.nameOf[other] === evidence.nameOf[entry] &&
        lines.every((line) => this.isNearInTime(other, line)),
    );
    return Math.max(1, might.length);
  }

  private isNearInTime(entry: number, line: number): boolean {
    const { entryDays, lineDays } = this.evidence;
    const since = lineDays[line] - entryDays[entry].day;
    return since >= -10 && since <= POOL_BEFORE;
  }

  /** A part of an entry of which no more has come yet: told by its number only, and never sure. */
  private tieLoneParts(): void {
    const { evidence } = this;
    const candidates = [...this.freeLines].flatMap((line) =>
      evidence.numbered(line).flatMap(([entry, how]) => {
        if (!this.freeEntries.has(entry) || !isNumbered(how) || !this.isPart(entry, line)) return [];
        return [this.single(entry, line, BY_PART, 'part')];
      }),
    );
    const taken = new Set<number>();
    for (const { entry, odds } of candidates.toSorted((a, b) => b.odds - a.odds)) {
      if (taken.has(entry) || !this.freeEntries.has(entry)) continue;
      taken.add(entry);
      // All parts that say its number, as long as they do not come to more than it.
      const lines: number[] = [];
      let sum = 0;
      for (const part of candidates.filter((each) => each.entry === entry)) {
        const units = Math.abs(this.lines[part.line].units);
        if (!this.freeLines.has(part.line) || sum + units > Math.abs(this.entries[entry].units)) continue;
        sum += units;
        lines.push(part.line);
      }
      const confidence = Math.min(0.85, odds / (1 + odds));
      if (lines.length > 0 && confidence >= LEAST) this.keep({ entries: [entry], lines, confidence, why: 'part' });
    }
  }

  /** How sure it is that some belong together that come to a sum: by how many ways there are, and how many there would be by chance. */
  private groupConfidence({ ways, byChance }: { ways: number; byChance: number }, pairs: [number, number][]): number {
    const { evidence } = this;
    const said = pairs.map(([entry, line]) => evidence.besides(entry, line));
    const least = Math.min(...said);
    // Of things that belong together one in twenty is paid so; by chance, as many ways as there would be.
    const score = Math.log(0.05 / Math.max(1e-6, byChance)) + Math.max(-4, Math.min(6, least - 3));
    const numbered = pairs.filter(([entry, line]) => isNumbered(evidence.numberFound(entry, line))).length;
    const all = 1 / (1 + Math.exp(-score - numbered));
    const chance = numbered > 0 ? all : Math.min(MOST_UNSAID, all);
    return chance / (1 + (ways - 1) * (numbered === pairs.length ? 0.01 : 0.5));
  }

  private numberedAmong(entry: number, lines: readonly number[]): number {
    return lines.filter((line) => isNumbered(this.evidence.numberFound(entry, line))).length;
  }

  private mayPay(entry: number, line: number): boolean {
    return Math.sign(this.entries[entry].units) === -Math.sign(this.lines[line].units);
  }

  private isPart(entry: number, line: number): boolean {
    const { entryDays, lineDays } = this.evidence;
    const since = lineDays[line] - entryDays[entry].day;
    const isLess = Math.abs(this.lines[line].units) < Math.abs(this.entries[entry].units);
    return (
      this.mayPay(entry, line) && isLess && since >= -10 && since <= PARTS_AFTER && this.isSameCurrency(entry, line)
    );
  }

  private isSameCurrency(entry: number, line: number): boolean {
    const [a, b] = [this.entries[entry].currency, this.lines[line].currency];
    return !a || !b || a === b;
  }
}

/** Name, amount and day hang together more than their odds, taken each by itself, say; only a number stands for itself. */
const TEMPER = 0.7;

function tempered(chance: number): number {
  const odds = (chance / Math.max(1e-12, 1 - chance)) ** TEMPER;
  return odds / (1 + odds);
}

const isNumbered = (how: string) => how === 'all' || how === 'figures';
