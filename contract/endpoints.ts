import { array, boolean, number, object, string } from 'yup';
import { LONGEST_FOLDER } from '@crow/core/sorting/divider';
import { endpoint } from './endpoint';
import * as scanning from './scanning';
import * as shape from './shapes';
import * as watching from './watching';

const { id, idParams, MOST_AT_ONCE } = shape;

/** Everything that the server answers below /api, besides bytes going in. The API's page is made from this. */
export const endpoints = {
  overview: endpoint({
    method: 'GET',
    path: '/overview',
    summary: 'How much waits at each station',
    reply: shape.overview,
  }),
  readSettings: endpoint({ method: 'GET', path: '/settings', summary: 'The settings', reply: shape.settings }),
  listLanguages: endpoint({
    method: 'GET',
    path: '/languages',
    summary: 'The languages that can be read, and those that can be added',
    reply: shape.languageList,
  }),
  addLanguage: endpoint({
    method: 'POST',
    path: '/languages',
    summary: 'Add a language through the system’s package manager, and choose it',
    body: object({ code: shape.languageCode }),
    reply: shape.languageList,
  }),
  changeSettings: endpoint({
    method: 'PUT',
    path: '/settings',
    summary: 'Change the settings',
    body: shape.settingsChange,
    reply: shape.settings,
  }),

  listScanners: endpoint({
    method: 'GET',
    path: '/scanners',
    summary: 'The scanners that are known',
    reply: array(scanning.scanner).required(),
  }),
  findScanners: endpoint({
    method: 'POST',
    path: '/scanners/find',
    summary: 'Look for scanners on the network',
    reply: array(scanning.scanner).required(),
  }),
  addScanner: endpoint({
    method: 'POST',
    path: '/scanners',
    summary: 'Make a scanner known by its address',
    body: scanning.scannerAddress,
    reply: scanning.scanner,
  }),
  forgetScanner: endpoint({ method: 'DELETE', path: '/scanners/:id', summary: 'Forget a scanner', params: idParams }),
  startScan: endpoint({
    method: 'POST',
    path: '/scanners/:id/scans',
    summary: 'Scan; the pages go to a stack one by one',
    params: idParams,
    body: scanning.scanStart,
    reply: scanning.scan,
  }),
  previewScan: endpoint({
    method: 'POST',
    path: '/scanners/:id/preview',
    summary: 'A small picture of what lies on the glass (JPEG)',
    params: idParams,
  }),
  listScans: endpoint({
    method: 'GET',
    path: '/scans',
    summary: 'Scans under way, and how the last ones ended',
    reply: array(scanning.scan).required(),
  }),
  stopScan: endpoint({ method: 'POST', path: '/scans/:id/stop', summary: 'Stop a scan', params: idParams }),
  listPresets: endpoint({
    method: 'GET',
    path: '/presets',
    summary: 'Settings for scanning that have a name',
    reply: array(scanning.scanPreset).required(),
  }),
  savePreset: endpoint({
    method: 'POST',
    path: '/presets',
    summary: 'Give settings for scanning a name; one of the same name is replaced',
    body: object({
      name: string().trim().min(1).max(60).required(),
      scannerId: id,
      settings: scanning.scanSettings.required(),
    }),
    reply: scanning.scanPreset,
  }),
  deletePreset: endpoint({ method: 'DELETE', path: '/presets/:id', summary: 'Delete a preset', params: idParams }),

  dividerSheets: endpoint({
    method: 'GET',
    path: '/dividers',
    summary: 'Divider sheets to be printed (PDF)',
    query: object({
      /** Path of the folder, and kind, of the document behind each. */
      folder: string().trim().max(LONGEST_FOLDER, 'the path of the folder is too long for a divider sheet'),
      kind: string().oneOf(shape.kinds),
      copies: number().integer().min(1).max(100).default(1),
    }),
  }),
  listWatched: endpoint({
    method: 'GET',
    path: '/watched',
    summary: 'The folders that are watched, and how many files wait in each',
    reply: array(watching.watchedFolder).required(),
  }),
  watchFolder: endpoint({
    method: 'POST',
    path: '/watched',
    summary: 'Watch a folder of this machine: what lands in it is taken in',
    body: watching.newWatchedFolder,
    reply: watching.watchedFolder,
  }),
  changeWatched: endpoint({
    method: 'PATCH',
    path: '/watched/:id',
    summary: 'Change what a watched folder is for',
    params: idParams,
    body: watching.watchedChange,
  }),
  leaveFolder: endpoint({
    method: 'DELETE',
    path: '/watched/:id',
    summary: 'Watch a folder no longer; what lies in it stays',
    params: idParams,
  }),
  forgetRefused: endpoint({
    method: 'DELETE',
    path: '/watched/:id/refused',
    summary: 'Show the files no longer that a watched folder refused; they stay where they are',
    params: idParams,
  }),
  listPlaces: endpoint({
    method: 'GET',
    path: '/watched/places',
    summary: 'Folders of this machine whose path begins as typed',
    query: watching.placesQuery,
    reply: array(string().required()).required(),
  }),

  listStacks: endpoint({
    method: 'GET',
    path: '/stacks',
    summary: 'Stacks not yet sorted, newest first',
    reply: array(shape.stackSummary).required(),
  }),
  readStack: endpoint({
    method: 'GET',
    path: '/stacks/:id',
    summary: 'A stack with its pages',
    params: idParams,
    reply: shape.stack,
  }),
  arrangeStack: endpoint({
    method: 'POST',
    path: '/stacks/:id/arrangement',
    summary: 'Cut, move, turn or drop pages',
    params: idParams,
    body: shape.arrangementChange,
    reply: shape.stack,
  }),
  movePages: endpoint({
    method: 'POST',
    path: '/stacks/:id/pages',
    summary: 'Lay pages of other stacks into this one',
    params: idParams,
    body: shape.pagesMove,
  }),
  weaveStacks: endpoint({
    method: 'POST',
    path: '/stacks/:id/weaving',
    summary: 'Lay the backs in another stack behind the fronts in this one',
    params: idParams,
    body: object({ backs: id }),
    reply: shape.weaving,
  }),
  showWeaving: endpoint({
    method: 'GET',
    path: '/stacks/:id/weaving',
    summary: 'How the backs in another stack belong to the fronts in this one',
    params: idParams,
    query: object({ backs: id }),
    reply: shape.weaving,
  }),
  undoStack: endpoint({
    method: 'POST',
    path: '/stacks/:id/undo',
    summary: 'Undo the last change of the arrangement',
    params: idParams,
    reply: shape.stack,
  }),
  redoStack: endpoint({
    method: 'POST',
    path: '/stacks/:id/redo',
    summary: 'Do the change again that was undone',
    params: idParams,
    reply: shape.stack,
  }),
  sortStack: endpoint({
    method: 'POST',
    path: '/stacks/:id/documents',
    summary: 'Make the documents; they go to Check',
    params: idParams,
    reply: object({ documents: array(id).required() }),
  }),
  unsortStack: endpoint({
    method: 'DELETE',
    path: '/stacks/:id/documents',
    summary: 'Take the documents of a sorted stack that still wait in Check back to the light table',
    params: idParams,
    reply: object({ stack: id }),
  }),
  stopReading: endpoint({
    method: 'POST',
    path: '/stacks/:id/reading/stop',
    summary: 'Stop reading the pages of a stack',
    params: idParams,
  }),
  startReading: endpoint({
    method: 'POST',
    path: '/stacks/:id/reading/start',
    summary: 'Read the pages that were stopped or failed',
    params: idParams,
  }),
  deleteStack: endpoint({
    method: 'DELETE',
    path: '/stacks/:id',
    summary: 'Put a stack into the bin',
    params: idParams,
  }),
  bringBackStack: endpoint({
    method: 'POST',
    path: '/stacks/:id/bring-back',
    summary: 'Take a stack out of the bin',
    params: idParams,
  }),
  dismissFile: endpoint({
    method: 'DELETE',
    path: '/files/:id',
    summary: 'Discard a file that could not be taken in',
    params: idParams,
  }),
  unlockFile: endpoint({
    method: 'POST',
    path: '/files/:id/password',
    summary: 'Take in a PDF that is locked, with its password, which is kept nowhere',
    params: idParams,
    body: object({ password: string().min(1).max(500).required() }),
  }),
  originalFile: endpoint({
    method: 'GET',
    path: '/files/:id/original',
    summary: 'A file as it came',
    params: idParams,
  }),

  listWaiting: endpoint({
    method: 'GET',
    path: '/check',
    summary: 'Documents waiting to be checked, in their order',
    reply: array(shape.documentSummary).required(),
  }),
  readDocument: endpoint({
    method: 'GET',
    path: '/documents/:id',
    summary: 'A document with its pages and facts',
    params: idParams,
    reply: shape.document,
  }),
  changeFact: endpoint({
    method: 'PUT',
    path: '/documents/:id/facts/:name',
    summary: 'Set a fact by hand; an empty value takes it away',
    params: object({ id, name: shape.factName }),
    body: shape.factChange,
    reply: shape.document,
  }),
  restoreFact: endpoint({
    method: 'DELETE',
    path: '/documents/:id/facts/:name',
    summary: 'Take a fact set by hand, or taken away by hand, back to what was read',
    params: object({ id, name: shape.factName }),
    reply: shape.document,
  }),
  changeTaxes: endpoint({
    method: 'PUT',
    path: '/documents/:id/taxes',
    summary: 'Set the tax by rate by hand',
    params: idParams,
    body: object({ taxes: array(shape.taxAtRate.required()).max(20).required() }),
    reply: shape.document,
  }),
  fileDocument: endpoint({
    method: 'POST',
    path: '/documents/:id/file',
    summary: 'File a document under a name in a folder',
    params: idParams,
    body: shape.filing,
    reply: shape.documentSummary,
  }),
  filingExamples: endpoint({
    method: 'GET',
    path: '/filing/examples',
    summary: 'The documents that came last, to try patterns for names on',
    reply: array(shape.nameExample).required(),
  }),
  documentSizes: endpoint({
    method: 'GET',
    path: '/documents/:id/sizes',
    summary: 'How many bytes a document’s PDF has in each size, as far as that is known',
    params: idParams,
    reply: array(shape.weighed).required(),
  }),
  weighDocument: endpoint({
    method: 'POST',
    path: '/documents/:id/sizes',
    summary: 'Have it found out how many bytes a document’s PDF has in each size',
    params: idParams,
  }),
  unfileDocument: endpoint({
    method: 'POST',
    path: '/documents/:id/unfile',
    summary: 'Take a filed document back to Check',
    params: idParams,
    reply: shape.documentSummary,
  }),
  putToBack: endpoint({
    method: 'POST',
    path: '/documents/:id/to-the-back',
    summary: 'Let a document wait behind the others',
    params: idParams,
  }),
  arrangeDocument: endpoint({
    method: 'PUT',
    path: '/documents/:id/pages',
    summary: 'Say which pages a document has, in which order; those left out stay with its stack',
    params: idParams,
    body: object({ pages: array(id).min(1, 'a document has a page at least').max(5000).required() }),
    reply: shape.document,
  }),
  changeDocument: endpoint({
    method: 'PATCH',
    path: '/documents/:id',
    summary: 'Rename or move a filed document',
    params: idParams,
    body: shape.documentChange,
    reply: shape.documentSummary,
  }),
  changeDocuments: endpoint({
    method: 'PATCH',
    path: '/documents',
    summary: 'Rename, move, bin or bring back several documents, all or none',
    body: shape.documentChanges,
    reply: array(shape.documentSummary).required(),
  }),
  proposedNames: endpoint({
    method: 'POST',
    path: '/documents/proposed-names',
    summary: 'The names that the ways of filing make for documents, as they are known now',
    body: object({ ids: array(id).min(1).max(MOST_AT_ONCE).required() }),
    reply: array(object({ id, name: string().defined(), proposed: string().defined() })).required(),
  }),
  binDocument: endpoint({
    method: 'DELETE',
    path: '/documents/:id',
    summary: 'Put a document into the bin',
    params: idParams,
  }),
  bringBackDocument: endpoint({
    method: 'POST',
    path: '/documents/:id/bring-back',
    summary: 'Take a document out of the bin',
    params: idParams,
  }),
  documentPdf: endpoint({ method: 'GET', path: '/documents/:id/pdf', summary: 'The filed PDF', params: idParams }),
  askDocument: endpoint({
    method: 'GET',
    path: '/documents/:id/answer',
    summary: 'Answers a plain question about a document from its facts and text',
    params: idParams,
    query: object({ q: string().trim().min(1).max(300).required() }),
    reply: shape.answer,
  }),
  documentText: endpoint({
    method: 'GET',
    path: '/documents/:id/text',
    summary: 'The text of a document (.txt)',
    params: idParams,
  }),
  documentTextPdf: endpoint({
    method: 'GET',
    path: '/documents/:id/text-pdf',
    summary: 'The text of a document set anew for a small screen (PDF)',
    params: idParams,
  }),
  documentPictures: endpoint({
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
  shelfArchive: endpoint({
    method: 'GET',
    path: '/shelf/archive',
    summary: 'The shelf, or a folder with those inside it, as a ZIP of PDFs with their facts',
    query: object({ folder: string().uuid() }),
  }),
  listChangedOnDisk: endpoint({
    method: 'GET',
    path: '/shelf/changes',
    summary: 'Documents whose files in the shelf folder somebody changed, moved or took away',
    reply: array(shape.documentSummary).required(),
  }),
  listStrangers: endpoint({
    method: 'GET',
    path: '/shelf/strangers',
    summary: 'PDFs that somebody put into the shelf folder',
    reply: array(object({ path: string().required(), bytes: number().required() }).required()).required(),
  }),
  settleStrangers: endpoint({
    method: 'POST',
    path: '/shelf/strangers',
    summary: 'Take them in, or leave them as they are',
    body: object({
      paths: array(string().max(4000).required()).min(1).max(1000).required(),
      choice: string()
        .oneOf(['take-in', 'leave'] as const)
        .required(),
    }),
  }),
  writeShelfAnew: endpoint({
    method: 'POST',
    path: '/shelf/anew',
    summary: 'Have the shelf folder, which is lost, written anew',
  }),
  settleOnDisk: endpoint({
    method: 'POST',
    path: '/shelf/changes',
    summary: 'Say what becomes of them',
    body: shape.diskSettling,
  }),
  listVersions: endpoint({
    method: 'GET',
    path: '/documents/:id/versions',
    summary: 'The PDFs that a document had before, the latest first',
    params: idParams,
    reply: array(shape.documentVersion).required(),
  }),
  versionPdf: endpoint({
    method: 'GET',
    path: '/documents/:id/versions/:number/pdf',
    summary: 'A PDF that a document had before',
    params: object({ id, number: number().integer().required() }),
  }),
  doubtfulWords: endpoint({
    method: 'GET',
    path: '/documents/:id/doubtful-words',
    summary: 'Words of a document that may be misread',
    params: idParams,
    reply: array(shape.doubtful).required(),
  }),
  documentHits: endpoint({
    method: 'GET',
    path: '/documents/:id/hits',
    summary: 'Where a query is found in a document',
    params: idParams,
    query: object({ q: string().max(300).required() }),
    reply: array(shape.hit).required(),
  }),

  pagePicture: endpoint({
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
      turn: shape.turn,
      /** Which recipe it is made by; without one, the picture as it came. */
      version: string().max(40),
    }),
  }),
  changePages: endpoint({
    method: 'PUT',
    path: '/recipes',
    summary: 'Have pages made by other recipes: outline, angle, look, paper, marks, quarter turns',
    body: object({
      changes: array(object({ id, recipe: shape.recipe.nullable().default(null), turn: shape.turn }))
        .min(1)
        .max(5000)
        .required(),
    }),
  }),
  wavePages: endpoint({
    method: 'POST',
    path: '/pages/waved',
    summary: 'Find pages good enough as they are, whatever their legibility, or take that back',
    body: object({ pages: array(id).min(1).max(5000).required(), waved: boolean().required() }),
  }),
  swapPage: endpoint({
    method: 'PUT',
    path: '/pages/:id/instead',
    summary: 'Put another page of the same stack into a page’s place in its document',
    params: idParams,
    body: object({ page: id }),
  }),
  takeApart: endpoint({
    method: 'POST',
    path: '/pages/:id/apart',
    summary: 'Make several pages of one that holds several papers',
    params: idParams,
  }),
  findSheet: endpoint({
    method: 'POST',
    path: '/pages/:id/find-sheet',
    summary: 'Look for the sheet in a page’s picture again',
    params: idParams,
    reply: object({ recipe: shape.recipe, turn: shape.turn, confidence: number().required() }),
  }),
  correctWords: endpoint({
    method: 'PUT',
    path: '/pages/:id/words',
    summary: 'Say what words of a page really are; the PDF follows',
    params: idParams,
    body: shape.wordChanges,
  }),
  pageText: endpoint({
    method: 'GET',
    path: '/pages/:id/text',
    summary: 'The words of a page',
    params: idParams,
    reply: shape.pageText,
  }),

  listFolders: endpoint({
    method: 'GET',
    path: '/folders',
    summary: 'All folders',
    reply: array(shape.folder).required(),
  }),
  makeFolder: endpoint({
    method: 'POST',
    path: '/folders',
    summary: 'Make a folder, and those above it, where they are missing',
    body: shape.newFolder,
    reply: shape.folder,
  }),
  changeFolder: endpoint({
    method: 'PATCH',
    path: '/folders/:id',
    summary: 'Rename or move a folder',
    params: idParams,
    body: shape.folderChange,
    reply: shape.folder,
  }),
  deleteFolder: endpoint({
    method: 'DELETE',
    path: '/folders/:id',
    summary: 'Delete an empty folder',
    params: idParams,
  }),
  listDocuments: endpoint({
    method: 'GET',
    path: '/folders/:id/documents',
    summary: 'The documents in a folder, newest first',
    params: idParams,
    reply: array(shape.documentSummary).required(),
  }),
  listBin: endpoint({
    method: 'GET',
    path: '/bin',
    summary: 'What is in the bin',
    reply: object({ documents: array(shape.documentSummary).required(), stacks: array(shape.stackSummary).required() }),
  }),
  emptyBin: endpoint({ method: 'DELETE', path: '/bin', summary: 'Delete everything in the bin for good' }),

  find: endpoint({
    method: 'GET',
    path: '/find',
    summary: 'Documents with a page that holds all words of a query',
    query: object({
      q: string().max(300).required(),
      sort: shape.findOrder,
      most: number().integer().min(1).max(300),
    }),
    reply: shape.findReply,
  }),
};

export type EndpointName = keyof typeof endpoints;
