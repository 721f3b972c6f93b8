import { EntityManager } from 'typeorm';
import { FoundDocument, Hit } from '@crow/contract/shapes';
import { Box } from '@crow/core/geometry';
import { Condition, parseQuery } from '@crow/core/finding/query';
import { findHits, Term, wordTokens } from '@crow/core/finding/tokens';
import { linesOf, restoreWords, StoredWord, Word } from '@crow/core/reading/words';
import { rows } from '../store/database';
import { summariseDocuments } from '../store/documentRows';
import { factConditions } from '../store/factConditions';
import { similarWords } from '../store/similarWords';
import { FOLDER_PATHS } from './folders';

const MOST_DOCUMENTS = 50;
const MOST_LINES = 4;

interface SearchedPage {
  document_id: string;
  page_id: string;
  number: number;
  words: StoredWord[];
  width: number;
  height: number;
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
  const tsquery = terms
    .flat()
    .map(
      ({ forms, prefix }) =>
        `(${forms.map((form, index) => `'${form}'${prefix && index === 0 ? ':*' : ''}`).join(' | ')})`,
    )
    .join(' & ');
  return {
    phrases: terms,
    tsquery: tsquery || null,
    without,
    conditions,
    alsoSearched: [...new Set([...similar.values()].flat())],
  };
}

/**
 * The documents, filed or waiting, with a page that holds all words of the query, and of which its conditions hold; those with
 * most hits first, without words the latest first.
 */
export async function find(
  manager: EntityManager,
  typed: string,
): Promise<{ found: FoundDocument[]; more: boolean; alsoSearched: string[] }> {
  const search = await understand(manager, typed);
  if (!search) return { found: [], more: false, alsoSearched: [] };
  return search.tsquery === null ? meeting(manager, search) : holding(manager, search, search.tsquery);
}

/** What a document must be like besides the words on its pages. */
function conditionsOf({ conditions, without }: Search, values: unknown[]): string {
  const excluded = without.map((word) => `'${word}'`).join(' | ');
  return [
    'd.binned_at is null',
    ...factConditions(conditions, values),
    ...(excluded
      ? [
          `not exists (select 1 from document_page x join page_tokens y on y.page_id = x.page_id
             where x.document_id = d.id and y.tokens @@ $${values.push(excluded)}::tsquery)`,
        ]
      : []),
  ].join(' and ');
}

async function meeting(manager: EntityManager, search: Search): ReturnType<typeof find> {
  const values: unknown[] = [];
  const where = conditionsOf(search, values);
  const matching = await rows<{ id: string }>(
    manager,
    `${FOLDER_PATHS} select d.id from document d left join paths on paths.id = d.folder_id
     where ${where} order by d.filed_at desc nulls first, d.id limit ${MOST_DOCUMENTS + 1}`,
    values,
  );
  const shown = matching.slice(0, MOST_DOCUMENTS).map(({ id }) => id);
  const order = 'd.filed_at desc nulls first, d.id';
  const documents = await summariseDocuments(manager, 'd.id = any($1)', [shown], order);
  const found = documents.map((document) => ({ document, hits: 0, lines: [] }));
  return { found, more: matching.length > MOST_DOCUMENTS, alsoSearched: [] };
}

async function holding(manager: EntityManager, search: Search, tsquery: string): ReturnType<typeof find> {
  const values: unknown[] = [tsquery];
  const where = conditionsOf(search, values);
  const pages = await rows<SearchedPage>(
    manager,
    `${FOLDER_PATHS}, matching as (
       select dp.document_id, dp.page_id, dp.number, p.turn, p.version, d.filed_at
       from page_tokens t join document_page dp on dp.page_id = t.page_id join document d on d.id = dp.document_id
       join page p on p.id = t.page_id left join paths on paths.id = d.folder_id
       where t.tokens @@ $1::tsquery and ${where}
     ), best as (
       select document_id from matching group by document_id order by count(*) desc, max(filed_at) desc nulls first, document_id
       limit ${MOST_DOCUMENTS + 1}
     )
     select m.document_id, m.page_id, m.number, r.words, r.width, r.height
     from matching m join best using (document_id) join reading r on r.page_id = m.page_id and r.turn = m.turn and r.version = m.version
     order by m.document_id, m.number`,
    values,
  );
  const byDocument = new Map<string, SearchedPage[]>();
  for (const page of pages) byDocument.set(page.document_id, [...(byDocument.get(page.document_id) ?? []), page]);
  const shown = [...byDocument.keys()].slice(0, MOST_DOCUMENTS);
  const summaries = await summariseDocuments(manager, 'd.id = any($1)', [shown]);
  const found = summaries
    .map((document) => ({ document, ...linesWithHits(byDocument.get(document.id)!, search.phrases) }))
    .filter(({ hits }) => hits > 0)
    .sort((a, b) => b.hits - a.hits || (b.document.filedAt ?? '9').localeCompare(a.document.filedAt ?? '9'));
  const used = search.alsoSearched.filter((form) => found.some(({ forms }) => forms.has(form)));
  return {
    found: found.map(({ forms: _forms, ...rest }) => rest),
    more: byDocument.size > MOST_DOCUMENTS,
    alsoSearched: used,
  };
}

function linesWithHits(
  pages: SearchedPage[],
  phrases: Term[][],
): Pick<FoundDocument, 'hits' | 'lines'> & { forms: Set<string> } {
  let hits = 0;
  const lines: FoundDocument['lines'] = [];
  const forms = new Set<string>();
  for (const { page_id: pageId, number: pageNumber, words: stored } of pages) {
    const words = restoreWords(stored);
    const found = findHits(words, phrases);
    hits += found.length;
    const hitWords = new Set(found.flat().map((index) => words[index]));
    for (const line of linesOf(words)) {
      if (!line.some((word) => hitWords.has(word))) continue;
      for (const word of line) if (hitWords.has(word)) for (const { token } of wordTokens([word])) forms.add(token);
      if (lines.length < MOST_LINES) lines.push({ pageId, pageNumber, pieces: pieces(line, hitWords) });
    }
  }
  return { hits, lines, forms };
}

/** A line as runs of text, those that match apart from the others. */
function pieces(line: Word[], hitWords: Set<Word>): { text: string; hit: boolean }[] {
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
  const pages = await rows<SearchedPage>(
    manager,
    `select dp.document_id, dp.page_id, dp.number, r.words, r.width, r.height
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
