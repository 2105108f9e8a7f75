import type { Point } from './matrix';
import { flatten, type FillRule, type PathData } from './path';

/** Is the point inside the filled path? Open contours count as closed, as fills do. */
export function pathContains(path: PathData, rule: FillRule, p: Point, tolerance = 0.05): boolean {
  let winding = 0;
  let crossings = 0;
  for (const { points } of flatten(path, tolerance)) {
    const n = points.length;
    for (let i = 0; i < n; i += 2) {
      const j = (i + 2) % n;
      const y0 = points[i + 1];
      const y1 = points[j + 1];
      if (y0 <= p.y === y1 <= p.y) continue;
      const x = points[i] + ((p.y - y0) / (y1 - y0)) * (points[j] - points[i]);
      if (x <= p.x) continue;
      crossings++;
      winding += y1 > y0 ? 1 : -1;
    }
  }
  return rule === 'evenOdd' ? crossings % 2 === 1 : winding !== 0;
}

/** The distance from a point to the path's line. Infinity for an empty path. */
export function distanceToPath(path: PathData, p: Point, tolerance = 0.05): number {
  let best = Infinity;
  for (const { points, closed } of flatten(path, tolerance)) {
    const n = points.length;
    const last = closed ? n : n - 2;
    if (n === 2) best = Math.min(best, Math.hypot(points[0] - p.x, points[1] - p.y));
    for (let i = 0; i < last; i += 2) {
      const j = (i + 2) % n;
      best = Math.min(best, distanceToSegment(p, points[i], points[i + 1], points[j], points[j + 1]));
    }
  }
  return best;
}

function distanceToSegment(p: Point, ax: number, ay: number, bx: number, by: number): number {
  const dx = bx - ax;
  const dy = by - ay;
  const len2 = dx * dx + dy * dy;
  const t = len2 === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - ax) * dx + (p.y - ay) * dy) / len2));
  return Math.hypot(p.x - ax - t * dx, p.y - ay - t * dy);
}
