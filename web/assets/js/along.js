// What this phone holds (/pocket): records that wait, what was taken along, and taking it along.
(() => {
  const main = document.querySelector('[data-pocket]');
  if (!main || !self.Pocket) return;
  const { Keep, Pocket } = self;
  const { count, clock } = Pocket;
  const place = (name) => main.querySelector(`[data-pocket-${name}]`);
  const make = (tag, words, more = {}) => Object.assign(document.createElement(tag), { textContent: words, ...more });
  const size = (bytes) =>
    bytes < 1048576 ? `${Math.max(1, Math.round(bytes / 1024))} kB` : `${(bytes / 1048576).toFixed(1)} MB`;

  // — Records.
  const STATES = {
    waiting: 'waits for signal',
    refused: 'not taken',
    apart: 'changed by somebody meanwhile',
    held: 'held by the server',
  };
  const hues = { waiting: 'ochre', refused: 'clay', apart: 'clay', held: 'moss' };
  const button = (words, act, more = '') => {
    const one = make('button', words, { type: 'button', className: `btn btn-sm btn-outline-primary ${more}` });
    one.addEventListener('click', act);
    return one;
  };

  const card = (row, queue) => {
    const article = make('article', '', { className: `row-card slim pocket-row ${hues[row.state]}` });
    const said = document.createElement('div');
    const files = row.files.length ? `, ${count(row.files.length, 'photograph')}` : '';
    said.append(
      make('h3', row.words || 'A record'),
      make('p', `${clock(row.at)}${files}: ${STATES[row.state]}.`, { className: 'small' }),
    );
    if (row.refused) {
      const why = Object.entries(row.why || {}).map(([name, words]) => `${row.labels?.[name] || name} ${words}.`);
      said.append(make('p', [row.refused, ...why].join(' '), { className: 'bad-word' }));
    }
    const moves = make('p', '', { className: 'moves' });
    if (row.state === 'held' && row.place)
      moves.append(make('a', 'Open it', { href: row.place, className: 'btn btn-sm btn-outline-primary' }));
    if (row.state === 'refused' || row.state === 'apart') {
      const back = new URL(row.page || '/pocket/record', location.origin);
      back.searchParams.set('mend', row.key);
      moves.append(
        make('a', row.state === 'apart' ? 'See both' : 'Mend it', {
          href: back.pathname + back.search,
          className: 'btn btn-sm btn-primary',
        }),
      );
      moves.append(button('Try again', () => queue.again(row.key).then(() => Pocket.send({ force: true }))));
    }
    if (row.state !== 'held')
      moves.append(
        button('Let it go', async () => {
          if (!confirm(`“${row.words}” is not on the server. Let it go for good?`)) return;
          await queue.drop(row.key);
          Pocket.say();
        }),
      );
    article.append(said, moves);
    return article;
  };

  const HELD = 20; // that are listed of those sent
  const rows = async (all) => {
    const queue = await Pocket.ready;
    const open = all.filter((row) => row.state !== 'held');
    const held = all.filter((row) => row.state === 'held').reverse();
    place('open').replaceChildren(...open.map((row) => card(row, queue)));
    place('none').hidden = open.length > 0;
    place('send').hidden = !open.some((row) => row.state === 'waiting');
    place('held').replaceChildren(...held.slice(0, HELD).map((row) => card(row, queue)));
    place('held-count').textContent = held.length
      ? `${count(held.length, 'record')} sent in the last two weeks`
      : 'Nothing sent yet';
    const far = Math.abs((await Keep.store.meta('standing'))?.clock || 0);
    place('clock').hidden = far < 120000;
    place('clock').textContent =
      `This phone’s clock is ${count(Math.round(far / 60000), 'minute')} off. Records are put right by that much.`;
  };

  place('send').addEventListener('click', async () => {
    place('said').textContent = 'Sending …';
    const { sent, stopped, left } = await Pocket.send({ force: true });
    const why = {
      later: 'No signal.',
      shut: 'Sign in first.',
      empty: 'This phone was cut off: it was emptied.',
      '': '',
    }[stopped];
    place('said').textContent = [
      sent && `${count(sent, 'record')} sent.`,
      why,
      left && `${count(left, 'record')} wait.`,
    ]
      .filter(Boolean)
      .join(' ');
  });

  // — All of it as a file: what is typed as text, photographs within.
  const text = (blob) =>
    new Promise((resolve) => {
      const reader = new FileReader();
      reader.onload = () => resolve(reader.result);
      reader.readAsDataURL(blob);
    });
  place('save').addEventListener('click', async () => {
    const all = await (await Pocket.ready).all();
    const plain = await Promise.all(
      all.map(async (row) => ({
        ...row,
        at: new Date(row.at).toISOString(),
        files: await Promise.all(
          row.files.map(async (file) => ({ name: file.name, filename: file.filename, data: await text(file.blob) })),
        ),
      })),
    );
    const blob = new Blob([JSON.stringify(plain, null, 1)], { type: 'application/json' });
    const link = make('a', '', {
      href: URL.createObjectURL(blob),
      download: `phone-${new Date().toISOString().slice(0, 10)}.json`,
    });
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 60000);
  });

  // — What was taken along.
  const sayLand = (id, { name, at, left, missing }, kept) => {
    const own = kept.filter((row) => String(row.land) === id);
    const bytes = own.reduce((sum, row) => sum + row.bytes, 0);
    return [
      `${name}: ${count(own.length, 'page')}, ${size(bytes)}, as of ${clock(at)}.`,
      left && `${count(left, 'patch', 'patches')} on the map only.`,
      `Missing: ${missing.join('; ')}.`,
    ]
      .filter(Boolean)
      .join(' ');
  };

  // A property that is not at hand: what this phone holds of it, and the way there.
  const otherLand = (id, land, kept) => {
    const there = document.createElement('div');
    const moves = make('p', '', { className: 'moves' });
    moves.append(
      make('a', `Turn to ${land.name}`, { href: `/?at=${id}`, className: 'btn btn-sm btn-outline-primary' }),
    );
    there.append(make('p', sayLand(id, land, kept), { className: 'small' }), moves);
    return there;
  };

  const told = async () => {
    const kept = await Keep.pages.all();
    const lands = await Keep.lands();
    const here = await Keep.hand();
    const said = place('along-said');
    if (!Keep.pages.there)
      said.textContent = 'This address cannot be taken along: it wants TLS (https). Records are kept all the same.';
    else if (!kept.length || !lands[here]) {
      const was = document.cookie.match(/(?:^|; )along=(\d+)/)?.[1];
      said.textContent = was
        ? `This browser threw away what was taken along on ${clock(Number(was))}. Take it along again.`
        : 'Nothing yet.';
    } else said.textContent = sayLand(here, lands[here], kept);
    const others = Object.keys(lands).filter((id) => id !== here);
    place('lands').replaceChildren(...(kept.length ? others.map((id) => otherLand(id, lands[id], kept)) : []));
    place('empty').hidden = !kept.length;
    return kept;
  };

  const taken = async (url, set, land) => {
    const answer = await fetch(url, { cache: 'no-store', headers: { 'X-Along': '1' } });
    if (!answer.ok || answer.redirected) return 0;
    return (await Keep.pages.put(url, answer, set, land)).bytes;
  };

  // Ruby for this phone, the rules and what they know of the land; what is here already stays.
  const rules = async ({ wasm, glue, worker, pack, land }, tell) => {
    tell('The rules …');
    const cache = await caches.open('ruby');
    for (const file of [worker, glue, wasm]) if (!(await cache.match(file))) await cache.add(file);
    for (const old of await cache.keys()) {
      const address = new URL(old.url);
      if (![worker, glue, wasm].includes(address.pathname + address.search)) await cache.delete(old);
    }
    for (const row of await Keep.pages.all())
      if (row.url.startsWith('/pocket/pack') && row.url !== pack) await Keep.pages.drop(row.url);
    if (!(await Keep.pages.has(pack))) await taken(pack, 'rules');
    await taken(land, 'rules');
    await Keep.store.setMeta('rules', { wasm, glue, worker, pack });
    return { land, at: Date.now() };
  };

  const AT_ONCE = 2; // a server of two cores has others to answer
  const along = async () => {
    const bar = place('bar');
    const day = place('day')?.value || '';
    place('take').disabled = true;
    try {
      const plan = await (await fetch(`/pocket/along.json?day=${day}`, { cache: 'no-store' })).json();
      if (!plan.pages) throw new Error(plan.error || 'The server does not say what to take.');
      const persisted = await navigator.storage?.persist?.().catch(() => false);
      await Pocket.ask('/pocket/phones.json', {
        method: 'POST',
        headers: { 'X-Phone': await Keep.phone(), 'X-CSRF-Token': document.querySelector('meta[name="csrf"]').content },
      });
      const urls = [...plan.pages, ...plan.map];
      bar.hidden = false;
      bar.max = urls.length;
      let [done, bytes, failed] = [0, 0, 0];
      const next = async () => {
        while (urls.length) {
          const url = urls.shift();
          try {
            bytes += await taken(url, 'along', plan.property);
          } catch (error) {
            if (error.name === 'QuotaExceededError') throw error;
            failed += 1;
          }
          done += 1;
          bar.value = done;
          place('along-said').textContent = `${done} of ${bar.max}, ${size(bytes)} …`;
        }
      };
      await Promise.all(Array.from({ length: AT_ONCE }, next));
      const known = await rules(plan.rules, (words) => {
        place('along-said').textContent = words;
      });
      await Keep.store.setMeta('checks', plan.checks);
      document.cookie = `along=${Date.now()}; path=/; max-age=31536000; samesite=strict`; // so that an emptied browser is noticed
      const gone = await Keep.pages.fit();
      const missing = [
        ...plan.missing,
        failed && count(failed, 'page that did not come', 'pages that did not come'),
        gone && `${count(gone, 'page')} used longest ago`,
      ];
      await Keep.setLand(plan.property, {
        name: plan.name,
        at: Date.now(),
        left: plan.left_out,
        missing: missing.filter(Boolean),
        day: plan.day,
        patches: plan.patches,
        rules: known,
      });
      await Keep.turn(plan.property);
      document.dispatchEvent(new CustomEvent('pocket:along', { detail: plan }));
      await told();
      if (persisted === false) place('may-go').hidden = false;
    } catch (error) {
      place('along-said').textContent =
        error.name === 'QuotaExceededError'
          ? 'This phone has no more room. What fits is kept; make room and try again.'
          : `It stopped: ${error.message} Try again with signal.`;
    } finally {
      bar.hidden = true;
      place('take').disabled = false;
    }
  };
  place('take').addEventListener('click', along);
  place('empty').addEventListener('click', async () => {
    await Keep.pages.empty();
    await Keep.store.setMeta('lands', {});
    document.cookie = 'along=; path=/; max-age=0';
    told();
  });

  place('pin').addEventListener('submit', async (event) => {
    event.preventDefault();
    const field = event.target.elements.pin;
    await self.Pin.set(field.value);
    place('pin-said').textContent = field.value ? 'The PIN is kept.' : 'No PIN is asked for.';
    field.value = '';
  });

  document.addEventListener('pocket:changed', ({ detail }) => rows(detail));
  told();
  Pocket.say();
})();
