import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { documentsOf } from '@crow/core/sorting/arrangement';
import { rows } from '../store/database';
import { ActingAs, record } from '../store/history';
import { announce } from '../store/live';
import { currentArrangement } from '../store/stackRows';
import { refreshFacts } from './documentProgress';

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
  const documents = documentsOf(await currentArrangement(manager, id));
  if (documents.length === 0) throw new Problem('stack-empty');
  const ids: string[] = [];
  for (const pages of documents) {
    const [{ id: documentId }] = await rows<{ id: string }>(
      manager,
      'insert into document (stack_id) values ($1) returning id',
      [id],
    );
    await manager.query(
      `insert into document_page (document_id, number, page_id)
       select $1, number, page_id from unnest($2::uuid[]) with ordinality as p (page_id, number)`,
      [documentId, pages.map((page) => page.id)],
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
