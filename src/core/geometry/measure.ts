import type { Point } from './matrix';
import { cubicAt, type PathData } from './path';
import { contoursOf, type Contour, type Segment } from './segments';

/** Lengths, points, tangents and nearest points of curves. Units are those of the coordinates. */

/** The point of a piece at a parameter 0…1. */
export const pointOn = (s: Segment, t: number): Point => ({
  x: cubicAt(s.x0, s.x1, s.x2, s.x3, t),
  y: cubicAt(s.y0, s.y1, s.y2, s.y3, t),
});

function slope(a: number, b: number, c: number, d: number, t: number): number {
  const u = 1 - t;
  return 3 * (u * u * (b - a) + 2 * u * t * (c - b) + t * t * (d - c));
}
function bend(a: number, b: number, c: number, d: number, t: number): number {
  return 6 * ((1 - t) * (c - 2 * b + a) + t * (d - 2 * c + b));
}

const derivativeOn = (s: Segment, t: number): Point => ({
  x: slope(s.x0, s.x1, s.x2, s.x3, t),
  y: slope(s.y0, s.y1, s.y2, s.y3, t),
});

/**
 * The way a piece runs at a parameter, as a unit vector; where a handle lies on its node, the way it runs next to it.
 */
export function tangentOn(s: Segment, t: number): Point {
  let d = derivativeOn(s, t);
  let n = Math.hypot(d.x, d.y);
  const size =
    Math.hypot(s.x3 - s.x0, s.y3 - s.y0) + Math.hypot(s.x1 - s.x0, s.y1 - s.y0) + Math.hypot(s.x3 - s.x2, s.y3 - s.y2);
  if (n <= size * 1e-9) {
    d = derivativeOn(s, t < 0.5 ? t + 1e-4 : t - 1e-4);
    n = Math.hypot(d.x, d.y);
  }
  return n > 0 ? { x: d.x / n, y: d.y / n } : { x: 1, y: 0 };
}

/** Abscissae and weights of the Gauss–Legendre rule of 16 points (Abramowitz & Stegun, table 25.4). */
const GAUSS: readonly (readonly [number, number])[] = [
  [0.0950125098376374, 0.1894506104550685],
  [0.2816035507792589, 0.1826034150449236],
  [0.4580167776572274, 0.1691565193950025],
  [0.6178762444026438, 0.1495959888165767],
  [0.755404408355003, 0.1246289712555339],
  [0.8656312023878318, 0.0951585116824928],
  [0.9445750230732326, 0.0622535239386479],
  [0.9894009349916499, 0.0271524594117541],
];

function gauss(s: Segment, from: number, to: number): number {
  const [m, h] = [(from + to) / 2, (to - from) / 2];
  const speed = (t: number) => Math.hypot(slope(s.x0, s.x1, s.x2, s.x3, t), slope(s.y0, s.y1, s.y2, s.y3, t));
  let sum = 0;
  for (const [x, w] of GAUSS) sum += w * (speed(m - h * x) + speed(m + h * x));
  return sum * h;
}

/** The length of a piece, halved until the rule agrees with itself to 1e-9 of it. */
export function segmentLength(s: Segment, from = 0, to = 1): number {
  if (s.straight) return Math.hypot(s.x3 - s.x0, s.y3 - s.y0) * (to - from);
  const halve = (a: number, b: number, whole: number, depth: number): number => {
    const m = (a + b) / 2;
    const [l, r] = [gauss(s, a, m), gauss(s, m, b)];
    if (depth <= 0 || Math.abs(l + r - whole) <= 1e-9 * Math.abs(whole)) return l + r;
    return halve(a, m, l, depth - 1) + halve(m, b, r, depth - 1);
  };
  return halve(from, to, gauss(s, from, to), 12);
}

/** The length of a path, in its own unit. */
export const pathLength = (path: PathData): number => contoursOf(path).reduce((n, c) => n + contourLength(c), 0);
/** The length of a contour, in its own unit. */
export const contourLength = (c: Contour): number => c.segments.reduce((n, s) => n + segmentLength(s), 0);

/** The parameter at which a piece has run a length from its start (Newton, held by halving). */
export function parameterAt(s: Segment, length: number, whole = segmentLength(s)): number {
  if (!(whole > 0) || length <= 0) return 0;
  if (length >= whole) return 1;
  if (s.straight) return length / whole;
  let [lo, hi, t] = [0, 1, length / whole];
  for (let i = 0; i < 40; i++) {
    const miss = segmentLength(s, 0, t) - length;
    if (Math.abs(miss) <= 1e-12 * whole) break;
    if (miss > 0) hi = t;
    else lo = t;
    const d = derivativeOn(s, t);
    const next = t - miss / (Math.hypot(d.x, d.y) || Infinity);
    t = next > lo && next < hi ? next : (lo + hi) / 2;
  }
  return t;
}

