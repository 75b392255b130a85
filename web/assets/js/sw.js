// The worker that answers without signal: files of the application from its own store, pages that were taken along as
// they were. VERSION and SHELL stand above, put there by the server (Web::Pocket::Shell).
/* global VERSION, SHELL, Pin */
importScripts(
  SHELL.find((file) => file.startsWith('/vendor/idb.js')),
  SHELL.find((file) => file.startsWith('/js/keep.js')),
  SHELL.find((file) => file.startsWith('/js/pin.js')),
);

const FILES = `shell-${VERSION}`;
const PATIENCE = 6000; // ms that a page taken along waits for a weak signal
const STATIC = /^\/(css|js|vendor|img|fonts)\//;
const RULES = /^\/pocket\/(pack|land)\.json$/; // as they were taken along, signal or not
const BENCHES = /^\/(identify|decide|mix)$/; // answered on the phone itself (rules.js)

self.addEventListener('install', (event) => {
  event.waitUntil(
    (async () => {
      const cache = await caches.open(FILES);
      await Promise.all(SHELL.map((file) => cache.add(new Request(file, { cache: 'no-cache' }))));
      await self.skipWaiting();
    })(),
  );
});

self.addEventListener('activate', (event) => {
  event.waitUntil(
    (async () => {
      const old = (await caches.keys()).filter((name) => name.startsWith('shell-') && name !== FILES);
      await Promise.all(old.map((name) => caches.delete(name)));
      await self.registration.navigationPreload?.enable();
      await self.clients.claim();
    })(),
  );
});

// A file by what it holds; without signal whatever bears its name.
const file = async (request) => {
  const cache = await caches.open(FILES);
  const known = (await cache.match(request)) || (await caches.match(request, { cacheName: 'ruby' }));
  if (known) return known;
  try {
    const answer = await fetch(request);
    if (answer.ok && new URL(request.url).search.startsWith('?v=')) await cache.put(request, answer.clone());
    return answer;
  } catch (error) {
    const alike = (await cache.match(request, { ignoreSearch: true })) || (await ofPhone(request));
    if (alike.type === 'error') throw error;
    return alike;
  }
};

// Under which address something is kept that is asked for with another query.
const kept = async (url) => {
  const found = await Keep.pages.get(url);
  if (found) return found;
  const { pathname } = new URL(url);
  if (pathname === '/survey/features') return Keep.pages.get('/survey/features?bbox=-180,-90,180,90');
  if (pathname === '/survey/list') return Keep.pages.get('/survey/list');
  // What a page of ours opens with, or what is mended on it, is read by the page itself.
  const plain = new URL(url);
  ['mend', 'kind', 'day'].forEach((name) => plain.searchParams.delete(name));
  if (pathname === '/pocket/record') plain.search = '';
  return plain.href === url ? null : Keep.pages.get(plain.href);
};

const escaped = (text) => text.replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/</g, '&lt;');
const page = ({ bytes, type, at, land = '' }, more = {}) => {
  const told = Object.entries({ kept: at, land, ...more })
    .map(([name, value]) => `<meta name="${name}" content="${escaped(String(value))}">`)
    .join('');
  const html = type.startsWith('text/html') && new TextDecoder().decode(bytes);
  const body = html ? html.replace('<head>', `<head>${told}`) : bytes;
  const headers = { 'Content-Type': type, 'X-Kept': String(at), 'Content-Security-Policy': POLICY };
  return new Response(body, { headers });
};
// The strict policy of every page, for those that come from here.
const POLICY =
  "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; font-src 'self'; " +
  "connect-src 'self'; worker-src 'self'; manifest-src 'self'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'";

