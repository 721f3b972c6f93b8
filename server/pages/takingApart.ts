import { Problem } from '@crow/contract/problems';
import { setDropped } from '@crow/core/sorting/arrangement';
import { Context } from '../platform/context';
import { Page, SourceFile, Stack } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { keepRecipe } from './recipes';
import { currentArrangement } from '../stack/queries';
import { addPart, seenOn } from './preparing';
import { SourceShelf } from '../capture/sources';
import { enterStep } from '../stack/arranging';
import { partsInPicture } from './queries';

/**
 * Makes several pages of one that holds several papers, or an open book, because a person says that it does: a step of the stack, so
 * that it can be undone.
 * @throws Problem 'not-found', 'stack-sorted', 'only-one-paper', 'no-open-book'
 */
export async function takeApart(
  context: Context,
  sources: SourceShelf,
  actor: ActingAs,
  pageId: string,
  seen: 'papers' | 'book',
): Promise<void> {
  const { source } = context.database;
  const page = await source.manager.findOneBy(Page, { id: pageId });
  if (!page) throw new Problem('not-found', { what: 'The page' });
  const file = seenOn(await source.manager.findOneBy(SourceFile, { id: page.sourceFileId }));
  const how = seen === 'book' && file !== 'sheets' ? file : seen;
  const proposals = await sources.use(page.sourceFileId, (info) => context.heavy.sheets(info, page.sourceNumber, how));
  if (proposals.length < 2) throw new Problem(seen === 'book' ? 'no-open-book' : 'only-one-paper');
  await source.transaction(async (manager) => {
    const stack = await manager.findOne(Stack, { where: { id: page.stackId }, lock: { mode: 'for_no_key_update' } });
    if (!stack || stack.binnedAt) throw new Problem('not-found', { what: 'The stack' });
    if (stack.state !== 'open') throw new Problem('stack-sorted');
    const there = new Set((await currentArrangement(manager, stack.id)).map(({ id }) => id));
    const parts = await partsInPicture(manager, page.sourceFileId, page.sourceNumber);
    const [first, ...others] = proposals;
    for (const [at, proposal] of others.entries())
      await addPart(context, manager, page, parts + at, {
        ...proposal,
        blank: false,
        divider: null,
        damaged: page.damaged,
      });
    const now = await currentArrangement(manager, stack.id);
    const added = new Set(now.flatMap(({ id }) => (there.has(id) ? [] : [id])));
    const { turn } = first;
    const version = await keepRecipe(manager, first.recipe);
    // Going back leaves the page as it was, and what was added dropped behind it.
    await enterStep(context, manager, actor, stack, {
      before: setDropped(now, added, true),
      after: now.map((each) => (each.id === pageId ? { ...each, version, turn } : each)),
    });
    await record(manager, actor, seen === 'book' ? 'cut at the gutter' : 'took apart', 'stack', stack.id, {
      page: pageId,
      papers: proposals.length,
    });
  });
}
