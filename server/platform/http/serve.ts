import { FastifyInstance, FastifyReply, FastifyRequest, HTTPMethods } from 'fastify';
import { AnyObjectSchema, InferType, ValidationError } from 'yup';
import { Endpoint, Input, Output, Seen } from '@crow/contract/endpoint';
import { Problem } from '@crow/contract/problems';
import { isAllowed } from '@crow/contract/roles';
import { isKeepable } from '@crow/core/reading/printable';
import { Asking } from '../history';

type Answer<E> = Output<E> extends undefined ? void | FastifyReply | NodeJS.ReadableStream : Output<E>;

/**
 * Registers an endpoint of the contract: what comes in is checked against its schemas, and refused with a sentence when it
 * doesn't fit, before `answer` sees it.
 */
export function serve<E extends Endpoint>(
  app: FastifyInstance,
  endpoint: E,
  answer: (input: Input<E> & { actor: Asking; request: FastifyRequest; reply: FastifyReply }) => Promise<Answer<E>>,
): void {
  app.route({
    method: endpoint.method,
    url: endpoint.path,
    config: { endpoint },
    handler: async (request, reply) => {
      insistOnRight(request, endpoint);
      const input = { actor: request.actor, request, reply } as Input<E> & {
        actor: Asking;
        request: FastifyRequest;
        reply: FastifyReply;
      };
      for (const part of ['params', 'query', 'body'] as const) {
        const schema = endpoint[part];
        if (!schema) continue;
        insistOnKeepable(request[part]);
        try {
          Object.assign(input, {
            [part]: await schema.validate(request[part] ?? {}, { stripUnknown: true, abortEarly: true }),
          });
        } catch (error) {
          if (error instanceof ValidationError) throw new Problem('not-valid', { detail: error.message });
          throw error;
        }
      }
      await insistOnSight(request, endpoint);
      const result = await answer(input);
      if (result === undefined && !reply.sent) return reply.code(204).send();
      return result;
    },
  });
}

/** Nothing that is asked is deeper than this. */
const DEEPEST = 40;

/**
 * Whether what came in can be kept at all, whatever it should be: no text that the database can't hold, nothing nested without end.
 * @throws Problem 'not-valid'
 */
function insistOnKeepable(given: unknown): void {
  let level: unknown[] = [given];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > DEEPEST) throw new Problem('not-valid', { detail: 'it was nested too deeply' });
    const next: unknown[] = [];
    for (const each of level) {
      if (typeof each === 'string' && !isKeepable(each))
        throw new Problem('not-valid', { detail: 'it held a character that can’t be kept' });
      if (typeof each === 'object' && each !== null) for (const value of Object.values(each)) next.push(value);
    }
    level = next;
  }
}

declare module 'fastify' {
  interface FastifyInstance {
    /** @throws Problem 'not-found' when whoever asks does not see it */
    insistOnSight: (actor: Asking, of: Seen, id: string) => Promise<void>;
  }
}

async function insistOnSight({ server, actor, params }: FastifyRequest, { of }: Endpoint): Promise<void> {
  if (of) await server.insistOnSight(actor, of, (params as { id: string }).id);
}

/** @throws Problem 'not-yours' */
function insistOnRight({ actor }: FastifyRequest, { right }: Endpoint): void {
  if (!isAllowed(actor.role, right)) throw new Problem('not-yours');
}

/**
 * Registers an endpoint that takes the bytes of a file as they come, and nothing else: they stream to where they are kept, a piece in
 * memory at a time.
 */
export function receive<Q extends AnyObjectSchema>(
  app: FastifyInstance,
  endpoint: Endpoint<undefined, Q> & { query?: Q },
  take: (
    told: InferType<Q>,
    bytes: AsyncIterable<Uint8Array>,
    request: FastifyRequest,
    reply: FastifyReply,
  ) => Promise<unknown>,
): void {
  void app.register(async (own) => {
    // Anything else than bytes would be gathered in memory before it is looked at.
    own.removeAllContentTypeParsers();
    own.addContentTypeParser('application/octet-stream', (_request, payload, done) => done(null, payload));
    own.route({
      method: endpoint.method,
      url: endpoint.path,
      bodyLimit: Number.MAX_SAFE_INTEGER,
      config: { endpoint },
      handler: async (request, reply) => {
        insistOnRight(request, endpoint);
        insistOnKeepable(request.query);
        const told = await endpoint.query!.validate(request.query).catch((error: Error) => {
          throw new Problem('not-valid', { detail: error.message });
        });
        const bytes = request.body as AsyncIterable<Uint8Array> | null;
        if (!bytes) throw new Problem('file-empty', { name: String((told as { name?: string }).name ?? 'The file') });
        return take(told as InferType<Q>, bytes, request, reply);
      },
    });
  });
}

/**
 * Registers an endpoint whose requests are answered by something that speaks a protocol of its own, and reads what they bring by itself.
 * @param methods with which it is asked
 */
export function pass(
  app: FastifyInstance,
  endpoint: Endpoint,
  methods: HTTPMethods[],
  answer: (request: FastifyRequest, reply: FastifyReply) => void,
): void {
  void app.register(async (own) => {
    own.removeAllContentTypeParsers();
    own.addContentTypeParser('*', (_request, _payload, done) => done(null));
    own.route({
      method: methods,
      url: endpoint.path,
      bodyLimit: Number.MAX_SAFE_INTEGER,
      config: { endpoint },
      handler: async (request, reply) => {
        insistOnRight(request, endpoint);
        answer(request, reply);
        return reply;
      },
    });
  });
}
