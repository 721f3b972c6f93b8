import { SheetPicture } from './sheet';

/** What is wrong with the machine, if anything is. */
export type Trouble = 'jam' | 'coverOpen' | null;

export interface LoadedSheet {
  /** What is shown of it where it is loaded. */
  name: string;
  front: SheetPicture;
  back: SheetPicture;
}

/** The stand-in scanner's own state: what lies in its feeder and on its glass, and what is wrong with it. */
export class Machine {
  readonly feeder: LoadedSheet[] = [];
  glass: LoadedSheet | null = null;
  trouble: Trouble = null;
  /** So many more sheets go through before one jams; undefined when none will. */
  jamsAfter: number | undefined;
  /** So many more sheets go through before one waits at the rollers until `letGo`; undefined when none will. */
  holdsAfter: number | undefined;
  busy = false;
  private go: () => void = () => undefined;

  /** The next sheet is drawn into the machine; a jam keeps it in the feeder. */
  draw(): LoadedSheet | Trouble {
    if (this.trouble) return this.trouble;
    if (this.jamsAfter !== undefined && this.jamsAfter-- <= 0) {
      this.jamsAfter = undefined;
      this.trouble = 'jam';
      return this.trouble;
    }
    return this.feeder.shift() ?? null;
  }

  /** Resolves when the next sheet may be drawn: at once, but for one that is held. */
  async readyToDraw(): Promise<void> {
    if (this.holdsAfter === undefined || this.holdsAfter-- > 0) return;
    await new Promise<void>((resolve) => (this.go = resolve));
  }

  /** The sheet that waits goes through, and all that come after it. */
  letGo(): void {
    this.holdsAfter = undefined;
    this.go();
  }

  /** Somebody takes out what is stuck, and closes the cover. */
  clear(): void {
    this.trouble = null;
  }
}
