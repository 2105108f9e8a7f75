import { pathContains } from '../contains';
import type { Point } from '../matrix';
import { LINE, MOVE, pathBounds, type PathData } from '../path';
import { partOfSegment, pathOfContours, straight, type Contour, type Segment } from '../segments';
import { reversedSegment } from '../orient';
import { arrange, type Arrangement, type Edge } from './arrangement';
import { halfOf, nextRound, type Half } from './walks';

/** An area that lines enclose, with the holes in it. */
export interface Face {
  /** In curves; filled even-odd. */
  readonly path: PathData;
  /** The same in straight pieces: quick to ask what lies in it. */
  readonly polygon: PathData;
  readonly area: number;
}
export interface Faces {
  readonly faces: readonly Face[];
  /** Straight lines that close gaps, from place to place. */
  readonly bridges: readonly (readonly [Point, Point])[];
}

/**
 * Every area that lines enclose together, whether they are closed or only cross: the bounded faces of their
 * arrangement. Neighbours share their edges exactly. `tolerance` and `gap` as in `arrange`.
 */
export function facesOf(contours: readonly Contour[], tolerance: number, gap = 0): Faces {
  const made = arrange(contours, tolerance, gap);
  const sources = contours.flatMap((c) => c.segments);
  const point = (k: number): Point => ({ x: made.points[2 * k], y: made.points[2 * k + 1] });
  const cycles = cyclesOf(made).map((halves) => {
    const polygon = polygonOf(made, halves);
    return { halves, polygon, box: pathBounds(polygon), area: signedArea(polygon) };
  });
  const outer = cycles.filter((c) => c.area > 0).sort((a, b) => a.area - b.area);
  const holes = new Map<number, typeof cycles>();
  for (const hole of cycles) {
    if (hole.area >= 0) continue;
    // The smallest face that holds it and is not the other side of the same lines.
    const own = new Set(hole.halves.map((h) => h.edge));
    const inside = innerPoint(hole.polygon, made, hole.halves);
    const k = outer.findIndex(
      (o) =>
        o.area > -hole.area &&
        inside.x > o.box.x0 &&
        inside.x < o.box.x1 &&
        inside.y > o.box.y0 &&
        inside.y < o.box.y1 &&
        !o.halves.some((h) => own.has(h.edge)) &&
        pathContains(o.polygon, 'nonZero', inside),
    );
    if (k >= 0) holes.set(k, [...(holes.get(k) ?? []), hole]);
  }
  return {
    faces: outer.map((o, k) => {
      const all = [o, ...(holes.get(k) ?? [])];
      return {
        path: pathOfContours(all.map((c) => ({ segments: curvesOf(made, sources, c.halves), closed: true }))),
        polygon: all.flatMap((c) => [...c.polygon]),
        area: all.reduce((n, c) => n + c.area, 0),
      };
    }),
    bridges: made.bridges.map(([a, b]) => [point(a), point(b)] as const),
  };
}

/** The walks round all faces, the unbounded ones too; lines that lead nowhere are left out. */
function cyclesOf(made: Arrangement): Half[][] {
  const next = nextRound(made, withoutDangling(made.edges));
  const done = new Uint8Array(next.length);
  const cycles: Half[][] = [];
  for (let start = 0; start < next.length; start++) {
    if (next[start] < 0 || done[start]) continue;
    const cycle: Half[] = [];
    for (let h = start; !done[h]; h = next[h]) {
      done[h] = 1;
      cycle.push(halfOf(made, h));
    }
    cycles.push(cycle);
  }
  return cycles;
}

/** Numbers of the edges that enclose something: others end in nothing. */
function withoutDangling(edges: readonly Edge[]): ReadonlySet<number> {
  const at = new Map<number, Set<number>>();
  edges.forEach((e, i) => {
    for (const v of [e.a, e.b]) {
      const list = at.get(v);
      if (list) list.add(i);
      else at.set(v, new Set([i]));
    }
  });
  const loose = [...at].filter(([, list]) => list.size === 1).map(([v]) => v);
  while (loose.length) {
    const v = loose.pop()!;
    const list = at.get(v)!;
    if (list.size !== 1) continue;
    const [i] = list;
    list.delete(i);
    const w = edges[i].a === v ? edges[i].b : edges[i].a;
    at.get(w)!.delete(i);
    if (at.get(w)!.size === 1) loose.push(w);
  }
  const kept = new Set<number>();
  for (const list of at.values()) for (const e of list) kept.add(e);
  return kept;
}

