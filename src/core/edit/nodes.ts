import { fitOne } from '../geometry/fit';
import { invert, multiply, apply, type Matrix, type Point } from '../geometry/matrix';
import { pointOn, tangentOn } from '../geometry/measure';
import { contoursOf } from '../derive/contours';
import {
  flatOf,
  isEnd,
  kindOf,
  locate,
  mappedNode,
  movedNode,
  pathOfNodes,
  pieceAfter,
  reversedContour,
  type NodeContour,
  type NodeForm,
  type PathNode,
} from '../geometry/nodes';
import { splitSegment, type Segment } from '../geometry/segments';
import type { Corner, Design, NodeOf, Page } from '../model/schema';
import { pageMatrix, type NodeId } from '../model/tree';
import { before, type DesignDraft } from './history';
import { deleteNodes } from './remove';

/**
 * Commands on the nodes of paths. Nodes are named by their flat number, contour by contour; points are in the path's
 * own space.
 */

export type NodeSet = ReadonlySet<number>;
type PathObject = NodeOf<'path'>;

/** Writes nodes back. A path that has none left is taken away with its object. */
export function writeContours(d: DesignDraft, page: Page, id: NodeId, contours: readonly NodeContour[]): void {
  const kept = contours.filter((c) => c.nodes.length > 0);
  const node = d.nodes[id] as PathObject | undefined;
  if (node?.kind !== 'path') return;
  if (!kept.length) {
    deleteNodes(d, page, [id]);
    return;
  }
  const target = d.nodes[id] as { -readonly [K in keyof PathObject]: PathObject[K] };
  const all = kept.flatMap((c) => c.nodes);
  const { path, kinds } = pathOfNodes(kept);
  target.path = path;
  target.kinds = kinds;
  const each = Object.fromEntries(all.flatMap((n, i) => (n.corner ? [[String(i), n.corner as Corner]] : [])));
  if (Object.keys(each).length) target.corners = { ...(node.corners?.all && { all: node.corners.all }), each };
  else if (node.corners?.all) target.corners = { all: node.corners.all };
  else delete target.corners;
  if (all.some((n) => n.width !== undefined)) target.widths = all.map((n) => n.width ?? 1);
  else delete target.widths;
}

/** Changes a path's nodes by a function of them. */
function editNodes(
  d: DesignDraft,
  page: Page,
  id: NodeId,
  change: (contours: readonly NodeContour[]) => readonly NodeContour[],
): void {
  const node = before(d).nodes[id] ?? (d as Design).nodes[id];
  if (node?.kind === 'path') writeContours(d, page, id, change(contoursOf(node)));
}

/** Every node through a function that sees its flat number. */
function mapNodes(
  contours: readonly NodeContour[],
  map: (n: PathNode, flat: number, c: NodeContour, index: number) => PathNode,
): NodeContour[] {
  let flat = 0;
  return contours.map((c) => ({ ...c, nodes: c.nodes.map((n, i) => map(n, flat++, c, i)) }));
}

/** Contours with some nodes moved, in the path’s own unit. */
export const shiftNodes = (contours: readonly NodeContour[], nodes: NodeSet, dx: number, dy: number): NodeContour[] =>
  mapNodes(contours, (n, i) => (nodes.has(i) ? movedNode(n, dx, dy) : n));

export type Side = 'before' | 'after';

/**
 * Puts a handle somewhere; the other one of a smooth node stays in line, of a symmetric one mirrors it. `alone`: it
 * breaks free.
 */
export function moveHandle(
  contours: readonly NodeContour[],
  flat: number,
  side: Side,
  to: Point,
  alone = false,
): NodeContour[] {
  const other: Side = side === 'before' ? 'after' : 'before';
  return mapNodes(contours, (n, i) => {
    if (i !== flat) return n;
    const moved = { ...n, [side]: to };
    const opposite = n[other];
    if (alone) return { ...moved, kind: 'corner' };
    if (n.kind === 'corner' || !opposite) return moved;
    const [dx, dy] = [n.x - to.x, n.y - to.y];
    const length = Math.hypot(dx, dy);
    if (length < 1e-9) return moved;
    const far = n.kind === 'symmetric' ? length : Math.hypot(opposite.x - n.x, opposite.y - n.y);
    return { ...moved, [other]: { x: n.x + (dx / length) * far, y: n.y + (dy / length) * far } };
  });
}

