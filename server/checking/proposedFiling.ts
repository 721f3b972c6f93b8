import { EntityManager } from 'typeorm';
import { Document as ShownDocument, DocumentSummary, NameExample } from '@crow/contract/documents';
import { filedAs, FilingWay, folderBy, folderOf, NameValues, valuesOf, wayFor } from '@crow/core/filing/pattern';
import { folderFromScratch, newFolderFor, PaperLike, suggestFolder } from '@crow/core/filing/suggestFolder';
import { examplesOfPapers, factsByDocument, filedBefore, firstWordsOf, folderPaths } from './filingQueries';
import { documentsById } from './queries';
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
  const folder = folderOf(values, { there: document.folderPath, suggested: suggestion?.path });
  return { proposedName: filedAs(ways, values, { folder }).name, suggestion, likely };
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
  const paper: PaperLike = { kind, vendor, date, words: await firstWordsOf(manager, documentId) };
  const folders = await folderPaths(manager);
  const found = suggestFolder(paper, await filedBefore(manager, vendor ?? ''), folders);
  const paths = new Map(folders.map(({ id, path }) => [id, path]));
  const likely = found.likely.flatMap((id) => paths.get(id) ?? []);
  const path = found.suggestion && paths.get(found.suggestion.folderId);
  if (path) return { suggestion: { path, reason: found.suggestion!.reason }, likely };
  const anew = newFolderFor(paper, folders);
  if (anew) likely.splice(MOST_LIKELY - 1, 1, anew);
  if (likely.length < MOST_LIKELY && (kind || date)) likely.push(folderFromScratch(paper));
  return { suggestion: null, likely: [...new Set(likely)] };
}

const MOST_LIKELY = 3;

/** The documents that came last, those that wait first, with what their names could be made of. */
export async function filingExamples(manager: EntityManager): Promise<NameExample[]> {
  const found = await examplesOfPapers(manager);
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
  const summaries = await documentsById(manager, ids);
  const facts = await factsByDocument(manager, ids);
  const factsOf = new Map(facts.map((each) => [each.id, each.facts]));
  return summaries.map((summary) => {
    const values = valuesOf(factsOf.get(summary.id) ?? {}, summary);
    const folder = folderOf(values, { there: summary.folderPath });
    return { id: summary.id, name: summary.name, proposed: filedAs(ways, values, { folder }).name };
  });
}
