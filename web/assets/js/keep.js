// Where this phone keeps things, for pages and for the worker: records in IndexedDB, pages that were taken along packed
// in the browser's cache.
(() => {
  const ALONG = 'along';
  const BUDGET = 150 * 1048576; // bytes

  const open = idb.openDB('thistle', 1, {
    upgrade(db) {
      db.createObjectStore('rows', { keyPath: 'key' });
      db.createObjectStore('meta');
      db.createObjectStore('pages', { keyPath: 'url' }); // what was taken along: { url, at, used, bytes, set, land }
    },
  });

  const store = {
    all: async () => (await open).getAll('rows'), // keys sort as they were made
    get: async (key) => (await open).get('rows', key),
    put: async (row) => {
      const tx = (await open).transaction('rows', 'readwrite', { durability: 'strict' });
      tx.store.put(row);
      await tx.done;
    },
    remove: async (key) => (await open).delete('rows', key),
    meta: async (name) => (await open).get('meta', name),
    setMeta: async (name, value) => (await open).put('meta', value, name),
  };

  // The key by which the server knows this phone.
  const phone = async () => {
    const known = await store.meta('phone');
    if (known) return known;
    const made = [...crypto.getRandomValues(new Uint8Array(16))]
      .map((byte) => byte.toString(16).padStart(2, '0'))
      .join('');
    await store.setMeta('phone', made);
    return made;
  };

  // Properties that were taken along, by id: { name, at, left, missing, day, patches, rules }; and the one at hand.
  const lands = async () => (await store.meta('lands')) || {};
  const hand = () => store.meta('land');
  const turn = (id) => store.setMeta('land', String(id));
  const setLand = async (id, told) => store.setMeta('lands', { ...(await lands()), [id]: told });

  // Pages, packed, each with its property: “Today” of one is not that of another. A phone without `caches` (an address
  // without TLS) keeps none.
  const there = typeof caches === 'object';
  const plain = (url) => {
    const at = new URL(url, location.origin);
    return at.pathname + at.search;
  };
  const named = (url, land) =>
    land ? `${plain(url)}${plain(url).includes('?') ? '&' : '?'}~land=${land}` : plain(url);
  // What names a record, or is of no property, may come from wherever it was taken along.
  const SHARED = /^\/[^?]*\d|^\/(identify\/plants|glossary|img|pocket)\b/;
  // The row of an address at hand, or nothing.
  const row = async (url) => {
    const at = await hand();
    const others = SHARED.test(plain(url)) ? ['', ...Object.keys(await lands())] : [];
    for (const land of [at, ...others]) {
      const found = await (await open).get('pages', named(url, land));
      if (found) return found;
    }
    return null;
  };
  const pages = {
    there,
    all: async () => (there ? (await open).getAll('pages') : []),
    has: async (url) => there && Boolean(await row(url)),
    // land: an id; nothing for what is of no property.
    put: async (url, answer, set, land) => {
      const type = answer.headers.get('Content-Type') || 'text/html';
      const packed = await new Response(answer.body.pipeThrough(new CompressionStream('gzip'))).blob();
      const cache = await caches.open(ALONG);
      await cache.put(
        named(url, land),
        new Response(packed, { headers: { 'Content-Type': type, 'X-Kept': String(Date.now()) } }),
      );
      const kept = { url: named(url, land), at: Date.now(), used: Date.now(), bytes: packed.size, set, land };
      await (await open).put('pages', kept);
      return kept;
    },
    // What was kept of an address: { bytes, type, at, land }; nothing where none was.
    get: async (url) => {
      if (!there) return null;
      const found = await row(url);
      const kept = found && (await (await caches.open(ALONG)).match(found.url));
      if (!kept) return null;
      const bytes = await new Response(kept.body.pipeThrough(new DecompressionStream('gzip'))).arrayBuffer();
      await (await open).put('pages', { ...found, used: Date.now() });
      return {
        bytes,
        type: kept.headers.get('Content-Type'),
        at: Number(kept.headers.get('X-Kept')),
        land: found.land,
      };
    },
    drop: async (url) => {
      await (await caches.open(ALONG)).delete(url);
      await (await open).delete('pages', url);
    },
    // What was used longest ago goes until the rest fits; how many went.
    fit: async (most = BUDGET) => {
      const rows = (await pages.all()).sort((a, b) => a.used - b.used);
      let bytes = rows.reduce((sum, one) => sum + one.bytes, 0);
      let gone = 0;
      while (bytes > most && rows.length) {
        const last = rows.shift();
        await pages.drop(last.url);
        bytes -= last.bytes;
        gone += 1;
      }
      return gone;
    },
    empty: async () => {
      if (!there) return;
      await caches.delete(ALONG);
      await (await open).clear('pages');
    },
  };

  // All that this phone holds of its account goes; records that nobody sent too, where they are asked for.
  const empty = async ({ records = false } = {}) => {
    await pages.empty();
    if (self.document) document.cookie = 'along=; path=/; max-age=0';
    const db = await open;
    if (records) await db.clear('rows');
    else for (const one of await store.all()) if (one.state === 'held') await store.remove(one.key);
    for (const name of ['lands', 'land', 'rules', 'standing']) await db.delete('meta', name);
  };

  self.Keep = { store, phone, pages, lands, hand, turn, setLand, empty, BUDGET };
})();