/** Makes nodes corners, smooth or symmetric. Smooth ones get handles in line where they had none. */
export function setKind(contours: readonly NodeContour[], nodes: NodeSet, kind: NodeForm): NodeContour[] {
  return mapNodes(contours, (n, i, c, index) => {
    if (!nodes.has(i)) return n;
    if (kind === 'corner') return { ...n, kind };
    const count = c.nodes.length;
    const prev = index > 0 || c.closed ? c.nodes[(index + count - 1) % count] : null;
    const next = index < count - 1 || c.closed ? c.nodes[(index + 1) % count] : null;
    if (!prev || !next) return { ...n, kind };
    // In the direction of the handles it has, else from neighbour to neighbour.
    const from = n.before ?? prev;
    const to = n.after ?? next;
    const [a, b] = [unit(n.x - from.x, n.y - from.y), unit(to.x - n.x, to.y - n.y)];
    const way =
      n.before && n.after
        ? (unit(a.x + b.x, a.y + b.y, null) ?? a)
        : n.before
          ? a
          : n.after
            ? b
            : (unit(next.x - prev.x, next.y - prev.y, null) ?? a);
    let [la, lb] = [n.before ? dist(n, n.before) : dist(n, prev) / 3, n.after ? dist(n, n.after) : dist(n, next) / 3];
    if (kind === 'symmetric') la = lb = (la + lb) / 2;
    // A handle that lies on its node has no direction: it is drawn out.
    if (la < 1e-9) la = dist(n, prev) / 3;
    if (lb < 1e-9) lb = dist(n, next) / 3;
    return {
      ...n,
      kind,
      before: { x: n.x - way.x * la, y: n.y - way.y * la },
      after: { x: n.x + way.x * lb, y: n.y + way.y * lb },
    };
  });
}

const dist = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);
function unit(x: number, y: number): Point;
function unit(x: number, y: number, none: null): Point | null;
function unit(x: number, y: number, none?: null): Point | null {
  const n = Math.hypot(x, y);
  return n > 1e-12 ? { x: x / n, y: y / n } : none === null ? null : { x: 1, y: 0 };
}

/** The pieces that a set of nodes means: those between two of them, or, of a single node, those on its both sides. */
export function piecesBetween(contours: readonly NodeContour[], nodes: NodeSet): { contour: number; index: number }[] {
  const out: { contour: number; index: number }[] = [];
  contours.forEach((c, contour) =>
    c.nodes.forEach((_, index) => {
      if (!pieceAfter(c, index)) return;
      const [a, b] = [flatOf(contours, contour, index), flatOf(contours, contour, (index + 1) % c.nodes.length)];
      if (nodes.size === 1 ? nodes.has(a) || nodes.has(b) : nodes.has(a) && nodes.has(b)) out.push({ contour, index });
    }),
  );
  return out;
}

/** Makes the pieces between nodes straight, or curves that begin as straight. */
export function setPieces(contours: readonly NodeContour[], nodes: NodeSet, shape: 'line' | 'curve'): NodeContour[] {
  const out = contours.map((c) => ({ ...c, nodes: [...c.nodes] }));
  for (const { contour, index } of piecesBetween(contours, nodes)) {
    const list = out[contour].nodes;
    const j = (index + 1) % list.length;
    const piece = pieceAfter(contours[contour], index)!;
    if (shape === 'line') {
      list[index] = { ...list[index], after: null, kind: 'corner' };
      list[j] = { ...list[j], before: null, kind: 'corner' };
    } else if (piece.straight) {
      list[index] = { ...list[index], after: { x: piece.x1, y: piece.y1 } };
      list[j] = { ...list[j], before: { x: piece.x2, y: piece.y2 } };
    }
  }
  return out;
}

