/** A pair that may belong together, with how much more likely that is than that neither does (odds). */
export interface Candidate {
  entry: number;
  line: number;
  odds: number;
}

/** As many entries or lines are told apart in every way that they may go together; of more, in their order only. */
const MOST_IN_ALL_WAYS = 9;
/** Sums of odds are kept in numbers; beyond this they make no difference. */
const MOST_ODDS = 1e12;

/**
 * Which pairs belong together, each entry and each line once at most, and how likely each is: over all ways in which they may go together,
 * weighed by the odds of their pairs (marginals of weighted matchings by summing over subsets, after Ryser 1963), in each part in which
 * they hang together. A part that is too large for that is what a rent or the like makes, of the same amount month after month: there
 * those that come first go with those that come first (forward and backward sums, after Rabiner 1989).
 * @param when orders entries and lines
 */
export function assign(
  candidates: readonly Candidate[],
  when: { entry: (at: number) => number; line: (at: number) => number },
): (Candidate & { confidence: number })[] {
  return partsOf(candidates).flatMap((part) => {
    const entries = [...new Set(part.map(({ entry }) => entry))].sort((a, b) => when.entry(a) - when.entry(b) || a - b);
    const lines = [...new Set(part.map(({ line }) => line))].sort((a, b) => when.line(a) - when.line(b) || a - b);
    const odds = lines.map(() => entries.map(() => 0));
    for (const { entry, line, odds: each } of part)
      odds[lines.indexOf(line)][entries.indexOf(entry)] = Math.min(MOST_ODDS, each);
    const isSmall = Math.min(entries.length, lines.length) <= MOST_IN_ALL_WAYS;
    const chances = isSmall ? inAllWays(odds) : inOrder(odds);
    return best(chances).map(([row, column]) => ({
      ...{ entry: entries[column], line: lines[row], odds: odds[row][column] },
      confidence: chances[row][column],
    }));
  });
}

/** The parts in which candidates hang together. */
function partsOf(candidates: readonly Candidate[]): Candidate[][] {
  const parent = new Map<string, string>();
  const root = (key: string): string => {
    let at = key;
    while (parent.get(at)! !== at) at = parent.get(at)!;
    parent.set(key, at);
    return at;
  };
  for (const { entry, line } of candidates) {
    for (const key of [`e${entry}`, `l${line}`]) if (!parent.has(key)) parent.set(key, key);
    const [a, b] = [root(`e${entry}`), root(`l${line}`)];
    if (a !== b) parent.set(a, b);
  }
  const parts = new Map<string, Candidate[]>();
  for (const candidate of candidates) {
    const key = root(`e${candidate.entry}`);
    const part = parts.get(key);
    if (part) part.push(candidate);
    else parts.set(key, [candidate]);
  }
  return [...parts.values()];
}

/** The chance of each pair over all ways to pair rows with columns. */
function inAllWays(odds: readonly (readonly number[])[]): number[][] {
  const [rows, columns] = [odds.length, odds[0].length];
  if (columns > rows) return turned(inAllWays(turned(odds)));
  // Subsets are of columns, of which there are fewer.
  const size = 1 << columns;
  const forward = [new Float64Array(size)];
  forward[0][0] = 1;
  for (let row = 0; row < rows; row++) {
    const next = Float64Array.from(forward[row]);
    for (let set = 0; set < size; set++) {
      if (forward[row][set] === 0) continue;
      for (let column = 0; column < columns; column++)
        if (!(set & (1 << column)) && odds[row][column] > 0)
          next[set | (1 << column)] += forward[row][set] * odds[row][column];
    }
    forward.push(scaled(next));
  }
  // How well the rows from here on go with the columns that are left over.
  let backward = new Float64Array(size).fill(1);
  const chances = odds.map((row) => row.map(() => 0));
  for (let row = rows - 1; row >= 0; row--) {
    const before = Float64Array.from(backward);
    let all = 0;
    const own = new Float64Array(columns);
    for (let set = 0; set < size; set++) {
      const reached = forward[row][set];
      all += reached * backward[set];
      for (let column = 0; column < columns; column++) {
        if (set & (1 << column) || odds[row][column] === 0) continue;
        const gained = odds[row][column] * backward[set | (1 << column)];
        own[column] += reached * gained;
        before[set] += gained;
      }
    }
    const sum = all + own.reduce((total, each) => total + each, 0);
    for (let column = 0; column < columns; column++) chances[row][column] = sum > 0 ? own[column] / sum : 0;
    backward = scaled(before);
  }
  return chances;
}

/** The chance of each pair over all ways to pair rows with columns without crossing. */
function inOrder(odds: readonly (readonly number[])[]): number[][] {
  const [rows, columns] = [odds.length, odds[0].length];
  const table = () => Array.from({ length: rows + 1 }, () => new Float64Array(columns + 1));
  const [forward, backward] = [table(), table()];
  // In logarithms: a long row of sure pairs is more than a number holds. `forward[row][column]` is over the rows before and the columns
  // before, `backward` over all others; a row goes with no column, or with one behind all that rows before it went with.
  forward[0].fill(0);
  for (let row = 1; row <= rows; row++) {
    let paired = Number.NEGATIVE_INFINITY;
    for (let column = 0; column <= columns; column++) {
      forward[row][column] = logSum(forward[row - 1][column], paired);
      paired = logSum(paired, forward[row - 1][column] + Math.log(odds[row - 1][column] ?? 0));
    }
  }
  backward[rows].fill(0);
  for (let row = rows - 1; row >= 0; row--) {
    let paired = Number.NEGATIVE_INFINITY;
    for (let column = columns; column >= 0; column--) {
      if (column < columns) paired = logSum(paired, backward[row + 1][column + 1] + Math.log(odds[row][column]));
      backward[row][column] = logSum(backward[row + 1][column], paired);
    }
  }
  const all = backward[0][0];
  return odds.map((line, row) =>
    line.map((each, column) =>
      each > 0 ? Math.exp(Math.min(0, forward[row][column] + Math.log(each) + backward[row + 1][column + 1] - all)) : 0,
    ),
  );
}

function logSum(a: number, b: number): number {
  const [more, less] = a > b ? [a, b] : [b, a];
  return less === Number.NEGATIVE_INFINITY ? more : more + Math.log1p(Math.exp(less - more));
}

/** Pairs by their chance, the likeliest first, each row and column once. */
function best(chances: readonly (readonly number[])[]): [number, number][] {
  const pairs = chances.flatMap((row, at) => row.map((chance, column) => ({ at, column, chance })));
  pairs.sort((a, b) => b.chance - a.chance);
  const [rows, columns] = [new Set<number>(), new Set<number>()];
  const taken: [number, number][] = [];
  for (const { at, column, chance } of pairs) {
    if (chance <= 0 || rows.has(at) || columns.has(column)) continue;
    rows.add(at);
    columns.add(column);
    taken.push([at, column]);
  }
  return taken;
}

function turned(odds: readonly (readonly number[])[]): number[][] {
  return odds[0].map((_, column) => odds.map((row) => row[column]));
}

/** So that its largest is one. */
function scaled(values: Float64Array): Float64Array<ArrayBuffer> {
  let most = 0;
  for (const value of values) most = Math.max(most, value);
  return most > 0 ? Float64Array.from(values, (value) => value / most) : Float64Array.from(values);
}
