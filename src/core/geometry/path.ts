import type { Matrix } from './matrix';
import { EMPTY_RECT, type Rect } from './rect';

/** One flat list: an opcode, then its coordinates. Lines stay lines, every curve is a cubic. */
export type PathData = readonly number[];
export const MOVE = 0;
export const LINE = 1;
export const CUBIC = 2;
export const CLOSE = 3;
/** How many coordinates follow each opcode. */
export const COORDS = [2, 2, 6, 0] as const;

export type FillRule = 'nonZero' | 'evenOdd';

/** Is a list of numbers a path from its first opcode, a move, to the last coordinate? */
export function isWholePath(path: readonly number[]): boolean {
  let i = 0;
  while (i < path.length) {
    const coords = COORDS[path[i] as 0 | 1 | 2 | 3];
    if (coords === undefined || (i === 0 && path[0] !== MOVE)) return false;
    i += 1 + coords;
  }
  return i === path.length;
}

/** What geometry draws into: SVG text, PDF operators, a canvas and our own lists are all such sinks. */
export interface PathSink {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  curveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void;
  close(): void;
}

/** Collects what is drawn into a flat list. */
export class PathBuilder implements PathSink {
  readonly data: number[] = [];
  moveTo(x: number, y: number): void {
    this.data.push(MOVE, x, y);
  }
  lineTo(x: number, y: number): void {
    this.data.push(LINE, x, y);
  }
  curveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.data.push(CUBIC, x1, y1, x2, y2, x, y);
  }
  close(): void {
    this.data.push(CLOSE);
  }
}

/** Draws a flat list into a sink. Throws on a list that is not a path. */
export function draw(path: PathData, sink: PathSink): void {
  for (let i = 0; i < path.length;) {
    switch (path[i]) {
      case MOVE:
        sink.moveTo(path[i + 1], path[i + 2]);
        break;
      case LINE:
        sink.lineTo(path[i + 1], path[i + 2]);
        break;
      case CUBIC:
        sink.curveTo(path[i + 1], path[i + 2], path[i + 3], path[i + 4], path[i + 5], path[i + 6]);
        break;
      case CLOSE:
        sink.close();
        break;
      default:
        throw new Error(`unknown path opcode: ${path[i]} at ${i}`);
    }
    i += 1 + COORDS[path[i]];
  }
}

/** A path, mapped. */
export function transformPath(path: PathData, m: Matrix): PathData {
  const out = new Array<number>(path.length);
  for (let i = 0; i < path.length;) {
    const op = path[i];
    out[i++] = op;
    for (let n = COORDS[op] / 2; n > 0; n--, i += 2) {
      const x = path[i];
      const y = path[i + 1];
      out[i] = m[0] * x + m[2] * y + m[4];
      out[i + 1] = m[1] * x + m[3] * y + m[5];
    }
  }
  return out;
}

/** The box being measured: x0, y0, x1, y1. Kept, for boxes are asked for by the ten thousand. */
const box = new Float64Array(4);
/** The box round the path's curves: exact, from the roots of the derivative. */
export function pathBounds(path: PathData): Rect {
  box[0] = EMPTY_RECT.x0;
  box[1] = EMPTY_RECT.y0;
  box[2] = EMPTY_RECT.x1;
  box[3] = EMPTY_RECT.y1;
  let px = 0;
  let py = 0;
  for (let i = 0; i < path.length; i += 1 + COORDS[path[i]]) {
    const op = path[i];
    if (op === CLOSE) continue;
    const n = COORDS[op];
    const x = path[i + n - 1];
    const y = path[i + n];
    put(0, x);
    put(1, y);
    if (op === CUBIC) {
      widen(0, px, path[i + 1], path[i + 3], x);
      widen(1, py, path[i + 2], path[i + 4], y);
    }
    px = x;
    py = y;
  }
  return { x0: box[0], y0: box[1], x1: box[2], y1: box[3] };
}
function put(axis: 0 | 1, v: number): void {
  if (v < box[axis]) box[axis] = v;
  if (v > box[axis + 2]) box[axis + 2] = v;
}
/** Widens the box to where one coordinate of a cubic, whose ends it has, turns round. */
function widen(axis: 0 | 1, a: number, b: number, c: number, d: number): void {
  const [least, most] = [box[axis], box[axis + 2]];
  // A curve stays among its points: where the box has them, it has the curve.
  if (b >= least && b <= most && c >= least && c <= most) return;
  const qa = -a + 3 * b - 3 * c + d;
  const qb = 2 * (a - 2 * b + c);
  const qc = b - a;
  if (Math.abs(qa) < 1e-12) {
    if (Math.abs(qb) >= 1e-12) putAt(axis, a, b, c, d, -qc / qb);
    return;
  }
  const disc = qb * qb - 4 * qa * qc;
  if (disc < 0) return;
  // The sum that does not cancel, and the other root from the product of both.
  const q = -0.5 * (qb + (qb < 0 ? -1 : 1) * Math.sqrt(disc));
  putAt(axis, a, b, c, d, q / qa);
  putAt(axis, a, b, c, d, q === 0 ? 0 : qc / q);
}
function putAt(axis: 0 | 1, a: number, b: number, c: number, d: number, t: number): void {
  if (t > 0 && t < 1) put(axis, cubicAt(a, b, c, d, t));
}

