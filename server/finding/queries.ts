import { EntityManager } from 'typeorm';
import { FindOrder, FindReply } from '@crow/contract/finding';
import { AskedPaper } from '@crow/core/finding/asking/paper';
import { Condition } from '@crow/core/finding/query';
import { Box } from '@crow/core/geometry';
import { FOLDER_PATHS } from '../platform/queries';
import { rows } from '../platform/database';
import { foldersOf, Sight } from '../platform/sight';

const MOST_FORMS = 8;

/** Words that stand on some page and are spelt like those sought. */
export function nearWords(manager: EntityManager, worth: string[]): Promise<{ sought: string; word: string }[]> {
  return rows<{ sought: string; word: string }>(
    manager,
    `select sought, near.word
     from unnest($1::text[]) as sought
     cross join lateral (
       select v.word from vocabulary v
       where v.word % sought and v.word <> sought
         and abs(length(v.word) - length(sought)) <= 2
       order by similarity(v.word, sought) desc limit ${MOST_FORMS}
     ) near`,
    [worth],
  );
}

/** What a document must be like besides the words on its pages: of which conditions hold, and without which words. */
interface Wanted {
  conditions: Condition[];
  without: string[];
  /** The sight of whoever asks. */
  sight: Sight;
}

function conditionsOf({ conditions, without, sight }: Wanted, values: unknown[], { one }: { one: boolean }): string {
  const excluded = without.map((word) => `'${word}'`).join(' | ');
  return [
    'd.binned_at is null',
    ...(sight.of === 'everything' ? [] : [`d.state <> 'check'`]),
    ...(foldersOf(sight) === null ? [] : [`d.folder_id = any($${values.push(foldersOf(sight))}::uuid[])`]),
    ...factConditions(conditions, values, { one }),
    ...(excluded
      ? [
          `not exists (select 1 from document_page x join page_tokens y on y.page_id = x.page_id
             where x.document_id = d.id and y.tokens @@ $${values.push(excluded)}::tsquery)`,
        ]
      : []),
  ].join(' and ');
}

/** What documents are sorted by, for the alias d; what has no such fact comes last. */
const ORDERS: Record<Exclude<FindOrder, 'best'>, string> = {
  newest: `(select day from fact where document_id = d.id and name = 'date') desc nulls last`,
  oldest: `(select day from fact where document_id = d.id and name = 'date') asc nulls last`,
  most: `(select amount from fact where document_id = d.id and name = 'total') desc nulls last`,
};
const LATEST_FIRST = 'd.filed_at desc nulls first, d.id';

/** In which order documents are wanted, and how many; what stands on more pages than `ranked` is not ranked by its pages. */
export interface Wish {
  by: FindOrder;
  most: number;
  ranked: number;
}

/** The documents of which conditions hold, in an order, at most one more than are shown. */
export async function documentsMeeting(
  manager: EntityManager,
  wanted: Wanted,
  { by, most }: Omit<Wish, 'ranked'>,
): Promise<string[]> {
  const values: unknown[] = [];
  const where = conditionsOf(wanted, values, { one: false });
  const order = by === 'best' ? LATEST_FIRST : `${ORDERS[by]}, ${LATEST_FIRST}`;
  const found = await rows<{ id: string }>(
    manager,
    `${FOLDER_PATHS} select d.id from document d left join paths on paths.id = d.folder_id
     where ${where} order by ${order} limit ${most + 1}`,
    values,
  );
  return found.map(({ id }) => id);
}

/**
 * The documents that are shown first, at most one more than are shown. Those with most pages that match, or in the order asked for;
 * words that stand on a great many pages say little, so that then the latest come first, which is found without looking at all.
 */
