import { EntityManager } from 'typeorm';
import { DocumentSummary } from '@crow/contract/documents';
import { FOLDER_PATHS } from '../platform/folderPaths';
import { rows } from '../platform/database';

interface Dates {
  createdAt: Date;
  filedAt: Date | null;
  binnedAt: Date | null;
}
type Row = Omit<DocumentSummary, keyof Dates | 'bytes'> & Dates & { bytes: string | null };

/**
 * Documents with what lists show of them.
 * @param where about the alias d, with placeholders for `values`
 * @param order the part after ORDER BY, and a limit if any
 */
export async function summariseDocuments(
  manager: EntityManager,
  where: string,
  values: unknown[] = [],
  order = 'd.turn_in_line',
): Promise<DocumentSummary[]> {
  const found = await rows<Row>(
    manager,
    `${FOLDER_PATHS}
     select d.id, d.state, d.name, d.folder_id as "folderId", paths.path as "folderPath", d.created_at as "createdAt",
       d.filed_at as "filedAt", d.binned_at as "binnedAt", d.problem, b.size as bytes,
       coalesce(s.for_entry, false) as "forEntry",
       pages.count as pages, pages.read, pages.first as "firstPageId", pages.turn as "firstPageTurn", pages.version as "firstPageVersion",
       facts.kind, facts.vendor, facts.date
     from document d
     left join paths on paths.id = d.folder_id
     left join stack s on s.id = d.stack_id
     left join blob b on b.id = d.pdf_blob_id
     join lateral (
       select count(*)::int as count, (count(*) filter (where p.reading <> 'waiting'))::int as read,
         (array_agg(p.id order by dp.number))[1] as first, (array_agg(p.turn order by dp.number))[1] as turn,
         (array_agg(p.version order by dp.number))[1] as version
       from document_page dp join page p on p.id = dp.page_id where dp.document_id = d.id
     ) pages on true
     join lateral (
       select max(value) filter (where name = 'kind') as kind, max(value) filter (where name = 'vendor') as vendor,
         max(value) filter (where name = 'date') as date
       from fact where document_id = d.id
     ) facts on true
     where ${where} order by ${order}`,
    values,
  );
  return found.map((document) => ({
    ...document,
    bytes: document.bytes === null ? null : Number(document.bytes),
    createdAt: document.createdAt.toISOString(),
    filedAt: document.filedAt?.toISOString() ?? null,
    binnedAt: document.binnedAt?.toISOString() ?? null,
  }));
}
