import { EntityManager } from 'typeorm';
import { Document as ShownDocument, DocumentSummary, NameExample } from '@crow/contract/documents';
import { FilingWay, folderBy, nameBy, NameValues, valuesOf, wayFor } from '@crow/core/filing/pattern';
import { FiledBefore, folderFromScratch, PaperLike, suggestFolder } from '@crow/core/filing/suggestFolder';
import { rows } from '../platform/database';
import { FOLDER_PATHS } from '../platform/folderPaths';
import { summariseDocuments } from './queries';
import { readSettings } from '../platform/settings';

/** The name and the folder that a document should have: by the ways of filing, and by what was filed before. */
export async function proposeFiling(
  manager: EntityManager,
  document: Pick<DocumentSummary, 'id' | 'state' | 'createdAt' | 'folderPath' | 'pages'>,
  facts: Partial<Record<string, string>>,
  wantedFolder: string | null,
): Promise<Pick<ShownDocument, 'proposedName' | 'suggestion' | 'likely'>> {
  const { filing: ways } = await readSettings(manager);
  const values = valuesOf(facts, document);
  const said =
    document.state !== 'check'
      ? null
      : wantedFolder
        ? { path: wantedFolder, reason: 'Its divider sheet, or the place where it lay, says so' }
        : sentByWay(ways, values);
  const { suggestion, likely } =
    said || document.state !== 'check'
      ? { suggestion: said, likely: [] }
      : await likeOthers(manager, document.id, facts);
  const folder = document.folderPath ?? suggestion?.path;
  const way = wayFor(ways, { kind: facts.kind, folder });
  return { proposedName: nameBy(way.pattern, { ...values, folder }), suggestion, likely };
}

type Suggestion = ShownDocument['suggestion'];

function sentByWay(ways: FilingWay[], values: NameValues): Suggestion {
  const way = wayFor(ways, { kind: values.kind });
  const path = folderBy(way, values);
  return path ? { path, reason: `Papers filed as “${way.name}” go here` } : null;
}

/** Where others like it were filed, as far as that is clear; and where it may belong, or else a folder by kind and year. */
async function likeOthers(
  manager: EntityManager,
  documentId: string,
  { kind, vendor, date }: Partial<Record<string, string>>,
): Promise<{ suggestion: Suggestion; likely: string[] }> {
  const paper: PaperLike = { kind, vendor, date, words: await wordsOf(manager, documentId) };
  const found = suggestFolder(paper, await filedBefore(manager, vendor ?? ''));
  const folders = await rows<{ id: string; path: string }>(manager, `${FOLDER_PATHS} select id, path from paths`);
  const paths = new Map(folders.map(({ id, path }) => [id, path]));
  const likely = found.likely.flatMap((id) => paths.get(id) ?? []);
  const path = found.suggestion && paths.get(found.suggestion.folderId);
  if (path) return { suggestion: { path, reason: found.suggestion!.reason }, likely };
  if (likely.length < MOST_LIKELY && (kind || date)) likely.push(folderFromScratch(paper));
  return { suggestion: null, likely: [...new Set(likely)] };
}

const MOST_LIKELY = 3;

/** The words on a document's first page. */
async function wordsOf(manager: EntityManager, documentId: string): Promise<string[]> {
  const [found] = await rows<{ words: string[] }>(
    manager,
    `select ${FIRST_WORDS} as words from document d where d.id = $1`,
    [documentId],
  );
  return found?.words ?? [];
}

/** None for a document without text. */
const FIRST_WORDS = `coalesce((select tsvector_to_array(t.tokens) from document_page dp join page_tokens t on t.page_id = dp.page_id
  where dp.document_id = d.id order by dp.number limit 1), '{}')`;

/** So many of the papers filed last are learned from, and so many more from the same sender. */
const LATEST = 300;
const LATEST_OF_SENDER = 40;

/** Papers filed before, the newest first. */
function filedBefore(manager: EntityManager, vendor: string): Promise<FiledBefore[]> {
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

const MOST_EXAMPLES = 8;

/** The documents that came last, those that wait first, with what their names could be made of. */
export async function filingExamples(manager: EntityManager): Promise<NameExample[]> {
  const found = await rows<{
    id: string;
    name: string;
    createdAt: Date;
    pages: number;
    folder: string | null;
    facts: Record<string, string> | null;
  }>(
    manager,
    `select d.id, d.name, d.created_at as "createdAt", f.name as folder,
       (select count(*)::int from document_page where document_id = d.id) as pages,
       (select jsonb_object_agg(name, value) from fact where document_id = d.id) as facts
     from document d left join folder f on f.id = d.folder_id where d.binned_at is null
     order by d.state <> 'check', d.created_at desc limit ${MOST_EXAMPLES}`,
  );
  return found.map(({ id, name, createdAt, pages, folder, facts }) => ({
    id,
    name,
    values: valuesOf(facts ?? {}, { createdAt: createdAt.toISOString(), folder: folder ?? undefined, pages }),
  }));
}

/** The names that documents on the shelf would get from the ways of filing, with the facts as they are now. */
export async function proposedNames(
  manager: EntityManager,
  ids: string[],
): Promise<{ id: string; name: string; proposed: string }[]> {
  const { filing: ways } = await readSettings(manager);
  const summaries = await summariseDocuments(manager, 'd.id = any($1)', [ids]);
  const facts = await rows<{ id: string; facts: Record<string, string> }>(
    manager,
    'select document_id as id, jsonb_object_agg(name, value) as facts from fact where document_id = any($1) group by document_id',
    [ids],
  );
  const factsOf = new Map(facts.map((each) => [each.id, each.facts]));
  return summaries.map((summary) => {
    const values = { ...valuesOf(factsOf.get(summary.id) ?? {}, summary), folder: summary.folderPath ?? undefined };
    const way = wayFor(ways, { kind: values.kind, folder: values.folder });
    return { id: summary.id, name: summary.name, proposed: nameBy(way.pattern, values) };
  });
}
