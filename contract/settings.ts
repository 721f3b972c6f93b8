import { array, boolean, InferType, mixed, number, object, string } from 'yup';
import { patternProblem, textProblem } from '@crow/core/filing/pattern';
import { DAY_FORMS } from '@crow/core/reading/dayForms';
import { KINDS } from '@crow/core/reading/facts/kindList';
import { kindName } from './basics';
import { beside, pdfSize } from './documents';
import { endpoint } from './endpoint';
import { ProblemReport } from './problems';

export const overview = object({
  stacks: number().integer().required(),
  arriving: number().integer().required(),
  /** Files in watched folders that are not yet taken in. */
  watched: number().integer().required(),
  check: number().integer().required(),
  filing: number().integer().required(),
  filed: number().integer().required(),
  unread: number().integer().required(),
  /** Ties in the books that are proposed. */
  ties: number().integer().required(),
  /** Documents whose files in the shelf folder somebody changed, moved or took away. */
  changedOnDisk: number().integer().required(),
  /** Files that somebody put into the shelf folder. */
  strangers: number().integer().required(),
  /** What keeps everything from going on: a disk that is full, a drive that is gone. */
  troubles: array(mixed<ProblemReport>().required()).required(),
});
export type Overview = InferType<typeof overview>;

export const ownKind = object({
  name: kindName
    .required('A kind needs a name.')
    .test('another', 'There is such a kind already.', (name) => !(KINDS as readonly string[]).includes(name ?? '')),
  /** What its papers say is as on those of this one. */
  like: string().oneOf(KINDS).required(),
  /** Words in the heading that it is known by. */
  words: array(string().trim().min(2).max(60).required()).max(20).required(),
});
export type OwnKind = InferType<typeof ownKind>;
const ownKinds = array(ownKind.required()).max(30);

const pattern = string()
  .max(300, 'A pattern has 300 characters at most.')
  .test(
    'pattern',
    ({ value }) => patternProblem(value as string) ?? '',
    (value) => value === undefined || !patternProblem(value),
  );
const linesOfPatterns = string()
  .max(2000, 'A text has 2,000 characters at most.')
  .test(
    'patterns',
    ({ value }) => textProblem(value as string) ?? '',
    (value) => value === undefined || !textProblem(value),
  );
export const filingWay = object({
  name: string().trim().min(1, 'A way of filing needs a name.').max(60).required(),
  pattern: pattern.required(),
  folder: string().trim().max(600).nullable().defined(),
  kinds: array(kindName.required()).required(),
  within: string().trim().max(600).nullable().defined(),
  size: pdfSize.required(),
  beside: beside.default([]),
});

/** The recogniser's code of a language: ISO 639-2, perhaps with a script. */
export const languageCode = string()
  .matches(/^[a-z]{3}(_[a-z]{1,10})?$/, 'a language has a code such as eng')
  .required();
const languages = array(languageCode).min(1, 'choose a language at least').max(30);
const filingWays = array(filingWay.required())
  .min(1, 'There must be a way of filing.')
  .max(40)
  .test('named apart', (ways, context) => {
    const names = (ways ?? []).map(({ name }) => name?.trim());
    const twice = names.find((name, at) => name && names.indexOf(name) !== at);
    return !twice || context.createError({ message: `There are two ways called “${twice}”.` });
  });
/** All ways of filing, as they are changed together. */
export const waysOfFiling = object({ filing: filingWays.required() });

/** Patterns, as for names, of the subject and of each line of the text. */
const mailForm = object({ subject: pattern.required(), text: linesOfPatterns.required() });

export const settings = object({
  /** Codes; the first is the usual one. */
  languages: languages.required(),
  /** Ways of filing; the first is the usual one. */
  filing: filingWays.required(),
  /** How days are written. */
  days: string().oneOf(DAY_FORMS).required(),
  /** Kinds of papers that were added. */
  ownKinds: ownKinds.required(),
  /** What is proposed for a mail with one paper. */
  mailForm: mailForm.required(),
});
export const settingsChange = object({
  languages: languages.default(undefined),
  filing: filingWays.default(undefined),
  days: string().oneOf(DAY_FORMS),
  ownKinds: ownKinds.default(undefined),
  mailForm: mailForm.optional().default(undefined),
});

const namedLanguage = object({ code: languageCode, name: string().required() });
export const languageList = object({
  /** Those that can be read, and whether they are told apart by their words. */
  installed: array(namedLanguage.shape({ toldApart: boolean().required() })).required(),
  addable: array(namedLanguage).required(),
});
export type LanguageList = InferType<typeof languageList>;
export type Settings = InferType<typeof settings>;

/** What the event stream says: that something of this kind has changed. */
export interface LiveEvent {
  kind:
    | 'stack'
    | 'text'
    | 'document'
    | 'folder'
    | 'settings'
    | 'scan'
    | 'watch'
    | 'people'
    | 'at-work'
    | 'signature'
    | 'search'
    | 'parcel'
    | 'copy-place'
    | 'ledger'
    | 'sheet';
  id: string | null;
}

export const settingsEndpoints = {
  events: endpoint({
    right: 'look',
    method: 'GET',
    path: '/events',
    summary: 'What changes, as a stream of events (text/event-stream)',
  }),
  overview: endpoint({
    right: 'look',
    method: 'GET',
    path: '/overview',
    summary: 'How much waits at each station',
    reply: overview,
  }),
  readSettings: endpoint({
    right: 'read',
    method: 'GET',
    path: '/settings',
    summary: 'The settings',
    reply: settings,
  }),
  listLanguages: endpoint({
    right: 'read',
    method: 'GET',
    path: '/languages',
    summary: 'The languages that can be read, and those that can be added',
    reply: languageList,
  }),
  addLanguage: endpoint({
    right: 'own',
    method: 'POST',
    path: '/languages',
    summary: 'Add a language through the system’s package manager, and choose it',
    body: object({ code: languageCode }),
    reply: languageList,
  }),
  changeSettings: endpoint({
    right: 'own',
    method: 'PUT',
    path: '/settings',
    summary: 'Change the settings',
    body: settingsChange,
    reply: settings,
  }),
};
