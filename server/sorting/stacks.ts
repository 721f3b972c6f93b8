import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Stack as ShownStack } from '@crow/contract/stacks';
import { Turn } from '@crow/core/geometry';
import { Context } from '../platform/context';
import { rows } from '../platform/database';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { pagesOfStack, summariseStacks } from '../stack/queries';

/** @throws Problem 'not-found' */
export async function readStack(manager: EntityManager, id: string): Promise<ShownStack> {
  const [summary] = await summariseStacks(manager, 's.id = $1 and s.binned_at is null', [id]);
  if (!summary) throw new Problem('not-found', { what: 'The stack' });
  const [{ step, last }] = await rows<{ step: number; last: number }>(
    manager,
    `select s.step, coalesce((select max(a.step) from arrangement a where a.stack_id = s.id), 0) as last from stack s where s.id = $1`,
    [id],
  );
  return { ...summary, pageList: await pagesOfStack(manager, id), step, canUndo: step > 0, canRedo: step < last };
}

/** Stops reading a stack: pages under way are finished, the others left. */
export async function stopReading({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    await manager.query('update stack set reading_stopped = true where id = $1', [id]);
    await manager.query(`update page set reading = 'stopped' where stack_id = $1 and reading = 'waiting'`, [id]);
    await record(manager, actor, 'stopped reading', 'stack', id);
    await announce(manager, 'stack', id);
  });
}

/** Reads what was stopped or failed. */
export async function startReading({ database, jobs }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    await manager.query('update stack set reading_stopped = false where id = $1', [id]);
    const waiting = await rows<{ id: string; turn: Turn; version: string }>(
      manager,
      `update page set reading = 'waiting', problem = case when pictured then null else problem end
       where stack_id = $1 and reading in ('stopped', 'failed') returning id, turn, version`,
      [id],
    );
    await jobs.ask(manager, 'read', ...waiting.map(({ id: pageId, turn, version }) => ({ pageId, turn, version })));
    await record(manager, actor, 'started reading', 'stack', id);
    await announce(manager, 'stack', id);
  });
}

/** Puts an unsorted stack into the bin (true) or takes it out (false). @throws Problem 'not-found' */
export async function binStack({ database }: Context, actor: ActingAs, id: string, binned: boolean): Promise<void> {
  await database.source.transaction(async (manager) => {
    const changed = await rows(
      manager,
      `update stack set binned_at = ${binned ? 'now()' : 'null'} where id = $1 and state = 'open' returning id`,
      [id],
    );
    if (changed.length === 0) throw new Problem('not-found', { what: 'The stack' });
    await record(manager, actor, binned ? 'put into the bin' : 'brought back', 'stack', id);
    await announce(manager, 'stack', id);
  });
}
