import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Doubtful } from '@crow/contract/pages';
import { Box } from '@crow/core/geometry';
import { doubtfulWords } from '@crow/core/reading/doubtful';
import { StoredWord } from '@crow/core/reading/words';
import { Context } from '../platform/context';
import { documentOfPage } from '../stack/locks';
import { Page, Reading } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { pageWasRead } from './documentProgress';
import { indexPage } from '../reading/reading';
import { recognisedPages } from './queries';

const MOST_SHOWN = 1000;

/** The words of a document that may be misread, in reading order; those of pages that came with their own text are not. */
export async function doubtfulWordsOf(manager: EntityManager, documentId: string): Promise<Doubtful[]> {
  const pages = await recognisedPages(manager, documentId);
  return pages
    .flatMap(({ id: pageId, words, width, height }) => {
      const share = ([x, y, w, h]: Box): Box => [x / width, y / height, w / width, h / height];
      return doubtfulWords(words).map((word) => ({
        ...word,
        pageId,
        box: share(word.box),
        lineBox: share(word.lineBox),
      }));
    })
    .slice(0, MOST_SHOWN);
}

/** A word as it was, and what it is; nothing when it is no text. */
export interface WordChange {
  /** Its place among the stored words of the page. */
  index: number;
  was: string;
  text: string;
}

/**
 * Sets words of a page as somebody says that they are; they count as sure from then on. The facts of a document in Check are found
 * anew, one that is filed gets a new PDF.
 * @throws Problem 'not-found', 'text-changed' when a word is another one by now, 'text-own' for text that came with the page
 */
export async function correctWords(
  context: Context,
  actor: ActingAs,
  pageId: string,
  changes: WordChange[],
): Promise<void> {
  await context.database.source.transaction(async (manager) => {
    const documentId = await documentOfPage(manager, pageId, { lock: true });
    const page = await manager.findOne(Page, { where: { id: pageId }, lock: { mode: 'for_no_key_update' } });
    if (!page) throw new Problem('not-found', { what: 'The page' });
    const key = { pageId, turn: page.turn, version: page.version };
    const reading = await manager.findOne(Reading, { where: key, lock: { mode: 'pessimistic_write' } });
    if (!reading) throw new Problem('not-found', { what: 'The text of the page' });
    if (reading.own) throw new Problem('text-own');
    const { words } = reading;
    for (const { index, was, text } of changes) {
      if (words[index]?.[0] !== was) throw new Problem('text-changed', { text: was });
      words[index] = [text.trim().replace(/\s+/g, ' '), ...(words[index].slice(1) as TailOf<StoredWord>)];
      words[index][5] = 1;
    }
    await manager.update(Reading, key, { words });
    await indexPage(manager, page);
    await record(manager, actor, 'corrected the text of', 'page', pageId, { changes });
    await announce(manager, 'text', pageId);
    if (documentId) await pageWasRead(context, manager, documentId, { gather: true });
  });
}

type TailOf<T extends unknown[]> = T extends [unknown, ...infer Tail] ? Tail : never;
