import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Box } from '@crow/core/geometry';
import { SourceShelf } from '../capture/sources';
import { PictureDesk } from '../pages/pagePictures';
import { Context } from '../platform/context';
import { asFile } from '../platform/http/sendBlob';
import { serve } from '../platform/http/serve';
import { makeCopies } from './copies';
import { copyWithHidden, hideablePlaces } from './hiding';

/** Copies for others. */
export function sendingRoutes(
  app: FastifyInstance,
  context: Context,
  desks: { sources: SourceShelf; pictures: PictureDesk },
): void {
  const { manager } = context.database.source;
  serve(app, endpoints.makeCopies, async ({ actor, body, reply }) => {
    for (const id of body.ids) await app.insistOnSight(actor, 'document', id);
    const { bytes, name, mediaType } = await makeCopies(context, actor, body);
    return asFile(reply, name, mediaType).send(bytes);
  });
  serve(app, endpoints.placesToHide, ({ params, query }) => hideablePlaces(manager, params.id, query.what));
  serve(app, endpoints.copyWithHidden, async ({ actor, params, body, reply }) => {
    const areas = body.areas.map(({ pageId, box }) => ({ pageId, box: box as Box }));
    const { bytes, name } = await copyWithHidden(context, desks, actor, params.id, areas);
    return asFile(reply, `${name}.pdf`, 'application/pdf').send(Buffer.from(bytes));
  });
}
