import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Arrangement, documentsOf, Placed } from '@crow/core/sorting/arrangement';
import { Divider } from '@crow/core/sorting/divider';
import { rows } from '../store/database';
import { ActingAs, record } from '../store/history';
import { announce } from '../store/live';
import { currentArrangement } from '../store/stackRows';
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
