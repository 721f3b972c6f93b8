import { EntityManager } from 'typeorm';
import pg from 'pg';
import { rows } from './database';
import type { WorkKind } from './jobs';

/** Advisory locks of workers share this first number, so that they are told from others. */
const LEASE_CLASS = 7_015;
/** What was taken by a worker that has entered nothing after so long was taken by one that ended. */
const UNCLAIMED_SECONDS = 10;

/** A common table expression `paths (id, path)`: each folder's names from the top, joined by slashes. */
export const FOLDER_PATHS = `with recursive paths as (
  select id, name as path from folder where parent_id is null
  union all
  select f.id, paths.path || '/' || f.name from folder f join paths on f.parent_id = paths.id
)`;

/** All folders with their names from the top, joined by slashes. */
export function pathsOfFolders(manager: EntityManager): Promise<{ id: string; path: string }[]> {
  return rows<{ id: string; path: string }>(manager, `${FOLDER_PATHS} select id, path from paths`);
}

/** Tells whoever listens to a channel, once the transaction commits. */
export async function notify(manager: EntityManager, channel: string, payload: string): Promise<void> {
  await manager.query('select pg_notify($1, $2)', [channel, payload]);
}

/** Has a connection of its own hear what is told on a channel. @param channel a plain name */
export async function listen(client: pg.Client, channel: string): Promise<void> {
  await client.query(`listen ${client.escapeIdentifier(channel)}`);
}

/** Holds a worker's lease until the connection ends; waits while another holds the same. */
export async function holdLease(client: pg.Client, lease: number): Promise<void> {
  await client.query('select pg_advisory_lock($1, $2)', [LEASE_CLASS, lease]);
}

/** Makes room for bytes that are on their way. */
export async function beginBlob(manager: EntityManager): Promise<string> {
  const [{ id }] = await rows<{ id: string }>(manager, 'insert into blob default values returning id');
  return id;
}

/** Deletes what interrupted transfers left behind. */
export async function deleteUnfinishedBlobs(manager: EntityManager): Promise<void> {
  await manager.query(`delete from blob where sha256 is null and created_at < now() - interval '1 minute'`);
}

/** Deletes pictures of files that are there no more. */
export async function deletePicturesWithoutFile(manager: EntityManager): Promise<void> {
  await manager.query(`
    delete from derived_picture d where not exists (select 1 from source_file f where f.blob_id = d.blob_id)`);
}

/** Deletes the bytes that nothing refers to. @param atOnce also such as came within the last hour */
export async function deleteUnusedBlobs(manager: EntityManager, atOnce: boolean): Promise<void> {
  await manager.query(`
    delete from blob b where sha256 is not null and created_at < now() - interval '${atOnce ? '1 minute' : '1 hour'}'
      and not exists (select 1 from source_file f where f.blob_id = b.id or f.came_blob_id = b.id)
      and not exists (select 1 from derived_picture d where d.picture_blob_id = b.id)
      and not exists (select 1 from document d where d.pdf_blob_id = b.id or d.bare_blob_id = b.id)
      and not exists (select 1 from document_version v where v.pdf_blob_id = b.id)
      and b.id::text not in (
        select signed->>'blobId' from source_file f, jsonb_array_elements(f.told->'signedBlobs') as signed)
      and not exists (select 1 from document_file o where o.blob_id = b.id)
      and not exists (select 1 from parcel p where p.blob_id = b.id)
      and not exists (select 1 from statement s where s.blob_id = b.id)`);
}

/** In how many milliseconds the first of the work of these kinds is due; nothing when none waits. */
export async function jobsDueIn(manager: EntityManager, kinds: WorkKind[]): Promise<number | undefined> {
  const [{ ms }] = await rows<{ ms: string | null }>(
    manager,
    `select extract(epoch from min(start_after) - now()) * 1000 as ms from jobs.job where name = any($1) and state < 'active'`,
    [kinds],
  );
  return ms === null ? undefined : Math.max(0, Number(ms));
}

/** Has work under way wait for so many seconds. */
export async function postponeJob(manager: EntityManager, kind: string, id: string, seconds: number): Promise<void> {
  await manager.query(
    `update jobs.job set state = 'created', started_on = null, start_after = now() + make_interval(secs => $3)
       where name = $1 and id = $2 and state = 'active'`,
    [kind, id, seconds],
  );
}

/** Takes work from whoever had it; gives how often that has happened to it. */
export async function countInterruption(manager: EntityManager, id: string, kind: string): Promise<number> {
  const [{ interruptions }] = await rows<{ interruptions: number }>(
    manager,
    `insert into claim (job_id, queue, lease, interruptions) values ($1, $2, null, 1)
       on conflict (job_id) do update set lease = null, interruptions = claim.interruptions + 1 returning interruptions`,
    [id, kind],
  );
  return interruptions;
}

/** Has work that fails be given up at once. */
export async function leaveNoTries(manager: EntityManager, kind: string, id: string): Promise<void> {
  await manager.query('update jobs.job set retry_count = retry_limit where name = $1 and id = $2', [kind, id]);
}

/** Puts work under way back into its queue. */
export async function returnJob(manager: EntityManager, kind: string, id: string): Promise<void> {
  await manager.query(
    `update jobs.job set state = 'created', started_on = null, start_after = now() where name = $1 and id = $2 and state = 'active'`,
    [kind, id],
  );
}

/** Whether work of a kind waits, for a document or a place where one is named. */
export async function isWaitingFor(manager: EntityManager, kind: string, of?: string): Promise<boolean> {
  const found = await rows(
    manager,
    `select 1 from jobs.job where name = $1 and state < 'active' and ($2::text is null or coalesce(data->>'documentId', data->>'placeId') = $2) limit 1`,
    [kind, of],
  );
  return found.length > 0;
}

/** Whether work of a kind waits or is being done. */
export async function isUnderWay(manager: EntityManager, kind: string): Promise<boolean> {
  const found = await rows(manager, `select 1 from jobs.job where name = $1 and state <= 'active' limit 1`, [kind]);
  return found.length > 0;
}

/** Work under way whose worker holds its lease no more. */
export function jobsWithoutWorker(manager: EntityManager): Promise<{ id: string; name: WorkKind }[]> {
  return rows<{ id: string; name: WorkKind }>(
    manager,
    `select j.id, j.name from jobs.job j left join claim c on c.job_id = j.id
       where j.state = 'active' and j.name <> 'given-up'
         and case when c.lease is null then j.started_on < now() - interval '${UNCLAIMED_SECONDS} seconds'
           else not exists (select 1 from pg_locks l where l.locktype = 'advisory' and l.classid = $1 and l.objid = c.lease) end`,
    [LEASE_CLASS],
  );
}
