import pg from 'pg';
import { setTimeout as sleep } from 'node:timers/promises';
import { Context } from '../context';
import { rows } from '../store/database';
import { Handlers } from './handlers';
import { WorkKind } from './jobs';

const IDLE_MS = 300;
const AFTER_ERROR_MS = 1000;
/** Advisory locks of workers share this first number, so that they are told from others. */
export const LEASE_CLASS = 7_015;

/**
 * Does work of the given kinds, one piece at a time, the first kind first. While it lives it holds a lease in the database
 * (a lock that ends with its connection), so that its unfinished work is given to others the moment it dies.
 */
export class Worker {
  private stopping = false;
  private lease: { number: number; client: pg.Client } | undefined;
  private running: Promise<void> | undefined;

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
    await this.running;
    await this.lease?.client.end().catch(() => undefined);
  }

  private async run(): Promise<void> {
    while (!this.stopping) {
      try {
        await this.holdLease();
        if (!(await this.doNext())) await sleep(IDLE_MS);
      } catch (error) {
        this.context.log.warn({ error: String(error) }, 'waiting for the database');
        await sleep(AFTER_ERROR_MS);
      }
    }
  }

  private async holdLease(): Promise<void> {
    if (this.lease) return;
    const client = new pg.Client({ connectionString: this.context.database.url, keepAlive: true });
    const lost = () => {
      if (this.lease?.client === client) this.lease = undefined;
    };
    client.on('error', lost);
    client.on('end', lost);
    await client.connect();
    const { rows: taken } = await client.query<{ number: number }>(
      `select number from (select (random() * 2000000000)::int as number) n where pg_advisory_lock($1, number) is not null`,
      [LEASE_CLASS],
    );
    this.lease = { number: taken[0].number, client };
  }

  private async doNext(): Promise<boolean> {
    const { jobs, database, log } = this.context;
    for (const kind of this.kinds) {
      const job = await jobs.fetch(kind);
      if (!job) continue;
      const { manager } = database.source;
      await manager.query(
        'insert into claim (job_id, queue, lease) values ($1, $2, $3) on conflict (job_id) do update set lease = excluded.lease',
        [job.id, kind, this.lease?.number ?? 0],
      );
      const began = performance.now();
      try {
        const handle = this.handlers[kind] as (data: unknown) => Promise<void>;
        await handle(job.data);
        await jobs.boss.complete(kind, job.id);
        log.debug({ kind, ms: Math.round(performance.now() - began) }, 'done');
      } catch (error) {
        log.warn({ kind, error: String(error), stack: (error as Error).stack }, 'work failed');
        await jobs.boss.fail(kind, job.id, { message: String(error) });
      }
      await manager.query('delete from claim where job_id = $1', [job.id]);
      return true;
    }
    return false;
  }
}

const UNCLAIMED_SECONDS = 10;

/** Gives the unfinished work of workers that died back to the queues; called every so often by the server. */
export async function rescueWork({ database, jobs, log }: Context): Promise<void> {
  const { manager } = database.source;
  const lost = await rows<{ id: string; name: string }>(
    manager,
    `select j.id, j.name from jobs.job j left join claim c on c.job_id = j.id
     where j.state = 'active' and case when c.job_id is null then j.started_on < now() - interval '${UNCLAIMED_SECONDS} seconds'
       else not exists (select 1 from pg_locks l where l.locktype = 'advisory' and l.classid = $1 and l.objid = c.lease) end`,
    [LEASE_CLASS],
  );
  for (const { id, name } of lost) {
    log.info({ kind: name }, 'taking over work of a worker that ended');
    await manager.query('delete from claim where job_id = $1', [id]);
    await jobs.boss.fail(name, id, { message: 'the worker ended' });
  }
}
