import { EntityManager } from 'typeorm';
import { DocumentSummary, Duplicate, PdfSize } from '@crow/contract/documents';
import { Fact, FactName } from '@crow/contract/facts';
import { toldProblem } from '@crow/contract/problems';
import { Beside } from '@crow/core/filing/pattern';
import { KnownSign } from '@crow/core/reading/facts/findFacts';
import { Check, Sign } from '@crow/core/reading/facts/signs';
import { FiledBefore } from '@crow/core/filing/suggestFolder';
import { Box } from '@crow/core/geometry';
import { Reason, sayReason } from '@crow/core/reading/facts/reason';
import { FactLine, TaxAtRate } from '@crow/core/reading/facts/fact';
import { KeptValue } from '@crow/core/reading/facts/typedFact';
import { InvoiceData } from '@crow/core/reading/facts/invoiceData';
import { PageText, restoreWords, StoredWord } from '@crow/core/reading/words';
import { Document } from '../platform/entities';
import { FOLDER_PATHS } from '../platform/queries';
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
async function summarise(
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

/** The documents of a folder, those filed last first. */
export function documentsInFolder(manager: EntityManager, folderId: string): Promise<DocumentSummary[]> {
  const where = `d.folder_id = $1 and d.state <> 'check' and d.binned_at is null`;
  return summarise(manager, where, [folderId], 'd.filed_at desc, d.id');
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
    `select coalesce(bool_and(f.blob_id = d.pdf_blob_id and p.version = '' and p.turn = 0 and dp.number = p.source_number + 1), false)
       and count(*) = (select count(*) from page all_of where all_of.source_file_id = (array_agg(f.id))[1]) as own
     from document d join document_page dp on dp.document_id = d.id join page p on p.id = dp.page_id
     join source_file f on f.id = p.source_file_id where d.id = $1`,
    [documentId],
  );
  return own;
}

interface Besides {
  stackId: string | null;
  stackName: string | null;
  archival: boolean | null;
  shelfPath: string | null;
  wantedFolder: string | null;
  checks: Check[];
  lines: FactLine[] | null;
  taxes: TaxAtRate[] | null;
  size: PdfSize;
  beside: Beside[];
}

/** What the open document shows beyond its summary. */
export async function documentBesides(manager: EntityManager, id: string): Promise<Besides> {
  const [found] = await rows<Besides>(
    manager,
    `select d.stack_id as "stackId", s.name as "stackName", d.archival, f.path as "shelfPath", d.wanted_folder as "wantedFolder",
       d.pdf_size as size, d.beside, d.checks, d.lines, d.taxes
     from document d left join stack s on s.id = d.stack_id left join shelf_file f on f.document_id = d.id and f.ending = '.pdf' where d.id = $1`,
    [id],
  );
  return found;
}

/** What a document says, with who confirmed it. */
export async function factsOf(manager: EntityManager, id: string): Promise<Fact[]> {
  const found = await rows<Omit<Fact, 'why'> & { why: Reason | null }>(
    manager,
    `select f.name, f.value, f.page_id as "pageId", f.box, f.confidence, f.confirmed_by is not null as confirmed, a.name as by, f.why, f.repaired
     from fact f left join actor a on a.id = f.confirmed_by where f.document_id = $1`,
    [id],
  );
  return found.map((fact) => ({ ...fact, why: fact.why && sayReason(fact.why) }));
}

/** Puts a document behind all that wait. */
export async function takeLastTurn(manager: EntityManager, id: string): Promise<void> {
  await manager.query(`update document set turn_in_line = nextval('document_turn') where id = $1`, [id]);
}

/** What the facts of a document say by their types; those that say so already stay as they are. */
export async function keepTyped(
  manager: EntityManager,
  documentId: string,
  facts: (KeptValue & { name: FactName })[],
): Promise<void> {
  await manager.query(
    `update fact set value = t.value, day = t.day, units = t.units, digits = t.digits, currency = t.currency, rate = t.rate
     from unnest($2::text[], $3::text[], $4::date[], $5::bigint[], $6::smallint[], $7::text[], $8::numeric[])
       as t (name, value, day, units, digits, currency, rate)
     where fact.document_id = $1 and fact.name = t.name
       and (fact.value, fact.day, fact.units, fact.digits, fact.currency, fact.rate)
         is distinct from (t.value, t.day, t.units, t.digits, t.currency, t.rate)`,
    [
      documentId,
      facts.map(({ name }) => name),
      facts.map(({ value }) => value),
      facts.map(({ day }) => day),
      facts.map(({ units }) => units),
      facts.map(({ digits }) => digits),
      facts.map(({ currency }) => currency),
      facts.map(({ rate }) => rate),
    ],
  );
}

