// Outside: PROJ's `geod` and `+proj` areas on WGS84 for the same places (test/core/survey/geodesic_test.rb), and the
// length of a degree of the equator, 111 319.49 m.
const { test } = require('node:test');
const assert = require('node:assert/strict');
const { Geodesic } = require('geographiclib-geodesic');
const Measure = require('../../web/assets/js/measure.js');

const scales = {
  length: [
    [1000, 'km', 1000],
    [1, 'm', 0],
  ],
  area: [
    [10000, 'ha', 10000],
    [1, 'm²', 0],
  ],
};
const { said, ring, measured } = Measure(scales, Geodesic.WGS84);
const square = (size) => [
  [0, 0],
  [size, 0],
  [size, size],
  [0, size],
  [0, 0],
];

test('a degree of the equator, a degree square', () => {
  const line = [
    { lng: 0, lat: 0 },
    { lng: 1, lat: 0 },
  ];
  assert.ok(Math.abs(ring(line, false).length - 111319.49) < 0.01);
  const corners = square(1)
    .slice(0, -1)
    .map(([lng, lat]) => ({ lng, lat }));
  assert.ok(Math.abs(ring(corners, true).area - 12308778361.47) < 1); // as Karney's Planimeter has it (recalled)
});

test('words: digits by size, thousands apart, holes taken out, parts together', () => {
  assert.deepEqual(
    [said('length', 12.345), said('length', 1234567), said('area', 999)],
    ['12.3 m', '1\u202F235 km', '999 m²'],
  );
  const [outer, inner] = [square(0.001), square(0.0005)];
  const whole = measured({ type: 'Polygon', coordinates: [outer] });
  const holed = measured({ type: 'Polygon', coordinates: [outer, inner] });
  assert.match(whole, /^1\.23 ha, edge 444 m$/);
  assert.match(holed, /^9\u202F23\d m², edge 666 m$/);
  assert.equal(measured({ type: 'MultiPolygon', coordinates: [[outer], [outer]] }), '2.46 ha, edge 888 m');
  assert.equal(measured({ type: 'LineString', coordinates: outer.slice(0, 3) }), '222 m');
  assert.equal(measured({ type: 'Point', coordinates: [0, 0] }), '');
});

test('typed corners: what is none is named by its line', () => {
  assert.deepEqual(Measure.corners(' 38.01, -91.4\n\n38.02;-91.41 \n').places, [
    [-91.4, 38.01],
    [-91.41, 38.02],
  ]);
  for (const bad of ['38.01', '38 x', '91, 0', '0, 181', '1 2 3'])
    assert.deepEqual(Measure.corners(`0 0\n${bad}`), { wrong: 2, line: bad });
});
