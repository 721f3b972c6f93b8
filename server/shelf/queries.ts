import { EntityManager, Not } from 'typeorm';
import { PdfSize } from '@crow/contract/documents';
import { FactName } from '@crow/contract/facts';
import { Folder as ShownFolder } from '@crow/contract/folders';
import { KeptProblem, ProblemReport, toldProblem } from '@crow/contract/problems';
import { nameKey } from '@crow/core/filing/names';
import { Beside } from '@crow/core/filing/pattern';
import { Turn } from '@crow/core/geometry';
import { Recipe } from '@crow/core/imaging/recipe';
import { Booking, FactLine, TaxAtRate } from '@crow/core/reading/facts/fact';
import { StoredWord } from '@crow/core/reading/words';
import { rows } from '../platform/database';
import { Document } from '../platform/entities';
import { FOLDER_PATHS } from '../platform/queries';

/** Whether a document with these bytes is here, or on its way. */
export async function holdsBytes(manager: EntityManager, blobId: string): Promise<boolean> {
  const found = await rows(
    manager,
    'select 1 from document where $1 in (pdf_blob_id, bare_blob_id) and binned_at is null union all select 1 from source_file where blob_id = $1 and told is not null',
    [blobId],
  );
  return found.length > 0;
}

/** The documents in the bin whose files are gone from the shelf, locked, with their pages. */
export function binnedDocuments(manager: EntityManager): Promise<{ id: string; pages: string[] }[]> {
  return rows<{ id: string; pages: string[] }>(
    manager,
    `select d.id, array(select page_id from document_page where document_id = d.id) as pages
       from document d where d.binned_at is not null and not exists (select 1 from shelf_file s where s.document_id = d.id)
       order by d.id for update`,
  );
}

/** The stacks in the bin, locked. */
export function binnedStacks(manager: EntityManager): Promise<{ id: string }[]> {
  return rows<{ id: string }>(manager, 'select id from stack where binned_at is not null order by id for update');
}

/** Sorted stacks of which no document is left. */
export function sortedStacksWithoutDocuments(manager: EntityManager): Promise<{ id: string }[]> {
  return rows<{ id: string }>(
    manager,
    `select s.id from stack s where s.state = 'sorted' and not exists (select 1 from document d where d.stack_id = s.id)
         and not exists (select 1 from source_file f where f.stack_id = s.id and f.state = 'waiting')`,
  );
}

/** Deletes files of which no page is left. */
export async function deleteFilesWithoutPages(manager: EntityManager): Promise<void> {
  await manager.query(`delete from source_file f where f.state = 'taken' and not exists (select 1 from page p where p.source_file_id = f.id)
         and not exists (select 1 from stack s where s.id = f.stack_id and s.state = 'open')`);
}

/** The words that stand on pages. */
export function wordsOnPages(manager: EntityManager, ids: string[]): Promise<{ word: string }[]> {
  return rows<{ word: string }>(
    manager,
    'select distinct unnest(tsvector_to_array(tokens)) as word from page_tokens where page_id = any($1)',
    [ids],
  );
}

/** Of these words, forgets those that stand on no page any more: they are proposed as other spellings no longer. */
export async function forgetWordsOnNoPage(manager: EntityManager, words: string[]): Promise<void> {
  await manager.query(
    `delete from vocabulary v where v.word = any($1)
       and not exists (select 1 from page_tokens t where t.tokens @@ quote_literal(v.word)::tsquery)`,
    [words],
  );
}

/** Of what is gone the history keeps what was done, by whom and when, but nothing of what it said or was called. */
export async function forgetDetailsOfWhatIsGone(manager: EntityManager): Promise<void> {
  await manager.query(`update history h set detail = '{}' where h.detail <> '{}' and (
       (subject = 'document' and not exists (select 1 from document where id = subject_id))
       or (subject = 'stack' and not exists (select 1 from stack where id = subject_id))
       or (subject = 'file' and not exists (select 1 from source_file where id = subject_id))
       or (subject = 'page' and not exists (select 1 from page where id = subject_id)))`);
}

