import { fitClosed, fitPoints } from '../geometry/fit';
import type { Point } from '../geometry/matrix';
import { nodesOfPieces, type NodeContour } from '../geometry/nodes';

/** A place of the hand, and how hard a pen pressed there, 0…1; absent for what has no pressure. */
export interface HandPlace extends Point {
  readonly pressure?: number | undefined;
}

/** The nodes of a line drawn by hand, within a tolerance of all its places; widths where a pen pressed. */
export function lineThrough(points: readonly HandPlace[], tolerance: number, closeWithin: number): NodeContour {
  const [first, last] = [points[0], points[points.length - 1]];
  const length = points.reduce((n, p, i) => (i ? n + Math.hypot(p.x - points[i - 1].x, p.y - points[i - 1].y) : 0), 0);
  const closed =
    points.length > 8 && Math.hypot(last.x - first.x, last.y - first.y) <= closeWithin && length > closeWithin * 5;
  const contour = nodesOfPieces(closed ? fitClosed(points, tolerance) : fitPoints(points, tolerance), closed);
  if (!points.some((p) => p.pressure !== undefined)) return contour;
  return {
    ...contour,
    nodes: contour.nodes.map((n) => ({ ...n, width: Math.min(1, Math.max(0, nearestOf(points, n).pressure ?? 1)) })),
  };
}

function nearestOf<T extends Point>(points: readonly T[], n: Point): T {
  return points.reduce(
    (best, p) => (Math.hypot(p.x - n.x, p.y - n.y) < Math.hypot(best.x - n.x, best.y - n.y) ? p : best),
    points[0],
  );
}
