// Lengths and areas along geodesics while one draws; the server measures again and has the last word.
(() => {
  // scales: { length: [[metres, unit, from]], area: [[square metres, unit, from]] }, the largest first; model: an
  // ellipsoid of geographiclib.
  const Measure = (scales, model) => {
    // "1.23 ha", with two digits behind the point for small numbers.
    const said = (kind, value) => {
      const [size, unit] = scales[kind].find(([, , from]) => value >= from);
      const digits = value / size >= 100 ? 0 : value / size >= 10 ? 1 : 2;
      const number = (value / size).toLocaleString('en', { maximumFractionDigits: digits });
      return `${number.replaceAll(',', '\u202F')} ${unit}`;
    };

    // Square metres and metres of spots ({ lat, lng }), as a ring or as a line.
    const ring = (spots, closed) => {
      const polygon = model.Polygon(!closed);
      spots.forEach((spot) => polygon.AddPoint(spot.lat, spot.lng));
      const { area, perimeter } = polygon.Compute(false, true);
      return { area: Math.abs(area || 0), length: perimeter };
    };

    const sum = (list) => list.reduce((all, one) => all + one, 0);
    const spots = (list) => list.map(([lng, lat]) => ({ lng, lat }));

    // What a GeoJSON geometry measures, in words; nothing for points.
    const measured = ({ type, coordinates }) => {
      const parts = type.startsWith('Multi') ? coordinates : [coordinates];
      if (type.endsWith('Point')) return '';
      if (type.endsWith('LineString')) return said('length', sum(parts.map((line) => ring(spots(line), false).length)));
      const rings = parts.flatMap((part) =>
        part.map((one, n) => ({ ...ring(spots(one.slice(0, -1)), true), sign: n ? -1 : 1 })),
      );
      const area = Math.max(0, sum(rings.map((one) => one.sign * one.area)));
      return `${said('area', area)}, edge ${said('length', sum(rings.map((one) => one.length)))}`;
    };

    return { said, ring, measured };
  };

  // Typed corners, a line each: { places: [[longitude, latitude]] }, or { wrong: the line's number, line }.
  Measure.corners = (text) => {
    const lines = text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean);
    const pairs = lines.map((line) => line.split(/[\s,;]+/).map(Number));
    const wrong = pairs.findIndex(
      (pair) => pair.length !== 2 || !pair.every(Number.isFinite) || Math.abs(pair[0]) > 90 || Math.abs(pair[1]) > 180,
    );
    return wrong < 0 ? { places: pairs.map(([lat, lon]) => [lon, lat]) } : { wrong: wrong + 1, line: lines[wrong] };
  };

  if (typeof module === 'object') module.exports = Measure;
  else window.Measure = Measure;
})();
