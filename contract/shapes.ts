import { array, boolean, InferType, mixed, number, object, string, tuple } from 'yup';
import { Turn } from '@crow/core/geometry';
import { Legibility } from '@crow/core/imaging/legibility';
import { LOOKS } from '@crow/core/imaging/looks';
import { Recipe } from '@crow/core/imaging/recipe';
import { BESIDES, NameValues, patternProblem } from '@crow/core/filing/pattern';
import { DAY_FORMS } from '@crow/core/reading/dayForms';
import { KINDS } from '@crow/core/reading/facts/fact';
import { ProblemReport } from './problems';

/** The shapes of what goes to and fro, as Yup schemas, and the types inferred from them. */

export const id = string().uuid('must be an identifier').required();
export const idParams = object({ id });

export const turn = number<Turn>().oneOf([0, 90, 180, 270]).required();
/** [x, y, width, height] as shares (0 to 1) of the page's width and height. */
export const share = tuple([number().required(), number().required(), number().required(), number().required()]);
export const problem = mixed<ProblemReport>().nullable().defined();
const when = string().required();

const point = tuple([number().required(), number().required()]);
/** What is done to a picture to make a page of it; see core/imaging/recipe. Places in shares of the picture or the page. */
export const recipe = object({
  /** May lie a little outside the picture. */
  corners: array(point.required()).length(4, 'an outline has four corners').nullable().defined(),
  angle: number().min(-45).max(45).required(),
  look: string().oneOf(LOOKS).required(),
  paper: tuple([number().min(20).max(6000).required(), number().min(20).max(6000).required()]).required(),
  marks: array(
    object({
      points: array(point.required()).min(1).max(4000).required(),
      radius: number().min(0.0005).max(0.5).required(),
    }),
  )
    .max(300)
    .required(),
});

/** A page as it is shown: its picture's size, turned as it lies. */
export const page = object({
  id,
  /** The file that it came from, and its place in it, from 1: the same for all sheets in one picture. */
  fileId: id,
  fileName: string().required(),
  fileNumber: number().integer().required(),
  width: number().required(),
  height: number().required(),
  /** Size in points as shown. */
  pointWidth: number().required(),
  pointHeight: number().required(),
  turn,
  dropped: boolean().required(),
  dropDecided: boolean().required(),
  cutBefore: boolean().required(),
  /** Whether a person has decided about the cut before it; otherwise it follows what is proposed. */
  cutDecided: boolean().required(),
  /** What is proposed for the gap before it; null for the first page and for blank ones. */
  proposal: object({
    chance: number().min(0).max(1).required(),
    sure: boolean().required(),
    why: array(string().required()).required(),
  })
    .nullable()
    .defined(),
  blank: boolean().required(),
  /** What it says, where it is a divider sheet. */
  divider: object({ folder: string().nullable().defined(), kind: string().oneOf(KINDS).nullable().defined() })
    .nullable()
    .defined(),
  /** What kind of paper it looks like by itself, and who from, as far as that is known. */
  glance: object({ kind: string().oneOf(KINDS).nullable().defined(), who: string().nullable().defined() })
    .nullable()
    .defined(),
  /** Which recipe it is made by; empty when it is its picture as it is. */
  version: string().defined(),
  recipe: mixed<Recipe>().nullable().defined(),
  /** How sure its outline is; null while nobody has looked. */
  confidence: number().nullable().defined(),
  legibility: mixed<Legibility>().nullable().defined(),
  /** Whether its picture is shown only as far as it could be decoded. */
  damaged: boolean().required(),
  /** Whether a person found it good enough as it is, whatever its legibility. */
  waved: boolean().required(),
  /** The page of which it is another capture. */
  againOf: string().uuid().nullable().defined(),
  /** Whether its small and screen-sized pictures are made. */
  pictured: boolean().required(),
  reading: string()
    .oneOf(['waiting', 'read', 'stopped', 'failed'] as const)
    .required(),
  problem,
});
export type Page = InferType<typeof page>;

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

