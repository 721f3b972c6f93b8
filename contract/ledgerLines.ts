import { array, boolean, InferType, number, object, string } from 'yup';
import { id, idParams } from './basics';
import { endpoint } from './endpoint';
import { entry } from './ledger';

/** So many lines are entered in one go. */
const MOST_LINES = 1000;
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
  takeOutLines: endpoint({
    right: 'work',
    method: 'POST',
    path: '/ledger/lines/out',
    summary: 'Take entries out again that were made of lines, with their ties',
    body: object({ ids: array(id).min(1).max(MOST_LINES).required() }),
  }),
  forgetLineRule: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/ledger/line-rules/:id',
    summary: 'Forget how lines with the same words are entered',
    params: idParams,
  }),
};
