import { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import { endpoints } from '@crow/contract/endpoints';
import { Context } from '../context';
import { listFolderDocuments } from '../services/documents';
import * as folders from '../services/folders';
import { ShelfChanges } from '../services/shelfChanges';
import { bringIn } from '../services/unpacking';
import { receive, serve } from './serve';

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
  serve(app, endpoints.listStrangers, () => changes.strangers());
  serve(app, endpoints.settleStrangers, ({ actor, body }) =>
    body.choice === 'take-in' ? changes.takeInStrangers(actor, body.paths) : changes.leaveStrangers(actor, body.paths),
  );
  serve(app, endpoints.writeShelfAnew, ({ actor }) => changes.beginAnew(actor));
  serve(app, endpoints.settleOnDisk, ({ actor, body }) => changes.settle(actor, body.ids, body.choice));
  receive(app, '/shelf/archive', archive, ({ name }, bytes, request) => bringIn(context, request.actor, name, bytes));
}

const archive = object({ name: string().max(500).required() });
