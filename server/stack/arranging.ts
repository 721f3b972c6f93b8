import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Turn } from '@crow/core/geometry';
import { Arrangement, completed, Placed } from '@crow/core/sorting/arrangement';
import { Context } from '../platform/context';
import { rows } from '../platform/database';
import { Stack } from '../platform/entities';
import { ActingAs } from '../platform/history';
import { announce } from '../platform/live';
import { lockOpen } from './locks';
import { currentArrangement } from './queries';

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
  await manager.query('delete from arrangement where stack_id = $1 and step > $2', [id, step]);
  await saveStep(manager, actor, id, step + 1, after);
  await lay(context, manager, id, step + 1, after);
}

async function saveStep(
  manager: EntityManager,
  actor: Pick<ActingAs, 'id'>,
  id: string,
  step: number,
  arrangement: Arrangement,
): Promise<void> {
  await manager.query(
    `insert into arrangement (stack_id, step, pages, actor_id) values ($1, $2, $3, $4)
     on conflict (stack_id, step) do update set pages = excluded.pages, actor_id = excluded.actor_id, at = now()`,
    [id, step, JSON.stringify(arrangement), actor.id],
  );
}

/** Goes one step back (-1) or forth (1) in the stack's arrangements; at the ends nothing happens. */
export async function stepArrangement(context: Context, id: string, by: -1 | 1): Promise<void> {
  await context.database.source.transaction(async (manager) => {
    const stack = await lockOpen(manager, id);
    const [saved] = await rows<{ pages: Arrangement }>(
      manager,
      'select pages from arrangement where stack_id = $1 and step = $2',
      [id, stack.step + by],
    );
    if (saved) await lay(context, manager, id, stack.step + by, saved.pages);
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
  await manager.query(
    `update page set position = wanted.number - 1, cut_before = wanted.cut, cut_decided = wanted.cut_decided,
       dropped = wanted.dropped, drop_decided = wanted.drop_decided
     from unnest($2::uuid[], $3::boolean[], $4::boolean[], $5::boolean[], $6::boolean[]) with ordinality
       as wanted (id, cut, cut_decided, dropped, drop_decided, number)
     where wanted.id = page.id and page.stack_id = $1`,
    [
      id,
      wanted.map((page) => page.id),
      wanted.map((page) => page.cutBefore),
      wanted.map((page) => page.cutDecided),
      wanted.map((page) => page.dropped),
      wanted.map((page) => page.dropDecided),
    ],
  );
  await manager.query('update stack set step = $2 where id = $1', [id, step]);
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
  const unread = await rows<{ id: string; turn: Turn; version: string }>(
    manager,
    `update page set blank = false, reading = 'waiting' where id = any($1) and blank returning id, turn, version`,
    [back.map(({ id }) => id)],
  );
  await manager.query('delete from reading where page_id = any($1)', [unread.map(({ id }) => id)]);
  await jobs.ask(manager, 'read', ...unread.map(({ id, turn, version }) => ({ pageId: id, turn, version })));
}
