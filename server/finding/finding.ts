import { EntityManager } from 'typeorm';
import { FindOrder, FindReply, FoundDocument, Hit } from '@crow/contract/finding';
import { Box } from '@crow/core/geometry';
import { Condition, parseQuery } from '@crow/core/finding/query';
import { findHits, isGroup, Term, wordTokens } from '@crow/core/finding/tokens';
import { restoreWords, StoredWord } from '@crow/core/reading/words';
import { rows } from '../platform/database';
import { summariseDocuments } from '../checking/queries';
import { factConditions } from './factConditions';
import { similarWords } from './similarWords';
import { proposedNames } from '../checking/proposedFiling';
import { FOLDER_PATHS } from '../platform/folderPaths';

/** So many documents are shown when nothing else is said. */
export const SHOWN_AT_FIRST = 20;
const MOST_LINES = 4;
/** So many pages of each document are looked at for hits; there may be more. */
const MOST_PAGES_COUNTED = 5;
/** What stands on more pages than this is not ranked by how many of a document's it stands on. */
const MOST_RANKED = 4000;

interface SearchedPage {
  document_id: string;
  page_id: string;
  number: number;
  /** Its text in lines. */
  lines: string;
}

/** In which order documents are wanted, and how many; what stands on more pages than `ranked` is not ranked by its pages. */
interface Wish {
  by: FindOrder;
  most: number;
  ranked: number;
}

/** What a typed query looks for: phrases of terms, each with its other spellings, and the query for PostgreSQL. */
interface Search {
  phrases: Term[][];
  /** Null when only conditions were typed. */
  tsquery: string | null;
  without: string[];
  conditions: Condition[];
  alsoSearched: string[];
}

async function understand(manager: EntityManager, typed: string): Promise<Search | undefined> {
  const { phrases, open, without, conditions } = parseQuery(typed);
  if (phrases.length === 0 && conditions.length === 0) return undefined;
  const similar = await similarWords(manager, [...new Set(phrases.flat())]);
  const terms = phrases.map((phrase, place) =>
    phrase.map((token, step): Term => {
      const last = open && place === phrases.length - 1 && step === phrase.length - 1;
      return { forms: [token, ...(similar.get(token) ?? [])], prefix: last || phrase.length === 1 };
    }),
  );
  const tsquery = asQuery(terms);
  return {
    phrases: terms,
    tsquery: tsquery || null,
    without,
    conditions,
    alsoSearched: [...new Set([...similar.values()].flat())],
  };
}

/** Terms as PostgreSQL takes them; the groups of a number may also stand together, as one. */
function asQuery(phrases: Term[][]): string {
  const parts: string[] = [];
  const one = ({ forms, prefix }: Term) =>
    `(${forms.map((form, index) => `'${form}'${prefix && index === 0 ? ':*' : ''}`).join(' | ')})`;
  for (let at = 0; at < phrases.length;) {
    const rest = phrases.slice(at);
    const end = rest.findIndex((phrase) => phrase.length !== 1 || !isGroup(phrase[0].forms[0]));
    const groups = (end < 0 ? rest : rest.slice(0, end)).flat();
    if (groups.length < 2) {
      parts.push(...phrases[at++].map(one));
      continue;
    }
    parts.push(`((${groups.map(one).join(' & ')}) | '${groups.map(({ forms }) => forms[0]).join('')}':*)`);
    at += groups.length;
  }
  return parts.join(' & ');
}

/**
 * The documents, filed or waiting, with a page that holds all words of the query, and of which its conditions hold; those with
 * most hits first, without words the latest first, unless another order is asked for.
 */
export async function find(
  manager: EntityManager,
  typed: string,
  { by = 'best', most = SHOWN_AT_FIRST, ranked = MOST_RANKED }: Partial<Wish> = {},
): Promise<FindReply> {
  const search = await understand(manager, typed);
  if (!search) return { found: [], more: false, alsoSearched: [], inSort: [] };
  const wish = { by, most, ranked };
  if (search.tsquery === null) return { ...(await meeting(manager, search, wish)), inSort: [] };
  const [{ found, ...rest }, inSort] = await Promise.all([
    holding(manager, search, search.tsquery, wish),
    search.conditions.length > 0 ? [] : stacksHolding(manager, search.tsquery),
  ]);
  return { ...rest, found: await namedAsProposed(manager, found), inSort };
}

