import { array, boolean, InferType, number, object, string } from 'yup';
import { id, idParams, share } from './basics';
import { answer, documentSummary } from './documents';
import { endpoint } from './endpoint';

export const foundLine = object({
  pageId: id,
  pageNumber: number().integer().required(),
  /** The line of the page, in pieces; pieces that match the query are marked. */
  pieces: array(object({ text: string().required(), hit: boolean().required() })).required(),
});
export const foundDocument = object({
  document: documentSummary,
  hits: number().integer().required(),
  /** Pages that match beside those on which the hits were counted. */
  morePages: number().integer().required(),
  lines: array(foundLine).required(),
});
export type FoundDocument = InferType<typeof foundDocument>;
export const FIND_ORDERS = ['best', 'newest', 'oldest', 'most'] as const;
/** Most hits first; by the date on the paper; or the highest total first. */
export const findOrder = string().oneOf(FIND_ORDERS);
export type FindOrder = (typeof FIND_ORDERS)[number];

export const findReply = object({
  found: array(foundDocument).required(),
  more: boolean().required(),
  /** Spellings that were searched as well, because nothing or little matches as typed. */
  alsoSearched: array(string().required()).required(),
  /** Stacks that are still to be sorted and hold it, with the number of their pages that do. */
  inSort: array(object({ id, name: string().required(), pages: number().integer().required() }).required()).required(),
});
export type FindReply = InferType<typeof findReply>;
export const hit = object({
  pageId: id,
  pageNumber: number().integer().required(),
  boxes: array(share.required()).required(),
});
export type Hit = InferType<typeof hit>;

/** A search that somebody keeps. */
export const keptSearch = object({ id, query: string().required() });
export type KeptSearch = InferType<typeof keptSearch>;

export const findingEndpoints = {
  listSearches: endpoint({
    right: 'work',
    method: 'GET',
    path: '/searches',
    summary: 'The searches that whoever asks keeps',
    reply: array(keptSearch.required()).required(),
  }),
  keepSearch: endpoint({
    right: 'work',
    method: 'POST',
    path: '/searches',
    summary: 'Keep a search',
    body: object({ query: string().trim().min(1, 'nothing is looked for').max(300).required() }),
    reply: array(keptSearch.required()).required(),
  }),
  forgetSearch: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/searches/:id',
    summary: 'Keep a search no longer',
    params: idParams,
  }),
  askDocument: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/answer',
    summary: 'Answers a plain question about a document from its facts and text',
    params: idParams,
    query: object({ q: string().trim().min(1).max(300).required() }),
    reply: answer,
  }),
  documentHits: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/hits',
    summary: 'Where a query is found in a document',
    params: idParams,
    query: object({ q: string().max(300).required() }),
    reply: array(hit).required(),
  }),
  find: endpoint({
    right: 'read',
    method: 'GET',
    path: '/find',
    summary: 'Documents with a page that holds all words of a query',
    query: object({
      q: string().max(300).required(),
      sort: findOrder,
      most: number().integer().min(1).max(300),
    }),
    reply: findReply,
  }),
};
