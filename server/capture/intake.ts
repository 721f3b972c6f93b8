import { randomUUID } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Landing } from '@crow/core/sorting/arrangement';
import { Context } from '../platform/context';
import { isZip, inspectFile, SourceInfo } from '../engines/sourceFile';
import { withScratch } from '../engines/scratch';
import { MOST_FILE_BYTES, storeBlob } from '../platform/blobs';
import { rows } from '../platform/database';
import { SourceFile } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { addPages, insistOnLanding } from './addingPages';
import { saysDiskFull } from '../platform/disks';
import { materialise } from './sources';
import { unpackPapers } from './unpacking';

const AT_THE_END: Landing = { before: null, again: null };

export interface Arrival {
  /** Chosen by the sender, so that several files can go to one stack and a repeated transfer adds nothing twice. */
  stackId: string;
  fileId: string;
  stackName: string;
  fileName: string;
  /** How many bytes it will have, where that is known before. */
  bytes?: number;
  /** The number in which it was sent among the files of its stack. */
  position: number;
  /** Where its pages go; at the end of the stack without. */
  landing?: Landing;
  /** The document that its pages go into. */
  documentId?: string;
  /** Whether it is the back of a sheet, where that is known. */
  back?: boolean;
  /** Whether the stack, if it is new, is one document. */
  whole?: boolean;
  /** Whether the stack, if it is new, goes to Check by itself; whether it is the paper of an entry in the books. */
  onward?: boolean;
  forEntry?: boolean;
  /** The folder that its document, if the stack is new, should go to. */
  wantedFolder?: string;
  /** The watched folder that the stack, if it is new, comes from. */
  watchedFolderId?: string;
}

/**
 * Takes in the bytes of a file. Only when all of them are in the database does the file exist, and with it the stack.
 * @throws Problem 'upload-interrupted', 'file-empty', 'file-too-large', 'stack-sorted', 'not-found'
 */
export async function takeInBytes(
  context: Context,
  actor: ActingAs,
  arrival: Arrival,
  bytes: AsyncIterable<Uint8Array>,
): Promise<void> {
  const { database, jobs } = context;
  const { stackId, fileId, stackName, fileName, position, landing = AT_THE_END, documentId = null } = arrival;
  const {
    back = null,
    whole = false,
    onward = false,
    forEntry = false,
    watchedFolderId = null,
    wantedFolder = null,
  } = arrival;
  await context.disks?.insistOnRoom(arrival.bytes);
  const blob = await storeBlob(database, bytes, {
    mostBytes: MOST_FILE_BYTES,
    tooLarge: () => new Problem('file-too-large', { name: fileName }),
  }).catch((error: NodeJS.ErrnoException) => {
    const interrupted = ['ECONNRESET', 'ERR_STREAM_PREMATURE_CLOSE', 'ECONNABORTED'].includes(error.code ?? '');
    if (saysDiskFull(error)) throw new Problem('disk-full', { what: 'the database', left: 0 });
    throw interrupted ? new Problem('upload-interrupted', { name: fileName }) : error;
  });
  if (blob.size === 0) throw new Problem('file-empty', { name: fileName });
  await database.source.transaction(async (manager) => {
    await manager.query(
      `insert into stack (id, name, whole, onward, for_entry, watched_folder_id, wanted_folder) values ($1, $2, $3, $4, $5, $6, $7)
       on conflict do nothing`,
      [stackId, stackName, whole, onward, forEntry, watchedFolderId, wantedFolder],
    );
    await insistOnLanding(manager, stackId, { ...landing, document: documentId });
    const added = await rows(
      manager,
      `insert into source_file (id, stack_id, name, position, blob_id, before_page, again_page, document_id, actor_id, back)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) on conflict do nothing returning id`,
      [fileId, stackId, fileName, position, blob.id, landing.before, landing.again, documentId, actor.id, back],
    );
    if (added.length === 0) return;
    await record(manager, actor, 'took in', 'file', fileId, { name: fileName, bytes: blob.size });
    await jobs.ask(manager, 'take-in', { fileId });
    await announce(manager, 'stack', stackId);
  });
}

/** Finds the pages of a file that has arrived; what can't be taken in is refused with a sentence and kept. */
export async function findPages(context: Context, fileId: string): Promise<void> {
  const { database } = context;
  const file = await database.source.manager.findOneBy(SourceFile, { id: fileId });
  if (!file || file.state !== 'waiting') return;
  let info: SourceInfo;
  try {
    const found = await withScratch(async (folder) => {
      const path = await materialise(database, file.blobId, folder);
      // An archive in an archive is not opened.
      if (file.unpacked || !(await isZip(path))) return inspectFile(path, file.name);
      await unpackPapers(context, file, path);
      return undefined;
    });
    if (!found) return;
    info = found;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return refuse(context, file, error);
  }
  const { invoice } = info;
  if (invoice)
    await database.source.manager.query('update source_file set invoice = $2 where id = $1', [file.id, invoice]);
  await addPages(context, file, info);
}

/** Keeps the file, with the sentence that says why its pages could not be had. */
export async function refuse({ database }: Context, file: SourceFile, { report }: Problem): Promise<void> {
  await database.source.transaction(async (manager) => {
    const refused = await rows(
      manager,
      `update source_file set state = 'refused', problem = $2 where id = $1 and state = 'waiting' returning id`,
      [file.id, report],
    );
    if (refused.length === 0) return;
    // One of an archive of the shelf gets a stack of its own, where its sentence is seen: the others are on the shelf.
    if (file.told) {
      const stackId = randomUUID();
      await manager.query('insert into stack (id, name) values ($1, $2)', [stackId, file.name]);
      await manager.query('update source_file set stack_id = $2, told = null where id = $1', [file.id, stackId]);
      await announce(manager, 'stack', stackId);
    }
    await announce(manager, 'stack', file.stackId);
  });
}

/** Lets go of a refused file; a stack that nothing else is in goes to the bin with it. */
export async function dismissFile({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    const [file] = await rows<{ stack_id: string }>(
      manager,
      `update source_file set dismissed = true where id = $1 and state = 'refused' returning stack_id`,
      [id],
    );
    if (!file) throw new Problem('not-found', { what: 'The file' });
    await manager.query(
      `update stack set binned_at = now() where id = $1 and binned_at is null
       and not exists (select 1 from source_file where stack_id = $1 and not dismissed)`,
      [file.stack_id],
    );
    await record(manager, actor, 'let go', 'file', id);
    await announce(manager, 'stack', file.stack_id);
  });
}

/** A file as it came, locked with a password if it was. @throws Problem 'not-found' */
export async function originalOf(manager: EntityManager, id: string): Promise<{ name: string; blobId: string }> {
  const file = await manager.findOneBy(SourceFile, { id });
  if (!file) throw new Problem('not-found', { what: 'The file' });
  return { name: file.name, blobId: file.lockedBlobId ?? file.blobId };
}
