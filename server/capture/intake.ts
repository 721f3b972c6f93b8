import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Binding } from '@crow/contract/stacks';
import { Landing } from '@crow/core/sorting/arrangement';
import { Context } from '../platform/context';
import { drawInvoice } from '../engines/invoiceXml';
import { isMail } from '../engines/mail';
import { isZip, inspectFile, SourceInfo } from '../engines/sourceFile';
import { withScratch } from '../engines/scratch';
import { MOST_FILE_BYTES, storeBlob } from '../platform/blobs';
import { insertNew } from '../platform/database';
import { SourceFile, Stack } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { addPages, insistOnLanding } from './addingPages';
import { saysDiskFull } from '../platform/disks';
import { materialise } from './sources';
import { unpackMails, unpackPapers } from './unpacking';
import { binStackWithoutFiles } from './queries';

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
  /** At which side the book is bound that it shows from above. */
  bound?: Binding;
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
    bound = null,
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
    await insertNew(manager, Stack, {
      id: stackId,
      name: stackName,
      actorId: actor.id,
      whole,
      onward,
      forEntry,
      watchedFolderId,
      wantedFolder,
    });
    await insistOnLanding(manager, stackId, { ...landing, document: documentId });
    const added = await insertNew(manager, SourceFile, {
      id: fileId,
      stackId,
      name: fileName,
      position,
      blobId: blob.id,
      beforePage: landing.before,
      againPage: landing.again,
      documentId,
      actorId: actor.id,
      back,
      bound,
    });
    if (added === 0) return;
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
      if (!file.unpacked && (await isZip(path))) {
        await unpackPapers(context, file, path);
        return undefined;
      }
      if (!file.unpacked && (await isMail(path))) {
        await unpackMails(context, file, path);
        return undefined;
      }
      const drawn = await drawInvoice(path, file.name, () => folder);
      if (!drawn) return inspectFile(path, file.name);
      const blob = await storeBlob(database, createReadStream(drawn), {
        mostBytes: MOST_FILE_BYTES,
        tooLarge: () => new Problem('file-too-large', { name: file.name }),
      });
      await database.source.manager.update(SourceFile, { id: file.id }, { blobId: blob.id, cameBlobId: file.blobId });
      return inspectFile(drawn, file.name);
    });
    if (!found) return;
    info = found;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return refuse(context, file, error);
  }
  const { invoice } = info;
  if (invoice) await database.source.manager.update(SourceFile, { id: file.id }, { invoice });
  await addPages(context, file, info);
}

/** Keeps the file, with the sentence that says why its pages could not be had. */
export async function refuse({ database }: Context, file: SourceFile, { report }: Problem): Promise<void> {
  await database.source.transaction(async (manager) => {
    const refused = await manager.update(
      SourceFile,
      { id: file.id, state: 'waiting' },
      { state: 'refused', problem: report },
    );
    if (refused.affected === 0) return;
    // One of an archive of the shelf gets a stack of its own, where its sentence is seen: the others are on the shelf.
    if (file.told) {
      const stackId = randomUUID();
      await manager.insert(Stack, { id: stackId, name: file.name, actorId: file.actorId });
      await manager.update(SourceFile, { id: file.id }, { stackId, told: null as never });
      await announce(manager, 'stack', stackId);
    }
    await announce(manager, 'stack', file.stackId);
  });
}

/** Lets go of a refused file; a stack that nothing else is in goes to the bin with it. */
export async function dismissFile({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    const file = await manager.findOneBy(SourceFile, { id, state: 'refused' });
    if (!file) throw new Problem('not-found', { what: 'The file' });
    await manager.update(SourceFile, { id }, { dismissed: true });
    await binStackWithoutFiles(manager, file.stackId);
    await record(manager, actor, 'let go', 'file', id);
    await announce(manager, 'stack', file.stackId);
  });
}

/** A file as it came, locked with a password if it was. @throws Problem 'not-found' */
export async function originalOf(manager: EntityManager, id: string): Promise<{ name: string; blobId: string }> {
  const file = await manager.findOneBy(SourceFile, { id });
  if (!file) throw new Problem('not-found', { what: 'The file' });
  return { name: file.name, blobId: file.cameBlobId ?? file.blobId };
}
