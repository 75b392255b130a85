// The ground in Leaflet: zones, patches, and drawing one new patch. No tiles.
(() => {
  const place = document.getElementById('map');
  if (!place) return;
  const [west, south, east, north] = place.dataset.bounds.split(',').map(Number);
  const focus = Number(place.dataset.focus);
  const hues = { reported: '#5F6B73', standing: '#A8462A', hit: '#8A5F00', regrowing: '#A8462A', quiet: '#4C6B2F', closed: '#4C6B2F' };
  const zones = {
    boundary: { color: '#1E2A27', weight: 2, dashArray: '9 4 2 4', fillColor: '#EDEFDC', fillOpacity: 0.6 },
    trail: { color: '#1E2A27', weight: 1.6, dashArray: '5 4' },
    water: { color: '#2F6C8C', weight: 3, fillColor: '#A9CBDD', fillOpacity: 0.75 },
    contour: { color: '#D8C9A2', weight: 1 },
    building: { color: '#5F6B73', weight: 1, fillColor: '#CFC6B2', fillOpacity: 1 },
  };
  const calm = matchMedia('(prefers-reduced-motion: reduce)').matches || navigator.webdriver;
  const map = L.map(place, { attributionControl: false, zoomAnimation: !calm, fadeAnimation: !calm, zoomSnap: 0.25, maxZoom: 21 });
  map.fitBounds([[south, west], [north, east]], { padding: [8, 8], animate: false });
  L.control.scale({ maxWidth: 130 }).addTo(map);

  map.createPane('zones').style.zIndex = 350;

  const get = (path) => fetch(path, { headers: { Accept: 'application/json' } }).then((answer) => answer.json());
  const at = `at=${place.dataset.property}`;
  const patches = L.geoJSON(null, {
    style: (feature) => ({ color: hues[feature.properties.state], weight: feature.id === focus ? 3.5 : 2, fillOpacity: 0.25, dashArray: feature.properties.state === 'reported' ? '4 3' : null }),
    pointToLayer: (feature, position) => L.circleMarker(position, { radius: 5, color: hues[feature.properties.state] }),
    pmIgnore: true,
  }).addTo(map);
  const pins = L.layerGroup().addTo(map);

  function pin(feature, layer) {
    const middle = layer.getBounds ? layer.getBounds().getCenter() : layer.getLatLng();
    const icon = L.divIcon({ className: 'patch-pin', iconSize: null, iconAnchor: [11, 11] });
    icon.createIcon = () => {
      const box = document.createElement('div');
      box.className = 'leaflet-marker-icon patch-pin';
      box.innerHTML = `<svg aria-hidden="true"><use href="/img/marks.svg#${feature.properties.state}"></use></svg>`;
      box.append(Object.assign(document.createElement('span'), { textContent: map.getZoom() > 15 || feature.id === focus ? feature.properties.code : '' }));
      icon._setIconStyles(box, 'icon');
      return box;
    };
    L.marker(middle, { icon, pmIgnore: true, alt: `${feature.properties.code}, ${feature.properties.state}`, title: feature.properties.code, keyboard: true })
      .on('click keypress', () => { if (feature.id !== focus) location.href = `/survey/patches/${feature.id}`; }).addTo(pins);
  }

  function look() {
    const box = map.getBounds().pad(0.2);
    get(`/survey/features?${at}&bbox=${[box.getWest(), box.getSouth(), box.getEast(), box.getNorth()].join(',')}`).then((data) => {
      patches.clearLayers(); pins.clearLayers();
      patches.addData(data);
      patches.eachLayer((layer) => pin(layer.feature, layer));
      place.dataset.ready = data.features.length;
    });
  }
  get(`/survey/ground?${at}`).then((data) => {
    L.geoJSON(data, { style: (feature) => zones[feature.properties.kind], interactive: false, pmIgnore: true, pane: 'zones' }).addTo(map);
    look();
    map.on('moveend', look);
  });

  // Drawing: one shape at a time, kept in the form's hidden field; the server measures it.
  const field = document.getElementById('geometry');
  if (!field || !L.PM) return;
  let drawn = null;
  const tell = () => { document.body.dispatchEvent(new Event('measure')); };
  function keep(layer, measure = true) {
    if (drawn && drawn !== layer) drawn.remove();
    drawn = layer;
    field.value = JSON.stringify(layer.toGeoJSON(9).geometry);
    document.getElementById('patch-form').open = true;
    layer.on('pm:edit pm:dragend', () => { field.value = JSON.stringify(layer.toGeoJSON(9).geometry); tell(); });
    if (measure) tell();
  }
  function show(geometry) {
    const layer = L.geoJSON(geometry, { style: { color: '#6A2C7F', weight: 3 } }).getLayers()[0];
    layer.addTo(map);
    return layer;
  }
  const tools = { position: 'topleft', drawCircle: false, drawCircleMarker: false, drawRectangle: false, drawText: false, cutPolygon: false, rotateMode: false, dragMode: false };
  function addTools() {
    map.pm.addControls(tools);
    place.querySelectorAll('.leaflet-pm-toolbar .button-container').forEach((box) => {
      box.querySelector('.leaflet-buttons-control-button').setAttribute('aria-label', box.title);
    });
  }
  if (!focus) addTools();
  // While a shape is being drawn, the patches under the pointer are ground, not links.
  map.on('pm:globaldrawmodetoggled', (event) => place.classList.toggle('drawing', event.enabled));
  map.pm.setGlobalOptions({ pathOptions: { color: '#6A2C7F', weight: 3 }, allowSelfIntersection: true, snappable: true });
  map.on('pm:create', (event) => { map.pm.disableDraw(); keep(event.layer); });
  map.on('pm:remove', () => { field.value = ''; drawn = null; tell(); });
  if (field.value && !focus) keep(show(JSON.parse(field.value)), false);
  document.addEventListener('click', (event) => {
    const repair = event.target.closest('[data-repair]');
    if (repair) keep(show(JSON.parse(repair.dataset.repair)));
  });
  document.getElementById('patch-form')?.addEventListener('change', (event) => {
    if (['width', 'radius', 'cover_class'].includes(event.target.name) && field.value) tell();
  });
  if (focus) document.getElementById('patch-form').addEventListener('toggle', () => {
    addTools();
    keep(show(JSON.parse(field.value)), false);
  }, { once: true });
})();
