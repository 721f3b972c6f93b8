import { EntityManager } from 'typeorm';
import { DocumentSummary, PdfSize } from '@crow/contract/documents';
import { toldProblem } from '@crow/contract/problems';
import { Beside } from '@crow/core/filing/pattern';
import { Check } from '@crow/core/reading/facts/signs';
import { Booking, FactLine, TaxAtRate } from '@crow/core/reading/facts/fact';
import { StoredWord } from '@crow/core/reading/words';
import { Document } from '../platform/entities';
import { FOLDER_PATHS } from '../platform/queries';
import { rows } from '../platform/database';

interface Dates {
  createdAt: Date;
  filedAt: Date | null;
  binnedAt: Date | null;
}
type Row = Omit<DocumentSummary, keyof Dates | 'bytes' | 'total'> &
  Dates & { bytes: string | null; units: string | null; currency: string | null };

/**
 * Documents with what lists show of them.
 * @param where about the alias d, with placeholders for `values`
 * @param order the part after ORDER BY, and a limit if any
 */
async function summarise(
  manager: EntityManager,
  where: string,
  values: unknown[] = [],
  order = 'd.turn_in_line',
): Promise<DocumentSummary[]> {
  const found = await rows<Row>(
    manager,
    `${FOLDER_PATHS}
     select d.id, d.stack_id as "stackId", d.state, d.name, d.folder_id as "folderId", paths.path as "folderPath", d.created_at as "createdAt",
       d.filed_at as "filedAt", d.binned_at as "binnedAt", d.problem, b.size as bytes,
       d.tags, coalesce(s.for_entry, false) as "forEntry",
       pages.count as pages, pages.read, pages.first as "firstPageId", pages.turn as "firstPageTurn", pages.version as "firstPageVersion",
       facts.kind, facts.vendor, facts.date, facts.number, facts.reference, facts."dueDate", facts.ends, facts.units, facts.currency
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
         max(value) filter (where name = 'date') as date, max(value) filter (where name = 'number') as number,
         max(value) filter (where name = 'reference') as reference, max(value) filter (where name = 'dueDate') as "dueDate",
         max(value) filter (where name = 'ends') as ends, max(units) filter (where name = 'total') as units,
         max(currency) filter (where name = 'total') as currency
       from fact where document_id = d.id
     ) facts on true
     where ${where} order by ${order}`,
    values,
  );
  return found.map(({ units, currency, ...document }) => ({
    ...document,
    total: units === null ? null : { units: Number(units), currency },
    problem: document.problem && toldProblem(document.problem),
    bytes: document.bytes === null ? null : Number(document.bytes),
    createdAt: document.createdAt.toISOString(),
    filedAt: document.filedAt?.toISOString() ?? null,
    binnedAt: document.binnedAt?.toISOString() ?? null,
  }));
}

/** Documents, wherever they are. */
export function documentsById(manager: EntityManager, ids: string[]): Promise<DocumentSummary[]> {
  return summarise(manager, 'd.id = any($1)', [ids]);
}

/** The documents that wait to be checked, in their turn. */
export function documentsInCheck(manager: EntityManager): Promise<DocumentSummary[]> {
  return summarise(manager, `d.state = 'check' and d.binned_at is null`);
}

const ON_SHELF = `d.state <> 'check' and d.binned_at is null`;

/** The documents of folders, those filed last first. */
export function documentsInFolders(manager: EntityManager, folderIds: string[]): Promise<DocumentSummary[]> {
  return summarise(manager, `d.folder_id = any($1) and ${ON_SHELF}`, [folderIds], 'd.filed_at desc, d.id');
}

/** Of the folders, all where there are none named, the documents that were filed last. */
export function documentsFiledLast(
  manager: EntityManager,
  folderIds: readonly string[] | null,
  most: number,
): Promise<DocumentSummary[]> {
  const where = `d.id in (
    select d.id from document d where ${ON_SHELF} and ($1::uuid[] is null or d.folder_id = any($1))
    order by d.filed_at desc nulls last, d.id limit $2)`;
  return summarise(manager, where, [folderIds, most], 'd.filed_at desc, d.id');
}

/** Of the folders, all where there are none named, the documents that are due or end between two days. */
export function documentsDueBetween(
  manager: EntityManager,
  folderIds: readonly string[] | null,
  from: string,
  until: string,
): Promise<DocumentSummary[]> {
  const where = `${ON_SHELF} and ($1::uuid[] is null or d.folder_id = any($1)) and d.id in (
    select document_id from fact where name in ('dueDate', 'ends') and day between $2::date and $3::date)`;
  return summarise(manager, where, [folderIds, from, until], 'd.id');
}

/** The documents in the bin, those that came last first. */
export function documentsInBin(manager: EntityManager): Promise<DocumentSummary[]> {
  return summarise(manager, 'd.binned_at is not null', [], 'd.binned_at desc');
}

/** The documents that have one of these problems, by their names. */
export function documentsTroubledBy(manager: EntityManager, codes: string[]): Promise<DocumentSummary[]> {
  return summarise(manager, `d.problem->>'code' = any($1) and d.binned_at is null`, [codes], 'd.name');
}

/** The pages of a document that were read by recognition, with their words. */
export function recognisedPages(
  manager: EntityManager,
  documentId: string,
): Promise<{ id: string; number: number; words: StoredWord[]; width: number; height: number }[]> {
  return rows<{ id: string; number: number; words: StoredWord[]; width: number; height: number }>(
    manager,
    `select p.id, dp.number, r.words, r.width, r.height from document_page dp join page p on p.id = dp.page_id
     join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version
     where dp.document_id = $1 and not r.own order by dp.number`,
    [documentId],
  );
}

