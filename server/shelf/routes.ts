import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Problem } from '@crow/contract/problems';
import { dayOf } from '@crow/core/reading/dayForms';
import { Context } from '../platform/context';
import { documentsInBin, documentsInFolders } from '../checking/documents';
import { SourceShelf } from '../capture/sources';
import { PictureDesk } from '../pages/pagePictures';
import { stacksInBin } from '../stack/queries';
import { bringIn } from './archive';
import { emptyBin } from './bin';
import { documentRoutes } from './documentRoutes';
import { shelfArchive } from './exporting';
import * as folders from './folders';
import { glanceAt } from './glance';
import { treeOf } from './queries';
import { ShelfChanges } from './shelfChanges';
import { SPREADSHEET_TYPES, tableOfPapers } from './spreadsheets';
import { foldersOf } from '../platform/sight';
import { asFile } from '../platform/http/sendBlob';
import { receive, serve } from '../platform/http/serve';

/** The shelf: its folders, what changed on the disk, the bin, the shelf as one archive, and its documents. */
export function shelfRoutes(
  app: FastifyInstance,
  context: Context,
  { changes, pictures, sources }: { changes: ShelfChanges; pictures: PictureDesk; sources: SourceShelf },
): void {
  const { manager } = context.database.source;
  serve(app, endpoints.listFolders, ({ actor }) => folders.listFolders(manager, foldersOf(actor.sight)));
  serve(app, endpoints.makeFolder, ({ actor, body }) => folders.makeFolder(context, actor, body.path));
  serve(app, endpoints.changeFolder, ({ actor, params, body }) =>
    folders.changeFolder(context, actor, params.id, body),
  );
  serve(app, endpoints.deleteFolder, ({ actor, params }) => folders.deleteFolder(context, actor, params.id));
  serve(app, endpoints.listDocuments, async ({ params, query }) =>
    documentsInFolders(manager, query.inside ? await treeOf(manager, params.id) : [params.id]),
  );
  serve(app, endpoints.shelfGlance, ({ actor }) => glanceAt(manager, actor.sight, dayOf(new Date())));
  serve(app, endpoints.shelfTable, async ({ actor, body, reply }) =>
    asFile(reply, `Papers.${body.as}`, SPREADSHEET_TYPES[body.as]).send(
      await tableOfPapers(manager, actor.sight, body),
    ),
  );
  serve(app, endpoints.listChangedOnDisk, () => changes.list());
  serve(app, endpoints.listStrangers, () => changes.strangers());
  serve(app, endpoints.settleStrangers, ({ actor, body }) =>
    body.choice === 'take-in' ? changes.takeInStrangers(actor, body.paths) : changes.leaveStrangers(actor, body.paths),
  );
  serve(app, endpoints.writeShelfAnew, ({ actor }) => changes.beginAnew(actor));
  serve(app, endpoints.settleOnDisk, ({ actor, body }) => changes.settle(actor, body.ids, body.choice));
  serve(app, endpoints.listBin, async () => ({
    documents: await documentsInBin(manager),
    stacks: await stacksInBin(manager),
  }));
  serve(app, endpoints.emptyBin, ({ actor }) => emptyBin(context, actor));
  serve(app, endpoints.shelfArchive, async ({ actor, query, reply }) => {
    const seen = foldersOf(actor.sight);
    if (query.folder && seen && !seen.includes(query.folder)) throw new Problem('not-found', { what: 'The folder' });
    const wanted = query.folder ? [query.folder] : seen;
    return asFile(reply, 'Crow Shelf.zip', 'application/zip').send(await shelfArchive(context, wanted));
  });
  receive(app, endpoints.sendArchive, ({ name }, bytes, request) => bringIn(context, request.actor, name, bytes));
  documentRoutes(app, context, { pictures, sources });
}
