import { EntityManager } from 'typeorm';
import { PdfSize } from '@crow/contract/documents';
import { nameKey, safeName } from '@crow/core/filing/names';
import { Context } from '../platform/context';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { insist } from '../checking/documents';
import { lockDocument } from '../stack/locks';
import { settleName } from './filingDocuments';
import { moveDocument } from './queries';
import { Document } from '../platform/entities';

/** What becomes of a filed document: another name, folder or size of its PDF; into the bin or out of it. */
export interface DocumentChange {
  name?: string;
  folderId?: string;
  size?: PdfSize;
  binned?: boolean;
}

/**
 * Changes documents, all or none; the files on disk follow.
 * @throws Problem 'not-found', 'document-elsewhere'
 */
export async function changeDocuments(
  context: Context,
  actor: ActingAs,
  changes: (DocumentChange & { id: string })[],
): Promise<void> {
  await context.database.source.transaction(async (manager) => {
    // Locked in the same order whoever asks, so that two who change the same ones wait for each other.
    for (const id of changes.map((change) => change.id).sort()) await lockDocument(manager, id);
    for (const { id, binned, ...change } of changes) {
      if (binned !== undefined) await moveToBin(context, manager, actor, id, binned);
      if (Object.values(change).some((value) => value !== undefined)) await move(context, manager, actor, id, change);
    }
  });
}

async function move(
  { jobs }: Context,
  manager: EntityManager,
  actor: ActingAs,
  id: string,
  change: Omit<DocumentChange, 'binned'>,
): Promise<void> {
  const document = await lockDocument(manager, id);
  insist(document, 'filing', 'filed');
  const folderId = change.folderId ?? document.folderId!;
  const wish = change.name === undefined ? document.name : safeName(change.name);
  const name = await settleName(manager, folderId, wish, id);
  const { resized } = await moveDocument(manager, id, { folderId, name, size: change.size });
  await jobs.ask(manager, resized ? 'bind' : 'shelve', { documentId: id, actorId: actor.id });
  await record(manager, actor, 'moved', 'document', id, {
    from: { name: document.name, folderId: document.folderId },
    to: { name, folderId },
  });
  await announce(manager, 'document', id);
}

/** Puts a document into the bin (true) or takes it out (false); brought back, it is where it was, numbered if need be. */
async function moveToBin(
  { jobs }: Context,
  manager: EntityManager,
  actor: ActingAs,
  id: string,
  binned: boolean,
): Promise<void> {
  const document = await lockDocument(manager, id);
  if (Boolean(document.binnedAt) === binned) return;
  if (!binned && document.state !== 'check') {
    const name = await settleName(manager, document.folderId!, document.name, id);
    await manager.update(Document, { id }, { name, nameKey: nameKey(name) });
  }
  await manager.update(Document, { id }, { binnedAt: binned ? new Date() : null });
  if (document.state !== 'check') {
    // One that was binned before its PDF was bound has yet to get it.
    const work = !binned && !document.pdfBlobId ? 'bind' : 'shelve';
    await jobs.ask(manager, work, { documentId: id, actorId: actor.id });
  }
  await record(manager, actor, binned ? 'put into the bin' : 'brought back', 'document', id);
  await announce(manager, 'document', id);
}
