// Records that wait for signal: none is lost, none doubled, each patch's in their order, whatever the line does.
const { test } = require('node:test');
const assert = require('node:assert/strict');
const { Queue, uuid7, KEY } = require('../../web/assets/js/queue.js');

const shelf = () => {
  const rows = new Map();
  const meta = new Map();
  return {
    all: async () => [...rows.values()].sort((a, b) => (a.key < b.key ? -1 : 1)).map((row) => ({ ...row })),
    get: async (key) => rows.get(key) && { ...rows.get(key) },
    put: async (row) => void rows.set(row.key, { ...row }),
    remove: async (key) => void rows.delete(key),
    meta: async (name) => meta.get(name),
    setMeta: async (name, value) => void meta.set(name, value),
  };
};

const told = (status, data) => ({
  status,
  ok: status < 300,
  type: 'basic',
  headers: new Map([['Content-Type', data === undefined ? 'text/html' : 'application/json']]),
  json: async () => data,
  text: async () => '<p>a page</p>',
});

// A server that holds what it is given once, over a line that breaks as `luck` says: before it heard, or after it did.
const world = ({ luck = () => 'through', account = 1, store = shelf(), now = Date.now } = {}) => {
  const server = {
    held: new Map(),
    order: [],
    pieces: new Map(),
    account,
    empty: false,
    refuse: () => null,
    copy: 'c',
    asked: [],
  };
  const answer = (path, init) => {
    const key = init.headers?.['X-Record-Key'];
    if (path.startsWith('/pocket/standing'))
      return told(200, {
        now: now(),
        copy: server.copy,
        account: server.account,
        empty: server.empty,
        held: server.held.size,
        token: 't',
      });
    if (path.startsWith('/pocket/known'))
      return told(200, {
        unknown: new URLSearchParams(init.body)
          .get('keys')
          .split(',')
          .filter((one) => !server.held.has(one)),
      });
    if (path.startsWith('/pocket/pieces')) {
      const name = path.split('/').at(-1).split('.json')[0];
      const have = server.pieces.get(name) || 0;
      const from = Number(new URL(path, 'http://x').searchParams.get('from'));
      if (init.method === 'PUT' && from === have) server.pieces.set(name, have + init.body.size);
      return told(200, { have: server.pieces.get(name) || 0 });
    }
    server.asked.push(path);
    const refused = server.refuse(path, init);
    if (refused) return refused;
    if (!server.held.has(key)) {
      server.held.set(key, init.body);
      server.order.push([path, new URLSearchParams(init.body).get('n')]);
    }
    return told(200, { held: true, place: `${path}/1` });
  };
  const ask = async (path, init = {}) => {
    const how = luck(path);
    if (how === 'before') throw new TypeError('no network');
    const said = answer(path, init);
    if (how === 'after') throw new TypeError('it broke on the way back');
    return said;
  };
  return { server, store, queue: Queue({ store, ask, phone: 'p', now }) };
};
const record = (n, lane = 'patch 1', more = {}) => ({
  to: '/work/treatments',
  account: 1,
  fields: [['n', String(n)]],
  lane,
  ...more,
});

test('keys are UUIDs of version 7 that sort as they were made', () => {
  const keys = Array.from({ length: 3000 }, () => uuid7(1_800_000_000_000));
  assert.ok(keys.every((key) => KEY.test(key)));
  assert.deepEqual([...keys].sort(), keys);
  assert.equal(new Set(keys).size, keys.length);
});

test('what waits is sent in its order, and stays until the server holds it', async () => {
  const { server, queue } = world();
  for (let n = 0; n < 5; n += 1) await queue.add(record(n, n % 2 ? 'patch 1' : 'patch 2'));
  assert.deepEqual(await queue.send(), { sent: 5, stopped: '', left: 0 });
  assert.deepEqual(
    server.order
      .filter((_, n) => n >= 0)
      .map(([, n]) => n)
      .sort(),
    ['0', '1', '2', '3', '4'],
  );
});

test('three phones, a thousand records, two hundred photographs, a line that breaks anywhere', async () => {
  let seed = 42;
  const random = () => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return seed / 2147483648;
  };
  const luck = () => (random() < 0.15 ? 'before' : random() < 0.15 ? 'after' : 'through');
  let clock = 1_800_000_000_000;
  const phones = [0, 1, 2].map(() => world({ luck, now: () => clock }));
  const all = [];
  for (let n = 0; n < 1000; n += 1) {
    const phone = phones[n % 3];
    const lane = `patch ${n % 17}`;
    const files =
      n % 5
        ? []
        : [{ name: 'file', filename: 'a.jpg', blob: new Blob([new Uint8Array(300_000)], { type: 'image/jpeg' }) }];
    clock += 1;
    const row = await phone.queue.add(record(n, lane, { to: `/on/${n % 17}`, files }));
    all.push(row.key);
    if (random() < 0.3) await phone.queue.send();
  }
  for (const phone of phones) {
    let rounds = 0;
    while ((await phone.queue.waiting()).length) {
      clock += 1_000_000;
      await phone.queue.send();
      rounds += 1;
      assert.ok(rounds < 5000, 'it comes to an end');
    }
  }
  const held = phones.flatMap((phone) => [...phone.server.held.keys()]);
  assert.equal(held.length, 1000, 'none is doubled');
  assert.deepEqual([...held].sort(), [...all].sort(), 'none is lost');
  for (const { server } of phones) {
    const lanes = new Map();
    server.order.forEach(([path, n]) => lanes.set(path, [...(lanes.get(path) || []), Number(n)]));
    for (const order of lanes.values())
      assert.deepEqual(
        [...order].sort((a, b) => a - b),
        order,
        'each patch in its order',
      );
    const photos = [...server.pieces.values()];
    assert.ok(photos.every((bytes) => bytes === 300_000));
  }
  assert.equal(
    phones.reduce((sum, { server }) => sum + server.pieces.size, 0),
    200,
  );
});

