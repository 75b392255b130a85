// Records that wait on this phone until the server holds them. It knows no page and no browser: `store` keeps rows,
// `ask` reaches the server. A row is let go only once the server said that it holds it, and even then its body stays for
// two weeks, in case the server is restored from an older copy.
(() => {
  const PAUSES = [5, 15, 45, 120, 300, 900]; // seconds after a failure, growing
  const PIECE = 256 * 1024; // bytes of a photograph at a time
  const KEPT = 14 * 86400e3; // ms that what was sent stays

  // UUID, version 7: its time comes first, so that keys sort as they were made; `last` keeps them apart within a ms.
  let last = { ms: 0, n: 0 };
  const uuid7 = (now = Date.now(), bytes = crypto.getRandomValues(new Uint8Array(16))) => {
    last = now > last.ms ? { ms: now, n: 0 } : { ms: last.ms, n: last.n + 1 };
    const hex = (value, size) => Math.trunc(value).toString(16).padStart(size, '0').slice(-size);
    const tail = [...bytes.slice(8)].map((byte) => hex(byte, 2)).join('');
    const head = hex(last.ms, 12);
    return `${head.slice(0, 8)}-${head.slice(8)}-7${hex(last.n, 3)}-8${tail.slice(1, 4)}-${tail.slice(4)}`;
  };
  const KEY = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/;

  const Queue = ({ store, ask, phone, now = Date.now }) => {
    const waiting = async () => (await store.all()).filter((row) => row.state === 'waiting');

    // Keeps a record: { to, account, fields: [[name, value]], files: [{ name, filename, blob }], lane, words, page }.
    const add = async (record) => {
      const row = {
        files: [],
        key: uuid7(now()),
        at: now(),
        account: null,
        ...record,
        state: 'waiting',
        tries: 0,
        next: 0,
      };
      await store.put(row);
      return row;
    };

    const change = async (row, told) => {
      const stored = { ...((await store.get(row.key)) || row), ...told };
      await store.put(stored);
      return stored;
    };

    // A patch that was made on this phone and is named by its key.
    const needs = (row) =>
      row.fields.map(([name, value]) => (name === 'patch' && KEY.test(value) ? value : null)).find(Boolean);

    const json = async (answer) => {
      if (!(answer.headers.get('Content-Type') || '').startsWith('application/json')) return null;
      return answer.json().catch(() => null);
    };

    // Who we are to the server; also its clock. Throws where nobody answers.
    const standing = async () => {
      const answer = await ask('/pocket/standing.json', { headers: { 'X-Phone': phone } });
      const told = answer.ok && (await json(answer));
      if (!told || !told.copy) throw new Error('later'); // something else answers here
      const known = { ...told, clock: now() - told.now, heard: now() };
      await store.setMeta('standing', {
        account: known.account,
        copy: known.copy,
        clock: known.clock,
        heard: known.heard,
      });
      return known;
    };

    // A photograph travels piece by piece; what arrived before the signal went stays there.
    const carry = async (row, n, headers) => {
      const { blob, filename } = row.files[n];
      const address = `/pocket/pieces/${row.key}.${n}.json`;
      let { have } = (await json(await ask(address, { headers }))) || { have: 0 };
      while (have < blob.size) {
        const body = blob.slice(have, have + PIECE);
        const answer = await ask(`${address}?from=${have}`, {
          method: 'PUT',
          headers: { ...headers, 'Content-Type': 'application/octet-stream' },
          body,
        });
        const told = await json(answer);
        if (!told || told.have === undefined) return answer;
        if (told.have <= have) throw new Error('later');
        have = told.have;
      }
      return `piece:${row.key}.${n}|${filename.replaceAll('|', ' ')}|${blob.type}`;
    };

    // One record offered: { held, place } | { refused } | { apart } | 'later' | 'shut' | 'empty' | 'stale'.
    const offer = async (row, told, live) => {
      const headers = {
        'X-Record-Key': row.key,
        'X-Phone': phone,
        'X-CSRF-Token': told.token,
        'X-Record-Made': String(row.at),
        'X-Record-Clock': String(Math.round(told.clock)),
      };
      const body = new URLSearchParams(row.fields);
      for (let n = 0; n < row.files.length; n += 1) {
        const piece = await carry(row, n, { 'X-CSRF-Token': told.token });
        if (typeof piece !== 'string') return read(piece, live);
        body.append(row.files[n].name, piece);
      }
      const more = live ? { 'X-Record-Live': '1' } : {};
      const type = { 'Content-Type': 'application/x-www-form-urlencoded' };
      return read(
        await ask(row.to, { method: 'POST', headers: { ...headers, ...type, ...more }, body: body.toString() }),
        live,
      );
    };

    const read = async (answer, live) => {
      if (answer.type === 'opaqueredirect' || answer.status === 401) return 'shut';
      const page = live && answer.status >= 400 && !(answer.headers.get('Content-Type') || '').includes('json');
      if (page && answer.status === 422) return { page: await answer.text() };
      const said = await json(answer);
      if (said?.held) return { held: true, place: said.place };
      if (said?.cut_off) return 'empty';
      if (answer.status === 403) return 'stale';
      if (answer.status === 409)
        return { apart: said?.error || 'Somebody changed this meanwhile.', fields: said?.fields };
      if (said && [400, 404, 413, 422].includes(answer.status))
        return { refused: said.error || 'The server does not take it.', fields: said.fields };
      return 'later';
    };

    // With a fresh token where the session's changed.
    const offered = async (row, told, live) => {
      const answer = await offer(row, told, live);
      if (answer !== 'stale') return answer;
      Object.assign(told, await standing());
      if (told.account === null) return 'shut';
      const again = await offer(row, told, live);
      return again === 'stale' ? 'shut' : again;
    };

    const settled = async (row, answer) => {
      if (answer.held) {
        await change(row, { state: 'held', place: answer.place, held: now(), refused: null, why: null });
        await store.setMeta('held', ((await store.meta('held')) || 0) + 1);
      } else if (answer.refused) await change(row, { state: 'refused', refused: answer.refused, why: answer.fields });
      else if (answer.apart) await change(row, { state: 'apart', refused: answer.apart, why: answer.fields });
      else if (answer.page) await store.remove(row.key); // whoever typed it sees it, with what was wrong
    };

    // A server that knows fewer of our records than it said it held was restored: what it lost is sent again.
    const recall = async (told) => {
      const count = (await store.meta('held')) || 0;
      if (told.account === null || told.held >= count) return;
      const rows = (await store.all()).filter((row) => row.state === 'held');
      const keys = rows.map((row) => row.key);
      const answer = await ask('/pocket/known.json', {
        method: 'POST',
        headers: { 'X-CSRF-Token': told.token, 'Content-Type': 'application/x-www-form-urlencoded' },
        body: new URLSearchParams({ keys: keys.join(',') }).toString(),
      });
      const { unknown } = (await json(answer)) || {};
      if (!unknown) return;
      for (const row of rows.filter((one) => unknown.includes(one.key)))
        await change(row, { state: 'waiting', next: 0, tries: 0 });
      await store.setMeta('held', told.held);
    };

    const sweep = async () => {
      const old = (await store.all()).filter((row) => row.state === 'held' && row.held < now() - KEPT);
      for (const row of old) await store.remove(row.key);
    };

    // Those that may go now, in their order on each lane; lanes that begin with a photograph come behind.
    const ready = async (told, force, done) => {
      const rows = await store.all();
      const lanes = new Map();
      for (const row of rows) {
        if (row.state !== 'waiting' || row.account !== told.account) continue;
        const lane = row.lane || row.key;
        if (!lanes.has(lane)) lanes.set(lane, row);
      }
      const open = [...lanes.values()].filter((row) => {
        const patch = needs(row);
        const first = patch && rows.find((one) => one.key === patch);
        return !done.has(row.key) && (force || row.next <= now()) && !(first && first.state !== 'held');
      });
      return open.sort((a, b) => (a.files.length > 0) - (b.files.length > 0) || (a.key < b.key ? -1 : 1));
    };

    // Sends what waits: { sent, stopped: '' | 'later' | 'shut' | 'empty', left }. force: without regard to pauses.
    const send = async ({ force = false } = {}) => {
      let sent = 0;
      let stopped = '';
      const done = new Set(); // of this round: what failed once is not tried twice
      try {
        const told = await standing();
        if (told.empty) stopped = 'empty';
        else if (told.account === null) stopped = 'shut';
        else await recall(told);
        while (!stopped) {
          const [row] = await ready(told, force, done);
          if (!row) break;
          done.add(row.key);
          let answer;
          try {
            answer = await offered(row, told);
          } catch {
            answer = 'later';
          }
          if (answer === 'later') {
            const pause = PAUSES[Math.min(row.tries, PAUSES.length - 1)] * 1000;
            await change(row, { tries: row.tries + 1, next: now() + pause });
            stopped = 'later';
          } else if (typeof answer === 'string') stopped = answer;
          else {
            await settled(row, answer);
            if (answer.held) sent += 1;
          }
        }
        if (!stopped) await sweep();
      } catch {
        stopped = 'later';
      }
      return { sent, stopped, left: (await waiting()).length };
    };

    // One record while somebody waits for its page: { place } | { page } | { refused } | 'later' | 'shut' | 'other' | 'empty'.
    // What was recorded on its lane before goes first.
    const sendNow = async (row) => {
      const before = (await waiting()).some((one) => one.lane && one.lane === row.lane && one.key < row.key);
      if (before) {
        await send({ force: true });
        const stored = await store.get(row.key);
        return stored?.state === 'held' ? { place: stored.place } : stored?.refused ? stored : 'later';
      }
      try {
        const told = await standing();
        if (told.empty) return 'empty';
        if (told.account === null) return 'shut';
        if (told.account !== row.account) return 'other';
        const answer = await offered(row, told, true);
        if (typeof answer !== 'string') await settled(row, answer);
        return answer;
      } catch {
        return 'later';
      }
    };

    // Refused, and mended or tried again as it is; it keeps its place in the order, under a new key.
    const again = async (key) => {
      const row = await store.get(key);
      if (row) await change(row, { state: 'waiting', next: 0, tries: 0 });
    };

    return { add, send, sendNow, again, waiting, drop: (key) => store.remove(key), all: () => store.all() };
  };

  const all = { Queue, uuid7, KEY };
  if (typeof module === 'object') module.exports = all;
  else Object.assign(self, { Queue, uuid7 });
})();
