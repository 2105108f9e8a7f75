import Flatbush from 'flatbush';
import { cubicSteps } from '../path';
import { pointOn } from '../measure';
import type { Contour, Segment } from '../segments';

/**
 * Lines cut where they meet: a planar graph. Curves are looked at as fine straight pieces that know which part of which
 * curve they are, so that what is found between them can be said in curves again.
 */
export interface Arrangement {
  /** x, y, x, y … of every place where lines end, meet or bend. */
  readonly points: Float64Array;
  readonly edges: readonly Edge[];
  /**
   * For each edge the curves that run along it: their numbers from 1 on, below nothing where they run from `b` to `a`.
   */
  readonly runs: readonly (readonly number[])[];
  /** Straight lines that were put in to close gaps. */
  readonly bridges: readonly (readonly [number, number])[];
}
/**
 * From place to place; `t0`, `t1` are the parameters of its ends on a curve, `source` that curve's number (−1: a
 * bridge).
 */
export interface Edge {
  readonly a: number;
  readonly b: number;
  readonly source: number;
  readonly t0: number;
  readonly t1: number;
}

interface Piece {
  readonly a: number;
  readonly b: number;
  readonly source: number;
  readonly t0: number;
  readonly t1: number;
}

/** Places nearer than this to each other (of the drawing's size) are one. */
const SAME = 1e-6;

/**
 * The arrangement of contours. `tolerance` bounds how far straight pieces stray from curves; ends of lines no further
 * than `gap` from another line or end are joined to it.
 */
export function arrange(contours: readonly Contour[], tolerance: number, gap = 0): Arrangement {
  const sources = contours.flatMap((c) => c.segments);
  const size = extent(sources);
  const places = new Places(Math.max(size * SAME, 1e-9));
  const pieces: Piece[] = [];
  sources.forEach((s, source) => {
    const n = s.straight ? 1 : Math.max(2, cubicSteps(s.x0, s.y0, s.x1, s.y1, s.x2, s.y2, s.x3, s.y3, tolerance));
    let last = places.at(s.x0, s.y0);
    for (let k = 1; k <= n; k++) {
      const p = k === n ? { x: s.x3, y: s.y3 } : pointOn(s, k / n);
      const next = places.at(p.x, p.y);
      if (next !== last) pieces.push({ a: last, b: next, source, t0: (k - 1) / n, t1: k / n });
      last = next;
    }
  });
  let { edges, runs } = cut(pieces, places);
  const bridges: [number, number][] = [];
  if (gap > 0) {
    for (const [a, b] of gapsIn(edges, places, gap)) bridges.push([a, b]);
    ({ edges, runs } = cut([...edges, ...bridges.map(([a, b]) => ({ a, b, source: -1, t0: 0, t1: 1 }))], places));
  }
  return { points: places.list(), edges, runs, bridges };
}

/** Do closed contours neither cross nor touch, themselves nor each other? */
export function isPlanar(contours: readonly Contour[], tolerance: number): boolean {
  const ends = new Map<number, number>();
  for (const { a, b } of arrange(contours, tolerance).edges)
    for (const v of [a, b]) ends.set(v, (ends.get(v) ?? 0) + 1);
  return [...ends.values()].every((n) => n === 2);
}

function extent(segments: readonly Segment[]): number {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const s of segments) {
    x0 = Math.min(x0, s.x0, s.x3);
    y0 = Math.min(y0, s.y0, s.y3);
    x1 = Math.max(x1, s.x0, s.x3);
    y1 = Math.max(y1, s.y0, s.y3);
  }
  return Math.max(x1 - x0, y1 - y0, 0);
}

const CELL = 8;
const ROW = 2 ** 22;
/** Cells that share a number are told apart by the places in them. */
const keyOf = (i: number, j: number): number => i * ROW + (((j % ROW) + ROW) % ROW);

/** Places by number; those that are nearly the same are one. */
class Places {
  private readonly xy: number[] = [];
  private readonly cells = new Map<number, number[]>();
  private readonly cell: number;
  constructor(readonly near: number) {
    this.cell = near * CELL;
  }

