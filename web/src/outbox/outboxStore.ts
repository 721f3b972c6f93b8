import { DBSchema, IDBPDatabase, openDB } from 'idb';
import type { ProblemReport } from '@crow/contract/problems';
import type { Arrival } from '@crow/contract/stacks';

/** A file that waits on this device until it has been taken in. */
export interface Waiting {
  /** The identifier that it is sent with. */
  id: string;
  /** Grows from file to file: they go in this order. */
  order: number;
  told: Omit<Arrival, 'file'>;
  bytes: Blob;
  /** When it was taken, in milliseconds. */
  at: number;
  /** Where it goes on being sent, once that has begun. */
  address?: string;
  /** Why it could not be taken in. */
  problem?: ProblemReport;
  /** Whether it is in this window's memory only, and gone when that closes. */
  fleeting?: boolean;
}

/** When files are sent without being told to. */
export const SENDING = ['by-itself', 'not-metered', 'when-told'] as const;
export type Sending = (typeof SENDING)[number];

interface Schema extends DBSchema {
  waiting: { key: string; value: Waiting };
  choices: { key: string; value: Sending };
  /** Stacks that go on to Check as one document once nothing of them waits any more. */
  finishing: { key: string; value: { stack: string } };
}

/** What is larger is not copied into the browser's store: it lies on this device already, as a file that somebody chose. */
const LARGEST_KEPT = 200 * 1024 * 1024;
/** How long the store may take for an answer, and how many bytes it writes in a millisecond at the least. */
const PATIENCE_MS = 5000;
const WRITTEN_IN_MS = 10_000;
const CHANNEL = 'crow-outbox';
const USUAL: Sending = 'not-metered';

/** What is told of the outbox among the windows and the service worker of a browser. */
export type OutboxNews =
  | { kind: 'changed' }
  | { kind: 'sent' | 'discarded'; id: string }
  | { kind: 'progress'; id: string; sent: number }
  | { kind: 'finished'; stack: string; problem?: ProblemReport };

/**
 * The files that wait on this device, in the browser's own store: they survive a closed window and a device that was switched off. Where the
 * store is full, does not answer or there is none, they are kept in this window's memory, and say so.
 */
export class Outbox {
  private readonly database: Promise<IDBPDatabase<Schema> | undefined>;
  /** Whether the store has once not answered: this window does without it from then on. */
  private silent = false;
  private readonly inMemory = new Map<string, Waiting>();
  /** Stacks that go on to Check, where the browser has no room to keep that. */
  private readonly finishing = new Set<string>();
  private choice: Sending | undefined;
  private readonly channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(CHANNEL);
  private readonly listeners = new Set<(news: OutboxNews) => void>();

  /** @param patience how long the store may take for an answer, besides what a large file needs; milliseconds */
  constructor(
    name = 'crow-outbox',
    private readonly patience = PATIENCE_MS,
  ) {
    // In a promise: where there is no such store, asking for it throws.
    const opened = Promise.resolve()
      .then(() =>
        openDB<Schema>(name, 2, {
          upgrade(database, from) {
            if (from < 1) {
              database.createObjectStore('waiting', { keyPath: 'id' });
              database.createObjectStore('choices');
            }
            database.createObjectStore('finishing', { keyPath: 'stack' });
          },
          // A newer version of the application, in another window, needs the store changed.
          blocking(_, __, event) {
            (event.target as IDBDatabase).close();
          },
        }),
      )
      .catch(() => undefined);
    this.database = this.inTime(opened);
    if (this.channel)
      this.channel.onmessage = ({ data }: MessageEvent<OutboxNews>) => this.listeners.forEach((hear) => hear(data));
  }

  /** Hears what happens to the outbox, in this window and elsewhere. Returns how to stop. */
  listen(hear: (news: OutboxNews) => void): () => void {
    this.listeners.add(hear);
    return () => this.listeners.delete(hear);
  }

  tell(news: OutboxNews): void {
    this.listeners.forEach((hear) => hear(news));
    this.channel?.postMessage(news);
  }

  /** All that waits, in its order. */
  async list(): Promise<Waiting[]> {
    const kept = (await this.asked((store) => store.getAll('waiting'))) ?? [];
    // What was held because the store was slow may have come into it after all.
    const others = kept.filter(({ id }) => !this.inMemory.has(id));
    return [...others, ...this.inMemory.values()].sort((a, b) => a.order - b.order);
  }