/** Keeps the PDF that a document has as an earlier version, unless it is the same. */
export async function keepVersionBefore(manager: EntityManager, documentId: string, blobId: string): Promise<void> {
  await manager.query(
    `insert into document_version (document_id, number, pdf_blob_id)
       select id, coalesce((select max(number) from document_version where document_id = id), 0) + 1, pdf_blob_id
       from document where id = $1 and pdf_blob_id is not null and pdf_blob_id <> $2`,
    [documentId, blobId],
  );
}

interface SignedCopy {
  blobId: string;
  signedBy: string;
  certified: string | null;
  reason: string;
  /** What whoever signed it was called where it comes from, and when that was; null for here and now. */
  signedAs?: string | null;
  at?: Date | null;
}

/** Keeps a PDF of a document that was signed as a version. */
export async function keepSignedVersion(
  manager: EntityManager,
  documentId: string,
  { blobId, signedBy, certified, reason, signedAs = null, at = null }: SignedCopy,
): Promise<void> {
  await manager.query(
    `insert into document_version (document_id, number, pdf_blob_id, signed_by, certified, reason, signed_as, until)
       select $1, coalesce(max(number), 0) + 1, $2, $3, $4, $5, $6, coalesce($7::timestamptz, now())
       from document_version where document_id = $1`,
    [documentId, blobId, signedBy, certified, reason, signedAs, at],
  );
}

/** Gives a document its PDF, unless it waits to be checked again. @returns whether it has it */
export async function enterPdf(
  manager: EntityManager,
  id: string,
  pdf: Pick<Document, 'pdfBlobId' | 'bareBlobId' | 'archival'>,
): Promise<boolean> {
  const { affected } = await manager.update(Document, { id, state: Not('check') }, { ...pdf, problem: null });
  return affected === 1;
}

/**
 * What a PDF is made from, as a short text that differs when anything of it does: the pages in their order, how they are made, the
 * text on them (each change of a row gets a number of its own, `xmin`), and what the PDF is to be like.
 */
export async function contentOf(manager: EntityManager, documentId: string): Promise<string | null> {
  const [found] = await rows<{ content: string | null }>(
    manager,
    `select md5(concat_ws(',', d.name, d.pdf_size, d.beside::text, (
       select string_agg(concat_ws(' ', p.id, p.version, p.turn, r.xmin), ',' order by dp.number)
       from document_page dp join page p on p.id = dp.page_id
       left join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version where dp.document_id = d.id
     ))) as content from document d where d.id = $1`,
    [documentId],
  );
  return found?.content ?? null;
}

/** What a document's pages are like: with other pages, or pages made otherwise, its PDF has another size. */
const PAGES_KEY = `(select md5(string_agg(concat_ws(' ', p.id, p.version, p.turn), ',' order by dp.number))
  from document_page dp join page p on p.id = dp.page_id where dp.document_id = $1)`;

/** How large a document's PDF would be in each size, as far as it has been weighed. */
export function sizesOf(manager: EntityManager, documentId: string): Promise<{ size: string; bytes: string }[]> {
  return rows<{ size: string; bytes: string }>(
    manager,
    `select size, bytes from document_size where document_id = $1 and pages = ${PAGES_KEY}`,
    [documentId],
  );
}

/** A document's name, and a hash over its pages. */
export async function toBeWeighed(
  manager: EntityManager,
  documentId: string,
): Promise<{ name: string; pages: string | null } | undefined> {
  const [found] = await rows<{ name: string; pages: string | null }>(
    manager,
    `select name, ${PAGES_KEY} as pages from document where id = $1`,
    [documentId],
  );
  return found;
}

/** How large a document's PDF would be, unless the document is there no more. */
export async function keepSize(
  manager: EntityManager,
  documentId: string,
  pages: string,
  size: string,
  bytes: number,
): Promise<void> {
  await manager.query(
    `insert into document_size (document_id, pages, size, bytes)
       select $1, $2, $3, $4 where exists (select 1 from document where id = $1) on conflict do nothing`,
    [documentId, pages, size, bytes],
  );
}

export interface PageOfPdf {
  id: string;
  fileId: string;
  /** Of the page in its file, from 0. */
  number: number;
  turn: Turn;
  recipe: Recipe | null;
  format: string;
  own: boolean | null;
  width: number | null;
  height: number | null;
  language: string | null;
  words: StoredWord[] | null;
}

