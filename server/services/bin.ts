import { Context } from '../context';
import { sweepUnusedBlobs } from '../store/blobs';
import { rows } from '../store/database';
import { ActingAs, record } from '../store/history';
import { announce } from '../store/live';

/** Deletes everything in the bin for good: documents, stacks, their pages, and the files that no other page needs. */
export async function emptyBin({ database }: Context, actor: ActingAs): Promise<void> {
  await database.source.transaction(async (manager) => {
    const documents = await rows<{ id: string; name: string; pages: string[] }>(
      manager,
      `select d.id, d.name, array(select page_id from document_page where document_id = d.id) as pages
       from document d where d.binned_at is not null and not exists (select 1 from shelf_file s where s.document_id = d.id)
       for update`,
    );
    await manager.query('delete from document where id = any($1)', [documents.map(({ id }) => id)]);
    await manager.query('delete from page where id = any($1)', [documents.flatMap(({ pages }) => pages)]);
    const stacks = await rows<{ id: string; name: string }>(
      manager,
      'select id, name from stack where binned_at is not null for update',
    );
    const stackIds = stacks.map(({ id }) => id);
    await manager.query('delete from page where stack_id = any($1)', [stackIds]);
    await manager.query('delete from source_file where stack_id = any($1)', [stackIds]);
    // Stacks of which every document has been deleted have done their work; pages dropped while sorting go with them.
    const done = await rows<{ id: string }>(
      manager,
      `select s.id from stack s where s.state = 'sorted' and not exists (select 1 from document d where d.stack_id = s.id)
         and not exists (select 1 from source_file f where f.stack_id = s.id and f.state = 'waiting')`,
    );
    const doneIds = done.map(({ id }) => id);
    await manager.query('delete from page where stack_id = any($1)', [doneIds]);
    await manager.query('delete from source_file where stack_id = any($1)', [doneIds]);
    await manager.query('delete from stack where id = any($1)', [[...stackIds, ...doneIds]]);
    const names = [...documents, ...stacks].map(({ name }) => name);
    await record(manager, actor, 'emptied', 'bin', null, { names });
    await announce(manager, 'document', null);
    await announce(manager, 'stack', null);
  });
  await sweepUnusedBlobs(database);
}
