// A day in the field: taps that no signal loses (queue.js), a clock that runs from the server's start, pictures, ticks,
// dragged stops.
(() => {
  const say = (words) => {
    const place = document.querySelector('.unsent');
    if (!place) return;
    place.hidden = !words;
    place.textContent = words;
  };

  // What the server will not take: what it was, why, and a button to let it go.
  const showRefused = (rows) => {
    const place = document.querySelector('.refused-taps');
    if (!place) return;
    const refused = rows.filter((row) => row.refused && row.to.includes('/taps'));
    place.replaceChildren(
      ...refused.map((tap) => {
        const row = document.createElement('p');
        const button = document.createElement('button');
        button.type = 'button';
        button.className = 'link';
        button.textContent = 'Let it go';
        button.addEventListener('click', async () => {
          await (await Pocket.ready).drop(tap.key);
          Pocket.say();
        });
        row.append(`Not taken: ${tap.words || 'a tap'}. ${tap.refused} `, button);
        return row;
      }),
    );
  };

  // What was tapped since the page was drawn, whether the server heard of it or not: [{ kind, what, amount, at, patch }].
  let drawn = Number(document.querySelector('meta[name="kept"]')?.content) || performance.timeOrigin;
  const tapped = async () => {
    const rows = (await Keep.store.all()).filter(({ to, state, held }) => {
      const waits = state === 'waiting' || (state === 'held' && held > drawn);
      return waits && to.endsWith('/taps') && location.pathname.startsWith(to.replace(/taps$/, 'field'));
    });
    return rows.sort((a, b) => (a.key < b.key ? -1 : 1)).map(({ fields }) => Object.fromEntries(fields));
  };

  const withNumber = (place, change) => {
    place.dataset.drawn ||= place.textContent;
    const [, words, number] = place.dataset.drawn.match(/^\s*(.*?)\s*(-?\d+)\s*$/s) || [];
    if (number !== undefined) place.textContent = `${words} ${change(Number(number))}`.trim();
  };

  const CLOCK = ['start', 'stop'];
  const lastOf = (taps, ...kinds) => taps.filter(({ kind }) => kinds.includes(kind)).at(-1);

  // A stop on the list of all.
  const showStop = (card, own) => {
    const clock = lastOf(own, ...CLOCK);
    if (!clock) return;
    card.querySelector('em').textContent = clock.kind === 'start' ? 'running' : 'begun';
    card.classList.toggle('open', clock.kind === 'start');
  };

  const showCounts = (main, own) => {
    const more = (kind, what) => (number) => {
      const amounts = own.filter((tap) => tap.kind === kind && (tap.what || '') === what).map(({ amount }) => +amount);
      return Math.max(0, number + amounts.reduce((sum, one) => sum + one, 0));
    };
    withNumber(main.querySelector('[data-count="plants-"]'), more('plants', ''));
    main.querySelectorAll('[data-counts^="stems-"]').forEach((place) => {
      withNumber(place, more('stems', place.dataset.counts.slice(6)));
    });
  };

  const formsOf = (main, kind) =>
    [...main.querySelectorAll(`[data-tap] [name="kind"][value="${kind}"]`)].map(({ form }) => form);

  // The buttons beside go on from how many there are now.
  const showPeople = (main, own) => {
    const people = Number(lastOf(own, 'people')?.amount);
    if (!people) return;
    main.querySelector('[data-count="people-"]').textContent = people;
    formsOf(main, 'people').forEach((form, n, forms) => {
      const other = people + (n === forms.length - 1 ? 1 : -1);
      form.hidden = other < 1;
      form.elements.amount.value = other;
      form.querySelector('button').textContent = other;
    });
  };

  const showChosen = (main, own, kind) => {
    const last = lastOf(own, kind);
    if (!last) return;
    formsOf(main, kind).forEach((form) => {
      form.querySelector('button').classList.toggle('chosen', form.elements.what?.value === last.what);
    });
  };

  const showClock = (main, own) => {
    const taps = own.filter(({ kind }) => CLOCK.includes(kind));
    if (!taps.length) return;
    const running = main.querySelector('[data-began]');
    running.dataset.drawn ??= running.dataset.began;
    const said = main.querySelector('[data-when="shut"] .running');
    said.dataset.drawn ??= said.textContent;
    let [from, ms] = [Number(running.dataset.drawn), 0];
    for (const { kind, at } of taps) {
      if (kind === 'stop' && from) ms += at - from;
      from = kind === 'start' ? Number(at) : 0;
    }
    main.querySelectorAll('[data-when]').forEach((part) => {
      part.hidden = (part.dataset.when === 'open') !== Boolean(from);
    });
    const hours = (Number.parseFloat(said.dataset.drawn) || 0) + ms / 3600e3;
    if (from) running.dataset.began = from;
    else said.textContent = `${Number(hours.toFixed(2))} h so far`;
  };

  // The page as it would be drawn with them, so that what is tapped without signal is seen.
  const showTaps = async () => {
    const all = self.Keep ? await tapped() : [];
    const at = (place) => all.filter(({ patch }) => patch === place.dataset.patch);
    document.querySelectorAll('.field-card[data-patch]').forEach((card) => showStop(card, at(card)));
    const main = document.querySelector('[data-field][data-patch]');
    if (!main) return;
    const own = at(main);
    showCounts(main, own);
    showPeople(main, own);
    ['seed', 'treated'].forEach((kind) => showChosen(main, own, kind));
    showClock(main, own);
  };

  const refresh = async () => {
    if (!document.querySelector('[data-field]')) return;
    const asked = Date.now();
    const page = new DOMParser().parseFromString(await (await fetch(location.href)).text(), 'text/html');
    const main = page.querySelector('[data-field]');
    if (main) {
      document.querySelector('[data-field]').replaceWith(main);
      drawn = asked;
    }
    await showTaps();
    showFound();
    Pocket.say();
  };

  const WHY = {
    shut: 'your session has ended. Sign in again and they are sent.',
    later: 'no signal. They are sent as soon as there is one.',
  };
  document.addEventListener('pocket:changed', ({ detail }) => showRefused(detail));
  document.addEventListener('pocket:sent', ({ detail: { sent, stopped, left } }) => {
    say(left ? `${left} kept on this phone: ${WHY[stopped] || WHY.later}` : '');
    if (sent && !stopped) refresh().catch(() => {});
  });

  document.addEventListener('submit', async (event) => {
    const form = event.target.closest('form[data-tap]');
    if (!form || !self.Pocket) return;
    event.preventDefault();
    form.at.value = Date.now();
    const fields = [...new FormData(form)].filter(([name]) => !['authenticity_token', 'once'].includes(name));
    const { pathname } = new URL(form.action);
    const words = form.querySelector('button')?.textContent.trim();
    form.elements.key.value = self.uuid7();
    navigator.vibrate?.(15);
    const queue = await Pocket.ready;
    await queue.add({ to: pathname, account: Pocket.account, fields, lane: pathname, words, page: location.pathname });
    await showTaps();
    Pocket.send({ force: true });
  });

  // Found another: the first tap takes the position, the second says yes.
  const showFound = () =>
    document.querySelectorAll('[data-found]').forEach((form) => {
      form.hidden = !navigator.geolocation;
    });
  document.addEventListener('submit', (event) => {
    const form = event.target.closest('form[data-found]');
    if (!form || form.lon.value) return;
    event.preventDefault();
    const button = form.querySelector('button');
    button.textContent = 'Taking the position …';
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        form.lon.value = coords.longitude.toFixed(7);
        form.lat.value = coords.latitude.toFixed(7);
        button.textContent = `Yes, one more here (±${Math.round(coords.accuracy)} m)`;
      },
      () => {
        button.textContent = 'No position: draw it on the map';
      },
      { enableHighAccuracy: true, timeout: 15000 },
    );
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
    canvas.toBlob(
      (blob) => {
        if (!blob) return;
        const files = new DataTransfer();
        files.items.add(new File([blob], file.name.replace(/\.\w+$/, '.jpg'), { type: 'image/jpeg' }));
        target.files = files.files;
      },
      'image/jpeg',
      0.85,
    );
  });

  // What was ticked off a list stays ticked on this phone.
  const TICKED = 'ticked';
  const ticked = () => JSON.parse(localStorage.getItem(TICKED) || '[]');
  document.querySelectorAll('input[data-keeps]').forEach((box) => {
    box.checked = ticked().includes(box.dataset.keeps);
  });
  document.addEventListener('change', ({ target }) => {
    if (!target.dataset?.keeps) return;
    const others = ticked().filter((one) => one !== target.dataset.keeps);
    localStorage.setItem(TICKED, JSON.stringify(target.checked ? [...others, target.dataset.keeps] : others));
  });

  // A stop dragged to another time is held there.
  let dragged = null;
  document.addEventListener('dragstart', ({ target }) => {
    dragged = target.closest?.('[data-drags]')?.dataset.drags || null;
  });
  document.addEventListener('dragover', (event) => {
    const block = dragged && event.target.closest('[data-drops]');
    document.querySelectorAll('.over').forEach((one) => {
      if (one !== block) one.classList.remove('over');
    });
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
    if (!clock?.dataset.began) return;
    const seconds = Math.max(0, Math.round((Date.now() - Number(clock.dataset.began)) / 1000));
    const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
    clock.textContent = `${h}:${String(m).padStart(2, '0')}:${String(s).padStart(2, '0')}`;
  };
  setInterval(tick, 1000);
  showTaps().then(tick);
})();
