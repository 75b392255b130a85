// The ground in Leaflet: base layers, zones, patches by state. Panning asks only for what it has not seen.
(() => {
  const place = document.getElementById('map');
  if (!place) return;
  const [west, south, east, north] = place.dataset.bounds.split(',').map(Number);
  const focus = Number(place.dataset.focus);
  const calm = matchMedia('(prefers-reduced-motion: reduce)').matches || navigator.webdriver;
  const map = L.map(place, {
    attributionControl: false,
    zoomAnimation: !calm,
    fadeAnimation: !calm,
    zoomSnap: 0.25,
    maxZoom: 22,
    worldCopyJump: true,
  });
  map.fitBounds(
    [
      [south, west],
      [north, east],
    ],
    { padding: [8, 8], animate: false },
  );
  L.control
    .scale({ maxWidth: 130, metric: place.dataset.units !== 'us', imperial: place.dataset.units === 'us' })
    .addTo(map);
  ['base', 'zones', 'searched'].forEach((name, n) => {
    map.createPane(name).style.zIndex = 210 + n * 70;
  });

  const get = (path) =>
    fetch(path, { headers: { Accept: 'application/json' } }).then((answer) =>
      answer.ok ? answer.json() : Promise.reject(answer),
    );
  const at = `at=${place.dataset.property}`;

  // Zones -------------------------------------------------------------------------------------------------------
  const zones = {
    boundary: { color: '#1E2A27', weight: 2, dashArray: '9 4 2 4', fillColor: '#EDEFDC', fillOpacity: 0.35 },
    trail: { color: '#1E2A27', weight: 1.6, dashArray: '5 4' },
    access: { color: '#1E2A27', weight: 3, fillColor: '#1E2A27', fillOpacity: 0.9, radius: 4 },
    fence: { color: '#5F6B73', weight: 1.6, dashArray: '1 5' },
    utility: { color: '#5F6B73', weight: 1.4, dashArray: '12 4' },
    water: { color: '#2F6C8C', weight: 3, fillColor: '#A9CBDD', fillOpacity: 0.75, radius: 4 },
    wetland: { color: '#2F6C8C', weight: 1.5, dashArray: '2 4', fillColor: '#A9CBDD', fillOpacity: 0.35 },
    building: { color: '#5F6B73', weight: 1, fillColor: '#CFC6B2', fillOpacity: 1 },
    contour: { color: '#C9B98C', weight: 0.8, fill: false },
    kept: { color: '#7A5400', weight: 1.3, dashArray: '3 4', fill: false },
    disturbance: { color: '#7A5400', weight: 1.5, dashArray: '6 3', fillColor: '#DDA12E', fillOpacity: 0.15 },
    other: { color: '#7A5400', weight: 1.8, fillColor: '#DDA12E', fillOpacity: 0.18, radius: 5 },
  };
  const zoneStyle = (kind) => zones[kind] || zones.other;
  const zoneLayer = L.geoJSON(null, {
    style: (feature) => zoneStyle(feature.properties.kind),
    pane: 'zones',
    interactive: false,
    pmIgnore: true,
    snapIgnore: false,
    pointToLayer: (feature, spot) => L.circleMarker(spot, { pane: 'zones', ...zoneStyle(feature.properties.kind) }),
  }).addTo(map);

  // Base layers, listed beside the map with a box each ------------------------------------------------------------
  const Laid = L.ImageOverlay.extend({
    // a picture on three corners, turned and sheared as they say
    initialize(url, corners, options) {
      this._corners = corners.map(([lon, lat]) => L.latLng(lat, lon));
      L.ImageOverlay.prototype.initialize.call(this, url, L.latLngBounds(this._corners), options);
      this.on('load', this._reset, this);
    },
    _reset() {
      const [nw, ne, sw] = this._corners.map((corner) => this._map.latLngToLayerPoint(corner));
      const { style, naturalWidth: w = 1, naturalHeight: h = 1 } = this._image;
      style.width = `${w}px`;
      style.height = `${h}px`;
      style.transformOrigin = '0 0';
      const turned = [(ne.x - nw.x) / w, (ne.y - nw.y) / w, (sw.x - nw.x) / h, (sw.y - nw.y) / h, nw.x, nw.y];
      style.transform = `matrix(${turned.join(',')})`;
    },
    _animateZoom() {
      this._reset();
    },
  });
  function baseLayer(kind, id, facts) {
    const path = `/survey/layers/${id}`;
    if (kind === 'tiles')
      return L.tileLayer(`${path}/{z}/{x}/{y}`, {
        pane: 'base',
        maxNativeZoom: facts.max,
        minNativeZoom: facts.min,
        maxZoom: 22,
      });
    if (kind === 'picture') return new Laid(`${path}/picture`, facts.corners, { pane: 'base' });
    if (kind === 'outside') return L.tileLayer(facts.url, { pane: 'base', maxZoom: 22 });
    const lines = L.geoJSON(null, {
      style: zones.contour,
      pane: 'base',
      interactive: false,
      pmIgnore: true,
      ...(kind === 'vector' ? { style: { color: '#5F6B73', weight: 1.3, fillOpacity: 0.08 } } : {}),
      pointToLayer: (f, spot) => L.circleMarker(spot, { radius: 3, pane: 'base', color: '#5F6B73' }),
    });
    get(`${path}/lines`).then((data) => lines.addData(data));
    return kind === 'elevation'
      ? L.layerGroup([new Laid(`${path}/shade`, facts.corners, { pane: 'base', opacity: 0.45 }), lines])
      : lines;
  }
  document.querySelectorAll('[data-layer]').forEach((box) => {
    let layer;
    const turn = () => {
      if (!layer) layer = baseLayer(box.dataset.layer, box.value, JSON.parse(box.dataset.facts));
      if (box.checked) layer.addTo(map);
      else layer.remove();
    };
    box.addEventListener('change', turn);
    if (box.checked) turn();
  });

  // A long press, or the right button, asks what happened there.
  map.on('contextmenu', ({ latlng: { lat, lng } }) => {
    if (place.classList.contains('drawing') || place.dataset.outlines) return;
    const asked = new URLSearchParams({ at: place.dataset.property, lat: lat.toFixed(6), lon: lng.toFixed(6) });
    location.href = `/survey/here?${asked}`;
  });

  // Patches -------------------------------------------------------------------------------------------------------
  const hues = {
    reported: '#5F6B73',
    standing: '#A8462A',
    hit: '#8A5F00',
    regrowing: '#A8462A',
    quiet: '#4C6B2F',
    closed: '#4C6B2F',
  };
  const rank = ['standing', 'regrowing', 'reported', 'hit', 'quiet', 'closed'];
  const strokes = {
    // a pattern for each state, so that it reads without colour: lines in a tile of 8 × 8
    reported: [
      [2, 2, 2.1, 2],
      [6, 6, 6.1, 6],
    ],
    standing: [
      [0, 8, 8, 0],
      [-1, 1, 1, -1],
      [7, 9, 9, 7],
    ],
    hit: [
      [0, 8, 8, 0],
      [0, 0, 8, 8],
    ],
    regrowing: [
      [0, 0, 8, 8],
      [-1, 7, 1, 9],
      [7, -1, 9, 1],
    ],
    quiet: [[0, 4, 8, 4]],
    closed: [],
  };
  const tiles = {};
  function pattern(ctx, state) {
    if (!tiles[state]) {
      const tile = Object.assign(document.createElement('canvas'), { width: 8, height: 8 });
      const pen = tile.getContext('2d');
      pen.fillStyle = `${hues[state]}2E`;
      pen.fillRect(0, 0, 8, 8);
      pen.strokeStyle = `${hues[state]}B0`;
      pen.lineWidth = 1.5;
      pen.lineCap = 'round';
      strokes[state].forEach(([x, y, u, v]) => {
        pen.beginPath();
        pen.moveTo(x, y);
        pen.lineTo(u, v);
        pen.stroke();
      });
      tiles[state] = ctx.createPattern(tile, 'repeat');
    }
    return tiles[state];
  }
  const Patterned = L.Canvas.extend({
    _fillStroke(ctx, layer) {
      const { state, weight, dashed } = layer.options;
      if (!state) {
        L.Canvas.prototype._fillStroke.call(this, ctx, layer);
        return;
      }
      if (layer.options.fill !== false) {
        ctx.fillStyle = pattern(ctx, state);
        ctx.fill('evenodd');
      }
      if (ctx.setLineDash) ctx.setLineDash(dashed ? [4, 3] : []);
      ctx.strokeStyle = hues[state];
      ctx.lineWidth = weight;
      ctx.lineJoin = 'round';
      ctx.stroke();
    },
  });
  const renderer = new Patterned({ padding: 0.4 });
  const style = ({ id, properties: { state } }) => ({
    renderer,
    state,
    weight: id === focus ? 3.5 : 2,
    dashed: state === 'reported',
    pmIgnore: true,
    snapIgnore: false,
  });
  const known = new Map(); // id → Leaflet layer
  const pins = L.layerGroup().addTo(map);
  const crowds = L.layerGroup().addTo(map);
  const open = (id) => {
    if (id !== focus && !place.classList.contains('drawing')) location.href = `/survey/patches/${id}`;
  };

  function add(feature) {
    if (known.has(feature.id)) return;
    const layer = L.geoJSON(feature, {
      style,
      pmIgnore: true,
      snapIgnore: false,
      pointToLayer: (f, spot) => L.circle(spot, { radius: f.properties.radius || 2, ...style(f) }),
    }).getLayers()[0];
    layer.feature = feature;
    layer.middle = layer.getLatLng ? layer.getLatLng() : layer.getBounds().getCenter();
    layer.on('click', () => open(feature.id));
    known.set(feature.id, layer.addTo(map));
  }

  const APART = window.innerWidth < 768 ? 46 : 26; // pixels between marks, so that a finger or a thumb finds one
  const PINS = 150; // more marks than this are dots on the canvas
  function mark() {
    pins.clearLayers();
    const view = map.getBounds();
    const seen = [...known.values()].filter((layer) => view.contains(layer.middle));
    if (seen.length > PINS) return;
    const order = ({ feature: { id, properties } }) => (id === focus ? -1 : rank.indexOf(properties.state));
    const places = [];
    seen
      .sort((a, b) => order(a) - order(b))
      .forEach((layer) => {
        const spot = map.latLngToContainerPoint(layer.middle);
        const near = layer.feature.id !== focus && places.find((one) => one.spot.distanceTo(spot) < APART);
        if (near) near.others.push(layer.feature.properties.code);
        else places.push({ feature: layer.feature, middle: layer.middle, spot, others: [] });
      });
    const taken = places.map(({ spot }) => [spot.x - 13, spot.y - 13, spot.x + 13, spot.y + 13]);
    places.forEach((one) => pin(one, taken));
  }
  // A mark, and its code where that does not run into another mark or code. Marks too near for a thumb share one, which
  // opens up.
  function pin({ feature, middle, spot, others }, taken) {
    const code = feature.properties.code + (others.length ? ` +${others.length}` : '');
    const shared = others.length && map.getZoom() < map.getMaxZoom();
    const go = () => (shared ? map.setView(middle, Math.min(map.getZoom() + 2, map.getMaxZoom())) : open(feature.id));
    const meets = (a, b) => a[0] < b[2] && a[2] > b[0] && a[1] < b[3] && a[3] > b[1];
    const label = [spot.x + 13, spot.y - 9, spot.x + 20 + code.length * 8.4, spot.y + 9];
    const said = feature.id === focus || !taken.some((box) => meets(box, label));
    if (said) taken.push(label);
    const icon = L.divIcon({ className: 'patch-pin', iconSize: null, iconAnchor: [11, 11] });
    icon.createIcon = () => {
      const box = Object.assign(document.createElement('div'), { className: 'leaflet-marker-icon patch-pin' });
      box.innerHTML = `<svg aria-hidden="true"><use href="/img/marks.svg#${feature.properties.state}"></use></svg>`;
      box.append(Object.assign(document.createElement('span'), { textContent: said ? code : '' }));
      icon._setIconStyles(box, 'icon');
      return box;
    };
    L.marker(middle, {
      icon,
      pmIgnore: true,
      snapIgnore: true,
      alt: `${code}, ${feature.properties.state}`,
      title: [feature.properties.code, ...others].join(', '),
      keyboard: true,
    })
      .on('click keypress', go)
      .addTo(pins);
  }
  function crowd({ lon, lat, patches, standing }) {
    const size = Math.min(46, 18 + Math.log2(patches) * 3);
    const icon = L.divIcon({
      className: `crowd${standing ? ' standing' : ''}`,
      iconSize: [size, size],
      html: `${patches}`,
    });
    L.marker([lat, lon], {
      icon,
      pmIgnore: true,
      snapIgnore: true,
      alt: `${patches} patches`,
      title: `${patches} patches, ${standing} standing or regrowing`,
    })
      .on('click keypress', () => map.setView([lat, lon], map.getZoom() + 2))
      .addTo(crowds);
  }

  // What is in view and not yet here. `seen` is the box that has been answered in full.
  let seen = null;
  let asked = 0;
  function look() {
    const box = map.getBounds().pad(0.25);
    const bbox = [box.getWest(), box.getSouth(), box.getEast(), box.getNorth()];
    const number = ++asked;
    tell(map.getBounds());
    if (seen && seen.contains(map.getBounds())) {
      mark();
      return;
    }
    const had = seen && [seen.getWest(), seen.getSouth(), seen.getEast(), seen.getNorth()].join(',');
    get(`/survey/features?${at}&bbox=${bbox.join(',')}${had ? `&seen=${had}` : ''}`).then((data) => {
      if (number !== asked) return;
      crowds.clearLayers();
      if (data.crowds) {
        known.forEach((layer) => layer.remove());
        known.clear();
        pins.clearLayers();
        seen = null;
        data.crowds.forEach(crowd);
      } else {
        if (known.size > 4000) {
          known.forEach((layer, id) => {
            if (!box.contains(layer.middle)) {
              layer.remove();
              known.delete(id);
            }
          });
        }
        data.features.forEach(add);
        seen = box;
        mark();
      }
      place.dataset.ready = data.crowds ? 'crowds' : known.size;
    });
  }
  // The list beside the map follows it.
  function tell(bounds) {
    const field = document.getElementById('in-view');
    if (!field) return;
    field.value = bounds.toBBoxString();
    document.body.dispatchEvent(new Event('moved'));
  }

  // Anything else a page wants drawn: [{ geometry, style, label }] under data-extra, or asked for by address.
  const looks = {
    past: { color: '#5F6B73', weight: 1.5, dashArray: '2 5', fill: false },
    ours: { color: '#6A2C7F', weight: 3, fillOpacity: 0.12 },
    fresh: { color: '#3F5A26', weight: 0, fillColor: '#4C6B2F', fillOpacity: 0.34 },
    year: { color: '#3F5A26', weight: 0, fillColor: '#93B26A', fillOpacity: 0.34 },
    old: { color: '#3F5A26', weight: 0, fillColor: '#D9D1BD', fillOpacity: 0.55 },
    walked: { color: '#3F5A26', weight: 1.3, dashArray: '2 4', fill: false },
    route: { color: '#6A2C7F', weight: 3, dashArray: '1 7', fill: false },
  };
  function extra(item, pane = 'searched') {
    const layer = L.geoJSON(item.geometry, {
      style: looks[item.style],
      pane,
      interactive: false,
      pmIgnore: true,
      snapIgnore: true,
      pointToLayer: (f, spot) => L.circleMarker(spot, { ...looks[item.style], pane, radius: 4, interactive: false }),
    }).addTo(map);
    if (item.label)
      L.marker(layer.getBounds().getCenter(), {
        icon: L.divIcon({ className: 'stop-pin', iconSize: [26, 26], html: item.label }),
        interactive: false,
        keyboard: false,
        pmIgnore: true,
        snapIgnore: true,
      }).addTo(map);
    return layer;
  }
  const inline = document.getElementById('extra');
  if (inline) JSON.parse(inline.textContent).forEach((item) => extra(item));

  window.Ground = { map, place, get, extra, looks, known, focus };
  if (place.dataset.outlines) return; // no property is at hand yet: borders.js draws those of countries
  get(`/survey/ground?${at}`).then((data) => {
    zoneLayer.addData(data);
    look();
    map.on('moveend', look);
  });
})();
