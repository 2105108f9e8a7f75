import { columnEdges } from './pageLines';
import type { Rect } from './rect';

/** A line that things snap to: where, and what to call it. */
export interface SnapLine {
  readonly at: number;
  readonly label: string;
}
export interface SnapLines {
  readonly x: readonly SnapLine[];
  readonly y: readonly SnapLine[];
}

export interface Snapped {
  readonly dx: number;
  readonly dy: number;
  readonly x: SnapLine | null;
  readonly y: SnapLine | null;
}

/** The shift that brings one of `values` onto the nearest line within `tolerance`; none is 0 with no line. */
export function snapValues(
  values: readonly number[],
  lines: readonly SnapLine[],
  tolerance: number,
): { shift: number; line: SnapLine | null } {
  let best: { shift: number; line: SnapLine | null } = { shift: 0, line: null };
  let least = tolerance;
  for (const v of values)
    for (const line of lines) {
      const shift = line.at - v;
      if (Math.abs(shift) <= least && (Math.abs(shift) < least || !best.line)) {
        least = Math.abs(shift);
        best = { shift, line };
      }
    }
  return best;
}

/** Edges and middle of a moving box against the lines. */
export function snapBox(box: Rect, lines: SnapLines, tolerance: number): Snapped {
  const x = snapValues([box.x0, (box.x0 + box.x1) / 2, box.x1], lines.x, tolerance);
  const y = snapValues([box.y0, (box.y0 + box.y1) / 2, box.y1], lines.y, tolerance);
  return { dx: x.shift, dy: y.shift, x: x.line, y: y.line };
}

/** The page's own lines: trim, middle, margins and columns. */
export function pageSnapLines(page: {
  readonly width: number;
  readonly height: number;
  readonly margins: { readonly top: number; readonly right: number; readonly bottom: number; readonly left: number };
  readonly columns: { readonly count: number; readonly gutter: number };
  readonly bleed: number;
}): SnapLines {
  const { width: w, height: h, margins: m, bleed } = page;
  const x: SnapLine[] = [
    { at: w / 2, label: 'page centre' },
    { at: 0, label: 'trim' },
    { at: w, label: 'trim' },
    { at: m.left, label: 'margin' },
    { at: w - m.right, label: 'margin' },
  ];
  const y: SnapLine[] = [
    { at: h / 2, label: 'page centre' },
    { at: 0, label: 'trim' },
    { at: h, label: 'trim' },
    { at: m.top, label: 'margin' },
    { at: h - m.bottom, label: 'margin' },
  ];
  if (bleed > 0) {
    x.push({ at: -bleed, label: 'bleed' }, { at: w + bleed, label: 'bleed' });
    y.push({ at: -bleed, label: 'bleed' }, { at: h + bleed, label: 'bleed' });
  }
  for (const [a, b] of columnEdges(page)) x.push({ at: a, label: 'column' }, { at: b, label: 'column' });
  return { x, y };
}

/** Edges and middle of other objects. */
export function objectSnapLines(boxes: readonly Rect[]): SnapLines {
  const x: SnapLine[] = [];
  const y: SnapLine[] = [];
  for (const b of boxes) {
    x.push({ at: b.x0, label: 'edge' }, { at: (b.x0 + b.x1) / 2, label: 'middle' }, { at: b.x1, label: 'edge' });
    y.push({ at: b.y0, label: 'edge' }, { at: (b.y0 + b.y1) / 2, label: 'middle' }, { at: b.y1, label: 'edge' });
  }
  return { x, y };
}

/** A place that things snap to in both directions at once. */
export interface SnapPoint {
  readonly x: number;
  readonly y: number;
  readonly label: string;
}

/** The nearest of the places within reach of one of the points, and the shift to it. */
export function snapPoints(
  points: readonly { readonly x: number; readonly y: number }[],
  places: readonly SnapPoint[],
  tolerance: number,
): { dx: number; dy: number; place: SnapPoint } | null {
  const order = fromLeft(places);
  let best: { dx: number; dy: number; place: SnapPoint } | null = null;
  let least = tolerance;
  for (const p of points) {
    // Of places equally near, the first of the list.
    let first = -1;
    for (let i = firstFrom(order, places, p.x - least * 1.001); i < order.length; i++) {
      const place = places[order[i]];
      const [dx, dy] = [place.x - p.x, place.y - p.y];
      if (dx > least) break;
      if (Math.abs(dx) > least || Math.abs(dy) > least) continue;
      const d = Math.hypot(dx, dy);
      if (d > least || (d === least && best && order[i] > first)) continue;
      least = d;
      first = order[i];
      best = { dx, dy, place };
    }
  }
  return best;
}

