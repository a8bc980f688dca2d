/// <reference lib="webworker" />
import { cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { CacheFirst, NetworkFirst } from 'workbox-strategies'
import { answers, pictures, shell } from './caches'

/**
 * Keeps the application, and what the bench reads, on the device: the network is asked first wherever it can be reached, and
 * what it said last stands in when it cannot. Nothing is written here; entries made meanwhile wait in the page's own store.
 */
declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: { url: string; revision: string | null }[] }

/** Longer than this, and a network that is there by name only is not waited for. */
const PATIENCE = 6

precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()

// Every address is the same page: it is kept once.
const page = new NetworkFirst({
  cacheName: shell,
  networkTimeoutSeconds: PATIENCE,
  plugins: [{ cacheKeyWillBeUsed: () => Promise.resolve('/') }],
})
registerRoute(new NavigationRoute(page))

/** What a bench reads: the session, the catalogue, the builds, and of a build its document and what is drawn from it. */
const read =
  /^\/api\/(session|catalogue|builds|builds\/\d+(\/(documents|bags|look-ahead|evening|open-items|derived-steps|hours|ladder|way-back\/[\w-]+|faults\/[\w-]+\/case))?)$/
registerRoute(
  ({ url }) => url.origin === self.location.origin && read.test(url.pathname),
  new NetworkFirst({ cacheName: answers, networkTimeoutSeconds: PATIENCE }),
)
registerRoute(
  ({ url }) => url.origin === self.location.origin && /^\/api\/builds\/\d+\/photos\/[\w.-]+$/.test(url.pathname),
  new CacheFirst({ cacheName: pictures }),
)

self.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(shell)
      .then((cache) => cache.add('/'))
      .then(() => self.skipWaiting()),
  )
})
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
