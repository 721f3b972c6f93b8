import { array, InferType, object, string } from 'yup';
import { HIDEABLE } from '@crow/core/finding/placesToHide';
import { id, idParams, share } from './basics';
import { endpoint } from './endpoint';

/** A place on a page, in shares of it, and what stands there. */
export const hidingPlace = object({ pageId: id, box: share, text: string().defined() });
export type HidingPlace = InferType<typeof hidingPlace>;

/** So many areas can be hidden in one copy. */
export const MOST_HIDDEN = 5000;

export const sendingEndpoints = {
  placesToHide: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/hideable',
    summary: 'Where all accounts, or all amounts, stand in a document',
    params: idParams,
    query: object({ what: string().oneOf(HIDEABLE).required() }),
    reply: array(hidingPlace.required()).required(),
  }),
  copyWithHidden: endpoint({
    right: 'read',
    of: 'document',
    method: 'POST',
    path: '/documents/:id/hidden-copy',
    summary: 'A copy of a document (PDF) in which areas of its pages are hidden for good',
    params: idParams,
    body: object({
      areas: array(object({ pageId: id, box: share }).required())
        .min(1, 'nothing is to be hidden')
        .max(MOST_HIDDEN)
        .required(),
    }),
  }),
};
