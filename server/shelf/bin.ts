import { EntityManager, In } from 'typeorm';
import { Context } from '../platform/context';
import { sweepUnusedBlobs } from '../platform/blobs';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import {
  binnedDocuments,
  binnedStacks,
  deleteFilesWithoutPages,
  forgetDetailsOfWhatIsGone,
  forgetWordsOnNoPage,
  sortedStacksWithoutDocuments,
  wordsOnPages,
} from './queries';
import { Document, Page, SourceFile, Stack } from '../platform/entities';

/**
 * Deletes everything in the bin for good, and at once: documents, stacks, their pages, the files that no other page needs, their
 * bytes and pictures, the words that stood on them only, and what they were called.
 */
export async function emptyBin({ database }: Context, actor: ActingAs): Promise<void> {
  await database.source.transaction(async (manager) => {
    const documents = await binnedDocuments(manager);
    await manager.delete(Document, { id: In(documents.map(({ id }) => id)) });
    const words = await deletePages(
      manager,
      documents.flatMap(({ pages }) => pages),
    );
    const binned = await binnedStacks(manager);
    // Stacks of which every document has been deleted have done their work; pages dropped while sorting go with them.
    const done = await sortedStacksWithoutDocuments(manager);
    const stacks = [...new Set([...binned, ...done].map(({ id }) => id))];
    const left = await manager.find(Page, { where: { stackId: In(stacks) }, select: { id: true } });
    words.push(
      ...(await deletePages(
        manager,
        left.map(({ id }) => id),
      )),
    );
    await manager.delete(SourceFile, { stackId: In(stacks) });
    await manager.delete(Stack, { id: In(stacks) });
    // Files of stacks that go on, of which no page is left and which hold nothing that is still to come.
    await deleteFilesWithoutPages(manager);
    await forgetWordsOnNoPage(manager, words);
    await forgetDetailsOfWhatIsGone(manager);
    await record(manager, actor, 'emptied', 'bin', null, { documents: documents.length, stacks: stacks.length });
    await announce(manager, 'document', null);
    await announce(manager, 'stack', null);
  });
  await sweepUnusedBlobs(database, { atOnce: true });
}

/** Deletes pages with their readings. @returns the words that stood on them */
async function deletePages(manager: EntityManager, ids: string[]): Promise<string[]> {
  const found = await wordsOnPages(manager, ids);
  await manager.delete(Page, { id: In(ids) });
  return found.map(({ word }) => word);
}
