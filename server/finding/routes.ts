import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Context } from '../platform/context';
import { serve } from '../platform/http/serve';
import { dayOf } from '@crow/core/reading/dayForms';
import { askDocument } from './asking';
import { askShelf } from './askingShelf';
import { find, hitsInDocument } from './finding';
import { forgetSearch, keepSearch, keptSearches } from './keptSearches';

/** Finding papers by what they say, and asking them. */
export function findingRoutes(app: FastifyInstance, { database }: Context): void {
  const { manager } = database.source;
  serve(app, endpoints.find, ({ actor: { sight }, query }) =>
    find(manager, query.q, { by: query.sort, most: query.most, sight }),
  );
  serve(app, endpoints.listSearches, ({ actor }) => keptSearches(manager, actor));
  serve(app, endpoints.keepSearch, ({ actor, body }) => keepSearch(manager, actor, body.query));
  serve(app, endpoints.forgetSearch, ({ actor, params }) => forgetSearch(manager, actor, params.id));
  serve(app, endpoints.documentHits, ({ params, query }) => hitsInDocument(manager, params.id, query.q));
  serve(app, endpoints.askShelf, ({ actor: { sight }, body }) => askShelf(manager, sight, body, dayOf(new Date())));
  serve(app, endpoints.askDocument, ({ params, query }) => askDocument(manager, params.id, query.q));
}
