import { EntityManager } from 'typeorm';
import { Context } from '../platform/context';
import { sweepUnusedBlobs } from '../platform/blobs';
import { rows } from '../platform/database';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';

/**
 * Deletes everything in the bin for good, and at once: documents, stacks, their pages, the files that no other page needs, their
 * bytes and pictures, the words that stood on them only, and what they were called.
 */
export async function emptyBin({ database }: Context, actor: ActingAs): Promise<void> {
  await database.source.transaction(async (manager) => {
    const documents = await rows<{ id: string; pages: string[] }>(
      manager,
      `select d.id, array(select page_id from document_page where document_id = d.id) as pages
       from document d where d.binned_at is not null and not exists (select 1 from shelf_file s where s.document_id = d.id)
       order by d.id for update`,
    );
    await manager.query('delete from document where id = any($1)', [documents.map(({ id }) => id)]);
    const words = await deletePages(
      manager,
      documents.flatMap(({ pages }) => pages),
    );
    const binned = await rows<{ id: string }>(
      manager,
      'select id from stack where binned_at is not null order by id for update',
    );
    // Stacks of which every document has been deleted have done their work; pages dropped while sorting go with them.
    const done = await rows<{ id: string }>(
      manager,
      `select s.id from stack s where s.state = 'sorted' and not exists (select 1 from document d where d.stack_id = s.id)
         and not exists (select 1 from source_file f where f.stack_id = s.id and f.state = 'waiting')`,
    );
    const stacks = [...new Set([...binned, ...done].map(({ id }) => id))];
    const left = await rows<{ id: string }>(manager, 'select id from page where stack_id = any($1)', [stacks]);
    words.push(
      ...(await deletePages(
        manager,
        left.map(({ id }) => id),
      )),
    );
    await manager.query('delete from source_file where stack_id = any($1)', [stacks]);
    await manager.query('delete from stack where id = any($1)', [stacks]);
    // Files of stacks that go on, of which no page is left and which hold nothing that is still to come.
    await manager.query(
      `delete from source_file f where f.state = 'taken' and not exists (select 1 from page p where p.source_file_id = f.id)
         and not exists (select 1 from stack s where s.id = f.stack_id and s.state = 'open')`,
    );
    await forgetWords(manager, words);
    await forgetNames(manager);
    await record(manager, actor, 'emptied', 'bin', null, { documents: documents.length, stacks: stacks.length });
    await announce(manager, 'document', null);
    await announce(manager, 'stack', null);
  });
  await sweepUnusedBlobs(database, { atOnce: true });
}

/** Deletes pages with their readings. @returns the words that stood on them */
async function deletePages(manager: EntityManager, ids: string[]): Promise<string[]> {
  const found = await rows<{ word: string }>(
    manager,
    'select distinct unnest(tsvector_to_array(tokens)) as word from page_tokens where page_id = any($1)',
    [ids],
  );
  await manager.query('delete from page where id = any($1)', [ids]);
  return found.map(({ word }) => word);
}

/** Words that stand nowhere any more are proposed as other spellings no longer. */
async function forgetWords(manager: EntityManager, words: string[]): Promise<void> {
  await manager.query(
    `delete from vocabulary v where v.word = any($1)
       and not exists (select 1 from page_tokens t where t.tokens @@ quote_literal(v.word)::tsquery)`,
    [words],
  );
}

/** Of what is gone the history keeps what was done, by whom and when, but nothing of what it said or was called. */
async function forgetNames(manager: EntityManager): Promise<void> {
  await manager.query(
    `update history h set detail = '{}' where h.detail <> '{}' and (
       (subject = 'document' and not exists (select 1 from document where id = subject_id))
       or (subject = 'stack' and not exists (select 1 from stack where id = subject_id))
       or (subject = 'file' and not exists (select 1 from source_file where id = subject_id))
       or (subject = 'page' and not exists (select 1 from page where id = subject_id)))`,
  );
}
