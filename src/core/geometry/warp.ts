import type { Point } from './matrix';
import { COORDS, PathBuilder, type PathData } from './path';

/** A map of the plane; smooth where paths run. */
export type Warp = (p: Point) => Point;

/** A piece is halved no more often than this. */
const MOST_DEPTH = 8;
/** How far apart two points are whose difference stands for a derivative, as a share of a piece. */
const STEP = 1e-4;

/**
 * A path through a warp: every piece becomes cubics that keep the warp's directions at their ends, halved until their
 * middles and quarters lie within `tolerance` (in the path's unit) of where the warp takes the piece.
 */
export function warpPath(path: PathData, warp: Warp, tolerance: number): PathData {
  const out = new PathBuilder();
  let pen: Point = { x: 0, y: 0 };
  let start = pen;
  const move = (p: Point) => {
    const q = warp(p);
    out.moveTo(q.x, q.y);
  };
  for (let i = 0; i < path.length; i += 1 + COORDS[path[i]]) {
    const kind = path[i];
    if (kind === 0) {
      pen = start = { x: path[i + 1], y: path[i + 2] };
      move(pen);
    } else if (kind === 1) {
      const to = { x: path[i + 1], y: path[i + 2] };
      piece(out, lineOf(pen, to), warp, tolerance);
      pen = to;
    } else if (kind === 2) {
      const to = { x: path[i + 5], y: path[i + 6] };
      piece(out, curveOf(pen, path, i, to), warp, tolerance);
      pen = to;
    } else {
      if (pen.x !== start.x || pen.y !== start.y) piece(out, lineOf(pen, start), warp, tolerance);
      out.close();
      pen = start;
    }
  }
  return out.data;
}

type Curve = (t: number) => Point;

const lineOf =
  (a: Point, b: Point): Curve =>
  (t) => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });

function curveOf(a: Point, path: PathData, i: number, d: Point): Curve {
  const [bx, by, cx, cy] = [path[i + 1], path[i + 2], path[i + 3], path[i + 4]];
  return (t) => {
    const u = 1 - t;
    const [k0, k1, k2, k3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    return { x: k0 * a.x + k1 * bx + k2 * cx + k3 * d.x, y: k0 * a.y + k1 * by + k2 * cy + k3 * d.y };
  };
}

function piece(out: PathBuilder, curve: Curve, warp: Warp, tolerance: number): void {
  const at = (t: number): Point => warp(curve(t));
  // One-sided at the ends, so that nothing is asked beyond the piece.
  const slope = (t: number, way: 1 | -1): Point => {
    const [p, q, r] = [at(t), at(t + way * STEP), at(t + 2 * way * STEP)];
    return {
      x: (way * (4 * q.x - 3 * p.x - r.x)) / (2 * STEP),
      y: (way * (4 * q.y - 3 * p.y - r.y)) / (2 * STEP),
    };
  };
  const put = (a: number, b: number, depth: number): void => {
    const h = b - a;
    const [p0, p3, d0, d3] = [at(a), at(b), slope(a, 1), slope(b, -1)];
    const p1 = { x: p0.x + (d0.x * h) / 3, y: p0.y + (d0.y * h) / 3 };
    const p2 = { x: p3.x - (d3.x * h) / 3, y: p3.y - (d3.y * h) / 3 };
    const off = [0.25, 0.5, 0.75].some((t) => {
      const u = 1 - t;
      const [k0, k1, k2, k3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
      const want = at(a + h * t);
      const x = k0 * p0.x + k1 * p1.x + k2 * p2.x + k3 * p3.x;
      const y = k0 * p0.y + k1 * p1.y + k2 * p2.y + k3 * p3.y;
      return Math.hypot(x - want.x, y - want.y) > tolerance;
    });
    if (off && depth > 0) {
      const m = (a + b) / 2;
      put(a, m, depth - 1);
      put(m, b, depth - 1);
    } else out.curveTo(p1.x, p1.y, p2.x, p2.y, p3.x, p3.y);
  };
  put(0, 1, MOST_DEPTH);
}
