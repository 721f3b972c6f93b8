import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import { Problem } from '@crow/contract/problems';
import { Context } from '../platform/context';
import { unlockPdf } from '../engines/qpdf';
import { withScratch } from '../engines/scratch';
import { MOST_FILE_BYTES, storeBlob } from '../platform/blobs';
import { SourceFile } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { materialise } from './sources';
import { putUnlockedInPlace } from './queries';

/**
 * Takes in a PDF that was refused because it is locked, with its password: the pages come from a copy without one, the file itself is
 * kept as it came. The password is kept nowhere.
 * @throws Problem 'not-found', 'password-wrong', 'took-too-long'
 */
export async function unlockFile(context: Context, actor: ActingAs, id: string, password: string): Promise<void> {
  const { database, jobs } = context;
  const { manager } = database.source;
  const file = await manager.findOneBy(SourceFile, { id });
  if (!file || file.state !== 'refused' || file.problem?.code !== 'file-encrypted')
    throw new Problem('not-found', { what: 'The locked file' });
  const open = await withScratch(async (folder) => {
    const path = await materialise(database, file.blobId, folder);
    const unlocked = join(folder, 'unlocked.pdf');
    await unlockPdf(path, unlocked, password, file.name, folder);
    return storeBlob(database, createReadStream(unlocked), {
      mostBytes: MOST_FILE_BYTES,
      tooLarge: () => new Problem('file-too-large', { name: file.name }),
    });
  });
  await database.source.transaction(async (inside) => {
    if (!(await putUnlockedInPlace(inside, id, open.id))) return;
    await jobs.ask(inside, 'take-in', { fileId: id });
    await record(inside, actor, 'unlocked', 'file', id);
    await announce(inside, 'stack', file.stackId);
  });
}
