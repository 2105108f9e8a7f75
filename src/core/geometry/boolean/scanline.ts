import { cubicAt } from '../path';
import { contoursOf, straight, type Segment } from '../segments';
import { BELONGS, boundsOf, type BooleanOp, type Region } from './region';

/**
 * The truth about a boolean operation, read off its inputs line by line, without any engine: where does a horizontal
 * line cross the curves, which spans of it belong to the result, and do the result's own spans say the same?
 */

/** A part of a curve that only rises or only falls. */
interface Edge {
  readonly s: Segment;
  readonly t0: number;
  readonly t1: number;
  readonly y0: number;
  readonly y1: number;
  readonly low: number;
  readonly high: number;
  /** +1 where it runs down the page, −1 up. */
  readonly way: 1 | -1;
}

export interface Scannable {
  readonly edges: readonly Edge[];
  readonly evenOdd: boolean;
}

/** Cuts a region's curves into edges, sorted by where they begin. */
export function scannable(region: Region): Scannable {
  const edges: Edge[] = [];
  for (const { segments, closed } of contoursOf(region.path)) {
    for (const s of segments) addEdges(edges, s);
    const [first, last] = [segments[0], segments[segments.length - 1]];
    if (!closed && (first.x0 !== last.x3 || first.y0 !== last.y3))
      addEdges(edges, straight(last.x3, last.y3, first.x0, first.y0));
  }
  edges.sort((a, b) => a.low - b.low);
  return { edges, evenOdd: region.rule === 'evenOdd' };
}

function addEdges(edges: Edge[], s: Segment): void {
  const turns = s.straight ? [] : turnsOf(s.y0, s.y1, s.y2, s.y3);
  let [t0, y0] = [0, s.y0];
  for (const t1 of [...turns, 1]) {
    const y1 = t1 === 1 ? s.y3 : cubicAt(s.y0, s.y1, s.y2, s.y3, t1);
    if (y0 !== y1)
      edges.push({ s, t0, t1, y0, y1, low: Math.min(y0, y1), high: Math.max(y0, y1), way: y1 > y0 ? 1 : -1 });
    [t0, y0] = [t1, y1];
  }
}

/** Parameters inside 0…1 where one coordinate of a cubic turns back, in order. */
function turnsOf(a: number, b: number, c: number, d: number): number[] {
  const qa = -a + 3 * b - 3 * c + d;
  const qb = 2 * (a - 2 * b + c);
  const qc = b - a;
  const roots: number[] = [];
  if (Math.abs(qa) < 1e-12) {
    if (Math.abs(qb) > 1e-12) roots.push(-qc / qb);
  } else {
    const disc = qb * qb - 4 * qa * qc;
    if (disc > 0) {
      const q = -(qb + (qb < 0 ? -1 : 1) * Math.sqrt(disc)) / 2;
      roots.push(q / qa);
      if (q !== 0) roots.push(qc / q);
    }
  }
  return roots.filter((t) => t > 1e-12 && t < 1 - 1e-12).sort((u, v) => u - v);
}

/** Where an edge crosses a line that lies between its ends. */
function crossing(e: Edge, y: number): number {
  const { s } = e;
  const share = (y - e.y0) / (e.y1 - e.y0);
  if (s.straight) return s.x0 + (s.x3 - s.x0) * (e.t0 + (e.t1 - e.t0) * share);
  let [lo, hi] = [e.t0, e.t1];
  let t = lo + (hi - lo) * share;
  for (let i = 0; i < 60; i++) {
    const miss = cubicAt(s.y0, s.y1, s.y2, s.y3, t) - y;
    if (Math.abs(miss) < 1e-10) break;
    if (miss > 0 === e.way > 0) hi = t;
    else lo = t;
    const u = 1 - t;
    const slope = 3 * (u * u * (s.y1 - s.y0) + 2 * u * t * (s.y2 - s.y1) + t * t * (s.y3 - s.y2));
    const next = t - miss / slope;
    const to = next > lo && next < hi ? next : (lo + hi) / 2;
    if (Math.abs(to - t) < 1e-14) break;
    t = to;
  }
  return cubicAt(s.x0, s.x1, s.x2, s.x3, t);
}

/** What of a horizontal line lies inside: x from, to, from, to … */
export function spansAt(r: Scannable, y: number): number[] {
  const crossings: { x: number; way: number }[] = [];
  for (const e of r.edges) {
    if (e.low > y) break;
    if (e.high > y) crossings.push({ x: crossing(e, y), way: e.way });
  }
  crossings.sort((a, b) => a.x - b.x);
  const out: number[] = [];
  let winding = 0;
  for (const { x, way } of crossings) {
    const was = r.evenOdd ? (winding & 1) !== 0 : winding !== 0;
    winding += way;
    const is = r.evenOdd ? (winding & 1) !== 0 : winding !== 0;
    if (was !== is) out.push(x);
  }
  if (out.length % 2) out.pop();
  return out;
}

/** Spans that belong to the result of an operation on two lists of spans. */
function combineSpans(
  a: readonly number[],
  b: readonly number[],
  belongs: (a: boolean, b: boolean) => boolean,
): number[] {
  const out: number[] = [];
  let [i, j] = [0, 0];
  let was = false;
  while (i < a.length || j < b.length) {
    const x = j >= b.length || (i < a.length && a[i] <= b[j]) ? a[i++] : b[j++];
    const is = belongs((i & 1) === 1, (j & 1) === 1);
    if (is !== was) out.push(x);
    was = is;
  }
  return out;
}

function spanLength(spans: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < spans.length; i += 2) sum += spans[i + 1] - spans[i];
  return sum;
}

/**
 * How far a result is from the truth: the area on which they differ, as a share of the area of both inputs together,
 * measured on `lines` horizontal lines. 0 for two empty inputs.
 */
export function wrongShare(a: Region, b: Region, op: BooleanOp, result: Region, lines: number): number {
  const box = boundsOf(a, b);
  if (!(box.y1 > box.y0)) return 0;
  const [ra, rb, rr] = [scannable(a), scannable(b), scannable(result)];
  const step = (box.y1 - box.y0) / lines;
  let [differs, both] = [0, 0];
  for (let i = 0; i < lines; i++) {
    // A hair beside the middle: round measures put their edges on round lines.
    const y = box.y0 + (i + 0.5 + 1e-7) * step;
    const [sa, sb] = [spansAt(ra, y), spansAt(rb, y)];
    both += spanLength(combineSpans(sa, sb, BELONGS.union));
    const truth = combineSpans(sa, sb, BELONGS[op]);
    differs += spanLength(combineSpans(truth, spansAt(rr, y), BELONGS.exclude));
  }
  // What lies outside the inputs' box is wrong as well.
  const out = boundsOf(result);
  const slack = 1e-4 * Math.max(box.x1 - box.x0, box.y1 - box.y0);
  if (result.path.length && (out.y0 < box.y0 - slack || out.y1 > box.y1 + slack)) return 1;
  return both > 0 ? differs / both : 0;
}
