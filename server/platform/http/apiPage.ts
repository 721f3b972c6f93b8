import swagger from '@fastify/swagger';
import swaggerUi from '@fastify/swagger-ui';
import { FastifyInstance } from 'fastify';
import { Endpoint } from '@crow/contract/endpoint';
import { jsonSchema } from '@crow/contract/jsonSchema';

declare module 'fastify' {
  interface FastifyContextConfig {
    endpoint?: Endpoint;
  }
}

/** The page that describes the API, at /api/about, made from the same contract that requests are checked against. */
export async function apiPage(app: FastifyInstance): Promise<void> {
  await app.register(swagger, {
    openapi: {
      openapi: '3.1.0',
      info: { title: 'Crow Shelf', description: 'What the web application asks of the server.', version: '1' },
    },
    transform: ({ schema, url, route }) => {
      const endpoint = route.config?.endpoint;
      if (!endpoint) return { schema: { ...schema, hide: true }, url };
      const described = {
        summary: endpoint.summary,
        tags: [endpoint.path.split('/')[1]],
        ...(endpoint.params && { params: jsonSchema(endpoint.params) }),
        ...(endpoint.query && { querystring: jsonSchema(endpoint.query) }),
        ...(endpoint.body && { body: jsonSchema(endpoint.body) }),
        response: endpoint.reply
          ? { 200: { description: 'As asked', ...jsonSchema(endpoint.reply) } }
          : { 204: { description: 'Done', type: 'null' } },
      };
      return { schema: described, url };
    },
  });
  await app.register(swaggerUi, { routePrefix: '/about', staticCSP: true });
  // Its pages link to each other from there.
  app.addHook('onRequest', async (request, reply) => {
    if (request.url.split('?')[0] === '/api/about') return reply.redirect('/api/about/', 308);
  });
}
