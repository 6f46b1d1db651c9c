import { clientsClaim } from 'workbox-core';
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';

/** Every file of this build, put in where the app is built; those without a hash in their names have a revision. */
declare const FILES: { url: string; revision: string | null }[];
declare const self: ServiceWorkerGlobalScope;

// The whole of a build is kept beside the one before, and answers once it is there: never a part of one and a part of another.
precacheAndRoute(FILES);
cleanupOutdatedCaches();
// Every stage has its own address; all of them are the one page.
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { allowlist: [/^\/(p\/.*|names)?$/] }));
// The page that brought it in is whole from then on.
clientsClaim();
// A newer one waits until a page says so.
self.addEventListener('message', (event) => {
  if ((event.data as { type?: string } | undefined)?.type === 'SKIP_WAITING') void self.skipWaiting();
});
