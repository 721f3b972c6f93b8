import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { EntityManager } from 'typeorm';
import { Database, rows } from './database';

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
  const [{ id }] = await rows<{ id: string }>(manager, 'insert into blob default values returning id');
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
      await manager.query('insert into blob_chunk (blob_id, number, bytes) values ($1, $2, $3)', [id, number++, chunk]);
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
    await manager.query('delete from blob where id = $1', [id]).catch(() => undefined);
    throw error;
  }
}

export function storeBytes(database: Database, bytes: Uint8Array): Promise<StoredBlob> {
  return storeBlob(database, Readable.from([bytes]));
}

/** Gives the bytes their name; the same bytes stored before win. */
async function settle(manager: EntityManager, id: string, sha256: string, size: number): Promise<StoredBlob> {
  const same = () => rows<{ id: string }>(manager, 'select id from blob where sha256 = $1', [sha256]);
  const adopt = async (existing: string) => {
    await manager.query('delete from blob where id = $1', [id]);
    return { id: existing, sha256, size };
  };
  const [known] = await same();
  if (known) return adopt(known.id);
  try {
    await manager.query('update blob set sha256 = $2, size = $3 where id = $1', [id, sha256, size]);
    return { id, sha256, size };
  } catch (error) {
    // Somebody stored the same bytes at the same moment.
    const [other] = await same();
    if (!other) throw error;
    return adopt(other.id);
  }
}

/** The bytes of a blob, a chunk at a time, optionally from a byte to a byte (both included). */
export async function* readBlob({ source }: Database, id: string, from = 0, to = Infinity): AsyncGenerator<Buffer> {
  let offset = 0;
  for (let number = 0; ; number++) {
    const [chunk] = await rows<{ bytes: Buffer }>(
      source.manager,
      'select bytes from blob_chunk where blob_id = $1 and number = $2',
      [id, number],
    );
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
  const [blob] = await rows<{ id: string; sha256: string; size: string }>(
    source.manager,
    'select id, sha256, size from blob where id = $1',
    [id],
  );
  return { ...blob, size: Number(blob.size) };
}

/** Deletes what interrupted transfers left behind; called when no transfer is running, that is when the server starts. */
export async function sweepUnfinishedBlobs({ source }: Database): Promise<void> {
  await source.manager.query(`delete from blob where sha256 is null and created_at < now() - interval '1 minute'`);
}

/**
 * Deletes the bytes that nothing refers to any more, and the pictures made of them.
 * @param atOnce also such as came within the last hour; those of transfers under way have no name yet and are left in any case
 */
export async function sweepUnusedBlobs({ source }: Database, { atOnce = false } = {}): Promise<void> {
  await source.manager.query(`
    delete from derived_picture d where not exists (select 1 from source_file f where f.blob_id = d.blob_id)`);
  await source.manager.query(`
    delete from blob b where sha256 is not null and created_at < now() - interval '${atOnce ? '1 minute' : '1 hour'}'
      and not exists (select 1 from source_file f where f.blob_id = b.id or f.locked_blob_id = b.id)
      and not exists (select 1 from derived_picture d where d.picture_blob_id = b.id)
      and not exists (select 1 from document d where d.pdf_blob_id = b.id)
      and not exists (select 1 from document_version v where v.pdf_blob_id = b.id)
      and not exists (select 1 from document_file o where o.blob_id = b.id)`);
}
