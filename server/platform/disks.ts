import { statfs } from 'node:fs/promises';
import { dirname } from 'node:path';
import { Problem } from '@crow/contract/problems';

/** Nothing more is taken in when less than this is left on a disk, in bytes. */
const RESERVE = 300 * 1024 ** 2;
/** A file's bytes, its pictures and its PDF take about so much of its size. */
const TAKES = 2.5;

/** What lies on a disk, in words, and a folder on it. */
export interface Place {
  what: string;
  path: string;
}

/** How much room the disks have on which the program keeps things. */
export class Disks {
  constructor(private readonly places: Place[]) {}

  /** Bytes that are left where a folder lies; of one that isn't there, or can't be asked, nothing is known. */
  private async leftAt(path: string): Promise<number | undefined> {
    for (let folder = path; ; folder = dirname(folder)) {
      const found = await statfs(folder).catch(() => undefined);
      if (found) return found.bavail * found.bsize;
      if (folder === dirname(folder)) return undefined;
    }
  }

  /** The disks that are full, or nearly so, in sentences. */
  async full(bytes = 0): Promise<Problem[]> {
    const found: Problem[] = [];
    for (const { what, path } of this.places) {
      const left = await this.leftAt(path);
      if (left !== undefined && left < RESERVE + TAKES * bytes)
        found.push(new Problem('disk-full', { what, left: Math.round(left / 1024 ** 2) }));
    }
    return found;
  }

  /** @param bytes that are about to come, as far as that is known @throws Problem 'disk-full' */
  async insistOnRoom(bytes = 0): Promise<void> {
    const [first] = await this.full(bytes);
    if (first) throw first;
  }
}

/** Whether an error says that a disk is full: the system's, or the database's (SQLSTATE 53100). */
export function saysDiskFull(error: unknown): boolean {
  const code = (error as { code?: string } | undefined)?.code;
  return code === 'ENOSPC' || code === 'EDQUOT' || code === '53100' || code === 'disk-full';
}
