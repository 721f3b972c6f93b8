import { EntityManager } from 'typeorm';
import { Duplicate } from '@crow/contract/documents';
import { FiledBefore } from '@crow/core/filing/suggestFolder';
import { FOLDER_PATHS } from '../platform/queries';
import { rows } from '../platform/database';

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

/** What documents say, and the numbers of their entries in the books. */
export function factsByDocument(
  manager: EntityManager,
  ids: string[],
): Promise<{ id: string; facts: Record<string, string> }[]> {
  return rows<{ id: string; facts: Record<string, string> }>(
    manager,
    `select id, jsonb_object_agg(name, value) as facts from (
       select document_id as id, name, value from fact
       union all select k.document_id, 'entry', e.serial::text from entry_paper k join entry e on e.id = k.entry_id and e.taken_out_at is null
     ) said where id = any($1) group by id`,
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
