import { Context } from '../platform/context';
import { sweepUnusedBlobs } from '../platform/blobs';
import { rows } from '../platform/database';

/** Whoever goes back and forth between two ways of making a page finds both pictures there for so long. */
const KEPT_FOR = '1 day';

/**
 * Deletes the pictures of pages that are made otherwise by now, or lie otherwise: whatever is asked for again is made again from the
 * original bytes and the recipe.
 * @returns how many
 */
export async function sweepOldPictures({ database }: Context): Promise<number> {
  const swept = await rows(
    database.source.manager,
    `delete from derived_picture d using blob b
     where b.id = d.picture_blob_id and b.created_at < now() - interval '${KEPT_FOR}' and not exists (
       select 1 from source_file f join page p on p.source_file_id = f.id
       where f.blob_id = d.blob_id and p.source_number = d.source_number and split_part(d.recipe, '-', 3) = p.version
         and split_part(d.recipe, '-', 2) in ('0', p.turn::text))
     returning 1`,
  );
  if (swept.length > 0) await sweepUnusedBlobs(database);
  return swept.length;
}
