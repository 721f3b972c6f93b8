import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { pageTokens } from '@crow/core/finding/tokens';
import { Turn, turnSize } from '@crow/core/geometry';
import { Recipe } from '@crow/core/imaging/recipe';
import { PageText, restoreWords, scaledPageText, StoredWord, storeWords, turnPageText } from '@crow/core/reading/words';
import { Context } from '../platform/context';
import { installedLanguages } from '../engines/languageData';
import { readingPicture } from '../engines/pictures';
import { ownText } from '../engines/ownText';
import { withScratch } from '../engines/scratch';
import { SourceInfo } from '../engines/sourceFile';
import { recognise } from '../engines/recognise';
import { rows } from '../platform/database';
import { Page } from '../platform/entities';
import { announce } from '../platform/live';
import { recipeOf } from '../pages/recipes';
import { readSettings } from '../platform/settings';
import { documentOfPage } from '../stack/locks';
import { keepSigns, proposeAnew } from '../sorting/proposing';
import { SourceShelf } from '../capture/sources';

/** Reads a page as it is turned; a page that was read like this before is not read again. */
export async function readPage(
  context: Context,
  sources: SourceShelf,
  pageId: string,
  turn: Turn,
  version: string,
): Promise<void> {
  const { manager } = context.database.source;
  const page = await manager.findOneBy(Page, { id: pageId });
  // Turned or made anew meanwhile: another job reads it as it is now.
  if (!page || page.turn !== turn || page.version !== version) return;
  const [state] = await rows<{ reading_stopped: boolean; done: boolean; binned: boolean }>(
    manager,
    `select s.reading_stopped, s.binned_at is not null as binned,
       exists (select 1 from reading r where r.page_id = $1 and r.turn = $3 and r.version = $4) as done
     from stack s where s.id = $2`,
    [pageId, page.stackId, turn, version],
  );
  if (state.reading_stopped && !state.done) return settle(context, page, { reading: 'stopped', problem: null });
  if (state.done) return settle(context, page, { reading: 'read', problem: null });
  try {
    const languages = await readableLanguages((await readSettings(manager)).languages);
    const recipe = (await recipeOf(manager, version)) ?? null;
    // Nothing is on it: there is nothing to read.
    const { text, own } = page.blank
      ? { text: { width: page.width, height: page.height, words: [], language: languages[0] }, own: false }
      : ((await readBefore(manager, page, languages)) ??
        (await sources.use(page.sourceFileId, (info) => readText(info, page.sourceNumber, turn, languages, recipe))));
    await context.database.source.transaction(async (inside) => {
      await inside.query(
        `insert into reading (page_id, turn, version, width, height, language, own, words, handwriting)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9) on conflict do nothing`,
        [
          pageId,
          turn,
          version,
          text.width,
          text.height,
          text.language,
          own,
          JSON.stringify(storeWords(text.words)),
          JSON.stringify(text.handwriting ?? []),
        ],
      );
      await inside.query('update page set own_text = $2 where id = $1', [pageId, own]);
    });
    await settle(context, page, { reading: 'read', problem: null });
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    await settle(context, page, { reading: 'failed', problem: error.report });
  }
}

/** Those of the chosen languages that are installed (still); the first installed one if none is. */
async function readableLanguages(chosen: string[]): Promise<string[]> {
  const installed = await installedLanguages();
  const readable = chosen.filter((code) => installed.includes(code));
  return readable.length > 0 ? readable : installed.slice(0, 1);
}

