import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Context } from '../platform/context';
import * as scanning from './scanning';
import { serve } from '../platform/http/serve';

/** Scanners, presets and scans. */
export function scannerRoutes(app: FastifyInstance, context: Context, desk: scanning.ScanDesk): void {
  const { manager } = context.database.source;
  serve(app, endpoints.listScanners, () => scanning.listScanners(manager));
  serve(app, endpoints.findScanners, ({ actor }) => scanning.lookForScanners(context, actor));
  serve(app, endpoints.addScanner, ({ actor, body }) => scanning.addScanner(context, actor, body.address));
  serve(app, endpoints.forgetScanner, ({ actor, params }) => scanning.forgetScanner(context, actor, params.id));
  serve(app, endpoints.startScan, ({ actor, params, body }) =>
    desk.start(actor, params.id, body.settings, {
      stackId: body.stack,
      stackName: body.stackName,
      position: body.position,
      landing: { before: body.before ?? null, again: body.again ?? null },
      documentId: body.document,
    }),
  );
  serve(app, endpoints.previewScan, async ({ params, reply }) =>
    reply.type('image/jpeg').send(Buffer.from(await desk.preview(params.id))),
  );
  serve(app, endpoints.listScans, async () => desk.list());
  serve(app, endpoints.stopScan, async ({ params }) => desk.stop(params.id));
  serve(app, endpoints.listPresets, () => scanning.listPresets(manager));
  serve(app, endpoints.savePreset, ({ actor, body }) => scanning.savePreset(context, actor, body));
  serve(app, endpoints.deletePreset, ({ actor, params }) => scanning.deletePreset(context, actor, params.id));
}
