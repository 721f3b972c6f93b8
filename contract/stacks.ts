import { array, boolean, InferType, number, object, string } from 'yup';
import { LONGEST_FOLDER } from '@crow/core/sorting/divider';
import { id, idParams, problem, turn, when } from './basics';
import { endpoint } from './endpoint';
import { kinds } from './facts';
import { page } from './pages';
import { FINISH, UPLOADS } from './uploads';

export const sourceFile = object({
  id,
  name: string().required(),
  /** The number in which it was sent. */
  position: number().integer().required(),
  bytes: number().required(),
  state: string()
    .oneOf(['waiting', 'taken', 'refused'] as const)
    .required(),
  pages: number().integer().required(),
  problem,
});
export type SourceFile = InferType<typeof sourceFile>;

export const stackSummary = object({
  id,
  name: string().required(),
  state: string()
    .oneOf(['open', 'sorted'] as const)
    .required(),
  createdAt: when,
  files: array(sourceFile).required(),
  /** Whether it goes to Check by itself once its pages are there. */
  onward: boolean().required(),
  pages: number().integer().required(),
  read: number().integer().required(),
  failed: number().integer().required(),
  /** Into how many documents it is cut, and how many gaps somebody should look at. */
  documents: number().integer().required(),
  doubtful: number().integer().required(),
  readingStopped: boolean().required(),
  firstPages: array(object({ id, turn, version: string().defined() })).required(),
});
export type StackSummary = InferType<typeof stackSummary>;

export const stack = stackSummary.concat(
  object({
    pageList: array(page).required(),
    step: number().integer().required(),
    canUndo: boolean().required(),
    canRedo: boolean().required(),
  }),
);
export type Stack = InferType<typeof stack>;

const placed = object({
  id,
  cutBefore: boolean().required(),
  cutDecided: boolean().required(),
  turn,
  version: string().max(40).defined(),
  dropped: boolean().required(),
  dropDecided: boolean().required(),
});

export const arrangementChange = object({
  /** The step that the change builds on; another one means that somebody else changed the stack meanwhile. */
  base: number().integer().min(0).required(),
  pages: array(placed).min(1).max(5000).required(),
});

export const pagesMove = object({
  pages: array(id).min(1).max(5000).required(),
  /** What the stack is called if it has to be made. */
  name: string().trim().min(1).max(300),
  /** How the stack lies with them; at its end, as documents of their own, without. */
  arrangement: array(placed).max(5000),
});

/** How fronts and backs that were scanned one after the other belong together. */
export const weaving = object({
  /** All sides in the order of the pile. */
  pages: array(id).required(),
  backs: array(id).required(),
  sheets: number().integer().required(),
  /** Whether the backs lay from the last sheet to the first. */
  reversed: boolean().required(),
  /** Sides that were not found, in words. */
  missing: array(string().required()).required(),
});
export type Weaving = InferType<typeof weaving>;

/** At which side books are bound: at the left one is read from left to right, at the right from right to left. */
export const BINDINGS = ['left', 'right'] as const;
export type Binding = (typeof BINDINGS)[number];

/** What is said of a file that is sent, in its metadata. */
export const arrival = object({
  stack: string().uuid().required(),
  file: string().uuid().required(),
  stackName: string().max(300).required(),
  name: string().max(500).required(),
  position: number().integer().min(0).max(1_000_000).required(),
  /** Before which page its pages go, or of which page they are another capture; to the end of the stack without. */
  before: string().uuid(),
  again: string().uuid(),
  /** The document that they go into. */
  document: string().uuid(),
  /** At which side the book is bound of which it is a picture from above: an open one gives two pages. Pictures that have waited since before there was a choice say "true". */
  bound: string<Binding>()
    .transform((said) => (said === 'true' ? 'left' : said))
    .oneOf(BINDINGS),
});
export type Arrival = InferType<typeof arrival>;

