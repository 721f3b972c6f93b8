import { EntityManager } from 'typeorm';
import { DEEDS_AT_ONCE } from '@crow/contract/history';
import { rows } from '../platform/database';

/**
 * Counts a try to come in by a pass phrase before it is known whether it is right, so that many at once are as many tries; gives nothing
 * when there were too many since the last right one or the last pause.
 * @param most tries before a pause @param since what was tried before this is forgotten
 */
export function countTry(
  manager: EntityManager,
  actorId: string,
  most: number,
  since: Date,
): Promise<{ id: string }[]> {
  return rows<{ id: string }>(
    manager,
    `update actor set tries = case when tried_at > $3 then tries + 1 else 1 end, tried_at = now()
     where id = $1 and not (tries >= $2 and coalesce(tried_at > $3, false)) returning id`,
    [actorId, most, since],
  );
}

/** Takes a key away that is still good; gives whom it lets in, and what their device is called. */
export function takeKey(manager: EntityManager, keyHash: Buffer): Promise<{ actorId: string; device: string }[]> {
  return rows<{ actorId: string; device: string }>(
    manager,
    `delete from entry_key where key_hash = $1 and good_until > now() returning actor_id as "actorId", device`,
    [keyHash],
  );
}

/** The folders that somebody was granted, with all inside them. */
export function foldersGranted(manager: EntityManager, actorId: string): Promise<{ id: string }[]> {
  return rows<{ id: string }>(
    manager,
    `with recursive seen as (
       select folder_id as id from granted_folder where actor_id = $1
       union select f.id from folder f join seen on f.parent_id = seen.id
     ) select id from seen`,
    [actorId],
  );
}

/** Documents, by the alias d, that are on the shelf in one of the folders $2 (null: in any). */
const IS_FILED = `d.state <> 'check' and d.binned_at is null and ($2::uuid[] is null or d.folder_id = any($2))`;

/** Whether a document is on the shelf, in one of these folders (null: in any). */
export async function isFiled(manager: EntityManager, id: string, folders: readonly string[] | null): Promise<boolean> {
  const found = await rows(manager, `select 1 from document d where d.id = $1 and ${IS_FILED}`, [id, folders]);
  return found.length > 0;
}

/** Whether a page is of a document that is on the shelf, in one of these folders (null: in any). */
export async function isPageFiled(
  manager: EntityManager,
  pageId: string,
  folders: readonly string[] | null,
): Promise<boolean> {
  const found = await rows(
    manager,
    `select 1 from document_page p join document d on d.id = p.document_id where p.page_id = $1 and ${IS_FILED}`,
    [pageId, folders],
  );
  return found.length > 0;
}

/** Whether a page lies in a stack that somebody began, and that is not sorted yet. */
export async function isPageOfStackBegunBy(manager: EntityManager, pageId: string, actorId: string): Promise<boolean> {
  const found = await rows(
    manager,
    `select 1 from page p join stack s on s.id = p.stack_id where p.id = $1 and s.actor_id = $2 and s.state = 'open'`,
    [pageId, actorId],
  );
  return found.length > 0;
}

/** Deletes devices that were to come in by a code and never did, once the code is good no more. */
export async function deleteDevicesThatNeverCame(manager: EntityManager): Promise<void> {
  await manager.query(
    `delete from entry_key k using actor a where a.id = k.actor_id and a.role = 'device' and k.good_until < now()`,
  );
  await manager.query(
    `delete from actor a where a.role = 'device' and a.left_at is null
       and not exists (select 1 from entry_key k where k.actor_id = a.id) and not exists (select 1 from session s where s.actor_id = a.id)
       and not exists (select 1 from history h where h.actor_id = a.id)`,
  );
}

/** No document has had more done to it than somebody would read. */
const MOST_OF_DOCUMENT = 500;

export interface DeedRow {
  id: string;
  at: Date;
  who: string;
  action: string;
  subject: string;
  subjectId: string | null;
  named: string | null;
  detail: Record<string, unknown>;
}

/** Deeds, by the alias h, with who did them and what their subjects are called now. */
const DEEDS = `select h.id, h.at, a.name as who, h.action, h.subject, h.subject_id as "subjectId", h.detail,
  case h.subject
    when 'document' then (select d.name from document d where d.id = h.subject_id)
    when 'stack' then (select s.name from stack s where s.id = h.subject_id)
    when 'folder' then (select f.name from folder f where f.id = h.subject_id)
    when 'file' then (select f.name from source_file f where f.id = h.subject_id)
    when 'person' then (select p.name from actor p where p.id = h.subject_id)
    when 'entry' then (select e.serial || ' ' || e.who from entry e where e.id = h.subject_id)
    when 'copy place' then (select c.path from copy_place c where c.id = h.subject_id)
    when 'watched folder' then (select w.path from watched_folder w where w.id = h.subject_id)
  end as named
  from history h join actor a on a.id = h.actor_id`;

/** The latest deeds before one (null: of all), by one actor (null: by anybody). */
export function deedsBefore(manager: EntityManager, before: number | null, who: string | null): Promise<DeedRow[]> {
  return rows<DeedRow>(
    manager,
    `${DEEDS} where ($1::bigint is null or h.id < $1) and ($2::uuid is null or h.actor_id = $2)
     order by h.id desc limit ${DEEDS_AT_ONCE}`,
    [before, who],
  );
}

/** The latest deeds on a document, its pages, and the files that they came in. */
export function deedsOfDocument(manager: EntityManager, documentId: string): Promise<DeedRow[]> {
  return rows<DeedRow>(
    manager,
    `with own as (select p.id, p.source_file_id from document_page dp join page p on p.id = dp.page_id where dp.document_id = $1)
     ${DEEDS} where h.subject_id = $1 or h.subject_id in (select id from own) or h.subject_id in (select source_file_id from own)
     order by h.id desc limit ${MOST_OF_DOCUMENT}`,
    [documentId],
  );
}
