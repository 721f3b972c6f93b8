import { array, boolean, InferType, mixed, number, object, string } from 'yup';
import { idParams } from './basics';
import { endpoint } from './endpoint';
import { ProblemReport } from './problems';

/** What is to become of what lands in a watched folder. */
export const PURPOSES = ['sort', 'check', 'match'] as const;
export type Purpose = (typeof PURPOSES)[number];
export const purpose = string().oneOf(PURPOSES).required();

const path = string().trim().min(1, 'a folder has a path').max(4000);

export const watchedFolder = object({
  id: string().uuid().required(),
  path: path.required(),
  purpose,
  /** Files that lie in it and have not been handled. */
  waiting: number().integer().required(),
  /** What is no paper and stays where it is; the first of them. */
  left: array(string().required()).required(),
  /** What was refused and moved aside, the latest first, until somebody has seen it. */
  refused: array(object({ name: string().required(), problem: mixed<ProblemReport>().required() })).required(),
  /** Why it can't be looked into just now. */
  problem: mixed<ProblemReport>().nullable().defined(),
});
export type WatchedFolder = InferType<typeof watchedFolder>;

export const newWatchedFolder = object({
  path: path.required(),
  purpose,
  /** Whether a person has been told what lies in it, and wants it taken in. */
  confirmed: boolean().default(false),
});
export type NewWatchedFolder = InferType<typeof newWatchedFolder>;
export const watchedChange = object({ purpose });
export const placesQuery = object({ beginning: string().max(4000).defined() });

export const watchingEndpoints = {
  listWatched: endpoint({
    right: 'work',
    method: 'GET',
    path: '/watched',
    summary: 'The folders that are watched, and how many files wait in each',
    reply: array(watchedFolder).required(),
  }),
  watchFolder: endpoint({
    right: 'own',
    method: 'POST',
    path: '/watched',
    summary: 'Watch a folder of this machine: what lands in it is taken in',
    body: newWatchedFolder,
    reply: watchedFolder,
  }),
  changeWatched: endpoint({
    right: 'own',
    method: 'PATCH',
    path: '/watched/:id',
    summary: 'Change what a watched folder is for',
    params: idParams,
    body: watchedChange,
  }),
  leaveFolder: endpoint({
    right: 'own',
    method: 'DELETE',
    path: '/watched/:id',
    summary: 'Watch a folder no longer; what lies in it stays',
    params: idParams,
  }),
  forgetRefused: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/watched/:id/refused',
    summary: 'Show the files no longer that a watched folder refused; they stay where they are',
    params: idParams,
  }),
  listPlaces: endpoint({
    right: 'own',
    method: 'GET',
    path: '/watched/places',
    summary: 'Folders of this machine whose path begins as typed',
    query: placesQuery,
    reply: array(string().required()).required(),
  }),
};
