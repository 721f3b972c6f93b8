import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { describeBlob } from '../platform/blobs';
import { Context } from '../platform/context';
import { sendBlob } from '../platform/http/sendBlob';
import { pass, serve } from '../platform/http/serve';
import { dismissFile, originalOf } from './intake';
import { scannerRoutes } from './scannerRoutes';
import { ScanDesk } from './scanning';
import { Uploads } from './uploads';
import { unlockFile } from './unlocking';
import { watchedRoutes } from './watchedRoutes';
import { Watcher } from './watching';

/** Taking in: files that are sent, scanners, watched folders. */
export function captureRoutes(
  app: FastifyInstance,
  context: Context,
  { scans, watcher, uploads }: { scans: ScanDesk; watcher: Watcher; uploads: Uploads },
): void {
  const { manager } = context.database.source;
  serve(app, endpoints.dismissFile, ({ actor, params }) => dismissFile(context, actor, params.id));
  serve(app, endpoints.unlockFile, ({ actor, params, body }) => unlockFile(context, actor, params.id, body.password));
  serve(app, endpoints.originalFile, async ({ params, reply }) => {
    const { name, blobId } = await originalOf(manager, params.id);
    // Whatever it is, the browser saves it and never opens it here.
    return sendBlob(context, reply, await describeBlob(context.database, blobId), {
      mediaType: 'application/octet-stream',
      fileName: name,
      download: true,
    });
  });

  pass(app, endpoints.sendFile, ['POST'], (request, reply) => uploads.handle(request, reply));
  pass(app, endpoints.sendPiece, ['PATCH', 'HEAD', 'DELETE'], (request, reply) => uploads.handle(request, reply));
  scannerRoutes(app, context, scans);
  watchedRoutes(app, watcher);
}
