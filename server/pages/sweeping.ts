import { Context } from '../platform/context';
import { sweepUnusedBlobs } from '../platform/blobs';
import { deleteOldPictures } from './queries';

/**
 * Deletes the pictures of pages that are made otherwise by now, or lie otherwise: whatever is asked for again is made again from the
 * original bytes and the recipe.
 * @returns how many
 */
export async function sweepOldPictures({ database }: Context): Promise<number> {
  const swept = await deleteOldPictures(database.source.manager);
  if (swept > 0) await sweepUnusedBlobs(database);
  return swept;
}
