import { fitClosed, fitPoints } from '../geometry/fit';
import type { Point } from '../geometry/matrix';
import { pointOn, segmentLength, tangentOn } from '../geometry/measure';
import { kindOf, nodesOfPieces, pieceAfter, type NodeContour, type PathNode } from '../geometry/nodes';
import type { Segment } from '../geometry/segments';

/** A change of direction above this is a corner that simplifying keeps (degrees; common practice). */
const CORNER = 25;

/** Nodes of all contours together. */
export const nodeCount = (contours: readonly NodeContour[]): number => contours.reduce((n, c) => n + c.nodes.length, 0);

/** The same lines with as few nodes as keep within a tolerance of them (the path's own unit); corners stay. */
export function simplified(contours: readonly NodeContour[], tolerance: number): NodeContour[] {
  return contours.map((c) => {
    const n = c.nodes.length;
    const pieces = c.nodes.flatMap((_, i) => pieceAfter(c, i) ?? []);
    if (pieces.length < 2) return c;
    const corner = c.nodes.map((node, i) => {
      if (!c.closed && (i === 0 || i === n - 1)) return true;
      if (node.corner) return true;
      const [a, b] = [
        tangentOn(pieces[(i + pieces.length - 1) % pieces.length], 1),
        tangentOn(pieces[i % pieces.length], 0),
      ];
      return (Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y)) * 180) / Math.PI > CORNER;
    });
    const first = corner.indexOf(true);
    if (first < 0) return better(c, nodesOfPieces(fitClosed(samples(pieces, tolerance).slice(0, -1), tolerance), true));
    const out: Segment[] = [];
    let run: Segment[] = [];
    for (let k = 0; k < pieces.length; k++) {
      const i = (first + k) % pieces.length;
      run.push(pieces[i]);
      if (!corner[(i + 1) % n] && k < pieces.length - 1) continue;
      out.push(...fewer(run, tolerance));
      run = [];
    }
    return better(c, keepCorners(nodesOfPieces(out, c.closed), c));
  });
}

/** A run between corners, fitted; straight runs stay straight, and a fit that saves nothing is not taken. */
function fewer(run: readonly Segment[], tolerance: number): readonly Segment[] {
  if (run.length < 2) return run;
  const [a, b] = [run[0], run[run.length - 1]];
  const points = samples(run, tolerance);
  const chord = Math.hypot(b.x3 - a.x0, b.y3 - a.y0) || 1;
  const flat = points.every(
    (p) => Math.abs((p.x - a.x0) * (b.y3 - a.y0) - (p.y - a.y0) * (b.x3 - a.x0)) / chord <= tolerance * 0.1,
  );
  if (flat) return [{ ...a, x3: b.x3, y3: b.y3, straight: true }];
  const [t1, t2] = [tangentOn(a, 0), tangentOn(b, 1)];
  const made = fitPoints(points, tolerance, t1, { x: -t2.x, y: -t2.y });
  return made.length < run.length ? made : run;
}

const better = (old: NodeContour, made: NodeContour): NodeContour =>
  made.nodes.length < old.nodes.length ? made : old;

/** Points along pieces, close enough for the tolerance; ends included. */
function samples(pieces: readonly Segment[], tolerance: number): Point[] {
  return pieces.flatMap((s, i) => {
    const n = s.straight
      ? 8
      : Math.min(200, Math.max(12, Math.ceil(segmentLength(s) / Math.max(tolerance * 4, 1e-6) / 4)));
    return Array.from({ length: i === pieces.length - 1 ? n + 1 : n }, (_, k) => pointOn(s, k / n));
  });
}

/** What was made of corners stays with the nodes that are still where it was made. */
function keepCorners(made: NodeContour, old: NodeContour): NodeContour {
  return {
    ...made,
    nodes: made.nodes.map((n): PathNode => {
      const same = old.nodes.find((o) => o.x === n.x && o.y === n.y);
      return same
        ? {
            ...n,
            kind: same.kind === 'corner' ? 'corner' : kindOf(n),
            ...(same.corner && { corner: same.corner }),
            ...(same.width !== undefined && { width: same.width }),
          }
        : n;
    }),
  };
}

/**
 * Smooths the lines that lie within `radius` of a point, most in its middle: nodes move towards the middle of their
 * neighbours and handles come into line. One touch of a brush; several make it smoother.
 */
export function brushed(
  contours: readonly NodeContour[],
  at: Point,
  radius: number,
): { contours: NodeContour[]; touched: number } {
  let touched = 0;
  const out = contours.map((c): NodeContour => {
    const n = c.nodes.length;
    if (n < 3) return c;
    const strength = c.nodes.map((p, i) =>
      !c.closed && (i === 0 || i === n - 1) ? 0 : Math.max(0, 1 - Math.hypot(p.x - at.x, p.y - at.y) / radius),
    );
    if (strength.every((k) => k === 0)) return c;
    const moved = c.nodes.map((p, i) => {
      if (!strength[i]) return p;
      touched++;
      const [a, b] = [c.nodes[(i + n - 1) % n], c.nodes[(i + 1) % n]];
      const k = 0.25 * strength[i];
      const [dx, dy] = [((a.x + b.x) / 2 - p.x) * k, ((a.y + b.y) / 2 - p.y) * k];
      return {
        ...p,
        x: p.x + dx,
        y: p.y + dy,
        before: p.before && { x: p.before.x + dx, y: p.before.y + dy },
        after: p.after && { x: p.after.x + dx, y: p.after.y + dy },
      };
    });
    return {
      closed: c.closed,
      nodes: moved.map((p, i) => {
        if (!strength[i]) return p;
        // Handles of a third of the way to the neighbours, along the line between these.
        const [a, b] = [moved[(i + n - 1) % n], moved[(i + 1) % n]];
        const w = Math.hypot(b.x - a.x, b.y - a.y) || 1;
        const [ux, uy] = [(b.x - a.x) / w, (b.y - a.y) / w];
        const [la, lb] = [Math.hypot(p.x - a.x, p.y - a.y) / 3, Math.hypot(p.x - b.x, p.y - b.y) / 3];
        const k = 0.5 * strength[i];
        const mix = (old: Point | null, x: number, y: number): Point =>
          old
            ? { x: old.x + (x - old.x) * k, y: old.y + (y - old.y) * k }
            : { x: p.x + (x - p.x) * k, y: p.y + (y - p.y) * k };
        const next = inLine({
          ...p,
          before: mix(p.before, p.x - ux * la, p.y - uy * la),
          after: mix(p.after, p.x + ux * lb, p.y + uy * lb),
        });
        return { ...next, kind: kindOf(next) };
      }),
    };
  });
  return { contours: out, touched };
}

/** Handles that are nearly in line (cosine) are put in line: what the brush has made smooth is a smooth node. */
const NEARLY = 0.95;

function inLine(n: PathNode & { readonly before: Point; readonly after: Point }): PathNode {
  const [ax, ay, bx, by] = [n.x - n.before.x, n.y - n.before.y, n.after.x - n.x, n.after.y - n.y];
  const [a, b] = [Math.hypot(ax, ay), Math.hypot(bx, by)];
  if (!(a > 0) || !(b > 0) || (ax * bx + ay * by) / (a * b) < NEARLY) return n;
  const [x, y] = [ax / a + bx / b, ay / a + by / b];
  const w = Math.hypot(x, y);
  const [ux, uy] = [x / w, y / w];
  return { ...n, before: { x: n.x - ux * a, y: n.y - uy * a }, after: { x: n.x + ux * b, y: n.y + uy * b } };
}