const orders = new WeakMap<readonly SnapPoint[], Uint32Array>();
/** The places from left to right, found once a list: a gesture asks of thousands at every move. */
function fromLeft(places: readonly SnapPoint[]): Uint32Array {
  let order = orders.get(places);
  if (!order) orders.set(places, (order = Uint32Array.from(places.keys()).sort((a, b) => places[a].x - places[b].x)));
  return order;
}

/** The first in that order that is not left of `x`. */
function firstFrom(order: Uint32Array, places: readonly SnapPoint[], x: number): number {
  let [from, to] = [0, order.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (places[order[middle]].x < x) from = middle + 1;
    else to = middle;
  }
  return from;
}

/** The distances that a snap made equal, as stretches along one axis at a place of the other. */
export interface EqualGap {
  readonly shift: number;
  readonly gap: number;
  readonly stretches: readonly { readonly from: number; readonly to: number; readonly across: number }[];
}

/**
 * The shift along an axis that puts a box as far from a neighbour as two others are apart, or in the middle between
 * two. Only neighbours that lie beside the box count.
 */
export function snapGaps(box: Rect, others: readonly Rect[], axis: 'x' | 'y', tolerance: number): EqualGap | null {
  const [a0, a1, b0, b1] = axis === 'x' ? (['x0', 'x1', 'y0', 'y1'] as const) : (['y0', 'y1', 'x0', 'x1'] as const);
  const beside = others.filter((o) => o[b0] < box[b1] && o[b1] > box[b0]).sort((p, q) => p[a0] - q[a0]);
  const size = box[a1] - box[a0];
  let best: EqualGap | null = null;
  const offer = (to: number, gap: number, stretches: EqualGap['stretches']) => {
    const shift = to - box[a0];
    if (Math.abs(shift) <= tolerance && gap > 0 && (!best || Math.abs(shift) < Math.abs(best.shift)))
      best = { shift, gap, stretches };
  };
  const mid = (p: Rect, q: Rect) => (Math.max(p[b0], q[b0]) + Math.min(p[b1], q[b1])) / 2;
  for (let i = 0; i + 1 < beside.length; i++) {
    const [p, q] = [beside[i], beside[i + 1]];
    const gap = q[a0] - p[a1];
    if (gap <= 0) continue;
    const across = mid(p, q);
    offer(q[a1] + gap, gap, [
      { from: p[a1], to: q[a0], across },
      { from: q[a1], to: q[a1] + gap, across: mid(q, box) },
    ]);
    offer(p[a0] - gap - size, gap, [
      { from: p[a0] - gap, to: p[a0], across: mid(p, box) },
      { from: p[a1], to: q[a0], across },
    ]);
    if (gap > size) {
      const free = (gap - size) / 2;
      offer(p[a1] + free, free, [
        { from: p[a1], to: p[a1] + free, across: mid(p, box) },
        { from: p[a1] + free + size, to: q[a0], across: mid(q, box) },
      ]);
    }
  }
  return best;
}

/** Where two lists of straight pieces cross; both as x, y, x, y … */
export function crossings(
  a: readonly number[],
  b: readonly number[],
  closedA: boolean,
  closedB: boolean,
  most: number,
): { x: number; y: number }[] {
  const out: { x: number; y: number }[] = [];
  const [na, nb] = [a.length, b.length];
  for (let i = 0; i < (closedA ? na : na - 2); i += 2) {
    const j = (i + 2) % na;
    const [ax, ay, bx, by] = [a[i], a[i + 1], a[j], a[j + 1]];
    const [lx, hx, ly, hy] = [Math.min(ax, bx), Math.max(ax, bx), Math.min(ay, by), Math.max(ay, by)];
    for (let k = 0; k < (closedB ? nb : nb - 2); k += 2) {
      const l = (k + 2) % nb;
      const [cx, cy, dx, dy] = [b[k], b[k + 1], b[l], b[l + 1]];
      if (Math.max(cx, dx) < lx || Math.min(cx, dx) > hx || Math.max(cy, dy) < ly || Math.min(cy, dy) > hy) continue;
      const det = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx);
      if (det === 0) continue;
      const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / det;
      const u = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / det;
      if (t < 0 || t > 1 || u < 0 || u > 1) continue;
      out.push({ x: ax + t * (bx - ax), y: ay + t * (by - ay) });
      if (out.length >= most) return out;
    }
  }
  return out;
}
