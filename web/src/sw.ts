/// <reference lib="webworker" />
import './outbox/noWindow';
import { clientsClaim } from 'workbox-core';
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import * as tus from 'tus-js-client';
import { SHARED, takeShared } from './outbox/shared';
import { FetchStack } from './outbox/fetchStack';
import { Outbox } from './outbox/outboxStore';
import { sendWaiting } from './outbox/sendWaiting';

/** Keeps the application ready where there is no line, and sends what waits when there is one again, also with no window open. */
declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: { url: string; revision: string | null }[] };

interface SyncEvent extends ExtendableEvent {
  tag: string;
}

/** How long a page may take to come before the kept one is shown, in milliseconds. */
const PATIENCE_MS = 4000;

void self.skipWaiting();
clientsClaim();
cleanupOutdatedCaches();
precacheAndRoute(self.__WB_MANIFEST);

const outbox = new Outbox();

// The page itself comes from the server whenever it answers: it is what knows whether this browser is still let in.
registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      const late = new Promise<undefined>((resolve) => setTimeout(() => resolve(undefined), PATIENCE_MS));
      const came = await Promise.race([fetch(request).catch(() => undefined), late]);
      return came ?? (await matchPrecache('/index.html')) ?? Response.error();
    },
    { denylist: [/^\/(api|enter|trust|share)\b/, /\.crt$/] },
  ),
);

registerRoute(
  ({ url }) => url.pathname === SHARED,
  async ({ request }) => {
    await takeShared(await request.formData(), outbox);
    return Response.redirect('/capture', 303);
  },
  'POST',
);

self.addEventListener('sync', (event) => {
  (event as SyncEvent).waitUntil(
    sendWaiting(outbox, { load: () => Promise.resolve(tus), stack: new FetchStack() }).then((sent) => {
      // The browser tries again by itself when it is told that it failed.
      if (sent === 'no-line') throw new Error('There is no line.');
    }),
  );
});
