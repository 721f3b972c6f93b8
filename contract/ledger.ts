import { array, boolean, InferType, number, object, string } from 'yup';
import { isDay } from '@crow/core/reading/dayForms';
import { BOOK_COUNTRIES } from '@crow/core/ledger/books/taxCodes';
import { id, idParams, when } from './basics';
import { documentSummary } from './documents';
import { endpoint } from './endpoint';

/** Beyond what anybody owes, and what is counted exactly. */
const MOST_UNITS = 1e15;
const units = number().integer().min(-MOST_UNITS).max(MOST_UNITS).required();
const day = string()
  .matches(/^\d{4}-\d{2}-\d{2}$/, 'a day is written as year, month and day')
  .test('day', 'there is no such day', (value) => value == null || isDay(value))
  .required();
const currency = string()
  .matches(/^[A-Z]{3}$/, 'a currency has three letters')
  .required();
const line = (most: number, what: string) =>
  string()
    .trim()
    .max(most, `${what} has ${most} characters at most`)
    .matches(/^[^\r\n]*$/, `${what} has one line`);

export const CATEGORY_SIDES = ['cost', 'income'] as const;
export const category = object({
  id,
  name: string().required(),
  side: string().oneOf(CATEGORY_SIDES).required(),
  /** Not proposed any more; what was entered under it stays. */
  retired: boolean().required(),
});
export type Category = InferType<typeof category>;

export const ACCOUNT_KINDS = ['bank', 'card', 'cash'] as const;
export const account = object({
  id,
  name: string().required(),
  kind: string().oneOf(ACCOUNT_KINDS).required(),
  currency,
  /** IBAN or another number; '' for none. */
  number: string().defined(),
  retired: boolean().required(),
  /** What was on it at the beginning of a day, in the smallest unit; null while nobody has said. */
  opening: object({ day, units }).nullable().default(null),
});
export type Account = InferType<typeof account>;

export const books = object({
  country: string().oneOf(BOOK_COUNTRIES).required(),
  /** Whether bills and receipts are entered when they are filed, unless somebody says otherwise; else only those that somebody says. */
  byThemselves: boolean().required(),
  /** Whose books they are: who pays. '' while nobody has said. */
  holder: string().defined(),
  /** The last day of what is closed: nothing on it or before it changes any more; null while nothing is closed. */
  closedUntil: day.nullable().default(null),
  /** Folders of which all papers are entered, whatever kind they are, or none by themselves; those inside them as well. */
  folders: array(object({ folderId: id, path: string().required(), enters: boolean().required() }).required()).default(
    [],
  ),
  categories: array(category.required()).required(),
  accounts: array(account.required()).required(),
  /** How lines of statements are entered for which no bill comes. */
  lineRules: array(
    object({
      id,
      /** The words of such lines. */
      key: string().required(),
      /** Whether they are of money that goes out. */
      outward: boolean().required(),
      who: string().required(),
      what: string().defined(),
    }).required(),
  ).default([]),
});
export type Books = InferType<typeof books>;

/** A share of an entry under one category and one treatment. */
export const entryPart = object({
  categoryId: string().uuid().nullable().defined(),
  /** Of core/ledger/books/taxCodes. */
  taxCode: line(12, 'a tax code').nullable().defined(),
  /** In percent. */
  rate: number().min(0).max(100).nullable().defined(),
  net: units,
  tax: units,
});

export const MOST_PARTS = 40;
export const entryFields = object({
  day,
  due: day.nullable().defined(),
  who: line(200, 'a name').required('an entry needs a name'),
  what: line(300, 'a text').defined(),
  number: line(80, 'a number').defined(),
  currency,
  /** What is to be paid is positive, what is to be received negative. */
  units,
  /** From where it is paid, if that is known already. */
  accountId: string().uuid().nullable().defined(),
  /** What it comes to in the money of the books, where it is in another; null while nobody has said. */
  ownUnits: units.nullable().default(null),
  parts: array(entryPart.required()).min(1).max(MOST_PARTS).required(),
});
export type EntryFields = InferType<typeof entryFields>;

