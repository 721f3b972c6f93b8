import { createHash, randomUUID } from 'node:crypto';
import { constants, lstat, mkdir, open, readdir, rename, rm, writeFile } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { EntityManager } from 'typeorm';
import { v5 as nameBased } from 'uuid';
import { inWords, Problem, ProblemReport } from '@crow/contract/problems';
import { Purpose, WatchedFolder } from '@crow/contract/watching';
import { compareNames, freeName, nameKey } from '@crow/core/filing/names';
import { writeMoment } from '@crow/core/reading/dayForms';
import { Context } from '../platform/context';

import { insertNew } from '../platform/database';
import { ActingAs, theProgram, record } from '../platform/history';
import { announce } from '../platform/live';
import { takeInBytes } from './intake';
import { SourceFile, WatchedFolder as WatchedFolderRow, WatchedRefusal } from '../platform/entities';
import { earlierFileWith, keepRefusal, openStackOf } from './queries';
import { AWAY_MS, DONE, fitFolder, inTime, isPaper, NOT_YET, REFUSED } from './watchedPlaces';

const LOOK_EVERY_MS = 1500;
/** A file that has not changed for so long is whole; one of no bytes may be one that somebody is about to write. */
const STILL_MS = 2000;
const STILL_EMPTY_MS = 20_000;
/** Namespace of the ids of files, for RFC 9562 name-based ids: the same file gets the same id however often it is seen. */
const FILE_IDS = '8d3b1c52-6a0e-4a5e-9a5c-5d7c0f1b6e42';

interface Seen {
  size: number;
  modifiedMs: number;
  /** When it was last moved or written: a file that is put in again is another one. */
  changedMs: number;
  /** When it was first seen like this. */
  since: number;
}

const MOST_TOLD = 20;

interface Watched {
  id: string;
  path: string;
  purpose: Purpose;
  seen: Map<string, Seen>;
  waiting: number;
  /** What is no paper: it stays where it is. */
  left: Set<string>;
  refused: { name: string; problem: ProblemReport }[];
  problem: ProblemReport | null;
  /** The look under way, so that a drive that hangs is not asked again and again. */
  looking?: Promise<void>;
}

/**
 * Looks after the watched folders: takes in what lies still in them, and moves it to `done/`, or to `refused/` with a note, once
 * it is known which. It looks at intervals rather than listening, because network drives tell nobody of changes.
 */
export class Watcher {
  private readonly folders = new Map<string, Watched>();
  private readonly ending = new AbortController();
  private over: Promise<void> = Promise.resolve();

  constructor(
    private readonly context: Context,
    /** What may not be watched: where the program keeps its own files. */
    private readonly ownFolders: string[],
    private readonly times = { stillMs: STILL_MS, stillEmptyMs: STILL_EMPTY_MS },
  ) {}

  start(): void {
    const { signal } = this.ending;
    const go = async () => {
      while (!signal.aborted) {
        await this.look().catch((error) => this.context.log.warn({ error }, 'watching folders'));
        await sleep(LOOK_EVERY_MS, undefined, { signal }).catch(() => undefined);
      }
    };
    this.over = go();
  }

  async close(): Promise<void> {
    this.ending.abort();
    // One that hangs is not waited for.
    await Promise.race([this.over, sleep(AWAY_MS / 10)]);
  }

  list(): WatchedFolder[] {
    return [...this.folders.values()].map(({ id, path, purpose, waiting, left, refused, problem }) => ({
      id,
      path,
      purpose,
      waiting,
      left: [...left].slice(0, MOST_TOLD),
      refused,
      problem,
    }));
  }

  /**
   * @param confirmed whether a person knows what lies in it already
   * @throws Problem 'watched-unfit', 'watched-full', 'watched-gone'
   */
  async add(actor: ActingAs, typed: string, purpose: Purpose, confirmed = false): Promise<WatchedFolder> {
    const watched = [...this.folders.values()].map((each) => each.path);
    const path = await inTime(typed, fitFolder(typed, { confirmed, watched, ownFolders: this.ownFolders }));
    const { source } = this.context.database;
    const id = await source.transaction(async (manager) => {
      const added = { id: randomUUID(), path, purpose };
      if ((await insertNew(manager, WatchedFolderRow, added)) === 0)
        throw new Problem('watched-unfit', { path, detail: 'it is watched already' });
      await record(manager, actor, 'watched', 'watched folder', added.id, { path, purpose });
      await announce(manager, 'watch', added.id);
      return added.id;
    });
    await this.look();
    return this.list().find((each) => each.id === id)!;
  }

  async change(actor: ActingAs, id: string, purpose: Purpose): Promise<void> {
    await this.alter(actor, id, 'changed', (manager) => manager.update(WatchedFolderRow, { id }, { purpose }));
  }

