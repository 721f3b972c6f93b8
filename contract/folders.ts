import { array, InferType, number, object, string } from 'yup';
import { id, idParams, money, MOST_AT_ONCE } from './basics';
import { documentSummary } from './documents';
import { endpoint } from './endpoint';

export const folder = object({
  id,
  parentId: string().uuid().nullable().defined(),
  name: string().required(),
  /** The names from the top, joined by slashes. */
  path: string().required(),
  documents: number().integer().required(),
  /** Documents in it and in all folders in it. */
  inside: number().integer().required(),
});
export type Folder = InferType<typeof folder>;

/** The shelf at a glance. */
export const glance = object({
  /** What was filed last, the latest first. */
  latest: array(documentSummary.required()).required(),
  /** What is due, or ends, in the order of its days; those that have just passed included. */
  comingUp: array(
    object({
      document: documentSummary.required(),
      what: string()
        .oneOf(['due', 'ends'] as const)
        .required(),
      /** ISO 8601. */
      day: string().required(),
      inDays: number().integer().required(),
    }).required(),
  ).required(),
  /** What the papers in each folder, and in those inside it, add up to, by currency. */
  folders: array(object({ id, sums: array(money.required()).required() }).required()).required(),
});
export type Glance = InferType<typeof glance>;

/** What there is one row for in a table of papers: each of them, what bills list and statements book, or tax at each rate. */
export const TABLE_ROWS = ['papers', 'lines', 'rates'] as const;
export type TableRows = (typeof TABLE_ROWS)[number];
/** So many papers are in a table at most. */
export const MOST_IN_TABLE = 20_000;

const folderName = string()
  .trim()
  .min(1, 'a folder needs a name')
  .max(120, 'a folder’s name has 120 characters at most');

export const newFolder = object({ path: string().trim().min(1, 'a folder needs a name').max(600).required() });
export const folderChange = object({ name: folderName, parentId: string().uuid().nullable() });

/**
 * What becomes of a document whose file somebody changed, moved or took away: as it is on disk now, as it was filed, or, of a
 * changed file, a paper of its own.
 */
export const DISK_CHOICES = ['as-on-disk', 'as-filed', 'new-paper'] as const;
export const diskSettling = object({
  ids: array(id).min(1).max(MOST_AT_ONCE).required(),
  choice: string().oneOf(DISK_CHOICES).required(),
});
export type DiskChoice = (typeof DISK_CHOICES)[number];

export const foldersEndpoints = {
  sendArchive: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/shelf/archive',
    summary: 'Bring an archive of the shelf in again',
    query: object({ name: string().max(500).required() }),
    takesBytes: true,
    /** How many documents came, were there already, and have no PDF in it. */
    reply: object({ brought: number().required(), known: number().required(), missing: number().required() }),
  }),
  shelfArchive: endpoint({
    right: 'read',
    method: 'GET',
    path: '/shelf/archive',
    summary: 'The shelf, or a folder with those inside it, as a ZIP of PDFs with their facts',
    query: object({ folder: string().uuid() }),
  }),
  shelfGlance: endpoint({
    right: 'read',
    method: 'GET',
    path: '/shelf/glance',
    summary: 'What came last, what is due or ends soon, and what folders add up to',
    reply: glance,
  }),
  shelfTable: endpoint({
    right: 'read',
    method: 'POST',
    path: '/shelf/table',
    summary: 'Papers as a spreadsheet, with a row for each of them, for each of their lines, or for each rate of tax',
    body: object({
      ids: array(id).min(1).max(MOST_IN_TABLE).required(),
      rows: string().oneOf(TABLE_ROWS).required(),
      as: string()
        .oneOf(['csv', 'xlsx'] as const)
        .required(),
    }),
  }),
  listChangedOnDisk: endpoint({
    right: 'work',
    method: 'GET',
    path: '/shelf/changes',
    summary: 'Documents whose files in the shelf folder somebody changed, moved or took away',
    reply: array(documentSummary).required(),
  }),
  listStrangers: endpoint({
    right: 'work',
    method: 'GET',
    path: '/shelf/strangers',
    summary: 'PDFs that somebody put into the shelf folder',
    reply: array(object({ path: string().required(), bytes: number().required() }).required()).required(),
  }),
  settleStrangers: endpoint({
    right: 'work',
    method: 'POST',
    path: '/shelf/strangers',
    summary: 'Take them in, or leave them as they are',
    body: object({
      paths: array(string().max(4000).required()).min(1).max(1000).required(),
      choice: string()
        .oneOf(['take-in', 'leave'] as const)
        .required(),
    }),
  }),
  writeShelfAnew: endpoint({
    right: 'own',
    method: 'POST',
    path: '/shelf/anew',
    summary: 'Have the shelf folder, which is lost, written anew',
  }),
  settleOnDisk: endpoint({
    right: 'work',
    method: 'POST',
    path: '/shelf/changes',
    summary: 'Say what becomes of them',
    body: diskSettling,
  }),
  listFolders: endpoint({
    right: 'read',
    method: 'GET',
    path: '/folders',
    summary: 'All folders',
    reply: array(folder).required(),
  }),
  makeFolder: endpoint({
    right: 'work',
    method: 'POST',
    path: '/folders',
    summary: 'Make a folder, and those above it, where they are missing',
    body: newFolder,
    reply: folder,
  }),
  changeFolder: endpoint({
    right: 'work',
    method: 'PATCH',
    path: '/folders/:id',
    summary: 'Rename or move a folder',
    params: idParams,
    body: folderChange,
    reply: folder,
  }),
  deleteFolder: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/folders/:id',
    summary: 'Delete an empty folder',
    params: idParams,
  }),
};
