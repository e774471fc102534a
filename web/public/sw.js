// Keeps the page and what it last read on the device, so that the bench works while the workshop's server is away.
// What is written there waits in the page's own store (src/floor/outbox.ts): nothing is sent from here.
const PAGE = 'keel-page'
const DATA = 'keel-data'
const READ = /^\/api\/(session|jobs\/numbered\/\d+(\/photos\/[\w-]+)?|designs\/\d+(\/build)?)$/

self.addEventListener('install', () => self.skipWaiting())
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (url.origin !== self.location.origin) return
  if (request.method !== 'GET') {
    // Whoever signs in or out takes nobody else's work along.
    if (url.pathname === '/api/session') event.waitUntil(caches.delete(DATA))
    return
  }
  if (request.mode === 'navigate') event.respondWith(page(request))
  else if (url.pathname.startsWith('/assets/')) event.respondWith(kept(request))
  else if (url.pathname.includes('/photos/')) event.respondWith(kept(request, DATA))
  else if (READ.test(url.pathname)) event.respondWith(fresh(request))
})

/** The one page of the application: as it is now, or as it was last. A newer one takes older scripts away. */
async function page(request) {
  const cache = await caches.open(PAGE)
  try {
    const answer = await fetch(request)
    if (!answer.ok) return answer
    const [now, before] = [await answer.clone().text(), await (await cache.match('/'))?.text()]
    if (before !== undefined && before !== now) await caches.delete(PAGE)
    await (await caches.open(PAGE)).put('/', answer.clone())
    return answer
  } catch (error) {
    const last = await cache.match('/')
    if (last) return last
    throw error
  }
}

/** What never changes under its address: kept once. */
async function kept(request, name = PAGE) {
  const cache = await caches.open(name)
  const there = await cache.match(request)
  if (there) return there
  const answer = await fetch(request)
  if (answer.ok) await cache.put(request, answer.clone())
  return answer
}

/** What is read: as it is now, or, while nobody answers, as it was last. */
async function fresh(request) {
  const cache = await caches.open(DATA)
  try {
    const answer = await fetch(request)
    if (answer.ok) await cache.put(request, answer.clone())
    return answer
  } catch (error) {
    const last = await cache.match(request)
    if (last) return last
    throw error
  }
}
