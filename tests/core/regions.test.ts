import { combineAll } from '@/core/geometry/boolean/combine';
import { addEllipse, PathBuilder, rectPath, type PathData } from '@/core/geometry/path';
import { rect } from '@/core/geometry/rect';
import { facesOf, type Faces } from '@/core/geometry/regions/faces';
import { contoursOf } from '@/core/geometry/segments';
import { areaOf } from '../support/area';
import { random } from '../support/random';
import { testEngines } from '../support/engines';

beforeAll(async () => {
  await testEngines();
});

const TOLERANCE = 0.01;
const faces = (path: PathData, gap = 0): Faces => facesOf(contoursOf(path), TOLERANCE, gap);
function circle(x: number, y: number, r: number): PathData {
  const b = new PathBuilder();
  addEllipse(b, x, y, r, r);
  return b.data;
}
const areas = ({ faces: all }: Faces): number[] => all.map((f) => Math.round(f.area)).sort((a, b) => a - b);

test('lines that only cross enclose areas; what sticks out encloses none; an area within another is cut out of it', () => {
  // Four lines, like a noughts-and-crosses board: one area of 20 by 20.
  const board = [0, 10, 0, 1, 10, 40, 0, 30, 0, 1, 30, 40, 0, 0, 10, 1, 40, 10, 0, 0, 30, 1, 40, 30];
  expect(areas(faces(board))).toEqual([400]);
  // A square with a line through it, and a smaller one in its left half.
  const house = [...rectPath(rect(0, 0, 100, 60)), 0, 50, -10, 1, 50, 70, ...rectPath(rect(10, 10, 20, 20))];
  expect(areas(faces(house))).toEqual([400, 2600, 3000]);
  // One on another, edge on edge: each line once.
  expect(
    areas(faces([...rectPath(rect(0, 0, 40, 40)), ...rectPath(rect(40, 10, 30, 20)), ...rectPath(rect(0, 0, 40, 40))])),
  ).toEqual([600, 1600]);
  expect(faces([0, 0, 0, 1, 50, 50]).faces).toEqual([]);
  expect(faces([]).faces).toEqual([]);
});

/** Where two circles cross, by their own equations. */
function meets(a: readonly number[], b: readonly number[]): number {
  const d = Math.hypot(a[0] - b[0], a[1] - b[1]);
  return d < a[2] + b[2] && d > Math.abs(a[2] - b[2]) ? 2 : 0;
}
/** How often a line crosses a circle within its ends. */
function cuts(l: readonly number[], c: readonly number[]): number {
  const [dx, dy, fx, fy] = [l[2] - l[0], l[3] - l[1], l[0] - c[0], l[1] - c[1]];
  const [A, B, C] = [dx * dx + dy * dy, 2 * (fx * dx + fy * dy), fx * fx + fy * fy - c[2] * c[2]];
  const disc = B * B - 4 * A * C;
  if (disc <= 0) return 0;
  return [-1, 1].filter((s) => {
    const t = (-B + s * Math.sqrt(disc)) / (2 * A);
    return t > 0 && t < 1;
  }).length;
}
function crosses(a: readonly number[], b: readonly number[]): number {
  const det = (a[2] - a[0]) * (b[3] - b[1]) - (a[3] - a[1]) * (b[2] - b[0]);
  const t = ((b[0] - a[0]) * (b[3] - b[1]) - (b[1] - a[1]) * (b[2] - b[0])) / det;
  const u = ((b[0] - a[0]) * (a[3] - a[1]) - (b[1] - a[1]) * (a[2] - a[0])) / det;
  return t > 0 && t < 1 && u > 0 && u < 1 ? 1 : 0;
}

