import { randomUUID } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Arrangement, documentsOf, Placed } from '@crow/core/sorting/arrangement';
import { Divider } from '@crow/core/sorting/divider';
import { Context } from '../platform/context';
import { rows } from '../platform/database';
import { Stack } from '../platform/entities';
import { ActingAs, theProgram, record } from '../platform/history';
import { announce } from '../platform/live';
import { carryPages } from '../stack/carryingPages';
import { lockOpen } from '../stack/locks';
import { currentArrangement } from '../stack/queries';
import { refreshFacts } from './facts';

/**
 * Makes the documents that the cuts of an open stack say, inside a transaction that has locked it; they wait in Check.
 * @returns their ids, in the order of their pages
 * @throws Problem 'stack-arriving', 'stack-empty'
 */
export async function documentsFrom(manager: EntityManager, actor: ActingAs, id: string): Promise<string[]> {
  const arriving = await rows(manager, `select 1 from source_file where stack_id = $1 and state = 'waiting' limit 1`, [
    id,
  ]);
  if (arriving.length > 0) throw new Problem('stack-arriving');
  const arrangement = await currentArrangement(manager, id);
  const documents = documentsOf(arrangement);
  if (documents.length === 0) throw new Problem('stack-empty');
  const dividers = await dividersOf(manager, id);
  const [{ wanted }] = await rows<{ wanted: string | null }>(
    manager,
    'select wanted_folder as wanted from stack where id = $1',
    [id],
  );
  const ids: string[] = [];
  for (const pages of documents) {
    const divider = dividerBefore(arrangement, pages[0], dividers);
    const [{ id: documentId }] = await rows<{ id: string }>(
      manager,
      'insert into document (stack_id, wanted_folder) values ($1, $2) returning id',
      [id, divider?.folder ?? wanted],
    );
    await manager.query(
      `insert into document_page (document_id, number, page_id)
       select $1, number, page_id from unnest($2::uuid[]) with ordinality as p (page_id, number)`,
      [documentId, pages.map((page) => page.id)],
    );
    if (divider?.kind)
      await manager.query(
        `insert into fact (document_id, name, value, confidence, confirmed_by) values ($1, 'kind', $2, 1, $3)`,
        [documentId, divider.kind, actor.id],
      );
    await refreshFacts(manager, documentId);
    ids.push(documentId);
  }
  await manager.query(`update stack set state = 'sorted' where id = $1`, [id]);
  await record(manager, actor, 'sorted', 'stack', id, { documents: ids });
  await announce(manager, 'stack', id);
  await announce(manager, 'document', null);
  return ids;
}

async function dividersOf(manager: EntityManager, stackId: string): Promise<Map<string, Divider>> {
  const found = await rows<{ id: string; divider: Divider }>(
    manager,
    'select id, divider from page where stack_id = $1 and dropped and divider is not null',
    [stackId],
  );
  return new Map(found.map(({ id, divider }) => [id, divider]));
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
    const documents = await rows<{ id: string; waits: boolean }>(
      manager,
      `select id, state = 'check' and binned_at is null as waits from document where stack_id = $1 for update`,
      [id],
    );
    const waiting = documents.filter(({ waits }) => waits).map((each) => each.id);
    if (waiting.length === 0) throw new Problem('documents-on-their-way');
    let table = id;
    if (waiting.length === documents.length) {
      await manager.query('delete from document where stack_id = $1', [id]);
      await manager.query(`update stack set state = 'open', onward = false, binned_at = null where id = $1`, [id]);
    } else table = await layApart(manager, stack, waiting);
    await record(manager, actor, 'took back', 'stack', table, { from: id });
    await announce(manager, 'stack', table);
    await announce(manager, 'document', null);
    return table;
  });
}

/** Makes a stack of the pages of some documents, cut as they were; the documents are no more. @returns its id */
async function layApart(manager: EntityManager, from: Stack, documentIds: string[]): Promise<string> {
  const pages = await rows<{ id: string; begins: boolean }>(
    manager,
    `select dp.page_id as id, dp.number = min(dp.number) over (partition by d.id) as begins
     from document d join document_page dp on dp.document_id = d.id where d.id = any($1) order by d.turn_in_line, dp.number`,
    [documentIds],
  );
  const id = randomUUID();
  await manager.query('insert into stack (id, name, created_at) values ($1, $2, $3)', [id, from.name, from.createdAt]);
  await manager.query('delete from document where id = any($1)', [documentIds]);
  await carryPages(
    manager,
    pages.map((page) => page.id),
    id,
  );
  await manager.query(
    `update page set position = laid.number - 1, cut_before = laid.begins and laid.number > 1, cut_decided = true, dropped = false
     from unnest($1::uuid[], $2::boolean[]) with ordinality as laid (id, begins, number) where page.id = laid.id`,
    [pages.map((page) => page.id), pages.map(({ begins }) => begins)],
  );
  return id;
}

/** Makes the documents of a stack that goes to Check by itself, once all of its pages are there and nobody has arranged them. */
export async function sendOnward(manager: EntityManager, stackId: string): Promise<void> {
  const [by] = await rows(manager, `select 1 from stack where id = $1 and state = 'open' and onward and step = 0`, [
    stackId,
  ]);
  if (!by) return;
  const [missing] = await rows(
    manager,
    `select 1 from source_file where stack_id = $1 and state = 'waiting'
     union all select 1 from page where stack_id = $1 and not prepared limit 1`,
    [stackId],
  );
  const [something] = await rows(manager, 'select 1 from page where stack_id = $1 and not dropped limit 1', [stackId]);
  if (!missing && something) await documentsFrom(manager, await theProgram(manager), stackId);
}
