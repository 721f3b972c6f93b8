import { AnyObjectSchema, InferType, Schema } from 'yup';
import { Right } from './roles';

/** What somebody sees, or does not. */
export type Seen = 'stack' | 'page' | 'document' | 'folder';

/** One thing that the web application may ask of the server: how it is addressed, what it takes and what comes back. */
export interface Endpoint<
  Params extends AnyObjectSchema | undefined = AnyObjectSchema | undefined,
  Query extends AnyObjectSchema | undefined = AnyObjectSchema | undefined,
  Body extends AnyObjectSchema | undefined = AnyObjectSchema | undefined,
  Reply extends Schema | undefined = Schema | undefined,
> {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  /** Below /api; parts that begin with a colon are params. */
  path: string;
  /** One sentence for the API's page. */
  summary: string;
  /** What whoever asks must be allowed to do. */
  right: Right;
  /** What its `:id` names, or those in its body, where whoever asks may not see all of these. */
  of?: Seen;
  params?: Params;
  query?: Query;
  body?: Body;
  /** Whether it takes the bytes of a file, which stream to where they are kept, instead of a body of JSON. */
  takesBytes?: boolean;
  /** Absent when nothing, or something other than JSON, comes back. */
  reply?: Reply;
}

export type Inferred<S> = S extends Schema ? InferType<S> : undefined;

/** What a call of an endpoint takes. */
export type Input<E> =
  E extends Endpoint<infer P, infer Q, infer B, infer _R>
    ? Part<'params', P> & Part<'query', Q> & Part<'body', B>
    : never;
type Part<Name extends string, S> = S extends Schema ? { [key in Name]: InferType<S> } : unknown;

/** What a call of an endpoint gives. */
export type Output<E> = E extends Endpoint<infer _P, infer _Q, infer _B, infer R> ? Inferred<R> : never;

/** Keeps the precise types of an endpoint's schemas. */
export function endpoint<
  P extends AnyObjectSchema | undefined = undefined,
  Q extends AnyObjectSchema | undefined = undefined,
  B extends AnyObjectSchema | undefined = undefined,
  R extends Schema | undefined = undefined,
>(definition: Endpoint<P, Q, B, R>): Endpoint<P, Q, B, R> {
  return definition;
}
