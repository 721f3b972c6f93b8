import { exists, hashOf } from '../engines/fileTree';
import { createReadStream, existsSync, FSWatcher, watch } from 'node:fs';
import { link, lstat, mkdir, readdir, rename, stat, unlink } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { basename, dirname, extname, join } from 'node:path';
import { Problem, ProblemReport } from '@crow/contract/problems';
import { DocumentSummary } from '@crow/contract/documents';
import { DiskChoice } from '@crow/contract/folders';
import { nameKey } from '@crow/core/filing/names';
import { inspectFile } from '../engines/sourceFile';
import { MOST_FILE_BYTES, storeBlob } from '../platform/blobs';
import { insertNew } from '../platform/database';
import { documentsTroubledBy } from '../checking/documents';
import { Document, DocumentFile, ShelfFile, ShelfLeft } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { formOf } from './besides';
import { changeDocuments } from './changingDocuments';
import { lockDocument } from '../stack/locks';
import { settleName } from './filingDocuments';
import { folderAt } from './folders';
import { takeInBytes } from '../capture/intake';
import { Shelf } from './shelf';
import { documentsOnDisk, documentsWithProblems, enterReplacing, keepBesideNoMore, keepVersionBefore } from './queries';

/** Changes come in bursts: the folder is looked at when it has been quiet for so long. */
const QUIET_MS = 2000;
/** And, since not every file system tells of changes, every so often anyway. */
const EVERY_MS = 10 * 60_000;
/** How often it is looked whether the folder is there at all. */
const PRESENT_MS = 10_000;
/** What was found on disk, as the problems of the documents concerned. */
export const CHANGED_ON_DISK = ['shelf-file-changed', 'shelf-file-moved', 'shelf-file-missing'];

/**
 * What somebody did to the files in the shelf folder: noticed, told, and settled as the person chooses. Until then everything on
 * disk stays as it was found.
 */
export class ShelfChanges {
  private watching?: FSWatcher;
  private timer?: NodeJS.Timeout;
  private every?: NodeJS.Timeout;
  private presence?: NodeJS.Timeout;
  /** How many files of others lay in the folder when it was looked at last. */
  strangersSeen = 0;

  constructor(
    private readonly shelf: Shelf,
    private readonly actor: ActingAs,
  ) {}

  /** Looks at the shelf folder now, and again whenever something changes in it. */
  async start(): Promise<void> {
    await this.shelf.mark();
    await this.inspectQuietly();
    this.every = setInterval(() => void this.inspectQuietly(), EVERY_MS);
    this.presence = setInterval(() => void this.lookForTheDrive(), PRESENT_MS);
    this.listen();
  }

  /** Hears of changes in the folder; what it heard by before is of a folder that may be gone. */
  private listen(): void {
    this.watching?.close();
    const soon = () => {
      clearTimeout(this.timer);
      this.timer = setTimeout(() => void this.inspectQuietly(), QUIET_MS);
    };
    try {
      this.watching = watch(this.shelf.root, { recursive: true }, soon);
      this.watching.on('error', () => undefined);
    } catch {
      // Where there are no notifications left to be had, every so often is all there is.
    }
  }

  /** A drive that went away comes back: then everything in it is looked at again. */
  private async lookForTheDrive(): Promise<void> {
    try {
      const before = this.shelf.gone;
      const present = await this.shelf.isPresent();
      if (Boolean(before) !== present) return;
      await announce(this.shelf.context.database.source.manager, 'document', null);
      if (!present) return;
      this.listen();
      await this.inspect();
    } catch (error) {
      this.shelf.context.log.warn({ error }, 'could not look for the shelf folder');
    }
  }

  /** What keeps files from going to the shelf folder. */
  async troubles(): Promise<ProblemReport[]> {
    return this.shelf.gone ? [this.shelf.gone] : [];
  }

  close(): void {
    this.watching?.close();
    clearTimeout(this.timer);
    clearInterval(this.every);
    clearInterval(this.presence);
  }

  private async inspectQuietly(): Promise<void> {
    try {
      await this.inspect();
    } catch (error) {
      this.shelf.context.log.warn({ error }, 'could not look at the shelf folder');
    }
  }

