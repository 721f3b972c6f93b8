import { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { setTimeout as sleep } from 'node:timers/promises';

const SHORTEST_PAUSE_MS = 200;
const LONGEST_PAUSE_MS = 5000;
const HEALTHY_MS = 10_000;

/** A process that is started again whenever it ends by itself, more slowly if it keeps ending, until it is stopped. */
export class Kept {
  child: ChildProcess | undefined;
  private stopped = false;
  private ended: Promise<void> = Promise.resolve();

  constructor(
    readonly name: string,
    private readonly spawnIt: () => ChildProcess,
    private readonly onRestart: (name: string, code: number | null) => void = () => undefined,
  ) {}

  start(): void {
    this.ended = this.keep();
  }

  private async keep(): Promise<void> {
    let pause = SHORTEST_PAUSE_MS;
    while (!this.stopped) {
      const began = Date.now();
      const child = this.spawnIt();
      this.child = child;
      child.on('error', () => undefined);
      child.stderr?.pipe(process.stderr, { end: false });
      const [code] = (await once(child, 'exit')) as [number | null];
      if (this.stopped) return;
      this.onRestart(this.name, code);
      pause = Date.now() - began > HEALTHY_MS ? SHORTEST_PAUSE_MS : Math.min(LONGEST_PAUSE_MS, pause * 1.6);
      await sleep(pause);
    }
  }

  /** Ends it for good: asks with `signal`, and insists after the grace. */
  async stop(signal: NodeJS.Signals, graceMs = 8000): Promise<void> {
    this.stopped = true;
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    child.kill(signal);
    const insist = setTimeout(() => child.kill('SIGKILL'), graceMs);
    await this.ended;
    clearTimeout(insist);
  }
}
