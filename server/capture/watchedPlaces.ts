import { constants, lstat, mkdir, open, readdir, realpath } from 'node:fs/promises';
import { basename, dirname, isAbsolute, join, resolve, sep } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { Problem } from '@crow/contract/problems';
import { compareNames } from '@crow/core/filing/names';
import { exists } from '../engines/fileTree';
import { detectFormat, HEAD_BYTES } from '../engines/formats';

/** In a watched folder: where files go that were taken in, and that were not. */
export const DONE = 'done';
export const REFUSED = 'refused';
/** The file that tells a folder that has copies of the shelf from an empty place for its drive. */
export const COPIES_MARK = '.crow-copies';
/** A drive that doesn't answer for so long is told as away. */
export const AWAY_MS = 15_000;
/** What programs call a file while they write it, and what systems put beside files. */
export const NOT_YET = /^[.~]|~$|\.(part|partial|tmp|temp|crdownload|filepart)$|^(thumbs\.db|desktop\.ini)$/i;

/** Where a machine keeps what is its own: nothing there is anybody's paper. Drives are mounted below some of them. */
const SYSTEM = [
  '/bin',
  '/boot',
  '/dev',
  '/etc',
  '/lib',
  '/lib32',
  '/lib64',
  '/libx32',
  '/proc',
  '/run',
  '/sbin',
  '/snap',
  '/sys',
  '/usr',
  '/var',
];
const NOT_SYSTEM = ['/run/media', '/run/user', '/var/spool', '/var/tmp', '/usr/local/share'];
/** So many papers that lie in a folder already are taken in without asking. */
const FEW = 5;
const MOST_LOOKED_AT = 500;
const MOST_NAMED = 6;
const MOST_PLACES = 30;

/** Folders whose paths begin as typed, so that a path can be completed. Hidden ones only when asked for by their dot. */
export async function listPlaces(beginning: string): Promise<string[]> {
  if (!isAbsolute(beginning)) return [];
  const [above, begins] = beginning.endsWith(sep)
    ? [beginning, '']
    : [dirname(beginning), basename(beginning).toLowerCase()];
  const inside = await readdir(above, { withFileTypes: true }).catch(() => []);
  return inside
    .filter((each) => each.isDirectory() && each.name.toLowerCase().startsWith(begins))
    .filter(({ name }) => begins.startsWith('.') || !name.startsWith('.'))
    .map(({ name }) => join(above, name))
    .sort()
    .slice(0, MOST_PLACES);
}

/**
 * A folder that may be watched, without links in its path, and with places for what has been handled.
 * @param confirmed whether a person knows what lies in it already
 * @throws Problem 'watched-unfit', 'watched-full'
 */
export async function fitFolder(
  typed: string,
  { confirmed, watched, ownFolders }: { confirmed: boolean; watched: string[]; ownFolders: string[] },
): Promise<string> {
  const unfit = (detail: string) => new Problem('watched-unfit', { path: typed, detail });
  const path = await fitPath(typed, ownFolders, unfit);
  if (watched.some((other) => other !== path && isWithin(path, other)) && inHandled(path))
    throw unfit('handled files of another watched folder are kept there');
  if (await exists(join(path, COPIES_MARK))) throw unfit('copies of papers on the shelf are kept there');
  if (!confirmed) await insistOnFewPapers(path);
  try {
    await mkdir(join(path, DONE), { recursive: true });
    await mkdir(join(path, REFUSED), { recursive: true });
  } catch (error) {
    throw unfit(`nothing may be written in it (${(error as NodeJS.ErrnoException).code})`);
  }
  return path;
}

/**
 * A folder of the machine that is nobody's but a person's, without links in its path.
 * @param unfit the problem that says why it is not
 */
export async function fitPath(
  typed: string,
  ownFolders: readonly string[],
  unfit: (detail: string) => Problem,
): Promise<string> {
  if (!isAbsolute(typed)) throw unfit('a path begins at the root, like /home/me/Scans');
  const insistOnFit = (path: string) => {
    if (ownFolders.some((own) => isWithin(path, resolve(own)))) throw unfit('Crow Shelf keeps its own files there');
    if (isOfSystem(path)) throw unfit('it belongs to the system');
  };
  insistOnFit(resolve(typed));
  const path = await realpath(typed).catch(() => undefined);
  if (!path || !(await lstat(path)).isDirectory()) throw unfit('there is no such folder');
  insistOnFit(path);
  return path;
}

/** The folders of the system, and those that hold them. */
function isOfSystem(path: string): boolean {
  if (path === sep) return true;
  return (
    SYSTEM.some((folder) => isWithin(path, folder)) &&
    !NOT_SYSTEM.some((folder) => path !== folder && isWithin(path, folder))
  );
}

/** What a drive that hangs never answers, as a problem. */
export async function inTime<Result>(
  path: string,
  work: Promise<Result>,
  gone: () => Problem = () => new Problem('watched-gone', { path }),
): Promise<Result> {
  const over = new AbortController();
  const late = sleep(AWAY_MS, undefined, { signal: over.signal }).then(() => {
    throw gone();
  });
  late.catch(() => undefined);
  try {
    return await Promise.race([work, late]);
  } finally {
    over.abort();
  }
}

/** Whether a file is, by how it begins, one that may hold pages. Nothing but a plain file is looked into. */
export async function isPaper(path: string): Promise<boolean> {
  const handle = await open(path, constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK).catch(
    () => undefined,
  );
  // What may not be read is told of where it is taken in.
  if (!handle) return true;
  try {
    if (!(await handle.stat()).isFile()) return false;
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0);
    const head = buffer.subarray(0, bytesRead);
    return detectFormat(head) !== undefined || head.subarray(0, 4).toString('latin1') === 'PK\x03\x04';
  } finally {
    await handle.close();
  }
}

/** @throws Problem 'watched-full' where more than a few papers lie that nobody may have thought of */
async function insistOnFewPapers(path: string): Promise<void> {
  const inside = await readdir(path, { withFileTypes: true });
  const names = inside.flatMap((each) => (each.isFile() && !NOT_YET.test(each.name) ? [each.name] : []));
  const papers: string[] = [];
  for (const name of names.sort(compareNames).slice(0, MOST_LOOKED_AT))
    if (await isPaper(join(path, name))) papers.push(name);
  if (papers.length <= FEW) return;
  const more = papers.length - MOST_NAMED;
  const named = papers.slice(0, MOST_NAMED).join(', ') + (more > 0 ? ` and ${more} more` : '');
  const some = names.length > MOST_LOOKED_AT ? `${papers.length} or more` : papers.length;
  throw new Problem('watched-full', { path, papers: some, names: named });
}

const isWithin = (path: string, folder: string) => path === folder || path.startsWith(folder + sep);
const inHandled = (path: string) => [DONE, REFUSED].includes(basename(path));
