/** How well a line says the number of an entry: all of it; its figures; or only its last figures. */
export type NumberFound = 'all' | 'figures' | 'last' | 'none';

interface KnownNumber {
  /** Letters and figures in capitals, nothing between. */
  plain: string;
  /** Runs of figures. */
  runs: string[];
}

const LEAST_FIGURES = 3;

/** Which numbers of papers stand in lines of statements, however banks break them up. */
export class NumberIndex {
  private readonly numbers: KnownNumber[];
  /** Entries by the longest run of figures in their number. */
  private readonly byRun = new Map<string, number[]>();

  constructor(numbers: readonly string[]) {
    this.numbers = numbers.map((number) => ({
      plain: number.toUpperCase().replace(/[^\p{L}\p{N}]/gu, ''),
      runs: number.match(/\d+/g) ?? [],
    }));
    this.numbers.forEach(({ plain, runs }, at) => {
      const joined = runs.join('');
      if (joined.length < LEAST_FIGURES || plain.length < LEAST_FIGURES) return;
      for (const key of new Set([joined, runs.at(-1)!].map(withoutNoughts)))
        if (key.length >= LEAST_FIGURES) this.byRun.set(key, [...(this.byRun.get(key) ?? []), at]);
    });
  }

  /** The entries whose number stands in a line, and how well; and whether figures stand there that are none of theirs. */
  in(text: string): { found: Map<number, NumberFound>; others: boolean } {
    const line = text.toUpperCase();
    const runs = line.match(/\d+/g) ?? [];
    const keys = new Set<string>();
    // Runs by themselves, and those that blanks or strokes break up.
    for (const group of line.match(/\d+(?:[ \-./_]\d+)*/g) ?? []) {
      const parts = group.match(/\d+/g)!;
      for (let from = 0; from < parts.length; from++)
        for (let to = from + 1; to <= Math.min(parts.length, from + 4); to++)
          keys.add(withoutNoughts(parts.slice(from, to).join('')));
    }
    const found = new Map<number, NumberFound>();
    const [plain, own] = [closed(line), new Set(runs.map(withoutNoughts))];
    for (const key of keys)
      for (const at of this.byRun.get(key) ?? []) {
        const how = this.how(this.numbers[at], plain, own, key);
        if (rank(how) > rank(found.get(at) ?? 'none')) found.set(at, how);
      }
    return { found, others: found.size === 0 && runs.some((run) => run.length >= 4) };
  }

  /** How many figures the number of an entry has: with few of them it is found by chance. */
  figures(at: number): number {
    return this.numbers[at].runs.join('').length;
  }

  private how({ plain, runs }: KnownNumber, line: Closed, lineRuns: ReadonlySet<string>, key: string): NumberFound {
    if (stands(plain, line)) return 'all';
    const joined = withoutNoughts(runs.join(''));
    return key === joined || runs.every((run) => lineRuns.has(withoutNoughts(run))) ? 'figures' : 'last';
  }
}

/** A line without anything but letters and figures, and before which of them something was left out. */
interface Closed {
  text: string;
  gaps: ReadonlySet<number>;
}

function closed(line: string): Closed {
  const gaps = new Set<number>();
  let text = '';
  for (const piece of line.split(/[^\p{L}\p{N}]+/u)) {
    gaps.add(text.length);
    text += piece;
  }
  return { text, gaps: gaps.add(text.length) };
}

/** Whether a number stands in a line, its parts together or apart, and not within a longer one. */
function stands(plain: string, { text, gaps }: Closed): boolean {
  for (let at = text.indexOf(plain); at >= 0; at = text.indexOf(plain, at + 1)) {
    const end = at + plain.length;
    const begins = gaps.has(at) || !isFigure(text[at - 1]);
    if (begins && (gaps.has(end) || !isFigure(text[end]))) return true;
  }
  return false;
}

const isFigure = (sign: string | undefined) => sign !== undefined && sign >= '0' && sign <= '9';

const rank = (how: NumberFound) => ['none', 'last', 'figures', 'all'].indexOf(how);

function withoutNoughts(run: string): string {
  return run.replace(/^0+(?=\d)/, '');
}