  async put(waiting: Waiting): Promise<void> {
    const { size } = waiting.bytes;
    const holds = size > LARGEST_KEPT || this.inMemory.has(waiting.id);
    // The device’s store may be full, or not able to hold files.
    const kept = !holds && (await this.asked((store) => store.put('waiting', waiting), size / WRITTEN_IN_MS));
    if (!kept) this.hold(waiting);
    this.tell({ kind: 'changed' });
  }

  /** Changes what is kept of a file, if it still waits. */
  async amend(id: string, part: Partial<Pick<Waiting, 'address' | 'problem'>>): Promise<void> {
    const held = this.inMemory.get(id);
    if (held) this.inMemory.set(id, { ...held, ...part });
    await this.asked(async (store) => {
      const transaction = store.transaction('waiting', 'readwrite');
      const kept = await transaction.store.get(id);
      if (kept) await transaction.store.put({ ...kept, ...part });
      await transaction.done;
    });
    this.tell({ kind: 'changed' });
  }

  /** Forgets a file that nobody wants to be taken in any more. */
  async discard(id: string): Promise<void> {
    await this.remove(id);
    this.tell({ kind: 'discarded', id });
  }

  async remove(id: string): Promise<void> {
    this.inMemory.delete(id);
    // A store that hung may still come to it, so that the file is not sent again on the next visit.
    const gone = async (store?: IDBPDatabase<Schema>) => store?.delete('waiting', id);
    if (this.silent) void this.database.then(gone).catch(() => undefined);
    else await this.asked(gone);
    this.tell({ kind: 'changed' });
  }

  /** Notes that a stack goes on to Check once all of it is taken in. */
  async finish(stack: string): Promise<void> {
    const kept = await this.asked((store) => store.put('finishing', { stack }));
    if (!kept) this.finishing.add(stack);
  }

  /** The stacks that may go on to Check: all that waited of them is gone, but for what can't be taken in. */
  async toFinish(): Promise<string[]> {
    const kept = (await this.asked((store) => store.getAll('finishing'))) ?? [];
    const stacks = new Set([...kept.map(({ stack }) => stack), ...this.finishing]);
    for (const { told, problem } of await this.list()) if (!problem) stacks.delete(told.stack);
    return [...stacks];
  }

  /** Forgets that a stack was to go on: it has, or can't. */
  async finished(stack: string, problem?: ProblemReport): Promise<void> {
    this.finishing.delete(stack);
    await this.asked((store) => store.delete('finishing', stack));
    this.tell({ kind: 'finished', stack, problem });
  }

  async sending(): Promise<Sending> {
    const kept = await this.asked((store) => store.get('choices', 'sending'));
    return kept ?? this.choice ?? USUAL;
  }

  async chooseSending(choice: Sending): Promise<void> {
    this.choice = choice;
    await this.asked((store) => store.put('choices', choice, 'sending'));
    this.tell({ kind: 'changed' });
  }

  /** Ends its connection to the browser's store. */
  async close(): Promise<void> {
    this.channel?.close();
    (await this.database)?.close();
  }

  /** What the store says; nothing where there is none, or it fails. @param longer how much longer it may take, in milliseconds */
  private async asked<Answer>(
    ask: (store: IDBPDatabase<Schema>) => Promise<Answer>,
    longer = 0,
  ): Promise<Answer | undefined> {
    const store = this.silent ? undefined : await this.database;
    if (!store || this.silent) return undefined;
    // In a promise: a store that is closed throws.
    const answer = Promise.resolve(store).then(ask);
    return this.inTime(
      answer.catch(() => undefined),
      longer,
    );
  }

  /** A store may hang, for instance behind a page that has gone without ending what it did there: then nothing is to wait for it. */
  private async inTime<Answer>(answer: Promise<Answer>, longer = 0): Promise<Answer | undefined> {
    let limit: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<undefined>((resolve) => {
      limit = setTimeout(() => {
        this.silent = true;
        resolve(undefined);
      }, this.patience + longer);
    });
    return Promise.race([answer, late]).finally(() => clearTimeout(limit));
  }

  private hold(waiting: Waiting): void {
    this.inMemory.set(waiting.id, { ...waiting, fleeting: true });
  }
}
