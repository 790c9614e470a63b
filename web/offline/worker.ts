/// <reference lib="webworker" />
import { clientsClaim, type WorkboxPlugin } from 'workbox-core';
import { ExpirationPlugin } from 'workbox-expiration';
import { createPartialResponse } from 'workbox-range-requests';
import { registerRoute } from 'workbox-routing';
import { CacheFirst, NetworkFirst } from 'workbox-strategies';

declare const self: ServiceWorkerGlobalScope;

/** As `web/offline/kept.ts` names it. */
const KEPT = 'returned';
const SHELL = '/';
/** Files of the app that are held: those of some versions of it. */
const MOST_FILES = 400;
/** After so long the network counts as gone. */
const PATIENCE_SECONDS = 4;

void self.skipWaiting();
clientsClaim();

// Every page of the app is the same file; which one it is, the app finds out by itself.
registerRoute(
  // What leads to another site and back is the server's.
  ({ request, url }) => request.mode === 'navigate' && !url.pathname.startsWith('/lti/'),
  new NetworkFirst({
    cacheName: 'shell',
    networkTimeoutSeconds: PATIENCE_SECONDS,
    plugins: [{ cacheKeyWillBeUsed: () => Promise.resolve(SHELL) }],
  }),
);

// Their names change with their content.
registerRoute(
  ({ url }) => url.origin === self.location.origin && url.pathname.startsWith('/assets/'),
  new CacheFirst({ cacheName: 'files', plugins: [new ExpirationPlugin({ maxEntries: MOST_FILES }) as WorkboxPlugin] }),
);

const kept = async (request: Request): Promise<Response | undefined> =>
  (await caches.open(KEPT)).match(request.url, { ignoreVary: true });

// A sound is named by its content: what is kept is what the server has.
registerRoute(
  ({ url }) => /^\/api\/recordings\/[^/]+\/sound\//.test(url.pathname),
  async ({ request }) => {
    const sound = await kept(request);
    if (!sound) return fetch(request);
    return request.headers.has('range') ? createPartialResponse(request, sound) : sound;
  },
);

// All else may have changed: the server is asked, and what is kept answers only where it cannot be reached.
registerRoute(
  ({ url }) => /^\/api\/(session|own-work|courses|submissions\/.+)$/.test(url.pathname),
  async ({ request }) => {
    try {
      return await fetch(request);
    } catch (failure) {
      const answer = await kept(request);
      if (answer) return answer;
      throw failure;
    }
  },
);