/** One coordinate of a cubic Bézier at a parameter 0…1. */
export function cubicAt(a: number, b: number, c: number, d: number, t: number): number {
  const u = 1 - t;
  return u * u * u * a + 3 * u * u * t * b + 3 * u * t * t * c + t * t * t * d;
}

/** How many straight pieces keep a cubic within `tolerance` (same unit as the points) of its chords. */
export function cubicSteps(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  x3: number,
  y3: number,
  tolerance: number,
): number {
  // Bound of the second derivative: |P''| ≤ 6·max(|P0−2P1+P2|, |P1−2P2+P3|); chord error ≤ |P''|/(8n²).
  const dx1 = x0 - 2 * x1 + x2;
  const dy1 = y0 - 2 * y1 + y2;
  const dx2 = x1 - 2 * x2 + x3;
  const dy2 = y1 - 2 * y2 + y3;
  const bend = Math.sqrt(Math.max(dx1 * dx1 + dy1 * dy1, dx2 * dx2 + dy2 * dy2));
  const n = Math.ceil(Math.sqrt((0.75 * bend) / tolerance));
  return n < 1 ? 1 : n > 500 ? 500 : n;
}

export interface Polyline {
  /** x, y, x, y … */
  readonly points: number[];
  readonly closed: boolean;
}

/** Straight pieces within `tolerance` of the path, one list a contour, repeated points dropped. */
export function flatten(path: PathData, tolerance: number): Polyline[] {
  const out: Polyline[] = [];
  let pts: number[] = [];
  const finish = (closed: boolean) => {
    if (pts.length >= 2) out.push({ points: pts, closed });
    pts = [];
  };
  const put = (x: number, y: number) => {
    const n = pts.length;
    if (n < 2 || pts[n - 2] !== x || pts[n - 1] !== y) pts.push(x, y);
  };
  let sx = 0;
  let sy = 0;
  draw(path, {
    moveTo(x, y) {
      finish(false);
      sx = x;
      sy = y;
      pts = [x, y];
    },
    lineTo(x, y) {
      if (!pts.length) pts = [sx, sy];
      put(x, y);
    },
    curveTo(x1, y1, x2, y2, x, y) {
      if (!pts.length) pts = [sx, sy];
      const px = pts[pts.length - 2];
      const py = pts[pts.length - 1];
      const n = cubicSteps(px, py, x1, y1, x2, y2, x, y, tolerance);
      for (let k = 1; k < n; k++) put(cubicAt(px, x1, x2, x, k / n), cubicAt(py, y1, y2, y, k / n));
      put(x, y);
    },
    close() {
      finish(true);
    },
  });
  finish(false);
  return out;
}

/** Signed area by the shoelace formula on a fine flattening; for tests and measures. */
export function polygonArea(path: PathData, tolerance = 1e-4): number {
  let sum = 0;
  for (const { points } of flatten(path, tolerance)) {
    const n = points.length;
    for (let i = 0; i < n; i += 2) {
      const j = (i + 2) % n;
      sum += points[i] * points[j + 1] - points[j] * points[i + 1];
    }
  }
  return sum / 2;
}

/** Handle length of a quarter circle of radius 1: 4/3·tan(π/8). */
export const KAPPA = (4 / 3) * Math.tan(Math.PI / 8);

/** Adds an ellipse of four cubics, within 0.03 % of a true one. */
export function addEllipse(sink: PathSink, cx: number, cy: number, rx: number, ry: number, reversed = false): void {
  const kx = rx * KAPPA;
  const ky = (reversed ? -ry : ry) * KAPPA;
  const r = reversed ? -ry : ry;
  sink.moveTo(cx + rx, cy);
  sink.curveTo(cx + rx, cy + ky, cx + kx, cy + r, cx, cy + r);
  sink.curveTo(cx - kx, cy + r, cx - rx, cy + ky, cx - rx, cy);
  sink.curveTo(cx - rx, cy - ky, cx - kx, cy - r, cx, cy - r);
  sink.curveTo(cx + kx, cy - r, cx + rx, cy - ky, cx + rx, cy);
  sink.close();
}

/** A rectangle as a path. */
export function rectPath(r: Rect): PathData {
  return [MOVE, r.x0, r.y0, LINE, r.x1, r.y0, LINE, r.x1, r.y1, LINE, r.x0, r.y1, CLOSE];
}
