import { createHash, randomUUID } from 'node:crypto';
import { constants, lstat, mkdir, open, readdir, realpath, rename, rm, writeFile } from 'node:fs/promises';
import { basename, dirname, extname, isAbsolute, join, resolve, sep } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { EntityManager } from 'typeorm';
import { v5 as nameBased } from 'uuid';
import { inWords, Problem, ProblemReport } from '@crow/contract/problems';
import { Purpose, WatchedFolder } from '@crow/contract/watching';
import { compareNames, freeName, nameKey } from '@crow/core/filing/names';
import { writeMoment } from '@crow/core/reading/dayForms';
import { Context } from '../platform/context';
import { detectFormat, HEAD_BYTES } from '../engines/formats';
import { rows } from '../platform/database';
import { ActingAs, theProgram, record } from '../platform/history';
import { announce } from '../platform/live';
import { takeInBytes } from './intake';

const DONE = 'done';
const REFUSED = 'refused';
const LOOK_EVERY_MS = 1500;
/** A file that has not changed for so long is whole; one of no bytes may be one that somebody is about to write. */
const STILL_MS = 2000;
const STILL_EMPTY_MS = 20_000;
/** A drive that doesn't answer for so long is told as away. */
const AWAY_MS = 15_000;
/** Files that come one soon after another belong to one stack. */
const SAME_STACK = '2 minutes';
/** What programs call a file while they write it, and what systems put beside files. */
const NOT_YET = /^[.~]|~$|\.(part|partial|tmp|temp|crdownload|filepart)$|^(thumbs\.db|desktop\.ini)$/i;
/** Namespace of the ids of files, for RFC 9562 name-based ids: the same file gets the same id however often it is seen. */
const FILE_IDS = '8d3b1c52-6a0e-4a5e-9a5c-5d7c0f1b6e42';
const MOST_PLACES = 30;

interface Seen {
  size: number;
  modifiedMs: number;
  /** When it was last moved or written: a file that is put in again is another one. */
  changedMs: number;
  /** When it was first seen like this. */
  since: number;
}

/** Where a machine keeps what is its own: nothing there is anybody's paper. Drives are mounted below some of them. */
const SYSTEM = [
  '/bin',
  '/boot',
  '/dev',
  '/etc',
  '/lib',
  '/lib32',
  '/lib64',
  '/libx32',
  '/proc',
  '/run',
  '/sbin',
  '/snap',
  '/sys',
  '/usr',
  '/var',
];
const NOT_SYSTEM = ['/run/media', '/run/user', '/var/spool', '/var/tmp', '/usr/local/share'];
/** So many papers that lie in a folder already are taken in without asking. */
const FEW = 5;
const MOST_LOOKED_AT = 500;
const MOST_NAMED = 6;
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

/** Folders whose paths begin as typed, so that a path can be completed. Hidden ones only when asked for by their dot. */
export async function listPlaces(beginning: string): Promise<string[]> {
  if (!isAbsolute(beginning)) return [];
  const [above, begins] = beginning.endsWith(sep)
    ? [beginning, '']
    : [dirname(beginning), basename(beginning).toLowerCase()];
  const inside = await readdir(above, { withFileTypes: true }).catch(() => []);
  return inside
    .filter((each) => each.isDirectory() && each.name.toLowerCase().startsWith(begins))
    .filter(({ name }) => begins.startsWith('.') || !name.startsWith('.'))
    .map(({ name }) => join(above, name))
    .sort()
    .slice(0, MOST_PLACES);
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
    const path = await inTime(typed, this.fitFolder(typed, confirmed));
    const { source } = this.context.database;
    const id = await source.transaction(async (manager) => {
      const [added] = await rows<{ id: string }>(
        manager,
        'insert into watched_folder (path, purpose) values ($1, $2) on conflict do nothing returning id',
        [path, purpose],
      );
      if (!added) throw new Problem('watched-unfit', { path, detail: 'it is watched already' });
      await record(manager, actor, 'watched', 'watched folder', added.id, { path, purpose });
      await announce(manager, 'watch', added.id);
      return added.id;
    });
    await this.look();
    return this.list().find((each) => each.id === id)!;
  }

  async change(actor: ActingAs, id: string, purpose: Purpose): Promise<void> {
    await this.alter(actor, id, 'changed', 'update watched_folder set purpose = $2 where id = $1 returning id', [
      purpose,
    ]);
  }

  async leave(actor: ActingAs, id: string): Promise<void> {
    await this.alter(actor, id, 'left', 'delete from watched_folder where id = $1 returning id', []);
  }

  async forgetRefused(actor: ActingAs, id: string): Promise<void> {
    await this.alter(
      actor,
      id,
      'saw what was refused in',
      `with seen as (delete from watched_refusal where folder_id = $1) select id from watched_folder where id = $1`,
      [],
    );
  }

  private async alter(actor: ActingAs, id: string, action: string, sql: string, values: unknown[]): Promise<void> {
    await this.context.database.source.transaction(async (manager) => {
      const found = await rows(manager, sql, [id, ...values]);
      if (found.length === 0) throw new Problem('not-found', { what: 'The watched folder' });
      await record(manager, actor, action, 'watched folder', id);
      await announce(manager, 'watch', id);
    });
    await this.reload();
  }

  /** A folder that may be watched, without links in its path, and with places for what has been handled. */
  private async fitFolder(typed: string, confirmed: boolean): Promise<string> {
    const unfit = (detail: string) => new Problem('watched-unfit', { path: typed, detail });
    if (!isAbsolute(typed)) throw unfit('a path begins at the root, like /home/me/Scans');
    const insistOnFit = (path: string) => {
      if (this.ownFolders.some((own) => isWithin(path, resolve(own))))
        throw unfit('Crow Shelf keeps its own files there');
      if (isOfSystem(path)) throw unfit('it belongs to the system');
    };
    insistOnFit(resolve(typed));
    const path = await realpath(typed).catch(() => undefined);
    if (!path || !(await lstat(path)).isDirectory()) throw unfit('there is no such folder');
    insistOnFit(path);
    if ([...this.folders.values()].some((each) => each.path !== path && isWithin(path, each.path) && inHandled(path)))
      throw unfit('handled files of another watched folder are kept there');
    if (!confirmed) await insistOnFewPapers(path);
    try {
      await mkdir(join(path, DONE), { recursive: true });
      await mkdir(join(path, REFUSED), { recursive: true });
    } catch (error) {
      throw unfit(`nothing may be written in it (${(error as NodeJS.ErrnoException).code})`);
    }
    return path;
  }

  private async reload(): Promise<void> {
    const { manager } = this.context.database.source;
    const now = await rows<Pick<Watched, 'id' | 'path' | 'purpose'>>(
      manager,
      'select id, path, purpose from watched_folder order by added_at',
    );
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
    const refusals = await rows<{ folderId: string; name: string; problem: ProblemReport }>(
      manager,
      'select folder_id as "folderId", name, problem from watched_refusal order by at desc limit 200',
    );
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
    const [known] = await rows<{ state: string; problem: ProblemReport | null }>(
      manager,
      'select state, problem from source_file where id = $1',
      [fileId],
    );
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
      const twin = await takenBefore(manager, await sha256Of(bytes()));
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
      if (problem)
        await this.context.database.source.manager.query(
          'insert into watched_refusal (folder_id, name, problem) select $1, $2, $3 where exists (select 1 from watched_folder where id = $1)',
          [id, name, problem],
        );
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
  const [latest] = await rows<{ stackId: string; next: number }>(
    manager,
    `select s.id as "stackId", (max(f.position) + 1)::int as next from stack s join source_file f on f.stack_id = s.id
     where s.watched_folder_id = $1 and s.state = 'open' and s.step = 0 and s.binned_at is null
     group by s.id having max(f.created_at) > now() - interval '${SAME_STACK}' order by max(f.created_at) desc limit 1`,
    [id],
  );
  const stackName = `${basename(path)}, ${writeMoment(new Date())}`;
  return latest
    ? { stackId: latest.stackId, stackName, position: latest.next }
    : { stackId: randomUUID(), stackName, position: 0 };
}

