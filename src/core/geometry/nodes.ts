import type { CornerStyle } from './corners';
import type { Matrix, Point } from './matrix';
import { apply } from './matrix';
import { CLOSE, CUBIC, LINE, MOVE, type PathData } from './path';
import { contoursOf, type Segment } from './segments';

/** How a node's two handles go together. */
export type NodeForm = 'corner' | 'smooth' | 'symmetric';

/** A node as it is edited: handles are absolute points; null where the piece on that side is straight. */
export interface PathNode {
  readonly x: number;
  readonly y: number;
  readonly before: Point | null;
  readonly after: Point | null;
  readonly kind: NodeForm;
  /** What is made of the corner, and the line's width here as a share of the full; they go where the node goes. */
  readonly corner?: CornerStyle;
  readonly width?: number;
}
export interface NodeContour {
  readonly nodes: readonly PathNode[];
  readonly closed: boolean;
}

/** One letter a node in what is stored: c, s, y. */
const LETTERS: Readonly<Record<NodeForm, string>> = { corner: 'c', smooth: 's', symmetric: 'y' };

/** The nodes of a path; kinds as stored (a letter a node), else as the handles look. */
export function nodesOf(path: PathData, kinds?: string): NodeContour[] {
  const contours = rawContours(path);
  const count = contours.reduce((n, c) => n + c.nodes.length, 0);
  const stored = kinds !== undefined && kinds.length === count ? kinds : null;
  let i = 0;
  return contours.map((c) => ({
    ...c,
    nodes: c.nodes.map((n) => ({ ...n, kind: stored ? kindOfLetter(stored[i++]) : kindOf(n) })),
  }));
}

const kindOfLetter = (l: string): NodeForm => (l === 's' ? 'smooth' : l === 'y' ? 'symmetric' : 'corner');

function rawContours(path: PathData): { nodes: Omit<PathNode, 'kind'>[]; closed: boolean }[] {
  const out = contoursOf(path).map(({ segments, closed }) => {
    const nodes: { x: number; y: number; before: Point | null; after: Point | null }[] = [];
    segments.forEach((s, i) => {
      if (i === 0) nodes.push({ x: s.x0, y: s.y0, before: null, after: null });
      const end = closed && i === segments.length - 1 ? nodes[0] : { x: s.x3, y: s.y3, before: null, after: null };
      if (end !== nodes[0]) nodes.push(end);
      if (!s.straight) {
        nodes[i].after = { x: s.x1, y: s.y1 };
        end.before = { x: s.x2, y: s.y2 };
      }
    });
    return { nodes, closed };
  });
  // A path that has only begun: a node and nothing more.
  for (let i = 0; i < path.length; i += 3) {
    if (path[i] !== MOVE) break;
    const next = path[i + 3];
    if (next === undefined || next === MOVE)
      out.push({ nodes: [{ x: path[i + 1], y: path[i + 2], before: null, after: null }], closed: false });
    else break;
  }
  return out;
}

/** What a node is by the look of its handles. */
export function kindOf(n: Pick<PathNode, 'x' | 'y' | 'before' | 'after'>): NodeForm {
  if (!n.before || !n.after) return 'corner';
  const [ax, ay, bx, by] = [n.x - n.before.x, n.y - n.before.y, n.after.x - n.x, n.after.y - n.y];
  const [a, b] = [Math.hypot(ax, ay), Math.hypot(bx, by)];
  if (a < 1e-9 || b < 1e-9) return 'corner';
  const cross = Math.abs(ax * by - ay * bx) / (a * b);
  if (cross > 1e-3 || ax * bx + ay * by <= 0) return 'corner';
  return Math.abs(a - b) <= 1e-3 * Math.max(a, b) ? 'symmetric' : 'smooth';
}