export const FACT_NAMES = [
  'kind',
  'vendor',
  'subject',
  'date',
  'number',
  'dueDate',
  'net',
  'taxRate',
  'tax',
  'total',
  'amountDue',
  'currency',
  'period',
  'reference',
] as const;
export const factName = string().oneOf(FACT_NAMES).required();
export type FactName = InferType<typeof factName>;
export const fact = object({
  name: factName,
  value: string().required(),
  pageId: string().uuid().nullable().defined(),
  box: share.nullable().defined(),
  confidence: number().required(),
  confirmed: boolean().required(),
  /** Who set it: the name of a person, or null for the reading. */
  by: string().nullable().defined(),
  /** Why it is taken for this, in a few words. */
  why: string().nullable().defined(),
  /** Whether a misread figure was put right because only so everything adds up. */
  repaired: boolean().required(),
});
export type Fact = InferType<typeof fact>;
export const factChange = object({
  value: string().trim().max(300, 'a fact has 300 characters at most').defined(),
  pageId: string().uuid().nullable(),
  box: share.nullable(),
});

export const PDF_SIZES = ['full', 'balanced', 'small'] as const;
export const pdfSize = string().oneOf(PDF_SIZES);
export type PdfSize = (typeof PDF_SIZES)[number];

/** What is kept beside the PDF. */
const beside = array(string().oneOf(BESIDES).required()).max(BESIDES.length);

export const documentState = string()
  .oneOf(['check', 'filing', 'filed'] as const)
  .required();

