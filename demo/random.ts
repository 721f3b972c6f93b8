/** A source of numbers from 0 to 1 that gives the same row for the same seed (mulberry32, Ettinger 2017). */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

const TABLE = 1 << 16;

/** A quick source of noise for millions of pixels: `next(strength)` gives about -strength to strength, the middle most often. */
export function noiseSource(random: () => number): (strength: number) => number {
  const table = Float32Array.from({ length: TABLE }, () => random() + random() - 1);
  let at = 0;
  let skip = 1;
  return (strength) => {
    at += skip;
    if (at >= TABLE) {
      at -= TABLE;
      // Another stride each time round, so that the table is not seen in the picture.
      skip = 1 + ((skip * 31) % 61);
    }
    return table[at] * strength;
  };
}
