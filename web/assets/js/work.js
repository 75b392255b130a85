// A day in the field: taps are kept on the phone until the server has them; a clock that runs from the server's start.
(() => {
  const KEY = 'taps';
  const queue = () => JSON.parse(localStorage.getItem(KEY) || '[]');
  const keep = (taps) => localStorage.setItem(KEY, JSON.stringify(taps));
  let sending = false;

  const say = (words) => {
    const place = document.querySelector('.unsent');
    if (!place) return;
    place.hidden = !words;
    place.textContent = words;
  };

  const refresh = async () => {
    if (!document.querySelector('[data-field]')) return;
    const page = new DOMParser().parseFromString(await (await fetch(location.href)).text(), 'text/html');
    const main = page.querySelector('[data-field]');
    if (main) document.querySelector('[data-field]').replaceWith(main);
  };

  const send = async () => {
    if (sending) return;
    sending = true;
    try {
      while (queue().length) {
        const [first, ...rest] = queue();
        const answer = await fetch(first.to, { method: 'POST', headers: { 'Content-Type': 'application/x-www-form-urlencoded' }, body: first.body, redirect: 'follow' });
        if (answer.status >= 500) throw new Error('later');
        keep(rest.length ? queue().slice(1) : []);
      }
      say('');
      await refresh();
    } catch {
      say(`${queue().length} kept on this phone: no signal. They are sent as soon as there is one.`);
    }
    sending = false;
  };

  document.addEventListener('submit', (event) => {
    const form = event.target.closest('form[data-tap]');
    if (!form) return;
    event.preventDefault();
    form.at.value = Date.now();
    keep([...queue(), { to: form.action, body: new URLSearchParams(new FormData(form)).toString() }]);
    form.elements.key.value = crypto.randomUUID ? crypto.randomUUID() : `tap-${Date.now()}-${Math.random().toString(36).slice(2)}`;
    navigator.vibrate?.(15);
    send();
  });

  const tick = () => {
    const clock = document.querySelector('[data-began]');
    if (!clock) return;
    const seconds = Math.max(0, Math.round((Date.now() - Number(clock.dataset.began)) / 1000));
    const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
    clock.textContent = `${h}:${String(m).padStart(2, '0')}:${String(s).padStart(2, '0')}`;
  };
  setInterval(tick, 1000);
  tick();
  addEventListener('online', send);
  document.addEventListener('visibilitychange', () => { if (!document.hidden && queue().length) send(); });
  if (queue().length) send();
})();