// Before what this phone holds, where a PIN is asked for.
const lock = () => {
  const at = (start) => SHELL.find((one) => one.startsWith(start));
  const scripts = ['/vendor/idb.js', '/js/keep.js', '/js/pin.js'].map(
    (one) => `<script src="${at(one)}" defer></script>`,
  );
  const html = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Locked · Nimble Thistle</title>
<meta name="viewport" content="width=device-width, initial-scale=1"><link rel="stylesheet" href="${at('/css/thistle.css')}">
${scripts.join('')}</head><body><main id="main" class="field-view"><h1>Locked</h1><form data-pin><div class="field">
<label for="pin">PIN of this phone</label><input class="form-control" id="pin" name="pin" type="password"
inputmode="numeric" autocomplete="off" required></div><p class="bad-word" role="alert"></p>
<p class="moves"><button class="btn btn-primary">Open</button></p></form></main></body></html>`;
  return new Response(html, {
    headers: { 'Content-Type': 'text/html; charset=utf-8', 'Content-Security-Policy': POLICY },
  });
};

// Turned to a property that was taken along, as its menu does, or a patch of another; the address without the menu's.
const turned = async (url) => {
  const at = new URL(url);
  const lands = await Keep.lands();
  const wanted = at.searchParams.get('at');
  const patch = Number(at.searchParams.get('patch') || at.pathname.match(/\/patches\/(\d+)/)?.[1]);
  const found = (is) => Object.keys(lands).find((id) => is(lands[id]));
  const named = found((land) => land.name === at.searchParams.get('place'));
  const id = lands[wanted] ? wanted : named || found((land) => land.patches?.includes(patch));
  if (!id) return url;
  await Keep.turn(id);
  ['at', 'place'].forEach((name) => at.searchParams.delete(name));
  return at.href;
};

const ofPhone = async (request) => {
  if (request.mode === 'navigate' && (await Pin.shut())) return lock();
  const url = request.mode === 'navigate' ? await turned(request.url) : request.url;
  const found = await kept(url);
  const bench = request.mode === 'navigate' && BENCHES.test(new URL(url).pathname);
  const { pathname, search } = new URL(url);
  if (found) return page(found, bench ? { bench: pathname + search } : {});
  if (request.mode !== 'navigate') return Response.error();
  const plain = bench && (await Keep.pages.get(pathname));
  if (plain) return page(plain, { bench: pathname + search });
  const start = await Keep.pages.get('/pocket');
  return start ? page(start, { missing: pathname + search }) : Response.error();
};

// A page that was seen takes the place of the one taken along; its property is at hand.
const seen = async (url, answer) => {
  const land = answer.headers.get('X-Land');
  if (!(await Keep.lands())[land]) return;
  await Keep.turn(land);
  if (await Keep.pages.has(url)) await Keep.pages.put(url, answer, 'seen', land);
};

// The request goes out at once and as the browser made it, so that nobody waits for this worker and the server still
// sees where it comes from.
const sent = async ({ request, preloadResponse }) => (await preloadResponse) || fetch(request);

const live = async (event) => {
  const { request } = event;
  if (RULES.test(new URL(request.url).pathname)) {
    const found = await Keep.pages.get(request.url);
    if (found) return page(found);
  }
  const answered = sent(event);
  answered.catch(() => {});
  try {
    const has = await Keep.pages.has(request.url);
    const answer = await (has ? Promise.race([answered, late()]) : answered);
    if (!answer || ([502, 503, 504].includes(answer.status) && has)) return ofPhone(request);
    if (answer.ok && !answer.redirected && request.mode === 'navigate')
      event.waitUntil(seen(request.url, answer.clone()).catch(() => {}));
    return answer;
  } catch (error) {
    const answer = await ofPhone(request);
    if (answer.type === 'error') throw error;
    return answer;
  }
};
const late = () => new Promise((resolve) => setTimeout(resolve, PATIENCE));

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== location.origin) return;
  if (request.method === 'POST' && url.pathname === '/account/sign-out') {
    // What was taken along was this account's.
    event.respondWith(fetch(request).finally(() => Keep.empty()));
    return;
  }
  if (request.method !== 'GET' || url.pathname === '/sw.js' || request.headers.has('X-Along')) return;
  if (STATIC.test(url.pathname)) event.respondWith(file(request));
  else if (!url.pathname.startsWith('/pocket/standing') && !url.pathname.startsWith('/pocket/pieces'))
    event.respondWith(live(event));
});