  /**
   * Looks whether every file is as it was written. What was changed, moved or taken away is told. Where the folder itself is gone,
   * nothing is said of its files.
   */
  inspect(): Promise<void> {
    return this.shelf.inTurn(() => this.look());
  }

  private async look(): Promise<void> {
    const { root, context } = this.shelf;
    const { manager } = context.database.source;
    if (!(await this.shelf.isPresent())) return;
    const placed = await manager.find(ShelfFile);
    const missing: ShelfFile[] = [];
    const again: string[] = [];
    const told = await this.toldOf();
    for (const file of placed) {
      const now = await lstat(join(root, file.path)).catch(() => undefined);
      if (!now) missing.push(file);
      else if (now.size !== file.size || now.mtimeMs !== file.modifiedMs || told.has(file.documentId))
        again.push(file.documentId);
    }
    await this.tellOfMissing(missing, placed, told);
    const strangers = (await this.strangers()).length;
    if (strangers !== this.strangersSeen) {
      this.strangersSeen = strangers;
      await announce(manager, 'document', null);
    }
    await context.jobs.ask(manager, 'shelve', ...again.map((documentId) => ({ documentId, actorId: this.actor.id })));
  }

  /** What has been told of documents whose files were found otherwise than written. */
  private async toldOf(): Promise<Map<string, ProblemReport>> {
    const found = await documentsWithProblems(this.shelf.context.database.source.manager, CHANGED_ON_DISK);
    return new Map(found.map(({ id, problem }) => [id, problem]));
  }

  private async tellOfMissing(
    missing: ShelfFile[],
    placed: ShelfFile[],
    told: Map<string, ProblemReport>,
  ): Promise<void> {
    if (missing.length === 0) return;
    const astray = await this.filesOfOthers(new Set(placed.map(({ path }) => path)));
    for (const file of missing) {
      const { path, documentId, ending, sha256, size } = file;
      let now: string | undefined;
      for (const other of ending === '.pdf' ? astray : [])
        if (other.size === size && (other.sha256 ??= await hashOf(join(this.shelf.root, other.path))) === sha256) {
          now = other.path;
          astray.delete(other);
          break;
        }
      const problem = now
        ? new Problem('shelf-file-moved', { path, now })
        : new Problem('shelf-file-missing', { path });
      if (told.get(documentId)?.happened !== problem.message) await this.shelf.tell(documentId, problem);
    }
  }

  /** PDFs in the shelf folder that it has not written there. */
  private async filesOfOthers(own: Set<string>): Promise<Set<{ path: string; size: number; sha256?: string }>> {
    const { root } = this.shelf;
    const entries = await readdir(root, { recursive: true, withFileTypes: true });
    const found = new Set<{ path: string; size: number }>();
    for (const entry of entries) {
      const path = join(entry.parentPath, entry.name).slice(root.length + 1);
      if (!entry.isFile() || path.startsWith('.') || own.has(path) || extname(path).toLowerCase() !== '.pdf') continue;
      found.add({ path, size: (await stat(join(root, path))).size });
    }
    return found;
  }

  /** The documents whose files were found otherwise than written. */
  list(): Promise<DocumentSummary[]> {
    return documentsTroubledBy(this.shelf.context.database.source.manager, CHANGED_ON_DISK);
  }

  /**
   * Settles what was found: as it is on disk now, as it was filed, or, of a changed file, by taking it in as a new paper. What is
   * settled already, or has become well by itself, is passed over.
   * @throws Problem 'shelf-file-unfit' for a changed file that is no PDF, or one that lies in no folder
   */
  async settle(actor: ActingAs, ids: string[], choice: DiskChoice): Promise<void> {
    await this.inspect();
    for (const id of ids) await this.shelf.inTurn(() => this.settleOne(actor, id, choice));
  }

