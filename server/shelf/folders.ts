import { randomUUID } from 'node:crypto';
import { EntityManager, In, IsNull, Not } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Folder as ShownFolder } from '@crow/contract/folders';
import { nameKey, safeName } from '@crow/core/filing/names';
import { Context } from '../platform/context';
import { insertNew } from '../platform/database';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { foldersWithPaths, treeOf, lockDocumentsIn, lockFolders, holdsSomething } from './queries';
import { Document, Folder } from '../platform/entities';

const MOST_DEPTH = 12;
/** All folders, ordered by path. @param seen those that somebody is narrowed to: the topmost of them lie in no other */
export async function listFolders(
  manager: EntityManager,
  seen: readonly string[] | null = null,
): Promise<ShownFolder[]> {
  const all = await foldersWithPaths(manager);
  const found = seen
    ? all
        .filter(({ id }) => seen.includes(id))
        .map((folder) => ({ ...folder, parentId: seen.includes(folder.parentId ?? '') ? folder.parentId : null }))
    : all;
  const inside = new Map(found.map(({ id, documents }) => [id, documents]));
  // The deepest first: each adds what it holds by then to the one that it is in.
  for (const { id, parentId } of found.toSorted((a, b) => b.path.split('/').length - a.path.split('/').length))
    if (parentId) inside.set(parentId, (inside.get(parentId) ?? 0) + inside.get(id)!);
  return found.map((folder) => ({ ...folder, inside: inside.get(folder.id)! }));
}

async function describeFolder(manager: EntityManager, id: string): Promise<ShownFolder> {
  const folder = (await listFolders(manager)).find((each) => each.id === id);
  if (!folder) throw new Problem('not-found', { what: 'The folder' });
  return folder;
}

/**
 * The folder at a path such as `Workshop/Rent`; folders that are missing on the way are made. Names are made safe.
 * @param onMade hears of each that is made
 */
export async function folderAt(
  manager: EntityManager,
  actor: ActingAs,
  path: string,
  onMade: (id: string) => void = () => undefined,
): Promise<string> {
  const names = path
    .split('/')
    .map((name) => safeName(name, ''))
    .filter(Boolean)
    .slice(0, MOST_DEPTH);
  if (names.length === 0) throw new Problem('folder-missing');
  let parent: string | null = null;
  for (const name of names) {
    const key = nameKey(name);
    const id = randomUUID();
    if ((await insertNew(manager, Folder, { id, parentId: parent, name, nameKey: key })) === 1) {
      onMade(id);
      await record(manager, actor, 'made', 'folder', id, { path: names.join('/') });
      await announce(manager, 'folder', id);
    }
    const found: Folder = await manager.findOneByOrFail(Folder, { parentId: parent ?? IsNull(), nameKey: key });
    parent = found.id;
  }
  return parent!;
}

export async function makeFolder({ database }: Context, actor: ActingAs, path: string): Promise<ShownFolder> {
  return database.source.transaction(async (manager) => describeFolder(manager, await folderAt(manager, actor, path)));
}

/**
 * Renames a folder or moves it into another (null: to the top); the files on disk follow.
 * @throws Problem 'not-found', 'folder-exists', 'folder-into-itself'
 */
export async function changeFolder(
  { database, jobs }: Context,
  actor: ActingAs,
  id: string,
  change: { name?: string; parentId?: string | null },
): Promise<ShownFolder> {
  return database.source.transaction(async (manager) => {
    // One change of the tree at a time: two moves at once could close a circle.
    await lockFolders(manager);
    const before = await describeFolder(manager, id);
    const name = change.name === undefined ? before.name : safeName(change.name);
    const parentId = change.parentId === undefined ? before.parentId : change.parentId;
    const inside = await treeOf(manager, id);
    if (parentId && inside.includes(parentId)) throw new Problem('folder-into-itself');
    if (await manager.existsBy(Folder, { parentId: parentId ?? IsNull(), nameKey: nameKey(name), id: Not(id) }))
      throw new Problem('folder-exists', { name });
    await manager.update(Folder, { id }, { name, nameKey: nameKey(name), parentId });
    const moved = await manager.find(Document, {
      where: { folderId: In(inside), state: Not('check') },
      select: { id: true },
    });
    await jobs.ask(manager, 'shelve', ...moved.map((document) => ({ documentId: document.id, actorId: actor.id })));
    const after = await describeFolder(manager, id);
    await record(manager, actor, 'changed', 'folder', id, { from: before.path, to: after.path });
    await announce(manager, 'folder', id);
    return after;
  });
}

/** Deletes a folder that holds nothing. @throws Problem 'not-found', 'folder-not-empty' */
export async function deleteFolder({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    // Documents are locked before folders, everywhere; those that come meanwhile are told of below, or wait.
    await lockDocumentsIn(manager, id);
    await lockFolders(manager);
    const { name, path } = await describeFolder(manager, id);
    if (await holdsSomething(manager, id)) throw new Problem('folder-not-empty', { name });
    // What lies in the bin, or waits in Check, forgets the folder; brought back, it goes to Check.
    await manager.update(Document, { folderId: id }, { folderId: null, nameKey: null, state: 'check', filedAt: null });
    await manager.delete(Folder, { id });
    await record(manager, actor, 'deleted', 'folder', id, { path });
    await announce(manager, 'folder', id);
  });
}
