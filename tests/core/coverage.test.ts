import { MOVE, PathBuilder, addEllipse, polygonArea, rectPath, type PathData } from '@/core/geometry/path';
import { rect } from '@/core/geometry/rect';
import { Coverage } from '@/core/render/coverage';

const region = (width: number, height: number, scale = 1, x = 0, y = 0) => ({ width, height, scale, x, y });

function coverageOf(path: PathData, r = region(100, 100), rule: 'nonZero' | 'evenOdd' = 'nonZero'): Float64Array {
  const c = new Coverage(r.width, r.height);
  c.add(path, r);
  const out = new Float64Array(r.width * r.height);
  c.sweep(rule, (y, from, to, row) => {
    for (let x = from; x < to; x++) out[y * r.width + x] = row[x] / 255;
  });
  return out;
}
const sum = (a: Float64Array) => a.reduce((x, y) => x + y, 0);

describe('coverage', () => {
  test('a pixel is covered by exactly the share of it that lies inside', () => {
    const c = coverageOf(rectPath({ x0: 10.25, y0: 20.5, x1: 30.75, y1: 40 }));
    expect(c[20 * 100 + 10]).toBeCloseTo(0.75 * 0.5, 2);
    expect(c[25 * 100 + 10]).toBeCloseTo(0.75, 2);
    expect(c[25 * 100 + 20]).toBe(1);
    expect(c[25 * 100 + 31]).toBe(0);
    expect(sum(c)).toBeCloseTo(20.5 * 19.5, 0);
  });
  test('a circle covers its area, at any scale', () => {
    const sink = new PathBuilder();
    addEllipse(sink, 50, 50, 40, 40);
    for (const k of [1, 2.5, 0.6])
      expect(
        Math.abs(sum(coverageOf(sink.data, region(300, 300, k))) / (polygonArea(sink.data) * k * k) - 1),
      ).toBeLessThan(2e-3);
  });
  test('holes by both rules', () => {
    const both = [...rectPath(rect(0, 0, 60, 60)), ...rectPath(rect(20, 20, 20, 20))];
    expect(sum(coverageOf(both))).toBeCloseTo(3600, 6);
    expect(sum(coverageOf(both, region(100, 100), 'evenOdd'))).toBeCloseTo(3200, 6);
  });
  test('what reaches past the region on any side is cut there, not lost', () => {
    expect(sum(coverageOf(rectPath(rect(-500, -500, 1000, 1000))))).toBeCloseTo(10_000, 6);
    expect(sum(coverageOf(rectPath(rect(-50, 10, 100, 10))))).toBeCloseTo(500, 6);
    expect(sum(coverageOf(rectPath(rect(50, 10, 5000, 10))))).toBeCloseTo(500, 6);
    expect(sum(coverageOf(rectPath(rect(200, 200, 10, 10))))).toBe(0);
  });
  test('tiles of a picture join to the same picture', () => {
    const sink = new PathBuilder();
    addEllipse(sink, 47, 53, 38, 44);
    const whole = coverageOf(sink.data);
    for (const [x, y] of [
      [0, 0],
      [50, 0],
      [0, 50],
      [50, 50],
    ]) {
      const tile = coverageOf(sink.data, region(50, 50, 1, x, y));
      for (let j = 0; j < 50; j++)
        for (let i = 0; i < 50; i++)
          expect(Math.abs(tile[j * 50 + i] - whole[(y + j) * 100 + x + i])).toBeLessThan(0.011);
    }
  });
  test('the buffer is clean for the next path, and nonsense draws nothing', () => {
    const c = new Coverage(50, 50);
    const r = region(50, 50);
    c.add(rectPath(rect(5, 5, 20, 20)), r);
    c.sweep('nonZero', () => {});
    c.add([MOVE, NaN, 3, 1, 5, NaN, 1, 9, 9, 3], r);
    let rows = 0;
    c.sweep('nonZero', () => rows++);
    expect(rows).toBe(0);
  });
});
