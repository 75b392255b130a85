// A walk with the phone's own position. Fixes are kept on the phone until the server has them, so that a dead
// battery or a lost signal costs nothing. Without signal the walked ground becomes a patch as it is.
(() => {
  const form = document.getElementById('walk-form');
  if (!form || !window.Ground) return;
  const { map } = window.Ground;
  const key = `walk-${form.dataset.property}`;
  const field = form.querySelector('[name=fixes]');
  const say = document.getElementById('walk-said');
  const [start, finish, drop] = ['start', 'finish', 'drop'].map((name) => form.querySelector(`[data-walk=${name}]`));
  const fixes = [];
  const keep = () => Keep.store.setMeta(key, fixes);
  const line = L.polyline([], { color: '#6A2C7F', weight: 3, interactive: false, pmIgnore: true }).addTo(map);
  const here = L.circleMarker([0, 0], {
    radius: 7,
    color: '#FFFDF7',
    weight: 2,
    fillColor: '#6A2C7F',
    fillOpacity: 1,
    interactive: false,
    pmIgnore: true,
  });
  let watch = null;
  let awake = null;

  function count(position) {
    const { longitude: lon, latitude: lat, accuracy } = position.coords;
    fixes.push({ lon, lat, time: position.timestamp / 1000, accuracy_m: accuracy });
    keep();
    line.addLatLng([lat, lon]);
    here.setLatLng([lat, lon]).addTo(map);
    map.panInside([lat, lon], { padding: [60, 60], animate: false });
    tell(accuracy);
  }
  function tell(accuracy) {
    if (!fixes.length) {
      say.textContent = 'Not started. Stand at the edge, start, and walk round with the phone held still before you.';
      return;
    }
    const metres = line
      .getLatLngs()
      .slice(1)
      .reduce((sum, spot, n) => sum + map.distance(line.getLatLngs()[n], spot), 0);
    const from = map.distance(line.getLatLngs()[0], line.getLatLngs().at(-1));
    const known = accuracy ? `, known to ±${Math.round(accuracy)} m` : '';
    const poor = accuracy > 20 ? ': too poor to use, wait for better' : '';
    const walked = `${fixes.length} fixes, ${Math.round(metres)} m walked, ${Math.round(from)} m from the start`;
    say.textContent = `${walked}${known}${poor}.`;
    finish.disabled = fixes.length < 2;
    drop.disabled = false;
  }
  const why = {
    1: 'The browser may not use the position. Allow it for this site, then start again.',
    2: 'No position yet: stand in the open.',
    3: 'No position for a minute: stand in the open.',
  };
  function pause() {
    navigator.geolocation.clearWatch(watch);
    watch = null;
    awake?.release?.();
    start.querySelector('span').textContent = 'Walk on';
  }
  start.addEventListener('click', () => {
    if (watch !== null) {
      pause();
      return;
    }
    if (!navigator.geolocation) {
      say.textContent = 'This browser has no position. Load a track from a GPS receiver instead.';
      return;
    }
    watch = navigator.geolocation.watchPosition(
      count,
      (fault) => {
        say.textContent = why[fault.code];
      },
      { enableHighAccuracy: true, maximumAge: 0, timeout: 60000 },
    );
    if (form.querySelector('[data-walk=awake]')?.checked)
      navigator.wakeLock?.request('screen').then(
        (lock) => {
          awake = lock;
        },
        () => {},
      );
    start.querySelector('span').textContent = 'Pause';
  });
  finish.addEventListener('click', () => {
    if (watch !== null) pause();
    field.value = JSON.stringify(fixes);
  });
  // Without signal nobody smooths the walk: what was walked is taken as it is, its worst fixes left out, to the page of
  // records that can be made anywhere.
  const WORST = 20; // m
  const asWalked = () => {
    const good = fixes.filter((fix) => fix.accuracy_m <= WORST).map(({ lon, lat }) => [lon, lat]);
    const ends = [good[0], good.at(-1)].map(([lon, lat]) => L.latLng(lat, lon));
    const error = fixes.reduce((sum, fix) => sum + fix.accuracy_m, 0) / fixes.length;
    const closed = good.length > 3 && map.distance(...ends) < Math.max(15, 3 * error);
    const outline = { type: 'LineString', coordinates: good };
    const shape = closed ? { type: 'Polygon', coordinates: [[...good, good[0]]] } : outline;
    const words = `${closed ? 'An area' : 'A line'} of ${good.length} fixes, each known to about ±${Math.round(error)} m.`;
    return { shape, line: outline, words };
  };
  form.addEventListener('submit', async (event) => {
    if (event.submitter !== finish || form.dataset.heard) return;
    event.preventDefault();
    const signal = new AbortController();
    setTimeout(() => signal.abort(), 5000);
    const heard = await Pocket.ask('/pocket/standing.json', { signal: signal.signal }).catch(() => null);
    form.dataset.heard = 'yes';
    if (heard?.ok) {
      form.submit();
      return;
    }
    await Keep.store.setMeta('walked', asWalked());
    location.assign('/pocket/record?kind=new');
  });
  drop.addEventListener('click', () => {
    if (watch !== null) pause();
    fixes.length = 0;
    keep();
    line.setLatLngs([]);
    here.remove();
    drop.disabled = true;
    finish.disabled = true;
    start.querySelector('span').textContent = 'Start walking';
    tell();
  });
  // The server has them now; else those of a walk that was broken off go on.
  if (document.getElementById('walked')?.dataset.from === 'phone') Keep.store.setMeta(key, []);
  else
    Keep.store.meta(key).then((known = []) => {
      fixes.push(...known);
      line.setLatLngs(fixes.map((fix) => [fix.lat, fix.lon]));
      tell();
    });
  tell();
})();
