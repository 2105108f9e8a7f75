import type { TriangleMesh } from './mesh';
import { flatten, type PathData, type Polyline } from './path';
import type { StrokeStyle } from './stroke';

/** How a gradient lies on a line: from its beginning to its end, or from its one edge to its other. */
export type LineCourse = 'along' | 'across';

/** Corners that turn less than this are curves cut into pieces: they are mitred whatever the join. */
const CURVE_TURN = Math.PI / 10;
const FAN_STEP = Math.PI / 12;

/**
 * Triangles that cover a stroked path with `pad` to spare (same unit as the path), to be cut by the stroke itself.
 * Along: t is the share of the contour's length. Across: 0 at the left edge as the path runs, ½ on the path, 1 at the
 * right edge; at pointed corners the edges meet in the tip, at round ones they go round, at cut ones they follow the
 * cut. A closed contour has no seam across. Outside the line t goes on beyond 0…1 and is to be held there.
 */
export function strokeMesh(
  path: PathData,
  style: StrokeStyle,
  course: LineCourse,
  tolerance: number,
  pad: number,
): TriangleMesh {
  const out: TriangleMesh = [];
  if (!(style.width > 0)) return out;
  for (const line of flatten(path, tolerance)) new Strip(line, style, course, pad, out).write();
  return out;
}

interface Edge {
  readonly x: number;
  readonly y: number;
}

class Strip {
  private readonly pts: { x: number; y: number; s: number }[] = [];
  private readonly closed: boolean;
  private readonly h: number;
  private readonly r: number;
  private length = 0;

  constructor(
    line: Polyline,
    private readonly style: StrokeStyle,
    private readonly course: LineCourse,
    private readonly pad: number,
    private readonly out: TriangleMesh,
  ) {
    const p = line.points;
    for (let i = 0; i < p.length; i += 2) {
      const last = this.pts[this.pts.length - 1];
      if (last && last.x === p[i] && last.y === p[i + 1]) continue;
      if (last) this.length += Math.hypot(p[i] - last.x, p[i + 1] - last.y);
      this.pts.push({ x: p[i], y: p[i + 1], s: this.length });
    }
    const [first, last] = [this.pts[0], this.pts[this.pts.length - 1]];
    this.closed = line.closed && this.pts.length > 2;
    if (this.closed) {
      const gap = Math.hypot(first.x - last.x, first.y - last.y);
      if (gap === 0) this.pts.pop();
      else this.length += gap;
    }
    this.h = style.width / 2;
    this.r = this.h + pad;
  }

  write(): void {
    const n = this.pts.length;
    if (n === 1) return this.dot();
    const segments = this.closed ? n : n - 1;
    for (let i = 0; i < segments; i++) {
      if (this.closed || i > 0) this.join(i);
      this.segment(i);
    }
    if (this.closed) this.join(0, true);
    else this.caps();
  }

  private at(i: number) {
    const n = this.pts.length;
    return this.pts[((i % n) + n) % n];
  }
  /** Unit direction of segment i → i+1. */
  private direction(i: number): Edge {
    const [a, b] = [this.at(i), this.at(i + 1)];
    const d = Math.hypot(b.x - a.x, b.y - a.y);
    return { x: (b.x - a.x) / d, y: (b.y - a.y) / d };
  }
  /** t at offset `v` (−1 left edge … 1 right edge) and `s` of the way. */
  private t(v: number, s: number): number {
    return this.course === 'along' ? (this.length ? s / this.length : 0) : 0.5 + v / 2;
  }
  private triangle(a: Edge, ta: number, b: Edge, tb: number, c: Edge, tc: number): void {
    this.out.push(a.x, a.y, ta, b.x, b.y, tb, c.x, c.y, tc);
  }
  private quad(a: Edge, ta: number, b: Edge, tb: number, c: Edge, tc: number, d: Edge, td: number): void {
    this.triangle(a, ta, b, tb, c, tc);
    this.triangle(a, ta, c, tc, d, td);
  }

