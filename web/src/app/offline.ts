const PAGE = 'keel-page'
const DATA = 'keel-data'
const READ = /^\/api\/(session|jobs\/numbered\/\d+)$/

/** Where the page is secure it works on while the workshop's server is away: `public/sw.js` keeps what it reads. */
export async function workOffline() {
  if (!('serviceWorker' in navigator)) return
  await navigator.serviceWorker.register('/sw.js')
  await keep(PAGE, '/')
  // What is read before anybody stands between is read once more.
  const watch = new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) void keepRead(new URL(entry.name))
  })
  watch.observe({ type: 'resource', buffered: true })
}

async function keepRead(url: URL) {
  if (url.origin !== window.location.origin || url.search) return
  if (url.pathname.startsWith('/assets/')) await keep(PAGE, url.pathname)
  else if (READ.test(url.pathname)) await keep(DATA, url.pathname)
}

// Reading to keep is seen by the watch as well: what fails would be read again and again.
const failed = new Set<string>()

async function keep(name: string, path: string) {
  if (failed.has(path)) return
  const cache = await caches.open(name)
  if (await cache.match(path)) return
  // What can't be read now is kept when the page is opened next.
  await cache.add(path).catch(() => failed.add(path))
}
