import { array, boolean, InferType, number, object, string } from 'yup';
import { kinds } from './facts';
import { id, idParams, MOST_AT_ONCE, when } from './basics';
import { endpoint } from './endpoint';

/** So long a name fits on a label. */
export const LONGEST_PLACE = 60;
const placeName = string()
  .trim()
  .max(LONGEST_PLACE, `a place has a name of ${LONGEST_PLACE} characters at most`)
  .matches(/^[^\r\n]*$/, 'a name has one line');

/** A box or a binder. */
export const place = object({
  id,
  name: string().required(),
  /** Whether sheets of what is filed now go there. */
  takes: boolean().required(),
  /** Not chosen any more; what lies in it stays there. */
  retired: boolean().required(),
});
export type Place = InferType<typeof place>;

export const SHEET_STATES = ['keep', 'may go', 'gone', 'none'] as const;
export const SHEET_WISHES = ['keep', 'may go'] as const;

export const sheet = object({
  documentId: id,
  name: string().defined(),
  folderId: string().uuid().nullable().defined(),
  folderPath: string().nullable().defined(),
  kind: string().oneOf(kinds).required(),
  vendor: string().nullable().defined(),
  /** The day that it bears, or on which it was filed (ISO 8601). */
  day: string().required(),
  placeId: string().uuid().nullable().defined(),
  /** What becomes of the sheet; 'none' for what came as a file and never was one. */
  state: string().oneOf(SHEET_STATES).required(),
  /** For one that is kept: the first day on which it may go; null for never. */
  mayGoFrom: string().nullable().defined(),
  /** For one that might go today: what keeps its file from standing for it, as sentences; nothing when it is proven. */
  faults: array(string().required()).required(),
  /** Why, and what says so. */
  why: string().required(),
  source: string().defined(),
  /** What somebody said, whatever the rules say. */
  said: string().oneOf(SHEET_WISHES).nullable().defined(),
  /** The last day on which the file must be kept; null where nothing asks for it. */
  fileUntil: string().nullable().defined(),
  goneAt: when.nullable().defined(),
  goneBy: string().nullable().defined(),
});
export type Sheet = InferType<typeof sheet>;

export const sheets = object({
  places: array(place.required()).required(),
  sheets: array(sheet.required()).required(),
  /** When files were last compared with the database; null for never. */
  comparedAt: when.nullable().defined(),
  /** Whether they are being compared. */
  comparing: boolean().required(),
  /** The archive that was looked through last. */
  archive: object({ name: string().defined(), at: when, papers: number().integer().required() }).nullable().defined(),
});
export type Sheets = InferType<typeof sheets>;

export const keepingEndpoints = {
  listSheets: endpoint({
    right: 'work',
    method: 'GET',
    path: '/sheets',
    summary: 'What becomes of the sheets of all papers on the shelf, and why',
    reply: sheets,
  }),
  changeSheets: endpoint({
    right: 'work',
    method: 'POST',
    path: '/sheets',
    summary: 'Say where sheets lie, what is to become of them, or that they are gone',
    body: object({
      ids: array(id).min(1).max(MOST_AT_ONCE).required(),
      placeId: string().uuid().nullable(),
      said: string().oneOf(SHEET_WISHES).nullable(),
      /** Only those that may go can be gone; taking it back is always possible. */
      gone: boolean(),
    }),
  }),
  readSheet: endpoint({
    right: 'work',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/sheet',
    summary: 'What becomes of the sheet of a paper',
    params: idParams,
    reply: object({ sheet: sheet.nullable().defined(), places: array(place.required()).required() }),
  }),
  makePlace: endpoint({
    right: 'work',
    method: 'POST',
    path: '/places',
    summary: 'Add a box or a binder',
    body: object({ name: placeName.required('a place needs a name') }),
    reply: place,
  }),
  changePlace: endpoint({
    right: 'work',
    method: 'PATCH',
    path: '/places/:id',
    summary: 'Rename a box or a binder, retire it, or have sheets of what is filed now go there',
    params: idParams,
    body: object({ name: placeName, takes: boolean(), retired: boolean() }),
    reply: place,
  }),
  placeLabels: endpoint({
    right: 'work',
    method: 'GET',
    path: '/places/labels',
    summary: 'Labels for boxes and binders that are still in use, to be printed (PDF)',
    query: object({ id: string().uuid() }),
  }),
  compareFiles: endpoint({
    right: 'work',
    method: 'POST',
    path: '/sheets/compare',
    summary: 'Compare the files on disk with what the database has, byte by byte',
  }),
  lookThroughArchive: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/sheets/archive',
    summary: 'Look through an archive of the shelf for papers that are in it as they are on the shelf',
    query: object({ name: string().max(500).required() }),
    takesBytes: true,
    reply: object({
      /** How many papers in it are as they are on the shelf, how many are otherwise, and how many of the shelf's are not in it. */
      same: number().integer().required(),
      different: number().integer().required(),
      missing: number().integer().required(),
    }),
  }),
};
