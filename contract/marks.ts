import { array, InferType, number, object, string, tuple } from 'yup';
import { INKS, MARK_KINDS } from '@crow/core/pdf/marks/mark';
import { id, idParams, when } from './basics';
import { endpoint } from './endpoint';

/** Nothing lies farther from the corner of a page than this, in points: PDF's own limit. */
const FARTHEST = 14_400;
const measure = number().min(-FARTHEST).max(FARTHEST).required();
const box = tuple([measure, measure, measure, measure]).required();
/** So many places has a line that was drawn at most; a longer one is several. */
export const LONGEST_STROKE = 4000;
/** How wide lines are, in points. */
export const [THINNEST_STROKE, WIDEST_STROKE] = [0.1, 60];
const strokes = array(
  array(tuple([measure, measure, number().min(THINNEST_STROKE).max(WIDEST_STROKE).required()]).required())
    .min(1)
    .max(LONGEST_STROKE)
    .required(),
)
  .max(500)
  .required();
const markText = string().max(4000, 'a mark has 4000 characters at most').defined();

/** A mark as it is put on a page; measures in points on the page as it is shown. */
export const newMark = object({
  id,
  pageId: id,
  kind: string().oneOf(MARK_KINDS).required(),
  ink: string().oneOf(INKS).required(),
  boxes: array(box).min(1, 'a mark has a place').max(2000).required(),
  strokes,
  text: markText,
});
export type NewMark = InferType<typeof newMark>;

export const shownMark = newMark.concat(
  object({
    by: string().defined(),
    at: when,
    replies: array(object({ by: string().defined(), at: when, text: string().required() }).required()).required(),
  }),
);
export type ShownMark = InferType<typeof shownMark>;

/** A signature that somebody keeps: drawn, its lines as shares of its box, or in letters. */
export const signature = object({
  id,
  text: string().max(120).defined(),
  strokes,
  /** How wide it is for its height. */
  shape: number().min(0.1).max(30).required(),
});
export type Signature = InferType<typeof signature>;

/** What a PDF that is given out has of the marks: as annotations, none, or as part of its pages. */
export const MARKS_IN_PDF = ['with', 'without', 'flat'] as const;
export type MarksInPdf = (typeof MARKS_IN_PDF)[number];

export const marksEndpoints = {
  listMarks: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/marks',
    summary: 'What is marked on the pages of a document',
    params: idParams,
    reply: array(shownMark.required()).required(),
  }),
  changeMarks: endpoint({
    right: 'work',
    method: 'PATCH',
    path: '/documents/:id/marks',
    summary: 'Put marks on the pages of a document, change or remove them; all or none',
    params: idParams,
    body: object({
      put: array(newMark.required()).max(1000).required(),
      remove: array(id).max(1000).required(),
    }),
    reply: array(shownMark.required()).required(),
  }),
  replyToMark: endpoint({
    right: 'work',
    method: 'POST',
    path: '/documents/:id/marks/:mark/replies',
    summary: 'Answer to a mark',
    params: object({ id, mark: id }),
    body: object({ text: string().trim().min(1, 'an answer needs words').max(4000).required() }),
    reply: array(shownMark.required()).required(),
  }),
  listSignatures: endpoint({
    right: 'work',
    method: 'GET',
    path: '/signatures',
    summary: 'The signatures that whoever asks keeps; nobody else sees them',
    reply: array(signature.required()).required(),
  }),
  keepSignature: endpoint({
    right: 'work',
    method: 'POST',
    path: '/signatures',
    summary: 'Keep a signature',
    body: signature,
    reply: array(signature.required()).required(),
  }),
  forgetSignature: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/signatures/:id',
    summary: 'Keep a signature no longer',
    params: idParams,
  }),
};
