import PgBoss from 'pg-boss';
import { EntityManager } from 'typeorm';
import { Turn } from '@crow/core/geometry';
import {
  countInterruption,
  jobsDueIn,
  leaveNoTries,
  notify,
  postponeJob,
  returnJob,
  isUnderWay,
  isWaitingFor,
} from './queries';
import { Claim } from './entities';

/** What can be asked of the workers, and what each kind of work needs to know. */
export interface Work {
  /** Find the pages of a file that has arrived. */
  'take-in': { fileId: string };
  /** Bind a document's PDF. */
  bind: { documentId: string; actorId: string };
  /** Put the marks of a document into its PDF. */
  mark: { documentId: string; actorId: string };
  /** Find out how many bytes a document's PDF has in each size. */
  weigh: { documentId: string };
  /** Find out how a page is made, make its small and its screen-sized picture, and have it read. */
  picture: { pageId: string };
  /** Read the text of a page. */
  read: { pageId: string; turn: Turn; version: string };
  /** Propose which lines of statements pay which entries. */
  match: Record<string, never>;
  /** Pack copies that are to go out. */
  pack: { parcelId: string };
  /** Send a mail, if it is still to be sent and its time has come; done where the program's own key is. */
  post: { parcelId: string };
  /** Compare the files on disk with what the database has, byte by byte; done where the shelf folder is. */
  prove: Record<string, never>;
  /** Make the copies in a folder of the machine agree with the shelf. */
  copy: { placeId: string };
  /** Make the file on disk agree with the database; done where the shelf folder is. */
  shelve: { documentId: string; actorId: string };
}

export type WorkKind = keyof Work;
export interface GivenUp {
  kind: WorkKind;
  data: Work[WorkKind];
}

/** In the order in which a worker looks for work: what somebody waits for comes first. */
export const WORKER_QUEUES: WorkKind[] = ['take-in', 'bind', 'pack', 'mark', 'weigh', 'match', 'picture', 'read'];
/** What only the server does, each by a worker of its own: neither waits for the other. */
export const SERVER_QUEUES: WorkKind[] = ['shelve', 'post', 'prove', 'copy'];
/** What takes as long as there is much of it. */
const LONG: WorkKind[] = ['bind', 'pack', 'prove', 'copy'];
const GIVEN_UP = 'given-up';
/** What workers listen to: that there is work of a kind. */
export const WORK_CHANNEL = 'crow_work';
/** Work whose workers ended so often is what ends them. */
const MOST_INTERRUPTIONS = 25;
const JOB_SECONDS = 600;
/** Hundreds of pages that are taken apart into layers take their time; a worker that died is noticed otherwise. */
const BIND_SECONDS = 4 * 3600;
/** Work that is asked for once waits so long for more changes. */
const GATHER_MS = 1500;

/** The queue, kept in the same database as everything else. */
export class Jobs {
  private constructor(readonly boss: PgBoss) {}

  /** @param supervise whether this process looks after expired and finished jobs; one of all should */
  static async open(url: string, { supervise }: { supervise: boolean }): Promise<Jobs> {
    const boss = new PgBoss({
      connectionString: url,
      schema: 'jobs',
      supervise,
      schedule: false,
      max: 3,
      archiveCompletedAfterSeconds: 3600,
      deleteAfterSeconds: 86_400,
    });
    // Lost connections come back by themselves; whoever waits for an answer hears of it where they asked.
    boss.on('error', () => undefined);
    await boss.start();
    return new Jobs(boss);
  }

  /** Makes the queues; once, before anybody works on them. */
  async prepare(): Promise<void> {
    await this.boss.createQueue(GIVEN_UP);
    for (const queue of [...WORKER_QUEUES, ...SERVER_QUEUES]) {
      const settings = {
        name: queue,
        deadLetter: GIVEN_UP,
        retryLimit: SERVER_QUEUES.includes(queue) ? 10_000 : 4,
        retryDelay: SERVER_QUEUES.includes(queue) ? 5 : 0,
        expireInSeconds: LONG.includes(queue) ? BIND_SECONDS : JOB_SECONDS,
      };
      await this.boss.createQueue(queue, settings);
      await this.boss.updateQueue(queue, settings);
    }
  }

