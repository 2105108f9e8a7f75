import { pathBounds, polygonArea } from '@/core/geometry/path';
import { SHAPES, shapePath, valuesOf } from '@/core/shapes/catalogue';

describe.each(SHAPES.map((s) => [s.id, s] as const))('%s', (_, def) => {
  const initial = valuesOf(def, {});
  test('its measures start in range, under ids of their own', () => {
    for (const p of def.params) expect(p.initial >= p.min && p.initial <= p.max).toBe(true);
    expect(new Set(def.params.map((p) => p.id)).size).toBe(def.params.length);
    for (const k of def.knobs) expect(def.params.map((p) => p.id)).toContain(k.param);
  });
  test('it fills its box and stays in it', () => {
    const b = pathBounds(shapePath(def.id, {}, 120, 80));
    expect(b.x0).toBeGreaterThanOrEqual(-1e-9);
    expect(b.y0).toBeGreaterThanOrEqual(-1e-9);
    expect(b.x1).toBeLessThanOrEqual(120 + 1e-9);
    expect(b.y1).toBeLessThanOrEqual(80 + 1e-9);
    expect(b.x1 - b.x0).toBeGreaterThan(100);
    expect(polygonArea(shapePath(def.id, {}, 120, 80), 0.01)).toBeGreaterThan(500);
  });
  test('a knob dragged to where it stands changes nothing', () => {
    for (const knob of def.knobs) {
      const p = knob.at(initial, 120, 80);
      expect(knob.value(p, initial, 120, 80)).toBeCloseTo(initial[knob.param], 6);
    }
  });
  test('absurd measures are kept in range', () => {
    for (const p of def.params)
      for (const v of [-1e9, 1e9, 0]) {
        const value = valuesOf(def, { [p.id]: v })[p.id];
        expect(value >= p.min && value <= p.max).toBe(true);
        expect(shapePath(def.id, { [p.id]: v }, 100, 100).every(Number.isFinite)).toBe(true);
      }
  });
});

test('the areas follow from the formulas', () => {
  // Regular n-gon in a circle of radius r: n/2·r²·sin(2π/n); ring: π(R²−r²) less the circle approximation.
  expect(polygonArea(shapePath('polygon', { sides: 6 }, 200, 200))).toBeCloseTo(3 * 1e4 * Math.sin(Math.PI / 3), 4);
  expect(Math.abs(polygonArea(shapePath('ring', { thickness: 0.5 }, 200, 200)) / (Math.PI * (1e4 - 2500)) - 1)).toBeLessThan(1e-3);
  const rounded = { topLeft: 20, topRight: 20, bottomRight: 20, bottomLeft: 20 };
  expect(Math.abs(polygonArea(shapePath('rectangle', rounded, 200, 100)) - (2e4 - (4 - Math.PI) * 400))).toBeLessThan(1);
});
