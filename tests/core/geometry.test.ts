import { Bezier } from 'bezier-js';
import { distanceToPath, pathContains } from '@/core/geometry/contains';
import {
  IDENTITY,
  angleOf,
  apply,
  invert,
  multiply,
  rotation,
  scaling,
  translation,
  type Matrix,
} from '@/core/geometry/matrix';
import {
  CUBIC,
  LINE,
  MOVE,
  PathBuilder,
  addEllipse,
  flatten,
  pathBounds,
  polygonArea,
  transformPath,
} from '@/core/geometry/path';
import { pageSnapLines, snapBox } from '@/core/geometry/snap';
import { columnEdges } from '@/core/geometry/pageLines';
import { strokeOutline, type StrokeStyle } from '@/core/geometry/stroke';
import fc from '../support/seeded';

const number = fc.double({ min: -1000, max: 1000, noNaN: true });
const matrix = fc
  .tuple(number, number, number, number, number, number)
  .filter((m) => Math.abs(m[0] * m[3] - m[1] * m[2]) > 1)
  .map((m) => m as Matrix);

describe('matrices', () => {
  test('a map and its inverse are nothing at all', () => {
    fc.assert(
      fc.property(matrix, (m) => {
        const id = multiply(m, invert(m)!);
        // Relative to how much the map and its inverse stretch.
        const scale = Math.max(...m.map(Math.abs)) * Math.max(...invert(m)!.map(Math.abs), 1);
        id.forEach((v, i) => expect(Math.abs(v - IDENTITY[i])).toBeLessThan(1e-12 * scale + 1e-9));
      }),
    );
  });
  test('a map without area has no inverse', () => expect(invert([1, 2, 2, 4, 0, 0])).toBeNull());

  // 360/n closes a circle (common practice).
  test('18° twenty times is a full turn to 1e-9, and so is 360/n', () => {
    for (const n of [20, 7, 24, 13, 360]) {
      let m: Matrix = IDENTITY;
      for (let i = 0; i < n; i++) m = multiply(rotation(360 / n, { x: 123, y: -45 }), m);
      m.forEach((v, i) => expect(Math.abs(v - IDENTITY[i])).toBeLessThan(1e-9));
    }
  });
  test('a quarter turn is exact and clockwise as seen', () => {
    expect(apply(rotation(90), { x: 1, y: 0 })).toEqual({ x: 0, y: 1 });
    expect(angleOf(rotation(30))).toBeCloseTo(30, 12);
    expect(apply(multiply(translation(5, 0), scaling(2, 3)), { x: 1, y: 1 })).toEqual({ x: 7, y: 3 });
  });
});

describe('paths', () => {
  test('bounds of a cubic agree with bezier-js', () => {
    fc.assert(
      // Whole numbers: on all but straight curves the second witness loses digits that ours keeps.
      fc.property(fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 8, maxLength: 8 }), (p) => {
        const b = pathBounds([MOVE, p[0], p[1], CUBIC, p[2], p[3], p[4], p[5], p[6], p[7]]);
        const other = new Bezier(p[0], p[1], p[2], p[3], p[4], p[5], p[6], p[7]).bbox();
        expect(b.x0).toBeCloseTo(other.x.min, 5);
        expect(b.x1).toBeCloseTo(other.x.max, 5);
        expect(b.y0).toBeCloseTo(other.y.min, 5);
        expect(b.y1).toBeCloseTo(other.y.max, 5);
      }),
    );
  });
  test('flattening keeps its promise against the curve itself', () => {
    const p = [0, 0, 40, 90, 120, -60, 200, 30] as const;
    const curve = new Bezier(...p);
    for (const tolerance of [1, 0.1, 0.01]) {
      const path = [MOVE, p[0], p[1], CUBIC, p[2], p[3], p[4], p[5], p[6], p[7]];
      const line = flatten(path, tolerance)[0].points;
      const chords = [
        MOVE,
        line[0],
        line[1],
        ...line.slice(2).flatMap((_, i) => (i % 2 ? [] : [LINE, line[i + 2], line[i + 3]])),
      ];
      for (let t = 0; t <= 1; t += 0.01) expect(distanceToPath(chords, curve.get(t))).toBeLessThanOrEqual(tolerance);
    }
  });
  test('four arcs make a circle to 5e-4 of its area, however it is turned', () => {
    const sink = new PathBuilder();
    addEllipse(sink, 0, 0, 100, 100);
    expect(Math.abs(polygonArea(sink.data) / (Math.PI * 1e4) - 1)).toBeLessThan(6e-4);
    expect(polygonArea(transformPath(sink.data, rotation(33)))).toBeCloseTo(polygonArea(sink.data), 0);
  });
  test('inside and outside by both rules', () => {
    const square = (a: number, b: number) => [MOVE, a, a, LINE, b, a, LINE, b, b, LINE, a, b, 3];
    const both = [...square(0, 10), ...square(2, 8)];
    expect(pathContains(both, 'nonZero', { x: 5, y: 5 })).toBe(true);
    expect(pathContains(both, 'evenOdd', { x: 5, y: 5 })).toBe(false);
    expect(pathContains(both, 'evenOdd', { x: 1, y: 5 })).toBe(true);
    expect(pathContains(both, 'nonZero', { x: 11, y: 5 })).toBe(false);
  });
});

