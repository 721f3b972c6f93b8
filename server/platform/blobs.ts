import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { EntityManager } from 'typeorm';
import { Database } from './database';
import { beginBlob, deletePicturesWithoutFile, deleteUnfinishedBlobs, deleteUnusedBlobs } from './queries';
import { Blob, BlobChunk } from './entities';

/** The most that one file may have. */
export const MOST_FILE_BYTES = 1024 ** 3;
const CHUNK_BYTES = 1024 * 1024;

export interface StoredBlob {
  id: string;
  sha256: string;
  size: number;
}

/**
 * Streams bytes into the database, a chunk in memory at a time. Bytes that are there already are not kept twice.
 * If the stream fails, or yields more than `mostBytes`, what had arrived is deleted again and the error passed on.
 */
export async function storeBlob(
  { source }: Database,
  bytes: AsyncIterable<Uint8Array>,
  { mostBytes = Infinity, tooLarge }: { mostBytes?: number; tooLarge?: () => Error } = {},
): Promise<StoredBlob> {
  const { manager } = source;
  const id = await beginBlob(manager);
  try {
    const hash = createHash('sha256');
    let size = 0;
    let number = 0;
    let pending: Uint8Array[] = [];
    let pendingBytes = 0;
    const flush = async () => {
      if (pendingBytes === 0) return;
      const chunk = Buffer.concat(pending);
      pending = [];
      pendingBytes = 0;
      await manager.insert(BlobChunk, { blobId: id, number: number++, bytes: chunk });
    };
    for await (const piece of bytes) {
      size += piece.length;
      if (size > mostBytes) throw tooLarge?.() ?? new Error('too many bytes');
      hash.update(piece);
      pending.push(piece);
      pendingBytes += piece.length;
      if (pendingBytes >= CHUNK_BYTES) await flush();
    }
    await flush();
    return await settle(manager, id, hash.digest('hex'), size);
  } catch (error) {
    await manager.delete(Blob, { id }).catch(() => undefined);
    throw error;
  }
}

export function storeBytes(database: Database, bytes: Uint8Array): Promise<StoredBlob> {
  return storeBlob(database, Readable.from([bytes]));
}

/** Gives the bytes their name; the same bytes stored before win. */
async function settle(manager: EntityManager, id: string, sha256: string, size: number): Promise<StoredBlob> {
  const same = () => manager.findOneBy(Blob, { sha256 });
  const adopt = async (existing: string) => {
    await manager.delete(Blob, { id });
    return { id: existing, sha256, size };
  };
  const known = await same();
  if (known) return adopt(known.id);
  try {
    await manager.update(Blob, { id }, { sha256, size });
    return { id, sha256, size };
  } catch (error) {
    // Somebody stored the same bytes at the same moment.
    const other = await same();
    if (!other) throw error;
    return adopt(other.id);
  }
}

/** The bytes of a blob, a chunk at a time, optionally from a byte to a byte (both included). */
export async function* readBlob({ source }: Database, id: string, from = 0, to = Infinity): AsyncGenerator<Buffer> {
  let offset = 0;
  for (let number = 0; ; number++) {
    const chunk = await source.manager.findOneBy(BlobChunk, { blobId: id, number });
    if (!chunk || offset > to) return;
    const begin = Math.max(0, from - offset);
    const end = Math.min(chunk.bytes.length, to - offset + 1);
    offset += chunk.bytes.length;
    if (begin < end) yield chunk.bytes.subarray(begin, end);
  }
}

export async function blobBytes(database: Database, id: string): Promise<Buffer> {
  const pieces: Buffer[] = [];
  for await (const piece of readBlob(database, id)) pieces.push(piece);
  return Buffer.concat(pieces);
}

export async function describeBlob({ source }: Database, id: string): Promise<StoredBlob> {
  const { sha256, size } = await source.manager.findOneByOrFail(Blob, { id });
  return { id, sha256: sha256!, size };
}

/** Deletes what interrupted transfers left behind; called when no transfer is running, that is when the server starts. */
export async function sweepUnfinishedBlobs({ source }: Database): Promise<void> {
  await deleteUnfinishedBlobs(source.manager);
}

/**
 * Deletes the bytes that nothing refers to any more, and the pictures made of them.
 * @param atOnce also such as came within the last hour; those of transfers under way have no name yet and are left in any case
 */
export async function sweepUnusedBlobs({ source }: Database, { atOnce = false } = {}): Promise<void> {
  await deletePicturesWithoutFile(source.manager);
  await deleteUnusedBlobs(source.manager, atOnce);
}