  async leave(actor: ActingAs, id: string): Promise<void> {
    await this.alter(actor, id, 'left', (manager) => manager.delete(WatchedFolderRow, { id }));
  }

  async forgetRefused(actor: ActingAs, id: string): Promise<void> {
    await this.alter(actor, id, 'saw what was refused in', (manager) =>
      manager.delete(WatchedRefusal, { folderId: id }),
    );
  }

  private async alter(
    actor: ActingAs,
    id: string,
    action: string,
    deed: (manager: EntityManager) => Promise<unknown>,
  ): Promise<void> {
    await this.context.database.source.transaction(async (manager) => {
      if (!(await manager.existsBy(WatchedFolderRow, { id })))
        throw new Problem('not-found', { what: 'The watched folder' });
      await deed(manager);
      await record(manager, actor, action, 'watched folder', id);
      await announce(manager, 'watch', id);
    });
    await this.reload();
  }

  private async reload(): Promise<void> {
    const { manager } = this.context.database.source;
    const now = await manager.find(WatchedFolderRow, { order: { addedAt: 'ASC' } });
    for (const each of now) {
      const known = this.folders.get(each.id);
      // The same object stays: a look under way holds it.
      if (known) Object.assign(known, each);
      else
        this.folders.set(each.id, {
          seen: new Map(),
          waiting: 0,
          left: new Set(),
          refused: [],
          problem: null,
          ...each,
        });
    }
    const refusals = await manager.find(WatchedRefusal, { order: { at: 'DESC' }, take: 200 });
    for (const folder of this.folders.values())
      folder.refused = refusals
        .filter(({ folderId }) => folderId === folder.id)
        .slice(0, MOST_TOLD)
        .map(({ name, problem }) => ({ name, problem }));
    for (const id of this.folders.keys()) if (!now.some((each) => each.id === id)) this.folders.delete(id);
  }

  /** Looks into every folder once. */
  async look(): Promise<void> {
    await this.reload();
    await Promise.all([...this.folders.values()].map((folder) => this.lookInto(folder)));
  }

  private async lookInto(folder: Watched): Promise<void> {
    const state = () => JSON.stringify([folder.waiting, folder.problem, [...folder.left], folder.refused]);
    const before = state();
    folder.looking ??= this.handle(folder)
      .then(() => void (folder.problem = null))
      .catch((error) => {
        folder.problem = asProblem(error, folder.path);
        if (!(error instanceof Problem) && !error.code) this.context.log.error({ error }, 'watching');
      })
      .finally(() => void (folder.looking = undefined));
    const tooLong = new AbortController();
    await Promise.race([
      folder.looking,
      sleep(AWAY_MS, undefined, { signal: tooLong.signal })
        .then(() => void (folder.problem = new Problem('watched-gone', { path: folder.path }).report))
        .catch(() => undefined),
    ]);
    tooLong.abort();
    if (state() !== before) await announce(this.context.database.source.manager, 'watch', folder.id);
  }

  private async handle(folder: Watched): Promise<void> {
    const inside = await readdir(folder.path, { withFileTypes: true });
    // Where a drive is not connected its place is there but empty; nothing is to be written into that.
    if (!inside.some(({ name }) => name === DONE || name === REFUSED))
      throw new Problem('watched-strange', { path: folder.path });
    const names = inside
      .filter((each) => each.isFile() && !NOT_YET.test(each.name))
      .map(({ name }) => name)
      .sort(compareNames);
    for (const name of folder.left) if (!names.includes(name)) folder.left.delete(name);
    folder.waiting = names.filter((name) => !folder.left.has(name)).length;
    const now = Date.now();
    for (const name of folder.seen.keys()) if (!names.includes(name)) folder.seen.delete(name);
    const troubles: unknown[] = [];
    for (const name of names) {
      if (this.ending.signal.aborted) return;
      try {
        const still = await this.stillFile(folder, name, now);
        if (still && !folder.left.has(name) && (await this.handleFile(folder, name, still))) folder.waiting--;
      } catch (error) {
        // The others are handled all the same.
        troubles.push(error);
      }
    }
    if (troubles.length > 0) throw troubles[0];
  }

  /** Size and time of a file, once they have been the same for a while. */
  private async stillFile(folder: Watched, name: string, now: number): Promise<Seen | undefined> {
    const found = await lstat(join(folder.path, name)).catch(() => undefined);
    if (!found?.isFile()) return undefined;
    const { size, mtimeMs: modifiedMs, ctimeMs: changedMs } = found;
    const before = folder.seen.get(name);
    if (before?.size !== size || before.modifiedMs !== modifiedMs) {
      folder.seen.set(name, { size, modifiedMs, changedMs, since: now });
      folder.left.delete(name);
      return undefined;
    }
    const wait = size === 0 ? this.times.stillEmptyMs : this.times.stillMs;
    return now - before.since >= wait ? before : undefined;
  }