/** What keeps fields from being an entry, in words; nothing when they are one. */
export function entryProblem(fields: EntryFields): string | undefined {
  if (fields.units === 0) return 'an entry needs an amount';
  if (fields.parts.reduce((sum, { net, tax }) => sum + net + tax, 0) !== fields.units)
    return 'what it is split into does not come to the total';
  try {
    entryFields.validateSync(fields);
  } catch (error) {
    return (error as Error).message;
  }
}

/** What a paper is to an entry: what proves it, or what reminds of it. */
export const PAPER_ROLES = ['proof', 'reminder'] as const;

export const entry = entryFields.shape({
  id,
  /** Of the entry itself, from 1 in the order in which they were made. */
  serial: number().integer().required(),
  revision: number().integer().required(),
  papers: array(
    object({ documentId: id, name: string().defined(), role: string().oneOf(PAPER_ROLES).required() }).required(),
  ).required(),
  /** How much of it is paid or received, by lines of statements that are tied to it, or in cash. */
  paid: units,
  /** What it comes to in the money of the books: itself, as somebody said, or as it was paid; null while that is not known. */
  worth: units.nullable().default(null),
  checkedAt: when.nullable().defined(),
});
export type Entry = InferType<typeof entry>;

export const statementLine = object({
  id,
  accountId: id,
  day,
  units,
  currency,
  who: string().defined(),
  text: string().defined(),
  balance: number().integer().nullable().defined(),
});
export type BookedLine = InferType<typeof statementLine>;

export const tie = object({
  id,
  /** Proposed, or made by a person. */
  made: boolean().required(),
  entries: array(id).required(),
  lines: array(id).required(),
  /** From 0 to 1. */
  confidence: number().required(),
  /** Whether it is so likely that it needs no look. */
  sure: boolean().required(),
  /** What it rests on, as a code of core/ledger/matching. */
  why: string().required(),
});
export type BookTie = InferType<typeof tie>;

/** The book itself, in one piece. */
export const ledger = object({
  entries: array(entry.required()).required(),
  lines: array(statementLine.required()).required(),
  ties: array(tie.required()).required(),
  /** How lines that nothing is tied to may be entered, as lines with the same words were before. */
  asBefore: array(
    object({
      lineId: id,
      ruleId: id,
      who: string().required(),
      what: string().defined(),
      categoryId: string().uuid().nullable().defined(),
      taxCode: string().nullable().defined(),
      rate: number().nullable().defined(),
    }).required(),
  ).default([]),
});
export type Ledger = InferType<typeof ledger>;

/** Who sends bills: what their papers say, or somebody said. */
const address = line(300, 'an address');
const taxNumber = line(40, 'a tax number');
const iban = string()
  .transform((value?: string) => value?.replace(/\s/g, '').toUpperCase())
  .max(40, 'an account has 40 characters at most');
export const senderFields = object({
  /** Its lines, joined by commas; '' for none. */
  address: address.defined(),
  taxNumber: taxNumber.defined(),
  /** Without blanks; '' for none. */
  iban: iban.defined(),
});
export const senderChange = object({ address, taxNumber, iban, categoryId: string().uuid().nullable() });
export type SenderFields = InferType<typeof senderFields>;
export const sender = senderFields.shape({
  id,
  name: string().required(),
  /** Under what its bills are entered, whatever those before were; null for as those before. */
  categoryId: string().uuid().nullable().defined(),
  /** How many entries there are of it, and the day of the last one. */
  entries: number().integer().required(),
  last: string().nullable().defined(),
});
export type Sender = InferType<typeof sender>;

