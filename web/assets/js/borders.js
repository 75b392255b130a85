// Borders of countries and states on the map of a new property: TopoJSON, whose arcs are steps from corner to corner.
(() => {
  const { map, place, get } = window.Ground || {};
  if (!place?.dataset.outlines) return;

  function borders(address) {
    get(address).then(({ arcs, transform: { scale, translate } }) => {
      const lines = arcs.flatMap((arc) => {
        let [x, y] = [0, 0];
        const pieces = [[]]; // one more wherever it steps over the date line
        arc.forEach(([dx, dy]) => {
          x += dx;
          y += dy;
          const corner = [y * scale[1] + translate[1], x * scale[0] + translate[0]];
          const last = pieces.at(-1).at(-1);
          if (last && Math.abs(corner[1] - last[1]) > 180) pieces.push([]);
          pieces.at(-1).push(corner);
        });
        return pieces;
      });
      L.polyline(lines, { color: '#5F6B73', weight: 1, pane: 'base', interactive: false, pmIgnore: true }).addTo(map);
      place.dataset.ready = 'borders';
    });
  }

  place.dataset.outlines.split(' ').forEach(borders);
})();
