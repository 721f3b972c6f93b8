import { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import { endpoints } from '@crow/contract/endpoints';
import { Problem } from '@crow/contract/problems';
import { Context } from '../context';
import { listFolderDocuments } from '../services/documents';
import * as folders from '../services/folders';
import { ShelfChanges } from '../services/shelfChanges';
import { bringIn } from '../services/unpacking';
import { serve } from './serve';

export function folderRoutes(app: FastifyInstance, context: Context, changes: ShelfChanges): void {
  const { manager } = context.database.source;
  serve(app, endpoints.listFolders, () => folders.listFolders(manager));
  serve(app, endpoints.makeFolder, ({ actor, body }) => folders.makeFolder(context, actor, body.path));
  serve(app, endpoints.changeFolder, ({ actor, params, body }) =>
    folders.changeFolder(context, actor, params.id, body),
  );
  serve(app, endpoints.deleteFolder, ({ actor, params }) => folders.deleteFolder(context, actor, params.id));
  serve(app, endpoints.listDocuments, ({ params }) => listFolderDocuments(manager, params.id));
  serve(app, endpoints.listChangedOnDisk, () => changes.list());
  serve(app, endpoints.settleOnDisk, ({ actor, body }) => changes.settle(actor, body.ids, body.choice));
  // The bytes of an archive come as they are, as those of files do.
  app.put('/shelf/archive', { bodyLimit: Number.MAX_SAFE_INTEGER }, async (request) => {
    const { name } = await archive.validate(request.query).catch((error: Error) => {
      throw new Problem('not-valid', { detail: error.message });
    });
    const bytes = request.body as AsyncIterable<Uint8Array> | null;
    if (!bytes) throw new Problem('file-empty', { name });
    return bringIn(context, request.actor, name, bytes);
  });
}

const archive = object({ name: string().max(500).required() });
