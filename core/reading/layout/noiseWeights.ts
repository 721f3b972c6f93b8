import { NoiseEvidence } from './noise';

/** What each sign says for (above 0) or against a word being no print: made by `bench/trainNoise.ts`. */
export const NOISE_WEIGHTS: NoiseEvidence = {
  always: -0.18,
  unsure: 10.16,
  veryUnsure: -5.65,
  lineUnsure: -2.76,
  pageUnsure: -6.05,
  known: -0.14,
  besideKnown: -3.32,
  misspelt: 0.74,
  figures: -1.91,
  short: 1.6,
  long: -2.36,
  odd: 6.59,
  mixed: -0.31,
  size: 5.18,
  small: -2.56,
  alone: 2.24,
  aroundPrint: -18.57,
};