/** What else was read of a document; taxes that a person set stay. */
export async function keepRead(
  manager: EntityManager,
  documentId: string,
  { checks, lines, taxes }: { checks: Check[]; lines: FactLine[] | null; taxes: TaxAtRate[] | null },
): Promise<void> {
  await manager.query(
    'update document set checks = $2, lines = $3, taxes = case when taxes_by is null then $4::jsonb else taxes end where id = $1',
    [documentId, JSON.stringify(checks), lines && JSON.stringify(lines), taxes && JSON.stringify(taxes)],
  );
}

export interface ReadPage extends Pick<PageText, 'width' | 'height' | 'words'> {
  pageId: string;
  /** In its document, from 1. */
  number: number;
  handwriting: Box[];
}

/** What has been read of a document's pages so far, in their order. */
export async function textsOf(
  manager: EntityManager,
  documentId: string,
  { most = 100_000 } = {},
): Promise<ReadPage[]> {
  const pages = await rows<Omit<ReadPage, 'words'> & { words: StoredWord[] }>(
    manager,
    `select p.id as "pageId", dp.number, r.width, r.height, r.words, r.handwriting
     from document_page dp join page p on p.id = dp.page_id join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version
     where dp.document_id = $1 order by dp.number limit $2`,
    [documentId, most],
  );
  return pages.map((page) => ({ ...page, words: restoreWords(page.words) }));
}

/** The electronic invoice that all pages of a document came with, if they did. */
export async function invoiceOf(manager: EntityManager, documentId: string): Promise<InvoiceData | null> {
  const files = await rows<{ invoice: InvoiceData | null }>(
    manager,
    `select f.invoice from source_file f where f.id in (
       select p.source_file_id from document_page dp join page p on p.id = dp.page_id where dp.document_id = $1
     )`,
    [documentId],
  );
  return files.length === 1 ? files[0].invoice : null;
}

/** Who has these signs on papers other than this one. */
export function sendersWithSigns(manager: EntityManager, documentId: string, signs: Sign[]): Promise<KnownSign[]> {
  return rows(
    manager,
    `select distinct s.kind, s.value, s.vendor from sender_sign s
     join unnest($2::text[], $3::text[]) as sought (kind, value) using (kind, value) where s.document_id <> $1`,
    [documentId, signs.map(({ kind }) => kind), signs.map(({ value }) => value)],
  );
}

/** Remembers the signs on a document as its sender's. */
export async function rememberSigns(
  manager: EntityManager,
  documentId: string,
  vendor: string,
  signs: Sign[],
): Promise<void> {
  await manager.query(
    `insert into sender_sign (kind, value, vendor, document_id)
     select kind, value, $1, $2 from unnest($3::text[], $4::text[]) as sign (kind, value) on conflict do nothing`,
    [vendor, documentId, signs.map(({ kind }) => kind), signs.map(({ value }) => value)],
  );
}

const MOST_VENDORS = 2000;

