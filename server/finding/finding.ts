import { EntityManager } from 'typeorm';
import { FindReply, FoundDocument, Hit } from '@crow/contract/finding';
import { linesWithHits } from '@crow/core/finding/hitLines';
import { Condition, parseQuery } from '@crow/core/finding/query';
import { findHits, isGroup, Term } from '@crow/core/finding/tokens';
import { shareOf } from '@crow/core/geometry';
import { groupBy } from '@crow/core/shelf/groupBy';
import { documentsById } from '../checking/documents';
import { textsOf } from '../checking/facts';
import { proposedNames } from '../checking/proposedFiling';
import { bestDocuments, documentsMeeting, matchingPages, matchingRemarks, stacksHolding, Wish } from './queries';
import { EVERYTHING, Sight } from '../platform/sight';
import { similarWords } from './similarWords';

/** So many documents are shown when nothing else is said. */
export const SHOWN_AT_FIRST = 20;
/** What stands on more pages than this is not ranked by how many of a document's it stands on. */
const MOST_RANKED = 4000;

/** What a typed query looks for: phrases of terms, each with its other spellings, and the query for PostgreSQL. */
interface Search {
  phrases: Term[][];
  /** Null when only conditions were typed. */
  tsquery: string | null;
  without: string[];
  conditions: Condition[];
  sight: Sight;
  alsoSearched: string[];
}

async function understand(manager: EntityManager, typed: string, sight: Sight): Promise<Search | undefined> {
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
    sight,
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
  {
    by = 'best',
    most = SHOWN_AT_FIRST,
    ranked = MOST_RANKED,
    sight = EVERYTHING,
  }: Partial<Wish> & { sight?: Sight } = {},
): Promise<FindReply> {
  const search = await understand(manager, typed, sight);
  if (!search) return { found: [], more: false, alsoSearched: [], inSort: [] };
  const wish = { by, most, ranked };
  if (search.tsquery === null) return { ...(await meeting(manager, search, wish)), inSort: [] };
  const [{ found, ...rest }, inSort] = await Promise.all([
    holding(manager, search, search.tsquery, wish),
    search.conditions.length > 0 || sight.of !== 'everything' ? [] : stacksHolding(manager, search.tsquery),
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

async function meeting(manager: EntityManager, search: Search, wish: Wish): Promise<Found> {
  const matching = await documentsMeeting(manager, search, wish);
  const shown = matching.slice(0, wish.most);
  const place = new Map(shown.map((id, at) => [id, at]));
  const documents = await documentsById(manager, shown);
  const found = documents
    .sort((a, b) => place.get(a.id)! - place.get(b.id)!)
    .map((document) => ({ document, hits: 0, morePages: 0, lines: [] }));
  return { found, more: matching.length > wish.most, alsoSearched: [] };
}

async function holding(manager: EntityManager, search: Search, tsquery: string, wish: Wish): Promise<Found> {
  const { by, most } = wish;
  const matching = await bestDocuments(manager, tsquery, search, wish);
  const shown = matching.slice(0, most);
  const byDocument = groupBy(await matchingPages(manager, tsquery, shown), ({ documentId }) => documentId);
  const remarks = new Map(
    (await matchingRemarks(manager, tsquery, shown)).map(({ documentId, pageId, tags, note }) => [
      documentId,
      // Read before the paper itself; tags are words that stand together.
      { pageId, number: 1, lines: [tags.join(' · '), ...note.split(/\s*\n\s*/)].filter(Boolean).join('\n') },
    ]),
  );
  const summaries = await documentsById(manager, [...new Set([...byDocument.keys(), ...remarks.keys()])]);
  const place = new Map(shown.map((id, at) => [id, at]));
  const found = summaries
    .map((document) => {
      const own = byDocument.get(document.id) ?? [];
      const remark = remarks.get(document.id);
      return {
        document,
        morePages: own.length > 0 ? own[0].pages - own.length : 0,
        ...linesWithHits(remark ? [remark, ...own] : own, search.phrases),
      };
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

/** Every place in a document where a query is found, in reading order. */
export async function hitsInDocument(manager: EntityManager, documentId: string, typed: string): Promise<Hit[]> {
  const search = await understand(manager, typed, EVERYTHING);
  if (!search || search.phrases.length === 0) return [];
  const pages = await textsOf(manager, documentId);
  return pages.flatMap((page) =>
    findHits(page.words, search.phrases).map((indexes) => ({
      pageId: page.pageId,
      pageNumber: page.number,
      boxes: indexes.map((index) => shareOf(page.words[index].box, page)),
    })),
  );
}
