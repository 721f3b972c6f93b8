import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { chmod, link, lstat, mkdir, open, rename, rmdir, stat, unlink } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/** Files on their way lie here until they are complete; on the same file system as the rest, so that a rename moves them. */
const ARRIVING = '.arriving';

/** What is known of a file since it was written. */
export interface WrittenFile {
  /** Below the folder, with slashes. */
  path: string;
  sha256: string;
  size: number;
  modifiedMs: number;
}

/** A folder in which the program writes files beside those of others: it overwrites nothing that it has not written itself. */
export class FileTree {
  constructor(readonly root: string) {}

  at(path: string): string {
    return join(this.root, path);
  }

  /** A folder in it, as open as the whole is: one that others share stays shared. @param path below it; '' for itself */
  async makeFolder(path: string): Promise<void> {
    const mode = await this.modeOf('folder');
    let at = this.root;
    for (const name of path.split('/').filter(Boolean)) {
      at = join(at, name);
      await mkdir(at).then(
        () => chmod(at, mode),
        (error: NodeJS.ErrnoException) => {
          if (error.code !== 'EEXIST') throw error;
        },
      );
    }
  }

  private async modeOf(what: 'folder' | 'file'): Promise<number> {
    const { mode } = await stat(this.root);
    return what === 'folder' ? mode & 0o7777 : mode & 0o666;
  }

  /** Writes a file aside, synced. @returns its path */
  async writeAside(name: string, bytes: AsyncIterable<Uint8Array>): Promise<string> {
    await mkdir(this.at(ARRIVING), { recursive: true });
    const aside = this.at(`${ARRIVING}/${name}`);
    await pipeline(Readable.from(bytes), createWriteStream(aside));
    const handle = await open(aside);
    await handle.chmod(await this.modeOf('file'));
    await handle.sync();
    await handle.close();
    return aside;
  }

  /**
   * Gives a file a second name; false when something else has that name. A file with the same bytes is ours from before a crash.
   * @param isAnothers whether the file that stands there is known as another one of ours
   */
  async linkTo(source: string, path: string, sha256: string, isAnothers: () => Promise<boolean>): Promise<boolean> {
    const target = this.at(path);
    const isOurs = async () => (await hashOf(target)) === sha256 && !(await isAnothers());
    try {
      await link(source, target);
      return true;
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      if (code === 'EEXIST') return isOurs();
      if (code !== 'EPERM' && code !== 'ENOTSUP' && code !== 'ENOSYS') throw error;
      // File systems without links, such as FAT: look, then rename.
      if (await exists(target)) return isOurs();
      await rename(source, target);
      return true;
    }
  }

  async sync(path: string): Promise<void> {
    const handle = await open(this.at(dirname(path))).catch(() => undefined);
    await handle?.sync().catch(() => undefined);
    await handle?.close();
  }

  /** What is to be known of a file that stands. */
  async describe(path: string, sha256: string): Promise<WrittenFile> {
    const { size, mtimeMs } = await stat(this.at(path));
    return { path, sha256, size, modifiedMs: mtimeMs };
  }

  /** Whether a file was changed by somebody since it was written; one that is gone is not. */
  async isForeign({ path, size, modifiedMs, sha256 }: WrittenFile): Promise<boolean> {
    const now = await lstat(this.at(path)).catch(() => undefined);
    if (!now || (now.isFile() && now.size === size && now.mtimeMs === modifiedMs)) return false;
    return !now.isFile() || (await hashOf(this.at(path))) !== sha256;
  }

  /** Removes a file, and the folders that are empty without it. */
  async removeFile(path: string): Promise<void> {
    await unlink(this.at(path)).catch((error: NodeJS.ErrnoException) => {
      if (error.code !== 'ENOENT') throw error;
    });
    for (let folder = dirname(path); folder !== '.'; folder = dirname(folder)) {
      const emptied = await rmdir(this.at(folder)).then(
        () => true,
        () => false,
      );
      if (!emptied) return;
    }
  }
}

/** Whether something went wrong with files, and is no fault of the program. */
export function isFileError(error: unknown): error is NodeJS.ErrnoException {
  return typeof error === 'object' && error !== null && 'syscall' in error && 'path' in error;
}

export function sayFileError({ code }: NodeJS.ErrnoException): string {
  const words: Record<string, string> = {
    ENOSPC: 'the disk is full',
    EDQUOT: 'the disk is full',
    EACCES: 'writing is not allowed',
    EPERM: 'writing is not allowed',
    EROFS: 'the disk is read-only',
    EEXIST: 'a file stands where a folder should be',
    ENOTDIR: 'a file stands where a folder should be',
  };
  return words[code ?? ''] ?? `the system says ${code}`;
}

export async function exists(path: string): Promise<boolean> {
  return lstat(path).then(
    () => true,
    () => false,
  );
}

/** SHA-256 of a file in hexadecimal digits; '' when it can't be read. */
export async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  try {
    for await (const piece of createReadStream(path)) hash.update(piece as Buffer);
  } catch {
    return '';
  }
  return hash.digest('hex');
}