type Found = Omit<FindReply, 'inSort'>;

/** Documents that wait in Check have no name yet: they are called what they would be filed as. */
async function namedAsProposed(manager: EntityManager, found: FoundDocument[]): Promise<FoundDocument[]> {
  const unnamed = found.flatMap(({ document: { id, name } }) => (name ? [] : [id]));
  if (unnamed.length === 0) return found;
  const names = new Map((await proposedNames(manager, unnamed)).map(({ id, proposed }) => [id, proposed]));
  return found.map((each) => ({
    ...each,
    document: { ...each.document, name: each.document.name || (names.get(each.document.id) ?? '') },
  }));
}

const MOST_STACKS = 20;

/** Stacks that are still to be sorted, with how many of their pages hold all that is looked for. */
function stacksHolding(manager: EntityManager, tsquery: string): Promise<FindReply['inSort']> {
  return rows(
    manager,
    `select s.id, s.name, count(*)::int as pages from page_tokens t join page p on p.id = t.page_id join stack s on s.id = p.stack_id
     where t.tokens @@ $1::tsquery and s.state = 'open' and s.binned_at is null and not p.dropped
     group by s.id order by pages desc, s.created_at desc limit ${MOST_STACKS}`,
    [tsquery],
  );
}

/** What a document must be like besides the words on its pages. */
function conditionsOf({ conditions, without }: Search, values: unknown[], { one }: { one: boolean }): string {
  const excluded = without.map((word) => `'${word}'`).join(' | ');
  return [
    'd.binned_at is null',
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
  newest: `(select value from fact where document_id = d.id and name = 'date') desc nulls last`,
  oldest: `(select value from fact where document_id = d.id and name = 'date') asc nulls last`,
  most: `(select value::numeric from fact where document_id = d.id and name = 'total') desc nulls last`,
};
const LATEST_FIRST = 'd.filed_at desc nulls first, d.id';

async function meeting(manager: EntityManager, search: Search, { by, most }: Wish): Promise<Found> {
  const values: unknown[] = [];
  const where = conditionsOf(search, values, { one: false });
  const order = by === 'best' ? LATEST_FIRST : `${ORDERS[by]}, ${LATEST_FIRST}`;
  const matching = await rows<{ id: string }>(
    manager,
    `${FOLDER_PATHS} select d.id from document d left join paths on paths.id = d.folder_id
     where ${where} order by ${order} limit ${most + 1}`,
    values,
  );
  const shown = matching.slice(0, most).map(({ id }) => id);
  const documents = await summariseDocuments(manager, 'd.id = any($1)', [shown], order);
  const found = documents.map((document) => ({ document, hits: 0, morePages: 0, lines: [] }));
  return { found, more: matching.length > most, alsoSearched: [] };
}

async function holding(manager: EntityManager, search: Search, tsquery: string, wish: Wish): Promise<Found> {
  const { by, most } = wish;
  const matching = await bestDocuments(manager, search, tsquery, wish);
  const shown = matching.slice(0, most);
  const pages = await rows<SearchedPage & { pages: number }>(
    manager,
    `select * from (
       select dp.document_id, dp.page_id, dp.number, r.lines,
         row_number() over (partition by dp.document_id order by dp.number) as place,
         (count(*) over (partition by dp.document_id))::int as pages
       from document_page dp join page_tokens t on t.page_id = dp.page_id join page p on p.id = dp.page_id
       join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version
       where dp.document_id = any($2) and t.tokens @@ $1::tsquery
     ) matching where place <= ${MOST_PAGES_COUNTED} order by document_id, number`,
    [tsquery, shown],
  );
  const byDocument = new Map<string, (SearchedPage & { pages: number })[]>();
  for (const page of pages) {
    const others = byDocument.get(page.document_id);
    if (others) others.push(page);
    else byDocument.set(page.document_id, [page]);
  }
  const summaries = await summariseDocuments(manager, 'd.id = any($1)', [[...byDocument.keys()]]);
  const place = new Map(shown.map((id, at) => [id, at]));
  const found = summaries
    .map((document) => {
      const own = byDocument.get(document.id)!;
      return { document, morePages: own[0].pages - own.length, ...linesWithHits(own, search.phrases) };
    })
    .filter(({ hits }) => hits > 0)
    .sort((a, b) => (by === 'best' ? b.hits - a.hits : 0) || place.get(a.document.id)! - place.get(b.document.id)!);
  const used = search.alsoSearched.filter((form) => found.some(({ forms }) => forms.has(form)));
  return {
    found: found.map(({ forms: _forms, ...rest }) => rest),
    more: matching.length > most,
    alsoSearched: used,
  };
}

/**
 * The documents that are shown first, at most one more than are shown. Those with most pages that match, or in the order asked for;
 * words that stand on a great many pages say little, so that then the latest come first, which is found without looking at all.
 */
async function bestDocuments(
  manager: EntityManager,
  search: Search,
  tsquery: string,
  { by, most, ranked }: Wish,
): Promise<string[]> {
  const values: unknown[] = [tsquery];
  const where = conditionsOf(search, values, { one: true });
  const order = by === 'best' ? '' : `${ORDERS[by]}, `;
  const found = await rows<{ id: string | null; many: boolean }>(
    manager,
    `${FOLDER_PATHS}, pages as (
      select page_id from page_tokens where tokens @@ $1::tsquery limit ${ranked + 1}
    ), few as (
      -- What stands on a great many pages is not gone through here at all.
      select page_id from pages where (select count(*) from pages) <= ${ranked}
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
    where ${where} and exists (
      select 1 from document_page dp join page_tokens t on t.page_id = dp.page_id
      where dp.document_id = d.id and t.tokens @@ $1::tsquery
    ) order by ${order}${LATEST_FIRST} limit ${most + 1}`,
    values,
  );
  return walked.map(({ id }) => id);
}

function linesWithHits(
  pages: SearchedPage[],
  phrases: Term[][],
): Pick<FoundDocument, 'hits' | 'lines'> & { forms: Set<string> } {
  let hits = 0;
  const lines: FoundDocument['lines'] = [];
  const forms = new Set<string>();
  for (const { page_id: pageId, number: pageNumber, lines: text } of pages) {
    const words = text
      .split('\n')
      .flatMap((line, number) => line.split(' ').map((each) => ({ text: each, line: number })));
    const found = findHits(words, phrases);
    hits += found.length;
    const hitWords = new Set(found.flat().map((index) => words[index]));
    const hitLines = new Set([...hitWords].map(({ line }) => line));
    for (const { token } of wordTokens([...hitWords])) forms.add(token);
    for (const number of [...hitLines].slice(0, MOST_LINES - lines.length)) {
      const line = words.filter((word) => word.line === number);
      lines.push({ pageId, pageNumber, pieces: pieces(line, hitWords) });
    }
  }
  return { hits, lines, forms };
}

/** A line as runs of text, those that match apart from the others. */
function pieces<Of extends { text: string }>(line: Of[], hitWords: Set<Of>): { text: string; hit: boolean }[] {
  const runs: { text: string; hit: boolean }[] = [];
  for (const word of line) {
    const hit = hitWords.has(word);
    const last = runs[runs.length - 1];
    if (last && last.hit === hit) last.text += ` ${word.text}`;
    else runs.push({ text: word.text, hit });
  }
  return runs;
}

/** Every place in a document where a query is found, in reading order. */
export async function hitsInDocument(manager: EntityManager, documentId: string, typed: string): Promise<Hit[]> {
  const search = await understand(manager, typed);
  if (!search || search.phrases.length === 0) return [];
  const pages = await rows<{ page_id: string; number: number; words: StoredWord[]; width: number; height: number }>(
    manager,
    `select dp.page_id, dp.number, r.words, r.width, r.height
     from document_page dp join page p on p.id = dp.page_id join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version
     where dp.document_id = $1 order by dp.number`,
    [documentId],
  );
  return pages.flatMap(({ page_id: pageId, number: pageNumber, words: stored, width, height }) => {
    const words = restoreWords(stored);
    return findHits(words, search.phrases).map((indexes) => ({
      pageId,
      pageNumber,
      boxes: indexes.map((index): Box => {
        const [x, y, w, h] = words[index].box;
        return [x / width, y / height, w / width, h / height];
      }),
    }));
  });
}
