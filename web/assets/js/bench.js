// A bench without signal: the page comes from Ruby on this phone (rules.js), the same page from the same views. What was
// taken along is readable meanwhile.
(() => {
  const path = document.querySelector('meta[name="bench"]')?.content;
  if (!path || !self.Keep || !self.Worker) return;
  const BENCH = /^\/(identify|decide|mix)$/;
  const main = document.getElementById('main');
  const line = Object.assign(document.createElement('p'), { className: 'from-phone', id: 'rules-said' });
  line.setAttribute('role', 'status');
  main.before(line);
  const say = (words) => {
    line.textContent = words;
  };

  // c[habit]=vine, not[habit][]=tree as nested objects, as the server reads them.
  const nested = (search) => {
    const all = {};
    for (const [name, value] of new URLSearchParams(search)) {
      const keys = name.replace(/\]/g, '').split('[');
      let at = all;
      keys.forEach((key, n) => {
        const last = n === keys.length - 1;
        const list = keys[n + 1] === '';
        if (key === '') at.push(value);
        else if (last) at[key] = value;
        else at = at[key] ||= list ? [] : {};
      });
    }
    return all;
  };

  let worker = null;
  let ready = null;
  let asked = 0;
  const waiting = new Map();
  const call = (data) =>
    new Promise((resolve, reject) => {
      asked += 1;
      waiting.set(asked, { resolve, reject });
      worker.postMessage({ ...data, id: asked });
    });

  const DAY = 86400e3;
  const FORECAST = 9; // days ahead that weather was taken along for, at the most
  let later = 0; // days since the land was taken along
  let known = null; // what was taken along, and when
  const open = async () => {
    // The property that this page is of, whichever another tab has turned to since.
    const here = (await Keep.lands())[document.querySelector('meta[name="land"]')?.content];
    known = here && { ...(await Keep.store.meta('rules')), ...here.rules };
    if (!known) throw new Error('the rules were not taken along.');
    worker = new Worker(known.worker);
    worker.onmessage = ({ data }) => {
      const { resolve, reject } = waiting.get(data.id);
      waiting.delete(data.id);
      if (data.fault) reject(new Error(data.fault));
      else resolve(data.told);
    };
    worker.onerror = (event) => waiting.forEach(({ reject }) => reject(new Error(event.message)));
    later = Math.max(0, Math.floor(Date.now() / DAY) - Math.floor(known.at / DAY));
    return call({ act: 'open', later, ...known });
  };

  const page = async (address) => {
    ready ||= open();
    const { day } = await ready;
    const url = new URL(address, location.origin);
    // A verdict hangs on the day's weather: where none is known there is no “go”.
    if (url.pathname === '/decide' && later > FORECAST)
      throw new Error('the weather that was taken along is over. Take it along again.');
    const told = await call({ act: 'ask', bench: url.pathname.slice(1), params: nested(url.search) });
    return { ...told, day };
  };

  const swap = (html, target, part, how) => {
    const held = new DOMParser().parseFromString(`<main>${html}</main>`, 'text/html');
    const taken = part ? held.querySelector(part) : held.querySelector('main');
    if (!taken) return;
    document.dispatchEvent(new CustomEvent('bench:before'));
    if (how === 'outerHTML') target.replaceWith(taken);
    else target.replaceChildren(...taken.childNodes);
    htmx.process(document.getElementById('main'));
    document.dispatchEvent(new CustomEvent('htmx:afterSettle'));
  };

  let shown = 0; // pages that were asked for; only the last of them is shown
  // What the page left for later, each in its place.
  const fill = async (now) => {
    const places = [...main.querySelectorAll('[data-later]')];
    for (const place of places) {
      if (now !== shown) return;
      const { text } = await call({ act: 'rest', number: Number(place.dataset.later) });
      if (now !== shown) return;
      const held = Object.assign(document.createElement('template'), { innerHTML: text });
      const parts = [...held.content.children];
      place.replaceWith(held.content);
      parts.forEach((one) => htmx.process(one));
    }
    if (places.length) document.dispatchEvent(new CustomEvent('htmx:afterSettle'));
  };

  const show = async (address, { target = main, part = null, how = 'innerHTML', push = false } = {}) => {
    main.setAttribute('aria-busy', 'true');
    shown += 1;
    const now = shown;
    try {
      const { text, day } = await page(address);
      if (now !== shown) return;
      swap(text, target, part, how);
      if (push) history.pushState({ bench: address }, '', address);
      const on = new Date(`${day}T12:00`).toLocaleDateString(document.documentElement.lang, {
        day: 'numeric',
        month: 'long',
        year: 'numeric',
      });
      const { at } = known;
      const days = Math.floor((Date.now() - at) / DAY);
      const old = days ? ` They are ${Pocket.count(days, 'day')} old: what hangs on the weather may be wrong.` : '';
      say(`No signal. Worked out on this phone for ${on}; weather and records as of ${Pocket.clock(at)}.${old}`);
      await fill(now);
    } catch (error) {
      say(`This phone cannot work it out: ${error.message.split('\n')[0]}`);
      if (later) main.replaceChildren(); // what stands there was said for another day
    } finally {
      if (now === shown) main.removeAttribute('aria-busy');
    }
  };

  // What htmx would ask the server is asked here; so are links from bench to bench.
  document.addEventListener('htmx:beforeRequest', (event) => {
    const { requestConfig, target, elt } = event.detail;
    const url = new URL(requestConfig.path, location.origin);
    if (requestConfig.verb !== 'get' || !BENCH.test(url.pathname)) return;
    event.preventDefault();
    const query = new URLSearchParams(url.search);
    for (const [name, value] of Object.entries(requestConfig.parameters))
      [value].flat().forEach((one) => query.append(name, one));
    const from = elt.closest('[hx-select]') || elt;
    const address = `${url.pathname}?${query}`;
    show(address, {
      target,
      part: from.getAttribute('hx-select'),
      how: from.getAttribute('hx-swap') || 'innerHTML',
      push: from.getAttribute('hx-push-url') === 'true',
    });
  });
  document.addEventListener('click', (event) => {
    const link = event.target.closest('a[href]');
    if (!link || event.ctrlKey || event.metaKey || link.target) return;
    const url = new URL(link.href);
    if (url.origin !== location.origin || !BENCH.test(url.pathname)) return;
    event.preventDefault();
    show(url.pathname + url.search, { push: true }).then(() => scrollTo(0, 0));
  });
  document.addEventListener('submit', (event) => {
    const url = new URL(event.target.action, location.href);
    if (event.target.method !== 'get' || !BENCH.test(url.pathname)) return;
    event.preventDefault();
    show(`${url.pathname}?${new URLSearchParams(new FormData(event.target))}`, { push: true });
  });
  addEventListener('popstate', () => BENCH.test(location.pathname) && show(location.pathname + location.search));

  say('No signal. This phone is working it out; meanwhile, here is the page as it was taken along.');
  show(path);
})();
