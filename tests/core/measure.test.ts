import { describe, expect, test } from '@jest/globals';
import { Bezier } from 'bezier-js';
import { cornersOf, withCorners } from '@/core/geometry/corners';
import {
  alongContour,
  nearestOnContours,
  nearestOnSegment,
  parameterAt,
  pathLength,
  pointOn,
  segmentLength,
  tangentOn,
} from '@/core/geometry/measure';
import { CLOSE, CUBIC, LINE, MOVE, PathBuilder, addEllipse, polygonArea, type PathData } from '@/core/geometry/path';
import {
  contourArea,
  contoursOf,
  partOfSegment,
  pathOfContours,
  splitSegment,
  straight,
  type Segment,
} from '@/core/geometry/segments';
import { measured } from '../support/measured';
import { random } from '../support/random';

const r = random(21);
const any = (): Segment => {
  const v = Array.from({ length: 8 }, () => r() * 400 - 200);
  return { x0: v[0], y0: v[1], x1: v[2], y1: v[3], x2: v[4], y2: v[5], x3: v[6], y3: v[7], straight: false };
};
const bezier = (s: Segment) => new Bezier(s.x0, s.y0, s.x1, s.y1, s.x2, s.y2, s.x3, s.y3);
const MANY = Array.from({ length: 200 }, any);

describe('against closed forms', () => {
  test('a parabola’s length: ½√(1+4a²) + asinh(2a)/(4a)', () => {
    // y = x² from 0 to 1, raised to a cubic.
    const s: Segment = { x0: 0, y0: 0, x1: 1 / 3, y1: 0, x2: 2 / 3, y2: 1 / 3, x3: 1, y3: 1, straight: false };
    expect(segmentLength(s)).toBeCloseTo(Math.sqrt(5) / 2 + Math.asinh(2) / 4, 10);
    // Half of it in x is half of it in the parameter.
    expect(segmentLength(s, 0, 0.5)).toBeCloseTo(Math.SQRT2 / 4 + Math.asinh(1) / 4, 10);
  });
  test('a line, its middle, and its tangent', () => {
    const s = straight(10, 20, 40, 60);
    expect(segmentLength(s)).toBe(50);
    expect(pointOn(s, 0.5)).toEqual({ x: 25, y: 40 });
    expect(tangentOn(s, 0.3)).toEqual({ x: expect.closeTo(0.6, 12), y: expect.closeTo(0.8, 12) });
    expect(parameterAt(s, 20)).toBeCloseTo(0.4, 12);
  });
  test('a circle of four cubics is 2πr long within what four cubics allow', () => {
    const sink = new PathBuilder();
    addEllipse(sink, 0, 0, 100, 100);
    expect(Math.abs(pathLength(sink.data) / (2 * Math.PI * 100) - 1)).toBeLessThan(3e-4);
    const quarter = alongContour(contoursOf(sink.data)[0], pathLength(sink.data) / 4);
    expect(quarter.point).toEqual({ x: expect.closeTo(0, 4), y: expect.closeTo(100, 4) });
    expect(quarter.tangent).toEqual({ x: expect.closeTo(-1, 4), y: expect.closeTo(0, 4) });
  });
  test('the nearest point of a circle lies on the ray', () => {
    const sink = new PathBuilder();
    addEllipse(sink, 0, 0, 100, 100);
    const c = contoursOf(sink.data);
    for (let a = 0; a < 360; a += 7) {
      const [x, y] = [Math.cos((a * Math.PI) / 180), Math.sin((a * Math.PI) / 180)];
      const n = nearestOnContours(c, { x: x * 250, y: y * 250 })!;
      expect(Math.hypot(n.point.x - x * 100, n.point.y - y * 100)).toBeLessThan(0.4);
      expect(n.distance).toBeCloseTo(150, 1);
    }
  });
});

