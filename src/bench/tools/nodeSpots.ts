import type { Side } from '@/core/edit/nodes';
import { contoursOf } from '@/core/derive/contours';
import { apply, invert, type Matrix, type Point } from '@/core/geometry/matrix';
import { nearestOnSegment } from '@/core/geometry/measure';
import { flatOf, isEnd, pieceAfter, type NodeContour, type NodeForm } from '@/core/geometry/nodes';
import type { DesignNode, NodeOf } from '@/core/model/schema';
import { isLocked, pageMatrix } from '@/core/model/tree';
import { toScreen } from '../view/camera';
import type { Session } from '../session/session';

/** A path whose nodes are shown, and where it lies. */
export interface OpenPath {
  readonly id: string;
  readonly matrix: Matrix;
  readonly contours: readonly NodeContour[];
}

const known = new WeakMap<object, readonly NodeContour[]>();
/** A path's nodes, found once for each state of it. */
export function contoursFor(node: NodeOf<'path'>): readonly NodeContour[] {
  let made = known.get(node);
  if (!made) known.set(node, (made = contoursOf(node)));
  return made;
}

/** Tells what a path's nodes are, where a gesture has just made them. */
export function noteContours(node: DesignNode | undefined, contours: readonly NodeContour[]): void {
  if (node?.kind === 'path') known.set(node, contours);
}

/** The chosen paths that may be changed; what a gesture shows of them. */
export function openPaths(s: Session): OpenPath[] {
  const { design, page } = s;
  return s.state.selection.flatMap((id) => {
    const node = design.nodes[id];
    return node?.kind === 'path' && !isLocked(design, page, id)
      ? [{ id, matrix: pageMatrix(design, page, id), contours: contoursFor(node) }]
      : [];
  });
}

export interface NodeSpot {
  readonly object: string;
  readonly flat: number;
  readonly at: Point;
  readonly kind: NodeForm;
  readonly chosen: boolean;
  readonly end: boolean;
}
export interface HandleSpot {
  readonly object: string;
  readonly flat: number;
  readonly side: Side;
  readonly at: Point;
  /** Its node. */
  readonly from: Point;
}

/** Nodes and the handles of chosen ones (and of their neighbours, towards them), on the screen. */
export function spotsOf(s: Session): { nodes: NodeSpot[]; handles: HandleSpot[] } {
  const nodes: NodeSpot[] = [];
  const handles: HandleSpot[] = [];
  for (const { id, matrix, contours } of openPaths(s)) {
    const chosen = new Set(s.state.nodes.flatMap((n) => (n.object === id ? [n.flat] : [])));
    const screen = (p: Point) => toScreen(s.state.camera, apply(matrix, p));
    let flat = 0;
    for (const c of contours) {
      const base = flat;
      const count = c.nodes.length;
      c.nodes.forEach((n, i) => {
        const at = screen(n);
        nodes.push({ object: id, flat, at, kind: n.kind, chosen: chosen.has(flat), end: isEnd(c, i) });
        const near = (k: number) =>
          c.closed || (i + k >= 0 && i + k < count) ? chosen.has(base + ((i + k + count) % count)) : false;
        if (n.before && (chosen.has(flat) || near(-1)))
          handles.push({ object: id, flat, side: 'before', at: screen(n.before), from: at });
        if (n.after && (chosen.has(flat) || near(1)))
          handles.push({ object: id, flat, side: 'after', at: screen(n.after), from: at });
        flat++;
      });
    }
  }
  return { nodes, handles };
}

export interface PieceSpot {
  readonly path: OpenPath;
  readonly contour: number;
  readonly index: number;
  readonly t: number;
  /** On the page. */
  readonly at: Point;
}

/** The piece of an open path that lies within reach (page points) of a place. */
export function pieceAt(paths: readonly OpenPath[], at: Point, reach: number): PieceSpot | null {
  let best: PieceSpot | null = null;
  let least = Infinity;
  for (const path of paths) {
    const back = invert(path.matrix);
    if (!back) continue;
    const p = apply(back, at);
    path.contours.forEach((c, contour) =>
      c.nodes.forEach((_, index) => {
        const piece = pieceAfter(c, index);
        if (!piece) return;
        const n = nearestOnSegment(piece, p);
        const onPage = apply(path.matrix, n.point);
        const d = Math.hypot(onPage.x - at.x, onPage.y - at.y);
        if (d > reach || d >= least) return;
        least = d;
        best = { path, contour, index, t: n.t, at: onPage };
      }),
    );
  }
  return best;
}

export const chosenOf = (s: Session, object: string): Set<number> =>
  new Set(s.state.nodes.flatMap((n) => (n.object === object ? [n.flat] : [])));
export const isChosen = (s: Session, object: string, flat: number): boolean =>
  s.state.nodes.some((n) => n.object === object && n.flat === flat);
export { flatOf };
