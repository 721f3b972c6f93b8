import { EntityManager, In, MoreThan } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Arrangement, completed, Placed } from '@crow/core/sorting/arrangement';
import { Context } from '../platform/context';
import { KeptArrangement, Reading, Stack } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { lockOpen } from './locks';
import { bringBackBlank, currentArrangement, layPages } from './queries';

/**
 * Arranges a stack anew, as one step that can be undone. Pages that the arrangement doesn't name stay behind those that they follow.
 * @param base the step that the change was made on
 * @throws Problem 'not-found', 'stack-sorted', 'stack-changed'
 */
export async function arrange(
  context: Context,
  actor: ActingAs,
  id: string,
  base: number,
  arrangement: Arrangement,
): Promise<void> {
  await context.database.source.transaction(async (manager) => {
    const stack = await lockOpen(manager, id);
    if (stack.step !== base) throw new Problem('stack-changed');
    const before = base === 0 ? await currentArrangement(manager, id) : undefined;
    // It stays on the table, under the hand.
    if (stack.onward) await manager.update(Stack, { id }, { onward: false });
    await enterStep(context, manager, actor, stack, { before, after: arrangement });
  });
}

/** Enters a step in a stack that is locked. @param before what undoing it goes back to, unless it is as saved */
export async function enterStep(
  context: Context,
  manager: EntityManager,
  actor: Pick<ActingAs, 'id'>,
  { id, step }: Pick<Stack, 'id' | 'step'>,
  { before, after }: { before?: Arrangement; after: Arrangement },
): Promise<void> {
  if (before) await saveStep(manager, actor, id, step, before);
  await manager.delete(KeptArrangement, { stackId: id, step: MoreThan(step) });
  await saveStep(manager, actor, id, step + 1, after);
  await record(manager, actor, 'arranged', 'stack', id, { step: step + 1 });
  await lay(context, manager, id, step + 1, after);
}

async function saveStep(
  manager: EntityManager,
  actor: Pick<ActingAs, 'id'>,
  id: string,
  step: number,
  arrangement: Arrangement,
): Promise<void> {
  await manager.upsert(KeptArrangement, { stackId: id, step, pages: arrangement, actorId: actor.id, at: new Date() }, [
    'stackId',
    'step',
  ]);
}

/** Goes one step back (-1) or forth (1) in the stack's arrangements; at the ends nothing happens. */
export async function stepArrangement(context: Context, actor: ActingAs, id: string, by: -1 | 1): Promise<void> {
  await context.database.source.transaction(async (manager) => {
    const stack = await lockOpen(manager, id);
    const saved = await manager.findOneBy(KeptArrangement, { stackId: id, step: stack.step + by });
    if (!saved) return;
    await record(manager, actor, by < 0 ? 'undid' : 'did again', 'stack', id);
    await lay(context, manager, id, stack.step + by, saved.pages);
  });
}

/** Puts the pages as the arrangement says, and has those that were turned read again. */
async function lay(
  context: Context,
  manager: EntityManager,
  id: string,
  step: number,
  arrangement: Arrangement,
): Promise<void> {
  const now = await currentArrangement(manager, id);
  const before = new Map(now.map((page) => [page.id, page]));
  const wanted = completed(arrangement, now);
  await layPages(manager, id, wanted);
  await manager.update(Stack, { id }, { step });
  const isOther = (page: Placed) => {
    const was = before.get(page.id);
    return was && (was.turn !== page.turn || was.version !== page.version);
  };
  for (const { id: pageId, turn, version } of arrangement.filter(isOther))
    await context.happenings.tell(manager, 'page-rearranged', { pageId, turn, version });
  await readBroughtBack(context, manager, before, wanted);
  await context.happenings.tell(manager, 'stack-arranged', { stackId: id });
  await announce(manager, 'stack', id);
}

/** Pages that were taken for blank, so that nobody read them, are read when a person has them back. */
async function readBroughtBack(
  { jobs }: Context,
  manager: EntityManager,
  before: ReadonlyMap<string, Placed>,
  wanted: Arrangement,
): Promise<void> {
  const back = wanted.filter((page) => !page.dropped && page.dropDecided && before.get(page.id)?.dropped);
  if (back.length === 0) return;
  const unread = await bringBackBlank(
    manager,
    back.map(({ id }) => id),
  );
  await manager.delete(Reading, { pageId: In(unread.map(({ id }) => id)) });
  await jobs.ask(manager, 'read', ...unread.map(({ id, turn, version }) => ({ pageId: id, turn, version })));
}