/** The pages of a document, in their order, with what its PDF is made of. */
export function pagesToBind(manager: EntityManager, documentId: string): Promise<PageOfPdf[]> {
  return rows<PageOfPdf>(
    manager,
    `select p.id, p.source_file_id as "fileId", p.source_number as number, p.turn, c.recipe, f.format, r.own, r.width, r.height, r.language, r.words
     from document_page dp join page p on p.id = dp.page_id join source_file f on f.id = p.source_file_id
     left join recipe c on c.version = p.version left join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version
     where dp.document_id = $1 order by dp.number`,
    [documentId],
  );
}

/** Gives a document its place, its name and, if said, its size; and whether its size is another than before. */
export async function moveDocument(
  manager: EntityManager,
  id: string,
  { folderId, name, size }: { folderId: string; name: string; size?: PdfSize },
): Promise<{ resized: boolean }> {
  const [found] = await rows<{ resized: boolean }>(
    manager,
    `update document d set folder_id = $2, name = $3, name_key = $4, pdf_size = coalesce($5, d.pdf_size)
     from document before where d.id = $1 and before.id = d.id returning before.pdf_size <> d.pdf_size as resized`,
    [id, folderId, name, nameKey(name), size ?? null],
  );
  return found;
}

interface Shelved {
  id: string;
  name: string;
  folder: string;
  pdfBlobId: string;
  /** Its PDF without marks, where there are any. */
  bare: { bytes: number; sha256: string } | null;
  filedAt: Date;
  facts: Record<string, string> | null;
  lines: FactLine[] | null;
  taxes: TaxAtRate[] | null;
  bookings: Booking[] | null;
  tags: string[];
  note: string;
}

/** The filed documents in a folder and those below it, or all, with what is known of them. */
export function shelvedDocuments(manager: EntityManager, folders: readonly string[] | null): Promise<Shelved[]> {
  return rows<Shelved>(
    manager,
    `${FOLDER_PATHS}, wanted as (
       select id from folder where $1::uuid[] is null or id = any($1) union select f.id from folder f join wanted on f.parent_id = wanted.id
     )
     select d.id, d.name, paths.path as folder, d.pdf_blob_id as "pdfBlobId", d.filed_at as "filedAt", d.lines, d.taxes, d.bookings, d.tags, d.note,
       (select jsonb_build_object('bytes', b.size, 'sha256', b.sha256) from blob b where b.id = d.bare_blob_id) as bare,
       (select jsonb_object_agg(f.name, f.value) from fact f where f.document_id = d.id) as facts
     from document d join paths on paths.id = d.folder_id join wanted on wanted.id = d.folder_id
     where d.state <> 'check' and d.binned_at is null and d.pdf_blob_id is not null
     order by paths.path, d.name`,
    [folders],
  );
}

/** What the documents in each of the folders, all where there are none named, add up to by kind and currency. */
export function sumsInFolders(
  manager: EntityManager,
  folderIds: readonly string[] | null,
): Promise<{ folderId: string; kind: string | null; currency: string | null; units: string }[]> {
  return rows(
    manager,
    `select d.folder_id as "folderId", kind.value as kind, total.currency, sum(total.units) as units
     from document d join fact total on total.document_id = d.id and total.name = 'total'
     left join fact kind on kind.document_id = d.id and kind.name = 'kind'
     where d.state <> 'check' and d.binned_at is null and d.folder_id is not null and ($1::uuid[] is null or d.folder_id = any($1))
     group by d.folder_id, kind.value, total.currency`,
    [folderIds],
  );
}

/** What a table tells of a paper. */
export interface PaperInTable {
  id: string;
  name: string;
  folder: string | null;
  pages: number;
  lines: FactLine[] | null;
  taxes: TaxAtRate[] | null;
  bookings: Booking[] | null;
  facts: Partial<Record<FactName, string>>;
}

