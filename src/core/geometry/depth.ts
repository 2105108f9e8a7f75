import { isCorner } from './dash';
import type { Point } from './matrix';
import { pointOn, tangentOn } from './measure';
import { CLOSE, CUBIC, LINE, MOVE, type PathData } from './path';
import { partOfSegment, type Contour, type Segment } from './segments';

/**
 * Where a flat area is pushed back to: every point by the same way, or `share` (0…1) of its own way to a vanishing
 * point.
 */
export type Push = { readonly by: Point } | { readonly to: Point; readonly share: number };

/** A part of a side that is shaded as one. */
export interface Facet {
  readonly path: PathData;
  /** Which way it looks, degrees clockwise from the right. */
  readonly looks: number;
}
/** A side of a pushed area from corner to corner: its outline, and its parts. */
export interface Side {
  readonly path: PathData;
  readonly facets: readonly Facet[];
}

/** A curve is shaded anew after so many degrees. */
const FACET = 10;
/** No bend has more facets than this. */
const MOST_FACETS = 24;
/** Places on a curve at which it is asked which way it looks. */
const LOOKS = 24;

/** A run of pieces that all look the way the area is pushed. */
type Run = Segment[];

/**
 * The sides of an area that is pushed back and seen from before it, the farthest first: those that look the way it is
 * pushed. What a nearer one, or the face itself, covers lies below it when they are painted in that order. Contours run
 * with their inside to the right (`orientedContours`).
 */
export function depthSides(contours: readonly Contour[], push: Push): Side[] {
  const runs = contours.flatMap((c) => runsOf(c, push));
  return inOrder(runs, push).map((run) => ({
    path: band(run, push),
    facets: run.flatMap(facetsOf).map((s) => ({ path: band([s], push), looks: lookOf(s) })),
  }));
}

/** The area at its back. */
export const pushed = (p: Point, push: Push): Point =>
  'by' in push
    ? { x: p.x + push.by.x, y: p.y + push.by.y }
    : { x: p.x + (push.to.x - p.x) * push.share, y: p.y + (push.to.y - p.y) * push.share };

/** The way a place is pushed. */
const wayAt = (p: Point, push: Push): Point => ('by' in push ? push.by : { x: push.to.x - p.x, y: push.to.y - p.y });

/** More than nothing where a piece looks the way it is pushed: the way across its own, to the left of it. */
function facing(s: Segment, t: number, push: Push): number {
  const d = tangentOn(s, t);
  const w = wayAt(pointOn(s, t), push);
  return d.y * w.x - d.x * w.y;
}

const lookOf = (s: Segment): number => {
  const d = tangentOn(s, 0.5);
  return (Math.atan2(-d.x, d.y) * 180) / Math.PI;
};

/** What of a contour looks the way it is pushed, cut at its corners. */
function runsOf({ segments }: Contour, push: Push): Run[] {
  const pieces: { readonly s: Segment; readonly seen: boolean }[] = [];
  for (const s of segments) {
    const cuts = [0, ...turnsOf(s, push), 1];
    for (let i = 0; i + 1 < cuts.length; i++) {
      if (cuts[i + 1] - cuts[i] < 1e-9) continue;
      const part = cuts[i] === 0 && cuts[i + 1] === 1 ? s : partOfSegment(s, cuts[i], cuts[i + 1]);
      // A straight piece may look along the way it is pushed: nothing is seen of it.
      pieces.push({ s: part, seen: facing(part, 0.5, push) > 1e-9 });
    }
  }
  const runs: Run[] = [];
  const n = pieces.length;
  let open: Run | null = null;
  // Begun where a run cannot go on, so that none is cut in two by where the contour begins.
  const start = pieces.findIndex((p, i) => !goesOn(pieces[(i + n - 1) % n], p));
  for (let k = 0; k < n; k++) {
    const at = (Math.max(0, start) + k) % n;
    const p = pieces[at];
    if (!p.seen) open = null;
    else if (open && goesOn(pieces[(at + n - 1) % n], p)) open.push(p.s);
    else runs.push((open = [p.s]));
  }
  return runs;
}

const goesOn = (a: { s: Segment; seen: boolean }, b: { s: Segment; seen: boolean }): boolean =>
  a.seen && b.seen && !isCorner(a.s, b.s);

/** Parameters at which a curve begins or ends to look the way it is pushed. */
function turnsOf(s: Segment, push: Push): number[] {
  if (s.straight) return [];
  const out: number[] = [];
  let was = facing(s, 0, push);
  for (let i = 1; i <= LOOKS; i++) {
    const now = facing(s, i / LOOKS, push);
    if (was > 0 !== now > 0) {
      let [lo, hi] = [(i - 1) / LOOKS, i / LOOKS];
      for (let k = 0; k < 40; k++) {
        const m = (lo + hi) / 2;
        if (facing(s, m, push) > 0 === was > 0) lo = m;
        else hi = m;
      }
      out.push((lo + hi) / 2);
    }
    was = now;
  }
  return out;
}

/** A curve in parts that hardly bend. */
function facetsOf(s: Segment): Segment[] {
  if (s.straight) return [s];
  let bends = 0;
  let last = tangentOn(s, 0);
  for (let i = 1; i <= 8; i++) {
    const d = tangentOn(s, i / 8);
    bends += Math.abs(Math.atan2(last.x * d.y - last.y * d.x, last.x * d.x + last.y * d.y));
    last = d;
  }
  const n = Math.min(MOST_FACETS, Math.max(1, Math.ceil((bends * 180) / Math.PI / FACET)));
  return n === 1 ? [s] : Array.from({ length: n }, (_, i) => partOfSegment(s, i / n, (i + 1) / n));
}

