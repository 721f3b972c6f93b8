import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Context } from '../context';
import { listFolderDocuments } from '../services/documents';
import * as folders from '../services/folders';
import { serve } from './serve';

export function folderRoutes(app: FastifyInstance, context: Context): void {
  const { manager } = context.database.source;
  serve(app, endpoints.listFolders, () => folders.listFolders(manager));
  serve(app, endpoints.makeFolder, ({ actor, body }) => folders.makeFolder(context, actor, body.path));
  serve(app, endpoints.changeFolder, ({ actor, params, body }) =>
    folders.changeFolder(context, actor, params.id, body),
  );
  serve(app, endpoints.deleteFolder, ({ actor, params }) => folders.deleteFolder(context, actor, params.id));
  serve(app, endpoints.listDocuments, ({ params }) => listFolderDocuments(manager, params.id));
}
