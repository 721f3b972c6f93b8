import { EntityManager, In } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Landing } from '@crow/core/sorting/arrangement';
import { Context } from '../platform/context';
import { Document, DocumentPage, Page } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { isBeingRead } from './documentProgress';
import { refreshFacts } from './facts';
import { lockDocument } from '../stack/locks';
import { dropAllBut, pagesBesidePage, howManyMayJoin } from './queries';

/** Puts pages into a document: before one of its pages, instead of one, or at its end. The document stays locked. */
export async function placeInDocument(
  manager: EntityManager,
  documentId: string,
  ids: string[],
  { before, again }: Landing,
): Promise<void> {
  const there = await lockedPages(manager, documentId);
  const instead = again === null ? -1 : there.indexOf(again);
  const anchor = before === null ? -1 : there.indexOf(before);
  const place = instead >= 0 ? instead : anchor >= 0 ? anchor : there.length;
  await writePages(manager, documentId, there.toSpliced(place, instead >= 0 ? 1 : 0, ...ids));
  if (instead >= 0) await manager.update(Page, { id: again! }, { dropped: true });
}

/** Makes a document of other pages than before; those stay with its stack, dropped. */
export async function replacePages(manager: EntityManager, documentId: string, ids: string[]): Promise<void> {
  const before = await lockedPages(manager, documentId);
  await writePages(manager, documentId, ids);
  await manager.update(Page, { id: In(before) }, { dropped: true, dropDecided: true });
}

async function lockedPages(manager: EntityManager, documentId: string): Promise<string[]> {
  await lockDocument(manager, documentId);
  const found = await manager.find(DocumentPage, { where: { documentId }, order: { number: 'ASC' } });
  return found.map(({ pageId }) => pageId);
}

async function writePages(manager: EntityManager, documentId: string, ids: string[]): Promise<void> {
  await manager.delete(DocumentPage, { documentId });
  await manager.insert(
    DocumentPage,
    ids.map((pageId, at) => ({ documentId, number: at + 1, pageId })),
  );
}

/** A page that belongs with another one, as a second sheet in its picture does, goes behind it in its document, if it is in one. */
export async function followIntoDocument(manager: EntityManager, pageId: string, follower: string): Promise<void> {
  const found = await manager.findOneBy(DocumentPage, { pageId });
  if (!found) return;
  const there = await lockedPages(manager, found.documentId);
  await writePages(manager, found.documentId, there.toSpliced(there.indexOf(pageId) + 1, 0, follower));
  await announce(manager, 'document', found.documentId);
}

/**
 * Says which pages a document has, in which order. Pages left out stay with its stack, dropped, and can come back.
 * @throws Problem 'not-found' when a page is not of the document's stack, or is in another document
 */
export async function arrangeDocument(
  { database, jobs }: Context,
  actor: ActingAs,
  id: string,
  ids: string[],
): Promise<void> {
  await database.source.transaction(async (manager) => {
    const document = await manager.findOne(Document, { where: { id }, lock: { mode: 'for_no_key_update' } });
    if (!document || document.binnedAt) throw new Problem('not-found', { what: 'The document' });
    const before = await lockedPages(manager, id);
    if ((await howManyMayJoin(manager, ids, document)) !== ids.length)
      throw new Problem('not-found', { what: 'A page of the document' });
    await writePages(manager, id, ids);
    await dropAllBut(manager, [...before, ...ids], ids);
    if (document.state === 'check') await refreshFacts(manager, id);
    else if (!(await isBeingRead(manager, id))) await jobs.ask(manager, 'bind', { documentId: id, actorId: actor.id });
    await record(manager, actor, 'arranged the pages', 'document', id, { before, after: ids });
    await announce(manager, 'document', id);
    await announce(manager, 'stack', document.stackId);
  });
}

/** Puts another page into a page's place in its document, as when a sheet was captured twice. @throws Problem 'not-found' */
export async function swapPage(context: Context, actor: ActingAs, pageId: string, instead: string): Promise<void> {
  const { manager } = context.database.source;
  const found = await pagesBesidePage(manager, pageId);
  // It has been done already, or the page is in no document.
  if (found.length === 0) return;
  const ids = found.map((each) => (each.pageId === pageId ? instead : each.pageId));
  await arrangeDocument(context, actor, found[0].documentId, [...new Set(ids)]);
}