/** What was read of the very same picture, made into a page in the same way, when it was taken in before. */
async function readBefore(
  manager: EntityManager,
  { id, sourceFileId, sourceNumber, part, turn, version }: Page,
  languages: string[],
): Promise<{ text: PageText; own: boolean } | undefined> {
  const [found] = await rows<
    Pick<PageText, 'width' | 'height' | 'language' | 'handwriting'> & { own: boolean; words: StoredWord[] }
  >(
    manager,
    `select r.width, r.height, r.language, r.own, r.words, r.handwriting from source_file f
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

/**
 * The text of a page: its own where it brings good text, else recognised. Boxes in pixels of the page's full picture, turned.
 * @param number from 0
 */
export async function readText(
  info: SourceInfo,
  number: number,
  turn: Turn,
  languages: string[],
  recipe: Recipe | null = null,
): Promise<{ text: PageText; own: boolean }> {
  if (info.format === 'pdf' && !recipe) {
    const own = await ownText(info, number, languages);
    if (own) return { text: turnPageText(own, turn), own: true };
  }
  const text = await withScratch(async (folder) => {
    const { picture, enlarged } = await readingPicture(info, number, turn, folder, recipe);
    return scaledPageText(await recognise(picture, languages), enlarged);
  });
  return { text, own: false };
}

/** Writes down how reading a page ended, and lets whatever waited for it go on. */
export async function settle(context: Context, page: Page, end: Pick<Page, 'reading' | 'problem'>): Promise<void> {
  const stackId = await context.database.source.transaction(async (manager) => {
    const documentId = await documentOfPage(manager, page.id, { lock: true });
    const [current] = await rows<{ turn: Turn; version: string; stackId: string }>(
      manager,
      'select turn, version, stack_id as "stackId" from page where id = $1 for no key update',
      [page.id],
    );
    if (current?.turn !== page.turn || current.version !== page.version) return undefined;
    await manager.query(
      'update page set reading = $2, problem = coalesce($3::jsonb, case when pictured then null else problem end) where id = $1',
      [page.id, end.reading, end.problem && JSON.stringify(end.problem)],
    );
    if (end.reading === 'read') {
      await indexPage(manager, page);
      await keepSigns(manager, page.id);
    }
    // It may have been laid into another stack meanwhile.
    await announce(manager, 'stack', current.stackId);
    await context.happenings.tell(manager, 'page-read', { pageId: page.id, documentId });
    return current.stackId;
  });
  // A stack is locked before its pages, so this comes by itself; done again, it comes to the same.
  if (stackId) await context.database.source.transaction((manager) => proposeAnew(manager, stackId));
}

const AT_ONCE = 50;

/** Makes pages findable by all that is looked for now which were read when that was less; done in the background, in small steps. */
export async function indexOlderPages({ database, log }: Context): Promise<void> {
  const { manager } = database.source;
  for (;;) {
    const older = await rows<{ id: string }>(
      manager,
      `select page_id as id from page_tokens where not numbered limit ${AT_ONCE}`,
    );
    if (older.length === 0) return;
    for (const { id } of older) {
      const page = await manager.findOneBy(Page, { id });
      if (page) await indexPage(manager, page);
    }
    log.info({ pages: older.length }, 'indexed again');
  }
}

/** PostgreSQL's index holds a megabyte of words a page. */
const MOST_TOKENS = 20_000;

/** Makes a page's words findable. */
export async function indexPage(manager: EntityManager, page: Page): Promise<void> {
  const [reading] = await rows<{ words: StoredWord[] }>(
    manager,
    'select words from reading where page_id = $1 and turn = $2 and version = $3',
    [page.id, page.turn, page.version],
  );
  const tokens = pageTokens(restoreWords(reading?.words ?? []))
    .slice(0, MOST_TOKENS)
    .sort();
  await manager.query(
    `insert into page_tokens (page_id, tokens, numbered) values ($1, array_to_tsvector($2::text[]), true)
     on conflict (page_id) do update set tokens = excluded.tokens, numbered = true`,
    [page.id, tokens],
  );
  // In sorted order, so that two workers adding the same words never wait for each other in a circle.
  const wordlike = tokens.filter((token) => token.length >= 3 && /\p{L}/u.test(token));
  await manager.query('insert into vocabulary (word) select unnest($1::text[]) on conflict do nothing', [wordlike]);
}

/** The size of a page's picture as it is turned. */
export function turnedSize(page: Pick<Page, 'width' | 'height' | 'turn'>): [number, number] {
  return turnSize(page.width, page.height, page.turn);
}
