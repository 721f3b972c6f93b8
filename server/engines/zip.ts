import { crc32 } from 'node:zlib';
import { Entry, openPromise, ZipFile } from 'yauzl';
import { Problem } from '@crow/contract/problems';

/** So many files may be in an archive. */
const MOST_ENTRIES = 20_000;
/** So many bytes it may have, and its files when unpacked. */
export const MOST_BYTES = 16 * 1024 ** 3;
/** What some systems put into archives for themselves. */
const NOT_MEANT = /(^|\/)(__MACOSX\/|\.|Thumbs\.db$|desktop\.ini$)/;

/** A file in an archive. */
export interface ZippedFile {
  /** With its folders, parted by slashes; never leads out of the archive. */
  path: string;
  /** Unpacked; more never comes. */
  bytes: number;
  read: () => AsyncIterable<Uint8Array>;
}

/**
 * Opens a ZIP archive on disk while `work` is done with what is in it; nothing is unpacked before it is read.
 * @throws Problem 'archive-broken', 'archive-too-large', 'file-encrypted'; the first one also while a file is read
 */
export async function withZip<Result>(
  path: string,
  name: string,
  work: (files: ZippedFile[]) => Promise<Result>,
): Promise<Result> {
  const zip = await told(name, openPromise(path, { lazyEntries: true, autoClose: false }));
  try {
    return await work(await told(name, list(zip, name)));
  } finally {
    zip.close();
  }
}

async function list(zip: ZipFile, name: string): Promise<ZippedFile[]> {
  if (zip.entryCount > MOST_ENTRIES) throw new Problem('archive-too-large', { name });
  const files: ZippedFile[] = [];
  let bytes = 0;
  for await (const entry of zip.eachEntry()) {
    const path = entry.fileName;
    if (path.endsWith('/') || NOT_MEANT.test(path)) continue;
    if (entry.isEncrypted()) throw new Problem('file-encrypted', { name });
    bytes += entry.uncompressedSize;
    if (bytes > MOST_BYTES) throw new Problem('archive-too-large', { name });
    files.push({ path, bytes: entry.uncompressedSize, read: () => readEntry(zip, entry, name) });
  }
  return files;
}

async function* readEntry(zip: ZipFile, entry: Entry, name: string): AsyncGenerator<Uint8Array> {
  const stream = await told(name, zip.openReadStreamPromise(entry));
  const pieces = stream[Symbol.asyncIterator]() as AsyncIterator<Uint8Array>;
  let sum = 0;
  try {
    for (;;) {
      const { value, done } = await told(name, pieces.next());
      if (done) break;
      sum = crc32(value, sum);
      yield value;
    }
    // What was damaged under way, or on the disk, is noticed by this alone.
    if (sum !== entry.crc32) throw new Problem('archive-broken', { name });
  } finally {
    stream.destroy();
  }
}

/** What the library says of an archive that is not in order, as a problem; trouble with the disk stays what it is. */
async function told<Result>(name: string, result: Promise<Result>): Promise<Result> {
  try {
    return await result;
  } catch (error) {
    if (error instanceof Problem || (error as NodeJS.ErrnoException).syscall) throw error;
    throw new Problem('archive-broken', { name });
  }
}
