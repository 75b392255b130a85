// Taps that wait for a signal: each is kept under its own key until the server says that it holds it; one that it
// refuses stays, with why. `storage` keeps them, `post` sends one, `token` asks a fresh page for this session's token.
(() => {
  const KEY = 'taps';

  const Taps = ({ storage, post, token }) => {
    const all = () =>
      JSON.parse(storage.getItem(KEY) || '[]').map((tap) => ({
        key: new URLSearchParams(tap.body).get('key'),
        ...tap,
      }));
    const keep = (taps) => storage.setItem(KEY, JSON.stringify(taps));
    const add = (tap) => keep([...all(), tap]);
    const drop = (key) => keep(all().filter((tap) => tap.key !== key));
    const change = (key, more) => keep(all().map((tap) => (tap.key === key ? { ...tap, ...more } : tap)));
    const waiting = () => all().filter((tap) => !tap.refused);
    const refused = () => all().filter((tap) => tap.refused);

    // 'kept', 'later', 'shut' (the session has ended), or why the server refuses it.
    const offer = async (tap, again = true) => {
      const answer = await post(tap);
      if (answer.status >= 500) return 'later';
      const told = await answer.json().catch(() => null);
      if (answer.ok && told?.kept === tap.key) return 'kept';
      if (answer.type === 'opaqueredirect' || answer.status === 401) return 'shut';
      if (answer.status === 403) {
        const fresh = again && (await token());
        if (!fresh) return 'shut';
        const body = new URLSearchParams(tap.body);
        body.set('authenticity_token', fresh);
        change(tap.key, { body: body.toString() });
        return offer({ ...tap, body: body.toString() }, false);
      }
      if (answer.status >= 400) return { refused: told?.error || `The server said ${answer.status}.` };
      return 'later'; // something else answers here, a page of the network maybe
    };

    // Sends them in their order: how many the server holds now, and why it stopped ('' when none is left).
    const send = async () => {
      let sent = 0;
      let stopped = '';
      try {
        while (waiting().length && !stopped) {
          const [tap] = waiting();
          const answer = await offer(tap);
          if (answer === 'kept') {
            drop(tap.key);
            sent += 1;
          } else if (answer.refused) change(tap.key, answer);
          else stopped = answer;
        }
      } catch {
        stopped = 'later';
      }
      return { sent, stopped };
    };

    return { add, drop, waiting, refused, send };
  };

  if (typeof module === 'object') module.exports = Taps;
  else window.Taps = Taps;
})();
