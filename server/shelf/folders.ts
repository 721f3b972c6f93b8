import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Folder as ShownFolder } from '@crow/contract/folders';
import { nameKey, safeName } from '@crow/core/filing/names';
import { Context } from '../platform/context';
import { rows } from '../platform/database';
import { FOLDER_PATHS } from '../platform/folderPaths';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';

const MOST_DEPTH = 12;
/** All folders, ordered by path. */
export async function listFolders(manager: EntityManager): Promise<ShownFolder[]> {
  const found = await rows<Omit<ShownFolder, 'inside'>>(
    manager,
    `${FOLDER_PATHS}
     select f.id, f.parent_id as "parentId", f.name, paths.path,
       (select count(*)::int from document d where d.folder_id = f.id and d.state <> 'check' and d.binned_at is null) as documents
     from folder f join paths on paths.id = f.id order by lower(paths.path)`,
  );
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
    const made: { id: string }[] = await rows(
      manager,
      'insert into folder (parent_id, name, name_key) values ($1, $2, $3) on conflict do nothing returning id',
      [parent, name, key],
    );
    if (made[0]) {
      onMade(made[0].id);
      await record(manager, actor, 'made', 'folder', made[0].id, { path: names.join('/') });
      await announce(manager, 'folder', made[0].id);
    }
    const [found]: { id: string }[] =
      made.length > 0
        ? made
        : await rows(manager, 'select id from folder where parent_id is not distinct from $1 and name_key = $2', [
            parent,
            key,
          ]);
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
    await manager.query('lock table folder in share row exclusive mode');
    const before = await describeFolder(manager, id);
    const name = change.name === undefined ? before.name : safeName(change.name);
    const parentId = change.parentId === undefined ? before.parentId : change.parentId;
    const inside = await rows<{ id: string }>(manager, TREE, [id]);
    if (parentId && inside.some((folder) => folder.id === parentId)) throw new Problem('folder-into-itself');
    const taken = await rows(
      manager,
      'select 1 from folder where parent_id is not distinct from $1 and name_key = $2 and id <> $3',
      [parentId, nameKey(name), id],
    );
    if (taken.length > 0) throw new Problem('folder-exists', { name });
    await manager.query('update folder set name = $2, name_key = $3, parent_id = $4 where id = $1', [
      id,
      name,
      nameKey(name),
      parentId,
    ]);
    const moved = await rows<{ id: string }>(
      manager,
      `select id from document where folder_id = any($1) and state <> 'check'`,
      [inside.map((folder) => folder.id)],
    );
    await jobs.ask(manager, 'shelve', ...moved.map((document) => ({ documentId: document.id, actorId: actor.id })));
    const after = await describeFolder(manager, id);
    await record(manager, actor, 'changed', 'folder', id, { from: before.path, to: after.path });
    await announce(manager, 'folder', id);
    return after;
  });
}

/** A folder and all below it. */
const TREE = `with recursive tree as (
  select id from folder where id = $1 union all select f.id from folder f join tree on f.parent_id = tree.id
) select id from tree`;

/** Deletes a folder that holds nothing. @throws Problem 'not-found', 'folder-not-empty' */
export async function deleteFolder({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    // Documents are locked before folders, everywhere; those that come meanwhile are told of below, or wait.
    await manager.query('select 1 from document where folder_id = $1 order by id for no key update', [id]);
    await manager.query('lock table folder in share row exclusive mode');
    const { name, path } = await describeFolder(manager, id);
    const held = await rows(
      manager,
      `select 1 from folder where parent_id = $1 union all select 1 from document where folder_id = $1 and (state <> 'check' and binned_at is null)`,
      [id],
    );
    if (held.length > 0) throw new Problem('folder-not-empty', { name });
    // What lies in the bin, or waits in Check, forgets the folder; brought back, it goes to Check.
    await manager.query(
      `update document set folder_id = null, name_key = null, state = 'check', filed_at = null where folder_id = $1`,
      [id],
    );
    await manager.query('delete from folder where id = $1', [id]);
    await record(manager, actor, 'deleted', 'folder', id, { path });
    await announce(manager, 'folder', id);
  });
}