  private async settleOne(actor: ActingAs, documentId: string, choice: DiskChoice): Promise<void> {
    const { manager } = this.shelf.context.database.source;
    if (!(await this.toldOf()).has(documentId)) return;
    for (const placed of await manager.findBy(ShelfFile, { documentId })) {
      const missing = !(await exists(join(this.shelf.root, placed.path)));
      if (!missing && !(await this.shelf.files.isForeign(placed))) continue;
      if (placed.ending !== '.pdf' && choice === 'as-on-disk') await this.keepNoMore(placed);
      else if (missing) await this.settleMissing(actor, placed, choice);
      else if (choice === 'as-on-disk') await this.takeOver(actor, placed);
      else if (choice === 'new-paper') await this.takeInAsNew(actor, placed);
      else await this.layAside(placed.path);
    }
    await this.shelf.shelveNow(documentId, actor.id);
  }

  private async settleMissing(actor: ActingAs, placed: ShelfFile, choice: DiskChoice): Promise<void> {
    const { documentId, path } = placed;
    const now = placed.ending === '.pdf' ? await this.findMoved(placed) : undefined;
    if (choice === 'as-on-disk' && now) return this.follow(actor, placed, now);
    if (now) return this.moveBack(now, path);
    if (choice !== 'as-on-disk') return;
    const { manager } = this.shelf.context.database.source;
    await manager.delete(ShelfFile, { documentId, ending: placed.ending });
    await manager.update(Document, { id: documentId }, { problem: null });
    await changeDocuments(this.shelf.context, actor, [{ id: documentId, binned: true }]);
  }

  /** What somebody changed or took away beside a PDF is theirs: its form is not made any more. */
  private async keepNoMore({ documentId, ending }: ShelfFile): Promise<void> {
    const { manager } = this.shelf.context.database.source;
    await keepBesideNoMore(manager, documentId, formOf(ending));
    await manager.delete(DocumentFile, { documentId, ending });
    await manager.delete(ShelfFile, { documentId, ending });
  }

  private async findMoved({ sha256, size }: ShelfFile): Promise<string | undefined> {
    const placed = await this.shelf.context.database.source.manager.find(ShelfFile);
    for (const other of await this.filesOfOthers(new Set(placed.map(({ path }) => path))))
      if (other.size === size && (await hashOf(join(this.shelf.root, other.path))) === sha256) return other.path;
    return undefined;
  }

  private async moveBack(from: string, to: string): Promise<void> {
    const { root } = this.shelf;
    await mkdir(dirname(join(root, to)), { recursive: true });
    // A name that somebody else has taken meanwhile stays theirs; the document's own file is written under a number then.
    await link(join(root, from), join(root, to)).then(
      () => unlink(join(root, from)),
      () => undefined,
    );
  }

  /** The document goes where its file is now, and is called as that is. */
  private async follow(actor: ActingAs, { documentId, path: before, sha256 }: ShelfFile, path: string): Promise<void> {
    const { context } = this.shelf;
    const folder = dirname(path);
    if (folder === '.') throw new Problem('shelf-file-unfit', { path, detail: 'it lies in no folder' });
    await context.database.source.transaction(async (manager) => {
      await lockDocument(manager, documentId);
      const folderId = await folderAt(manager, actor, folder);
      const name = await settleName(manager, folderId, basename(path, extname(path)), documentId);
      await manager.update(Document, { id: documentId }, { folderId, name, nameKey: nameKey(name) });
      await manager.update(ShelfFile, { documentId, ending: '.pdf' }, { path });
      await record(manager, actor, 'followed', 'document', documentId, { from: before, to: path });
    });
    await this.shelf.enter(documentId, '.pdf', path, sha256);
  }

  /** The changed file becomes the document's PDF; the one before stays among its earlier versions. */
  private async takeOver(actor: ActingAs, { documentId, path }: ShelfFile): Promise<void> {
    const { context, root } = this.shelf;
    const full = join(root, path);
    const { format } = await inspectFile(full, path).catch((error) => {
      throw error instanceof Problem ? new Problem('shelf-file-unfit', { path, detail: 'it can’t be opened' }) : error;
    });
    if (format !== 'pdf') throw new Problem('shelf-file-unfit', { path, detail: 'it is no PDF' });
    const blob = await storeBlob(context.database, createReadStream(full), {
      mostBytes: MOST_FILE_BYTES,
      tooLarge: () => new Problem('file-too-large', { name: path }),
    });
    const sha256 = await hashOf(full);
    await context.database.source.transaction(async (manager) => {
      await lockDocument(manager, documentId);
      await keepVersionBefore(manager, documentId, blob.id);
      await manager.update(Document, { id: documentId }, { pdfBlobId: blob.id, bareBlobId: null, archival: false });
      // From now on the document is made of it: a correction changes this file, and not the one before.
      const fileId = await enterReplacing(manager, actor.id, documentId, { blobId: blob.id, name: basename(path) });
      await context.jobs.ask(manager, 'take-in', { fileId });
      await record(manager, actor, 'took over', 'document', documentId, { path });
    });
    await this.shelf.enter(documentId, '.pdf', path, sha256);
  }

