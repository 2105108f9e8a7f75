import type { Point } from './matrix';
import { parameterAt, segmentLength, tangentOn } from './measure';
import type { PathData } from './path';
import { contoursOf, partOfSegment, pathOfContours, straight, type Contour, type Segment } from './segments';

/** How a corner is treated; `radius` in the path's own unit. */
export interface CornerStyle {
  readonly radius: number;
  readonly kind: 'round' | 'cut' | 'scoop';
}

/** A node where a path changes direction: its number among the path's nodes, where it is, and by how much it turns. */
export interface PathCorner {
  readonly node: number;
  readonly at: Point;
  /** Unit vectors along the pieces before and after, as the path runs. */
  readonly before: Point;
  readonly after: Point;
  /** Degrees by which the direction changes, 0…180. */
  readonly turns: number;
}

/** A change of direction below this is the curve's own (degrees). */
const SMOOTH = 2;

/** The corners of a path. Nodes are counted contour by contour; the node that closes a contour is its first. */
export function cornersOf(path: PathData): PathCorner[] {
  const out: PathCorner[] = [];
  let base = 0;
  for (const c of contoursOf(path)) {
    const n = c.segments.length;
    for (let i = c.closed ? 0 : 1; i < n; i++) {
      const [prev, next] = [c.segments[(i + n - 1) % n], c.segments[i]];
      const [before, after] = [tangentOn(prev, 1), tangentOn(next, 0)];
      const turns = turnBetween(before, after);
      if (turns > SMOOTH) out.push({ node: base + i, at: { x: next.x0, y: next.y0 }, before, after, turns });
    }
    base += nodesIn(c);
  }
  return out;
}

/** Nodes of a path, contour by contour. */
export const nodesIn = (c: Contour): number => c.segments.length + (c.closed ? 0 : 1);

function turnBetween(a: Point, b: Point): number {
  return (Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y)) * 180) / Math.PI;
}

/**
 * The path with its corners treated. Between straight pieces a round corner is the arc that touches both at
 * radius · tan(turn / 2) from the corner (one cubic up to a right angle and beyond, handles 4/3 · tan(angle / 4) of the
 * radius). Where two corners would meet on a piece, both shrink alike.
 */
export function withCorners(path: PathData, styleOf: (node: number) => CornerStyle | undefined): PathData {
  const corners = new Map(cornersOf(path).map((c) => [c.node, c]));
  let base = 0;
  let changed = false;
  const contours = contoursOf(path).map((contour): Contour => {
    const { segments, closed } = contour;
    const n = segments.length;
    const first = base;
    base += nodesIn(contour);
    const lengths = segments.map((s) => segmentLength(s));
    const wanted = segments.map((_, i) => {
      const corner = corners.get(first + i);
      const style = corner && styleOf(first + i);
      if (!corner || !style || !(style.radius > 0)) return null;
      // At a turn of a half circle no arc fits: the corner stays.
      if (corner.turns > 179) return null;
      const reach = style.radius * Math.tan((corner.turns * Math.PI) / 360);
      return { style, reach: style.kind === 'round' ? reach : style.radius };
    });
    if (!wanted.some(Boolean)) return contour;
    changed = true;
    const reach = wanted.map((w, i) => {
      if (!w) return 0;
      const share = (edge: number, other: number) => {
        const sum = w.reach + (wanted[other]?.reach ?? 0);
        return sum > lengths[edge] ? lengths[edge] / sum : 1;
      };
      const prev = (i + n - 1) % n;
      const ahead = closed || i + 1 < n ? (i + 1) % n : i;
      return w.reach * Math.min(share(prev, prev), share(i, ahead === i ? -1 : ahead));
    });
    const trimmed = segments.map((s, i) => {
      const from = parameterAt(s, reach[i], lengths[i]);
      const next = i + 1 < n ? reach[i + 1] : closed ? reach[0] : 0;
      const to = next > 0 ? parameterAt(s, lengths[i] - next, lengths[i]) : 1;
      return { segment: partOfSegment(s, Math.min(from, to), to), gone: to - from < 1e-9 };
    });
    const out: Segment[] = [];
    for (let i = 0; i < n; i++) {
      const w = wanted[i];
      if (w && reach[i] > 0) {
        const prev = trimmed[(i + n - 1) % n].segment;
        const next = trimmed[i].segment;
        const corner = corners.get(first + i)!;
        out.push(...bridge(prev, next, { x: segments[i].x0, y: segments[i].y0 }, corner, w.style.kind));
      }
      if (!trimmed[i].gone) out.push(trimmed[i].segment);
    }
    return { segments: out, closed };
  });
  return changed ? pathOfContours(contours) : path;
}