/** What a paper would be in the books. */
export const paperBooks = object({
  /** Whether it is entered when it is filed. */
  enters: boolean().required(),
  /** Whether a person said so. */
  said: boolean().required(),
  /** What a paper of this kind is to the books: an entry, something that reminds of one, or nothing. */
  as: string()
    .oneOf(['entry', 'reminder', 'nothing'] as const)
    .required(),
  units,
  currency,
  parts: array(entryPart.required()).required(),
  accountId: string().uuid().nullable().defined(),
  /** What it comes to in the money of the books, where it is in another and somebody has said. */
  ownUnits: units.nullable().default(null),
  /** Why the first part has its category, as a code with what it rests on: `usual` of the sender, a `word`, `said`, or `none`. */
  why: object({ code: string().required(), text: string().defined() }).required(),
  /** Why it can't be entered as it is, as codes. */
  problems: array(string().required()).required(),
  /** The entry that it is in already. */
  entry: object({ id, serial: number().integer().required() }).nullable().defined(),
  /** Entries without a paper that it may be of, the likeliest first, and what they have alike, as codes. */
  fits: array(
    object({
      id,
      serial: number().integer().required(),
      who: string().defined(),
      day,
      units,
      currency,
      confidence: number().required(),
      sure: boolean().required(),
      alike: array(string().required()).required(),
    }).required(),
  ).required(),
  /** Who it is from: as known, or as it will be once it is entered; null while the paper says nobody. */
  sender: senderFields
    .shape({
      known: boolean().required(),
      /** The bank account that was known before, where the paper says another. */
      ibanBefore: string().nullable().defined(),
    })
    .nullable()
    .default(null),
  /** The entry that it is attached to once it is filed, if any: the one that is sure, or that a person chose. */
  attachTo: string().uuid().nullable().defined(),
});
export type PaperBooks = InferType<typeof paperBooks>;

export const paperBooksWish = object({
  /** Undefined for as it is, null for as is proposed. */
  enters: boolean().nullable().default(undefined),
  /** An entry that it is attached to; null for none. */
  attachTo: string().uuid().nullable().default(undefined),
  accountId: string().uuid().nullable().default(undefined),
  /** What it comes to in the money of the books, where it is in another. */
  ownUnits: number().integer().min(-MOST_UNITS).max(MOST_UNITS).nullable().default(undefined),
  parts: array(entryPart.required()).max(MOST_PARTS).nullable().default(undefined),
});
export type PaperBooksWish = InferType<typeof paperBooksWish>;

/** An entry as it was before it was changed. */
export const entryVersion = object({
  revision: number().integer().required(),
  until: when,
  by: string().required(),
  was: entryFields.required(),
});

export const statementFile = object({
  id,
  name: string().required(),
  format: string().required(),
  accountId: id,
  first: day.nullable().defined(),
  last: day.nullable().defined(),
  lines: number().integer().required(),
  opening: number().integer().nullable().defined(),
  closing: number().integer().nullable().defined(),
  currency,
  takenInAt: when,
});
export type StatementFile = InferType<typeof statementFile>;

/** What is in a statement's file, before or after it is taken in. */
export const statementRead = object({
  name: string().required(),
  format: string().required(),
  /** Of the account, as the file says; '' where it does not. */
  number: string().defined(),
  currency,
  first: day.nullable().defined(),
  last: day.nullable().defined(),
  /** How many lines are new, and how many were in the books already. */
  fresh: number().integer().required(),
  known: number().integer().required(),
  opening: number().integer().nullable().defined(),
  closing: number().integer().nullable().defined(),
  /** The first lines as they were understood. */
  sample: array(object({ day, units, who: string().defined(), text: string().defined() }).required()).required(),
  /** Where what a balance should be and what it is differ: the day after which, and by how much. */
  gaps: array(object({ day, units }).required()).required(),
  /** The account that it is likely of. */
  accountId: string().uuid().nullable().defined(),
  /** Once it is taken in. */
  id: string().uuid().nullable().defined(),
});
export type StatementRead = InferType<typeof statementRead>;

/** How an entry is paid. */
export const entryPayment = object({
  name: string().defined(),
  /** Without spaces; '' where no paper of the sender says it. */
  iban: string().defined(),
  units,
  currency,
  reference: string().defined(),
  /** The bank account that was known of them before, where the paper says another: perhaps somebody else’s. */
  ibanBefore: string().nullable().default(null),
  /** Why it can't be a transfer in euros, as a code. */
  problem: string().nullable().defined(),
  /** The payment code, rows of 0 and 1. */
  code: array(string().required()).nullable().defined(),
});

export type LedgerPayment = InferType<typeof entryPayment>;

