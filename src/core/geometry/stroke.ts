import { dashPath, type Dash } from './dash';
import { PathBuilder, flatten, type PathData, type Polyline } from './path';

export type LineCap = 'butt' | 'round' | 'square';
export type LineJoin = 'miter' | 'round' | 'bevel';
export interface StrokeStyle {
  /** Full width, same unit as the path. */
  readonly width: number;
  readonly cap: LineCap;
  readonly join: LineJoin;
  /** Longest miter as a multiple of the width (PDF 32000-1 8.4.3.5). */
  readonly miterLimit: number;
  /** Cut into dashes. Absent: whole. */
  readonly dash?: Dash;
}

/**
 * The outline of a stroked path, as straight pieces to be filled non-zero: for each contour a walk along the left side,
 * a cap, and the walk back along the other; a closed contour gives two rings. Dashes are cut first. `tolerance` bounds
 * the flattening.
 */
export function strokeOutline(path: PathData, style: StrokeStyle, tolerance: number): PathData {
  if (!(style.width > 0)) return [];
  const out = new PathBuilder();
  const drawn = style.dash ? dashPath(path, style.dash) : path;
  for (const line of flatten(drawn, tolerance)) strokeContour(line, style, tolerance, out);
  return out.data;
}

function strokeContour({ points, closed }: Polyline, style: StrokeStyle, tolerance: number, out: PathBuilder): void {
  const h = style.width / 2;
  const pts = closed ? withoutRepeatedEnd(points) : points;
  const n = pts.length / 2;
  if (n === 1) {
    dot(pts[0], pts[1], style, tolerance, out);
    return;
  }
  const ring = new Ring(out, h, style, tolerance);
  if (closed && n > 2) {
    for (let i = 0; i < n; i++) ring.corner(pts, i, (i + 1) % n, (i + 2) % n);
    ring.finish();
    for (let i = n - 1; i >= 0; i--) ring.corner(pts, i, (i + n - 1) % n, (i + n - 2) % n);
    ring.finish();
    return;
  }
  for (let i = 0; i + 2 < n; i++) ring.corner(pts, i, i + 1, i + 2);
  ring.cap(pts, n - 2, n - 1);
  for (let i = n - 1; i >= 2; i--) ring.corner(pts, i, i - 1, i - 2);
  ring.cap(pts, 1, 0);
  ring.finish();
}

function withoutRepeatedEnd(points: number[]): number[] {
  const n = points.length;
  return n > 2 && points[0] === points[n - 2] && points[1] === points[n - 1] ? points.slice(0, n - 2) : points;
}

/** A contour without length shows only its caps: a disc or an upright square (PDF 32000-1 8.5.3.2). */
function dot(x: number, y: number, style: StrokeStyle, tolerance: number, out: PathBuilder): void {
  const h = style.width / 2;
  if (style.cap === 'butt') return;
  if (style.cap === 'square') {
    polygon(out, [x - h, y - h, x + h, y - h, x + h, y + h, x - h, y + h]);
    return;
  }
  const steps = arcSteps(h, 2 * Math.PI, tolerance);
  const ring: number[] = [];
  for (let k = 0; k < steps; k++)
    ring.push(x + h * Math.cos((2 * Math.PI * k) / steps), y + h * Math.sin((2 * Math.PI * k) / steps));
  polygon(out, ring);
}

function polygon(out: PathBuilder, ring: number[]): void {
  out.moveTo(ring[0], ring[1]);
  for (let i = 2; i < ring.length; i += 2) out.lineTo(ring[i], ring[i + 1]);
  out.close();
}

function arcSteps(radius: number, angle: number, tolerance: number): number {
  const step = 2 * Math.acos(Math.max(0.5, 1 - tolerance / Math.max(radius, tolerance)));
  return Math.max(1, Math.ceil(Math.abs(angle) / step));
}

/** Walks one side of a contour: the side to the left of the direction of travel when y points up. */
class Ring {
  private pts: number[] = [];
  constructor(
    private readonly out: PathBuilder,
    private readonly h: number,
    private readonly style: StrokeStyle,
    private readonly tolerance: number,
  ) {}

  finish(): void {
    if (this.pts.length >= 6) polygon(this.out, this.pts);
    this.pts = [];
  }

  private normal(pts: number[], i: number, j: number): [number, number] {
    const dx = pts[2 * j] - pts[2 * i];
    const dy = pts[2 * j + 1] - pts[2 * i + 1];
    const len = Math.hypot(dx, dy);
    return [(dy / len) * this.h, (-dx / len) * this.h];
  }

  /** From the segment a→b round the corner at b towards c. */
  corner(pts: number[], a: number, b: number, c: number): void {
    const [n0x, n0y] = this.normal(pts, a, b);
    const [n1x, n1y] = this.normal(pts, b, c);
    const x = pts[2 * b];
    const y = pts[2 * b + 1];
    const cross = n0x * n1y - n0y * n1x;
    const dot = n0x * n1x + n0y * n1y;
    const h2 = this.h * this.h;
    if (cross <= 0 && !(dot < 0 && Math.abs(cross) < 1e-9 * h2)) {
      // Inner side: through the corner itself, so that the fold stays inside the stroke.
      this.pts.push(x + n0x, y + n0y);
      if (cross < -1e-9 * h2) this.pts.push(x, y);
      this.pts.push(x + n1x, y + n1y);
      return;
    }
    const angle = Math.atan2(Math.abs(cross), dot);
    this.pts.push(x + n0x, y + n0y);
    if (this.style.join === 'round') this.arc(x, y, n0x, n0y, angle);
    else if (this.style.join === 'miter') {
      const cosHalf = Math.cos(angle / 2);
      // Miter length over width is 1/cos(half the turn).
      if (cosHalf > 1e-6 && 1 / cosHalf <= this.style.miterLimit) {
        const k = 1 / (1 + dot / h2);
        this.pts.push(x + (n0x + n1x) * k, y + (n0y + n1y) * k);
      }
    }
    this.pts.push(x + n1x, y + n1y);
  }

  cap(pts: number[], a: number, b: number): void {
    const [nx, ny] = this.normal(pts, a, b);
    const x = pts[2 * b];
    const y = pts[2 * b + 1];
    this.pts.push(x + nx, y + ny);
    if (this.style.cap === 'square') this.pts.push(x + nx - ny, y + ny + nx, x - nx - ny, y - ny + nx);
    else if (this.style.cap === 'round') this.arc(x, y, nx, ny, Math.PI);
    this.pts.push(x - nx, y - ny);
  }

  /** Points strictly between the start direction and `angle` further on (turning with the walk). */
  private arc(x: number, y: number, nx: number, ny: number, angle: number): void {
    const steps = arcSteps(this.h, angle, this.tolerance);
    for (let k = 1; k < steps; k++) {
      const t = (angle * k) / steps;
      const cos = Math.cos(t);
      const sin = Math.sin(t);
      this.pts.push(x + nx * cos - ny * sin, y + nx * sin + ny * cos);
    }
  }
}
