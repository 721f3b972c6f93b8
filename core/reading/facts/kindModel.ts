import { Kind, KINDS } from './kindList';
import { KIND_WEIGHTS } from './kindWeights';

/** Words are known by so many letters, which leaves off most endings. */
const STEM = 7;
/** What a learnt weight is written down in. */
const UNIT = 0.01;

/**
 * What the wording of a paper is judged by: its words, by their first letters, and those that stand beside each other.
 * @param lines the rows of a paper, folded
 */
export function wordingOf(lines: readonly string[]): Set<string> {
  const words = lines
    .join('\n')
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word.length > 2 && !/\d/.test(word));
  const pairs = words.slice(1).map((word, at) => `${words[at]}_${word}`);
  return new Set([...words.map((word) => word.slice(0, STEM)), ...pairs]);
}

/** The weights of each kind for what it may be told by; one that is told by nothing has none. */
let weights: Map<string, [kind: number, weight: number][]> | undefined;

function weightsOf(sign: string): readonly [number, number][] {
  if (!weights) {
    weights = new Map();
    for (const [kind, listed] of Object.entries(KIND_WEIGHTS.signs))
      for (const each of listed.split(' ')) {
        const [name, weight] = each.split('=');
        const known = weights.get(name) ?? [];
        weights.set(name, known);
        known.push([KINDS.indexOf(kind as Kind), Number(weight) * UNIT]);
      }
  }
  return weights.get(sign) ?? [];
}

/**
 * How likely it is of each kind that a paper of that wording is one (0 to 1, all together 1): logistic regression over its words and
 * pairs of words, fitted by `bench/trainKinds.ts`. It knows nothing of headings, sums and layout, which kinds.ts tells by rules, and so
 * it errs in other places than those.
 */
export function kindChances(lines: readonly string[]): Record<Kind, number> {
  const known = [...wordingOf(lines)].map(weightsOf).filter(({ length }) => length > 0);
  const scores = KINDS.map((kind) => KIND_WEIGHTS.usual[kind] ?? -Infinity);
  const share = 1 / Math.sqrt(Math.max(1, known.length));
  for (const [kind, weight] of known.flat()) scores[kind] += weight * share;
  const most = Math.max(...scores);
  const chances = scores.map((score) => Math.exp(score - most));
  const all = chances.reduce((sum, chance) => sum + chance, 0);
  return Object.fromEntries(KINDS.map((kind, at) => [kind, chances[at] / all])) as Record<Kind, number>;
}
