import { arrange, type Arrangement } from '../regions/arrangement';
import { curvesOf } from '../regions/faces';
import { halfOf, nextRound, type Half } from '../regions/walks';
import { contoursOf, pathOfContours, straight, type Contour } from '../segments';
import { BELONGS, NOTHING, type BooleanOp, type Region } from './region';

/** Straight pieces of regions that are some 1000 across stray no further from their curves than this. */
const TOLERANCE = 0.005;

/**
 * Boolean operations by the arrangement of all lines of both regions: how often each of them winds round each face is
 * counted from face to face, and the result's edge is where a face that belongs to it meets one that does not. Slower
 * than the fast engine and not confused by lines that run along each other. Its inside lies to the right of the way it
 * runs, as seen.
 */
export function combineArranged(a: Region, b: Region, op: BooleanOp): Region {
  const [ca, cb] = [closed(a), closed(b)];
  const inside = ({ rule }: Region, n: number) => (rule === 'evenOdd' ? (n & 1) !== 0 : n !== 0);
  const ofA = ca.reduce((n, c) => n + c.segments.length, 0);
  return edgeOf([...ca, ...cb], TOLERANCE, ofA, (na, nb) => BELONGS[op](inside(a, na), inside(b, nb)));
}

/**
 * What closed contours wind round more often clockwise than the other way (`sign` 1; −1: the other way more often), as
 * seen; curves within `tolerance`.
 */
export const woundRegion = (contours: readonly Contour[], sign: 1 | -1, tolerance: number): Region =>
  edgeOf(contours, tolerance, Infinity, (n) => n * sign > 0);

/** Contours as fills see them: closed. */
function closed(r: Region): Contour[] {
  return contoursOf(r.path).map(({ segments }) => {
    const [first, last] = [segments[0], segments[segments.length - 1]];
    const open = first.x0 !== last.x3 || first.y0 !== last.y3;
    return { segments: open ? [...segments, straight(last.x3, last.y3, first.x0, first.y0)] : segments, closed: true };
  });
}

/**
 * The edge of the faces that belong, told by how often the first `ofA` segments' contours wind round them, and how
 * often the others.
 */
function edgeOf(
  contours: readonly Contour[],
  tolerance: number,
  ofA: number,
  belongs: (a: number, b: number) => boolean,
): Region {
  const made = arrange(contours, tolerance);
  const { edges } = made;
  const { faceOf, count } = facesRound(made);
  const [a, b] = windings(made, faceOf, count, ofA);
  const halves: Half[] = [];
  edges.forEach((_, edge) => {
    const [right, left] = [faceOf[2 * edge], faceOf[2 * edge + 1]];
    const [r, l] = [belongs(a[right], b[right]), belongs(a[left], b[left])];
    if (r !== l) halves.push(halfOf(made, 2 * edge + (r ? 0 : 1)));
  });
  if (!halves.length) return NOTHING;
  const sources = contours.flatMap((c) => c.segments);
  const loops = loopsOf(made, halves);
  return {
    path: pathOfContours(loops.map((loop) => ({ segments: curvesOf(made, sources, loop), closed: true }))),
    rule: 'nonZero',
  };
}

/** The number of the face to the right of every edge run there (even) and back (odd). */
function facesRound(made: Arrangement): { readonly faceOf: Int32Array; readonly count: number } {
  const next = nextRound(made);
  const faceOf = new Int32Array(next.length).fill(-1);
  let count = 0;
  for (let start = 0; start < faceOf.length; start++) {
    if (faceOf[start] >= 0) continue;
    for (let h = start; faceOf[h] < 0; h = next[h]) faceOf[h] = count;
    count++;
  }
  return { faceOf, count };
}

