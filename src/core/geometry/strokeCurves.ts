import { dashPath } from './dash';
import { pointOn, tangentOn } from './measure';
import type { Point } from './matrix';
import { reversedSegment } from './orient';
import { PathBuilder, type PathData } from './path';
import { contoursOf, partOfSegment, pathOfContours, type Contour, type Segment } from './segments';
import { strokeOutline, type StrokeStyle } from './stroke';

/**
 * The outline of a stroked path as curves, to be filled non-zero: the same area as `strokeOutline` gives, with few
 * nodes, so that a person can go on with it. Its sides stay within `tolerance` of the true ones. Where a bend is
 * tighter than half the width, its inner side is a fold; it lies within the line, and straight pieces stand for what it
 * covers.
 */
export function strokeCurves(path: PathData, style: StrokeStyle, tolerance: number): PathData {
  if (!(style.width > 0)) return [];
  const out = new PathBuilder();
  const h = style.width / 2;
  const cut = style.dash ? dashPath(path, style.dash) : path;
  for (const { segments, closed } of contoursOf(cut)) {
    const back = segments.map(reversedSegment).reverse();
    const side = new Side(out, h, style, tolerance);
    if (closed) {
      side.walk(segments, true);
      side.finish();
      side.walk(back, true);
      side.finish();
      continue;
    }
    side.walk(segments, false);
    side.cap(segments[segments.length - 1]);
    side.walk(back, false);
    side.cap(back[back.length - 1]);
    side.finish();
  }
  // Points, which only caps show.
  for (const v of dotsOf(cut, style, tolerance)) out.data.push(v);
  return out.data;
}

/**
 * The left side (left when y points up) of closed contours at a distance, as curves, run the way the contours run. All
 * that lies between them and it winds that way, however tight a bend or a corner is.
 */
export function sideCurves(
  contours: readonly Contour[],
  distance: number,
  corners: Pick<StrokeStyle, 'join' | 'miterLimit'>,
  tolerance: number,
): PathData {
  const out = new PathBuilder();
  const side = new Side(out, distance, { ...corners, width: 2 * distance, cap: 'butt' }, tolerance, true);
  for (const { segments } of contours) {
    side.walk(segments, true);
    side.finish();
  }
  return out.data;
}

/** Contours without length. */
function dotsOf(path: PathData, style: StrokeStyle, tolerance: number): PathData {
  const out: number[] = [];
  for (let i = 0; i < path.length; i++) {
    // Of a path that has been taken apart only moves that nothing follows are left out.
    if (path[i] === 0 && (path[i + 3] === undefined || path[i + 3] === 0 || path[i + 3] === 3)) {
      const dot = strokeOutline([0, path[i + 1], path[i + 2]], { ...style, dash: undefined }, tolerance);
      for (const v of dot) out.push(v);
    }
    i += [2, 2, 6, 0][path[i]];
  }
  return out;
}

const SPLITS = 33;
const DEEPEST = 12;
const SAMPLES = 8;
const ROUNDS = 5;
/** A fold is laid in straight lines that turn by no more than this. */
const FOLD_TURN = Math.PI / 4;

/** Walks the left side of a contour (left when y points up), as `strokeOutline` does, in curves. */
class Side {
  private begun = false;
  private readonly folds: number[] = [];

  constructor(
    private readonly out: PathBuilder,
    private readonly h: number,
    private readonly style: StrokeStyle,
    private readonly tolerance: number,
    /** What a fold covers is part of the side itself. */
    private readonly bare = false,
  ) {}

  finish(): void {
    if (this.begun) this.out.close();
    this.begun = false;
    for (const v of this.folds.splice(0)) this.out.data.push(v);
  }

  private to(p: Point): void {
    if (this.begun) this.out.lineTo(p.x, p.y);
    else this.out.moveTo(p.x, p.y);
    this.begun = true;
  }

  walk(segments: readonly Segment[], closed: boolean): void {
    segments.forEach((s, i) => {
      this.piece(s);
      const next = segments[i + 1] ?? (closed ? segments[0] : null);
      if (next) this.corner(s, next);
    });
  }

  private off = (s: Segment, t: number): Point => {
    const [p, d] = [pointOn(s, t), tangentOn(s, t)];
    return { x: p.x + d.y * this.h, y: p.y - d.x * this.h };
  };

  private piece(s: Segment): void {
    this.to(this.off(s, 0));
    if (s.straight) return this.to(this.off(s, 1));
    const cuts = [0, ...this.foldsOf(s), 1];
    for (let i = 0; i + 1 < cuts.length; i++) {
      const [a, b] = [cuts[i], cuts[i + 1]];
      if (b - a < 1e-9) continue;
      const part = partOfSegment(s, a, b);
      if (this.speed(part, 0.5) > 0) this.smooth(part, 0);
      else if (this.bare) {
        // As short straight lines with inner corners between: what each of them covers counts.
        this.chords(part);
      } else {
        // Folded: through the line itself, and what the fold covers by itself.
        this.to({ x: part.x0, y: part.y0 });
        this.out.curveTo(part.x1, part.y1, part.x2, part.y2, part.x3, part.y3);
        this.to(this.off(part, 1));
        const band = { ...this.style, cap: 'butt' as const, join: 'round' as const, dash: undefined };
        const under = pathOfContours([{ segments: [part], closed: false }]);
        for (const v of strokeOutline(under, band, this.tolerance)) this.folds.push(v);
      }
    }
  }

