import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { describeBlob } from '../platform/blobs';
import { Context } from '../platform/context';
import { sendBlob } from '../platform/http/sendBlob';
import { lengthOf, receive, serve } from '../platform/http/serve';
import { dismissFile, originalOf, takeInBytes } from './intake';
import { scannerRoutes } from './scannerRoutes';
import { ScanDesk } from './scanning';
import { unlockFile } from './unlocking';
import { watchedRoutes } from './watchedRoutes';
import { Watcher } from './watching';

/** Taking in: files that are sent, scanners, watched folders. */
export function captureRoutes(
  app: FastifyInstance,
  context: Context,
  { scans, watcher }: { scans: ScanDesk; watcher: Watcher },
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

  receive(app, endpoints.sendFile, async (told, bytes, request, reply) => {
    const { stack: stackId, file: fileId, stackName, name: fileName, position, document: documentId } = told;
    const landing = { before: told.before ?? null, again: told.again ?? null };
    const place = {
      stackId,
      fileId,
      stackName,
      fileName,
      position,
      landing,
      documentId,
      bytes: lengthOf(request),
    };
    await takeInBytes(context, request.actor, place, bytes);
    return reply.code(201).send();
  });
  scannerRoutes(app, context, scans);
  watchedRoutes(app, watcher);
}
