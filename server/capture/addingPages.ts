import { randomUUID } from 'node:crypto';
import { EntityManager, IsNull } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { landed, Landing, landingPlace } from '@crow/core/sorting/arrangement';
import { Context } from '../platform/context';
import { SourceInfo } from '../engines/sourceFile';
import { Document, Page, SourceFile, Stack } from '../platform/entities';
import { announce } from '../platform/live';
import { enterStep } from '../stack/arranging';
import { currentArrangement } from '../stack/queries';
import { claimArrived, insertPages, makeRoomForPages, pagesWithFilePositions } from './queries';

/** Adds the pages of a file to its stack, at the end or where they are meant to go, and to a document if they are meant for one. */
export async function addPages(context: Context, file: SourceFile, info: SourceInfo): Promise<void> {
  await context.database.source.transaction(async (manager) => {
    const stack = await manager.findOne(Stack, { where: { id: file.stackId }, lock: { mode: 'for_no_key_update' } });
    const taken = await claimArrived(manager, file.id, info.format);
    if (!stack || !taken) return;
    const ids = await layPages(manager, stack, file, info);
    const landing: Landing = { before: file.beforePage, again: file.againPage };
    const isPdf = info.format === 'pdf';
    const placed = await context.happenings.tell(manager, 'pages-arrived', { file, pageIds: ids, isPdf });
    if (!placed && (landing.before || landing.again)) {
      const now = await currentArrangement(manager, stack.id);
      await enterStep(context, manager, { id: file.actorId }, stack, landed(now, new Set(ids), landing.again));
    }
    // Each is read once its picture is made.
    await context.jobs.ask(manager, 'picture', ...ids.map((pageId) => ({ pageId })));
    await announce(manager, 'stack', file.stackId);
  });
}

/** Enters the pages of a file in their places in the stack; their ids. */
async function layPages(
  manager: EntityManager,
  { id: stackId, readingStopped }: Stack,
  file: SourceFile,
  { pages }: SourceInfo,
): Promise<string[]> {
  const there = await pagesWithFilePositions(manager, stackId);
  const ids = pages.map(() => randomUUID());
  const place = landingPlace(there, file.position, { before: file.beforePage, again: file.againPage });
  await makeRoomForPages(manager, stackId, place, ids.length);
  await insertPages(
    manager,
    file,
    { readingStopped, place },
    pages.map((page, at) => ({ ...page, id: ids[at] })),
  );
  return ids;
}

/**
 * Makes sure that a file may go where it is sent: into an open stack, or with a document into the stack of that document.
 * @throws Problem 'stack-sorted', 'not-found'
 */
export async function insistOnLanding(
  manager: EntityManager,
  stackId: string,
  { before, again, document }: Landing & { document: string | null },
): Promise<void> {
  const stack = await manager.findOne(Stack, { where: { id: stackId }, lock: { mode: 'for_no_key_update' } });
  if (document) {
    if (!(await manager.existsBy(Document, { id: document, stackId, binnedAt: IsNull() })))
      throw new Problem('not-found', { what: 'The document' });
  } else if (stack?.state !== 'open') throw new Problem('stack-sorted');
  for (const pageId of [before, again]) {
    if (!pageId) continue;
    if (!(await manager.existsBy(Page, { id: pageId, stackId }))) throw new Problem('not-found', { what: 'The page' });
  }
}
