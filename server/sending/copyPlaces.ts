import { readFile, rename, rmdir, stat, unlink, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { IsNull, LessThan, Not } from 'typeorm';
import { CopyPlace as Shown, NewCopyPlace } from '@crow/contract/copyPlaces';
import { Problem } from '@crow/contract/problems';
import { freeName, nameKey } from '@crow/core/filing/names';
import { COPIES_MARK, fitPath, inTime } from '../capture/watchedPlaces';
import { exists, FileTree, isFileError, sayFileError } from '../engines/fileTree';
import { readBlob } from '../platform/blobs';
import { Context } from '../platform/context';
import { CopyPlace, Folder, PlacedCopy, WatchedFolder } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { pathsOfFolders } from '../platform/queries';
import { FiledPdf, filedPdfs } from './queries';

const LOOK_EVERY_MS = 60_000;
/** So often each place is looked at, though nothing changed on the shelf: somebody may have taken copies away. */
const LOOK_AGAIN_MS = 10 * 60_000;
/** How many are told of that were left alone. */
const MOST_LEFT = 20;
/** How many copies are made between two looks whether they are still wanted. */
const AT_A_TIME = 20;

/** Folders of the machine, or of drives, that have copies of filed PDFs, once or kept in step with the shelf. */
export class CopyPlaces {
  private looking: ReturnType<typeof setInterval> | undefined;

  constructor(
    private readonly context: Context,
    /** Where no copies go: where the program keeps its own files. */
    private readonly ownFolders: readonly string[],
  ) {}

  /** From then on places whose drive was away, and those not looked at for a while, are looked at again. */
  start(): void {
    const look = () => this.lookAgain().catch((error) => this.context.log.warn({ error }, 'looking at copies'));
    void look();
    this.looking = setInterval(() => void look(), LOOK_EVERY_MS);
  }

  close(): void {
    clearInterval(this.looking);
  }

  private async lookAgain(): Promise<void> {
    const { manager } = this.context.database.source;
    const places = await manager.find(CopyPlace, {
      where: [{ keep: true, agreedAt: LessThan(new Date(Date.now() - LOOK_AGAIN_MS)) }, { problem: Not(IsNull()) }],
      select: { id: true },
    });
    for (const { id } of places) await this.context.jobs.askOnce(manager, 'copy', { placeId: id });
  }

  async list(): Promise<Shown[]> {
    const { manager } = this.context.database.source;
    const places = await manager.find(CopyPlace, { order: { madeAt: 'desc' } });
    const paths = new Map((await pathsOfFolders(manager)).map(({ id, path }) => [id, path]));
    return Promise.all(
      places.map(async (place) => ({
        id: place.id,
        path: place.path,
        scope: place.scope,
        of: place.documentIds ? String(place.documentIds.length) : (paths.get(place.folderId ?? '') ?? ''),
        keep: place.keep,
        copies: await manager.countBy(PlacedCopy, { placeId: place.id }),
        wanted: place.wanted,
        agreed: place.agreedAt?.toISOString() ?? null,
        left: place.leftAlone.slice(0, MOST_LEFT),
        problem: place.problem,
      })),
    );
  }

  /** @throws Problem 'copies-unfit', 'copies-gone', 'not-found' */
  async add(actor: ActingAs, { path: typed, folderId, documentIds, keep }: NewCopyPlace): Promise<Shown> {
    const unfit = (detail: string) => new Problem('copies-unfit', { path: typed, detail });
    const gone = () => new Problem('copies-gone', { path: typed });
    const path = await inTime(typed, fitPath(typed, this.ownFolders, unfit), gone);
    const { source } = this.context.database;
    const id = await source.transaction(async (manager) => {
      if (folderId && !(await manager.existsBy(Folder, { id: folderId })))
        throw new Problem('not-found', { what: 'The folder' });
      if (await manager.existsBy(WatchedFolder, { path }))
        throw unfit('it is a watched folder, from which they would be taken in again');
      const before = await manager.findOneBy(CopyPlace, { path });
      if (before?.keep) throw unfit('copies are kept in step there already');
      // What was copied there once is nobody's concern any more.
      if (before) await manager.delete(CopyPlace, { id: before.id });
      const scope = folderId ? ('folder' as const) : documentIds ? ('papers' as const) : ('shelf' as const);
      const row = { path, scope, folderId, documentIds, keep, actorId: actor.id };
      const added = manager.create(CopyPlace, row);
      await manager.save(added);
      if (keep)
        await writeFile(join(path, COPIES_MARK), `${added.id}\n`).catch((error: NodeJS.ErrnoException) => {
          throw unfit(sayFileError(error));
        });
      await record(manager, actor, keep ? 'keeps copies in' : 'copied into', 'copy place', added.id, { path });
      await this.context.jobs.askOnce(manager, 'copy', { placeId: added.id }, { gatherMs: 0 });
      await announce(manager, 'copy-place', added.id);
      return added.id;
    });
    return (await this.list()).find((each) => each.id === id)!;
  }

  /** Looks at a place now. @throws Problem 'not-found' */
  async again(id: string): Promise<void> {
    const { manager } = this.context.database.source;
    if (!(await manager.existsBy(CopyPlace, { id })))
      throw new Problem('not-found', { what: 'The folder with copies' });
    await this.context.jobs.askOnce(manager, 'copy', { placeId: id }, { gatherMs: 0 });
  }

  /** Leaves a place to itself; the copies stay there. @throws Problem 'not-found' */
  async leave(actor: ActingAs, id: string): Promise<void> {
    const { source } = this.context.database;
    const place = await source.manager.findOneBy(CopyPlace, { id });
    if (!place) throw new Problem('not-found', { what: 'The folder with copies' });
    await source.transaction(async (manager) => {
      await manager.delete(CopyPlace, { id });
      await record(manager, actor, 'leaves copies in', 'copy place', id, { path: place.path });
      await announce(manager, 'copy-place', id);
    });
    if (place.keep && (await isMarked(place))) await unlink(join(place.path, COPIES_MARK)).catch(() => undefined);
  }

  /** Makes the copies in a place agree with the shelf. May be repeated at any time; what can't be done now is told there. */
  async agree(placeId: string): Promise<void> {
    const { manager } = this.context.database.source;
    const place = await manager.findOneBy(CopyPlace, { id: placeId });
    // What was copied once is done.
    if (!place || (!place.keep && place.agreedAt)) return;
    const settle = async (part: Partial<CopyPlace>) => {
      await manager.update(CopyPlace, { id: placeId }, part as object);
      await announce(manager, 'copy-place', placeId);
    };
    try {
      const gone = () => new Problem('copies-gone', { path: place.path });
      const isThere = place.keep ? isMarked(place) : isFolder(place.path);
      if (!(await inTime(place.path, isThere, gone))) throw gone();
      const leftAlone = await new Agreement(this.context, place).reach();
      if (leftAlone) await settle({ agreedAt: new Date(), problem: null, leftAlone });
    } catch (error) {
      if (!(error instanceof Problem) && !isFileError(error)) throw error;
      const told =
        error instanceof Problem
          ? error
          : new Problem('copies-not-writable', { path: place.path, detail: sayFileError(error) });
      await settle({ agreedAt: null, problem: told.report });
    }
  }
}

const isMarked = async ({ id, path }: CopyPlace): Promise<boolean> =>
  (await readFile(join(path, COPIES_MARK), 'utf8').catch(() => '')).trim() === id;
const isFolder = (path: string): Promise<boolean> =>
  stat(path).then(
    (found) => found.isDirectory(),
    () => false,
  );

interface Wanted extends FiledPdf {
  path: string;
}

/** One time of making a place agree with the shelf. */
class Agreement {
  private readonly tree: FileTree;
  private readonly left: string[] = [];

  constructor(
    private readonly context: Context,
    private readonly place: CopyPlace,
  ) {
    this.tree = new FileTree(place.path);
  }

  private get manager() {
    return this.context.database.source.manager;
  }

  /** @returns what was left alone; nothing when the place was left to itself meanwhile */
  async reach(): Promise<string[] | undefined> {
    const { id: placeId } = this.place;
    const wanted = await this.wanted();
    await this.manager.update(CopyPlace, { id: placeId }, { wanted: wanted.length });
    const placed = new Map((await this.manager.findBy(PlacedCopy, { placeId })).map((copy) => [copy.documentId, copy]));
    const byId = new Map(wanted.map((each) => [each.id, each]));
    for (const copy of placed.values())
      if (byId.get(copy.documentId)?.path !== copy.path) {
        await this.takeAway(copy, byId.get(copy.documentId));
        placed.delete(copy.documentId);
      }
    let made = 0;
    for (const each of wanted) {
      if (!(await this.put(each, placed.get(each.id)))) continue;
      if (made++ % AT_A_TIME !== 0) continue;
      if (!(await this.manager.existsBy(CopyPlace, { id: placeId }))) return undefined;
      await announce(this.manager, 'copy-place', placeId);
    }
    await rmdir(this.tree.at('.arriving')).catch(() => undefined);
    return this.left;
  }

  private async wanted(): Promise<Wanted[]> {
    const { scope, folderId } = this.place;
    const papers = await filedPdfs(this.manager, this.place);
    if (scope === 'papers') return placesOf(papers, () => '');
    const above = (await pathsOfFolders(this.manager)).find(({ id }) => id === folderId)?.path;
    return placesOf(papers, (folder) => (above === undefined ? folder : folder.slice(above.length + 1)));
  }

  /** A copy that is to lie elsewhere, or nowhere: what somebody changed is theirs, and stays. */
  private async takeAway(copy: PlacedCopy, wanted: Wanted | undefined): Promise<void> {
    const { placeId, documentId } = copy;
    const isOurs = !(await this.tree.isForeign(copy));
    const stands = await exists(this.tree.at(copy.path));
    // Moved, so that whoever passes copies on sees no new file.
    if (isOurs && stands && wanted?.sha256 === copy.sha256 && (await this.move(copy.path, wanted)))
      return this.enter(wanted);
    if (isOurs) await this.tree.removeFile(copy.path);
    else this.left.push(`${copy.path} (changed there)`);
    await this.manager.delete(PlacedCopy, { placeId, documentId });
  }

  /** @returns whether nothing else stands where it is to lie */
  private async move(from: string, { path, sha256 }: Wanted): Promise<boolean> {
    await this.tree.makeFolder(folderOf(path));
    // On drives that tell no capitals apart both names are one file's.
    if (nameKey(from) === nameKey(path)) {
      await rename(this.tree.at(from), this.tree.at(path));
      return true;
    }
    if (!(await this.tree.linkTo(this.tree.at(from), path, sha256, () => this.belongsToAnother(path)))) return false;
    await this.tree.removeFile(from);
    return true;
  }

  /** @returns whether something was written */
  private async put(wanted: Wanted, before: PlacedCopy | undefined): Promise<boolean> {
    const { id, path, blobId, sha256 } = wanted;
    // What was moved a moment ago is entered already.
    const known = before ?? (await this.manager.findOneBy(PlacedCopy, { placeId: this.place.id, documentId: id }));
    const stands = known !== null && (await exists(this.tree.at(path)));
    if (known && stands && (await this.tree.isForeign(known))) {
      this.left.push(`${path} (changed there)`);
      return false;
    }
    if (known && stands && known.sha256 === sha256) return false;
    const aside = await this.tree.writeAside(`${id}.pdf`, readBlob(this.context.database, blobId));
    await this.tree.makeFolder(folderOf(path));
    if (stands) await rename(aside, this.tree.at(path));
    else if (!(await this.tree.linkTo(aside, path, sha256, () => this.belongsToAnother(path)))) {
      await unlink(aside).catch(() => undefined);
      this.left.push(`${path} (something else has this name)`);
      return false;
    } else await unlink(aside).catch(() => undefined);
    await this.tree.sync(path);
    await this.enter(wanted);
    return true;
  }

  private async enter({ id, path, sha256 }: Wanted): Promise<void> {
    const written = await this.tree.describe(path, sha256);
    await this.manager.upsert(PlacedCopy, { placeId: this.place.id, documentId: id, ...written }, [
      'placeId',
      'documentId',
    ]);
  }

  private belongsToAnother(path: string): Promise<boolean> {
    return this.manager.existsBy(PlacedCopy, { placeId: this.place.id, path });
  }
}

const folderOf = (path: string) => path.split('/').slice(0, -1).join('/');

/**
 * Where copies of papers lie: in folders as they do on the shelf, single papers beside each other; those of one name are numbered.
 * @param folderIn the folder of the place, below it, of a folder of the shelf; '' for itself
 */
function placesOf(papers: readonly FiledPdf[], folderIn: (folder: string) => string): Wanted[] {
  const taken = new Map<string, Set<string>>();
  return papers.map((paper) => {
    const folder = folderIn(paper.folder);
    const names = taken.get(nameKey(folder)) ?? new Set<string>();
    taken.set(nameKey(folder), names);
    const name = freeName(paper.name, names);
    names.add(nameKey(name));
    return { ...paper, path: `${folder && `${folder}/`}${name}.pdf` };
  });
}