/** What lies between the two trimmed pieces at a corner. */
function bridge(
  prev: Segment,
  next: Segment,
  corner: Point,
  { before, after }: PathCorner,
  kind: CornerStyle['kind'],
): Segment[] {
  const [p, q] = [
    { x: prev.x3, y: prev.y3 },
    { x: next.x0, y: next.y0 },
  ];
  if (kind === 'cut') return [straight(p.x, p.y, q.x, q.y)];
  if (kind === 'round') {
    const a = prev.straight ? before : tangentOn(prev, 1);
    const b = next.straight ? after : tangentOn(next, 0);
    return [arc(p, a, q, b)];
  }
  // Scooped: an arc about the corner itself, bulging inwards, from the one piece to the other.
  const [r0, r1] = [Math.hypot(p.x - corner.x, p.y - corner.y), Math.hypot(q.x - corner.x, q.y - corner.y)];
  const a0 = Math.atan2(p.y - corner.y, p.x - corner.x);
  let sweep = Math.atan2(q.y - corner.y, q.x - corner.x) - a0;
  if (sweep > Math.PI) sweep -= 2 * Math.PI;
  if (sweep < -Math.PI) sweep += 2 * Math.PI;
  const parts = Math.ceil(Math.abs(sweep) / (Math.PI / 2) - 1e-9);
  const at = (k: number) => {
    const t = k / parts;
    const r = r0 + (r1 - r0) * t;
    const angle = a0 + sweep * t;
    return { x: corner.x + r * Math.cos(angle), y: corner.y + r * Math.sin(angle), angle, r };
  };
  const handle = (4 / 3) * Math.tan(sweep / parts / 4);
  return Array.from({ length: parts }, (_, k) => {
    const [u, v] = [at(k), at(k + 1)];
    return {
      x0: k === 0 ? p.x : u.x,
      y0: k === 0 ? p.y : u.y,
      x1: u.x - handle * u.r * Math.sin(u.angle),
      y1: u.y + handle * u.r * Math.cos(u.angle),
      x2: v.x + handle * v.r * Math.sin(v.angle),
      y2: v.y - handle * v.r * Math.cos(v.angle),
      x3: k === parts - 1 ? q.x : v.x,
      y3: k === parts - 1 ? q.y : v.y,
      straight: false,
    };
  });
}

/** One cubic from a point and its direction to another: the circle's where such a circle exists. */
function arc(p: Point, a: Point, q: Point, b: Point): Segment {
  const turn = Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y));
  const chord = Math.hypot(q.x - p.x, q.y - p.y);
  const radius = turn > 1e-6 ? chord / (2 * Math.sin(turn / 2)) : 0;
  const handle = turn > 1e-6 ? (4 / 3) * Math.tan(turn / 4) * radius : chord / 3;
  return {
    x0: p.x,
    y0: p.y,
    x1: p.x + a.x * handle,
    y1: p.y + a.y * handle,
    x2: q.x - b.x * handle,
    y2: q.y - b.y * handle,
    x3: q.x,
    y3: q.y,
    straight: false,
  };
}

/** Where a circle of a radius would begin on both sides of a corner, for handles: along the bisector, inwards. */
export function bisector({ before, after }: PathCorner): Point {
  const [x, y] = [after.x - before.x, after.y - before.y];
  const n = Math.hypot(x, y) || 1;
  return { x: x / n, y: y / n };
}
