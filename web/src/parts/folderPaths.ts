import { Folder } from '@crow/contract/folders';

/** A path as it is typed, without what surrounds its names. */
export const tidied = (path: string) =>
  path
    .trim()
    .replace(/\s*\/\s*/g, '/')
    .replace(/^\/+|\/+$/g, '');

/** The folder that a typed path means, if there is one. */
export function folderAtPath(folders: Folder[], path: string): Folder | undefined {
  const wanted = tidied(path).toLowerCase();
  return folders.find((folder) => folder.path.toLowerCase() === wanted);
}

/** Folders whose path has what was typed, those first whose own name begins with it. */
export function fitting(folders: Folder[], typed: string): Folder[] {
  const wanted = tidied(typed).toLowerCase();
  const place = ({ path, name }: Folder) =>
    path.toLowerCase() === wanted ? 0 : name.toLowerCase().startsWith(wanted) ? 1 : 2;
  return folders
    .filter(({ path }) => path.toLowerCase().includes(wanted))
    .map((folder, at) => ({ folder, at }))
    .sort((a, b) => place(a.folder) - place(b.folder) || a.at - b.at)
    .map(({ folder }) => folder);
}
