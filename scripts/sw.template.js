/* Keeps every file of one build; answers by path. */
const CACHE = 'zesty-__VERSION__';
const FILES = __FILES__;
/** Pieces of faces that were fetched when they were first needed; they outlive a version. */
const FACES = 'zesty-faces';

self.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(CACHE)
      .then((cache) => cache.addAll(FILES))
      .then(() => self.skipWaiting()),
  );
});

self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((keys) => Promise.all(keys.filter((k) => k.startsWith('zesty-') && k !== CACHE && k !== FACES).map((k) => caches.delete(k))))
      .then(() => self.clients.claim()),
  );
});

self.addEventListener('fetch', (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== 'GET' || url.origin !== self.location.origin) return;
  event.respondWith(answer(event.request, url));
});

async function answer(request, url) {
  const cache = await caches.open(CACHE);
  const path = url.pathname.endsWith('/') ? `${url.pathname}index.html` : url.pathname;
  const hit = (await cache.match(path)) ?? (request.mode === 'navigate' ? await cache.match(`${path}/index.html`) : undefined);
  // A worker reads its chunk list from the hash of its own address, which a cached response would not carry; and a page
  // may not be answered with a response that was redirected when it was stored.
  if (hit) return request.destination === 'worker' || hit.redirected ? new Response(hit.body, { status: hit.status, headers: hit.headers }) : hit;
  if (path.endsWith('.woff2')) return face(request, path);
  return fetch(request).catch(async () => (request.mode === 'navigate' ? ((await cache.match('/404.html')) ?? Response.error()) : Response.error()));
}

async function face(request, path) {
  const faces = await caches.open(FACES);
  const kept = await faces.match(path);
  if (kept) return kept;
  const response = await fetch(request).catch(() => Response.error());
  if (response.ok) await faces.put(path, response.clone());
  return response;
}
