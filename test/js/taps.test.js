// Taps of a day in the field: none is lost, whatever answers.
const { test } = require('node:test');
const assert = require('node:assert/strict');
const Taps = require('../../web/assets/js/taps.js');

const shelf = () => {
  const kept = new Map();
  return { getItem: (key) => kept.get(key) ?? null, setItem: (key, value) => kept.set(key, value) };
};
const answer = (status, told, type = 'basic') => ({
  status,
  type,
  ok: status < 300,
  json: async () => (told === undefined ? Promise.reject(new Error('no JSON')) : told),
});
const tap = (key) => ({ key, to: '/tap', body: `key=${key}&authenticity_token=old`, words: `Tap ${key}` });

// A queue of two taps before a server that answers each in turn, the last again and again.
const queue = (answers, token = async () => null) => {
  const asked = [];
  const post = async (one) => {
    asked.push(one);
    const next = answers.length > 1 ? answers.shift() : answers[0];
    return typeof next === 'function' ? next(one) : next;
  };
  const taps = Taps({ storage: shelf(), post, token });
  taps.add(tap('a'));
  taps.add(tap('b'));
  return { taps, asked };
};
const keys = (taps) => taps.waiting().map((one) => one.key);
const held = (one) => answer(200, { kept: one.key });

test('what the server holds is let go, in its order', async () => {
  const { taps, asked } = queue([held]);
  assert.deepEqual(await taps.send(), { sent: 2, stopped: '' });
  assert.deepEqual([keys(taps), asked.map((one) => one.key)], [[], ['a', 'b']]);
});

test('no signal, a fault of the server, a page of the network: both stay, in their order', async () => {
  const none = () => Promise.reject(new TypeError('no network'));
  for (const wrong of [
    none,
    answer(500),
    answer(503, { error: 'full' }),
    answer(200),
    answer(200, { kept: 'other' }),
  ]) {
    const { taps } = queue([wrong]);
    assert.deepEqual(await taps.send(), { sent: 0, stopped: 'later' });
    assert.deepEqual(keys(taps), ['a', 'b']);
  }
});

test('the line breaks after the first: the second stays', async () => {
  const { taps } = queue([held, () => Promise.reject(new TypeError('no network'))]);
  assert.deepEqual(await taps.send(), { sent: 1, stopped: 'later' });
  assert.deepEqual(keys(taps), ['b']);
});

test('what is refused stays with why, until somebody lets it go, and holds up nothing', async () => {
  const { taps } = queue([answer(422, { error: 'It is another day.' }), held]);
  assert.deepEqual(await taps.send(), { sent: 1, stopped: '' });
  assert.deepEqual(
    taps.refused().map((one) => [one.key, one.refused, one.words]),
    [['a', 'It is another day.', 'Tap a']],
  );
  taps.drop('a');
  assert.deepEqual([taps.refused(), keys(taps)], [[], []]);
});

test('a session that ended: kept, and said', async () => {
  for (const shut of [answer(0, undefined, 'opaqueredirect'), answer(401), answer(403)]) {
    const { taps } = queue([shut]);
    assert.deepEqual(await taps.send(), { sent: 0, stopped: 'shut' });
    assert.deepEqual(keys(taps), ['a', 'b']);
  }
});

test('an old token is changed for a fresh one, once', async () => {
  const fresh = (one) => (one.body.includes('authenticity_token=new') ? held(one) : answer(403));
  const { taps, asked } = queue([fresh], async () => 'new');
  assert.deepEqual(await taps.send(), { sent: 2, stopped: '' });
  assert.equal(asked.length, 4);
  const never = queue([answer(403)], async () => 'new');
  assert.deepEqual(await never.taps.send(), { sent: 0, stopped: 'shut' });
});