/** How often the contours of the first `ofA` segments wind clockwise round each face, and how often the others. */
function windings(
  made: Arrangement,
  faceOf: Int32Array,
  count: number,
  ofA: number,
): readonly [Int32Array, Int32Array] {
  const { points, edges, runs } = made;
  const [a, b] = [new Int32Array(count), new Int32Array(count)];
  const share = edges.map((_, i) => {
    let [na, nb] = [0, 0];
    for (const run of runs[i]) {
      if (Math.abs(run) - 1 < ofA) na += Math.sign(run);
      else nb += Math.sign(run);
    }
    return [na, nb] as const;
  });
  const parts = connected(made);
  const known = new Uint8Array(count);
  const at = new Map<number, number[]>();
  faceOf.forEach((face, half) => {
    const list = at.get(face);
    if (list) list.push(half);
    else at.set(face, [half]);
  });
  for (const part of parts) {
    // From its place furthest left, nothing of the part lies to the left: only other parts wind round the face there.
    let left = edges[part[0]].a;
    for (const e of part)
      for (const v of [edges[e].a, edges[e].b])
        if (points[2 * v] < points[2 * left] || (points[2 * v] === points[2 * left] && v < left)) left = v;
    const first = outermost(made, part, left);
    const own = new Set(part);
    const [x, y] = [points[2 * left], points[2 * left + 1]];
    if (parts.length > 1)
      edges.forEach((e, i) => {
        if (own.has(i)) return;
        const [y0, y1] = [points[2 * e.a + 1], points[2 * e.b + 1]];
        if (y0 <= y === y1 <= y) return;
        const [x0, x1] = [points[2 * e.a], points[2 * e.b]];
        if (x0 + ((y - y0) / (y1 - y0)) * (x1 - x0) >= x) return;
        // What runs up the page to the left of a place winds round it clockwise.
        const way = y1 < y0 ? 1 : -1;
        a[faceOf[first]] += way * share[i][0];
        b[faceOf[first]] += way * share[i][1];
      });
    known[faceOf[first]] = 1;
    const open = [faceOf[first]];
    for (let face = open.pop(); face !== undefined; face = open.pop())
      for (const half of at.get(face)!) {
        const over = faceOf[half ^ 1];
        if (known[over]) continue;
        known[over] = 1;
        const way = half & 1 ? 1 : -1;
        a[over] = a[face] + way * share[half >> 1][0];
        b[over] = b[face] + way * share[half >> 1][1];
        open.push(over);
      }
  }
  return [a, b];
}

/**
 * Of the edges at a part's place furthest left the one that runs from it furthest down: the outside lies to its right.
 */
function outermost({ points, edges }: Arrangement, part: readonly number[], place: number): number {
  let [best, most] = [0, -Infinity];
  for (const e of part) {
    const { a, b } = edges[e];
    if (a !== place && b !== place) continue;
    const to = a === place ? b : a;
    const angle = Math.atan2(points[2 * to + 1] - points[2 * place + 1], points[2 * to] - points[2 * place]);
    if (angle > most) [best, most] = [2 * e + (a === place ? 0 : 1), angle];
  }
  return best;
}

/** Edges that hang together. */
function connected({ edges }: Arrangement): number[][] {
  const root = new Map<number, number>();
  const find = (v: number): number => {
    let r = v;
    for (let up = root.get(r); up !== undefined && up !== r; up = root.get(r)) r = up;
    for (let w = v; w !== r;) {
      const up = root.get(w)!;
      root.set(w, r);
      w = up;
    }
    return r;
  };
  for (const { a, b } of edges) {
    const [ra, rb] = [find(a), find(b)];
    root.set(ra, rb);
    if (!root.has(rb)) root.set(rb, rb);
  }
  const parts = new Map<number, number[]>();
  edges.forEach(({ a }, i) => {
    const r = find(a);
    const list = parts.get(r);
    if (list) list.push(i);
    else parts.set(r, [i]);
  });
  return [...parts.values()];
}

/** Walks made of the halves, each used once; where several go on, the first one round from where it came. */
function loopsOf({ points }: Arrangement, halves: readonly Half[]): Half[][] {
  const out = new Map<number, Half[]>();
  for (const h of halves) {
    const list = out.get(h.from);
    if (list) list.push(h);
    else out.set(h.from, [h]);
  }
  const angle = (from: number, to: number): number =>
    Math.atan2(points[2 * to + 1] - points[2 * from + 1], points[2 * to] - points[2 * from]);
  const turn = (last: Half, next: Half): number => {
    const by = angle(last.to, last.from) - angle(next.from, next.to);
    return by > 0 ? by : by + 2 * Math.PI;
  };
  const loops: Half[][] = [];
  const done = new Set<Half>();
  for (const start of halves) {
    if (done.has(start)) continue;
    const loop: Half[] = [];
    for (let h: Half | null = start; h;) {
      const now: Half = h;
      loop.push(now);
      done.add(now);
      const ways: readonly Half[] = (out.get(now.to) ?? []).filter((w) => !done.has(w));
      h = now.to === start.from || !ways.length ? null : ways.reduce((x, w) => (turn(now, w) < turn(now, x) ? w : x));
    }
    loops.push(loop);
  }
  return loops;
}
