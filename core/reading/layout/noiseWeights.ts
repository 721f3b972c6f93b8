import { NoiseEvidence } from './noise';

/** What each sign says for (above 0) or against a word being no print: made by `bench/trainNoise.ts`. */
export const NOISE_WEIGHTS: NoiseEvidence = {
  always: -4.2,
  unsure: 10.25,
  veryUnsure: -6.47,
  lineUnsure: -0.14,
  pageUnsure: -0.66,
  known: -0.31,
  besideKnown: -4.1,
  misspelt: -1.93,
  figures: -1.59,
  short: 1.21,
  long: -4.49,
  odd: 5.95,
  mixed: -0.07,
  size: 4.02,
  alone: 1.56,
};