  /** PDFs in the shelf folder that somebody put there, as far as nobody has said that they are to be left. */
  async strangers(): Promise<{ path: string; bytes: number }[]> {
    const { manager } = this.shelf.context.database.source;
    if (!(await this.shelf.isPresent())) return [];
    const [placed, left] = await Promise.all([manager.find(ShelfFile), manager.find(ShelfLeft)]);
    const own = new Set([...placed, ...left].map(({ path }) => path));
    const missing = placed.filter(({ path }) => !existsSync(join(this.shelf.root, path)));
    const found = [...(await this.filesOfOthers(own))].filter(
      // One that was moved is told of with its document.
      ({ size }) => !missing.some((file) => file.size === size),
    );
    return found.map(({ path, size }) => ({ path, bytes: size })).sort((a, b) => a.path.localeCompare(b.path));
  }

  /** Takes files in that somebody put into the shelf folder: each goes to Check, to be filed in the folder that it lay in. */
  async takeInStrangers(actor: ActingAs, paths: string[]): Promise<void> {
    const { context, root } = this.shelf;
    const known = new Set((await this.strangers()).map(({ path }) => path));
    for (const path of paths) {
      if (!known.has(path)) continue;
      const name = basename(path);
      const stackId = randomUUID();
      const folder = dirname(path);
      await this.shelf.inTurn(async () => {
        const place = { stackId, fileId: randomUUID(), stackName: name, fileName: name, position: 0 };
        const onward = { whole: true, onward: true, wantedFolder: folder === '.' ? undefined : folder };
        await takeInBytes(context, actor, { ...place, ...onward }, createReadStream(join(root, path)));
        await unlink(join(root, path));
      });
    }
  }

  /** Files in the shelf folder that are to stay as they are. */
  async leaveStrangers(actor: ActingAs, paths: string[]): Promise<void> {
    await this.shelf.context.database.source.transaction(async (manager) => {
      await insertNew(manager, ShelfLeft, ...paths.map((path) => ({ path })));
      await record(manager, actor, 'left', 'folder', null, { files: paths.length });
      await announce(manager, 'document', null);
    });
  }

  /** Has the shelf folder, which was lost, written anew where it was. */
  async beginAnew(actor: ActingAs): Promise<void> {
    const { context } = this.shelf;
    await this.shelf.mark({ anew: true });
    const { manager } = context.database.source;
    const lost = await documentsOnDisk(manager);
    await context.jobs.ask(manager, 'shelve', ...lost.map(({ id }) => ({ documentId: id, actorId: actor.id })));
    await record(manager, actor, 'wrote anew', 'folder', null, { documents: lost.length });
    this.listen();
    await announce(manager, 'document', null);
  }

  /** The changed file is taken in as a paper of its own, and makes room. */
  private async takeInAsNew(actor: ActingAs, { path }: ShelfFile): Promise<void> {
    const { context, root } = this.shelf;
    const name = basename(path);
    await takeInBytes(
      context,
      actor,
      { stackId: randomUUID(), fileId: randomUUID(), stackName: name, fileName: name, position: 0 },
      createReadStream(join(root, path)),
    );
    await unlink(join(root, path));
  }

  /** A changed file makes room for the document's own and stays beside it. */
  private async layAside(path: string): Promise<void> {
    const { root } = this.shelf;
    const beginning = path.slice(0, -extname(path).length);
    for (let number = 1; ; number++) {
      const aside = `${beginning} (changed${number > 1 ? ` ${number}` : ''})${extname(path)}`;
      if (await exists(join(root, aside))) continue;
      await rename(join(root, path), join(root, aside));
      return;
    }
  }
}
