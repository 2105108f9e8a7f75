import type { Point } from './matrix';
import { cubicAt } from './path';
import { straight, type Segment } from './segments';

/**
 * Curves through drawn points: cubics that keep within a tolerance of every point (Schneider, “An Algorithm for
 * Automatically Fitting Digitized Curves”, Graphics Gems, 1990), with typed arrays and an own choice of corners.
 */

/** The direction at a point is taken from points within this many tolerances. */
const LOOK = 3;

/** Cubics within `tolerance` of the points, in order; two points or fewer make a line or nothing. */
export function fitPoints(
  points: readonly Point[],
  tolerance: number,
  startTangent?: Point,
  endTangent?: Point,
): Segment[] {
  const pts = distinct(points);
  if (pts.length < 2) return [];
  if (pts.length === 2 && !startTangent && !endTangent) return [straight(pts[0].x, pts[0].y, pts[1].x, pts[1].y)];
  const out: Segment[] = [];
  fit(
    pts,
    0,
    pts.length - 1,
    startTangent ?? direction(pts, 0, 1, tolerance),
    endTangent ?? direction(pts, pts.length - 1, -1, tolerance),
    tolerance,
    out,
  );
  return out;
}

/** The same for a line that closes: begins and ends with one direction. */
export function fitClosed(points: readonly Point[], tolerance: number): Segment[] {
  const pts = distinct(points);
  if (pts.length < 3) return fitPoints(pts, tolerance);
  const ring = [...pts, pts[0]];
  const [a, b] = [direction(ring, 0, 1, tolerance), direction(ring, ring.length - 1, -1, tolerance)];
  const t = unit({ x: a.x - b.x, y: a.y - b.y }) ?? a;
  const out: Segment[] = [];
  fit(ring, 0, ring.length - 1, t, { x: -t.x, y: -t.y }, tolerance, out);
  return out;
}

/** One cubic with given directions at its ends (both away from them), as near to the points as one can be. */
export function fitOne(points: readonly Point[], startTangent: Point, endTangent: Point, rounds = 40): Segment {
  const pts = distinct(points);
  const last = pts.length - 1;
  const chord = Math.hypot(pts[last].x - pts[0].x, pts[last].y - pts[0].y);
  let u = byChord(pts, 0, last);
  let made = leastSquares(pts, 0, last, u, startTangent, endTangent, chord);
  for (let i = 0; i < rounds; i++) {
    u = reparametrised(pts, 0, last, u, made);
    made = leastSquares(pts, 0, last, u, startTangent, endTangent, chord);
  }
  return made;
}

function distinct(points: readonly Point[]): Point[] {
  return points.filter((p, i) => i === 0 || p.x !== points[i - 1].x || p.y !== points[i - 1].y);
}

const unit = (p: Point): Point | null => {
  const n = Math.hypot(p.x, p.y);
  return n > 1e-12 ? { x: p.x / n, y: p.y / n } : null;
};

/** The way away from a point, along the list. */
function direction(pts: readonly Point[], at: number, step: 1 | -1, tolerance: number): Point {
  let i = at + step;
  while (
    i + step >= 0 &&
    i + step < pts.length &&
    Math.hypot(pts[i].x - pts[at].x, pts[i].y - pts[at].y) < LOOK * tolerance
  )
    i += step;
  return unit({ x: pts[i].x - pts[at].x, y: pts[i].y - pts[at].y }) ?? { x: step, y: 0 };
}

