import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Landing } from '@crow/core/sorting/arrangement';
import { Context } from '../platform/context';
import { rows } from '../platform/database';
import { Document } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { isBeingRead } from './documentProgress';
import { refreshFacts } from './facts';

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
  if (instead >= 0) await manager.query('update page set dropped = true where id = $1', [again]);
}

/** Makes a document of other pages than before; those stay with its stack, dropped. */
export async function replacePages(manager: EntityManager, documentId: string, ids: string[]): Promise<void> {
  const before = await lockedPages(manager, documentId);
  await writePages(manager, documentId, ids);
  await manager.query('update page set dropped = true, drop_decided = true where id = any($1)', [before]);
}

async function lockedPages(manager: EntityManager, documentId: string): Promise<string[]> {
  await manager.query('select 1 from document where id = $1 for no key update', [documentId]);
  const found = await rows<{ page_id: string }>(
    manager,
    'select page_id from document_page where document_id = $1 order by number',
    [documentId],
  );
  return found.map(({ page_id }) => page_id);
}

async function writePages(manager: EntityManager, documentId: string, ids: string[]): Promise<void> {
  await manager.query('delete from document_page where document_id = $1', [documentId]);
  await manager.query(
    `insert into document_page (document_id, number, page_id)
     select $1, number, page_id from unnest($2::uuid[]) with ordinality as p (page_id, number)`,
    [documentId, ids],
  );
}

/** A page that belongs with another one, as a second sheet in its picture does, goes behind it in its document, if it is in one. */
export async function followIntoDocument(manager: EntityManager, pageId: string, follower: string): Promise<void> {
  const [found] = await rows<{ document_id: string }>(
    manager,
    'select document_id from document_page where page_id = $1',
    [pageId],
  );
  if (!found) return;
  const there = await lockedPages(manager, found.document_id);
  await writePages(manager, found.document_id, there.toSpliced(there.indexOf(pageId) + 1, 0, follower));
  await announce(manager, 'document', found.document_id);
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
    const own = await rows(
      manager,
      `select 1 from page p left join document_page dp on dp.page_id = p.id
       where p.id = any($1) and p.stack_id = $2 and (dp.document_id is null or dp.document_id = $3)`,
      [ids, document.stackId, id],
    );
    if (own.length !== ids.length) throw new Problem('not-found', { what: 'A page of the document' });
    await writePages(manager, id, ids);
    await manager.query('update page set dropped = not (id = any($2)) where id = any($1)', [[...before, ...ids], ids]);
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
  const found = await rows<{ document_id: string; page_id: string }>(
    manager,
    `select document_id, page_id from document_page
     where document_id = (select document_id from document_page where page_id = $1) order by number`,
    [pageId],
  );
  // It has been done already, or the page is in no document.
  if (found.length === 0) return;
  const ids = found.map(({ page_id }) => (page_id === pageId ? instead : page_id));
  await arrangeDocument(context, actor, found[0].document_id, [...new Set(ids)]);
}
