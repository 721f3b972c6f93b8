import { AtWork } from '@crow/contract/documents';
import { ActingAs } from '../platform/history';

/** A window that was not heard of for so long has gone. */
const LASTS_MS = 40_000;

interface Seat {
  actor: ActingAs;
  document: string;
  until: number;
}

/** Which windows have which documents before them; known as long as the server runs, and only while they say so. */
export class Desks {
  private readonly seats = new Map<string, Seat>();

  constructor(private readonly now: () => number = Date.now) {}

  /** A window has a document before it, or none any more. @returns whether that is news */
  sit(window: string, actor: ActingAs, document: string | null): boolean {
    this.sweep();
    const before = this.seats.get(window)?.document ?? null;
    if (document === null) this.seats.delete(window);
    else this.seats.set(window, { actor, document, until: this.now() + LASTS_MS });
    return before !== document;
  }

  /** Who sits at which document besides a window of somebody's. */
  others(window: string, actor: Pick<ActingAs, 'id'>): AtWork[] {
    this.sweep();
    return [...this.seats]
      .filter(([other]) => other !== window)
      .map(([, seat]) => ({ documentId: seat.document, name: seat.actor.name, own: seat.actor.id === actor.id }));
  }

  private sweep(): void {
    for (const [window, { until }] of this.seats) if (until < this.now()) this.seats.delete(window);
  }
}