function fit(
  pts: readonly Point[],
  first: number,
  last: number,
  t1: Point,
  t2: Point,
  tolerance: number,
  out: Segment[],
): void {
  const [p, q] = [pts[first], pts[last]];
  const chord = Math.hypot(q.x - p.x, q.y - p.y);
  if (last - first === 1) {
    out.push(curve(p, q, t1, t2, chord / 3, chord / 3));
    return;
  }
  let u = byChord(pts, first, last);
  let split = first + ((last - first) >> 1);
  for (let round = 0; round < 6; round++) {
    const made = leastSquares(pts, first, last, u, t1, t2, chord);
    const worst = farthest(pts, first, last, u, made);
    if (worst.distance <= tolerance) {
      out.push(made);
      return;
    }
    split = worst.index;
    // Near enough that better parameters may do: else a cut is needed.
    if (worst.distance > tolerance * 8) break;
    u = reparametrised(pts, first, last, u, made);
  }
  split = Math.min(last - 1, Math.max(first + 1, split));
  const middle = centreTangent(pts, split);
  fit(pts, first, split, t1, middle, tolerance, out);
  fit(pts, split, last, { x: -middle.x, y: -middle.y }, t2, tolerance, out);
}

/** The direction back along the list at an inner point. */
function centreTangent(pts: readonly Point[], i: number): Point {
  return (
    unit({ x: pts[i - 1].x - pts[i + 1].x, y: pts[i - 1].y - pts[i + 1].y }) ??
    unit({ x: pts[i - 1].x - pts[i].x, y: pts[i - 1].y - pts[i].y }) ?? { x: -1, y: 0 }
  );
}

const curve = (p: Point, q: Point, t1: Point, t2: Point, a: number, b: number): Segment => ({
  x0: p.x,
  y0: p.y,
  x1: p.x + t1.x * a,
  y1: p.y + t1.y * a,
  x2: q.x + t2.x * b,
  y2: q.y + t2.y * b,
  x3: q.x,
  y3: q.y,
  straight: false,
});

function byChord(pts: readonly Point[], first: number, last: number): Float64Array {
  const u = new Float64Array(last - first + 1);
  for (let i = first + 1; i <= last; i++)
    u[i - first] = u[i - first - 1] + Math.hypot(pts[i].x - pts[i - 1].x, pts[i].y - pts[i - 1].y);
  const whole = u[u.length - 1] || 1;
  for (let i = 0; i < u.length; i++) u[i] /= whole;
  return u;
}

/** Handle lengths that bring the curve nearest to the points, for given directions at its ends. */
function leastSquares(
  pts: readonly Point[],
  first: number,
  last: number,
  u: Float64Array,
  t1: Point,
  t2: Point,
  chord: number,
): Segment {
  const [p, q] = [pts[first], pts[last]];
  let [c00, c01, c11, x0, x1] = [0, 0, 0, 0, 0];
  for (let i = 0; i < u.length; i++) {
    const [t, s] = [u[i], 1 - u[i]];
    const [b1, b2] = [3 * t * s * s, 3 * t * t * s];
    const [a1x, a1y, a2x, a2y] = [t1.x * b1, t1.y * b1, t2.x * b2, t2.y * b2];
    c00 += a1x * a1x + a1y * a1y;
    c01 += a1x * a2x + a1y * a2y;
    c11 += a2x * a2x + a2y * a2y;
    const [b0, b3] = [s * s * s, t * t * t];
    const dx = pts[first + i].x - (p.x * (b0 + b1) + q.x * (b2 + b3));
    const dy = pts[first + i].y - (p.y * (b0 + b1) + q.y * (b2 + b3));
    x0 += a1x * dx + a1y * dy;
    x1 += a2x * dx + a2y * dy;
  }
  const det = c00 * c11 - c01 * c01;
  let a = det === 0 ? 0 : (x0 * c11 - x1 * c01) / det;
  let b = det === 0 ? 0 : (c00 * x1 - c01 * x0) / det;
  // Handles that turn back or vanish: thirds of the chord (Schneider’s fallback).
  const least = 1e-6 * chord;
  if (!(a > least) || !(b > least)) a = b = chord / 3;
  return curve(p, q, t1, t2, a, b);
}

