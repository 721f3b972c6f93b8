/** At most so many things are looked through for those that come to a sum. */
const MOST_POOLED = 24;
const MOST_TOGETHER = 6;
const MOST_TRIED = 30_000;

/** Some of several amounts that come to a sum, and how surprising that is. */
export interface Found {
  /** Places in the pool. */
  of: number[];
  /** How many ways were found that come to the sum. */
  ways: number;
  /** How many ways would come to it by chance. */
  byChance: number;
}

/**
 * Which of several amounts, up to six of them, come to a sum. Of several ways, the one of things that lie next to each other.
 * @param pool in the order in which those that go together are near each other
 * @param least how many go together at least
 */
export function comingTo(sum: number, pool: readonly number[], least = 2): Found | undefined {
  const amounts = pool.slice(0, MOST_POOLED);
  // What those from a place on can add to a sum, or take from it: a way that can't come to it any more is left.
  const [up, down] = [new Float64Array(amounts.length + 1), new Float64Array(amounts.length + 1)];
  for (let at = amounts.length - 1; at >= 0; at--) {
    up[at] = up[at + 1] + Math.max(0, amounts[at]);
    down[at] = down[at + 1] + Math.min(0, amounts[at]);
  }
  const found: number[][] = [];
  let tried = 0;
  const look = (from: number, left: number, taken: number[]) => {
    if (taken.length >= least && left === 0) found.push([...taken]);
    if (taken.length === MOST_TOGETHER) return;
    for (let at = from; at < amounts.length && tried < MOST_TRIED; at++) {
      if (left > up[at] || left < down[at]) return;
      tried++;
      taken.push(at);
      look(at + 1, left - amounts[at], taken);
      taken.pop();
    }
  };
  look(0, sum, []);
  if (found.length === 0) return undefined;
  const spread = (each: readonly number[]) => each.at(-1)! - each[0] - each.length;
  found.sort((a, b) => spread(a) - spread(b) || b.length - a.length);
  return { of: found[0], ways: found.length, byChance: tried / Math.max(1, up[0] - down[0]) };
}
