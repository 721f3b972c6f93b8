import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Overview } from '@crow/contract/settings';
import { Context } from './platform/context';
import { rows } from './platform/database';
import { addLanguage, insistOnLanguages, listLanguages } from './reading/languages';
import { CHANGED_ON_DISK, ShelfChanges } from './shelf/shelfChanges';
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
  serve(app, endpoints.overview, async () => {
    const [counts] = await rows<Omit<Overview, 'watched' | 'strangers' | 'troubles'>>(
      source.manager,
      `select
         (select count(*)::int from stack where state = 'open' and binned_at is null) as stacks,
         (select count(*)::int from source_file f join stack s on s.id = f.stack_id where f.state = 'waiting' and s.binned_at is null) as arriving,
         (select count(*)::int from document where state = 'check' and binned_at is null) as check,
         (select count(*)::int from document where state = 'filing' and binned_at is null) as filing,
         (select count(*)::int from document where state = 'filed' and binned_at is null) as filed,
         (select count(*)::int from page p join stack s on s.id = p.stack_id where p.reading = 'waiting' and s.binned_at is null) as unread,
         (select count(*)::int from document where binned_at is null and problem->>'code' = any($1)) as "changedOnDisk"`,
      [CHANGED_ON_DISK],
    );
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
