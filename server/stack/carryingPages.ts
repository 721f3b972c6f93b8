import { EntityManager } from 'typeorm';
import { rows } from '../platform/database';

/** Carries pages over to another stack, each with the file that it is from; a file that keeps pages where it was is there in both. */
export async function carryPages(manager: EntityManager, pageIds: string[], to: string): Promise<void> {
  const files = await rows<{ id: string; all: boolean }>(
    manager,
    `select source_file_id as id, bool_and(id = any($1)) as all from page
     where source_file_id in (select source_file_id from page where id = any($1)) group by source_file_id`,
    [pageIds],
  );
  for (const { id, all } of files) {
    const position = `(select coalesce(max(position) + 1, 0) from source_file where stack_id = $2)`;
    if (all) {
      await manager.query(`update source_file set stack_id = $2, position = ${position} where id = $1`, [id, to]);
      continue;
    }
    const [copy] = await rows<{ id: string }>(
      manager,
      `insert into source_file (stack_id, name, position, blob_id, state, format, actor_id, back, created_at)
       select $2, name, ${position}, blob_id, state, format, actor_id, back, created_at from source_file where id = $1 returning id`,
      [id, to],
    );
    await manager.query('update page set source_file_id = $2 where source_file_id = $1 and id = any($3)', [
      id,
      copy.id,
      pageIds,
    ]);
  }
  await manager.query('update page set stack_id = $2 where id = any($1)', [pageIds, to]);
}