/** A node in a piece, at a parameter; the shape stays. Answers the nodes and the new one's number. */
export function addNodeAt(
  contours: readonly NodeContour[],
  contour: number,
  index: number,
  t: number,
): { contours: NodeContour[]; flat: number } {
  const c = contours[contour];
  const [a, b] = splitSegment(pieceAfter(c, index)!, t);
  const list = [...c.nodes];
  const j = (index + 1) % list.length;
  const width =
    list[index].width !== undefined ? { width: (list[index].width ?? 1) * (1 - t) + (list[j].width ?? 1) * t } : {};
  const fresh: PathNode = {
    x: a.x3,
    y: a.y3,
    before: a.straight ? null : { x: a.x2, y: a.y2 },
    after: b.straight ? null : { x: b.x1, y: b.y1 },
    kind: a.straight ? 'corner' : 'smooth',
    ...width,
  };
  if (!a.straight) {
    list[index] = { ...list[index], after: { x: a.x1, y: a.y1 } };
    list[j] = { ...list[j], before: { x: b.x2, y: b.y2 } };
  }
  list.splice(index + 1, 0, fresh);
  return {
    contours: contours.map((o, i) => (i === contour ? { ...o, nodes: list } : o)),
    flat: flatOf(contours, contour, index + 1),
  };
}

/** A node in the middle of every piece between the chosen ones. Answers the numbers of old and new. */
export function addBetween(
  contours: readonly NodeContour[],
  nodes: NodeSet,
): { contours: readonly NodeContour[]; chosen: Set<number> } {
  const pieces = piecesBetween(contours, nodes);
  const places = pieces.map((p) => flatOf(contours, p.contour, p.index) + 1);
  // From the last to the first, so that numbers before stay true.
  const out = pieces.reduceRight<readonly NodeContour[]>(
    (now, p) => addNodeAt(now, p.contour, p.index, 0.5).contours,
    contours,
  );
  const chosen = new Set([...nodes].map((n) => n + places.filter((f) => f <= n).length));
  for (const f of places) chosen.add(f + places.filter((g) => g < f).length);
  return { contours: out, chosen };
}

/**
 * Takes nodes out; where a piece on both sides stays, one curve takes their place that keeps the shape as nearly as one
 * can.
 */
export function removeNodes(contours: readonly NodeContour[], nodes: NodeSet): NodeContour[] {
  return contours.flatMap((c, contour): NodeContour[] => {
    const gone = (i: number) => nodes.has(flatOf(contours, contour, i));
    const stay = c.nodes.flatMap((_, i) => (gone(i) ? [] : [i]));
    if (stay.length === c.nodes.length) return [c];
    // A closed shape of one node, or a line of one, is nothing that can be seen.
    if (stay.length < 2) return [];
    const list = stay.map((i) => ({ ...c.nodes[i] }));
    stay.forEach((i, k) => {
      const last = k === stay.length - 1;
      if (last && !c.closed) {
        list[k].after = null;
        return;
      }
      const next = stay[(k + 1) % stay.length];
      const between = (next - i + c.nodes.length) % c.nodes.length || c.nodes.length;
      if (between === 1) return;
      const pieces = Array.from({ length: between }, (_, n) => pieceAfter(c, (i + n) % c.nodes.length)!);
      const merged = mergedPiece(pieces);
      list[k].after = merged.straight ? null : { x: merged.x1, y: merged.y1 };
      list[(k + 1) % stay.length].before = merged.straight ? null : { x: merged.x2, y: merged.y2 };
    });
    if (!c.closed) list[0].before = null;
    return [{ closed: c.closed && list.length > 1, nodes: list }];
  });
}

/**
 * One piece for several in a row: straight if they all are, else the cubic of the same directions at its ends that lies
 * nearest.
 */
export function mergedPiece(pieces: readonly Segment[]): Segment {
  const [first, last] = [pieces[0], pieces[pieces.length - 1]];
  const whole = { ...first, x3: last.x3, y3: last.y3 };
  if (pieces.every((p) => p.straight)) return { ...whole, straight: true };
  const [t1, t2] = [tangentOn(first, 0), tangentOn(last, 1)];
  const points = pieces.flatMap((p, i) =>
    Array.from({ length: 16 }, (_, k) => pointOn(p, k / 16)).concat(i === pieces.length - 1 ? [pointOn(p, 1)] : []),
  );
  return fitOne(points, t1, { x: -t2.x, y: -t2.y });
}

/**
 * Bends a piece so that its point at `t` goes where the pointer goes; both handles share the way (least change of
 * both).
 */
