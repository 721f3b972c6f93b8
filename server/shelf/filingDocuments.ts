import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { DocumentSummary, PdfSize } from '@crow/contract/documents';
import { freeName, nameKey, safeName } from '@crow/core/filing/names';
import { Beside } from '@crow/core/filing/pattern';
import { isBeingRead } from '../checking/documentProgress';
import { insist, lockDocument } from '../checking/documents';
import { rememberSender } from '../checking/facts';
import { summariseDocuments } from '../checking/queries';
import { Context } from '../platform/context';
import { rows } from '../platform/database';
import { Document } from '../platform/entities';
import { FOLDER_PATHS } from '../platform/folderPaths';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { folderAt } from './folders';

/** The documents of a folder, those filed last first. */
export function listFolderDocuments(manager: EntityManager, folderId: string): Promise<DocumentSummary[]> {
  return summariseDocuments(
    manager,
    `d.folder_id = $1 and d.state <> 'check' and d.binned_at is null`,
    [folderId],
    'd.filed_at desc, d.id',
  );
}

/**
 * Files a document: its name and place are settled at once, its PDF and the file on disk follow in the background.
 * A name that is taken in the folder gets a number. What was read and not contradicted counts as confirmed.
 * @throws Problem 'not-found', 'document-elsewhere', 'name-missing', 'folder-missing'
 */
export async function fileDocument(
  { database, jobs }: Context,
  actor: ActingAs,
  id: string,
  wish: { name: string; folderId?: string; folderPath?: string; size?: PdfSize; beside?: Beside[] },
): Promise<void> {
  const name = safeName(wish.name, '');
  if (!name) throw new Problem('name-missing');
  await database.source.transaction(async (manager) => {
    const document = await lockDocument(manager, id);
    insist(document, 'check');
    const made: string[] = [];
    const folderId = wish.folderId ?? (await folderAt(manager, actor, wish.folderPath ?? '', (at) => made.push(at)));
    const given = await settleName(manager, folderId, name, id);
    await manager.query(
      `update document set state = 'filing', folder_id = $2, name = $3, name_key = $4, filed_at = clock_timestamp(), problem = null,
         pdf_size = coalesce($5, pdf_size), beside = coalesce($6, beside) where id = $1`,
      [id, folderId, given, nameKey(given), wish.size ?? null, wish.beside ?? null],
    );
    await manager.query('update fact set confirmed_by = $2 where document_id = $1 and confirmed_by is null', [
      id,
      actor.id,
    ]);
    await rememberSender(manager, id);
    if (!(await isBeingRead(manager, id))) await jobs.ask(manager, 'bind', { documentId: id, actorId: actor.id });
    await record(manager, actor, 'filed', 'document', id, { name: given, folderId, made });
    await announce(manager, 'document', id);
  });
}

/** A name that is free in the folder, which stays locked until the transaction ends so that it remains so. */
export async function settleName(
  manager: EntityManager,
  folderId: string,
  name: string,
  documentId: string,
): Promise<string> {
  const [folder] = await rows(manager, 'select id from folder where id = $1 for update', [folderId]);
  if (!folder) throw new Problem('not-found', { what: 'The folder' });
  const others = await rows<{ name_key: string }>(
    manager,
    `select name_key from document where folder_id = $1 and state <> 'check' and binned_at is null and id <> $2`,
    [folderId, documentId],
  );
  return freeName(name, new Set(others.map((other) => other.name_key)));
}

/** Removes the folders that were made to file a document and that hold nothing else, when it is taken back; they are proposed again. */
async function removeFolderMadeFor(manager: EntityManager, { id, folderId }: Document): Promise<void> {
  const [place] = await rows<{ path: string }>(manager, `${FOLDER_PATHS} select path from paths where id = $1`, [
    folderId,
  ]);
  const [filing] = await rows<{ made: string[] | null }>(
    manager,
    `select detail->'made' as made from history where subject_id = $1 and action = 'filed' order by at desc limit 1`,
    [id],
  );
  for (let at = folderId; at && filing?.made?.includes(at);) {
    const [made]: { parent: string | null }[] = await rows(
      manager,
      `select parent_id as parent from folder f where id = $1
         and not exists (select 1 from document where folder_id = f.id and id <> $2)
         and not exists (select 1 from folder where parent_id = f.id)`,
      [at, id],
    );
    if (!made) break;
    await manager.query('update document set folder_id = null, wanted_folder = $2 where id = $1', [id, place.path]);
    await manager.query('delete from folder where id = $1', [at]);
    await announce(manager, 'folder', at);
    at = made.parent;
  }
}

/** Takes a document from the shelf back to Check, to the front; the file on disk goes. */
export async function unfileDocument({ database, jobs }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    const document = await lockDocument(manager, id);
    insist(document, 'filing', 'filed');
    await manager.query(
      `update document set state = 'check', filed_at = null, problem = null,
         turn_in_line = (select coalesce(min(turn_in_line), 1) - 1 from document where state = 'check')
       where id = $1`,
      [id],
    );
    await removeFolderMadeFor(manager, document);
    await jobs.ask(manager, 'shelve', { documentId: id, actorId: actor.id });
    await record(manager, actor, 'took back to Check', 'document', id);
    await announce(manager, 'document', id);
  });
}
