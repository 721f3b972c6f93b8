import { Kind } from './fact';
import { Row } from './rows';

/** What a word for a kind scores as a heading; without any, the kind is a guess. */
export const HEADING_POINTS = 4.4;

/** What speaks for a kind: how much in all, and what of it most. */
interface Evidence {
  score: number;
  strongest: number;
  row: Row;
  said: string;
}

/** How much speaks for each kind that a paper may be of. */
export class KindScores {
  private readonly known = new Map<string, Evidence>();
  /** Kinds that the paper is titled with. */
  readonly titled = new Set<string>();

  get size(): number {
    return this.known.size;
  }

  /** @param said what of the row speaks for it; nothing where it is the wording of the whole paper */
  add(kind: string, points: number, row: Row, said: string): void {
    const known = this.known.get(kind);
    if (!known) {
      this.known.set(kind, { score: points, strongest: said === '' ? 0 : points, row, said });
      return;
    }
    known.score += points;
    if (said !== '' && points > known.strongest) Object.assign(known, { strongest: points, row, said });
  }

  /** Leaves a share of what speaks for a kind. */
  weaken(kind: Kind, share: number): void {
    const known = this.known.get(kind);
    if (known) known.score *= share;
  }

  has(kind: string): boolean {
    return this.known.has(kind);
  }

  of(kind: Kind): number {
    return this.known.get(kind)?.score ?? 0;
  }

  /** Whether a heading says that it is of a kind. */
  isHeaded(kind: string): boolean {
    return (this.known.get(kind)?.strongest ?? 0) >= HEADING_POINTS;
  }

  /** Whether a heading says that it is of another kind. */
  isHeadedOtherwise(kind: Kind): boolean {
    return [...this.known.keys()].some((other) => other !== kind && this.isHeaded(other));
  }

  /** Kinds with what speaks for them, the likeliest first. */
  ranked(): [kind: string, Evidence][] {
    return [...this.known].sort(([, one], [, other]) => other.score - one.score);
  }
}