/** As what the books are saved. */
export const LEDGER_FORMS = ['xlsx', 'csv', 'json', 'journal'] as const;
export type LedgerForm = (typeof LEDGER_FORMS)[number];

/** So many entries are checked, or ties made, in one go. */
const MOST_IN_ONE_GO = 5000;
const ids = array(id).min(1).max(MOST_IN_ONE_GO).required();

export const ledgerEndpoints = {
  readBooks: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger/books',
    summary: 'Categories, accounts and the country of the books',
    reply: books,
  }),
  changeBooks: endpoint({
    right: 'work',
    method: 'PATCH',
    path: '/ledger/books',
    summary:
      'Set the country whose tax the books know first, whether papers are entered by themselves, and until when the books are closed',
    body: object({
      country: string().oneOf(BOOK_COUNTRIES),
      byThemselves: boolean(),
      holder: line(70, 'a name'),
      closedUntil: day.optional().nullable().default(undefined),
      folders: array(object({ folderId: id, enters: boolean().required() }).required())
        .max(200)
        .default(undefined),
    }),
    reply: books,
  }),
  makeCategory: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/categories',
    summary: 'Add a category',
    body: object({ name: line(80, 'a name').required(), side: string().oneOf(CATEGORY_SIDES).required() }),
    reply: category,
  }),
  changeCategory: endpoint({
    right: 'work',
    method: 'PATCH',
    path: '/ledger/categories/:id',
    summary: 'Rename a category, or retire it',
    params: idParams,
    body: object({ name: line(80, 'a name'), retired: boolean() }),
    reply: category,
  }),
  makeAccount: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/accounts',
    summary: 'Add an account that is paid from',
    body: object({
      name: line(80, 'a name').required(),
      kind: string().oneOf(ACCOUNT_KINDS).required(),
      currency,
      number: line(60, 'a number').default(''),
    }),
    reply: account,
  }),
  changeAccount: endpoint({
    right: 'work',
    method: 'PATCH',
    path: '/ledger/accounts/:id',
    summary: 'Rename an account, or retire it',
    params: idParams,
    body: object({
      name: line(80, 'a name'),
      number: line(60, 'a number'),
      retired: boolean(),
      opening: object({ day, units }).nullable().optional().default(undefined),
    }),
    reply: account,
  }),
  readLedger: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger',
    summary: 'The entries, the lines of statements, and what ties them',
    reply: ledger,
  }),
  exportLedger: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger/export',
    summary: 'The books as a spreadsheet, as data, or as a plain-text journal of double entries',
    query: object({
      as: string().oneOf(LEDGER_FORMS).required(),
      /** Only what is of this year; all of it if that is not said. */
      year: string().matches(/^\d{4}$/, 'a year has four figures'),
    }),
  }),
  exportPeriod: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger/period',
    summary: 'A period for whoever does the accounts: ledger, papers, statements and what is missing, as a ZIP',
    query: object({ from: day, to: day }),
  }),
  makeEntry: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/entries',
    summary: 'Enter something without a paper',
    body: entryFields,
    reply: entry,
  }),
  changeEntry: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/ledger/entries/:id',
    summary: 'Change an entry; what it was is kept',
    params: idParams,
    body: entryFields.shape({ revision: number().integer().required() }),
    reply: entry,
  }),
  takeOutEntry: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/ledger/entries/:id',
    summary: 'Take an entry out of the books',
    params: idParams,
  }),
  putBackEntry: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/entries/:id/back',
    summary: 'Put an entry back that was taken out',
    params: idParams,
    reply: entry,
  }),
  entryPayment: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger/entries/:id/payment',
    summary: 'How an entry is paid: to whom, where, how much, as a payment code where that can be made',
    params: idParams,
    reply: entryPayment,
  }),
  savePayments: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/payments',
    summary: 'What is to be paid of entries, as a file of transfers for a bank (pain.001)',
    body: object({ ids, accountId: id, on: day }),
  }),
  checkEntries: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/checked',
    summary: 'Say that entries are checked, so that they don’t change any more, or that they are not',
    body: object({ ids, checked: boolean().required() }),
  }),
  entryVersions: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger/entries/:id/versions',
    summary: 'What an entry was before, the latest first',
    params: idParams,
    reply: array(entryVersion.required()).required(),
  }),
  paperBooks: endpoint({
    right: 'work',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/books',
    summary: 'What a paper would be in the books, or is',
    params: idParams,
    /** The path of the folder that it is going to, where it isn’t filed yet. */
    query: object({ folder: string().max(1000) }),
    reply: paperBooks,
  }),
  changePaperBooks: endpoint({
    right: 'work',
    of: 'document',
    method: 'PATCH',
    path: '/documents/:id/books',
    summary: 'Say how a paper is entered once it is filed',
    params: idParams,
    body: paperBooksWish,
    reply: paperBooks,
  }),
  enterPaper: endpoint({
    right: 'work',
    of: 'document',
    method: 'POST',
    path: '/documents/:id/books',
    summary: 'Enter a paper that is filed already',
    params: idParams,
    reply: entry,
  }),
  attachPaper: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/entries/:id/papers',
    summary: 'Attach a paper to an entry',
    params: idParams,
    body: object({ documentId: id, role: string().oneOf(PAPER_ROLES).default('proof') }),
    reply: entry,
  }),
  detachPaper: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/ledger/entries/:id/papers/:documentId',
    summary: 'Take a paper off an entry',
    params: object({ id, documentId: id }),
    reply: entry,
  }),
  papersForEntry: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger/entries/:id/papers-that-fit',
    summary: 'Papers of no entry that may prove one, the likeliest first',
    params: idParams,
    reply: array(
      object({
        documentId: id,
        name: string().defined(),
        state: string().required(),
        confidence: number().required(),
        alike: array(string().required()).required(),
      }).required(),
    ).required(),
  }),
  attachPapers: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/papers',
    summary: 'Attach papers to the entries that they prove, in one go',
    body: object({
      pairs: array(object({ documentId: id, entryId: id }).required())
        .min(1)
        .max(MOST_IN_ONE_GO)
        .required(),
    }),
  }),
  detachPapers: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/papers/off',
    summary: 'Take papers off their entries again, in one go',
    body: object({
      pairs: array(object({ documentId: id, entryId: id }).required())
        .min(1)
        .max(MOST_IN_ONE_GO)
        .required(),
    }),
  }),
  papersWithoutEntry: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger/papers-without-entry',
    summary:
      'Bills and receipts on the shelf that are in no entry, the latest first, with the entry that each is likely of',
    reply: array(
      object({
        paper: documentSummary.required(),
        fit: object({
          entryId: id,
          serial: number().integer().required(),
          who: string().defined(),
          units,
          currency,
          confidence: number().required(),
          sure: boolean().required(),
          alike: array(string().required()).required(),
        })
          .nullable()
          .defined(),
      }).required(),
    ).required(),
  }),
  sendStatement: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/ledger/statements',
    summary: 'Read a statement’s file, and take its lines in unless it is only looked at',
    query: object({
      name: string().max(500).required(),
      look: boolean(),
      accountId: string().uuid(),
      /** Whether it is of an account that is not there yet, whatever it seems to be of. */
      another: boolean(),
      /** Turns amounts round, for a file that does not say which way money went. */
      turned: boolean(),
    }),
    takesBytes: true,
    reply: statementRead,
  }),
  listStatements: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger/statements',
    summary: 'The statements that were taken in, the latest first',
    reply: array(statementFile.required()).required(),
  }),
  takeOutStatement: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/ledger/statements/:id',
    summary: 'Take a statement and its lines out again',
    params: idParams,
  }),
  makeTie: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/ties',
    summary: 'Tie entries and lines of statements by hand',
    body: object({
      /** None for two lines that are the ends of a transfer between own accounts. */
      entries: array(id).max(MOST_IN_ONE_GO).required(),
      lines: ids,
    }),
    reply: object({ id }),
  }),
  takeTies: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/ties/take',
    summary: 'Make proposed ties',
    body: object({ ids }),
  }),
  takeOffTies: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/ties/take-off',
    summary: 'Take ties off; what was proposed and refused is not proposed again',
    body: object({ ids, refuse: boolean().default(true) }),
  }),
};