  /** Asks for work; it exists once the manager's transaction commits, and not if it doesn't. */
  async ask<Kind extends WorkKind>(manager: EntityManager, kind: Kind, ...data: Work[Kind][]): Promise<void> {
    if (data.length > 0) await this.insert(manager, kind, data);
  }

  /** The same, to be done when its time has come. */
  async askLater<Kind extends WorkKind>(manager: EntityManager, kind: Kind, data: Work[Kind], at: Date): Promise<void> {
    await this.insert(manager, kind, [data], at);
  }

  private async insert<Kind extends WorkKind>(
    manager: EntityManager,
    kind: Kind,
    data: Work[Kind][],
    startAfter?: Date,
  ): Promise<void> {
    const db = {
      executeSql: async (text: string, values: unknown[]) => ({
        // The queue's own SQL, within the transaction.
        // eslint-disable-next-line no-restricted-syntax
        rows: (await manager.query(text, values)) as unknown[],
      }),
    };
    await this.boss.insert(
      data.map((each) => ({ name: kind, data: { ...each, kind }, ...(startAfter && { startAfter }) })),
      { db },
    );
    await notify(manager, WORK_CHANNEL, kind);
  }

  /** In how many milliseconds some work of these kinds is due; nothing when none waits. */
  async dueIn(manager: EntityManager, kinds: WorkKind[]): Promise<number | undefined> {
    return jobsDueIn(manager, kinds);
  }

  /** Lets work wait for a while that can't be done now; that counts as no try. */
  async postpone(manager: EntityManager, kind: WorkKind, id: string, seconds: number): Promise<void> {
    await postponeJob(manager, kind, id, seconds);
  }

  /**
   * Gives work back whose worker ended in the middle of it; that counts as no try, unless it happens again and again: then the work
   * itself may be what ends workers.
   */
  async giveBack(manager: EntityManager, kind: WorkKind, id: string): Promise<void> {
    const interruptions = await countInterruption(manager, id, kind);
    if (interruptions >= MOST_INTERRUPTIONS) {
      await leaveNoTries(manager, kind, id);
      await this.boss.fail(kind, id, { message: 'its workers ended again and again' });
      await manager.delete(Claim, { jobId: id });
      return;
    }
    await returnJob(manager, kind, id);
    await notify(manager, WORK_CHANNEL, kind);
  }

  /** Asks for work, on a document, a place or all there is, unless it is asked for already: changes that come quickly one after the other need it once. */
  async askOnce<Kind extends 'bind' | 'mark' | 'weigh' | 'match' | 'prove' | 'copy'>(
    manager: EntityManager,
    kind: Kind,
    data: Work[Kind],
    { gatherMs = GATHER_MS } = {},
  ): Promise<void> {
    const { documentId, placeId } = data as { documentId?: string; placeId?: string };
    if (!(await isWaitingFor(manager, kind, documentId ?? placeId)))
      await this.insert(manager, kind, [data], new Date(Date.now() + gatherMs));
  }

  /** Whether work of a kind waits or is being done. */
  isUnderWay(manager: EntityManager, kind: WorkKind): Promise<boolean> {
    return isUnderWay(manager, kind);
  }

  async fetch(kind: WorkKind): Promise<PgBoss.JobWithMetadata<Work[WorkKind]> | undefined> {
    const [job] = (await this.boss.fetch<Work[WorkKind]>(kind, { includeMetadata: true })) ?? [];
    return job;
  }

  /** Work that failed too often, once each. */
  async fetchGivenUp(): Promise<GivenUp | undefined> {
    const [job] = (await this.boss.fetch<Work[WorkKind] & { kind: WorkKind }>(GIVEN_UP)) ?? [];
    if (!job) return undefined;
    await this.boss.complete(GIVEN_UP, job.id);
    return { kind: job.data.kind, data: job.data };
  }

  async close(): Promise<void> {
    await this.boss.stop({ graceful: false, wait: true }).catch(() => undefined);
  }
}

/** What is done for each kind of work. Each may be repeated: what is done already is not done again. */
export type Handlers = { [Kind in keyof Work]?: (data: Work[Kind]) => Promise<void> };