export const stacksEndpoints = {
  sendFile: endpoint({
    right: 'capture',
    method: 'POST',
    path: UPLOADS,
    summary:
      'Begin to send a file, by the tus protocol 1.0.0; what it is is said in Upload-Metadata, and a file that has come already is not kept twice',
    takesBytes: true,
  }),
  sendPiece: endpoint({
    right: 'capture',
    method: 'PATCH',
    path: `${UPLOADS}/:upload`,
    summary: 'Go on with a file; HEAD tells how far it has come, DELETE forgets it',
    params: object({ upload: string().max(100).required() }),
    takesBytes: true,
  }),
  dividerSheets: endpoint({
    right: 'work',
    method: 'GET',
    path: '/dividers',
    summary: 'Divider sheets to be printed (PDF)',
    query: object({
      /** Path of the folder, and kind, of the document behind each. */
      folder: string().trim().max(LONGEST_FOLDER, 'the path of the folder is too long for a divider sheet'),
      kind: string().oneOf(kinds),
      copies: number().integer().min(1).max(100).default(1),
    }),
  }),
  listStacks: endpoint({
    right: 'capture',
    method: 'GET',
    path: '/stacks',
    summary: 'Stacks not yet sorted, newest first',
    reply: array(stackSummary).required(),
  }),
  readStack: endpoint({
    right: 'capture',
    of: 'stack',
    method: 'GET',
    path: '/stacks/:id',
    summary: 'A stack with its pages',
    params: idParams,
    reply: stack,
  }),
  arrangeStack: endpoint({
    right: 'capture',
    of: 'stack',
    method: 'POST',
    path: '/stacks/:id/arrangement',
    summary: 'Cut, move, turn or drop pages',
    params: idParams,
    body: arrangementChange,
    reply: stack,
  }),
  movePages: endpoint({
    right: 'work',
    method: 'POST',
    path: '/stacks/:id/pages',
    summary: 'Lay pages of other stacks into this one',
    params: idParams,
    body: pagesMove,
  }),
  weaveStacks: endpoint({
    right: 'work',
    method: 'POST',
    path: '/stacks/:id/weaving',
    summary: 'Lay the backs in another stack behind the fronts in this one',
    params: idParams,
    body: object({ backs: id }),
    reply: weaving,
  }),
  showWeaving: endpoint({
    right: 'work',
    method: 'GET',
    path: '/stacks/:id/weaving',
    summary: 'How the backs in another stack belong to the fronts in this one',
    params: idParams,
    query: object({ backs: id }),
    reply: weaving,
  }),
  undoStack: endpoint({
    right: 'capture',
    of: 'stack',
    method: 'POST',
    path: '/stacks/:id/undo',
    summary: 'Undo the last change of the arrangement',
    params: idParams,
    reply: stack,
  }),
  redoStack: endpoint({
    right: 'capture',
    of: 'stack',
    method: 'POST',
    path: '/stacks/:id/redo',
    summary: 'Do the change again that was undone',
    params: idParams,
    reply: stack,
  }),
  sortStack: endpoint({
    right: 'work',
    method: 'POST',
    path: '/stacks/:id/documents',
    summary: 'Make the documents; they go to Check',
    params: idParams,
    reply: object({ documents: array(id).required() }),
  }),
  finishStack: endpoint({
    right: 'work',
    method: 'POST',
    path: FINISH,
    summary: 'Say that a stack is one document, which goes to Check as soon as all of its pages are there',
    params: idParams,
  }),
  unsortStack: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/stacks/:id/documents',
    summary: 'Take the documents of a sorted stack that still wait in Check back to the light table',
    params: idParams,
    reply: object({ stack: id }),
  }),
  stopReading: endpoint({
    right: 'work',
    method: 'POST',
    path: '/stacks/:id/reading/stop',
    summary: 'Stop reading the pages of a stack',
    params: idParams,
  }),
  startReading: endpoint({
    right: 'work',
    method: 'POST',
    path: '/stacks/:id/reading/start',
    summary: 'Read the pages that were stopped or failed',
    params: idParams,
  }),
  deleteStack: endpoint({
    right: 'capture',
    of: 'stack',
    method: 'DELETE',
    path: '/stacks/:id',
    summary: 'Put a stack into the bin',
    params: idParams,
  }),
  bringBackStack: endpoint({
    right: 'capture',
    of: 'stack',
    method: 'POST',
    path: '/stacks/:id/bring-back',
    summary: 'Take a stack out of the bin',
    params: idParams,
  }),
  dismissFile: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/files/:id',
    summary: 'Discard a file that could not be taken in',
    params: idParams,
  }),
  unlockFile: endpoint({
    right: 'work',
    method: 'POST',
    path: '/files/:id/password',
    summary: 'Take in a PDF that is locked, with its password, which is kept nowhere',
    params: idParams,
    body: object({ password: string().min(1).max(500).required() }),
  }),
  originalFile: endpoint({
    right: 'work',
    method: 'GET',
    path: '/files/:id/original',
    summary: 'A file as it came',
    params: idParams,
  }),
};