  /** Takes a file in, or moves it once it has been taken in or refused. Gives whether it is handled. */
  private async handleFile(folder: Watched, name: string, { size, modifiedMs, changedMs }: Seen): Promise<boolean> {
    const { manager } = this.context.database.source;
    const fileId = nameBased([folder.id, name, size, modifiedMs, changedMs].join('\n'), FILE_IDS);
    const known = await manager.findOneBy(SourceFile, { id: fileId });
    if (!known) {
      if (!(await isPaper(join(folder.path, name)))) return this.leaveAlone(folder, name);
      const refusal = await this.take(folder, name, fileId);
      if (refusal) await this.put(folder, name, refusal);
      return Boolean(refusal);
    }
    if (known.state === 'waiting') return false;
    if (known.problem?.code === 'file-unknown') return this.leaveAlone(folder, name);
    await this.put(folder, name, known.state === 'refused' ? known.problem! : null);
    return true;
  }

  /** What is no paper is none of our business: it stays, and is named. */
  private leaveAlone(folder: Watched, name: string): boolean {
    folder.left.add(name);
    return true;
  }

  /** Takes a file in; gives why not, if it can't be. */
  private async take(folder: Watched, name: string, fileId: string): Promise<ProblemReport | null> {
    const path = join(folder.path, name);
    const { manager } = this.context.database.source;
    const actor = await theProgram(manager);
    // A link that took the file's place meanwhile is not followed.
    const handle = await open(path, constants.O_RDONLY | constants.O_NOFOLLOW).catch((error: NodeJS.ErrnoException) => {
      throw error.code === 'EACCES' ? new Problem('watched-closed', { name, path: folder.path }) : error;
    });
    const bytes = () => handle.createReadStream({ autoClose: false, start: 0 });
    try {
      const twin = await earlierFileWith(manager, await sha256Of(bytes()));
      if (twin) return new Problem('file-known', { name, other: twin.name, when: writeMoment(twin.at) }).report;
      const place = await placeFor(manager, folder, name);
      const { purpose, id: watchedFolderId } = folder;
      const single = purpose !== 'sort';
      const onward = { whole: single, onward: single, forEntry: purpose === 'match', watchedFolderId };
      await takeInBytes(this.context, actor, { ...place, ...onward, fileId, fileName: name }, bytes());
      return null;
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      // Somebody sorted the stack at this moment; the file gets another one at the next look.
      return error.code === 'stack-sorted' ? null : error.report;
    } finally {
      await handle.close();
    }
  }

  /** Moves a file to where handled ones are; one that was refused gets a note beside it. */
  private async put({ id, path, seen }: Watched, name: string, problem: ProblemReport | null): Promise<void> {
    try {
      const to = join(path, problem ? REFUSED : DONE);
      await mkdir(to, { recursive: true });
      const ending = extname(name);
      const alike = (await readdir(to)).filter((each) => extname(each) === ending);
      const free =
        freeName(basename(name, ending), new Set(alike.map((each) => nameKey(basename(each, ending))))) + ending;
      const note = join(to, `${free}.txt`);
      // The note first: whatever happens in between, a file in there has one.
      if (problem) await writeFile(note, `${inWords(problem)}\n`);
      await rename(join(path, name), join(to, free)).catch(async (error) => {
        if (problem) await rm(note, { force: true });
        throw error;
      });
      seen.delete(name);
      if (problem) await keepRefusal(this.context.database.source.manager, id, name, problem);
    } catch (error) {
      throw new Problem('watched-stuck', { path, detail: (error as NodeJS.ErrnoException).code ?? String(error) });
    }
  }
}

/** Where a file goes: to the stack that the last ones of its folder went to just now, or to one of its own. */
async function placeFor(
  manager: EntityManager,
  { id, path, purpose }: Watched,
  fileName: string,
): Promise<{ stackId: string; stackName: string; position: number }> {
  if (purpose !== 'sort') return { stackId: randomUUID(), stackName: fileName, position: 0 };
  const latest = await openStackOf(manager, id);
  const stackName = `${basename(path)}, ${writeMoment(new Date())}`;
  return latest
    ? { stackId: latest.stackId, stackName, position: latest.next }
    : { stackId: randomUUID(), stackName, position: 0 };
}

async function sha256Of(bytes: AsyncIterable<Buffer>): Promise<string> {
  const hash = createHash('sha256');
  for await (const piece of bytes) hash.update(piece);
  return hash.digest('hex');
}

function asProblem(error: NodeJS.ErrnoException, path: string): ProblemReport {
  if (error instanceof Problem) return error.report;
  return new Problem('watched-gone', { path }).report;
}