/** Of papers what a table tells, of those on the shelf in certain folders where these are named. */
export function papersInTable(
  manager: EntityManager,
  ids: readonly string[],
  folders: readonly string[] | null,
): Promise<PaperInTable[]> {
  return rows<PaperInTable>(
    manager,
    `${FOLDER_PATHS}
     select d.id, d.name, paths.path as folder, d.lines, d.taxes, d.bookings,
       (select count(*)::int from document_page dp where dp.document_id = d.id) as pages,
       coalesce((select jsonb_object_agg(f.name, f.value) from fact f where f.document_id = d.id), '{}') as facts
     from document d left join paths on paths.id = d.folder_id
     where d.id = any($1) and d.binned_at is null and ($2::uuid[] is null or (d.state <> 'check' and d.folder_id = any($2)))`,
    [ids, folders],
  );
}

/** Files a document: its place, its name, its size and what is kept beside it. */
export async function enterFiling(
  manager: EntityManager,
  id: string,
  { folderId, name, size, beside }: { folderId: string; name: string; size?: PdfSize; beside?: Beside[] },
): Promise<void> {
  await manager.query(
    `update document set state = 'filing', folder_id = $2, name = $3, name_key = $4, filed_at = clock_timestamp(), problem = null,
         pdf_size = coalesce($5, pdf_size), beside = coalesce($6, beside) where id = $1`,
    [id, folderId, name, nameKey(name), size ?? null, beside ?? null],
  );
}

/** Where a folder lies. */
export async function pathOfFolder(manager: EntityManager, folderId: string | null): Promise<string | undefined> {
  const [found] = await rows<{ path: string }>(manager, `${FOLDER_PATHS} select path from paths where id = $1`, [
    folderId,
  ]);
  return found?.path;
}

/** The folders that were made when a document was filed last. */
export async function foldersMadeForFiling(manager: EntityManager, documentId: string): Promise<string[]> {
  const [filing] = await rows<{ made: string[] | null }>(
    manager,
    `select detail->'made' as made from history where subject_id = $1 and action = 'filed' order by at desc limit 1`,
    [documentId],
  );
  return filing?.made ?? [];
}

/** A folder in which nothing is but, perhaps, a document. */
export async function folderWithNothingElse(
  manager: EntityManager,
  id: string,
  documentId: string,
): Promise<{ parentId: string | null } | undefined> {
  const [found] = await rows<{ parentId: string | null }>(
    manager,
    `select parent_id as "parentId" from folder f where id = $1
         and not exists (select 1 from document where folder_id = f.id and id <> $2)
         and not exists (select 1 from folder where parent_id = f.id)`,
    [id, documentId],
  );
  return found;
}

/** Has a document wait to be checked again, before all others. */
export async function takeOffShelf(manager: EntityManager, id: string): Promise<void> {
  await manager.query(
    `update document set state = 'check', filed_at = null, problem = null,
         turn_in_line = (select coalesce(min(turn_in_line), 1) - 1 from document where state = 'check')
       where id = $1`,
    [id],
  );
}

/** All folders with their paths and how many documents are in each. */
export function foldersWithPaths(manager: EntityManager): Promise<Omit<ShownFolder, 'inside'>[]> {
  return rows<Omit<ShownFolder, 'inside'>>(
    manager,
    `${FOLDER_PATHS}
     select f.id, f.parent_id as "parentId", f.name, paths.path,
       (select count(*)::int from document d where d.folder_id = f.id and d.state <> 'check' and d.binned_at is null) as documents
     from folder f join paths on paths.id = f.id order by lower(paths.path)`,
  );
}

/** Nobody else makes, moves or deletes a folder until the transaction ends. */
export async function lockFolders(manager: EntityManager): Promise<void> {
  await manager.query('lock table folder in share row exclusive mode');
}

/** A folder and all below it. */
export async function treeOf(manager: EntityManager, folderId: string): Promise<string[]> {
  const found = await rows<{ id: string }>(
    manager,
    `with recursive tree as (
       select id from folder where id = $1 union all select f.id from folder f join tree on f.parent_id = tree.id
     ) select id from tree`,
    [folderId],
  );
  return found.map(({ id }) => id);
}

/** Locks the documents of a folder. */
export async function lockDocumentsIn(manager: EntityManager, id: string): Promise<void> {
  await manager.query('select 1 from document where folder_id = $1 order by id for no key update', [id]);
}

