import { EntityManager } from 'typeorm';
import { keptProblem, ProblemReport } from '@crow/contract/problems';
import { Legibility } from '@crow/core/imaging/legibility';
import { rows } from '../platform/database';

/** Has a page read again; its pictures are as they were unless it is made otherwise. */
export async function haveReadAgain(manager: EntityManager, pageId: string, other: boolean): Promise<void> {
  await manager.query(
    `update page set reading = 'waiting', problem = null, prepared = true, pictured = pictured and not $2 where id = $1`,
    [pageId, other],
  );
}

/** The stacks that pages lie in. */
export function stacksOfPages(
  manager: EntityManager,
  ids: string[],
): Promise<{ id: string; stackId: string; state: string; step: number }[]> {
  return rows<{ id: string; stackId: string; state: string; step: number }>(
    manager,
    'select p.id, p.stack_id as "stackId", s.state, s.step from page p join stack s on s.id = p.stack_id where p.id = any($1)',
    [ids],
  );
}

/** Pages whose legibility a person found good enough as they are, or no more; gives their stacks. */
export function wave(manager: EntityManager, ids: string[], waved: boolean): Promise<{ stackId: string }[]> {
  return rows<{ stackId: string }>(
    manager,
    `update page set waved = case when $2 then version end where id = any($1) returning stack_id as "stackId"`,
    [ids, waved],
  );
}

/** What the pictures of a page are made from. */
export interface PageSource {
  id: string;
  stackId: string;
  fileId: string;
  /** Of the page in its file, from 0. */
  sourceNumber: number;
  blobId: string;
  format: string;
  pictured: boolean;
  version: string;
}

/** Where the bytes of a page are. */
export async function pageSource(manager: EntityManager, pageId: string): Promise<PageSource | undefined> {
  const [found] = await rows<PageSource>(
    manager,
    `select p.id, p.stack_id as "stackId", p.source_file_id as "fileId", p.source_number as "sourceNumber", p.pictured, p.version,
       f.blob_id as "blobId", f.format
     from page p join source_file f on f.id = p.source_file_id where p.id = $1`,
    [pageId],
  );
  return found;
}

/** Whether the pictures of a page are there, or why not. */
export async function keepPictured(
  manager: EntityManager,
  pageId: string,
  problem: ProblemReport | null,
): Promise<void> {
  await manager.query(
    'update page set pictured = pictured or $2::jsonb is null, problem = coalesce($2, problem) where id = $1',
    [pageId, problem && JSON.stringify(keptProblem(problem))],
  );
}

/** Moves the pages behind those of a picture further back. */
export async function makeRoomForPart(
  manager: EntityManager,
  stackId: string,
  sourceFileId: string,
  sourceNumber: number,
): Promise<void> {
  await manager.query(
    `update page set position = position + 1 where stack_id = $1
     and position > (select max(position) from page where source_file_id = $2 and source_number = $3)`,
    [stackId, sourceFileId, sourceNumber],
  );
}

/** Enters another sheet in the picture of a page as a page of its own, behind it. */
export async function insertPart(
  manager: EntityManager,
  id: string,
  beside: string,
  part: number,
  { confidence, legibility, damaged }: { confidence: number; legibility: Legibility | null; damaged: boolean },
): Promise<void> {
  await manager.query(
    `insert into page (id, stack_id, source_file_id, source_number, part, position, width, height, point_width, point_height,
       source_width, source_height, source_point_width, source_point_height, scanned, prepared, confidence, legibility, damaged, reading)
     select $1, stack_id, source_file_id, source_number, $3,
       (select max(position) from page where source_file_id = p.source_file_id and source_number = p.source_number) + 1,
       width, height, point_width, point_height, source_width, source_height, source_point_width, source_point_height, scanned,
       true, $4, $5, $6, case when reading = 'stopped' then 'stopped' else 'waiting' end
     from page p where id = $2`,
    [id, beside, part, confidence, legibility && JSON.stringify(legibility), damaged],
  );
}

/** Whoever goes back and forth between two ways of making a page finds both pictures there for so long. */
const KEPT_FOR = '1 day';

/** Deletes pictures by recipes and turns that no page has any more; gives how many. */
export async function deleteOldPictures(manager: EntityManager): Promise<number> {
  const swept = await rows(
    manager,
    `delete from derived_picture d using blob b
     where b.id = d.picture_blob_id and b.created_at < now() - interval '${KEPT_FOR}' and not exists (
       select 1 from source_file f join page p on p.source_file_id = f.id
       where f.blob_id = d.blob_id and p.source_number = d.source_number and split_part(d.recipe, '-', 3) = p.version
         and split_part(d.recipe, '-', 2) in ('0', p.turn::text))
     returning 1`,
  );
  return swept.length;
}

/** How many sheets the picture of a page has. */
export async function partsInPicture(
  manager: EntityManager,
  sourceFileId: string,
  sourceNumber: number,
): Promise<number> {
  const [{ parts }] = await rows<{ parts: number }>(
    manager,
    'select (max(part) + 1)::int as parts from page where source_file_id = $1 and source_number = $2',
    [sourceFileId, sourceNumber],
  );
  return parts;
}
