// Drawing into a form: form[data-draw] holds a hidden geometry field. The browser measures along geodesics while one
// draws; the server measures again and has the last word. Every step can be undone.
(() => {
  const { Ground } = window;
  const forms = [...document.querySelectorAll('form[data-draw]')];
  if (!Ground || !forms.length || !L.PM) return;
  const { map, place } = Ground;
  const { said, ring, measured } = window.Measure(JSON.parse(place.dataset.scales), geodesic.Geodesic.WGS84);

  const live = place.appendChild(Object.assign(document.createElement('p'), { className: 'map-live', hidden: true }));
  function read(text) {
    live.textContent = text;
    live.hidden = !text;
  }

  // The shape at hand ---------------------------------------------------------------------------------------------
  let form = forms.find((one) => one.closest('details')?.open) || forms[0];
  let drawn = null;
  let mode = 'whole'; // what the next outline is: whole, part or hole
  const pasts = new Map();
  const past = () => {
    if (!pasts.has(form)) pasts.set(form, { done: [form.querySelector('[name=geometry]').value], undone: [] });
    return pasts.get(form);
  };
  const field = () => form.querySelector('[name=geometry]');
  const wrapped = (list) =>
    Array.isArray(list[0]) ? list.map(wrapped) : [L.Util.wrapNum(list[0], [-180, 180], true), list[1]];
  function plain(layer) {
    const { geometry } = layer.toGeoJSON(9);
    return { ...geometry, coordinates: wrapped(geometry.coordinates) };
  }

  function show(text) {
    drawn?.remove();
    drawn = null;
    if (text) {
      drawn = L.geoJSON(JSON.parse(text), { style: { color: '#6A2C7F', weight: 3, fillOpacity: 0.12 } })
        .getLayers()[0]
        .addTo(map);
      drawn.on('pm:edit pm:dragend pm:vertexremoved', () => keep(plain(drawn)));
      drawn.on('pm:markerdrag', () => read(measured(drawn.toGeoJSON(9).geometry)));
      drawn.on('pm:cut', (event) => {
        event.originalLayer.remove();
        if (map.hasLayer(event.layer)) event.layer.remove();
        keep(plain(event.layer));
      });
    }
    read(text ? measured(JSON.parse(text)) : '');
    field().value = text;
  }
  function keep(geometry) {
    const text = geometry ? JSON.stringify(geometry) : '';
    past().done.push(text);
    past().undone = [];
    show(text);
    changed();
  }
  function changed() {
    buttons();
    const box = form.closest('details');
    if (box) box.open = true;
    form.dispatchEvent(new Event('measure'));
  }
  function step(from, to) {
    if (from.length <= (from === past().done ? 1 : 0)) return;
    to.push(from.pop());
    show(past().done.at(-1));
    changed();
  }
  const undo = () => step(past().done, past().undone);
  function redo() {
    const { done, undone } = past();
    if (!undone.length) return;
    done.push(undone.pop());
    show(done.at(-1));
    changed();
  }
  function buttons() {
    const { done, undone } = past();
    form.querySelectorAll('[data-shape]').forEach((button) => {
      const want = button.dataset.shape;
      button.disabled =
        (want === 'undo' && done.length < 2) ||
        (want === 'redo' && !undone.length) ||
        (['part', 'hole', 'edit', 'clear'].includes(want) && !field().value);
    });
  }

  // Parts and holes are joined here, as they are drawn; the server says whether the whole can stand.
  const many = (geometry) => (geometry.type === 'Polygon' ? [geometry.coordinates] : geometry.coordinates);
  function joined(old, added) {
    if (mode === 'whole' || !old || !old.type.endsWith('Polygon') || !added.type.endsWith('Polygon')) return added;
    if (mode === 'part') return { type: 'MultiPolygon', coordinates: [...many(old), ...many(added)] };
    const inside = (spot, outer) =>
      outer.reduce((odd, [x, y], n) => {
        const [u, v] = outer[(n + 1) % outer.length];
        return y > spot[1] !== v > spot[1] && spot[0] < ((u - x) * (spot[1] - y)) / (v - y) + x ? !odd : odd;
      }, false);
    const hole = many(added)[0][0];
    const parts = many(old).map((part) => (inside(hole[0], part[0]) ? [...part, hole] : part));
    return parts.length === 1
      ? { type: 'Polygon', coordinates: parts[0] }
      : { type: 'MultiPolygon', coordinates: parts };
  }

  // Tools ---------------------------------------------------------------------------------------------------------
  const kinds = () => form.dataset.draw.split(' ');
  function tools() {
    map.pm.removeControls();
    map.pm.addControls({
      position: 'topleft',
      drawCircle: false,
      drawCircleMarker: false,
      drawRectangle: false,
      drawText: false,
      rotateMode: false,
      cutPolygon: false,
      dragMode: kinds().includes('Polygon'),
      drawMarker: kinds().includes('Point'),
      drawPolyline: kinds().includes('LineString'),
      drawPolygon: kinds().includes('Polygon'),
    });
    place
      .querySelectorAll('.leaflet-pm-toolbar .button-container')
      .forEach((box) => box.querySelector('.leaflet-buttons-control-button').setAttribute('aria-label', box.title));
  }
  const words = {
    placeMarker: 'Put it here',
    firstVertex: 'Start here',
    continueLine: 'The next corner; the last one ends it',
    finishLine: 'Any corner ends it',
    finishPoly: 'The first corner closes it',
  };
  map.pm.setLang(
    'thistle',
    {
      tooltips: words,
      actions: { finish: 'Done', cancel: 'Leave it', removeLastVertex: 'One corner back' },
      buttonTitles: {
        drawMarkerButton: 'Draw a point',
        drawLineButton: 'Draw a line',
        drawPolyButton: 'Draw an area',
        editButton: 'Move corners',
        dragButton: 'Move the shape',
        deleteButton: 'Rub it out',
      },
    },
    'en',
  );
  map.pm.setGlobalOptions({
    pathOptions: { color: '#6A2C7F', weight: 3, fillOpacity: 0.12 },
    allowSelfIntersection: true,
    snappable: true,
    snapDistance: 14,
  });
  map.on('pm:globaldrawmodetoggled', (event) => {
    place.classList.toggle('drawing', event.enabled);
    if (!event.enabled) read(field().value ? measured(JSON.parse(field().value)) : '');
  });
  map.on('pm:drawstart', ({ workingLayer, shape }) => {
    if (shape === 'Marker' || !workingLayer.getLatLngs) return;
    const follow = (event) => {
      const spots = workingLayer.getLatLngs().flat();
      if (!spots.length) return;
      const all = event?.latlng ? [...spots, event.latlng] : spots;
      const { area, length } = ring(all, shape === 'Polygon');
      const leg = event?.latlng ? ring([spots.at(-1), event.latlng], false).length : 0;
      read(
        shape === 'Polygon'
          ? `${said('area', area)}, edge ${said('length', length)}, this side ${said('length', leg)}`
          : `${said('length', length)}, this leg ${said('length', leg)}`,
      );
    };
    map.on('mousemove', follow);
    map.once('pm:drawend', () => map.off('mousemove', follow));
  });
  map.on('pm:create', ({ layer }) => {
    map.pm.disableDraw();
    layer.remove();
    keep(joined(field().value ? JSON.parse(field().value) : null, plain(layer)));
    mode = 'whole';
  });
  map.on('pm:remove', ({ layer }) => {
    if (layer === drawn) keep(null);
  });

  function begin(one) {
    if (form !== one) {
      drawn?.remove();
      drawn = null;
      form = one;
      tools();
      show(field().value);
    }
    buttons();
  }
  const acts = {
    undo,
    redo,
    clear: () => keep(null),
    edit: () => map.pm.toggleGlobalEditMode(),
    point: () => map.pm.enableDraw('Marker'),
    line: () => map.pm.enableDraw('Line'),
    area: () => map.pm.enableDraw('Polygon'),
    part: () => {
      mode = 'part';
      map.pm.enableDraw('Polygon');
    },
    hole: () => {
      mode = 'hole';
      map.pm.enableDraw('Polygon');
    },
  };
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-shape]');
    if (button) {
      begin(button.closest('form'));
      acts[button.dataset.shape]();
      if (!['undo', 'redo', 'clear'].includes(button.dataset.shape)) place.scrollIntoView({ block: 'nearest' });
    }
    const repair = event.target.closest('[data-repair]');
    if (repair) {
      begin(repair.closest('form'));
      keep(JSON.parse(repair.dataset.repair));
    }
  });
  // Corners typed: the way in for whoever has no pointer, or reads them off a receiver.
  const least = { point: 1, line: 2, area: 3 };
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-typed]');
    if (!button) return;
    begin(button.closest('form'));
    const told = form.querySelector('[data-typed-said]');
    const { places, wrong, line } = window.Measure.corners(form.querySelector('[data-corners]').value);
    const kind = button.dataset.typed;
    told.textContent = '';
    if (wrong) {
      told.textContent = `Line ${wrong} is not a latitude and a longitude: “${line}”.`;
      return;
    }
    if (places.length < least[kind]) {
      const corners = least[kind] === 1 ? 'corner' : 'corners';
      told.textContent = `${button.textContent} needs ${least[kind]} ${corners}; there are ${places.length}.`;
      return;
    }
    keep(
      kind === 'point'
        ? { type: 'Point', coordinates: places[0] }
        : kind === 'line'
          ? { type: 'LineString', coordinates: places }
          : { type: 'Polygon', coordinates: [[...places, places[0]]] },
    );
    map.fitBounds(drawn.getBounds ? drawn.getBounds().pad(0.5) : drawn.getLatLng().toBounds(120), { animate: false });
  });
  document.addEventListener('keydown', (event) => {
    if (event.key === 'Escape' && map.pm.globalDrawModeEnabled()) map.pm.disableDraw();
  });
  document.addEventListener('keydown', (event) => {
    if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || event.target.closest('input, textarea'))
      return;
    event.preventDefault();
    if (map.pm.globalDrawModeEnabled()) map.pm.Draw[map.pm.Draw.getActiveShape()]?._removeLastVertex?.();
    else if (event.shiftKey) redo();
    else undo();
  });
  forms.forEach((one) => {
    one.addEventListener('change', (event) => {
      if (['width', 'radius', 'cover_class'].includes(event.target.name) && one.querySelector('[name=geometry]').value)
        one.dispatchEvent(new Event('measure'));
    });
    one.closest('details')?.addEventListener('toggle', (event) => {
      if (event.target.open) begin(one);
    });
  });
  // On a page about one patch the tools wait until a form is opened.
  const waiting = Ground.focus && form.closest('details')?.open === false;
  forms.forEach((one) => {
    form = one;
    buttons();
  });
  form = forms.find((one) => one.closest('details')?.open && one.querySelector('[name=geometry]').value) || forms[0];
  if (waiting) form = null;
  else {
    tools();
    show(field().value);
  }
})();
