import { IsNull, Not } from 'typeorm';
import { createHash, randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, stat, unlink, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Problem, ProblemReport } from '@crow/contract/problems';
import { freeName, nameKey } from '@crow/core/filing/names';
import { exists, FileTree, isFileError, sayFileError } from '../engines/fileTree';
import { Context } from '../platform/context';
import { readBlob } from '../platform/blobs';
import { Document, Folder, ShelfFile, ShelfMark } from '../platform/entities';
import { record } from '../platform/history';
import { announce } from '../platform/live';
import { Wanted, WantedFile, wantedOnDisk } from './queries';
import { lockDocumentIfThere } from '../stack/locks';
import { takeInMarks } from './foreignMarks';

/** A changed file that is larger is not looked through for marks. */
const MOST_MARKED_BYTES = 30 * 1024 ** 2;
/** Tells the shelf folder from an empty place where its drive belongs. */
const MARK = '.crow-shelf';

/**
 * The shelf folder: a mirror of the filed documents as real files. The database is the truth. A file is written aside,
 * synced, linked to its name (which fails rather than overwrite) and only then entered in the database.
 */
export class Shelf {
  private turn: Promise<unknown> = Promise.resolve();
  /** Why the folder can't be worked in, when it was looked for last. */
  gone: ProblemReport | undefined;
  readonly files: FileTree;

  constructor(
    readonly context: Context,
    readonly root: string,
  ) {
    this.files = new FileTree(root);
  }

  /**
   * Makes sure that the folder can be told from an empty place where a drive belongs: by a file in it, made with the folder.
   * @param anew whether the folder was lost, and is begun again
   */
  async mark({ anew = false } = {}): Promise<void> {
    const { manager } = this.context.database.source;
    const [known] = await manager.find(ShelfMark);
    if (known && !anew) return void (await this.isPresent());
    if (!known && !(await this.holdsWhatWasPlaced())) return void (await this.isPresent());
    const mark = randomUUID();
    await mkdir(this.root, { recursive: true });
    await writeFile(join(this.root, MARK), `${mark}\n`);
    await manager.upsert(ShelfMark, { one: true, mark }, ['one']);
    this.gone = undefined;
  }

  /** Of a shelf that was begun before there were marks: whether any of its files is there, or none should be. */
  private async holdsWhatWasPlaced(): Promise<boolean> {
    const placed = await this.context.database.source.manager.find(ShelfFile, { take: 50 });
    if (placed.length === 0) return true;
    for (const { path } of placed) if (await exists(join(this.root, path))) return true;
    return false;
  }

  /** Whether the folder is there, and is the one that was marked. */
  async isPresent(): Promise<boolean> {
    const [known] = await this.context.database.source.manager.find(ShelfMark);
    const found = await readFile(join(this.root, MARK), 'utf8').catch(() => undefined);
    const present = known !== undefined && found?.trim() === known.mark;
    this.gone = present ? undefined : new Problem('shelf-gone', { path: this.root }).report;
    return present;
  }

  /** One thing at a time is done in the shelf folder, so that nobody looks at it in the middle of a change. */
  inTurn<Result>(work: () => Promise<Result>): Promise<Result> {
    const done = this.turn.then(work, work);
    this.turn = done.catch(() => undefined);
    return done;
  }

  /**
   * Makes the file of a document agree with the database: writes, moves, replaces or removes it. May be repeated at any time.
   * @throws Problem 'shelf-not-writable'
   */
  shelve(documentId: string, actorId: string): Promise<void> {
    return this.inTurn(() => this.shelveNow(documentId, actorId));
  }

  /** As `shelve`, for whoever has the turn already. */
  async shelveNow(documentId: string, actorId: string): Promise<void> {
    // Nothing is written into the empty place of a drive.
    if (!(await this.isPresent())) throw new Problem('shelf-gone', { path: this.root });
    try {
      await this.agree(documentId, actorId);
      await this.context.happenings.tell(this.context.database.source.manager, 'paper-shelved', { documentId });
    } catch (error) {
      if (error instanceof Problem || !isFileError(error)) throw error;
      const problem = new Problem('shelf-not-writable', { detail: sayFileError(error) });
      await this.tell(documentId, problem);
      throw problem;
    }
  }

  private async agree(documentId: string, actorId: string): Promise<void> {
    const { manager } = this.context.database.source;
    const wanted = await wantedOnDisk(manager, documentId);
    const placed = await manager.findBy(ShelfFile, { documentId });
    const files = wanted && wanted.state !== 'check' && !wanted.binnedAt ? wanted.files : [];
    for (const file of placed)
      if (!files.some(({ ending }) => ending === file.ending)) await this.takeAway(documentId, file);
    if (!wanted || files[0]?.ending !== '.pdf') return;
    for (const file of files) {
      const before = placed.find(({ ending }) => ending === file.ending);
      const outcome = await this.place(documentId, wanted, file, before);
      if (outcome === 'foreign' && file.ending === '.pdf' && (await this.onlyMarked(documentId, before!))) return;
      if (outcome === 'foreign')
        return this.tell(documentId, new Problem('shelf-file-changed', { path: before!.path }));
      if (outcome === 'taken') return this.renumber(documentId, actorId, wanted);
    }
    await this.arrived(documentId, actorId, `${wanted.folderPath}/${wanted.name}.pdf`);
  }

