import { EntityManager } from 'typeorm';
import { rows } from '../platform/database';
import { FOLDER_PATHS } from '../platform/queries';

/** What decides about the sheet of a paper on the shelf. */
export interface SheetRow {
  documentId: string;
  name: string;
  folderId: string | null;
  folderPath: string | null;
  kind: string | null;
  vendor: string | null;
  subject: string | null;
  day: string;
  ends: string | null;
  inBooks: boolean;
  placeId: string | null;
  said: 'keep' | 'may go' | null;
  goneAt: string | null;
  goneBy: string | null;
  /** Whether all of its pages came with text of their own, and were never paper here. */
  cameAsFile: boolean;
  sha256: string | null;
  agreedSha256: string | null;
  differed: boolean;
  copiedSha256: string | null;
  unread: number;
  illegible: number;
  doubtful: number;
  troubled: boolean;
  checks: { code: string }[];
}

/**
 * The papers on the shelf with what decides about their sheets, by folder and name.
 * @param bars below which a page can hardly be read, and a fact that nobody confirmed is doubtful
 * @param ids only these
 */
export function sheetsOnShelf(
  manager: EntityManager,
  bars: { score: number; complete: number; fact: number },
  ids: readonly string[] | null = null,
): Promise<SheetRow[]> {
  return rows<SheetRow>(
    manager,
    `${FOLDER_PATHS}
     select d.id as "documentId", d.name, d.folder_id as "folderId", paths.path as "folderPath", facts.kind, facts.vendor, facts.subject,
       coalesce(facts.date, to_char(d.filed_at, 'YYYY-MM-DD')) as day, facts.ends,
       exists (select from entry_paper k join entry e on e.id = k.entry_id where k.document_id = d.id and e.taken_out_at is null) as "inBooks",
       s.place_id as "placeId", s.said, to_char(s.gone_at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "goneAt", a.name as "goneBy",
       coalesce(pages.as_file, false) as "cameAsFile", b.sha256, r.agreed_sha256 as "agreedSha256", coalesce(r.differed, false) as differed,
       r.copied_sha256 as "copiedSha256", coalesce(pages.unread, 0) as unread, coalesce(pages.illegible, 0) as illegible,
       coalesce(facts.doubtful, 0) as doubtful, d.state <> 'filed' or d.problem is not null as troubled, d.checks
     from document d
     left join paths on paths.id = d.folder_id
     left join blob b on b.id = d.pdf_blob_id
     left join sheet s on s.document_id = d.id
     left join actor a on a.id = s.gone_by
     left join proof r on r.document_id = d.id
     left join lateral (
       select max(value) filter (where name = 'kind') as kind, max(value) filter (where name = 'vendor') as vendor,
         max(value) filter (where name = 'subject') as subject, max(day::text) filter (where name = 'date') as date, max(day::text) filter (where name = 'ends') as ends,
         count(*) filter (where confirmed_by is null and confidence < $3)::int as doubtful
       from fact where document_id = d.id) facts on true
     left join lateral (
       select bool_and(coalesce(p.own_text, false)) as as_file, count(*) filter (where p.reading <> 'read')::int as unread,
         count(*) filter (where p.waved is distinct from p.version and
           ((p.legibility->>'score')::float8 < $1 or (p.legibility->'parts'->>'complete')::float8 < $2))::int as illegible
       from document_page k join page p on p.id = k.page_id where k.document_id = d.id) pages on true
     where d.state <> 'check' and d.binned_at is null and ($4::uuid[] is null or d.id = any($4))
     order by paths.path, d.name`,
    [bars.score, bars.complete, bars.fact, ids],
  );
}

/** The PDF of a paper on the shelf: its bytes in the database, and where they should stand on disk. */
export interface FileToCompare {
  documentId: string;
  blobId: string;
  sha256: string;
  path: string | null;
}

/** What files on disk and bytes in the database are to agree of: the PDFs of all papers on the shelf. @param id only that of this one */
export function filesToCompare(manager: EntityManager, id: string | null = null): Promise<FileToCompare[]> {
  return rows(
    manager,
    `select d.id as "documentId", b.id as "blobId", b.sha256, f.path
     from document d join blob b on b.id = d.pdf_blob_id left join shelf_file f on f.document_id = d.id and f.ending = '.pdf'
     where d.state = 'filed' and d.binned_at is null and b.sha256 is not null
       and ($1::uuid is null or d.id = $1) order by d.id`,
    [id],
  );
}

/** When files were last compared with the database; null for never. */
export async function lastCompared(manager: EntityManager): Promise<string | null> {
  const [{ at }] = await rows<{ at: string | null }>(
    manager,
    `select to_char(max(compared_at) at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at from proof`,
  );
  return at;
}

/** Writes down that PDFs with these hashes were found in an archive. @returns the papers that have them */
export async function markCopied(manager: EntityManager, hashes: readonly string[]): Promise<number> {
  const marked = await rows(
    manager,
    `insert into proof (document_id, copied_sha256, copied_at)
     select d.id, b.sha256, now() from document d join blob b on b.id = d.pdf_blob_id
     where d.state <> 'check' and d.binned_at is null and b.sha256 = any($1)
     on conflict (document_id) do update set copied_sha256 = excluded.copied_sha256, copied_at = excluded.copied_at
     returning document_id`,
    [hashes],
  );
  return marked.length;
}

/** The box or binder that has this name, however it is written. */
export async function placeNamed(
  manager: EntityManager,
  name: string,
): Promise<{ id: string; retired: boolean } | undefined> {
  const [found] = await rows<{ id: string; retired: boolean }>(
    manager,
    'select id, retired from place where lower(name) = lower($1)',
    [name],
  );
  return found;
}

/** How many papers on the shelf have a PDF. */
export async function papersWithPdf(manager: EntityManager): Promise<number> {
  const [{ papers }] = await rows<{ papers: number }>(
    manager,
    `select count(*)::int as papers from document where state <> 'check' and binned_at is null and pdf_blob_id is not null`,
  );
  return papers;
}

/** Enters of papers what was said of their sheets, what was not said staying as it was. */
export async function saySheets(
  manager: EntityManager,
  ids: readonly string[],
  say: { placeId?: string | null; said?: string | null; gone?: { by: string } | null },
): Promise<void> {
  await manager.query(
    `insert into sheet (document_id, place_id, said, gone_at, gone_by)
     select id, $3, $5, case when $7::uuid is null then null else now() end, $7 from document where id = any($1)
     on conflict (document_id) do update set
       place_id = case when $2 then $3 else sheet.place_id end,
       said = case when $4 then $5 else sheet.said end,
       gone_at = case when $6 then excluded.gone_at else sheet.gone_at end,
       gone_by = case when $6 then excluded.gone_by else sheet.gone_by end`,
    [
      ids,
      say.placeId !== undefined,
      say.placeId ?? null,
      say.said !== undefined,
      say.said ?? null,
      say.gone !== undefined,
      say.gone?.by ?? null,
    ],
  );
}

/** Lays the sheet of a paper where sheets go now, unless it lies somewhere already, or came as a file with its own text and has none. */
export async function layWhereSheetsGo(manager: EntityManager, documentId: string): Promise<void> {
  await manager.query(
    `insert into sheet (document_id, place_id) select $1, id from place where takes and exists (
       select from document_page k join page p on p.id = k.page_id where k.document_id = $1 and not coalesce(p.own_text, false))
     on conflict (document_id) do update set place_id = coalesce(sheet.place_id, excluded.place_id)`,
    [documentId],
  );
}
