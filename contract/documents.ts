import { array, boolean, InferType, mixed, number, object, string } from 'yup';
import { BESIDES, NameValues } from '@crow/core/filing/pattern';
import { id, idParams, money, MOST_AT_ONCE, problem, share, turn, when } from './basics';
import { endpoint } from './endpoint';
import { booking, choices, fact, factChange, factLine, factName, taxAtRate } from './facts';
import { MARKS_IN_PDF } from './marks';
import { page } from './pages';
import { stackSummary } from './stacks';

export const PDF_SIZES = ['full', 'balanced', 'small'] as const;
export const pdfSize = string().oneOf(PDF_SIZES);
export type PdfSize = (typeof PDF_SIZES)[number];

/** What is kept beside the PDF. */
export const beside = array(string().oneOf(BESIDES).required()).max(BESIDES.length);

export const documentState = string()
  .oneOf(['check', 'filing', 'filed'] as const)
  .required();

export const documentSummary = object({
  id,
  stackId: string().uuid().nullable().defined(),
  state: documentState,
  name: string().defined(),
  folderId: string().uuid().nullable().defined(),
  folderPath: string().nullable().defined(),
  pages: number().integer().required(),
  /** Pages whose reading is done, whatever came of it. */
  read: number().integer().required(),
  firstPageId: id,
  firstPageTurn: turn,
  firstPageVersion: string().defined(),
  kind: string().nullable().defined(),
  vendor: string().nullable().defined(),
  date: string().nullable().defined(),
  number: string().nullable().defined(),
  /** The paper that it is about. */
  reference: string().nullable().defined(),
  dueDate: string().nullable().defined(),
  ends: string().nullable().defined(),
  /** In the smallest unit of its currency. */
  total: money.nullable().defined(),
  bytes: number().nullable().defined(),
  /** What people call it besides its name. */
  tags: array(string().required()).required(),
  filedAt: string().nullable().defined(),
  /** Whether it was taken in as the paper of an entry in the books. */
  forEntry: boolean().required(),
  createdAt: when,
  binnedAt: string().nullable().defined(),
  problem,
});
export type DocumentSummary = InferType<typeof documentSummary>;

/** A document that may be the same paper, and why. */
export const duplicate = object({
  id,
  name: string().defined(),
  state: documentState,
  folderId: string().uuid().nullable().defined(),
  why: string().required(),
});
export type Duplicate = InferType<typeof duplicate>;

/** An answer to a question about a document, with the place where it stands. */
export const answer = object({
  /** Null when nothing on the paper answers. */
  text: string().nullable().defined(),
  pageId: string().uuid().nullable().defined(),
  box: share.nullable().defined(),
});

export type DocumentAnswer = InferType<typeof answer>;

export const document = documentSummary.concat(
  object({
    stackName: string().nullable().defined(),
    /** How large its PDF is to be. */
    size: pdfSize.required(),
    beside: beside.required(),
    /** The name that the way of filing makes, for the folder that is suggested. */
    proposedName: string().defined(),
    /** The folder that it seems to belong to, which may have to be made, and why. */
    suggestion: object({ path: string().required(), reason: string().required() }).nullable().default(null).defined(),
    /** Folders that it may belong to, the likeliest first; the last one may have to be made. */
    likely: array(string().required()).required(),
    pageList: array(page).required(),
    facts: array(fact).required(),
    /** Facts that a person says it does not have, whatever was read. */
    emptied: array(factName).required(),
    /** What somebody wrote about it. */
    note: string().defined(),
    /** What it is, in a sentence or two; '' when nothing is known of it. */
    summary: string().defined(),
    lines: array(factLine.required()).required(),
    /** Tax by rate, where there are several. */
    taxes: array(taxAtRate.required()).required(),
    /** What a statement books. */
    bookings: array(booking.required()).required(),
    /** What on it does not add up, in sentences. */
    checks: array(string().required()).required(),
    duplicates: array(duplicate.required()).required(),
    archival: boolean().nullable().defined(),
    shelfPath: string().nullable().defined(),
  }),
);
export type Document = InferType<typeof document>;

export const documentVersion = object({
  number: number().integer().required(),
  until: when,
  bytes: number().required(),
  /** By whom it was signed; null for one that was only before. */
  signed: object({
    by: string().required(),
    /** What the certificate calls them; null where it is not signed digitally. */
    certified: string().nullable().defined(),
    reason: string().defined(),
  })
    .nullable()
    .defined(),
});
export type DocumentVersion = InferType<typeof documentVersion>;

const placeOnPage = object({ pageId: id, top: number().required() });
/** The outline of the PDFs that a document's pages came in, and the links on these. */
export const documentContents = object({
  outline: array(
    object({ title: string().required(), level: number().integer().required(), to: placeOnPage }).required(),
  ).required(),
  links: array(
    object({
      pageId: id,
      /** In shares of the page as it is shown. */
      box: share.required(),
      /** Elsewhere; null for a link within the document. */
      address: string().nullable().defined(),
      to: placeOnPage.nullable().defined(),
    }).required(),
  ).required(),
});
export type DocumentContents = InferType<typeof documentContents>;

