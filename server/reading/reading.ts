import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { pageTokens } from '@crow/core/finding/tokens';
import { Turn, turnSize } from '@crow/core/geometry';
import { restoreWords, storeWords } from '@crow/core/reading/words';
import { Context } from '../platform/context';
import { installedLanguages } from '../engines/languageData';
import { readText } from '../engines/pageText';
import { insertNew } from '../platform/database';
import { Page, Reading } from '../platform/entities';
import { announce } from '../platform/live';
import { recipeOf } from '../pages/recipes';
import { readSettings } from '../platform/settings';
import { documentOfPage } from '../stack/locks';
import { keepSigns, proposeAnew } from '../sorting/proposing';
import { SourceShelf } from '../capture/sources';
import { addToVocabulary, endReading, keepTokens, pagesToIndexAgain, readingState, readBefore } from './queries';

export { addToVocabulary } from './queries';

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
  const state = await readingState(manager, page);
  if (state.stopped && !state.done) return settle(context, page, { reading: 'stopped', problem: null });
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
      await insertNew(inside, Reading, {
        pageId,
        turn,
        version,
        width: text.width,
        height: text.height,
        language: text.language,
        own,
        words: storeWords(text.words),
        handwriting: text.handwriting ?? [],
        codes: text.codes ?? [],
      });
      await inside.update(Page, { id: pageId }, { ownText: own });
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

/** Writes down how reading a page ended, and lets whatever waited for it go on. */
export async function settle(context: Context, page: Page, end: Pick<Page, 'reading' | 'problem'>): Promise<void> {
  const stackId = await context.database.source.transaction(async (manager) => {
    const documentId = await documentOfPage(manager, page.id, { lock: true });
    const current = await manager.findOne(Page, { where: { id: page.id }, lock: { mode: 'for_no_key_update' } });
    if (current?.turn !== page.turn || current.version !== page.version) return undefined;
    await endReading(manager, page.id, end);
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

/** Makes pages findable by all that is looked for now which were read when that was less; done in the background, in small steps. */
export async function indexOlderPages({ database, log }: Context): Promise<void> {
  const { manager } = database.source;
  for (;;) {
    const older = await pagesToIndexAgain(manager);
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
  const reading = await manager.findOneBy(Reading, { pageId: page.id, turn: page.turn, version: page.version });
  const tokens = pageTokens(restoreWords(reading?.words ?? []))
    .slice(0, MOST_TOKENS)
    .sort();
  await keepTokens(manager, page.id, tokens);
  // In sorted order, so that two workers adding the same words never wait for each other in a circle.
  const wordlike = tokens.filter((token) => token.length >= 3 && /\p{L}/u.test(token));
  await addToVocabulary(manager, wordlike);
}

/** The size of a page's picture as it is turned. */
export function turnedSize(page: Pick<Page, 'width' | 'height' | 'turn'>): [number, number] {
  return turnSize(page.width, page.height, page.turn);
}