  /** Whether somebody only marked something on a file in another program: these marks are taken in, and the file is known as it is. */
  private async onlyMarked(documentId: string, { path, sha256 }: ShelfFile): Promise<boolean> {
    const full = join(this.root, path);
    const before = await stat(full);
    if (before.size > MOST_MARKED_BYTES) return false;
    const bytes = await readFile(full);
    // One that is being written is looked at again when it is there.
    if (bytes.length !== before.size || (await stat(full)).mtimeMs !== before.mtimeMs) return false;
    if (!(await takeInMarks(this.context, documentId, { sha256, bytes }))) return false;
    // Saved once more meanwhile: that is another change.
    if ((await stat(full)).mtimeMs !== before.mtimeMs) return false;
    await this.enter(documentId, '.pdf', path, createHash('sha256').update(bytes).digest('hex'));
    return true;
  }

  /**
   * Puts one file of a document where it should stand, and enters it.
   * @returns 'foreign' when somebody changed the one that stands, 'taken' when the name is taken by a file that isn't ours
   */
  private async place(
    documentId: string,
    { folderPath: folder, name }: Wanted,
    { ending, blobId, sha256 }: WantedFile,
    placed: ShelfFile | undefined,
  ): Promise<'placed' | 'foreign' | 'taken'> {
    const path = `${folder}/${name}${ending}`;
    if (placed && (await this.files.isForeign(placed))) return 'foreign';
    const standing = placed && (await exists(join(this.root, placed.path)));
    if (!standing || placed.path !== path || placed.sha256 !== sha256) {
      const source =
        standing && placed.sha256 === sha256
          ? join(this.root, placed.path)
          : await this.files.writeAside(`${documentId}${ending}`, readBlob(this.context.database, blobId));
      await this.files.makeFolder(folder!);
      if (standing && placed.path === path) await rename(source, join(this.root, path));
      else if (!(await this.files.linkTo(source, path, sha256, () => this.belongsToAnother(path)))) return 'taken';
      await this.files.sync(path);
      await this.enter(documentId, ending, path, sha256);
      if (standing && placed.path !== path) await this.files.removeFile(placed.path);
      if (source !== join(this.root, placed?.path ?? '')) await unlink(source).catch(() => undefined);
    } else await this.enter(documentId, ending, path, sha256);
    return 'placed';
  }

  private async belongsToAnother(path: string): Promise<boolean> {
    return (await this.context.database.source.manager.countBy(ShelfFile, { path })) > 0;
  }

  /** A name that is taken on disk by a file that isn't ours gets a number, in the database too. */
  private async renumber(documentId: string, actorId: string, wanted: Wanted): Promise<void> {
    await this.context.database.source.transaction(async (manager) => {
      // A document is locked before its folder, everywhere.
      await lockDocumentIfThere(manager, documentId);
      await manager.findOne(Folder, { where: { id: wanted.folderId! }, lock: { mode: 'pessimistic_write' } });
      const others = await manager.find(Document, {
        where: { folderId: wanted.folderId!, state: Not('check'), binnedAt: IsNull() },
        select: { id: true, nameKey: true },
      });
      const name = freeName(wanted.name, new Set([...others.map((other) => other.nameKey!), nameKey(wanted.name)]));
      await manager.update(Document, { id: documentId }, { name, nameKey: nameKey(name) });
      await record(manager, { id: actorId }, 'numbered', 'document', documentId, {
        from: wanted.name,
        to: name,
      });
    });
    return this.agree(documentId, actorId);
  }

  /** Enters a file that stands where it should in the database. */
  async enter(documentId: string, ending: string, path: string, sha256: string): Promise<void> {
    const written = await this.files.describe(path, sha256);
    await this.context.database.source.manager.upsert(ShelfFile, { documentId, ending, ...written }, [
      'documentId',
      'ending',
    ]);
  }

  /** All files of a document stand where they should. */
  private async arrived(documentId: string, actorId: string, path: string): Promise<void> {
    await this.context.database.source.transaction(async (manager) => {
      const arrived = await manager.update(Document, { id: documentId, state: 'filing' }, { state: 'filed' });
      await manager.update(Document, { id: documentId, problem: Not(IsNull()) }, { problem: null });
      if (arrived.affected === 1) await record(manager, { id: actorId }, 'shelved', 'document', documentId, { path });
      await announce(manager, 'document', documentId);
    });
  }

  private async takeAway(documentId: string, placed: ShelfFile): Promise<void> {
    const { manager } = this.context.database.source;
    // What somebody changed is theirs: it stays.
    if (!(await this.files.isForeign(placed))) await this.files.removeFile(placed.path);
    await manager.delete(ShelfFile, { documentId, ending: placed.ending });
    await announce(manager, 'document', documentId);
  }

  /** Writes a problem down where the person sees it. */
  async tell(documentId: string, { report }: Problem): Promise<void> {
    const { manager } = this.context.database.source;
    await manager.update(Document, { id: documentId }, { problem: report });
    await announce(manager, 'document', documentId);
  }
}