  /**
   * Where an edge of the strip ends at vertex i, seen from the segment that begins (`from`) or ends there. side −1:
   * left,
   * 1: right. Mitred and inner edges meet in one point; others stop square to their own segment.
   */
  private edge(i: number, segment: number, side: -1 | 1): { p: Edge; v: number } {
    const here = this.at(i);
    const square = (d: Edge): Edge => ({ x: here.x - side * d.y * this.r, y: here.y + side * d.x * this.r });
    const own = this.direction(segment);
    const v = (side * this.r) / this.h;
    const open = !this.closed && (i === 0 || i === this.pts.length - 1);
    if (open) return { p: square(own), v };
    const turn = this.turn(i);
    const outer = turn.angle * side < 0;
    if (!outer || this.mitred(turn.angle)) {
      const k = this.r / Math.cos(turn.angle / 2);
      // The inner meeting point must lie within both segments, else the edges fold; the stroke covers the fold.
      const fits = outer || Math.abs(k * Math.sin(turn.angle / 2)) <= Math.min(this.span(i - 1), this.span(i));
      if (fits) return { p: { x: here.x - side * turn.normal.y * k, y: here.y + side * turn.normal.x * k }, v };
    }
    return { p: square(own), v };
  }
  private span(i: number): number {
    const [a, b] = [this.at(i), this.at(i + 1)];
    return Math.hypot(b.x - a.x, b.y - a.y);
  }
  /** The turn at a vertex, positive clockwise as seen (y down), and the direction half way round it. */
  private turn(i: number): { angle: number; normal: Edge } {
    const [a, b] = [this.direction(i - 1), this.direction(i)];
    const angle = Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y);
    const half = Math.atan2(a.y, a.x) + angle / 2;
    return { angle, normal: { x: Math.cos(half), y: Math.sin(half) } };
  }
  private mitred(angle: number): boolean {
    const turn = Math.abs(angle);
    if (turn < CURVE_TURN) return true;
    return this.style.join === 'miter' && 1 / Math.cos(turn / 2) <= this.style.miterLimit && turn < Math.PI - 1e-6;
  }

  private segment(i: number): void {
    const [a, b] = [this.at(i), this.at(i + 1)];
    const sa = a.s;
    const sb = this.closed && i === this.pts.length - 1 ? this.length : b.s;
    for (const side of [-1, 1] as const) {
      const [ea, eb] = [this.edge(i, i, side), this.edge((i + 1) % this.pts.length, i, side)];
      this.quad(a, this.t(0, sa), ea.p, this.t(ea.v, sa), eb.p, this.t(eb.v, sb), b, this.t(0, sb));
    }
  }

  /** The wedge on the outer side of a corner that is not mitred. */
  private join(i: number, closing = false): void {
    const { angle } = this.turn(i);
    if (this.mitred(angle)) return;
    const here = this.at(i);
    const s = closing ? this.length : here.s;
    const side = angle < 0 ? 1 : -1;
    const from = this.direction(i - 1);
    const v = (side * this.r) / this.h;
    const normal = (d: Edge, r: number): Edge => ({ x: here.x - side * d.y * r, y: here.y + side * d.x * r });
    if (this.style.join !== 'round') {
      // The cut: its edge runs straight between the two square ends, at their own place on the ramp.
      this.triangle(
        here,
        this.t(0, s),
        normal(from, this.r),
        this.t(v, s),
        normal(this.direction(i), this.r),
        this.t(v, s),
      );
      return;
    }
    this.fan(here, Math.atan2(from.y, from.x), angle, (d, r) => normal(d, r), s, v);
  }

  private fan(
    here: Edge,
    start: number,
    angle: number,
    normal: (d: Edge, r: number) => Edge,
    s: number,
    v: number,
  ): void {
    const steps = Math.max(1, Math.ceil(Math.abs(angle) / FAN_STEP));
    const reach = 1 / Math.cos(angle / steps / 2);
    const point = (k: number): Edge => {
      const a = start + (angle * k) / steps;
      return normal({ x: Math.cos(a), y: Math.sin(a) }, this.r * (k === 0 || k === steps ? 1 : reach));
    };
    for (let k = 0; k < steps; k++)
      this.triangle(here, this.t(0, s), point(k), this.t(v, s), point(k + 1), this.t(v, s));
  }

  /** Beyond the ends the ramp goes straight on across, and stays as it is along. */
  private caps(): void {
    const n = this.pts.length;
    const far = this.style.cap === 'butt' ? this.pad : this.r;
    for (const [i, segment, way] of [
      [0, 0, -1],
      [n - 1, n - 2, 1],
    ] as const) {
      const here = this.at(i);
      const d = this.direction(segment);
      const on = (p: Edge): Edge => ({ x: p.x + d.x * way * far, y: p.y + d.y * way * far });
      for (const side of [-1, 1] as const) {
        const { p, v } = this.edge(i, segment, side);
        this.quad(here, this.t(0, here.s), p, this.t(v, here.s), on(p), this.t(v, here.s), on(here), this.t(0, here.s));
      }
    }
  }

  /** A contour without length: only its cap, at the ramp's start or across it from left to right. */
  private dot(): void {
    const { x, y } = this.pts[0];
    const r = this.r;
    const t = (v: number) => (this.course === 'along' ? 0 : 0.5 + (v * r) / this.h / 2);
    this.quad(
      { x: x - r, y: y - r },
      t(-1),
      { x: x + r, y: y - r },
      t(-1),
      { x: x + r, y: y + r },
      t(1),
      { x: x - r, y: y + r },
      t(1),
    );
  }
}