describe('against bezier-js', () => {
  test('lengths within 1e-6', () => {
    let worst = 0;
    for (const s of MANY) {
      // Its rule has 24 points over the whole curve: cut in pieces, so that it can be trusted.
      const b = bezier(s);
      let sum = 0;
      for (let i = 0; i < 128; i++) sum += b.split(i / 128, (i + 1) / 128).length();
      worst = Math.max(worst, Math.abs(segmentLength(s) / sum - 1));
    }
    measured('length of 200 random cubics', worst.toExponential(1), '1e-6', 'bezier-js');
    expect(worst).toBeLessThan(1e-6);
  });
  test('points, tangents and halves within 1e-9', () => {
    for (const s of MANY.slice(0, 60))
      for (const t of [0, 0.1, 0.37, 0.5, 0.93, 1]) {
        const b = bezier(s);
        const [p, q] = [pointOn(s, t), b.get(t)];
        expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeLessThan(1e-9);
        const d = b.derivative(t);
        const n = Math.hypot(d.x, d.y);
        expect(tangentOn(s, t)).toEqual({ x: expect.closeTo(d.x / n, 9), y: expect.closeTo(d.y / n, 9) });
        if (t > 0 && t < 1) {
          const [mine, theirs] = [splitSegment(s, t)[1], b.split(t).right.points[1]];
          expect(Math.hypot(mine.x1 - theirs.x, mine.y1 - theirs.y)).toBeLessThan(1e-9);
        }
      }
  });
  test('nearest points: never further than bezier-js finds them, and on the curve', () => {
    let worst = 0;
    for (const s of MANY) {
      const p = { x: r() * 600 - 300, y: r() * 600 - 300 };
      const [mine, theirs] = [nearestOnSegment(s, p), bezier(s).project(p)];
      // Its own figure for the distance can be that of a place beyond the curve's end; its point is on the curve.
      worst = Math.max(worst, mine.distance - Math.hypot(theirs.x - p.x, theirs.y - p.y));
      expect(Math.hypot(pointOn(s, mine.t).x - mine.point.x, pointOn(s, mine.t).y - mine.point.y)).toBeLessThan(1e-9);
    }
    measured(
      'nearest point on 200 random cubics',
      `at most ${Math.max(0, worst).toExponential(1)} further`,
      '1e-6',
      'bezier-js',
    );
    expect(worst).toBeLessThan(1e-6);
  });
  test('lengths found again: the parameter at a length', () => {
    for (const s of MANY.slice(0, 40)) {
      const whole = segmentLength(s);
      for (const share of [0.13, 0.5, 0.88])
        expect(Math.abs(segmentLength(s, 0, parameterAt(s, whole * share)) / whole - share)).toBeLessThan(1e-9);
    }
  });
});

test('contours go apart and together again', () => {
  const path: PathData = [
    MOVE,
    0,
    0,
    LINE,
    10,
    0,
    CUBIC,
    12,
    3,
    12,
    7,
    10,
    10,
    LINE,
    0,
    10,
    CLOSE,
    MOVE,
    20,
    20,
    LINE,
    30,
    25,
  ];
  expect(pathOfContours(contoursOf(path))).toEqual(path);
  expect(contourArea(contoursOf(path)[0].segments)).toBeCloseTo(polygonArea(path.slice(0, -6), 1e-6), 3);
  const s = any();
  const part = partOfSegment(s, 0.2, 0.7);
  expect(pointOn(part, 0.5)).toEqual({
    x: expect.closeTo(pointOn(s, 0.45).x, 9),
    y: expect.closeTo(pointOn(s, 0.45).y, 9),
  });
});