// Oracle: Euler’s formula for planar graphs, F = E − V + 1 + C, with the crossings counted by the equations of circles
// and lines.
test.each([5, 10, 20, 40])(
  '%s random circles and lines: as many areas as Euler’s formula says, and together they are the union',
  (n) => {
    const r = random(n);
    const circles = Array.from({ length: n }, () => [r() * 300, r() * 300, 15 + r() * 60]);
    const lines = Array.from({ length: n >> 1 }, () => [r() * 300, r() * 300, r() * 300, r() * 300]);
    let crossings = 0;
    const parent = Array.from({ length: circles.length + lines.length }, (_, i) => i);
    const root = (i: number): number => (parent[i] === i ? i : root(parent[i]));
    const onEach = parent.map(() => 0);
    const note = (i: number, j: number, k: number) => {
      crossings += k;
      onEach[i] += k;
      onEach[j] += k;
      if (k) parent[root(i)] = root(j);
    };
    circles.forEach((a, i) => circles.slice(i + 1).forEach((b, k) => note(i, i + 1 + k, meets(a, b))));
    lines.forEach((l, i) => circles.forEach((c, j) => note(circles.length + i, j, cuts(l, c))));
    lines.forEach((a, i) =>
      lines.slice(i + 1).forEach((b, k) => note(circles.length + i, circles.length + i + 1 + k, crosses(a, b))),
    );
    // A circle that nothing crosses has one place and one edge; a line has its two ends, and one edge more than
    // crossings.
    const places = crossings + circles.filter((_, i) => !onEach[i]).length + 2 * lines.length;
    const edges =
      circles.reduce((sum, _, i) => sum + Math.max(1, onEach[i]), 0) +
      lines.reduce((sum, _, i) => sum + onEach[circles.length + i] + 1, 0);
    const parts = new Set(parent.map((_, i) => root(i))).size;
    const path = [
      ...circles.flatMap(([x, y, s]) => [...circle(x, y, s)]),
      ...lines.flatMap(([a, b, c, d]) => [0, a, b, 1, c, d]),
    ];
    const found = faces(path);
    expect(found.faces).toHaveLength(edges - places + parts);
    // What lines enclose outside of all circles, and holes between circles, are areas too: against the union of all of
    // them.
    const union = combineAll(
      found.faces.map((f) => ({ path: f.path, rule: 'evenOdd' as const })),
      'union',
    );
    expect(union.ok).toBe(true);
    const sum = found.faces.reduce((s, f) => s + areaOf({ path: f.path, rule: 'evenOdd' }, 3000), 0);
    expect(sum / areaOf(union.region, 12_000)).toBeCloseTo(1, 3);
    for (const f of found.faces)
      expect(Math.abs(areaOf({ path: f.path, rule: 'evenOdd' }, 3000) - f.area)).toBeLessThan(
        Math.max(0.02 * f.area, 1.5),
      );
  },
);

test('neighbours share their edges exactly: each piece is there twice, once each way, or is the outer edge', () => {
  const r = random(3);
  const path = Array.from({ length: 9 }, () => circle(60 + r() * 120, 60 + r() * 120, 20 + r() * 50)).flatMap((c) => [
    ...c,
  ]);
  const { faces: all } = faces(path);
  const pieces = new Map<string, number>();
  const key = (v: readonly number[]) => v.map((x) => x.toFixed(9)).join();
  for (const f of all)
    for (const c of contoursOf(f.path))
      for (const s of c.segments) {
        const k = key([s.x0, s.y0, s.x1, s.y1, s.x2, s.y2, s.x3, s.y3]);
        pieces.set(k, (pieces.get(k) ?? 0) + 1);
      }
  let shared = 0;
  for (const k of pieces.keys()) {
    expect(pieces.get(k)).toBe(1);
    const v = k.split(',').map(Number);
    const back = key([v[6], v[7], v[4], v[5], v[2], v[3], v[0], v[1]]);
    if (pieces.has(back)) shared++;
  }
  // All but the rim of the whole.
  expect(shared).toBeGreaterThan(pieces.size * 0.5);
  expect(shared % 2).toBe(0);
});

test('gaps up to a distance count as closed, and are told; wider ones stay open', () => {
  // A square that misses a bit at a corner, and a line that ends short of its side.
  const open = [0, 0, 4, 1, 0, 100, 1, 100, 100, 1, 100, 0, 1, 3, 0, 0, 50, 97, 1, 50, 3];
  expect(faces(open, 2).faces).toEqual([]);
  const closed = faces(open, 6);
  expect(closed.bridges).toHaveLength(3);
  expect(areas(closed)).toEqual([4994, 5000]);
  for (const [a, b] of closed.bridges) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThanOrEqual(6);
});
