import { array, boolean, InferType, mixed, number, object, string, tuple } from 'yup';
import { Bend, isBend } from '@crow/core/imaging/bend/bend';
import { Legibility } from '@crow/core/imaging/legibility';
import { LOOKS } from '@crow/core/imaging/looks';
import { Recipe } from '@crow/core/imaging/recipe';
import { KINDS } from '@crow/core/reading/facts/fact';
import { id, idParams, kindName, problem, share, turn } from './basics';
import { endpoint } from './endpoint';

const point = tuple([number().required(), number().required()]);
/** What is done to a picture to make a page of it; see core/imaging/recipe. Places in shares of the picture or the page. */
export const recipe = object({
  /** May lie a little outside the picture. */
  corners: array(point.required()).length(4, 'an outline has four corners').nullable().defined(),
  /** How a sheet that isn’t flat lies between its corners: the places of a mesh, as x and y in shares of their square. */
  bend: mixed<Bend>().test('mesh', 'what is bent is a mesh of points', (bend) => bend === undefined || isBend(bend)),
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
  divider: object({
    folder: string().nullable().defined(),
    kind: string().oneOf(KINDS).nullable().defined(),
    /** The box or binder whose label it is. */
    place: object({ id: string().required(), name: string().required() }).optional().default(undefined),
  })
    .nullable()
    .defined(),
  /** What kind of paper it looks like by itself, and who from, as far as that is known. */
  glance: object({ kind: kindName.nullable().defined(), who: string().nullable().defined() }).nullable().defined(),
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

export const pagesEndpoints = {
  doubtfulWords: endpoint({
    right: 'work',
    method: 'GET',
    path: '/documents/:id/doubtful-words',
    summary: 'Words of a document that may be misread',
    params: idParams,
    reply: array(doubtful).required(),
  }),
  pagePicture: endpoint({
    right: 'look',
    of: 'page',
    method: 'GET',
    path: '/pages/:id/picture/:size',
    summary: 'A page’s picture: thumb, screen or full',
    params: object({
      id,
      size: string()
        .oneOf(['thumb', 'screen', 'full'] as const)
        .required(),
    }),
    query: object({
      turn: turn,
      /** Which recipe it is made by; without one, the picture as it came. */
      version: string().max(40),
    }),
  }),
  changePages: endpoint({
    right: 'capture',
    method: 'PUT',
    path: '/recipes',
    summary: 'Have pages made by other recipes: outline, angle, look, paper, marks, quarter turns',
    body: object({
      changes: array(object({ id, recipe: recipe.nullable().default(null), turn: turn }))
        .min(1)
        .max(5000)
        .required(),
    }),
  }),
  wavePages: endpoint({
    right: 'work',
    method: 'POST',
    path: '/pages/waved',
    summary: 'Find pages good enough as they are, whatever their legibility, or take that back',
    body: object({ pages: array(id).min(1).max(5000).required(), waved: boolean().required() }),
  }),
  swapPage: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/pages/:id/instead',
    summary: 'Put another page of the same stack into a page’s place in its document',
    params: idParams,
    body: object({ page: id }),
  }),
  takeApart: endpoint({
    right: 'work',
    method: 'POST',
    path: '/pages/:id/apart',
    summary: 'Make several pages of one that holds several papers',
    params: idParams,
  }),
  cutBook: endpoint({
    right: 'work',
    method: 'POST',
    path: '/pages/:id/book',
    summary: 'Make two pages of one that shows an open book',
    params: idParams,
  }),
  findSheet: endpoint({
    right: 'capture',
    of: 'page',
    method: 'POST',
    path: '/pages/:id/find-sheet',
    summary: 'Look for the sheet in a page’s picture again',
    params: idParams,
    reply: object({ recipe: recipe, turn: turn, confidence: number().required() }),
  }),
  correctWords: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/pages/:id/words',
    summary: 'Say what words of a page really are; the PDF follows',
    params: idParams,
    body: wordChanges,
  }),
  pageText: endpoint({
    right: 'read',
    of: 'page',
    method: 'GET',
    path: '/pages/:id/text',
    summary: 'The words of a page',
    params: idParams,
    reply: pageText,
  }),
};
