/** What speaks for an outline's being that of a sheet. */
export interface Evidence {
  /** How good its sides are, from 0 to about 1.1. */
  score: number;
  /** For each side, the share of places where a step was found on it. */
  held: number[];
  /** From 0 to 1: how much looks as if the sheet went on beyond one of its sides. */
  cut: number;
  /** How many letters and words were found on it, and how many rows of them its sides cut; undefined where print wasn't looked for. */
  words?: { marks: number; cut: number };
}

/** What the chance is made of: a number for each kind of evidence, each from about 0 to 1. */
export function features({ score, held, cut, words }: Evidence): number[] {
  const print = words ? Math.min(1, words.marks / 20) : 0;
  return [
    1,
    score,
    Math.min(...held),
    cut,
    words ? 1 : 0,
    print,
    words ? words.cut / (words.marks + words.cut + 4) : 0,
  ];
}

/** Fitted by `bench/outlineConfidence.ts` to made photos, some spoilt and some without any sheet. */
const WEIGHTS = [-10.38, 18, -3.67, 1.51, -1.43, 4.66, 0.15];

/** The chance, 0 to 1, that an outline is right: that it and the sheet have nine tenths of what they cover in common. */
export function confidenceOf(evidence: Evidence): number {
  const sum = features(evidence).reduce((total, value, index) => total + WEIGHTS[index] * value, 0);
  return 1 / (1 + Math.exp(-sum));
}