export function dragPiece(
  contours: readonly NodeContour[],
  contour: number,
  index: number,
  t: number,
  dx: number,
  dy: number,
): NodeContour[] {
  const c = contours[contour];
  const piece = pieceAfter(c, index)!;
  const u = Math.min(0.95, Math.max(0.05, t));
  const [w1, w2] = [3 * u * (1 - u) ** 2, 3 * u * u * (1 - u)];
  const k = w1 * w1 + w2 * w2;
  const j = (index + 1) % c.nodes.length;
  const list = [...c.nodes];
  const after = { x: piece.x1 + (dx * w1) / k, y: piece.y1 + (dy * w1) / k };
  const back = { x: piece.x2 + (dx * w2) / k, y: piece.y2 + (dy * w2) / k };
  let out: NodeContour[] = contours.map((o, i) => (i === contour ? { ...o, nodes: list } : o));
  // Smooth nodes keep the line through them: their other handles follow.
  out = moveHandle(out, flatOf(contours, contour, index), 'after', after, false);
  return moveHandle(out, flatOf(contours, contour, j), 'before', back, false);
}

/** Cuts the line at nodes: a closed contour opens there, an open one falls in two; both new ends lie on the node. */
export function breakAt(contours: readonly NodeContour[], nodes: NodeSet): NodeContour[] {
  return contours.flatMap((c, contour): NodeContour[] => {
    const cuts = c.nodes.flatMap((_, i) => (nodes.has(flatOf(contours, contour, i)) && !isEnd(c, i) ? [i] : []));
    if (!cuts.length) return [c];
    const end = (n: PathNode): PathNode => ({ ...n, after: null, kind: 'corner' });
    const start = (n: PathNode): PathNode => ({ ...n, before: null, kind: 'corner' });
    if (c.closed) {
      // Opened at its first cut, it runs from there round to there.
      const round = [...c.nodes.slice(cuts[0]), ...c.nodes.slice(0, cuts[0])];
      const opened = [start(round[0]), ...round.slice(1), end({ ...round[0] })];
      const rest = cuts.slice(1).map((i) => i - cuts[0]);
      return splitOpen(opened, rest, start, end);
    }
    return splitOpen(c.nodes, cuts, start, end);
  });
}

function splitOpen(
  nodes: readonly PathNode[],
  cuts: readonly number[],
  start: (n: PathNode) => PathNode,
  end: (n: PathNode) => PathNode,
): NodeContour[] {
  const out: NodeContour[] = [];
  let from = 0;
  for (const at of [...cuts, nodes.length - 1]) {
    const part = nodes.slice(from, at + 1);
    if (part.length < 2) continue;
    if (from > 0) part[0] = start(part[0]);
    if (at < nodes.length - 1) part[part.length - 1] = end(part[part.length - 1]);
    out.push({ nodes: part, closed: false });
    from = at;
  }
  return out;
}

/**
 * How a join closes a gap: ends that lie together become one; else they meet in the middle, or a straight piece joins
 * them.
 */
export type JoinHow = 'meet' | 'line';
/** Ends nearer than this are in one place (points). */
const TOGETHER = 0.01;

export interface Joined {
  readonly contours: NodeContour[];
  /** The distance that was closed. */
  readonly gap: number;
}

