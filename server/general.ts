import { askAgain } from './checking/documents';
import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Context } from './platform/context';
import { addLanguage, insistOnLanguages, listLanguages } from './reading/languages';
import { whatWaits } from './queries';
import { ShelfChanges } from './shelf/shelfChanges';
import { Watcher } from './capture/watching';
import { record } from './platform/history';
import { announce } from './platform/live';
import { readSettings, writeSettings } from './platform/settings';
import { LiveHub } from './platform/http/liveHub';
import { serve } from './platform/http/serve';

/** What waits where, the settings, and the stream of changes. */
export function generalRoutes(
  app: FastifyInstance,
  context: Context,
  { hub, watcher, changes }: { hub: LiveHub; watcher: Watcher; changes: ShelfChanges },
): void {
  const { source } = context.database;
  serve(app, endpoints.overview, async ({ actor: { sight } }) => {
    const counts = await whatWaits(source.manager, sight);
    if (sight.of !== 'everything') return { ...counts, watched: 0, strangers: 0, troubles: [] };
    const watched = watcher.list().reduce((sum, { waiting }) => sum + waiting, 0);
    const troubles = [
      ...(await changes.troubles()),
      ...((await context.disks?.full()) ?? []).map(({ report }) => report),
    ];
    return { ...counts, watched, strangers: changes.strangersSeen, troubles };
  });
  serve(app, endpoints.readSettings, () => readSettings(source.manager));
  serve(app, endpoints.changeSettings, async ({ actor, body }) => {
    await insistOnLanguages(body.languages ?? []);
    return source.transaction(async (manager) => {
      await writeSettings(manager, body);
      if (body.ownKinds) await askAgain(manager);
      await record(manager, actor, 'changed', 'settings', null, body);
      await announce(manager, 'settings', null);
      return readSettings(manager);
    });
  });
  serve(app, endpoints.listLanguages, () => listLanguages());
  serve(app, endpoints.addLanguage, async ({ actor, body }) => {
    await addLanguage(context, actor, body.code);
    return listLanguages();
  });
  serve(app, endpoints.events, async ({ request, reply }) => hub.attend(request, reply));
}
