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
    showFound();
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

  // Found another: the first tap takes the position, the second says yes.
  const showFound = () => document.querySelectorAll('[data-found]').forEach((form) => { form.hidden = !navigator.geolocation; });
  document.addEventListener('submit', (event) => {
    const form = event.target.closest('form[data-found]');
    if (!form || form.lon.value) return;
    event.preventDefault();
    const button = form.querySelector('button');
    button.textContent = 'Taking the position …';
    navigator.geolocation.getCurrentPosition(({ coords }) => {
      form.lon.value = coords.longitude.toFixed(7);
      form.lat.value = coords.latitude.toFixed(7);
      button.textContent = `Yes, one more here (±${Math.round(coords.accuracy)} m)`;
    }, () => { button.textContent = 'No position: draw it on the map'; }, { enableHighAccuracy: true, timeout: 15000 });
  });
  showFound();

  // A phone's picture is larger than anyone needs: made smaller before it travels, unless its place is to be kept.
  document.addEventListener('change', async ({ target }) => {
    const most = Number(target.dataset?.shrinks);
    const file = most && target.files?.[0];
    if (!file || target.form.place?.checked) return;
    const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null);
    const scale = picture && most / Math.max(picture.width, picture.height);
    if (!picture || scale >= 1) return;
    const canvas = document.createElement('canvas');
    canvas.width = Math.round(picture.width * scale);
    canvas.height = Math.round(picture.height * scale);
    canvas.getContext('2d').drawImage(picture, 0, 0, canvas.width, canvas.height);
    canvas.toBlob((blob) => {
      if (!blob) return;
      const files = new DataTransfer();
      files.items.add(new File([blob], file.name.replace(/\.\w+$/, '.jpg'), { type: 'image/jpeg' }));
      target.files = files.files;
    }, 'image/jpeg', 0.85);
  });

  // What was ticked off a list stays ticked on this phone.
  const TICKED = 'ticked';
  const ticked = () => JSON.parse(localStorage.getItem(TICKED) || '[]');
  document.querySelectorAll('input[data-keeps]').forEach((box) => { box.checked = ticked().includes(box.dataset.keeps); });
  document.addEventListener('change', ({ target }) => {
    if (!target.dataset?.keeps) return;
    const others = ticked().filter((one) => one !== target.dataset.keeps);
    localStorage.setItem(TICKED, JSON.stringify(target.checked ? [...others, target.dataset.keeps] : others));
  });

  // A stop dragged to another time is held there.
  let dragged = null;
  document.addEventListener('dragstart', ({ target }) => { dragged = target.closest?.('[data-drags]')?.dataset.drags || null; });
  document.addEventListener('dragover', (event) => {
    const block = dragged && event.target.closest('[data-drops]');
    document.querySelectorAll('.over').forEach((one) => { if (one !== block) one.classList.remove('over'); });
    if (!block) return;
    event.preventDefault();
    block.classList.add('over');
  });
  document.addEventListener('drop', (event) => {
    const block = dragged && event.target.closest('[data-drops]');
    if (!block) return;
    event.preventDefault();
    const form = document.getElementById('drop-form');
    form.patch.value = dragged;
    form.block.value = block.dataset.drops;
    form.submit();
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