/** The file of the same bytes that was taken in before, unless it has been refused, dismissed or binned. */
async function takenBefore(manager: EntityManager, sha256: string): Promise<{ name: string; at: Date } | undefined> {
  const [twin] = await rows<{ name: string; at: Date }>(
    manager,
    `select f.name, f.created_at as at from source_file f join blob b on b.id = f.blob_id join stack s on s.id = f.stack_id
     where b.sha256 = $1 and f.state <> 'refused' and not f.dismissed and s.binned_at is null
       and not exists (select 1 from document_page dp join document d on d.id = dp.document_id join page p on p.id = dp.page_id
                       where p.source_file_id = f.id and d.binned_at is not null)
     order by f.created_at limit 1`,
    [sha256],
  );
  return twin;
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

/** The folders of the system, and those that hold them. */
function isOfSystem(path: string): boolean {
  if (path === sep) return true;
  return (
    SYSTEM.some((folder) => isWithin(path, folder)) &&
    !NOT_SYSTEM.some((folder) => path !== folder && isWithin(path, folder))
  );
}

/** What a drive that hangs never answers, as a problem. */
async function inTime<Result>(path: string, work: Promise<Result>): Promise<Result> {
  const over = new AbortController();
  const late = sleep(AWAY_MS, undefined, { signal: over.signal }).then(() => {
    throw new Problem('watched-gone', { path });
  });
  late.catch(() => undefined);
  try {
    return await Promise.race([work, late]);
  } finally {
    over.abort();
  }
}

/** Whether a file is, by how it begins, one that may hold pages. Nothing but a plain file is looked into. */
async function isPaper(path: string): Promise<boolean> {
  const handle = await open(path, constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK).catch(
    () => undefined,
  );
  // What may not be read is told of where it is taken in.
  if (!handle) return true;
  try {
    if (!(await handle.stat()).isFile()) return false;
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0);
    const head = buffer.subarray(0, bytesRead);
    return detectFormat(head) !== undefined || head.subarray(0, 4).toString('latin1') === 'PK\x03\x04';
  } finally {
    await handle.close();
  }
}

/** @throws Problem 'watched-full' where more than a few papers lie that nobody may have thought of */
async function insistOnFewPapers(path: string): Promise<void> {
  const inside = await readdir(path, { withFileTypes: true });
  const names = inside.flatMap((each) => (each.isFile() && !NOT_YET.test(each.name) ? [each.name] : []));
  const papers: string[] = [];
  for (const name of names.sort(compareNames).slice(0, MOST_LOOKED_AT))
    if (await isPaper(join(path, name))) papers.push(name);
  if (papers.length <= FEW) return;
  const more = papers.length - MOST_NAMED;
  const named = papers.slice(0, MOST_NAMED).join(', ') + (more > 0 ? ` and ${more} more` : '');
  const some = names.length > MOST_LOOKED_AT ? `${papers.length} or more` : papers.length;
  throw new Problem('watched-full', { path, papers: some, names: named });
}

const isWithin = (path: string, folder: string) => path === folder || path.startsWith(folder + sep);
const inHandled = (path: string) => [DONE, REFUSED].includes(basename(path));
