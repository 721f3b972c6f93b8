import { BroughtDocument } from '@crow/contract/shelfArchive';
import { Context } from '../platform/context';
import { bringInOpened, restoreDocument } from './archive';

/** Archives of the shelf that are taken in with other files go back to it. */
export function listenOnShelf(context: Context): void {
  const { happenings } = context;
  happenings.on('archive-opened', (_, { file, files }) => bringInOpened(context, file, files));
  happenings.on('pages-arrived', async (manager, { file, pageIds, isPdf }) => {
    if (!file.told) return false;
    await restoreDocument(context, manager, file, file.told as BroughtDocument, { pageIds, isPdf });
    return true;
  });
}