  at(x: number, y: number): number {
    const { near, cell } = this;
    // Most places lie well within their cell, so that one look is enough.
    const [i0, i1] = [Math.floor((x - near) / cell), Math.floor((x + near) / cell)];
    const [j0, j1] = [Math.floor((y - near) / cell), Math.floor((y + near) / cell)];
    for (let i = i0; i <= i1; i++)
      for (let j = j0; j <= j1; j++)
        for (const k of this.cells.get(keyOf(i, j)) ?? [])
          if (Math.hypot(this.xy[2 * k] - x, this.xy[2 * k + 1] - y) <= near) return k;
    const k = this.xy.length / 2;
    this.xy.push(x, y);
    const key = keyOf(Math.floor(x / cell), Math.floor(y / cell));
    const known = this.cells.get(key);
    if (known) known.push(k);
    else this.cells.set(key, [k]);
    return k;
  }
  x(k: number): number {
    return this.xy[2 * k];
  }
  y(k: number): number {
    return this.xy[2 * k + 1];
  }
  get count(): number {
    return this.xy.length / 2;
  }
  list(): Float64Array {
    return Float64Array.from(this.xy);
  }
}

/** Pieces cut at every place where they cross, touch or lie on each other; each part once. */
function cut(pieces: readonly Piece[], places: Places): Pick<Arrangement, 'runs'> & { readonly edges: Edge[] } {
  if (!pieces.length) return { edges: [], runs: [] };
  const { near } = places;
  const index = new Flatbush(pieces.length);
  for (const p of pieces)
    index.add(
      Math.min(places.x(p.a), places.x(p.b)) - near,
      Math.min(places.y(p.a), places.y(p.b)) - near,
      Math.max(places.x(p.a), places.x(p.b)) + near,
      Math.max(places.y(p.a), places.y(p.b)) + near,
    );
  index.finish();
  // The places on each piece, by how far along it they lie.
  const on = new Map<number, Map<number, number>>();
  const put = (i: number, place: number, t: number, again: boolean) => {
    let of = on.get(i);
    if (!of) on.set(i, (of = new Map([[pieces[i].a, 0]]).set(pieces[i].b, 1)));
    if (again || !of.has(place)) of.set(place, t);
  };
  pieces.forEach((p, i) => {
    const [ax, ay, bx, by] = [places.x(p.a), places.y(p.a), places.x(p.b), places.y(p.b)];
    for (const j of index.search(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by))) {
      if (j <= i) continue;
      const q = pieces[j];
      // An end of one that lies on the other.
      for (const [place, of, at] of [
        [q.a, p, i],
        [q.b, p, i],
        [p.a, q, j],
        [p.b, q, j],
      ] as const) {
        if (place === of.a || place === of.b) continue;
        const t = along(places, of, places.x(place), places.y(place));
        if (t !== null) put(at, place, t, true);
      }
      const shared = p.a === q.a || p.a === q.b || p.b === q.a || p.b === q.b;
      const met = shared ? null : crossing(places, p, q);
      if (!met) continue;
      const place = places.at(met.x, met.y);
      put(i, place, met.t, false);
      put(j, place, met.u, false);
    }
  });
  const seen = new Map<number, number>();
  const all = places.count;
  const edges: Edge[] = [];
  const runs: number[][] = [];
  pieces.forEach((p, i) => {
    const found = on.get(i);
    const stops: (readonly [number, number])[] = found
      ? [...found].sort((a, b) => a[1] - b[1])
      : [
          [p.a, 0],
          [p.b, 1],
        ];
    for (let k = 0; k + 1 < stops.length; k++) {
      const [[a, s0], [b, s1]] = [stops[k], stops[k + 1]];
      if (a === b) continue;
      const key = a < b ? a * all + b : b * all + a;
      const there = seen.get(key);
      if (there !== undefined) {
        runs[there].push(edges[there].a === a ? p.source + 1 : -p.source - 1);
        continue;
      }
      seen.set(key, edges.length);
      runs.push([p.source + 1]);
      edges.push({ a, b, source: p.source, t0: p.t0 + (p.t1 - p.t0) * s0, t1: p.t0 + (p.t1 - p.t0) * s1 });
    }
  });
  return { edges, runs };
}

