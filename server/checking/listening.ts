import { Context } from '../platform/context';
import { announce } from '../platform/live';
import { followIntoDocument, placeInDocument, replacePages } from './documentPages';
import { pageWasRead } from './documentProgress';
import { sendOnward } from './fromTheTable';

/** What becomes of documents when their pages come, are found to be several, or are read. */
export function listenInChecking(context: Context): void {
  const { happenings } = context;
  happenings.on('pages-arrived', async (manager, { file, pageIds }) => {
    const { documentId, replaces, beforePage: before, againPage: again } = file;
    if (!documentId) return false;
    if (replaces) await replacePages(manager, documentId, pageIds);
    else await placeInDocument(manager, documentId, pageIds, { before, again });
    await announce(manager, 'document', documentId);
    return true;
  });
  happenings.on('page-prepared', (manager, { stackId }) => sendOnward(manager, stackId));
  happenings.on('page-parted', (manager, { pageId, partId }) => followIntoDocument(manager, pageId, partId));
  happenings.on('page-read', async (manager, { documentId }) => {
    if (documentId) await pageWasRead(context, manager, documentId);
  });
}
