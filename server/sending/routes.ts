import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Problem } from '@crow/contract/problems';
import { isAllowed } from '@crow/contract/roles';
import { Box } from '@crow/core/geometry';
import { describeBlob } from '../platform/blobs';
import { Context } from '../platform/context';
import { record } from '../platform/history';
import { asFile, sendBlob } from '../platform/http/sendBlob';
import { serve } from '../platform/http/serve';
import { CopyDesks, makeCopies } from './copies';
import { CopyPlaces } from './copyPlaces';
import { copyWithHidden, hideablePlaces } from './hiding';
import { Links } from './links';
import { MailAccount } from './mailAccount';
import { Parcels } from './parcels';

/** What goes out, and by what. */
export interface Sending {
  account: MailAccount;
  copyPlaces: CopyPlaces;
  links: Links;
  parcels: Parcels;
}

/** Copies for others. */
export function sendingRoutes(
  app: FastifyInstance,
  context: Context,
  { account, copyPlaces, parcels, ...desks }: Pick<Sending, 'account' | 'copyPlaces' | 'parcels'> & CopyDesks,
): void {
  const { manager } = context.database.source;
  serve(app, endpoints.makeCopies, async ({ actor, body, reply }) => {
    for (const id of body.ids) await app.insistOnSight(actor, 'document', id);
    // What a paper was before may hold what it is not meant to hold any more.
    if (body.version && !isAllowed(actor.role, endpoints.versionPdf.right)) throw new Problem('not-yours');
    const { bytes, name, mediaType } = await makeCopies(context, desks, actor, body);
    return asFile(reply, name, mediaType).send(bytes);
  });
  serve(app, endpoints.placesToHide, ({ params, query }) => hideablePlaces(manager, params.id, query.what));
  serve(app, endpoints.copyWithHidden, async ({ actor, params, body, reply }) => {
    const areas = body.areas.map(({ pageId, box }) => ({ pageId, box: box as Box }));
    const { bytes, name } = await copyWithHidden(context, desks, params.id, areas);
    await record(manager, actor, 'hid parts in a copy of', 'document', params.id, { areas: areas.length });
    return asFile(reply, `${name}.pdf`, 'application/pdf').send(Buffer.from(bytes));
  });

  serve(app, endpoints.listParcels, () => parcels.list());
  serve(app, endpoints.readParcel, ({ params }) => parcels.read(params.id));
  serve(app, endpoints.makeParcel, ({ actor, body }) => parcels.make(actor, body));
  serve(app, endpoints.parcelFile, async ({ params, reply }) => {
    const { blobId, fileName, mediaType } = await parcels.fileOf(params.id);
    return sendBlob(context, reply, await describeBlob(context.database, blobId), {
      mediaType,
      fileName,
      download: true,
    });
  });
  serve(app, endpoints.sendAgain, ({ actor, params }) => parcels.again(actor, params.id));
  serve(app, endpoints.endParcel, ({ actor, params }) => parcels.end(actor, params.id));

  serve(app, endpoints.listCopyPlaces, () => copyPlaces.list());
  serve(app, endpoints.addCopyPlace, ({ actor, body }) => copyPlaces.add(actor, body));
  serve(app, endpoints.agreeCopyPlace, ({ params }) => copyPlaces.again(params.id));
  serve(app, endpoints.leaveCopyPlace, ({ actor, params }) => copyPlaces.leave(actor, params.id));

  serve(app, endpoints.mailWays, async () => ({
    from: (await account.from()) ?? null,
    addresses: await parcels.addresses(),
  }));
  serve(app, endpoints.readMailAccount, async () => ({ account: await account.show() }));
  serve(app, endpoints.changeMailAccount, async ({ actor, body }) => ({ account: await account.change(actor, body) }));
  serve(app, endpoints.forgetMailAccount, ({ actor }) => account.forget(actor));
  serve(app, endpoints.tryMailAccount, () => account.tryOut());
}
