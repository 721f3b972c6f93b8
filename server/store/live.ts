import pg from 'pg';
import { EntityManager } from 'typeorm';
import { LiveEvent } from '@crow/contract/shapes';

const CHANNEL = 'crow_live';

/** Tells every server that something changed; goes out when the transaction commits. */
export async function announce(manager: EntityManager, kind: LiveEvent['kind'], id: string | null): Promise<void> {
  await manager.query('select pg_notify($1, $2)', [CHANNEL, JSON.stringify({ kind, id })]);
}

/** Listens for changes until closed; connects again when the database went away, and then says `null`: anything may have changed. */
export class LiveListener {
  private client: pg.Client | undefined;
  private closed = false;

  constructor(
    private readonly url: string,
    private readonly hear: (event: LiveEvent | null) => void,
  ) {}

  async start(): Promise<void> {
    const client = new pg.Client({ connectionString: this.url, keepAlive: true });
    this.client = client;
    let lost = false;
    const again = () => {
      if (lost || this.closed) return;
      lost = true;
      client.end().catch(() => undefined);
      setTimeout(() => this.restart(), 500);
    };
    client.on('error', again);
    client.on('end', again);
    client.on('notification', ({ payload }) => this.hear(JSON.parse(payload ?? 'null') as LiveEvent));
    await client.connect();
    await client.query(`listen ${CHANNEL}`);
  }

  private restart(): void {
    if (this.closed) return;
    this.start().then(
      () => this.hear(null),
      () => setTimeout(() => this.restart(), 500),
    );
  }

  async close(): Promise<void> {
    this.closed = true;
    await this.client?.end().catch(() => undefined);
  }
}
