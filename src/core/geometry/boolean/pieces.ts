import { pathContains } from '../contains';
import type { Point } from '../matrix';
import { nearestOnContours } from '../measure';
import { pathBounds, flatten, type PathData } from '../path';
import { contourArea, contoursOf, pathOfContours, type Contour } from '../segments';
import type { Rect } from '../rect';
import type { Region } from './region';

/** Contours smaller than this share of the whole are dust of the arithmetic, not pieces. */
const DUST = 1e-9;

/**
 * The connected pieces of a region whose contours do not cross (as results of boolean operations do not): each an outer
 * contour with the holes in it.
 */
export function piecesOf(region: Region): Region[] {
  const all = contoursOf(region.path)
    .flatMap(unpinched)
    .map((c) => {
      const path = pathOfContours([{ ...c, closed: true }]);
      return { path, contour: c, area: Math.abs(contourArea(c.segments)), box: pathBounds(path) };
    });
  const whole = all.reduce((m, c) => Math.max(m, c.area), 0);
  // Large ones first: whatever holds a contour comes before it.
  const sorted = all.filter((c) => c.area > whole * DUST).sort((a, b) => b.area - a.area);
  const depth: number[] = [];
  const parents: number[] = [];
  sorted.forEach((c, i) => {
    parents[i] = -1;
    depth[i] = 0;
    for (let j = i - 1; j >= 0; j--) {
      const o = sorted[j];
      if (
        c.box.x0 < o.box.x0 - 1e-6 ||
        c.box.x1 > o.box.x1 + 1e-6 ||
        c.box.y0 < o.box.y0 - 1e-6 ||
        c.box.y1 > o.box.y1 + 1e-6
      )
        continue;
      if (!liesIn(c.contour, o.path)) continue;
      parents[i] = j;
      depth[i] = depth[j] + 1;
      break;
    }
  });
  const holes = new Map<number, Contour[]>();
  sorted.forEach((c, i) => {
    if (depth[i] % 2) holes.set(parents[i], [...(holes.get(parents[i]) ?? []), c.contour]);
  });
  return sorted.flatMap((c, i) =>
    depth[i] % 2
      ? []
      : [
          {
            path: pathOfContours([c.contour, ...(holes.get(i) ?? [])].map((x) => ({ ...x, closed: true }))),
            rule: 'evenOdd' as const,
          },
        ],
  );
}

/** A contour that comes back to one of its own points is two that touch there: they share no area. */
function unpinched(c: Contour): Contour[] {
  const seen = new Map<string, number>();
  const key = (x: number, y: number) => `${Math.round(x * 1e5)},${Math.round(y * 1e5)}`;
  for (const [i, s] of c.segments.entries()) {
    const at = key(s.x0, s.y0);
    const first = seen.get(at);
    if (first === undefined) {
      seen.set(at, i);
      continue;
    }
    const loop = c.segments.slice(first, i);
    const rest = [...c.segments.slice(0, first), ...c.segments.slice(i)];
    return [{ segments: loop, closed: true }, ...(rest.length ? unpinched({ segments: rest, closed: true }) : [])];
  }
  return [c];
}

/** Does a contour lie inside another that it does not cross? Asked of several of its points: some may touch. */
function liesIn(inner: Contour, outer: PathData): boolean {
  const step = Math.max(1, Math.floor(inner.segments.length / 5));
  let [yes, no] = [0, 0];
  for (let i = 0; i < inner.segments.length; i += step) {
    const s = inner.segments[i];
    const p = { x: (s.x0 + 3 * s.x1 + 3 * s.x2 + s.x3) / 8, y: (s.y0 + 3 * s.y1 + 3 * s.y2 + s.y3) / 8 };
    if (pathContains(outer, 'evenOdd', p, 0.01)) yes++;
    else no++;
  }
  return yes > no;
}

/** The narrowest place between two pieces. */
export interface Gap {
  readonly a: number;
  readonly b: number;
  readonly from: Point;
  readonly to: Point;
  readonly distance: number;
}

/** The shortest way between two regions: a look at points along both, then to and fro between nearest points. */
export function narrowest(a: Region, b: Region): Pick<Gap, 'from' | 'to' | 'distance'> | null {
  const [ca, cb] = [contoursOf(a.path), contoursOf(b.path)];
  let best: Pick<Gap, 'from' | 'to' | 'distance'> | null = null;
  const [pa, pb] = [pointsOn(a.path), pointsOn(b.path)];
  let least = Infinity;
  let start: Point | null = null;
  for (let i = 0; i < pa.length; i += 2)
    for (let j = 0; j < pb.length; j += 2) {
      const d = (pa[i] - pb[j]) ** 2 + (pa[i + 1] - pb[j + 1]) ** 2;
      if (d < least) {
        least = d;
        start = { x: pa[i], y: pa[i + 1] };
      }
    }
  if (!start) return null;
  let p = start;
  for (let k = 0; k < 30; k++) {
    const q = nearestOnContours(cb, p);
    const back = q && nearestOnContours(ca, q.point);
    if (!q || !back) return best;
    const settled = best !== null && best.distance - back.distance < 1e-9;
    best = { from: back.point, to: q.point, distance: back.distance };
    if (settled) break;
    p = back.point;
  }
  return best;
}

/**
 * Points close together on a path, x, y, x, y …: straight parts are cut too, since the nearest place may lie within
 * one.
 */
function pointsOn(path: PathData): number[] {
  const out: number[] = [];
  const box = pathBounds(path);
  const size = Math.max(box.x1 - box.x0, box.y1 - box.y0);
  const step = size / 60;
  for (const { points, closed } of flatten(path, size / 500)) {
    const n = points.length;
    for (let i = 0; i < (closed ? n : n - 2); i += 2) {
      const j = (i + 2) % n;
      const cuts = Math.max(1, Math.ceil(Math.hypot(points[j] - points[i], points[j + 1] - points[i + 1]) / step));
      for (let k = 0; k < cuts; k++)
        out.push(
          points[i] + ((points[j] - points[i]) * k) / cuts,
          points[i + 1] + ((points[j + 1] - points[i + 1]) * k) / cuts,
        );
    }
  }
  return out;
}

/** No points of two boxes are nearer than this. */
function boxDistance(a: Rect, b: Rect): number {
  return Math.hypot(Math.max(a.x0 - b.x1, b.x0 - a.x1, 0), Math.max(a.y0 - b.y1, b.y0 - a.y1, 0));
}

/**
 * The gaps that, closed, would join pieces: the nearest ones that make of all as few as can be, none wider than
 * `within`. Nearest first; none for a single piece.
 */
export function gapsBetween(pieces: readonly Region[], within = Infinity): Gap[] {
  const boxes = pieces.map((p) => pathBounds(p.path));
  const pairs: Gap[] = [];
  for (let a = 0; a < pieces.length; a++)
    for (let b = a + 1; b < pieces.length; b++) {
      if (boxDistance(boxes[a], boxes[b]) > within) continue;
      const found = narrowest(pieces[a], pieces[b]);
      if (found && found.distance <= within) pairs.push({ a, b, ...found });
    }
  pairs.sort((p, q) => p.distance - q.distance);
  const group = pieces.map((_, i) => i);
  const root = (i: number): number => (group[i] === i ? i : (group[i] = root(group[i])));
  return pairs.filter(({ a, b }) => {
    const [x, y] = [root(a), root(b)];
    if (x === y) return false;
    group[x] = y;
    return true;
  });
}