/** Contours of nodes as a path. */
export function pathOfNodes(contours: readonly NodeContour[]): { path: number[]; kinds: string } {
  const path: number[] = [];
  let kinds = '';
  for (const { nodes, closed } of contours) {
    if (!nodes.length) continue;
    path.push(MOVE, nodes[0].x, nodes[0].y);
    for (let i = 0; i < nodes.length; i++) {
      kinds += LETTERS[nodes[i].kind];
      if (i === nodes.length - 1 && !closed) break;
      const [a, b] = [nodes[i], nodes[(i + 1) % nodes.length]];
      const last = i === nodes.length - 1;
      if (!a.after && !b.before) {
        // A closing stroke needs no line of its own.
        if (!last) path.push(LINE, b.x, b.y);
      } else path.push(CUBIC, a.after?.x ?? a.x, a.after?.y ?? a.y, b.before?.x ?? b.x, b.before?.y ?? b.y, b.x, b.y);
    }
    if (closed) path.push(CLOSE);
  }
  return { path, kinds };
}

/** The piece from a node to the next of its contour; null after the last of an open one. */
export function pieceAfter(c: NodeContour, i: number): Segment | null {
  if (i === c.nodes.length - 1 && !c.closed) return null;
  const [a, b] = [c.nodes[i], c.nodes[(i + 1) % c.nodes.length]];
  const isStraight = !a.after && !b.before;
  const p1 = a.after ?? (isStraight ? { x: a.x + (b.x - a.x) / 3, y: a.y + (b.y - a.y) / 3 } : a);
  const p2 = b.before ?? (isStraight ? { x: b.x - (b.x - a.x) / 3, y: b.y - (b.y - a.y) / 3 } : b);
  return { x0: a.x, y0: a.y, x1: p1.x, y1: p1.y, x2: p2.x, y2: p2.y, x3: b.x, y3: b.y, straight: isStraight };
}

/** Where a flat number (contour by contour) stands. */
export function locate(contours: readonly NodeContour[], flat: number): { contour: number; index: number } | null {
  let rest = flat;
  for (const [contour, c] of contours.entries()) {
    if (rest < c.nodes.length) return rest >= 0 ? { contour, index: rest } : null;
    rest -= c.nodes.length;
  }
  return null;
}

/** The flat number of a node. */
export const flatOf = (contours: readonly NodeContour[], contour: number, index: number): number =>
  contours.slice(0, contour).reduce((n, c) => n + c.nodes.length, 0) + index;

/** Is a node the first or last of an open contour? */
export const isEnd = (c: NodeContour, index: number): boolean =>
  !c.closed && (index === 0 || index === c.nodes.length - 1);

/** A node and its handles, moved. */
export function movedNode(n: PathNode, dx: number, dy: number): PathNode {
  const shift = (p: Point | null) => p && { x: p.x + dx, y: p.y + dy };
  return { ...n, x: n.x + dx, y: n.y + dy, before: shift(n.before), after: shift(n.after) };
}

/** A node and its handles, mapped. */
export function mappedNode(n: PathNode, m: Matrix): PathNode {
  return { ...n, ...apply(m, n), before: n.before && apply(m, n.before), after: n.after && apply(m, n.after) };
}

/** A contour run the other way. */
export const reversedContour = (c: NodeContour): NodeContour => {
  const nodes = [...c.nodes].reverse().map((n) => ({ ...n, before: n.after, after: n.before }));
  // A closed one still begins at its node.
  return { closed: c.closed, nodes: c.closed ? [nodes[nodes.length - 1], ...nodes.slice(0, -1)] : nodes };
};

/** Nodes for pieces in a row; the ends of a closed row meet in one node. */
export function nodesOfPieces(pieces: readonly Segment[], closed: boolean): NodeContour {
  const nodes: { x: number; y: number; before: Point | null; after: Point | null }[] = [];
  pieces.forEach((s, i) => {
    if (i === 0) nodes.push({ x: s.x0, y: s.y0, before: null, after: null });
    if (!s.straight) nodes[nodes.length - 1].after = { x: s.x1, y: s.y1 };
    const end = closed && i === pieces.length - 1 ? nodes[0] : { x: s.x3, y: s.y3, before: null, after: null };
    if (!s.straight) end.before = { x: s.x2, y: s.y2 };
    if (end !== nodes[0]) nodes.push(end);
  });
  return { closed, nodes: nodes.map((n) => ({ ...n, kind: kindOf(n) })) };
}