export const documentSummary = object({
  id,
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
  bytes: number().nullable().defined(),
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

/** What a bill lists; money in units of its currency. */
export const factLine = object({
  description: string().defined(),
  quantity: number().nullable().defined(),
  unitPrice: number().nullable().defined(),
  amount: number().required(),
});

/** Tax at one rate, in percent. */
export const taxAtRate = object({
  rate: number().required(),
  net: number().nullable().defined(),
  tax: number().required(),
});

export const document = documentSummary.concat(
  object({
    stackId: string().uuid().nullable().defined(),
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
    /** What it is, in a sentence or two; '' when nothing is known of it. */
    summary: string().defined(),
    lines: array(factLine.required()).required(),
    /** Tax by rate, where there are several. */
    taxes: array(taxAtRate.required()).required(),
    /** What on it does not add up, in sentences. */
    checks: array(string().required()).required(),
    duplicates: array(duplicate.required()).required(),
    archival: boolean().nullable().defined(),
    shelfPath: string().nullable().defined(),
  }),
);
export type Document = InferType<typeof document>;

export const pageText = object({
  width: number().required(),
  height: number().required(),
  language: string().defined(),
  /** As text, x, y, width, height, confidence, line, baseline. */
  words: array(mixed<[string, number, number, number, number, number, number, number]>().required()).required(),
  /** Where something is written by hand that was not read. */
  handwriting: array(share.required()).required(),
});

/** A word that may be misread; boxes in shares of the page. */
export const doubtful = object({
  pageId: id,
  /** Its place among the words of the page. */
  index: number().integer().required(),
  text: string().defined(),
  box: share.required(),
  /** The rest of its line. */
  before: string().defined(),
  after: string().defined(),
  lineBox: share.required(),
});
export type Doubtful = InferType<typeof doubtful>;

export const wordChanges = object({
  changes: array(
    object({
      index: number().integer().min(0).required(),
      was: string().defined(),
      /** Nothing for what is no text. */
      text: string().trim().max(200, 'a word has 200 characters at most').defined(),
    }),
  )
    .min(1)
    .max(1000)
    .required(),
});

export const documentVersion = object({
  number: number().integer().required(),
  until: when,
  bytes: number().required(),
});
export type DocumentVersion = InferType<typeof documentVersion>;

export const folder = object({
  id,
  parentId: string().uuid().nullable().defined(),
  name: string().required(),
  /** The names from the top, joined by slashes. */
  path: string().required(),
  documents: number().integer().required(),
  /** Documents in it and in all folders in it. */
  inside: number().integer().required(),
});
export type Folder = InferType<typeof folder>;

const folderName = string()
  .trim()
  .min(1, 'a folder needs a name')
  .max(120, 'a folder’s name has 120 characters at most');

export const newFolder = object({ path: string().trim().min(1, 'a folder needs a name').max(600).required() });
export const folderChange = object({ name: folderName, parentId: string().uuid().nullable() });

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
/** So many documents can be changed at once. */
export const MOST_AT_ONCE = 1000;
export const documentChanges = object({
  changes: array(documentChange.shape({ id, binned: boolean() }))
    .min(1)
    .max(MOST_AT_ONCE)
    .required(),
});

/**
 * What becomes of a document whose file somebody changed, moved or took away: as it is on disk now, as it was filed, or, of a
 * changed file, a paper of its own.
 */
export const DISK_CHOICES = ['as-on-disk', 'as-filed', 'new-paper'] as const;
export const diskSettling = object({
  ids: array(id).min(1).max(MOST_AT_ONCE).required(),
  choice: string().oneOf(DISK_CHOICES).required(),
});
export type DiskChoice = (typeof DISK_CHOICES)[number];

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

export const overview = object({
  stacks: number().integer().required(),
  arriving: number().integer().required(),
  /** Files in watched folders that are not yet taken in. */
  watched: number().integer().required(),
  check: number().integer().required(),
  filing: number().integer().required(),
  filed: number().integer().required(),
  unread: number().integer().required(),
  /** Documents whose files in the shelf folder somebody changed, moved or took away. */
  changedOnDisk: number().integer().required(),
  /** Files that somebody put into the shelf folder. */
  strangers: number().integer().required(),
  /** What keeps everything from going on: a disk that is full, a drive that is gone. */
  troubles: array(mixed<ProblemReport>().required()).required(),
});
export type Overview = InferType<typeof overview>;

const pattern = string()
  .max(300, 'a pattern has 300 characters at most')
  .test(
    'pattern',
    ({ value }) => patternProblem(value as string) ?? '',
    (value) => value === undefined || !patternProblem(value),
  );
export const filingWay = object({
  name: string().trim().min(1, 'a way of filing needs a name').max(60).required(),
  pattern: pattern.required(),
  folder: string().trim().max(600).nullable().defined(),
  kinds: array(string().oneOf(KINDS).required()).required(),
  within: string().trim().max(600).nullable().defined(),
  size: pdfSize.required(),
  beside: beside.default([]),
});

/** The recogniser's code of a language: ISO 639-2, perhaps with a script. */
export const languageCode = string()
  .matches(/^[a-z]{3}(_[a-z]{1,10})?$/, 'a language has a code such as eng')
  .required();
const languages = array(languageCode).min(1, 'choose a language at least').max(30);
const filingWays = array(filingWay.required()).min(1, 'there must be a way of filing').max(40);

export const settings = object({
  /** Codes; the first is the usual one. */
  languages: languages.required(),
  /** Ways of filing; the first is the usual one. */
  filing: filingWays.required(),
  /** How days are written. */
  days: string().oneOf(DAY_FORMS).required(),
});
export const settingsChange = object({
  languages: languages.default(undefined),
  filing: filingWays.default(undefined),
  days: string().oneOf(DAY_FORMS),
});

const namedLanguage = object({ code: languageCode, name: string().required() });
export const languageList = object({
  /** Those that can be read, and whether they are told apart by their words. */
  installed: array(namedLanguage.shape({ toldApart: boolean().required() })).required(),
  addable: array(namedLanguage).required(),
});
export type LanguageList = InferType<typeof languageList>;

/** A document to try a pattern on: what its name could be made of. */
export const nameExample = object({ id, name: string().defined(), values: mixed<NameValues>().required() });
export type NameExample = InferType<typeof nameExample>;

/** How many bytes a document's PDF has in a size; null while that is being found out. */
export const weighed = object({ size: pdfSize.required(), bytes: number().nullable().defined() });
export type Settings = InferType<typeof settings>;

export const kinds = KINDS;

/** What the event stream says: that something of this kind has changed. */
export interface LiveEvent {
  kind: 'stack' | 'text' | 'document' | 'folder' | 'settings' | 'scan' | 'watch';
  id: string | null;
}