const documentName = string().trim().max(300, 'a name has 300 characters at most');
export const filing = object({
  name: documentName.required(),
  size: pdfSize,
  beside: beside.default(undefined),
  /** A folder that exists, or `folderPath` for one that may have to be made. */
  folderId: string().uuid(),
  folderPath: string().trim().max(600),
});
export const documentChange = object({
  name: documentName.min(1, 'a document needs a name'),
  size: pdfSize,
  folderId: string().uuid(),
});
export const LONGEST_TAG = 60;
export const MOST_TAGS = 40;
export const LONGEST_NOTE = 4000;
/** A tag is a word or a few. */
export const tag = string()
  .trim()
  .min(1, 'a tag has a letter at least')
  .max(LONGEST_TAG, `a tag has ${LONGEST_TAG} characters at most`);
export const remark = object({
  /** Tags that it gets, and that are taken off; those that it has besides stay. */
  add: array(tag.required()).max(MOST_TAGS).default(undefined),
  remove: array(tag.required()).max(MOST_TAGS).default(undefined),
  note: string().trim().max(LONGEST_NOTE, `a note has ${LONGEST_NOTE} characters at most`),
});
export type Remark = InferType<typeof remark>;
export const documentChanges = object({
  changes: array(documentChange.shape({ id, binned: boolean() }))
    .min(1)
    .max(MOST_AT_ONCE)
    .required(),
});

/** A document to try a pattern on: what its name could be made of. */
export const nameExample = object({ id, name: string().defined(), values: mixed<NameValues>().required() });
export type NameExample = InferType<typeof nameExample>;

/** How many bytes a document's PDF has in a size; null while that is being found out. */
export const weighed = object({ size: pdfSize.required(), bytes: number().nullable().defined() });

/** Somebody who has a document before them, in Check. */
export const atWork = object({
  documentId: id,
  name: string().required(),
  /** Whether it is who asks, in another window or on another device. */
  own: boolean().required(),
});
export type AtWork = InferType<typeof atWork>;

