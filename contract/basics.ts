import { mixed, number, object, string, tuple } from 'yup';
import { Turn } from '@crow/core/geometry';
import { KIND_NAME } from '@crow/core/reading/facts/kindList';
import { ProblemReport } from './problems';

export const id = string().uuid('must be an identifier').required();
export const idParams = object({ id });

/** A kind of papers: one of the list, or one that was added. */
export const kindName = string().matches(
  KIND_NAME,
  'A kind has a name of 2 to 30 letters, figures, blanks and hyphens.',
);

export const turn = number<Turn>().oneOf([0, 90, 180, 270]).required();
/** [x, y, width, height] as shares (0 to 1) of the page's width and height. */
export const share = tuple([number().required(), number().required(), number().required(), number().required()]);
/** So many of the smallest unit of a currency (ISO 4217; null where it is not known). */
export const money = object({ units: number().integer().required(), currency: string().nullable().defined() });
export const problem = mixed<ProblemReport>().nullable().defined();
export const when = string().required();
/** So many documents can be changed at once. */
export const MOST_AT_ONCE = 1000;
