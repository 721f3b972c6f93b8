import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { listPlaces } from './watchedPlaces';
import { Watcher } from './watching';
import { serve } from '../platform/http/serve';

/** Folders of this machine whose files are taken in by themselves. */
export function watchedRoutes(app: FastifyInstance, watcher: Watcher): void {
  serve(app, endpoints.listWatched, async () => watcher.list());
  serve(app, endpoints.watchFolder, ({ actor, body }) => watcher.add(actor, body.path, body.purpose, body.confirmed));
  serve(app, endpoints.changeWatched, ({ actor, params, body }) => watcher.change(actor, params.id, body.purpose));
  serve(app, endpoints.leaveFolder, ({ actor, params }) => watcher.leave(actor, params.id));
  serve(app, endpoints.forgetRefused, ({ actor, params }) => watcher.forgetRefused(actor, params.id));
  serve(app, endpoints.listPlaces, ({ query }) => listPlaces(query.beginning));
}
