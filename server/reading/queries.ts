import { EntityManager } from 'typeorm';
import { keptProblem } from '@crow/contract/problems';
import { PageText, restoreWords, StoredWord } from '@crow/core/reading/words';
import { Page } from '../platform/entities';
import { rows } from '../platform/database';

/** Whether reading the stack of a page was stopped, and whether the page was read before, as it is now. */
export async function readingState(
  manager: EntityManager,
  { id, stackId, turn, version }: Page,
): Promise<{ stopped: boolean; done: boolean }> {
  const [found] = await rows<{ stopped: boolean; done: boolean }>(
    manager,
    `select s.reading_stopped as stopped,
       exists (select 1 from reading r where r.page_id = $1 and r.turn = $3 and r.version = $4) as done
     from stack s where s.id = $2`,
    [id, stackId, turn, version],
  );
  return found;
}

/** What was read of the very same picture, made into a page in the same way, when it was taken in before. */
export async function readBefore(
  manager: EntityManager,
  { id, sourceFileId, sourceNumber, part, turn, version }: Page,
  languages: string[],
): Promise<{ text: PageText; own: boolean } | undefined> {
  const [found] = await rows<
    Pick<PageText, 'width' | 'height' | 'language' | 'handwriting' | 'codes'> & { own: boolean; words: StoredWord[] }
  >(
    manager,
    `select r.width, r.height, r.language, r.own, r.words, r.handwriting, r.codes from source_file f
     join source_file other on other.blob_id = f.blob_id
     join page p on p.source_file_id = other.id and p.source_number = $2 and p.part = $3 and p.id <> $1
     join reading r on r.page_id = p.id and r.turn = $4 and r.version = $5 and r.language = any($6)
     where f.id = $7 limit 1`,
    [id, sourceNumber, part, turn, version, languages, sourceFileId],
  );
  if (!found) return undefined;
  const { own, words, ...text } = found;
  return { text: { ...text, words: restoreWords(words) }, own };
}

/** How reading a page ended. */
export async function endReading(
  manager: EntityManager,
  pageId: string,
  { reading, problem }: Pick<Page, 'reading' | 'problem'>,
): Promise<void> {
  await manager.query(
    'update page set reading = $2, problem = coalesce($3::jsonb, case when pictured then null else problem end) where id = $1',
    [pageId, reading, problem && JSON.stringify(keptProblem(problem))],
  );
}

const AT_ONCE = 50;

/** Some pages whose words are kept as they were before numbers in groups were one. */
export function pagesToIndexAgain(manager: EntityManager): Promise<{ id: string }[]> {
  return rows<{ id: string }>(manager, `select page_id as id from page_tokens where not numbered limit ${AT_ONCE}`);
}

/** The words of a page as they are found. */
export async function keepTokens(manager: EntityManager, id: string, tokens: string[]): Promise<void> {
  await manager.query(
    `insert into page_tokens (page_id, tokens, numbered) values ($1, array_to_tsvector($2::text[]), true)
     on conflict (page_id) do update set tokens = excluded.tokens, numbered = true`,
    [id, tokens],
  );
}

/** Words for spellings that are alike. */
export async function addToVocabulary(manager: EntityManager, wordlike: string[]): Promise<void> {
  await manager.query('insert into vocabulary (word) select unnest($1::text[]) on conflict do nothing', [wordlike]);
}
