import { EntityManager } from 'typeorm';
import { CopyScope } from '@crow/contract/copyPlaces';
import { rows } from '../platform/database';
import { FOLDER_PATHS } from '../platform/queries';

/** Takes a mail that is to be sent now, if its time has come; from then on it can't be stopped any more. */
export async function takeForPosting(
  manager: EntityManager,
  id: string,
): Promise<{ recipients: string; blobId: string; tries: number } | undefined> {
  const [found] = await rows<{ recipients: string; blobId: string; tries: number }>(
    manager,
    `update parcel set next_try = null
     where id = $1 and way = 'mail' and state = 'waiting' and blob_id is not null and (next_try is null or next_try <= now())
     returning recipients, blob_id as "blobId", tries`,
    [id],
  );
  return found;
}

/** Counts a look by a link that is not over yet; gives whether it was not. */
export async function countLook(manager: EntityManager, parcelId: string): Promise<boolean> {
  const found = await rows(
    manager,
    `update parcel_link set looks = looks + 1, tries = 0
     where parcel_id = $1 and ends_at > now() and (most_looks is null or looks < most_looks) returning 1`,
    [parcelId],
  );
  return found.length > 0;
}

/** Counts a try of a link's password before it is known whether it is right; gives whether there are not too many. */
export async function countLinkTry(manager: EntityManager, parcelId: string, most: number): Promise<boolean> {
  const found = await rows(
    manager,
    `update parcel_link set tries = tries + 1 where parcel_id = $1 and tries < $2 returning 1`,
    [parcelId, most],
  );
  return found.length > 0;
}

/** The links whose time is over, or that were looked at as often as they may be, and that still lead to something. */
export function endedLinks(manager: EntityManager): Promise<{ id: string }[]> {
  return rows<{ id: string }>(
    manager,
    `select p.id from parcel p join parcel_link l on l.parcel_id = p.id
     where p.state <> 'ended' and (l.ends_at <= now() or l.looks >= l.most_looks)
       and not exists (select 1 from parcel_look k where k.parcel_id = p.id and k.at > now() - interval '1 hour')`,
  );
}

/** A filed PDF, where it is on the shelf and how it is called. */
export interface FiledPdf {
  id: string;
  name: string;
  /** The names of its folders from the top, joined by slashes. */
  folder: string;
  blobId: string;
  sha256: string;
}

/**
 * The filed PDFs of some papers, of a folder with those in it, or all, by folder and name.
 * @param folderId of scope 'folder'; null for one that is no more
 */
export function filedPdfs(
  manager: EntityManager,
  { scope, folderId, documentIds }: { scope: CopyScope; folderId: string | null; documentIds: string[] | null },
): Promise<FiledPdf[]> {
  return rows<FiledPdf>(
    manager,
    `${FOLDER_PATHS}, inside as (
       select id from folder where id = $2 union select f.id from folder f join inside on f.parent_id = inside.id
     )
     select d.id, d.name, paths.path as folder, d.pdf_blob_id as "blobId", b.sha256
     from document d join paths on paths.id = d.folder_id join blob b on b.id = d.pdf_blob_id
     where d.state <> 'check' and d.binned_at is null
       and case $1 when 'folder' then d.folder_id in (select id from inside) when 'papers' then d.id = any($3::uuid[]) else true end
     order by paths.path, d.name, d.id`,
    [scope, folderId, documentIds],
  );
}
