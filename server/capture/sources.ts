import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Format } from '../engines/formats';
import { SourceInfo } from '../engines/sourceFile';
import { readBlob } from '../platform/blobs';
import { Database } from '../platform/database';
import { Page, SourceFile } from '../platform/entities';

/** Writes a blob into a folder, and says where it is. */
export async function materialise(database: Database, blobId: string, folder: string): Promise<string> {
  const path = join(folder, blobId);
  await pipeline(Readable.from(readBlob(database, blobId)), createWriteStream(path));
  return path;
}

const MOST_KEPT = 6;

interface Laid {
  folder: string;
  info: SourceInfo;
}

/** Source files laid out on disk for the programs that draw pages, the few used last; so that a long PDF is fetched once. */
export class SourceShelf {
  private readonly kept = new Map<string, { laid: Promise<Laid>; users: number }>();

  constructor(private readonly database: Database) {}

  /** Gives `work` the file on disk; it stays there at least until the work is done. */
  async use<Result>(fileId: string, work: (info: SourceInfo) => Promise<Result>): Promise<Result> {
    const entry = this.kept.get(fileId) ?? { laid: this.lay(fileId), users: 0 };
    // Taken out and put in again: the map's order tells what was used last.
    this.kept.delete(fileId);
    this.kept.set(fileId, entry);
    entry.users++;
    try {
      const { info } = await entry.laid.catch((error: unknown) => {
        this.kept.delete(fileId);
        throw error;
      });
      return await work(info);
    } finally {
      entry.users--;
      await this.dropUnused(MOST_KEPT);
    }
  }

  private async lay(fileId: string): Promise<Laid> {
    const { manager } = this.database.source;
    const file = await manager.findOneByOrFail(SourceFile, { id: fileId });
    const pages = await manager.find(Page, {
      where: { sourceFileId: fileId, part: 0 },
      order: { sourceNumber: 'ASC' },
    });
    const folder = await mkdtemp(join(tmpdir(), 'crow-source-'));
    const path = await materialise(this.database, file.blobId, folder);
    return {
      folder,
      info: {
        path,
        name: file.name,
        format: file.format as Format,
        pages: pages.map(({ sourceWidth, sourceHeight, sourcePointWidth, sourcePointHeight, scanned }) => ({
          width: sourceWidth,
          height: sourceHeight,
          pointWidth: sourcePointWidth,
          pointHeight: sourcePointHeight,
          scanned,
        })),
      },
    };
  }

  private async dropUnused(most: number): Promise<void> {
    for (const [fileId, { laid, users }] of this.kept) {
      if (this.kept.size <= most) return;
      if (users > 0) continue;
      this.kept.delete(fileId);
      await laid.then(({ folder }) => rm(folder, { recursive: true, force: true })).catch(() => undefined);
    }
  }

  async close(): Promise<void> {
    await this.dropUnused(0);
  }
}
