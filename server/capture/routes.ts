import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Problem } from '@crow/contract/problems';
import { describeBlob } from '../platform/blobs';
import { Context } from '../platform/context';
import { rows } from '../platform/database';
import { sendBlob } from '../platform/http/sendBlob';
import { lengthOf, receive, serve } from '../platform/http/serve';
import { dismissFile, takeInBytes } from './intake';
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
    const [file] = await rows<{ name: string; blob_id: string }>(
      manager,
      'select name, coalesce(locked_blob_id, blob_id) as blob_id from source_file where id = $1',
      [params.id],
    );
    if (!file) throw new Problem('not-found', { what: 'The file' });
    // Whatever it is, the browser saves it and never opens it here.
    return sendBlob(context, reply, await describeBlob(context.database, file.blob_id), {
      mediaType: 'application/octet-stream',
      fileName: file.name,
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