function polygonOf({ points }: Arrangement, halves: readonly Half[]): PathData {
  const out: number[] = [];
  halves.forEach((h, i) => out.push(i ? LINE : MOVE, points[2 * h.from], points[2 * h.from + 1]));
  out.push(3);
  return out;
}

/** The shoelace formula; positive clockwise as seen. */
function signedArea(polygon: PathData): number {
  let sum = 0;
  const n = (polygon.length - 1) / 3;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    sum += polygon[3 * i + 1] * polygon[3 * j + 2] - polygon[3 * j + 1] * polygon[3 * i + 2];
  }
  return sum / 2;
}

/** A place just beside the middle of a walk's first edge, on the side of its face. */
function innerPoint(polygon: PathData, { points }: Arrangement, [h]: readonly Half[]): Point {
  const [ax, ay, bx, by] = [points[2 * h.from], points[2 * h.from + 1], points[2 * h.to], points[2 * h.to + 1]];
  const n = Math.hypot(bx - ax, by - ay) || 1;
  const off = n * 1e-4;
  // Faces lie to the right of a walk that runs clockwise as seen; the outside of what is walked round the other way
  // too.
  return { x: (ax + bx) / 2 - ((by - ay) / n) * off, y: (ay + by) / 2 + ((bx - ax) / n) * off };
}

/** A walk in curves: edges of one curve that follow each other are one part of it. */
export function curvesOf(
  { points, edges }: Arrangement,
  sources: readonly Segment[],
  halves: readonly Half[],
): Segment[] {
  const parts = halves.map((h) => {
    const e = edges[h.edge];
    const forward = e.a === h.from;
    return { source: e.source, from: forward ? e.t0 : e.t1, to: forward ? e.t1 : e.t0, a: h.from, b: h.to };
  });
  const isOn = (p: (typeof parts)[number], q: (typeof parts)[number]): boolean =>
    p.source >= 0 && p.source === q.source && Math.abs(p.to - q.from) < 1e-12 && p.to > p.from === q.to > q.from;
  // Begun where a curve ends, so that none is cut by where the walk begins; and where lines meet, so that neighbours
  // are cut alike.
  const met = meetings(edges);
  const goesOn = (p: (typeof parts)[number], q: (typeof parts)[number]): boolean => isOn(p, q) && !met.has(q.a);
  const n = parts.length;
  const start = Math.max(
    0,
    parts.findIndex((p, i) => !goesOn(parts[(i + n - 1) % n], p)),
  );
  const joined: (typeof parts)[number][] = [];
  for (let k = 0; k < n; k++) {
    const p = parts[(start + k) % n];
    const last = joined[joined.length - 1];
    if (last && goesOn(last, p)) joined[joined.length - 1] = { ...last, to: p.to, b: p.b };
    else joined.push(p);
  }
  return joined.map(({ source, from, to, a, b }) => {
    const [x0, y0, x3, y3] = [points[2 * a], points[2 * a + 1], points[2 * b], points[2 * b + 1]];
    const curve = source >= 0 ? sources[source] : null;
    if (!curve || curve.straight) return straight(x0, y0, x3, y3);
    const part = partOfSegment(curve, Math.min(from, to), Math.max(from, to));
    const s = from < to ? part : reversedSegment(part);
    // Its ends are the places where it is cut: neighbours meet in them exactly.
    return {
      ...s,
      x0,
      y0,
      x1: s.x1 + x0 - s.x0,
      y1: s.y1 + y0 - s.y0,
      x2: s.x2 + x3 - s.x3,
      y2: s.y2 + y3 - s.y3,
      x3,
      y3,
    };
  });
}

const known = new WeakMap<readonly Edge[], ReadonlySet<number>>();
/** Places where more than two edges meet. */
function meetings(edges: readonly Edge[]): ReadonlySet<number> {
  let found = known.get(edges);
  if (!found) {
    const count = new Map<number, number>();
    for (const e of edges) for (const v of [e.a, e.b]) count.set(v, (count.get(v) ?? 0) + 1);
    known.set(edges, (found = new Set([...count].filter(([, n]) => n > 2).map(([v]) => v))));
  }
  return found;
}
