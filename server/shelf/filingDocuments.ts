import { EntityManager, IsNull, Not } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { PdfSize } from '@crow/contract/documents';
import { freeName, safeName } from '@crow/core/filing/names';
import { Beside } from '@crow/core/filing/pattern';
import { isBeingRead } from '../checking/documentProgress';
import { insist } from '../checking/documents';
import { lockDocument } from '../stack/locks';
import { rememberSender } from '../checking/facts';
import { Context } from '../platform/context';
import { Document, Fact, Folder } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { folderAt } from './folders';
import { enterFiling, folderWithNothingElse, foldersMadeForFiling, pathOfFolder, takeOffShelf } from './queries';

/**
 * Files a document: its name and place are settled at once, its PDF and the file on disk follow in the background.
 * A name that is taken in the folder gets a number. What was read and not contradicted counts as confirmed.
 * @throws Problem 'not-found', 'document-elsewhere', 'name-missing', 'folder-missing'
 */
export async function fileDocument(
  { database, jobs, happenings }: Context,
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
    await enterFiling(manager, id, { folderId, name: given, size: wish.size, beside: wish.beside });
    await manager.update(Fact, { documentId: id, confirmedBy: IsNull() }, { confirmedBy: actor.id });
    await rememberSender(manager, id);
    if (!(await isBeingRead(manager, id))) await jobs.ask(manager, 'bind', { documentId: id, actorId: actor.id });
    await record(manager, actor, 'filed', 'document', id, { name: given, folderId, made });
    await happenings.tell(manager, 'document-filed', { documentId: id, actor });
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
  const folder = await manager.findOne(Folder, { where: { id: folderId }, lock: { mode: 'pessimistic_write' } });
  if (!folder) throw new Problem('not-found', { what: 'The folder' });
  const others = await manager.find(Document, {
    where: { folderId, state: Not('check'), binnedAt: IsNull(), id: Not(documentId) },
    select: { id: true, nameKey: true },
  });
  return freeName(name, new Set(others.map((other) => other.nameKey!)));
}

/** Removes the folders that were made to file a document and that hold nothing else, when it is taken back; they are proposed again. */
async function removeFolderMadeFor(manager: EntityManager, { id, folderId }: Document): Promise<void> {
  const path = await pathOfFolder(manager, folderId);
  const madeThen = await foldersMadeForFiling(manager, id);
  for (let at = folderId; at && madeThen.includes(at);) {
    const made: { parentId: string | null } | undefined = await folderWithNothingElse(manager, at, id);
    if (!made) break;
    await manager.update(Document, { id }, { folderId: null, wantedFolder: path });
    await manager.delete(Folder, { id: at });
    await announce(manager, 'folder', at);
    at = made.parentId;
  }
}

/** Takes a document from the shelf back to Check, to the front; the file on disk goes. */
export async function unfileDocument(
  { database, jobs, happenings }: Context,
  actor: ActingAs,
  id: string,
): Promise<void> {
  await database.source.transaction(async (manager) => {
    const document = await lockDocument(manager, id);
    insist(document, 'filing', 'filed');
    await takeOffShelf(manager, id);
    await removeFolderMadeFor(manager, document);
    await jobs.ask(manager, 'shelve', { documentId: id, actorId: actor.id });
    await record(manager, actor, 'took back to Check', 'document', id);
    await happenings.tell(manager, 'document-unfiled', { documentId: id, actor });
    await announce(manager, 'document', id);
  });
}