/** How far along a piece a place on it lies, 0…1; null where it lies beside it, or at its ends. */
function along(places: Places, p: Piece, x: number, y: number): number | null {
  const [ax, ay] = [places.x(p.a), places.y(p.a)];
  const [dx, dy] = [places.x(p.b) - ax, places.y(p.b) - ay];
  const l2 = dx * dx + dy * dy;
  const t = ((x - ax) * dx + (y - ay) * dy) / l2;
  if (t <= 0 || t >= 1) return null;
  return Math.abs((x - ax) * dy - (y - ay) * dx) <= places.near * Math.sqrt(l2) ? t : null;
}

function crossing(
  places: Places,
  p: Piece,
  q: Piece,
): { readonly x: number; readonly y: number; readonly t: number; readonly u: number } | null {
  const [ax, ay, cx, cy] = [places.x(p.a), places.y(p.a), places.x(q.a), places.y(q.a)];
  const [rx, ry] = [places.x(p.b) - ax, places.y(p.b) - ay];
  const [sx, sy] = [places.x(q.b) - cx, places.y(q.b) - cy];
  const det = rx * sy - ry * sx;
  if (Math.abs(det) <= 1e-14 * Math.hypot(rx, ry) * Math.hypot(sx, sy)) return null;
  const t = ((cx - ax) * sy - (cy - ay) * sx) / det;
  const u = ((cx - ax) * ry - (cy - ay) * rx) / det;
  if (!(t > 0 && t < 1 && u > 0 && u < 1)) return null;
  return { x: ax + rx * t, y: ay + ry * t, t, u };
}

/** From every end of a line to the nearest other place or line within reach. */
function gapsIn(edges: readonly Edge[], places: Places, gap: number): [number, number][] {
  const at = new Map<number, number[]>();
  edges.forEach((e, i) => {
    for (const v of [e.a, e.b]) at.set(v, [...(at.get(v) ?? []), i]);
  });
  const ends = [...at].filter(([, list]) => list.length === 1);
  if (!ends.length) return [];
  const index = new Flatbush(edges.length);
  for (const e of edges)
    index.add(
      Math.min(places.x(e.a), places.x(e.b)),
      Math.min(places.y(e.a), places.y(e.b)),
      Math.max(places.x(e.a), places.x(e.b)),
      Math.max(places.y(e.a), places.y(e.b)),
    );
  index.finish();
  const out: [number, number][] = [];
  const joined = new Set<string>();
  for (const [v, [own]] of ends) {
    const [x, y] = [places.x(v), places.y(v)];
    let best: { distance: number; x: number; y: number } | null = null;
    for (const i of index.search(x - gap, y - gap, x + gap, y + gap)) {
      // What the end itself hangs on is no neighbour.
      if (i === own || edges[i].source === edges[own].source) continue;
      const n = nearestOn(places, edges[i], x, y);
      if (n.distance <= gap && (!best || n.distance < best.distance)) best = n;
    }
    // Other ends come before the middle of a line, if they are within reach.
    for (const [w, [other]] of ends) {
      if (w === v || other === own) continue;
      const distance = Math.hypot(places.x(w) - x, places.y(w) - y);
      if (distance <= gap && (!best || distance <= best.distance * 1.5 + 1e-9))
        best = { distance, x: places.x(w), y: places.y(w) };
    }
    if (!best) continue;
    const to = places.at(best.x, best.y);
    const key = v < to ? `${v} ${to}` : `${to} ${v}`;
    if (to === v || joined.has(key)) continue;
    joined.add(key);
    out.push([v, to]);
  }
  return out;
}

function nearestOn(places: Places, e: Edge, x: number, y: number): { distance: number; x: number; y: number } {
  const [ax, ay] = [places.x(e.a), places.y(e.a)];
  const [dx, dy] = [places.x(e.b) - ax, places.y(e.b) - ay];
  const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
  const [px, py] = [ax + dx * t, ay + dy * t];
  return { distance: Math.hypot(px - x, py - y), x: px, y: py };
}