  private chords(s: Segment): void {
    const [d, e] = [tangentOn(s, 0), tangentOn(s, 1)];
    const turn = Math.abs(Math.atan2(d.x * e.y - d.y * e.x, d.x * e.x + d.y * e.y));
    const steps = Math.max(1, Math.ceil(turn / FOLD_TURN));
    let from = pointOn(s, 0);
    for (let k = 1; k <= steps; k++) {
      const to = pointOn(s, k / steps);
      const n = Math.hypot(to.x - from.x, to.y - from.y);
      if (!(n > 1e-12)) continue;
      const [nx, ny] = [((to.y - from.y) / n) * this.h, ((from.x - to.x) / n) * this.h];
      this.to(from);
      this.to({ x: from.x + nx, y: from.y + ny });
      this.to({ x: to.x + nx, y: to.y + ny });
      this.to(to);
      from = to;
    }
    this.to(this.off(s, 1));
  }

  /** How fast the side runs beside the line: below nothing, backwards. */
  private speed(s: Segment, t: number): number {
    const u = 1 - t;
    const d = (a: number, b: number, c: number, e: number) =>
      3 * (u * u * (b - a) + 2 * u * t * (c - b) + t * t * (e - c));
    const dd = (a: number, b: number, c: number, e: number) => 6 * (u * (c - 2 * b + a) + t * (e - 2 * c + b));
    const [x, y] = [d(s.x0, s.x1, s.x2, s.x3), d(s.y0, s.y1, s.y2, s.y3)];
    const [xx, yy] = [dd(s.x0, s.x1, s.x2, s.x3), dd(s.y0, s.y1, s.y2, s.y3)];
    const n = Math.hypot(x, y);
    return n > 1e-12 ? 1 + (this.h * (x * yy - y * xx)) / (n * n * n) : 1;
  }

  /** Where the side turns back on itself. */
  private foldsOf(s: Segment): number[] {
    const out: number[] = [];
    let was = this.speed(s, 0);
    for (let i = 1; i < SPLITS; i++) {
      const now = this.speed(s, i / (SPLITS - 1));
      if (was > 0 !== now > 0) {
        let [lo, hi] = [(i - 1) / (SPLITS - 1), i / (SPLITS - 1)];
        for (let k = 0; k < 40; k++) {
          const m = (lo + hi) / 2;
          if (this.speed(s, m) > 0 === was > 0) lo = m;
          else hi = m;
        }
        out.push((lo + hi) / 2);
      }
      was = now;
    }
    return out;
  }

  /** One curve beside a piece where it is near enough, else each half. */
  private smooth(s: Segment, depth: number): void {
    const made = this.beside(s);
    if (depth < DEEPEST && made.strays > this.tolerance) {
      this.smooth(partOfSegment(s, 0, 0.5), depth + 1);
      this.smooth(partOfSegment(s, 0.5, 1), depth + 1);
      return;
    }
    const [a, b] = [this.off(s, 0), this.off(s, 1)];
    const [p, q] = made.handles;
    const [d, e] = [tangentOn(s, 0), tangentOn(s, 1)];
    if (made.strays > this.tolerance) {
      // It turns within less than a hair: an arc about the place where it does.
      const { h } = this;
      const [nx, ny] = [d.y * h, -d.x * h];
      const angle = Math.atan2(d.x * e.y - d.y * e.x, d.x * e.x + d.y * e.y);
      if (angle > 0) this.arc(s.x0, s.y0, nx, ny, angle);
      return this.to(b);
    }
    this.out.curveTo(a.x + d.x * p, a.y + d.y * p, b.x - e.x * q, b.y - e.y * q, b.x, b.y);
  }

