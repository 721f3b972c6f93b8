import { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { ValidationError } from 'yup';
import { Endpoint, Input, Output } from '@crow/contract/endpoint';
import { Problem } from '@crow/contract/problems';
import { ActingAs } from '../store/history';

type Answer<E> = Output<E> extends undefined ? void | FastifyReply | NodeJS.ReadableStream : Output<E>;

/**
 * Registers an endpoint of the contract: what comes in is checked against its schemas, and refused with a sentence when it
 * doesn't fit, before `answer` sees it.
 */
export function serve<E extends Endpoint>(
  app: FastifyInstance,
  endpoint: E,
  answer: (input: Input<E> & { actor: ActingAs; request: FastifyRequest; reply: FastifyReply }) => Promise<Answer<E>>,
): void {
  app.route({
    method: endpoint.method,
    url: endpoint.path,
    config: { endpoint },
    handler: async (request, reply) => {
      const input = { actor: request.actor, request, reply } as Input<E> & {
        actor: ActingAs;
        request: FastifyRequest;
        reply: FastifyReply;
      };
      for (const part of ['params', 'query', 'body'] as const) {
        const schema = endpoint[part];
        if (!schema) continue;
        try {
          Object.assign(input, {
            [part]: await schema.validate(request[part] ?? {}, { stripUnknown: true, abortEarly: true }),
          });
        } catch (error) {
          if (error instanceof ValidationError) throw new Problem('not-valid', { detail: error.message });
          throw error;
        }
      }
      const result = await answer(input);
      if (result === undefined && !reply.sent) return reply.code(204).send();
      return result;
    },
  });
}
