import { array, boolean, InferType, object, string } from 'yup';
import { HIDEABLE } from '@crow/core/finding/placesToHide';
import { id, idParams, share } from './basics';
import { endpoint } from './endpoint';
import { MARKS_IN_PDF } from './marks';

/** A place on a page, in shares of it, and what stands there. */
export const hidingPlace = object({ pageId: id, box: share, text: string().defined() });
export type HidingPlace = InferType<typeof hidingPlace>;

/** So many areas can be hidden in one copy. */
export const MOST_HIDDEN = 5000;

/** So many papers are copied in one go. */
export const MOST_COPIES = 200;
const MOST_TEXT = 20_000;

/** Copies of papers as PDFs: which, in which form, and whether as a mail that opens in the mail program. */
export const copyWish = object({
  ids: array(id).min(1).max(MOST_COPIES).required(),
  /** Each by itself, or all in one PDF, in the order named. */
  form: string()
    .oneOf(['each', 'merged'] as const)
    .required(),
  marks: string().oneOf(MARKS_IN_PDF).required(),
  /** What opens them; '' for nothing. */
  password: string()
    .max(120, 'a password has 120 characters at most')
    .matches(/^[^\r\n]*$/, 'a password has one line')
    .defined(),
  mayPrint: boolean().required(),
  mail: object({
    to: string()
      .trim()
      .max(1000)
      // No line of the mail's head is written by what stands in another.
      .matches(/^[^\r\n]*$/, 'an address has one line')
      .defined(),
    subject: string()
      .trim()
      .max(300)
      .matches(/^[^\r\n]*$/, 'a subject has one line')
      .defined(),
    text: string().max(MOST_TEXT).defined(),
  })
    .nullable()
    .default(null)
    .defined(),
});
export type CopyWish = InferType<typeof copyWish>;

export const sendingEndpoints = {
  makeCopies: endpoint({
    right: 'read',
    method: 'POST',
    path: '/copies',
    summary: 'Copies of papers: a PDF, a ZIP of several, or a mail (.eml) that holds them',
    body: copyWish,
  }),
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
