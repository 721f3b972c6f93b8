import { randomUUID } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Stack as ShownStack } from '@crow/contract/shapes';
import { Turn } from '@crow/core/geometry';
import { Arrangement, completed, Placed } from '@crow/core/sorting/arrangement';
import { Context } from '../context';
import { rows } from '../store/database';
import { Stack } from '../store/entities';
import { ActingAs, record } from '../store/history';
import { announce } from '../store/live';
import { currentArrangement, pagesOfStack, summariseStacks } from '../store/stackRows';
import { changePageIn } from './changingPages';
import { carryPages } from './carryingPages';
import { documentsFrom } from './documentsFrom';
import { proposeForStack } from './proposing';

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

/**
 * The stack, locked until the transaction ends; not for its key, as all locks are that don't delete: PostgreSQL looks a page's
 * stack up again when the page is changed twice in one transaction, and that must not wait for whoever waits for the page.
 * @throws Problem 'not-found', 'stack-sorted'
 */
async function lockOpen(manager: EntityManager, id: string): Promise<Stack> {
  const stack = await manager.findOne(Stack, { where: { id }, lock: { mode: 'for_no_key_update' } });
  if (!stack || stack.binnedAt) throw new Problem('not-found', { what: 'The stack' });
  if (stack.state !== 'open') throw new Problem('stack-sorted');
  return stack;
}

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
    await changePageIn(context, manager, pageId, turn, version);
  await readBroughtBack(context, manager, before, wanted);
  await proposeForStack(manager, id);
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

/** Lets go of a refused file; a stack that nothing else is in goes to the bin with it. */
export async function dismissFile({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    const [file] = await rows<{ stack_id: string }>(
      manager,
      `update source_file set dismissed = true where id = $1 and state = 'refused' returning stack_id`,
      [id],
    );
    if (!file) throw new Problem('not-found', { what: 'The file' });
    await manager.query(
      `update stack set binned_at = now() where id = $1 and binned_at is null
       and not exists (select 1 from source_file where stack_id = $1 and not dismissed)`,
      [file.stack_id],
    );
    await record(manager, actor, 'let go', 'file', id);
    await announce(manager, 'stack', file.stack_id);
  });
}
