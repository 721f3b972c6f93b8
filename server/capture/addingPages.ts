import { randomUUID } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { landed, Landing, landingPlace } from '@crow/core/sorting/arrangement';
import { Context } from '../platform/context';
import { SourceInfo } from '../engines/sourceFile';
import { rows } from '../platform/database';
import { SourceFile, Stack } from '../platform/entities';
import { announce } from '../platform/live';
import { enterStep } from '../stack/arranging';
import { currentArrangement } from '../stack/queries';

/** Adds the pages of a file to its stack, at the end or where they are meant to go, and to a document if they are meant for one. */
export async function addPages(context: Context, file: SourceFile, info: SourceInfo): Promise<void> {
  await context.database.source.transaction(async (manager) => {
    const stack = await manager.findOne(Stack, { where: { id: file.stackId }, lock: { mode: 'for_no_key_update' } });
    const taken = await rows(
      manager,
      `update source_file set state = 'taken', format = $2 where id = $1 and state = 'waiting' returning id`,
      [file.id, info.format],
    );
    if (!stack || taken.length === 0) return;
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
  const there = await rows<{ id: string; number: number }>(
    manager,
    `select p.id, f.position as number from page p join source_file f on f.id = p.source_file_id
     where p.stack_id = $1 order by p.position`,
    [stackId],
  );
  const ids = pages.map(() => randomUUID());
  const place = landingPlace(there, file.position, { before: file.beforePage, again: file.againPage });
  await manager.query('update page set position = position + $3 where stack_id = $1 and position >= $2', [
    stackId,
    place,
    ids.length,
  ]);
  await manager.query(
    `insert into page (id, stack_id, source_file_id, source_number, position, width, height, point_width, point_height,
       source_width, source_height, source_point_width, source_point_height, scanned, reading, again_of, back)
     select id, $1, $2, number - 1, $10 + number - 1, width, height, point_width, point_height,
       width, height, point_width, point_height, scanned, $3, case when number = 1 then $11::uuid end,
       (select back from source_file where id = $2)
     from unnest($4::uuid[], $5::int[], $6::int[], $7::real[], $8::real[], $9::boolean[])
       with ordinality as p (id, width, height, point_width, point_height, scanned, number)`,
    [
      stackId,
      file.id,
      readingStopped ? 'stopped' : 'waiting',
      ids,
      pages.map((page) => page.width),
      pages.map((page) => page.height),
      pages.map((page) => page.pointWidth),
      pages.map((page) => page.pointHeight),
      pages.map((page) => page.scanned),
      place,
      file.againPage,
    ],
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
  const [stack] = await rows<{ state: string }>(manager, 'select state from stack where id = $1 for no key update', [
    stackId,
  ]);
  if (document) {
    const found = await rows(manager, 'select 1 from document where id = $1 and stack_id = $2 and binned_at is null', [
      document,
      stackId,
    ]);
    if (found.length === 0) throw new Problem('not-found', { what: 'The document' });
  } else if (stack.state !== 'open') throw new Problem('stack-sorted');
  for (const pageId of [before, again]) {
    if (!pageId) continue;
    const found = await rows(manager, 'select 1 from page where id = $1 and stack_id = $2', [pageId, stackId]);
    if (found.length === 0) throw new Problem('not-found', { what: 'The page' });
  }
}