  /**
   * The cubic with the side's directions at both ends that keeps nearest to it, and how far it strays: the lengths of
   * its handles by Gauss and Newton, from those that give it the side's speed at both ends, on distances along the
   * normals.
   */
  private beside(s: Segment): { readonly handles: readonly [number, number]; readonly strays: number } {
    const [from, to] = [this.off(s, 0), this.off(s, 1)];
    const [d0, d1] = [tangentOn(s, 0), tangentOn(s, 1)];
    let a = (Math.hypot(s.x1 - s.x0, s.y1 - s.y0) || 1e-3) * Math.max(this.speed(s, 0), 1e-3);
    let b = (Math.hypot(s.x3 - s.x2, s.y3 - s.y2) || 1e-3) * Math.max(this.speed(s, 1), 1e-3);
    let best: { handles: [number, number]; strays: number } = { handles: [a, b], strays: Infinity };
    for (let round = 0; round < ROUNDS; round++) {
      const made: Segment = {
        x0: from.x,
        y0: from.y,
        x1: from.x + d0.x * a,
        y1: from.y + d0.y * a,
        x2: to.x - d1.x * b,
        y2: to.y - d1.y * b,
        x3: to.x,
        y3: to.y,
        straight: false,
      };
      let strays = 0;
      let [aa, ab, bb, ar, br] = [0, 0, 0, 0, 0];
      for (let i = 0; i < SAMPLES; i++) {
        const t = (i + 0.5) / SAMPLES;
        const [p, d] = [this.off(s, t), tangentOn(s, t)];
        const u = onNormal(made, p, d, t);
        const q = pointOn(made, u);
        const r = (q.x - p.x) * d.y - (q.y - p.y) * d.x;
        strays = Math.max(strays, Math.abs(r), Math.abs((q.x - p.x) * d.x + (q.y - p.y) * d.y));
        const ja = 3 * u * (1 - u) * (1 - u) * (d0.x * d.y - d0.y * d.x);
        const jb = -3 * u * u * (1 - u) * (d1.x * d.y - d1.y * d.x);
        aa += ja * ja;
        ab += ja * jb;
        bb += jb * jb;
        ar += ja * r;
        br += jb * r;
      }
      if (strays < best.strays) best = { handles: [a, b], strays };
      const det = aa * bb - ab * ab;
      if (best.strays <= this.tolerance || Math.abs(det) < 1e-30) break;
      const [na, nb] = [a - (ar * bb - br * ab) / det, b - (br * aa - ar * ab) / det];
      if (!(na > 0 && nb > 0)) break;
      [a, b] = [na, nb];
    }
    return best;
  }

  private corner(a: Segment, b: Segment): void {
    const { h } = this;
    const [s, t] = [tangentOn(a, 1), tangentOn(b, 0)];
    const [n0x, n0y, n1x, n1y] = [s.y * h, -s.x * h, t.y * h, -t.x * h];
    const [x, y] = [a.x3, a.y3];
    const cross = n0x * n1y - n0y * n1x;
    const dot = n0x * n1x + n0y * n1y;
    const h2 = h * h;
    // Goes on as it came, but for the arithmetic.
    if (dot > 0 && Math.abs(cross) < 1e-9 * h2) return;
    if (cross <= 0 && !(dot < 0 && Math.abs(cross) < 1e-9 * h2)) {
      this.to({ x, y });
      this.to({ x: x + n1x, y: y + n1y });
      return;
    }
    const angle = Math.atan2(Math.abs(cross), dot);
    if (this.style.join === 'round') return this.arc(x, y, n0x, n0y, angle);
    if (this.style.join === 'miter') {
      const cosHalf = Math.cos(angle / 2);
      if (cosHalf > 1e-6 && 1 / cosHalf <= this.style.miterLimit) {
        const k = 1 / (1 + dot / h2);
        this.to({ x: x + (n0x + n1x) * k, y: y + (n0y + n1y) * k });
      }
    }
    this.to({ x: x + n1x, y: y + n1y });
  }

  cap(last: Segment): void {
    const d = tangentOn(last, 1);
    const [nx, ny] = [d.y * this.h, -d.x * this.h];
    const [x, y] = [last.x3, last.y3];
    if (this.style.cap === 'round') return this.arc(x, y, nx, ny, Math.PI);
    if (this.style.cap === 'square') {
      this.to({ x: x + nx - ny, y: y + ny + nx });
      this.to({ x: x - nx - ny, y: y - ny + nx });
    }
    this.to({ x: x - nx, y: y - ny });
  }

  /** An arc about a point from where the side is, `angle` on the way it turns; a curve at least each right angle. */
  private arc(x: number, y: number, nx: number, ny: number, angle: number): void {
    const n = Math.max(1, Math.ceil(angle / (Math.PI / 4) - 1e-9));
    const k = (4 / 3) * Math.tan(angle / n / 4);
    let [ax, ay] = [nx, ny];
    for (let i = 1; i <= n; i++) {
      const [c, s] = [Math.cos((angle * i) / n), Math.sin((angle * i) / n)];
      const [bx, by] = [nx * c - ny * s, nx * s + ny * c];
      this.out.curveTo(x + ax - ay * k, y + ay + ax * k, x + bx + by * k, y + by - bx * k, x + bx, y + by);
      [ax, ay] = [bx, by];
    }
  }
}

/** Where a curve meets the normal of a place: `d` runs along the line there. */
function onNormal(made: Segment, p: Point, d: Point, near: number): number {
  let u = near;
  for (let k = 0; k < 6; k++) {
    const q = pointOn(made, u);
    const v = 1 - u;
    const slope = (w0: number, w1: number, w2: number, w3: number) =>
      3 * (v * v * (w1 - w0) + 2 * u * v * (w2 - w1) + u * u * (w3 - w2));
    const speed = slope(made.x0, made.x1, made.x2, made.x3) * d.x + slope(made.y0, made.y1, made.y2, made.y3) * d.y;
    if (Math.abs(speed) < 1e-12) break;
    const step = ((p.x - q.x) * d.x + (p.y - q.y) * d.y) / speed;
    u = Math.min(1, Math.max(0, u + step));
    if (Math.abs(step) < 1e-10) break;
  }
  return u;
}
