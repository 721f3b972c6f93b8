import pg from 'pg';
import { EntityManager } from 'typeorm';
import { LiveEvent } from '@crow/contract/settings';
import { listen, notify } from './queries';

const CHANNEL = 'crow_live';
/** Between two tries to reach the database, in milliseconds. */
const PAUSE = 500;

/** Tells every server that something changed; goes out when the transaction commits. */
export async function announce(manager: EntityManager, kind: LiveEvent['kind'], id: string | null): Promise<void> {
  await notify(manager, CHANNEL, JSON.stringify({ kind, id }));
}

/** Listens for changes until closed; connects again when the database went away, and then says `null`: anything may have changed. */
export class LiveListener {
  private client: pg.Client | undefined;
  private closed = false;
  private waiting = false;

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
      this.startLater();
    };
    client.on('error', again);
    client.on('end', again);
    client.on('notification', ({ payload }) => this.hear(JSON.parse(payload ?? 'null') as LiveEvent));
    await client.connect();
    await listen(client, CHANNEL);
  }

  /** A connection that fails tells so twice, as an event and as a refused promise: it is followed by one new one all the same. */
  private startLater(): void {
    if (this.waiting || this.closed) return;
    this.waiting = true;
    setTimeout(() => {
      this.waiting = false;
      if (this.closed) return;
      this.start().then(
        () => this.hear(null),
        () => this.startLater(),
      );
    }, PAUSE);
  }

  async close(): Promise<void> {
    this.closed = true;
    await this.client?.end().catch(() => undefined);
  }
}
