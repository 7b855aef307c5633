import { ExpirationPlugin } from 'workbox-expiration';
import { createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { NetworkFirst } from 'workbox-strategies';
import { KEPT_ANSWERS, KEPT_AT, TAKE_OVER } from './keptAnswers.ts';

/** Every file of the interface, put in by the build. */
declare const FILES_OF_THE_INTERFACE: { url: string; revision: string | null }[];
/** What of a service worker is used here. */
declare const self: {
  skipWaiting(): Promise<void>;
  addEventListener(type: 'message', listener: (event: MessageEvent) => void): void;
};

const MOST_ANSWERS = 3000;
/** Answers that pages read without a server; not what only makes sense live, and no files. */
const READ_ALONE = /^\/api\/(boards|rack|shop|shops|species|saw|schedule|shopping|waits|money|log)(\/|$|\?)/;
const NO_PAGES = [/^\/api\//, /^\/sign-in/, /^\/sign-out/, /^\/join\//, /^\/metrics/];

precacheAndRoute(FILES_OF_THE_INTERFACE);
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: NO_PAGES }));
registerRoute(
  ({ url, request, sameOrigin }) =>
    sameOrigin && request.method === 'GET' && READ_ALONE.test(url.pathname) && !url.pathname.endsWith('/file'),
  new NetworkFirst({
    cacheName: KEPT_ANSWERS,
    plugins: [
      {
        // When it was told, so that whoever reads it later knows how old it is.
        cacheWillUpdate: ({ response }) => {
          if (response.status !== 200) return Promise.resolve(null);
          const headers = new Headers(response.headers);
          headers.set(KEPT_AT, String(Date.now()));
          return Promise.resolve(new Response(response.body, { status: 200, headers }));
        },
      },
      new ExpirationPlugin({ maxEntries: MOST_ANSWERS, purgeOnQuotaError: true }),
    ],
  }),
);

// A newer Cadenza waits until the page says so: what is typed is kept first.
self.addEventListener('message', (event) => {
  if (event.data === TAKE_OVER) void self.skipWaiting();
});
