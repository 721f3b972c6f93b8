import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Stack as ShownStack } from '@crow/contract/stacks';
import { Context } from '../platform/context';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { pagesOfStack, stackById } from '../stack/queries';
import { proposeForStack } from './proposing';
import { readAgain, stepsOf } from './queries';
import { Page, Stack } from '../platform/entities';

/** @throws Problem 'not-found' */
export async function readStack(manager: EntityManager, id: string): Promise<ShownStack> {
  const summary = await stackById(manager, id);
  if (!summary) throw new Problem('not-found', { what: 'The stack' });
  const { step, last } = await stepsOf(manager, id);
  return { ...summary, pageList: await pagesOfStack(manager, id), step, canUndo: step > 0, canRedo: step < last };
}

/** Stops reading a stack: pages under way are finished, the others left. */
export async function stopReading({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    await manager.update(Stack, { id }, { readingStopped: true });
    await manager.update(Page, { stackId: id, reading: 'waiting' }, { reading: 'stopped' });
    // What was read since it was looked at last counts, too.
    if (await manager.existsBy(Stack, { id, state: 'open' })) await proposeForStack(manager, id);
    await record(manager, actor, 'stopped reading', 'stack', id);
    await announce(manager, 'stack', id);
  });
}

/** Reads what was stopped or failed. */
export async function startReading({ database, jobs }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    await manager.update(Stack, { id }, { readingStopped: false });
    const waiting = await readAgain(manager, id);
    await jobs.ask(manager, 'read', ...waiting.map(({ id: pageId, turn, version }) => ({ pageId, turn, version })));
    await record(manager, actor, 'started reading', 'stack', id);
    await announce(manager, 'stack', id);
  });
}

/** Puts an unsorted stack into the bin (true) or takes it out (false). @throws Problem 'not-found' */
export async function binStack({ database }: Context, actor: ActingAs, id: string, binned: boolean): Promise<void> {
  await database.source.transaction(async (manager) => {
    const changed = await manager.update(Stack, { id, state: 'open' }, { binnedAt: binned ? new Date() : null });
    if (changed.affected === 0) throw new Problem('not-found', { what: 'The stack' });
    await record(manager, actor, binned ? 'put into the bin' : 'brought back', 'stack', id);
    await announce(manager, 'stack', id);
  });
}
