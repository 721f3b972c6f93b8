import pg from 'pg';
import { setTimeout as sleep } from 'node:timers/promises';
import { Context } from './context';
import { saysDiskFull } from './disks';
import { Handlers, WORK_CHANNEL, WorkKind } from './jobs';
import { Claim } from './entities';
import { holdLease, jobsWithoutWorker, listen } from './queries';

/** Work is heard of at once; in case that a word is lost, it is looked for this often. */
const LONGEST_WAIT_MS = 30_000;
const AFTER_ERROR_MS = 1000;
const LEASE_AGAIN_MS = 200;
/** What found a disk full is tried again after so long; room may have been made. */
const WITHOUT_ROOM_SECONDS = 15;

/**
 * Does work of the given kinds, one piece at a time, the first kind first. While it lives it holds a lease in the database
 * (a lock that ends with its connection), so that its unfinished work is given to others soon after it died. A connection that is
 * lost while it lives is made again at once, with the same lease.
 */
export class Worker {
  private stopping = false;
  private readonly lease = Math.floor(Math.random() * 2_000_000_000);
  private holder: pg.Client | undefined;
  /** The lease being taken. */
  private taking: Promise<void> | undefined;
  private running: Promise<void> | undefined;
  /** Ends the wait for work. */
  private wake: () => void = () => undefined;
  private called = false;
  /** Whether something may have ended without anybody being told. */
  private unsure = false;

  constructor(
    private readonly context: Context,
    private readonly kinds: WorkKind[],
    private readonly handlers: Handlers,
  ) {}

  start(): void {
    this.running = this.run();
  }

  /** Finishes what it is doing and ends. */
  async stop(): Promise<void> {
    this.stopping = true;
    this.wake();
    await this.running;
    await this.holder?.end().catch(() => undefined);
  }

  private async run(): Promise<void> {
    while (!this.stopping) {
      try {
        await this.holdLease();
        await this.giveBackUnfinished();
        this.called = false;
        if (!(await this.doNext())) await this.waitForWork();
      } catch (error) {
        this.context.log.warn({ error }, 'waiting for the database');
        this.unsure = true;
        await sleep(AFTER_ERROR_MS);
      }
    }
  }

  /**
   * Whatever the database went away in the middle of, so that nobody could be told how it ended, is given back: the lease that is
   * held again would keep it from everybody for ever.
   */
  private async giveBackUnfinished(): Promise<void> {
    if (!this.unsure) return;
    const { jobs, database } = this.context;
    const { manager } = database.source;
    const left = await manager.findBy(Claim, { lease: this.lease });
    for (const { jobId, queue } of left) await jobs.giveBack(manager, queue, jobId);
    this.unsure = false;
  }

  private async waitForWork(): Promise<void> {
    const { jobs, database } = this.context;
    const due = (await jobs.dueIn(database.source.manager, this.kinds)) ?? LONGEST_WAIT_MS;
    if (this.called || this.stopping) return;
    await new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, Math.min(LONGEST_WAIT_MS, Math.max(1, due)));
      this.wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }

  /** Once at a time: the same worker would wait for its own lease. */
  private holdLease(): Promise<void> {
    if (this.holder) return Promise.resolve();
    this.taking ??= this.takeLease().finally(() => void (this.taking = undefined));
    return this.taking;
  }

  private async takeLease(): Promise<void> {
    const client = new pg.Client({ connectionString: this.context.database.url, keepAlive: true });
    const lost = () => {
      if (this.holder !== client) return;
      this.holder = undefined;
      this.wake();
      void this.holdAgain();
    };
    client.on('error', lost);
    client.on('end', lost);
    client.on('notification', () => {
      this.called = true;
      this.wake();
    });
    try {
      await client.connect();
      // The same number again is free as soon as the database has noticed that the connection before is gone.
      await holdLease(client, this.lease);
      await listen(client, WORK_CHANNEL);
      this.holder = client;
    } catch (error) {
      await client.end().catch(() => undefined);
      throw error;
    }
  }

  /** Also while something is being done: nobody else is to take it. */
  private async holdAgain(): Promise<void> {
    while (!this.stopping && !this.holder) {
      await this.holdLease().catch(() => undefined);
      if (!this.holder) await sleep(LEASE_AGAIN_MS);
    }
  }

  private async doNext(): Promise<boolean> {
    const { jobs, database, log } = this.context;
    for (const kind of this.kinds) {
      const job = await jobs.fetch(kind);
      if (!job) continue;
      const { manager } = database.source;
      await manager.upsert(Claim, { jobId: job.id, queue: kind, lease: this.lease }, ['jobId']);
      const began = performance.now();
      try {
        const handle = this.handlers[kind] as (data: unknown) => Promise<void>;
        await handle(job.data);
        if (await this.isOurs(job.id)) await jobs.boss.complete(kind, job.id);
        log.debug({ kind, ms: Math.round(performance.now() - began) }, 'done');
      } catch (error) {
        log.warn({ kind, error }, 'work failed');
        if (saysDiskFull(error)) await jobs.postpone(manager, kind, job.id, WITHOUT_ROOM_SECONDS);
        else if (await this.isOurs(job.id)) await jobs.boss.fail(kind, job.id, { message: 'it failed' });
      }
      await manager.delete(Claim, { jobId: job.id, lease: this.lease });
      return true;
    }
    return false;
  }

  /** Whether a piece of work is still this worker's, rather than given to another one that took it for dead. */
  private async isOurs(jobId: string): Promise<boolean> {
    return this.context.database.source.manager.existsBy(Claim, { jobId, lease: this.lease });
  }
}

/** A worker whose lease is gone may only have lost its connection, and come again. */
const GRACE_MS = 3000;

/** Gives the unfinished work of workers that died back to the queues. */
export class Rescue {
  /** When work was first seen without a living worker. */
  private readonly missing = new Map<string, number>();

  constructor(
    private readonly context: Context,
    private readonly graceMs = GRACE_MS,
  ) {}

  /** Called every so often by the server. */
  async look(): Promise<void> {
    const { database, jobs, log } = this.context;
    const { manager } = database.source;
    const lost = await jobsWithoutWorker(manager);
    for (const id of this.missing.keys()) if (!lost.some((each) => each.id === id)) this.missing.delete(id);
    const now = performance.now();
    for (const { id, name } of lost) {
      const since = this.missing.get(id) ?? now;
      this.missing.set(id, since);
      if (now - since < this.graceMs) continue;
      log.info({ kind: name }, 'taking over work of a worker that ended');
      await jobs.giveBack(manager, name, id);
      this.missing.delete(id);
    }
  }
}
