import { join } from 'node:path';
import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import fastifyStatic from '@fastify/static';
import Fastify, { FastifyBaseLogger, FastifyError, FastifyInstance, LogController } from 'fastify';
import { Problem } from '@crow/contract/problems';
import { allRoutes, Parts } from './assembly';
import { Context } from './platform/context';
import { apiPage } from './platform/http/apiPage';
import { door } from './people/door';

const MOST_JSON_BYTES = 2 * 1024 * 1024;
/** A window that scrolls through a long stack asks for hundreds of pictures; a run-away page asks for far more. */
const MOST_REQUESTS_A_MINUTE = 6000;

/** The web application's server: everything below /api, and the application itself. */
export async function buildApp(
  context: Context,
  parts: Parts & { webFolder: string; named?: URL },
): Promise<FastifyInstance> {
  const app = Fastify({
    bodyLimit: MOST_JSON_BYTES,
    loggerInstance: context.log as FastifyBaseLogger,
    logController: new LogController({ disableRequestLogging: true }),
    forceCloseConnections: true,
    routerOptions: { maxParamLength: 200 },
  });
  app.setErrorHandler((error: FastifyError, request, reply) => {
    const problem = asProblem(error);
    if (problem.code === 'unexpected') request.log.error({ error, route: request.routeOptions.url }, 'unexpected');
    return reply.code(problem.status).header('cache-control', 'no-store').send(problem.report);
  });
  await app.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        // The kernels of core/imaging are WebAssembly; text stays what it is and is never run.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        styleSrc: ["'self'", "'unsafe-inline'"],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        frameAncestors: ["'self'"],
        formAction: ["'self'"],
      },
    },
    // There is no TLS on loopback.
    strictTransportSecurity: false,
  });
  await app.register(rateLimit, {
    max: MOST_REQUESTS_A_MINUTE,
    timeWindow: '1 minute',
    // A connection that has been closed meanwhile has no address any more.
    keyGenerator: ({ socket }) => socket.remoteAddress ?? 'gone',
    errorResponseBuilder: () => new Problem('too-many-requests'),
  });

  await door(app, context.database, parts);
  await app.register(
    async (api) => {
      api.addHook('onSend', async (_request, reply) => {
        if (!reply.hasHeader('cache-control')) void reply.header('cache-control', 'no-store');
      });
      await apiPage(api);
      allRoutes(api, context, parts);
    },
    { prefix: '/api' },
  );

  await app.register(fastifyStatic, {
    root: parts.webFolder,
    setHeaders: (response, path) => {
      const hashed = path.startsWith(join(parts.webFolder, 'assets'));
      void response.setHeader('cache-control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
    },
  });
  // Every other address is a place in the web application.
  app.setNotFoundHandler((request, reply) => {
    if (request.method !== 'GET' || /^\/(assets|api)\//.test(request.url))
      throw new Problem('not-found', { what: 'This address' });
    return reply.sendFile('index.html');
  });
  return app;
}

function asProblem(error: FastifyError): Problem {
  if (error instanceof Problem) return error;
  if (error.code === 'ECONNRESET' || error.code === 'ERR_STREAM_PREMATURE_CLOSE')
    return new Problem('upload-interrupted', { name: 'the file' });
  if (error.statusCode === 413) return new Problem('not-valid', { detail: 'it was too long' });
  if (error.statusCode && error.statusCode < 500) return new Problem('not-valid', { detail: error.message });
  // What the database driver says while PostgreSQL is away or coming up (SQLSTATE class 57 and connection errors).
  const away =
    /ECONNREFUSED|Connection terminated|terminating connection|connection timeout|57P0|the database system is|Client has encountered a connection error/i;
  if (away.test(`${error.code} ${error.message}`)) return new Problem('not-ready');
  return new Problem('unexpected');
}
