import { randomUUID } from 'node:crypto';
import { EntityManager, In, IsNull, Not } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Arrangement, documentsOf, keepWhole, Placed } from '@crow/core/sorting/arrangement';
import { Divider } from '@crow/core/sorting/divider';
import { Context } from '../platform/context';
import { Document, DocumentPage, Fact, Page, Place, Sheet, SourceFile, Stack } from '../platform/entities';
import { ActingAs, theProgram, record } from '../platform/history';
import { announce } from '../platform/live';
import { carryPages } from '../stack/carryingPages';
import { lockOpen } from '../stack/locks';
import { currentArrangement } from '../stack/queries';
import { refreshFacts } from './facts';
import { isStillArriving, layInOrder, lockedDocumentsOf, pagesInLine } from './queries';

/**
 * Makes the documents that the cuts of an open stack say, inside a transaction that has locked it; they wait in Check.
 * @returns their ids, in the order of their pages
 * @throws Problem 'stack-arriving', 'stack-empty'
 */
export async function documentsFrom(manager: EntityManager, actor: ActingAs, id: string): Promise<string[]> {
  if (await manager.existsBy(SourceFile, { stackId: id, state: 'waiting' })) throw new Problem('stack-arriving');
  const arrangement = await currentArrangement(manager, id);
  const { wantedFolder, whole } = await manager.findOneByOrFail(Stack, { id });
  const documents = documentsOf(whole ? keepWhole(arrangement) : arrangement);
  if (documents.length === 0) throw new Problem('stack-empty');
  const dividers = await dividersOf(manager, id);
  const ids: string[] = [];
  for (const pages of documents) {
    const divider = dividerBefore(arrangement, pages[0], dividers);
    const documentId = randomUUID();
    await manager.insert(Document, { id: documentId, stackId: id, wantedFolder: divider?.folder ?? wantedFolder });
    await manager.insert(
      DocumentPage,
      pages.map((page, at) => ({ documentId, number: at + 1, pageId: page.id })),
    );
    if (divider?.kind)
      await manager.insert(Fact, {
        documentId,
        name: 'kind',
        value: divider.kind,
        confidence: 1,
        confirmedBy: actor.id,
        why: { code: 'divider-sheet' },
      });
    await refreshFacts(manager, documentId);
    const place = labelBefore(arrangement, pages[0], dividers)?.place;
    if (place && (await manager.existsBy(Place, { id: place.id, retired: false })))
      await manager.insert(Sheet, { documentId, placeId: place.id });
    ids.push(documentId);
  }
  await manager.update(Stack, { id }, { state: 'sorted' });
  await record(manager, actor, 'sorted', 'stack', id, { documents: ids });
  await announce(manager, 'stack', id);
  await announce(manager, 'document', null);
  return ids;
}

async function dividersOf(manager: EntityManager, stackId: string): Promise<Map<string, Divider>> {
  const found = await manager.findBy(Page, { stackId, dropped: true, divider: Not(IsNull()) });
  return new Map(found.map(({ id, divider }) => [id, divider!]));
}

/** The last divider sheet among the pages set aside right before a document. */
function dividerBefore(
  arrangement: Arrangement,
  first: Placed,
  dividers: ReadonlyMap<string, Divider>,
): Divider | undefined {
  for (let at = arrangement.indexOf(first) - 1; at >= 0 && arrangement[at].dropped; at--) {
    const divider = dividers.get(arrangement[at].id);
    if (divider) return divider;
  }
  return undefined;
}

/** The last label of a box or binder that lies anywhere before a document: what follows it lies there, until another one comes. */
function labelBefore(
  arrangement: Arrangement,
  first: Placed,
  dividers: ReadonlyMap<string, Divider>,
): Divider | undefined {
  return arrangement
    .slice(0, arrangement.indexOf(first))
    .flatMap(({ id, dropped }) => (dropped ? (dividers.get(id) ?? []) : []))
    .findLast(({ place }) => place);
}

/**
 * Makes the documents that the cuts say; they wait in Check, in the order of their pages.
 * @returns their ids
 * @throws Problem 'not-found', 'stack-sorted', 'stack-arriving', 'stack-empty'
 */
export async function makeDocuments({ database }: Context, actor: ActingAs, id: string): Promise<string[]> {
  return database.source.transaction(async (manager) => {
    await lockOpen(manager, id);
    return documentsFrom(manager, actor, id);
  });
}

/**
 * Takes the documents of a sorted stack that still wait in Check back to the light table. Where others of it have been filed or
 * binned already, they stay, and the rest lies there as a stack of its own.
 * @returns the stack that lies on the table then
 * @throws Problem 'not-found', 'documents-on-their-way' when none of them waits any more
 */
export async function takeBack({ database }: Context, actor: ActingAs, id: string): Promise<string> {
  return database.source.transaction(async (manager) => {
    const stack = await manager.findOne(Stack, { where: { id }, lock: { mode: 'for_no_key_update' } });
    if (!stack) throw new Problem('not-found', { what: 'The stack' });
    if (stack.state === 'open') return id;
    const documents = await lockedDocumentsOf(manager, id);
    const waiting = documents.filter(({ waits }) => waits).map((each) => each.id);
    if (waiting.length === 0) throw new Problem('documents-on-their-way');
    let table = id;
    if (waiting.length === documents.length) {
      await manager.delete(Document, { stackId: id });
      await manager.update(Stack, { id }, { state: 'open', whole: false, onward: false, binnedAt: null });
    } else table = await layApart(manager, stack, waiting);
    await record(manager, actor, 'took back', 'stack', table, { from: id });
    await announce(manager, 'stack', table);
    await announce(manager, 'document', null);
    return table;
  });
}

/** Makes a stack of the pages of some documents, cut as they were; the documents are no more. @returns its id */
async function layApart(manager: EntityManager, from: Stack, documentIds: string[]): Promise<string> {
  const pages = await pagesInLine(manager, documentIds);
  const id = randomUUID();
  await manager.insert(Stack, { id, name: from.name, actorId: from.actorId, createdAt: from.createdAt });
  await manager.delete(Document, { id: In(documentIds) });
  await carryPages(
    manager,
    pages.map((page) => page.id),
    id,
  );
  await layInOrder(manager, pages);
  return id;
}

/**
 * Says that an open stack is one document, and goes to Check as soon as all of its pages are there.
 * @throws Problem 'not-found', 'stack-sorted'
 */
export async function finishStack({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    await lockOpen(manager, id);
    await manager.update(Stack, { id }, { whole: true, onward: true });
    await record(manager, actor, 'finished', 'stack', id);
    await announce(manager, 'stack', id);
    await sendOnward(manager, id, actor);
  });
}

/**
 * Makes the documents of a stack that goes to Check by itself, once all of its pages are there; unless somebody has arranged them meanwhile.
 * @param actor who has just said so, if somebody did
 */
export async function sendOnward(manager: EntityManager, stackId: string, actor?: ActingAs): Promise<void> {
  if (!(await manager.existsBy(Stack, { id: stackId, state: 'open', onward: true }))) return;
  if (await isStillArriving(manager, stackId)) return;
  if (await manager.existsBy(Page, { stackId, dropped: false }))
    await documentsFrom(manager, actor ?? (await theProgram(manager)), stackId);
}