function farthest(
  pts: readonly Point[],
  first: number,
  last: number,
  u: Float64Array,
  s: Segment,
): { distance: number; index: number } {
  let [distance, index] = [0, first + ((last - first) >> 1)];
  for (let i = first + 1; i < last; i++) {
    const t = u[i - first];
    const d = Math.hypot(cubicAt(s.x0, s.x1, s.x2, s.x3, t) - pts[i].x, cubicAt(s.y0, s.y1, s.y2, s.y3, t) - pts[i].y);
    if (d > distance) [distance, index] = [d, i];
  }
  return { distance, index };
}

/** One step of Newton towards the nearest parameter of every point. */
function reparametrised(pts: readonly Point[], first: number, last: number, u: Float64Array, s: Segment): Float64Array {
  const out = new Float64Array(u.length);
  for (let i = first; i <= last; i++) {
    const t = u[i - first];
    const r = 1 - t;
    const dx = cubicAt(s.x0, s.x1, s.x2, s.x3, t) - pts[i].x;
    const dy = cubicAt(s.y0, s.y1, s.y2, s.y3, t) - pts[i].y;
    const d1 = (a: number, b: number, c: number, d: number) =>
      3 * (r * r * (b - a) + 2 * r * t * (c - b) + t * t * (d - c));
    const d2 = (a: number, b: number, c: number, d: number) => 6 * (r * (c - 2 * b + a) + t * (d - 2 * c + b));
    const [x1, y1] = [d1(s.x0, s.x1, s.x2, s.x3), d1(s.y0, s.y1, s.y2, s.y3)];
    const bottom = x1 * x1 + y1 * y1 + dx * d2(s.x0, s.x1, s.x2, s.x3) + dy * d2(s.y0, s.y1, s.y2, s.y3);
    out[i - first] = bottom === 0 ? t : Math.min(1, Math.max(0, t - (dx * x1 + dy * y1) / bottom));
  }
  return out;
}

/**
 * A smooth curve that runs through points: centripetal Catmull–Rom (Yuksel, Schaefer, Keyser, “On the parameterization
 * of Catmull-Rom curves”, 2009), as cubics. It makes no loops and no cusps between points.
 */
export function throughPoints(points: readonly Point[], closed: boolean): Segment[] {
  const pts = distinct(points);
  const n = pts.length;
  if (n < 2) return [];
  if (n === 2) return [straight(pts[0].x, pts[0].y, pts[1].x, pts[1].y)];
  const at = (i: number): Point => (closed ? pts[(i + n) % n] : pts[Math.min(n - 1, Math.max(0, i))]);
  const out: Segment[] = [];
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const [p0, p1, p2, p3] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    const [a, b, c] = [root(p0, p1), root(p1, p2), root(p2, p3)];
    const h1 = a > 1e-9 ? handle(p0, p1, p2, a, b) : { x: p1.x + (p2.x - p1.x) / 3, y: p1.y + (p2.y - p1.y) / 3 };
    const h2 = c > 1e-9 ? handle(p3, p2, p1, c, b) : { x: p2.x + (p1.x - p2.x) / 3, y: p2.y + (p1.y - p2.y) / 3 };
    out.push({ x0: p1.x, y0: p1.y, x1: h1.x, y1: h1.y, x2: h2.x, y2: h2.y, x3: p2.x, y3: p2.y, straight: false });
  }
  return out;
}

const root = (p: Point, q: Point): number => Math.sqrt(Math.hypot(q.x - p.x, q.y - p.y));

/** The handle of p1 towards p2, for the square roots of the distances before and after it. */
function handle(p0: Point, p1: Point, p2: Point, a: number, b: number): Point {
  const put = (v0: number, v1: number, v2: number) =>
    (a * a * v2 - b * b * v0 + (2 * a * a + 3 * a * b + b * b) * v1) / (3 * a * (a + b));
  return { x: put(p0.x, p1.x, p2.x), y: put(p0.y, p1.y, p2.y) };
}