/** Where a contour is after a length from its start, and the way it runs there. Beyond its ends: its ends. */
export function alongContour(
  c: Contour,
  length: number,
): { readonly point: Point; readonly tangent: Point; readonly segment: number; readonly t: number } {
  let rest = Math.max(0, length);
  for (const [i, s] of c.segments.entries()) {
    const whole = segmentLength(s);
    if (rest <= whole || i === c.segments.length - 1) {
      const t = parameterAt(s, rest, whole);
      return { point: pointOn(s, t), tangent: tangentOn(s, t), segment: i, t };
    }
    rest -= whole;
  }
  throw new Error('a contour without pieces has no points');
}

export interface Nearest {
  readonly point: Point;
  readonly t: number;
  readonly distance: number;
}

/** The point of a piece that lies nearest to `p`: a coarse look, then Newton on the right angle. */
export function nearestOnSegment(s: Segment, p: Point): Nearest {
  if (s.straight) {
    const [dx, dy] = [s.x3 - s.x0, s.y3 - s.y0];
    const l2 = dx * dx + dy * dy;
    const t = l2 === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - s.x0) * dx + (p.y - s.y0) * dy) / l2));
    const point = { x: s.x0 + t * dx, y: s.y0 + t * dy };
    return { point, t, distance: Math.hypot(point.x - p.x, point.y - p.y) };
  }
  const far = (t: number) =>
    (cubicAt(s.x0, s.x1, s.x2, s.x3, t) - p.x) ** 2 + (cubicAt(s.y0, s.y1, s.y2, s.y3, t) - p.y) ** 2;
  const seen: number[] = [];
  for (let i = 0; i <= LOOKS; i++) seen.push(far(i / LOOKS));
  const least = Math.min(...seen);
  let [bestT, best] = [0, Infinity];
  for (let i = 0; i <= LOOKS; i++) {
    // Every valley of the coarse look is followed down: the deepest seen coarsely need not be the deepest.
    if ((i > 0 && seen[i - 1] < seen[i]) || (i < LOOKS && seen[i + 1] < seen[i]) || seen[i] > least * 16 + 1e-9)
      continue;
    const t = lowest(far, Math.max(0, (i - 1) / LOOKS), Math.min(1, (i + 1) / LOOKS));
    const polished = polish(s, p, t);
    for (const u of [i / LOOKS, t, polished]) {
      const d = far(u);
      if (d < best) [bestT, best] = [u, d];
    }
  }
  return { point: pointOn(s, bestT), t: bestT, distance: Math.sqrt(best) };
}

const LOOKS = 32;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** The lowest place of a valley by the golden section. */
function lowest(f: (t: number) => number, lo: number, hi: number): number {
  let [a, b] = [hi - GOLDEN * (hi - lo), lo + GOLDEN * (hi - lo)];
  let [fa, fb] = [f(a), f(b)];
  for (let i = 0; i < 30; i++) {
    if (fa <= fb) {
      [hi, b, fb] = [b, a, fa];
      a = hi - GOLDEN * (hi - lo);
      fa = f(a);
    } else {
      [lo, a, fa] = [a, b, fb];
      b = lo + GOLDEN * (hi - lo);
      fb = f(b);
    }
  }
  return (lo + hi) / 2;
}

/** A few steps of Newton towards the right angle between the curve and the way to the point. */
function polish(s: Segment, p: Point, start: number): number {
  let t = start;
  for (let i = 0; i < 4; i++) {
    const [q, d] = [pointOn(s, t), derivativeOn(s, t)];
    const [dx, dy] = [q.x - p.x, q.y - p.y];
    const slopeOfSlope =
      d.x * d.x + d.y * d.y + dx * bend(s.x0, s.x1, s.x2, s.x3, t) + dy * bend(s.y0, s.y1, s.y2, s.y3, t);
    if (!(slopeOfSlope > 0)) break;
    t = Math.min(1, Math.max(0, t - (dx * d.x + dy * d.y) / slopeOfSlope));
  }
  return t;
}

export interface NearestOnPath extends Nearest {
  readonly contour: number;
  readonly segment: number;
}

/** No point of the piece is nearer than this: the distance to the box of its points. */
function leastDistance(s: Segment, p: Point): number {
  const dx = Math.max(Math.min(s.x0, s.x1, s.x2, s.x3) - p.x, 0, p.x - Math.max(s.x0, s.x1, s.x2, s.x3));
  const dy = Math.max(Math.min(s.y0, s.y1, s.y2, s.y3) - p.y, 0, p.y - Math.max(s.y0, s.y1, s.y2, s.y3));
  return Math.hypot(dx, dy);
}

/** The point of a path that lies nearest to `p`; null for a path without pieces. */
export function nearestOnContours(contours: readonly Contour[], p: Point): NearestOnPath | null {
  let best: NearestOnPath | null = null;
  contours.forEach((c, contour) =>
    c.segments.forEach((s, segment) => {
      if (best && leastDistance(s, p) >= best.distance) return;
      const n = nearestOnSegment(s, p);
      if (!best || n.distance < best.distance) best = { ...n, contour, segment };
    }),
  );
  return best;
}