test('a photograph goes behind, and its patch waits for it', async () => {
  const { server, queue } = world();
  const photo = [{ name: 'file', filename: 'a|b.jpg', blob: new Blob(['x'], { type: 'image/jpeg' }) }];
  await queue.add(record(1, 'patch 1', { files: photo }));
  await queue.add(record(2, 'patch 1'));
  await queue.add(record(3, 'patch 2'));
  await queue.send();
  assert.deepEqual(
    server.order.map(([, n]) => n),
    ['3', '1', '2'],
  );
  const body = new URLSearchParams([...server.held.values()][1]);
  assert.match(body.get('file'), /^piece:[0-9a-f-]{36}\.0\|a b\.jpg\|image\/jpeg$/);
});

test('what is refused stays with its reason and holds nothing else up', async () => {
  const { server, queue } = world();
  server.refuse = (_, { body }) =>
    body === 'n=1' ? told(422, { error: null, fields: { hours: 'is missing' } }) : null;
  await queue.add(record(1));
  await queue.add(record(2));
  assert.deepEqual(await queue.send(), { sent: 1, stopped: '', left: 0 });
  const [row] = await queue.all();
  assert.deepEqual([row.state, row.why], ['refused', { hours: 'is missing' }]);
  server.refuse = () => null;
  await queue.again(row.key);
  assert.equal((await queue.send()).sent, 1);
});

test('a record of a patch that the phone made waits for the patch', async () => {
  const { server, queue } = world();
  let hold = true;
  server.refuse = (path) => (hold && path === '/survey/patches' ? told(503) : null);
  const made = await queue.add(record(0, '', { to: '/survey/patches' }));
  await queue.add({ to: '/recheck/checks', account: 1, fields: [['patch', made.key]], lane: `patch ${made.key}` });
  await queue.send({ force: true });
  assert.deepEqual(server.order, []);
  hold = false;
  assert.equal((await queue.send({ force: true })).sent, 2);
  assert.deepEqual(
    server.order.map(([path]) => path),
    ['/survey/patches', '/recheck/checks'],
  );
});

test('whoever is signed out, another account, a page of the network, a full server: nothing is lost', async () => {
  const cases = { shut: { account: null }, later: {} };
  for (const [stopped, more] of Object.entries(cases)) {
    const { server, queue } = world(more);
    if (stopped === 'later') server.refuse = () => told(200); // a hotel's page
    await queue.add(record(1));
    assert.deepEqual(await queue.send(), { sent: 0, stopped, left: 1 });
  }
  const { queue } = world({ account: 2 });
  await queue.add(record(1));
  assert.deepEqual(await queue.send(), { sent: 0, stopped: '', left: 1 }, 'the other account sends nothing of mine');
  assert.equal(await queue.sendNow((await queue.all())[0]), 'other');
});

test('pauses grow, and whoever presses does not wait for them', async () => {
  let clock = 1_800_000_000_000;
  const { server, queue } = world({ now: () => clock });
  server.refuse = () => told(503);
  await queue.add(record(1));
  const pauses = [];
  for (let n = 0; n < 7; n += 1) {
    await queue.send();
    const [row] = await queue.all();
    pauses.push((row.next - clock) / 1000);
    clock = row.next;
  }
  assert.deepEqual(pauses, [5, 15, 45, 120, 300, 900, 900]);
  const before = server.asked.length;
  await queue.send();
  clock -= 1;
  await queue.send();
  assert.equal(server.asked.length, before + 1, 'not before its time');
  await queue.send({ force: true });
  assert.equal(server.asked.length, before + 2);
});

test('a server that was set back gets again what it lost, and no more', async () => {
  const { server, queue } = world();
  for (let n = 0; n < 6; n += 1) await queue.add(record(n));
  await queue.send();
  const lost = [...server.held.keys()].slice(4);
  lost.forEach((key) => server.held.delete(key));
  server.order.length = 0;
  await queue.add(record(6));
  assert.equal((await queue.send()).sent, 3);
  assert.deepEqual(
    server.order.map(([, n]) => n),
    ['4', '5', '6'],
  );
});

test('a token that grew old is asked for anew; two versions of one thing are for a person', async () => {
  const { server, queue } = world();
  let first = true;
  server.refuse = () => {
    const stale = first;
    first = false;
    return stale ? told(403) : null;
  };
  await queue.add(record(1));
  assert.equal((await queue.send()).sent, 1);
  server.refuse = () => told(409, { error: 'Someone else changed this record.' });
  await queue.add(record(2));
  await queue.send();
  assert.equal((await queue.all()).find((row) => row.state === 'apart').refused, 'Someone else changed this record.');
});

test('a phone that was cut off stops', async () => {
  const { server, queue } = world();
  server.empty = true;
  await queue.add(record(1));
  assert.equal((await queue.send()).stopped, 'empty');
});
