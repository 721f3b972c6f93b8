import { array, InferType, number, object, string } from 'yup';
import {
  DAY_FACTS,
  MONEY_FACTS,
  VALUE_FACTS,
  RATE_UNITS,
  WANTS,
  WHICH_DAY,
} from '@crow/core/finding/asking/understood';
import { id, money, share } from './basics';
import { endpoint } from './endpoint';
import { FACT_NAMES } from './facts';

const day = string().matches(/^\d{4}-\d{2}-\d{2}$/, 'a day is written 2026-11-28');
const period = object({ from: day.nullable().defined(), until: day.nullable().defined() });
const phrase = string().max(300).required();

/** A question as it was understood, which can be changed and asked again. */
export const understood = object({
  wants: string().oneOf(WANTS).required(),
  per: string().oneOf(RATE_UNITS).default('paper'),
  fact: string()
    .oneOf([...MONEY_FACTS, ...DAY_FACTS, ...VALUE_FACTS])
    .required(),
  which: string().oneOf(WHICH_DAY).required(),
  about: array(phrase).max(60).required(),
  who: array(phrase).max(60).required(),
  kinds: array(phrase).max(60).required(),
  folder: string().max(600).nullable().defined(),
  by: string().oneOf(DAY_FACTS).required(),
  period: period.nullable().default(null).defined(),
  against: period.nullable().default(null).defined(),
  amounts: object({
    least: number().nullable().defined(),
    most: number().nullable().defined(),
    currency: string().max(3).nullable().defined(),
  })
    .nullable()
    .default(null)
    .defined(),
});
export type UnderstoodQuestion = InferType<typeof understood>;

/** A paper that an answer comes from, and where on it that stands. */
export const answerSource = object({
  id,
  folderId: string().uuid().nullable().defined(),
  name: string().defined(),
  date: string().nullable().defined(),
  fact: string().oneOf(FACT_NAMES).nullable().default(null).defined(),
  pageId: string().uuid().nullable().defined(),
  box: share.nullable().default(null).defined(),
  /** What it adds, where sums are asked for. */
  money: money.nullable().default(null).defined(),
  /** What it lists that is meant, where not the whole paper is. */
  lines: array(string().required()).required(),
});
export type AnswerSource = InferType<typeof answerSource>;

const sums = array(money.required()).required();
export const shelfAnswer = object({
  /** Sums, averages or single amounts, by currency. */
  sums,
  /** Over how many months, quarters or years an average is spread. */
  over: number().nullable().default(null).defined(),
  /** What they are set beside. */
  against: array(money.required()).nullable().default(null).defined(),
  count: number().integer().nullable().defined(),
  /** A day for each sender, or contract. */
  days: array(
    object({ day: string().required(), id, name: string().defined(), vendor: string().nullable().defined() }),
  ).required(),
  /** Senders, the one that was paid most first where that is asked. */
  who: array(object({ name: string().required(), sums })).required(),
  values: array(string().required()).required(),
  /** Every paper that it comes from, the latest first. */
  sources: array(answerSource.required()).required(),
  /** Papers that say what another one says as well, and were not counted. */
  leftOut: array(object({ kind: string().required(), papers: number().integer().required() })).required(),
});
export type ShelfAnswer = InferType<typeof shelfAnswer>;

/** Why there is no answer: whether something was paid stands on no paper; and so on. */
export const NO_ANSWERS = ['nothing asked', 'words', 'paid', 'about', 'none such', 'not on them'] as const;
export const shelfReply = object({
  /** Null when nothing could be made of the question. */
  understood: understood.nullable().default(null).defined(),
  answer: shelfAnswer.nullable().default(null).defined(),
  cannot: object({
    why: string().oneOf(NO_ANSWERS).required(),
    /** Words that no paper is about. */
    words: array(string().required()).required(),
    /** Papers that were looked at and don't say it. */
    papers: number().integer().required(),
  })
    .nullable()
    .default(null)
    .defined(),
  /** The senders on the shelf, for whoever wants to ask of another one. */
  senders: array(string().required()).required(),
});
export type ShelfReply = InferType<typeof shelfReply>;

export const askingEndpoints = {
  askShelf: endpoint({
    right: 'read',
    method: 'POST',
    path: '/answers',
    summary: 'Answers a plain question over all papers on the shelf that are seen, from their facts',
    body: object({
      question: string().trim().max(300).required(),
      /** How it is to be understood, when that was changed by hand. */
      understood: understood.optional().default(undefined),
    }),
    reply: shelfReply,
  }),
};
