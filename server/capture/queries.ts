import { EntityManager } from 'typeorm';
import { keptProblem, ProblemReport } from '@crow/contract/problems';
import { SourcePage } from '../engines/sourceFile';
import { rows } from '../platform/database';
import { SourceFile } from '../platform/entities';

/** Marks a file as taken in. @returns whether nobody did so before */
export async function claimArrived(manager: EntityManager, id: string, format: string): Promise<boolean> {
  const { affected } = await manager.update(SourceFile, { id, state: 'waiting' }, { state: 'taken', format });
  return affected === 1;
}

/** The pages of a stack, in their order, each with the place of its file. */
export function pagesWithFilePositions(
  manager: EntityManager,
  stackId: string,
): Promise<{ id: string; number: number }[]> {
  return rows<{ id: string; number: number }>(
    manager,
    `select p.id, f.position as number from page p join source_file f on f.id = p.source_file_id
     where p.stack_id = $1 order by p.position`,
    [stackId],
  );
}

/** Moves the pages from a place on further back. */
export async function makeRoomForPages(
  manager: EntityManager,
  stackId: string,
  place: number,
  length: number,
): Promise<void> {
  await manager.query('update page set position = position + $3 where stack_id = $1 and position >= $2', [
    stackId,
    place,
    length,
  ]);
}

/** Enters the pages of a file in its stack, from a place on. */
export async function insertPages(
  manager: EntityManager,
  { id, stackId, againPage, back }: SourceFile,
  { readingStopped, place }: { readingStopped: boolean; place: number },
  pages: (SourcePage & { id: string })[],
): Promise<void> {
  await manager.query(
    `insert into page (id, stack_id, source_file_id, source_number, position, width, height, point_width, point_height,
       source_width, source_height, source_point_width, source_point_height, scanned, reading, again_of, back)
     select id, $1, $2, number - 1, $10 + number - 1, width, height, point_width, point_height,
       width, height, point_width, point_height, scanned, $3, case when number = 1 then $11::uuid end, $12
     from unnest($4::uuid[], $5::int[], $6::int[], $7::real[], $8::real[], $9::boolean[])
       with ordinality as p (id, width, height, point_width, point_height, scanned, number)`,
    [
      stackId,
      id,
      readingStopped ? 'stopped' : 'waiting',
      pages.map((page) => page.id),
      pages.map((page) => page.width),
      pages.map((page) => page.height),
      pages.map((page) => page.pointWidth),
      pages.map((page) => page.pointHeight),
      pages.map((page) => page.scanned),
      place,
      againPage,
      back,
    ],
  );
}

/** Puts a stack into the bin in which no file is left. */
export async function binStackWithoutFiles(manager: EntityManager, stackId: string): Promise<void> {
  await manager.query(
    `update stack set binned_at = now() where id = $1 and binned_at is null
       and not exists (select 1 from source_file where stack_id = $1 and not dismissed)`,
    [stackId],
  );
}

/** Has a locked file taken in from its copy without a password. @returns whether nobody did so before */
export async function putUnlockedInPlace(manager: EntityManager, id: string, openBlobId: string): Promise<boolean> {
  const changed = await rows(
    manager,
    `update source_file set came_blob_id = blob_id, blob_id = $2, state = 'waiting', problem = null
       where id = $1 and state = 'refused' and came_blob_id is null returning id`,
    [id, openBlobId],
  );
  return changed.length > 0;
}

/** Deletes a stack that has neither files nor pages. */
export async function deleteStackIfBare(manager: EntityManager, stackId: string): Promise<void> {
  await manager.query(
    `delete from stack s where id = $1 and not exists (select 1 from source_file where stack_id = s.id)
       and not exists (select 1 from page where stack_id = s.id)`,
    [stackId],
  );
}

/** Writes down what could not be taken in, unless its folder is watched no more. */
export async function keepRefusal(
  manager: EntityManager,
  folderId: string,
  name: string,
  problem: ProblemReport,
): Promise<void> {
  await manager.query(
    'insert into watched_refusal (folder_id, name, problem) select $1, $2, $3 where exists (select 1 from watched_folder where id = $1)',
    [folderId, name, keptProblem(problem)],
  );
}

/** Files that come one soon after another belong to one stack. */
const SAME_STACK = '2 minutes';

/** The stack that a watched folder's files go to now, and the place of the next one. */
export async function openStackOf(
  manager: EntityManager,
  watchedFolderId: string,
): Promise<{ stackId: string; next: number } | undefined> {
  const [latest] = await rows<{ stackId: string; next: number }>(
    manager,
    `select s.id as "stackId", (max(f.position) + 1)::int as next from stack s join source_file f on f.stack_id = s.id
     where s.watched_folder_id = $1 and s.state = 'open' and s.step = 0 and s.binned_at is null
     group by s.id having max(f.created_at) > now() - interval '${SAME_STACK}' order by max(f.created_at) desc limit 1`,
    [watchedFolderId],
  );
  return latest;
}

/** The file of the same bytes that was taken in first, unless it has been refused, dismissed or binned. */
export async function earlierFileWith(
  manager: EntityManager,
  sha256: string,
): Promise<{ name: string; at: Date } | undefined> {
  const [first] = await rows<{ name: string; at: Date }>(
    manager,
    `select f.name, f.created_at as at from source_file f join blob b on b.id = f.blob_id join stack s on s.id = f.stack_id
     where b.sha256 = $1 and f.state <> 'refused' and not f.dismissed and s.binned_at is null
       and not exists (select 1 from document_page dp join document d on d.id = dp.document_id join page p on p.id = dp.page_id
                       where p.source_file_id = f.id and d.binned_at is not null)
     order by f.created_at limit 1`,
    [sha256],
  );
  return first;
}
