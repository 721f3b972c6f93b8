import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Context } from '../platform/context';
import { serve } from '../platform/http/serve';
import { arrange, stepArrangement } from '../stack/arranging';
import { stacksOnTable } from '../stack/queries';
import { printedDividers } from './dividers';
import { movePages, weaveStacks, weaving } from './movingPages';
import * as stacks from './stacks';

/** Stacks on the light table. */
export function sortingRoutes(app: FastifyInstance, context: Context): void {
  const { manager } = context.database.source;
  serve(app, endpoints.listStacks, ({ actor: { sight } }) =>
    stacksOnTable(manager, sight.of === 'own stacks' ? sight.actorId : null),
  );
  serve(app, endpoints.readStack, ({ params }) => stacks.readStack(manager, params.id));
  serve(app, endpoints.arrangeStack, async ({ actor, params, body }) => {
    await arrange(context, actor, params.id, body.base, body.pages);
    return stacks.readStack(manager, params.id);
  });
  serve(app, endpoints.movePages, ({ actor, params, body }) => movePages(context, actor, params.id, body));
  serve(app, endpoints.showWeaving, ({ params, query }) => weaving(manager, params.id, query.backs));
  serve(app, endpoints.weaveStacks, ({ actor, params, body }) => weaveStacks(context, actor, params.id, body.backs));
  serve(app, endpoints.undoStack, async ({ actor, params }) => {
    await stepArrangement(context, actor, params.id, -1);
    return stacks.readStack(manager, params.id);
  });
  serve(app, endpoints.redoStack, async ({ actor, params }) => {
    await stepArrangement(context, actor, params.id, 1);
    return stacks.readStack(manager, params.id);
  });
  serve(app, endpoints.stopReading, ({ actor, params }) => stacks.stopReading(context, actor, params.id));
  serve(app, endpoints.startReading, ({ actor, params }) => stacks.startReading(context, actor, params.id));
  serve(app, endpoints.deleteStack, ({ actor, params }) => stacks.binStack(context, actor, params.id, true));
  serve(app, endpoints.bringBackStack, ({ actor, params }) => stacks.binStack(context, actor, params.id, false));
  serve(app, endpoints.dividerSheets, async ({ query, reply }) => {
    const pdf = await printedDividers({ folder: query.folder || null, kind: query.kind ?? null }, query.copies);
    return reply
      .type('application/pdf')
      .header('content-disposition', 'inline; filename="Divider sheets.pdf"')
      .send(Buffer.from(pdf));
  });
}
