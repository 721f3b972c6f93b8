import { array, boolean, InferType, number, object, string } from 'yup';
import { KINDS } from '@crow/core/reading/facts/fact';
import { share } from './basics';

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
  'customer',
  'order',
  'policy',
  'ends',
  'iban',
  'opening',
  'closing',
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
  /** Who set it: the name of a person, or null for the reading and for a divider sheet. */
  by: string().nullable().defined(),
  /** Why it is taken for this, in a few words. */
  why: string().nullable().defined(),
  /** Whether a misread figure was put right because only so everything adds up. */
  repaired: boolean().required(),
  /** What it may be as well, such as a day whose month may come first. */
  other: string().nullable().defined(),
});
export type Fact = InferType<typeof fact>;
export const factChange = object({
  value: string().trim().max(300, 'a fact has 300 characters at most').defined(),
  pageId: string().uuid().nullable(),
  box: share.nullable(),
});

/** Something that a paper says, and that one of its facts could be; without a place, it is known from other papers. */
export const choice = object({
  /** As a fact would be kept. */
  value: string().required(),
  /** What stands beside it on the paper. */
  beside: string().defined(),
  pageId: string().uuid().nullable().defined(),
  box: share.nullable().defined(),
});
export type Choice = InferType<typeof choice>;
const offered = array(choice.required()).required();
export const choices = object({
  days: offered,
  sums: offered,
  numbers: offered,
  names: offered,
  rates: offered,
  currencies: offered,
});
export type Choices = InferType<typeof choices>;

/** What a bill lists; money in units of its currency. */
export const factLine = object({
  description: string().defined(),
  quantity: number().nullable().defined(),
  unitPrice: number().nullable().defined(),
  /** In percent. */
  discount: number().optional(),
  amount: number().required(),
});

/** What a statement books: what its balance changes by, and what it is then. */
export const booking = object({
  date: string().required(),
  text: string().defined(),
  amount: number().required(),
  balance: number().nullable().defined(),
});

/** Tax at one rate, in percent. */
export const taxAtRate = object({
  rate: number().required(),
  net: number().nullable().defined(),
  tax: number().required(),
});

export const kinds = KINDS;
