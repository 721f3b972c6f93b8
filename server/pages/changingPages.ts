import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Turn } from '@crow/core/geometry';
import { Proposal } from '@crow/core/imaging/proposing/proposal';
import { Seen } from '@crow/core/imaging/proposing/proposals';
import { Recipe } from '@crow/core/imaging/recipe';
import { Context } from '../platform/context';
import { Page, SourceFile } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { keepRecipe, recipeOf } from './recipes';
import { currentArrangement } from '../stack/queries';
import { remake, seenOn } from './preparing';
import { SourceShelf } from '../capture/sources';
import { arrange } from '../stack/arranging';
import { haveReadAgain, partsInPicture, stacksOfPages, wave } from './queries';

export interface PageChange {
  id: string;
  recipe: Recipe | null;
  turn: Turn;
}

/** Has a page made by another recipe or turned, inside a transaction; it is read anew unless it was read like this before. */
export async function changePageIn(
  { jobs }: Context,
  manager: EntityManager,
  pageId: string,
  turn: Turn,
  version: string,
): Promise<void> {
  const page = await manager.findOneByOrFail(Page, { id: pageId });
  const recipe = await recipeOf(manager, version);
  if (recipe === undefined) throw new Problem('not-found', { what: 'That version of the page' });
  const other = version !== page.version;
  await remake(manager, page, recipe, turn);
  await haveReadAgain(manager, pageId, other);
  if (other) await jobs.ask(manager, 'picture', { pageId });
  else await jobs.ask(manager, 'read', { pageId, turn, version });
}

/**
 * Changes how pages are made. In a stack on the light table this is a step that can be undone there; pages of documents are
 * changed where they are, and a filed document's PDF follows once they are read again.
 * @throws Problem 'not-found'
 */
export async function changePages(context: Context, actor: ActingAs, changes: PageChange[]): Promise<void> {
  const { source } = context.database;
  const pages = await stacksOfPages(
    source.manager,
    changes.map(({ id }) => id),
  );
  if (pages.length !== new Set(changes.map(({ id }) => id)).size) throw new Problem('not-found', { what: 'The page' });
  const versions = new Map<string, { turn: Turn; version: string }>();
  for (const { id, recipe, turn } of changes) {
    versions.set(id, { turn, version: await keepRecipe(source.manager, recipe) });
  }
  for (const stackId of new Set(pages.map((page) => page.stackId))) {
    const those = pages.filter((page) => page.stackId === stackId);
    if (those[0].state === 'open') {
      const now = await currentArrangement(source.manager, stackId);
      const after = now.map((page) => ({ ...page, ...versions.get(page.id) }));
      await arrange(context, actor, stackId, those[0].step, after);
      continue;
    }
    await source.transaction(async (manager) => {
      for (const { id } of those) {
        const { turn, version } = versions.get(id)!;
        await changePageIn(context, manager, id, turn, version);
        await record(manager, actor, 'made a page anew', 'stack', stackId, { page: id, version, turn });
      }
      await announce(manager, 'stack', stackId);
      await announce(manager, 'document', null);
    });
  }
}

/** Finds pages good enough as they are (true), so that nothing warns of them until they are made anew; or takes that back. */
export async function wavePages({ database }: Context, actor: ActingAs, ids: string[], waved: boolean): Promise<void> {
  await database.source.transaction(async (manager) => {
    const stacks = await wave(manager, ids, waved);
    for (const stackId of new Set(stacks.map(({ stackId: id }) => id))) {
      await record(manager, actor, waved ? 'waved through' : 'took back', 'stack', stackId, { pages: ids });
      await announce(manager, 'stack', stackId);
    }
    await announce(manager, 'document', null);
  });
}

/** Looks for the sheet in a page's picture again. @throws Problem 'not-found', 'page-not-drawn' */
export async function findSheet({ database, heavy }: Context, sources: SourceShelf, pageId: string): Promise<Proposal> {
  const page = await database.source.manager.findOneBy(Page, { id: pageId });
  if (!page) throw new Problem('not-found', { what: 'The page' });
  const seen = await seenOnPage(database.source.manager, page);
  const proposals = await sources.use(page.sourceFileId, (info) => heavy.sheets(info, page.sourceNumber, seen));
  const { recipe, turn, confidence } = proposals[Math.min(page.part, proposals.length - 1)];
  return { recipe, turn, confidence };
}

/** What a page's picture is of: of a book where it was captured as one, or cut out of an open one. */
async function seenOnPage(manager: EntityManager, { sourceFileId, sourceNumber, version }: Page): Promise<Seen> {
  const seen = seenOn(await manager.findOneBy(SourceFile, { id: sourceFileId }));
  if (seen !== 'sheets') return seen;
  const recipe = await recipeOf(manager, version);
  return recipe?.bend && (await partsInPicture(manager, sourceFileId, sourceNumber)) > 1 ? 'book' : 'sheets';
}