export async function bestDocuments(
  manager: EntityManager,
  tsquery: string,
  wanted: Wanted,
  { by, most, ranked }: Wish,
): Promise<string[]> {
  const values: unknown[] = [tsquery];
  const where = conditionsOf(wanted, values, { one: true });
  const order = by === 'best' ? '' : `${ORDERS[by]}, `;
  const found = await rows<{ id: string | null; many: boolean }>(
    manager,
    `${FOLDER_PATHS}, pages as (
      select page_id from page_tokens where tokens @@ $1::tsquery limit ${ranked + 1}
    ), few as (
      -- What stands on a great many pages is not gone through here at all.
      select page_id from pages where (select count(*) from pages) <= ${ranked}
      -- What people wrote about a paper stands on its first page, as it were.
      union select dp.page_id from document remarked join document_page dp on dp.document_id = remarked.id and dp.number = 1
        where remarked.remark_tokens @@ $1::tsquery
    ), matching as (
      -- Looked up one by one: the planner can't know how few they are, and would go through all documents instead.
      select own.document_id as id, count(*) as pages from few
      cross join lateral (select document_id from document_page where page_id = few.page_id offset 0) own group by own.document_id
    ), best as (
      select d.id, row_number() over (order by ${order || 'm.pages desc, '}${LATEST_FIRST}) as place
      from matching m cross join lateral (select * from document where id = m.id offset 0) d left join paths on paths.id = d.folder_id
      where ${where} order by place limit ${most + 1}
    )
    select best.id, counted.many from (select count(*) > ${ranked} as many from pages) counted
    left join best on not counted.many order by best.place`,
    values,
  );
  if (!found[0].many) return found.flatMap(({ id }) => id ?? []);
  const walked = await rows<{ id: string }>(
    manager,
    `${FOLDER_PATHS}
    select d.id from document d left join paths on paths.id = d.folder_id
    where ${where} and (d.remark_tokens @@ $1::tsquery or exists (
      select 1 from document_page dp join page_tokens t on t.page_id = dp.page_id
      where dp.document_id = d.id and t.tokens @@ $1::tsquery
    )) order by ${order}${LATEST_FIRST} limit ${most + 1}`,
    values,
  );
  return walked.map(({ id }) => id);
}

const MOST_STACKS = 20;

/** Stacks that are still to be sorted, with how many of their pages hold all that is looked for. */
export function stacksHolding(manager: EntityManager, tsquery: string): Promise<FindReply['inSort']> {
  return rows(
    manager,
    `select s.id, s.name, count(*)::int as pages from page_tokens t join page p on p.id = t.page_id join stack s on s.id = p.stack_id
     where t.tokens @@ $1::tsquery and s.state = 'open' and s.binned_at is null and not p.dropped
     group by s.id order by pages desc, s.created_at desc limit ${MOST_STACKS}`,
    [tsquery],
  );
}

export interface SearchedPage {
  documentId: string;
  pageId: string;
  number: number;
  /** Its text in lines. */
  lines: string;
  /** How many pages of its document match. */
  pages: number;
}

/** What people wrote about documents that hold what is looked for, with the first page of each. */
export function matchingRemarks(
  manager: EntityManager,
  tsquery: string,
  documentIds: string[],
): Promise<{ documentId: string; pageId: string; tags: string[]; note: string }[]> {
  return rows(
    manager,
    `select d.id as "documentId", dp.page_id as "pageId", d.tags, d.note
     from document d join document_page dp on dp.document_id = d.id and dp.number = 1
     where d.id = any($2) and d.remark_tokens @@ $1::tsquery`,
    [tsquery, documentIds],
  );
}

/** So many pages of each document are looked at for hits; there may be more. */
const MOST_PAGES_COUNTED = 5;

/** The pages of documents that match, the first few of each, in their order. */
export function matchingPages(manager: EntityManager, tsquery: string, documentIds: string[]): Promise<SearchedPage[]> {
  return rows<SearchedPage>(
    manager,
    `select * from (
       select dp.document_id as "documentId", dp.page_id as "pageId", dp.number, r.lines,
         row_number() over (partition by dp.document_id order by dp.number) as place,
         (count(*) over (partition by dp.document_id))::int as pages
       from document_page dp join page_tokens t on t.page_id = dp.page_id join page p on p.id = dp.page_id
       join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version
       where dp.document_id = any($2) and t.tokens @@ $1::tsquery
     ) matching where place <= ${MOST_PAGES_COUNTED} order by "documentId", number`,
    [tsquery, documentIds],
  );
}

/** Small letters without accents, as `fold` makes them. */
const folded = (value: string) =>
  `lower(regexp_replace(replace(normalize(${value}, nfd), 'ß', 'ss'), '[\\u0300-\\u036f]', '', 'g'))`;

/**
 * What conditions of a query come to for a document `d` and the paths of folders in `paths`.
 * @param values takes what the conditions compare with; they refer to it by number
 * @param one whether they are asked of a few documents, one by one, rather than of all at once
 */
