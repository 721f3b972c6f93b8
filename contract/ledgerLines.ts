import { array, boolean, InferType, number, object, string } from 'yup';
import { ENTRY_COLUMNS } from '@crow/core/ledger/books/entriesTable';
import { id, idParams } from './basics';
import { endpoint } from './endpoint';
import { entry, sender, senderChange, statementRead } from './ledger';

/** So many lines are entered in one go. */
const MOST_LINES = 1000;
/** No file has more entries, and so many are taken out again in one go. */
export const MOST_ENTRIES = 20_000;
const text = (most: number) =>
  string()
    .trim()
    .max(most)
    .matches(/^[^\r\n]*$/, 'it has one line');

/** A line of a statement that is entered without a bill. */
export const enteredLine = object({
  lineId: id,
  who: text(200).required('an entry needs a name'),
  what: text(300).defined(),
  categoryId: string().uuid().nullable().defined(),
  taxCode: text(12).nullable().defined(),
  /** In percent; the tax is taken out of what the line comes to. */
  rate: number().min(0).max(100).nullable().defined(),
});
export type EnteredLine = InferType<typeof enteredLine>;

/** What is in a file of entries, before or after they are taken in. */
export const entriesRead = object({
  head: array(string().defined()).required(),
  /** What each column holds; null for nothing. */
  columns: array(string().oneOf(ENTRY_COLUMNS).nullable().defined()).required(),
  turned: boolean().required(),
  /** Whether that is as somebody said for such a file before. */
  remembered: boolean().required(),
  /** How many entries are new, how many were in the books already, and how many rows are none. */
  fresh: number().integer().required(),
  known: number().integer().required(),
  wrong: number().integer().required(),
  /** The first rows that are none, from 1, and why. */
  problems: array(object({ row: number().integer().required(), why: string().required() }).required()).required(),
  /** The first entries as they were understood. */
  sample: array(
    object({
      day: string().required(),
      who: string().required(),
      what: string().defined(),
      number: string().defined(),
      units: number().integer().required(),
      tax: number().integer().required(),
      currency: string().required(),
    }).required(),
  ).required(),
  /** Those that were taken in. */
  ids: array(id).required(),
});
export type EntriesRead = InferType<typeof entriesRead>;

export const ledgerLinesEndpoints = {
  enterLines: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/lines',
    summary: 'Enter lines of statements for which no bill comes, each tied to its entry',
    body: object({
      lines: array(enteredLine.required()).min(1).max(MOST_LINES).required(),
      /** Whether lines with the same words are to be entered like this from now on, when somebody says so. */
      remember: boolean().required(),
    }),
    reply: array(entry.required()).required(),
  }),
  takeOutEntries: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/entries/out',
    summary: 'Take entries out of the books again, with the ties that hold them',
    body: object({ ids: array(id).min(1).max(MOST_ENTRIES).required() }),
  }),
  sendEntries: endpoint({
    right: 'work',
    method: 'PUT',
    path: '/ledger/entries/file',
    summary:
      'Read entries that were made elsewhere (CSV), and take those in that are not there yet unless they are only looked at',
    query: object({
      name: string().max(500).required(),
      look: boolean(),
      /** What each column holds, joined by commas; as it was the last time, or as it seems, where that is not said. */
      columns: string().max(2000),
      /** Whether what is positive is to be received. */
      turned: boolean(),
    }),
    takesBytes: true,
    reply: entriesRead,
  }),
  listSenders: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger/senders',
    summary: 'Who sends bills, with what is known of them',
    reply: array(sender.required()).required(),
  }),
  changeSender: endpoint({
    right: 'work',
    method: 'PATCH',
    path: '/ledger/senders/:id',
    summary: 'Change what is known of somebody who sends bills',
    params: idParams,
    body: senderChange,
  }),
  statementsAmongPapers: endpoint({
    right: 'work',
    method: 'GET',
    path: '/ledger/statements/papers',
    summary: 'Papers on the shelf that are statements and were not taken in yet',
    reply: array(
      object({
        documentId: id,
        name: string().defined(),
        lines: number().integer().required(),
        first: string().required(),
        last: string().required(),
      }).required(),
    ).required(),
  }),
  takeInPaper: endpoint({
    right: 'work',
    of: 'document',
    method: 'POST',
    path: '/documents/:id/statement',
    summary: 'Read a paper as a statement, and take its lines in unless it is only looked at',
    params: idParams,
    body: object({
      look: boolean(),
      accountId: string().uuid(),
      another: boolean(),
      turned: boolean(),
    }),
    reply: statementRead,
  }),
  forgetLineRule: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/ledger/line-rules/:id',
    summary: 'Forget how lines with the same words are entered',
    params: idParams,
  }),
};