/** The senders that a person has confirmed on some paper, the latest first. */
export async function confirmedVendors(manager: EntityManager): Promise<string[]> {
  const found = await rows<{ value: string }>(
    manager,
    `select value from fact where name = 'vendor' and confirmed_by is not null
     group by value order by max(at) desc limit ${MOST_VENDORS}`,
  );
  return found.map(({ value }) => value);
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

/** All folders with their paths. */
export function folderPaths(manager: EntityManager): Promise<{ id: string; path: string }[]> {
  return rows<{ id: string; path: string }>(manager, `${FOLDER_PATHS} select id, path from paths`);
}

/** None for a document without text. */
const FIRST_WORDS = `coalesce((select tsvector_to_array(t.tokens) from document_page dp join page_tokens t on t.page_id = dp.page_id
  where dp.document_id = d.id order by dp.number limit 1), '{}')`;

/** The words on a document's first page. */
export async function firstWordsOf(manager: EntityManager, documentId: string): Promise<string[]> {
  const [found] = await rows<{ words: string[] }>(
    manager,
    `select ${FIRST_WORDS} as words from document d where d.id = $1`,
    [documentId],
  );
  return found?.words ?? [];
}

/** So many of the papers filed last are learned from, and so many more from the same sender. */
const LATEST = 300;
const LATEST_OF_SENDER = 40;

/** Papers filed before, the newest first. */
export function filedBefore(manager: EntityManager, vendor: string): Promise<FiledBefore[]> {
  const filed = `d.state <> 'check' and d.binned_at is null and d.folder_id is not null`;
  return rows(
    manager,
    `with learned as (
       (select d.id from document d where ${filed} order by d.filed_at desc limit ${LATEST})
       union
       (select d.id from document d join fact v on v.document_id = d.id and v.name = 'vendor' and lower(v.value) = lower($1)
        where ${filed} order by d.filed_at desc limit ${LATEST_OF_SENDER})
     )
     select d.folder_id as "folderId", v.value as vendor, k.value as kind, ${FIRST_WORDS} as words
     from learned join document d using (id)
     left join fact v on v.document_id = d.id and v.name = 'vendor'
     left join fact k on k.document_id = d.id and k.name = 'kind'
     order by d.filed_at desc`,
    [vendor],
  );
}

interface ExamplePaper {
  id: string;
  name: string;
  createdAt: Date;
  pages: number;
  folder: string | null;
  facts: Record<string, string> | null;
}

const MOST_EXAMPLES = 8;

/** Papers on which a way of filing can be seen: those that came last, those that wait first. */
export function examplesOfPapers(manager: EntityManager): Promise<ExamplePaper[]> {
  return rows<ExamplePaper>(
    manager,
    `select d.id, d.name, d.created_at as "createdAt", f.name as folder,
       (select count(*)::int from document_page where document_id = d.id) as pages,
       (select jsonb_object_agg(name, value) from fact where document_id = d.id) as facts
     from document d left join folder f on f.id = d.folder_id where d.binned_at is null
     order by d.state <> 'check', d.created_at desc limit ${MOST_EXAMPLES}`,
  );
}

/** What documents say. */
export function factsByDocument(
  manager: EntityManager,
  ids: string[],
): Promise<{ id: string; facts: Record<string, string> }[]> {
  return rows<{ id: string; facts: Record<string, string> }>(
    manager,
    'select document_id as id, jsonb_object_agg(name, value) as facts from fact where document_id = any($1) group by document_id',
    [ids],
  );
}

/** A page with fewer words is known by what it looks like. */
const FEW_WORDS = 12;
/** So many papers, those that came last, are compared with: a few milliseconds of work. */
const MOST_COMPARED = 150;

type Sparse = Omit<Duplicate, 'why'> & { look: Buffer };

const SPARSE = `select d.id, d.name, d.state, d.folder_id as "folderId", p.look
  from document d join document_page dp on dp.document_id = d.id join page p on p.id = dp.page_id
  left join page_tokens t on t.page_id = p.id
  where d.binned_at is null and p.look is not null and coalesce(length(t.tokens), 0) < ${FEW_WORDS}
    and not exists (select 1 from document_page other where other.document_id = d.id and other.page_id <> dp.page_id)`;

/** What a document of a single page with few words looks like; nothing for others. */
export async function lookOfSparse(manager: EntityManager, documentId: string): Promise<Buffer | undefined> {
  const [own] = await rows<Sparse>(manager, `${SPARSE} and d.id = $1`, [documentId]);
  return own?.look;
}

/** Other documents of a single page with few words, those that came last. */
export function otherSparse(manager: EntityManager, documentId: string): Promise<Sparse[]> {
  return rows<Sparse>(manager, `${SPARSE} and d.id <> $1 order by d.created_at desc limit ${MOST_COMPARED}`, [
    documentId,
  ]);
}

/** Those of the same sender with the same number, or date and total, or the same text. */
export function sameInWords(manager: EntityManager, documentId: string): Promise<Duplicate[]> {
  return rows(
    manager,
    `with paper as (
       select d.id, d.name, d.state, d.folder_id, d.binned_at,
         max(lower(f.value)) filter (where f.name = 'vendor') as vendor, max(f.value) filter (where f.name = 'number') as number,
         max(f.day) filter (where f.name = 'date') as date, max(f.amount) filter (where f.name = 'total') as total
       from document d join fact f on f.document_id = d.id
       where d.id in (
         select v.document_id from fact v where v.name = 'vendor' and lower(v.value) = (
           select lower(value) from fact where document_id = $1 and name = 'vendor'
         )
       ) group by d.id
     ), own as (select * from paper where id = $1), near as (
       select p.id, p.name, p.state, p.folder_id,
         p.number = own.number as same_number, p.date = own.date and p.total = own.total as same_sum,
         coalesce(p.number <> own.number, false) or coalesce(p.date <> own.date, false) as another,
         ${tokensOf('p.id')} as tokens, ${tokensOf('own.id')} as own_tokens
       from paper p join own on p.vendor = own.vendor and p.id <> own.id
       where p.binned_at is null and (p.number = own.number or p.date = own.date or p.total = own.total)
       limit 50
     ), compared as (
       select *, (select count(*) from (select unnest(tokens) intersect select unnest(own_tokens)) both_have)::real
         / nullif((select count(*) from (select unnest(tokens) union select unnest(own_tokens)) either_has), 0) as alike
       from near
     )
     select id, name, state, folder_id as "folderId", case
         when same_number then 'the same sender and number'
         when same_sum then 'the same sender, date and total'
         else 'the same words'
       end as why
     from compared where same_number or same_sum or (alike >= 0.92 and not another)`,
    [documentId],
  );
}

const tokensOf = (document: string) => `(select tsvector_to_array(t.tokens) from document_page dp
  join page_tokens t on t.page_id = dp.page_id where dp.document_id = ${document} order by dp.number limit 1)`;
