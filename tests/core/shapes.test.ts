import { pathBounds, polygonArea } from '@/core/geometry/path';
import { pointOn } from '@/core/geometry/measure';
import { contoursOf } from '@/core/geometry/segments';
import { FAMILIES, findShapes, SHAPES, shapePath, valuesOf } from '@/core/shapes/catalogue';

describe.each(SHAPES.map((s) => [s.id, s] as const))('%s', (_, def) => {
  const initial = valuesOf(def, {});
  test('its measures start in range, under ids of their own', () => {
    for (const p of def.params) expect(p.initial >= p.min && p.initial <= p.max).toBe(true);
    expect(new Set(def.params.map((p) => p.id)).size).toBe(def.params.length);
    for (const k of def.knobs) expect(def.params.map((p) => p.id)).toContain(k.param);
  });
  test('it fills much of its box and stays in it, whatever its measures', () => {
    const h = 120 * (def.proportion ?? 0.8);
    const box = (v: Record<string, number>) => pathBounds(shapePath(def.id, v, 120, h));
    const extremes = def.params.flatMap((p) => [{ [p.id]: p.min }, { [p.id]: p.max }]);
    for (const v of [{}, ...extremes]) {
      const b = box(v);
      // Curves fitted by hand may stand out by a hundredth.
      expect([b.x0 > -1.3, b.y0 > -h / 90, b.x1 < 121.3, b.y1 < h + h / 90, JSON.stringify(v)]).toEqual([
        true,
        true,
        true,
        true,
        JSON.stringify(v),
      ]);
    }
    const b = box({});
    expect(Math.min((b.x1 - b.x0) / 120, (b.y1 - b.y0) / h)).toBeGreaterThan(0.45);
    if (!def.open) expect(Math.abs(polygonArea(shapePath(def.id, {}, 120, h), 0.01))).toBeGreaterThan(500);
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
  expect(
    Math.abs(polygonArea(shapePath('ring', { thickness: 0.5 }, 200, 200)) / (Math.PI * (1e4 - 2500)) - 1),
  ).toBeLessThan(1e-3);
  const rounded = { topLeft: 20, topRight: 20, bottomRight: 20, bottomLeft: 20 };
  expect(Math.abs(polygonArea(shapePath('rectangle', rounded, 200, 100)) - (2e4 - (4 - Math.PI) * 400))).toBeLessThan(
    1,
  );
});

test('there are more than forty, in all families, each with knobs or none to need; a search finds them by everyday words', () => {
  expect(SHAPES.length).toBeGreaterThan(40);
  expect(new Set(SHAPES.map((s) => s.id)).size).toBe(SHAPES.length);
  for (const family of FAMILIES) expect(SHAPES.filter((s) => s.family === family).length).toBeGreaterThanOrEqual(4);
  for (const s of SHAPES) expect(s.knobs.length > 0 || s.params.length === 0).toBe(true);
  expect(SHAPES.filter((s) => !s.knobs.length).map((s) => s.id)).toEqual(['ellipse']);
  expect(findShapes('moon').map((s) => s.id)).toContain('crescent');
  expect(findShapes('Lantern')[0].id).toBe('flame');
  expect(findShapes('postage').map((s) => s.id)).toEqual(['stamp']);
  expect(findShapes('no such thing')).toEqual([]);
  expect(findShapes('')).toHaveLength(SHAPES.length);
});

test('closed forms: a barrel without a belly is a box, a full wedge an ellipse, a ripple close to a sine', () => {
  expect(polygonArea(shapePath('barrel', { belly: 0 }, 100, 60))).toBeCloseTo(6000, 6);
  expect(Math.abs(polygonArea(shapePath('wedge', { sweep: 360 }, 100, 60)) / (Math.PI * 50 * 30) - 1)).toBeLessThan(
    1e-3,
  );
  // A quarter of a disc.
  expect(Math.abs(polygonArea(shapePath('wedge', { sweep: 90 }, 100, 100)) / ((Math.PI * 2500) / 4) - 1)).toBeLessThan(
    1e-3,
  );
  const c = contoursOf(shapePath('ripple', { waves: 1 }, 200, 20))[0];
  for (const s of c.segments)
    for (const t of [0.2, 0.5, 0.8])
      expect(Math.abs(pointOn(s, t).y - (10 - 10 * Math.cos((pointOn(s, t).x / 200) * 2 * Math.PI)))).toBeLessThan(
        0.15,
      );
});
