import { seededRandom } from '@crow/demo/random';

/** Chance by a seed, in the forms in which papers need it. */
export class Chance {
  readonly random: () => number;

  constructor(seed: number) {
    this.random = seededRandom(seed);
  }

  /** Whether something with this probability happens. */
  of(probability: number): boolean {
    return this.random() < probability;
  }

  between(low: number, high: number): number {
    return low + (high - low) * this.random();
  }

  /** A whole number, both ends possible. */
  whole(low: number, high: number): number {
    return low + Math.floor((high - low + 1) * this.random());
  }

  pick<T>(from: readonly T[]): T {
    return from[Math.floor(this.random() * from.length)];
  }

  /** Some of them, in their order. */
  some<T>(from: readonly T[], share: number): T[] {
    return from.filter(() => this.of(share));
  }

  /** All of them, in any order. */
  shuffled<T>(from: readonly T[]): T[] {
    return from
      .map((each) => ({ each, at: this.random() }))
      .sort((one, other) => one.at - other.at)
      .map(({ each }) => each);
  }

  digits(count: number): string {
    return Array.from({ length: count }, (_, at) => this.whole(at === 0 ? 1 : 0, 9)).join('');
  }
}