describe('corners', () => {
  /** A corner at the origin between two long legs that turn by `turn` degrees. */
  const bent = (turn: number, legs = 200): PathData => {
    const a = (turn * Math.PI) / 180;
    return [MOVE, -legs, 0, LINE, 0, 0, LINE, legs * Math.cos(a), legs * Math.sin(a)];
  };
  test.each([20, 45, 90, 120, 150])(
    'a round corner of %i° is the arc that touches both legs: r·tan(turn/2), 4/3·tan(turn/4)·r',
    (turn) => {
      const radius = 20;
      const a = (turn * Math.PI) / 180;
      const [c] = contoursOf(withCorners(bent(turn), () => ({ radius, kind: 'round' })));
      expect(c.segments).toHaveLength(3);
      const arc = c.segments[1];
      const reach = radius * Math.tan(a / 2);
      expect([arc.x0, arc.y0]).toEqual([expect.closeTo(-reach, 9), expect.closeTo(0, 9)]);
      expect([arc.x3, arc.y3]).toEqual([
        expect.closeTo(reach * Math.cos(a), 9),
        expect.closeTo(reach * Math.sin(a), 9),
      ]);
      expect(arc.x1 - arc.x0).toBeCloseTo((4 / 3) * Math.tan(a / 4) * radius, 9);
      // Every point of it is a radius from the middle, as near as one cubic can be.
      for (const t of [0.25, 0.5, 0.75])
        expect(Math.hypot(pointOn(arc, t).x + reach, pointOn(arc, t).y - radius) / radius).toBeCloseTo(
          1,
          turn > 90 ? 1 : 3,
        );
    },
  );
  test('cut and scooped corners begin where the radius says', () => {
    const [cut] = contoursOf(withCorners(bent(90), () => ({ radius: 15, kind: 'cut' })));
    expect(cut.segments.map((s) => [s.x3, s.y3].map(Math.round))).toEqual([
      [-15, 0],
      [0, 15],
      [0, 200],
    ]);
    const [scoop] = contoursOf(withCorners(bent(90), () => ({ radius: 15, kind: 'scoop' })));
    // An arc about the corner itself.
    for (const t of [0, 0.3, 0.6, 1])
      expect(Math.hypot(pointOn(scoop.segments[1], t).x, pointOn(scoop.segments[1], t).y)).toBeCloseTo(15, 2);
  });
  test('a square of rounded corners: s² − (4 − π)r²', () => {
    const square: PathData = [MOVE, 0, 0, LINE, 100, 0, LINE, 100, 100, LINE, 0, 100, CLOSE];
    const round = withCorners(square, () => ({ radius: 20, kind: 'round' }));
    expect(Math.abs(contourArea(contoursOf(round)[0].segments) - (1e4 - (4 - Math.PI) * 400))).toBeLessThan(0.4);
    // Too large radii meet in the middle of the sides and go no further.
    const most = withCorners(square, () => ({ radius: 500, kind: 'round' }));
    expect(Math.abs(contourArea(contoursOf(most)[0].segments) - Math.PI * 2500)).toBeLessThan(3);
    // One alone.
    expect(
      contoursOf(withCorners(square, (n) => (n === 2 ? { radius: 20, kind: 'cut' } : undefined)))[0].segments,
    ).toHaveLength(5);
  });
  test('corners are found where direction changes, on curves too, and smooth joints are none', () => {
    const sink = new PathBuilder();
    addEllipse(sink, 0, 0, 50, 50);
    expect(cornersOf(sink.data)).toEqual([]);
    const leaf: PathData = [MOVE, 0, 0, CUBIC, 30, -40, 70, -40, 100, 0, CUBIC, 70, 40, 30, 40, 0, 0, CLOSE];
    expect(cornersOf(leaf).map((c) => c.node)).toEqual([0, 1]);
    const treated = contoursOf(withCorners(leaf, () => ({ radius: 8, kind: 'round' })))[0];
    // The fillet leaves and meets the curves in their own directions.
    treated.segments.forEach((s, i) => {
      const next = treated.segments[(i + 1) % treated.segments.length];
      const [a, b] = [tangentOn(s, 1), tangentOn(next, 0)];
      expect(a.x * b.x + a.y * b.y).toBeGreaterThan(0.9999);
    });
  });
});