describe('strokes, by exact areas', () => {
  const style = (s: Partial<StrokeStyle>): StrokeStyle => ({
    width: 10,
    cap: 'butt',
    join: 'miter',
    miterLimit: 10,
    ...s,
  });
  const line = [MOVE, 0, 0, LINE, 100, 0];
  const area = (path: number[], s: StrokeStyle) => coveredArea(strokeOutline(path, s, 0.001) as number[]);
  test('caps: flat, round, long', () => {
    expect(area(line, style({}))).toBeCloseTo(1000, 6);
    expect(area(line, style({ cap: 'square' }))).toBeCloseTo(1100, 6);
    expect(Math.abs(area(line, style({ cap: 'round' })) / (1000 + Math.PI * 25) - 1)).toBeLessThan(1e-4);
  });
  test('corners of a right angle: pointed, cut, round', () => {
    const corner = [MOVE, 0, 0, LINE, 100, 0, LINE, 100, 100];
    expect(area(corner, style({}))).toBeCloseTo(2000, 4);
    expect(area(corner, style({ join: 'bevel' }))).toBeCloseTo(2000 - 12.5, 4);
    expect(Math.abs(area(corner, style({ join: 'round' })) - (2000 - 25 + (Math.PI * 25) / 4))).toBeLessThan(0.05);
    // 1/sin(45°) ≈ 1.414: a miter limit below it cuts the corner (PDF 32000-1 8.4.3.5).
    expect(area(corner, style({ miterLimit: 1.4 }))).toBeCloseTo(2000 - 12.5, 4);
  });
  test('a closed square is a ring', () =>
    expect(area([MOVE, 0, 0, LINE, 100, 0, LINE, 100, 100, LINE, 0, 100, 3], style({}))).toBeCloseTo(
      110 * 110 - 90 * 90,
      4,
    ));
  test('a point is a dot with round or long caps and nothing with flat ones', () => {
    const point = [MOVE, 5, 5, LINE, 5, 5];
    expect(Math.abs(area(point, style({ cap: 'round' })) / (Math.PI * 25) - 1)).toBeLessThan(1e-3);
    expect(area(point, style({ cap: 'square' }))).toBeCloseTo(100, 6);
    expect(strokeOutline(point, style({}), 0.01)).toEqual([]);
  });
});

/** Area under the non-zero rule, band by band: independent of the rasteriser. */
function coveredArea(path: readonly number[]): number {
  const lines = flatten(path, 1e-3);
  const ys = lines.flatMap((l) => l.points.filter((_, i) => i % 2));
  // Between two heights at which a corner lies the width changes evenly: the middle says it all, but for crossings.
  const levels = [...new Set(ys)].sort((a, b) => a - b);
  let sum = 0;
  for (let band = 0; band + 1 < levels.length; band++)
    for (let k = 0; k < 8; k++) {
      const step = (levels[band + 1] - levels[band]) / 8;
      const y = levels[band] + (k + 0.5) * step;
      const cuts: { x: number; w: number }[] = [];
      for (const { points } of lines)
        for (let i = 0; i < points.length; i += 2) {
          const j = (i + 2) % points.length;
          const [y0, y1] = [points[i + 1], points[j + 1]];
          if (y0 <= y === y1 <= y) continue;
          cuts.push({ x: points[i] + ((y - y0) / (y1 - y0)) * (points[j] - points[i]), w: y1 > y0 ? 1 : -1 });
        }
      cuts.sort((a, b) => a.x - b.x);
      let w = 0;
      for (let i = 0; i + 1 < cuts.length; i++) {
        w += cuts[i].w;
        if (w !== 0) sum += (cuts[i + 1].x - cuts[i].x) * step;
      }
    }
  return sum;
}

describe('snapping', () => {
  const page = {
    width: 300,
    height: 400,
    bleed: 9,
    margins: { top: 20, right: 20, bottom: 20, left: 20 },
    columns: { count: 3, gutter: 10 },
  };
  test('columns share what the margins leave', () =>
    expect(columnEdges(page)).toEqual(
      [
        [20, 100],
        [110, 190],
        [200, 280],
      ].map(([a, b]) => [expect.closeTo(a, 9), expect.closeTo(b, 9)]),
    ));
  test('a box goes to the nearest line, edges or middle, and says which', () => {
    const lines = pageSnapLines(page);
    expect(snapBox({ x0: 121, y0: 3, x1: 181, y1: 43 }, lines, 5)).toMatchObject({
      dx: -1,
      dy: -3,
      x: { label: 'page centre' },
      y: { label: 'trim' },
    });
    expect(snapBox({ x0: 30, y0: 60, x1: 40, y1: 70 }, lines, 2)).toMatchObject({ dx: 0, dy: 0, x: null, y: null });
    expect(snapBox({ x0: -8, y0: 60, x1: 50, y1: 70 }, lines, 2)).toMatchObject({ dx: -1, x: { label: 'bleed' } });
  });
});
