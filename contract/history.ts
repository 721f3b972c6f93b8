import { array, InferType, mixed, number, object, string } from 'yup';
import { idParams, when } from './basics';
import { endpoint } from './endpoint';

/** Something that somebody did. */
export const deed = object({
  /** Grows with time. */
  id: number().integer().required(),
  at: when,
  who: string().required(),
  /** What was done to what, as codes: the sentence is made where it is shown. */
  action: string().required(),
  subject: string().required(),
  subjectId: string().nullable().defined(),
  /** What the subject is called now; null for what is gone, or has no name. */
  named: string().nullable().defined(),
  detail: mixed<Record<string, unknown>>().required(),
});
export type Deed = InferType<typeof deed>;

export const DEEDS_AT_ONCE = 100;

export const historyEndpoints = {
  listHistory: endpoint({
    right: 'own',
    method: 'GET',
    path: '/history',
    summary: 'Who did what, the latest first, a hundred at a time',
    query: object({
      /** Only what was done before this one. */
      before: number().integer().min(1),
      /** Only what one person, device or the program did. */
      who: string().uuid(),
    }),
    reply: array(deed.required()).required(),
  }),
  documentHistory: endpoint({
    right: 'work',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/history',
    summary: 'Who did what to a document, its pages and the files that they came in, the latest first',
    params: idParams,
    reply: array(deed.required()).required(),
  }),
};
