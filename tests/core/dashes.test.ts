import { dashPath } from '@/core/geometry/dash';
import { flatten, type PathData } from '@/core/geometry/path';
import { strokeOutline, type StrokeStyle } from '@/core/geometry/stroke';
import { contoursOf } from '@/core/geometry/segments';
import { areaOf } from '../support/area';

// Closed forms of plane geometry; caps and joins as ISO 32000-1 8.4.3 defines them.

const style = (dash: readonly number[], more: Partial<StrokeStyle> = {}, offset = 0): StrokeStyle => ({
  width: 4,
  cap: 'butt',
  join: 'miter',
  miterLimit: 10,
  dash: { lengths: dash, offset },
  ...more,
});
const area = (path: PathData, s: StrokeStyle) => areaOf({ path: strokeOutline(path, s, 2e-5), rule: 'nonZero' }, 6000);
const LINE_36 = [0, 0, 0, 1, 36, 0];
const SQUARE = [0, 0, 0, 1, 10, 0, 1, 10, 10, 1, 0, 10, 3];

test.each([
  ['butt dashes', LINE_36, style([12, 6]), 24 * 4],
  ['pill and dot', LINE_36, style([12, 12, 0, 12], { cap: 'round' }), 12 * 4 + 2 * Math.PI * 4],
  ['dots', LINE_36, style([0, 9], { cap: 'round' }), 4 * Math.PI * 4],
  ['square dots', LINE_36, style([0, 9], { cap: 'square' }), 4 * 16],
  ['long caps', LINE_36, style([6, 12], { cap: 'square' }), 2 * (6 + 4) * 4],
  ['begun within a gap', LINE_36, style([12, 6], {}, 12), 12 * 4 + 12 * 4],
  ['begun before the first', LINE_36, style([12, 6], {}, -3), 12 * 4 + 12 * 4 + 0],
  // A square of side 10: four dashes bent round its corners, each a mitred right angle of two arms of 3.
  ['round a corner', SQUARE, style([6, 4], { width: 2 }, 3), 4 * 12],
  ['with cut corners', SQUARE, style([6, 4], { width: 2, join: 'bevel' }, 3), 4 * (12 - 0.5)],
  ['with round corners', SQUARE, style([6, 4], { width: 2, join: 'round' }, 3), 4 * (12 - (1 - Math.PI / 4))],
] as const)('%s: the area is that of its closed form', (_, path, s, expected) => {
  expect(Math.abs(area([...path], s) / expected - 1)).toBeLessThan(1e-4);
});

test('on a circle dashes are sectors of its ring', () => {
  const k = 0.5522847498307936;
  const r = 50;
  const circle = [
    0,
    r,
    0,
    2,
    r,
    r * k,
    r * k,
    r,
    0,
    r,
    2,
    -r * k,
    r,
    -r,
    r * k,
    -r,
    0,
    2,
    -r,
    -r * k,
    -r * k,
    -r,
    0,
    -r,
    2,
    r * k,
    -r,
    r,
    -r * k,
    r,
    0,
    3,
  ];
  // The four curves stray from a circle by 2.7e-4 of its radius.
  const round = 2 * Math.PI * r;
  const s = style([round / 24, round / 24]);
  expect(area(circle, s) / ((round * 4) / 2)).toBeCloseTo(1, 3);
});

test('a closed line that begins and ends within a dash has one piece there; one that is all dash stays closed', () => {
  const pieces = (dash: readonly number[], offset = 0) => contoursOf(dashPath(SQUARE, { lengths: dash, offset }));
  expect(pieces([6, 4])).toHaveLength(4);
  expect(pieces([6, 4], 3)).toHaveLength(4);
  expect(pieces([6, 4], 3).every((c) => c.segments.length === 2)).toBe(true);
  const [whole] = pieces([100, 4]);
  expect(whole.closed).toBe(true);
  // Open lines begin and end where they do.
  expect(contoursOf(dashPath([0, 0, 0, 1, 20, 0], { lengths: [6, 4], offset: 3 }))).toHaveLength(3);
});

test('a dot with square caps lies in the direction of its line', () => {
  const diagonal = [0, 0, 0, 1, 10, 10];
  const ring = flatten(strokeOutline(diagonal, style([0, 100], { cap: 'square' }), 1e-5), 1e-5)[0].points;
  const corners = ring.filter((_, i) => i % 2 === 0).map((x) => Math.round(x * 1000) / 1000);
  // A square of 4 on its corner: 2√2 to each side.
  expect(Math.max(...corners)).toBeCloseTo(2 * Math.SQRT2, 2);
});