/** The area between a run and where it is pushed to. */
function band(run: readonly Segment[], push: Push): PathData {
  const first = run[0];
  const out: number[] = [MOVE, first.x0, first.y0];
  for (const s of run) {
    if (s.straight) out.push(LINE, s.x3, s.y3);
    else out.push(CUBIC, s.x1, s.y1, s.x2, s.y2, s.x3, s.y3);
  }
  const at = (x: number, y: number): [number, number] => {
    const p = pushed({ x, y }, push);
    return [p.x, p.y];
  };
  const last = run[run.length - 1];
  out.push(LINE, ...at(last.x3, last.y3));
  for (let i = run.length - 1; i >= 0; i--) {
    const s = run[i];
    if (s.straight) out.push(LINE, ...at(s.x0, s.y0));
    else out.push(CUBIC, ...at(s.x2, s.y2), ...at(s.x1, s.y1), ...at(s.x0, s.y0));
  }
  out.push(CLOSE);
  return out;
}

/** A run as places across the way it is pushed (`u`, rising) and along it (`w`). */
interface Seen {
  readonly run: Run;
  readonly u: readonly number[];
  readonly w: readonly number[];
}

/**
 * Runs so that of two that lie behind one another on the way the nearer one comes later: what is seen at a place is the
 * edge that was pushed the least to reach it. Runs do not cross, so that there is such an order.
 */
function inOrder(runs: readonly Run[], push: Push): Run[] {
  const seen = runs.map((run) => seenFrom(run, push));
  const after: number[][] = runs.map(() => []);
  const waits = runs.map(() => 0);
  const turns = 'to' in push ? [0, 2 * Math.PI, -2 * Math.PI] : [0];
  for (let i = 0; i < seen.length; i++)
    for (let j = i + 1; j < seen.length; j++) {
      for (const by of turns) {
        const nearer = compare(seen[i], seen[j], by);
        if (!nearer) continue;
        // The farther one is painted first.
        const [first, then] = nearer > 0 ? [j, i] : [i, j];
        after[first].push(then);
        waits[then]++;
        break;
      }
    }
  const far = (i: number): number => Math.max(...seen[i].w);
  const ready = runs.map((_, i) => i).filter((i) => !waits[i]);
  const out: Run[] = [];
  const done = new Set<number>();
  while (out.length < runs.length) {
    // Arithmetic may close a ring of runs that touch: then the farthest goes first.
    if (!ready.length) {
      const rest = runs.map((_, i) => i).filter((i) => !done.has(i));
      ready.push(rest.reduce((a, b) => (far(b) < far(a) ? b : a)));
    }
    const i = ready.pop()!;
    if (done.has(i)) continue;
    done.add(i);
    out.push(runs[i]);
    for (const k of after[i]) if (--waits[k] === 0) ready.push(k);
  }
  return out;
}

/** Places on each piece by which runs are compared. */
const STEPS = 6;
function seenFrom(run: Run, push: Push): Seen {
  const u: number[] = [];
  const w: number[] = [];
  for (const [i, s] of run.entries()) {
    const n = s.straight && 'by' in push ? 1 : STEPS;
    for (let k = i ? 1 : 0; k <= n; k++) {
      const p = pointOn(s, k / n);
      if ('by' in push) {
        const { x, y } = push.by;
        u.push(p.x * y - p.y * x);
        w.push(p.x * x + p.y * y);
      } else {
        const [x, y] = [p.x - push.to.x, p.y - push.to.y];
        const angle = Math.atan2(y, x);
        const before = u[u.length - 1];
        // Angles go on where they turn over.
        u.push(before === undefined ? angle : before + wrapped(angle - before));
        w.push(-Math.hypot(x, y));
      }
    }
  }
  return u[0] <= u[u.length - 1] ? { run, u, w } : { run, u: u.reverse(), w: w.reverse() };
}

const wrapped = (a: number): number => a - 2 * Math.PI * Math.round(a / (2 * Math.PI));

/**
 * Which of two runs is nearer where both lie on one way: 1 the first, −1 the second, 0 neither. `by` shifts the second.
 */
function compare(a: Seen, b: Seen, by: number): -1 | 0 | 1 {
  const lo = Math.max(a.u[0], b.u[0] + by);
  const hi = Math.min(a.u[a.u.length - 1], b.u[b.u.length - 1] + by);
  if (!(hi - lo > 1e-9 * Math.max(1, Math.abs(hi), Math.abs(lo)))) return 0;
  const m = (lo + hi) / 2;
  const [wa, wb] = [valueAt(a, m), valueAt(b, m - by)];
  return wa === wb ? 0 : wa > wb ? 1 : -1;
}

function valueAt({ u, w }: Seen, at: number): number {
  let [lo, hi] = [0, u.length - 1];
  while (hi - lo > 1) {
    const m = (lo + hi) >> 1;
    if (u[m] <= at) lo = m;
    else hi = m;
  }
  const t = u[hi] > u[lo] ? (at - u[lo]) / (u[hi] - u[lo]) : 0;
  return w[lo] + (w[hi] - w[lo]) * t;
}
