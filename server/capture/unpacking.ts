import { randomUUID } from 'node:crypto';
import { basename } from 'node:path';
import { EntityManager, MoreThan } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { withZip } from '../engines/zip';
import { MOST_FILE_BYTES, storeBlob } from '../platform/blobs';
import { Context } from '../platform/context';
import { SourceFile } from '../platform/entities';
import { announce } from '../platform/live';
import { deleteStackIfBare } from './queries';

/** So many papers of an archive become a stack. */
const MOST_PAPERS = 2000;

/**
 * Takes the papers out of an archive that was taken in: each becomes a file of the same stack, in the archive's place.
 * @throws Problem 'archive-broken', 'archive-too-large', 'archive-empty', 'file-encrypted', 'file-unknown'
 */
export async function unpackPapers(context: Context, file: SourceFile, path: string): Promise<void> {
  const { database, jobs } = context;
  await withZip(path, file.name, async (files) => {
    if (await context.happenings.tell(database.source.manager, 'archive-opened', { file, files }))
      return database.source.transaction((manager) => leave(manager, file));
    if (files.some((each) => each.path === '[Content_Types].xml'))
      throw new Problem('file-unknown', { name: file.name, looksLike: ', it looks like an office document' });
    const papers = files.toSorted((a, b) => a.path.localeCompare(b.path, 'en', { numeric: true }));
    if (papers.length === 0) throw new Problem('archive-empty', { name: file.name });
    if (papers.length > MOST_PAPERS) throw new Problem('archive-too-large', { name: file.name });
    const stored: { id: string; blobId: string; name: string }[] = [];
    for (const paper of papers) {
      const { id } = await storeBlob(database, paper.read(), {
        mostBytes: MOST_FILE_BYTES,
        tooLarge: () => new Problem('archive-too-large', { name: file.name }),
      });
      stored.push({ id: randomUUID(), blobId: id, name: basename(paper.path) });
    }
    await database.source.transaction(async (manager) => {
      await manager.increment(
        SourceFile,
        { stackId: file.stackId, position: MoreThan(file.position) },
        'position',
        stored.length,
      );
      await manager.insert(
        SourceFile,
        stored.map(({ id, name, blobId }, at) => ({
          id,
          stackId: file.stackId,
          name,
          position: file.position + at + 1,
          blobId,
          beforePage: file.beforePage,
          documentId: file.documentId,
          actorId: file.actorId,
          unpacked: true,
        })),
      );
      await jobs.ask(manager, 'take-in', ...stored.map(({ id }) => ({ fileId: id })));
      await leave(manager, file);
    });
  });
}

/** The archive itself has done its work; a stack that has nothing else goes with it. */
async function leave(manager: EntityManager, { id, stackId }: SourceFile): Promise<void> {
  await manager.delete(SourceFile, { id });
  await deleteStackIfBare(manager, stackId);
  await announce(manager, 'stack', stackId);
}