function factConditions(
  conditions: readonly Condition[],
  values: unknown[],
  { one = false }: { one?: boolean } = {},
): string[] {
  const parameter = (value: unknown) => `$${values.push(value)}`;
  const fact = (name: string, holds: string) =>
    `exists (select 1 from fact f where f.document_id = d.id and f.name = '${name}' and ${holds}${one ? ' offset 0' : ''})`;
  return conditions.map((condition) => {
    switch (condition.field) {
      case 'total':
      case 'net':
      case 'tax':
        return fact(condition.field, `f.amount ${condition.comparison} ${parameter(condition.amount)}::numeric`);
      case 'date':
      case 'dueDate':
        return fact(condition.field, inRange(condition, parameter));
      case 'tag':
        return `exists (select 1 from unnest(d.tags) tag where ${folded('tag')} like ${parameter(containing(condition.text))})`;
      case 'folder':
        return `${folded('paths.path')} like ${parameter(containing(condition.text))}`;
      default:
        return fact(condition.field, `${folded('f.value')} like ${parameter(containing(condition.text))}`);
    }
  });
}

/** Days compare with the beginning or the end of what was typed: after 2025 is from 2026 on. */
function inRange(
  { comparison, from, to }: Extract<Condition, { from: string }>,
  parameter: (value: unknown) => string,
): string {
  if (comparison === '=') return `f.day between ${parameter(from)}::date and ${parameter(to)}::date`;
  return `f.day ${comparison} ${parameter(comparison === '<' || comparison === '>=' ? from : to)}::date`;
}

/** A pattern for “contains”, in which nothing typed has a meaning of its own. */
function containing(text: string): string {
  return `%${text.replace(/[\\%_]/g, '\\$&')}%`;
}

interface AskedRow extends Omit<AskedPaper, 'total' | 'net' | 'tax' | 'lines'> {
  folderId: string | null;
  lines: AskedPaper['lines'] | null;
  currency: string | null;
  total: string | null;
  net: string | null;
  tax: string | null;
}
/** What is asked of every paper besides its money. */
const ASKED_FACTS = [
  'kind',
  'vendor',
  'subject',
  'date',
  'dueDate',
  'ends',
  'number',
  'customer',
  'reference',
  'order',
  'policy',
  'iban',
  'period',
  'taxRate',
] as const;
const ASKED_MONEY = ['total', 'net', 'tax'] as const;

/** All filed papers that are seen, with what a question may ask of them. */
export async function papersToAsk(
  manager: EntityManager,
  sight: Sight,
): Promise<(AskedPaper & { folderId: string | null })[]> {
  const value = (name: string) => `max(value) filter (where name = '${name}') as "${name}"`;
  const units = (name: string) => `max(units) filter (where name = '${name}') as "${name}"`;
  const found = await rows<AskedRow>(
    manager,
    `${FOLDER_PATHS}, facts as (
       select document_id, ${ASKED_FACTS.map(value).join(', ')}, ${ASKED_MONEY.map(units).join(', ')}, max(currency) as currency
       from fact group by document_id
     ), counted as (select document_id, count(*)::int as pages from document_page group by document_id)
     select d.id, d.name, d.tags, d.note, d.folder_id as "folderId", paths.path as folder, d.lines, counted.pages, facts.*
     from document d join counted on counted.document_id = d.id
     left join paths on paths.id = d.folder_id left join facts on facts.document_id = d.id
     where d.state <> 'check' and d.binned_at is null and ($1::uuid[] is null or d.folder_id = any($1))`,
    [foldersOf(sight)],
  );
  return found.map((row) => {
    const money = (name: (typeof ASKED_MONEY)[number]) =>
      row[name] === null ? null : { units: Number(row[name]), currency: row.currency };
    return {
      ...row,
      total: money('total'),
      net: money('net'),
      tax: money('tax'),
      lines: row.lines ?? [],
    };
  });
}

/** Where facts of one name stand on papers. */
export function placesOfFact(
  manager: EntityManager,
  documentIds: readonly string[],
  names: readonly string[],
): Promise<{ documentId: string; name: string; pageId: string | null; box: Box | null }[]> {
  return rows(
    manager,
    `select document_id as "documentId", name, page_id as "pageId", box from fact where document_id = any($1) and name = any($2)`,
    [documentIds, names],
  );
}
