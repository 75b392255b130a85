// The page of records that can be made anywhere (/pocket/record): patches that were made on this phone can be chosen,
// and the phone's position is taken many times, each fix weighted by its own error.
(() => {
  const main = document.querySelector('[data-record]');
  if (!main || !self.Pocket) return;

  const asked = new URLSearchParams(location.search);
  const part = asked.get('kind') && document.getElementById(asked.get('kind'));
  if (part) part.open = true;

  const offerOwn = (rows) => {
    const own = rows.filter((row) => row.to === '/survey/patches' && row.state !== 'held');
    main.querySelectorAll('select[data-which]').forEach((menu) => {
      const chosen = menu.value;
      menu.querySelectorAll('[data-own]').forEach((one) => one.remove());
      own.forEach((row, n) => {
        const plant = row.fields.find(([name]) => name === 'plant_key')?.[1];
        const option = new Option(
          `new ${n + 1}, made on this phone${plant ? ` (${plant.replaceAll('_', ' ')})` : ''}`,
          row.key,
        );
        option.dataset.own = '';
        menu.add(option);
      });
      menu.value = chosen;
    });
  };
  document.addEventListener('pocket:changed', ({ detail }) => offerOwn(detail));

  const FIXES = 30;
  const SECONDS = 40;
  const WORST = 60; // m: a fix known no better says nothing
  const FLOOR = 1.5; // m: errors of one place go together, so that many fixes are no better than this

  const button = main.querySelector('[data-here]');
  const said = main.querySelector('[data-here-said]');
  const field = main.querySelector('[name=geometry]');
  const note = main.querySelector('#new [name=note]');
  let watch = null;
  button.addEventListener('click', () => {
    if (!navigator.geolocation) {
      said.textContent = 'This browser has no position.';
      return;
    }
    if (watch !== null) {
      navigator.geolocation.clearWatch(watch);
      watch = null;
      button.textContent = 'Take it again';
      return;
    }
    const sum = { weight: 0, lon: 0, lat: 0, n: 0 };
    const finish = () => {
      if (watch !== null) button.click();
    };
    button.textContent = 'Enough';
    said.textContent = 'Waiting for the first fix …';
    watch = navigator.geolocation.watchPosition(
      ({ coords }) => {
        if (coords.accuracy > WORST) {
          said.textContent = `±${Math.round(coords.accuracy)} m: too poor to use. Stand in the open.`;
          return;
        }
        const weight = 1 / coords.accuracy ** 2;
        sum.weight += weight;
        sum.lon += weight * coords.longitude;
        sum.lat += weight * coords.latitude;
        sum.n += 1;
        const spot = [sum.lon / sum.weight, sum.lat / sum.weight].map((degrees) => Number(degrees.toFixed(7)));
        const error = Math.max(Math.sqrt(1 / sum.weight), FLOOR);
        field.value = JSON.stringify({ type: 'Point', coordinates: spot });
        said.textContent = `${Pocket.count(sum.n, 'fix', 'fixes')}, known to ±${error.toFixed(1)} m.`;
        const words = `Position from ${Pocket.count(sum.n, 'fix', 'fixes')}, ±${error.toFixed(1)} m.`;
        note.value = `${note.value.replace(/Position from .*? m\.\s*/, '')} ${words}`.trim();
        if (sum.n >= FIXES) finish();
      },
      () => {
        said.textContent = 'No position: stand in the open, and allow it for this site.';
      },
      { enableHighAccuracy: true, maximumAge: 0, timeout: 30000 },
    );
    setTimeout(finish, SECONDS * 1000);
  });
  // What was walked without signal, until it was recorded.
  Keep.store.meta('walked').then((walked) => {
    if (!walked) return;
    field.value = JSON.stringify(walked.shape);
    note.value = `Walked: ${walked.words}`;
    said.textContent = walked.words;
    const searched = main.querySelector('[data-walked]');
    searched.elements.geometry.value = JSON.stringify(walked.line);
    searched.querySelector('[data-walked-said]').textContent = walked.words;
  });
  document.addEventListener('pocket:kept', ({ detail }) => {
    if (['/survey/patches', '/survey/searches'].includes(detail.to)) Keep.store.setMeta('walked', null);
  });
  main.querySelector('#new form').addEventListener(
    'submit',
    (event) => {
      if (field.value) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      said.textContent = 'Take the position first.';
      said.classList.add('bad-word');
    },
    true,
  );
})();
