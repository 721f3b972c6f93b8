import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/**
 * Gives this process a scratch folder of its own, and removes those of processes that were killed: what they worked on is nobody's
 * business any more. Called once, when the process starts.
 */
export function ownScratch(): void {
  const above = process.env.CROW_SCRATCH;
  if (!above) return;
  for (const name of readdirSync(above)) {
    const pid = Number(/^of-(\d+)$/.exec(name)?.[1]);
    if (pid && pid !== process.pid && !existsSync(`/proc/${pid}`))
      rmSync(join(above, name), { recursive: true, force: true });
  }
  const own = join(above, `of-${process.pid}`);
  mkdirSync(own, { recursive: true, mode: 0o700 });
  process.env.TMPDIR = own;
}

/** Gives `work` a temporary folder of its own, which is gone afterwards. */
export async function withScratch<Result>(work: (folder: string) => Promise<Result>): Promise<Result> {
  const folder = await mkdtemp(join(tmpdir(), 'crow-shelf-'));
  try {
    return await work(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
