import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { Output } from '@crow/contract/endpoint';
import { endpoints } from '@crow/contract/endpoints';
import { readBlob } from '../platform/blobs';
import { hashOf } from '../engines/fileTree';
import { Context } from '../platform/context';
import { LookedArchive, Proof } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { archivedPdfs } from '../shelf/archive';
import { Shelf } from '../shelf/shelf';
import { filesToCompare, FileToCompare, markCopied, papersWithPdf } from './queries';

/** How many papers are compared before whoever looks is told how far it is. */
const TELL_EVERY = 50;

/** Asks for the files on disk to be compared with the database. */
export async function compareFiles({ database: { source }, jobs }: Context): Promise<void> {
  await source.transaction(async (manager) => {
    await jobs.askOnce(manager, 'prove', {}, { gatherMs: 0 });
    await announce(manager, 'sheet', null);
  });
}

/** Compares the PDF of every paper on the shelf, as its bytes are in the database and on disk, with the hash that it was bound with. */
export async function proveFiles(shelf: Shelf): Promise<void> {
  const { database } = shelf.context;
  const { manager } = database.source;
  if (!(await shelf.isPresent())) return;
  const agree = async ({ blobId, sha256, path }: FileToCompare) => {
    const here = createHash('sha256');
    for await (const piece of readBlob(database, blobId)) here.update(piece);
    return here.digest('hex') === sha256 && path !== null && (await hashOf(join(shelf.root, path))) === sha256;
  };
  for (const [at, file] of (await filesToCompare(manager)).entries()) {
    const { documentId, sha256 } = file;
    const agrees = await agree(file);
    // What was bound anew, moved or deleted in between is compared the next time.
    const [now] = agrees ? [file] : await filesToCompare(manager, documentId);
    if (now?.sha256 === sha256 && now.path === file.path) {
      const compared = { documentId, differed: !agrees, comparedAt: new Date() };
      await manager.upsert(Proof, { ...compared, ...(agrees && { agreedSha256: sha256 }) }, ['documentId']);
    }
    if (at % TELL_EVERY === TELL_EVERY - 1) await announce(manager, 'sheet', null);
  }
  await announce(manager, 'sheet', null);
}

/**
 * Looks through an archive of the shelf, as somebody has it on another drive: which papers are in it byte by byte as they are here.
 * @throws Problem 'archive-strange', 'archive-broken', 'archive-too-large', 'file-encrypted'
 */
export async function lookThroughArchive(
  { database: { source } }: Context,
  actor: ActingAs,
  name: string,
  bytes: AsyncIterable<Uint8Array>,
): Promise<Output<typeof endpoints.lookThroughArchive>> {
  const hashes = await archivedPdfs(name, bytes, async (file) => {
    const hash = createHash('sha256');
    for await (const piece of file.read()) hash.update(piece);
    return hash.digest('hex');
  });
  return source.transaction(async (manager) => {
    const same = await markCopied(manager, hashes);
    await manager.insert(LookedArchive, { name, actorId: actor.id, papers: same });
    await record(manager, actor, 'looked through', 'sheet', null, { name, papers: same });
    await announce(manager, 'sheet', null);
    const papers = await papersWithPdf(manager);
    return { same, different: Math.max(0, hashes.length - same), missing: papers - same };
  });
}
