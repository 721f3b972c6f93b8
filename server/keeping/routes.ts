import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Context } from '../platform/context';
import { receive, serve } from '../platform/http/serve';
import { changePlace, makePlace, placeLabels } from './places';
import { compareFiles, lookThroughArchive } from './proving';
import { changeSheets, listSheets, readSheet } from './sheets';

/** What becomes of the sheets themselves, and where they lie. */
export function keepingRoutes(app: FastifyInstance, context: Context): void {
  const { manager } = context.database.source;
  serve(app, endpoints.listSheets, () => listSheets(context));
  serve(app, endpoints.changeSheets, ({ actor, body }) => changeSheets(context, actor, body));
  serve(app, endpoints.readSheet, ({ params }) => readSheet(manager, params.id));
  serve(app, endpoints.makePlace, ({ actor, body }) => makePlace(context, actor, body.name));
  serve(app, endpoints.changePlace, ({ actor, params, body }) => changePlace(context, actor, params.id, body));
  serve(app, endpoints.placeLabels, async ({ query, reply }) =>
    reply
      .type('application/pdf')
      .header('content-disposition', 'inline; filename="Labels.pdf"')
      .send(Buffer.from(await placeLabels(manager, query.id))),
  );
  serve(app, endpoints.compareFiles, () => compareFiles(context));
  receive(app, endpoints.lookThroughArchive, ({ name }, bytes, { actor }) =>
    lookThroughArchive(context, actor, name, bytes),
  );
}
