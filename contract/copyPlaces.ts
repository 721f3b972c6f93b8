import { array, boolean, InferType, mixed, number, object, string } from 'yup';
import { id, idParams, when } from './basics';
import { endpoint } from './endpoint';
import { ProblemReport } from './problems';
import { MOST_COPIES } from './sending';

/** Of what copies lie there: everything, a folder with those in it, or some papers. */
export const COPY_SCOPES = ['shelf', 'folder', 'papers'] as const;
export type CopyScope = (typeof COPY_SCOPES)[number];

/** A folder of this machine, or of a drive, that has copies of filed PDFs. */
export const copyPlace = object({
  id,
  path: string().required(),
  scope: string().oneOf(COPY_SCOPES).required(),
  /** What of the shelf it has: the path of the folder, or how many papers; '' for everything, or for a folder that is no more. */
  of: string().defined(),
  /** Whether what changes on the shelf changes there. */
  keep: boolean().required(),
  /** How many copies lie there, of how many. */
  copies: number().integer().required(),
  wanted: number().integer().required(),
  /** When it was last seen to be as the shelf is; null while copies are on their way. */
  agreed: when.nullable(),
  /** Copies that somebody changed there, and names that something else has: they were left alone. The first of them. */
  left: array(string().required()).required(),
  /** Why nothing can be written there just now. */
  problem: mixed<ProblemReport>().nullable().defined(),
});
export type CopyPlace = InferType<typeof copyPlace>;

export const newCopyPlace = object({
  path: string().trim().min(1, 'a folder has a path').max(4000).required(),
  /** The folder of the shelf; null where papers are named, or everything is meant. */
  folderId: string().uuid().nullable().default(null),
  documentIds: array(id).min(1).max(MOST_COPIES).nullable().default(null),
  keep: boolean().required(),
}).test('one', 'copies are of a folder or of papers', ({ folderId, documentIds }) => !folderId || !documentIds);
export type NewCopyPlace = InferType<typeof newCopyPlace>;

export const copyPlacesEndpoints = {
  listCopyPlaces: endpoint({
    right: 'work',
    method: 'GET',
    path: '/copy-places',
    summary: 'The folders of this machine that have copies of filed PDFs, and whether they are as the shelf is',
    reply: array(copyPlace.required()).required(),
  }),
  addCopyPlace: endpoint({
    right: 'own',
    method: 'POST',
    path: '/copy-places',
    summary: 'Copy filed PDFs into a folder of this machine, once or kept in step with the shelf',
    body: newCopyPlace,
    reply: copyPlace,
  }),
  agreeCopyPlace: endpoint({
    right: 'work',
    method: 'POST',
    path: '/copy-places/:id/again',
    summary: 'Look at such a folder now, and put right what is not as on the shelf',
    params: idParams,
  }),
  leaveCopyPlace: endpoint({
    right: 'own',
    method: 'DELETE',
    path: '/copy-places/:id',
    summary: 'Keep such a folder in step no longer; the copies stay there',
    params: idParams,
  }),
};
