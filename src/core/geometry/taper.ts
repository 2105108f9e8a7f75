import type { Point } from './matrix';
import { pointOn } from './measure';
import { pieceAfter, type NodeContour } from './nodes';
import { PathBuilder, addEllipse, type PathData } from './path';

/** Pieces of a line of changing width that are drawn as one straight-sided part each. */
const PARTS = 14;

/**
 * The area of a line whose width changes from node to node, round at its ends: discs along it and the straight-sided
 * parts between them, all running the same way, to be filled non-zero. `width` is the full width at a share of 1.
 */
export function taperedLine(contours: readonly NodeContour[], width: number): PathData {
  const out = new PathBuilder();
  for (const c of contours) {
    let last: { p: Point; r: number } | null = null;
    const put = (p: Point, r: number) => {
      if (r > 0) addEllipse(out, p.x, p.y, r, r);
      if (last) part(out, last.p, last.r, p, r);
      last = { p, r };
    };
    c.nodes.forEach((n, i) => {
      const piece = pieceAfter(c, i);
      const [from, to] = [share(n), share(c.nodes[(i + 1) % c.nodes.length])];
      if (!piece) {
        if (c.nodes.length === 1) put(n, (from * width) / 2);
        return;
      }
      for (let k = i === 0 ? 0 : 1; k <= PARTS; k++)
        put(pointOn(piece, k / PARTS), ((from + ((to - from) * k) / PARTS) * width) / 2);
    });
  }
  return out.data;
}

const share = (n: { readonly width?: number }): number => n.width ?? 1;

function part(out: PathBuilder, p: Point, r: number, q: Point, s: number): void {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const n = Math.hypot(dx, dy);
  if (n < 1e-9) return;
  const [nx, ny] = [-dy / n, dx / n];
  out.moveTo(p.x - nx * r, p.y - ny * r);
  out.lineTo(q.x - nx * s, q.y - ny * s);
  out.lineTo(q.x + nx * s, q.y + ny * s);
  out.lineTo(p.x + nx * r, p.y + ny * r);
  out.close();
}