/** Joins two chosen ends of contours, or the two ends of one; null where not just two ends are chosen. */
export function joinEnds(contours: readonly NodeContour[], nodes: NodeSet, how: JoinHow): Joined | null {
  const ends = [...nodes].flatMap((flat) => {
    const at = locate(contours, flat);
    return at && isEnd(contours[at.contour], at.index) ? [at] : [];
  });
  if (ends.length !== 2) return null;
  const [a, b] = ends;
  const [p, q] = [contours[a.contour].nodes[a.index], contours[b.contour].nodes[b.index]];
  const gap = dist(p, q);
  const meet = how === 'meet' || gap <= TOGETHER;
  const mid = { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
  const merged = (before: PathNode, after: PathNode): PathNode => {
    const [m, n] = [
      movedNode(before, mid.x - before.x, mid.y - before.y),
      movedNode(after, mid.x - after.x, mid.y - after.y),
    ];
    const one = { ...m, after: n.after };
    return { ...one, kind: kindOf(one) };
  };
  const others = contours.filter((_, i) => i !== a.contour && i !== b.contour);
  if (a.contour === b.contour) {
    const { nodes: list } = contours[a.contour];
    if (list.length < 2) return null;
    const closed = meet ? [merged(list[list.length - 1], list[0]), ...list.slice(1, -1)] : list;
    return { contours: contours.map((c, i) => (i === a.contour ? { closed: true, nodes: closed } : c)), gap };
  }
  // The first runs to its joined end, the second on from it.
  const first = a.index === 0 ? reversedContour(contours[a.contour]) : contours[a.contour];
  const second = b.index === 0 ? contours[b.contour] : reversedContour(contours[b.contour]);
  const joint = meet
    ? [merged(first.nodes[first.nodes.length - 1], second.nodes[0])]
    : [first.nodes[first.nodes.length - 1], second.nodes[0]];
  const joined = { closed: false, nodes: [...first.nodes.slice(0, -1), ...joint, ...second.nodes.slice(1)] };
  const at = Math.min(a.contour, b.contour);
  return { contours: [...others.slice(0, at), joined, ...others.slice(at)], gap };
}

/** Takes the contours of another path in, in their place on the page, so that ends of both can be joined. */
export function takeIn(d: DesignDraft, page: Page, into: NodeId, from: NodeId): void {
  const was = before(d);
  const [a, b] = [was.nodes[into], was.nodes[from]];
  if (a?.kind !== 'path' || b?.kind !== 'path') return;
  const back = invert(pageMatrix(was, page, into));
  if (!back) return;
  const map = multiply(back, pageMatrix(was, page, from));
  writeContours(d, page, into, [
    ...contoursOf(a),
    ...contoursOf(b).map((c) => ({ ...c, nodes: c.nodes.map((n) => mappedNode(n, map)) })),
  ]);
  deleteNodes(d, page, [from]);
}

/** Contours run the other way: those that have a chosen node, or all where none is chosen. */
export const reverseContours = (contours: readonly NodeContour[], nodes: NodeSet): NodeContour[] =>
  contours.map((c, contour) =>
    !nodes.size || c.nodes.some((_, i) => nodes.has(flatOf(contours, contour, i))) ? reversedContour(c) : c,
  );

export type NodeAlign = 'left' | 'middle' | 'right' | 'top' | 'centre' | 'foot';
export type NodeSpread = 'across' | 'down';

/** A node of some path, and where it lies on the page. */
export interface PlacedNode {
  readonly object: NodeId;
  readonly flat: number;
  readonly at: Point;
}

/** Where nodes go to be in line, or evenly apart, on the page. */
export function alignedPlaces(nodes: readonly PlacedNode[], how: NodeAlign | NodeSpread): Point[] {
  if (how === 'across' || how === 'down') {
    const key = how === 'across' ? 'x' : 'y';
    const order = nodes.map((_, i) => i).sort((i, j) => nodes[i].at[key] - nodes[j].at[key]);
    const [lo, hi] = [nodes[order[0]].at[key], nodes[order[order.length - 1]].at[key]];
    const out = nodes.map((n) => n.at);
    order.forEach((i, k) => {
      out[i] = { ...nodes[i].at, [key]: lo + ((hi - lo) * k) / Math.max(1, order.length - 1) };
    });
    return out;
  }
  const key = how === 'left' || how === 'middle' || how === 'right' ? 'x' : 'y';
  const values = nodes.map((n) => n.at[key]);
  const [lo, hi] = [Math.min(...values), Math.max(...values)];
  const to = how === 'left' || how === 'top' ? lo : how === 'right' || how === 'foot' ? hi : (lo + hi) / 2;
  return nodes.map((n) => ({ ...n.at, [key]: to }));
}

/** Moves nodes of any number of paths to places on the page, their handles with them. */
export function placeNodes(d: DesignDraft, page: Page, nodes: readonly PlacedNode[], to: readonly Point[]): void {
  const was = before(d);
  for (const object of new Set(nodes.map((n) => n.object))) {
    const back: Matrix | null = invert(pageMatrix(was, page, object));
    if (!back) continue;
    editNodes(d, page, object, (contours) =>
      mapNodes(contours, (n, flat) => {
        const i = nodes.findIndex((x) => x.object === object && x.flat === flat);
        if (i < 0) return n;
        const p = apply(back, to[i]);
        return movedNode(n, p.x - n.x, p.y - n.y);
      }),
    );
  }
}