/** Whether folders or filed documents are in a folder. */
export async function holdsSomething(manager: EntityManager, folderId: string): Promise<boolean> {
  const found = await rows(
    manager,
    `select 1 from folder where parent_id = $1 union all select 1 from document where folder_id = $1 and (state <> 'check' and binned_at is null)`,
    [folderId],
  );
  return found.length > 0;
}

export interface Wanted {
  state: string;
  name: string;
  folderId: string | null;
  folderPath: string | null;
  binnedAt: Date | null;
  /** The PDF, once it is bound, and what is kept beside it. */
  files: WantedFile[];
}

export interface WantedFile {
  ending: string;
  blobId: string;
  sha256: string;
}

/** What should stand on disk for a document. */
export async function wantedOnDisk(manager: EntityManager, documentId: string): Promise<Wanted | undefined> {
  const [found] = await rows<Wanted>(
    manager,
    `${FOLDER_PATHS}, files as (
         select '.pdf' as ending, pdf_blob_id as blob_id from document where id = $1 and pdf_blob_id is not null
         union all select ending, blob_id from document_file where document_id = $1
       )
       select d.state, d.name, d.folder_id as "folderId", paths.path as "folderPath", d.binned_at as "binnedAt",
         (select coalesce(jsonb_agg(jsonb_build_object('ending', ending, 'blobId', blob_id, 'sha256', sha256) order by ending <> '.pdf', ending), '[]')
          from files join blob on blob.id = files.blob_id) as files
       from document d left join paths on paths.id = d.folder_id where d.id = $1`,
    [documentId],
  );
  return found;
}

/** The documents that have one of these problems. */
export async function documentsWithProblems(
  manager: EntityManager,
  codes: string[],
): Promise<{ id: string; problem: ProblemReport }[]> {
  const found = await rows<{ id: string; problem: KeptProblem }>(
    manager,
    `select id, problem from document where problem->>'code' = any($1)`,
    [codes],
  );
  return found.map(({ id, problem }) => ({ id, problem: toldProblem(problem) }));
}

/** Takes a form from those that are kept beside a document. */
export async function keepBesideNoMore(manager: EntityManager, documentId: string, form: Beside): Promise<void> {
  await manager.query('update document set beside = array_remove(beside, $2) where id = $1', [documentId, form]);
}

/** Enters a file in the stack of a document, of whose pages alone the document is made from then on. @returns its id */
export async function enterReplacing(
  manager: EntityManager,
  actorId: string,
  documentId: string,
  { blobId, name }: { blobId: string; name: string },
): Promise<string> {
  const [file] = await rows<{ id: string }>(
    manager,
    `insert into source_file (stack_id, name, position, blob_id, document_id, actor_id, replaces)
       select d.stack_id, $3, coalesce((select max(position) + 1 from source_file where stack_id = d.stack_id), 0), $2, d.id, $4, true
       from document d where d.id = $1 returning id`,
    [documentId, blobId, name, actorId],
  );
  return file.id;
}

/** The documents of which something stands on disk. */
export function documentsOnDisk(manager: EntityManager): Promise<{ id: string }[]> {
  return rows<{ id: string }>(manager, 'select distinct document_id as id from shelf_file');
}

/** Writes what somebody calls a document and wrote about it. @param words of both, as they are found */
export async function writeRemark(
  manager: EntityManager,
  id: string,
  { tags, note, words }: { tags: readonly string[]; note: string; words: readonly string[] },
): Promise<void> {
  await manager.query(
    `update document set tags = $2, note = $3,
       remark_tokens = case when cardinality($4::text[]) = 0 then null else array_to_tsvector($4::text[]) end where id = $1`,
    [id, tags, note, words],
  );
}

/** The tags that documents have, in the order of the alphabet, and how many have each. */
export function tagsInUse(manager: EntityManager): Promise<{ tag: string; papers: number }[]> {
  return rows(
    manager,
    `select tag, count(*)::int as papers from document d, unnest(d.tags) tag where d.binned_at is null group by tag order by lower(tag), tag`,
  );
}
