// Works without a network once it was loaded. Filled in by scripts/make-sw.mjs after the build.
const CACHE = '__VERSION__';
/** What every page needs; had before this is in force. */
const FIRST = __FIRST__;
/** Faces and pictures: had afterwards, one by one, when a page says that it rests. */
const REST = __REST__;
/** Any id will do: the page asks its own address which design it is. */
const SHELL = '/bench/shell';
const SAME = { ignoreSearch: true, ignoreVary: true };
// A new answer has no address of its own: a worker that is started from it keeps the one that it was asked for by.
const copyOf = (r) => r && new Response(r.body, { status: r.status, statusText: r.statusText, headers: r.headers });

self.addEventListener('install', (e) =>
  e.waitUntil(
    (async () => {
      const cache = await caches.open(CACHE);
      await cache.addAll(FIRST);
      // Kept with its own policy, whose nonce is the one in its body.
      for (const page of ['/', SHELL]) {
        const r = await fetch(page, { cache: 'no-store' });
        if (r.ok && !r.redirected) await cache.put(page, r);
      }
      // Pages that are open go on with what they began with; a new version is in force once they are closed.
      if (!self.registration.active) await self.skipWaiting();
    })(),
  ),
);
self.addEventListener('activate', (e) =>
  e.waitUntil(
    (async () => {
      for (const name of await caches.keys())
        if (name.startsWith('holvet-') && name !== CACHE) await caches.delete(name);
      await self.clients.claim();
    })(),
  ),
);
self.addEventListener('message', (e) => {
  if (e.data !== 'rest') return;
  e.waitUntil(
    (async () => {
      const cache = await caches.open(CACHE);
      for (const file of REST) if (!(await cache.match(file, SAME))) await cache.add(file).catch(() => {});
      e.source?.postMessage('whole');
    })(),
  );
});
self.addEventListener('fetch', (e) => {
  const { request } = e;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== location.origin || url.pathname.startsWith('/api/')) return;
  if (request.mode === 'navigate') {
    e.respondWith(
      (async () => {
        const cache = await caches.open(CACHE);
        try {
          return await fetch(request);
        } catch {
          const page = url.pathname.startsWith('/bench/') ? SHELL : '/';
          return copyOf(await cache.match(page, SAME)) ?? Response.error();
        }
      })(),
    );
    return;
  }
  // Steps from page to page that fail become whole loads.
  if (request.headers.has('RSC') || url.searchParams.has('_rsc')) return;
  if (/^\/(_next\/static|wasm|fonts|icc|pictures|thumbnails|icons)\//.test(url.pathname))
    e.respondWith(
      (async () => {
        const cache = await caches.open(CACHE);
        const known = await cache.match(url.pathname, SAME);
        if (known) return copyOf(known);
        const r = await fetch(request);
        if (r.ok && r.type === 'basic') e.waitUntil(cache.put(url.pathname, r.clone()));
        return r;
      })(),
    );
});