export const documentsEndpoints = {
  listAtWork: endpoint({
    right: 'work',
    method: 'GET',
    path: '/check/at-work',
    summary: 'Who else has which document before them',
    query: object({ window: id }),
    reply: array(atWork.required()).required(),
  }),
  beAtWork: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/check/at-work',
    summary: 'Say which document a window has before it, again and again as long as it has; null for none any more',
    body: object({ window: id, document: string().uuid().nullable().defined() }),
  }),
  listWaiting: endpoint({
    right: 'work',
    method: 'GET',
    path: '/check',
    summary: 'Documents waiting to be checked, in their order',
    reply: array(documentSummary).required(),
  }),
  readDocument: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id',
    summary: 'A document with its pages and facts',
    params: idParams,
    reply: document,
  }),
  changeFact: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/documents/:id/facts/:name',
    summary: 'Set a fact by hand; an empty value takes it away',
    params: object({ id, name: factName }),
    body: factChange,
    reply: document,
  }),
  restoreFact: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/documents/:id/facts/:name',
    summary: 'Take a fact set by hand, or taken away by hand, back to what was read',
    params: object({ id, name: factName }),
    reply: document,
  }),
  listChoices: endpoint({
    right: 'work',
    method: 'GET',
    path: '/documents/:id/choices',
    summary:
      'What the first pages of a document say that its facts could be: days, sums, numbers, names, rates, currencies',
    params: idParams,
    reply: choices,
  }),
  changeTaxes: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/documents/:id/taxes',
    summary: 'Set the tax by rate by hand',
    params: idParams,
    body: object({ taxes: array(taxAtRate.required()).max(20).required() }),
    reply: document,
  }),
  fileDocument: endpoint({
    right: 'work',
    method: 'POST',
    path: '/documents/:id/file',
    summary: 'File a document under a name in a folder',
    params: idParams,
    body: filing,
    reply: documentSummary,
  }),
  filingExamples: endpoint({
    right: 'work',
    method: 'GET',
    path: '/filing/examples',
    summary: 'The documents that came last, to try patterns for names on',
    reply: array(nameExample).required(),
  }),
  documentSizes: endpoint({
    right: 'work',
    method: 'GET',
    path: '/documents/:id/sizes',
    summary: 'How many bytes a document’s PDF has in each size, as far as that is known',
    params: idParams,
    reply: array(weighed).required(),
  }),
  weighDocument: endpoint({
    right: 'work',
    method: 'POST',
    path: '/documents/:id/sizes',
    summary: 'Have it found out how many bytes a document’s PDF has in each size',
    params: idParams,
  }),
  unfileDocument: endpoint({
    right: 'work',
    method: 'POST',
    path: '/documents/:id/unfile',
    summary: 'Take a filed document back to Check',
    params: idParams,
    reply: documentSummary,
  }),
  putToBack: endpoint({
    right: 'work',
    method: 'POST',
    path: '/documents/:id/to-the-back',
    summary: 'Let a document wait behind the others',
    params: idParams,
  }),
  arrangeDocument: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/documents/:id/pages',
    summary: 'Say which pages a document has, in which order; those left out stay with its stack',
    params: idParams,
    body: object({ pages: array(id).min(1, 'a document has a page at least').max(5000).required() }),
    reply: document,
  }),
  changeDocument: endpoint({
    right: 'work',
    method: 'PATCH',
    path: '/documents/:id',
    summary: 'Rename or move a filed document',
    params: idParams,
    body: documentChange,
    reply: documentSummary,
  }),
  changeDocuments: endpoint({
    right: 'work',
    method: 'PATCH',
    path: '/documents',
    summary: 'Rename, move, bin or bring back several documents, all or none',
    body: documentChanges,
    reply: array(documentSummary).required(),
  }),
  proposedNames: endpoint({
    right: 'work',
    method: 'POST',
    path: '/documents/proposed-names',
    summary: 'The names that the ways of filing make for documents, as they are known now',
    body: object({ ids: array(id).min(1).max(MOST_AT_ONCE).required() }),
    reply: array(object({ id, name: string().defined(), proposed: string().defined() })).required(),
  }),
  remarkOnDocuments: endpoint({
    right: 'work',
    method: 'PATCH',
    path: '/documents/remarks',
    summary: 'Give documents tags, and notes',
    body: object({
      changes: array(remark.shape({ id })).min(1).max(MOST_AT_ONCE).required(),
    }),
  }),
  listTags: endpoint({
    right: 'work',
    method: 'GET',
    path: '/tags',
    summary: 'The tags that documents have, and how many have each',
    reply: array(object({ tag: string().required(), papers: number().integer().required() }).required()).required(),
  }),
  binDocument: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/documents/:id',
    summary: 'Put a document into the bin',
    params: idParams,
  }),
  bringBackDocument: endpoint({
    right: 'work',
    method: 'POST',
    path: '/documents/:id/bring-back',
    summary: 'Take a document out of the bin',
    params: idParams,
  }),
  documentPdf: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/pdf',
    summary: 'The filed PDF, with its marks, without, or with them as part of the pages',
    params: idParams,
    query: object({ marks: string().oneOf(MARKS_IN_PDF) }),
  }),
  documentText: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/text',
    summary: 'The text of a document (.txt)',
    params: idParams,
  }),
  documentTextPdf: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/text-pdf',
    summary: 'The text of a document set anew for a small screen (PDF)',
    params: idParams,
  }),
  documentEpub: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/epub',
    summary: 'The text of a document for reading devices (EPUB)',
    params: idParams,
  }),
  documentPictures: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/pictures',
    summary: 'The pages of a document as pictures: one, or a ZIP of several',
    params: idParams,
    query: object({
      as: string()
        .oneOf(['jpeg', 'png'] as const)
        .required(),
    }),
  }),
  documentLines: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/lines',
    summary: 'What a bill lists, as a spreadsheet',
    params: idParams,
    query: object({
      as: string()
        .oneOf(['csv', 'xlsx'] as const)
        .required(),
    }),
  }),
  listVersions: endpoint({
    right: 'work',
    method: 'GET',
    path: '/documents/:id/versions',
    summary: 'The PDFs that a document had before, the latest first',
    params: idParams,
    reply: array(documentVersion).required(),
  }),
  versionPdf: endpoint({
    right: 'work',
    method: 'GET',
    path: '/documents/:id/versions/:number/pdf',
    summary: 'A PDF that a document had before',
    params: object({ id, number: number().integer().required() }),
  }),
  documentContents: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/contents',
    summary: 'The outline and the links of the PDFs that a document’s pages came in',
    params: idParams,
    reply: documentContents,
  }),
  listDocuments: endpoint({
    right: 'read',
    of: 'folder',
    method: 'GET',
    path: '/folders/:id/documents',
    summary: 'The documents in a folder, or also in those inside it, the ones filed last first',
    params: idParams,
    query: object({ inside: boolean() }),
    reply: array(documentSummary).required(),
  }),
  listBin: endpoint({
    right: 'work',
    method: 'GET',
    path: '/bin',
    summary: 'What is in the bin',
    reply: object({ documents: array(documentSummary).required(), stacks: array(stackSummary).required() }),
  }),
  emptyBin: endpoint({
    right: 'own',
    method: 'DELETE',
    path: '/bin',
    summary: 'Delete everything in the bin for good',
  }),
};