/** How many of these pages lie in the stack of a document and belong to no other one. */
export async function howManyMayJoin(
  manager: EntityManager,
  ids: string[],
  { id, stackId }: Pick<Document, 'id' | 'stackId'>,
): Promise<number> {
  const own = await rows(
    manager,
    `select 1 from page p left join document_page dp on dp.page_id = p.id
       where p.id = any($1) and p.stack_id = $2 and (dp.document_id is null or dp.document_id = $3)`,
    [ids, stackId, id],
  );
  return own.length;
}

/** Drops these pages, but for those that are kept. */
export async function dropAllBut(manager: EntityManager, ids: string[], kept: string[]): Promise<void> {
  await manager.query('update page set dropped = not (id = any($2)) where id = any($1)', [ids, kept]);
}

/** The pages of the document that a page belongs to, in their order. */
export function pagesBesidePage(
  manager: EntityManager,
  pageId: string,
): Promise<{ documentId: string; pageId: string }[]> {
  return rows<{ documentId: string; pageId: string }>(
    manager,
    `select document_id as "documentId", page_id as "pageId" from document_page
     where document_id = (select document_id from document_page where page_id = $1) order by number`,
    [pageId],
  );
}

/** How many pages a document has, and how many of them are read. */
export async function readingProgress(
  manager: EntityManager,
  documentId: string,
): Promise<{ read: number; pages: number }> {
  const [progress] = await rows<{ read: number; pages: number }>(
    manager,
    `select (count(*) filter (where p.reading <> 'waiting'))::int as read, count(*)::int as pages
     from document_page dp join page p on p.id = dp.page_id where dp.document_id = $1`,
    [documentId],
  );
  return progress;
}

/** Whether a document's PDF is the very file that its pages come from, all of them as they are: there is nothing to be bound. */
export async function isItsOwnFile(manager: EntityManager, documentId: string): Promise<boolean> {
  const [{ own }] = await rows<{ own: boolean }>(
    manager,
    `select coalesce(bool_and(f.blob_id = coalesce(d.bare_blob_id, d.pdf_blob_id) and p.version = '' and p.turn = 0 and dp.number = p.source_number + 1), false)
       and count(*) = (select count(*) from page all_of where all_of.source_file_id = (array_agg(f.id))[1]) as own
     from document d join document_page dp on dp.document_id = d.id join page p on p.id = dp.page_id
     join source_file f on f.id = p.source_file_id where d.id = $1`,
    [documentId],
  );
  return own;
}

interface Besides {
  stackName: string | null;
  archival: boolean | null;
  shelfPath: string | null;
  wantedFolder: string | null;
  checks: Check[];
  lines: FactLine[] | null;
  taxes: TaxAtRate[] | null;
  bookings: Booking[] | null;
  size: PdfSize;
  beside: Beside[];
  note: string;
}

/** What the open document shows beyond its summary. */
export async function documentBesides(manager: EntityManager, id: string): Promise<Besides> {
  const [found] = await rows<Besides>(
    manager,
    `select s.name as "stackName", d.archival, f.path as "shelfPath", d.wanted_folder as "wantedFolder",
       d.pdf_size as size, d.beside, d.note, d.checks, d.lines, d.taxes, d.bookings
     from document d left join stack s on s.id = d.stack_id left join shelf_file f on f.document_id = d.id and f.ending = '.pdf' where d.id = $1`,
    [id],
  );
  return found;
}

/** The documents made of a stack, locked, and whether each waits to be checked. */
export function lockedDocumentsOf(manager: EntityManager, id: string): Promise<{ id: string; waits: boolean }[]> {
  return rows<{ id: string; waits: boolean }>(
    manager,
    `select id, state = 'check' and binned_at is null as waits from document where stack_id = $1 for update`,
    [id],
  );
}

/** The pages of documents, in the order in which they wait; which of them begin one. */
export function pagesInLine(manager: EntityManager, documentIds: string[]): Promise<{ id: string; begins: boolean }[]> {
  return rows<{ id: string; begins: boolean }>(
    manager,
    `select dp.page_id as id, dp.number = min(dp.number) over (partition by d.id) as begins
     from document d join document_page dp on dp.document_id = d.id where d.id = any($1) order by d.turn_in_line, dp.number`,
    [documentIds],
  );
}

/** Lays pages one behind the other, with cuts that are decided. */
export async function layInOrder(manager: EntityManager, pages: { id: string; begins: boolean }[]): Promise<void> {
  await manager.query(
    `update page set position = laid.number - 1, cut_before = laid.begins and laid.number > 1, cut_decided = true, dropped = false
     from unnest($1::uuid[], $2::boolean[]) with ordinality as laid (id, begins, number) where page.id = laid.id`,
    [pages.map(({ id }) => id), pages.map(({ begins }) => begins)],
  );
}

/** Whether files or pages of a stack are not known yet. */
export async function isStillArriving(manager: EntityManager, stackId: string): Promise<boolean> {
  const found = await rows(
    manager,
    `select 1 from source_file where stack_id = $1 and state = 'waiting'
     union all select 1 from page where stack_id = $1 and not prepared limit 1`,
    [stackId],
  );
  return found.length > 0;
}
